"""What a problem is found by again."""

import pytest

from algebra import Working, entry_of


@pytest.mark.parametrize(
    ("task", "given", "family", "method", "slip"),
    [
        ("solve", "x^2 - 5x + 6 = 0", "quadratic-equations", "completing-the-square", "factor-signs"),
        ("solve", "√(x + 6) = x", "radical-equations", "", "extraneous-kept"),
        ("simplify", "3/x + 2/(x + 1)", "add-rational", "lcd", "added-across"),
        ("analyze", "f(x) = (x+1)/(x-2)", "rational-functions", "transform-parent", "top-and-bottom-swapped"),
    ],
)
def test_family_ways_and_slips(task, given, family, method, slip):
    entry = entry_of(Working(task, given, ("x = 1",)))
    assert entry.family == family
    assert not method or method in entry.methods
    assert not slip or slip in entry.slips
    assert 1 < entry.rating < 10


def test_the_same_item_has_the_same_likeness_and_others_have_not():
    forms = [
        entry_of(Working("solve", given)).likeness
        for given in ("x^2 - 5x + 6 = 0", "6 - 5t + t^2 = 0", "x^2 - 5x - 6 = 0")
    ]
    assert forms[0] == forms[1] != forms[2]


@pytest.mark.parametrize("given", ["x^5 - x - 1 = 0", "x = (", "", "x" * 500])
def test_what_is_not_worked_has_an_entry_all_the_same(given):
    entry = entry_of(Working("solve", given))
    assert (entry.rating, entry.methods) == (None, ())
    assert len(entry.likeness) == 32
