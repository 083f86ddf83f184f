"""Numbers to try: small friendly values, in the order in which a teacher would try them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from fractions import Fraction as Q
from itertools import chain, islice
from typing import TypeVar

Value = TypeVar("Value")
FRIENDLY = tuple(Q(v) for v in (2, 3, 1, 4, 5, -1, 0, -2, 10, 6, 7, -3)) + (Q(1, 2), Q(9), Q(-5))
"""Values in the order in which a teacher would try them: 0 and 1 hide too many errors to come first."""
MAX_TRIES = 600
_FRIENDLIEST = 6
"""How many of the values are tried for each of several letters."""


def friendly_points(letters: list[str]) -> Iterator[dict[str, Q]]:
    """Points to try, the friendliest first; with several letters, different values come before equal ones."""
    if len(letters) <= 1:
        for value in FRIENDLY:
            yield dict.fromkeys(letters, value)
        return
    for point in islice(chain(_places(len(letters), apart=True), _places(len(letters), apart=False)), MAX_TRIES):
        yield {letter: FRIENDLY[k] for letter, k in zip(letters, point, strict=True)}


def _places(count: int, *, apart: bool) -> Iterator[tuple[int, ...]]:
    """So many places in the list of friendly values, by their sum, then in order: all different, or not."""
    if apart and count > _FRIENDLIEST:
        return
    for total in range((_FRIENDLIEST - 1) * count + 1):
        for places in _of_sum(total, count):
            if (len(set(places)) == count) == apart:
                yield places


def _of_sum(total: int, count: int) -> Iterator[tuple[int, ...]]:
    if count == 0:
        yield ()
        return
    most = _FRIENDLIEST - 1
    for first in range(max(0, total - most * (count - 1)), min(most, total) + 1):
        yield from ((first, *rest) for rest in _of_sum(total - first, count - 1))


def breaking_point(
    letters: list[str],
    values: Callable[[dict[str, Q]], tuple[Value | None, Value | None] | None],
    extra: list[dict[str, Q]],
) -> tuple[dict[str, Q], Value | None, Value | None] | None:
    """The friendliest point at which two expressions differ, both defined if possible, with both values.

    `values` gives both at a point, or None where the point must not be used; `extra` are tried last.
    """
    half_defined = None
    for point in (*friendly_points(letters), *extra):
        found = values(point)
        if found is None or found[0] == found[1]:
            continue
        if found[0] is not None and found[1] is not None:
            return point, *found
        if half_defined is None:
            half_defined = (point, *found)
    return half_defined
