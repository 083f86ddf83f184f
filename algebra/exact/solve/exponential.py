"""Equations with the unknown in an exponent: the factors of the norm, as polynomials in powers of primes."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from fractions import Fraction as Q

from flint import fmpz_poly

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import Number, prime_factors
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Generator, Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, depends_on, factored, irreducible_factors
from algebra.exact.solution_sets import EMPTY, EVERYTHING, Solution, SolutionSet, number_solution
from algebra.exact.solve.candidates import numbers_of, solves
from algebra.tree import nodes as n


def is_in_exponent(tree: n.Node, unknown: str) -> bool:
    """Whether the unknown stands in an exponent."""
    return any(isinstance(part, n.Power) and unknown in n.letters(part.exponent) for part in n.parts_of(tree))


class ExponentialSolver:
    """Solves one equation in one letter, given as trees without ±."""

    def __init__(self, plan: Plan, unknown: str) -> None:
        self.plan = plan
        self.unknown = unknown

    def equation(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions. Raises OutOfScope where they are not decided."""
        cell = RadicalField((self.unknown,), self.plan, {self.unknown: Q(2)}, {}, formal=True)
        try:
            first, second = value_of(left, cell), value_of(right, cell)
        except UndefinedValue:
            return EMPTY
        difference = first.ratio - second.ratio
        poles = irreducible_factors(first.nonzero_powers + second.nonzero_powers)
        if difference.is_zero and poles:
            raise OutOfScope("Where this identity is undefined is not decided.", "^")
        if difference.is_zero:
            return EVERYTHING
        if any(made.below for made in cell.made.values()):
            raise OutOfScope("With the unknown above, a positive number is needed below.", "^")
        poly = cell.norm(difference.numerator)
        members: set[Solution] = set()
        beside: set[Solution] = set()
        for factor, _ in factored(poly)[1]:
            above = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
            if depends_on(factor, self.unknown):
                if above:
                    raise OutOfScope("The unknown stands in an exponent and outside of one.", "^")
                beside |= {number_solution(number) for number in self._zeros([cell.in_letters(factor)])}
            elif str(factor) not in poles and str(-factor) not in poles:
                members |= self._of_factor(cell, factor)
        kept = {s for s in members if s.number is None or self._solves_beside(left, right, s.number)}
        kept |= {s for s in beside if s.number is not None and self._solves_beside(left, right, s.number)}
        return SolutionSet(frozenset(kept), False, frozenset(_in_powers(cell, poly)))

    def _solves_beside(self, left: n.Node, right: n.Node, number: Number) -> bool:
        """Whether a zero of a factor without powers solves an equation that holds powers too.

        At an irrational algebraic value p^x is transcendental (Gelfond, Schneider 1934), so a denominator in the powers of one
        prime is not zero there; whether one in x alone is, or a root is undefined, is seen with the powers taken out.
        """
        if number.rational is not None:
            return self._solves(left, right, number)
        if any(
            isinstance(part, n.Root | n.Absolute | n.Fraction) for tree in (left, right) for part in n.parts_of(tree)
        ):
            raise OutOfScope(f"Whether {number} solves this is not decided.", "^")
        return True

    def _of_factor(self, cell: RadicalField, factor: Poly) -> set[Solution]:
        """The real zeros of an irreducible polynomial in powers of primes with the unknown above."""
        powers = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
        terms = list(factor.to_dict().items())
        if len(terms) == 1:
            return set()
        if len(terms) == 2:
            (first, a), (second, b) = terms
            counts = [(g, int(first[g.position] - second[g.position])) for g in powers]
            return self._of_binomial(cell, counts, -Q(int(b), int(a)))
        if len(powers) == 1 and powers[0].above == ((self.unknown, 1),):
            degree = max(int(m[powers[0].position]) for m, _ in terms)
            parts = {int(m[powers[0].position]): int(c) for m, c in terms}
            sign = 1 if parts[degree] > 0 else -1
            coefficients = tuple(sign * parts.get(k, 0) for k in range(degree + 1))
            return {
                Solution(
                    f"log {powers[0].prime} {root.polynomial}#{root.index}",
                    None,
                    None,
                    f"log_{powers[0].prime}({root})",
                )
                for root in numbers.roots_of(coefficients)
                if numbers.rational(0) < root
            }
        raise OutOfScope("These powers do not reduce to one base.", "^")

    def _of_binomial(self, cell: RadicalField, counts: list[tuple[Generator, int]], value: Q) -> set[Solution]:
        """∏ prime^(count·above/step) = value: for every prime the exponents of both sides are equal.

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
        linear = all(set(parts) == {1} for parts in exponents.values())
        polys = []
        for prime, parts in exponents.items():
            parts[0] = -wanted.pop(prime, 0) * cell.plan.step
            polys.append(fmpz_poly([parts.get(k, 0) for k in range(max(parts) + 1)]))
        common = polys[0]
        for poly in polys[1:]:
            common = common.gcd(poly)
        if wanted or (linear and common.degree() == 0):
            if not linear:
                raise OutOfScope("These powers do not reduce to one base.", "^")
            shown = sorted((made.prime, count) for made, count in counts)
            plain_log = len(shown) == 1 and shown[0][1] == cell.plan.step
            text = f"log_{shown[0][0]}({value})" if plain_log else "an irrational value"
            return {Solution(f"log of {value} over {shown}", None, None, text, is_written=plain_log)}
        if not linear and any(poly.degree() != common.degree() for poly in polys):
            raise OutOfScope("These powers do not reduce to one base.", "^")
        found = [numbers.roots_of(tuple(int(c) for c in factor.coeffs())) for factor, _ in common.factor()[1]]
        return {number_solution(number) for some in found for number in some}

    def _zeros(self, polys: Iterable[Poly]) -> list[Number]:
        return numbers_of(polys, self.unknown, complex_too=self.plan.imaginary)

    def _solves(self, left: n.Node, right: n.Node, value: Number) -> bool:
        return solves(self.plan, self.unknown, left, right, value)


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
