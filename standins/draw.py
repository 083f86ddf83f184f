"""`./uchuu demo-pages`: draws the pages that the page reader's stand-in can read, and writes down what it reads on
them.

A printed sheet is the ground; the workings of `pages/written.txt` are written on it in a script face. What is told
there stands between marks: `{7>1}` is a 7 that is read as 1, `{7?1}` a 7 that is read as 7 but could be 1, `{->}` a
faint minus that is not seen, `{2~3}` a smudged 2 that is read as 3; a line that begins with `!` is crossed out, one
that ends in `&` slants into the next.
"""

from __future__ import annotations

import base64
import json
import random
import re
from dataclasses import dataclass, field
from io import BytesIO
from pathlib import Path
from typing import Any

import pypdfium2
from PIL import Image, ImageChops, ImageDraw, ImageFilter, ImageFont

from paper import Settings, as_pdf, planned, read, source_of, wanted_of
from standins.prints import label_places, name_place
from standins.script import Mark, laid

HERE = Path(__file__).parent / "pages"
ROOT = Path(__file__).parents[1]
FACES = ("kalam", "caveat")
DOTS_AN_INCH = 120
_MARKED = re.compile(r"\{(.)?([>?~])(.)?\}")
SURE, UNSURE = 0.97, 0.52


@dataclass
class Symbol:
    """A symbol as it is written and as it is read; `doubt` is how it was told."""

    written: str
    read: str
    other: str = ""
    doubt: str = ""


@dataclass
class Line:
    """A line of a page: its symbols, whether it is crossed out, whether it slants into the next."""

    symbols: list[Symbol]
    crossed: bool = False
    slants: bool = False


@dataclass
class Student:
    """What one student wrote: the lines by the number of the item."""

    name: str
    items: dict[int, list[Line]] = field(default_factory=dict)


def told(text: str) -> tuple[str, list[Student]]:
    """The sheet that was written on, and what each student wrote: `item: 3` above the lines of the third. Raises
    ValueError for what is no such text."""
    sheet, students = "", list[Student]()
    number = 0
    for row in text.splitlines():
        bare = row.strip()
        if not bare or bare.startswith("#"):
            continue
        if bare.startswith("sheet:"):
            sheet = bare.removeprefix("sheet:").strip()
        elif bare.startswith("page:"):
            students.append(Student(bare.removeprefix("page:").strip()))
        elif bare.startswith("item:"):
            number = int(bare.removeprefix("item:"))
            students[-1].items[number] = []
        elif not students or not number:
            raise ValueError(f"“{bare}” belongs to no item.")
        else:
            students[-1].items[number].append(_line(bare))
    return sheet, students


def _line(row: str) -> Line:
    crossed, slants = row.startswith("!"), row.endswith("&")
    row = row.removeprefix("!").removesuffix("&").strip()
    symbols, end = list[Symbol](), 0
    for found in _MARKED.finditer(row):
        symbols += [Symbol(char, char) for char in row[end : found.start()]]
        written, how, other = found.group(1) or "", found.group(2), found.group(3) or ""
        first = written if how == "?" else other
        symbols.append(Symbol(written, first, other if how == "?" else written, how))
        end = found.end()
    return Line(symbols + [Symbol(char, char) for char in row[end:]], crossed, slants)


