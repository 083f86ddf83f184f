"""The JSON form of a working, one object."""

from __future__ import annotations

from typing import Any

from algebra import TaskError, Working

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


def working_from_json(data: Any) -> Working:
    """The working; raises TaskError naming the field that is missing, unknown or of the wrong kind."""
    if not isinstance(data, dict):
        raise TaskError("A working is a JSON object.")
    for key, value in data.items():
        if key not in _FIELDS:
            raise TaskError(f"Unknown field “{key}”.")
        if not isinstance(value, _FIELDS[key]):
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
