"""`manage.py demo_room`: an open room of the invented evening school, whose class is at work; and a student who
practises at home."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand
from django.db import transaction

from server.marking import forms, services
from server.marking.models import GivenSet, SchoolClass, SetItem
from server.marking.schemas import SetIn
from server.room.coming_in import inside
from server.room.hashers import SecretHasher
from server.room.models import Door, Room, Secret, Visit
from server.room.schemas import MyLines
from server.room.writing import item_of, write
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn

TEACHER, CLASS, TITLE = "demo", "Morning C", "Practice for Thursday"
CODE, HOME_CODE, SECRET = "QUAY42", "HARBR7", "lantern"
"""Codes that are always the same, so that the guide can name them; every student of the demo comes in with this
secret."""
PROBLEMS = [
    ("work", "solve", "3x + 7 = 22"),
    ("work", "solve", "x^2 = 9x"),
    ("choose", "simplify", "√50 + √8"),
    ("mend", "solve", "2(x - 3) = 4x + 8"),
    ("fill", "solve", "5x - 4 = 2x + 11"),
    ("claim", "expand", "(a + b)^2"),
    ("work", "analyze", "(x^2 - x - 6)/(x^2 - 9)"),
]
WRITTEN: list[list[list[str]]] = [
    [["3x = 15", "x = 5"], ["x^2 - 9x = 0", "x(x - 9) = 0", "x = 0 or x = 9"], ["B"]],
    [["3x = 29", "x = 29/3"]],
    [["3x = 15", "x = 5"], ["x = 9"]],
    [["3x + 7 - 7 = 22 - 7", "3x = 15"]],
    [["3x = 29"]],
]
"""What the students of the class have written, by the order of their names; the last has not come in."""


class Command(BaseCommand):
    help = "Makes the demo room, unless it is there already."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Makes it."""
        teacher = User.objects.filter(username=TEACHER).first()
        school_class = SchoolClass.objects.filter(owner=teacher, name=CLASS).first() if teacher else None
        if (
            teacher is None
            or school_class is None
            or Room.objects.filter(given_set__school_class=school_class).exists()
        ):
            return
        sheet = sheets.create_sheet(teacher, TITLE)
        for form, task, given in PROBLEMS:
            sheets.add_problem(
                teacher, sheet.pk, ProblemIn.model_validate({"task": task, "given": given, "form": form})
            )
        asked = SetIn.model_validate({"sheet": sheet.pk, "day": date(2026, 11, 26), "scheme": "points"})
        given_set = services.give(teacher, school_class.pk, asked)
        room = Room.objects.create(given_set=given_set, code=CODE, tells="cue", hints=2)
        hashed = make_password(SECRET, hasher=SecretHasher.algorithm)
        items = list(given_set.items.select_related("given_set").order_by("position"))
        for student, written in zip(school_class.students.order_by("name"), WRITTEN, strict=False):
            Secret.objects.create(student=student, hashed=hashed)
            _write(room, Visit.objects.create(room=room, student=student), items, written)
        self._doors(teacher, hashed)

    def _doors(self, teacher: User, hashed: str) -> None:
        marked = GivenSet.objects.filter(school_class__owner=teacher, papers__workings__confirmed__isnull=False).first()
        if marked is None:
            return
        Door.objects.create(school_class=marked.school_class, code=HOME_CODE)
        for student in marked.school_class.students.all():
            Secret.objects.create(student=student, hashed=hashed)


def _write(room: Room, visit: Visit, items: list[SetItem], written: list[list[str]]) -> None:
    me = inside(visit.pk)
    for item, lines in zip(items, written, strict=False):
        told = list(item.key) if forms.is_answered(item) else lines
        for count in range(1, len(told) + 1):
            write(me, item_of(me, item.pk), MyLines(revision=count - 1, lines=told[:count]))
