"""The quick ways: each says what the general way says, or nothing."""

import random
from fractions import Fraction as Q

import pytest
from flint import arb, fmpq, fmpz_mpoly_ctx
from hypothesis import given
from hypothesis import strategies as st

from algebra import Working, check, decide
from algebra.exact.decomposition import plan_of
from algebra.exact.evaluate.ball import NotSeen, NoValue, value_at
from algebra.exact.generators import FEW, SPARE
from algebra.exact.rational_functions import (
    Ratio,
    factored,
    field_of,
    integer_coefficients,
    irreducible_factors,
    univariate,
)
from algebra.parse.lines import read_expression, read_line
from algebra.tree.survey import surveyed
from algebra.verify.context import context_of
from algebra.verify.evaluator import Evaluator


def evaluator_of(line):
    body = read_line(line)
    return Evaluator(context_of(Working("solve", line, (), "x"), body, [])), body.body


# -- the value at one number -------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "at", "value"),
    [
        ("√(x + 7)", 2, Q(3)),
        ("√(x/4)", Q(9), Q(3, 2)),
        ("∛(x - 1)", -7, Q(-2)),
        ("root(4, x)", 81, Q(3)),
        ("2 1/4 + x", Q(3, 4), Q(3)),
        ("0.5x ÷ 2", 6, Q(3, 2)),
        ("x^-2", Q(2), Q(1, 4)),
        ("x^0", 5, Q(1)),
        ("|x - 3| - x", 1, Q(1)),
        ("-(x - 1)/(x + 1)", 3, Q(-1, 2)),
    ],
)
def test_a_value_is_exact_as_long_as_nothing_irrational_comes_in(text, at, value):
    found = value_at(read_expression(text), "x", fmpq(Q(at).numerator, Q(at).denominator))
    assert isinstance(found, fmpq)
    assert Q(int(found.p), int(found.q)) == value


@pytest.mark.parametrize(
    "text", ["√(x - 5)", "1/(x - 2)", "x ÷ (x - 2)", "(x - 2)^-1", "(x - 2)^0", "√(√(x + 2) - 3)", "1 + 3 1/0"]
)
def test_what_is_undefined_is_said_to_be(text):
    with pytest.raises(NoValue):
        value_at(read_expression(text), "x", fmpq(2))


@pytest.mark.parametrize("text", ["√(√2 - √2)", "1/(√8 - 2√2)", "x^(1/2)", "a + x", "2^√x"])
def test_what_is_not_seen_is_not_guessed(text):
    with pytest.raises(NotSeen):
        value_at(read_expression(text), "x", fmpq(2))


def test_a_root_of_what_is_no_square_is_enclosed():
    found = value_at(read_expression("√x + 1"), "x", fmpq(2))
    assert isinstance(found, arb)
    assert found > fmpq(24142, 10000)
    assert found < fmpq(24143, 10000)


# -- equations with square roots ---------------------------------------------------------------------------------


def linear(rng):
    a, b = rng.choice([1, 1, 2, 3, -1]), rng.randint(-6, 9)
    return f"{'-' if a == -1 else '' if a == 1 else a}x{f' + {b}' if b > 0 else f' - {-b}' if b else ''}"


def radical_equation(rng):
    """One to three square roots, some of numbers, some that cancel or stand below."""
    roots = [f"√({linear(rng)})" for _ in range(rng.choice([1, 1, 2, 2, 3]))]
    shapes = [
        f"{rng.randint(1, 3)}{roots[0]} = "
        f"{rng.choice([linear(rng), str(rng.randint(-2, 6)), f'√{rng.choice([2, 3, 5])}'])}",
        f"{' + '.join(roots)} = {rng.randint(0, 9)}",
        f"{' - '.join(roots)} = {linear(rng)}",
        f"{roots[0]}·{roots[0]} + {roots[-1]} = {rng.randint(0, 5)}",
        f"({linear(rng)})/{roots[0]} = {rng.randint(1, 5)}",
        f"{rng.randint(1, 6)}/({roots[0]} - {rng.randint(1, 3)}) = {linear(rng)}",
        f"√3·x + {roots[0]} = {rng.randint(1, 5)}",
        f"√(x({linear(rng)})) = {roots[0]} + {rng.randint(0, 2)}",
    ]
    return rng.choice(shapes)


@pytest.mark.parametrize("seed", range(6))
def test_conjugates_find_what_the_general_way_finds(seed):
    rng = random.Random(seed)
    decided = 0
    for _ in range(60):
        line = radical_equation(rng)
        evaluator, body = evaluator_of(line)
        meaning = evaluator.statement(body)
        if not meaning.plain_roots:
            continue
        (pair,) = meaning.pairs
        quick = evaluator._by_a_shortcut(evaluator.context.home, pair)
        if quick is None:
            continue
        decided += 1
        assert quick.members == evaluator.solve(pair.left_tree, pair.right_tree).members, line
    assert decided > 25


