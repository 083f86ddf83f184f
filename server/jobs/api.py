"""/api/runs: work that takes longer than an answer may, how far it is, and its end."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from server.common.schemas import Detail
from server.common.who import person_of
from server.jobs import services
from server.jobs.schemas import RunOut, RunsOut

router = Router()


@router.get("", response=RunsOut)
def runs(request: HttpRequest) -> RunsOut:
    """What is being worked out for the person now."""
    return RunsOut(runs=services.under_way(person_of(request)))


@router.get("/{int:run_id}", response={200: RunOut, 404: Detail})
def how_far(request: HttpRequest, run_id: int) -> RunOut:
    """How far it is."""
    return services.run_out(services.own_run(person_of(request), run_id))


@router.delete("/{int:run_id}", response={204: None, 404: Detail})
def remove(request: HttpRequest, run_id: int) -> Status[None]:
    """Cancels it: what is under way ends without effect."""
    services.remove(person_of(request), run_id)
    return Status(204, None)