class _Pen:
    """Writes on a page in one hand."""

    def __init__(self, page: Image.Image, seed: int) -> None:
        self.page, self.draw = page, random.Random(seed)
        face = FACES[seed % 2]
        [path] = (ROOT / "web/node_modules/@fontsource" / face / "files").glob(f"{face}-latin-400-normal.woff2")
        self.path = str(path)
        self.larger = {"kalam": 0.92, "caveat": 1.16}[face]
        self.slope = self.draw.uniform(-0.012, 0.006)
        self.ink = self.draw.choice((40, 55, 70))

    def line(
        self, text: str, x: float, base: float, size: float, faint: set[int], smudged: set[int], slope: float = 0
    ) -> dict[int, tuple[float, float, float, float]]:
        """Writes a line; the box of each symbol by its place in the text."""
        boxes = {}
        for mark in laid(text, size).marks:
            lift = (self.slope + slope) * mark.x
            box = self._mark(mark, x, base + lift, faint=mark.index in faint)
            if box is not None and mark.index >= 0:
                boxes[mark.index] = box
                if mark.index in smudged:
                    self._smudge(box)
        return boxes

    def _mark(self, mark: Mark, x: float, base: float, *, faint: bool) -> tuple[float, float, float, float] | None:
        if mark.kind == "gap":
            return None
        shake = mark.size * 0.025
        left, low = x + mark.x + self.draw.uniform(-shake, shake), base + mark.y + self.draw.uniform(-shake, shake)
        ink = 176 if faint else self.ink
        if mark.kind == "stroke":
            return self._stroke([(left, low), (left + mark.width, low + self.draw.uniform(-2, 1))], ink)
        if mark.kind == "root":
            tall = mark.size
            hook = tall * 0.3
            return self._stroke(
                [
                    (left, low - tall * 0.35),
                    (left + hook * 0.4, low - tall * 0.4),
                    (left + hook * 0.7, low),
                    (left + hook, low - tall),
                    (left + mark.width, low - tall - 1),
                ],
                ink,
            )
        return self._glyph(mark, left, low, ink)

    def _stroke(self, points: list[tuple[float, float]], ink: int) -> tuple[float, float, float, float]:
        ImageDraw.Draw(self.page).line(points, fill=ink, width=2, joint="curve")
        across, down = [p[0] for p in points], [p[1] for p in points]
        return min(across) - 1, min(down) - 2, max(across) + 1, max(down) + 2

    def _glyph(self, mark: Mark, left: float, low: float, ink: int) -> tuple[float, float, float, float]:
        wide = mark.size * 0.45
        if mark.text in "-−":
            return self._stroke(
                [(left + 2, low - mark.size * 0.24), (left + wide, low - mark.size * 0.24 + self.draw.uniform(-1, 1))],
                ink,
            )
        if mark.text == "≠":
            slash = self._stroke([(left + wide * 0.2, low), (left + wide * 0.9, low - mark.size * 0.5)], ink)
            self._glyph(Mark("glyph", -1, "=", 0, 0, mark.size, mark.width), left, low, ink)
            return slash
        font = ImageFont.truetype(self.path, round(mark.size * self.larger))
        room = round(mark.size * 1.6)
        mask = Image.new("L", (room * 2, room * 2))
        ImageDraw.Draw(mask).text((room // 2, room * 1.3), mark.text, fill=255, font=font, anchor="ls")
        mask = mask.rotate(self.draw.uniform(-3.5, 3.5), Image.Resampling.BICUBIC, center=(room // 2, room * 1.3))
        at = (round(left - room // 2), round(low - room * 1.3))
        self.page.paste(ink, at, mask)
        found = mask.getbbox() or (0, 0, 1, 1)
        return at[0] + found[0], at[1] + found[1], at[0] + found[2], at[1] + found[3]

    def _smudge(self, box: tuple[float, float, float, float]) -> None:
        left, top = round(box[0]) - 3, round(box[1]) - 3
        area = (left, top, round(box[2]) + 4, round(box[3]) + 4)
        part = self.page.crop(area)
        blurred = part.filter(ImageFilter.GaussianBlur(2.4))
        grey = Image.new("L", part.size, 190)
        self.page.paste(ImageChops.multiply(blurred, grey), (left, top))

    def cross(self, box: tuple[float, float, float, float]) -> None:
        """Strikes a line out."""
        middle = (box[1] + box[3]) / 2
        self._stroke([(box[0] - 4, middle + 2), (box[2] + 6, middle - 3)], self.ink)


def _joined(boxes: list[tuple[float, float, float, float]]) -> tuple[float, float, float, float]:
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)


def _share(box: tuple[float, float, float, float], page: Image.Image) -> list[float]:
    """A box as shares of the page: left, top, width, height."""
    return [
        round(v, 4)
        for v in (
            box[0] / page.width,
            box[1] / page.height,
            (box[2] - box[0]) / page.width,
            (box[3] - box[1]) / page.height,
        )
    ]


def _reading(
    line: Line, boxes: dict[int, tuple[float, float, float, float]], page: Image.Image, draw: random.Random
) -> dict[str, Any]:
    symbols: list[dict[str, object]] = []
    for k, symbol in enumerate(line.symbols):
        if symbol.written == " " or (not symbol.read and not symbol.doubt):
            symbols.append({"text": symbol.read})
            continue
        sure = SURE - draw.random() * 0.08 if not symbol.doubt else UNSURE + draw.random() * 0.2
        box = _share(boxes[k], page) if k in boxes else None
        found: dict[str, object] = {"text": symbol.read, "confidence": round(sure, 2)}
        if box:
            found["box"] = box
        if symbol.doubt:
            found["alternatives"] = [{"text": symbol.other, "confidence": round(1 - sure, 2)}]
        symbols.append(found)
    return {
        "about": "line",
        "box": _share(_joined(list(boxes.values())), page),
        "symbols": symbols,
        **({"crossed": True} if line.crossed else {}),
    }


def _one(symbols: str, box: list[float], about: str, confidence: float = SURE) -> dict[str, object]:
    return {
        "about": about,
        "box": box,
        "symbols": [{"text": char, "confidence": confidence} if char != " " else {"text": " "} for char in symbols],
    }


def drawn(
    student: Student,
    pages: list[Image.Image],
    labels: list[dict[int, tuple[float, float]]],
    names: list[tuple[float, float] | None],
    seed: int,
) -> list[list[dict[str, object]]]:
    """Writes what a student wrote on the printed pages; what is read on each."""
    found = []
    for page, places, name in zip(pages, labels, names, strict=True):
        pen, draw = _Pen(page, seed), random.Random(seed)
        lines: list[dict[str, object]] = []
        if name is not None:
            boxes = pen.line(student.name, name[0] * page.width, name[1] * page.height, 30, set(), set())
            lines.append(_one(student.name, _share(_joined(list(boxes.values())), page), "name"))
        for number, (across, down) in sorted(places.items(), key=lambda pair: pair[1][1]):
            lines.append(_one(str(number), [across, down - 0.012, 0.02, 0.014], "number"))
            written = student.items.get(number, [])
            base = down * page.height + 78
            held: tuple[Line, dict[int, tuple[float, float, float, float]]] | None = None
            for line in written:
                text = "".join(symbol.written or " " for symbol in line.symbols)
                tall = laid(text, 30)
                base += tall.above
                faint = {k for k, s in enumerate(line.symbols) if s.doubt == ">" and not s.read}
                smudged = {k for k, s in enumerate(line.symbols) if s.doubt == "~"}
                boxes = pen.line(
                    text, (across + 0.05) * page.width, base, 30, faint, smudged, 0.05 if line.slants else 0
                )
                if line.crossed:
                    pen.cross(_joined(list(boxes.values())))
                if held:
                    lines.append(_both(*held, line, boxes, page, draw))
                elif not line.slants:
                    lines.append(_reading(line, boxes, page, draw))
                held = (line, boxes) if line.slants else None
                base += tall.below + (2 if line.slants else 14)
        found.append(lines)
    return found


def _both(
    first: Line,
    above: dict[int, tuple[float, float, float, float]],
    second: Line,
    below: dict[int, tuple[float, float, float, float]],
    page: Image.Image,
    draw: random.Random,
) -> dict[str, object]:
    """Two lines that run into each other are read as one, without any trust."""
    one, two = (_reading(line, boxes, page, draw) for line, boxes in ((first, above), (second, below)))
    symbols = [
        dict(symbol) | ({"confidence": 0.3} if "confidence" in symbol else {})
        for part in (one, two)
        for symbol in part["symbols"]
    ]
    return {"about": "line", "box": _share(_joined([*above.values(), *below.values()]), page), "symbols": symbols}


def photographed(page: Image.Image, seed: int) -> Image.Image:
    """As a camera sees it: paper that is not quite white, light from one side."""
    draw = random.Random(seed)
    light = Image.linear_gradient("L").rotate(draw.choice((0, 90, 180, 270))).resize(page.size)
    shade = light.point(lambda value: 226 + value * 26 // 255)
    return ImageChops.multiply(page, shade).filter(ImageFilter.GaussianBlur(0.5))


def fingerprint(page: Image.Image) -> str:
    """What a page is known again by, also when it was stored anew: its greys, coarsely."""
    return base64.b64encode(page.convert("L").resize((72, 100), Image.Resampling.BOX).tobytes()).decode()


def main(arguments: list[str]) -> int:
    """Draws all pages; returns 0."""
    sheet, students = told((HERE / "written.txt").read_text(encoding="utf-8"))
    path = ROOT / sheet
    file, _ = read(path.read_bytes(), path.suffix.removeprefix("."))
    plan = planned(file.title, [wanted_of(problem) for problem in file.problems])
    document = pypdfium2.PdfDocument(as_pdf(source_of(plan, Settings())))
    code = f"uchuu:{plan.code}:{plan.version}"
    readings = []
    for old in HERE.glob("*.jpg"):
        old.unlink()
    for seed, student in enumerate(students, start=3):
        pages = [page.render(scale=DOTS_AN_INCH / 72).to_pil().convert("L") for page in document]
        labels = [label_places(page) for page in document]
        kept = [k for k, places in enumerate(labels) if any(n in student.items for n in places)]
        found = drawn(
            student, [pages[k] for k in kept], [labels[k] for k in kept], [name_place(document[k]) for k in kept], seed
        )
        for k, lines in zip(kept, found, strict=True):
            picture = photographed(pages[k], seed + k)
            out = BytesIO()
            picture.save(out, "JPEG", quality=58, optimize=True)
            name = f"{student.name.lower().replace(' ', '-')}-{k + 1}.jpg"
            (HERE / name).write_bytes(out.getvalue())
            readings.append({"page": name, "code": code, "known-by": fingerprint(Image.open(out)), "lines": lines})
    (HERE / "readings.json").write_text(
        json.dumps(readings, ensure_ascii=False, separators=(",", ":")).replace('{"page"', '\n{"page"') + "\n",
        encoding="utf-8",
    )
    print(f"{len(readings)} pages of {len(students)} students drawn")
    return 0
