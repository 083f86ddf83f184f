"""Wrong answers that a teacher warns a class of are foreseen, the trap that the problem is made of among the first."""

import pytest

from algebra import Working, predict
from algebra.foresee.predict import neat
from algebra.parse.lines import read_expression

TRAPS = [
    ("evaluate", "4^2 - (5+3)(2+1)", "24"),
    ("evaluate", "4^2 - (5+3)(2+1)", "-24|24"),
    ("evaluate", "18 - 6 ÷ 3 × 2", "8"),
    ("evaluate", "18 - 6 ÷ 3 × 2", "17"),
    ("evaluate", "-3^2 + 4", "13"),
    ("simplify", "√28 + √63", "√91"),
    ("simplify", "√50 - √8", "√42"),
    ("simplify", "(t+8)/t", "8"),
    ("simplify", "(x^2-9)/(x^2-3x)", "3/x"),
    ("simplify", "(x^2-9)/(x^2-3x)", "9/(3x)|3/x"),
    ("simplify", "(x/4) ÷ (x^2/8)", "x^3/32"),
    ("solve", "x^2 = 49", "7"),
    ("solve", "(x-3)^2 = 16", "7"),
    ("solve", "x^2 + 6x = 7", "-3+√7 or -3-√7"),
    ("solve", "1/x = x/9", "3"),
    ("solve", "√(x+2) = x", "2 or -1"),
    ("factor", "x^2 + 5x + 8", "(x+2)(x+3)"),
    ("factor", "x^2 + 5x + 8", "(x+1)(x+8)|(x+4)(x+2)"),
    ("factor", "x^2 - 5x - 14", "(x+7)(x-2)"),
    ("factor", "2x^2 + 10x + 12", "(x+2)(x+3)"),
    ("solve", "3x - 5 = 16", "11/3"),
    ("solve", "2(x+3) = 14", "11/2"),
    ("solve", "-4x = 20", "5"),
    ("solve", "x/3 + 1/2 = 2", "-1/2|6"),
    ("solve", "x^2 = 5x", "5"),
    ("solve", "(x-2)(x+5) = 8", "10 or 3"),
    ("solve", "(x-2)(x+5) = 8", "2 or -5"),
    ("solve", "|x-4| = 3", "7"),
    ("solve", "2^x = 16", "8"),
    ("solve", "9^x = 27", "3"),
    ("simplify", "(2x^3)^2", "2x^6"),
    ("simplify", "(2x^3)^2", "4x^5"),
    ("simplify", "x^5·x^2", "x^10"),
    ("simplify", "5x^-2", "1/(5x^2)"),
    ("evaluate", "2^-3", "-8"),
    ("evaluate", "2^-3", "-6"),
    ("simplify", "6/(3+√3)", "2+6/√3|2 + 2√3"),
    ("expand", "(x-5)^2", "x^2 - 25"),
    ("expand", "(x-5)^2", "x^2 + 25"),
    ("solve", "2/x + 1 = 5", "2+x=5|3"),
    ("simplify", "3/x + 2/(x+1)", "5/(2x+1)"),
    ("simplify", "3/x + 2/(x+1)", "5/(x(x+1))"),
    ("domain", "(x-2)/((x-2)(x+1))", "x ≠ -1"),
    ("solve", "2x^2 - 5x - 3 = 0", "1/2 or -3|-3 or 1/2"),
    ("simplify", "√(x^2 + 16)", "x+4"),
    ("evaluate", "1/2 + 1/3", "2/5"),
    ("simplify", "(3x+6)/3", "x+6"),
    ("simplify", "(3x+6)/3", "3x+2"),
]
"""A task, a problem and a wrong answer; `|` stands between two ways to write it."""


def canonical(task, answer):
    if task in ("solve", "domain"):
        return frozenset(answer.replace(" or ", "|").replace(" ", "").split("|"))
    return frozenset([neat(read_expression(answer))])


@pytest.mark.parametrize(("task", "given", "trap"), TRAPS)
def test_a_known_trap_is_among_the_first_eight(task, given, trap):
    wrong = [canonical(task, " or ".join(item.answer)) for item in predict(Working(task, given, ())).wrong]
    assert any(canonical(task, way) in wrong for way in trap.split("|"))
    assert len(wrong) == len(set(wrong))


FEATURE_TRAPS = [
    ("(x^2-x-6)/(x^2-9)", "vertical asymptote: x = 3"),
    ("(x^2-x-6)/(x^2-9)", "domain: x ≠ -3"),
    ("(x^2-x-6)/(x^2-9)", "hole: (3, 0)"),
    ("(x^2-x-6)/(x^2-9)", "x-intercept: 3"),
    ("(2x+1)/(x-3)", "horizontal asymptote: y = 0"),
    ("(2x+1)/(x-3)", "horizontal asymptote: y = 1/2"),
    ("(2x+1)/(x-3)", "vertical asymptote: x = -3"),
    ("(2x+1)/(x-3)", "vertical asymptote: x = -1/2"),
    ("(2x+1)/(x-3)", "x-intercept: 3"),
    ("(2x+1)/(x-3)", "x-intercept: 1/2"),
    ("(x+2)/(x^2-4)", "vertical asymptote: x = -2"),
    ("(x+2)/(x^2-4)", "horizontal asymptote: none"),
    ("(x+2)/(x^2-4)", "x-intercept: -2"),
    ("(x+2)/(x^2-4)", "hole: (-2, 0)"),
    ("(x^2+1)/(x-2)", "horizontal asymptote: y = 1"),
    ("(x^2+1)/(x-2)", "oblique asymptote: y = x"),
    ("(x^2+1)/(x-2)", "vertical asymptote: x = -2"),
    ("3/(x-4) + 1", "vertical asymptote: x = -4"),
    ("3/(x-4) + 1", "horizontal asymptote: y = 0"),
    ("(x^2-4x)/(x^2-16)", "x-intercept: 4"),
    ("(x^2-4x)/(x^2-16)", "domain: x ≠ -4"),
    ("(x^2-4x)/(x^2-16)", "vertical asymptote: x = 4"),
]
"""A function and a wrong entry of its table that a teacher warns of."""


@pytest.mark.parametrize(("given", "trap"), FEATURE_TRAPS)
def test_a_known_trap_of_a_table_is_foreseen_at_its_feature(given, trap):
    feature = trap.partition(":")[0]
    wrong = [item.text for item in predict(Working("analyze", given, ()), most=16).wrong]
    at_feature = [text for text in wrong if text.partition(":")[0] == feature]
    assert trap in at_feature[:3]
    assert len(wrong) == len(set(wrong))
