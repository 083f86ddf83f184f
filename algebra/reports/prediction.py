"""Wrong answers to expect, and multiple-choice options made from them."""

from __future__ import annotations

from typing import Literal, get_args

from algebra.records import record
from algebra.reports.echo import Echo
from algebra.reports.report import Evidence, LineError, SlipKind
from algebra.reports.working import FORMAT

OptionOrder = Literal["shuffled", "ascending", "trap-first"]
OPTION_ORDERS: tuple[OptionOrder, ...] = get_args(OptionOrder)


@record(frozen=True)
class WrongAnswer:
    """A wrong answer, the whole wrong working, and the line of it (from 1) at which it parts from the right one.

    `names`, `why`, `cue` and `kind` are those of its slips, the first one's; `weight` is how likely it is against the
    others; `roads` how many slips lead to it.
    """

    answer: str
    slips: tuple[str, ...]
    at_line: int
    done: str
    lines: tuple[str, ...]
    refutation: Evidence | None
    weight: float
    roads: int
    names: tuple[str, ...]
    why: str
    cue: str
    kind: SlipKind
    answer_latex: str


@record(frozen=True)
class TypesetWrongAnswer(WrongAnswer):
    """A wrong answer with the lines of its working set for a screen."""

    echoes: tuple[Echo, ...] = ()


@record(frozen=True)
class Unfinished:
    """An equal answer that stops too soon, and the finish code of what is missing."""

    answer: str
    missing: str
    answer_latex: str


@record(frozen=True)
class PredictionReport:
    """The right answer, the wrong ones foreseen, the likeliest first, and the equal ones that stop too soon."""

    answer: tuple[str, ...]
    wrong: tuple[WrongAnswer, ...]
    unfinished: tuple[Unfinished, ...]
    error: LineError | None = None
    id: str | int | None = None
    format: Literal[1] = FORMAT


@record(frozen=True)
class Option:
    """One option of a multiple-choice item: the right answer, or a wrong one with the reason behind it."""

    answer: str
    right: bool
    reason: str
    slips: tuple[str, ...]
    answer_latex: str


@record(frozen=True)
class OptionsReport:
    """The options of a multiple-choice item, in the order asked for."""

    options: tuple[Option, ...]
    error: LineError | None = None
    format: Literal[1] = FORMAT
