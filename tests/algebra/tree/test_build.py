"""Making expressions out of nodes, and putting some in place of others."""

from fractions import Fraction as Q

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra.parse.lines import read_expression, read_line
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted
from tests.algebra.test_notation import TREES

X = n.Letter("x")


@pytest.mark.parametrize(
    ("value", "text"), [(3, "3"), (0, "0"), (-3, "-3"), (Q(2, 3), "2/3"), (Q(-2, 3), "-2/3"), (Q(6, 3), "2")]
)
def test_a_number_is_written_with_its_sign_in_front(value, text):
    assert plain(build.number(value)) == text


@given(st.fractions(max_denominator=99))
def test_a_number_read_back_is_the_number(value):
    assert read_expression(plain(build.number(value))) == build.number(value)


@pytest.mark.parametrize(
    ("coefficient", "powers", "text"),
    [
        (Q(3), [("x", 2), ("y", 1)], "3x^2y"),
        (Q(1), [("x", 1)], "x"),
        (Q(-1), [("x", 3)], "-x^3"),
        (Q(2, 3), [("x", 1)], "(2/3)x"),
        (Q(-2, 3), [("x", 1)], "-(2/3)x"),
        (Q(5), [("x", 0)], "5"),
        (Q(1), [], "1"),
        (Q(-1, 2), [], "-1/2"),
        (Q(4), [('"km"', 1)], '4"km"'),
    ],
)
def test_a_monomial_leaves_out_what_need_not_be_written(coefficient, powers, text):
    assert plain(build.monomial(coefficient, powers)) == text


@pytest.mark.parametrize(
    ("terms", "text"),
    [
        (["x", "3"], "x + 3"),
        (["x", "-3"], "x - 3"),
        (["-x", "-y", "2"], "-x - y + 2"),
        (["x"], "x"),
        ([], "0"),
    ],
)
def test_terms_are_joined_and_a_later_minus_becomes_the_sign(terms, text):
    assert plain(build.sum_of([read_expression(term) for term in terms])) == text


@pytest.mark.parametrize(
    ("top", "bottom", "text"),
    [
        ("x", "4", "x/4"),
        ("x + 1", "x - 2", "(x+1)/(x-2)"),
        ("-x", "4", "-x/4"),
        ("-(x + 1)", "3", "-(x+1)/3"),
        ("3x", "y^2", "(3x)/y^2"),
        ("2/3", "x", "(2/3)/x"),
    ],
)
def test_a_bar_brackets_what_needs_it_and_takes_a_minus_in_front(top, bottom, text):
    assert plain(build.bar(read_expression(top), read_expression(bottom))) == text


@pytest.mark.parametrize(
    ("text", "grouped", "beside_slash"),
    [("x", "x", "x"), ("12", "12", "12"), ("x^2", "(x^2)", "x^2"), ("3x", "(3x)", "(3x)"), ("x + 1", "(x+1)", "(x+1)"),
     ("√x", "√x", "√x"), ("(x)", "(x)", "(x)"), ("-2", "(-2)", "(-2)")],
)  # fmt: skip
def test_brackets_stand_only_where_the_notation_asks_for_them(text, grouped, beside_slash):
    assert plain(build.grouped(read_expression(text))) == grouped
    assert plain(build.beside_slash(read_expression(text))) == beside_slash


def test_two_minus_signs_go():
    assert build.negated(X) == n.Signed("-", X)
    assert build.negated(build.negated(X)) == X
    assert build.negated(n.Signed("±", X)) == n.Signed("-", n.Signed("±", X))


def test_statements_are_joined_by_or():
    first, second = (build.equation(X, n.Integer(k)) for k in (1, 2))
    assert plain(build.alternatives([first, second])) == "x = 1 or x = 2"
    assert build.alternatives([first]) is first


def test_implied_products_and_words():
    assert plain(build.implied_product([n.Integer(2), X, n.Group(build.sum_of([X, n.Integer(1)]))])) == "2x(x+1)"
    assert build.implied_product([X]) is X
    assert build.letter("x") == X
    assert build.letter('"m"') == n.Unit("m")


@pytest.mark.parametrize(
    ("text", "old", "new", "result"),
    [
        ("x^2 + x", "x", "(3)", "(3)^2 + (3)"),
        ("√7 + 2√7", "√7", "(3)", "(3) + 2(3)"),
        ("x + y", "z", "(3)", "x + y"),
        ("x", "x", "y + 1", "y + 1"),
    ],
)
def test_every_part_that_equals_is_replaced(text, old, new, result):
    found = substituted(read_expression(text), {read_expression(old): read_expression(new)})
    assert found == read_expression(result)


def test_what_is_put_in_is_not_looked_into_again():
    swapped = substituted(read_expression("x + y"), {n.Letter("x"): n.Letter("y"), n.Letter("y"): n.Letter("x")})
    assert plain(swapped) == "y + x"
    assert plain(substituted(X, {X: read_expression("x + 1")})) == "x + 1"


def test_a_statement_is_replaced_in_as_well():
    body = read_line("x = 3 or x = -y").body
    assert plain(substituted(body, {n.Letter("y"): n.Integer(2)})) == "x = 3 or x = -2"
    assert isinstance(body, ln.Alternatives)


@given(TREES)
def test_what_holds_none_of_the_keys_stays_the_same_object(tree):
    assert substituted(tree, {n.Letter("☐"): n.Integer(1)}) is tree


@given(TREES)
def test_a_letter_put_in_and_taken_back_changes_nothing(tree):
    there = substituted(tree, {n.Letter("x"): n.Letter("☐")})
    assert n.Letter("x") not in n.parts_of(there)
    assert substituted(there, {n.Letter("☐"): n.Letter("x")}) == tree
