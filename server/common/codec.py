"""How records of the core are kept as JSON and brought back: the only place where that is said."""

from __future__ import annotations

from typing import Any, Generic, TypeVar, overload

from pydantic import TypeAdapter

from algebra import Difficulty, JsonObject, Proposal, Report, Scheme, json_object

R = TypeVar("R")


class Codec(Generic[R]):
    """Records of one kind as JSON. Bringing back raises pydantic's ValidationError for what is none of them."""

    def __init__(self, kind: type[R]) -> None:
        self._adapter: TypeAdapter[R] = TypeAdapter(kind)

    @overload
    def kept(self, record: R) -> JsonObject: ...
    @overload
    def kept(self, record: R | None) -> JsonObject | None: ...
    def kept(self, record: R | None) -> JsonObject | None:
        """The record as a JSON column holds it; None for none."""
        return None if record is None else json_object(record)

    def back(self, kept: object) -> R:
        """The record that was kept."""
        return self._adapter.validate_python(kept)

    def back_if_any(self, kept: object) -> R | None:
        """The record that was kept; None where none was."""
        return None if kept is None else self.back(kept)

    @property
    def schema(self) -> dict[str, Any]:
        """The shape of what is kept, as JSON Schema."""
        return self._adapter.json_schema()


REPORTS = Codec(Report)
PROPOSALS = Codec(Proposal)
SCHEMES = Codec(Scheme)
DIFFICULTIES = Codec(Difficulty)
