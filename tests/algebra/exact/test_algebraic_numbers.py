"""Algebraic numbers: in order, rounded, signs at them, and how they are written."""

from fractions import Fraction as Q

import pytest
from flint import arb
from hypothesis import given
from hypothesis import strategies as st

from algebra.exact.algebraic_numbers import (
    Number,
    prime_factors,
    rational,
    roots_of,
    squarefree_part,
    whole_root,
)
from algebra.exact.errors import TooLarge
from algebra.parse.lines import read_expression

ROOT_2 = Number((-2, 0, 1), 1)
MINUS_ROOT_2 = Number((-2, 0, 1), 0)
GOLDEN = Number((-1, -1, 1), 1)
CUBE_ROOT_2 = Number((-2, 0, 0, 1), 0)
NO_FORM = Number((-1, -1, 0, 1), 0)  # the real zero of x³ - x - 1
FRACTIONS = st.fractions(max_denominator=60, min_value=-50, max_value=50)


@pytest.mark.parametrize(
    ("smaller", "larger"),
    [
        (rational(1), rational(2)),
        (rational(-3), rational(Q(-5, 2))),
        (MINUS_ROOT_2, ROOT_2),
        (rational(Q(7, 5)), ROOT_2),
        (ROOT_2, rational(Q(3, 2))),
        (ROOT_2, GOLDEN),
        (CUBE_ROOT_2, NO_FORM),
        (rational(10**30), rational(10**30 + 1)),
        (rational(Q(1, 10**40)), rational(Q(2, 10**40))),
        (rational(Q(141421356237309504880168872420969807856967187537, 10**47)), ROOT_2),
        (ROOT_2, rational(Q(141421356237309504880168872420969807856967187538, 10**47))),
    ],
)
def test_numbers_are_in_order_however_close(smaller, larger):
    assert smaller < larger
    assert not larger < smaller
    assert smaller <= larger
    assert not larger <= smaller
    assert sorted([larger, smaller]) == [smaller, larger]


def test_a_number_is_not_below_itself():
    for number in (rational(2), ROOT_2, NO_FORM):
        assert not number < number
        assert number <= number


@given(FRACTIONS, FRACTIONS)
def test_fractions_are_ordered_as_fractions(first, second):
    assert (rational(first) < rational(second)) == (first < second)
    assert (rational(first) <= rational(second)) == (first <= second)


@given(FRACTIONS)
def test_a_root_lies_between_its_floor_and_the_next_whole_number(value):
    shifted = Number((int(value) ** 2 - 2, -2 * int(value), 1), 1)  # int(value) + √2
    assert rational(shifted.floor) < shifted < rational(shifted.floor + 1)
    assert rational(value).floor <= value < rational(value).floor + 1


@pytest.mark.parametrize(
    ("number", "floor", "nearest"),
    [
        (rational(3), 3, 3),
        (rational(-3), -3, -3),
        (rational(Q(-7, 2)), -4, -3),
        (rational(Q(7, 2)), 3, 4),
        (ROOT_2, 1, 1),
        (MINUS_ROOT_2, -2, -1),
        (GOLDEN, 1, 2),
    ],
)
def test_floor_and_nearest(number, floor, nearest):
    assert (number.floor, number.nearest) == (floor, nearest)


@pytest.mark.parametrize(
    ("number", "places", "text"),
    [
        (ROOT_2, 3, "1.414"),
        (MINUS_ROOT_2, 2, "-1.41"),
        (rational(Q(1, 20)), 2, "0.05"),
        (rational(Q(-1, 20)), 2, "-0.05"),
        (rational(7), 0, "7"),
        (GOLDEN, 5, "1.61803"),
        (rational(Q(1, 3)), 1, "0.3"),
    ],
)
def test_a_number_is_rounded_for_reading(number, places, text):
    assert number.decimal(places) == text


@pytest.mark.parametrize(
    ("number", "value", "places", "rounds"),
    [
        (ROOT_2, "1.41", 2, True),
        (ROOT_2, "1.42", 2, False),
        (ROOT_2, "1.4", 1, True),
        (ROOT_2, "1.40", 2, False),
        (rational(Q(1, 8)), "0.13", 2, True),
        (rational(Q(1, 8)), "0.12", 2, True),
        (rational(Q(1, 8)), "0.14", 2, False),
        (MINUS_ROOT_2, "-1.414", 3, True),
        (rational(2), "2", 0, True),
        (rational(Q(5, 2)), "4", 0, False),
    ],
)
def test_a_half_rounds_either_way_and_nothing_else_does(number, value, places, rounds):
    assert number.rounds_to(Q(value), places) is rounds


@pytest.mark.parametrize(
    ("coefficients", "number", "sign"),
    [
        ((-2, 0, 1), ROOT_2, 0),
        ((-2, 0, 1), rational(2), 1),
        ((-2, 0, 1), rational(1), -1),
        ((-4, 0, 2), MINUS_ROOT_2, 0),
        ((0, 1), MINUS_ROOT_2, -1),
        ((-1, 0, 0, 1), ROOT_2, 1),
        ((-141421356237, 100000000000), ROOT_2, 1),
        ((-141421356238, 100000000000), ROOT_2, -1),
        ((5,), ROOT_2, 1),
        ((-5,), rational(3), -1),
        ((0, -1, 1), rational(1), 0),
        ((4, 0, -4, 0, 1), ROOT_2, 0),
    ],
)
def test_the_sign_of_a_polynomial_at_a_number(coefficients, number, sign):
    assert number.sign_of(coefficients) == sign


