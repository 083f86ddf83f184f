"""/api/rosters, /api/records, /api/sets/{id}/records: rosters in, marks out, by file and to the school's records."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Router, Status

from server.accounts.allowance import spend
from server.common.schemas import Detail
from server.common.who import person_of
from server.marking.paperwork import note_look
from server.marking.queries import class_out, set_of
from server.marking.schemas import ClassOut, StudentChange
from server.marking.services import change_student as change_one
from server.marking.services import erase_student as erase_all
from server.records import person, sending, taking
from server.records.schemas import LinkIn, RecordsOut, RosterIn, RosterOut, RosterTake, RosterTaken, SendIn, SendOut

router = Router()


@router.get("/records/classes", response={200: RecordsOut, 400: Detail})
def classes(request: HttpRequest) -> RecordsOut:
    """The classes of the school's records."""
    return taking.classes_of_records(person_of(request))


@router.post("/rosters/preview", response={200: RosterOut, 400: Detail, 404: Detail})
def preview(request: HttpRequest, data: RosterIn) -> RosterOut:
    """What would be taken of a roster."""
    return taking.preview(person_of(request), data)


@router.post("/rosters", response={201: RosterTaken, 400: Detail, 404: Detail})
def take(request: HttpRequest, data: RosterTake) -> Status[RosterTaken]:
    """Takes the chosen classes of a roster."""
    return Status(201, taking.take(person_of(request), data))


@router.put("/classes/{int:class_id}/records", response={200: ClassOut, 400: Detail, 404: Detail})
def link(request: HttpRequest, class_id: int, data: LinkIn) -> ClassOut:
    """Says which class of the records a class is."""
    return class_out(taking.link(person_of(request), class_id, data.id))


@router.delete("/classes/{int:class_id}/records", response={200: ClassOut, 404: Detail})
def unlink(request: HttpRequest, class_id: int) -> ClassOut:
    """A class is none of the records any more."""
    return class_out(taking.unlink(person_of(request), class_id))


@router.get("/sets/{int:set_id}/records", response={200: SendOut, 404: Detail})
def sent(request: HttpRequest, set_id: int) -> SendOut:
    """What would be sent to the records, and what was."""
    return sending.send_out(set_of(person_of(request), set_id))


@router.post("/sets/{int:set_id}/records", response={202: SendOut, 400: Detail, 404: Detail, 429: Detail})
def send(request: HttpRequest, set_id: int, data: SendIn) -> Status[SendOut]:
    """Begins to send marks to the records."""
    spend(person_of(request))
    return Status(202, sending.send_out(sending.begin(person_of(request), set_id, data.students)))


@router.get("/sets/{int:set_id}/oneroster.zip", response={200: None, 404: Detail})
def bundle(request: HttpRequest, set_id: int) -> HttpResponse:
    """The confirmed marks as a OneRoster bundle."""
    given_set = set_of(person_of(request), set_id)
    note_look(person_of(request), given_set, "took the marks away")
    name = content_disposition_header(True, f"oneroster-{set_id}.zip") or "attachment"
    return HttpResponse(
        sending.bundle(given_set), content_type="application/zip", headers={"Content-Disposition": name}
    )


@router.get("/students/{int:student_id}", response={200: None, 404: Detail, 429: Detail})
def student(request: HttpRequest, student_id: int, form: Literal["json", "pdf"] = "json") -> HttpResponse:
    """Everything that is kept of a student, as JSON or to read on paper."""
    data = person.data_of(person_of(request), student_id)
    if form == "pdf":
        spend(person_of(request))
        content, media = person.as_pdf(data, person.written_of(student_id)), "application/pdf"
    else:
        content, media = person.as_json(data), "application/json; charset=utf-8"
    name = content_disposition_header(True, f"student-{student_id}.{form}") or "attachment"
    return HttpResponse(content, content_type=media, headers={"Content-Disposition": name})


@router.patch("/students/{int:student_id}", response={200: ClassOut, 400: Detail, 404: Detail})
def change_student(request: HttpRequest, student_id: int, data: StudentChange) -> ClassOut:
    """Another name or number, or into another class; the class where the student is then."""
    student = change_one(person_of(request), student_id, data)
    return class_out(student.school_class)


@router.delete("/students/{int:student_id}", response={204: None, 404: Detail})
def erase_student(request: HttpRequest, student_id: int) -> Status[None]:
    """Erases a student with every paper and mark."""
    erase_all(person_of(request), student_id)
    return Status(204, None)
