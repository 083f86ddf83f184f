"""Pages that come in: what was scanned, photographed or filled in, one page at a time, each with a picture to look
at."""

from __future__ import annotations

from dataclasses import dataclass
from hashlib import sha256
from io import BytesIO
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
    """One page: as it came (a PDF of one page, or the picture), and a JPEG of it; `digest` is that of what came."""

    original: bytes
    media: PageMedia
    picture: bytes
    width: int
    height: int
    digest: str


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
    return ScannedPage(original, media, picture, *size, sha256(content).hexdigest())


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
            picture, size = _shown(page.render(scale=min(scale, 4), may_draw_forms=True).to_pil())
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
