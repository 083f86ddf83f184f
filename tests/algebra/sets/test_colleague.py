"""What a careful colleague says of a sheet: each thing where it is, and nothing where nothing is."""

import pytest

from algebra import Working, advice

GOOD = [
    Working("solve", "3x + 7 = 22", ("3x = 15", "x = 5")),
    Working("solve", "2(x - 3) = 4x + 8", ()),
    Working("solve", "x/2 - 1 = 3", ()),
    Working("factor", "x^2 + 5x + 6", ()),
]


def codes(*workings, **more):
    return [(each.code, each.items) for each in advice([*workings], **more)[0]]


def test_of_a_good_sheet_nothing_is_said():
    assert codes(*GOOD) == []


@pytest.mark.parametrize(
    ("working", "code"),
    [
        (Working("solve", "5y + 7y = 24 + (", ()), "unread"),
        (Working("solve", "2x + 3", ()), "instruction"),
        (Working("simplify", "2x = 3", ()), "instruction"),
        (Working("factor", "x^2 + 4x + 9", ()), "prime"),
        (Working("solve", "x^5 - x - 1 = 0", ()), "not-worked"),
        (Working("simplify", "x + 7", ()), "nothing-to-do"),
        (Working("solve", "4x - 1 = 15", ("4x = 14", "x = 7/2")), "key-broken"),
        (Working("solve", "x^2 = 81", ("x = 9",)), "key-narrows"),
        (Working("solve", "4x - 1 = 23", ("4x = 24",)), "key-unfinished"),
        (Working("simplify", "12x/18", ("6x/9",)), "key-unfinished"),
        (
            Working("solve", "√(x + 6) = x", ("x + 6 = x^2", "x^2 - x - 6 = 0", "x = 3 or x = -2", "x = 3")),
            "check-owed",
        ),
    ],
)
def test_a_fault_of_one_item_is_said_of_that_item(working, code):
    found = codes(*GOOD, working)
    assert (code, (5,)) in found
    assert all(items == (5,) for _, items in found)


def test_a_domain_that_is_known_without_a_worked_solution_is_no_fault():
    assert codes(*GOOD, Working("domain", "√(2t - 6)", ())) == []


def test_the_same_item_and_the_same_answer():
    again = Working("factor", "a^2 + 6 + 5a", ())
    assert codes(*GOOD, again) == [("same-item", (4, 5))]
    assert codes(*GOOD, Working("solve", "5x + 1 = 26", ())) == [("same-answer", (1, 5))]


def test_what_the_class_does_not_know_is_named():
    (found,), _ = advice([Working("solve", "x^2 + 6x + 2 = 0", ())], untaught=["irrational-numbers"])
    assert (found.code, found.items, found.mend) == ("not-taught", (1,), "replace")
    assert "irrational" in found.text.lower()


def test_one_far_above_the_rest_and_one_with_an_ugly_answer():
    hard = Working("solve", "x/(x + 4) + 7/(x + 5) = 7/(x^2 + 9x + 20)", ())
    assert ("far-above", (5,)) in codes(*GOOD, hard)
    ugly = Working("solve", "7x + 2 = 5", ())
    assert codes(*GOOD, ugly) == [("ugly-answer", (5,))]


def test_more_minutes_than_the_lesson():
    told, minutes = advice(GOOD, lesson=45)
    assert told == ()
    assert 3 < minutes < 15
    (said,), _ = advice(GOOD, lesson=2)
    assert (said.code, said.items) == ("too-long", ())
    assert f"{minutes:.0f} minutes" in said.text
