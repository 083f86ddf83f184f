"""Candidates that a step adds, and the legal move that explains each: a denominator cleared, a factor, an even
power."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from algebra.exact.decomposition import Decomposition
from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.evaluate.symbolic import Value, value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio, irreducible_factors
from algebra.exact.solution_sets import Solution, SolutionSet
from algebra.records import record
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.verify.context import Context
from algebra.verify.evaluated import EvaluatedStatement
from algebra.verify.evaluator import Evaluator
from algebra.verify.legal_moves import Sides, are_raised, is_even_power, is_isolated_power, is_raised

Cause = Literal["denominator", "root", "factor", "power"]


@record(frozen=True)
class Gain:
    """A candidate that a legal move added."""

    solution: Solution
    cause: Cause
    because: str


def explained(
    evaluator: Evaluator,
    cells: Decomposition | None,
    before: EvaluatedStatement,
    after: EvaluatedStatement,
    gained: SolutionSet,
    stated: ln.Move | None,
    line: int,
) -> list[Gain] | None:
    """The gained values with the legal move that explains each, or None when no legal move does."""
    if gained.is_empty:
        return []
    context = evaluator.context
    if gained.cofinite or gained.intervals is not None:  # A = -A squared holds everywhere: no candidate stands out
        return [] if was_raised(before, after, stated) else None
    pole_values = context.solver.solutions(context.solver.of_unknown(before.poles))
    reason = f"it makes a denominator of {_name(line - 1)} zero"
    if before.product is None or after.product is None:  # an identity, or a bare statement
        if gained.members <= pole_values:
            return [Gain(s, "denominator", reason) for s in gained.members]
        return None
    if cells is None or (before.certain and after.certain):
        ways = [_way(context, before, evaluator.value, stated, _sides(before), _sides(after))]
    else:  # what is in bars has another sign on another cell
        ways = _ways_on_cells(context, cells, before, after, stated)
    if ways and all(way == "power" for way in ways) and not gained.members & pole_values:
        return [Gain(s, "power", "both sides were raised to an even power") for s in gained.members]
    if not ways or not all(ways):
        return None
    multiplied = "both sides were multiplied by an expression that is zero there"
    lost_root = f"a root of {_name(line - 1)} does not exist there"
    return [
        Gain(s, "denominator", reason)
        if s in pole_values
        else Gain(s, "root", lost_root)
        if before.rooted and _is_undefined_at(context, before, s)
        else Gain(s, "factor", multiplied)
        for s in gained.members
    ]


def _is_undefined_at(context: Context, line: EvaluatedStatement, solution: Solution) -> bool:
    if solution.number is None or not context.explains or len(context.field.letters) > 1:
        return False
    try:
        at = PointEvaluator(context.plan or Plan(), {context.unknown: solution.number})
        sides = [tree for pair in line.pairs for tree in (pair.left_tree, pair.right_tree)]
        return any(at.value(tree) is None for tree in sides)
    except ExactError:
        return False


_Reading = Callable[[n.Node], Value]


def _sides(line: EvaluatedStatement) -> list[Sides]:
    return [pair.sides for pair in line.pairs]


def _way(
    context: Context,
    before: EvaluatedStatement,
    read: _Reading,
    stated: ln.Move | None,
    old: list[Sides],
    new: list[Sides],
) -> str | None:
    """`power` or `factor`: the legal move by which one equation became the other as far as `read` sees them; else None.

    `old` and `new` are the sides of both as it reads them.
    """
    total = _product(new)
    if total.is_zero:
        return None
    if len(old) == 1 and (is_even_power(old[0], total) or is_isolated_power(old[0][0] - old[0][1], total)):
        return "power"
    ratio = total / _product(old)
    moved = irreducible_factors([ratio.numerator, ratio.denominator])  # multiplied by, and divided by
    factors = {key for key, poly in moved.items() if context.can_vanish(poly)}
    if not factors:
        return "factor"
    allowed = set(before.poles)
    if factors <= allowed:
        return "factor"
    # of a contradiction everything is a multiple: there each side must show the factor, or it is said, or stands below
    counts = context.holds_unknown(_product(old).numerator) or _each_side_times(ratio, old, new)
    trees = _present_parts(before) if counts else []
    if stated is not None and stated.name == "multiply" and stated.operand is not None:
        trees.append(stated.operand)
    allowed |= set(irreducible_factors(read(t).ratio.numerator for t in trees))
    return "factor" if factors <= allowed else None


def _each_side_times(ratio: Ratio, old: list[Sides], new: list[Sides]) -> bool:
    """Whether both sides of the one equation were multiplied by this, as they stand or exchanged."""
    if len(old) != 1 or len(new) != 1:
        return False
    made = (old[0][0] * ratio, old[0][1] * ratio)
    return new[0] == made or new[0] == (-made[1], -made[0])


def _product(sides: list[Sides]) -> Ratio:
    total = sides[0][0] - sides[0][1]
    for left, right in sides[1:]:
        total = total * (left - right)
    return total


def _ways_on_cells(
    context: Context,
    cells: Decomposition,
    before: EvaluatedStatement,
    after: EvaluatedStatement,
    stated: ln.Move | None,
) -> list[str | None]:
    """The move seen on every cell on which the line before is defined."""

    def way(cell: RadicalField) -> str | None:
        def read(tree: n.Node) -> Value:
            return value_of(context.filled(tree), cell)

        try:
            old, new = (
                [(read(pair.left_tree).ratio, read(pair.right_tree).ratio) for pair in line.pairs]
                for line in (before, after)
            )
            return _way(context, before, read, stated, old, new)
        except UndefinedValue:
            return "undefined"

    return [found for _, found in cells.each(way) if found != "undefined"]


def _name(line: int) -> str:
    return "the given" if line == 0 else f"line {line}"


def present_factors(context: Context, line: EvaluatedStatement, read: _Reading) -> set[str]:
    """The factors, by their keys, of what stands in a line as a factor, a bracket, a root or below a bar."""
    parts = irreducible_factors(read(tree).ratio.numerator for tree in _present_parts(line))
    return set(line.poles) | set(parts)


def _present_parts(line: EvaluatedStatement) -> list[n.Node]:
    """The letters, brackets, roots and numerators that stand in the line: what one may have multiplied by."""
    found: set[n.Node] = set()
    for pair in line.pairs:
        for part in (*n.parts_of(pair.left_tree), *n.parts_of(pair.right_tree)):
            if isinstance(part, n.Group | n.Letter | n.Root):
                found.add(part)
            elif isinstance(part, n.Fraction):
                found.add(part.numerator)
    return list(found)


def was_raised(before: EvaluatedStatement, after: EvaluatedStatement, stated: ln.Move | None) -> bool:
    """Whether the step squares both sides as they stand (or says so), so that every candidate is owed a check."""
    old, new = before.single, after.single
    if old is None or new is None:
        return False
    if stated is not None and stated.name in ("square", "power"):
        return is_raised(old, new.difference)
    if are_raised(old.sides, new.sides):
        return True
    return not new.difference.is_zero and is_isolated_power(old.difference, new.difference)
