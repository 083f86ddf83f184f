"""/api/sheets/…/paper: what prints, as PDF, and a preview of it."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Query, Router, Status

from paper import MEDIA, FileFormat, Picture, Shown
from server.accounts.allowance import spend
from server.common.problems import Refused
from server.common.schemas import Detail, PageNumber
from server.common.who import person_of
from server.jobs import services as jobs
from server.jobs.schemas import RunOut
from server.papers import services
from server.papers.schemas import Doubt, ItemsIn, PaperIn, PreviewOut, TakeIn, TakenOut
from server.sheets import planned, queries

router = Router()


@router.get("/sheets/{int:sheet_id}/paper", response={200: PreviewOut, 400: Detail, 404: Detail, 429: Detail})
def preview(request: HttpRequest, sheet_id: int, data: Query[PaperIn]) -> PreviewOut:
    """The pages of a sheet as they will print."""
    spend(person_of(request))
    pages, doubts = services.pages_of(person_of(request), sheet_id, data, "svg")
    return PreviewOut(
        pages=[page.decode() for page in pages], doubts=[Doubt(item=item, text=text) for item, text in doubts]
    )


@router.post("/sheets/{int:sheet_id}/items", response={202: RunOut, 400: Detail, 404: Detail, 429: Detail})
def work_out(request: HttpRequest, sheet_id: int, data: ItemsIn) -> Status[RunOut]:
    """Works out the items of a sheet, each with its key in its form, one by one among the jobs; what is worked out
    already is not done again."""
    spend(person_of(request))
    return Status(202, jobs.run_out(planned.begin(person_of(request), sheet_id, data.kind)))


@router.get("/sheets/{int:sheet_id}/paper.pdf", response={200: None, 400: Detail, 404: Detail, 429: Detail})
def pdf(request: HttpRequest, sheet_id: int, data: Query[PaperIn]) -> HttpResponse:
    """A sheet, its answers, its key, cards …, as PDF."""
    spend(person_of(request))
    (found,), _ = services.pages_of(person_of(request), sheet_id, data, "pdf")
    services.note_printed(person_of(request), sheet_id)
    answer = HttpResponse(found, content_type="application/pdf")
    title = queries.sheet_of(person_of(request), sheet_id).title
    name = f"{title} {data.kind} {data.version}.pdf".replace("/", "-")
    answer.headers["Content-Disposition"] = content_disposition_header(as_attachment=False, filename=name) or "inline"
    return answer


@router.get("/sheets/{int:sheet_id}/page", response={200: None, 400: Detail, 404: Detail, 429: Detail})
def page(
    request: HttpRequest, sheet_id: int, data: Query[PaperIn], number: PageNumber = 1, form: Picture = "png"
) -> HttpResponse:
    """One page of a sheet as a picture."""
    spend(person_of(request))
    pages, _ = services.pages_of(person_of(request), sheet_id, data, form)
    if number > len(pages):
        raise Refused(f"There are {len(pages)} pages.", code="page")
    return _as_picture(pages[number - 1], f"page-{number}.{form}", form)


def _as_picture(content: bytes, name: str, form: Picture) -> HttpResponse:
    answer = HttpResponse(content, content_type={"svg": "image/svg+xml", "png": "image/png"}[form])
    answer.headers["Content-Disposition"] = content_disposition_header(True, name) or "attachment"
    return answer


@router.get("/sheets/{int:sheet_id}/export", response={200: None, 400: Detail, 404: Detail, 429: Detail})
def export(request: HttpRequest, sheet_id: int, form: FileFormat = "json") -> HttpResponse:
    """A sheet in an open form, as a file."""
    spend(person_of(request))
    content = services.exported(person_of(request), sheet_id, form)
    media = MEDIA[form]
    answer = HttpResponse(content, content_type=media if form == "qti" else f"{media}; charset=utf-8")
    ending = "zip" if form == "qti" else form
    title = queries.sheet_of(person_of(request), sheet_id).title.replace("/", "-")
    answer.headers["Content-Disposition"] = content_disposition_header(True, f"{title}.{ending}") or "attachment"
    return answer


@router.get("/problems/{int:problem_id}/picture", response={200: None, 400: Detail, 404: Detail, 429: Detail})
def picture(request: HttpRequest, problem_id: int, shown: Shown = "chain", form: Picture = "png") -> HttpResponse:
    """The chain of a working with its links, or the graph of a function, as a picture."""
    spend(person_of(request))
    content = services.picture(person_of(request), problem_id, shown, form)
    return _as_picture(content, f"{shown}-{problem_id}.{form}", form)


@router.post("/taken", response={201: TakenOut, 400: Detail, 429: Detail})
def take_in(request: HttpRequest, data: TakeIn) -> Status[TakenOut]:
    """A new sheet from a file in an open form."""
    spend(person_of(request))
    return Status(201, services.take_in(person_of(request), data))
