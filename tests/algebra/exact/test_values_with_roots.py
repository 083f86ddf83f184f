"""The exact layer by itself: numbers, sets of reals, and the normal form of values with roots."""

from fractions import Fraction as Q

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from algebra.exact.algebraic_numbers import Number, prime_factors, rational, roots_of, squarefree_part
from algebra.exact.decomposition import Decomposition, plan_of
from algebra.exact.errors import TooLarge, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.real_sets import RealSet
from algebra.exact.writing import surd_tree
from algebra.parse.lines import read_expression
from algebra.tree.plain import plain


def number(text: str):
    """A numeric expression in a cell of its own."""
    tree = read_expression(text)
    cell = RadicalField((), plan_of([tree], imaginary=False) or Plan(), {}, {})
    return value_of(tree, cell).ratio


@pytest.mark.parametrize(
    ("text", "form"),
    [
        ("√72", "6√2"),
        ("1/(√2 + √3)", "-√2 + √3"),
        ("(1 + √5)/2", "(1+√5)/2"),
        ("∛54", "3∛2"),
        ("√2·∛2", "root(6, 32)"),
        ("1/∛2", "∛4/2"),
        ("√(3 + 2√2)", "1 + √2"),
        ("√(2 + √2)", "√(2+√2)"),
        ("(√2)^10", "32"),
        ("√(9/4)", "3/2"),
    ],
)
def test_numbers_with_roots_have_one_form(text, form):
    assert plain(surd_tree(number(text))) == form


@settings(max_examples=60, deadline=None)
@given(st.lists(st.tuples(st.integers(-9, 9), st.integers(1, 40)), min_size=1, max_size=4), st.integers(1, 30))
def test_a_value_with_roots_times_its_inverse_is_one(terms, extra):
    text = " + ".join(f"({a})√{b}" for a, b in terms) + f" + ∛{extra} + 1/2"
    value = number(text)
    if value.is_zero:
        return
    one = value.field.constant(1)
    assert value * (one / value) == one


@pytest.mark.parametrize(
    ("coefficients", "written"),
    [
        ((-2, 0, 1), ["-√2", "√2"]),
        ((7, -6, 1), ["3 - √2", "3 + √2"]),
        ((-5, 0, 0, 1), ["∛5"]),
        ((-17, 3, -3, 1), ["1 + 2∛2"]),
        ((-1, -1, 0, 0, 0, 1), ["root(x^5 - x - 1, 1.16, 1.17)"]),
        ((1, 0, 1), []),
    ],
)
def test_roots_of_polynomials_are_written_in_the_plain_notation(coefficients, written):
    assert [str(root) for root in roots_of(coefficients)] == written


def test_rounding_is_decided_by_enclosures():
    root = roots_of((-2, 0, 1))[1]
    assert root.rounds_to(Q("1.414"), 3)
    assert not root.rounds_to(Q("1.415"), 3)


def test_primes_and_square_parts():
    assert squarefree_part(72) == (2, 6)
    assert prime_factors(360) == [(2, 3), (3, 2), (5, 1)]
    with pytest.raises(TooLarge):
        prime_factors((2**89 - 1) * (2**107 - 1))


NUMBERS = st.integers(-4, 4).map(rational)
RAYS = st.builds(
    RealSet.interval, st.one_of(st.none(), NUMBERS), st.booleans(), st.one_of(st.none(), NUMBERS), st.booleans()
)
SETS = st.one_of(RAYS, st.lists(NUMBERS, max_size=3).map(RealSet.points))


@settings(max_examples=120, deadline=None)
@given(SETS, SETS)
def test_sets_of_reals_behave_like_sets(left, right):
    both = left.combined(right, lambda a, b: a and b)
    either = left.combined(right, lambda a, b: a or b)
    for half in range(-11, 12):
        value: Number = rational(Q(half, 2))
        assert (value in both) == (value in left and value in right)
        assert (value in either) == (value in left or value in right)
    assert left.combined(right, lambda a, b: a and not b).combined(both, lambda a, b: a or b) == left


@pytest.mark.parametrize(
    ("low", "low_closed", "high", "high_closed", "text"),
    [(3, True, None, False, "[3, ∞)"), (None, False, -2, True, "(-∞, -2]"), (0, True, 2, False, "[0, 2)")],
)
def test_intervals_are_written_as_such(low, low_closed, high, high_closed, text):
    ends = [None if end is None else rational(end) for end in (low, high)]
    assert str(RealSet.interval(ends[0], low_closed, ends[1], high_closed)) == text


@pytest.mark.parametrize(
    ("text", "letters", "cells", "undefined"),
    [
        ("√(x^2)", ("x",), 2, 0),
        ("√(x^2 - 4)", ("x",), 3, 1),
        ("√(x y)", ("x", "y"), 4, 2),
        ("|x| + |x - 1|", ("x",), 3, 0),
    ],
)
def test_the_letters_are_cut_where_a_sign_changes(text, letters, cells, undefined):
    tree = read_expression(text)

    def judge(cell: RadicalField) -> bool:
        try:
            value_of(tree, cell)
        except UndefinedValue:
            return False
        return True

    found = Decomposition(letters, plan_of([tree], imaginary=False)).each(judge)
    assert (len(found), [defined for _, defined in found].count(False)) == (cells, undefined)
