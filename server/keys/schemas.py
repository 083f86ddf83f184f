"""A pasted key and what is said of it."""

from __future__ import annotations

from ninja import Field, Schema
from pydantic import field_validator

from algebra import MAX_KEY_CHARACTERS
from server.sheets.schemas import Bead


class KeyIn(Schema):
    text: str = Field(max_length=MAX_KEY_CHARACTERS)
    conventions: dict[str, str] = {}


class KeySheetIn(KeyIn):
    """A key that becomes a sheet with this title."""

    title: str = Field(max_length=120)

    @field_validator("title")
    @classmethod
    def _titled(cls, title: str) -> str:
        title = title.strip()
        if not title:
            raise ValueError("The sheet needs a title.")
        return title


class FindingOut(Schema):
    """Something to be looked at. `line` counts the working's lines from 1 (0 is the given, null the whole), `place` the lines of
    the text."""

    line: int | None
    place: int | None
    kind: str
    text: str
    instead: str


class KeyProblemOut(Schema):
    label: str
    at: int
    places: list[int]
    task: str
    given: str
    given_latex: str
    lines: list[str]
    beads: list[Bead]
    verdict: str
    finished: bool
    findings: list[FindingOut]


class SkippedOut(Schema):
    line: int
    text: str


class KeyOut(Schema):
    """The problems found, in their order, and the lines that are no mathematics."""

    problems: list[KeyProblemOut]
    skipped: list[SkippedOut]
    faulty: int
