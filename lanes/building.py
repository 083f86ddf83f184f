"""Ladders, problems like one, and a colleague's advice, in the shape in which they are shown."""

from __future__ import annotations

from dataclasses import dataclass

import algebra
from algebra import (
    Advice,
    LadderWish,
    Rung,
    Working,
    advice,
    ladder,
    like,
    neighbour,
    rung_of,
    understood,
    values_in_latex,
)


@dataclass(frozen=True, slots=True)
class Proposed:
    """A worked problem as it is proposed."""

    working: Working
    given_latex: str
    answer_latex: str
    difficulty: float | None
    family: str
    level: int
    adds: str
    marks: int = 1


def proposed(rung: Rung) -> Proposed:
    """A rung as it is shown."""
    return Proposed(
        rung.working,
        understood(rung.working.given).latex,
        values_in_latex(rung.answer),
        rung.difficulty.rating,
        rung.family,
        rung.level,
        rung.adds,
        rung.marks,
    )


def laddered(wish: LadderWish) -> list[Proposed]:
    """A ladder as it is proposed. Raises TaskError."""
    return [proposed(rung) for rung in ladder(wish)]


def joined(parts: list[list[Rung]], count: int, seed: int) -> list[Proposed]:
    """The ladder of what was drawn so far, as it is proposed."""
    return [proposed(rung) for rung in algebra.joined(parts, count, seed)]


def another(working: Working, what: str, seed: int, known: list[Working]) -> Proposed | None:
    """Another problem in the place of one. Raises TaskError, ReadingError."""
    if what == "like":
        found = like(working, 1, seed, known=known)
        return proposed(rung_of(found[0])) if found else None
    rung = neighbour(working, -1 if what == "easier" else 1, seed, known=known)
    return None if rung is None else proposed(rung)


def version(workings: list[Working], seed: int) -> list[Working | None]:
    """A problem like each of these, with other numbers; None where none is found."""
    found: list[Working | None] = []
    for nth, working in enumerate(workings):
        others = [each for each in found if each is not None]
        try:
            made = like(working, 1, seed + nth, known=[*workings, *others])
        except ValueError:  # not worked, or not read: it stays
            made = []
        found.append(made[0].working if made else None)
    return found


def advised(
    workings: list[Working], untaught: list[str], lesson: float | None = None
) -> tuple[tuple[Advice, ...], float]:
    """What a careful colleague would say, and the minutes."""
    return advice(workings, untaught=untaught, lesson=lesson)
