"""Lines that gain or keep solutions by accident: only a legal move that explains the whole line makes them right."""

import pytest

from algebra import Working, check


def relations(given, *lines, **more):
    return [link.relation for link in check(Working("solve", given, lines, **more)).links]


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("2/x + x = 2", "2 + x = 2"),
        ("x^2 + 4 = 0", "x^2 = 0"),
        ("x^3 - 1 = 0", "x^2 - x = 0"),
        ("x^2 + x + 1 = 0", "x^2 + x = 0"),
        ("3/x + x = 1", "3 + x = 1"),
        ("√x + 3 = 0", "√x = 0"),
    ],
)
def test_that_the_gained_value_is_a_zero_of_something_is_no_explanation(before, after):
    assert relations(before, after) == ["breaks"]


@pytest.mark.parametrize(
    ("before", "after", "relation"),
    [
        ("1/x = x", "1 = x^2", "holds"),
        ("x/(x-1) = 1/(x-1)", "x = 1", "widens"),
        ("(x^2-1)/(x-1) = 0", "x^2 - 1 = 0", "widens"),
        ("x/(x-1) = 1/(x-1) + 2", "x = 1 + 2(x-1)", "widens"),
        ("x = 2", "x(x-1) = 2(x-1)   | ×(x-1)", "widens"),
        ("x = 2", "x^2 = 4", "widens"),
        ("x = √x", "x^2 = x", "holds"),
    ],
)
def test_a_move_that_explains_the_line_still_counts(before, after, relation):
    assert relations(before, after) == [relation]


@pytest.mark.parametrize(
    ("before", "after", "relation"),
    [
        ("2x + 1 = 2x + 3", "1 = 3", "holds"),
        ("2x + 1 = 2x + 3", "0 = 2", "holds"),
        ("2x + 1 = 2x + 3", "2x - 2 = 2x", "holds"),
        ("2x + 1 = 2x + 3", "4x + 2 = 4x + 6", "holds"),
        ("2x + 1 = 2x + 3", "2x + 3 = 2x + 1", "holds"),
        ("2x + 1 = 2x + 3", "no solution", "holds"),
        ("2x + 1 = 2x + 3", "5 = 3", "breaks"),
        ("2x + 1 = 2x + 3", "7 = 2", "breaks"),
        ("2x + 1 = 2x + 3", "x = 0", "breaks"),
        ("5 = 3", "2 = 0", "holds"),
        ("5 = 3", "10 = 6", "holds"),
        ("5 = 3", "25 = 9", "holds"),
        ("5 = 3", "7 = 2", "breaks"),
        ("x^2 + 1 = 0", "x^2 = -1", "holds"),
        ("x^2 + 1 = 0", "2x^2 + 2 = 0", "holds"),
        ("x^2 + 1 = 0", "x^2 + 2 = 0", "breaks"),
        ("1/(x^2+1) = 2/(x^2+1)", "x^2 + 1 = 2(x^2+1)", "holds"),
        ("1/(x^2+1) = 2/(x^2+1)", "1 = 2", "holds"),
        ("1/(x^2+1) = 2/(x^2+1)", "x^2 + 4 = 0", "breaks"),
        ("2(x+1) = 2x + 2", "2x + 2 = 2x + 2", "holds"),
        ("2(x+1) = 2x + 2", "0 = 0", "holds"),
        ("2(x+1) = 2x + 2", "1 = 1", "holds"),
    ],
)
def test_between_lines_without_solutions_or_without_bound_only_a_move_holds(before, after, relation):
    assert relations(before, after) == [relation]


def test_no_contradiction_follows_from_a_stated_one():
    assert relations("2x + 1 = 2x + 3", "no solution", "5 = 3") == ["holds", "breaks"]


def test_it_is_said_why_a_contradiction_does_not_follow():
    (link,) = check(Working("solve", "2x + 1 = 2x + 3", ("7 = 2",))).links
    assert link.evidence.text.endswith("no move on both sides makes it.")
    (link,) = check(Working("solve", "x^2 + 1 = 0", ("x^2 + 2 = 0",))).links
    assert link.evidence.text.endswith("their complex solutions differ.")


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        ("x^2 = 9", "x = 3   x = -3", "holds"),
        ("x^2 = 9", "x = 3      x = -3", "holds"),
        ("x^2 = 9", "x = 3\tx = -3", "holds"),
        ("x^3 = 4x", "x = 0    x = 2    x = -2", "holds"),
        ("2x = 10", "x = 1   x = 5", "breaks"),
        ("x^2 = 9", "x = 3   x = 3", "narrows"),
        ("2x = 6", "x   =   3", "holds"),
        ("2x = 6", "2x - 5   = 1", "holds"),
    ],
)
def test_statements_side_by_side_are_a_list_and_never_a_product(given, line, relation):
    assert relations(given, line) == [relation]
