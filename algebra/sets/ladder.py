"""A ladder: worked problems by rising difficulty, each with what it adds to the one before.

It is made in three steps, so that the long one can be done in parts: what is to be drawn (`draws`), each drawing by
itself (`drawn`), and the choice of what was drawn (`joined`).
"""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import cache
from itertools import islice
from math import log10

from algebra.families import BY_ID
from algebra.methods.catalogue import BY_ID as METHODS
from algebra.methods.difficulty import largest_number
from algebra.methods.worked_lines import problem_of
from algebra.records import record
from algebra.reports.solution import Difficulty
from algebra.reports.working import TaskError, Working
from algebra.sets.events import event_named
from algebra.sets.generate import TRIES, generate
from algebra.sets.likeness import likeness
from algebra.slips import BY_ID as SLIPS_BY_ID
from algebra.slips import lurking_at
from algebra.tree import nodes as n
from algebra.ways.solve import Solution, work
from algebra.ways.worth import usual_marks

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
KEPT = "kept"
"""The `event` of a problem that stays in the ladder whatever is drawn."""


@record(frozen=True)
class Rung:
    """A worked problem of a ladder: its level in its family and what it adds to the one before.

    `lines` and `largest` are how many steps its solution has and the largest number in it, `likeness` what it shares
    with every problem that is the same item; `event` is what it was drawn for.
    """

    working: Working
    answer: tuple[str, ...]
    method: str
    difficulty: Difficulty
    family: str
    level: int
    marks: int
    lines: int
    largest: int
    likeness: str
    event: str = ""
    adds: str = ""

    @property
    def rating(self) -> float:
        """Its difficulty; 0 where that is unknown."""
        return self.difficulty.rating or 0.0


@record(frozen=True)
class LadderWish:
    """What a ladder is wished for: so many problems of these families, from level to level.

    What is `kept` stays in it and counts. `events` are spread over the ladder: each happens in one problem at least
    where a family has it. Fewer than `count` come where the families have no more. With a `slip` every problem is one
    in which it lurks: its right working takes the step at which it is made, so that it would show; without families it
    is looked for in all of them. `largest` is the largest number in a problem, `untaught` what the class does not know.
    """

    families: tuple[str, ...]
    count: int
    seed: int = 1
    low: int = 1
    high: int | None = None
    events: tuple[str, ...] = ()
    largest: int = 400
    untaught: tuple[str, ...] = ()
    kept: tuple[Working, ...] = ()
    slip: str = ""


@record(frozen=True)
class Draw:
    """Problems to be drawn: so many of each of these levels of these families, or one of the first level in which an
    event happens. Where `kept` is given it is that problem and no other."""

    levels: tuple[tuple[str, int], ...] = ()
    count: int = 0
    seed: int = 1
    largest: int = 400
    event: str = ""
    slip: str = ""
    untaught: tuple[str, ...] = ()
    kept: Working | None = None


def rung_of(solution: Solution, level: int = 0, adds: str = "", event: str = "") -> Rung:
    """A worked problem as a rung."""
    return Rung(
        solution.working,
        solution.answer,
        solution.method,
        solution.difficulty,
        solution.family,
        level,
        usual_marks(solution),
        len(solution.steps),
        _largest(solution),
        likeness(solution.working),
        event,
        adds,
    )


def ladder(wish: LadderWish) -> list[Rung]:
    """So many worked problems from level to level, by rising difficulty, no two the same item. The same wish gives the
    same ladder. Raises TaskError for what is unknown, and for a level that is none; ReadingError for what is kept."""
    return joined([drawn(each) for each in draws(wish)], wish.count, wish.seed)


