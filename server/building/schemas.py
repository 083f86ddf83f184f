"""What the builder of sheets takes and gives."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Field, Schema

from server.common.schemas import Given, Text, Title
from server.jobs.schemas import RunOut
from server.sheets.schemas import ProblemIn, ProblemWhole

Minutes = Annotated[float | None, Field(ge=1, le=600)]
MOST = 40
"""Problems of one ladder."""


class LevelOut(Schema):
    number: int
    name: str


class FamilyOut(Schema):
    """A family of problems as the builder offers it."""

    id: str
    name: str
    task: str
    description: str
    example: str
    levels: list[LevelOut]


class SlipOut(Schema):
    id: str
    name: str


class FamiliesOut(Schema):
    """All families, the events that may be asked for, and the slips that may lurk in a problem."""

    families: list[FamilyOut]
    events: list[str]
    slips: list[SlipOut]


class RungOut(ProblemIn):
    """A proposed problem: typeset, with its answer, difficulty, family and level, and what it adds to the one
    before."""

    given: Given
    given_latex: str
    answer_latex: str
    difficulty: float | None
    family: str
    level: int
    adds: str
    marks: int


class LadderIn(Schema):
    """What a ladder is for: families, or a slip that is to lurk in every problem, or both. What is kept stays and
    counts."""

    families: list[Text] = Field([], max_length=12)
    slip: Text = Field("", max_length=60)
    count: int = Field(12, ge=1, le=MOST)
    seed: int = Field(1, ge=0, le=1_000_000)
    low: int = Field(1, ge=1, le=9)
    high: int | None = Field(None, ge=1, le=9)
    events: list[Text] = Field([], max_length=12)
    largest: int = Field(400, ge=5, le=100_000)
    kept: list[ProblemIn] = Field([], max_length=MOST)


class LadderOut(Schema):
    rungs: list[RungOut]


class LadderRunOut(RunOut):
    """How far it is, the ladder of what was drawn so far, and the events that no problem was found for."""

    rungs: list[RungOut]
    without: list[str]


class AnotherIn(Schema):
    """Another problem in the place of one: like it, easier or harder; no item of `known`."""

    problem: ProblemIn
    known: list[ProblemIn] = Field([], max_length=200)
    what: Literal["like", "easier", "harder"] = "like"
    seed: int = Field(1, ge=0, le=1_000_000)


class AnotherOut(Schema):
    """The problem; null where none was found."""

    rung: RungOut | None


class BuiltIn(Schema):
    """A sheet of these problems."""

    title: Title
    problems: list[ProblemIn] = Field(min_length=1, max_length=200)


class VersionIn(Schema):
    """Another version of a sheet: the same structure, other numbers."""

    name: Text = Field(min_length=1, max_length=12)
    seed: int = Field(1, ge=0, le=1_000_000)


class VersionOut(Schema):
    """The new sheet, and the numbers of the problems that stayed because no other like them was found."""

    sheet: int
    stayed: list[int]


class AdviceOut(Schema):
    code: str
    items: list[int]
    text: str
    mend: str


class MendIn(Schema):
    """What is to be mended: the place of an item, and how (`mend` of the advice). Another `seed`, another problem."""

    item: int = Field(ge=1, le=200)
    mend: Literal["replace", "task", "key"]
    seed: int = Field(1, ge=0, le=1_000_000)


class MendedOut(Schema):
    """The problem that was mended, and what stood there before, to be put back."""

    problem: int
    before: ProblemWhole


class AdvisedOut(Schema):
    """What a careful colleague would say of the sheet, and about how many minutes it takes."""

    advice: list[AdviceOut]
    minutes: float
