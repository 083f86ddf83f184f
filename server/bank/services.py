"""Looking problems through, so that they are found by what they are and not by their text alone."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

import lanes
from algebra import Entry
from server.bank import queries
from server.jobs import services as jobs
from server.jobs.models import Run
from server.sheets import reports
from server.sheets.models import Problem

KIND = "bank"
EACH, MOST = 8, 4000
"""How many problems one piece looks through, and one run."""


@transaction.atomic
def look_through(teacher: User) -> int:
    """Begins to look through what has not been looked through, unless that is under way; how many problems wait."""
    User.objects.select_for_update().get(pk=teacher.pk)  # two windows begin it once
    title = f"bank of {teacher.pk}"
    waiting = list(queries.waiting_in(teacher).order_by("pk").values_list("pk", flat=True)[:MOST])
    if waiting and not Run.objects.filter(kind=KIND, title=title, ended=None).exists():
        Run.objects.filter(kind=KIND, title=title).delete()
        jobs.begin(None, KIND, ({"problems": waiting[k : k + EACH]} for k in range(0, len(waiting), EACH)), title=title)
    return len(waiting)


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """How many of these problems were looked through."""
    ids = asked["problems"]
    assert isinstance(ids, list)
    problems = Problem.objects.select_related("sheet").filter(pk__in=ids).exclude(indexed=reports.STAMP)
    return sum(map(_look_at, problems))


def _look_at(problem: Problem) -> int:
    """Puts its entry beside a problem unless it was changed meanwhile; 1 where that was done."""
    try:
        entry = lanes.entry_of(reports.core_working(problem, []), tuple(problem.sheet.untaught))
    except lanes.TooHeavy:  # found by its text for good, instead of being looked at again and again
        entry = Entry("", None, (), (), "")
    as_it_was = Problem.objects.filter(
        pk=problem.pk,
        task=problem.task,
        given=problem.given,
        variable=problem.variable,
        numbers=problem.numbers,
        method=problem.method,
    )
    return as_it_was.update(
        family=entry.family,
        rating=entry.rating,
        methods=list(entry.methods),
        slips=list(entry.slips),
        likeness=entry.likeness,
        indexed=reports.STAMP,
    )
