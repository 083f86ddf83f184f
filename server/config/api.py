"""The HTTP API: every router is mounted here, by hand."""

from __future__ import annotations

from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI

from server.accounts.api import people
from server.accounts.api import router as accounts
from server.bank.api import router as bank
from server.building.api import router as building
from server.checking.api import router as checking
from server.common.problems import Problem
from server.common.who import managing, signed_in, teaching
from server.jobs.api import router as runs
from server.keys.api import router as keys
from server.marking.api import router as marking
from server.papers.api import router as papers
from server.records.api import router as records
from server.room.api import student as room
from server.room.api import teacher as rooms
from server.scans.api import router as scans
from server.sheets.api import router as sheets
from server.solving.api import router as solving

api = NinjaAPI(title="Uchuu", version="1", auth=teaching, docs_url=None, openapi_url=None)
# first, for paths are tried in this order: a room is asked a hundred times a second
api.add_router("/room", room, tags=["room"])
api.add_router("", rooms, tags=["room"])
api.add_router("/account", accounts, tags=["account"], auth=signed_in)
api.add_router("/people", people, tags=["people"], auth=managing)
api.add_router("/check", checking, tags=["check"])
api.add_router("/keys", keys, tags=["keys"])
api.add_router("/runs", runs, tags=["runs"])
api.add_router("", sheets, tags=["sheets"])
api.add_router("", solving, tags=["solving"])
api.add_router("", papers, tags=["paper"])
api.add_router("", building, tags=["building"])
api.add_router("", bank, tags=["bank"])
api.add_router("", marking, tags=["marking"])
api.add_router("", records, tags=["records"])
api.add_router("", scans, tags=["pages"])


@api.exception_handler(Problem)
def _problem(request: HttpRequest, problem: Problem) -> HttpResponse:
    return api.create_response(request, problem.to_json(), status=problem.status)


@api.exception_handler(Http404)
def _missing(request: HttpRequest, missing: Http404) -> HttpResponse:
    return api.create_response(request, {"code": "not-found", "detail": "There is nothing here."}, status=404)


@api.exception_handler(OperationalError)
def _no_database(request: HttpRequest, problem: OperationalError) -> HttpResponse:
    detail = "The database does not answer just now. Nothing of yours is lost; try again in a moment."
    return api.create_response(request, {"code": "unavailable", "detail": detail}, status=503)
