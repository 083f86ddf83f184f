"""Counting by the minute, or another while, in the database, so that all processes count together. A clock that was set
back begins a new one."""

from __future__ import annotations

from dataclasses import dataclass

from django.db import connection


@dataclass(frozen=True, slots=True)
class Minutes:
    """A table with a row for each of who or what is counted: its key, since when, and how many. The names are those of
    this code, never of a person. A while lasts so many `seconds`."""

    table: str
    key: str
    count: str
    seconds: int = 60

    @property
    def _while(self) -> str:
        return f"make_interval(secs => {self.seconds})"

    def add(self, whom: int | str) -> tuple[int, int]:
        """Counts one more; how many there are in this while, and the seconds that are left of it."""
        fresh = f"{self.table}.since BETWEEN now() - {self._while} AND now()"
        words = f"""INSERT INTO {self.table} ({self.key}, since, {self.count}) VALUES (%s, now(), 1)
            ON CONFLICT ({self.key}) DO UPDATE SET
                {self.count} = CASE WHEN {fresh} THEN {self.table}.{self.count} + 1 ELSE 1 END,
                since = CASE WHEN {fresh} THEN {self.table}.since ELSE now() END
            RETURNING {self.count}, ceil(extract(epoch FROM since + {self._while} - now()))"""
        with connection.cursor() as cursor:
            cursor.execute(words, [whom])
            counted, seconds = cursor.fetchone()
        return int(counted), max(int(seconds), 1)

    def now(self, whom: int | str) -> int:
        """How many there are in this while."""
        words = (
            f"SELECT {self.count} FROM {self.table} WHERE {self.key} = "
            f"%s AND since BETWEEN now() - {self._while} AND now()"
        )
        with connection.cursor() as cursor:
            cursor.execute(words, [whom])
            row = cursor.fetchone()
        return int(row[0]) if row else 0
