"""What a form of item is on paper and in a package."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Generic, NamedTuple, TypeVar

from algebra import Item
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings

I = TypeVar("I", bound=Item)


class Choice(NamedTuple):
    """One answer that a package offers: what is said of it where it is wrong."""

    text: str
    right: bool
    said: str


@dataclass(frozen=True, slots=True)
class Drawing(Generic[I]):
    """How a form is drawn. `to_work` stands under the given; `answer` is the right answer in one line, both in typst's
    language. In a package: `choices` are what is chosen from, empty where a text is written; `lines` stand under the
    given; `rubric` is what a scorer is told before the key, mathematics in lines of their own. `bubbles`: how many
    letters can be ticked in a strip."""

    to_work: Callable[[I, PlannedItem, SheetPlan, Settings], str]
    answer: Callable[[I, PlannedItem, SheetPlan], str]
    choices: Callable[[I, PlannedItem], Sequence[Choice]] = lambda made, item: ()
    lines: Callable[[I], Sequence[str]] = lambda made: ()
    rubric: Callable[[I], Sequence[str]] = lambda made: ()
    bubbles: Callable[[I], int] = lambda made: 0
