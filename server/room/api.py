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
from server.room import asking, coming_in, home, queries, services, writing
from server.room.schemas import (
    AnswerIn,
    AskIn,
    CameIn,
    ComeIn,
    DoorOut,
    HomeTask,
    MyHome,
    MyLines,
    MyRoom,
    News,
    ProblemRoom,
    RoomAsk,
    RoomChange,
    RoomHint,
    RoomIn,
    RoomOut,
    SeatChange,
    Since,
    Written,
)

student = Router()
teacher = Router()


@student.post("/come-in", response={200: CameIn, 400: Detail, 429: Detail}, auth=None)
@decorate_view(csrf_protect)
def come_in(request: HttpRequest, response: HttpResponse, data: ComeIn) -> CameIn:
    """Into a room by its code, or to the own page by the code of the class; a name of the class, and the student's own
    secret."""
    came = coming_in.come_in(request, data.code, data.name, data.secret)
    for name, (value, age) in coming_in.cookies(request, came).items():
        response.set_cookie(name, value, max_age=age, httponly=True, samesite="Lax", secure=request.is_secure())
    return CameIn(room=queries.my_room(coming_in.inside(came.visit.pk)) if came.visit else None)


@student.post("/leave", response={204: None}, auth=None)
@decorate_view(csrf_protect)
def leave(request: HttpRequest, response: HttpResponse) -> Status[None]:
    """Out of the room, for the next one at this device."""
    response.delete_cookie(coming_in.INSIDE, samesite="Lax")
    return Status(204, None)


@student.get("", response={200: MyRoom, 403: Detail}, auth=None)
@decorate_view(ensure_csrf_cookie)
def my_room(request: HttpRequest) -> MyRoom:
    """The room as this student has it."""
    return queries.my_room(coming_in.inside_of(request))


@student.get("/news", response={200: News, 403: Detail}, auth=None)
def news(request: HttpRequest) -> News:
    """What the teacher has said or changed."""
    return queries.news(coming_in.inside_of(request))


@student.put(
    "/items/{int:item_id}", response={200: Written, 400: Detail, 403: Detail, 404: Detail, 409: Detail}, auth=None
)
@decorate_view(csrf_protect)
def write(request: HttpRequest, item_id: int, data: MyLines) -> Written:
    """The lines of one item; the item as it is then, and what is new."""
    me = coming_in.inside_of(request)
    return queries.written(me, item_id, writing.write(me, writing.item_of(me, item_id), data))


@student.post("/items/{int:item_id}/hint", response={200: RoomHint, 400: Detail, 403: Detail, 404: Detail}, auth=None)
@decorate_view(csrf_protect)
def hint(request: HttpRequest, item_id: int) -> RoomHint:
    """The next hint for an item, counted."""
    me = coming_in.inside_of(request)
    return writing.hint(me, writing.item_of(me, item_id))


@student.post("/echo", response={200: Echo, 403: Detail}, auth=None)
@decorate_view(csrf_protect)
def echo(request: HttpRequest, data: EchoIn) -> Echo:
    """A line as it is understood, while it is being typed."""
    coming_in.inside_of(request)
    return understood(data.text, decimal=data.decimal)


@student.post("/ask", response={200: News, 400: Detail, 403: Detail}, auth=None)
@decorate_view(csrf_protect)
def answer(request: HttpRequest, data: AnswerIn) -> News:
    """An answer to what the class is asked just now."""
    me = coming_in.inside_of(request)
    asking.answer(me, data)
    return queries.news(me)


@student.get("/home", response={200: MyHome, 403: Detail}, auth=None)
@decorate_view(ensure_csrf_cookie)
def my_home(request: HttpRequest) -> MyHome:
    """The own page of a student."""
    return home.home(coming_in.student_of(request))


