"""What a line means: the value of an expression, or the solution set of an equation or statement."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from algebra.exact.cells import roots_over
from algebra.exact.ratio import Poly, Ratio, irreducible_factors
from algebra.exact.solutions import SolutionSet
from algebra.exact.values import Value
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
    def nonzero(self) -> tuple[Poly, ...]:
        return self.left.nonzero + self.right.nonzero

    def roots_over(self, letter: str) -> frozenset[n.Node]:
        """The roots, bars and fractional powers that hold the letter."""
        return roots_over(self.left_tree, letter) | roots_over(self.right_tree, letter)

    @property
    def divides(self) -> bool:
        """Whether something that may be zero stands below, powers with the unknown above among it."""
        return any(value.nonzero or value.nonzero_powers for value in (self.left, self.right))


@record(frozen=True)
class ExpressionMeaning:
    """The value of an expression, once for every choice of its ± signs."""

    trees: list[n.Node]
    values: list[Value]


@dataclass(slots=True)
class SetMeaning:
    """The solution set of a line; `statement` when it names its solutions outright.

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
    _poles: dict[str, Poly] | None = None

    @property
    def solutions(self) -> SolutionSet:
        """Raises OutOfScope or TooLarge where it is not decided."""
        if not isinstance(self.found, SolutionSet):
            self.found = self.found()
        return self.found

    def is_that_of(self, other: SetMeaning) -> None:
        """Notes that the set is proved to be that of another line."""
        self.found = lambda: other.solutions

    @property
    def single(self) -> Pair | None:
        return self.pairs[0] if len(self.pairs) == 1 else None

    @property
    def nonzero(self) -> list[Poly]:
        return [poly for pair in self.pairs for poly in pair.nonzero]

    @property
    def poles(self) -> dict[str, Poly]:
        """The irreducible factors of what stands below, by their text."""
        if self._poles is None:
            self._poles = irreducible_factors(self.nonzero)
        return self._poles


Meaning = ExpressionMeaning | SetMeaning
