"""The features of a function: stated line by line, or placed on a grid; judged and marked as what is to be worked."""

from __future__ import annotations

from algebra.items import work
from algebra.items.form import Form, given_of
from algebra.methods.worked_lines import unknown_of
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.working import Working


@record(frozen=True)
class FeaturesItem:
    """A function of which the features are to be stated."""

    working: Working


def make(working: Working, seed: int = 1) -> FeaturesItem:
    """The function."""
    return FeaturesItem(work.make(working).working)


def shown(item: FeaturesItem) -> Shown:
    """The letter of the function. How far its grid reaches is for who draws it to say: a graph takes time."""
    return Shown("features", letters=(unknown_of(item.working),))


FORM = Form(
    "features",
    FeaturesItem,
    "",
    make,
    work.key,
    work.scheme,
    work.judge,
    work.earned,
    given_of,
    shown,
    answered=False,
)
