"""Pages that come in: what was scanned, photographed or filled in, one page at a time, each with a picture to look
at."""

from __future__ import annotations

from dataclasses import dataclass
from hashlib import sha256
from io import BytesIO
from itertools import pairwise
from typing import Literal

import pypdfium2
from PIL import Image, ImageOps, UnidentifiedImageError

from algebra import TaskError

PageMedia = Literal["image/png", "image/jpeg", "application/pdf"]
MOST_PAGES = 80
MOST_PIXELS = 60_000_000
LONG_SIDE = 1600
"""Of the picture that is kept, in pixels; larger ones are made smaller."""
_NO_PAGE = "This can't be opened as a page. Pages are PNG, JPEG or PDF."


@dataclass(frozen=True, slots=True)
class ScannedPage:
    """One page: as it came (a PDF of one page, or the picture), and a JPEG of it; `digest` is that of what came, `look`
    what it looks like."""

    original: bytes
    media: PageMedia
    picture: bytes
    width: int
    height: int
    digest: str
    look: str


GRID = 32
"""By so many squares across and down a page is looked at."""
MOST_APART = 14
"""In so many of its 1,024 comparisons at most a page that is the same differs: half the size and another compression
change about ten, another student's page on the same sheet eighteen and more."""
_STEP = 2


def look_of(page: Image.Image) -> str:
    """What a page looks like: for each square whether it is brighter than the one right of it (the difference hash), as
    hexadecimal digits."""
    grey = page.convert("L").resize((GRID + 1, GRID), Image.Resampling.BOX)
    told = grey.tobytes()
    bits = 0
    for y in range(GRID):
        row = told[y * (GRID + 1) : (y + 1) * (GRID + 1)]
        for left, right in pairwise(row):
            bits = bits << 1 | (left > right + _STEP)
    return f"{bits:0{GRID * GRID // 4}x}"


def look_alike(one: str, other: str) -> bool:
    """Whether two pages look like one and the same, scanned or photographed twice."""
    return bool(one and other) and (int(one, 16) ^ int(other, 16)).bit_count() <= MOST_APART


def scanned_pages(content: bytes) -> list[ScannedPage]:
    """The pages of a file. Raises TaskError for what is no page, is too large, or has too many pages."""
    try:
        return _of_pdf(content) if content[:1024].lstrip().startswith(b"%PDF") else [_of_picture(content)]
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, pypdfium2.PdfiumError) as problem:
        raise TaskError(_NO_PAGE) from problem
    except Image.DecompressionBombError as problem:
        raise TaskError(_too_large()) from problem


def _too_large() -> str:
    return f"A page has at most {MOST_PIXELS // 10**6} million pixels."


def _of_picture(content: bytes) -> ScannedPage:
    with Image.open(BytesIO(content), formats=("PNG", "JPEG")) as opened:
        if opened.width * opened.height > MOST_PIXELS:
            raise TaskError(_too_large())
        media: PageMedia = "image/png" if opened.format == "PNG" else "image/jpeg"
        turned = ImageOps.exif_transpose(opened)  # as the camera was held
        if turned.getexif() or opened.getexif():  # where and when it was taken belongs to nobody
            kept = BytesIO()
            turned.save(kept, "PNG" if media == "image/png" else "JPEG", quality=92)
            original = kept.getvalue()
        else:
            original = content
        picture, size = _shown(turned)
    return ScannedPage(original, media, picture, *size, sha256(content).hexdigest(), look_of(turned))


def _of_pdf(content: bytes) -> list[ScannedPage]:
    found = []
    document = pypdfium2.PdfDocument(content)
    try:
        if len(document) > MOST_PAGES:
            raise TaskError(f"At most {MOST_PAGES} pages are taken at once.")
        whole = sha256(content).hexdigest()
        document.init_forms()
        for number, page in enumerate(document):
            scale = LONG_SIDE / max(page.get_width(), page.get_height(), 1)
            drawn = page.render(scale=min(scale, 4), may_draw_forms=True).to_pil()
            picture, size = _shown(drawn)
            alone = pypdfium2.PdfDocument.new()
            alone.import_pages(document, [number])
            original = BytesIO()
            alone.save(original)
            found.append(
                ScannedPage(
                    original.getvalue(),
                    "application/pdf",
                    picture,
                    *size,
                    sha256(f"{whole} {number}".encode()).hexdigest(),
                    look_of(drawn),
                )
            )
    finally:
        document.close()
    return found


def _shown(page: Image.Image) -> tuple[bytes, tuple[int, int]]:
    """A JPEG to look at, and its size."""
    shown = page.convert("L" if page.mode in ("1", "L", "LA", "I;16") else "RGB")
    shown.thumbnail((LONG_SIDE, LONG_SIDE))
    kept = BytesIO()
    shown.save(kept, "JPEG", quality=72, optimize=True)
    return kept.getvalue(), shown.size
