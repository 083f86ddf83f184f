"""Values of expressions at one point, exact and comparable with each other, roots of numbers and nested roots
included."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from fractions import Fraction as Q
from math import lcm

from algebra.exact import zero_equivalence
from algebra.exact.algebraic_numbers import Number
from algebra.exact.definite import PI, PI_ABOUT
from algebra.exact.errors import TooLarge, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression
from algebra.tree import nodes as n

MOST_BELOW = 10_000
"""The greatest denominator that may stand above: a root of a higher index is not worked out."""


class PointEvaluator:
    """Values of trees at a point, exact and comparable with each other."""

    def __init__(self, plan: Plan, point: Mapping[str, Number | Q]) -> None:
        index = plan.index
        for value in point.values():
            if isinstance(value, Number) and value.rational is None and value.has_root_form:
                # a surd that is put in under a root nests one level deeper
                index = lcm(index, plan.index * lcm(2, len(value.polynomial) - 1))
            number = value.rational if isinstance(value, Number) else value
            if number is not None and 1 < number.denominator <= MOST_BELOW:
                # a fraction that is put in above makes a root of that index
                index = lcm(index, plan.index * number.denominator * plan.step)
        # π stays a letter: it is transcendental, so what holds for the letter holds for the number, and no more
        self.cell = RadicalField((PI,), replace(plan, index=index), {PI: PI_ABOUT}, {})
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
        return zero_equivalence.is_zero(self.cell, left - right)
