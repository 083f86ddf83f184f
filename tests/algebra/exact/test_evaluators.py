"""The three evaluators: symbolic on a field, enclosed at a number, exact at a point; and what they refuse."""

from fractions import Fraction as Q

import pytest

from algebra.exact import zero_equivalence
from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.decomposition import Decomposition, between, plan_of, roots_over
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import FEW, MoreRootsNeeded, Plan
from algebra.exact.linear_systems import eliminate
from algebra.exact.plus_minus import variants
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import (
    by_powers,
    coefficients,
    depends_on,
    factored,
    field_of,
    integer_coefficients,
    irreducible_factors,
)
from algebra.exact.sample_points import breaking_point, friendly_points
from algebra.exact.sign_determination import SignUnknown
from algebra.exact.surds import surd_number
from algebra.exact.writing import factored_tree, polynomial_tree, simplified_tree
from algebra.parse.lines import read_expression
from algebra.tree.plain import plain

ROOT_2 = Number((-2, 0, 1), 1)
NO_FORM = Number((-1, -1, 0, 1), 0)


def simplified(text, *letters):
    return plain(simplified_tree(value_of(read_expression(text), field_of(letters)).ratio))


def in_roots(text, *letters, imaginary=False, spare=18):
    tree = read_expression(text)
    plan = plan_of([tree], imaginary=imaginary, spare=spare) or Plan(imaginary=imaginary)
    cell = RadicalField(letters, plan, {name: Q(3 + k) for k, name in enumerate(letters)}, {}, formal=True)
    return value_of(tree, cell).ratio


# -- rational functions ----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "letters", "result"),
    [
        ("2/4", "", "1/2"),
        ("2 1/4 - 0.25", "", "2"),
        ("3 - 5", "", "-2"),
        ("(x^2-9)/(x+3)", "x", "x - 3"),
        ("(x-2)/(2-x)", "x", "-1"),
        ("6x ÷ 2 · x", "x", "3x^2"),
        ("1/x + 1/y", "xy", "(x+y)/(xy)"),
        ("(x+1)^3 - x^3", "x", "3x^2 + 3x + 1"),
        ("x^-2", "x", "1/x^2"),
        ("(x-y)(x+y)", "xy", "x^2 - y^2"),
        ("2x/(4x^2 - 4)", "x", "x/(2(x+1)(x-1))"),
        ("-(x - 3)", "x", "-x + 3"),
        ("b - d", "bd", "b - d"),
        ("0·x", "x", "0"),
        ("(x^2+1)/(x^2+1)", "x", "1"),
    ],
)
def test_a_value_is_in_lowest_terms(text, letters, result):
    assert simplified(text, *letters) == result


@pytest.mark.parametrize("text", ["5/0", "x/(x - x)", "0^0", "(x-x)^-1", "2 1/0", "6 ÷ (3 - 3)"])
def test_what_divides_by_nothing_is_undefined(text):
    with pytest.raises(UndefinedValue):
        value_of(read_expression(text), field_of(("x",)))


@pytest.mark.parametrize(
    ("text", "error"),
    [
        ("√2", OutOfScope),
        ("|x|", OutOfScope),
        ("y + 1", OutOfScope),
        ("2^x", OutOfScope),
        ("x^101", TooLarge),
        ("(x+1)^200", TooLarge),
        ("2^(10^7)", TooLarge),
        ('3"km"', OutOfScope),
    ],
)
def test_what_this_field_does_not_hold_is_refused(text, error):
    with pytest.raises(error):
        value_of(read_expression(text), field_of(("x",)))


def test_the_polynomials_that_must_not_vanish_are_those_of_the_line_as_written():
    found = value_of(read_expression("(x-1)/((x-1)(x+3)) + 1/2"), field_of(("x",)))
    assert sorted(irreducible_factors(found.nonzero)) == ["x + 3", "x - 1"]
    assert value_of(read_expression("x/3"), field_of(("x",))).nonzero == ()
    assert sorted(irreducible_factors(value_of(read_expression("x^-1 + (x+2)^0"), field_of(("x",))).nonzero)) == [
        "x",
        "x + 2",
    ]


