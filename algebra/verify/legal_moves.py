"""The legal moves on both sides of an equation: one table of what each does and how it is recognised.

A move `keeps` the solutions, or it `widens`: then it may add candidates. The table is asked in its order: what stands
first is what one would say.
"""

from __future__ import annotations

from collections.abc import Callable
from math import gcd
from typing import Literal

from algebra.exact.errors import ExactError, TooLarge
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, Ratio
from algebra.exact.writing import simplified_tree
from algebra.records import record
from algebra.reports.report import MoveSeen
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.evaluated import Pair
from algebra.verify.evaluator import Evaluator

Sides = tuple[Ratio, Ratio]
EVEN_POWERS = (2, 4, 6)
"""The even powers to which both sides are expected to be raised."""
HIGHER_POWERS = (8, 10, 12)
"""As well, where the sides are short."""
_SHORT = 2


@record(frozen=True)
class LegalMove:
    """One move. `stated` is the word by which a line's margin names it.

    `done` are the sides after the move with this operand, None where it can't be made; the sides may be exchanged as
    well. `seen` tells from both lines that the move was made: its short text, as `×4`; None where it was not.
    """

    name: str
    effect: Literal["keeps", "widens"]
    stated: str = ""
    done: Callable[[Sides, Ratio], Sides | None] = lambda sides, operand: None
    seen: Callable[[Sides, Sides], str | None] = lambda before, after: None


def _rewritten(before: Sides, after: Sides) -> str | None:
    return "" if before == after else None


def _swapped(before: Sides, after: Sides) -> str | None:
    return "swap" if before == after[::-1] else None


def _common_change(before: Sides, after: Sides) -> Ratio | None:
    """What was added to both sides; None where the changes differ."""
    change = after[0] - before[0]
    return change if change == after[1] - before[1] else None


def _added(before: Sides, after: Sides) -> str | None:
    change = _common_change(before, after)
    return None if change is None else _short("+", change)


def _subtracted(before: Sides, after: Sides) -> str | None:
    change = _common_change(before, after)
    return None if change is None or not _starts_with_minus(change) else _short("-", -change)


def _common_factor(before: Sides, after: Sides) -> Ratio | None:
    """What both sides were multiplied by; None where the factors differ, and for a quotient of two factors that hold
    the same letter: nobody multiplies by that without writing it."""
    side, other = (0, 1) if not before[0].is_zero else (1, 0)
    if before[side].is_zero or after[side].is_zero:
        return None
    factor = after[side] / before[side]
    degrees = zip(factor.numerator.degrees(), factor.denominator.degrees(), strict=True)
    if any(above and below for above, below in degrees):
        return None
    return factor if before[other] * factor == after[other] else None


def _divided(before: Sides, after: Sides) -> str | None:
    factor = _common_factor(before, after)
    if factor is None:
        return None
    inverse = factor.field.constant(1) / factor
    shorter = len(_text(inverse)) < len(_text(factor))
    return _short("÷", inverse) if shorter or (factor.constant and abs(factor.constant) < 1) else None


def _multiplied(before: Sides, after: Sides) -> str | None:
    factor = _common_factor(before, after)
    return None if factor is None else _short("×", factor)


def _squared(before: Sides, after: Sides) -> str | None:
    return "square" if (before[0] * before[0], before[1] * before[1]) == after else None


def _to_power(sides: Sides, exponent: Ratio) -> Sides | None:
    power = exponent.constant
    if power is None or power.denominator != 1:
        return None
    return sides[0] ** int(power), sides[1] ** int(power)


