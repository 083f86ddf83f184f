"""The records that go in and come out: a working, its conventions, and what is said of every line."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any, Literal

from algebra.records import record

FORMAT = 1
TASKS = ("evaluate", "simplify", "factor", "expand", "solve", "domain", "analyze")
EXPRESSION_TASKS = frozenset({"evaluate", "simplify", "factor", "expand"})
Relation = Literal["holds", "widens", "settles", "narrows", "breaks", "unclear"]
RELATIONS: tuple[Relation, ...] = ("holds", "widens", "settles", "narrows", "breaks", "unclear")
Verdict = Literal["correct", "incomplete", "extraneous", "wrong", "unfinished", "none"]

CONVENTIONS: dict[str, tuple[str, ...]] = {
    "decimal": ("point", "comma"),
    "fractions": ("improper", "mixed"),
    "root_denominators": ("clear", "allow"),
    "powers": ("evaluate", "leave"),
    "solutions": ("listed", "plus-minus"),
    "roots_of_letters": ("any-real", "non-negative"),
    "checks_after_squaring": ("always", "when-gained", "never"),
    "restrictions": ("optional", "required"),
    "product": ("dot", "cross"),
    "moves": ("below", "margin", "carried"),
    "order_name": ("PEMDAS", "BODMAS", "BIDMAS", "GEMDAS"),
}
"""Every convention with its positions, the default first."""


class TaskError(ValueError):
    """The working as a whole can't be taken: an unknown task, convention or number system."""


@record(frozen=True)
class Working:
    """A problem and the lines written under it, as typed.

    `conventions` holds only what differs from the defaults.
    """

    task: str
    given: str
    lines: tuple[str, ...] = ()
    variable: str | None = None
    numbers: str = "real"
    conventions: dict[str, str] = field(default_factory=dict)
    assume: tuple[str, ...] = ()
    id: str | None = None
    method: str | None = None  # the method that the task names, where it does

    def validate(self) -> None:
        """Raises TaskError naming the first thing that is unknown."""
        if self.task not in TASKS and self.task != "analyse":
            raise TaskError(f"Unknown task “{self.task}”; it is one of {', '.join(TASKS)}.")
        if self.numbers not in ("real", "complex"):
            raise TaskError(f"Unknown numbers “{self.numbers}”: real or complex.")
        for key, value in self.conventions.items():
            if key not in CONVENTIONS:
                raise TaskError(f"Unknown convention “{key}”; known are {', '.join(CONVENTIONS)}.")
            if value not in CONVENTIONS[key]:
                raise TaskError(f"The convention {key} is one of {', '.join(CONVENTIONS[key])}, not “{value}”.")

    def convention(self, key: str) -> str:
        """The position in force."""
        return self.conventions.get(key, CONVENTIONS[key][0])


@dataclass(frozen=True, slots=True)
class LineError:
    """Why a line can't be read: `code` is syntax, scope, limit or task; the column counts from 1."""

    line: int
    column: int
    message: str
    code: str


@dataclass(frozen=True, slots=True)
class Evidence:
    """What shows that a link breaks or narrows. Either `values` with both worked out, or a `solution`."""

    text: str
    values: dict[str, str] | None = None
    before: str | None = None
    after: str | None = None
    solution: str | None = None
    solves: str | None = None
    plain: str | None = None  # the same shape with small whole numbers, where the same error is plain to see

    def to_json(self) -> dict[str, Any]:
        if self.solution is not None:
            return {"solution": self.solution, "solves": self.solves, "text": self.text}
        shown = {"values": self.values or {}, "before": self.before, "after": self.after, "text": self.text}
        return shown | {"plain": self.plain} if self.plain else shown


@dataclass(frozen=True, slots=True)
class SlipSeen:
    """A student error that explains a line: what was done, why it fails, the cue, its places in both lines, the right line."""

    id: str
    name: str
    kind: str
    before: list[list[int]]
    after: list[list[int]]
    done: str
    why: str
    cue: str
    instead: str = ""
    also: dict[str, str] | None = None  # a second slip made on the same line: id, name, done, cue

    def to_json(self) -> dict[str, Any]:
        return {
            "id": self.id, "name": self.name, "kind": self.kind, "before": self.before, "after": self.after, "done": self.done,
            "why": self.why, "cue": self.cue, "instead": self.instead, "also": self.also,
        }  # fmt: skip