@pytest.mark.parametrize(
    ("number", "text"),
    [
        (rational(Q(-2, 3)), "-2/3"),
        (ROOT_2, "√2"),
        (MINUS_ROOT_2, "-√2"),
        (GOLDEN, "(1+√5)/2"),
        (Number((-1, -1, 1), 0), "(1-√5)/2"),
        (Number((-12, 0, 1), 1), "2√3"),
        (Number((-3, 0, 4), 0), "-√3/2"),
        (Number((-12, 0, 25), 1), "(2√3)/5"),
        (Number((7, -6, 1), 1), "3 + √2"),
        (Number((1, 0, 1), 1), "i"),
        (Number((1, 0, 1), 0), "-i"),
        (Number((4, 0, 1), 1), "2i"),
        (Number((5, -2, 1), 1), "1 + 2i"),
        (Number((3, 0, 1), 1), "i√3"),
        (Number((1, 1, 1), 0), "(-1-i√3)/2"),
        (CUBE_ROOT_2, "∛2"),
        (Number((2, 0, 0, 1), 0), "-∛2"),
        (Number((-5, 0, 0, 0, 1), 1), "∜5"),
        (Number((-5, 0, 0, 0, 1), 0), "-∜5"),
        (Number((-5, 0, 0, 0, 0, 1), 0), "root(5, 5)"),
        (Number((-16, 0, 0, 1), 0), "2∛2"),
        (Number((-2, 0, 0, 27), 0), "∛2/3"),
        (Number((-3, 3, -3, 1), 0), "1 + ∛2"),
        (NO_FORM, "root(x^3 - x - 1, 1.32, 1.33)"),
        (Number((1, -3, 0, 1), 0), "root(x^3 - 3x + 1, -1.88, -1.87)"),
    ],
)
def test_how_a_number_is_written(number, text):
    assert str(number) == text


@pytest.mark.parametrize("number", [ROOT_2, GOLDEN, CUBE_ROOT_2, Number((-12, 0, 25), 1), Number((5, -2, 1), 1)])
def test_what_is_written_is_a_tree_that_reads_back(number):
    assert read_expression(str(number)) == number.tree


def test_a_number_without_a_form_has_no_tree():
    assert NO_FORM.tree is None
    assert not NO_FORM.has_root_form
    assert CUBE_ROOT_2.has_root_form
    assert ROOT_2.has_root_form


def test_real_roots_come_first_and_rising():
    quintic = (4, 0, -5, 0, 1)  # x⁴ - 5x² + 4 falls apart, but its zeros are in order all the same
    assert [number.floor for number in roots_of(quintic)] == [-2, -1, 1, 2]
    assert len(roots_of((1, 0, 1))) == 0
    assert len(roots_of((1, 0, 1), complex_too=True)) == 2
    assert [number.is_real for number in roots_of((-2, 0, 0, 1), complex_too=True)] == [True, False, False]


@given(FRACTIONS, st.integers(1, 40))
def test_a_number_times_a_whole_one(value, factor):
    assert rational(value).times(factor) == rational(value * factor)


def test_an_irrational_number_times_a_whole_one_keeps_its_place():
    assert ROOT_2.times(3) == Number((-18, 0, 1), 1)
    assert str(MINUS_ROOT_2.times(3)) == "-3√2"
    assert CUBE_ROOT_2.times(1) == CUBE_ROOT_2


def test_enclosures_hold_the_number_at_every_precision():
    for precision in (160, 320, 640):
        ball = ROOT_2.enclosed(precision).real
        assert (ball * ball).overlaps(arb(2))
        assert ball.rad() < arb(2) ** (40 - precision)


@pytest.mark.parametrize(
    ("number", "factors"),
    [(1, []), (12, [(2, 2), (3, 1)]), (97, [(97, 1)]), (2**20 * 7, [(2, 20), (7, 1)])],
)
def test_prime_factors(number, factors):
    assert prime_factors(number) == factors


def test_a_number_too_large_to_be_taken_apart_is_refused():
    large = (2**61 - 1) * (2**89 - 1)
    with pytest.raises(TooLarge, match="too large to be taken apart"):
        prime_factors(large)
    assert prime_factors(2**150 * 3) == [(2, 150), (3, 1)]


@given(st.integers(1, 10_000))
def test_the_square_part_and_the_rest_make_the_number(number):
    inside, outside = squarefree_part(number)
    assert inside * outside**2 == number
    assert all(inside % (k * k) for k in range(2, 101))


@pytest.mark.parametrize(
    ("value", "index", "root"), [(0, 2, 0), (49, 2, 7), (50, 2, None), (27, 3, 3), (28, 3, None), (81, 4, 3), (1, 5, 1)]
)
def test_whole_roots(value, index, root):
    assert whole_root(value, index) == root


@pytest.mark.parametrize(
    ("polynomial", "index", "words"),
    [
        ((-3, 2), 0, "3/2"),
        ((-2, 0, 1), 1, "√2"),
        ((-1, -1, 0, 0, 0, 1), 0, "the number near 1.167"),
        ((-1, -1, 0, 0, 0, 1), 1, "a number with i"),
    ],
)
def test_a_number_in_a_sentence_is_written_or_its_place_is_told(polynomial, index, words):
    assert Number(polynomial, index).in_words == words
