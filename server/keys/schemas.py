"""A pasted key and what is said of it."""

from __future__ import annotations

from ninja import Field, Schema

from algebra import MAX_KEY_CHARACTERS, Finding, PassedOver, Verdict
from server.common.schemas import Text, Title
from server.sheets.schemas import Bead


class KeyIn(Schema):
    text: Text = Field(max_length=MAX_KEY_CHARACTERS)
    conventions: dict[str, str] = {}


class KeySheetIn(KeyIn):
    """A key that becomes a sheet with this title."""

    title: Title


class KeyProblemOut(Schema):
    """One problem of a key: where it starts in the text and where its lines stand, its tiny chain, what was found."""

    label: str
    at: int
    places: list[int]
    task: str
    given: str
    given_latex: str
    lines: list[str]
    beads: list[Bead]
    verdict: Verdict
    finished: bool
    findings: list[Finding]


class KeyOut(Schema):
    """The problems found, in their order, and the lines that are no mathematics."""

    problems: list[KeyProblemOut]
    skipped: list[PassedOver]
    faulty: int


class KeyRunOut(Schema):
    """A key that is proof-read among the jobs: how far it is, what was found so far, and which problems came to
    nothing."""

    id: int
    total: int
    done: int
    ended: bool
    trouble: list[str]
    found: KeyOut


class TitleIn(Schema):
    title: Title
