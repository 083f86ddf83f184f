"""Equations whose powers are all powers of one: y = b^x is put for it, and the algebraic equation in y is solved.

Everything that stands around the powers, roots and bars and denominators, is then seen exactly, as in any equation in
y.
"""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd

from flint import fmpz_poly

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.decomposition import plan_of
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Generator, Plan
from algebra.exact.logarithms import Direction, Logarithm, rational_exponent
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, field_of
from algebra.exact.real_sets import RealSet
from algebra.exact.solution_sets import EMPTY, Solution, SolutionSet, from_real, log_solution, number_solution
from algebra.exact.solve.polynomial import PolynomialSolver
from algebra.exact.solve.radical import RadicalSolver
from algebra.exact.writing import simplified_tree
from algebra.records import record
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.substitute import substituted

MAX_DEGREE_TAKEN_IN = 24
"""Highest degree of a number of which a root is taken, so that log(a)/2 and log(√a) are seen to be one."""


@record(frozen=True)
class InOnePower:
    """An equation in y, the unknown standing for it: y = base^(x^power·times/step)."""

    left: n.Node
    right: n.Node
    base: Direction
    times: int
    power: int


class OnePowerSolver:
    """Solves equations in one power of a rational number, the unknown above."""

    def __init__(self, plan: Plan, unknown: str) -> None:
        self.plan = plan
        self.unknown = unknown

    def in_one_power(self, cell: RadicalField, left: n.Node, right: n.Node) -> InOnePower | None:
        """The sides in y = p^(x^k·times/step), the unknown standing for y, where it stands in such powers only; else
        None."""
        powers = {
            part
            for side in (left, right)
            for part in n.parts_of(side)
            if isinstance(part, n.Power) and self.unknown in n.letters(part.exponent)
        }
        if any(
            self.unknown in n.letters(substituted(side, dict.fromkeys(powers, n.Integer(1)))) for side in (left, right)
        ):
            return None
        try:
            values = {part: value_of(part, cell).ratio for part in powers}
        except UndefinedValue:
            return None
        used = [made for made in cell.made.values() if made.relation is None]
        if len(used) != 1 or used[0].below or len(used[0].above) != 1:
            return None
        made = used[0]
        counts = {
            part: int(value.numerator.degrees()[made.position] - value.denominator.degrees()[made.position])
            for part, value in values.items()
        }
        if any(len(poly) != 1 for value in values.values() for poly in (value.numerator, value.denominator)):
            return None  # a number with two roots before the power
        times = gcd(*counts.values()) or 1
        places: dict[n.Node, n.Node] = {}
        for part, value in values.items():
            rest = cell.ratio(_without(value.numerator, made), _without(value.denominator, made))
            raised = n.Power(n.Letter(self.unknown), n.Group(build.number(counts[part] // times)))
            places[part] = n.Group(n.Product((n.Group(simplified_tree(rest)), raised), ("·",)))
        sides = (substituted(left, places), substituted(right, places))
        return InOnePower(*sides, ((made.prime, 1),), times, made.above[0][1])

    def algebraic(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions of an equation in the unknown without powers that hold it above."""
        plan = plan_of((left, right), imaginary=False)
        if plan is not None:
            return RadicalSolver(plan, self.unknown).equation(left, right)
        over = field_of((self.unknown,))
        try:
            return PolynomialSolver(over, self.unknown).equation(value_of(left, over), value_of(right, over))
        except UndefinedValue:
            return EMPTY

    def through_power(self, found: SolutionSet, of: InOnePower) -> SolutionSet:
        """The x for which y is in a set, y being positive."""
        if found.intervals is not None:
            inside = found.intervals.combined(RealSet.interval(rational(0), False, None, False), lambda a, b: a and b)
            return self._through_intervals(inside, of)
        members = {
            solution
            for member in found.members
            if member.number is not None and rational(0) < member.number
            for solution in self._solutions(of, member.number)
        }
        factors = frozenset(f"{of.base}^{of.power}: {key}" for key in found.complex_factors if key != self.unknown)
        return SolutionSet(frozenset(members), found.cofinite, factors)

    def _through_intervals(self, inside: RealSet, of: InOnePower) -> SolutionSet:
        """The same for a set of positive numbers with intervals."""
        ends: dict[Number, Number] = {}
        for end in inside.ends:
            if end == rational(0):
                continue
            found = self._solutions(of, end) if of.power == 1 else []
            if len(found) != 1 or found[0].number is None:
                raise OutOfScope("The ends of these intervals are not worked out.", "^")
            ends[end] = found[0].number
        total = RealSet.points(())
        for low, low_closed, high, high_closed in inside.pieces:
            start = None if low is None or low == rational(0) else ends[low]
            stop = None if high is None else ends[high]
            piece = RealSet.interval(start, low_closed and start is not None, stop, high_closed)
            total = total.combined(piece, lambda a, b: a or b)
        return from_real(total)

    def _solutions(self, place: InOnePower, of: Number) -> list[Solution]:
        """The x with base^(x^power·times/step) = of."""
        share = rational_exponent(place.base, of)
        if share is None:
            if place.power != 1:
                raise OutOfScope("These powers do not reduce to one base.", "^")
            return [log_solution(self._logarithm(place, of))]
        value = share * self.plan.step / place.times
        coefficients = (-value.numerator, *[0] * (place.power - 1), value.denominator)
        factors = fmpz_poly(list(coefficients)).factor()[1]
        return [
            number_solution(number) for factor, _ in factors for number in numbers.roots_of(with_positive_lead(factor))
        ]

    def _logarithm(self, place: InOnePower, of: Number) -> Logarithm:
        """step/times·log_base(of), written with the times taken into the number: one value has one form."""
        times = place.times
        if times > 1 and (len(of.polynomial) - 1) * times <= MAX_DEGREE_TAKEN_IN:
            spread = [0] * ((len(of.polynomial) - 1) * times + 1)
            spread[::times] = of.polynomial
            positive = [
                number
                for factor, _ in fmpz_poly(spread).factor()[1]
                for number in numbers.roots_of(with_positive_lead(factor))
                if rational(0) < number
            ]
            goal = of.enclosure.real.root(times)
            near = [number for number in positive if (number.enclosure.real - goal).contains(0)]
            if len(near) == 1:
                return Logarithm(place.base, Q(self.plan.step), near[0])
        return Logarithm(place.base, Q(self.plan.step, times), of)


def _without(poly: Poly, made: Generator) -> Poly:
    """A single power times a number, without the power."""
    place = made.position
    return poly.context().from_dict({(*m[:place], 0, *m[place + 1 :]): c for m, c in poly.to_dict().items()})


def with_positive_lead(factor: fmpz_poly) -> tuple[int, ...]:
    """The coefficients of a polynomial or of its negative, the highest positive."""
    parts = tuple(int(c) for c in factor.coeffs())
    return parts if parts[-1] > 0 else tuple(-c for c in parts)
