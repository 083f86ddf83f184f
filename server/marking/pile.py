"""Verifying a pile: every working judged once by any worker, equal ones together, and a mark proposed."""

from __future__ import annotations

import json
from dataclasses import dataclass
from hashlib import sha256

import lanes
from algebra import Proposal, Report, Scheme, Working
from server.common.codec import PROPOSALS, REPORTS, SCHEMES
from server.common.events import tell
from server.jobs import services as jobs
from server.jobs.models import Piece, Run
from server.marking.events import LinesVerified
from server.marking.forms import made_item
from server.marking.models import GivenSet, SetItem, StudentWorking
from server.sheets.reports import mark_of

KIND = "pile"


def scheme_of(item: SetItem) -> Scheme:
    """The scheme of an item as the core takes it."""
    return SCHEMES.back(item.scheme)


def report_of(working: StudentWorking) -> Report | None:
    """The kept report of a working; None while it waits."""
    return REPORTS.back_if_any(working.report)


def proposal_of(working: StudentWorking) -> Proposal | None:
    """The kept proposal of a working; None while it waits."""
    return PROPOSALS.back_if_any(working.proposal)


def problem_of(item: SetItem, lines: list[str] | None = None) -> Working:
    """An item with these lines as the core takes it."""
    return Working(
        item.task,
        item.given,
        tuple(lines or ()),
        item.variable or None,
        item.numbers,
        dict(item.given_set.conventions),
        method=item.method or None,
    )


def is_fresh(working: StudentWorking) -> bool:
    """Whether the report and the proposal beside a working were made from what stands now."""
    return working.made_from == stamp_of(working.item, working.texts)


def stamp_of(item: SetItem, lines: list[str]) -> str:
    """What a report and a proposal are made from, in 40 characters: what a report is made from, and the scheme."""
    scheme = sha256(json.dumps(item.scheme, sort_keys=True).encode()).hexdigest()[:19]
    return f"{mark_of(problem_of(item, lines))}-{scheme}"


def begin(given_set: GivenSet) -> Run | None:
    """Begins to verify what waits in a set; None where nothing does. What is under way already is not begun again."""
    title = f"set {given_set.pk}"
    under_way = Piece.objects.filter(run__kind=KIND, run__title=title, ended=None).values_list(
        "asked__working", flat=True
    )
    pending = {
        (each.item_id, json.dumps(each.lines))
        for each in StudentWorking.objects.filter(pk__in=[int(pk) for pk in under_way])
    }
    waiting: dict[tuple[int, str], StudentWorking] = {}
    workings = StudentWorking.objects.filter(paper__given_set=given_set).select_related("item__given_set")
    for working in workings.order_by("item__position", "pk"):
        key = (working.item_id, json.dumps(working.lines))
        if key not in pending and not is_fresh(working):
            waiting.setdefault(key, working)
    Run.objects.filter(kind=KIND, title=title).exclude(ended=None).delete()
    if not waiting:
        return None
    return jobs.begin(None, KIND, ({"working": working.pk} for working in waiting.values()), title=title)


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """How many workings got a report: this one and those that are equal to it."""
    number = asked["working"]
    assert isinstance(number, int)
    working = StudentWorking.objects.select_related("item__given_set").filter(pk=number).first()
    return 0 if working is None else verify(working)


@dataclass(frozen=True, slots=True)
class Judged:
    """What comes of verifying lines; as it stands, nothing yet."""

    report: Report | None = None
    proposal: Proposal | None = None
    made_from: str = ""

    @property
    def columns(self) -> dict[str, object]:
        """The columns of a working that hold it."""
        report, proposal = self.report, self.proposal
        slips = [link.slip.id for link in report.links if link.slip] + list(report.answer.slips) if report else []
        return {
            "report": REPORTS.kept(report),
            "proposal": PROPOSALS.kept(proposal),
            "made_from": self.made_from,
            "alike": proposal.alike if proposal else "",
            "slips": list(dict.fromkeys(slips)),
            "right": bool(report and report.answer.verdict == "correct"),
        }


def judged(item: SetItem, lines: list[str], *, at_once: bool = False) -> Judged:
    """What comes of verifying these lines; `at_once` where somebody waits. Raises Busy."""
    scheme, problem = scheme_of(item), problem_of(item)
    report, proposal = lanes.marked(made_item(item, problem), lines, scheme, at_once=at_once)
    return Judged(report, proposal, stamp_of(item, lines))


def verify(working: StudentWorking) -> int:
    """Verifies a working and keeps what came of it, for all that are equal; how many these are. Raises Busy."""
    item, lines = working.item, working.texts
    found = judged(item, lines)
    equal = StudentWorking.objects.filter(item=item, lines=lines).exclude(made_from=found.made_from)
    # what was changed meanwhile, its lines or its scheme, is not among the equal ones any more, or has another stamp
    # and is asked again
    count = equal.filter(item__scheme=item.scheme).update(**found.columns)
    tell(LinesVerified(item.pk, item.given_set_id, lines))
    return count
