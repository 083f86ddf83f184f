"""What is said of a working: a link for every line, the answer, what is left to do."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Literal, get_args

from algebra.records import record
from algebra.reports.working import FORMAT
from algebra.tree.vocabulary import FinishCode, LinkKind, Note

Relation = Literal["holds", "widens", "settles", "narrows", "breaks", "unclear"]
RELATIONS: tuple[Relation, ...] = get_args(Relation)
Verdict = Literal["correct", "incomplete", "extraneous", "wrong", "unfinished", "none"]
ErrorCode = Literal["syntax", "scope", "limit", "task", "busy"]
SlipKind = Literal["concept", "procedure", "notation", "care"]
Address = tuple[int, ...]
"""A path of child positions from the root of a line."""

LEFT_OUT = {"left_out_when_none": True}
"""Metadata of a field that the JSON does not have where it is None."""


@record(frozen=True)
class LineError:
    """Why a line can't be read. The given is line 0; the column counts characters from 1."""

    line: int
    column: int
    message: str
    code: ErrorCode


@record(frozen=True)
class PointEvidence:
    """A point at which two lines differ, both worked out; of lines without letters, their values.

    `values` are the letters' values; `before` and `after` are None where a line is undefined there. `plain` is the same
    shape with small whole numbers for its roots, where the same error is plain to see.
    """

    text: str
    values: Mapping[str, str] = field(default_factory=dict)
    before: str | None = None
    after: str | None = None
    plain: str | None = field(default=None, metadata=LEFT_OUT)


@record(frozen=True)
class SolutionEvidence:
    """A value that solves one of two lines and not the other."""

    text: str
    solution: str
    solves: Literal["before", "after"]


Evidence = PointEvidence | SolutionEvidence


@record(frozen=True)
class AlsoMade:
    """A second slip made on the same line."""

    id: str
    name: str
    done: str
    cue: str


@record(frozen=True)
class SlipSeen:
    """A student error that explains a line: what was done, why it fails, its places in both lines, the right line."""

    id: str
    name: str
    kind: SlipKind
    before: tuple[Address, ...]
    after: tuple[Address, ...]
    done: str
    why: str
    cue: str
    instead: str = ""
    also: AlsoMade | None = None


@record(frozen=True)
class MoveSeen:
    """What was done to get to a line, as recognised, and whether it is what the writer states."""

    name: str
    text: str
    stated: str | None = field(default=None, metadata=LEFT_OUT)
    as_stated: bool | None = field(default=None, metadata=LEFT_OUT)


@record(frozen=True)
class Link:
    """What is said of one line, counted from 1; `relation` is None when the line can't be read.

    `excluded` is the given's ledger. `conditions` are what the step needs of the other letters: `a ≠ 0`, `A ≥ 0`.
    """

    line: int
    relation: Relation | None
    kind: LinkKind = "expression"
    move: MoveSeen | None = None
    gained: tuple[str, ...] = ()
    lost: tuple[str, ...] = ()
    reasons: Mapping[str, str] = field(default_factory=dict)
    excluded: tuple[str, ...] = ()
    slip: SlipSeen | None = None
    other_slips: tuple[SlipSeen, ...] = ()
    evidence: Evidence | None = None
    notes: tuple[Note, ...] = ()
    conditions: tuple[str, ...] = ()
    error: LineError | None = None


@record(frozen=True)
class Owed:
    """A candidate that still has to be checked, and why."""

    value: str
    because: str


@record(frozen=True)
class Answer:
    """The answer against what is expected; `follow_through` is its verdict against the broken line, if any."""

    verdict: Verdict
    expected: tuple[str, ...] = ()
    given: tuple[str, ...] = ()
    missing: tuple[str, ...] = ()
    extra: tuple[str, ...] = ()
    slips: tuple[str, ...] = ()
    follow_through: Verdict | None = None
    text: str = ""


@record(frozen=True)
class Remaining:
    """Something still to be done to the answer; `at` are addresses in the last line."""

    code: FinishCode
    at: tuple[Address, ...]
    text: str


@record(frozen=True)
class Finish:
    """Whether the answer is right and in its final form, and what is left to do."""

    finished: bool
    remaining: tuple[Remaining, ...] = ()


@record(frozen=True)
class Report:
    """Everything that is said of a working. `ms` is what the check took, in milliseconds, as its caller measured it."""

    id: str | int | None
    links: tuple[Link, ...]
    owed: tuple[Owed, ...]
    answer: Answer
    finish: Finish
    excluded: tuple[str, ...]
    error: LineError | None
    ms: float = 0.0
    format: Literal[1] = FORMAT

    @classmethod
    def of_refused(cls, identity: str | int | None, error: LineError, links: tuple[Link, ...] = ()) -> Report:
        """The report of an input that is no working: nothing was judged, and the error says why."""
        return cls(identity, links, (), Answer("none"), Finish(False), (), error)

    @property
    def sound(self) -> bool:
        """Whether no link breaks, narrows or is unclear, and the answer is correct and finished."""
        good = all(link.relation in ("holds", "widens", "settles") for link in self.links)
        return good and self.answer.verdict == "correct" and self.finish.finished and self.error is None
