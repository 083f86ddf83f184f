"""A student's own page: the own chains, the errors they are rid of, and the next problem for one that is due again.

An error that was made is due the day after; each problem against it that is solved without it puts it off, by 3, 7 and
21 days, and after the last the student is rid of it. Made again, it begins anew. (Expanding retrieval practice; the
intervals are the product's own.)
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime, time, timedelta
from zlib import crc32

from django.db import transaction
from django.db.models import Q
from django.shortcuts import get_object_or_404
from django.utils import timezone

import lanes
from algebra import SLIPS, ReadingError, Report, Scheme, TaskError, Working, item_of
from server.common.codec import REPORTS
from server.common.problems import Refused
from server.marking import pile
from server.marking.models import GivenSet, SetItem, Student, StudentWorking
from server.marking.queries import written_in
from server.room.coming_in import is_over
from server.room.models import DueSlip, HomeProblem, Room
from server.room.queries import Telling, echo_of, instructed, my_item
from server.room.schemas import HomeSet, HomeSlip, HomeTask, MyHome, MyLines
from server.room.telling import Tells
from server.room.writing import Kept
from server.workings.keep import Stored, keep

INTERVALS = (1, 3, 7, 21)
"""Days after which an error is due again."""
MOST_SETS = 12
_SLIPS = {slip.id: slip for slip in SLIPS}


def home(student: Student) -> MyHome:
    """The own page of a student, with what is due today."""
    today = timezone.localdate()
    _note_slips(student)
    slips = list(student.due_slips.order_by("rid", "due", "slip"))
    task = _next(student, [each for each in slips if not each.rid and each.due <= today])
    words = Telling("cue", right_line=False, ended=True, decimal="point", owner=student.school_class.owner_id).own
    told = []
    for each in slips:
        slip = _SLIPS.get(each.slip)
        if slip is not None:
            own = words.of(slip.id, slip.name, slip.cue)
            told.append(HomeSlip(name=own.name, cue=own.text, rid=each.rid, due=each.due, solved=each.stage))
    return MyHome(
        student=student.name,
        school_class=student.school_class.name,
        sets=_sets(student),
        slips=told,
        next=None if task is None else task_out(task),
        in_force=written_in(student.school_class),
    )


def _seen(student: Student) -> Q:
    """What a student may see of the own workings: the room is over for this student, or a mark was confirmed and no
    room is open."""
    visits = {visit.room_id: visit for visit in student.visits.all()}
    rooms: dict[bool, list[int]] = {True: [], False: []}
    for room in Room.objects.filter(given_set__school_class=student.school_class_id):
        visit = visits.get(room.pk)
        over = is_over(room, visit.more_minutes, visit.until) if visit else is_over(room)
        rooms[over].append(room.given_set_id)
    over_or_marked = Q(item__given_set__in=rooms[True]) | Q(confirmed__isnull=False)
    return over_or_marked & ~Q(item__given_set__in=rooms[False])


def _sets(student: Student) -> list[HomeSet]:
    rows = StudentWorking.objects.filter(_seen(student), paper__student=student).exclude(lines=[])
    mine: dict[int, dict[int, StudentWorking]] = {}
    for working in rows.select_related("in_room", "item"):
        mine.setdefault(working.item.given_set_id, {})[working.item_id] = working
    found = []
    for given_set in GivenSet.objects.filter(pk__in=mine).order_by("-day", "-pk")[:MOST_SETS]:
        room = Room.objects.filter(given_set=given_set).first()
        tells: Tells = room.telling if room else "cue"
        right_line = room is not None and room.right_line
        decimal = str(given_set.conventions.get("decimal", "point"))
        telling = Telling(tells, right_line, True, decimal, student.school_class.owner_id)
        items = []
        for item in given_set.items.order_by("position"):
            item.given_set = given_set
            items.append(my_item(telling, item, mine[given_set.pk].get(item.pk)))
        found.append(HomeSet(title=given_set.title, day=given_set.day, items=items))
    return found


@transaction.atomic
def _note_slips(student: Student) -> None:
    """Notes the errors in what the student may see that were made since they were noted last."""
    rows = StudentWorking.objects.filter(_seen(student), paper__student=student).exclude(slips=[])
    last: dict[str, tuple[datetime, int]] = {}
    for slips, item, changed, day in rows.values_list("slips", "item", "in_room__changed", "item__given_set__day"):
        made = changed or datetime.combine(day, time(12), tzinfo=timezone.get_current_timezone())
        for slip in slips:
            if slip in _SLIPS:
                last[slip] = max(last.get(slip, (made, item)), (made, item))
    known = {each.slip: each for each in DueSlip.objects.select_for_update().filter(student=student)}
    for slip, (made, item) in last.items():
        before = known.get(slip)
        if before is None or made > before.made:
            due = timezone.localdate(made) + timedelta(days=INTERVALS[0])
            now = {"item_id": item, "made": made, "stage": 0, "due": due, "rid": False}
            DueSlip.objects.update_or_create(student=student, slip=slip, defaults=now)


def _next(student: Student, due: Sequence[DueSlip]) -> HomeProblem | None:
    """The problem that is next: one that was begun, else one for the error that is due longest."""
    begun = student.home_problems.filter(done=None).first()
    if begun is not None or not due:
        return begun
    slip = due[0]
    item = SetItem.objects.select_related("given_set").get(pk=slip.item_id)
    base = pile.problem_of(item)
    seed = crc32(f"{student.pk} {slip.slip} {slip.stage} {slip.made.isoformat()}".encode()) % 10_000 + 1
    try:
        found = lanes.another(base, "like", seed, [base])
    except lanes.Busy:
        return None  # the next look brings it
    except (TaskError, ReadingError):
        found = None
    working = found.working if found is not None else base  # where none is like it, the same once more
    problem, _ = HomeProblem.objects.get_or_create(
        student=student,
        slip=slip.slip,
        done=None,
        defaults={
            "task": working.task,
            "given": working.given,
            "variable": working.variable or "",
            "numbers": working.numbers,
            "method": working.method or "",
            "conventions": dict(base.conventions),
        },
    )
    return problem


def _working(problem: HomeProblem, lines: list[str]) -> Working:
    return Working(
        problem.task,
        problem.given,
        tuple(lines),
        problem.variable or None,
        problem.numbers,
        dict(problem.conventions),
        method=problem.method or None,
    )


def task_out(problem: HomeProblem) -> HomeTask:
    """A problem of the own page, as the student sees it: each line with its verdict, the place of an error with its
    cue."""
    decimal = str(problem.conventions.get("decimal", "point"))
    telling = Telling("cue", False, True, decimal, problem.student.school_class.owner_id)
    report = REPORTS.back_if_any(problem.report)
    given = echo_of(problem.given, decimal)
    slip = _SLIPS.get(problem.slip)
    return HomeTask(
        id=problem.pk,
        against=slip.name if slip else "",
        decimal=decimal,
        given_latex=given.latex,
        instruction=instructed(problem.task, problem.given, problem.variable, problem.numbers, problem.method),
        working=telling.of(Kept(problem.pk, problem.lines, problem.revision, 0, report)),
        done=problem.done is not None,
    )


class HomePlace:
    """A problem of a student's own page."""

    def __init__(self, student: Student, problem_id: int) -> None:
        self.student = student
        self.problem = get_object_or_404(HomeProblem, pk=problem_id, student=student)

    def read(self) -> Stored:
        """What stands there now."""
        self.problem = HomeProblem.objects.get(pk=self.problem.pk)
        return Stored(list(self.problem.lines), self.problem.revision, self.problem.report is not None)

    def write(self, stored: Stored, lines: list[str]) -> bool:
        """Puts the lines there; False where others were put since. Raises Refused where it is solved already."""
        if self.problem.done is not None:
            raise Refused("This one is solved. The next is waiting.", code="done")
        rows = HomeProblem.objects.filter(pk=self.problem.pk, revision=stored.revision, done=None)
        return bool(rows.update(lines=lines, revision=stored.revision + 1, report=None))

    def overtaken(self, stored: Stored) -> str:
        """What is said to who wrote on an older revision."""
        return "This was changed on another device."

    def judge(self, lines: list[str]) -> Report | None:
        """The report on the lines; None where nobody has time: the next write of the same lines asks again."""
        item = item_of("work", _working(self.problem, []))
        try:
            return lanes.marked(item, lines, Scheme("answer", 1), at_once=True)[0]
        except lanes.Busy:
            return None

    @transaction.atomic
    def save(self, report: Report | None, revision: int) -> bool:
        """Keeps the report; once the problem is solved, says when its error is due again."""
        rows = HomeProblem.objects.select_for_update().filter(pk=self.problem.pk, revision=revision)
        problem = rows.first()
        if problem is None or report is None:
            return problem is not None
        problem.student = self.student
        problem.report = REPORTS.kept(report)
        made = {link.slip.id for link in report.links if link.slip is not None} | set(report.answer.slips)
        problem.missed = problem.missed or problem.slip in made
        if problem.done is None and report.answer.verdict == "correct" and report.finish.finished:
            problem.done = timezone.now()
            _put_off(problem, timezone.localdate())
        problem.save()
        return True


def write(student: Student, problem_id: int, data: MyLines) -> HomeProblem:
    """Keeps the lines of a student for a problem of the own page, verified. The same once more changes nothing. Raises
    Conflict where they were changed elsewhere, Refused where it is solved already."""
    place = HomePlace(student, problem_id)
    keep(place, data.lines, data.revision, judge=place.judge, save=place.save)
    problem = HomeProblem.objects.get(pk=problem_id)
    problem.student = student
    return problem


def _put_off(problem: HomeProblem, today: date) -> None:
    slip = DueSlip.objects.select_for_update().filter(student=problem.student, slip=problem.slip).first()
    if slip is None:
        return
    slip.stage = 0 if problem.missed else slip.stage + 1
    slip.rid = slip.stage >= len(INTERVALS)
    if not slip.rid:
        slip.due = today + timedelta(days=INTERVALS[slip.stage])
    slip.save()
