"""Sheets on paper, made in a process that can be ended."""

from __future__ import annotations

from typing import Literal

from algebra import Working
from paper import Settings, as_pdf, as_svg, planned, source_of

Form = Literal["pdf", "svg"]


def made(
    title: str, problems: list[tuple[str, Working]], settings: Settings, version: str, form: Form
) -> tuple[list[bytes], list[tuple[int, str]]]:
    """The PDF, or the pages as SVG; and the items whose key can't be relied on, each with why."""
    plan = planned(title, problems, version=version, with_options=settings.kind == "choose")
    source = source_of(plan, settings)
    pages = [as_pdf(source)] if form == "pdf" else as_svg(source)
    return pages, [(item.number, item.trouble) for item in plan.items if item.trouble]
