"""What was done to both sides: recognised from the lines, and compared with what the writer states."""

from __future__ import annotations

from algebra.exact.errors import ExactError
from algebra.exact.forms import simplified_tree
from algebra.exact.ratio import Ratio
from algebra.model import MoveSeen
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.meaning import Pair
from algebra.verify.setting import Setting


def recognise_all(setting: Setting, stated: ln.Move | None, before: list[Pair], after: list[Pair]) -> MoveSeen | None:
    """The move between lines of one or several equations; ± and `or` make several, each reached by the same move."""
    if len(before) == len(after) == 1:
        return recognise(setting, stated, before[0], after[0])
    if stated is None or not before or not after:
        return None
    starts = before * len(after) if len(before) == 1 else before
    if len(starts) != len(after):
        return MoveSeen(_NAMES[stated.name], stated.text, stated.text, None)
    fits = all(_done(setting, stated, old, new) for old, new in zip(starts, after, strict=True))
    return MoveSeen(_NAMES[stated.name], stated.text, stated.text, fits)


def recognise(setting: Setting, stated: ln.Move | None, before: Pair | None, after: Pair | None) -> MoveSeen | None:
    """The move from one equation to the next, or None where neither stated nor plain to see."""
    if before is None or after is None:
        return None
    if stated is not None:
        fits = _done(setting, stated, before, after)
        if fits:
            return MoveSeen(_NAMES[stated.name], stated.text, stated.text, True)
        seen = _seen(before, after) or MoveSeen("rewrite", "")
        return MoveSeen(seen.name, seen.text, stated.text, False)
    return _seen(before, after)


_NAMES = {
    "add": "add-to-both-sides", "subtract": "subtract-from-both-sides", "multiply": "multiply-both-sides",
    "divide": "divide-both-sides", "square": "square-both-sides", "power": "power-of-both-sides",
    "root": "root-of-both-sides", "swap": "swap-sides",
}  # fmt: skip


def _sides(pair: Pair) -> tuple[Ratio, Ratio]:
    return pair.left.ratio, pair.right.ratio


def _seen(before: Pair, after: Pair) -> MoveSeen | None:
    (l1, r1), (l2, r2) = _sides(before), _sides(after)
    if (l1, r1) == (l2, r2):
        return MoveSeen("rewrite", "")
    if (l1, r1) == (r2, l2):
        return MoveSeen("swap-sides", "swap")
    change = l2 - l1
    if change == r2 - r1:
        text = _text(change)
        if text.startswith("-"):
            return MoveSeen("subtract-from-both-sides", _short("-", -change))
        return MoveSeen("add-to-both-sides", _short("+", change))
    if not (l1.is_zero and r1.is_zero):
        side, other = ((l1, l2), (r1, r2)) if not l1.is_zero else ((r1, r2), (l1, l2))
        if not side[1].is_zero:
            factor = side[1] / side[0]
            if other[0] * factor == other[1]:
                inverse = factor.field.constant(1) / factor
                if len(_text(inverse)) < len(_text(factor)) or (factor.constant and abs(factor.constant) < 1):
                    return MoveSeen("divide-both-sides", _short("÷", inverse))
                return MoveSeen("multiply-both-sides", _short("×", factor))
    if l1 * l1 == l2 and r1 * r1 == r2:
        return MoveSeen("square-both-sides", "square")
    return None


def _text(value: Ratio) -> str:
    return plain(simplified_tree(value), tight=True)


def _short(sign: str, value: Ratio) -> str:
    tree = simplified_tree(value)
    bracket = isinstance(tree, n.Signed) or (isinstance(tree, n.Sum) and sign != "+")
    return sign + plain(n.Group(tree) if bracket else tree, tight=True)


def _done(setting: Setting, move: ln.Move, before: Pair, after: Pair) -> bool:
    """Whether the stated move takes one equation to the other (sides may be swapped as well)."""
    (l1, r1), goal = _sides(before), _sides(after)
    try:
        match move.name:
            case "swap":
                return (r1, l1) == goal
            case "square":
                return _either((l1 * l1, r1 * r1), goal)
            case "root":
                return _either(
                    (goal[0] * goal[0], goal[1] * goal[1]), (l1, r1)
                ) or before.difference == after.difference * (goal[0] + goal[1])
        assert move.operand is not None
        by = setting.value(move.operand).ratio
        match move.name:
            case "add":
                return _either((l1 + by, r1 + by), goal)
            case "subtract":
                return _either((l1 - by, r1 - by), goal)
            case "multiply":
                return _either((l1 * by, r1 * by), goal)
            case "divide":
                return _either((l1 / by, r1 / by), goal)
            case "power":
                power = by.constant
                return (
                    power is not None and power.denominator == 1 and _either((l1 ** int(power), r1 ** int(power)), goal)
                )
    except ExactError:
        return False
    return False


def _either(sides: tuple[Ratio, Ratio], goal: tuple[Ratio, Ratio]) -> bool:
    return sides == goal or sides == (goal[1], goal[0])
