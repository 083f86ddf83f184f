"""What comes back after marking: a slip of paper for each student, and a starter for tomorrow against the commonest
error."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import replace

from django.contrib.auth.models import User
from django.db import transaction

import lanes
from algebra import Echo, MendItem, ReadingError, Report, TaskError, Working, understood, without_move
from paper import FeedbackSlip, Place
from server.accounts.words import Words, words_of
from server.common.problems import Refused
from server.common.regional import Decimal, day_on_paper, number
from server.marking import pile, queries
from server.marking.forms import is_answered
from server.marking.models import GivenSet, SetItem, StudentWorking
from server.marking.schemas import FeedbackOut, PlaceOut
from server.marking.totals import Total, students_of, totals_of
from server.sheets import services as sheets
from server.sheets.models import Sheet
from server.sheets.schemas import ProblemIn

LOOK = "Look at this line again."
MOST_TRIES = 2
EXAMPLES = 6
"""Of how many problems the worked examples are looked at for one with the error that is wanted."""


def slips_of(teacher: User, set_id: int, *, right: bool) -> tuple[GivenSet, list[FeedbackSlip]]:
    """A slip for every student who wrote something, in the order of the class; the right line only where that is
    wished. Raises Refused while something waits to be verified, or where nobody wrote anything."""
    given_set = queries.set_of(teacher, set_id)
    workings = list(
        StudentWorking.objects.filter(paper__given_set=given_set)
        .select_related("item__given_set", "paper__student")
        .order_by("item__position")
    )
    if not all(map(pile.is_fresh, workings)):
        raise Refused("Some workings are not verified yet. Try again in a moment.", code="waits")
    if not workings:
        raise Refused("Nothing was taken in yet.", code="empty")
    of: dict[int, list[StudentWorking]] = defaultdict(list)
    for working in workings:
        of[working.paper.student_id].append(working)
    maker, totals = _Maker(teacher, given_set, right), totals_of(given_set)
    return given_set, [
        maker.slip(student.name, of[student.pk], totals[student.pk])
        for student in students_of(given_set)
        if student.pk in of
    ]


def reached(total: Total, decimal: Decimal = "point") -> str:
    """What a student has reached, as the table has it: what counts of what, the grade, late, or that a first attempt
    counts; empty until every mark is confirmed."""
    if total.state != "complete" or total.counts is None:
        return ""
    told = [
        f"{number(total.counts, decimal)} of {number(total.of, decimal)}",
        total.grade,
        "late" if total.late else "",
    ]
    told.append("first attempt" if total.counts != total.total else "")
    return ", ".join(filter(None, told))


def feedback_pdf(teacher: User, set_id: int, *, right: bool, paper: str) -> bytes:
    """The slips on paper. Raises Refused as `slips_of`."""
    given_set, slips = slips_of(teacher, set_id, right=right)
    decimal = str(given_set.conventions.get("decimal", "point"))
    day = day_on_paper(given_set.day, queries.written_in(given_set.school_class).dates)
    return lanes.feedback(given_set.title, day, slips, paper, decimal)


def feedback_out(teacher: User, set_id: int, *, right: bool) -> list[FeedbackOut]:
    """The slips on the screen. Raises Refused as `slips_of`."""
    given_set, slips = slips_of(teacher, set_id, right=right)
    decimal = str(given_set.conventions.get("decimal", "point"))

    def echo(text: str) -> Echo:
        return understood(without_move(text), decimal=decimal)

    return [
        FeedbackOut(
            student=slip.student,
            well=list(slip.well),
            open_ends=list(slip.open_ends),
            mark=slip.mark,
            tries=[echo(text) for text in slip.tries],
            places=[
                PlaceOut(
                    number=p.number,
                    before=echo(p.before),
                    line=echo(p.line),
                    written=p.line,
                    cue=p.cue,
                    right=echo(p.right) if p.right else None,
                    in_words=p.in_words,
                )
                for p in slip.places
            ],
        )
        for slip in slips
    ]


class _Maker:
    """Makes the slips of a set; problems to try are drawn once for each item."""

    def __init__(self, teacher: User, given_set: GivenSet, right: bool) -> None:
        self.words: Words = words_of(teacher.pk)
        self.right = right
        self.decimal = queries.written_in(given_set.school_class, given_set.conventions).decimal
        self.items = {item.pk: item for item in given_set.items.select_related("given_set")}
        self.drawn: dict[int, str] = {}

    def slip(self, name: str, workings: Sequence[StudentWorking], total: Total) -> FeedbackSlip:
        well, places, open_ends, wrong = [], [], [], []
        for working in workings:
            report = pile.report_of(working)
            number = working.item.position + 1
            place = None if report is None else self._place(number, working, report)
            if place is not None:
                places.append(place)
                wrong.append(working.item_id)
            elif working.right and report is not None and report.finish.finished:
                well.append(number)
            else:
                open_ends.append(number)
        drawn = [self._try(item) for item in dict.fromkeys(wrong)][:MOST_TRIES]
        tries = tuple(filter(None, drawn))
        return FeedbackSlip(name, tuple(well), tuple(places), tuple(open_ends), tries, reached(total, self.decimal))

    def _place(self, number: int, working: StudentWorking, report: Report) -> Place | None:
        """The first line that does not hold; None where all do."""
        before = working.item.given
        for link, line in zip(report.links, working.texts, strict=True):
            if link.relation in ("breaks", "narrows"):
                slip, in_words = link.slip, is_answered(working.item)
                if slip is None:
                    return Place(number, before, line, LOOK, in_words=in_words)
                cue = self.words.of(slip.id, slip.name, slip.cue).text
                return Place(number, before, line, cue, slip.instead if self.right else "", in_words)
            if link.kind in ("expression", "equation", "statement") and link.relation is not None:
                before = line
        return None

    def _try(self, item_id: int) -> str:
        if item_id not in self.drawn:
            found = _another(pile.problem_of(self.items[item_id]), "like", 7, [])
            self.drawn[item_id] = found.given if found else ""
        return self.drawn[item_id]


@transaction.atomic
def for_tomorrow(teacher: User, set_id: int, slip: str = "") -> Sheet:
    """A sheet of five minutes against one error of a set, the commonest where none is named: a worked example to find
    and mend, in which that error is made where one can be drawn, then three problems that rise. Raises Refused where no
    error was seen."""
    given_set = queries.set_of(teacher, set_id)
    slips = [each for each in queries.patterns_of(given_set).slips if slip in ("", each.id)]
    if not slips:
        raise Refused("No error was seen in this set.", code="nothing")
    top = slips[0]
    made_in = Counter(StudentWorking.objects.filter(pk__in=top.workings).values_list("item_id", flat=True))
    base = pile.problem_of(SetItem.objects.select_related("given_set").get(pk=made_in.most_common(1)[0][0]))
    example = _with_error(base, top.id)
    known, rising = [base, example], []
    for seed, what in enumerate(("easier", "like", "harder"), start=11):
        found = _another(base, what, seed, known) or _another(base, "like", seed, known)
        if found is not None:
            known.append(found)
            rising.append(found)
    sheet = sheets.create_sheet(teacher, f"For tomorrow: {top.name}"[:120], dict(given_set.conventions))
    for working in (example, *rising):
        sheets.add_problem(teacher, sheet.pk, _asked(working, "mend" if working is example else "work"))
    return sheet


def _with_error(base: Working, slip: str) -> Working:
    """The problem, or one like it, in whose worked example this error is the one that is planted; the problem where
    none was found."""
    for seed in range(EXAMPLES):
        candidate = base if not seed else _another(base, "like", seed, [base])
        try:
            if candidate is not None and _planted(candidate) == slip:
                return candidate
        except (TaskError, ReadingError):
            continue
    return base


def _planted(working: Working) -> str:
    """The error that is planted in a worked example of a problem. Raises TaskError, ReadingError where it has none."""
    item = lanes.item_of("mend", working)
    return item.slip if isinstance(item, MendItem) else ""


def _another(base: Working, what: str, seed: int, known: list[Working]) -> Working | None:
    try:
        found = lanes.another(base, what, seed, known)
    except (TaskError, ReadingError):
        return None
    return None if found is None else replace(found.working, lines=())


def _asked(working: Working, form: str) -> ProblemIn:
    asked = {
        "task": working.task,
        "given": working.given,
        "variable": working.variable or "",
        "numbers": working.numbers,
    }
    return ProblemIn.model_validate(asked | {"form": form})
