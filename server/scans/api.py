"""/api/sets/{id}/pages and /api/pages: pages that students wrote on, from the scanner to the workings."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status, UploadedFile

from server.accounts.allowance import spend
from server.common.problems import Refused
from server.common.schemas import Detail
from server.common.who import person_of
from server.marking.queries import set_of
from server.scans import queries, services
from server.scans.schemas import PageOut, PagesOut, PagesTaken, SettleIn, WhoseIn

router = Router()


@router.get("/sets/{int:set_id}/pages", response={200: PagesOut, 404: Detail})
def pages(request: HttpRequest, set_id: int) -> PagesOut:
    """The pages of a set."""
    return queries.pages_out(set_of(person_of(request), set_id))


@router.post("/sets/{int:set_id}/pages", response={201: PagesTaken, 400: Detail, 404: Detail, 429: Detail})
def take_pages(request: HttpRequest, set_id: int, file: File[UploadedFile]) -> Status[PagesTaken]:
    """Takes pages in (PNG, JPEG, PDF) and begins to have them read."""
    spend(person_of(request))
    if (file.size or 0) > services.MOST_BYTES:
        raise Refused(f"A file of pages has at most {services.MOST_BYTES // 2**20} MB.", code="page")
    return Status(201, services.take_pages(person_of(request), set_id, file.read()))


@router.get("/pages/{int:page_id}", response={200: PageOut, 404: Detail})
def page(request: HttpRequest, page_id: int) -> PageOut:
    """A page opened."""
    return queries.page_out(queries.page_of(person_of(request), page_id))


@router.get("/pages/{int:page_id}/picture", response={200: None, 404: Detail})
def picture(request: HttpRequest, page_id: int) -> HttpResponse:
    """The picture of a page."""
    found = queries.page_of(person_of(request), page_id)
    return HttpResponse(
        bytes(found.picture), content_type="image/jpeg", headers={"Cache-Control": "private, max-age=3600"}
    )


@router.post("/pages/{int:page_id}/settled", response={200: PageOut, 400: Detail, 404: Detail})
def settle(request: HttpRequest, page_id: int, data: SettleIn) -> PageOut:
    """What stands for a row of a page."""
    return queries.page_out(services.settle(person_of(request), page_id, data))


@router.post("/pages/{int:page_id}/other", response={200: PageOut, 404: Detail})
def other(request: HttpRequest, page_id: int) -> PageOut:
    """A page is not the one that it looks like."""
    return queries.page_out(services.is_other(person_of(request), page_id))


@router.post("/pages/{int:page_id}/student", response={200: PageOut, 400: Detail, 404: Detail})
def whose(request: HttpRequest, page_id: int, data: WhoseIn) -> PageOut:
    """Whose page it is."""
    return queries.page_out(services.give_to(person_of(request), page_id, data.student))


@router.post("/pages/{int:page_id}/again", response={200: PageOut, 404: Detail})
def again(request: HttpRequest, page_id: int) -> PageOut:
    """Has a page read once more."""
    return queries.page_out(services.read_again(person_of(request), page_id))


@router.delete("/pages/{int:page_id}", response={204: None, 404: Detail})
def remove(request: HttpRequest, page_id: int) -> Status[None]:
    """Takes a page away with what was taken in from it."""
    services.remove(person_of(request), page_id)
    return Status(204, None)
