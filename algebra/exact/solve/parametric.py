"""Equations with roots and other letters: linear or quadratic in the unknown, for generic values of the parameters."""

from __future__ import annotations

from math import gcd

from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import NO_DOUBTS, Generator
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, Ratio, depends_on
from algebra.exact.solution_sets import EMPTY, EVERYTHING, Solution, SolutionSet
from algebra.exact.solve.candidates import coefficients_of
from algebra.exact.writing import simplified_tree
from algebra.tree import nodes as n
from algebra.tree.plain import plain


class ParametricSolver:
    """Solves one equation in one unknown and other letters, given as trees without ±, in the field `home`."""

    def __init__(self, home: RadicalField, unknown: str) -> None:
        self.home = home
        self.unknown = unknown
        self.poles: list[Poly] = []  # what must not vanish

    def equation(self, left: n.Node, right: n.Node) -> SolutionSet:
        """For generic values of the other letters, roots taken where they exist: linear in the unknown."""
        home = self.home
        home.doubts = NO_DOUBTS
        try:
            first, second = value_of(left, home), value_of(right, home)
        except UndefinedValue:
            return EMPTY
        if home.not_real:
            return EMPTY
        if home.sign_assumed:
            raise OutOfScope("The sign of a letter decides here.", "√")
        self.poles = [poly for poly in first.nonzero + second.nonzero if depends_on(poly, self.unknown)]
        difference = first.ratio - second.ratio
        if difference.is_zero:
            return EVERYTHING
        if depends_on(difference.denominator, self.unknown):
            self.poles.append(home.in_letters(difference.denominator))
        poly = difference.numerator
        position = home.position(self.unknown)
        rooted = [
            g
            for g in home.made.values()
            if poly.degrees()[g.position] and any(home.names[k] == self.unknown for k in home.letters_inside(g))
        ]
        if rooted:
            return self._under_one_root(poly, rooted)
        if poly.degrees()[position] != 1:
            raise OutOfScope("With roots and other letters only linear equations are solved.", "√")
        return self._by_formula(coefficients_of(home, poly, self.unknown))

    def _by_formula(self, parts: list[Ratio]) -> SolutionSet:
        """The zeros of a polynomial of degree 1 or 2 with coefficients in parameters; none may be a zero of a denominator."""
        for pole in self.poles:
            at_pole = coefficients_of(self.home, self._lifted(pole), self.unknown)
            if len(parts) > 2 or len(at_pole) > 2:
                raise OutOfScope("With roots and other letters, this denominator is not worked out.", "√")
            if (at_pole[0] * parts[1] - at_pole[1] * parts[0]).is_zero:
                return EMPTY
        return SolutionSet(frozenset(_zeros_in_parameters(self.home, parts)))

    def _lifted(self, poly: Poly) -> Poly:
        skip = len(self.home.added)
        return self.home.ring.from_dict({(0,) * skip + monomial: c for monomial, c in poly.to_dict().items()})

    def _under_one_root(self, poly: Poly, rooted: list[Generator]) -> SolutionSet:
        """a + b·r^k = 0 with the unknown under the root r alone, linear once the root is gone.

        The solution holds where -a/b is not negative: a condition on the other letters, unless its sign is settled.
        """
        home, refusal = self.home, OutOfScope("The unknown stands under a root with other letters.", "√")
        top = rooted[0]
        parts = {k: home.ratio(part) for k, part in enumerate(home.powers_of(poly, top)) if part != 0}
        if len(rooted) > 1 or top.base is None or len(parts) != 2 or 0 not in parts:
            raise refusal
        (_, a), (power, b) = sorted(parts.items())
        share = -a / b
        inside = home.ratio(top.symbol**top.degree - (top.relation or home.zero))
        if any(home.ratio(self._lifted(pole)) in (inside, -inside) for pole in self.poles):
            while depends_on(share.numerator, self.unknown):  # √g below: the bar was cleared with g, which is not 0
                share, power = share / inside, power - top.degree
                if power < -3 * top.degree:
                    raise refusal
        if depends_on(share.numerator, self.unknown) or depends_on(share.denominator, self.unknown):
            raise refusal
        if home.sign_of_terms(share) == -1:
            return EMPTY
        times = top.degree // gcd(top.degree, power)
        difference = inside ** (power * times // top.degree) - share**times
        if not 1 <= difference.numerator.degrees()[home.position(self.unknown)] <= 2:
            raise refusal
        return self._by_formula(coefficients_of(home, difference.numerator, self.unknown))


def home_solution(value: Ratio) -> Solution:
    """A solution that is an expression in parameters, known by its normal form."""
    return Solution(f"= {value.numerator} / {value.denominator}", None, None, plain(simplified_tree(value), tight=True))


def parameter_roots(home: RadicalField, poly: Poly, unknown: str) -> list[Solution] | None:
    """The solutions of an irreducible factor of degree 1 or 2 in the unknown, in parameters; None for higher ones."""
    skip = len(home.added)
    lifted = home.ring.from_dict({(0,) * skip + monomial: c for monomial, c in poly.to_dict().items()})
    parts = coefficients_of(home, lifted, unknown)
    return None if len(parts) > 3 else _zeros_in_parameters(home, parts)


def _zeros_in_parameters(home: RadicalField, parts: list[Ratio]) -> list[Solution]:
    """The zeros of a polynomial of degree 1 or 2, coefficients from the constant up; roots are taken where they exist."""
    if len(parts) == 2:
        return [home_solution(-parts[0] / parts[1])]
    c, b, a = parts
    root = home.root(b * b - home.constant(4) * a * c, 2)
    return [home_solution((-b + r) / (home.constant(2) * a)) for r in (root, -root)]
