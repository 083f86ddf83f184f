"""Reads of the practice room: one student's own, and the teacher's grid."""

from __future__ import annotations

from collections import Counter
from datetime import timedelta
from functools import lru_cache
from typing import cast

from algebra import SLIPS, Echo, Report, Working, instruction, understood
from server.accounts.words import Words, words_of
from server.marking import pile
from server.marking.models import SetItem, StudentWorking
from server.room import coming_in, telling
from server.room.models import Room, RoomWorking, Visit
from server.room.schemas import MyItem, MyRoom, MyWorking, RoomOut, SeatCell, SeatOut, ToldLineOut

_SLIPS = {slip.id: slip for slip in SLIPS}


def my_room(visit: Visit) -> MyRoom:
    """The room of one student: the items, the own workings, and what is told of them."""
    room = visit.room
    items = list(room.given_set.items.select_related("given_set").order_by("position"))
    mine = {
        w.item_id: w
        for w in StudentWorking.objects.filter(paper__given_set=room.given_set, paper__student=visit.student)
    }
    extra = {e.working_id: e for e in RoomWorking.objects.filter(working__in=mine.values())}
    over = coming_in.is_over(room, visit.more_minutes)
    own = words_of(room.given_set.school_class.owner_id)
    closes = room.closes + timedelta(minutes=visit.more_minutes) if room.closes and room.show_time else None
    return MyRoom(
        title=room.given_set.title, student=visit.student.name, tells=room.tells, hints=room.hints, paused=room.paused, nudge=visit.nudge,  # type: ignore[arg-type]
        closes=closes, over=over, items=[_my_item(room, item, mine.get(item.pk), extra, over, own) for item in items],
    )  # fmt: skip


@lru_cache(maxsize=4096)
def _echo(text: str, decimal: str) -> Echo:
    """A line as it is understood; a class writes and reads the same lines over and over."""
    return understood(text, decimal=decimal)


@lru_cache(maxsize=1024)
def _instruction(task: str, given: str, variable: str, numbers: str, method: str) -> str:
    return f"{instruction(Working(task, given, (), variable or None, numbers, {}, method=method or None))}."


def _my_item(
    room: Room, item: SetItem, working: StudentWorking | None, extra: dict[int, RoomWorking], over: bool, own: Words
) -> MyItem:
    given = _echo(item.given, _decimal(room))
    if working is not None:
        working.item = item  # as it was read with the others
    return MyItem(
        id=item.pk, number=item.position + 1, task=item.task, instruction=_instruction(item.task, item.given, item.variable, item.numbers, item.method),
        given=item.given, given_latex=f"{given.left} {given.right}".strip(),
        working=None if working is None else my_working(room, working, extra.get(working.pk), over, own),
    )  # fmt: skip


def _decimal(room: Room) -> str:
    return str(room.given_set.conventions.get("decimal", "point"))


def my_working(room: Room, working: StudentWorking, extra: RoomWorking | None, over: bool, own: Words) -> MyWorking:
    """A student's own working with what is told of it, and nothing more."""
    report: Report | None = pile.report_of(working) if pile.is_fresh(working) else None
    cues = {}
    if report is not None:
        cues = {s.id: own.of(s.id, s.name, s.cue).text for s in (link.slip for link in report.links) if s is not None}
    tells = cast(telling.Tells, room.tells)
    found = telling.Told(())
    if report is not None:
        found = telling.told(report, tells, ended=over, right_line=room.right_line, words=cues)
    return MyWorking(
        revision=extra.revision if extra else 0, lines=working.texts, echoes=[_echo(line, _decimal(room)) for line in working.texts],
        told=[ToldLineOut(verdict=t.verdict, words=t.words, right=t.right) for t in found.lines], answered=found.answered,
        hints=extra.hints if extra else 0,
    )  # fmt: skip


def room_out(room: Room, since: int = -1) -> RoomOut:
    """The teacher's grid; without its seats where nothing has changed since a version."""
    items = list(room.given_set.items.order_by("position").values_list("pk", flat=True))
    seats = _seats(room) if since != room.version else None
    slips = Counter(cell.slip for seat in seats or [] for cell in seat.cells if cell.slip)
    return RoomOut(
        version=room.version, code=room.code, tells=room.tells, right_line=room.right_line, hints=room.hints, paused=room.paused, closes=room.closes,  # type: ignore[arg-type]
        ended=coming_in.is_over(room), items=items, seats=seats, commonest=slips.most_common(1)[0][0] if slips else "",
    )  # fmt: skip


def _seats(room: Room) -> list[SeatOut]:
    visits = {visit.student_id: visit for visit in room.visits.all()}
    cells: dict[int, list[SeatCell]] = {}
    rows = (
        StudentWorking.objects.filter(paper__given_set=room.given_set)
        .select_related("paper", "in_room")
        .order_by("item__position")
    )
    for working in rows:
        cells.setdefault(working.paper.student_id, []).append(_cell(working))
    return [
        SeatOut(
            student=student.pk, name=student.name, heard=visits[student.pk].heard if student.pk in visits else None,
            nudge=visits[student.pk].nudge if student.pk in visits else "", more_minutes=visits[student.pk].more_minutes if student.pk in visits else 0,
            cells=cells.get(student.pk, []),
        )
        for student in room.given_set.school_class.students.order_by("name", "pk")
    ]  # fmt: skip


def _cell(working: StudentWorking) -> SeatCell:
    report = working.report if isinstance(working.report, dict) else None
    links = report["links"] if report else []
    stuck = next((link["line"] for link in links if link["relation"] in ("breaks", "narrows")), 0)
    slip = _SLIPS.get(working.slips[0]) if working.slips else None
    extra = getattr(working, "in_room", None)
    return SeatCell(
        item=working.item_id, working=working.pk, beads=[{"kind": link["kind"], "relation": link["relation"]} for link in links], stuck=stuck,  # type: ignore[misc]
        answered=bool(report and working.right and report["finish"]["finished"]), slip=slip.name if slip else "", hints=extra.hints if extra else 0,
    )  # fmt: skip
