"""What is given for a worked solution, the next step, the wrong answers to expect, and one's own words."""

from __future__ import annotations

from typing import Literal

from ninja import Field, Schema

from algebra import Difficulty, Echo, Option, TypesetStep, TypesetWrongAnswer, Unfinished, limits
from server.common.schemas import LineText


class SolutionOut(Schema):
    """A problem worked by one method, in the teacher's own words."""

    method: str
    name: str
    description: str
    searches: str
    answer: list[str]
    steps: list[TypesetStep]
    difficulty: Difficulty
    not_yet: list[str]


class MethodsOut(Schema):
    """The methods that lead to the answer, the default first; `why_none` where there is none."""

    family: str
    given_echo: Echo
    methods: list[SolutionOut]
    why_none: str


class NextIn(Schema):
    """The lines so far, stored or not."""

    lines: list[LineText] = Field(max_length=limits.MAX_LINES)


class HintOut(Schema):
    """What to look at, then the rule, then the line."""

    look: str
    step: TypesetStep | None
    method: str
    shorter: str
    done: bool


class AnticipatedOut(Schema):
    """What students will write; `why_none` where the problem is not worked, `learned` where the order is that of the
    teacher's own classes."""

    answer: list[str]
    answer_latex: str
    wrong: list[TypesetWrongAnswer]
    unfinished: list[Unfinished]
    options: list[Option]
    why_none: str
    learned: bool


class EntryOut(Schema):
    """A rule, a method, a slip or a kind of number that a class may have been taught, in the product's words."""

    id: str
    kind: Literal["method", "rule", "number", "slip"]
    name: str
    text: str
    topic: str


class CatalogueOut(Schema):
    entries: list[EntryOut]


class OwnWording(Schema):
    """A teacher's own words for a rule, a method or a slip; an empty text leaves the product's."""

    name: str = Field("", max_length=120)
    text: str = Field("", max_length=600)


class WordsOut(Schema):
    words: dict[str, OwnWording]


class WordsIn(Schema):
    words: dict[str, OwnWording] = Field(max_length=400)
