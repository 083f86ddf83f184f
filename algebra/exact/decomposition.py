"""The decomposition of the letters' values into cells: cut up where a polynomial under a root or in bars changes its sign."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from fractions import Fraction as Q
from itertools import chain, count, product
from math import lcm
from typing import TypeVar

from algebra.exact.algebraic_numbers import Number, rational, roots_of
from algebra.exact.effort import spend
from algebra.exact.errors import TooLarge
from algebra.exact.generators import MAX_INDEX, SPARE, Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, integer_coefficients, letters_of_ring, ring_name
from algebra.exact.sample_points import FRIENDLY
from algebra.exact.sign_determination import SignUnknown
from algebra.tree import nodes as n

T = TypeVar("T")
MAX_POLYNOMIALS = 8
MAX_POINTS = 1000
"""Most points of the grid on which sign vectors are looked for; a sign vector it misses stays possible."""


def plan_of(trees: Iterable[n.Node], *, imaginary: bool, spare: int = SPARE) -> Plan | None:
    """What cells these trees need, or None when rational functions do. Raises TooLarge for roots of roots too high."""
    index, step, needed = 2, 1, False
    for tree in trees:
        for found, divisor in _demands(tree):
            needed = True
            index, step = lcm(index, found), lcm(step, divisor)
        needed = needed or (imaginary and "i" in n.letters(tree))
    if index > MAX_INDEX or step > 12:
        raise TooLarge(f"These roots together need an index above {MAX_INDEX}.", "√")
    return Plan(index, step, imaginary, spare) if needed else None


def roots_over(tree: n.Node, letter: str) -> frozenset[n.Node]:
    """The roots and bars that hold the letter, and powers of it above which no plain whole number stands: they decide where the tree is
    defined."""
    found = set()
    for part in n.parts_of(tree):
        if isinstance(part, (n.Root, n.Absolute)) or (
            isinstance(part, n.Power) and type(part.exponent) is not n.Integer
        ):
            inside = part.base if isinstance(part, n.Power) else part
            if letter in n.letters(inside):
                found.add(part)
    return frozenset(found)


def _demands(tree: n.Node) -> Iterator[tuple[int, int]]:
    """Root indices, multiplied along the nesting, and denominators of exponents that hold letters."""
    waiting = [(tree, 1)]
    for node, outer in waiting:  # grows while it is walked
        kind = type(node)
        if not node.parts:
            continue
        if kind is n.Root:
            index = node.index  # type: ignore[attr-defined]
            own = max(index.value, 1) if isinstance(index, n.Integer) else 2
            yield outer * own, 1
            waiting.append((node.radicand, outer * own))  # type: ignore[attr-defined]
        elif kind is n.Power and type(node.exponent) is not n.Integer:  # type: ignore[attr-defined]
            base, exponent = node.children
            below = lcm(1, *(d for part in n.parts_of(exponent) for d in _denominators(part)))
            if n.letters(exponent):
                yield outer, below * outer
            elif below > 1:
                yield outer * below, 1
            waiting.append((base, outer * below))
        else:
            if kind is n.Absolute:
                yield outer, 1
            waiting += [(child, outer) for child in node.children]


def _denominators(node: n.Node) -> Iterator[int]:
    if isinstance(node, n.Decimal):
        yield node.value.denominator
    elif isinstance(node, n.Mixed):
        yield node.denominator or 1
    elif isinstance(node, n.Fraction):
        bottom = n.bare(node.denominator)
        if isinstance(bottom, n.Integer) and bottom.value:
            yield bottom.value


class Decomposition:
    """Cuts the letters' values into cells, as finely as the evaluations ask for."""

    def __init__(self, letters: tuple[str, ...], plan: Plan, positive: frozenset[str] = frozenset()) -> None:
        self.letters = letters
        self.plan = plan
        self.positive = positive
        self.polys: dict[str, Poly] = {}
        self._current: tuple[int, list[RadicalField]] = (-1, [])

    def each(self, judge: Callable[[RadicalField], T]) -> list[tuple[RadicalField, T]]:
        """The judgement on every cell. Where one asks for a sign that is not known, the cells are cut again."""
        for _ in range(MAX_POLYNOMIALS + 1):
            try:
                return [(cell, judge(cell)) for cell in self.now()]
            except SignUnknown as asked:
                # kept without its ring, so that the cell it came from can go
                self.polys[str(asked.poly)] = asked.poly
        raise TooLarge(f"More than {MAX_POLYNOMIALS} different expressions stand under roots.", "√")

    def now(self) -> list[RadicalField]:
        """The cells as they are cut so far; the same objects until they are cut again."""
        if self._current[0] != len(self.polys):
            self._current = (len(self.polys), self._cut())
        return self._current[1]

    def _cut(self) -> list[RadicalField]:
        used = sorted({letter for poly in self.polys.values() for letter in self._letters_of(poly)})
        if not used:
            return [self._cell({name: Q(2) for name in self.letters}, {})]
        if len(used) == 1:
            return self._intervals(used[0])
        return self._regions(used)

    def _letters_of(self, poly: Poly) -> list[str]:
        return [name for name, power in zip(_names(poly), poly.degrees(), strict=True) if power]

    def _cell(self, sample: dict[str, Q], signs: dict[str, int], *, bounded: bool = True) -> RadicalField:
        whole = {name: Q(3) + k for k, name in enumerate(self.letters)} | sample
        return RadicalField(self.letters, self.plan, whole, signs, bounded=bounded)

    def _intervals(self, letter: str) -> list[RadicalField]:
        """The open intervals between all real zeros, each with a simple sample."""
        zeros: set[Number] = set()
        for poly in self.polys.values():
            zeros |= set(roots_of(tuple(integer_coefficients(poly, letter))))
        ends = [None, *sorted(zeros), None]
        samples = [between(low, high) for low, high in zip(ends, ends[1:], strict=False)]
        cells = []
        for sample in samples:
            if letter in self.positive and sample <= 0:
                continue
            signs = {key: _sign_at(integer_coefficients(poly, letter), sample) for key, poly in self.polys.items()}
            cells.append(self._cell({letter: sample}, signs))
        return cells

    def _regions(self, used: list[str]) -> list[RadicalField]:
        """Every sign vector that a point of the grid has, and those that nothing rules out."""
        friendly = [value for value in FRIENDLY if value != 0]
        size = max(k for k in range(2, 9) if k ** len(used) <= MAX_POINTS or k == 2)
        grid = friendly[:size]
        found: dict[tuple[int, ...], dict[str, Q]] = {}
        keys = list(self.polys)
        for values in product(grid, repeat=len(used)):
            spend()
            point = dict(zip(used, values, strict=True))
            if any(point[name] < 0 for name in used if name in self.positive):
                continue
            signs = tuple(_sign_of(self.polys[key], point) for key in keys)
            if 0 not in signs:
                found.setdefault(signs, point)
        cells = [self._cell(point, dict(zip(keys, signs, strict=True))) for signs, point in found.items()]
        for signs in product((1, -1), repeat=len(keys)):
            if signs not in found and self._possible(dict(zip(keys, signs, strict=True))):
                cells.append(self._cell({}, dict(zip(keys, signs, strict=True)), bounded=False))
        return cells

    def _possible(self, signs: dict[str, int]) -> bool:
        """False when the signs of single letters settle the sign of a polynomial otherwise."""
        letters = {name: signs[ring_name(name)] for name in self.letters if ring_name(name) in signs}
        if any(letters.get(name) == -1 for name in self.positive):
            return False
        known = dict.fromkeys(self.positive, 1) | letters
        for key, sign in signs.items():
            if _shared_sign(self.polys[key], known) == -sign:
                return False
        # p = λq + rest, where λq and the rest have one sign, has that sign
        for (key, sign), (other, its) in product(signs.items(), repeat=2):
            p, q = self.polys[key], self.polys[other]
            if key == other or p.context() is not q.context():
                continue
            shared = q.to_dict()
            for share in {Q(int(c), int(shared[m])) for m, c in p.to_dict().items() if m in shared}:
                rest = share.denominator * p - share.numerator * q
                forced = its if share > 0 else -its
                if forced == -sign and (rest == 0 or _shared_sign(rest, known) == forced):
                    return False
        return True


