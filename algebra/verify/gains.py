"""Candidates that a step adds, and the legal move that explains each: a denominator cleared, a factor, an even power."""

from __future__ import annotations

from collections.abc import Callable

from algebra.exact.cell import Cell, Plan
from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.ratio import Poly, Ratio, irreducible_factors
from algebra.exact.roots import Exactly
from algebra.exact.solutions import Solution, SolutionSet
from algebra.exact.values import Value, value_of
from algebra.records import record
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.verify.meaning import Pair, SetMeaning
from algebra.verify.setting import Setting

_EVEN_POWERS = (2, 4, 6)


@record(frozen=True)
class Gain:
    """A candidate that a legal move added; `kind` is denominator, root, factor or power."""

    solution: Solution
    kind: str
    because: str


def explained(
    setting: Setting, before: SetMeaning, after: SetMeaning, gained: SolutionSet, stated: ln.Move | None, line: int
) -> list[Gain] | None:
    """The gained values with the legal move that explains each, or None when no legal move does."""
    if gained.is_empty:
        return []
    old, new = whole(before), whole(after)
    if gained.cofinite or gained.intervals is not None:
        return None
    pole_values = setting.solver.solutions(setting.solver.of_unknown(before.poles))
    reason = f"it makes a denominator of {_name(line - 1)} zero"
    if old is None or new is None:  # an identity, or a bare statement
        if gained.members <= pole_values:
            return [Gain(s, "denominator", reason) for s in gained.members]
        return None
    if before.certain and after.certain:
        ways = [_way(setting, before, after, setting.value, stated, _ratios(before), _ratios(after))]
    else:  # what is in bars has another sign on another cell
        ways = _ways_on_cells(setting, before, after, stated)
    if ways and all(way == "power" for way in ways) and not gained.members & pole_values:
        return [Gain(s, "power", "both sides were raised to an even power") for s in gained.members]
    if ways and all(ways):
        multiplied = "both sides were multiplied by an expression that is zero there"
        lost_root = f"a root of {_name(line - 1)} does not exist there"
        return [
            Gain(s, "denominator", reason)
            if s in pole_values
            else Gain(s, "root", lost_root)
            if before.rooted and _is_undefined_at(setting, before, s)
            else Gain(s, "factor", multiplied)
            for s in gained.members
        ]
    return None


def _is_undefined_at(setting: Setting, line: SetMeaning, solution: Solution) -> bool:
    if solution.number is None or not setting.explains or len(setting.field.letters) > 1:
        return False
    try:
        exactly = Exactly(setting.plan or Plan(), {setting.unknown: solution.number})
        sides = [tree for pair in line.pairs for tree in (pair.left_tree, pair.right_tree)]
        return any(exactly.value(tree) is None for tree in sides)
    except ExactError:
        return False


_Reading = Callable[[n.Node], Value]


_Sides = list[tuple[Ratio, Ratio]]


def _ratios(meaning: SetMeaning) -> _Sides:
    return [(pair.left.ratio, pair.right.ratio) for pair in meaning.pairs]


def _way(
    setting: Setting,
    before: SetMeaning,
    after: SetMeaning,
    read: _Reading,
    stated: ln.Move | None,
    old: _Sides,
    new: _Sides,
) -> str | None:
    """`power` or `factor`: the legal move by which one equation became the other as far as `read` sees them; else None.

    `old` and `new` are the sides of both as it reads them.
    """
    total = _product(new)
    if total.is_zero:
        return None
    if len(old) == 1 and _is_power(old[0][0], old[0][1], total):
        return "power"
    ratio = total / _product(old)
    factors = {key for key, poly in irreducible_factors([ratio.numerator]).items() if setting.holds_unknown(poly)}
    if not factors:
        return "factor"
    trees = _present_parts(before)
    if stated is not None and stated.name == "multiply" and stated.operand is not None:
        trees.append(stated.operand)
    allowed = set(before.poles)
    if factors <= allowed:
        return "factor"
    allowed |= set(irreducible_factors(read(t).ratio.numerator for t in trees))
    return "factor" if factors <= allowed else None


def _product(sides: _Sides) -> Ratio:
    total = sides[0][0] - sides[0][1]
    for left, right in sides[1:]:
        total = total * (left - right)
    return total


def _ways_on_cells(setting: Setting, before: SetMeaning, after: SetMeaning, stated: ln.Move | None) -> list[str | None]:
    """The move seen on every cell on which the line before is defined."""

    def way(cell: Cell) -> str | None:
        def read(tree: n.Node) -> Value:
            return value_of(setting.filled(tree), cell)

        try:
            old, new = (
                [(read(pair.left_tree).ratio, read(pair.right_tree).ratio) for pair in line.pairs]
                for line in (before, after)
            )
            return _way(setting, before, after, read, stated, old, new)
        except UndefinedValue:
            return "undefined"

    return [found for _, found in setting.cells.each(way) if found != "undefined"]


def _name(line: int) -> str:
    return "the given" if line == 0 else f"line {line}"


def _present_parts(meaning: SetMeaning) -> list[n.Node]:
    """The letters, brackets, roots and numerators that stand in the line: what one may have multiplied by."""
    found: set[n.Node] = set()
    for pair in meaning.pairs:
        for part in (*n.parts_of(pair.left_tree), *n.parts_of(pair.right_tree)):
            if isinstance(part, n.Group | n.Letter | n.Root):
                found.add(part)
            elif isinstance(part, n.Fraction):
                found.add(part.numerator)
    return list(found)


def raised(before: Pair | None, after: Ratio | None) -> bool:
    """Whether both sides were raised to the same even power, up to a rearrangement or factoring of the result."""
    if before is None or after is None or after.is_zero:
        return False
    return _is_power(before.left.ratio, before.right.ratio, after)


def _is_power(left: Ratio, right: Ratio, after: Ratio) -> bool:
    return any(is_multiple(left**power - right**power, after) for power in _EVEN_POWERS)


def is_multiple(first: Ratio, second: Ratio) -> bool:
    """Whether one is the other times a rational number, neither being zero: both are in lowest terms."""
    below, its = first.denominator, second.denominator
    return in_proportion(first.numerator, second.numerator) and (below is its or in_proportion(below, its))


def in_proportion(first: Poly, second: Poly) -> bool:
    """Whether one polynomial is the other times a rational number, neither being zero."""
    if first == second:
        return bool(first != 0)
    if len(first) != len(second) or first == 0:
        return False
    return bool(first * second.leading_coefficient() == second * first.leading_coefficient())


def was_raised(before: SetMeaning, after: SetMeaning, stated: ln.Move | None) -> bool:
    """Whether the step squares both sides as they stand (or says so), so that every candidate is owed a check."""
    old, new = before.single, after.single
    if old is None or new is None:
        return False
    if stated is not None and stated.name in ("square", "power"):
        return raised(old, new.difference)
    sides = (new.left.ratio, new.right.ratio)
    return any(
        (old.left.ratio**p, old.right.ratio**p) == sides != (old.left.ratio, old.right.ratio) for p in _EVEN_POWERS
    )


def whole(meaning: SetMeaning) -> Ratio | None:
    """The product of the differences of its equations: zero exactly where one of them holds."""
    if not meaning.pairs:
        return None
    total = meaning.pairs[0].difference
    for pair in meaning.pairs[1:]:
        total = total * pair.difference
    return None if total.is_zero else total


def proportional(before: Pair | None, after: Pair | None) -> bool:
    """Whether one equation is the other up to a rearrangement and a constant factor."""
    if before is None or after is None or before.difference.is_zero or after.difference.is_zero:
        return False
    return is_multiple(after.difference, before.difference)
