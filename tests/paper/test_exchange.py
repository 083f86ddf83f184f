"""Sheets go out and come back the same; what can't be taken is named, and the rest is taken."""

import csv
import io
import json
import xml.etree.ElementTree as ET
from dataclasses import replace

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from algebra import ITEM_FORMS, NUMBERS, TASKS, SheetFile, SheetProblem, TaskError
from paper import FILE_FORMATS, read, written
from tools.installation import ROOT

SHEET = SheetFile(
    "Thursday & “more” <1>",
    (
        SheetProblem("solve", "x^2 = 9", ("x = 3 or x = -3",), conventions={"decimal": "comma"}),
        SheetProblem("solve", "ax + b = c", ("x = (c - b)/a",), variable="x", assume=("a > 0",)),
        SheetProblem("simplify", "(2 + 3i)(1 - i)", (), numbers="complex"),
        SheetProblem("solve", "x^2 + 6x = 7", (), method="completing-the-square"),
        SheetProblem("solve", "x^5 - x - 1 = 0", ()),
        SheetProblem("simplify", "-3(x + 1)", ()),
    ),
    ("irrational-numbers",),
)
TEXT = st.text(
    st.characters(codec="utf-8", exclude_characters="\x00", exclude_categories=("Cs", "Cc", "Zl", "Zp")),
    min_size=1,
    max_size=40,
)
STRIPPED = TEXT.map(str.strip).filter(bool)
WORKINGS = st.builds(
    SheetProblem,
    task=st.sampled_from(TASKS),
    given=STRIPPED,
    lines=st.lists(STRIPPED, max_size=4).map(tuple),
    variable=st.none() | st.sampled_from("xyt"),
    numbers=st.sampled_from(NUMBERS),
    conventions=st.sampled_from([{}, {"decimal": "comma"}]),
    method=st.none() | st.just("factoring"),
    instruction=st.just("") | STRIPPED,
    form=st.sampled_from(ITEM_FORMS),
)


@settings(max_examples=80)
@given(STRIPPED, st.lists(WORKINGS, min_size=1, max_size=4))
def test_json_comes_back_whole(title, problems):
    sheet = SheetFile(title, tuple(problems), ("fractions",))
    back, left = read(written(sheet, "json"), "json")
    assert (back, left) == (sheet, ())


@settings(max_examples=80)
@given(st.lists(WORKINGS, min_size=1, max_size=4))
def test_chains_come_back_as_far_as_they_hold_them(problems):
    def can_be_held(line):
        return not line.startswith("#") and not line.startswith("task") and not set(line) <= {"-", " "}

    kept = [w for w in problems if all(can_be_held(line) for line in w.lines)]
    if kept:
        back, _ = read(written(SheetFile("T", tuple(kept)), "chain"), "chain")
        assert back.problems == tuple(replace(w, instruction="", form="work") for w in kept)
        assert back.title == "T"


def test_csv_holds_the_problems_with_answers_and_no_formula_for_a_table():
    rows = list(csv.DictReader(io.StringIO(written(SHEET, "csv").decode())))
    assert [row["given"] for row in rows] == [w.given for w in SHEET.problems[:-1]] + ["'-3(x + 1)"]
    assert rows[0]["answer"] == "3 or -3"
    assert rows[4]["answer"] == ""
    assert float(rows[0]["difficulty"]) > 1
    back, left = read(written(SHEET, "csv"), "csv", "Back")
    assert left == ()
    assert [(w.task, w.given, w.variable, w.numbers, w.method) for w in back.problems] == [
        (w.task, w.given, w.variable, w.numbers, w.method) for w in SHEET.problems
    ]


@pytest.mark.parametrize("separator", [",", ";", "\t"])
def test_tables_of_others_are_taken_with_any_usual_separator(separator):
    text = (
        separator.join(["nr", "given", "points"])
        + "\n"
        + separator.join(["1", "2x = 8", "3"])
        + "\n"
        + separator.join(["2", "x^2 - 4", "2"])
        + "\n\n"
    )
    back, left = read(text.encode(), "csv")
    assert [(w.task, w.given) for w in back.problems] == [("solve", "2x = 8"), ("simplify", "x^2 - 4")]
    assert left == ()


