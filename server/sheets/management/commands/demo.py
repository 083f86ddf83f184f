"""`manage.py demo`: the demo teacher of the invented evening school, with sheets to try things on."""

from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand
from django.db import transaction

from algebra import read_workings
from server.accounts import people
from server.sheets import services
from server.sheets.schemas import ProblemIn

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
        for path in sorted(FOLDER.glob("*.chain")):
            text = path.read_text(encoding="utf-8")
            sheet = services.create_sheet(teacher, text.partition("\n")[0].lstrip("# ").strip())
            for working in read_workings(text):
                data = ProblemIn(
                    task=working.task,  # type: ignore[arg-type]
                    given=working.given,
                    variable=working.variable or "",
                    numbers=working.numbers,  # type: ignore[arg-type]
                    method=working.method or "",
                )
                services.add_problem(teacher, sheet.pk, data, list(working.lines))
        self.stdout.write(f"demo account “{USERNAME}” made")
