"""What is not finished though it is right, and what is finished though it looks as if it were not."""

import pytest

from algebra import Working, check

UNFINISHED = [
    ("simplify", "(a^4)(a^2)"),
    ("simplify", "3y(5y)"),
    ("simplify", "4(-7)"),
    ("simplify", "w - (-9)"),
    ("simplify", "5(2√3)"),
    ("simplify", "(3√5)(2√7)"),
    ("simplify", "(a/5)·(b/2)"),
    ("simplify", "(√y)^6"),
    ("simplify", "5^n·5^n"),
    ("simplify", "2^n·2^3"),
    ("simplify", "|-t|"),
    ("simplify", "|-4t|"),
    ("simplify", "√0"),
    ("simplify", "√(6 + 2√5)"),
    ("simplify", "√(8 - 2√15)"),
    ("simplify", "(x - 4)(x - 4)^3"),
    ("factor", "(x - 4)(x - 4)^3"),
    ("factor", "10(x + 2/5)"),
    ("factor", "2·15·11"),
]
FINISHED = [
    ("factor", "3·5·13"),
    ("factor", "2^3·7"),
    ("factor", "(x - 4)(x - 4)"),
    ("factor", "x + 2/5"),
    ("factor", "3(x + 2/5)"),
    ("simplify", "5/((x + k)^2 + 9)"),
    ("simplify", "(x + 1)/((x - 2)^2 + 3)"),
    ("simplify", "√(5 + 2√7)"),
    ("simplify", "√(x + 2√3)"),
    ("simplify", "3a^2b"),
    ("simplify", "2·3^n"),
    ("simplify", "|t - 4|"),
]


@pytest.mark.parametrize(
    ("task", "text", "finished"), [(*row, False) for row in UNFINISHED] + [(*r, True) for r in FINISHED]
)
def test_whether_something_is_left_to_do(task, text, finished):
    report = check(Working(task, text, (text,)))
    assert report.answer.verdict in ("correct", "unfinished")
    assert report.finish.finished is finished, report.finish.remaining


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("3y(5y)", "Numbers are still to be multiplied."),
        ("w - (-9)", "Two signs stand side by side."),
        ("|-4t|", "The sign inside of |-4t| makes no difference."),
        ("√0", "√0 is 0."),
        ("√(6 + 2√5)", "√(6+2√5) can be written as a sum of roots."),
        ("5^n·5^n", "The base 5 occurs twice."),
    ],
)
def test_what_is_left_is_said(text, words):
    said = [each.text for each in check(Working("simplify", text, (text,))).finish.remaining]
    assert any(each.replace(" ", "") == words.replace(" ", "") for each in said), said


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("(-3)(-y)", "A minus inside of a product is still to be put in front."),
        ("a/(-c)", "The minus below is still to be put in front."),
        ("|y|^2", "The bars of |y|^2 make no difference."),
        ("|y^4|", "y^4 is never negative: no bars."),
    ],
)
def test_signs_and_bars_that_are_left_are_said(text, words):
    assert words in [each.text for each in check(Working("simplify", text, (text,))).finish.remaining]


@pytest.mark.parametrize(
    ("given", "line"), [("3x = 12", "x = 4."), ("3x = 12", "⟹ x = 4"), ("x^2 = 3x", "x = 0 or x = 3.")]
)
def test_a_line_may_end_like_a_sentence_or_begin_with_an_arrow(given, line):
    assert check(Working("solve", given, (line,))).finish.finished


def test_what_is_true_of_numbers_stands_beside_an_equation_without_solutions():
    found = check(Working("solve", "x^2 + 2x + 7 = 0", ("4 - 28 = -24", "no solution"))).links
    assert [(each.relation, each.kind) for each in found] == [("holds", "aside"), ("holds", "statement")]
    assert check(Working("solve", "x^2 + 2x + 7 = 0", ("4 - 28 = -22",))).links[0].relation == "breaks"
