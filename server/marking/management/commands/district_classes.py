"""`manage.py district_classes`: classes, students, sets and workings for the made-up teachers of `district`, for
measuring."""

from __future__ import annotations

from argparse import ArgumentParser
from datetime import date
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError
from django.db import connection, transaction

from server.marking import decisions, pile, services
from server.marking.models import Paper, SchoolClass, StudentWorking
from server.marking.schemas import ClassIn, DecideIn, SetIn
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn

PATTERN: list[tuple[str, str, list[list[str]]]] = [
    ("solve", "3x + 7 = 22", [["3x = 15", "x = 5"], ["3x = 29", "x = 29/3"]]),
    (
        "solve",
        "x^2 - 5x + 6 = 0",
        [["(x - 2)(x - 3) = 0", "x = 2 or x = 3"], ["(x + 2)(x + 3) = 0", "x = -2 or x = -3"]],
    ),
    (
        "solve",
        "2(x - 3) = 4x + 8",
        [["2x - 6 = 4x + 8", "-14 = 2x", "x = -7"], ["2x - 3 = 4x + 8", "-11 = 2x", "x = -11/2"]],
    ),
    ("simplify", "√50 + √8", [["5√2 + 2√2", "7√2"], ["√58"]]),
    ("simplify", "(2x^3)^2", [["4x^6"], ["2x^6"]]),
    ("expand", "(x - 5)^2", [["x^2 - 10x + 25"], ["x^2 - 25"]]),
]
"""The items of every set, each with a right and a wrong working."""


class Command(BaseCommand):
    help = "Gives every teacher of a made-up district classes with students, sets and marked workings."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How much of it."""
        parser.add_argument("--classes", type=int, default=4, help="of each teacher")
        parser.add_argument("--students", type=int, default=25, help="of each class")
        parser.add_argument("--sets", type=int, default=4, help="of each class")

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Makes one class by the services, and the others from it in the database. Raises CommandError where classes
        are."""
        first = User.objects.filter(username="teacher0").first()
        if first is None or SchoolClass.objects.exists():
            raise CommandError("Classes are made once, in the database of `district`.")
        students = [{"name": f"Student {k:02}", "number": str(k)} for k in range(options["students"])]
        made = services.make_class(first, ClassIn.model_validate({"name": "Class 0", "students": students}))
        sheet = sheets.create_sheet(first, "What the classes were given")
        for task, problem, _ in PATTERN:
            sheets.add_problem(first, sheet.pk, ProblemIn.model_validate({"task": task, "given": problem}))
        given = services.give(first, made.pk, SetIn(sheet=sheet.pk, title="", day=date(2026, 3, 2)))
        items = list(given.items.order_by("position"))
        for k, student in enumerate(made.students.all()):
            paper = Paper.objects.create(given_set=given, student=student)
            StudentWorking.objects.bulk_create(
                StudentWorking(paper=paper, item=item, lines=PATTERN[j][2][(k + j) % 3 == 0], source="text")
                for j, item in enumerate(items)
            )
        for working in StudentWorking.objects.all():
            working.refresh_from_db()
            if not working.made_from:
                pile.work_piece({}, {"working": working.pk})
        workings = list(StudentWorking.objects.values_list("pk", flat=True))
        decisions.decide(first, given.pk, DecideIn(workings=workings, mark=None))
        with connection.cursor() as cursor:
            wanted = {"classes": options["classes"], "sets": options["sets"], "class": made.pk, "set": given.pk}
            for words in STATEMENTS:
                cursor.execute(words, wanted)
                self.stdout.write(f"{cursor.rowcount} rows: {words.split('(')[0].strip()}")


_SETS = """SELECT {columns} FROM marking_givenset new JOIN marking_givenset old ON old.id = %(set)s {join}
    WHERE new.id <> %(set)s ORDER BY {order}"""
STATEMENTS = (
    """INSERT INTO marking_schoolclass (owner_id, name, archived, regional, created)
    SELECT p.user_id, 'Class ' || k, false, '{}'::jsonb, now() FROM accounts_person p, generate_series(1, %(classes)s) k
    WHERE p.teaches""",
    """INSERT INTO marking_student (school_class_id, name, number)
    SELECT c.id, s.name, s.number FROM marking_schoolclass c, marking_student s
    WHERE c.id <> %(class)s AND s.school_class_id = %(class)s ORDER BY c.id, s.id""",
    """INSERT INTO marking_givenset (school_class_id, title, day, conventions, codes, late_percent, boundaries, created)
    SELECT c.id, 'Set ' || k, s.day + 7 * k, s.conventions, s.codes, s.late_percent, s.boundaries, now()
    FROM marking_schoolclass c, marking_givenset s, generate_series(1, %(sets)s) k
    WHERE s.id = %(set)s AND c.id <> %(class)s ORDER BY c.id, k""",
    """INSERT INTO marking_setitem
    (given_set_id, position, task, given, variable, numbers, method, form, made, scheme, key, foreseen) """
    + _SETS.format(
        columns="new.id, i.position, i.task, i.given, i.variable, i.numbers, "
        "i.method, i.form, i.made, i.scheme, i.key, '[]'::jsonb",
        join="JOIN marking_setitem i ON i.given_set_id = old.id",
        order="new.id, i.position",
    ),
    """INSERT INTO marking_paper (given_set_id, student_id, absent, late) """
    + _SETS.format(
        columns="new.id, s.id, false, false",
        join="JOIN marking_student s ON s.school_class_id = new.school_class_id",
        order="new.id, s.id",
    ),
    """INSERT INTO marking_studentworking
        (paper_id, item_id, lines, revision, source, report, proposal, made_from, trouble, alike, slips, "right", mark,
        confirmed_by, confirmed)
    SELECT p.id, i.id, w.lines, w.revision, w.source, w.report, w.proposal, w.made_from, w.trouble, w.alike,
        w.slips, w."right", w.mark, w.confirmed_by, w.confirmed
    FROM marking_paper p JOIN marking_student s ON s.id = p.student_id
    JOIN marking_setitem i ON i.given_set_id = p.given_set_id
    JOIN marking_student os ON os.school_class_id = %(class)s AND os.name = s.name
    JOIN marking_paper op ON op.student_id = os.id AND op.given_set_id = %(set)s
    JOIN marking_setitem oi ON oi.given_set_id = %(set)s AND oi.position = i.position
    JOIN marking_studentworking w ON w.paper_id = op.id AND w.item_id = oi.id
    WHERE p.given_set_id <> %(set)s ORDER BY p.id, i.position""",
)
