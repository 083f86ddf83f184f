"""Checking without storing anything."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict

from algebra import ReadingError, Working, check, echo
from server.checking.schemas import EchoOut, JsonObject, WorkingIn


def check_working(data: WorkingIn) -> JsonObject:
    """The report on a working that is not stored."""
    working = Working(
        task=data.task,
        given=data.given,
        lines=tuple(data.lines),
        variable=data.variable,
        numbers=data.numbers,
        conventions=data.conventions,
        assume=tuple(data.assume),
        id=None if data.id is None else str(data.id),
    )
    return {**check(working).to_json(), "id": data.id}


def echo_line(text: str, decimal: str = "point", marks: Mapping[tuple[int, ...], str] | None = None) -> EchoOut:
    """The line as the core understood it, with places marked, or its error; never raises for what can't be read."""
    try:
        return EchoOut(**asdict(echo(text, decimal=decimal, marks=marks)))
    except ReadingError as problem:
        error = {"line": 0, "column": problem.column, "message": problem.message, "code": problem.code}
        return EchoOut(error=error)  # type: ignore[arg-type]