def _shared_sign(poly: Poly, known: Mapping[str, int]) -> int | None:
    """The sign that all terms of a polynomial have, by the signs of single letters; None where they differ or are not known."""
    shared: set[int] = set()
    for monomial, coefficient in poly.to_dict().items():
        sign = 1 if coefficient > 0 else -1
        for name, power in zip(_names(poly), monomial, strict=True):
            if power % 2:
                if name not in known:
                    return None
                sign *= known[name]
        shared.add(sign)
    return shared.pop() if len(shared) == 1 else None


def _names(poly: Poly) -> tuple[str, ...]:
    return letters_of_ring(poly)


def _sign_at(coefficients: list[int], value: Q) -> int:
    total = sum(c * value**k for k, c in enumerate(coefficients))
    return (total > 0) - (total < 0)


def _sign_of(poly: Poly, point: dict[str, Q]) -> int:
    total = Q(0)
    for monomial, coefficient in poly.to_dict().items():
        term = Q(int(coefficient))
        for name, power in zip(_names(poly), monomial, strict=True):
            if power:
                term *= point[name] ** int(power)
        total += term
    return (total > 0) - (total < 0)


def between(low: Number | None, high: Number | None) -> Q:
    """A friendly number strictly between two real numbers; None stands for no bound."""
    if low is None and high is None:
        return Q(2)
    if low is None:
        assert high is not None
        return Q(high.floor - 1)
    if high is None:
        return Q(low.floor + 2)
    for value in FRIENDLY:
        if low < rational(value) < high:
            return value
    for bottom in chain((1, 2, 4), (10**k for k in count(1))):
        value = Q(low.times(bottom).floor + 1, bottom)
        if low < rational(value) < high:
            return value
    raise AssertionError("some decimal lies between two different numbers")
