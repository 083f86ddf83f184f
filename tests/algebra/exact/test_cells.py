"""Cells: how the line is cut where a sign changes, what is equal on each, and the proof that a value is zero."""

from fractions import Fraction as Q

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra import Working, check
from algebra.exact import zero_equivalence
from algebra.exact.algebraic_numbers import rational, roots_of
from algebra.exact.decomposition import Decomposition, between, plan_of, roots_over
from algebra.exact.effort import granted
from algebra.exact.errors import UndefinedValue
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import field_of
from algebra.parse.lines import read_expression
from algebra.tree import nodes as n


def cells_of(*texts, letters=("x",), positive=()):
    trees = [read_expression(text) for text in texts]
    plan = plan_of(trees, imaginary=False)

    def judge(cell):
        found = []
        for tree in trees:
            try:
                found.append(value_of(tree, cell).ratio)
            except UndefinedValue:
                found.append(None)
        return found

    with granted():
        bounds = [(field_of(letters).letter(name).numerator, 1) for name in positive]
        return Decomposition(letters, plan, bounds).each(judge)


@pytest.mark.parametrize(
    ("text", "samples"),
    [
        ("√x", 2),
        ("|x|", 2),
        ("√(x-1)·√(x+2)", 3),
        ("|x-1| + |x+2|", 3),
        ("√(x^2+1)", 1),
        ("|x^2-2|", 3),
        ("∛x", 2),
        ("√((x-1)^2)", 2),
    ],
)
def test_the_line_is_cut_where_a_sign_changes(text, samples):
    assert len(cells_of(text)) == samples


@pytest.mark.parametrize(
    ("text", "defined"),
    [
        ("√x", [False, True]),
        ("|x|", [True, True]),
        ("√(x-1)·√(x+2)", [False, False, True]),
        ("∛x", [True, True]),
        ("√(-x)", [True, False]),
    ],
)
def test_an_even_root_of_a_negative_number_is_undefined_on_its_cell(text, defined):
    found = sorted(cells_of(text), key=lambda pair: pair[0].sample["x"])
    assert [values[0] is not None for _, values in found] == defined


def test_each_cell_has_a_point_of_its_own_inside():
    found = [cell.sample["x"] for cell, _ in cells_of("|x-1| + |x+2|")]
    assert sorted(found) == sorted(set(found))
    low, middle, high = sorted(found)
    assert low < -2 < middle < 1 < high


def test_bars_are_one_sign_on_each_cell():
    for cell, (bars, inner) in cells_of("|x^2-2|", "x^2-2"):
        assert bars in (inner, -inner)
        assert (bars == inner) == (cell.sample["x"] ** 2 > 2)


def test_letters_held_to_be_positive_have_no_negative_cells():
    both = cells_of("|x| + |y|", letters=("x", "y"))
    held = cells_of("|x| + |y|", letters=("x", "y"), positive=("x", "y"))
    assert len(held) < len(both)
    assert all(value > 0 for cell, _ in held for value in cell.sample.values())
    # what is left of an interval that reaches below zero stays
    assert [cell.sample["x"] < 1 for cell, _ in cells_of("|x - 1|", positive=("x",))] == [True, False]


@given(st.lists(st.integers(-8, 8), min_size=1, max_size=4, unique=True))
def test_bars_around_each_zero_cut_once_for_each(zeros):
    found = cells_of(" + ".join(f"|x - ({zero})|" for zero in zeros))
    assert len(found) == len(zeros) + 1
    ends = sorted(zeros)
    for sample in [cell.sample["x"] for cell, _ in found]:
        assert sample not in ends


class TestBetween:
    @given(st.fractions(-50, 50), st.fractions(-50, 50))
    def test_a_rational_number_lies_between_two(self, one, other):
        low, high = sorted((one, other))
        if low < high:
            found = between(rational(low), rational(high))
            assert low < found < high

    @pytest.mark.parametrize(("low", "high"), [(None, None), (None, rational(-3)), (rational(5), None)])
    def test_an_open_end_is_infinite(self, low, high):
        found = between(low, high)
        assert isinstance(found, Q)
        assert high is None or found < high.rational
        assert low is None or found > low.rational

    def test_a_number_is_found_between_two_that_are_very_close(self):
        low, high = sorted(roots_of((1 - 2 * 10**12, 0, 10**12)))[1], sorted(roots_of((-2, 0, 1)))[1]
        assert low < high
        found = between(low, high)
        assert low < rational(found) < high


