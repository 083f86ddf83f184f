"""Candidates that were gained, why, and what settles the check that each owes."""

import pytest

from algebra import Working, check


def report(given, *lines, **conventions):
    return check(Working("solve", given, tuple(lines), conventions=conventions))


def owed(given, *lines, **conventions):
    found = report(given, *lines, **conventions)
    assert found.error is None
    return [item.value for item in found.owed]


SQUARED = ["x + 6 = x^2", "x^2 - x - 6 = 0", "(x-3)(x+2) = 0"]


@pytest.mark.parametrize(
    ("ending", "values"),
    [
        (["x = 3 or x = -2"], ["3", "-2"]),
        (["x = 3 or x = -2", "check x = 3: 3 = 3"], ["-2"]),
        (["x = 3 or x = -2", "check x = 3", "check x = -2: 2 ≠ -2"], []),
        (["x = 3 or x = -2", "check x = 3", "check x = -2: 2 = -2"], ["-2"]),
        (["x = 3"], ["3", "-2"]),
        (["x = 3", "check x = 3"], ["-2"]),
        (["x = 3 or x = -2", "x = 3   # -2 is extraneous", "check x = 3"], []),
    ],
)
def test_after_squaring_every_candidate_owes_a_check(ending, values):
    assert owed("√(x+6) = x", *SQUARED, *ending) == values


@pytest.mark.parametrize(
    ("policy", "lines", "values"),
    [
        ("always", ["x = 4", "x = 4"], ["4"]),
        ("when-gained", ["x = 4", "x = 4"], []),
        ("never", ["x = 4", "x = 4"], []),
    ],
)
def test_squaring_that_gains_nothing_owes_a_check_by_convention_only(policy, lines, values):
    assert owed("√x = 2", *lines, checks_after_squaring=policy) == values


@pytest.mark.parametrize(("policy", "values"), [("always", ["3", "-2"]), ("when-gained", ["-2"]), ("never", [])])
def test_a_gained_candidate_owes_its_check_unless_the_convention_says_never(policy, values):
    assert owed("√(x+6) = x", *SQUARED, "x = 3 or x = -2", checks_after_squaring=policy) == values


@pytest.mark.parametrize(
    ("given", "line", "gained", "because"),
    [
        ("x/(x-3) = 3/(x-3)", "x = 3", ["3"], "it makes a denominator of the given zero"),
        ("√(x+6) = x", "x + 6 = x^2", ["-2"], "both sides were raised to an even power"),
        ("x = 3", "x(x-5) = 3(x-5) | ×(x-5)", ["5"], "both sides were multiplied by an expression that is zero there"),
        ("√x·√x = x", "x = x", None, None),
        ("√(x-5)·(x-3) = 0", "(x-5)(x-3)^2 = 0", ["3"], "both sides were raised to an even power"),
    ],
)
def test_each_gain_says_why(given, line, gained, because):
    link = report(given, line).links[0]
    if gained is None:
        assert link.relation in ("widens", "breaks")
        return
    assert link.relation == "widens"
    assert list(link.gained) == gained
    assert [link.reasons[value] for value in gained] == [because] * len(gained)


def test_a_zero_of_a_denominator_is_settled_by_the_ledger_and_owes_nothing():
    assert owed("x/(x-3) = 3/(x-3) + 2", "x = 3 + 2(x-3)", "x = 3") == []
    assert report("x/(x-3) = 3/(x-3) + 2", "x = 3 + 2(x-3)", "x = 3").answer.verdict == "extraneous"


def test_the_reason_names_the_line_that_brought_it():
    found = report("√(x+6) - x = 0", "√(x+6) = x", "x + 6 = x^2", "x = 3 or x = -2")
    assert [item.because for item in found.owed] == ["both sides were squared in line 2"] * 2
    gained = report("√(x+6) = x", *SQUARED, "x = 3 or x = -2", checks_after_squaring="when-gained")
    assert [item.because for item in gained.owed] == [
        "it was gained in line 1: both sides were raised to an even power"
    ]


@pytest.mark.parametrize(
    ("line", "relation"),
    [
        ("x = 3", "settles"),
        ("x = -2", "narrows"),
        ("no solution", "narrows"),
        ("x = 3 or x = -2", "holds"),
        ("x = 3 or x = 5", "breaks"),
    ],
)
def test_dropping_a_candidate_settles_only_where_it_is_extraneous(line, relation):
    assert report("√(x+6) = x", *SQUARED, line).links[-1].relation == relation
