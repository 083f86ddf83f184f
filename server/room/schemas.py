"""What the endpoints of the practice room take and give. The student's side holds nothing of others, no key, and no
more of a report than is told."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from ninja import Field, Schema
from pydantic import StringConstraints

from algebra import Echo, Shown, limits
from server.common.regional import InForce
from server.common.schemas import KEPT, LineText, StudentName, Text
from server.room.models import AskKind
from server.room.telling import Tells
from server.sheets.schemas import Bead

Opens = Literal["rest", "reading", "again"]
Sentence = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200), KEPT]


class ComeIn(Schema):
    code: Text = Field(min_length=1, max_length=20)
    name: StudentName
    secret: Text = Field(min_length=1, max_length=60)


class ToldLineOut(Schema):
    verdict: str
    words: str
    right: str


class MyWorking(Schema):
    """A student's own working; `told` has an entry a line."""

    revision: int
    lines: list[str]
    echoes: list[Echo]
    told: list[ToldLineOut]
    answered: bool
    hints: int


class MyItem(Schema):
    """An item as a student has it; `closed` where nothing can be written: it is marked, or the room is for reading."""

    id: int
    number: int
    task: str
    instruction: str
    given: str
    given_latex: str
    form: Shown | None
    closed: bool
    working: MyWorking | None


class MyAsk(Schema):
    """What the class is asked just now, and what this student has answered; `vote`: which line breaks, `try`: how it
    goes on."""

    id: int
    kind: AskKind
    given_latex: str
    lines: list[str]
    answer: str


class AskIn(Schema):
    """Asks a room about a working: all its lines; or about an item after these lines."""

    kind: AskKind
    working: int | None = None
    item: int | None = None
    lines: list[LineText] = Field([], max_length=limits.MAX_LINES)


class AnswerIn(Schema):
    ask: int
    text: LineText


class AnswerOut(Schema):
    """An answer of the room and how often it was given; `relation` is how a line follows."""

    text: str
    latex: str
    count: int
    relation: str


class AskOut(Schema):
    """What a room was asked, and its answers without names, the commonest first; `right` is the line that breaks, 0 for
    none, null where a line is asked for."""

    id: int
    kind: AskKind
    given_latex: str
    lines: list[str]
    right: int | None
    answered: int
    here: int
    answers: list[AnswerOut]


class RoomAsk(Schema):
    """What a room is asked; null for nothing."""

    ask: AskOut | None


class WrittenInRoom(Schema):
    """Lines that were written in a room, by how many, and which of them breaks first (0 for none)."""

    lines: list[str]
    count: int
    broken: int


class ProblemRoom(Schema):
    """Where a class works a problem just now: the set and the item of an open room (0 where there is none), and what it
    has written, the latest first."""

    given_set: int
    item: int
    written: list[WrittenInRoom]


class News(Schema):
    """What the teacher may change while a student works."""

    ask: MyAsk | None

    tells: Tells
    hints: int
    paused: str
    nudge: str
    closes: datetime | None
    over: bool


class MyRoom(News):
    """The room as one student has it."""

    title: str
    student: str
    decimal: str
    items: list[MyItem]


class Written(News):
    """One item after it was written, and what is new."""

    item: int
    working: MyWorking


class CameIn(Schema):
    """Where a code led: into a room, or (null) to the own page."""

    room: MyRoom | None


class HomeSet(Schema):
    """A set that a student has worked, with what is told of it afterwards."""

    title: str
    day: date
    items: list[MyItem]


class HomeSlip(Schema):
    """An error that a student made: when it is due again, how many problems against it were solved since, or that they
    are rid of it."""

    name: str
    cue: str
    rid: bool
    due: date
    solved: int


class HomeTask(Schema):
    """A problem against an error that is due."""

    id: int
    against: str
    decimal: str
    instruction: str
    given_latex: str
    working: MyWorking
    done: bool


class MyHome(Schema):
    """A student's own page."""

    student: str
    school_class: str
    sets: list[HomeSet]
    slips: list[HomeSlip]
    next: HomeTask | None
    in_force: InForce


class DoorOut(Schema):
    """The code by which a class comes in from home; empty where there is none."""

    code: str


class MyLines(Schema):
    """The lines of a working, and the revision they were written on."""

    revision: int = Field(ge=0)
    lines: list[LineText] = Field(max_length=limits.MAX_LINES)


class RoomHint(Schema):
    """A hint, with how many are left."""

    look: str
    rule: str
    line: str
    left: int


class RoomIn(Schema):
    """What a room tells. `minutes` until it closes, null for none; `show_time` shows them. What is marked stays closed:
    of a set with marks only the rest is open (`rest`), or the class reads (`reading`), or has a second attempt
    (`again`), a set of its own beside the first."""

    opens: Opens = "rest"
    tells: Tells = "line"
    right_line: bool = False
    hints: int = Field(0, ge=0, le=20)
    minutes: int | None = Field(None, ge=1, le=600)
    show_time: bool = False


class RoomChange(Schema):
    """What is changed of a room while it runs; an empty `paused` goes on, `new_code` replaces the code."""

    tells: Tells | None = None
    right_line: bool | None = None
    hints: int | None = Field(None, ge=0, le=20)
    paused: Sentence | None = None
    ended: bool | None = None
    new_code: bool = False


class SeatChange(Schema):
    """What a teacher does for one student: a nudge, more minutes, the room open again for so many minutes from now, the
    secret taken away."""

    nudge: Sentence | None = None
    more_minutes: int | None = Field(None, ge=0, le=600)
    open_minutes: int | None = Field(None, ge=1, le=600)
    forget_secret: bool = False


class SeatCell(Schema):
    """A working in the teacher's grid: its tiny chain, and at which line it is stuck (0 for none)."""

    item: int
    working: int
    beads: list[Bead]
    stuck: int
    answered: bool
    slip: str
    hints: int
    marked: bool


class SeatOut(Schema):
    """A student in the teacher's grid; `heard` is null for who has not come in. `cells` are those that have changed."""

    student: int
    name: str
    heard: datetime | None
    nudge: str
    more_minutes: int
    cells: list[SeatCell]


class RoomOut(Schema):
    """The room as the teacher has it; `seats` are those where something has changed since the version that was asked
    about. `given_set` is its set: a second attempt has one of its own."""

    given_set: int
    reading: bool
    version: int
    code: str
    tells: Tells
    right_line: bool
    hints: int
    paused: str
    closes: datetime | None
    ended: bool
    items: list[int]
    seats: list[SeatOut]


Since = Annotated[int, Field(ge=-1)]
