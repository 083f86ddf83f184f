"""Sets of real numbers and solution sets: combined, compared and written."""

from fractions import Fraction as Q

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.real_sets import RealSet
from algebra.exact.solution_sets import EMPTY, EVERYTHING, Solution, SolutionSet, from_real, number_solution

ROOT_2 = Number((-2, 0, 1), 1)
WHOLE = st.integers(-6, 6)


def points(*values):
    return RealSet.points([rational(value) for value in values])


def closed(low, high):
    return RealSet.interval(
        None if low is None else rational(low), True, None if high is None else rational(high), True
    )


def opened(low, high):
    return RealSet.interval(
        None if low is None else rational(low), False, None if high is None else rational(high), False
    )


def both(first, second):
    return first.combined(second, lambda a, b: a and b)


def either(first, second):
    return first.combined(second, lambda a, b: a or b)


@pytest.mark.parametrize(
    ("found", "text"),
    [
        (closed(1, 3), "[1, 3]"),
        (opened(1, 3), "(1, 3)"),
        (RealSet.interval(rational(1), True, rational(3), False), "[1, 3)"),
        (closed(None, 3), "(-∞, 3]"),
        (opened(1, None), "(1, ∞)"),
        (RealSet.interval(None, False, None, False), "(-∞, ∞)"),
        (points(2), "{2}"),
        (points(2, -1), "{-1} ∪ {2}"),
        (RealSet.points([rational(2)], outside=True), "(-∞, 2) ∪ (2, ∞)"),
        (points(), ""),
        (RealSet.interval(ROOT_2, True, None, False), "[√2, ∞)"),
        (either(closed(None, 1), points(5)), "(-∞, 1] ∪ {5}"),
        (either(opened(0, 1), opened(1, 2)), "(0, 1) ∪ (1, 2)"),
        (either(closed(0, 1), opened(1, 2)), "[0, 2)"),
        (both(closed(0, 5), closed(3, 8)), "[3, 5]"),
        (both(closed(0, 3), closed(3, 8)), "{3}"),
        (both(opened(0, 3), closed(3, 8)), ""),
        (both(closed(0, 3), points(1, 5)), "{1}"),
        (closed(1, 3).combined(closed(2, 5), lambda a, b: a and not b), "[1, 2)"),
        (closed(1, 3).combined(points(2), lambda a, b: a and not b), "[1, 2) ∪ (2, 3]"),
    ],
)
def test_sets_are_written_in_interval_notation(found, text):
    assert str(found) == text


@pytest.mark.parametrize(
    ("found", "number", "inside"),
    [
        (closed(1, 3), rational(1), True),
        (opened(1, 3), rational(1), False),
        (closed(1, 3), rational(3), True),
        (opened(1, 3), ROOT_2, True),
        (closed(2, 3), ROOT_2, False),
        (points(2), rational(2), True),
        (points(2), ROOT_2, False),
        (RealSet.points([ROOT_2], outside=True), ROOT_2, False),
        (RealSet.points([ROOT_2], outside=True), rational(Q(7, 5)), True),
        (opened(None, 0), rational(-(10**20)), True),
    ],
)
def test_membership(found, number, inside):
    assert (number in found) is inside


def test_ends_at_which_nothing_changes_are_left_out():
    assert either(closed(0, 1), closed(1, 2)) == closed(0, 2)
    assert either(opened(None, 1), closed(1, None)) == RealSet((), (True,), ())
    assert RealSet.of([rational(1)], lambda k: True, lambda end: True).ends == ()


@given(WHOLE, WHOLE, WHOLE, st.integers(-13, 13))
def test_a_combination_holds_what_its_rule_says(a, b, c, doubled):
    first, second = closed(min(a, b), max(a, b)), RealSet.interval(rational(c), False, None, False)
    number = rational(Q(doubled, 2))
    assert (number in both(first, second)) == (number in first and number in second)
    assert (number in either(first, second)) == (number in first or number in second)


def test_finite_and_cofinite_are_told():
    assert points(1, 2).is_finite
    assert not points(1, 2).is_cofinite
    assert RealSet.points([rational(1)], outside=True).is_cofinite
    assert not closed(1, 2).is_finite
    assert not closed(1, 2).is_cofinite


# -- solution sets ---------------------------------------------------------------------------------------------------


def values(*numbers, outside=False):
    return SolutionSet(frozenset(number_solution(rational(k)) for k in numbers), cofinite=outside)


@pytest.mark.parametrize(
    ("first", "second", "rest"),
    [
        (values(1, 2), values(2, 3), values(1)),
        (values(1, 2), values(2, outside=True), values(2)),
        (values(2, outside=True), values(1), values(1, 2, outside=True)),
        (values(1, outside=True), values(1, 2, outside=True), values(2)),
        (EVERYTHING, values(1), values(1, outside=True)),
        (values(1), EVERYTHING, EMPTY),
        (EMPTY, values(1), EMPTY),
    ],
)
def test_what_one_set_has_and_the_other_has_not(first, second, rest):
    assert first.minus(second).same_as(rest)


@pytest.mark.parametrize(
    ("first", "second", "total"),
    [
        (values(1), values(2), values(1, 2)),
        (values(1, outside=True), values(1), EVERYTHING),
        (values(1, 2, outside=True), values(2, 3, outside=True), values(2, outside=True)),
        (values(1), values(1, 2, outside=True), values(2, outside=True)),
        (EMPTY, EMPTY, EMPTY),
    ],
)
def test_the_union_of_two_sets(first, second, total):
    assert first.union(second).same_as(total)
    assert second.union(first).same_as(total)


def test_sets_with_intervals_are_combined_as_reals():
    interval = SolutionSet(intervals=closed(1, 3))
    assert str(interval.minus(values(2)).intervals) == "[1, 2) ∪ (2, 3]"
    assert values(2, 5).minus(interval).same_as(values(5))
    assert interval.union(values(2)).same_as(interval)
    assert interval.minus(interval).is_empty
    assert interval.has(number_solution(rational(3)))
    assert not interval.has(number_solution(rational(4)))
    assert not interval.has(Solution("log", None, None, "log_2(3)"))


def test_a_real_set_becomes_the_simplest_solution_set():
    assert from_real(points(1, 2)).same_as(values(1, 2))
    assert from_real(RealSet.points([rational(1)], outside=True)).same_as(values(1, outside=True))
    assert from_real(points()).is_empty
    assert from_real(closed(1, 2)).intervals == closed(1, 2)


def test_emptiness_and_membership():
    assert EMPTY.is_empty
    assert not EVERYTHING.is_empty
    assert not SolutionSet(intervals=closed(1, 2)).is_empty
    one = number_solution(rational(1))
    assert values(1).has(one)
    assert not values(1, outside=True).has(one)
    assert values(2, outside=True).has(one)


def test_solutions_are_the_same_by_their_key():
    assert Solution("a", None, None, "first") == Solution("a", None, None, "second")
    assert Solution("a") != Solution("b")
    assert Solution("a") != "a"
