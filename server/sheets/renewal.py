"""After an upgrade every kept report is made again, in the background, so that no list waits for it."""

from __future__ import annotations

from server.jobs import services as jobs
from server.jobs.models import Run
from server.sheets import reports
from server.sheets.models import Problem, Working

KIND = "recheck"
EACH = 200
"""How many workings one piece renews."""


def begin_where_needed() -> Run | None:
    """Begins to renew all kept reports where that has not been begun with this version of the core; None where it
    has."""
    if Run.objects.filter(kind=KIND, title=reports.STAMP).exists():
        return None
    ids = list(Working.objects.order_by("pk").values_list("pk", flat=True))
    parts = [ids[k : k + EACH] for k in range(0, len(ids), EACH)]
    return jobs.begin(None, KIND, ({"first": part[0], "last": part[-1]} for part in parts), title=reports.STAMP)


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """How many reports there are of these workings; those that are old are made again."""
    held = Problem.objects.select_related("sheet", "working").filter(
        working__pk__gte=asked["first"], working__pk__lte=asked["last"]
    )
    count = 0
    for problem in held.iterator():
        reports.of(problem)
        count += 1
    return count