@pytest.mark.parametrize(
    ("line", "why"),
    [
        ("√x·√x = -1", "no root is left, so that nothing holds the domain up"),
        ("√((x-1)(x-2)) = 3", "its domain does not settle the signs of x - 1 and x - 2"),
        ("√(x^2) = 3", "√(x²) is |x|"),
        ("∛x + √x = 2", "roots of two kinds"),
        ("√(√x + 1) = 2", "a root in a root"),
        ("|x| + √x = 2", "bars"),
    ],
)
def test_the_quick_way_leaves_alone_what_it_can_not_decide(line, why):
    evaluator, body = evaluator_of(line)
    meaning = evaluator.statement(body)
    assert not meaning.plain_roots or evaluator._by_a_shortcut(evaluator.context.home, meaning.pairs[0]) is None, why


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        # roots that cancel still decide where a line is defined
        ("√x·√x + √(x+2) = 0", "x = -1", "breaks"),
        ("√x·√x + √(x+2) = 0", "no solution", "holds"),
        ("(√x)^2 = -1", "no solution", "holds"),
        ("√x·√x = x", "all real numbers", "breaks"),
        ("√((x-1)(x-2))·√((x-2)(x-3))·√((x-1)(x-3)) + √(x+1) = 7", "x = 0", "narrows"),
        # the same roots, a constant factor: nothing needs to be solved
        ("3√x = 15", "√x = 5", "holds"),
        ("√(x+3) - x = 1", "2√(x+3) - 2x = 2", "holds"),
        ("√(x-5) + x = 2", "x = 2", "breaks"),
        ("x = 2", "x + √(x-5) = 2 + √(x-5)", "breaks"),
        # roots of numbers only: the products of the differences are compared
        ("x^2 + x - 26 = 0", "x = (-1±√105)/2", "holds"),
        ("x^2 + x - 26 = 0", "x = (-1±√104)/2", "breaks"),
        ("x = 3 ± √2", "x = 3 + √2 or x = 3 - √2", "holds"),
        ("x = 3 ± √2", "x = 3 + √2 or x = 3 - √3", "breaks"),
        ("x = 3 ± √2", "x = 3 + √2", "narrows"),
        ("x = ±√(-4)", "no solution", "holds"),
        # a root of a negative number makes a line undefined, though it cancels
        ("x = 0", "x + √(-4) = √(-4)", "breaks"),
        ("x = 3", "x = 5 + √(-4)·√(-1)", "narrows"),
        ("√x = 2", "√x + √(-1) = 2 + √(-1)", "breaks"),
        ("√(-x)·√(-x) = -3", "no solution", "holds"),
        # solutions that are lost: by a division, a case, a factor or a missing ± it is narrowed, by anything else it
        # breaks
        ("√(2x+3) = √(x+1) + 1", "2x + 3 = x + 1 + 1", "breaks"),
        ("√(x+6) = x", "x + 6 = x", "breaks"),
        ("(x-1)√x = 2√x", "x - 1 = 2", "narrows"),
        ("x√2 = x^2", "√2 = x", "narrows"),
        ("(x-3)^2 = 2", "x - 3 = √2", "narrows"),
        ("|x-2| = 5", "x - 2 = 5", "narrows"),
        ("(2^x-2)(2^x-4) = 0", "2^x - 2 = 0", "narrows"),
        # denominators: equal zeros, none of which a denominator shares
        ("2/x + 1 = 4/3", "6 + 3x = 4x", "holds"),
        ("x/(x-3) = 3/(x-3)", "x = 3", "widens"),
        ("(x^2-9)/(x-3) = 0", "x^2 - 9 = 0", "widens"),
        ("(x^2-9)/(x-3) = 0", "x + 3 = 0", "holds"),
        ("x + 3 = 0", "(x^2-9)/(x-3) = 0", "holds"),
        ("(2^x-4)/(2^x-4)·2^x = 4", "2^x = 4", "widens"),
    ],
)
def test_links_that_a_quick_way_decides(given, line, relation):
    assert decide(Working("solve", given, (line,))) == relation
    assert check(Working("solve", given, (line,))).links[0].relation == relation


def test_a_gain_by_roots_that_cancel_says_so():
    link = check(Working("solve", "√x·√x = -1", ("x = -1",))).links[0]
    assert (link.relation, link.reasons) == ("widens", {"-1": "a root of the given does not exist there"})


def test_a_solution_that_is_no_surd_is_not_lost_beside_bars():
    """The norm over a number of degree 8 whose polynomial is in even powers."""
    report = check(Working("solve", "|x^2 - 1| = √2·x + 2√3", ("x = 0",)))
    assert [text.split(", ")[1] for text in report.answer.expected] == ["2.93", "-1.53"]


