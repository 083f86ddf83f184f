"""The ledger of excluded values: where the given is undefined."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from functools import cached_property, cmp_to_key

from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.decomposition import Decomposition, between
from algebra.exact.errors import ExactError, OutOfScope
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, coefficients, irreducible_factors
from algebra.exact.real_sets import RealSet
from algebra.exact.solution_sets import Solution, SolutionSet, from_real
from algebra.exact.solve.parametric import parameter_roots
from algebra.exact.writing import polynomial_tree, simplified_tree
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.comparison import value_on
from algebra.verify.context import Context
from algebra.verify.evaluated import Evaluated, EvaluatedExpression
from algebra.verify.evaluator import Evaluator


class ExcludedValues:
    """The zeros of the given's denominators, as values of the one letter or as conditions on several."""

    def __init__(self, evaluator: Evaluator, given: Evaluated) -> None:
        self.evaluator = evaluator
        self.context = evaluator.context
        self.given = given

    @property
    def _by_values(self) -> bool:
        """Whether the values left out are found one by one: one letter, and more than rational functions."""
        return self.context.plan is not None and len(self.context.letters) <= 1

    @cached_property
    def factors(self) -> dict[str, Poly]:
        """The irreducible factors of the denominators."""
        if isinstance(self.given, EvaluatedExpression):
            return irreducible_factors(poly for value in self.given.values for poly in value.nonzero)
        return self.given.poles

    @cached_property
    def zeros(self) -> frozenset[Solution]:
        """The values of the unknown for which the given is undefined."""
        if not self._by_values:
            return self.context.solver.zeros(self.factors.values())
        return self._zeros_below(self.context.given_trees())

    def leaves_out_more(self, line: EvaluatedExpression) -> bool:
        """Whether a line is undefined somewhere where the given is not, as far as its denominators show."""
        if self._by_values:
            return any(
                zero.number is not None and not self._undefined_at(zero)
                for zero in self._zeros_below(line.trees) - self.zeros
            )
        new = irreducible_factors(poly for value in line.values for poly in value.nonzero)
        return self.context.plan is None and any(key not in self.factors for key in new)

    def _zeros_below(self, trees: list[n.Node]) -> frozenset[Solution]:
        """The values at which something that these trees divide by is zero, as far as they are single ones."""
        found: set[Solution] = set()
        for below in {part for tree in trees for part in divisors(tree) if n.letters(part)}:
            try:
                solved = self.evaluator.solve(below, n.Integer(0))
            except OutOfScope:
                solved = SolutionSet(self.context.solver.zeros(self.factors.values()))
            if not solved.cofinite and solved.intervals is None:
                found |= {zero for zero in solved.members if self._undefined_at(zero, trees)}
        return frozenset(found)

    def domain(self) -> SolutionSet:
        """Where the given is defined, as a set of values of its one letter. Raises OutOfScope, TooLarge."""
        context, zeros = self.context, self.zeros
        if context.plan is None or len(context.letters) > 1:
            return SolutionSet(zeros, cofinite=True)
        plan = context.plan
        cells = Decomposition((context.unknown,), plan)
        trees = context.given_trees()
        judged = cells.each(lambda cell: all(value_on(tree, cell) is not None for tree in trees))
        if all(defined for _, defined in judged) and not cells.polys:
            return SolutionSet(zeros, cofinite=True)
        if any(zero.number is None for zero in zeros):
            raise OutOfScope("The ends of this domain are not worked out.", "^")
        ends = {s.number for s in context.solver.zeros(cells.polys.values()) | zeros if s.number is not None}
        ordered = sorted(end for end in ends if end.is_real)

        def defined_at(number: Number) -> bool:
            at = PointEvaluator(plan, {context.unknown: number})
            return all(at.value(tree) is not None for tree in trees)

        def piece(k: int) -> bool:
            low, high = ordered[k - 1] if k else None, ordered[k] if k < len(ordered) else None
            return defined_at(rational(between(low, high)))

        return from_real(RealSet.of(ordered, piece, defined_at))

    def _undefined_at(self, zero: Solution, trees: list[n.Node] | None = None) -> bool:
        """Whether these trees, those of the given by default, have no value at a number."""
        if zero.number is None:
            return True
        try:
            exactly = PointEvaluator(self.context.plan or Plan(), {self.context.unknown: zero.number})
            return any(exactly.value(tree) is None for tree in trees or self.context.given_trees())
        except ExactError:
            return True

    def __contains__(self, solution: Solution) -> bool:
        return solution in self.zeros

    @property
    def conditions(self) -> list[Poly]:
        """The factors that can vanish at all: a quadratic without real roots is left out."""
        return [
            poly for poly in self.factors.values() if not self._only_unknown(poly) or self.context.solver.zeros([poly])
        ]

    def _only_unknown(self, poly: Poly) -> bool:
        position = self.context.solver.position
        return all(power == 0 or k == position for k, power in enumerate(poly.degrees()))

    def listed(self) -> list[str]:
        """Values in rising order where one letter occurs, else conditions such as `r ≠ -s`."""
        if len(self.context.letters) <= 1:
            return in_order(self.context, self.zeros)
        return sorted(condition_text(self.context, poly) for poly in self.conditions)


