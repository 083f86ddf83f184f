"""What a student does in a practice room: writes lines into the set that it belongs to, and asks for hints."""

from __future__ import annotations

from dataclasses import dataclass

from django.db import transaction
from django.db.models import Exists, OuterRef
from django.http import Http404
from django.utils import timezone

import lanes
from algebra import ReadingError, Report, TaskError
from server.common.problems import Refused
from server.common.rows import Rows
from server.marking import pile
from server.marking.forms import is_answered
from server.marking.models import Decision, GivenSet, Paper, SetItem, StudentWorking
from server.marking.workings import StudentPlace, save_judged
from server.room.coming_in import Inside
from server.room.models import RoomWorking, touched
from server.room.schemas import MyLines, RoomHint
from server.workings.keep import Stored, keep

SOURCE = "room"


@dataclass(frozen=True, slots=True)
class Kept:
    """A student's working of an item as it stands, and the report on it where it is verified."""

    pk: int
    lines: list[str]
    revision: int = 0
    hints: int = 0
    report: Report | None = None


def writable(me: Inside) -> None:
    """Raises Refused where nothing may be written: the room is over, or paused."""
    if me.over:
        raise Refused("This room is closed. What you wrote before is kept.", code="closed")
    if me.paused:
        raise Refused(f"A pause: {me.paused}", code="paused")
    if me.reading:
        raise Refused("In this room nothing is written: look at what you wrote.", code="reading")


def not_marked(mark: float | None) -> None:
    """Raises Refused for a working that is marked: its writer changes nothing in it any more."""
    if mark is not None:
        raise Refused("This one is marked already. What you wrote stands as it was marked.", code="marked")


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


class RoomPlace(StudentPlace):
    """A student's working as the student writes it in a room."""

    def __init__(self, me: Inside, item: int) -> None:
        super().__init__(f"{me.name}, in the room", me.given_set, me.student, item, SOURCE)
        self.me = me
        self.hints = 0
        self.in_room = False

    def read(self) -> Stored:
        """What stands there now, by one prepared query: a class asks it at every line."""
        for pk, lines, revision, made_from, mark, hints, ever in _KEPT(self.given_set, self.student, self.item):
            self.working, self.mark, self.decided = pk, mark, ever or mark is not None
            self.in_room, self.hints = hints is not None, hints or 0
            return Stored(lines, revision, bool(made_from))
        return Stored([], 0, False, exists=False)

    def write(self, stored: Stored, lines: list[str]) -> bool:
        """Puts the lines there; False where others were put since. Raises Refused for what is marked."""
        not_marked(self.mark)
        return super().write(stored, lines)

    def written(self) -> None:
        """Nothing is told: who writes sees it, and the teacher once it is verified."""
        if not self.in_room:
            RoomWorking.objects.get_or_create(working_id=self.working)

    def save(self, judged: pile.Judged | None, revision: int) -> bool:
        """Keeps what came of verifying, and shows the teacher that something was written."""
        with transaction.atomic():
            stands = save_judged(self.working, revision, judged or pile.Judged())
            if stands:
                version = touched(self.me.room)
                RoomWorking.objects.filter(pk=self.working).update(version=version, changed=timezone.now())
        return stands


_KEPT = Rows(
    3,
    lambda given_set, student, item: StudentWorking.objects.filter(
        paper__given_set=given_set, paper__student=student, item=item
    ).values_list(
        "pk",
        "lines",
        "revision",
        "made_from",
        "mark",
        "in_room__hints",
        Exists(Decision.objects.filter(working=OuterRef("pk"))),
    ),
)


def write(me: Inside, item: SetItem, data: MyLines) -> Kept:
    """Keeps the lines of a student with what came of verifying them. The same once more changes nothing; raises
    Conflict where they were changed elsewhere meanwhile."""
    writable(me)
    place = RoomPlace(me, item.pk)

    def judge(lines: list[str]) -> pile.Judged | None:
        try:
            return pile.judged(item, lines, at_once=True)
        except lanes.Busy:
            return None  # it is kept, and verified among the jobs

    found = keep(place, data.lines, data.revision, judge=judge, save=place.save)
    if found.judged is None:
        return _as_it_stands(place, item)
    return Kept(place.working, data.lines, found.revision, place.hints, found.judged.report)


def _as_it_stands(place: RoomPlace, item: SetItem) -> Kept:
    """The working with the report that is kept of it, as it stands now: another may have written while these lines were
    judged. Where there is no report, it is verified among the jobs."""
    working = StudentWorking.objects.get(pk=place.working)
    working.item = item
    report = pile.report_of(working) if pile.is_fresh(working) else None
    if report is None:
        pile.begin(GivenSet.objects.get(pk=place.given_set))
    return Kept(working.pk, working.texts, working.revision, place.hints, report)


def hint(me: Inside, item: SetItem) -> RoomHint:
    """The next hint: what to look at, then the rule, then the line where the teacher allows it; each is counted. Raises
    Refused."""
    writable(me)
    if is_answered(item):
        raise Refused("For this one there are no hints.", code="no-hint")
    with transaction.atomic():
        paper, _ = Paper.objects.get_or_create(given_set_id=me.given_set, student_id=me.student)
        Paper.objects.select_for_update().get(pk=paper.pk)
        working, _ = StudentWorking.objects.get_or_create(
            paper=paper, item=item, defaults={"lines": [], "source": SOURCE}
        )
        working.item = item
        not_marked(working.mark)
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
