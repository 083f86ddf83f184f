"""How a sheet is laid out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from algebra import ITEM_FORMS, ItemForm

Kind = Literal["sheet", "answers", "key", "choose", "mend", "fill", "way", "claim", "cards", "large"]
"""What a page is made of: the items as they are, what is right, all items in one form, or another make of page."""
PageSize = Literal["a4", "letter"]
Space = Literal["blank", "lines", "squares", "none"]
KINDS, PAGE_SIZES = get_args(Kind), get_args(PageSize)


@dataclass(frozen=True, slots=True)
class Settings:
    """How a sheet is laid out. `columns` is that of the items; `space` is what the work space looks like."""

    kind: Kind = "sheet"
    paper: PageSize = "a4"
    columns: int = 1
    space: Space = "blank"
    name_line: bool = True
    reasons: bool = False
    marks: bool = False


def item_form(kind: Kind) -> ItemForm | None:
    """The form that all items take on a page of this kind; None where each keeps its own."""
    return next((form for form in ITEM_FORMS if form == kind), None)
