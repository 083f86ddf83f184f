"""The ledger of excluded values: where the given is undefined."""

from __future__ import annotations

from collections.abc import Iterable
from fractions import Fraction as Q
from functools import cached_property

from algebra.exact.cell import Cell, Plan
from algebra.exact.errors import ExactError
from algebra.exact.forms import polynomial_tree, simplified_tree
from algebra.exact.ratio import Poly, coefficients, irreducible_factors
from algebra.exact.roots import Exactly, parameter_roots
from algebra.exact.solutions import Solution
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.meaning import ExpressionMeaning, Meaning
from algebra.verify.setting import Setting


class Ledger:
    """The zeros of the given's denominators, as values of the one letter or as conditions on several."""

    def __init__(self, setting: Setting, given: Meaning) -> None:
        self.setting = setting
        self.given = given

    @cached_property
    def factors(self) -> dict[str, Poly]:
        """The irreducible factors of the denominators."""
        if isinstance(self.given, ExpressionMeaning):
            found = irreducible_factors(poly for value in self.given.values for poly in value.nonzero)
        else:
            found = self.given.poles
        if self.setting.plan is None or len(self.setting.letters) > 1:
            return found
        # √x + 1 is freed of its root as x - 1, but it is not zero at 1
        return {key: poly for key, poly in found.items() if self._true_zeros([poly]) or not self._zeros([poly])}

    @cached_property
    def zeros(self) -> frozenset[Solution]:
        if self.setting.plan is None or len(self.setting.letters) > 1:
            return self._zeros(self.factors.values())
        return self._true_zeros(self.factors.values())

    def leaves_out_more(self, line: ExpressionMeaning) -> bool:
        """Whether a line is undefined somewhere where the given is not, as far as its denominators show."""
        new = irreducible_factors(poly for value in line.values for poly in value.nonzero)
        new = {key: poly for key, poly in new.items() if key not in self.factors}
        if not new or self.setting.plan is None:
            return bool(new)
        if len(self.setting.letters) > 1:
            return False
        return any(
            self._undefined_at(zero, line.trees) and not self._undefined_at(zero) for zero in self._zeros(new.values())
        )

    def _zeros(self, polys: Iterable[Poly]) -> frozenset[Solution]:
        return self.setting.solver.zeros(polys)

    def _true_zeros(self, polys: Iterable[Poly]) -> frozenset[Solution]:
        """The zeros at which the given is undefined indeed."""
        return frozenset(zero for zero in self._zeros(polys) if self._undefined_at(zero))

    def _undefined_at(self, zero: Solution, trees: list[n.Node] | None = None) -> bool:
        """Whether these trees, those of the given by default, have no value at a number."""
        if zero.number is None:
            return True
        try:
            exactly = Exactly(self.setting.plan or Plan(), {self.setting.unknown: zero.number})
            return any(exactly.value(tree) is None for tree in trees or self.setting.given_trees())
        except ExactError:
            return True

    def __contains__(self, solution: Solution) -> bool:
        return solution in self.zeros

    @property
    def conditions(self) -> list[Poly]:
        """The factors that can vanish at all: a quadratic without real roots is left out."""
        return [
            poly for poly in self.factors.values() if not self._only_unknown(poly) or self.setting.solver.zeros([poly])
        ]

    def _only_unknown(self, poly: Poly) -> bool:
        position = self.setting.solver.position
        return all(power == 0 or k == position for k, power in enumerate(poly.degrees()))

    def listed(self) -> list[str]:
        """Values in rising order where one letter occurs, else conditions such as `r ≠ -s`."""
        if len(self.setting.letters) <= 1:
            return in_order(self.setting, self.zeros)
        return sorted(condition_text(self.setting, poly) for poly in self.conditions)


def in_order(setting: Setting, solutions: frozenset[Solution], *, falling: bool = False) -> list[str]:
    """The solutions in the plain notation, by size."""

    def key(solution: Solution) -> tuple[float, float, str]:
        if solution.number is None:
            return 0.0, 0.0, solution.key
        return solution.number.approximation.real, solution.number.approximation.imag, ""

    ordered = sorted(solutions, key=key, reverse=falling)
    return [text for solution in ordered for text in _texts(setting, solution)]


def written(setting: Setting, solution: Solution) -> str:
    """One solution in the plain notation; both roots of a quadratic in parameters."""
    return " or ".join(_texts(setting, solution))


def _texts(setting: Setting, solution: Solution) -> list[str]:
    if solution.number is not None:
        return [str(solution.number)]
    poly = solution.polynomial
    if poly is None:
        return [solution.text]
    parts = coefficients(poly, setting.unknown)
    if len(parts) == 2:
        return [plain(simplified_tree(setting.field.ratio(-parts[0], parts[1])), tight=True)]
    if len(parts) == 3:
        names = setting.field.letters
        sample = {name: Q(3 + k) for k, name in enumerate(names)}
        home = Cell(names, Plan(imaginary=setting.complex), sample, {}, formal=True)
        return [root.text for root in parameter_roots(home, poly, setting.unknown) or ()]
    return [f"a root of {plain(polynomial_tree(poly, setting.field.letters))}"]


def condition_text(setting: Setting, poly: Poly) -> str:
    """`x ≠ 2`, `r ≠ -s`, or `x^2 + y^2 - 1 ≠ 0` where no letter can be set free."""
    letters = setting.field.letters
    for name in letters:
        parts = coefficients(poly, name)
        if len(parts) == 2 and parts[1].is_constant():
            value = simplified_tree(setting.field.ratio(-parts[0], parts[1]))
            return f"{plain(n.Letter(name))} ≠ {plain(value)}"
    return f"{plain(polynomial_tree(poly, letters))} ≠ 0"