def test_the_json_fits_its_published_schema():
    schema = json.loads((ROOT / "docs" / "schema" / "sheet.schema.json").read_text())
    jsonschema.validate(json.loads(written(SHEET, "json")), schema)


def test_the_page_is_read_as_xml_and_asks_nothing_of_anybody():
    page = written(SHEET, "html").decode()
    body = page.partition("<body>")[2].partition("</body>")[0]
    root = ET.fromstring(f"<body>{body}</body>")
    assert root.find("h1").text == SHEET.title
    assert len(root.findall(".//{http://www.w3.org/1998/Math/MathML}math")) > len(SHEET.problems)
    assert "http" not in page.replace("http://www.w3.org/1998/Math/MathML", "")
    assert "<script" not in page


def test_the_latex_is_a_whole_document_with_standard_packages():
    text = written(SHEET, "tex").decode()
    assert text.startswith(r"\documentclass") and text.rstrip().endswith(r"\end{document}")
    for name in ("document", "description"):
        assert text.count(f"\\begin{{{name}}}") == text.count(f"\\end{{{name}}}")
    assert r"Thursday \& “more” <1>" in text
    depth = 0
    for mark in text.replace(r"\{", "").replace(r"\}", ""):
        depth += (mark == "{") - (mark == "}")
        assert depth >= 0
    assert depth == 0


class TestWhatCannotBeTaken:
    def test_is_named_and_the_rest_is_taken(self):
        problems = [
            {"task": "solve", "given": "2x = 8"},
            {"task": "guess", "given": "x"},
            {"given": "x"},
            "x = 1",
            {"task": "solve", "given": "x" * 700},
            {"task": "solve", "given": "3x = 9", "hue": 1},
            {"task": "solve", "given": "x", "lines": "x"},
            {"task": "solve", "given": "x", "lines": ["x"] * 999},
        ]
        back, left = read(json.dumps({"title": "T", "problems": problems}).encode(), "json")
        assert [w.given for w in back.problems] == ["2x = 8", "3x = 9"]
        assert [each.place for each in left] == [2, 3, 4, 5, 6, 7, 8]
        assert left[4].text == "“hue”" and "ignored" in left[4].why
        assert all(each.why for each in left)

    @pytest.mark.parametrize(
        ("text", "form", "words"),
        [
            ("{", "json", "no JSON"),
            ("[" * 100_000, "json", "no JSON"),
            ("[]", "json", "problems"),
            ('{"problems": []}', "json", "no problem"),
            ('{"problems": [], "format": 2}', "json", "Format 2"),
            ("a,b\n1,2\n", "csv", "given"),
            ("", "csv", "given"),
            ("hello", "chain", "line 1"),
            ("x" * 400_001, "chain", "characters at most"),
            ("x", "html", "comes back from"),
        ],
    )
    def test_a_file_of_which_nothing_can_be_taken(self, text, form, words):
        with pytest.raises(TaskError, match=words):
            read(text.encode(), form)

    def test_too_many_problems(self):
        rows = [{"task": "solve", "given": f"x = {k}"} for k in range(201)]
        with pytest.raises(TaskError, match="200 problems at most"):
            read(json.dumps({"problems": rows}).encode(), "json")


@pytest.mark.parametrize("form", FILE_FORMATS)
def test_every_form_is_written(form):
    assert written(SHEET, form).strip()


def test_a_list_that_names_a_problem_twice_keeps_both_and_a_key_behind_is_joined():
    twice, _ = read(b"Solve.\n1. 3x = 12\n2. 3x = 12\n", "txt")
    assert [w.given for w in twice.problems] == ["3x = 12", "3x = 12"]
    keyed, _ = read(b"1. Solve 3x = 12\n2. Solve 2x = 8\n\n1. Solve 3x = 12\nx = 4\n\n2. Solve 2x = 8\nx = 4\n", "txt")
    assert [(w.given, w.lines) for w in keyed.problems] == [("3x = 12", ("x = 4",)), ("2x = 8", ("x = 4",))]


def test_a_table_that_can_not_be_read_says_where():
    with pytest.raises(TaskError, match="Row 2"):
        read(b"given,task\n" + b"x" * 140_000 + b",solve\n", "csv")
