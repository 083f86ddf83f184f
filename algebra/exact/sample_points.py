"""Numbers to try: small friendly values, in the order in which a teacher would try them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from fractions import Fraction as Q
from itertools import product
from typing import TypeVar

Value = TypeVar("Value")
FRIENDLY = tuple(Q(v) for v in (2, 3, 1, 4, 5, -1, 0, -2, 10, 6, 7, -3)) + (Q(1, 2), Q(9), Q(-5))
"""Values in the order in which a teacher would try them: 0 and 1 hide too many errors to come first."""
MAX_TRIES = 600


def friendly_points(letters: list[str]) -> Iterator[dict[str, Q]]:
    """Points to try, the friendliest first; with several letters, different values come before equal ones."""
    if len(letters) <= 1:
        for value in FRIENDLY:
            yield dict.fromkeys(letters, value)
        return
    pools = [FRIENDLY[:6]] * len(letters)
    points = sorted(product(range(6), repeat=len(letters)), key=lambda p: (len(set(p)) < len(p), sum(p), p))
    for point in points[:MAX_TRIES]:
        yield {letter: pool[k] for letter, pool, k in zip(letters, pools, point, strict=True)}


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
