"""What a problem is found by again: its family, how hard it is, the ways that lead to its answer, the slips that lurk
in it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from hashlib import sha256

from algebra.foresee.predict import predict
from algebra.parse.errors import ReadingError
from algebra.records import record
from algebra.reports.working import TaskError, Working
from algebra.sets.likeness import likeness
from algebra.ways.solve import all_methods

MOST_SLIPS = 8


@record(frozen=True)
class Entry:
    """Ids of a family, of methods and slips, the likeliest first; `likeness` is the same for the same item; `rating`
    from 1 to 10, None where the problem is not worked."""

    family: str
    rating: float | None
    methods: tuple[str, ...]
    slips: tuple[str, ...]
    likeness: str


def entry_of(working: Working, *, untaught: Iterable[str] = ()) -> Entry:
    """The entry of a problem. Never raises: what is not known of it is empty."""
    working = replace(working, lines=())
    try:
        found = likeness(working)
    except (TaskError, ReadingError):
        found = f"{working.task}: {working.given}"
    key = sha256(found.encode()).hexdigest()[:32]
    try:
        ways = all_methods(replace(working, method=None), untaught=untaught)
    except (TaskError, ReadingError):
        ways = []
    try:
        wrong = predict(working, most=MOST_SLIPS).wrong
    except (TaskError, ReadingError):
        wrong = ()
    slips = tuple(dict.fromkeys(slip for item in wrong for slip in item.slips))
    family = ways[0].family if ways else "rational-functions" if working.task == "analyze" else ""
    rating = ways[0].difficulty.rating if ways else None
    return Entry(family, rating, tuple(way.method for way in ways if way.method), slips, key)
