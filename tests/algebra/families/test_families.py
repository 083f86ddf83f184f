"""What kind a problem is, told by its form; and the terms that generators write."""

from fractions import Fraction as Q

import pytest

from algebra import Working
from algebra.families import BY_ID, FAMILIES
from algebra.families import family as terms
from algebra.ways.solve import family_of, problem_from

KINDS = [
    ("solve", "3x + 7 = 22", "linear-equations"),
    ("solve", "x/3 + x/5 = 0", "linear-equations"),
    ("solve", "0.2x = 1", "linear-equations"),
    ("solve", "x^2 = 49", "quadratic-equations"),
    ("solve", "x^2 - 6x + 5 = 0", "quadratic-equations"),
    ("solve", "(x - 3)(x + 1) = 5", "quadratic-equations"),
    ("solve", "x^3 - 8 = 0", "power-equations"),
    ("solve", "x^4 - 5x^2 + 4 = 0", "polynomial-equations"),
    ("solve", "|x - 2| = 5", "absolute-equations"),
    ("solve", "2^x = 8", "exponential-equations"),
    ("solve", "√(x + 6) = x", "radical-equations"),
    ("solve", "6/(x - 2) = x/4 - 1", "rational-equations"),
    ("solve", "(x - 1)/99 + (x - 2)/98 + (x - 3)/97 = 3", "pattern-equations"),
    ("simplify", "√72", "roots"),
    ("simplify", "√2·√8", "roots"),
    ("simplify", "√(x^3)", "roots"),
    ("simplify", "1/√2", "rationalise"),
    ("simplify", "√(1/3)", "rationalise"),
    ("simplify", "√(4/9)", "roots"),
    ("simplify", "(√(x + h) - √x)/h", "root-differences"),
    ("simplify", "x^2·x^3", "exponents"),
    ("simplify", "x^(-2)/y", "exponents"),
    ("simplify", "8^(2/3)", "powers-in-sums"),
    ("simplify", "(4^x - 9)/(2^x + 3)", "exponential-quotients"),
    ("simplify", "(x^2 - 9)/(x^2 + x - 6)", "reduce-rational"),
    ("simplify", "x/y ÷ y/x", "reduce-rational"),
    ("simplify", "1/x + 1/y", "add-rational"),
    ("simplify", "(1/x)/(1/y)", "complex-fractions"),
    ("simplify", "(x + 1)/(1/x + 1)", "complex-fractions"),
    ("simplify", "2x + 3x", "multiply-out"),
    ("expand", "(x + 1)(x + 2)", "multiply-out"),
    ("factor", "x^2 - 9", "factor"),
    ("evaluate", "3/4 ÷ 1/2", "order-of-operations"),
    ("simplify", "(3 + 2)/(1 - 1/2)", "order-of-operations"),
    ("domain", "√x", "domain"),
    ("analyze", "1/x", "rational-functions"),
    ("solve", "(x + 1)^(1/2) = 3", None),
]


@pytest.mark.parametrize(("task", "given", "kind"), KINDS)
def test_a_problem_is_of_its_kind(task, given, kind):
    found = family_of(problem_from(Working(task, given)))
    assert (found and found.id) == kind


@pytest.mark.parametrize("given", ["(2 + i)(3 - i)", "√(-4)", "(2 + i)/(3 - i)"])
def test_numbers_with_i_are_a_kind_where_they_count(given):
    assert family_of(problem_from(Working("simplify", given, numbers="complex"))).id == "complex-numbers"


def test_an_equation_of_several_letters_is_solved_for_one():
    assert family_of(problem_from(Working("solve", "ax + b = c", variable="x"))).id == "literal-equations"


@pytest.mark.parametrize("family", FAMILIES, ids=lambda family: family.id)
def test_the_example_of_a_family_is_of_it(family):
    working = Working(family.task, family.example, (), family.unknown, numbers=family.numbers)
    assert family_of(problem_from(working)) is BY_ID[family.id]


@pytest.mark.parametrize(
    ("given", "method"),
    [
        ("x/2 + x/3 = 5", "clear-fractions"),
        ("(x + 1)/2 = 5", "clear-fractions"),
        ("x/2 + 1 = 5", ""),
        ("3x + 7 = 22", ""),
    ],
)
def test_fractions_are_cleared_first_where_there_are_several(given, method):
    assert BY_ID["linear-equations"].leads(problem_from(Working("solve", given))) == method


@pytest.mark.parametrize(
    ("parts", "text"),
    [((1, -6, -16), "x^2 - 6x - 16"), ((2, 0, 3), "2x^2 + 3"), ((-1, 1), "-x + 1"), ((0, 5), "5")],
)
def test_a_polynomial_is_written_the_highest_first(parts, text):
    assert terms.polynomial(*parts) == text


def test_terms_of_generators():
    assert terms.linear(2, -3) == "2x - 3"
    assert terms.linear(-1, 4, "t") == "-t + 4"
    assert terms.product(8, -2) == [1, -6, -16]
    assert terms.product(3, lead=2) == [2, -6]
    assert terms.times([1, 2], [1, -2, 3]) == [1, 0, -1, 6]
    assert (terms.number(Q(-3, 4)), terms.number(5)) == ("-3/4", "5")


def test_the_least_difficulty_of_a_level():
    assert BY_ID["exponential-equations"].floor(4) == 5.2
    assert BY_ID["exponential-equations"].floor(1) == 0
    assert BY_ID["absolute-equations"].floor(3) == 0


class Fixed:
    """A source that gives these numbers one after the other."""

    def __init__(self, *numbers):
        self.numbers = list(numbers)

    def randint(self, low, high):
        return self.numbers.pop(0)

    def choice(self, items):
        return items[self.numbers.pop(0)]


def test_numbers_are_drawn_that_are_not_zero_and_differ():
    assert terms.Draw(Fixed(0, 0, 3)).whole(-5, 5) == 3
    assert terms.Draw(Fixed(2, 2, 0, 4)).two(1, 5) == (2, 4)
    assert terms.Draw(Fixed(1, 2)).one_of("a", "b") == "b"
    assert terms.Draw(Fixed(2)).choice([5, 6, 7]) == 7
