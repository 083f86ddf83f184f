"""Steps between lines whose real solutions say nothing of the step: both have none, or the same by accident."""

import pytest

from algebra import Working, check


def link(given, line):
    return check(Working("solve", given, (line,))).links[0]


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        # values that are not real: right as far as it goes, or wrong
        ("x^2 + 9 = 0", "x = ±√(-9)", "holds"),
        ("x^2 + 9 = 0", "x = ±√(-6)", "breaks"),
        ("x^2 + 9 = 0", "x = 2 + √(-1)", "breaks"),
        ("x^2 + 4x + 7 = 0", "x = (-4 ± √(16 - 28))/2", "holds"),
        ("x^2 + 4x + 7 = 0", "x = (4 ± √(16 - 28))/2", "breaks"),
        ("x^2 - 4x - 5 = 0", "x = (4 ± √(16 - 20))/2", "breaks"),
        ("x^2 = 25", "x = ±√(-25)", "breaks"),
        ("x^2 + 9 = 0", "no solution", "holds"),
        # equal bases, odd powers, numbers that are left
        ("7^(x+2) = 7^x", "x + 2 = x", "holds"),
        ("7^(x+2) = 7^x", "x + 2 = x + 1", "breaks"),
        ("9^x = 3^(2x+5)", "2x = 2x + 5", "holds"),
        ("9^x = 3^(2x+5)", "x = 2x + 5", "breaks"),
        ("3^(x^2) = 1/27", "x^2 = -3", "holds"),
        ("(x + 4)^3 = (x - 1)^3", "x + 4 = x - 1", "holds"),
        ("(x + 4)^3 = (x - 1)^3", "x + 4 = x + 1", "breaks"),
        ("3x + 8 = 3x + 1", "8 = 1", "holds"),
        ("3x + 8 = 3x + 1", "1 = 8", "holds"),
        ("3x + 8 = 3x + 1", "9 = 1", "breaks"),
        ("10x + 35 = 10x + 5", "7 = 1", "holds"),
        # the same roots and bars on both lines
        ("√x + 9 = 4", "√x = -5", "holds"),
        ("√x + 9 = 4", "√x = -13", "breaks"),
        ("|x - 2| + 6 = 1", "|x - 2| = -5", "holds"),
        ("|x - 2| + 6 = 1", "|x - 2| = -7", "breaks"),
        ("2√(x + 1) + 8 = 2", "√(x + 1) = -3", "holds"),
    ],
)
def test_a_step_between_lines_without_solutions(given, line, relation):
    assert link(given, line).relation == relation


@pytest.mark.parametrize(
    ("given", "line", "by_luck"),
    [
        ("x^3 - 27 = 0", "(x - 3)(x^2 - 3x + 9) = 0", True),
        ("x^3 - 27 = 0", "(x - 3)(x^2 + 3x + 9) = 0", False),
        ("x^3 + 9x = 0", "x(x^2 + 3) = 0", True),
        ("x^3 + 9x = 0", "x(x^2 + 9) = 0", False),
        ("x^4 - x^2 - 12 = 0", "(x^2 - 4)(x^2 + 5) = 0", True),
        # right and usual
        ("(x - 5)(x^2 + 1) = 0", "x - 5 = 0", False),
        ("x^4 = 81", "x = ±3", False),
        ("x^3 = 64", "x = 4", False),
        ("x = 3", "x^3 = 27", False),
        ("x - 3 = 0", "(x - 3)(x^2 + 1) = 0 | ×(x^2 + 1)", False),
        ("x^2 - 9 = 0", "(x - 3)(x + 3) = 0", False),
        ("2x^3 = 16", "x^3 = 8", False),
    ],
)
def test_the_same_real_solutions_by_accident_are_said(given, line, by_luck):
    found = link(given, line)
    assert found.relation == "holds"
    assert ("lucky" in found.notes) is by_luck


def test_nothing_is_invented_where_it_is_luck():
    assert link("x^3 - 27 = 0", "(x - 3)(x^2 - 3x + 9) = 0").move is None
