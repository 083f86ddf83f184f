"""What a student does in a practice room: writes lines into the set that it belongs to, and asks for hints."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import TypeGuard

from django.db import IntegrityError, transaction
from django.db.models import Exists, OuterRef
from django.http import Http404
from django.utils import timezone

import lanes
from algebra import ReadingError, Report, TaskError
from server.common.problems import Conflict, Refused
from server.common.rows import Rows
from server.marking import pile
from server.marking.models import Decision, GivenSet, Paper, SetItem, StudentWorking
from server.marking.services import let_fall, put_columns
from server.room.coming_in import Inside
from server.room.models import RoomWorking, touched
from server.room.schemas import MyLines, RoomHint

SOURCE = "room"


@dataclass(frozen=True, slots=True)
class Kept:
    """A student's working of an item as it stands, and the report on it where it is verified."""

    pk: int
    lines: list[str]
    revision: int = 0
    hints: int = 0
    report: Report | None = None
    in_room: bool = True
    mark: float | None = None
    decided: bool = False


def writable(me: Inside) -> None:
    """Raises Refused where nothing may be written: the room is over, or paused."""
    if me.over:
        raise Refused("This room is closed. What you wrote before is kept.", code="closed")
    if me.paused:
        raise Refused(f"A pause: {me.paused}", code="paused")


_ITEM_COLUMNS = ["id", "position", "task", "given", "variable", "numbers", "method", "form", "made", "scheme"]
_ITEM = Rows(
    2,
    lambda given_set, item: SetItem.objects.filter(given_set=given_set, pk=item).order_by().values_list(*_ITEM_COLUMNS),
)


def item_of(me: Inside, item_id: int) -> SetItem:
    """An item of the room's set. Raises Http404."""
    for row in _ITEM(me.given_set, item_id):
        item = SetItem.from_db(None, _ITEM_COLUMNS, row)
        item.given_set = GivenSet(pk=me.given_set, conventions=me.conventions)
        return item
    raise Http404


def write(me: Inside, item: SetItem, data: MyLines) -> Kept:
    """Keeps the lines of a student with what came of verifying them. The same once more changes nothing; raises
    Conflict where they were changed elsewhere meanwhile."""
    writable(me)
    kept = _kept(me, item)
    if _is_same(kept, data):
        return _with_report(kept, item)
    try:
        judged = pile.judged(item, data.lines, at_once=True)
    except lanes.Busy:  # it is kept, and verified among the jobs
        judged = pile.Judged()
    working = _put_once(me, item, kept, data, judged)
    if working is None:  # by another device, by the same line that was sent twice, or by a hint
        kept = _kept(me, item)
        if _is_same(kept, data):
            return _with_report(kept, item)
        working = _put_once(me, item, kept, data, judged)
    if working is None:
        raise Conflict(
            "This was changed on another device.",
            lines=list(kept.lines) if kept else [],
            revision=kept.revision if kept else 0,
        )
    if judged.report is None:
        pile.begin(GivenSet.objects.get(pk=me.given_set))
    return working


def _put_once(me: Inside, item: SetItem, kept: Kept | None, data: MyLines, judged: pile.Judged) -> Kept | None:
    """The working with these lines; None where something else was written since it was read."""
    try:
        with transaction.atomic():
            return _put(me, item, kept, data, judged)
    except (IntegrityError, _Overtaken):
        return None


class _Overtaken(Exception):
    """Another device has written meanwhile."""


_KEPT = Rows(
    3,
    lambda given_set, student, item: StudentWorking.objects.filter(
        paper__given_set=given_set, paper__student=student, item=item
    ).values_list(
        "pk",
        "lines",
        "in_room__revision",
        "in_room__hints",
        "mark",
        Exists(Decision.objects.filter(working=OuterRef("pk"))),
    ),
)


def _kept(me: Inside, item: SetItem) -> Kept | None:
    for pk, lines, revision, hints, mark, ever in _KEPT(me.given_set, me.student, item.pk):
        return Kept(pk, lines, revision or 0, hints or 0, None, revision is not None, mark, ever or mark is not None)
    return None


def _is_same(kept: Kept | None, data: MyLines) -> TypeGuard[Kept]:
    """Whether these lines are kept already. Raises Conflict where others are."""
    if kept is not None and kept.lines == data.lines:
        return True
    revision = kept.revision if kept is not None else 0
    if data.revision != revision:
        lines = kept.lines if kept is not None else []
        raise Conflict("This was changed on another device.", lines=list(lines), revision=revision)
    return False


def _with_report(kept: Kept, item: SetItem) -> Kept:
    working = StudentWorking.objects.get(pk=kept.pk)
    working.item = item
    return replace(kept, report=pile.report_of(working) if pile.is_fresh(working) else None)


def _put(me: Inside, item: SetItem, kept: Kept | None, data: MyLines, judged: pile.Judged) -> Kept:
    version = touched(me.room)
    revision = data.revision + 1
    if kept is None:
        paper, _ = Paper.objects.get_or_create(given_set_id=me.given_set, student_id=me.student)
        working = StudentWorking.objects.create(
            paper=paper, item=item, lines=data.lines, source=SOURCE, **judged.columns
        )
        RoomWorking.objects.create(working=working, revision=revision, version=version)
        return Kept(working.pk, data.lines, revision, 0, judged.report)
    if not kept.in_room:
        RoomWorking.objects.create(working_id=kept.pk)
    as_read = RoomWorking.objects.filter(pk=kept.pk, revision=data.revision)
    if not as_read.update(revision=revision, version=version, changed=timezone.now()):
        raise _Overtaken
    if kept.decided:
        let_fall(f"{me.name}, in the room", kept.pk, kept.mark)
    put_columns(kept.pk, data.lines, SOURCE, judged)
    return Kept(kept.pk, data.lines, revision, kept.hints, judged.report)


def hint(me: Inside, item: SetItem) -> RoomHint:
    """The next hint: what to look at, then the rule, then the line where the teacher allows it; each is counted. Raises
    Refused."""
    writable(me)
    if item.made is not None:
        raise Refused("For this one there are no hints.", code="no-hint")
    with transaction.atomic():
        paper, _ = Paper.objects.get_or_create(given_set_id=me.given_set, student_id=me.student)
        Paper.objects.select_for_update().get(pk=paper.pk)
        working, _ = StudentWorking.objects.get_or_create(
            paper=paper, item=item, defaults={"lines": [], "source": SOURCE}
        )
        working.item = item
        RoomWorking.objects.get_or_create(working=working)
        extra = RoomWorking.objects.select_for_update().get(working=working)
        if extra.hints >= me.hints:
            raise Refused(
                "There are no more hints for this one." if me.hints else "There are no hints in this room.",
                code="no-hint",
            )
        report = pile.report_of(working) if pile.is_fresh(working) else None
        sound = working.texts if report is None else _sound(working.texts, [link.relation for link in report.links])
        try:
            found = lanes.next_step(pile.problem_of(item, sound))
        except (TaskError, ReadingError) as problem:
            raise Refused("No hint is known here.", code="no-hint") from problem
        extra.hints += 1
        extra.version = touched(me.room)
        extra.save()
    step = found.step
    return RoomHint(
        look=found.look,
        rule=step.rule.name if step is not None and extra.hints > 1 else "",
        line=step.line if step is not None and extra.hints > 2 and me.right_line else "",
        left=me.hints - extra.hints,
    )


def _sound(lines: list[str], relations: list[str | None]) -> list[str]:
    """The lines before the first that does not hold: a hint goes on from there."""
    for k, relation in enumerate(relations):
        if relation in ("breaks", "narrows"):
            return lines[:k]
    return lines