@student.put(
    "/home/problems/{int:problem_id}",
    response={200: HomeTask, 400: Detail, 403: Detail, 404: Detail, 409: Detail},
    auth=None,
)
@decorate_view(csrf_protect)
def write_at_home(request: HttpRequest, problem_id: int, data: MyLines) -> HomeTask:
    """The lines of a problem of the own page."""
    return home.task_out(home.write(coming_in.student_of(request), problem_id, data))


@teacher.get("/classes/{int:class_id}/door", response={200: DoorOut, 404: Detail})
def door(request: HttpRequest, class_id: int) -> DoorOut:
    """The code by which a class comes in from home."""
    return DoorOut(code=services.door_of(person_of(request), class_id))


@teacher.post("/classes/{int:class_id}/door", response={200: DoorOut, 404: Detail})
def open_door(request: HttpRequest, class_id: int) -> DoorOut:
    """A new code by which a class comes in from home."""
    return DoorOut(code=services.open_door(person_of(request), class_id))


@teacher.delete("/classes/{int:class_id}/door", response={204: None, 404: Detail})
def close_door(request: HttpRequest, class_id: int) -> Status[None]:
    """Nobody comes in from home any more."""
    services.close_door(person_of(request), class_id)
    return Status(204, None)


@teacher.post("/sets/{int:set_id}/room", response={201: RoomOut, 400: Detail, 404: Detail})
def open_room(request: HttpRequest, set_id: int, data: RoomIn) -> Status[RoomOut]:
    """Opens the room of a set, or opens it again with a new code; for a second attempt that of a new set."""
    opened = services.open_room(person_of(request), set_id, data)
    return Status(201, queries.room_out(person_of(request), opened))


@teacher.get("/sets/{int:set_id}/room", response={200: RoomOut, 404: Detail})
def room(request: HttpRequest, set_id: int, since: Since = -1) -> RoomOut:
    """The class in its room; of its seats those where something has changed since that version."""
    return queries.room_out(person_of(request), set_id, since)


@teacher.patch("/sets/{int:set_id}/room", response={200: RoomOut, 404: Detail})
def change_room(request: HttpRequest, set_id: int, data: RoomChange) -> RoomOut:
    """Steers a room: paused, ended, what it tells."""
    services.change_room(person_of(request), set_id, data)
    return queries.room_out(person_of(request), set_id)


@teacher.post("/sets/{int:set_id}/room/students/{int:student_id}", response={200: RoomOut, 404: Detail})
def change_seat(request: HttpRequest, set_id: int, student_id: int, data: SeatChange) -> RoomOut:
    """For one student: a nudge, more minutes, the secret taken away."""
    services.change_seat(person_of(request), set_id, student_id, data)
    return queries.room_out(person_of(request), set_id)


@teacher.get("/sets/{int:set_id}/room/ask", response={200: RoomAsk, 404: Detail})
def asked(request: HttpRequest, set_id: int) -> RoomAsk:
    """What the room is asked, with its answers counted."""
    return RoomAsk(ask=asking.asked(person_of(request), set_id))


@teacher.post("/sets/{int:set_id}/room/ask", response={200: RoomAsk, 400: Detail, 404: Detail})
def ask(request: HttpRequest, set_id: int, data: AskIn) -> RoomAsk:
    """Asks the room which line breaks, or how it goes on."""
    asking.ask(person_of(request), set_id, data)
    return RoomAsk(ask=asking.asked(person_of(request), set_id))


@teacher.delete("/sets/{int:set_id}/room/ask", response={204: None, 404: Detail})
def stop_asking(request: HttpRequest, set_id: int) -> Status[None]:
    """Asks nothing any more."""
    asking.stop_asking(person_of(request), set_id)
    return Status(204, None)


@teacher.get("/problems/{int:problem_id}/room", response={200: ProblemRoom, 404: Detail})
def problem_room(request: HttpRequest, problem_id: int) -> ProblemRoom:
    """Where a class works this problem just now, and what it has written."""
    return asking.room_for(person_of(request), problem_id)
