"""What the endpoints of rosters and of sending take and give."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from ninja import Field, Schema
from pydantic import StringConstraints

from server.common.schemas import KEPT, Text
from server.marking.schemas import MOST_STUDENTS
from server.records.roster import Means

Source = Literal["table", "bundle", "records"]


class RosterIn(Schema):
    """Where a roster comes from: a table as text, a OneRoster bundle in base64, or classes of the school's records by
    their ids. `into` is the class that a table without classes is for, `title` the name of a new one. `columns` says
    what each column of a table means, and `titles` whether a row of titles stands above; where they are not said, that
    is told from the table."""

    source: Source
    text: Text = Field("", max_length=480_000)
    ids: list[Annotated[str, StringConstraints(min_length=1, max_length=255), KEPT]] = Field([], max_length=20)
    into: int | None = None
    title: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), KEPT] = ""
    columns: list[Means] | None = Field(None, max_length=60)
    titles: bool | None = None


class RosterTake(RosterIn):
    """A roster with which of its classes are taken, by their places in the preview."""

    chosen: list[Annotated[int, Field(ge=0, le=1000)]] = Field(max_length=60)


class RosterStudentOut(Schema):
    """A student of a roster: `state` is `new`, `there`, `differs` where the number stands with another name here, or
    `number` for a new one whose name stands here with another number."""

    name: str
    number: str
    state: str


class RosterClassOut(Schema):
    """A class of a roster; `into` is the class here that it would be added to."""

    title: str
    into: int | None
    students: list[RosterStudentOut]


class RosterLeft(Schema):
    place: int
    text: str
    why: str


class RosterColumn(Schema):
    """A column of a table: its title, a few of its cells, and as what it would be taken."""

    title: str
    means: Means
    examples: list[str]


class RosterOut(Schema):
    """What would be taken; nothing is, yet. Of a table also its columns, and whether it is `sure` what they mean: if
    not, that is asked."""

    columns: list[RosterColumn]
    titles: bool
    sure: bool
    classes: list[RosterClassOut]
    left: list[RosterLeft]


class RosterTaken(Schema):
    """The classes that were made or added to, with how many students are new."""

    classes: list[int]
    students: int


class RecordsClass(Schema):
    """A class of the school's records."""

    id: str
    title: str
    linked: int | None


class RecordsOut(Schema):
    """Whether school records are set up, and their classes."""

    there: bool
    classes: list[RecordsClass]


class SendRow(Schema):
    """What would be sent for a student, what was sent last, and whether that differs: `new`, `changed`, `same`, or why
    nothing can be sent: `open` (not all marks confirmed), `unlinked`, `nothing`."""

    student: int
    change: str
    score: float | None
    sent: float | None
    state: str
    reason: str
    when: datetime | None


class SendOut(Schema):
    """A set before the school's records."""

    there: bool
    linked: bool
    of: float
    rows: list[SendRow]


class SendIn(Schema):
    """For whom the marks are sent."""

    students: list[int] = Field(min_length=1, max_length=MOST_STUDENTS)


class LinkIn(Schema):
    """The class of the records that a class is."""

    id: Annotated[str, StringConstraints(min_length=1, max_length=255), KEPT]
