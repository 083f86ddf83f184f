"""Sheets on paper: what stands on them, how it is laid out, and the pages as PDF, SVG or PNG."""

from __future__ import annotations

from paper.exchange import FILE_FORMATS, INCOMING, MEDIA, FileFormat, Incoming, read, safe_cell, table_rows, written
from paper.feedback import FeedbackSlip, Place, feedback_source
from paper.items import DRAWINGS, Drawing
from paper.layout import source_of
from paper.pages import PagesError, as_pdf, as_png, as_svg
from paper.pictures import PICTURES, SHOWN, Picture, Shown, picture_of
from paper.plan import (
    KeyLine,
    PlannedItem,
    PlannedSection,
    SheetPlan,
    Wanted,
    code_of,
    in_other_order,
    made_items,
    planned,
    planned_item,
    put_together,
    wanted_of,
)
from paper.scans import PageMedia, ScannedPage, look_alike, scanned_pages
from paper.settings import KINDS, PAGE_SIZES, Kind, PageSize, Settings, item_form
from paper.student import StudentData, StudentSet, StudentWork, student_source

__all__ = [
    "DRAWINGS",
    "FILE_FORMATS",
    "INCOMING",
    "KINDS",
    "MEDIA",
    "PAGE_SIZES",
    "PICTURES",
    "SHOWN",
    "Drawing",
    "FeedbackSlip",
    "FileFormat",
    "Incoming",
    "KeyLine",
    "Kind",
    "PageMedia",
    "PageSize",
    "PagesError",
    "Picture",
    "Place",
    "PlannedItem",
    "PlannedSection",
    "ScannedPage",
    "Settings",
    "SheetPlan",
    "Shown",
    "StudentData",
    "StudentSet",
    "StudentWork",
    "Wanted",
    "as_pdf",
    "as_png",
    "as_svg",
    "code_of",
    "feedback_source",
    "in_other_order",
    "item_form",
    "look_alike",
    "made_items",
    "picture_of",
    "planned",
    "planned_item",
    "put_together",
    "read",
    "safe_cell",
    "scanned_pages",
    "source_of",
    "student_source",
    "table_rows",
    "wanted_of",
    "written",
]