@dataclass(frozen=True, slots=True)
class MoveSeen:
    """What was done to get to a line, as recognised, and whether it is what the writer states."""

    name: str
    text: str
    stated: str | None = None
    as_stated: bool | None = None

    def to_json(self) -> dict[str, Any]:
        found: dict[str, Any] = {"name": self.name, "text": self.text}
        if self.stated is not None:
            found |= {"stated": self.stated, "as_stated": self.as_stated}
        return found


@dataclass(slots=True)
class Link:
    """What is said of one line; `relation` is None when the line can't be read.

    `conditions` are what the step needs of the other letters: `a ≠ 0`, `A ≥ 0`.
    """

    line: int
    relation: Relation | None
    kind: str = "expression"
    move: MoveSeen | None = None
    gained: list[str] = field(default_factory=list)
    lost: list[str] = field(default_factory=list)
    reasons: dict[str, str] = field(default_factory=dict)
    evidence: Evidence | None = None
    notes: list[str] = field(default_factory=list)
    conditions: list[str] = field(default_factory=list)
    slip: SlipSeen | None = None
    other_slips: list[SlipSeen] = field(default_factory=list)
    error: LineError | None = None


@dataclass(frozen=True, slots=True)
class Owed:
    """A candidate that still has to be checked, and why."""

    value: str
    because: str


@dataclass(frozen=True, slots=True)
class Answer:
    """The answer against what is expected; `follow_through` is its verdict against the broken line, if any."""

    verdict: Verdict
    expected: list[str] = field(default_factory=list)
    given: list[str] = field(default_factory=list)
    missing: list[str] = field(default_factory=list)
    extra: list[str] = field(default_factory=list)
    slips: list[str] = field(default_factory=list)
    follow_through: Verdict | None = None
    text: str = ""


@dataclass(frozen=True, slots=True)
class Remaining:
    """Something still to be done to the answer; `at` are addresses in the last line."""

    code: str
    text: str
    at: tuple[tuple[int, ...], ...] = ()


@dataclass(slots=True)
class Report:
    """Everything that is said of a working."""

    id: str | None
    links: list[Link]
    owed: list[Owed]
    answer: Answer
    remaining: list[Remaining]
    excluded: list[str]
    error: LineError | None
    ms: float = 0.0

    @classmethod
    def of_refused(cls, identity: str | None, message: str) -> Report:
        """The report of an input that is no working: nothing was judged, and the error says why."""
        return cls(identity, [], [], Answer("none"), [], [], LineError(0, 1, message, "task"))

    @property
    def finished(self) -> bool:
        return not self.remaining and self.answer.verdict == "correct"

    @property
    def sound(self) -> bool:
        """Whether no link breaks, narrows or is unclear, and the answer is correct and finished."""
        good = all(link.relation in ("holds", "widens", "settles") for link in self.links)
        return good and self.answer.verdict == "correct" and self.finished and self.error is None

    def to_json(self) -> dict[str, Any]:
        """The object of format 1, with plain JSON values only."""
        return {
            "format": FORMAT,
            "id": self.id,
            "links": [self._link(link) for link in self.links],
            "owed": [plain_record(owed) for owed in self.owed],
            "answer": plain_record(self.answer),
            "finish": {"finished": self.finished, "remaining": [self._remaining(r) for r in self.remaining]},
            "excluded": self.excluded,
            "error": plain_record(self.error) if self.error else None,
            "ms": round(self.ms, 2),
        }

    def _link(self, link: Link) -> dict[str, Any]:
        return {
            "line": link.line,
            "relation": link.relation,
            "kind": link.kind,
            "move": link.move.to_json() if link.move else None,
            "gained": link.gained,
            "lost": link.lost,
            "reasons": link.reasons,
            "excluded": self.excluded,
            "slip": link.slip.to_json() if link.slip else None,
            "other_slips": [slip.to_json() for slip in link.other_slips],
            "evidence": link.evidence.to_json() if link.evidence else None,
            "notes": link.notes,
            "conditions": link.conditions,
            "error": plain_record(link.error) if link.error else None,
        }

    @staticmethod
    def _remaining(remaining: Remaining) -> dict[str, Any]:
        return {"code": remaining.code, "at": [list(a) for a in remaining.at], "text": remaining.text}


def plain_record(record: Any) -> dict[str, Any]:
    """A flat record as a dictionary of its fields."""
    return {f.name: getattr(record, f.name) for f in fields(record)}
