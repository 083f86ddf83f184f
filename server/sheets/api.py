"""/api/sheets and /api/problems."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from server.accounts.schemas import Colleague
from server.common.schemas import Detail, PageNumber, SearchText
from server.common.who import person_of
from server.sheets import queries, services
from server.sheets.schemas import (
    ConflictOut,
    Order,
    ProblemChange,
    ProblemIn,
    ProblemOut,
    ProblemWhole,
    ShareIn,
    SheetChange,
    SheetIn,
    SheetOut,
    SheetsOut,
    WorkingChange,
)

router = Router()


@router.get("/sheets", response=SheetsOut)
def list_sheets(request: HttpRequest, search: SearchText = "", page: PageNumber = 1) -> SheetsOut:
    """The teacher's sheets, the last changed first, a page of them; `search` is looked for in the titles."""
    return queries.sheets_of(person_of(request), search.strip(), page)


@router.post("/sheets", response={201: SheetOut, 400: Detail})
def create_sheet(request: HttpRequest, data: SheetIn) -> Status[SheetOut]:
    """A new sheet."""
    return Status(201, queries.sheet_out(services.create_sheet(person_of(request), data.title)))


@router.get("/sheets/{int:sheet_id}", response={200: SheetOut, 404: Detail})
def read_sheet(request: HttpRequest, sheet_id: int) -> SheetOut:
    """A sheet with its problems; 404 for a stranger's."""
    return queries.sheet_out(queries.sheet_of(person_of(request), sheet_id))


@router.patch("/sheets/{int:sheet_id}", response={200: SheetOut, 400: Detail, 404: Detail})
def change_sheet(request: HttpRequest, sheet_id: int, data: SheetChange) -> SheetOut:
    """Changes title, conventions or what is not taught yet, as far as they are given."""
    return queries.sheet_out(services.change_sheet(person_of(request), sheet_id, data))


@router.delete("/sheets/{int:sheet_id}", response={204: None, 404: Detail})
def delete_sheet(request: HttpRequest, sheet_id: int) -> Status[None]:
    """Deletes a sheet for good."""
    services.delete_sheet(person_of(request), sheet_id)
    return Status(204, None)


@router.post("/sheets/{int:sheet_id}/copies", response={204: None, 400: Detail, 404: Detail})
def give_copy(request: HttpRequest, sheet_id: int, data: ShareIn) -> Status[None]:
    """Gives a colleague a copy of the sheet."""
    services.give_copy(person_of(request), sheet_id, data.username.strip(), workings=data.workings)
    return Status(204, None)


@router.get("/colleagues", response=list[Colleague])
def list_colleagues(request: HttpRequest) -> list[Colleague]:
    """The other teachers, to whom a copy of a sheet can be given."""
    return queries.colleagues_of(person_of(request))


@router.put("/sheets/{int:sheet_id}/order", response={200: SheetOut, 400: Detail, 404: Detail})
def reorder(request: HttpRequest, sheet_id: int, data: Order) -> SheetOut:
    """The problems in another order; all of them are to be named."""
    return queries.sheet_out(services.reorder(person_of(request), sheet_id, data.problems))


@router.post("/sheets/{int:sheet_id}/problems", response={201: ProblemOut, 400: Detail, 404: Detail})
def add_problem(request: HttpRequest, sheet_id: int, data: ProblemIn) -> Status[ProblemOut]:
    """A new problem at the end of a sheet."""
    problem = services.add_problem(person_of(request), sheet_id, data)
    return Status(201, queries.problem_out(queries.problem_of(person_of(request), problem.pk)))


@router.get("/problems/{int:problem_id}", response={200: ProblemOut, 404: Detail})
def read_problem(request: HttpRequest, problem_id: int) -> ProblemOut:
    """A problem with its lines and their report."""
    return queries.problem_out(queries.problem_of(person_of(request), problem_id))


@router.patch("/problems/{int:problem_id}", response={200: ProblemOut, 400: Detail, 404: Detail})
def change_problem(request: HttpRequest, problem_id: int, data: ProblemChange) -> ProblemOut:
    """Another task, given or letter; the lines stay and are judged anew."""
    return queries.problem_out(services.change_problem(person_of(request), problem_id, data))


@router.put("/problems/{int:problem_id}", response={200: ProblemOut, 404: Detail})
def put_problem(request: HttpRequest, problem_id: int, data: ProblemWhole) -> ProblemOut:
    """Puts a problem with its lines in the place of this one."""
    services.put_problem(person_of(request), problem_id, data)
    return queries.problem_out(queries.problem_of(person_of(request), problem_id))


@router.post("/problems/{int:problem_id}/copy", response={201: ProblemOut, 400: Detail, 404: Detail})
def duplicate_problem(request: HttpRequest, problem_id: int) -> Status[ProblemOut]:
    """A copy of a problem behind it."""
    return Status(201, queries.problem_out(services.duplicate_problem(person_of(request), problem_id)))


@router.delete("/problems/{int:problem_id}", response={204: None, 404: Detail})
def delete_problem(request: HttpRequest, problem_id: int) -> Status[None]:
    """Deletes a problem for good."""
    services.delete_problem(person_of(request), problem_id)
    return Status(204, None)


@router.put("/problems/{int:problem_id}/lines", response={200: ProblemOut, 404: Detail, 409: ConflictOut})
def write_lines(request: HttpRequest, problem_id: int, data: WorkingChange) -> HttpResponse:
    """Saves and checks the whole chain at once.

    Called at every line, so the answer goes out without being validated again; that it has the promised shape is
    tested.
    """
    problem = queries.problem_out(services.write_lines(person_of(request), problem_id, data))
    return HttpResponse(problem.model_dump_json(), content_type="application/json")
