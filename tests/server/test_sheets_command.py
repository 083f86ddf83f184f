"""Sheets as files from the command line: what the desk does, without a browser."""

import json
from io import StringIO

import pytest
from django.core.management import CommandError, call_command

from server.sheets import services
from server.sheets.models import Sheet
from server.sheets.schemas import ProblemIn

pytestmark = pytest.mark.django_db


@pytest.fixture
def sheet(teacher):
    sheet = services.create_sheet(teacher, "Tides")
    services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="x^2 = 49", form="choose"), ["x = 7"])
    return sheet


def called(*arguments):
    out, err = StringIO(), StringIO()
    call_command("sheets", *map(str, arguments), stdout=out, stderr=err)
    return out.getvalue(), err.getvalue()


@pytest.mark.parametrize("form", ["json", "qti"])
def test_out_and_in_again(sheet, teacher, tmp_path, form):
    path = tmp_path / ("a.zip" if form == "qti" else "a.json")
    called("export", sheet.pk, "--teacher", teacher.username, "--to", form, "--out", path)
    out, err = called("import", path, "--teacher", teacher.username)
    assert err == ""
    back = Sheet.objects.get(pk=int(out.split()[1]))
    problem = back.problems.get()
    assert (back.title, problem.given, problem.form, problem.working.lines.get().text) == (
        "Tides",
        "x^2 = 49",
        "choose",
        "x = 7",
    )


def test_as_pdf_with_what_is_doubtful(sheet, teacher, tmp_path):
    services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="x^5 - x - 1 = 0"))
    _, err = called(
        "export", sheet.pk, "--teacher", teacher.username, "--to", "pdf", "--kind", "key", "--out", tmp_path / "a.pdf"
    )
    assert (tmp_path / "a.pdf").read_bytes().startswith(b"%PDF")
    assert err.startswith("2: No method")


def test_without_a_number_they_are_listed(sheet, teacher):
    assert called("export", "--teacher", teacher.username)[0] == f"{sheet.pk}  Tides\n"


def test_what_can_not_be_taken_is_named(teacher, tmp_path):
    (tmp_path / "a.json").write_text(
        json.dumps({"title": "T", "problems": [{"task": "solve", "given": "2x = 8"}, {"task": "x"}]})
    )
    _, err = called("import", tmp_path / "a.json", "--teacher", teacher.username)
    assert err.startswith("2. ")


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["export", "99999", "--teacher", "maren"], "no sheet"),
        (["export", "--teacher", "nobody"], "Nobody has"),
        (["import", "no-such.json", "--teacher", "maren"], "No such file"),
        (["import", "README.md", "--teacher", "maren"], "not as"),
    ],
)
def test_what_can_not_be_done_says_why(teacher, arguments, words):
    with pytest.raises(CommandError, match=words):
        called(*arguments)
