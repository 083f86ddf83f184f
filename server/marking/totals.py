"""What a student has reached in a set: confirmed marks summed, what a late paper loses, the better of two, the
grade."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, TypedDict

from django.db.models import QuerySet

from server.marking import pile
from server.marking.models import GivenSet, Paper, Student, StudentWorking

State = Literal["complete", "open", "absent", "nothing"]


class Boundary(TypedDict):
    """From how many percent on a grade is given."""

    grade: str
    percent: float


@dataclass(frozen=True, slots=True)
class Total:
    """`marks` by item; `total` only where every item of the paper has a confirmed mark. `first` is what the first
    attempt reached, where this one is the second; `counts` is the better of both, and `grade` belongs to it."""

    state: State
    late: bool
    marks: Mapping[int, float]
    total: float | None
    of: float
    first: float | None = None
    counts: float | None = None
    grade: str = ""


def students_of(given_set: GivenSet) -> QuerySet[Student]:
    """The students of a set by name: those of the class, and who wrote in it and is in another class by now."""
    own = Student.objects.filter(school_class=given_set.school_class_id).values("pk")
    wrote = Student.objects.filter(papers__given_set=given_set).values("pk")
    # as a union each half is found by its index; as an `or` the whole table would be read
    return Student.objects.filter(pk__in=own.union(wrote)).order_by("name", "number", "pk")


def totals_of(given_set: GivenSet) -> dict[int, Total]:
    """The totals of every student of the class, by id."""
    own = _alone(given_set)
    before = _alone(given_set.again_of) if given_set.again_of is not None else {}
    return {student: _with_grade(total, before.get(student), given_set.boundaries) for student, total in own.items()}


def _alone(given_set: GivenSet) -> dict[int, Total]:
    items = [(item.pk, pile.scheme_of(item).total) for item in given_set.items.order_by("position")]
    whole = sum(worth for _, worth in items)
    papers = {paper.student_id: paper for paper in Paper.objects.filter(given_set=given_set)}
    marks: dict[int, dict[int, float]] = defaultdict(dict)
    rows = StudentWorking.objects.filter(paper__given_set=given_set, confirmed__isnull=False)
    for student, item, mark in rows.values_list("paper__student_id", "item_id", "mark"):
        if mark is not None:
            marks[student][item] = mark
    found = {}
    for student in students_of(given_set).values_list("pk", flat=True):
        paper = papers.get(student)
        complete = bool(items) and all(item in marks[student] for item, _ in items)
        state: State = (
            "absent"
            if paper is not None and paper.absent
            else "complete"
            if complete
            else "open"
            if paper
            else "nothing"
        )
        late = paper is not None and paper.late
        total = None
        if state == "complete":
            total = sum(marks[student].values())
            if late:
                total = round(total * (100 - given_set.late_percent) / 100, 2)
        found[student] = Total(state, late, marks[student], total, whole)
    return found


def _with_grade(total: Total, before: Total | None, boundaries: Sequence[Boundary]) -> Total:
    first = before.total if before is not None else None
    # of sets that are worth differently the better share counts, in marks of this one
    carried = round(first * total.of / before.of, 2) if before is not None and first is not None and before.of else None
    reached = [value for value in (total.total, carried) if value is not None]
    counts = max(reached) if reached else None
    return Total(
        total.state,
        total.late,
        total.marks,
        total.total,
        total.of,
        first,
        counts,
        grade_of(counts, total.of, boundaries),
    )


def grade_of(total: float | None, of: float, boundaries: Sequence[Boundary]) -> str:
    """The grade for so many marks; empty where none is given."""
    if total is None or not of:
        return ""
    share = 100 * total / of
    reached = [each for each in boundaries if share >= each["percent"] - 1e-9]
    return max(reached, key=lambda each: each["percent"])["grade"] if reached else ""
