"""Compares expressions: equal wherever both are defined, or different, proved on every cell of their letters."""

from __future__ import annotations

from fractions import Fraction as Q
from itertools import product

from algebra.exact import zero_equivalence
from algebra.exact.decomposition import Decomposition
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.evaluate.terms import same_terms
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio
from algebra.exact.sign_determination import SignUnknown
from algebra.reports.report import Relation
from algebra.tree import nodes as n
from algebra.verify.context import Context
from algebra.verify.evaluated import EvaluatedExpression

Compared = tuple[Relation, dict[str, Q] | None]
"""`holds`, `breaks` with a point of the cell on which the lines differ (where roots occur), or `unclear`."""


class Comparison:
    """Compares the expressions of one working on the cells that their roots and bars ask for."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self.cells = (
            Decomposition(context.names or ("x",), context.plan, context.assumed.bounds)
            if context.plan is not None
            else None
        )
        self._compared: dict[tuple[tuple[n.Node, ...], ...], Compared] = {}

    def compare(self, before: EvaluatedExpression, after: EvaluatedExpression) -> Compared:
        """How two expressions relate. Rational functions are equal iff their lowest terms are."""
        same = {v.ratio for v in before.values} == {v.ratio for v in after.values}
        if self.cells is None:
            return ("holds" if same else "breaks"), None
        if same and before.certain and after.certain:
            return "holds", None
        key = (tuple(before.trees), tuple(after.trees))
        if key not in self._compared:
            # what differs is looked at on its cells, for the point that shows it
            known = len(before.trees) == len(after.trees) == 1 and same_terms(
                before.trees[0], after.trees[0], imaginary=self.context.complex
            )
            self._compared[key] = ("holds", None) if known else self._compare_on_cells(self.cells, before, after)
        return self._compared[key]

    def equal(self, before: EvaluatedExpression, after: EvaluatedExpression) -> bool:
        """Whether two expressions are proved to be equal."""
        return self.compare(before, after)[0] == "holds"

    def ordered(self, first: EvaluatedExpression, second: EvaluatedExpression, allowed: tuple[int, ...]) -> Compared:
        """Whether first - second has one of the signs allowed (-1, 0, 1) wherever both are defined, for every choice of
        ±, single points left aside."""
        context = self.context
        plan = context.plan or Plan()
        cells = self.cells or Decomposition(context.names or ("x",), plan, context.assumed.bounds)

        def signs(cell: RadicalField) -> list[int | None] | None:
            found: list[int | None] = []
            for tree, other in product(first.trees, second.trees):
                value, its = value_on(tree, cell), value_on(other, cell)
                if value is None or its is None:
                    return None
                found.append(0 if zero_equivalence.is_zero(cell, value - its) else cell.sign_of(value - its))
            return found

        judged = [(cell, found) for cell, found in cells.each(signs) if found is not None]
        unclear = not judged
        for cell, found in judged:
            if cell.bounded and any(sign is not None and sign not in allowed for sign in found):
                return "breaks", cell.sample
            unclear = unclear or any(sign is None or sign not in allowed for sign in found)
        return ("unclear" if unclear else "holds"), None

    def is_defined(self, expression: EvaluatedExpression) -> bool:
        """Whether an expression has a value on some cell."""
        if self.cells is None or expression.certain:
            return True
        return self.cells.any(lambda cell: all(value_on(tree, cell) is not None for tree in expression.trees))

    def _compare_on_cells(
        self, cells: Decomposition, before: EvaluatedExpression, after: EvaluatedExpression
    ) -> Compared:
        given = self.context.given_trees()

        def judge(cell: RadicalField) -> str:
            if any(value_on(tree, cell) is None for tree in given):
                return "outside"
            first = [value_on(tree, cell) for tree in before.trees]
            if None in first:
                return "outside"
            second = [value_on(tree, cell) for tree in after.trees]
            if None in second:
                return "differs"
            return _same_values(cell, [v for v in first if v is not None], [v for v in second if v is not None])

        def judge_or_leave(cell: RadicalField) -> str:
            try:
                return judge(cell)
            except SignUnknown:
                raise
            except OutOfScope:
                if cell.bounded:
                    raise
                return "unknown"  # a cell that perhaps does not exist decides nothing

        judged = cells.each(judge_or_leave)
        for cell, verdict in judged:
            if verdict == "differs" and cell.bounded:
                return "breaks", cell.sample
        verdicts = {verdict for _, verdict in judged}
        if verdicts & {"differs", "unknown"} or verdicts == {"outside"}:
            return "unclear", None
        return "holds", None


def value_on(tree: n.Node, cell: RadicalField) -> Ratio | None:
    """The value on a cell, or None where the tree is undefined there; worked out once for each cell."""
    known = cell.seen.get(id(tree))
    if known is None:
        try:
            found: Ratio | None = value_of(tree, cell).ratio
        except UndefinedValue:
            found = None
        # the tree is kept beside its value, so that its identity stays its own
        known = cell.seen[id(tree)] = (tree, found)
    return known[1]


def _same_values(cell: RadicalField, first: list[Ratio], second: list[Ratio]) -> str:
    """`equal` where every value of one list is in the other and back, `differs`, or `unknown`."""
    if set(first) == set(second):
        return "equal"
    unknown = False
    for here, there in ((first, second), (second, first)):
        for value in here:
            found = [zero_equivalence.is_zero(cell, value - other) for other in there]
            if True in found:
                continue
            if None not in found:
                return "differs"
            unknown = True
    return "unknown" if unknown else "equal"
