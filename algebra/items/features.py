"""The features of a function: stated line by line, or placed on a grid."""

from __future__ import annotations

from collections.abc import Sequence

from algebra.items import work
from algebra.items.form import Form, given_of
from algebra.methods.worked_lines import unknown_of
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.marking import Proposal, Scheme, SchemeKind
from algebra.reports.report import Report
from algebra.reports.working import Working


@record(frozen=True)
class FeaturesItem:
    """A function of which the features are to be stated."""

    working: Working


def make(working: Working, seed: int = 1) -> FeaturesItem:
    """The function."""
    return FeaturesItem(work.make(working).working)


def _worked(item: FeaturesItem) -> work.WorkItem:
    return work.WorkItem(item.working)


def key(item: FeaturesItem) -> tuple[str, ...]:
    """The lines that state its features; none where it has none that are known here."""
    return work.key(_worked(item))


def scheme(item: FeaturesItem, kind: SchemeKind) -> Scheme:
    """A point for each feature."""
    return work.scheme(_worked(item), kind)


def judge(item: FeaturesItem, lines: Sequence[str]) -> Report:
    """The report on the features that are stated."""
    return work.judge(_worked(item), lines)


def earned(item: FeaturesItem, wanted: Scheme, lines: Sequence[str], report: Report) -> Proposal:
    """What the features that are stated earn."""
    return work.earned(_worked(item), wanted, lines, report)


def shown(item: FeaturesItem) -> Shown:
    """The letter of the function. How far its grid reaches is for who draws it to say: a graph takes time."""
    return Shown("features", letters=(unknown_of(item.working),))


FORM = Form("features", FeaturesItem, "", make, key, scheme, judge, earned, given_of, shown, answered=False)
