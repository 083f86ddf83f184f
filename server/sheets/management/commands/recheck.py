"""`manage.py recheck`: makes every kept report again from the lines."""

from typing import Any

from django.core.management.base import BaseCommand

from server.sheets import reports
from server.sheets.models import Problem, Working


class Command(BaseCommand):
    help = "Checks every stored working again and keeps the new reports."

    def handle(self, *args: Any, **options: Any) -> None:
        """Makes every kept report again."""
        count = 0
        Working.objects.update(report_version="")
        for problem in Problem.objects.select_related("sheet", "working").iterator():
            reports.of(problem)
            count += 1
        self.stdout.write(f"{count} workings checked again")
