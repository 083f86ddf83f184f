"""Fractions added across, whatever signs stand between them; terms cancelled that are no factors."""

import pytest

from algebra import Working, check


def named(given, line, task="simplify"):
    [link] = check(Working(task, given, (line,))).links
    return link.relation, link.slip.id if link.slip else ""


@pytest.mark.parametrize(
    ("given", "line"),
    [
        ("1/a + 1/b", "2/(a + b)"),
        ("3/x + 2/y", "5/(x + y)"),
        ("3/x - 2/y", "1/(x - y)"),
        ("3/x - 2/y", "1/(x + y)"),
        ("x/3 - 1/y", "(x - 1)/(3 - y)"),
        ("x/3 - 1/y", "(x - 1)/(3 + y)"),
        ("1/a + 1/b + c", "2/(a + b) + c"),
    ],
)
def test_tops_and_bottoms_are_added_with_either_sign(given, line):
    assert named(given, line) == ("breaks", "added-across")


@pytest.mark.parametrize(
    ("given", "line"), [("3/x - 2/x", "1/x"), ("1/a + 1/b", "(a + b)/(ab)"), ("x/3 - 1/3", "(x - 1)/3")]
)
def test_right_sums_are_left_in_peace(given, line):
    assert named(given, line) == ("holds", "")


@pytest.mark.parametrize(
    ("given", "line"),
    [("(x + 3)/3", "x"), ("(a + b)/a", "b"), ("(x + 5)/(x + 2)", "5/2")],
)
def test_terms_are_no_factors(given, line):
    assert named(given, line)[0] == "breaks"
    assert named(given, line)[1] in {"cancelled-terms", "divided-term-by-term", "cancelled-one-term"}
