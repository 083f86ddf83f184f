"""What a form of item is: all in which one form differs from another, in one record a form."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Generic, Protocol, TypeVar

from algebra.reports.items import FormName, ItemForm, Shown
from algebra.reports.marking import Proposal, Scheme, SchemeKind
from algebra.reports.report import Report
from algebra.reports.working import Working


class Item(Protocol):
    """What every item has: the problem that it was made of."""

    @property
    def working(self) -> Working:
        """The problem."""
        ...


I = TypeVar("I", bound=Item)


def as_they_are(items: Sequence[I], seed: str) -> Sequence[I]:
    """Items that have nothing to do with each other."""
    return items


@dataclass(frozen=True, slots=True)
class Form(Generic[I]):
    """One form of item. `asks` stands over such items, empty where that is what stands over their problem.

    `make` makes one of a problem and a seed, and raises TaskError or ReadingError where it can't; `key` is the right
    answer as a student writes it; `scheme` what an item is worth; `judge` the report on an answer, which never raises;
    `propose` what the answer earns; `given` what stands over the answer; `shown` what else a student sees, None where
    that is nothing. `answered`: an answer is given, where else lines are worked;
    `by_place`: what is drawn for it differs with its place on a sheet; `arrange` is done with all of them on a
    sheet, by a seed.
    """

    name: FormName
    record: type[I]
    asks: str
    make: Callable[[Working, int], I]
    key: Callable[[I], tuple[str, ...]]
    scheme: Callable[[I, SchemeKind], Scheme]
    judge: Callable[[I, Sequence[str]], Report]
    propose: Callable[[I, Scheme, Sequence[str], Report], Proposal]
    given: Callable[[I], str]
    shown: Callable[[I], Shown | None]
    answered: bool = True
    by_place: bool = False
    arrange: Callable[[Sequence[I], str], Sequence[I]] = as_they_are

    @property
    def kept_as(self) -> ItemForm:
        """The form that is kept with a problem: the one that was chosen."""
        return "work" if self.name == "features" else self.name


def given_of(item: Item) -> str:
    """The given of an item's problem."""
    return item.working.given
