"""Equations with roots and other letters: linear or quadratic in the unknown, for generic values of the parameters."""

from __future__ import annotations

from math import comb, gcd

from algebra.exact.algebraic_numbers import rational
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import NO_DOUBTS, Generator
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, Ratio, depends_on, irreducible_factors
from algebra.exact.solution_sets import EMPTY, EVERYTHING, Solution, SolutionSet, number_solution
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
        below = irreducible_factors(first.nonzero + second.nonzero)
        self.poles = [poly for poly in below.values() if depends_on(poly, self.unknown)]
        difference = first.ratio - second.ratio
        if difference.is_zero:
            return EVERYTHING
        if depends_on(difference.denominator, self.unknown):
            below |= irreducible_factors([home.in_letters(difference.denominator)])
            self.poles = [poly for poly in below.values() if depends_on(poly, self.unknown)]
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
        """The zeros of a polynomial of degree 1 or 2 with coefficients in parameters; none may be a zero of a
        denominator."""
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
        if len(rooted) > 1 or top.base is None:
            raise refusal
        if len(parts) == 1:  # b·r^k = 0
            base = home.ring.from_dict(top.base.to_dict())
            return self._of_common_factor(next(iter(parts.values())).numerator * base)
        if len(parts) != 2 or 0 not in parts:
            raise refusal
        (_, a), (power, b) = sorted(parts.items())
        shared = a.numerator.gcd(b.numerator)
        beside = self._of_common_factor(shared)
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
            return beside
        times = top.degree // gcd(top.degree, power)
        difference = inside ** (power * times // top.degree) - share**times
        if not 1 <= difference.numerator.degrees()[home.position(self.unknown)] <= 2:
            raise refusal
        return beside.union(self._by_formula(coefficients_of(home, difference.numerator, self.unknown)))

    def _of_common_factor(self, shared: Poly) -> SolutionSet:
        """The zeros of what stands in both terms, where the root exists: generic values of the other letters are taken
        so."""
        if self.home.depends_on_added(shared) or not depends_on(shared, self.unknown):
            return EMPTY
        total = EMPTY
        for factor in irreducible_factors([shared]).values():
            if depends_on(factor, self.unknown):
                total = total.union(self._by_formula(coefficients_of(self.home, factor, self.unknown)))
        return total


def home_solution(value: Ratio, under: Poly | None = None) -> Solution:
    """A solution that is an expression in parameters, known by its normal form; or the number that it comes to."""
    if value.constant is not None:
        return number_solution(rational(value.constant))
    key = f"= {value.numerator} / {value.denominator}"
    return Solution(key, None, None, plain(simplified_tree(value), tight=True), under=under)


def parameter_roots(home: RadicalField, poly: Poly, unknown: str) -> list[Solution] | None:
    """The solutions of an irreducible factor of the form a·(x - h)^k = c, or of degree 1 or 2 in the unknown, in
    parameters; None for others."""
    skip = len(home.added)
    lifted = home.ring.from_dict({(0,) * skip + monomial: c for monomial, c in poly.to_dict().items()})
    parts = coefficients_of(home, lifted, unknown)
    return _zeros_of_power(home, parts) if len(parts) > 3 else _zeros_in_parameters(home, parts)


def _zeros_of_power(home: RadicalField, parts: list[Ratio]) -> list[Solution] | None:
    """The real zeros of a·(x - h)^k - c, coefficients from the constant up; None for another shape, or where numbers
    are complex: there are more."""
    degree, lead = len(parts) - 1, parts[-1]
    if home.plan.imaginary or home.plan.index % degree:
        return None
    shift = -parts[-2] / (home.constant(degree) * lead)
    if any(
        parts[k] != home.constant(comb(degree, k)) * lead * (-shift) ** (degree - k)
        for k in range(1, degree)
        if not shift.is_zero
    ) or (shift.is_zero and any(not part.is_zero for part in parts[1:-1])):
        return None
    rest = parts[0] if shift.is_zero else parts[0] - lead * (-shift) ** degree
    root = home.root(-rest / lead, degree)
    return [home_solution(shift + r) for r in ((root,) if degree % 2 else (root, -root))]


def _zeros_in_parameters(home: RadicalField, parts: list[Ratio]) -> list[Solution]:
    """The zeros of a polynomial of degree 1 or 2, coefficients from the constant up; roots are taken where they exist.

    Raises OutOfScope for any other degree.
    """
    if len(parts) == 2:
        return [home_solution(-parts[0] / parts[1])]
    if len(parts) != 3:
        raise OutOfScope("With other letters, only equations of degree 1 and 2 are solved by a formula.", "^")
    c, b, a = parts
    inside = b * b - home.constant(4) * a * c
    under = None if home.depends_on_added(inside.numerator) else home.in_letters(inside.numerator * inside.denominator)
    root = home.root(inside, 2)
    return [home_solution((-b + r) / (home.constant(2) * a), under) for r in (root, -root)]
