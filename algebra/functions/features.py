"""The features of a rational function in one letter, exact: domain, holes, asymptotes, intercepts, ends, range."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction as Q
from typing import Any

from algebra.exact import numbers
from algebra.exact.cell import Cell, Plan
from algebra.exact.errors import ExactError, OutOfScope
from algebra.exact.forms import polynomial_tree, simplified_tree
from algebra.exact.numbers import Number, rational
from algebra.exact.ratio import Poly, Ratio, field_of, integer_coefficients, irreducible_factors, letters_of_ring
from algebra.exact.realset import RealSet
from algebra.exact.values import Value, value_of
from algebra.parse.lines import read_expression
from algebra.tree.plain import plain

Limit = Q | str
"""A finite limit, or `inf` or `-inf`."""


@dataclass(frozen=True, slots=True)
class Features:
    """What is to be said of a function; values that are not rational are exact algebraic numbers."""

    letter: str
    value: Ratio
    excluded: list[Number]
    holes: list[tuple[Number, str]]
    vertical: list[Number]
    horizontal: Q | None
    oblique: str | None
    x_intercepts: list[Number]
    y_intercept: Q | None
    ends: dict[str, Limit]
    range: RealSet | None
    grid_points: list[tuple[Q, Q]] = field(default_factory=list)
    has_poles: bool = True

    @property
    def shifted_reciprocal(self) -> tuple[Q, Q, Q] | None:
        """(a, h, k) where the function is a/(x − h) + k, else None."""
        low = _coefficients(self.value.denominator, self.letter)
        if len(low) != 2 or len(_coefficients(self.value.numerator, self.letter)) > 2:
            return None
        quotient, rest = divided(self.value, self.letter)
        return (rest[0] if rest else Q(0)) / low[1], Q(-low[0], low[1]), quotient[0]

    def to_json(self) -> dict[str, object]:
        """The shape of `analyse --json`."""
        return {
            "format": 1,
            "excluded": [str(v) for v in self.excluded],
            "holes": [[str(x), y] for x, y in self.holes],
            "vertical_asymptotes": [str(v) for v in self.vertical],
            "horizontal_asymptote": None if self.horizontal is None else str(self.horizontal),
            "oblique_asymptote": self.oblique,
            "x_intercepts": [str(v) for v in self.x_intercepts],
            "y_intercept": None if self.y_intercept is None else str(self.y_intercept),
            "end_behaviour": {sign: str(limit) for sign, limit in self.ends.items()},
            "range": None if self.range is None else range_text(self.range),
            "grid_points": [[str(x), str(y)] for x, y in self.grid_points],
            "error": None,
        }


def range_text(found: RealSet) -> str:
    """`all`, `y ≠ 2` or intervals."""
    if found.is_cofinite:
        ends = [str(end) for end in found.ends]
        return f"y ≠ {', '.join(ends)}" if ends else "all"
    return str(found)


def features_of(given: Value, letter: str) -> Features:
    """The features of a rational function. Raises OutOfScope where it holds other letters or roots."""
    value = given.ratio
    if isinstance(value.field, Cell) and value.field.depends_on_added(value.numerator):
        raise OutOfScope("Only rational functions are analysed.", "√")
    plain_field = field_of((letter,))
    try:
        top = plain_field.ratio(_single(value.numerator, letter, plain_field.ring))
        bottom = plain_field.ratio(_single(value.denominator, letter, plain_field.ring))
    except KeyError:
        raise OutOfScope("The function holds another letter.") from None
    reduced = top / bottom
    excluded = _real_zeros([_single(p, letter, plain_field.ring) for p in given.nonzero], letter)
    vertical = _real_zeros([reduced.denominator], letter)
    holes = [(x, _height(reduced, letter, x)) for x in excluded if x not in vertical]
    up, low = _coefficients(reduced.numerator, letter), _coefficients(reduced.denominator, letter)
    n, d = len(up) - 1, len(low) - 1
    is_line = d == 0
    horizontal = None if is_line or n > d else Q(up[-1], low[-1]) if n == d else Q(0)
    oblique = _quotient_text(reduced, letter) if n == d + 1 and not is_line else None
    zeros = [x for x in _real_zeros([reduced.numerator], letter) if x not in excluded] if not reduced.is_zero else []
    zero = rational(0)
    y_intercept = None if zero in excluded else Q(up[0], low[0])
    found = Features(
        letter, reduced, excluded, holes, vertical, horizontal, oblique, zeros, y_intercept, _ends(up, low),
        _range(reduced, letter, holes, vertical, excluded), [], not is_line,
    )  # fmt: skip
    found.grid_points.extend(grid_points(found))
    return found


def _single(poly: Poly, letter: str, ring: Any) -> Poly:
    """The polynomial over the one letter; raises KeyError when it holds another."""
    position = letters_of_ring(poly).index(letter)
    parts = {}
    for monomial, c in poly.to_dict().items():
        if any(power and k != position for k, power in enumerate(monomial)):
            raise KeyError(letter)
        parts[(int(monomial[position]),)] = c
    single: Poly = ring.from_dict(parts)
    return single


def _coefficients(poly: Poly, letter: str) -> list[int]:
    return integer_coefficients(poly, letter)


def _real_zeros(polys: list[Poly], letter: str) -> list[Number]:
    found: set[Number] = set()
    for poly in irreducible_factors(polys).values():
        found |= set(numbers.roots_of(tuple(_coefficients(poly, letter))))
    return sorted(found, key=lambda x: x.approximation.real)


def _height(value: Ratio, letter: str, x: Number) -> str:
    """The value of the reduced function at a hole, written exactly."""
    if x.rational is not None:
        return str(value_at(value, letter, x.rational))
    cell = Cell((), Plan(index=4), {}, {})
    cell.constants[letter] = value_of(read_expression(str(x)), cell).ratio
    try:
        return plain(simplified_tree(value_of(simplified_tree(value), cell).ratio), tight=True)
    except ExactError:
        return f"{_approximate(value, letter, x):.3f}"


def value_at(value: Ratio, letter: str, x: Q) -> Q:
    def total(poly: Poly) -> Q:
        return sum((c * x**k for k, c in enumerate(_coefficients(poly, letter))), Q(0))

    return total(value.numerator) / total(value.denominator)


def _approximate(value: Ratio, letter: str, x: Number) -> float:
    def total(poly: Poly) -> Any:
        parts = enumerate(_coefficients(poly, letter))
        return sum((x.enclosure**k * c for k, c in parts), x.enclosure * 0)

    return float((total(value.numerator) / total(value.denominator)).real.mid())


def _quotient_text(value: Ratio, letter: str) -> str:
    quotient, _ = divided(value, letter)
    ring = value.field
    total = ring.constant(0)
    for k, c in enumerate(quotient):
        total = total + ring.constant(c) * ring.letter(letter) ** k
    return plain(polynomial_tree(total.numerator, ring.letters, int(total.denominator.leading_coefficient())))


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


def _ends(up: list[int], low: list[int]) -> dict[str, Limit]:
    n, d = len(up) - 1, len(low) - 1
    if n < d:
        return {"+": Q(0), "-": Q(0)}
    if n == d:
        return {"+": Q(up[-1], low[-1]), "-": Q(up[-1], low[-1])}
    rising = (up[-1] > 0) == (low[-1] > 0)
    left = rising if (n - d) % 2 == 0 else not rising
    return {"+": "inf" if rising else "-inf", "-": "inf" if left else "-inf"}


# -- range ---------------------------------------------------------------------------------------------------------


def _range(
    value: Ratio, letter: str, holes: list[tuple[Number, str]], vertical: list[Number], excluded: list[Number]
) -> RealSet | None:
    """The set of values, from the pieces between poles and turning points; None where an end is not written exactly."""
    if value.constant is not None:
        return RealSet.points([rational(value.constant)])
    top, bottom = value.numerator, value.denominator
    slope = top.derivative(0) * bottom - top * bottom.derivative(0)
    turning = [t for t in _real_zeros([slope], letter) if t not in vertical] if slope != 0 else []
    heights: dict[Number, Number] = {}
    for t in [*turning, *(x for x, _ in holes)]:
        height = _exact_height(value, letter, t)
        if height is None:
            return None
        heights[t] = height
    up, low = _coefficients(top, letter), _coefficients(bottom, letter)
    ends = _ends(up, low)
    cuts = sorted({*vertical, *turning, *(x for x, _ in holes)}, key=lambda c: c.approximation.real)
    hole_places = {x for x, _ in holes}
    total = RealSet.points(())
    for k in range(len(cuts) + 1):
        left, right = cuts[k - 1] if k else None, cuts[k] if k < len(cuts) else None
        a = ends["-"] if left is None else _side_limit(value, letter, left, heights, before=False)
        b = ends["+"] if right is None else _side_limit(value, letter, right, heights, before=True)
        low_end, high_end = sorted((_number(a), _number(b)), key=_size)
        total = total.combined(RealSet.interval(_finite(low_end), False, _finite(high_end), False), lambda p, q: p or q)
    for t in turning:
        if t not in hole_places:
            total = total.combined(RealSet.points([heights[t]]), lambda p, q: p or q)
    for number in {*(heights[x] for x in hole_places), *({rational(ends["+"])} if isinstance(ends["+"], Q) else set())}:
        # a height that a hole or the horizontal asymptote leaves out may be reached elsewhere
        if _reached(value, letter, number, excluded):
            total = total.combined(RealSet.points([number]), lambda p, q: p or q)
    return total


def _size(item: Number | str) -> float:
    return item.approximation.real if isinstance(item, Number) else float(item)


def _finite(item: Number | str) -> Number | None:
    return item if isinstance(item, Number) else None


def _number(limit: Limit | Number) -> Number | str:
    return limit if isinstance(limit, Number | str) else rational(limit)


def _side_limit(value: Ratio, letter: str, x: Number, heights: dict[Number, Number], *, before: bool) -> Limit | Number:
    if x in heights:
        return heights[x]
    step = 1e-7 * max(1.0, abs(x.approximation.real))
    near = Q(x.approximation.real + (-step if before else step))
    return "inf" if value_at(value, letter, near) > 0 else "-inf"


def _exact_height(value: Ratio, letter: str, x: Number) -> Number | None:
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
    goal = _approximate(value, letter, x)
    best = None
    for poly in irreducible_factors([norm]).values():
        parts = integer_coefficients(poly, "y_")
        for root in numbers.roots_of(tuple(parts)):
            if abs(root.approximation.real - goal) < 1e-9 * max(1.0, abs(goal)):
                best = root
    return best


def _reached(value: Ratio, letter: str, number: Number, excluded: list[Number]) -> bool:
    """Whether the function takes a rational value at a place of its domain."""
    y = number.rational
    if y is None:
        return False
    solved = value.numerator * y.denominator - value.denominator * y.numerator
    return solved == 0 or any(x not in excluded for x in _real_zeros([solved], letter))


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
