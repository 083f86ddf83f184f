"""Reads of the practice room: one student's own, and the teacher's grid."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property, lru_cache
from typing import Any

from django.contrib.auth.models import User
from django.db.models import Q, QuerySet
from django.http import Http404

from algebra import SLIPS, Echo, Working, instruction, understood
from server.accounts.words import Words, words_of
from server.common.rows import Rows
from server.marking import forms, pile
from server.marking.models import GivenSet, SetItem, Student, StudentWorking
from server.room import coming_in, telling
from server.room.asking import my_ask
from server.room.coming_in import Inside
from server.room.models import Room, RoomWorking
from server.room.schemas import MyItem, MyRoom, MyWorking, News, RoomOut, SeatCell, SeatOut, ToldLineOut, Written
from server.room.writing import Kept
from server.sheets.schemas import Bead

_SLIPS = {slip.id: slip for slip in SLIPS}


def my_room(me: Inside) -> MyRoom:
    """The room of one student: the items, the own workings, and what is told of them."""
    found = StudentWorking.objects.filter(paper__given_set=me.given_set, paper__student=me.student)
    mine = {working.item_id: working for working in found.select_related("in_room")}
    told = Telling.inside(me)
    given_set = GivenSet(pk=me.given_set, conventions=me.conventions)
    items = []
    for item in SetItem.objects.filter(given_set=me.given_set).order_by("position"):
        item.given_set = given_set
        items.append(my_item(told, item, mine.get(item.pk), reading=me.reading))
    return MyRoom(title=me.title, student=me.name, decimal=told.decimal, items=items, **_news(me))


def news(me: Inside) -> News:
    """What the teacher may have changed."""
    return News(**_news(me))


def written(me: Inside, item: int, kept: Kept) -> Written:
    """One item after it was written."""
    return Written(item=item, working=Telling.inside(me).of(kept), **_news(me))


def _news(me: Inside) -> dict[str, Any]:
    closes = me.closes + timedelta(minutes=me.more_minutes) if me.closes and me.show_time else None
    return {
        "tells": me.tells,
        "hints": me.hints,
        "paused": me.paused,
        "nudge": me.nudge,
        "closes": closes,
        "over": me.over,
        "ask": my_ask(me),
    }


@lru_cache(maxsize=4096)
def echo_of(text: str, decimal: str) -> Echo:
    """A line as it is understood; a class writes and reads the same lines over and over."""
    return understood(text, decimal=decimal)


@lru_cache(maxsize=1024)
def instructed(task: str, given: str, variable: str, numbers: str, method: str) -> str:
    """What a problem asks, in words."""
    return f"{instruction(Working(task, given, (), variable or None, numbers, {}, method=method or None))}."


def my_item(told: Telling, item: SetItem, working: StudentWorking | None, *, reading: bool = False) -> MyItem:
    """An item as a student sees it, with the own working where there is one; where the student is only `reading` it is
    closed."""
    given = echo_of(item.given, told.decimal)
    kept = None
    if working is not None:
        working.item = item  # as it was read with the others
        extra: RoomWorking | None = getattr(working, "in_room", None)
        report = pile.report_of(working) if pile.is_fresh(working) else None
        kept = Kept(working.pk, working.texts, working.revision, extra.hints if extra else 0, report)
    return MyItem(
        id=item.pk,
        number=item.position + 1,
        task=item.task,
        form=forms.shown(item, pile.problem_of(item)),
        instruction=forms.words_over(item)
        or instructed(item.task, item.given, item.variable, item.numbers, item.method),
        given=item.given,
        given_latex=given.latex,
        closed=reading or (working is not None and working.mark is not None),
        working=None if kept is None else told.of(kept),
    )


@dataclass(frozen=True)
class Telling:
    """What is told one student of workings: by the teacher's setting, in the teacher's own words where there are some.
    `ended` is when all is told."""

    tells: telling.Tells
    right_line: bool
    ended: bool
    decimal: str
    owner: int

    @classmethod
    def inside(cls, me: Inside) -> Telling:
        """As the room has it."""
        return cls(me.tells, me.right_line, me.over, str(me.conventions.get("decimal", "point")), me.owner)

    @cached_property
    def own(self) -> Words:
        """The teacher's own words; read only where any are told."""
        return words_of(self.owner)

    def of(self, kept: Kept) -> MyWorking:
        """A student's own working with what is told of it, and nothing more."""
        found = telling.Told(())
        if kept.report is not None:
            slips = [link.slip for link in kept.report.links if link.slip is not None]
            cues = {}
            if telling.has_words(self.tells, ended=self.ended):
                cues = {s.id: self.own.of(s.id, s.name, s.cue).text for s in slips}
            found = telling.told(kept.report, self.tells, ended=self.ended, right_line=self.right_line, words=cues)
        return MyWorking(
            revision=kept.revision,
            lines=kept.lines,
            echoes=[echo_of(line, self.decimal) for line in kept.lines],
            told=[ToldLineOut(verdict=t.verdict, words=t.words, right=t.right) for t in found.lines],
            answered=found.answered,
            hints=kept.hints,
        )


