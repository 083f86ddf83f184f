"""What leaves the command line as files: sheets on paper, open forms, pictures."""

import io
import json

import pytest

from cli import convert, picture
from cli import print as print_command
from paper import FILE_FORMATS

CHAIN = "# Thursday\n\ntask: solve\ngiven: x^2 = 49\n---\nx = 7\n\ntask: analyze\ngiven: f(x) = (x+1)/(x-2)\n---\n"


@pytest.fixture
def chain(tmp_path):
    path = tmp_path / "key.chain"
    path.write_text(CHAIN, encoding="utf-8")
    return path


def run(main, *arguments):
    out, err = io.StringIO(), io.StringIO()
    status = main([str(argument) for argument in arguments], out=out, err=err)
    return status, out.getvalue(), err.getvalue()


@pytest.mark.parametrize(("name", "begins"), [("a.pdf", b"%PDF"), ("a.svg", b"<svg"), ("a.png", b"\x89PNG")])
def test_a_sheet_is_printed_as_the_name_says(chain, tmp_path, name, begins):
    status, out, err = run(print_command.main, chain, "--out", tmp_path / name, "--kind", "key")
    assert (status, err) == (0, "")
    assert "2 items" in out
    assert (tmp_path / name).read_bytes().startswith(begins)


def test_a_key_that_can_not_be_relied_on_is_named_and_printed(tmp_path):
    path = tmp_path / "a.chain"
    path.write_text("task: solve\ngiven: x^5 - x - 1 = 0\n---\n", encoding="utf-8")
    status, _, err = run(print_command.main, path, "--out", tmp_path / "a.pdf")
    assert status == 1
    assert "1. x^5 - x - 1 = 0: No method" in err
    assert (tmp_path / "a.pdf").exists()


@pytest.mark.parametrize("form", FILE_FORMATS)
def test_a_file_is_converted_to_every_form(chain, tmp_path, form):
    status, _, err = run(convert.main, chain, "--to", form, "--out", tmp_path / f"b.{form}")
    assert (status, err) == (0, "")
    assert (tmp_path / f"b.{form}").stat().st_size > 50


def test_a_package_comes_back(chain, tmp_path):
    run(convert.main, chain, "--to", "qti", "--out", tmp_path / "b.zip")
    status, out, _ = run(convert.main, tmp_path / "b.zip", "--to", "json")
    assert status == 0
    assert [problem["given"] for problem in json.loads(out)["problems"]] == ["x^2 = 49", "f(x) = (x+1)/(x-2)"]


def test_a_latex_document_of_ours_comes_back_as_problems(chain, tmp_path):
    run(convert.main, chain, "--to", "tex", "--out", tmp_path / "b.tex")
    status, out, _ = run(convert.main, tmp_path / "b.tex", "--to", "json")
    assert status in (0, 1)
    assert "x^2 = 49" in [problem["given"] for problem in json.loads(out)["problems"]]


@pytest.mark.parametrize(
    ("name", "content", "to", "words"),
    [
        ("a.doc", b"x", "json", "comes back from"),
        ("a.csv", b"a,b\n", "json", "given"),
        ("a.txt", b"\xff\xfe", "json", "UTF-8"),
        ("a.zip", b"x", "json", "no zip"),
        ("a.chain", CHAIN.encode(), "qti", "--out"),
    ],
)
def test_what_can_not_be_converted_says_why(tmp_path, name, content, to, words):
    (tmp_path / name).write_bytes(content)
    status, _, err = run(convert.main, tmp_path / name, "--to", to)
    assert status == 2
    assert words in err


@pytest.mark.parametrize(
    ("arguments", "begins"), [(["a.svg"], b"<svg"), (["a.png", "--number", "2", "--shown", "graph"], b"\x89PNG")]
)
def test_a_picture(chain, tmp_path, arguments, begins):
    status, _, err = run(picture.main, chain, "--out", tmp_path / arguments[0], *arguments[1:])
    assert (status, err) == (0, "")
    assert (tmp_path / arguments[0]).read_bytes().startswith(begins)


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["a.gif"], ".svg or .png"),
        (["a.svg", "--number", "3"], "2 workings"),
        (["a.svg", "--shown", "graph"], "function"),
    ],
)
def test_what_has_no_picture_says_why(chain, tmp_path, arguments, words):
    status, _, err = run(picture.main, chain, "--out", tmp_path / arguments[0], *arguments[1:])
    assert status == 2
    assert words in err
    assert not (tmp_path / arguments[0]).exists()
