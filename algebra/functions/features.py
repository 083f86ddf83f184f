"""The features of a rational function in one letter, exact: domain, holes, asymptotes, intercepts, ends, range."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction as Q
from typing import Any

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import Number, rational
from algebra.exact.errors import OutOfScope
from algebra.exact.evaluate.symbolic import Value, value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import (
    Poly,
    Ratio,
    field_of,
    integer_coefficients,
    irreducible_factors,
    letters_of_ring,
)
from algebra.exact.real_sets import RealSet
from algebra.exact.writing import number_tree, polynomial_tree, simplified_tree
from algebra.reports.features import FeaturesReport
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

Limit = Q | str
"""A finite limit, or `inf` or `-inf`."""


@dataclass(frozen=True, slots=True)
class Features:
    """What is to be said of a function; values that are not rational are exact algebraic numbers."""

    letter: str
    value: Ratio
    excluded: list[Number]
    holes: list[tuple[Number, n.Node]]
    vertical: list[Number]
    horizontal: Q | None
    oblique: n.Node | None
    x_intercepts: list[Number]
    y_intercept: Q | None
    ends: dict[str, Limit]
    range: RealSet | None
    grid_points: list[tuple[Q, Q]] = field(default_factory=list)
    has_poles: bool = True
    other_horizontal: Q | None = None
    """The horizontal asymptote for x → -∞, where that is another one than for x → ∞."""

    @property
    def horizontals(self) -> list[Q]:
        """Every horizontal asymptote."""
        return [line for line in (self.horizontal, self.other_horizontal) if line is not None]

    @property
    def shifted_reciprocal(self) -> tuple[Q, Q, Q] | None:
        """(a, h, k) where the function is a/(x − h) + k, else None."""
        low = _coefficients(self.value.denominator, self.letter)
        if len(low) != 2 or len(_coefficients(self.value.numerator, self.letter)) > 2:
            return None
        quotient, rest = divided(self.value, self.letter)
        return (rest[0] if rest else Q(0)) / low[1], Q(-low[0], low[1]), quotient[0]

    def report(self) -> FeaturesReport:
        """The features as they are given out."""
        return FeaturesReport(
            excluded=tuple(str(v) for v in self.excluded),
            holes=tuple((str(x), plain(y, tight=True)) for x, y in self.holes),
            vertical_asymptotes=tuple(str(v) for v in self.vertical),
            horizontal_asymptote=None if self.horizontal is None else str(self.horizontal),
            oblique_asymptote=None if self.oblique is None else plain(self.oblique),
            x_intercepts=tuple(str(v) for v in self.x_intercepts),
            y_intercept=None if self.y_intercept is None else str(self.y_intercept),
            end_behaviour={sign: str(limit) for sign, limit in self.ends.items()},
            range=None if self.range is None else range_text(self.range),
            grid_points=tuple((str(x), str(y)) for x, y in self.grid_points),
        )


def shifted_reciprocal(a: Q, h: Q, k: Q, letter: str) -> n.Node:
    """a/(x − h) + k as it is written."""
    bottom = build.polynomial((-h, 1), letter)
    if a.denominator == 1:
        body = build.quotient(number_tree(abs(a)), bottom)
    else:
        body = n.Product((n.Group(number_tree(abs(a))), build.quotient(build.ONE, bottom)), ("·",))
    shifted = build.minus_if(a < 0, body)
    return build.sum_of([shifted, number_tree(k)]) if k else shifted


def range_text(found: RealSet) -> str:
    """`all`, `y ≠ 2` or intervals."""
    if found.is_cofinite:
        ends = [str(end) for end in found.ends]
        return f"y ≠ {', '.join(ends)}" if ends else "all"
    return str(found)


def features_of(given: Value, letter: str) -> Features:
    """The features of a rational function. Raises OutOfScope where it holds other letters or roots."""
    value = given.ratio
    if isinstance(value.field, RadicalField) and value.field.depends_on_added(value.numerator):
        raise OutOfScope("Only rational functions are analysed.", "√")
    plain_field = field_of((letter,))
    top = plain_field.ratio(single(value.numerator, letter, plain_field.ring))
    bottom = plain_field.ratio(single(value.denominator, letter, plain_field.ring))
    reduced = top / bottom
    excluded = real_zeros([single(p, letter, plain_field.ring) for p in given.nonzero], letter)
    vertical = real_zeros([reduced.denominator], letter)
    holes = [(x, _height(reduced, letter, x)) for x in excluded if x not in vertical]
    up, low = _coefficients(reduced.numerator, letter), _coefficients(reduced.denominator, letter)
    above, below = len(up) - 1, len(low) - 1
    is_line = below == 0
    horizontal = None if is_line or above > below else Q(up[-1], low[-1]) if above == below else Q(0)
    oblique = _quotient(reduced, letter) if above == below + 1 and not is_line else None
    zeros = [x for x in real_zeros([reduced.numerator], letter) if x not in excluded] if not reduced.is_zero else []
    zero = rational(0)
    y_intercept = None if zero in excluded else Q(up[0], low[0])
    found = Features(
        letter,
        reduced,
        excluded,
        holes,
        vertical,
        horizontal,
        oblique,
        zeros,
        y_intercept,
        _ends(up, low),
        _range(reduced, letter, holes, vertical, excluded),
        [],
        not is_line,
    )
    found.grid_points.extend(grid_points(found))
    return found


def single(poly: Poly, letter: str, ring: Any) -> Poly:
    """The polynomial over the one letter. Raises OutOfScope when it holds another."""
    position = letters_of_ring(poly).index(letter)
    parts = {}
    for monomial, c in poly.to_dict().items():
        if any(power and k != position for k, power in enumerate(monomial)):
            raise OutOfScope("The function holds another letter.")
        parts[(int(monomial[position]),)] = c
    single: Poly = ring.from_dict(parts)
    return single


def _coefficients(poly: Poly, letter: str) -> list[int]:
    return integer_coefficients(poly, letter)


def real_zeros(polys: list[Poly], letter: str) -> list[Number]:
    """The real zeros of polynomials in one letter, in rising order."""
    found: set[Number] = set()
    for poly in irreducible_factors(polys).values():
        found |= set(numbers.roots_of(tuple(_coefficients(poly, letter))))
    return sorted(found)


def _height(value: Ratio, letter: str, x: Number) -> n.Node:
    """The value of the reduced function at a hole, written exactly. Raises OutOfScope where it is not worked out."""
    if x.rational is not None:
        return number_tree(value_at(value, letter, x.rational))
    tree = x.tree
    if tree is None:
        height = exact_height(value, letter, x)
        if height is None or height.tree is None:
            raise OutOfScope("A hole lies at a height that can't be written with roots.")
        return height.tree
    cell = RadicalField((), Plan(index=4), {}, {})
    cell.constants[letter] = value_of(tree, cell).ratio
    return simplified_tree(value_of(simplified_tree(value), cell).ratio)


def value_at(value: Ratio, letter: str, x: Q) -> Q:
    """The value of the function at a rational place of its domain."""

    def total(poly: Poly) -> Q:
        return sum((c * x**k for k, c in enumerate(_coefficients(poly, letter))), Q(0))

    return total(value.numerator) / total(value.denominator)


def _enclosed(value: Ratio, letter: str, x: Number, precision: int) -> Any:
    """A certified enclosure of the function's value at an irrational number, where it has one."""
    at = x.enclosed(precision)

    def total(poly: Poly) -> Any:
        return sum((at**k * c for k, c in enumerate(_coefficients(poly, letter))), at * 0)

    return total(value.numerator) / total(value.denominator)


