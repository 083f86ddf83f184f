"""Worked solutions: their steps, their difficulty, the next step, the methods side by side, problems of a family."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Literal, get_args

from algebra.records import record
from algebra.reports.echo import Echo
from algebra.reports.report import LEFT_OUT, LineError
from algebra.reports.side_work import SideWork
from algebra.reports.working import FORMAT

Grain = Literal["every", "board", "brief"]
GRAINS: tuple[Grain, ...] = get_args(Grain)
MarkKind = Literal["cancel", "carry", "focus"]


@record(frozen=True)
class Mark:
    """A term to be coloured: `before` stands in the line before, `after` in the line after; either may be None.

    Marks of one pair share a `group`.
    """

    kind: MarkKind
    before: str | None
    after: str | None
    group: int = 0


@record(frozen=True)
class Difficulty:
    """`rating` from 1 to 10; `parts`: steps, search, numbers, noticing, length, in points before they are scaled.

    The rating is None where the problem is not worked.
    """

    rating: float | None
    parts: Mapping[str, float] = field(default_factory=dict)
    noticed: tuple[str, ...] = ()


@record(frozen=True)
class SolutionStep:
    """One line: `after` follows from `before` by the rule; `move` is what was done to both sides; `text` is both
    together.

    `slips` are the student errors that lurk in the rule, `lurking` what they are called; `noticed` is what had to be
    noticed. The LaTeX stands there where it was asked for.
    """

    before: str
    after: str
    kind: str
    move: str | None
    rule: str
    name: str
    reason: str
    side_work: tuple[SideWork, ...]
    slips: tuple[str, ...]
    excluded: tuple[str, ...]
    marks: tuple[Mark, ...]
    text: str
    lurking: tuple[str, ...]
    noticed: tuple[str, ...]
    before_latex: str | None = field(default=None, metadata=LEFT_OUT)
    after_latex: str | None = field(default=None, metadata=LEFT_OUT)


@record(frozen=True)
class TypesetStep(SolutionStep):
    """A step with both its lines set for a screen, the places marked where it acts."""

    before_echo: Echo = Echo()
    after_echo: Echo = Echo()


@record(frozen=True)
class SolutionReport:
    """A worked solution, or the error of what is not worked. Every expression is in the plain notation and can be fed
    back in.

    `already` says of a problem with nothing left to do that it is its own answer: no steps then, and no method.
    """

    id: str | int | None
    family: str
    method: str
    answer: tuple[str, ...]
    steps: tuple[SolutionStep, ...]
    difficulty: Difficulty
    not_yet: tuple[str, ...]
    error: LineError | None = None
    already: str = ""
    format: Literal[1] = FORMAT


@record(frozen=True)
class MethodRow:
    """A method that applies: how many lines it takes and how hard it is."""

    method: str
    lines: int
    answer: tuple[str, ...]
    difficulty: Difficulty


@record(frozen=True)
class MethodsReport:
    """The methods that lead to the answer of a problem, the default first; `already` where nothing is left to do."""

    methods: tuple[MethodRow, ...]
    error: LineError | None = None
    already: str = ""
    format: Literal[1] = FORMAT


@record(frozen=True)
class DrawnProblem:
    """A problem of a family with its answer. In a ladder, `level` is that of its family and `adds` what it asks that
    the one before did not."""

    task: str
    given: str
    variable: str | None
    answer: tuple[str, ...]
    method: str
    difficulty: Difficulty
    numbers: str = "real"
    family: str | None = field(default=None, metadata=LEFT_OUT)
    level: int | None = field(default=None, metadata=LEFT_OUT)
    adds: str | None = field(default=None, metadata=LEFT_OUT)


@record(frozen=True)
class DrawnProblems:
    """Problems of a family, as many as were asked for or as it has."""

    problems: tuple[DrawnProblem, ...]
    error: LineError | None = None
    format: Literal[1] = FORMAT