LEGAL_MOVES: tuple[LegalMove, ...] = (
    LegalMove(name="rewrite", effect="keeps", seen=_rewritten),
    LegalMove(
        name="swap-sides", effect="keeps", stated="swap", done=lambda sides, _: (sides[1], sides[0]), seen=_swapped
    ),
    LegalMove(
        name="subtract-from-both-sides",
        effect="keeps",
        stated="subtract",
        done=lambda sides, by: (sides[0] - by, sides[1] - by),
        seen=_subtracted,
    ),
    LegalMove(
        name="add-to-both-sides",
        effect="keeps",
        stated="add",
        done=lambda sides, by: (sides[0] + by, sides[1] + by),
        seen=_added,
    ),
    LegalMove(
        name="divide-both-sides",
        effect="keeps",
        stated="divide",
        done=lambda sides, by: (sides[0] / by, sides[1] / by),
        seen=_divided,
    ),
    LegalMove(
        name="multiply-both-sides",
        effect="widens",
        stated="multiply",
        done=lambda sides, by: (sides[0] * by, sides[1] * by),
        seen=_multiplied,
    ),
    LegalMove(
        name="square-both-sides",
        effect="widens",
        stated="square",
        done=lambda sides, _: (sides[0] * sides[0], sides[1] * sides[1]),
        seen=_squared,
    ),
    LegalMove(name="power-of-both-sides", effect="widens", stated="power", done=_to_power),
    LegalMove(name="root-of-both-sides", effect="keeps", stated="root"),
)
"""Every legal move, in the order in which it is looked for. The root of both sides is recognised by its square."""

BY_STATED: dict[str, LegalMove] = {move.stated: move for move in LEGAL_MOVES if move.stated}
_SQUARE = BY_STATED["square"]


def recognise_all(
    evaluator: Evaluator, stated: ln.Move | None, before: list[Pair], after: list[Pair]
) -> MoveSeen | None:
    """The move between lines of one or several equations; ± and `or` make several, each reached by the same move."""
    if len(before) == len(after) == 1:
        return recognise(evaluator, stated, before[0], after[0])
    if stated is None or not before or not after:
        return None
    starts = before * len(after) if len(before) == 1 else before
    fits = None
    if len(starts) == len(after):
        fits = all(_is_done(evaluator, stated, old, new) for old, new in zip(starts, after, strict=True))
    return MoveSeen(BY_STATED[stated.name].name, stated.text, stated.text, fits)


def recognise(evaluator: Evaluator, stated: ln.Move | None, before: Pair | None, after: Pair | None) -> MoveSeen | None:
    """The move from one equation to the next, or None where neither stated nor plain to see."""
    if before is None or after is None:
        return None
    if stated is not None and _is_done(evaluator, stated, before, after):
        return MoveSeen(BY_STATED[stated.name].name, stated.text, stated.text, True)
    seen = _seen(before.sides, after.sides)
    if stated is None:
        return seen
    return MoveSeen(seen.name if seen else "rewrite", seen.text if seen else "", stated.text, False)


def _seen(before: Sides, after: Sides) -> MoveSeen | None:
    for move in LEGAL_MOVES:
        text = move.seen(before, after)
        if text is not None:
            return MoveSeen(move.name, text)
    return None


def _is_done(evaluator: Evaluator, stated: ln.Move, before: Pair, after: Pair) -> bool:
    """Whether the stated move takes one equation to the other; the sides may be exchanged as well."""
    move, start, goal = BY_STATED[stated.name], before.sides, after.sides
    try:
        if move.name == "root-of-both-sides":
            index = evaluator.value(stated.operand).ratio.constant if stated.operand is not None else None
            return is_root_of(before, after) if index in (None, 2) else _is_higher_root(before, after, int(index or 0))
        operand = start[0] if stated.operand is None else evaluator.value(stated.operand).ratio
        reached = move.done(start, operand)
    except ExactError:
        return False
    exchangeable = move.name != "swap-sides"
    return reached is not None and (reached == goal or (exchangeable and reached == goal[::-1]))


def is_root_of(before: Pair, after: Pair) -> bool:
    """Whether a line is a square root of the other: squared it is that line, or one factor of a difference of
    squares."""
    (left, right), squared = after.sides, _SQUARE.done(after.sides, after.left.ratio)
    return squared in (before.sides, before.sides[::-1]) or before.difference == after.difference * (left + right)


def _is_higher_root(before: Pair, after: Pair, index: int) -> bool:
    """Whether a line, raised to this power, is the other."""
    raised = tuple(side**index for side in after.sides)
    return raised in (before.sides, before.sides[::-1])


