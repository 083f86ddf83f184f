"""/api/room: a student's side of a practice room. /api/sets/{id}/room: the teacher's."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router, Status
from ninja.decorators import decorate_view

from algebra import Echo, understood
from server.checking.schemas import EchoIn
from server.common.schemas import Detail
from server.common.who import person_of
from server.room import coming_in, queries, services
from server.room.schemas import ComeIn, MyLines, MyRoom, RoomChange, RoomHint, RoomIn, RoomOut, SeatChange, Since

student = Router()
teacher = Router()


@student.post("/come-in", response={200: MyRoom, 400: Detail, 429: Detail}, auth=None)
@decorate_view(csrf_protect)
def come_in(request: HttpRequest, response: HttpResponse, data: ComeIn) -> MyRoom:
    """Into a room by its code, a name of the class, and the student's own secret."""
    visit = coming_in.come_in(request, data.code, data.name, data.secret)
    response.set_cookie(
        coming_in.DEVICE, coming_in.device_cookie(request, visit.student_id), max_age=coming_in.DEVICE_AGE, httponly=True, samesite="Lax",
        secure=request.is_secure(),
    )  # fmt: skip
    return queries.my_room(visit)


@student.post("/leave", response={204: None}, auth=None)
@decorate_view(csrf_protect)
def leave(request: HttpRequest) -> Status[None]:
    """Out of the room, for the next one at this device."""
    coming_in.leave(request)
    return Status(204, None)


@student.get("", response={200: MyRoom, 403: Detail}, auth=None)
@decorate_view(ensure_csrf_cookie)
def my_room(request: HttpRequest) -> MyRoom:
    """The room as this student has it."""
    return queries.my_room(coming_in.visit_of(request))


@student.put(
    "/items/{int:item_id}", response={200: MyRoom, 400: Detail, 403: Detail, 404: Detail, 409: Detail}, auth=None
)
@decorate_view(csrf_protect)
def write(request: HttpRequest, item_id: int, data: MyLines) -> MyRoom:
    """The lines of one item; the room as it is then."""
    visit = coming_in.visit_of(request)
    services.write(visit, item_id, data)
    return queries.my_room(visit)


@student.post("/items/{int:item_id}/hint", response={200: RoomHint, 400: Detail, 403: Detail, 404: Detail}, auth=None)
@decorate_view(csrf_protect)
def hint(request: HttpRequest, item_id: int) -> RoomHint:
    """The next hint for an item, counted."""
    return services.hint(coming_in.visit_of(request), item_id)


@student.post("/echo", response={200: Echo, 403: Detail}, auth=None)
@decorate_view(csrf_protect)
def echo(request: HttpRequest, data: EchoIn) -> Echo:
    """A line as it is understood, while it is being typed."""
    coming_in.visit_of(request)
    return understood(data.text, decimal=data.decimal)


@teacher.post("/sets/{int:set_id}/room", response={201: RoomOut, 404: Detail})
def open_room(request: HttpRequest, set_id: int, data: RoomIn) -> Status[RoomOut]:
    """Opens the room of a set, or opens it again with a new code."""
    return Status(201, queries.room_out(services.open_room(person_of(request), set_id, data)))


@teacher.get("/sets/{int:set_id}/room", response={200: RoomOut, 404: Detail})
def room(request: HttpRequest, set_id: int, since: Since = -1) -> RoomOut:
    """The class in its room; without its seats where nothing has changed since that version."""
    return queries.room_out(services.room_of(person_of(request), set_id), since)


@teacher.patch("/sets/{int:set_id}/room", response={200: RoomOut, 404: Detail})
def change_room(request: HttpRequest, set_id: int, data: RoomChange) -> RoomOut:
    """Steers a room: paused, ended, what it tells."""
    return queries.room_out(services.change_room(person_of(request), set_id, data))


@teacher.post("/sets/{int:set_id}/room/students/{int:student_id}", response={200: RoomOut, 404: Detail})
def change_seat(request: HttpRequest, set_id: int, student_id: int, data: SeatChange) -> RoomOut:
    """For one student: a nudge, more minutes, the secret taken away."""
    services.change_seat(person_of(request), set_id, student_id, data)
    return queries.room_out(services.room_of(person_of(request), set_id))
