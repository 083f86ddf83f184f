"""Verdicts that are easily got wrong: signs under roots and bars, gains and losses, letters beside roots, Greek
letters."""

import pytest

from algebra import Working, check

NON_NEGATIVE = {"conventions": {"roots_of_letters": "non-negative"}}
EXPRESSIONS = [
    # (given, line, relation, setting)
    ("√(x-2√(x-1))", "√(x-1)-1", "breaks", {}),
    ("√(x-2√(x-1))", "|√(x-1)-1|", "holds", {}),
    ("√(√x-2)·√(√x-2)", "√x-2", "holds", {}),
    ("√((√x-3)^2)", "√x-3", "breaks", {}),
    ("√((√x-3)^2)", "|√x-3|", "holds", {}),
    ("|√x-5|", "√x-5", "breaks", {}),
    ("|√x-5|", "5-√x", "breaks", {}),
    ("|√x+5|", "√x+5", "holds", {}),
    ("|√x-√y|", "√x-√y", "breaks", {}),
    ("|∛x - 1|", "∛x-1", "breaks", {}),
    ("||x|-1|", "|x|-1", "breaks", {}),
    ("|√(x^2+1) - x|", "√(x^2+1)-x", "holds", {}),
    ("|√(x^2+1) - 2x|", "√(x^2+1)-2x", "breaks", {}),
    ("|√(x^2+y^2) - x|", "√(x^2+y^2)-x", "holds", {}),
    ("√(x^2+1-2√(x^2))", "||x|-1|", "holds", {}),
    ("√(x+y-2√(xy))", "|√x-√y|", "holds", NON_NEGATIVE),
    ("√(x+y-2√(xy))", "√x-√y", "breaks", NON_NEGATIVE),
    ("√(x+y+2√(xy))", "√x+√y", "holds", NON_NEGATIVE),
    ("∛(2+√5) + ∛(2-√5)", "1", "holds", {}),
    ("√(9^x)", "3^x", "holds", {}),
    ("√(π^2)", "π", "holds", {}),
    ("√(α^2+2αβ+β^2)", "|α+β|", "holds", {}),
    ("θ + θ", "2θ", "holds", {}),
]


@pytest.mark.parametrize(("given", "line", "relation", "setting"), EXPRESSIONS)
def test_the_sign_of_what_holds_roots_is_proved_on_the_whole_domain(given, line, relation, setting):
    assert check(Working("simplify", given, (line,), **setting)).links[0].relation == relation


EQUATIONS = [
    # (given, lines, relations, unknown)
    ("√x = 3", ["√x = 5", "x = 25"], "breaks holds", None),
    ("2^x = 3", ["2^x = 5"], "breaks", None),
    ("|x| = 3", ["|x+1| = 4"], "breaks", None),
    ("√x = x-2", ["√x·√x = √x(x-2)"], "widens", None),
    ("√x = x", ["1 = √x"], "narrows", None),
    ("x√x = 4√x", ["x = 4"], "narrows", None),
    ("x = 3", ["x(√x-2) = 3(√x-2) | ×(√x-2)"], "widens", None),
    ("|x-2| = 2x+5", ["x-2 = 2x+5 or x-2 = -(2x+5)", "x = -7 or x = -1", "x = -1"], "widens holds settles", None),
    ("√(x+2√(x-1)) + √(x-2√(x-1)) = 2", ["1 ≤ x ≤ 2"], "holds", None),
    ("|x-1| + |x+2| = 3", ["[-2, 1]"], "holds", None),
    ("2^x = -1", ["9^x = -1"], "breaks", None),
    ("2^x = -1", ["2^(x+1) = -2", "no solution"], "holds holds", None),
    ("x·2^x - 4x + 2^x - 4 = 0", ["(x+1)(2^x-4) = 0", "x = -1 or x = 2"], "holds holds", None),
    ("6^x - 4·3^x - 9·2^x + 36 = 0", ["(2^x-4)(3^x-9) = 0", "x = 2"], "holds holds", None),
    ("x^2·2^x = 2·2^x", ["x = ±√2"], "holds", None),
    ("2^x/x = 0", ["no solution"], "holds", None),
    ("x^2 = 2", ["x = ±√2", "x ≈ 1.41 or x ≈ -1.41", "x ≈ 1.42, -1.42"], "holds holds breaks", None),
    ("v = √(2gh)", ["v^2 = 2gh", "h = v^2/(2g)"], "holds holds", "h"),
    ("v = √(2gh)", ["v^2 = 2gh", "h = v/(2g)"], "holds breaks", "h"),
    ("T = 2π√(L/g)", ["T/(2π) = √(L/g)", "T^2/(4π^2) = L/g", "g = 4π^2L/T^2"], "holds holds holds", "g"),
    ("c = √(a^2+b^2)", ["c^2 = a^2+b^2", "b = ±√(c^2-a^2)"], "holds holds", "b"),
    ("√(x+a) = -3", ["no solution"], "holds", "x"),
    ("A = πr^2", ["r^2 = A/π", "r = ±√(A/π)"], "holds holds", "r"),
]


@pytest.mark.parametrize(("given", "lines", "relations", "unknown"), EQUATIONS)
def test_what_happens_to_solutions(given, lines, relations, unknown):
    report = check(Working("solve", given, tuple(lines), unknown))
    assert [link.relation for link in report.links] == relations.split()


def test_squaring_with_other_letters_says_its_condition_and_owes_no_check():
    report = check(Working("solve", "v = √(2gh)", ("v^2 = 2gh", "h = v^2/(2g)"), "h"))
    assert report.links[0].conditions == ("v ≥ 0",)
    assert report.sound


@pytest.mark.parametrize("line", ["3x/4", "(3/4)x", "3x / 4"])
def test_one_bar_is_read_over_all_that_stands_before_it(line):
    assert check(Working("simplify", "6x/8", (line,))).finish.finished


def test_one_bar_not_in_lowest_terms_is_not_finished():
    assert [r.code for r in check(Working("simplify", "6x/8", ("6x/8",))).finish.remaining] == ["not-lowest-terms"]


ROADS = [
    # (task, given, line, whether it is the longer road)
    ("simplify", "((x+1)(x+2))/((x+1)(x+3))", "(x^2+3x+2)/(x^2+4x+3)", True),
    ("simplify", "((x+1)(x+2))/((x+1)(x+3))", "(x+2)/(x+3)", False),
    ("simplify", "(x+1)(x+2)/(x+3)", "(x^2+3x+2)/(x+3)", False),
    ("solve", "x^2 + 3 = 12", "√(x^2 + 3) = √12", True),
    ("solve", "x^2 = 12", "x = ±2√3", False),
    ("solve", "3x = 13 - 2x", "x = 13/3 - (2/3)x", True),
    ("solve", "3x = 13", "x = 13/3", False),
    ("solve", "2x^2 - 8x = -3", "x^2 - 4x = -3/2", False),
    ("solve", "x/4 + 3 = 5/8", "2x + 24 = 5", False),
]


@pytest.mark.parametrize(("task", "given", "line", "longer"), ROADS)
def test_a_longer_road_holds_with_a_quiet_note(task, given, line, longer):
    link = check(Working(task, given, (line,))).links[0]
    assert link.relation == "holds"
    assert ("longer-road" in link.notes) == longer
    assert link.slip is None
