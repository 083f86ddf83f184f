"""Equations with roots, bars, or the unknown in an exponent: candidates from norms, each put in exactly."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from fractions import Fraction as Q
from math import gcd, lcm

from flint import fmpz_poly

from algebra.exact import numbers
from algebra.exact.cell import Cell, Generator, Plan, SignUnknown
from algebra.exact.cells import Cells, between
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.forms import simplified_tree
from algebra.exact.ground import NO_DOUBTS
from algebra.exact.numbers import Number, prime_factors
from algebra.exact.ratio import Poly, Ratio, by_powers, depends_on, factored, integer_coefficients, irreducible_factors
from algebra.exact.realset import RealSet
from algebra.exact.shortcuts import surd_number
from algebra.exact.solutions import EMPTY, EVERYTHING, Solution, SolutionSet, Solver, from_real
from algebra.exact.values import value_of
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression
from algebra.tree import nodes as n
from algebra.tree.plain import plain


class Exactly:
    """Values of trees at a point, exact and comparable with each other."""

    def __init__(self, plan: Plan, point: Mapping[str, Number | Q]) -> None:
        index = plan.index
        for value in point.values():
            if isinstance(value, Number) and value.rational is None and value.has_root_form:
                # a surd that is put in under a root nests one level deeper
                index = lcm(index, plan.index * lcm(2, len(value.polynomial) - 1))
            number = value.rational if isinstance(value, Number) else value
            if number is not None and number.denominator != 1:
                # a fraction that is put in above makes a root of that index
                index = lcm(index, plan.index * number.denominator * plan.step)
        self.cell = Cell((), replace(plan, index=index), {}, {})
        for name, value in point.items():
            self.cell.constants[name] = self._constant(value)

    def _constant(self, value: Number | Q) -> Ratio:
        if not isinstance(value, Number):
            return self.cell.constant(value)
        number = value.rational
        if number is not None:
            return self.cell.constant(number)
        if value.has_root_form:
            try:
                return value_of(read_expression(str(value)), self.cell).ratio
            except ReadingError:
                raise TooLarge("This number is too long to be put in.") from None
        return self.cell.algebraic(value.polynomial, value.enclosure)

    def value(self, tree: n.Node) -> Ratio | None:
        """The value, or None where it is undefined."""
        try:
            return value_of(tree, self.cell).ratio
        except UndefinedValue:
            return None

    def same(self, left: Ratio, right: Ratio) -> bool | None:
        """Whether two values are equal; None where nested roots leave it undecided."""
        return self.cell.is_zero(left - right)


class RootSolver:
    """Solves one equation in one unknown, given as trees without ±."""

    def __init__(self, solver: Solver, plan: Plan, home: Cell) -> None:
        self.solver = solver
        self.plan = plan
        self.home = home
        self.unknown = solver.unknown
        self.poles: list[Poly] = []  # what must not vanish, in an equation with other letters

    def equation(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions. Raises OutOfScope where they are not decided."""
        letters = n.letters(left) | n.letters(right)
        if self.plan.imaginary:
            letters -= {"i"}
        if letters - {self.unknown}:
            return self._with_parameters(left, right)
        if self._in_exponent(left) or self._in_exponent(right):
            return self._exponential(left, right)
        linear = self._linear(left, right)
        return self._by_cells(left, right) if linear is None else linear

    def _in_exponent(self, tree: n.Node) -> bool:
        return any(isinstance(part, n.Power) and self.unknown in n.letters(part.exponent) for part in n.parts_of(tree))

    def _linear(self, left: n.Node, right: n.Node) -> SolutionSet | None:
        """The one solution of an equation that is linear in the unknown, its numbers built with roots; else None.

        The norm of x - v vanishes at v, so v is that root of it whose enclosure meets the enclosure of v.
        """
        if any(self._under_root(part) for tree in (left, right) for part in n.parts_of(tree)):
            return None
        cell = Cell((self.unknown,), self.plan, {self.unknown: Q(2)}, {})
        try:
            first, second = value_of(left, cell), value_of(right, cell)
            if first.nonzero or second.nonzero:
                return None  # the solution could lie where a denominator is zero: there each candidate is put in
            difference = first.ratio - second.ratio
        except UndefinedValue:
            return EMPTY
        except SignUnknown:
            return None
        poly = difference.numerator
        position = cell.position(self.unknown)
        if not difference.is_polynomial or poly == 0 or poly.degrees()[position] != 1:
            return None
        parts = coefficients_of(cell, poly, self.unknown)
        value = -parts[0] / parts[1]
        if value.constant is not None:
            return SolutionSet(frozenset({self.solver.number(numbers.rational(value.constant))}))
        surd = surd_number(value)
        if surd is not None:
            return SolutionSet(frozenset({self.solver.number(surd)}))
        goal = cell.approximate(value)
        equation = cell.letter(self.unknown) - value
        found = [
            number
            for number in self._numbers(cell.split_by(equation).values())
            if (number.enclosure - goal).contains(0)
        ]
        if len(found) != 1:
            raise OutOfScope("This number is not decided.", "√")
        return SolutionSet(frozenset({self.solver.number(found[0])}))

    def _under_root(self, part: n.Node) -> bool:
        return isinstance(part, n.Root | n.Absolute) and self.unknown in n.letters(part)

    def _by_cells(self, left: n.Node, right: n.Node) -> SolutionSet:
        cells = Cells((self.unknown,), self.plan)

        poles: list[Poly] = []

        def candidates(cell: Cell) -> dict[str, Poly] | bool | None:
            try:
                first, second = value_of(left, cell), value_of(right, cell)
            except UndefinedValue:
                return None
            poles.extend(first.nonzero + second.nonzero)
            difference = first.ratio - second.ratio
            if difference.is_zero:
                return True
            return cell.split_by(difference)

        found: dict[str, Poly] = {}
        filled = 0
        judged = cells.each(candidates)
        for _, result in judged:
            if result is True:
                filled += 1
            elif isinstance(result, dict):
                found |= result
        found |= cells.polys | irreducible_factors(poles)
        values = self._numbers(found.values())
        if filled == len(judged):
            missing = [value for value in values if not self._solves(left, right, value)]
            return SolutionSet(frozenset(self.solver.number(v) for v in missing), cofinite=True)
        if filled:
            ends = sorted({v for v in values if v.is_real}, key=lambda v: v.approximation.real)
            pieces = [self._piece_solves(left, right, ends, k) for k in range(len(ends) + 1)]
            return from_real(RealSet.of(ends, pieces.__getitem__, lambda v: self._solves(left, right, v)))
        members = frozenset(self.solver.number(value) for value in values if self._solves(left, right, value))
        return SolutionSet(members, False, frozenset(str(s.key) for s in members))

    def _piece_solves(self, left: n.Node, right: n.Node, ends: list[Number], k: int) -> bool:
        """Whether the open piece before the k-th end is all solutions: as its cell, so one point of it."""
        low = ends[k - 1].approximation.real if k else None
        high = ends[k].approximation.real if k < len(ends) else None
        return self._solves(left, right, numbers.rational(between(low, high)))

    def _numbers(self, polys: Iterable[Poly]) -> list[Number]:
        values: list[Number] = []
        for poly in polys:
            if depends_on(poly, self.unknown):
                coefficients = tuple(integer_coefficients(poly, self.unknown))
                values.extend(numbers.roots_of(coefficients, complex_too=self.plan.imaginary))
        return values

    def _solves(self, left: n.Node, right: n.Node, value: Number) -> bool:
        exactly = Exactly(self.plan, {self.unknown: value})
        first, second = exactly.value(left), exactly.value(right)
        if first is None or second is None:
            return False
        same = exactly.same(first, second)
        if same is None:
            raise OutOfScope(f"Whether {value} solves this is not decided.", "√")
        return same

    # -- the unknown in an exponent ------------------------------------------------------------------------------

    def _exponential(self, left: n.Node, right: n.Node) -> SolutionSet:
        cell = Cell((self.unknown,), self.plan, {self.unknown: Q(2)}, {}, formal=True)
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
                beside |= {self.solver.number(number) for number in self._numbers([cell.in_letters(factor)])}
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

    def _of_factor(self, cell: Cell, factor: Poly) -> set[Solution]:
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
                if root.approximation.real > 0
            }
        raise OutOfScope("These powers do not reduce to one base.", "^")

    def _of_binomial(self, cell: Cell, counts: list[tuple[Generator, int]], value: Q) -> set[Solution]:
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
            return {Solution(f"log of {value} over {shown}", None, None, text)}
        if not linear and any(poly.degree() != common.degree() for poly in polys):
            raise OutOfScope("These powers do not reduce to one base.", "^")
        found = [numbers.roots_of(tuple(int(c) for c in factor.coeffs())) for factor, _ in common.factor()[1]]
        return {self.solver.number(number) for some in found for number in some}

    # -- other letters -------------------------------------------------------------------------------------------

    def _with_parameters(self, left: n.Node, right: n.Node) -> SolutionSet:
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


