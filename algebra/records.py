"""Records that don't change: dataclasses with slots, compared and hashed by their fields.

That nothing assigns to them is held up by the type checker (`frozen=True`). A frozen dataclass of the library holds it
up while the program runs, too, by filling every field through `object.__setattr__`: making one then takes twice as
long, and a line is hundreds of them.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, fields
from typing import Any, TypeVar, dataclass_transform

T = TypeVar("T")


@dataclass_transform()
def record(*, frozen: bool) -> Callable[[type[T]], type[T]]:
    """A class decorator: a record with the annotated fields. Only frozen ones are made."""
    if not frozen:
        raise ValueError("a record that changes is an ordinary dataclass")
    return dataclass(slots=True, unsafe_hash=True)


def widened(kind: type[T], record: Any, **more: Any) -> T:
    """The record as one of a kind that has all of its fields and more."""
    return kind(**{f.name: getattr(record, f.name) for f in fields(record)}, **more)
