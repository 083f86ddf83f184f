"""The published shape of a working and of what is said of it (format 1). Fields are added, never renamed."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Field, Schema

from algebra import limits

RelationName = Literal["holds", "widens", "settles", "narrows", "breaks", "unclear"]
LineText = str


class WorkingIn(Schema):
    """A working as `./uchuu check --jsonl` reads it."""

    id: str | int | None = None
    task: str = Field(max_length=20)
    given: str = Field(max_length=limits.MAX_LINE_CHARACTERS)
    variable: str | None = Field(None, max_length=40)
    numbers: str = Field("real", max_length=10)
    conventions: dict[str, str] = {}
    lines: list[str] = Field(default_factory=list, max_length=limits.MAX_LINES)
    assume: list[str] = Field(default_factory=list, max_length=20)


class ErrorOut(Schema):
    line: int
    column: int
    message: str
    code: Literal["syntax", "scope", "limit", "task"]


class MoveOut(Schema):
    name: str
    text: str
    stated: str | None = None
    as_stated: bool | None = None


class AlsoOut(Schema):
    """A second slip made on the same line."""

    id: str
    name: str
    done: str
    cue: str


class SlipOut(Schema):
    id: str
    name: str
    kind: Literal["concept", "procedure", "notation", "care"]
    before: list[list[int]]
    after: list[list[int]]
    done: str
    why: str
    cue: str
    instead: str
    also: AlsoOut | None = None


class EvidenceOut(Schema):
    """Either `values` with `before` and `after`, or a `solution` and which line it `solves`."""

    text: str
    values: dict[str, str] | None = None
    before: str | None = None
    after: str | None = None
    solution: str | None = None
    solves: Literal["before", "after"] | None = None
    plain: str | None = None


class LinkOut(Schema):
    line: int
    relation: RelationName | None
    kind: str
    move: MoveOut | None
    gained: list[str]
    lost: list[str]
    reasons: dict[str, str]
    excluded: list[str]
    slip: SlipOut | None
    other_slips: list[SlipOut]
    evidence: EvidenceOut | None
    notes: list[str]
    conditions: list[str]
    error: ErrorOut | None


class OwedOut(Schema):
    value: str
    because: str


class AnswerOut(Schema):
    verdict: Literal["correct", "incomplete", "extraneous", "wrong", "unfinished", "none"]
    expected: list[str]
    given: list[str]
    missing: list[str]
    extra: list[str]
    slips: list[str]
    follow_through: str | None
    text: str


class RemainingOut(Schema):
    code: str
    at: list[list[int]]
    text: str


class FinishOut(Schema):
    finished: bool
    remaining: list[RemainingOut]


class ReportOut(Schema):
    """What is said of a working."""

    format: Literal[1]
    id: str | int | None
    links: list[LinkOut]
    owed: list[OwedOut]
    answer: AnswerOut
    finish: FinishOut
    excluded: list[str]
    error: ErrorOut | None
    ms: float


class EchoIn(Schema):
    text: str = Field(max_length=limits.MAX_LINE_CHARACTERS)
    decimal: Literal["point", "comma"] = "point"


class EchoOut(Schema):
    """A line as understood: LaTeX left of the relation sign and from it on; or the error with its column."""

    kind: str = ""
    left: str = ""
    right: str = ""
    plain: str = ""
    prefix: str = ""
    move: str = ""
    remark: str = ""
    notes: list[str] = []
    error: ErrorOut | None = None


JsonObject = dict[str, Any]
