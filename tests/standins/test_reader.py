"""The page reader's stand-in: the pages that ship, pages filled in on a screen, any other page, and the faults one can
ask of it."""

import json
import re
from io import BytesIO
from pathlib import Path

import pypdfium2
import pytest
from PIL import Image
from pypdf import PdfReader, PdfWriter
from pypdf.annotations import FreeText

from algebra import Working
from paper import Settings, Wanted, as_pdf, planned, scanned_pages, source_of
from standins import draw, reader, script
from standins.serving import faults_of

PAGES = sorted((Path(reader.__file__).parent / "pages").glob("*.jpg"))
PROBLEMS = [Working("solve", "3x + 7 = 22"), Working("solve", "x^2 - 5x + 6 = 0")]


def texts(answer, about="line"):
    return ["".join(s["text"] for s in line["symbols"]) for line in answer["lines"] if line["about"] == about]


def printed_sheet(code=False):
    plan = planned("Thursday", [Wanted(each) for each in PROBLEMS])
    pdf = as_pdf(source_of(plan, Settings()))
    return (pdf, plan.code) if code else pdf


def filled(pdf, notes):
    """The sheet with free texts on its first page; each stands at a share of the page from the left and from above."""
    writer = PdfWriter(clone_from=PdfReader(BytesIO(pdf)))
    wide, tall = (float(side) for side in writer.pages[0].mediabox[2:])
    for text, left, top in notes:
        box = (left * wide, tall - top * tall - 14, left * wide + 200, tall - top * tall)
        writer.add_annotation(0, FreeText(text=text, rect=box))
    out = BytesIO()
    writer.write(out)
    return out.getvalue()


@pytest.mark.parametrize("path", PAGES, ids=lambda path: path.stem)
def test_a_page_that_ships_is_read_also_when_it_was_stored_anew(path):
    first = reader.read_page(path.read_bytes(), "image/jpeg")
    assert first["code"] == "uchuu:611FABC4:A" and first["read_to"] == 1
    assert len(texts(first)) > 4
    smaller = Image.open(path).resize((800, 1131))
    out = BytesIO()
    smaller.save(out, "PNG")
    again = reader.read_page(out.getvalue(), "image/png")
    assert again["lines"] == first["lines"]


def test_the_pages_tell_what_was_doubtful():
    told = reader.read_page(next(p for p in PAGES if p.stem == "jory-pell-1").read_bytes(), "image/jpeg")
    assert texts(told, "name") == ["Jory Pell"] and texts(told, "number") == ["1", "2", "3", "4"]
    [crossed] = [line for line in told["lines"] if line.get("crossed")]
    assert "(2x - 1)/3" in "".join(s["text"] for s in crossed["symbols"])
    [slanted] = [
        line
        for line in told["lines"]
        if line["about"] == "line" and line["symbols"] and line["symbols"][0]["confidence"] < 0.5
    ]
    assert "".join(s["text"] for s in slanted["symbols"]) == "8x - 4 - 3x + 6 = 25x + 2 = 2"
    [doubtful] = [s for line in told["lines"] for s in line["symbols"] if s.get("alternatives")][1:]
    assert (doubtful["text"], doubtful["alternatives"][0]["text"]) == ("2", "z") and len(doubtful["box"]) == 4


def test_what_is_not_known_comes_back_as_unread_rows():
    page = Image.new("L", (800, 1000), 255)
    for top in (100, 300):
        page.paste(30, (120, top, 420, top + 24))
    out = BytesIO()
    page.save(out, "PNG")
    told = reader.read_page(out.getvalue(), "image/png")
    assert told["code"] == "" and [line["symbols"] for line in told["lines"]] == [[], []]
    assert told["lines"][0]["box"] == pytest.approx([0.15, 0.1, 0.375, 0.024], abs=0.002)


