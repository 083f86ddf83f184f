"""`manage.py demo_classes`: classes of the invented evening school, one set to be marked and two that are."""

from __future__ import annotations

import random
from datetime import date, timedelta
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand
from django.db import transaction

import lanes
from algebra import ReadingError, TaskError
from server.marking import decisions, pile, services
from server.marking.models import GivenSet, Paper, SchoolClass, StudentWorking
from server.marking.schemas import ClassIn, DecideIn, SetIn
from server.sheets.models import Sheet

TEACHER = "demo"
CLASSES = {
    "Evening A": [
        "Ada Quill",
        "Bo Tarn",
        "Cleo Marsh",
        "Dag Holm",
        "Edda Finch",
        "Falk Ives",
        "Gesa Lorn",
        "Hale Brook",
        "Iris Vane",
        "Jory Pell",
        "Kit Ashby",
        "Lida Thorne",
    ],
    "Evening B": [
        "Mads Orrin",
        "Nele Fenn",
        "Osk Wharf",
        "Pia Lund",
        "Quin Harrow",
        "Rike Stell",
        "Sven Moor",
        "Tilda Crane",
    ],
    "Morning C": ["Ulla Reed", "Vito Sands", "Wim Karst", "Xenia Dell", "Yara Flint", "Zeno Hythe"],
}
ON_PAGES = ["Iris Vane", "Jory Pell", "Kit Ashby"]
"""Who wrote on pages that are still to be read."""
RIGHT = 0.6
"""Which share of the workings is right; of the others most hold an error that is foreseen, some stop, some are
missing."""


class Command(BaseCommand):
    help = "Makes the demo classes with their sets, unless they are there already."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Makes them."""
        teacher = User.objects.filter(username=TEACHER).first()
        if teacher is None or SchoolClass.objects.filter(owner=teacher).exists():
            return
        made = {}
        number = 100
        for name, students in CLASSES.items():
            rows = [{"name": student, "number": str(number + k)} for k, student in enumerate(students)]
            made[name] = services.make_class(teacher, ClassIn.model_validate({"name": name, "students": rows}))
            number += 100
        sheets = list(Sheet.objects.filter(owner=teacher).order_by("pk"))
        today = date(2026, 11, 26)
        for name, sheet, days, marked in (
            ("Evening A", sheets[1], 1, False),
            ("Evening B", sheets[2], 43, True),
            ("Evening B", sheets[4], 29, True),
            ("Evening B", sheets[1], 15, True),
            ("Evening B", sheets[2], 8, True),
        ):
            asked = SetIn.model_validate({"sheet": sheet.pk, "day": today - timedelta(days=days), "scheme": "points"})
            given = services.give(teacher, made[name].pk, asked)
            first = given.school_class.sets.filter(title=given.title).exclude(pk=given.pk).first()
            if first is not None:
                given.again_of, given.title = first, f"{given.title}, once more"
                given.boundaries = [{"grade": "good", "percent": 80}, {"grade": "pass", "percent": 50}]
                given.save()
            _write(given, days)
            if marked:
                _mark(teacher, given)
            else:
                pile.begin(given)


def _write(given: GivenSet, seed: int) -> None:
    """Workings of the whole class: right ones, foreseen errors, some that stop."""
    draw = random.Random(seed)
    for item in given.items.select_related("given_set").order_by("position"):
        try:
            wrong = [list(each.lines) for each in lanes.predict(pile.problem_of(item), most=6).wrong if each.lines]
        except (TaskError, ReadingError):
            wrong = []
        for student in given.school_class.students.exclude(name__in=ON_PAGES).order_by("pk"):
            chance = draw.random()
            lines = list(item.key)
            if chance > RIGHT and wrong:
                lines = draw.choice(wrong[: 1 + int(draw.random() * len(wrong))])
            elif chance > RIGHT - 0.06:
                lines = lines[:-1]
            if not lines or draw.random() < 0.03:
                continue
            paper, _ = Paper.objects.get_or_create(given_set=given, student=student)
            StudentWorking.objects.create(
                paper=paper, item=item, lines=[line.partition("   |")[0] for line in lines], source="text"
            )


def _mark(teacher: User, given: GivenSet) -> None:
    workings = StudentWorking.objects.filter(paper__given_set=given)
    for working in workings:
        working.refresh_from_db()
        if not working.made_from:
            pile.work_piece({}, {"working": working.pk})
    decisions.decide(teacher, given.pk, DecideIn(workings=[working.pk for working in workings], mark=None))