def test_polynomials_taken_apart():
    poly = value_of(read_expression("6x^2y - 6y"), field_of(("x", "y"))).ratio.numerator
    content, factors = factored(poly)
    assert content == 6
    assert sorted((str(f), power) for f, power in factors) == [("x + 1", 1), ("x - 1", 1), ("y", 1)]
    assert depends_on(poly, "x")
    assert depends_on(poly, "y")
    assert [str(part) for part in coefficients(poly, "x")] == ["-6*y", "0", "6*y"]
    assert sorted(by_powers(poly, 0)) == [0, 2]
    single = value_of(read_expression("3x^2 - 5"), field_of(("x", "y"))).ratio.numerator
    assert integer_coefficients(single, "x") == [-5, 0, 3]
    with pytest.raises(ValueError, match="another letter occurs"):
        integer_coefficients(poly, "x")


def test_a_polynomial_of_too_high_a_degree_is_not_factored():
    field = field_of(("x",))
    high = field.ring.from_dict({(700,): 1, (0,): -2})
    with pytest.raises(TooLarge, match="degree above"):
        factored(high)


@pytest.mark.parametrize(
    ("text", "expanded", "product"),
    [
        ("(x-2)(x+3)", "x^2 + x - 6", "(x+3)(x-2)"),
        ("2(x-1)^2", "2x^2 - 4x + 2", "2(x-1)^2"),
        ("-(x-1)", "-x + 1", "1 - x"),
        ("-x^2", "-x^2", "-x^2"),
        ("x^2 + 1", "x^2 + 1", "x^2 + 1"),
        ("7", "7", "7"),
        ("3xy", "3xy", "3xy"),
        ("d - b", "d - b", "d - b"),
    ],
)
def test_polynomials_are_written_expanded_and_factored(text, expanded, product):
    field = field_of(("b", "d", "x", "y"))
    poly = value_of(read_expression(text), field).ratio.numerator
    assert plain(polynomial_tree(poly, field.letters)) == expanded
    assert plain(factored_tree(poly, field.letters)) == product


# -- fields with roots -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "letters", "result"),
    [
        ("√50", "", "5√2"),
        ("√12 + √27", "", "5√3"),
        ("√2·√8", "", "4"),
        ("7/√5", "", "(7√5)/5"),
        ("2/(1+√3)", "", "-1 + √3"),
        ("∛16", "", "2∛2"),
        ("√(3 + 2√2)", "", "1 + √2"),
        ("√(x^2y)", "xy", "x√y"),
        ("(√x)^2", "x", "x"),
        ("√x·√x^3", "x", "x^2"),
        ("√(1/x)", "x", "√x/x"),
        ("8^(2/3)", "", "4"),
        ("∛(-8)", "", "-2"),
        ("2^(x+3)", "x", "8 · 2^x"),
        ("9^x/3^x", "x", "3^x"),
    ],
)
def test_a_value_with_roots_has_a_normal_form(text, letters, result):
    assert plain(simplified_tree(in_roots(text, *letters))) == result


@pytest.mark.parametrize(
    ("text", "result"), [("√(-4)", "2i"), ("i^2", "-1"), ("1/i", "-i"), ("(1+i)(1-i)", "2"), ("√(-2)·√(-8)", "-4")]
)
def test_complex_values(text, result):
    assert plain(simplified_tree(in_roots(text, imaginary=True))) == result


def test_more_roots_than_are_kept_ready_ask_for_the_larger_field():
    text = "√2 + √3 + √5 + √7 + √11 + √13 + √17 + √19"
    with pytest.raises(MoreRootsNeeded):
        in_roots(text, spare=FEW)
    assert in_roots(text) is not None


@pytest.mark.parametrize(
    ("text", "sign"),
    [("√2 - 1", 1), ("1 - √2", -1), ("√2·√3 - √6", 0), ("√3 - √2 - 1", -1), ("3 - 2√2", 1), ("∛2 - √2", -1)],
)
def test_the_sign_of_a_number_with_roots(text, sign):
    tree = read_expression(text)
    cell = RadicalField((), plan_of([tree], imaginary=False), {}, {})
    assert cell.sign_of(value_of(tree, cell).ratio) == sign