class TestPlans:
    @pytest.mark.parametrize(
        ("texts", "index", "step"),
        [(["√x"], 2, 1), (["∛x"], 6, 1), (["√√x"], 4, 1), (["√x", "∛y"], 6, 1)],
    )
    def test_a_plan_has_a_root_that_holds_all(self, texts, index, step):
        plan = plan_of([read_expression(text) for text in texts], imaginary=False)
        assert plan.index % index == 0
        assert plan.step == step

    def test_rational_functions_need_none(self):
        assert plan_of([read_expression("(x+1)/(x-2)")], imaginary=False) is None
        assert plan_of([read_expression("i")], imaginary=True) is not None

    @pytest.mark.parametrize(("text", "count"), [("√x + √(x+1)", 2), ("√2 + x", 0), ("√(y) + x", 0), ("√(√x)", 2)])
    def test_the_roots_over_a_letter_are_counted(self, text, count):
        assert len(roots_over(read_expression(text), "x")) == count


class TestZero:
    def cell(self, *texts):
        trees = [read_expression(text) for text in texts]
        return RadicalField((), plan_of([*trees, n.Root(n.Integer(2))], imaginary=False), {}, {}), trees

    @pytest.mark.parametrize(
        ("one", "other", "same"),
        [
            ("√(5 + 2√6)", "√2 + √3", True),
            ("√(2 + √2)·√(2 - √2)", "√2", True),
            ("∛(2+√5) + ∛(2-√5)", "1", True),
            ("√2 + √3", "√(5 + 2√5)", False),
            ("√(2 + √2)", "√(2 + √3)", False),
            ("√2 + √3 - √5", "0.1", False),
            ("1/(√3 - √2)", "√3 + √2", True),
            ("√(11 + 2√(29)) + √(16 - 2√(29) + 2√(55 - 10√(29)))", "√5 + √(22 + 2√5)", True),
        ],
    )
    def test_numbers_with_nested_roots_are_compared_exactly(self, one, other, same):
        with granted():
            exactly = PointEvaluator(
                plan_of([read_expression(one), read_expression(other), read_expression("√2")], imaginary=False), {}
            )
            left, right = exactly.value(read_expression(one)), exactly.value(read_expression(other))
            assert exactly.same(left, right) in ((True, None) if same else (False,))
            if same and len(one) < 25:
                assert exactly.same(left, right) is True

    def test_zero_is_told_from_nearly_zero(self):
        cell, (left, right) = self.cell(
            "√2",
            "1414213562373095048801688724209698/1000000000000000000000000000000000",
        )
        with granted():
            difference = value_of(left, cell).ratio - value_of(right, cell).ratio
            assert zero_equivalence.is_zero(cell, difference) is False
            assert zero_equivalence.is_zero(cell, difference - difference) is True

    @given(st.integers(2, 40), st.integers(2, 40))
    def test_a_product_of_roots_is_the_root_of_the_product(self, a, b):
        exactly = PointEvaluator(plan_of([read_expression("√2")], imaginary=False), {})
        with granted():
            left, right = exactly.value(read_expression(f"√{a}·√{b}")), exactly.value(read_expression(f"√({a * b})"))
            assert exactly.same(left, right) is True
            total = exactly.value(read_expression(f"√{a} + √{b}"))
            assert exactly.same(total, exactly.value(read_expression(f"√({a + b})"))) is False


@pytest.mark.parametrize(
    ("given_", "line", "relation"),
    [
        ("|x-1| + |x+2|", "2x + 1", "breaks"),
        ("√(x^2 - 2x + 1)", "|x - 1|", "holds"),
        ("√(x^4)", "x^2", "holds"),
        ("√(x^6)", "x^3", "breaks"),
        ("√(x^6)", "|x^3|", "holds"),
        ("√(x^2y^2)", "|xy|", "holds"),
        ("√(x^2y^2)", "xy", "breaks"),
        ("|x|·|y|", "|xy|", "holds"),
        ("|x| + |y|", "|x + y|", "breaks"),
        ("|x|^2", "x^2", "holds"),
        ("√(1 - x)/√(1 - x)", "1", "holds"),
        ("∛(x^3)", "x", "holds"),
        ("∛(-x)", "-∛x", "holds"),
        ("(x^2)^(1/2)", "x", "breaks"),
        ("|x^2 + 1|", "x^2 + 1", "holds"),
        ("|x^2 - 1|", "x^2 - 1", "breaks"),
    ],
)
def test_a_rewriting_is_judged_on_every_cell(given_, line, relation):
    link = check(Working("simplify", given_, (line,))).links[0]
    assert link.relation == relation
    if relation == "breaks":
        assert link.evidence.values
