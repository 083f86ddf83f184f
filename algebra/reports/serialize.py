"""Records to plain JSON values."""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import fields, is_dataclass
from functools import cache
from typing import Any, TypeAlias

JsonValue: TypeAlias = "bool | int | float | str | list[JsonValue] | dict[str, JsonValue] | None"
JsonObject: TypeAlias = dict[str, JsonValue]


def json_object(record: Any) -> JsonObject:
    """A record as a JSON object of its fields. Raises TypeError for what holds anything but records, lists and
    scalars."""
    return {
        name: json_value(value)
        for name, optional in _fields_of(record.__class__)
        if (value := getattr(record, name)) is not None or not optional
    }


def json_value(value: Any) -> JsonValue:
    """A scalar as it is, a tuple as a list, a record or mapping as an object. Raises TypeError for anything else."""
    if value is None or isinstance(value, str | int | float):
        return value
    if isinstance(value, tuple | list):
        return [json_value(item) for item in value]
    if isinstance(value, Mapping):
        return {str(key): json_value(item) for key, item in value.items()}
    if is_dataclass(value):
        return json_object(value)
    raise TypeError(f"a {type(value).__name__} has no JSON form")


@cache
def _fields_of(kind: Hashable) -> tuple[tuple[str, bool], ...]:
    """The names of a record's fields, and whether each is left out where it is None."""
    found = fields(kind)  # type: ignore[arg-type]  # a cache takes anything that can be hashed
    return tuple((f.name, bool(f.metadata.get("left_out_when_none"))) for f in found)
