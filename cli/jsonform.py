"""The JSON form of a working, one object."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from algebra import JsonObject, TaskError, Working

_FIELDS = {
    "id": (str, int, type(None)),
    "task": (str,),
    "given": (str,),
    "variable": (str, type(None)),
    "numbers": (str,),
    "conventions": (dict,),
    "lines": (list,),
    "assume": (list,),
    "format": (int,),
    "method": (str, type(None)),
}


def ignored_in(data: Any, *further: str) -> list[str]:
    """The fields of an object that say nothing here; `further` are fields that the command knows beside a working's."""
    return [key for key in data if key not in _FIELDS and key not in further] if isinstance(data, dict) else []


def with_note(answer: JsonObject, ignored: Sequence[str]) -> JsonObject:
    """An answer that says which fields of the question were ignored; as it is where there are none."""
    return {**answer, "ignored": list(ignored)} if ignored else answer


def working_from_json(data: Any) -> Working:
    """The working, fields that are not known ignored; raises TaskError naming the field that is missing or of the wrong
    kind."""
    if not isinstance(data, dict):
        raise TaskError("A working is a JSON object.")
    for key, value in data.items():
        if key in _FIELDS and not isinstance(value, _FIELDS[key]):
            raise TaskError(f"The field “{key}” has the wrong kind of value.")
    for key in ("task", "given"):
        if key not in data:
            raise TaskError(f"The field “{key}” is missing.")
    for key in ("lines", "assume"):
        if not all(isinstance(item, str) for item in data.get(key, [])):
            raise TaskError(f"“{key}” holds texts only.")
    conventions = {str(key): str(value) for key, value in data.get("conventions", {}).items()}
    working = Working(
        task=data["task"],
        given=data["given"],
        lines=tuple(data.get("lines", [])),
        variable=data.get("variable"),
        numbers=data.get("numbers", "real"),
        conventions=conventions,
        assume=tuple(data.get("assume", [])),
        id=data.get("id"),
        method=data.get("method"),
    )
    working.validate()
    return working