# -- rings with few generators -----------------------------------------------------------------------------------


def test_a_line_with_more_roots_than_are_kept_ready_is_asked_again_with_more():
    primes = [2, 3, 5, 7, 11, 13, 17, 19, 23]
    assert FEW < len(primes) < SPARE
    line = " + ".join(f"√{p}" for p in primes)
    assert decide(Working("simplify", line, (" + ".join(f"√{p}" for p in reversed(primes)),))) == "holds"
    assert decide(Working("simplify", line, (" + ".join(f"√{p}" for p in primes[:-1]),))) == "breaks"
    assert check(Working("simplify", line, (f"{line} + 0",))).links[0].relation == "holds"


def test_more_roots_than_there_is_room_for_are_refused_with_a_sentence():
    primes = [p for p in range(2, 90) if all(p % d for d in range(2, p))]
    assert len(primes) > SPARE
    line = " + ".join(f"√{p}" for p in primes)
    error = check(Working("simplify", line, (line,))).error
    assert error is not None
    assert "different roots" in error.message


@pytest.mark.parametrize(
    ("text", "index", "step"),
    [
        ("√x", 2, 1),
        ("∛(√x)", 6, 1),
        ("x^(1/3)", 6, 1),
        ("2^(x/2)", 2, 2),
        ("|x|", 2, 1),
        ("√(2^(x/3))", 2, 6),
        ("√x + ∛y", 6, 1),
    ],
)
def test_what_a_line_asks_of_its_field(text, index, step):
    plan = plan_of([read_expression(text)], imaginary=False)
    assert plan is not None
    assert (plan.index, plan.step) == (index, step)


@pytest.mark.parametrize("text", ["x^2 + 1", "x^(-2)", "s^{2}", "(x+1)/(x-1)", "3 1/2 x"])
def test_rational_functions_are_enough(text):
    assert plan_of([read_expression(text)], imaginary=False) is None


def test_a_survey_sees_what_occurs_anywhere():
    found = surveyed([read_expression('2√(a + b)·"km"'), read_expression("x ± 3^(n+1)")])
    assert found.letters == {"a", "b", "x", "n", '"km"'}
    assert (found.signs, found.roots, found.exponents) == (True, True, True)
    assert not surveyed([read_expression("x^(-2) + 1")]).asks_for_more


# -- polynomials -------------------------------------------------------------------------------------------------

WHOLE = st.integers(-30, 30)


@given(st.lists(WHOLE, min_size=2, max_size=5), WHOLE.filter(bool))
def test_factors_are_primitive_with_a_positive_lead_and_multiply_to_the_polynomial(parts, content):
    over = field_of(("x", "y"))
    x, y = over.generators["x"], over.generators["y"]
    poly = content * sum((c * x**k for k, c in enumerate(parts)), over.zero) * (x - 2 * y)
    if poly == 0:
        return
    number, factors = factored(poly)
    total = over.ring.constant(number)
    for factor, power in factors:
        assert factor.leading_coefficient() > 0
        assert int(factor.content()) == 1
        total *= factor**power
    assert total == poly
    assert list(irreducible_factors([poly])) == [str(factor) for factor, _ in factors]


@given(st.lists(WHOLE, min_size=1, max_size=6))
def test_coefficients_come_lowest_first(parts):
    ring = fmpz_mpoly_ctx.get(("x", "y"))
    poly = sum((c * ring.gens()[0] ** k for k, c in enumerate(parts)), ring.constant(0))
    while len(parts) > 1 and parts[-1] == 0:
        parts = parts[:-1]
    assert integer_coefficients(poly, "x") == parts
    assert [int(c) for c in univariate(poly, 0).coeffs()] == (parts if any(parts) else [])
    with pytest.raises(ValueError, match="another letter"):
        integer_coefficients(poly + ring.gens()[1], "x")


@given(WHOLE, WHOLE.filter(bool), WHOLE, WHOLE.filter(bool), WHOLE)
def test_fractions_of_numbers_stay_in_lowest_terms(a, b, c, d, n):
    over = field_of(("x",))
    first, second = over.constant(Q(a, b)), over.constant(Q(c, d))
    x = over.letter("x")
    for value, expected in (
        (first + second, Q(a, b) + Q(c, d)),
        (first - second, Q(a, b) - Q(c, d)),
        (first * second, Q(a, b) * Q(c, d)),
        (first.scaled(n), Q(a, b) * n),
        ((first * x + second - first * x), Q(c, d)),
    ):
        assert value.constant == expected
        assert value.denominator == expected.denominator
    assert isinstance(first * x, Ratio)


def test_equal_leaves_are_one_object_and_equal_trees_have_one_hash():
    first, second = read_expression("x + 2"), read_expression("2 + x")
    assert first.terms[0] is second.terms[1]
    assert hash(first) == hash(read_expression("x + 2"))
    assert first != second
