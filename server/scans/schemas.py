"""What the endpoints of pages take and give."""

from __future__ import annotations

from typing import Annotated

from ninja import Field, Schema

from algebra import Echo, limits
from server.common.schemas import LineText


class PageRow(Schema):
    """A page in the list: whose it is (null: nobody's yet), the name that was read on it, how many lines are still to
    be settled, and the page that it seems to be once more: nothing of it is taken in until that is said."""

    id: int
    student: int | None
    name: str
    state: str
    trouble: str
    open: int
    again_of: int | None


class PagesOut(Schema):
    """The pages of a set, and whether a page reader is set up."""

    reader: bool
    pages: list[PageRow]


class PagesTaken(Schema):
    """How many pages are new, and how many were there already."""

    new: int
    same: int


class SymbolOut(Schema):
    """A symbol as it was read. `asks` where it is doubtful; `others` are what else it may be."""

    text: str
    box: list[float] | None
    asks: bool
    others: list[str]


class Mends(Schema):
    """One other reading of a symbol with which the line follows, where the first reading does not."""

    symbol: int
    text: str


class PageLine(Schema):
    """A row of a page: `at` is its place in the reading, `item` the id of the item it belongs to, `texts` what stands
    for it now with its echoes."""

    at: int
    item: int | None
    box: list[float]
    symbols: list[SymbolOut]
    texts: list[str]
    echoes: list[Echo]
    doubtful: bool
    settled: bool
    crossed: bool
    mends: list[Mends]


class PageOut(Schema):
    """A page opened; `again_of` as in the list."""

    again_of: int | None
    id: int
    student: int | None
    name: str
    state: str
    trouble: str
    width: int
    height: int
    lines: list[PageLine]


class SettleIn(Schema):
    """The texts that stand for a row: as it was read, with another reading, or as the teacher reads it; none where it
    is left out; null as it was read at first, with its doubts."""

    at: Annotated[int, Field(ge=0, le=400)]
    texts: list[LineText] | None = Field(max_length=limits.MAX_LINES)


class WhoseIn(Schema):
    """The student whose page it is; null puts it into the tray."""

    student: int | None