# -- equal up to a rearrangement and a constant ----------------------------------------------------------------------


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


def proportional(before: Pair | None, after: Pair | None) -> bool:
    """Whether one equation is the other up to a rearrangement and a constant factor."""
    if before is None or after is None or before.difference.is_zero or after.difference.is_zero:
        return False
    return is_multiple(after.difference, before.difference)


def _even_exponents(sides: Sides) -> tuple[int, ...]:
    short = all(len(poly) <= _SHORT for side in sides for poly in (side.numerator, side.denominator))
    return EVEN_POWERS + (HIGHER_POWERS if short else ())


def are_raised(sides: Sides, after: Sides) -> bool:
    """Whether both sides were raised to the same even power, as far as that can be written out."""
    if sides == after:
        return False
    easy = 1 if _has_roots(sides[0]) else 0  # most lines differ on the side without roots, where degrees tell
    try:
        return any(
            _is_power(sides[easy], after[easy], power) and _is_power(sides[1 - easy], after[1 - easy], power)
            for power in _even_exponents(sides)
        )
    except TooLarge:
        return False


def _has_roots(value: Ratio) -> bool:
    home = value.field
    return isinstance(home, RadicalField) and home.depends_on_added(value.numerator)


def _is_power(base: Ratio, value: Ratio, exponent: int) -> bool:
    """Whether a value is this power of another; of polynomials without roots the degrees tell most of it."""
    degrees = base.numerator.total_degree(), value.numerator.total_degree()
    if degrees[1] != exponent * degrees[0] and not base.is_zero and not _has_roots(base):
        return False
    return base**exponent == value


def is_even_power(sides: Sides, after: Ratio) -> bool:
    """Whether a difference is that of both sides raised to an even power, up to a constant factor."""
    try:
        return any(is_multiple(sides[0] ** power - sides[1] ** power, after) for power in _even_exponents(sides))
    except TooLarge:
        return False


def is_isolated_power(difference: Ratio, after: Ratio) -> bool:
    """Whether a difference is that of both sides raised to an even power that frees a root, after the root was set
    apart on one side: a + b·r = 0 gives a^n = (-b·r)^n, up to a constant factor, for a root r with r^n free of it."""
    home = difference.field
    if not isinstance(home, RadicalField) or difference.is_zero or not difference.denominator.is_constant():
        return False
    degrees = difference.numerator.degrees()
    for made in home.made.values():
        if made.relation is None or not degrees[made.position] or made.base is None:
            continue
        parts = home.powers_of(difference.numerator, made)
        held = [power for power, part in enumerate(parts) if part != 0]
        if len(held) != 2 or held[0] != 0:
            continue
        rest, root = home.ratio(parts[0]), home.ratio(parts[held[1]] * made.symbol ** held[1])
        times = made.degree // gcd(made.degree, held[1])
        if times % 2:
            continue  # an odd power adds nothing, so it needs no explanation
        try:
            raised = rest**times - (-root) ** times
        except TooLarge:
            continue
        if not raised.is_zero and is_multiple(raised, after):
            return True
    return False


def is_raised(before: Pair | None, after: Ratio | None) -> bool:
    """Whether both sides were raised to the same even power, up to a rearrangement or factoring of the result; a root
    may have been set apart first."""
    if before is None or after is None or after.is_zero:
        return False
    return is_even_power(before.sides, after) or is_isolated_power(before.difference, after)


# -- words -----------------------------------------------------------------------------------------------------------


def _text(value: Ratio) -> str:
    return plain(simplified_tree(value), tight=True)


def _starts_with_minus(value: Ratio) -> bool:
    """Whether the value is written with a minus in front, of a sum its first term."""
    tree: n.Node = simplified_tree(value)
    while isinstance(tree, n.Sum):
        tree = tree.terms[0]
    return isinstance(tree, n.Signed) and tree.sign == "-"


def _short(sign: str, value: Ratio) -> str:
    tree = simplified_tree(value)
    bracket = isinstance(tree, n.Signed) or (isinstance(tree, n.Sum) and sign != "+")
    return sign + plain(n.Group(tree) if bracket else tree, tight=True)
