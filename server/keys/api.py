"""/api/keys: a whole key, pasted."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from server.accounts.allowance import spend
from server.common.schemas import Detail
from server.common.who import person_of
from server.keys import services
from server.keys.schemas import KeyIn, KeyOut, KeySheetIn
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
