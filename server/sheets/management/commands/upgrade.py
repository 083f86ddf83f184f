"""`manage.py upgrade`: brings the database up to date, unless a newer version has written it."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import ProgrammingError, connection
from psycopg.errors import InsufficientPrivilege

from server.common.readiness import migrations, newer_sentence
from server.sheets import renewal

ONE_AT_A_TIME = 7_208_301
"""The number of the lock in the database under which one machine after the other brings it up to date."""


OWNER_NEEDED = (
    "The database is to be brought up to date, and its role may not do that. Set UCHUU_OWNER_URL to the address with "
    "the owner's role, on one machine at least, and start that one first."
)


class Command(BaseCommand):
    help = "Brings the database up to date; refuses one that a newer Uchuu has written."

    def handle(self, *args: Any, **options: Any) -> None:
        """Runs the migrations, one machine after the other; raises CommandError for data newer than this version."""
        with connection.cursor() as cursor:
            cursor.execute("SELECT pg_advisory_lock(%s)", [ONE_AT_A_TIME])
            try:
                self._upgrade()
            finally:
                cursor.execute("SELECT pg_advisory_unlock(%s)", [ONE_AT_A_TIME])

    def _upgrade(self) -> None:
        lacking, newer = migrations()
        if newer:
            raise CommandError(newer_sentence(newer))
        if lacking:
            try:
                call_command("migrate", verbosity=0)
            except ProgrammingError as problem:
                if not isinstance(problem.__cause__, InsufficientPrivilege):
                    raise
                raise CommandError(OWNER_NEEDED) from problem
        renewal.begin_where_needed()
