"""What the bank takes and gives: all problems of a teacher, found again."""

from __future__ import annotations

from datetime import date, datetime
from typing import Literal

from ninja import Field, Schema

from algebra import Numbers, Task
from server.common.schemas import Given, Text

Order = Literal["recent", "easiest", "hardest", "unused"]


class Wanted(Schema):
    """What is looked for; what is left out does not matter. `text` is looked for in the problem and the title of its
    sheet; `unused` are problems not printed since that day; `repeated` are items that stand on more than one place."""

    text: Text = Field("", max_length=120)
    family: Text = Field("", max_length=40)
    method: Text = Field("", max_length=40)
    slip: Text = Field("", max_length=40)
    low: float = Field(1, ge=1, le=10)
    high: float = Field(10, ge=1, le=10)
    unused: date | None = None
    repeated: bool = False
    order: Order = "recent"
    page: int = Field(1, ge=1, le=10_000)


class BankRow(Schema):
    """A problem of the bank. `same` is how many other problems are the same item."""

    id: int
    sheet: int
    place: int
    title: str
    task: Task
    given: Given
    given_latex: str
    variable: str
    numbers: Numbers
    method: str
    family: str
    difficulty: float | None
    slips: list[str]
    printed: datetime | None
    same: int


class BankOut(Schema):
    """A page of what was found; `found` is how many in all, `waiting` how many problems have not been looked through
    yet: they are found by their text only."""

    rows: list[BankRow]
    found: int
    more: bool
    waiting: int


class KindOut(Schema):
    id: str
    name: str
    count: int


class KindsOut(Schema):
    """The families, methods and slips that occur in the bank, the commonest first."""

    families: list[KindOut]
    methods: list[KindOut]
    slips: list[KindOut]


class LookedThroughOut(Schema):
    """How many problems wait to be looked through."""

    waiting: int
