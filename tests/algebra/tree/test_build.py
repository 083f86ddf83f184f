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
from tests.algebra.parse.test_notation import TREES

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
    [
        ("x", "x", "x"),
        ("12", "12", "12"),
        ("x^2", "(x^2)", "x^2"),
        ("3x", "(3x)", "(3x)"),
        ("x + 1", "(x+1)", "(x+1)"),
        ("√x", "√x", "√x"),
        ("(x)", "(x)", "(x)"),
        ("-2", "(-2)", "(-2)"),
    ],
)
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


def made(function, *texts):
    return plain(function(*(read_expression(text) for text in texts)))


@pytest.mark.parametrize(
    ("factors", "text"),
    [
        (["2", "x"], "2x"),
        (["2", "3"], "2 · 3"),
        (["x", "3y"], "x · 3y"),
        (["x", "x"], "x · x"),
        (["x^n", "n"], "x^n · n"),
        (["√x", "x"], "√x · x"),
        (["x", "y"], "xy"),
        (["x + 1", "x - 1"], "(x+1)(x-1)"),
        (["-2", "x"], "(-2)x"),
        (["1", "x + 1"], "x + 1"),
        (["1", "1"], "1"),
        (["x/2", "y"], "x/2 · y"),
        (["(x/2)", "(y)"], "(x/2)(y)"),
        (["2x", "y(z+1)"], "2xy(z+1)"),
    ],
)
def test_factors_stand_side_by_side_with_a_dot_where_the_notation_needs_one(factors, text):
    assert made(build.product, *factors) == text


@pytest.mark.parametrize(
    ("factors", "text"),
    [(["8", "x/4"], "8 · x/4"), (["2x", "√3"], "2x · √3"), (["a + b", "c"], "(a+b) · c"), (["x + 1"], "(x+1)")],
)
def test_what_is_not_worked_out_yet_keeps_its_dots(factors, text):
    assert made(build.dotted, *factors) == text


@pytest.mark.parametrize(
    ("text", "other"), [("x", "-x"), ("-x", "x"), ("x + 2", "-(x+2)"), ("-(x + 2)", "(x+2)"), ("-x + 2", "-(-x+2)")]
)
def test_the_opposite_of_a_sum_is_bracketed(text, other):
    assert made(build.opposite, text) == other


@pytest.mark.parametrize(
    ("coefficient", "node", "text"),
    [
        (Q(1), "√x", "√x"),
        (Q(-1), "√x", "-√x"),
        (Q(-3), "(x-1)^2", "-3(x-1)^2"),
        (Q(1, 4), "√x", "√x/4"),
        (Q(-1, 4), "x^2", "-x^2/4"),
        (Q(2, 3), "x^2", "(2/3)x^2"),
        (Q(2, 3), "xy", "(2/3)xy"),
    ],
)
def test_a_multiple_is_written_as_in_a_book(coefficient, node, text):
    assert plain(build.multiple(coefficient, read_expression(node))) == text


@pytest.mark.parametrize(
    ("base", "exponent", "text"),
    [
        ("x", 1, "x"),
        ("x", 2, "x^2"),
        ("x + 1", 3, "(x+1)^3"),
        ("√x", 2, "(√x)^2"),
        ("x^2", 3, "(x^2)^3"),
        ("-2", 2, "(-2)^2"),
        ("1/2", 2, "(1/2)^2"),
        ("x", -1, "x^(-1)"),
    ],
)
def test_a_power_brackets_its_base_where_it_must(base, exponent, text):
    assert plain(build.power(read_expression(base), exponent)) == text


def test_solutions_and_what_is_left_out():
    two, three = n.Integer(2), n.Integer(3)
    assert plain(build.solutions("x", [two, three])) == "x = 2 or x = 3"
    assert build.solutions("x", []) == ln.NoSolution()
    assert plain(build.left_out("x", [two, three])) == "x ≠ 2, 3"
    assert plain(build.plus_minus(two, build.root(three))) == "2 ± √3"
    assert plain(build.plus_minus(build.ZERO, build.root(three))) == "±√3"
    assert plain(build.root(read_expression("x + 1"), 3)) == "∛(x+1)"
    assert plain(build.polynomial((-16, 0, 1), "x")) == "x^2 - 16"
    assert plain(build.product_dotted(build.number(Q(1, 2)), read_expression("3^x"))) == "(1/2) · 3^x"


FACTORS = st.sampled_from(["2", "x", "y", "-3", "x + 1", "2x", "x^2", "√5", "1/3", "(x-y)", "1", "|x|", "3·x", "x/y"])


@given(st.lists(FACTORS, min_size=1, max_size=4), st.sampled_from([build.product, build.dotted]))
def test_a_product_that_is_made_is_the_tree_that_its_text_reads_as(texts, make):
    node = make(*map(read_expression, texts))
    assert read_expression(plain(node)) == node


@given(st.lists(FACTORS, min_size=1, max_size=5))
def test_a_sum_that_is_made_is_the_tree_that_its_text_reads_as(texts):
    node = build.sum_of(map(read_expression, texts))
    assert read_expression(plain(node)) == node


@given(FACTORS, FACTORS)
def test_a_fraction_that_is_made_is_the_tree_that_its_text_reads_as(top, bottom):
    for make in (build.quotient, build.bar):
        node = make(read_expression(top), read_expression(bottom))
        assert read_expression(plain(node)) == node