def _in_powers(cell: Cell, poly: Poly) -> Iterator[str]:
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


def coefficients_of(cell: Cell, poly: Poly, letter: str) -> list[Ratio]:
    """The coefficients in powers of a letter, lowest first."""
    parts = by_powers(poly, cell.position(letter))
    return [cell.ratio(parts.get(k, cell.zero)) for k in range(max(parts) + 1)]


def home_solution(value: Ratio) -> Solution:
    """A solution that is an expression in parameters, known by its normal form."""
    return Solution(f"= {value.numerator} / {value.denominator}", None, None, plain(simplified_tree(value), tight=True))


def parameter_roots(home: Cell, poly: Poly, unknown: str) -> list[Solution] | None:
    """The solutions of an irreducible factor of degree 1 or 2 in the unknown, in parameters; None for higher ones."""
    skip = len(home.added)
    lifted = home.ring.from_dict({(0,) * skip + monomial: c for monomial, c in poly.to_dict().items()})
    parts = coefficients_of(home, lifted, unknown)
    return None if len(parts) > 3 else _zeros_in_parameters(home, parts)


def _zeros_in_parameters(home: Cell, parts: list[Ratio]) -> list[Solution]:
    """The zeros of a polynomial of degree 1 or 2, coefficients from the constant up; roots are taken where they exist."""
    if len(parts) == 2:
        return [home_solution(-parts[0] / parts[1])]
    c, b, a = parts
    root = home.root(b * b - home.constant(4) * a * c, 2)
    return [home_solution((-b + r) / (home.constant(2) * a)) for r in (root, -root)]