_ROOM_COLUMNS = [field.attname for field in Room._meta.concrete_fields]
_ROOM = Rows(
    2,
    lambda given_set, owner: Room.objects.filter(given_set=given_set, given_set__school_class__owner=owner).values_list(
        *_ROOM_COLUMNS
    ),
)


def room_out(teacher: User, set_id: int, since: int = -1) -> RoomOut:
    """The teacher's grid: all of it, or what has changed since a version. Raises Http404 where there is no room."""
    room = next((Room.from_db(None, _ROOM_COLUMNS, row) for row in _ROOM(set_id, teacher.pk)), None)
    if room is None:
        raise Http404
    items = SetItem.objects.filter(given_set=set_id).order_by("position").values_list("pk", flat=True)
    return RoomOut(
        given_set=set_id,
        reading=room.reading,
        version=room.version,
        code=room.code,
        tells=room.telling,
        right_line=room.right_line,
        hints=room.hints,
        paused=room.paused,
        closes=room.closes,
        ended=coming_in.is_over(room),
        items=list(items) if since < 0 else [],
        seats=_seats(room, since) if since != room.version else [],
    )


def _seats(room: Room, since: int) -> list[SeatOut]:
    """The students where something changed after a version; before any, the whole class."""
    cells: dict[int, list[SeatCell]] = {}
    written: dict[int, datetime] = {}
    rows = _CELLS(room.given_set_id) if since < 0 else _CHANGED(room.given_set_id, since)
    for student, changed, *row in rows:
        cells.setdefault(student, []).append(_cell(*row))
        if changed is not None:
            written[student] = max(changed, written.get(student, changed))
    visits = {visit.student_id: visit for visit in room.visits.filter(Q(version__gt=since) | Q(student__in=cells))}
    students = Student.objects.filter(school_class__sets=room.given_set_id)
    if since >= 0:
        students = students.filter(pk__in=set(visits) | set(cells))
    found = []
    for pk, name in students.order_by("name", "pk").values_list("pk", "name"):
        visit = visits.get(pk)
        times = [*([visit.heard] if visit else []), *([written[pk]] if pk in written else [])]
        found.append(
            SeatOut(
                student=pk,
                name=name,
                heard=max(times, default=None),
                nudge=visit.nudge if visit else "",
                more_minutes=visit.more_minutes if visit else 0,
                cells=cells.get(pk, []),
            )
        )
    return found


def _cells_of(given_set: int) -> QuerySet[Any, Any]:
    columns = ("item", "pk", "report__links", "report__finish__finished", "right", "slips", "in_room__hints", "mark")
    rows = StudentWorking.objects.filter(paper__given_set=given_set).order_by("item__position")
    return rows.values_list("paper__student", "in_room__changed", *columns)


_CELLS = Rows(1, _cells_of)
_CHANGED = Rows(2, lambda given_set, since: _cells_of(given_set).filter(in_room__version__gt=since))


def _cell(
    item: int,
    working: int,
    links: list[dict[str, Any]] | None,
    finished: bool | None,
    right: bool,
    slips: list[str],
    hints: int | None,
    mark: float | None,
) -> SeatCell:
    found = links or []
    stuck = next((link["line"] for link in found if link["relation"] in ("breaks", "narrows")), 0)
    slip = _SLIPS.get(slips[0]) if slips else None
    beads = [Bead(kind=link["kind"], relation=link["relation"]) for link in found]
    return SeatCell(
        item=item,
        working=working,
        beads=beads,
        stuck=stuck,
        answered=bool(right and finished),
        slip=slip.name if slip else "",
        hints=hints or 0,
        marked=mark is not None,
    )
