"""To choose from: one of the options is right, the others are wrong answers that a class gives."""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from algebra.foresee.options import options
from algebra.items.answers import LETTERS, answered, relation, slip_made, unread
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.prediction import Option
from algebra.reports.report import Link
from algebra.reports.working import Working


@record(frozen=True)
class ChooseItem:
    """A problem with options, one of them right."""

    working: Working
    options: tuple[Option, ...]


def make(working: Working, seed: int = 1) -> ChooseItem:
    """A problem with four options, or as many as can be made. Raises TaskError, ReadingError."""
    return ChooseItem(working, options(working, seed=seed))


def right_place(item: ChooseItem) -> int:
    """The place of the right option, from 0."""
    return next(k for k, option in enumerate(item.options) if option.right)


def key(item: ChooseItem) -> tuple[str, ...]:
    """The letter of the right option."""
    return (LETTERS[right_place(item)],)


def parts(item: ChooseItem) -> tuple[str, ...]:
    """The choice alone."""
    return ("the choice",)


def links(item: ChooseItem, lines: Sequence[str]) -> list[Link]:
    """The choice judged; who names several has not chosen."""
    found = []
    for number, text in enumerate(lines, start=1):
        letter = text.strip().strip("().").upper()
        place = LETTERS.find(letter)
        if len(letter) != 1 or not 0 <= place < len(item.options):
            found.append(unread(number, f"One of {', '.join(LETTERS[: len(item.options)])}."))
            continue
        option = item.options[place]
        slip = None if option.right or not option.slips else slip_made(option.slips[0], option.reason)
        found.append(Link(number, relation(option.right and len(lines) == 1), "choice", slip=slip))
    return found


def shown(item: ChooseItem) -> Shown:
    """The options, without what stands behind them."""
    return Shown("choose", options=tuple(option.answer_latex for option in item.options))


def spread(items: Sequence[ChooseItem], seed: str) -> list[ChooseItem]:
    """The items with the right options spread over the letters: each about as often, never three times the same in a
    row."""
    draw = random.Random(f"places {seed}")
    counts: Counter[int] = Counter()
    before: list[int] = []
    found = []
    for item in items:
        least = sorted(range(len(item.options)), key=lambda place: (counts[place], draw.random()))
        place = next((p for p in least if before[-2:] != [p, p]), least[0])
        counts[place] += 1
        before.append(place)
        changed = list(item.options)
        right = right_place(item)
        changed[place], changed[right] = changed[right], changed[place]
        found.append(replace(item, options=tuple(changed)))
    return found


FORM = answered(
    "choose",
    ChooseItem,
    "",
    make=make,
    key=key,
    parts=parts,
    links=links,
    shown=shown,
    by_place=True,
    arrange=spread,
)
