"""The page reader's stand-in: answers `POST /read` as docs/page-reader.md tells, for the pages that ship beside it and
for pages filled in on a screen."""

from __future__ import annotations

import base64
import json
import sys
from functools import cache
from io import BytesIO
from pathlib import Path
from typing import Any

import pypdfium2
import zxingcpp
from PIL import Image, UnidentifiedImageError

from standins.prints import Filled, filled_in, label_places, name_place
from standins.serving import Answering, serve

PAGES = Path(__file__).parent / "pages" / "readings.json"
MEDIA = ("image/png", "image/jpeg", "application/pdf")
KNOWN_AGAIN = 0.985
"""How much the greys of a page must agree with those of one that is known."""
SURE = 0.99
_SIZE = (72, 100)
_INK, _LEAST_INK = 120, 3
_GAP_ROWS = 5


class Unreadable(ValueError):
    """Why a page can't be read."""


def read_page(content: bytes, media: str) -> dict[str, object]:
    """What stands on a page: the code of its sheet, and its lines from top to bottom. Raises Unreadable."""
    try:
        if media == "application/pdf":
            return _from_pdf(content)
        if media in MEDIA:
            return _from_picture(Image.open(BytesIO(content)).convert("L"))
    except (UnidentifiedImageError, OSError, pypdfium2.PdfiumError, Image.DecompressionBombError) as problem:
        raise Unreadable("This is no page that can be opened.") from problem
    raise Unreadable(f"A page is one of {', '.join(MEDIA)}.")


def _answer(code: str, lines: list[dict[str, Any]]) -> dict[str, object]:
    return {"protocol": 1, "code": code, "read_to": 1.0, "lines": lines}


def _from_picture(page: Image.Image) -> dict[str, object]:
    code = _code(page)
    known = _known(page)
    if known is not None:
        return _answer(code or str(known["code"]), known["lines"])
    return _answer(code, [{"about": "line", "box": list(box), "symbols": []} for box in written_rows(page)])


def _code(page: Image.Image) -> str:
    found = zxingcpp.read_barcodes(page, formats=zxingcpp.BarcodeFormats([zxingcpp.BarcodeFormat.QRCode]))
    return next((each.text for each in found if each.text.startswith("uchuu:")), "")


@cache
def _shipped() -> list[dict[str, Any]]:
    return list(json.loads(PAGES.read_text(encoding="utf-8")))


def _known(page: Image.Image) -> dict[str, Any] | None:
    """The page that ships, whose greys agree best; None where none agrees well."""
    greys = page.resize(_SIZE, Image.Resampling.BOX).tobytes()
    agreed = [(_agreement(greys, base64.b64decode(each["known-by"])), k) for k, each in enumerate(_shipped())]
    best, k = max(agreed, default=(0.0, 0))
    return _shipped()[k] if best >= KNOWN_AGAIN else None


def _agreement(one: bytes, other: bytes) -> float:
    """The correlation of two rows of greys."""
    mean_one, mean_other = sum(one) / len(one), sum(other) / len(other)
    pairs = [(a - mean_one, b - mean_other) for a, b in zip(one, other, strict=True)]
    spread = (sum(a * a for a, _ in pairs) * sum(b * b for _, b in pairs)) ** 0.5
    return sum(a * b for a, b in pairs) / spread if spread else 0.0


def written_rows(page: Image.Image) -> list[tuple[float, float, float, float]]:
    """The boxes of rows that hold ink, from top to bottom, as shares of the page; the foot, where the code stands, is
    left out."""
    dark = page.point(lambda value: 255 if value < _INK else 0)
    across = [
        len(dark.crop((0, y, page.width, y + 1)).tobytes().strip(b"\0"))
        and dark.crop((0, y, page.width, y + 1)).tobytes().count(b"\xff")
        for y in range(round(page.height * 0.93))
    ]
    rows, start, empty = [], None, 0
    for y, ink in enumerate([*across, *[0] * (_GAP_ROWS + 1)]):
        if ink >= _LEAST_INK:
            start, empty = (y if start is None else start), 0
        elif start is not None:
            empty += 1
            if empty > _GAP_ROWS:
                rows.append((start, y - empty + 1))
                start = None
    found = []
    for top, bottom in rows:
        box = dark.crop((0, top, page.width, bottom)).getbbox()
        if box and bottom - top > 6:
            found.append(
                (
                    round(box[0] / page.width, 4),
                    round(top / page.height, 4),
                    round((box[2] - box[0]) / page.width, 4),
                    round((bottom - top) / page.height, 4),
                )
            )
    return found


def _from_pdf(content: bytes) -> dict[str, object]:
    document = pypdfium2.PdfDocument(content)
    page = document[0]
    notes = filled_in(page)
    picture = page.render(scale=130 / 72, may_draw_forms=True).to_pil().convert("L")
    if not notes:
        return _from_picture(picture)
    name = name_place(page)
    placed = [
        *notes,
        *(Filled(f"{number}", (x, y - 0.02, 0.02, 0.02)) for number, (x, y) in label_places(page).items()),
    ]
    labels = {id(each) for each in placed[len(notes) :]}
    lines: list[dict[str, Any]] = []
    for each in sorted(placed, key=lambda note: note.box[1]):
        about = (
            "number"
            if id(each) in labels
            else "name"
            if name is not None and abs(each.box[1] + each.box[3] - name[1]) < 0.025
            else "line"
        )
        rows = each.text.split("\n")
        for k, row in enumerate(rows):
            left, top, wide, tall = each.box
            box = [round(v, 4) for v in (left, top + tall * k / len(rows), wide, tall / len(rows))]
            lines.append({"about": about, "box": box, "symbols": [{"text": char, "confidence": SURE} for char in row]})
    return _answer(_code(picture), lines)


class Reader(Answering):
    """`POST /read` with a page as its body; `GET /` says what this is."""

    def do_GET(self) -> None:
        """What this is."""
        self.say(200, {"service": "page reader", "protocol": 1, "media": MEDIA})

    def do_POST(self) -> None:
        """Reads a page."""
        content = self.body()
        if self.path != "/read":
            self.say(404, {"error": "There is only /read."})
        elif not self.spoiled():
            try:
                self.say(200, read_page(content, (self.headers.get("Content-Type") or "").partition(";")[0]))
            except Unreadable as problem:
                self.say(422, {"error": str(problem)})


if __name__ == "__main__":
    sys.exit(serve(Reader))