def _quotient(value: Ratio, letter: str) -> n.Node:
    quotient, _ = divided(value, letter)
    ring = value.field
    total = ring.constant(0)
    for k, c in enumerate(quotient):
        total = total + ring.constant(c) * ring.letter(letter) ** k
    return polynomial_tree(total.numerator, ring.letters, int(total.denominator.leading_coefficient()))


def divided(value: Ratio, letter: str) -> tuple[list[Q], list[Q]]:
    """Quotient and remainder of numerator by denominator, lowest coefficient first."""
    up = [Q(c) for c in _coefficients(value.numerator, letter)]
    low = [Q(c) for c in _coefficients(value.denominator, letter)]
    quotient = [Q(0)] * max(len(up) - len(low) + 1, 1)
    while len(up) >= len(low):
        share = up[-1] / low[-1]
        shift = len(up) - len(low)
        quotient[shift] = share
        for k, c in enumerate(low):
            up[k + shift] -= share * c
        up.pop()
    return quotient, up


def ends_of(value: Ratio, letter: str) -> dict[str, Limit]:
    """The limits for x → ∞ and x → -∞, under + and -."""
    return _ends(_coefficients(value.numerator, letter), _coefficients(value.denominator, letter))


def _ends(up: list[int], low: list[int]) -> dict[str, Limit]:
    above, below = len(up) - 1, len(low) - 1
    if above < below:
        return {"+": Q(0), "-": Q(0)}
    if above == below:
        return {"+": Q(up[-1], low[-1]), "-": Q(up[-1], low[-1])}
    rising = (up[-1] > 0) == (low[-1] > 0)
    left = rising if (above - below) % 2 == 0 else not rising
    return {"+": "inf" if rising else "-inf", "-": "inf" if left else "-inf"}