def test_a_sheet_filled_in_on_a_screen_is_read_with_its_numbers():
    pdf, code = printed_sheet(code=True)
    told = reader.read_page(
        filled(pdf, [("Bo Tarn", 0.35, 0.08), ("3x = 15\nx = 5", 0.15, 0.18), ("(x-2)(x-3) = 0", 0.15, 0.33)]),
        "application/pdf",
    )
    assert told["code"] == f"uchuu:{code}:A"
    assert [(line["about"], "".join(s["text"] for s in line["symbols"])) for line in told["lines"]] == [
        ("name", "Bo Tarn"),
        ("number", "1"),
        ("line", "3x = 15"),
        ("line", "x = 5"),
        ("number", "2"),
        ("line", "(x-2)(x-3) = 0"),
    ]


@pytest.mark.parametrize(
    ("content", "media"), [(b"no page", "image/png"), (b"%PDF-1.7 broken", "application/pdf"), (b"x", "text/plain")]
)
def test_what_is_no_page_is_refused(content, media):
    with pytest.raises(reader.Unreadable):
        reader.read_page(content, media)


def test_faults_come_in_the_shares_asked_for():
    drawn = faults_of("half=0.5,garbage=0.25", seed=4)
    met = [drawn.next() for _ in range(400)]
    assert 160 < met.count("half") < 240 and 60 < met.count("garbage") < 140 and 60 < met.count("") < 140
    for wrong in ("rude=1", "slow=2", "slow=x"):
        with pytest.raises(ValueError, match=r"fault|could not convert"):
            faults_of(wrong)


def test_scans_become_pages_with_a_picture():
    pdf = printed_sheet()
    [page] = scanned_pages(pdf)
    assert page.media == "application/pdf" and len(pypdfium2.PdfDocument(page.original)) == 1
    shown = Image.open(BytesIO(page.picture))
    assert shown.size == (page.width, page.height) and max(shown.size) == 1600
    assert scanned_pages(pdf)[0].digest == page.digest
    noted = filled(pdf, [("x = 5", 0.15, 0.2)])
    assert (
        reader.read_page(scanned_pages(noted)[0].original, "application/pdf")["lines"][1]["symbols"][0]["text"] == "x"
    )


def test_what_a_camera_notes_is_not_kept():
    page = Image.new("RGB", (60, 40), "white")
    exif = Image.Exif()
    exif[0x010F] = "a maker"
    exif[0x0112] = 6  # to be turned
    out = BytesIO()
    page.save(out, "JPEG", exif=exif)
    [kept] = scanned_pages(out.getvalue())
    assert (kept.width, kept.height) == (40, 60)
    assert not Image.open(BytesIO(kept.original)).getexif()


@pytest.mark.parametrize(
    ("text", "over", "raised"), [("(x+1)/(x-2)", "x+1", ""), ("x^2 + 19/2", "19", "2"), ("√(x+1) = 3", "", "")]
)
def test_a_line_is_laid_out_as_one_writes_it(text, over, raised):
    marks = script.laid(text, 30).marks
    assert {m.index for m in marks} <= set(range(len(text))) and all(m.text in text for m in marks)
    strokes = [m for m in marks if m.kind == "stroke"]
    if over:
        assert "".join(m.text for m in marks if m.kind == "glyph" and m.y < strokes[0].y and m.size > 22) == over
    assert "".join(m.text for m in marks if m.kind == "glyph" and m.y < 0 and m.size < 22) == raised


def test_the_pages_are_drawn_from_their_text():
    sheet, students = draw.told((draw.HERE / "written.txt").read_text())
    shipped = json.loads((draw.HERE / "readings.json").read_text())
    assert (draw.ROOT / sheet).is_file() and [s.name for s in students] == ["Iris Vane", "Jory Pell", "Kit Ashby"]
    read = " / ".join("".join(s["text"] for s in line["symbols"]) for page in shipped for line in page["lines"])
    for student in students:
        for lines in student.items.values():
            for line in lines:
                assert "".join(symbol.read for symbol in line.symbols).strip() in read
    with pytest.raises(ValueError, match="belongs to no item"):
        draw.told("page: Iris Vane\nx = 1")
    assert not re.search("[{}]", read)
