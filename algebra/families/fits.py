"""Telling what family a problem is of, by its form alone."""

from __future__ import annotations

from collections.abc import Callable
from math import gcd, isqrt

from algebra.exact.errors import ExactError
from algebra.methods import exponential, linear, quadratic, radical_equations, rational_equations
from algebra.methods.linear import polys_of
from algebra.methods.terms import Poly, terms_of
from algebra.methods.worked_lines import NotThisWay, Problem
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.shapes import is_root_difference


def has(problem: Problem, *kinds: type[n.Node]) -> bool:
    """Whether a node of one of these kinds occurs."""
    return any(isinstance(part, kinds) for part in n.parts_of(problem.body))


def is_numeric(problem: Problem) -> bool:
    """Whether there are no letters."""
    return not n.letters(problem.body)


def is_complex_number(problem: Problem) -> bool:
    """Whether it is a number with i or with the root of a negative number, where these count."""
    if not problem.complex or n.letters(problem.body) - {"i"}:
        return False
    return bool(n.letters(problem.body)) or any(
        isinstance(p, n.Root) and isinstance(n.bare(p.radicand), n.Signed) for p in n.parts_of(problem.body)
    )


def has_roots(problem: Problem) -> bool:
    """Whether a root sign occurs."""
    return has(problem, n.Root)


def _safely(test: Callable[[Problem], object], problem: Problem) -> bool:
    try:
        return bool(test(problem))
    except (ExactError, NotThisWay):
        return False


def root_below(problem: Problem) -> bool:
    """Whether a root stands in a denominator, or would once a fraction leaves its root."""
    return any(
        isinstance(p, n.Fraction) and any(isinstance(q, n.Root) for q in n.parts_of(p.denominator))
        for p in n.parts_of(problem.body)
    ) or any(isinstance(p, n.Root) and _keeps_root_below(n.bare(p.radicand)) for p in n.parts_of(problem.body))


def _keeps_root_below(radicand: n.Node) -> bool:
    """Whether the root of a fraction leaves a root in the denominator."""
    if not isinstance(radicand, n.Fraction):
        return False
    top, bottom = radicand.numerator, radicand.denominator
    if not isinstance(top, n.Integer) or not isinstance(bottom, n.Integer) or not bottom.value:
        return False
    below = bottom.value // gcd(top.value, bottom.value)
    return isqrt(below) ** 2 != below


def fraction_inside(problem: Problem) -> bool:
    """Whether fractions or negative powers stand inside the parts of a fraction."""
    body = n.bare(problem.body)
    if not isinstance(body, n.Fraction):
        return False
    return any(
        isinstance(n.bare(c), n.Sum) and any(isinstance(p, n.Fraction) or negative_power(p) for p in n.parts_of(c))
        for c in body.children
    ) or any(isinstance(n.bare(c), n.Fraction) for c in body.children)


def negative_power(part: n.Node) -> bool:
    """Whether a node is a power with a sign before its exponent."""
    return isinstance(part, n.Power) and isinstance(n.bare(part.exponent), n.Signed)


def is_sum(problem: Problem) -> bool:
    """Whether the given is a sum of at least two terms."""
    return isinstance(n.bare(problem.body), n.Sum) and len(terms_of(problem.body)) > 1


def is_fractional(problem: Problem) -> bool:
    """Whether letters stand in a fraction, or something is divided."""
    return any(isinstance(p, n.Fraction) and n.letters(p) for p in n.parts_of(problem.body)) or any(
        isinstance(p, n.Product) and "÷" in p.operators for p in n.parts_of(problem.body)
    )


def divides(problem: Problem) -> bool:
    """Whether a division sign occurs."""
    return any(isinstance(p, n.Product) and "÷" in p.operators for p in n.parts_of(problem.body))


def is_equation(problem: Problem) -> bool:
    """Whether the given is an equation."""
    return isinstance(problem.body, ln.Equation)


