"""What the marking endpoints take and give."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated
from uuid import UUID

from ninja import Field, Schema
from pydantic import StringConstraints

from algebra import Echo, PointKind, Proposal, Report, SchemeKind, Shown, Task, limits
from server.common.regional import InForce, Regional
from server.common.schemas import KEPT, ClassName, LineText, StudentName, Text, Title
from server.marking.intake import IntakeForm
from server.marking.totals import State
from server.sheets.schemas import Bead, TintOut

MOST_STUDENTS = 60
"""Students of one class."""


class StudentIn(Schema):
    name: StudentName
    number: Text = Field("", max_length=30)


class StudentChange(Schema):
    """Another name or number of a student, or the class into which the student goes."""

    name: StudentName | None = None
    number: Text | None = Field(None, max_length=30)
    into: int | None = None


class ClassIn(Schema):
    """A new class, with the names of its students."""

    name: ClassName
    students: list[StudentIn] = Field([], max_length=MOST_STUDENTS)


class ClassChange(Schema):
    name: ClassName | None = None
    archived: bool | None = None
    regional: Regional | None = None
    students: list[StudentIn] = Field([], max_length=MOST_STUDENTS)


class HandOverIn(Schema):
    """To whom a class goes, by log-in name."""

    username: Text = Field(min_length=1, max_length=150)


class StudentOut(Schema):
    id: int
    name: str
    number: str


class SetRow(Schema):
    """A set with how far its marking is: workings that there are, that wait for their verification, and that have a
    mark."""

    id: int
    title: str
    day: date
    items: int
    workings: int
    marked: int


class ClassRow(Schema):
    id: int
    name: str
    archived: bool
    students: int
    sets: list[SetRow]


class ClassOut(Schema):
    id: int
    name: str
    archived: bool
    regional: Regional
    in_force: InForce
    students: list[StudentOut]
    sets: list[SetRow]


class SetIn(Schema):
    """A sheet that a class is given, and by what kind of scheme it is marked."""

    sheet: int
    day: date
    title: Text = Field("", max_length=120)
    scheme: SchemeKind = "points"


class SchemeIn(Schema):
    """The scheme of an item; `points` belong to a scheme of points, in their order."""

    kind: SchemeKind = "points"
    total: float = Field(ge=0.5, le=100)
    points: list[PointKind] = Field([], max_length=12)
    lucky: Annotated[str, Field(pattern="^(keeps|loses)$")] = "loses"
    answer_alone: Annotated[str, Field(pattern="^(all|accuracy|none)$")] = "accuracy"
    broken_right: Annotated[str, Field(pattern="^(keeps|loses)$")] = "loses"
    rounding: Annotated[str, Field(pattern="^(half|whole)$")] = "half"


class ItemOut(Schema):
    """An item of a set, its key typeset line by line and as it is written, its scheme, and its form where it is not
    just worked."""

    id: int
    number: int
    task: Task
    given: str
    given_latex: str
    variable: str
    key: list[Echo]
    key_lines: list[str]
    scheme: SchemeIn
    form: Shown | None


class OwnSchemeIn(Schema):
    """A scheme that is kept under a name."""

    name: ClassName
    scheme: SchemeIn


class OwnSchemeOut(Schema):
    id: int
    name: str
    scheme: SchemeIn


class BoundaryIn(Schema):
    """From how many percent on a grade is given."""

    grade: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=20), KEPT]
    percent: float = Field(ge=0, le=100)


class SetChange(Schema):
    """What a set counts by; `again_of` is the set that was the first attempt, 0 for none."""

    title: Title | None = None
    late_percent: int | None = Field(None, ge=0, le=100)
    boundaries: list[BoundaryIn] | None = Field(None, max_length=20)
    again_of: int | None = Field(None, ge=0)


class PaperChange(Schema):
    absent: bool | None = None
    late: bool | None = None


class TotalOut(Schema):
    """What a student reached: `total` only where every item has a confirmed mark, `first` in the first attempt,
    `counts` the better of both."""

    student: int
    state: State
    late: bool
    total: float | None
    first: float | None
    counts: float | None
    of: float
    grade: str


class LogRow(Schema):
    """Who looked or changed: a mark with what it was before and after."""

    day: date
    who: str
    what: str
    student: int | None
    item: int | None
    before: float | None
    after: float | None


class CellOut(Schema):
    """One working in the table: its tiny chain, what is proposed, what is confirmed, why an eye is needed. `waits`
    while it is not verified; `outdated` where its mark was confirmed by another scheme and is no longer what is
    proposed."""

    working: int
    student: int
    item: int
    beads: list[Bead]
    waits: bool
    outdated: bool
    proposed: float | None
    mark: float | None
    eye: list[str]
    alike: str
    slip: str


class SetOut(Schema):
    """The marking table."""

    id: int
    school_class: int
    class_name: str
    title: str
    day: date
    items: list[ItemOut]
    students: list[StudentOut]
    cells: list[CellOut]
    total: int
    done: int
    totals: list[TotalOut]
    late_percent: int
    boundaries: list[BoundaryIn]
    again_of: int
    in_force: InForce


class PileIn(Schema):
    """What students wrote: text with names and numbers, CSV, JSON lines; or in base64 an archive of chains (`zip`)."""

    form: IntakeForm = "text"
    text: Text = Field(min_length=1, max_length=480_000)


class LeftOut(Schema):
    place: int
    text: str
    why: str


class PileOut(Schema):
    """What was taken in: new workings, changed ones, those that stood there already, and what was left."""

    new: int
    changed: int
    same: int
    left: list[LeftOut]


class TypedIn(Schema):
    """The lines of one student for one item, as they are typed."""

    student: int
    item: int
    lines: list[LineText] = Field(max_length=limits.MAX_LINES)


class WrittenOut(Schema):
    """Lines that students wrote for an item, and how many wrote just these."""

    lines: list[str]
    count: int


class DecisionOut(Schema):
    who: str
    when: datetime
    before: float | None
    after: float | None
    taken_back: bool


class MarkedVersion(Schema):
    """Lines that were marked, or had a mark once, before others came in their place."""

    lines: list[str]
    source: str
    mark: float | None
    confirmed_by: str
    who: str
    until: datetime


class WorkingOut(Schema):
    """A student's working, opened: its lines as understood, the report, what is proposed with its reasons, what was
    decided."""

    id: int
    student: int
    item: int
    source: str
    lines: list[str]
    echoes: list[Echo]
    report: Report | None
    tints: list[TintOut]
    proposal: Proposal | None
    mark: float | None
    confirmed_by: str
    decisions: list[DecisionOut]
    versions: list[MarkedVersion]
    same: int


class DecideIn(Schema):
    """What is decided of these workings: a mark for each, or where it is null the mark proposed; with `alike` also for
    all of the same item that are alike and not yet decided. `key` is drawn by who sends: what comes again under the
    same one, for its answer was lost, is decided once."""

    workings: list[int] = Field(min_length=1, max_length=3000)
    mark: float | None = Field(None, ge=0, le=100)
    alike: bool = False
    key: UUID | None = None


class AnewIn(Schema):
    """Workings whose confirmed marks are taken away."""

    workings: list[int] = Field(min_length=1, max_length=3000)


class DecidedOut(Schema):
    """The workings whose mark was changed, with the marks that stand now, and what the students have reached with
    them."""

    marks: dict[int, float | None]
    totals: list[TotalOut]


class SlipCount(Schema):
    """A slip in a set: in how many workings, of which students and items, and the workings themselves."""

    id: str
    name: str
    kind: str
    count: int
    students: list[int]
    items: list[int]
    workings: list[int]


class TomorrowOut(Schema):
    """The sheet that was made."""

    sheet: int


class WrongGroup(Schema):
    """Workings of an item that went wrong alike; whether their answer was foreseen, null while that is not worked
    out."""

    text: str
    slip: str
    count: int
    workings: list[int]
    foreseen: bool | None


class ItemPattern(Schema):
    """How an item went: workings, right ones, how well it tells those who know from those who don't (−1 to 1, None for
    too few), the commonest errors."""

    item: int
    number: int
    workings: int
    right: int
    tells_apart: float | None
    wrong: list[WrongGroup]


class PatternsOut(Schema):
    """What a set shows: slips by how many workings they are in, items, and how many workings there are in all."""

    workings: int
    slips: list[SlipCount]
    items: list[ItemPattern]


class LearnedRow(Schema):
    """A slip in a teacher's classes: made in so many of the workings in which it could be, against how likely the table
    of judgement has it. `share` is the one smoothed by the other, `factor` how many times as likely it is as the table
    says."""

    id: str
    name: str
    kind: str
    made: int
    could: int
    declared: float
    share: float
    factor: float


class LearnedOut(Schema):
    """Whether wrong answers are ordered by these counts, and the counts."""

    on: bool
    slips: list[LearnedRow]


class LearnedIn(Schema):
    on: bool


class TimeSet(Schema):
    """A set of a class on its day: workings, and right ones."""

    id: int
    title: str
    day: date
    workings: int
    right: int


class TimeCount(Schema):
    """A slip in one set: the workings in which it was made, of those in which it could be."""

    set: int
    could: int
    workings: list[int]


class StudentSlip(Schema):
    """A slip of a student: `new` in the last set, made again (`steady`), `back` after a set without it, `fading` when
    the last set was without it."""

    student: int
    state: str
    workings: list[int]


class TimeSlip(Schema):
    """A slip over the sets of a class."""

    id: str
    name: str
    kind: str
    counts: list[TimeCount]
    students: list[StudentSlip]


class SlipGroup(Schema):
    """Students who share a slip that is not fading: a group for tomorrow."""

    slip: str
    name: str
    students: list[int]


class ClassPatterns(Schema):
    """What a class shows over its sets."""

    id: int
    name: str
    students: list[StudentOut]
    sets: list[TimeSet]
    slips: list[TimeSlip]
    groups: list[SlipGroup]
    alone: list[int]
    in_force: InForce


class PlaceOut(Schema):
    """The first place of a working that does not hold: the line before, the line, what to look at, the right line if it
    is shown."""

    number: int
    before: Echo
    line: Echo
    written: str
    cue: str
    right: Echo | None
    in_words: bool


class FeedbackOut(Schema):
    """What one student gets back; `mark` is empty until every working is confirmed."""

    student: str
    well: list[int]
    open_ends: list[int]
    mark: str
    places: list[PlaceOut]
    tries: list[Echo]
