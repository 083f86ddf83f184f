"""`manage.py demo`: the demo teacher of the invented evening school, with sheets to try things on."""

from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import transaction

from paper import read
from server.accounts import people
from server.sheets import services
from server.sheets.schemas import ProblemIn, SheetChange

FOLDER = Path(__file__).resolve().parents[2] / "demo"
USERNAME, PASSWORD, NAME = "demo", "lantern-quay", "Tavi Orsel"
COLLEAGUE, COLLEAGUES_NAME = "runa", "Runa Velm"


class Command(BaseCommand):
    help = "Creates the demo account with its sheets, unless it is there already."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Makes the demo account and its sheets, where they are not there yet."""
        if User.objects.filter(username=USERNAME).exists():
            return
        teacher, _ = people.make(USERNAME, NAME, password=PASSWORD, manages=True)
        people.make(COLLEAGUE, COLLEAGUES_NAME, password=PASSWORD, by=USERNAME)
        for path in sorted(FOLDER.iterdir()):
            file, _ = read(path.read_bytes(), path.suffix.removeprefix("."))
            sheet = services.create_sheet(teacher, file.title)
            if file.untaught:
                change = SheetChange(title=None, conventions=None, untaught=list(file.untaught))
                services.change_sheet(teacher, sheet.pk, change)
            for problem in file.problems:
                data = ProblemIn(
                    task=problem.task,  # type: ignore[arg-type]  # validated there
                    given=problem.given,
                    variable=problem.variable or "",
                    numbers=problem.numbers,  # type: ignore[arg-type]  # validated there
                    method=problem.method or "",
                    instruction=problem.instruction,
                    form=problem.form,  # type: ignore[arg-type]  # validated there
                )
                services.add_problem(teacher, sheet.pk, data, list(problem.lines))
        call_command("demo_classes", verbosity=0)
        call_command("demo_pages", verbosity=0)
        call_command("demo_versions", verbosity=0)
        call_command("demo_room", verbosity=0)
        self.stdout.write(f"demo account “{USERNAME}” made")
