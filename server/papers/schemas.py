"""What the endpoints of paper take and give."""

from __future__ import annotations

from ninja import Field, Schema

from paper import Incoming, Kind, PageSize
from paper.settings import Space
from server.common.schemas import Text


class PaperIn(Schema):
    """How a sheet is to be laid out; `order` is another order of the same items, 0 the order as it is; `so_far` only
    what is worked out already; `quick` is refused (`to-make`) where much is still to be worked out."""

    kind: Kind = "sheet"
    paper: PageSize = "a4"
    columns: int = Field(1, ge=1, le=3)
    space: Space = "blank"
    name_line: bool = True
    reasons: bool = False
    marks: bool = False
    order: int = Field(0, ge=0, le=9)
    so_far: bool = False
    quick: bool = False
    version: Text = Field("A", min_length=1, max_length=12)


class ItemsIn(Schema):
    """For which kind of paper the items of a sheet are worked out."""

    kind: Kind = "sheet"


class Doubt(Schema):
    """An item whose key can't be relied on, and why."""

    item: int
    text: str


class PreviewOut(Schema):
    """The pages as they will print, each an SVG; and what is to be said before they are."""

    pages: list[str]
    doubts: list[Doubt]


class TakeIn(Schema):
    """A file in an open form: its text, or in base64 where it is an archive (`qti`)."""

    form: Incoming
    text: Text = Field(min_length=1, max_length=480_000)
    title: Text = Field("", max_length=120)


class NotTakenOut(Schema):
    """What could not be taken: where it stands, and why."""

    place: int
    text: str
    why: str


class TakenOut(Schema):
    """The new sheet, and what could not be taken."""

    sheet: int
    left: list[NotTakenOut]
