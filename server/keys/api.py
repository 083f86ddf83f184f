"""/api/keys: a whole key, pasted."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from server.accounts.allowance import spend
from server.common.schemas import Detail
from server.common.who import person_of
from server.jobs import services as jobs
from server.keys import services
from server.keys.schemas import KeyIn, KeyOut, KeyRunOut, KeySheetIn, TitleIn
from server.sheets import queries
from server.sheets.schemas import SheetOut

router = Router()


@router.post("/proofread", response={200: KeyOut, 400: Detail, 429: Detail})
def proofread(request: HttpRequest, data: KeyIn) -> KeyOut:
    """Verifies every line and every check of a key; nothing is stored."""
    spend(person_of(request))
    return services.proofs_of(data)


@router.post("/sheet", response={201: SheetOut, 400: Detail, 429: Detail})
def make_sheet(request: HttpRequest, data: KeySheetIn) -> Status[SheetOut]:
    """Makes a sheet of a key."""
    spend(person_of(request))
    return Status(201, queries.sheet_out(services.sheet_from(person_of(request), data)))


@router.post("/runs", response={202: KeyRunOut, 400: Detail, 429: Detail})
def begin(request: HttpRequest, data: KeyIn) -> Status[KeyRunOut]:
    """Begins to proof-read a long key, problem by problem, by whichever worker is free."""
    spend(person_of(request))
    return Status(202, services.run_out(services.begin_run(person_of(request), data)))


@router.get("/runs/{int:run_id}", response={200: KeyRunOut, 404: Detail})
def how_far(request: HttpRequest, run_id: int) -> KeyRunOut:
    """How far it is, and what was found so far."""
    return services.run_out(jobs.own_run(person_of(request), run_id, services.KIND))


@router.post("/runs/{int:run_id}/sheet", response={201: SheetOut, 400: Detail, 404: Detail})
def sheet_of_run(request: HttpRequest, run_id: int, data: TitleIn) -> Status[SheetOut]:
    """Makes a sheet of the key that was proof-read there."""
    return Status(201, queries.sheet_out(services.sheet_of_run(person_of(request), run_id, data.title)))
