"""The one door by which lines are kept: written on a revision, judged outside of any lock, and their report saved only
on the revision that it was made from.

Where the lines stand is a `Place`: a teacher's working on a sheet, a student's in a set, a problem of a student's own
page. What differs between those is in their places; how two who write at once get along is here alone.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Generic, Literal, Protocol, TypeVar

from django.db import IntegrityError, transaction

from algebra import JsonValue
from server.common.problems import Conflict

J = TypeVar("J")
Fate = Literal["same", "new", "changed"]
"""What became of lines that were to be kept: they stood there already, are the first, or stand in place of others."""
TRIES = 20
"""How often lines that go over whatever stands there are tried, when others write at the same time."""


@dataclass(frozen=True, slots=True)
class Stored:
    """What stands in a place. Revision 0 with no lines is a place where nothing was written yet; `judged`: its report
    was made from just this."""

    lines: list[str]
    revision: int
    judged: bool
    exists: bool = True


class Place(Protocol):
    """Where the lines of one working stand."""

    def read(self) -> Stored:
        """What stands there now."""
        ...

    def write(self, stored: Stored, lines: list[str]) -> bool:
        """Puts the lines there with the next revision and without a report, unless the revision has changed since it
        was read: False then, and nothing is changed. Runs in a transaction; may raise IntegrityError where another
        makes the same row."""
        ...

    def overtaken(self, stored: Stored) -> str:
        """What is said to who wrote on an older revision."""
        ...


@dataclass(frozen=True, slots=True)
class Kept(Generic[J]):
    """What became of the lines, the revision on which they stand, and what judging them gave: None where they were
    judged before, or nobody had time for it."""

    fate: Fate
    revision: int
    judged: J | None = None


def put(place: Place, lines: list[str], revision: int | None = None) -> Kept[object]:
    """Keeps lines that were written on a revision; without one they go over whatever stands there. The same lines once
    more change nothing, whatever they were written on: the answer to a write that arrived may be lost. Raises Conflict,
    with what stands there, where others were written since."""
    for _ in range(TRIES):
        stored = place.read()
        if stored.exists and stored.lines == lines:
            return Kept("same", stored.revision)
        if revision is not None and stored.revision != revision:
            raise _conflict(place, stored)
        try:
            with transaction.atomic():
                if place.write(stored, lines):
                    return Kept("changed" if stored.exists else "new", stored.revision + 1)
        except IntegrityError:
            continue  # another made the same row at this moment
    raise _conflict(place, place.read())


def keep(
    place: Place,
    lines: list[str],
    revision: int | None,
    *,
    judge: Callable[[list[str]], J | None],
    save: Callable[[J | None, int], bool],
) -> Kept[J]:
    """Keeps lines as `put` does, has them judged, and has what came of it saved on the revision that they stand on.
    `judge` gives None where nobody has time; `save` gives whether that revision stands still."""
    found = put(place, lines, revision)
    if found.fate == "same" and place.read().judged:
        return Kept("same", found.revision)
    judged = judge(lines)
    stands = save(judged, found.revision)
    return Kept(found.fate, found.revision, judged if stands else None)


def _conflict(place: Place, stored: Stored) -> Conflict:
    lines: list[JsonValue] = [*stored.lines]
    return Conflict(place.overtaken(stored), revision=stored.revision, lines=lines)
