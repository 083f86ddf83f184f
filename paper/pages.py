"""Pages made by typst: the same bytes for the same source, without a look at the machine's clock. Its fonts are looked
at for signs alone that typst's own faces lack: names are written in every script."""

from __future__ import annotations

import os
import re
import unicodedata
from pathlib import Path
from typing import Any

import typst

from algebra import quoted

FACES = ("/usr/share/fonts/truetype/noto", "/usr/share/fonts/truetype/wqy", "/usr/share/fonts/truetype/ancient-scripts")
"""Where Debian's packages of faces put them: fonts-noto-core (most scripts), fonts-wqy-microhei (Chinese, Japanese,
Korean), fonts-symbola (emoji, drawn in lines). UCHUU_FACES names other folders, with colons between."""
_OWN = 'font: "New Computer Modern",'
_NEXT = 'font: ("New Computer Modern", "Symbola", "Noto Sans", "WenQuanYi Micro Hei"),'
"""Where the faces of the machine are looked at, these come first; any other that has a sign comes after them."""
BOX, MOST_BOXES = "□", 30
_LACKS = re.compile(r"the text `\"(.*?)\"` could not be displayed", re.DOTALL)
_ORDINARY = (
    (0x0A, 0x052F),  # Latin, Greek, Cyrillic
    (0x1E00, 0x1FFF),  # more of these, with accents
    (0x2000, 0x22FF),  # punctuation, arrows, mathematics
    (0x25A0, 0x25FF),  # shapes
    (0x27C0, 0x29FF),  # more mathematics
    (0x2A00, 0x2AFF),
    (0x1D400, 0x1D7FF),  # letters of formulas
)


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
    """The pages in this form. Signs for which no face is here stand as boxes, and a line at the end says which; letters
    with accents of their own signs are joined first (Unicode's form C)."""
    source = unicodedata.normalize("NFC", source)
    faces = _faces() if any(map(_is_beyond, source)) else []
    without: list[str] = []
    while True:
        try:
            whole = source + _note(without)
            return _set(whole.replace(_OWN, _NEXT) if faces else whole, form, pixels_an_inch, faces)
        except typst.TypstError as problem:
            lacks = _LACKS.search(str(problem))
            if lacks is None:
                raise PagesError(str(problem)) from problem
            if not faces and _faces():  # a sign that only those of the machine have
                faces = _faces()
                continue
            signs = [sign for sign in lacks.group(1) if sign in source and sign not in ("\n", " ")]
            if len(without) > MOST_BOXES:
                signs = sorted({sign for sign in source if _is_beyond(sign)})
            if not signs:
                raise PagesError(str(problem)) from problem
            for sign in signs:
                if unicodedata.category(sign) not in ("Cf", "Mn"):  # what only joins others is left out
                    without.append(sign)
                    source = source.replace(sign, BOX)
                source = source.replace(sign, "")


def _set(source: str, form: str, pixels_an_inch: float | None, faces: list[str]) -> list[bytes]:
    more: dict[str, object] = {"pdf_standards": ["ua-1"], "timestamp": 0} if form == "pdf" else {}
    if pixels_an_inch is not None:
        more["ppi"] = pixels_an_inch
    compiled: Any = typst.compile  # it is overloaded by form, which is known only now
    found = compiled(source.encode(), format=form, ignore_system_fonts=True, font_paths=faces, **more)
    return list(found) if isinstance(found, list) else [found]


def _faces() -> list[str]:
    """The folders with faces for further scripts that are here."""
    wanted = os.environ.get("UCHUU_FACES")
    folders = wanted.split(":") if wanted is not None else FACES
    return [folder for folder in folders if folder and Path(folder).is_dir()]


def _is_beyond(sign: str) -> bool:
    """Whether a sign is none of those that typst's own faces have: Latin, Greek and Cyrillic letters, punctuation and
    mathematics. With these alone a page is the same on every machine."""
    return not any(low <= ord(sign) <= high for low, high in _ORDINARY)


def _note(without: list[str]) -> str:
    if not without:
        return ""
    codes = ", ".join(f"U+{ord(sign):04X}" for sign in sorted(set(without)))
    words = f"{BOX} stands where no face is here for {codes}."
    return f"\n\n#v(4mm)\n#text(7pt)[#{quoted(words)}]\n"