# -- range ---------------------------------------------------------------------------------------------------------


def _range(
    value: Ratio, letter: str, holes: list[tuple[Number, n.Node]], vertical: list[Number], excluded: list[Number]
) -> RealSet | None:
    """The set of values, from the pieces between poles and turning points; None where an end is not written exactly."""
    if value.constant is not None:
        return RealSet.points([rational(value.constant)])
    return range_between(value, letter, [x for x, _ in holes], vertical, excluded, None, None)


def range_between(
    value: Ratio,
    letter: str,
    hole_places: list[Number],
    vertical: list[Number],
    excluded: list[Number],
    start: Number | None,
    stop: Number | None,
) -> RealSet | None:
    """The values on an open interval (None: without an end); None where one of its ends is not written exactly."""

    def inside(x: Number) -> bool:
        return (start is None or start < x) and (stop is None or x < stop)

    if value.constant is not None:
        return RealSet.points([rational(value.constant)])
    top, bottom = value.numerator, value.denominator
    slope = top.derivative(0) * bottom - top * bottom.derivative(0)
    turning = [t for t in real_zeros([slope], letter) if t not in vertical] if slope != 0 else []
    turning = [t for t in turning if inside(t)]
    hole_places, poles = [x for x in hole_places if inside(x)], [x for x in vertical if inside(x)]
    edges = [x for x in (start, stop) if x is not None and x not in vertical]
    heights: dict[Number, Number] = {}
    for t in [*turning, *hole_places, *edges]:
        height = exact_height(value, letter, t)
        if height is None:
            return None
        heights[t] = height
    ends = ends_of(value, letter)
    cuts = sorted({*poles, *turning, *hole_places})
    total = RealSet.points(())
    for k in range(len(cuts) + 1):
        left, right = cuts[k - 1] if k else start, cuts[k] if k < len(cuts) else stop
        a = ends["-"] if left is None else side_limit(value, letter, left, heights, before=False)
        b = ends["+"] if right is None else side_limit(value, letter, right, heights, before=True)
        total = total.combined(_between(a, b), lambda p, q: p or q)
    for t in turning:
        if t not in hole_places:
            total = total.combined(RealSet.points([heights[t]]), lambda p, q: p or q)
    far = [ends[sign] for sign, edge in (("+", stop), ("-", start)) if edge is None]
    limits = {rational(limit) for limit in far if isinstance(limit, Q)}
    for number in {*(heights[x] for x in hole_places), *(heights[x] for x in edges), *limits}:
        # a height that a hole or the horizontal asymptote leaves out may be reached elsewhere
        if any(inside(x) and x not in excluded for x in places_of(value, letter, number)):
            total = total.combined(RealSet.points([number]), lambda p, q: p or q)
    return total


