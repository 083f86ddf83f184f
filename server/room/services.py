"""Writes of the practice room: the teacher opens and steers it, students write into the set that it belongs to."""

from __future__ import annotations

from datetime import timedelta

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

import lanes
from algebra import ReadingError, TaskError
from server.common.problems import Conflict, Refused
from server.marking import pile
from server.marking.models import GivenSet, Paper, SetItem, StudentWorking
from server.marking.queries import set_of
from server.marking.services import put_lines
from server.room import coming_in
from server.room.models import Room, RoomWorking, Secret, Visit
from server.room.schemas import MyLines, RoomChange, RoomHint, RoomIn, SeatChange

SOURCE = "room"


@transaction.atomic
def open_room(teacher: User, set_id: int, data: RoomIn) -> Room:
    """Opens the room of a set, or opens it again with these settings and a new code."""
    given_set = set_of(teacher, set_id)
    closes = timezone.now() + timedelta(minutes=data.minutes) if data.minutes else None
    wanted = {
        "tells": data.tells, "right_line": data.right_line, "hints": data.hints, "closes": closes, "show_time": data.show_time, "ended": False,
        "paused": "", "code": coming_in.new_code(),
    }  # fmt: skip
    room, _ = Room.objects.update_or_create(given_set=given_set, defaults=wanted)
    room.touch()
    return room_of(teacher, set_id)


def room_of(teacher: User, set_id: int) -> Room:
    """The room of one of the teacher's sets. Raises Http404 where there is none."""
    found = Room.objects.select_related("given_set__school_class")
    return get_object_or_404(found, given_set_id=set_id, given_set__school_class__owner=teacher)


@transaction.atomic
def change_room(teacher: User, set_id: int, data: RoomChange) -> Room:
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
    return room_of(teacher, set_id)


@transaction.atomic
def change_seat(teacher: User, set_id: int, student_id: int, data: SeatChange) -> Room:
    """A nudge, more minutes, or a secret taken away, for one student; nobody else sees it. Raises Http404."""
    room = room_of(teacher, set_id)
    student = get_object_or_404(room.given_set.school_class.students, pk=student_id)
    if data.forget_secret:
        Secret.objects.filter(student=student).delete()  # who is in by it is out
    if data.nudge is not None or data.more_minutes is not None:
        visit, _ = Visit.objects.get_or_create(room=room, student=student)
        visit.nudge = visit.nudge if data.nudge is None else data.nudge
        visit.more_minutes = visit.more_minutes if data.more_minutes is None else data.more_minutes
        visit.save()
    room.touch()
    return room


def _writable(visit: Visit) -> None:
    """Raises Refused where nothing may be written: the room is over, or paused."""
    if coming_in.is_over(visit.room, visit.more_minutes):
        raise Refused("This room is closed. What you wrote before is kept.", code="closed")
    if visit.room.paused:
        raise Refused(f"A pause: {visit.room.paused}", code="paused")


def write(visit: Visit, item_id: int, data: MyLines) -> StudentWorking:
    """Keeps the lines of a student and verifies them. The same once more changes nothing; raises Conflict where they were changed elsewhere meanwhile."""
    _writable(visit)
    given_set = visit.room.given_set
    item = get_object_or_404(given_set.items.select_related("given_set"), pk=item_id)
    with transaction.atomic():
        # a student's papers wait for each other, not for the class
        paper, _ = Paper.objects.get_or_create(given_set=given_set, student=visit.student)
        Paper.objects.select_for_update().get(pk=paper.pk)
        working = StudentWorking.objects.filter(paper=paper, item=item).first()
        extra = RoomWorking.objects.filter(working=working).first() if working else None
        revision = extra.revision if extra else 0
        if working is not None and working.lines == data.lines:
            return working
        if data.revision != revision:
            raise Conflict(
                "This was changed on another device.", lines=list(working.texts) if working else [], revision=revision
            )
        put_lines(f"{visit.student.name}, in the room", given_set, visit.student, item, data.lines, SOURCE)
        working = StudentWorking.objects.get(paper=paper, item=item)
        working.item = item  # with its set, as it was read
        if extra is None:
            RoomWorking.objects.create(working=working, revision=revision + 1)
        else:
            extra.revision = revision + 1
            extra.save(update_fields=["revision", "changed"])
    _verify(given_set, working)
    visit.save(update_fields=["heard"])
    visit.room.touch()
    return working


def _verify(given_set: GivenSet, working: StudentWorking) -> None:
    try:
        pile.verify(working, at_once=True)
    except lanes.Busy:  # it is kept, and verified among the jobs
        pile.begin(given_set)


def hint(visit: Visit, item_id: int) -> RoomHint:
    """The next hint: what to look at, then the rule, then the line where the teacher allows it; each is counted. Raises Refused."""
    _writable(visit)
    room = visit.room
    item: SetItem = get_object_or_404(room.given_set.items.select_related("given_set"), pk=item_id)
    with transaction.atomic():
        paper, _ = Paper.objects.get_or_create(given_set=room.given_set, student=visit.student)
        Paper.objects.select_for_update().get(pk=paper.pk)
        working, _ = StudentWorking.objects.get_or_create(
            paper=paper, item=item, defaults={"lines": [], "source": SOURCE}
        )
        RoomWorking.objects.get_or_create(working=working)
        extra = RoomWorking.objects.select_for_update().get(working=working)
        if extra.hints >= room.hints:
            raise Refused(
                "There are no more hints for this one." if room.hints else "There are no hints in this room.",
                code="no-hint",
            )
        report = pile.report_of(working) if pile.is_fresh(working) else None
        sound = working.texts if report is None else _sound(working.texts, [link.relation for link in report.links])
        try:
            found = lanes.next_step(pile.problem_of(item, sound))
        except (TaskError, ReadingError) as problem:
            raise Refused("No hint is known here.", code="no-hint") from problem
        extra.hints += 1
        extra.save()
    room.touch()
    step = found.step
    return RoomHint(
        look=found.look, rule=step.rule.name if step is not None and extra.hints > 1 else "",
        line=step.line if step is not None and extra.hints > 2 and room.right_line else "", left=room.hints - extra.hints,
    )  # fmt: skip


def _sound(lines: list[str], relations: list[str | None]) -> list[str]:
    """The lines before the first that does not hold: a hint goes on from there."""
    for k, relation in enumerate(relations):
        if relation in ("breaks", "narrows"):
            return lines[:k]
    return lines