def divisors(tree: n.Node) -> Iterator[n.Node]:
    """What a tree divides by as it is written: denominators, what stands behind ÷, bases of powers that are not
    positive."""
    for part in n.parts_of(tree):
        if isinstance(part, n.Fraction):
            yield part.denominator
        elif isinstance(part, n.Product):
            yield from (f for sign, f in zip(part.operators, part.factors[1:], strict=True) if sign == "÷")
        elif isinstance(part, n.Power) and not n.letters(part.exponent) and not _is_positive(part.exponent):
            yield part.base


def _is_positive(exponent: n.Node) -> bool:
    bare = n.bare(exponent)
    return not (isinstance(bare, n.Signed) and bare.sign == "-") and bare != n.Integer(0)


def in_order(context: Context, solutions: frozenset[Solution], *, falling: bool = False) -> list[str]:
    """The solutions in the plain notation, by size."""
    ordered = sorted_solutions(solutions, falling=falling)
    return [text for solution in ordered for text in _texts(context, solution)]


def sorted_solutions(solutions: frozenset[Solution], *, falling: bool = False) -> list[Solution]:
    """Real numbers by size, complex ones by real, then imaginary part; then what is written with other letters, by its
    key."""
    return sorted(solutions, key=cmp_to_key(_compared), reverse=falling)


def _compared(first: Solution, second: Solution) -> int:
    left, right = first.number, second.number
    if left is None or right is None:
        ranks = (left is None, first.key), (right is None, second.key)
        return -1 if ranks[0] < ranks[1] else int(ranks[0] > ranks[1])
    if left.is_real and right.is_real:
        return -1 if left < right else int(right < left)
    places = (left.approximation, right.approximation)
    keys = [(place.real, place.imag) for place in places]
    return -1 if keys[0] < keys[1] else int(keys[0] > keys[1])


def written(context: Context, solution: Solution) -> str:
    """One solution in the plain notation; both roots of a quadratic in parameters."""
    return " or ".join(_texts(context, solution))


def _texts(context: Context, solution: Solution) -> list[str]:
    if solution.number is not None:
        return [str(solution.number)]
    poly = solution.polynomial
    if poly is None:
        return [solution.text]
    parts = coefficients(poly, context.unknown)
    if len(parts) == 2:
        return [plain(simplified_tree(context.field.ratio(-parts[0], parts[1])), tight=True)]
    if len(parts) == 3:
        names = context.field.letters
        sample = {name: Q(3 + k) for k, name in enumerate(names)}
        home = RadicalField(names, Plan(imaginary=context.complex), sample, {}, formal=True)
        return [root.text for root in parameter_roots(home, poly, context.unknown) or ()]
    return [f"a root of {plain(polynomial_tree(poly, context.field.letters))}"]


def condition_text(context: Context, poly: Poly) -> str:
    """`x ≠ 2`, `r ≠ -s`, or `x^2 + y^2 - 1 ≠ 0` where no letter can be set free."""
    letters = context.field.letters
    for name in letters:
        parts = coefficients(poly, name)
        if len(parts) == 2 and parts[1].is_constant():
            value = simplified_tree(context.field.ratio(-parts[0], parts[1]))
            return f"{plain(n.Letter(name))} ≠ {plain(value)}"
    return f"{plain(polynomial_tree(poly, letters))} ≠ 0"
