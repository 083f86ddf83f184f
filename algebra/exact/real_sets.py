"""Sets of real numbers with finitely many ends: unions of intervals and points, exact."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from algebra.exact.algebraic_numbers import Number


@dataclass(frozen=True, slots=True)
class RealSet:
    """`ends` in rising order; `inside[k]` tells of the open piece before `ends[k]` (the last: after all), `on[k]` of
    the end."""

    ends: tuple[Number, ...]
    inside: tuple[bool, ...]
    on: tuple[bool, ...]

    @staticmethod
    def of(ends: Iterable[Number], inside: Callable[[int], bool], on: Callable[[Number], bool]) -> RealSet:
        """The set with these possible ends; ends at which nothing changes are left out."""
        ordered = sorted(set(ends))
        return _tidy(ordered, [inside(k) for k in range(len(ordered) + 1)], [on(end) for end in ordered])

    @staticmethod
    def points(numbers: Iterable[Number], *, outside: bool = False) -> RealSet:
        """Just these numbers, or (`outside`) all others."""
        return RealSet.of(numbers, lambda _: outside, lambda _: not outside)

    @staticmethod
    def interval(low: Number | None, low_closed: bool, high: Number | None, high_closed: bool) -> RealSet:
        """From low to high; None stands for infinity."""
        whole = RealSet((), (True,), ())
        if low is not None:
            whole = whole.combined(RealSet((low,), (False, True), (low_closed,)), lambda a, b: a and b)
        if high is not None:
            whole = whole.combined(RealSet((high,), (True, False), (high_closed,)), lambda a, b: a and b)
        return whole

    def combined(self, other: RealSet, rule: Callable[[bool, bool], bool]) -> RealSet:
        """The numbers for which the rule holds of being in the one and in the other."""
        ends = sorted({*self.ends, *other.ends})
        inside, on = [], []
        for k in range(len(ends) + 1):
            before = ends[k] if k < len(ends) else None
            inside.append(rule(self._piece(before), other._piece(before)))
            if before is not None:
                on.append(rule(before in self, before in other))
        return _tidy(ends, inside, on)

    def _piece(self, before: Number | None) -> bool:
        """Whether the open piece that ends at this number (None: the last) belongs to the set."""
        if before is None:
            return self.inside[-1]
        for k, end in enumerate(self.ends):
            if before <= end:
                return self.inside[k]
        return self.inside[-1]

    def __contains__(self, number: Number) -> bool:
        for k, end in enumerate(self.ends):
            if end == number:
                return self.on[k]
            if number < end:
                return self.inside[k]
        return self.inside[-1]

    @property
    def is_finite(self) -> bool:
        """Whether it holds single numbers only, or nothing."""
        return not any(self.inside)

    @property
    def is_cofinite(self) -> bool:
        """Whether it is all numbers but single ones."""
        return all(self.inside)

    @property
    def pieces(self) -> list[tuple[Number | None, bool, Number | None, bool]]:
        """The intervals in rising order: low end, whether it belongs to it, high end, whether it does; a point is both
        ends."""
        pieces: list[tuple[Number | None, bool, Number | None, bool]] = []
        start, closed, is_open = None, False, False
        for k in range(len(self.ends) + 1):
            end = self.ends[k] if k < len(self.ends) else None
            if self.inside[k] and not is_open:
                start, closed, is_open = (self.ends[k - 1], self.on[k - 1], True) if k else (None, False, True)
            if is_open and (end is None or not (self.on[k] and self.inside[k + 1])):
                pieces.append((start, closed, end, end is not None and self.on[k]))
                is_open = False
            elif end is not None and self.on[k] and not self.inside[k] and not self.inside[k + 1]:
                pieces.append((end, True, end, True))
        return pieces

    def __str__(self) -> str:
        """Interval notation: `(-∞, 2] ∪ {5}`."""
        found = []
        for low, low_closed, high, high_closed in self.pieces:
            if low is not None and low == high:
                found.append(f"{{{low}}}")
            else:
                left = f"{'[' if low_closed else '('}{'-∞' if low is None else low}"
                found.append(f"{left}, {'∞' if high is None else high}{']' if high_closed else ')'}")
        return " ∪ ".join(found)


def _tidy(ends: list[Number], inside: list[bool], on: list[bool]) -> RealSet:
    kept: list[Number] = []
    pieces, marks = [inside[0]], []
    for k, end in enumerate(ends):
        if inside[k] == on[k] == inside[k + 1]:
            continue
        kept.append(end)
        marks.append(on[k])
        pieces.append(inside[k + 1])
    return RealSet(tuple(kept), tuple(pieces), tuple(marks))
