"""The decomposition of the letters' values into cells: cut up where a polynomial under a root or in bars changes its
sign."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from fractions import Fraction as Q
from itertools import chain, count, islice, product
from math import lcm
from typing import NamedTuple, TypeVar

from algebra.exact.algebraic_numbers import Number, rational, roots_of
from algebra.exact.definite import PI, PI_ABOUT, definite_sign, shared_sign, sign_at_point, used_letters
from algebra.exact.effort import spend
from algebra.exact.errors import TooLarge
from algebra.exact.generators import MAX_INDEX, SPARE, Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import (
    Field,
    Poly,
    field_of,
    integer_coefficients,
    irreducible_factors,
    ring_name,
    text_of,
)
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


def field_for(trees: list[n.Node], *, formal: bool = False) -> Field:
    """A field that holds the values of these expressions: rational functions, or one cell where roots need it; `formal`
    takes every sign for granted. Raises TooLarge."""
    names = tuple(sorted({name for tree in trees for name in n.letters(tree)}))
    plan = plan_of(trees, imaginary=False)
    if plan is None:
        return field_of(names)
    return RadicalField(names, plan, {name: Q(2 + k) for k, name in enumerate(names)}, {}, formal=formal)


def roots_over(tree: n.Node, letter: str) -> frozenset[n.Node]:
    """The roots and bars that hold the letter, and powers of it above which no plain whole number stands: they decide
    where the tree is defined."""
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
        if not node.parts:
            continue
        if isinstance(node, n.Root):
            index = node.index
            own = max(index.value, 1) if isinstance(index, n.Integer) else 2
            yield outer * own, 1
            waiting.append((node.radicand, outer * own))
        elif isinstance(node, n.Power) and not isinstance(node.exponent, n.Integer):
            base, exponent = node.children
            below = lcm(1, *(d for part in n.parts_of(exponent) for d in _denominators(part)))
            if n.letters(exponent):
                yield outer, below * outer
            elif below > 1:
                yield outer * below, 1
            waiting.append((base, outer * below))
        else:
            if isinstance(node, n.Absolute):
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


Bound = tuple[Poly, int]
"""A polynomial in the letters, with the sign that it is assumed to have."""


class Decomposition:
    """Cuts the letters' values into cells, as finely as the evaluations ask for; `bounds` leave out what breaks
    them."""

    def __init__(self, letters: tuple[str, ...], plan: Plan, bounds: Iterable[Bound] = ()) -> None:
        self.letters = letters
        self.plan = plan
        self.bounds = {text_of(poly): (poly, sign) for poly, sign in bounds}
        self.polys: dict[str, Poly] = {}
        self._current: tuple[int, list[RadicalField]] = (-1, [])

    def each(self, judge: Callable[[RadicalField], T]) -> list[tuple[RadicalField, T]]:
        """The judgement on every cell. Where one asks for a sign that is not known, the cells are cut again."""
        return self._cut_until(lambda: [(cell, judge(cell)) for cell in self.now()])

    def any(self, judge: Callable[[RadicalField], bool]) -> bool:
        """Whether the judgement holds on some cell; looked at until one is found."""
        return self._cut_until(lambda: any(judge(cell) for cell in self.now()))

    def _cut_until(self, work: Callable[[], T]) -> T:
        for _ in range(MAX_POLYNOMIALS + 1):
            try:
                return work()
            except SignUnknown as asked:
                # kept without its ring, so that the cell it came from can go
                self.polys[text_of(asked.poly)] = asked.poly
        raise TooLarge(f"More than {MAX_POLYNOMIALS} different expressions stand under roots.", "√")

    def now(self) -> list[RadicalField]:
        """The cells as they are cut so far; the same objects until they are cut again."""
        if self._current[0] != len(self.polys):
            self._current = (len(self.polys), self._cut())
        return self._current[1]

    def _cut(self) -> list[RadicalField]:
        used = {letter for poly in self.polys.values() for letter in used_letters(poly)}
        cutting, rest = dict(self.polys), dict(self.bounds)
        grown = True
        while grown and used:  # a bound counts where it shares a letter with what is cut by
            grown = False
            for key, (poly, _) in list(rest.items()):
                letters = set(used_letters(poly))
                if letters & used:
                    cutting[key], used, grown = poly, used | letters, True
                    del rest[key]
        apart = _point_within(list(rest.values()))
        if apart is None:
            return []  # nothing is as assumed
        used.discard(PI)
        if not used:
            return [self._cell(apart, {})]
        if len(used) == 1 and not any(PI in used_letters(poly) for poly in cutting.values()):
            return self._intervals(next(iter(used)), cutting, apart)
        return self._regions(sorted(used), cutting, apart)

    def _cell(
        self, sample: dict[str, Q], signs: dict[str, int], *, bounded: bool = True, connected: bool = True
    ) -> RadicalField:
        whole = {name: PI_ABOUT if name == PI else Q(3) + k for k, name in enumerate(self.letters)} | sample
        signs = {key: sign for key, (_, sign) in self.bounds.items()} | signs
        return RadicalField(self.letters, self.plan, whole, signs, bounded=bounded, connected=connected)

    def _is_as_assumed(self, signs: Mapping[str, int]) -> bool:
        return all(signs[key] == sign for key, (_, sign) in self.bounds.items() if key in signs)

    def _intervals(self, letter: str, cutting: Mapping[str, Poly], apart: dict[str, Q]) -> list[RadicalField]:
        """The open intervals between all real zeros, each with a simple sample."""
        cells = []
        for sample in _samples(letter, cutting.values()):
            signs = {key: sign_at_point(poly, {letter: sample}) for key, poly in cutting.items()}
            if self._is_as_assumed(signs):
                cells.append(self._cell(apart | {letter: sample}, signs))
        return cells

    def _regions(self, used: list[str], cutting: Mapping[str, Poly], apart: dict[str, Q]) -> list[RadicalField]:
        """Every sign vector that a point of the grid has, and those that nothing rules out."""
        size = max(k for k in range(2, 9) if k ** len(used) <= MAX_POINTS or k == 2)
        found: dict[tuple[int, ...], dict[str, Q]] = {}
        keys = list(cutting)
        for values in product(*(self._pool(name, size) for name in used)):
            spend()
            point = dict(zip(used, values, strict=True))
            signs = tuple(sign_at_point(cutting[key], point) for key in keys)
            if 0 not in signs and self._is_as_assumed(dict(zip(keys, signs, strict=True))):
                found.setdefault(signs, point)
        cells = [
            self._cell(apart | point, dict(zip(keys, signs, strict=True)), connected=False)
            for signs, point in found.items()
        ]
        ties = list(_ties(cutting))
        for signs in product((1, -1), repeat=len(keys)):
            named = dict(zip(keys, signs, strict=True))
            if signs not in found and self._is_as_assumed(named) and self._possible(cutting, ties, named):
                cells.append(self._cell(apart, named, bounded=False, connected=False))
        return cells

    def _pool(self, letter: str, size: int) -> list[Q]:
        """Values to try for a letter: friendly ones, and such as its own bounds leave."""
        own = [(poly, sign) for poly, sign in self.bounds.values() if used_letters(poly) == [letter]]
        values = [value for value in FRIENDLY if value != 0]
        if own:
            values = [*values, *_samples(letter, [poly for poly, _ in own])]
            values = [v for v in values if all(sign_at_point(p, {letter: v}) == sign for p, sign in own)]
        return list(dict.fromkeys(values))[:size]

    def _possible(self, cutting: Mapping[str, Poly], ties: Iterable[_Tie], signs: dict[str, int]) -> bool:
        """False when the signs of single letters settle the sign of a polynomial otherwise."""
        spend(len(signs))
        known = {PI: 1} | {name: signs[ring_name(name)] for name in self.letters if ring_name(name) in signs}
        for key, sign in signs.items():
            if definite_sign(cutting[key], known) == -sign:
                return False
        for tie in ties:
            forced = signs[tie.other] * tie.share
            if forced == -signs[tie.key] and (tie.rest == 0 or shared_sign(tie.rest, known) == forced):
                return False
        return True


class _Tie(NamedTuple):
    """p = λq + rest: where λq and the rest have one sign, p has it. `share` is the sign of λ."""

    key: str
    other: str
    share: int
    rest: Poly


def _ties(polys: Mapping[str, Poly]) -> Iterator[_Tie]:
    """How the sign of one polynomial hangs on that of another, for every term that both have."""
    for (key, p), (other, q) in product(polys.items(), repeat=2):
        if key == other or p.context() is not q.context():
            continue
        shared = q.to_dict()
        for share in {Q(int(c), int(shared[m])) for m, c in p.to_dict().items() if m in shared}:
            spend()
            yield _Tie(key, other, 1 if share > 0 else -1, share.denominator * p - share.numerator * q)


def _samples(letter: str, polys: Iterable[Poly]) -> list[Q]:
    """A simple number of each open interval between the real zeros of polynomials in one letter."""
    zeros: set[Number] = set()
    for poly in polys:
        for factor in irreducible_factors([poly]).values():
            zeros |= set(roots_of(tuple(integer_coefficients(factor, letter))))
    ends = [None, *sorted(zeros), None]
    return [between(low, high) for low, high in zip(ends, ends[1:], strict=False)]


def _point_within(bounds: list[Bound]) -> dict[str, Q] | None:
    """A point at which every bound holds; {} for none; None where none is found."""
    letters = sorted({name for poly, _ in bounds for name in used_letters(poly)} - {PI})
    if not letters:
        return {}
    pools = []
    for letter in letters:
        own = [poly for poly, _ in bounds if used_letters(poly) == [letter]]
        pools.append([*(value for value in FRIENDLY if value != 0), *_samples(letter, own)])
    for values in islice(product(*pools), MAX_POINTS):
        point = dict(zip(letters, values, strict=True))
        if all(sign_at_point(poly, point) == sign for poly, sign in bounds):
            return point
    return None


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
