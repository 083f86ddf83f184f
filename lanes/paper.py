"""Sheets on paper, made in a process that can be ended."""

from __future__ import annotations

from typing import Literal

from algebra import NotTaken, SheetFile, Working
from paper import (
    FeedbackSlip,
    FileFormat,
    PageSize,
    Picture,
    PlannedItem,
    Settings,
    Shown,
    StudentData,
    Wanted,
    as_pdf,
    as_png,
    as_svg,
    feedback_source,
    picture_of,
    put_together,
    read,
    source_of,
    student_source,
    written,
)

PageFormat = Literal["pdf", "svg", "png"]


def made(
    title: str, problems: list[Wanted], items: list[PlannedItem], settings: Settings, version: str, form: PageFormat
) -> tuple[list[bytes], list[tuple[int, str]]]:
    """The PDF, or the pages as SVG or PNG; and the items whose key can't be relied on, each with why."""
    plan = put_together(title, problems, items, version=version)
    source = source_of(plan, settings)
    pages = [as_pdf(source)] if form == "pdf" else as_svg(source) if form == "svg" else as_png(source)
    return pages, [(item.number, item.trouble) for item in plan.items if item.trouble]


def out(sheet: SheetFile, form: FileFormat) -> bytes:
    """A sheet in an open form."""
    return written(sheet, form)


def feedback(title: str, day: str, slips: list[FeedbackSlip], paper: PageSize, decimal: str) -> bytes:
    """Feedback slips as PDF."""
    return as_pdf(feedback_source(title, day, slips, paper=paper, decimal=decimal))


def student(data: StudentData, paper: PageSize) -> bytes:
    """Everything that is kept of a student, as PDF."""
    return as_pdf(student_source(data, paper=paper))


def picture(working: Working, shown: Shown, form: Picture) -> bytes:
    """A chain or a graph as a picture. Raises TaskError, ReadingError."""
    return picture_of(working, shown, form)


def taken(content: bytes, form: str, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    """A sheet from an open form, and what could not be taken. Raises TaskError."""
    return read(content, form, title)
