"""/api/bank: all problems of a teacher, found again."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Query, Router, Status

from server.bank import queries, services
from server.bank.schemas import BankOut, KindsOut, LookedThroughOut, Wanted
from server.common.schemas import Detail
from server.common.who import person_of

router = Router()


@router.get("/bank", response={200: BankOut, 400: Detail})
def find(request: HttpRequest, data: Query[Wanted]) -> BankOut:
    """The problems that are wanted, a page of them."""
    return queries.found(person_of(request), data)


@router.get("/bank/kinds", response=KindsOut)
def kinds(request: HttpRequest) -> KindsOut:
    """The families, methods and slips that occur in the bank."""
    return queries.kinds_in(person_of(request))


@router.post("/bank/looked-through", response={202: LookedThroughOut})
def look_through(request: HttpRequest) -> Status[LookedThroughOut]:
    """Begins to look through the problems that are new or changed, among the jobs."""
    return Status(202, LookedThroughOut(waiting=services.look_through(person_of(request))))
