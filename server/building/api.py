"""/api/families, /api/ladders, /api/another, /api/built, and what belongs to a sheet: versions and advice."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from server.accounts.allowance import spend
from server.building import ladders, services
from server.building.schemas import (
    AdvisedOut,
    AnotherIn,
    AnotherOut,
    BuiltIn,
    FamiliesOut,
    LadderIn,
    LadderOut,
    LadderRunOut,
    MendedOut,
    MendIn,
    Minutes,
    VersionIn,
    VersionOut,
)
from server.common.schemas import Detail
from server.common.who import person_of
from server.jobs import services as jobs
from server.sheets import queries
from server.sheets.schemas import SheetOut

router = Router()


@router.get("/families", response=FamiliesOut)
def families(request: HttpRequest) -> FamiliesOut:
    """The families of problems with their levels, and the events that may be asked for."""
    return services.families()


@router.post("/ladders", response={200: LadderOut, 400: Detail, 429: Detail})
def ladder(request: HttpRequest, data: LadderIn) -> LadderOut:
    """Worked problems by rising difficulty; nothing is stored."""
    spend(person_of(request))
    return LadderOut(rungs=services.ladder(data))


@router.post("/ladders/runs", response={202: LadderRunOut, 400: Detail, 429: Detail})
def begin_ladder(request: HttpRequest, data: LadderIn) -> Status[LadderRunOut]:
    """Begins a ladder, drawn part by part among the jobs; what was drawn before is not drawn again."""
    spend(person_of(request))
    return Status(202, ladders.run_out(ladders.begin(person_of(request), data)))


@router.get("/ladders/runs/{int:ladder_id}", response={200: LadderRunOut, 404: Detail})
def ladder_so_far(request: HttpRequest, ladder_id: int) -> LadderRunOut:
    """How far it is, and the ladder of what was drawn so far. It is cancelled as a run."""
    return ladders.run_out(jobs.own_run(person_of(request), ladder_id, ladders.KIND))


@router.post("/another", response={200: AnotherOut, 400: Detail, 429: Detail})
def another(request: HttpRequest, data: AnotherIn) -> AnotherOut:
    """A problem like another, easier or harder; nothing is stored."""
    spend(person_of(request))
    return AnotherOut(rung=services.another(data))


@router.post("/built", response={201: SheetOut, 400: Detail})
def build(request: HttpRequest, data: BuiltIn) -> Status[SheetOut]:
    """A new sheet of these problems."""
    return Status(201, queries.sheet_out(services.build(person_of(request), data)))


@router.post("/sheets/{int:sheet_id}/versions", response={201: VersionOut, 400: Detail, 404: Detail, 429: Detail})
def make_version(request: HttpRequest, sheet_id: int, data: VersionIn) -> Status[VersionOut]:
    """Another version of a sheet, with other numbers."""
    spend(person_of(request))
    return Status(201, services.make_version(person_of(request), sheet_id, data))


@router.get("/sheets/{int:sheet_id}/advice", response={200: AdvisedOut, 400: Detail, 404: Detail, 429: Detail})
def advice(request: HttpRequest, sheet_id: int, lesson: Minutes = None) -> AdvisedOut:
    """What a careful colleague would say before it is printed; `lesson` is how many minutes there are."""
    spend(person_of(request))
    return services.advised(person_of(request), sheet_id, lesson)


@router.post("/sheets/{int:sheet_id}/mended", response={200: MendedOut, 400: Detail, 404: Detail, 429: Detail})
def mend(request: HttpRequest, sheet_id: int, data: MendIn) -> MendedOut:
    """Mends what the colleague has said of an item."""
    spend(person_of(request))
    return services.mend(person_of(request), sheet_id, data)
