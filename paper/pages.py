"""Pages made by typst: the same bytes for the same source, without a look at the machine's fonts or clock."""

from __future__ import annotations

from typing import Any

import typst


class PagesError(RuntimeError):
    """The document could not be set; the message is typst's. Nothing that a teacher writes should lead here."""


def as_pdf(source: str) -> bytes:
    """The document as PDF/UA-1: tagged, fonts embedded, formulas with their plain text. Raises PagesError."""
    return _compiled(source, "pdf")[0]


def as_svg(source: str) -> list[bytes]:
    """The pages as SVG. Raises PagesError."""
    return _compiled(source, "svg")


def as_png(source: str, *, pixels_an_inch: float = 144) -> list[bytes]:
    """The pages as PNG. Raises PagesError."""
    return _compiled(source, "png", pixels_an_inch)


def _compiled(source: str, form: str, pixels_an_inch: float | None = None) -> list[bytes]:
    more: dict[str, object] = {"pdf_standards": ["ua-1"], "timestamp": 0} if form == "pdf" else {}
    if pixels_an_inch is not None:
        more["ppi"] = pixels_an_inch
    try:
        compiled: Any = typst.compile  # it is overloaded by form, which is known only now
        found = compiled(source.encode(), format=form, ignore_system_fonts=True, **more)
    except typst.TypstError as problem:
        raise PagesError(str(problem)) from problem
    return list(found) if isinstance(found, list) else [found]
