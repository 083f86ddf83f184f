"""What the teacher does with a practice room: opens it, steers it, speaks to one student."""

from __future__ import annotations

from datetime import timedelta

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from server.marking.events import LinesPut, LinesVerified
from server.marking.queries import class_of, set_of
from server.marking.services import give_again
from server.room import coming_in
from server.room.models import Door, Room, RoomWorking, Secret, Visit
from server.room.schemas import RoomChange, RoomIn, SeatChange


@transaction.atomic
def open_room(teacher: User, set_id: int, data: RoomIn) -> int:
    """Opens the room of a set, or opens it again with these settings and a new code; the set that it is of, which is a
    new one for a second attempt. Raises Refused where the class has too many sets."""
    given_set = give_again(teacher, set_id) if data.opens == "again" else set_of(teacher, set_id)
    closes = timezone.now() + timedelta(minutes=data.minutes) if data.minutes else None
    wanted = {
        "tells": data.tells,
        "right_line": data.right_line,
        "hints": data.hints,
        "closes": closes,
        "show_time": data.show_time,
        "reading": data.opens == "reading",
        "ended": False,
        "paused": "",
        "code": coming_in.new_code(),
    }
    room, _ = Room.objects.update_or_create(given_set=given_set, defaults=wanted)
    room.touch()
    return given_set.pk


def room_of(teacher: User, set_id: int) -> Room:
    """The room of one of the teacher's sets. Raises Http404 where there is none."""
    found = Room.objects.select_related("given_set__school_class")
    return get_object_or_404(found, given_set_id=set_id, given_set__school_class__owner=teacher)


@transaction.atomic
def change_room(teacher: User, set_id: int, data: RoomChange) -> None:
    """Steers a room: what it tells, paused with a sentence, ended, another code."""
    room = Room.objects.select_for_update().get(pk=room_of(teacher, set_id).pk)
    for name in ("tells", "right_line", "hints", "paused", "ended"):
        value = getattr(data, name)
        if value is not None:
            setattr(room, name, value)
    if data.new_code:
        room.code = coming_in.new_code()
    room.version += 1
    room.save()


@transaction.atomic
def change_seat(teacher: User, set_id: int, student_id: int, data: SeatChange) -> None:
    """A nudge, more minutes, or a secret taken away, for one student; nobody else sees it. Raises Http404."""
    room = room_of(teacher, set_id)
    student = get_object_or_404(room.given_set.school_class.students, pk=student_id)
    if data.forget_secret:
        Secret.objects.filter(student=student).delete()  # who is in by it is out
        coming_in.forget_tries(student.pk)
    if data.nudge is not None or data.more_minutes is not None or data.open_minutes is not None:
        visit, _ = Visit.objects.get_or_create(room=room, student=student)
        visit.nudge = visit.nudge if data.nudge is None else data.nudge
        visit.more_minutes = visit.more_minutes if data.more_minutes is None else data.more_minutes
        if data.open_minutes is not None:
            visit.until = timezone.now() + timedelta(minutes=data.open_minutes)
        visit.version = room.touch()
        visit.save()


@transaction.atomic
def seen_late(event: LinesVerified) -> None:
    """Notes in its room that workings were verified after they were written."""
    late = RoomWorking.objects.filter(working__item=event.item, working__lines=event.lines)
    room = Room.objects.filter(given_set=event.given_set).first() if late.exists() else None
    if room is not None:
        late.update(version=room.touch())


@transaction.atomic
def written_for(event: LinesPut) -> None:
    """Notes in its room that a working was written in the student's place, so that the teacher sees it there."""
    room = Room.objects.filter(given_set=event.given_set).first()
    if room is None:
        return
    RoomWorking.objects.get_or_create(working_id=event.working)
    RoomWorking.objects.filter(working=event.working).update(version=room.touch())


def open_door(teacher: User, class_id: int) -> str:
    """A code by which a class comes in from home, a new one where there was one."""
    school_class = class_of(teacher, class_id)
    door, _ = Door.objects.update_or_create(school_class=school_class, defaults={"code": coming_in.new_code()})
    return door.code


def door_of(teacher: User, class_id: int) -> str:
    """The code by which a class comes in from home; empty where there is none."""
    door = Door.objects.filter(school_class=class_of(teacher, class_id)).first()
    return door.code if door else ""


def close_door(teacher: User, class_id: int) -> None:
    """Nobody comes in from home any more."""
    Door.objects.filter(school_class=class_of(teacher, class_id)).delete()
