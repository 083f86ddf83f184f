"""Names in every script on paper: set where a face is here, a box and a note where none is, never an error."""

import io

import pytest
from pypdf import PdfReader

from algebra import Working
from paper import (
    FeedbackSlip,
    Place,
    Settings,
    StudentData,
    StudentSet,
    StudentWork,
    Wanted,
    as_pdf,
    as_png,
    as_svg,
    feedback_source,
    planned,
    source_of,
    student_source,
)

NAMES = [
    "김서연",
    "王小明",
    "さくら ひなた",
    "نور الهدى",
    "דנה לוי",
    "Kaʻohu",
    "अदिति",
    "สมชาย",
    "Շուշան",
    "ქეთევან",
    "ትግስት",
    "Ελένη Łukasz Đặng",
    "N\u0308ora Zo\u0308e",
    "😀 Ada ✔",
    "👩‍🏫 Bo ❤️",
]


def text_of(pdf):
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)


def sheet(words):
    return source_of(planned(words, [Wanted(Working("solve", f"2x = ({words}", ()), f"{words}.")]), Settings("sheet"))


def feedback(words):
    place = Place(1, "2x = 4", f"x = {words} (", words, in_words=True)
    return feedback_source(words, words, [FeedbackSlip(words, (2,), (place,), (), ("3x = 6",))])


def student(words):
    work = StudentWork(1, "2x = 4", (f"x = {words} (",), words, "1", (words,), (words,))
    return student_source(StudentData(words, "7", words, (words,), (StudentSet(words, "", "point", (), (work,)),), ()))


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("kind", [sheet, feedback, student])
def test_a_name_is_printed_wherever_it_stands(kind, name):
    pdf = as_pdf(kind(name))
    assert pdf.startswith(b"%PDF")
    assert "stands where no face is here" not in text_of(pdf)


@pytest.mark.parametrize("form", [as_svg, as_png])
def test_the_preview_and_the_picture_too(form):
    assert form(sheet(NAMES[0]))


def test_what_has_no_face_here_is_a_box_and_a_note(monkeypatch):
    monkeypatch.setenv("UCHUU_FACES", "")
    told = text_of(as_pdf(feedback("สมชาย")))
    assert "□" in told
    assert ["stands where no face is here for ", "0E0A, ", "0E21, ", "0E2A, ", "0E32, ", "0E22"][0] in told
    assert "U+0E2A" in told


def test_a_sign_that_no_face_at_all_has_is_named():
    assert "no face is here for U+1FAE8." in text_of(as_pdf(sheet("\U0001fae8 Ada")))


def test_a_page_with_very_many_such_signs_is_printed(monkeypatch):
    monkeypatch.setenv("UCHUU_FACES", "")
    assert as_pdf(sheet("".join(map(chr, range(0x0E01, 0x0E3A))) + "".join(map(chr, range(0xAC00, 0xAC40)))))


def test_what_typst_has_itself_is_the_same_on_every_machine(monkeypatch):
    own = as_pdf(sheet("Ada Łukasz Ελένη ∑ ½"))
    monkeypatch.setenv("UCHUU_FACES", "")
    assert as_pdf(sheet("Ada Łukasz Ελένη ∑ ½")) == own


def test_accents_typed_apart_are_the_same_page():
    assert as_pdf(feedback("Zo\u0308e")) == as_pdf(feedback("Zöe"))
