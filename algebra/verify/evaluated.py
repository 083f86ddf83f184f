"""What a line evaluates to: the value of an expression, or the solution set of an equation or statement."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from algebra.exact.decomposition import roots_over
from algebra.exact.evaluate.symbolic import Value
from algebra.exact.rational_functions import Poly, Ratio, irreducible_factors
from algebra.exact.solution_sets import SolutionSet
from algebra.records import record
from algebra.tree import nodes as n


@dataclass(slots=True)
class Pair:
    """Two sides of one equation, as trees and as values."""

    left_tree: n.Node
    right_tree: n.Node
    left: Value
    right: Value
    _difference: Ratio | None = None

    @property
    def difference(self) -> Ratio:
        """The left side minus the right."""
        if self._difference is None:
            self._difference = self.left.ratio - self.right.ratio
        return self._difference

    @property
    def sides(self) -> tuple[Ratio, Ratio]:
        """The values of both sides."""
        return self.left.ratio, self.right.ratio

    @property
    def nonzero(self) -> tuple[Poly, ...]:
        """The polynomials that must not be zero for both sides to be defined as written."""
        return self.left.nonzero + self.right.nonzero

    def roots_over(self, letter: str) -> frozenset[n.Node]:
        """The roots, bars and fractional powers that hold the letter."""
        return roots_over(self.left_tree, letter) | roots_over(self.right_tree, letter)

    @property
    def divides(self) -> bool:
        """Whether something that may be zero stands below, powers with the unknown above among it."""
        return any(value.nonzero or value.nonzero_powers for value in (self.left, self.right))


@record(frozen=True)
class EvaluatedExpression:
    """The value of an expression, once for every choice of its ± signs.

    `certain` when no sign was assumed for its values: then they are right wherever the expression has any.
    """

    trees: list[n.Node]
    values: list[Value]
    certain: bool = False


@dataclass(slots=True)
class EvaluatedStatement:
    """The solution set of an equation or statement; `statement` when it names its solutions outright.

    The set is found when it is first asked for: a link may hold without it. `false_tail` are two sides of a chain
    `x = 42/6 = 8` that are not equal, though no unknown is in them.
    """

    body: n.Node
    found: SolutionSet | Callable[[], SolutionSet]
    pairs: list[Pair] = field(default_factory=list)
    statement: bool = False
    false_tail: tuple[n.Node, n.Node] | None = None
    rooted: bool = False  # whether roots, bars or letters in exponents occur
    certain: bool = True  # no sign was assumed when the values of its pairs were formed
    plain_roots: bool = False  # rooted, and the values are right wherever the line as written has any
    senseless: str = ""  # why a statement can't be meant: an interval whose ends are exchanged
    _poles: dict[str, Poly] | None = None

    @property
    def solutions(self) -> SolutionSet:
        """The solution set. Raises OutOfScope or TooLarge where it is not decided."""
        if not isinstance(self.found, SolutionSet):
            self.found = self.found()
        return self.found

    def has_set_of(self, other: EvaluatedStatement) -> None:
        """Notes that the set is proved to be that of another line."""
        self.found = lambda: other.solutions

    @property
    def single(self) -> Pair | None:
        """The sides, where the line is one equation without ±."""
        return self.pairs[0] if len(self.pairs) == 1 else None

    @property
    def nonzero(self) -> list[Poly]:
        """The polynomials that must not be zero for the line to be defined as written."""
        return [poly for pair in self.pairs for poly in pair.nonzero]

    @property
    def poles(self) -> dict[str, Poly]:
        """The irreducible factors of what stands below, by their text."""
        if self._poles is None:
            self._poles = irreducible_factors(self.nonzero)
        return self._poles

    @property
    def product(self) -> Ratio | None:
        """The product of the differences of its equations: zero exactly where one of them holds; None for no equation
        or 0."""
        if not self.pairs:
            return None
        total = self.pairs[0].difference
        for pair in self.pairs[1:]:
            total = total * pair.difference
        return None if total.is_zero else total


Evaluated = EvaluatedExpression | EvaluatedStatement
