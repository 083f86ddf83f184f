"""What the commands share: arguments, reading JSON lines, measuring a check, printing objects."""

from __future__ import annotations

import argparse
import json
from collections.abc import Callable
from typing import Any, TextIO

from algebra import JsonObject, json_object

SOUND, UNSOUND, UNREADABLE = 0, 1, 2
"""Exit statuses: all is well; something does not hold; the input can't be read."""


def parsed(parser: argparse.ArgumentParser, arguments: list[str]) -> argparse.Namespace | int:
    """The options, or the exit status where the arguments are wrong or help was asked for."""
    try:
        return parser.parse_args(arguments)
    except SystemExit as stop:
        return int(stop.code or 0)


def put(record: Any, out: TextIO) -> None:
    """A record as one JSON object on one line."""
    put_object(json_object(record), out)


def put_object(data: JsonObject, out: TextIO) -> None:
    """An object on one line."""
    print(json.dumps(data, ensure_ascii=False), file=out)


def lines_of(text: str) -> list[str]:
    """The lines of JSON lines that hold anything: by line feeds alone, for other separators may stand in a text."""
    return [line for line in text.split("\n") if line.strip()]


def each_line(text: str, out: TextIO, answer: Callable[[dict[str, Any]], JsonObject]) -> int:
    """One JSON object a line in, one a line out, in the same order; bad ones are told and passed over."""
    status = SOUND
    for line in lines_of(text):
        try:
            data = json.loads(line)
            if not isinstance(data, dict):
                raise ValueError("a JSON object is expected on each line")
        except (ValueError, RecursionError) as problem:
            error: JsonObject = {"line": 0, "column": 1, "message": f"Not JSON: {problem}", "code": "task"}
            put_object({"format": 1, "id": None, "error": error}, out)
            status = UNREADABLE
            continue
        found = answer(data)
        put_object(found, out)
        if found.get("error"):
            status = UNREADABLE
    return status
