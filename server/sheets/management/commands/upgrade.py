"""`manage.py upgrade`: brings the database up to date, unless a newer version has written it."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from server.common.readiness import migrations, newer_sentence
from server.sheets import renewal


class Command(BaseCommand):
    help = "Brings the database up to date; refuses one that a newer Uchuu has written."

    def handle(self, *args: Any, **options: Any) -> None:
        """Runs the migrations; raises CommandError for data newer than this version."""
        _, newer = migrations()
        if newer:
            raise CommandError(newer_sentence(newer))
        call_command("migrate", verbosity=0)
        renewal.begin_where_needed()
