"""A ladder: worked problems by rising difficulty, each with what it adds to the one before."""

from __future__ import annotations

import random
from collections.abc import Collection, Sequence
from dataclasses import replace
from functools import cache
from math import log10

from algebra.families import BY_ID
from algebra.methods.catalogue import BY_ID as METHODS
from algebra.methods.difficulty import largest_number
from algebra.methods.worked_lines import problem_of
from algebra.records import record
from algebra.reports.working import TaskError, Working
from algebra.sets.generate import generate
from algebra.sets.likeness import likeness
from algebra.slips import BY_ID as SLIPS_BY_ID
from algebra.slips import lurking_at
from algebra.tree import nodes as n
from algebra.ways.solve import Solution, work

DRAWN = 5
"""How many problems of each level are drawn for each that is wanted of it, at least."""
EVENT_TRIES = 60
"""How many problems of a level are looked at for one in which an event happens."""
MANY_LEVELS = 14
"""From so many levels on, a choice is there without drawing much of each."""
MOST_FAMILIES = 8
"""Of how many families problems are drawn at most where none is named."""
ONE_STEP = 0.9
"""By how much a problem a step easier or harder differs, about."""


@record(frozen=True)
class Rung:
    """A worked problem of a ladder: its level in its family and what it adds to the one before."""

    solution: Solution
    level: int
    adds: str


def ladder(
    families: Sequence[str],
    count: int,
    seed: int = 1,
    *,
    low: int = 1,
    high: int | None = None,
    events: Collection[str] = (),
    largest: int = 400,
    untaught: Collection[str] = (),
    kept: Sequence[Working] = (),
    slip: str = "",
) -> list[Rung]:
    """So many worked problems of these families from level to level, by rising difficulty, no two the same item. The
    same seed gives the same ladder; what is `kept` stays in it and counts. Raises TaskError for what is unknown, and
    for a level that is none.

    `events` are spread over the ladder: each happens in one problem at least where a family has it. Fewer than `count`
    come where the families have no more. With a `slip` every problem is one in which it lurks: its right working takes
    the step at which it is made, so that it would show; without families it is looked for in all of them.
    """
    if slip and slip not in SLIPS_BY_ID:
        raise TaskError(f"Unknown slip “{slip}”.")
    if slip and not families:
        families = [name for name in BY_ID if _lurks_in_family(slip, name)]
        families = sorted(random.Random(f"{seed} {slip}").sample(families, min(MOST_FAMILIES, len(families))))
        if not families:
            raise TaskError("No problem that can be drawn has this slip lurking in its working.")
    for name in families:
        if name not in BY_ID:
            raise TaskError(f"Unknown family “{name}”; known are {', '.join(BY_ID)}.")
    if not families or count < 1:
        raise TaskError("A ladder needs a family and a number of problems.")
    top = max(len(BY_ID[name].levels) for name in families)
    last = top if high is None else high
    if not 1 <= low <= last <= top:
        raise TaskError(f"These families have the levels 1 to {top}.")
    rungs = [_kept(working) for working in kept]
    seen = {likeness(working) for working in kept}
    wanted = count - len(rungs)
    too_early = frozenset(untaught)
    pool = _pool(families, low, last, wanted, seed, largest, too_early, slip)
    for event in events:
        drawn = (
            Rung(solution, level, "")
            for name in families
            for level in range(min(last, len(BY_ID[name].levels)), low - 1, -1)
            for solution in generate(name, level, 1, seed, events=[event], largest=largest, tries=EVENT_TRIES)
            if likeness(solution.working) not in seen and not _needs(solution, too_early) and _lurks(slip, solution)
        )
        rung = next(drawn, None) if wanted > 0 else None
        if rung is not None:
            seen.add(likeness(rung.solution.working))
            rungs.append(rung)
            wanted -= 1
    rungs += _spread(pool, wanted, seen, random.Random(f"{seed} {' '.join(families)}"))
    rungs.sort(key=lambda rung: (rung.solution.difficulty.rating or 0.0, rung.solution.working.given))
    return [Rung(rung.solution, rung.level, _adds(rungs[k - 1] if k else None, rung)) for k, rung in enumerate(rungs)]


def _lurks(slip: str, solution: Solution) -> bool:
    """Whether a slip is made at a step of the right working; every problem will do where none is named."""
    return not slip or any(each.id == slip for step in solution.all_steps for each in lurking_at(step.rule.id))


def _lurks_in_family(slip: str, name: str) -> bool:
    return any(each.id == slip for rule in _rules_of(name) for each in lurking_at(rule))


@cache
def _rules_of(name: str) -> frozenset[str]:
    """The rules that problems of a family are worked by, as one drawn of each level shows."""
    drawn = (solution for level in range(1, len(BY_ID[name].levels) + 1) for solution in generate(name, level, 1, 1))
    return frozenset(step.rule.id for solution in drawn for step in solution.all_steps)


