"""To work: lines are written, and each is verified."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from algebra.derive.check import check
from algebra.items.form import Form, Item, given_of
from algebra.marks.proposals import propose
from algebra.marks.schemes import scheme_for
from algebra.parse.errors import ReadingError
from algebra.records import record
from algebra.reports.marking import Proposal, Scheme, SchemeKind
from algebra.reports.report import Report
from algebra.reports.working import TaskError, Working
from algebra.ways.solve import work


@record(frozen=True)
class WorkItem:
    """A problem to be worked."""

    working: Working


def make(working: Working, seed: int = 1) -> WorkItem:
    """The problem, to be worked."""
    return WorkItem(replace(working, lines=()))


def key(item: Item) -> tuple[str, ...]:
    """The lines of its worked solution; none where no method leads to the answer."""
    try:
        return work(replace(item.working, lines=()), method=item.working.method).lines
    except (TaskError, ReadingError):
        return ()


def scheme(item: Item, kind: SchemeKind) -> Scheme:
    """The ready-made scheme of this kind."""
    return scheme_for(item.working, kind)


def judge(item: Item, lines: Sequence[str]) -> Report:
    """The report on these lines under the problem."""
    return check(replace(item.working, lines=tuple(lines)))


def earned(item: Item, wanted: Scheme, lines: Sequence[str], report: Report) -> Proposal:
    """What these lines earn by a scheme."""
    return propose(replace(item.working, lines=tuple(lines)), wanted, report)


FORM = Form("work", WorkItem, "", make, key, scheme, judge, earned, given_of, lambda item: None, answered=False)
