"""What a printed sheet tells of itself: where its numbers stand, where the name belongs, and what was filled in on the
screen."""

from __future__ import annotations

import ctypes
import re
from dataclasses import dataclass

import pypdfium2
import pypdfium2.raw as raw

_LABEL = re.compile(r"(\d{1,3})\.")


@dataclass(frozen=True, slots=True)
class Filled:
    """A note put on a page with a program: its text and its box, as shares of the page (left, top, width, height)."""

    text: str
    box: tuple[float, float, float, float]


def label_places(page: pypdfium2.PdfPage) -> dict[int, tuple[float, float]]:
    """Where the number of each item begins (shares of the page, at its base line): numbers with a dot at the left of a
    column, in their order."""
    text = page.get_textpage()
    found: dict[int, tuple[float, float]] = {}
    for k in range(text.count_rects()):
        left, bottom, right, top = text.get_rect(k)
        words = text.get_text_bounded(left - 1, bottom - 1, right + 1, top + 1).strip()
        label = _LABEL.fullmatch(words) or _LABEL.match(words)
        if label and int(label.group(1)) not in found and (label.end() == len(words)):
            found[int(label.group(1))] = (left / page.get_width(), 1 - bottom / page.get_height())
    return found


def name_place(page: pypdfium2.PdfPage) -> tuple[float, float] | None:
    """Where the name is written: behind the word Name; None on a page without it."""
    text = page.get_textpage()
    search = text.search("Name", match_case=True, match_whole_word=True)
    at = search.get_next()
    if at is None:
        return None
    _, bottom, right, _ = text.get_charbox(at[0] + 3)
    return (right + 6) / page.get_width(), 1 - bottom / page.get_height()


def filled_in(page: pypdfium2.PdfPage) -> list[Filled]:
    """The free texts and the filled fields of a page, from top to bottom."""
    width, height = page.get_width(), page.get_height()
    found = []
    for k in range(raw.FPDFPage_GetAnnotCount(page)):
        note = raw.FPDFPage_GetAnnot(page, k)
        try:
            key = {raw.FPDF_ANNOT_FREETEXT: b"Contents", raw.FPDF_ANNOT_WIDGET: b"V"}.get(
                raw.FPDFAnnot_GetSubtype(note)
            )
            box = raw.FS_RECTF()
            if key and raw.FPDFAnnot_GetRect(note, box):
                text = _string(note, key)
                if text.strip():
                    left, top = min(box.left, box.right), max(box.top, box.bottom)
                    shares = (
                        left / width,
                        1 - top / height,
                        abs(box.right - box.left) / width,
                        abs(box.top - box.bottom) / height,
                    )
                    found.append(Filled(text.replace("\r\n", "\n").replace("\r", "\n"), shares))
        finally:
            raw.FPDFPage_CloseAnnot(note)
    return sorted(found, key=lambda note: (note.box[1], note.box[0]))


def _string(note: raw.FPDF_ANNOTATION, key: bytes) -> str:
    size = raw.FPDFAnnot_GetStringValue(note, key, None, 0)
    buffer = ctypes.create_string_buffer(size)
    raw.FPDFAnnot_GetStringValue(note, key, ctypes.cast(buffer, ctypes.POINTER(ctypes.c_ushort)), size)
    return buffer.raw[: max(0, size - 2)].decode("utf-16-le", errors="replace")
