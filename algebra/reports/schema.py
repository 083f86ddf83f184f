"""What a JSON Schema made from the records must say besides: which fields are always there."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import fields, is_dataclass
from typing import Any

from algebra.reports import echo, features, items, prediction, proofs, report, side_work, solution


def records() -> Iterator[type]:
    """Every record that is given out."""
    for module in (report, side_work, solution, prediction, features, proofs, echo, items):
        for kind in vars(module).values():
            if isinstance(kind, type) and is_dataclass(kind) and kind.__module__ == module.__name__:
                yield kind


def complete(definitions: Mapping[str, dict[str, Any]]) -> None:
    """Marks in place, in the definitions of records by their names, the fields that every JSON object of theirs has."""
    for kind in records():
        definition = definitions.get(kind.__name__)
        if definition is not None:
            always = [f.name for f in fields(kind) if not f.metadata.get("left_out_when_none")]
            definition["required"] = always
            for name in always:
                definition["properties"][name].pop("default", None)