def linear_equation(problem: Problem) -> bool:
    """Whether it is an equation of the first degree, without roots or bars."""
    return is_equation(problem) and not has(problem, n.Root, n.Absolute) and _safely(linear.is_linear, problem)


def first_for_linear(problem: Problem) -> str:
    """Several fractions, or a sum over a number, are cleared before anything else; one plain fraction is undone in its
    turn."""
    fractions = [p for p in n.parts_of(problem.body) if isinstance(p, n.Fraction) and n.letters(p)]
    sums = any(isinstance(n.bare(p.numerator), n.Sum) for p in fractions)
    return "clear-fractions" if sums or len({p.denominator for p in fractions}) > 1 else ""


def literal_equation(problem: Problem) -> bool:
    """Whether it is an equation with several letters."""
    return is_equation(problem) and len(n.letters(problem.body)) > 1


def quadratic_equation(problem: Problem) -> bool:
    """Whether it is an equation of the second degree, without roots or bars."""
    return is_equation(problem) and not has(problem, n.Root, n.Absolute) and _safely(quadratic.is_quadratic, problem)


def polynomial_equation(problem: Problem) -> bool:
    """Whether it is an equation of a degree above 2, without roots or bars."""

    def test(p: Problem) -> bool:
        left, right = polys_of(p)
        return Poly.of(left.value - right.value, p.unknown).degree > 2

    return is_equation(problem) and not has(problem, n.Root, n.Absolute) and _safely(test, problem)


def rational_equation(problem: Problem) -> bool:
    """Whether it is an equation with the unknown in a denominator."""
    return (
        is_equation(problem)
        and not has(problem, n.Root, n.Absolute)
        and _safely(rational_equations.is_rational, problem)
    )


def pattern_equation(problem: Problem) -> bool:
    """Whether taking 1 from every term makes the numerators equal."""
    return is_equation(problem) and _safely(lambda p: rational_equations.spot_the_structure(p).answer, problem)


def radical_equation(problem: Problem) -> bool:
    """Whether it is an equation with the unknown under a root."""
    return is_equation(problem) and _safely(radical_equations.is_radical, problem)


def exponential_equation(problem: Problem) -> bool:
    """Whether it is an equation with the unknown in an exponent."""
    return is_equation(problem) and _safely(exponential.is_exponential, problem)


def absolute_equation(problem: Problem) -> bool:
    """Whether it is an equation with bars."""
    return is_equation(problem) and has(problem, n.Absolute)


def power_equation(problem: Problem) -> bool:
    """The unknown stands once, under a power above 2."""
    if not is_equation(problem):
        return False
    count = sum(1 for part in n.parts_of(problem.body) if part == n.Letter(problem.unknown))
    high = any(
        isinstance(p, n.Power)
        and isinstance(p.exponent, n.Integer)
        and p.exponent.value > 2
        and problem.unknown in n.letters(p.base)
        for p in n.parts_of(problem.body)
    )
    return count == 1 and high


def exponential_quotient(problem: Problem) -> bool:
    """A sum over a sum, with the letter in exponents alone."""
    body = n.bare(problem.body)
    if not isinstance(body, n.Fraction) or not letters_above(problem):
        return False
    return isinstance(n.bare(body.numerator), n.Sum) and isinstance(n.bare(body.denominator), n.Sum)


def root_difference(problem: Problem) -> bool:
    """Two terms with a root above a denominator with letters and without roots."""
    return is_root_difference(problem.body)


def powers(problem: Problem) -> bool:
    """Whether there are powers and no roots."""
    return has(problem, n.Power) and not has(problem, n.Root)


def letters_above(problem: Problem) -> bool:
    """Whether letters stand in an exponent."""
    return any(isinstance(p, n.Power) and n.letters(p.exponent) for p in n.parts_of(problem.body))


def any_sum(problem: Problem) -> bool:
    """Whether a sum stands anywhere outside of an exponent."""

    def found(node: n.Node) -> bool:
        if isinstance(node, n.Sum):
            return True
        return any(found(c) for c in (node.children[:1] if isinstance(node, n.Power) else node.children))

    return found(problem.body)