def test_a_cell_that_does_not_know_a_sign_asks_for_it():
    tree = read_expression("√((x-1)^2)")
    plan = plan_of([tree], imaginary=False)
    with pytest.raises(SignUnknown):
        value_of(tree, RadicalField(("x",), plan, {"x": Q(2)}, {}))
    right = RadicalField(("x",), plan, {"x": Q(2)}, {"x - 1": 1})
    left = RadicalField(("x",), plan, {"x": Q(0)}, {"x - 1": -1})
    assert plain(simplified_tree(value_of(tree, right).ratio)) == "x - 1"
    assert plain(simplified_tree(value_of(tree, left).ratio)) == "-x + 1"


def test_cells_are_cut_where_what_is_under_a_root_changes_its_sign():
    tree = read_expression("|x - 1| + |x + 2|")
    cells = Decomposition(("x",), plan_of([tree], imaginary=False))
    judged = cells.each(lambda cell: plain(simplified_tree(value_of(tree, cell).ratio)))
    assert [text for _, text in judged] == ["-2x - 1", "3", "2x + 1"]
    assert [cell.sample["x"] < 1 for cell, _ in judged] == [True, True, False]


def test_cells_lie_apart_however_close_their_ends_are():
    tree = read_expression("|x - 100000000000000007| + |x - 100000000000000009|")
    cells = Decomposition(("x",), plan_of([tree], imaginary=False))
    judged = cells.each(lambda cell: plain(simplified_tree(value_of(tree, cell).ratio)))
    assert len(judged) == 3
    assert judged[1][1] == "2"


@pytest.mark.parametrize(
    ("low", "high", "value"),
    [
        (None, None, Q(2)),
        (None, rational(0), Q(-1)),
        (rational(3), None, Q(5)),
        (rational(1), rational(3), Q(2)),
        (rational(0), rational(1), Q(1, 2)),
        (rational(Q(1, 3)), rational(Q(2, 3)), Q(1, 2)),
        (rational(7), rational(8), Q(15, 2)),
        (ROOT_2, rational(Q(3, 2)), Q(143, 100)),
    ],
)
def test_a_friendly_number_between_two_ends(low, high, value):
    found = between(low, high)
    assert low is None or low < rational(found)
    assert high is None or rational(found) < high
    assert found == value or found.denominator > 4


@pytest.mark.parametrize(
    ("text", "plan"),
    [
        ("x + 1", None),
        ("√x", Plan(2)),
        ("∛x", Plan(6)),
        ("√(√x)", Plan(4)),
        ("|x|", Plan(2)),
        ("x^(1/3)", Plan(6)),
        ("2^x", Plan(2)),
        ("2^(x/3)", Plan(2, 3)),
        ("x^0.5", Plan(2)),
    ],
)
def test_what_a_line_asks_of_its_field(text, plan):
    assert plan_of([read_expression(text)], imaginary=False) == plan


def test_a_plan_is_bounded():
    with pytest.raises(TooLarge, match="need an index above"):
        plan_of([read_expression("root(11, root(7, x))")], imaginary=False)


def test_the_roots_that_hold_a_letter():
    found = roots_over(read_expression("√(x+1) + √y + |x| + x^(1/2) + x^2"), "x")
    assert sorted(plain(part) for part in found) == ["x^(1/2)", "|x|", "√(x+1)"]


# -- at a point ------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "point", "result"),
    [
        ("x^2 - 2", {"x": ROOT_2}, "0"),
        ("√(x + 7)", {"x": Q(2)}, "3"),
        ("x + y", {"x": Q(1, 2), "y": Q(1, 3)}, "5/6"),
        ("√x", {"x": ROOT_2}, "∜2"),
        ("x^3 - x - 1", {"x": NO_FORM}, "0"),
        ("4^x", {"x": Q(1, 2)}, "2"),
        ("|x|", {"x": Q(-3)}, "3"),
    ],
)
def test_a_value_at_a_point_is_exact(text, point, result):
    tree = read_expression(text)
    at = PointEvaluator(plan_of([tree], imaginary=False) or Plan(), point)
    assert plain(simplified_tree(at.value(tree))) == result


