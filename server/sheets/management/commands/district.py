"""`manage.py district`: made-up data as large as a district's, for measuring. Only into a database without people."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError
from django.db import connection, transaction

from server.accounts import people
from server.sheets import queries, services
from server.sheets.schemas import ProblemIn

PASSWORD = "lantern-quay"
PATTERN: list[tuple[str, str, list[str]]] = [
    ("solve", "3x + 7 = 22", ["3x = 15", "x = 5"]),
    ("solve", "2(x - 3) = 4x + 8", ["2x - 6 = 4x + 8", "-14 = 2x", "x = -7"]),
    ("solve", "x^2 - 5x + 6 = 0", ["(x - 2)(x - 3) = 0", "x - 2 = 0 or x - 3 = 0", "x = 2 or x = 3"]),
    ("solve", "x/2 + 1/3 = 5/6", ["3x + 2 = 5", "3x = 3", "x = 1"]),
    ("solve", "√(x + 6) = x", ["x + 6 = x^2", "x^2 - x - 6 = 0", "(x - 3)(x + 2) = 0", "x = 3 or x = -2", "x = 3"]),
    ("simplify", "(x^2 - 9)/(x^2 - 3x)", ["((x - 3)(x + 3))/(x(x - 3))", "(x + 3)/x"]),
    ("simplify", "√50 + √8", ["5√2 + 2√2", "7√2"]),
    ("simplify", "(2x^3)^2", ["2x^6"]),
    ("expand", "(x - 5)^2", ["x^2 - 25"]),
    ("factor", "2x^2 + 10x + 12", ["2(x^2 + 5x + 6)", "2(x + 2)(x + 3)"]),
]
"""Problems with workings, right and wrong, that every sheet holds twice."""


class Command(BaseCommand):
    help = "Fills an empty database with teachers, sheets and lines as a district has them."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How much of it."""
        parser.add_argument("--teachers", type=int, default=200)
        parser.add_argument("--lines", type=int, default=5_000_000, help="about so many, over all teachers")

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Makes one sheet by the services, and the others from it in the database. Raises CommandError where people
        work."""
        if User.objects.exists():
            raise CommandError("This database has people in it; the made-up ones go into an empty one.")
        first, _ = people.make("teacher0", "Teacher 0", password=PASSWORD, manages=True)
        sheet = services.create_sheet(first, "Sheet 0")
        for task, given, lines in PATTERN * 2:
            services.add_problem(first, sheet.pk, ProblemIn.model_validate({"task": task, "given": given}), lines)
        queries.sheet_out(sheet)  # reports and ratings are made and kept
        of_sheet = 2 * sum(len(lines) for _, _, lines in PATTERN)
        each = max(options["lines"] // of_sheet // options["teachers"], 1)
        with connection.cursor() as cursor:
            for words in STATEMENTS:
                cursor.execute(
                    words, {"teachers": options["teachers"], "sheets": each, "first": first.pk, "pattern": sheet.pk}
                )
                self.stdout.write(f"{cursor.rowcount} rows: {words.split('(')[0].strip()}")


STATEMENTS = (
    """INSERT INTO auth_user
    (username, password, first_name, last_name, email, is_superuser, is_staff, is_active, date_joined)
    SELECT 'teacher' || k, u.password, 'Teacher ' || k, '', '', false, false, true, now()
    FROM auth_user u, generate_series(1, %(teachers)s - 1) k WHERE u.id = %(first)s""",
    """INSERT INTO accounts_person (user_id, teaches, manages, regional)
    SELECT id, true, false, '{}'::jsonb FROM auth_user WHERE id <> %(first)s""",
    """INSERT INTO sheets_sheet (owner_id, title, received_from, conventions, untaught, created, changed)
    SELECT u.id, 'Sheet ' || k, '', s.conventions, s.untaught, now(), now() - k * interval '1 hour'
    FROM auth_user u, sheets_sheet s, generate_series(1, %(sheets)s) k WHERE s.id = %(pattern)s""",
    """INSERT INTO sheets_problem
        (sheet_id, position, task, given, variable, numbers, method, instruction, form, difficulty, difficulty_version,
        family, rating, methods, slips, likeness, indexed)
    SELECT s.id, p.position, p.task, p.given, p.variable, p.numbers, p.method, p.instruction, p.form,
        p.difficulty, p.difficulty_version, p.family, p.rating, p.methods, p.slips, p.likeness, p.indexed
    FROM sheets_sheet s, sheets_problem p WHERE s.id <> %(pattern)s AND p.sheet_id = %(pattern)s
    ORDER BY s.id, p.position""",
    """INSERT INTO sheets_working (problem_id, revision, report, report_version, state, changed)
    SELECT new.id, 1, w.report, w.report_version, w.state, now()
    FROM sheets_problem new JOIN sheets_problem old ON old.position = new.position AND old.sheet_id = %(pattern)s
    JOIN sheets_working w ON w.problem_id = old.id WHERE new.sheet_id <> %(pattern)s ORDER BY new.id""",
    """INSERT INTO sheets_line (working_id, position, text)
    SELECT nw.id, l.position, l.text
    FROM sheets_working nw JOIN sheets_problem new ON new.id = nw.problem_id AND new.sheet_id <> %(pattern)s
    JOIN sheets_problem old ON old.position = new.position AND old.sheet_id = %(pattern)s
    JOIN sheets_working ow ON ow.problem_id = old.id JOIN sheets_line l ON l.working_id = ow.id
    ORDER BY nw.id, l.position""",
)