def _between(first: Limit | Number, second: Limit | Number) -> RealSet:
    """The open interval between two limits, in whichever order; two equal ones have nothing between them."""
    ends = [rational(end) if isinstance(end, Q) else end for end in (first, second)]
    finite = sorted(end for end in ends if isinstance(end, Number))
    low = None if "-inf" in ends else finite[0] if finite else None
    high = None if "inf" in ends else finite[-1] if finite else None
    return RealSet.points(()) if low is not None and low == high else RealSet.interval(low, False, high, False)


def side_limit(value: Ratio, letter: str, x: Number, heights: dict[Number, Number], *, before: bool) -> Limit | Number:
    """The limit on one side of a cut: at a pole by the sign of the first derivative of the denominator that is not 0
    there."""
    if x in heights:
        return heights[x]
    sign, below = x.sign_of(_coefficients(value.numerator, letter)), _coefficients(value.denominator, letter)
    while True:
        below = [k * c for k, c in enumerate(below)][1:]
        if before:
            sign = -sign
        its = x.sign_of(below)
        if its:
            return "inf" if sign * its > 0 else "-inf"


def exact_height(value: Ratio, letter: str, x: Number) -> Number | None:
    """The value at x as an exact number: a root of the resultant that lies in the enclosure."""
    if x.rational is not None:
        return rational(value_at(value, letter, x.rational))
    both = field_of((letter, "y_")) if letter < "y_" else field_of(("y_", letter))
    ring = both.ring
    position = both.position(letter)

    def lifted(poly: Poly) -> Poly:
        parts = {}
        for monomial, c in poly.to_dict().items():
            place = [0, 0]
            place[position] = int(monomial[0])
            parts[tuple(place)] = c
        return ring.from_dict(parts)

    own = ring.from_dict(
        {tuple(k if j == position else 0 for j in range(2)): c for k, c in enumerate(x.polynomial) if c}
    )
    graph = lifted(value.numerator) - both.generators["y_"] * lifted(value.denominator)
    norm = graph.resultant(own, position)
    candidates = [
        root
        for poly in irreducible_factors([norm]).values()
        for root in numbers.roots_of(tuple(integer_coefficients(poly, "y_")))
    ]
    precision = numbers.PRECISION
    while len(candidates) > 1:  # different numbers: some precision tells them apart
        goal = _enclosed(value, letter, x, precision).real
        candidates = [root for root in candidates if root.enclosed(precision).real.overlaps(goal)]
        precision *= 2
    return candidates[0] if candidates else None


def places_of(value: Ratio, letter: str, number: Number) -> list[Number]:
    """Where a function that is not constant takes a rational value; an irrational one is not looked for."""
    y = number.rational
    if y is None:
        return []
    return real_zeros([value.numerator * y.denominator - value.denominator * y.numerator], letter)


def grid_points(found: Features, size: int = 10) -> list[tuple[Q, Q]]:
    """Points that fit a grid from −size to size, the friendliest first: whole coordinates, then halves and quarters."""
    points = []
    places = [Q(k, 1) for k in range(-size, size + 1)]
    places += [Q(k, 2) for k in range(-size, size + 1) if k % 2]
    known = set(found.excluded)
    for x in places:
        if rational(x) in known or rational(x) in found.x_intercepts or x == 0:
            continue
        y = value_at(found.value, found.letter, x)
        if abs(y) <= size:
            points.append((x, y))
    points.sort(key=lambda p: (p[1].denominator * p[0].denominator, p[1].denominator, abs(p[0]) + abs(p[1])))
    return points[:6]
