"""Where two trees differ."""

import pytest
from hypothesis import given

from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.tree.diff import changed_places, symbol_changes
from algebra.tree.plain import plain
from tests.algebra.parse.test_notation import TREES


def body(text):
    return read_line(text).body


@pytest.mark.parametrize(
    ("before", "after", "old", "new"),
    [
        ("x + 2", "x + 2", [], []),
        ("x + 2", "x + 3", ["2"], ["3"]),
        ("2x + 3 = 7", "2x + 3 = 8", ["7"], ["8"]),
        ("x + y + 2", "x + 5", ["y", "2"], ["5"]),
        ("(x+1)/4", "(x+2)/4", ["1"], ["2"]),
        ("x", "y + 1", ["x"], ["y + 1"]),
        ("x - 2", "x + 2", ["x - 2"], ["x + 2"]),
    ],
)
def test_the_smallest_parts_that_differ(before, after, old, new):
    first, second = body(before), body(after)
    left, right = changed_places(first, second)
    assert [plain(n.at(first, place)) for place in left] == old
    assert [plain(n.at(second, place)) for place in right] == new


@pytest.mark.parametrize(
    ("before", "after", "changes"),
    [
        ("3x + 2", "3x + 2", []),
        ("3x + 2", "8x + 2", [("number", "3", "8")]),
        ("3x + 2", "3y + 2", [("letter", "x", "y")]),
        ("3x + 2", "3x - 2", [("sign", "+ 2", "- 2")]),
        ("3x + 2", "-3x + 2", [("minus", "3x", "-3x")]),
        ("x^2 = 9", "x^3 = 8", [("number", "2", "3"), ("number", "9", "8")]),
        ("3x + 2", "3x - 5", None),
        ("3x + 2", "3x", None),
        ("3·x", "3÷x", None),
        ("x + 2", "x·2", None),
    ],
)
def test_symbols_that_differ_in_trees_of_one_shape(before, after, changes):
    found = symbol_changes(body(before), body(after))
    assert (found if found is None else [(c.kind, c.old, c.new) for c in found]) == changes


def test_a_change_says_where_it_is():
    (change,) = symbol_changes(body("2(x + 3) = 5"), body("2(x - 3) = 5"))
    assert plain(n.at(body("2(x + 3) = 5"), change.at)) == "3"


@given(TREES)
def test_a_tree_does_not_differ_from_itself(tree):
    assert changed_places(tree, tree) == ([], [])
    assert symbol_changes(tree, tree) == []
