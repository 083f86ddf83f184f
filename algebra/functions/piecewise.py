"""The features of a function that bars make a rational function on each of several intervals: |x|/x, |x - 2| + 1."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.decomposition import Decomposition
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio, field_of
from algebra.exact.real_sets import RealSet
from algebra.functions.features import (
    Features,
    Limit,
    ends_of,
    exact_height,
    range_between,
    real_zeros,
    side_limit,
    single,
)
from algebra.tree import nodes as n


@dataclass(frozen=True, slots=True)
class Piece:
    """A rational function on an open interval (None: without an end); `value` is None where the function has none."""

    low: Number | None
    high: Number | None
    value: Ratio | None


def pieces_of(tree: n.Node, letter: str, plan: Plan) -> list[Piece]:
    """The function on the intervals between its cuts. Raises OutOfScope where a root is left on one of them."""
    over = field_of((letter,))
    cells = Decomposition((letter,), plan)

    def value(cell: RadicalField) -> Ratio | None:
        try:
            return value_of(tree, cell).ratio
        except UndefinedValue:
            return None

    judged = cells.each(value)
    ends = [None, *real_zeros(list(cells.polys.values()), letter), None]
    found = []
    for low, high, (cell, ratio) in zip(ends[:-1], ends[1:], judged, strict=True):
        if ratio is not None and cell.depends_on_added(ratio.numerator):
            raise OutOfScope("Only functions without roots are analysed.", "√")
        own = None
        if ratio is not None:
            own = over.ratio(*(single(poly, letter, over.ring) for poly in (ratio.numerator, ratio.denominator)))
        found.append(Piece(low, high, own))
    return found


def features_of_pieces(tree: n.Node, letter: str, plan: Plan, domain: RealSet, zeros: list[Number]) -> Features:
    """The features of a function with bars; `domain` and `zeros` (of the function) are exact. Raises OutOfScope."""
    pieces = pieces_of(tree, letter, plan)
    if any(piece.value is None for piece in pieces):
        raise OutOfScope("A function that has no value on an interval is not analysed.", "|")
    excluded = list(domain.ends)
    cuts = {piece.low for piece in pieces if piece.low is not None}
    holes, vertical = [], []
    for x in sorted({*excluded, *cuts}):
        left, right = _limits(pieces, letter, x)
        if isinstance(left, str) or isinstance(right, str):
            vertical.append(x)
        elif x in excluded and left == right and left.tree is not None:
            holes.append((x, left.tree))
    ends: dict[str, Limit] = {}
    for sign, piece in (("+", pieces[-1]), ("-", pieces[0])):
        assert piece.value is not None
        ends[sign] = ends_of(piece.value, letter)[sign]
    far = {sign: limit for sign, limit in ends.items() if isinstance(limit, Q)}
    is_line = all(piece.value is not None and piece.value.is_polynomial for piece in pieces)
    flat = {sign: limit for sign, limit in far.items() if not is_line}
    zero = rational(0)
    first = pieces[0].value
    assert first is not None
    return Features(
        letter,
        first,
        excluded,
        holes,
        vertical,
        flat.get("+", flat.get("-")),
        None,
        zeros,
        None if zero in excluded else _value_at(tree, letter, plan, zero).rational,
        ends,
        _range(pieces, tree, letter, plan, excluded, vertical),
        [],
        not is_line,
        other_horizontal=flat["-"] if len(flat) == 2 and flat["-"] != flat["+"] else None,
    )


def _value_at(tree: n.Node, letter: str, plan: Plan, x: Number) -> Number:
    """The function's value at a place of its domain."""
    found = PointEvaluator(plan, {letter: x}).value(tree)
    if found is None or found.constant is None:
        raise OutOfScope("The value at this place is not written as a fraction.", "|")
    return rational(found.constant)


def _limits(pieces: list[Piece], letter: str, x: Number) -> tuple[Number | str, Number | str]:
    """The limits from the left and from the right."""
    found: list[Number | str] = []
    for before in (True, False):
        piece = next(
            p
            for p in pieces
            if (p.high is None or x <= p.high if before else p.high is None or x < p.high)
            and (p.low is None or (p.low < x if before else p.low <= x))
        )
        assert piece.value is not None
        poles = real_zeros([piece.value.denominator], letter)
        height = None if x in poles else exact_height(piece.value, letter, x)
        if x not in poles and height is None:
            raise OutOfScope("A limit here is not written exactly.", "|")
        heights = {} if height is None else {x: height}
        limit = side_limit(piece.value, letter, x, heights, before=before)
        found.append(rational(limit) if isinstance(limit, Q) else limit)
    return found[0], found[1]


def _range(
    pieces: list[Piece], tree: n.Node, letter: str, plan: Plan, excluded: list[Number], vertical: list[Number]
) -> RealSet | None:
    """What the pieces take, and the values at the places where they meet."""
    total = RealSet.points(())
    for piece in pieces:
        assert piece.value is not None
        own_poles = real_zeros([piece.value.denominator], letter)
        inner = [x for x in excluded if x not in own_poles]
        found = range_between(piece.value, letter, inner, own_poles, excluded, piece.low, piece.high)
        if found is None:
            return None
        total = total.combined(found, lambda a, b: a or b)
    meeting = [piece.low for piece in pieces if piece.low is not None and piece.low not in excluded]
    values = [_value_at(tree, letter, plan, x) for x in meeting]
    return total.combined(RealSet.points(values), lambda a, b: a or b)