def _kept(working: Working) -> Rung:
    return Rung(work(replace(working, lines=()), method=working.method), 0, "")


def _needs(solution: Solution, untaught: frozenset[str]) -> bool:
    """Whether its method or a rule that it uses has not been taught."""
    return bool(untaught & {solution.method, *(step.rule.id for step in solution.all_steps)})


def _pool(
    families: Sequence[str],
    low: int,
    high: int,
    count: int,
    seed: int,
    largest: int,
    untaught: frozenset[str],
    slip: str,
) -> list[Rung]:
    levels = [(name, level) for name in families for level in range(low, min(high, len(BY_ID[name].levels)) + 1)]
    least = DRAWN if len(levels) <= MANY_LEVELS else 2
    each = max(least, 2 * -(-count // max(len(levels), 1)))
    found = []
    for name, level in levels:
        for solution in generate(name, level, each, seed, largest=largest):
            if not _needs(solution, untaught) and _lurks(slip, solution):
                found.append(Rung(solution, level, ""))
    return found


def _spread(pool: list[Rung], count: int, seen: set[str], draw: random.Random) -> list[Rung]:
    """Problems of the pool whose difficulties lie evenly between the easiest and the hardest, families in turn where
    there is a choice."""
    left = sorted(pool, key=lambda rung: rung.solution.difficulty.rating or 0.0)
    if not left or count < 1:
        return []
    lowest, highest = (left[k].solution.difficulty.rating or 0.0 for k in (0, -1))
    chosen: list[Rung] = []
    used: dict[str, int] = {}
    for k in range(count):
        aim = lowest + (highest - lowest) * (k / max(count - 1, 1))

        def fitness(rung: Rung, aim: float = aim) -> float:
            away = abs((rung.solution.difficulty.rating or 0.0) - aim)
            return away + 0.35 * used.get(rung.solution.family, 0) + 0.2 * draw.random()

        fresh = [rung for rung in left if likeness(rung.solution.working) not in seen]
        if not fresh:
            break
        best = min(fresh, key=fitness)
        seen.add(likeness(best.solution.working))
        used[best.solution.family] = used.get(best.solution.family, 0) + 1
        chosen.append(best)
    return chosen


def _adds(before: Rung | None, rung: Rung) -> str:
    """What a problem asks that the one before did not, in a few words."""
    family = BY_ID.get(rung.solution.family)
    level = family.levels[rung.level - 1] if family and 0 < rung.level <= len(family.levels) else ""
    if before is None:
        return f"to begin with: {level or (family.name.lower() if family else 'as it stands')}"
    now, then = rung.solution, before.solution
    new = [word for word in now.difficulty.noticed if word not in then.difficulty.noticed]
    told = []
    if now.family != then.family and family is not None:
        told.append(f"now {family.name.lower()}")
    elif rung.level != before.level and level:
        told.append(f"now {level}")
    if new:
        told.append(f"{' and '.join(new)} to be noticed")
    if now.method != then.method and now.method in METHODS and now.family == then.family:
        told.append(f"by another way: {METHODS[now.method].name.lower()}")
    mine, theirs = _largest(now), _largest(then)
    if not told and mine > 1.6 * theirs and log10(mine) > 1:
        told.append(f"now with numbers up to {mine}")
    if not told and len(now.steps) > len(then.steps):
        told.append(f"{len(now.steps)} lines instead of {len(then.steps)}")
    return "; ".join(told) or "another one of the same kind"


def neighbour(working: Working, step: int, seed: int = 1, *, known: Sequence[Working] = ()) -> Rung | None:
    """A problem of the same family one level easier (−1) or harder (1), no item of `known`; None where there is no such
    level or no problem left of it. Raises TaskError, ReadingError where the problem is not worked."""
    first = work(replace(working, lines=(), method=None))
    family = BY_ID.get(first.family)
    if family is None:
        return None
    rating = first.difficulty.rating or 0.0
    seen = {likeness(each) for each in (working, *known)}
    levels = range(1, len(family.levels) + 1)
    found = [
        Rung(solution, level, "")
        for level in levels
        for solution in generate(family.id, level, DRAWN, seed)
        if step * ((solution.difficulty.rating or 0.0) - rating) > 0 and likeness(solution.working) not in seen
    ]
    return min(
        found, key=lambda rung: abs((rung.solution.difficulty.rating or 0.0) - rating - step * ONE_STEP), default=None
    )


def _largest(solution: Solution) -> int:
    trees: list[n.Node] = [step.after for step in solution.steps if step.after is not None]
    trees.append(problem_of(solution.working).body)
    return max(map(largest_number, trees), default=0)
