"""What is given for a worked solution, the next step, and the features of a function."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Field, Schema

from algebra import limits
from server.checking.schemas import EchoOut

OrderName = Literal["shuffled", "ascending", "trap-first"]
GrainName = Literal["every", "board", "brief"]


class DifficultyOut(Schema):
    rating: float
    parts: dict[str, float]
    noticed: list[str]


class StepOut(Schema):
    """One step of a worked solution: both lines typeset with the places where it acts, the rule, the side work.

    `slips` are the student errors that lurk in it, `lurking` what they are called.
    """

    before: str
    after: str
    text: str
    kind: str
    move: str | None
    rule: str
    name: str
    reason: str
    side_work: list[dict[str, Any]]
    slips: list[str]
    lurking: list[str]
    excluded: list[str]
    noticed: list[str]
    before_echo: EchoOut
    after_echo: EchoOut


class SolutionOut(Schema):
    """A problem worked by one method."""

    method: str
    name: str
    description: str
    searches: str
    answer: list[str]
    steps: list[StepOut]
    difficulty: DifficultyOut
    not_yet: list[str]


class MethodsOut(Schema):
    """The methods that lead to the answer, the default first; `why_none` where there is none."""

    family: str
    given_echo: EchoOut
    methods: list[SolutionOut]
    why_none: str


class NextIn(Schema):
    """The lines so far, stored or not."""

    lines: list[str] = Field(max_length=limits.MAX_LINES)


class HintOut(Schema):
    """What to look at, then the rule, then the line."""

    look: str
    step: StepOut | None
    method: str
    shorter: str
    done: bool


class AnalysisOut(Schema):
    """The features of a rational function and its graph as data; `error` where it is none."""

    excluded: list[str]
    holes: list[list[str]]
    vertical_asymptotes: list[str]
    horizontal_asymptote: str | None
    oblique_asymptote: str | None
    x_intercepts: list[str]
    y_intercept: str | None
    end_behaviour: dict[str, str]
    range: str | None
    grid_points: list[list[str]]
    graph: dict[str, Any] | None = None
    error: str | None = None


class RefutationOut(Schema):
    text: str
    plain: str | None = None


class WayOut(Schema):
    """A wrong answer to expect: its slips, where it parts from the right working, the whole wrong working typeset."""

    answer: str
    answer_latex: str
    slips: list[str]
    names: list[str]
    done: str
    why: str
    cue: str
    kind: str
    at_line: int
    lines: list[str]
    echoes: list[EchoOut]
    refutation: RefutationOut | None
    roads: int


class UnfinishedOut(Schema):
    answer: str
    answer_latex: str
    missing: str


class OptionOut(Schema):
    answer: str
    answer_latex: str
    right: bool
    reason: str
    slips: list[str]


class AnticipatedOut(Schema):
    """What students will write; `why_none` where the problem is not worked."""

    answer: list[str]
    answer_latex: str
    wrong: list[WayOut]
    unfinished: list[UnfinishedOut]
    options: list[OptionOut]
    why_none: str


class EntryOut(Schema):
    """A rule, a method or a kind of number that a class may have been taught, in the product's words."""

    id: str
    kind: Literal["method", "rule", "number", "slip"]
    name: str
    text: str
    topic: str


class CatalogueOut(Schema):
    entries: list[EntryOut]


class Words(Schema):
    """A teacher's own words for a rule, a method or a slip; an empty text leaves the product's."""

    name: str = Field("", max_length=120)
    text: str = Field("", max_length=600)


class WordsOut(Schema):
    words: dict[str, Words]


class WordsIn(Schema):
    words: dict[str, Words] = Field(max_length=400)
