"""What the commands share: reading JSON lines, telling errors, printing objects."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any, TextIO

SOUND, UNSOUND, UNREADABLE = 0, 1, 2


def put(data: Any, out: TextIO) -> None:
    """One object on one line."""
    print(json.dumps(data, ensure_ascii=False), file=out)


def each_line(text: str, out: TextIO, answer: Callable[[dict[str, Any]], dict[str, Any]]) -> int:
    """One JSON object a line in, one a line out, in the same order; bad ones are told and passed over."""
    status = SOUND
    for line in text.splitlines():
        if not line.strip():
            continue
        try:
            data = json.loads(line)
            if not isinstance(data, dict):
                raise ValueError("a JSON object is expected on each line")
        except ValueError as problem:
            put(
                {
                    "format": 1,
                    "id": None,
                    "error": {"line": 0, "column": 1, "message": f"Not JSON: {problem}", "code": "task"},
                },
                out,
            )
            status = UNREADABLE
            continue
        found = answer(data)
        put(found, out)
        if found.get("error"):
            status = UNREADABLE
    return status