@pytest.mark.parametrize(("text", "value"), [("1/x", 0), ("√x", -1), ("1/(x^2-4)", 2), ("√(x-5)", 3)])
def test_where_there_is_no_value_none_is_given(text, value):
    tree = read_expression(text)
    assert PointEvaluator(plan_of([tree], imaginary=False) or Plan(), {"x": Q(value)}).value(tree) is None


def test_values_at_a_point_are_compared_exactly():
    left, right = read_expression("√(5 + 2√6)"), read_expression("√2 + √3")
    at = PointEvaluator(plan_of([left, right], imaginary=False), {})
    assert at.same(at.value(left), at.value(right)) is True
    assert at.same(at.value(left), at.value(read_expression("√2 + √3 + 1"))) is False


def test_zero_is_seen_where_nested_roots_hide_it():
    tree = read_expression("√(2 + √3) - √6/2 - √2/2")
    cell = RadicalField((), plan_of([tree], imaginary=False), {}, {})
    assert zero_equivalence.is_zero(cell, value_of(tree, cell).ratio) is True
    other = read_expression("∛(2 + √5) + ∛(2 - √5) - 1")
    cell = RadicalField((), plan_of([other], imaginary=False), {}, {})
    assert zero_equivalence.is_zero(cell, value_of(other, cell).ratio) is True
    near = read_expression("∛(2 + √5) + ∛(2 - √5) - 1 - 1/10^9")
    cell = RadicalField((), plan_of([near], imaginary=False), {}, {})
    assert zero_equivalence.is_zero(cell, value_of(near, cell).ratio) is False


def test_a_system_is_solved_and_a_singular_one_refused():
    one = field_of(()).constant
    rows = [[one(2), one(1), one(5)], [one(1), one(-1), one(1)]]
    assert [entry.constant for entry in eliminate(rows)] == [2, 1]
    with pytest.raises(OutOfScope):
        eliminate([[one(1), one(2), one(3)], [one(2), one(4), one(6)]])


@pytest.mark.parametrize(
    ("text", "number"),
    [("3 + √2", "3 + √2"), ("(1-√5)/2", "(1-√5)/2"), ("-2√3", "-2√3"), ("√2 + √3", None), ("5", None), ("∛2", None)],
)
def test_surds_are_numbers(text, number):
    found = surd_number(in_roots(text))
    assert (None if found is None else str(found)) == number


# -- signs and points to try -----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "lines"),
    [
        ("x + 1", ["x + 1"]),
        ("x ± 1", ["x + 1", "x - 1"]),
        ("±x ± 1", ["+x + 1", "+x - 1", "-x + 1", "-x - 1"]),
        ("x ± 1 ∓ y", ["x + 1 - y", "x - 1 + y"]),
        ("∓3", ["-3", "+3"]),
    ],
)
def test_a_line_with_signs_stands_for_several(text, lines):
    assert [plain(tree) for tree in variants(read_expression(text))] == lines


def test_too_many_signs_are_refused():
    with pytest.raises(TooLarge, match="More than 6 signs"):
        variants(read_expression("±1 ± 1 ± 1 ± 1 ± 1 ± 1 ± 1"))


def test_points_are_tried_in_a_teachers_order():
    first = [point["x"] for _, point in zip(range(5), friendly_points(["x"]), strict=False)]
    assert first == [2, 3, 1, 4, 5]
    assert next(iter(friendly_points(["x", "y"]))) == {"x": 2, "y": 3}
    assert list(friendly_points([])) == [{}] * 15


def test_a_point_where_both_are_defined_is_shown_first():
    def values(point):
        x = point["x"]
        return (None if x == 2 else x), x + 1

    assert breaking_point(["x"], values, []) == ({"x": 3}, 3, 4)
    assert breaking_point(["x"], lambda point: (1, 1), []) is None
    assert breaking_point(["x"], lambda point: None, [{"x": Q(9)}]) is None
    assert breaking_point(["x"], lambda point: (None, 1), []) == ({"x": 2}, None, 1)
