"""Equations with the unknown in an exponent: the factors of the norm, as polynomials in powers of primes."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from fractions import Fraction as Q
from itertools import product
from math import gcd
from typing import Any

from flint import acb, fmpz_poly

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import MAX_PRECISION, PRECISION, Number, prime_factors, rational
from algebra.exact.decomposition import between
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Generator, Plan
from algebra.exact.logarithms import base_value
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import (
    Poly,
    depends_on,
    factored,
    field_of,
    integer_coefficients,
    irreducible_factors,
    text_of,
)
from algebra.exact.real_sets import RealSet
from algebra.exact.solution_sets import (
    EMPTY,
    EVERYTHING,
    Solution,
    SolutionSet,
    from_real,
    number_solution,
)
from algebra.exact.solve.candidates import numbers_of, solves
from algebra.exact.solve.one_power import InOnePower, OnePowerSolver, with_positive_lead
from algebra.exact.writing import simplified_tree
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.substitute import substituted

MAX_BARS = 3
"""Most different bars in exponents: each doubles the cases."""


def is_in_exponent(tree: n.Node, unknown: str) -> bool:
    """Whether the unknown stands in an exponent."""
    return any(isinstance(part, n.Power) and unknown in n.letters(part.exponent) for part in n.parts_of(tree))


class ExponentialSolver:
    """Solves one equation in one letter, given as trees without ±."""

    def __init__(self, plan: Plan, unknown: str) -> None:
        self.plan = plan
        self.unknown = unknown
        self.powers = OnePowerSolver(plan, unknown)

    def equation(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions. Raises OutOfScope where they are not decided."""
        bars = self._bars_above(left) | self._bars_above(right)
        if bars:
            return self._by_cases(left, right, sorted(bars, key=str))
        cell = RadicalField((self.unknown,), self.plan, {self.unknown: Q(2)}, {}, formal=True)
        in_one = self.powers.in_one_power(cell, left, right)
        if in_one is not None:
            return self.powers.through_power(self.powers.algebraic(in_one.left, in_one.right), in_one)
        try:
            values = value_of(left, cell), value_of(right, cell)
        except UndefinedValue:
            return EMPTY
        difference = values[0].ratio - values[1].ratio
        poles = irreducible_factors(values[0].nonzero_powers + values[1].nonzero_powers)
        if any(made.below for made in cell.made.values()):
            raise OutOfScope("With the unknown above, a positive number is needed below.", "^")
        if any(isinstance(part, n.Absolute) for side in (left, right) for part in n.parts_of(side)) or any(
            _holds_powers(cell, made) for made in cell.made.values()
        ):
            raise OutOfScope("Roots and bars around different powers are not worked out.", "^")
        if difference.is_zero and poles:
            raise OutOfScope("Where this identity is undefined is not decided.", "^")
        if difference.is_zero:
            return EVERYTHING
        if not depends_on(difference.numerator, self.unknown):
            found = self._in_one_direction(cell, difference.numerator, list(poles.values()))
            if found is not None:
                return found
        return self._by_factors(cell, left, right, difference.numerator, poles)

    # -- bars in exponents ---------------------------------------------------------------------------------------

    def _bars_above(self, tree: n.Node) -> set[n.Node]:
        """The bars with the unknown in them that stand in an exponent."""
        return {
            part
            for power in n.parts_of(tree)
            if isinstance(power, n.Power)
            for part in n.parts_of(power.exponent)
            if isinstance(part, n.Absolute) and self.unknown in n.letters(part)
        }

    def _by_cases(self, left: n.Node, right: n.Node, bars: list[n.Node]) -> SolutionSet:
        """|A| in exponents is A where A is not negative, and -A where it is not positive."""
        if len(bars) > MAX_BARS:
            raise OutOfScope(f"More than {MAX_BARS} different bars stand in exponents.", "|")
        plain = field_of((self.unknown,))
        insides = []
        for bar in bars:
            assert isinstance(bar, n.Absolute)
            inside = value_of(bar.child, plain).ratio
            if not inside.is_polynomial:
                raise OutOfScope("Bars in an exponent hold a polynomial.", "|")
            insides.append((bar, inside.numerator * (1 if inside.denominator.leading_coefficient() > 0 else -1)))
        total = EMPTY
        for signs in product((1, -1), repeat=len(bars)):
            chosen: dict[n.Node, n.Node] = {
                bar: n.Group(bar.child if sign > 0 else n.Signed("-", n.Group(bar.child)))
                for (bar, _), sign in zip(insides, signs, strict=True)
            }
            found = self.equation(substituted(left, chosen), substituted(right, chosen))
            total = total.union(
                self._where(found, [sign * poly for (_, poly), sign in zip(insides, signs, strict=True)])
            )
        return total

    def _where(self, found: SolutionSet, polys: list[Poly]) -> SolutionSet:
        """The part of a set on which polynomials in the unknown are not negative."""
        parts = [integer_coefficients(poly, self.unknown) for poly in polys]
        if found.cofinite or found.intervals is not None:
            if any(solution.number is None for solution in found.members):
                raise OutOfScope("The ends of these intervals are not worked out.", "^")
            whole = found.as_real
            for poly, coefficients in zip(polys, parts, strict=True):
                ends = sorted(set(self._zeros(irreducible_factors([poly]).values())))
                samples = [rational(between(low, high)) for low, high in zip([None, *ends], [*ends, None], strict=True)]
                above = RealSet.of(ends, _at_or_above(coefficients, samples), lambda _: True)
                whole = whole.combined(above, lambda a, b: a and b)
            return from_real(whole)
        kept = frozenset(s for s in found.members if all(_sign_at(s, c) >= 0 for c in parts))
        return SolutionSet(kept, False, found.complex_factors)

    # -- powers of several primes --------------------------------------------------------------------------------

    def _in_one_direction(self, cell: RadicalField, poly: Poly, poles: list[Poly]) -> SolutionSet | None:
        """The zeros of Σ c·∏ p^(k·x/step) where, after a division by one term, all terms are powers of one rational
        number to the power x/step: a polynomial in that; None for any other sum. The c are numbers, with roots."""
        powers = [made for made in cell.made.values() if made.relation is None]
        if not powers and poly.is_constant() and poly != 0:
            return EMPTY  # the powers have cancelled
        if not powers or any(made.above != ((self.unknown, 1),) for made in powers):
            return None
        terms: dict[tuple[int, ...], dict[tuple[int, ...], Any]] = {}
        for monomial, coefficient in poly.to_dict().items():
            exponents = tuple(int(monomial[made.position]) for made in powers)
            rest = list(monomial)
            for made in powers:
                rest[made.position] = 0
            terms.setdefault(exponents, {})[tuple(rest)] = coefficient
        start = next(iter(terms))
        moves = [tuple(a - b for a, b in zip(exponents, start, strict=True)) for exponents in terms]
        longest = max(moves, key=lambda move: max(map(abs, move)))
        shared = gcd(*longest)
        if not shared:
            return EMPTY  # a single power is never zero
        direction = tuple(k // shared for k in longest)
        at = next(k for k, part in enumerate(direction) if part)
        times = [move[at] // direction[at] for move in moves]
        if any(tuple(t * part for part in direction) != move for t, move in zip(times, moves, strict=True)):
            return None
        base = tuple(sorted((made.prime, part) for made, part in zip(powers, direction, strict=True) if part))
        if base_value(base) < 1:
            base, times = tuple((prime, -part) for prime, part in base), [-t for t in times]
        lowest = min(times)
        parts = [
            n.Product(
                (
                    n.Group(simplified_tree(cell.ratio(cell.ring.from_dict(rest)))),
                    build.power(n.Letter(self.unknown), t - lowest),
                ),
                ("·",),
            )
            if t > lowest
            else n.Group(simplified_tree(cell.ratio(cell.ring.from_dict(rest))))
            for t, rest in zip(times, terms.values(), strict=True)
        ]
        total = n.Sum(tuple(parts), ("+",) * (len(parts) - 1))
        place = InOnePower(total, n.Integer(0), base, 1, 1)
        found = self.powers.through_power(self.powers.algebraic(place.left, place.right), place)
        return SolutionSet(
            frozenset(s for s in found.members if not self._is_pole(cell, s, poles)), False, found.complex_factors
        )

    def _is_pole(self, cell: RadicalField, solution: Solution, poles: list[Poly]) -> bool:
        """Whether a solution is a zero of what stands below."""
        for pole in poles:
            at = _enclosed_at(solution)
            total = acb(0)
            for monomial, coefficient in pole.to_dict().items():
                term = acb(int(coefficient))
                for made in cell.made.values():
                    if monomial[made.position]:
                        term *= acb(made.prime) ** (at * int(monomial[made.position]) / self.plan.step)
                total += term
            if total.contains(0):
                own = self._in_one_direction(cell, pole, [])
                if own is None:
                    raise OutOfScope("Whether this divides by zero is not decided.", "^")
                if solution in own.members:
                    return True
        return False

    # -- the unknown in exponents and outside --------------------------------------------------------------------

    def _by_factors(
        self, cell: RadicalField, left: n.Node, right: n.Node, numerator: Poly, poles: dict[str, Poly]
    ) -> SolutionSet:
        """The zeros of the factors, each in powers or in the unknown itself."""
        rest = _without_common_powers(cell, numerator)
        if not any(rest.degrees()[made.position] for made in cell.made.values() if made.relation is None):
            found = self.powers.algebraic(simplified_tree(cell.ratio(rest)), n.Integer(0))
            kept = {s for s in found.members if s.number is not None and self._solves_beside(left, right, s.number)}
            return SolutionSet(frozenset(kept), False, found.complex_factors)
        poly = cell.norm(numerator)
        members: set[Solution] = set()
        beside: set[Solution] = set()
        for factor, _ in factored(poly)[1]:
            above = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
            if depends_on(factor, self.unknown):
                if above:
                    raise OutOfScope("The unknown stands in an exponent and outside of one.", "^")
                beside |= {number_solution(number) for number in self._zeros([cell.in_letters(factor)])}
            elif text_of(factor) not in poles and text_of(-factor) not in poles:
                members |= self._of_factor(cell, factor)
        if members and poly != numerator:
            raise OutOfScope("These powers do not reduce to one base.", "^")  # a zero of the norm need be none of it
        kept = {s for s in members if s.number is None or self._solves_beside(left, right, s.number)}
        kept |= {s for s in beside if s.number is not None and self._solves_beside(left, right, s.number)}
        return SolutionSet(frozenset(kept), False, frozenset(_in_powers(cell, poly)))

    def _solves_beside(self, left: n.Node, right: n.Node, number: Number) -> bool:
        """Whether a zero of a factor without powers solves an equation that holds powers too.

        At an irrational algebraic value p^x is transcendental (Gelfond, Schneider 1934), so a denominator in the powers
        of one prime is not zero there; whether one in x alone is, or a root is undefined, is seen with the powers taken
        out.
        """
        if number.rational is not None:
            return self._solves(left, right, number)
        if any(
            isinstance(part, n.Root | n.Absolute | n.Fraction) and self.unknown in n.letters(part)
            for tree in (left, right)
            for part in n.parts_of(tree)
        ):
            raise OutOfScope(f"Whether {number.in_words} solves this is not decided.", "^")
        return True

    def _of_factor(self, cell: RadicalField, factor: Poly) -> set[Solution]:
        """The real zeros of an irreducible polynomial in powers of primes with the unknown above."""
        found = self._in_one_direction(cell, factor, [])
        if found is not None:
            return set(found.members)
        powers = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
        terms = list(factor.to_dict().items())
        if len(terms) == 1:
            return set()
        if len(terms) == 2:
            (first, a), (second, b) = terms
            counts = [(g, int(first[g.position] - second[g.position])) for g in powers]
            return self._of_binomial(cell, counts, -Q(int(b), int(a)))
        raise OutOfScope("These powers do not reduce to one base.", "^")

    def _of_binomial(self, cell: RadicalField, counts: list[tuple[Generator, int]], value: Q) -> set[Solution]:
        """∏ prime^(count·above/step) = value, exponents not linear: for every prime the exponents of both sides are
        equal.

        With one prime, or exponents that are multiples of each other, these are all solutions.
        """
        if value <= 0:
            return set()
        wanted = dict(prime_factors(value.numerator))
        wanted |= {prime: -power for prime, power in prime_factors(value.denominator)}
        exponents: dict[int, dict[int, int]] = {}  # prime -> power of the unknown -> coefficient
        for made, count in counts:
            power = dict(made.above).get(self.unknown, 0)
            exponents.setdefault(made.prime, {})[power] = count
        polys = []
        for prime, parts in exponents.items():
            parts[0] = -wanted.pop(prime, 0) * cell.plan.step
            polys.append(fmpz_poly([parts.get(k, 0) for k in range(max(parts) + 1)]))
        common = polys[0]
        for poly in polys[1:]:
            common = common.gcd(poly)
        if wanted or any(poly.degree() != common.degree() for poly in polys):
            raise OutOfScope("These powers do not reduce to one base.", "^")
        found = [numbers.roots_of(with_positive_lead(factor)) for factor, _ in common.factor()[1]]
        return {number_solution(number) for some in found for number in some}

    def _zeros(self, polys: Iterable[Poly]) -> list[Number]:
        return numbers_of(polys, self.unknown, complex_too=False)

    def _solves(self, left: n.Node, right: n.Node, value: Number) -> bool:
        return solves(self.plan, self.unknown, left, right, value)


def _without_common_powers(cell: RadicalField, poly: Poly) -> Poly:
    """A polynomial divided by the powers that stand in each of its terms: those are nowhere zero."""
    places = [made.position for made in cell.made.values() if made.relation is None]
    terms = {tuple(map(int, monomial)): c for monomial, c in poly.to_dict().items()}
    low = {place: min(monomial[place] for monomial in terms) for place in places}
    return poly.context().from_dict(
        {tuple(power - low.get(k, 0) for k, power in enumerate(monomial)): c for monomial, c in terms.items()}
    )


def _holds_powers(cell: RadicalField, made: Generator) -> bool:
    """Whether a root stands over a power with the unknown above."""
    tree = made.base if made.nested is None else made.nested.numerator
    if tree is None:
        return False
    degrees = tree.degrees()
    return any(degrees[other.position] and other.relation is None for other in cell.made.values())


def _enclosed_at(solution: Solution) -> acb:
    if solution.number is not None:
        return solution.number.enclosure
    assert solution.log is not None
    return acb(solution.log.enclosed())


def _at_or_above(coefficients: list[int], samples: list[Number]) -> Callable[[int], bool]:
    """Whether a polynomial is not negative on the interval with this number, by the sample in it."""
    return lambda k: samples[k].sign_of(coefficients) >= 0


def _sign_at(solution: Solution, coefficients: list[int]) -> int:
    """The sign of a polynomial at a solution; a logarithm is a zero of none."""
    if solution.number is not None:
        return solution.number.sign_of(coefficients)
    if solution.log is None:
        raise OutOfScope("The sign inside these bars is not decided.", "|")
    if len(coefficients) == 1:
        return (coefficients[0] > 0) - (coefficients[0] < 0)
    precision = PRECISION
    while precision <= MAX_PRECISION:
        at = solution.log.enclosed(precision)
        value = sum((at**k * c for k, c in enumerate(coefficients)), at * 0)
        if value > 0 or value < 0:
            return 1 if value > 0 else -1
        precision *= 2
    raise TooLarge("These numbers lie too close together to be told apart.")


def _in_powers(cell: RadicalField, poly: Poly) -> Iterator[str]:
    """The irreducible factors of a polynomial in powers of primes, written so that two equations can be compared.

    Each but a single power has complex zeros. Those of factors in different primes, or of different factors in one, are
    different sets: p^z = a repeats with the period 2πi/log p.
    """
    for factor, _ in factored(poly)[1]:
        terms = {}
        for monomial, coefficient in factor.to_dict().items():
            powers = {(g.prime, g.above): int(monomial[g.position]) for g in cell.made.values() if monomial[g.position]}
            rest = tuple(int(k) for k in monomial[len(cell.added) :])
            terms[(*sorted(powers.items()), rest)] = int(coefficient)
        if len(terms) > 1:
            sign = 1 if terms[max(terms, key=str)] > 0 else -1
            yield str(sorted((str(key), sign * c) for key, c in terms.items()))
