"""More problems of a family: drawn from a seed, worked, and refused where they are not what was asked for."""

from __future__ import annotations

import random
from collections.abc import Collection

from algebra.families import BY_ID, Draw
from algebra.methods.difficulty import largest_number
from algebra.methods.worked_lines import problem_of
from algebra.parse.errors import ReadingError
from algebra.reports.working import TaskError, Working
from algebra.sets.events import event_named
from algebra.sets.likeness import likeness
from algebra.ways.solve import Solution, work

TRIES = 400


def generate(
    family: str,
    level: int,
    count: int,
    seed: int,
    *,
    events: Collection[str] = (),
    largest: int = 400,
    tries: int = TRIES,
) -> list[Solution]:
    """Worked problems of a level, all different; the same seed gives the same. Raises TaskError for what is unknown.

    Fewer than `count` come back where the family has no more that fit among so many `tries`.
    """
    kind = BY_ID.get(family)
    if kind is None:
        raise TaskError(f"Unknown family “{family}”; known are {', '.join(BY_ID)}.")
    if not 1 <= level <= len(kind.levels):
        raise TaskError(f"{kind.name} has the levels 1 to {len(kind.levels)}.")
    wanted = [event_named(event) for event in events]
    draw = Draw(random.Random(f"{family} {level} {seed}"))
    floor = kind.floor(level) if not wanted else 0.0
    found: list[Solution] = []
    seen: set[str] = set()
    for _ in range(tries):
        if len(found) >= count:
            break
        working = Working(kind.task, kind.make(draw, level), (), variable=kind.unknown, numbers=kind.numbers)
        try:
            key = likeness(working)
            if key in seen:
                continue
            solution = work(working)
        except (TaskError, ReadingError):
            continue
        if (
            solution.already
            or solution.family != family
            or (solution.difficulty.rating or 0.0) < floor
            or not all(event(solution) for event in wanted)
            or _largest(solution) > largest
        ):
            continue
        seen.add(key)
        found.append(solution)
    return found


def _largest(solution: Solution) -> int:
    """The largest number in the given and in the answer."""
    trees = [problem_of(solution.working).body, *solution.answer_trees]
    return max(map(largest_number, trees))
