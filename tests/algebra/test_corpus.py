"""Every working of the corpus and of the demo, and the same workings written in LaTeX."""

from pathlib import Path

import pytest

from algebra import Working, check, read_workings
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.tree.latex import latex

ROOT = Path(__file__).parents[2]
FILES = sorted([*(ROOT / "tests" / "corpus").glob("*.chain"), *(ROOT / "server" / "sheets" / "demo").glob("*.chain")])


def in_latex(text: str) -> str:
    """The statement of a line in LaTeX, its move and remark left as they are."""
    try:
        line = read_line(text)
    except ReadingError:
        return text
    if line.kind not in ("expression", "equation", "exclusion") or line.body is None:
        return text
    tail = f"   | {line.move.text}" if line.move else ""
    return latex(line.body) + tail + (f" # {line.remark}" if line.remark else "")


@pytest.mark.parametrize("path", FILES, ids=lambda path: path.stem)
def test_a_verdict_is_the_same_in_plain_notation_and_in_latex(path):
    for working in read_workings(path.read_text(encoding="utf-8")):
        plain = check(working)
        typeset = check(
            Working(
                working.task,
                in_latex(working.given),
                tuple(map(in_latex, working.lines)),
                working.variable,
                working.numbers,
                working.conventions,
            )
        )
        assert plain.error is None
        assert [link.relation for link in typeset.links] == [link.relation for link in plain.links], working.given
        assert typeset.answer.verdict == plain.answer.verdict


@pytest.mark.parametrize("path", FILES, ids=lambda path: path.stem)
def test_no_link_of_the_corpus_is_undecided_and_every_break_is_shown(path):
    for working in read_workings(path.read_text(encoding="utf-8")):
        for link in check(working).links:
            assert link.relation not in (None, "unclear")
            assert link.evidence is not None or link.relation not in ("breaks", "narrows")


def test_the_answer_that_is_expected_passes_its_own_check():
    for path in FILES:
        for working in read_workings(path.read_text(encoding="utf-8")):
            expected = check(working).answer.expected
            if working.task == "solve" and not expected:
                lines = ("no solution",)
            elif working.task == "solve" and expected[0] == "all":
                lines = ("all real numbers",)
            elif working.task == "solve":
                unknown = working.variable or "x"
                lines = (" or ".join(f"{unknown} = {value}" for value in expected),)
            elif working.task == "domain":
                lines = (f"x ≠ {', '.join(expected)}",)
            elif working.task == "analyze":
                lines = tuple(expected)
            else:
                lines = (expected[0],)
            report = check(
                Working(working.task, working.given, (*working.assume, *lines), working.variable, working.numbers)
            )
            assert report.answer.verdict == "correct", (working.given, expected)
