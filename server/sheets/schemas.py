"""What the sheet endpoints take and give."""

from __future__ import annotations

from datetime import datetime

from ninja import Field, Schema

from algebra import Echo, ItemForm, Numbers, Relation, Report, Task, Verdict, limits
from server.common.schemas import ConventionsOut, Given, Instruction, LineText, Text, Title


class SheetIn(Schema):
    title: Title


class SheetChange(Schema):
    title: Title | None = None
    conventions: dict[str, str] | None = None
    untaught: list[str] | None = Field(None, max_length=400)


class Bead(Schema):
    """One line of a tiny chain: its kind and relation."""

    kind: str
    relation: Relation | None


class SlipNamed(Schema):
    id: str
    name: str


class ProblemRow(Schema):
    """A problem as the strip shows it: the given typeset, its tiny chain and the state of its answer."""

    id: int
    position: int
    task: Task
    given: str
    given_latex: str
    beads: list[Bead]
    difficulty: float | None
    instruction: str
    form: ItemForm
    verdict: Verdict
    finished: bool
    owed: int
    slips: list[SlipNamed]


class SheetRow(Schema):
    id: int
    title: str
    received_from: str
    changed: datetime
    problems: int
    sound: int
    faulty: int


class SheetsOut(Schema):
    """A page of the teacher's sheets; `more` when further ones follow, `all` how many there are, found or not."""

    sheets: list[SheetRow]
    more: bool
    all: int


class ShareIn(Schema):
    """To whom a copy of a sheet goes, by log-in name; with the workings, or the problems alone."""

    username: Text = Field(min_length=1, max_length=150)
    workings: bool = True


class SheetOut(Schema):
    id: int
    title: str
    conventions: ConventionsOut
    untaught: list[str]
    problems: list[ProblemRow]


class ProblemIn(Schema):
    task: Task
    given: Given
    variable: Text = Field("", max_length=40)
    numbers: Numbers = "real"
    method: Text = Field("", max_length=40)
    instruction: Instruction = ""
    form: ItemForm = "work"


class ProblemWhole(Schema):
    """A problem with the lines under it, as it was or as it is to be."""

    problem: ProblemIn
    lines: list[LineText] = Field([], max_length=limits.MAX_LINES)


class ProblemChange(Schema):
    task: Task | None = None
    given: Given | None = None
    variable: Text | None = Field(None, max_length=40)
    numbers: Numbers | None = None
    method: Text | None = Field(None, max_length=40)
    instruction: Instruction | None = None
    form: ItemForm | None = None


class Order(Schema):
    """All problems of the sheet, in their new order."""

    problems: list[int] = Field(max_length=500)


class LineOut(Schema):
    """A line as typed, and as understood."""

    text: str
    echo: Echo


class TintOut(Schema):
    """Where a slip was made: the line (from 1) and the one before it (0 is the given), both set with the places
    marked."""

    line: int
    before_line: int
    before: Echo
    after: Echo


class ProblemOut(Schema):
    """A problem with its working, every line judged."""

    id: int
    sheet: int
    position: int
    task: Task
    given: str
    variable: str
    numbers: Numbers
    method: str
    instruction: str
    form: ItemForm
    given_echo: Echo
    revision: int
    lines: list[LineOut]
    report: Report
    tints: list[TintOut]


class WorkingChange(Schema):
    """All lines, as typed, and the revision that they are based on."""

    revision: int = Field(ge=0)
    lines: list[LineText] = Field(max_length=limits.MAX_LINES)


class ConflictOut(Schema):
    """Somebody else (or another window) changed the working: what stands now."""

    code: str
    detail: str
    revision: int
    lines: list[str]
