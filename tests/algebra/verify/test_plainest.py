"""What shows that two lines differ is the plainest there is: whole before fraction before root, small before large."""

import pytest

from algebra import Working, check


@pytest.mark.parametrize(
    ("given", "line", "shown"),
    [
        ("(2x - 1)(x - 3) = 0", "x^2 = -1", "3"),
        ("(2x - 1)(x - 30) = 0", "x^2 = -1", "30"),
        ("(3x - 1)(2x - 1) = 0", "x^2 = -1", "1/2"),
        ("(x^2 - 2)(3x - 1) = 0", "x^2 = -1", "1/3"),
        ("(x - 7)(x + 2) = 0", "x^2 = -1", "-2"),
        ("(x - 5)(x - 4)(x + 6) = 0", "x^2 = -1", "4"),
    ],
)
def test_a_lost_solution_is_shown_by_the_plainest(given, line, shown):
    [link] = check(Working("solve", given, (line,))).links
    assert link.evidence.solution == shown and link.evidence.solves == "before"


def test_one_that_was_gained_and_is_plainer_is_shown_only_where_none_was_lost_for_good():
    [link] = check(Working("solve", "2x = 1", ("x = 1",))).links
    assert (link.evidence.solution, link.evidence.solves) in {("1/2", "before"), ("1", "after")}