def draws(wish: LadderWish) -> list[Draw]:
    """What is to be drawn for a ladder: what is kept, then each event, then each level. Raises TaskError."""
    families: Sequence[str] = wish.families
    seed, slip, low = wish.seed, wish.slip, wish.low
    if slip and slip not in SLIPS_BY_ID:
        raise TaskError(f"Unknown slip “{slip}”.")
    for event in wish.events:
        event_named(event)
    if slip and not families:
        families = [name for name in BY_ID if _lurks_in_family(slip, name)]
        families = sorted(random.Random(f"{seed} {slip}").sample(families, min(MOST_FAMILIES, len(families))))
        if not families:
            raise TaskError("No problem that can be drawn has this slip lurking in its working.")
    for name in families:
        if name not in BY_ID:
            raise TaskError(f"Unknown family “{name}”; known are {', '.join(BY_ID)}.")
    if not families or wish.count < 1:
        raise TaskError("A ladder needs a family and a number of problems.")
    top = max(len(BY_ID[name].levels) for name in families)
    last = top if wish.high is None else wish.high
    if not 1 <= low <= last <= top:
        raise TaskError(f"These families have the levels 1 to {top}.")
    found = [Draw(kept=working) for working in wish.kept]
    wanted = wish.count - len(found)
    if wanted < 1:
        return found
    tops = {name: min(last, len(BY_ID[name].levels)) for name in families}
    levels = [(name, level) for name in families for level in range(low, tops[name] + 1)]
    from_the_top = tuple((name, level) for name in families for level in range(tops[name], low - 1, -1))
    common = Draw(seed=seed, largest=wish.largest, slip=slip, untaught=tuple(sorted(wish.untaught)))
    found += [replace(common, levels=from_the_top, count=1, event=event) for event in wish.events]
    least = DRAWN if len(levels) <= MANY_LEVELS else 2
    each = max(least, 2 * -(-wanted // max(len(levels), 1)))
    return found + [replace(common, levels=(level,), count=each) for level in levels]


def drawn(draw: Draw) -> list[Rung]:
    """The problems of one drawing; none where there are none. Raises TaskError, ReadingError where what is kept is not
    worked."""
    if draw.kept is not None:
        kept = draw.kept
        return [rung_of(work(replace(kept, lines=()), method=kept.method), event=KEPT)]
    untaught = frozenset(draw.untaught)

    def happening() -> Iterator[Rung]:
        events = [draw.event] if draw.event else []
        for name, level in draw.levels:
            found = generate(
                name,
                level,
                draw.count,
                draw.seed,
                events=events,
                largest=draw.largest,
                tries=EVENT_TRIES if events else TRIES,
            )
            for solution in found:
                if not _needs(solution, untaught) and _lurks(draw.slip, solution):
                    yield rung_of(solution, level, event=draw.event)

    return list(islice(happening(), 1)) if draw.event else list(happening())


def joined(parts: Sequence[Sequence[Rung]], count: int, seed: int = 1) -> list[Rung]:
    """The ladder of what was drawn, or of as much of it as is there: what is kept, one problem for each event, and
    others spread evenly between the easiest and the hardest."""
    rungs: list[Rung] = []
    seen: set[str] = set()
    for rung in (rung for part in parts for rung in part if rung.event):
        if rung.event == KEPT or (rung.likeness not in seen and len(rungs) < count):
            seen.add(rung.likeness)
            rungs.append(rung)
    pool = [rung for part in parts for rung in part if not rung.event]
    rungs += _spread(pool, count - len(rungs), seen, random.Random(f"{seed} {' '.join({r.family: 0 for r in pool})}"))
    rungs.sort(key=lambda rung: (rung.rating, rung.working.given))
    return [replace(rung, adds=_adds(rungs[k - 1] if k else None, rung)) for k, rung in enumerate(rungs)]


def _lurks(slip: str, solution: Solution) -> bool:
    """Whether a slip is made at a step of the right working; every problem will do where none is named."""
    return not slip or any(each.id == slip for step in solution.all_steps for each in lurking_at(step.rule.id))


def _lurks_in_family(slip: str, name: str) -> bool:
    return any(each.id == slip for rule in _rules_of(name) for each in lurking_at(rule))


@cache
def _rules_of(name: str) -> frozenset[str]:
    """The rules that problems of a family are worked by, as one drawn of each level shows."""
    shown = (solution for level in range(1, len(BY_ID[name].levels) + 1) for solution in generate(name, level, 1, 1))
    return frozenset(step.rule.id for solution in shown for step in solution.all_steps)


def _needs(solution: Solution, untaught: frozenset[str]) -> bool:
    """Whether its method or a rule that it uses has not been taught."""
    return bool(untaught & {solution.method, *(step.rule.id for step in solution.all_steps)})


def _spread(pool: list[Rung], count: int, seen: set[str], draw: random.Random) -> list[Rung]:
    """Problems of the pool whose difficulties lie evenly between the easiest and the hardest, families in turn where
    there is a choice."""
    left = sorted(pool, key=lambda rung: rung.rating)
    if not left or count < 1:
        return []
    lowest, highest = left[0].rating, left[-1].rating
    chosen: list[Rung] = []
    used: dict[str, int] = {}
    for k in range(count):
        aim = lowest + (highest - lowest) * (k / max(count - 1, 1))

        def fitness(rung: Rung, aim: float = aim) -> float:
            return abs(rung.rating - aim) + 0.35 * used.get(rung.family, 0) + 0.2 * draw.random()

        fresh = [rung for rung in left if rung.likeness not in seen]
        if not fresh:
            break
        best = min(fresh, key=fitness)
        seen.add(best.likeness)
        used[best.family] = used.get(best.family, 0) + 1
        chosen.append(best)
    return chosen


def _adds(before: Rung | None, rung: Rung) -> str:
    """What a problem asks that the one before did not, in a few words."""
    family = BY_ID.get(rung.family)
    level = family.levels[rung.level - 1] if family and 0 < rung.level <= len(family.levels) else ""
    if before is None:
        return f"to begin with: {level or (family.name.lower() if family else 'as it stands')}"
    new = [word for word in rung.difficulty.noticed if word not in before.difficulty.noticed]
    told = []
    if rung.family != before.family and family is not None:
        told.append(f"now {family.name.lower()}")
    elif rung.level != before.level and level:
        told.append(f"now {level}")
    if new:
        told.append(f"{' and '.join(new)} to be noticed")
    if rung.method != before.method and rung.method in METHODS and rung.family == before.family:
        told.append(f"by another way: {METHODS[rung.method].name.lower()}")
    if not told and rung.largest > 1.6 * before.largest and log10(rung.largest) > 1:
        told.append(f"now with numbers up to {rung.largest}")
    if not told and rung.lines > before.lines:
        told.append(f"{rung.lines} lines instead of {before.lines}")
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
    found = [
        rung_of(solution, level)
        for level in range(1, len(family.levels) + 1)
        for solution in generate(family.id, level, DRAWN, seed)
        if step * ((solution.difficulty.rating or 0.0) - rating) > 0 and likeness(solution.working) not in seen
    ]
    return min(found, key=lambda rung: abs(rung.rating - rating - step * ONE_STEP), default=None)


def _largest(solution: Solution) -> int:
    trees: list[n.Node] = [step.after for step in solution.steps if step.after is not None]
    trees.append(problem_of(solution.working).body)
    return max(map(largest_number, trees), default=0)
