"""Whether the database fits this version: the migrations that each of them knows."""

from __future__ import annotations

from django.db import connection
from django.db.migrations.loader import MigrationLoader


def migrations() -> tuple[list[str], list[str]]:
    """The migrations that the database lacks, and those that it has and this version does not know, as `app.name`.

    Raises DatabaseError when the database does not answer.
    """
    loader = MigrationLoader(connection)
    known, applied = set(loader.disk_migrations or {}), set(loader.applied_migrations or {})
    apps = {app for app, _ in known}
    lacking = sorted(f"{app}.{name}" for app, name in known - applied)
    newer = sorted(f"{app}.{name}" for app, name in applied - known if app in apps)
    return lacking, newer


def newer_sentence(newer: list[str]) -> str:
    """Why data with these migrations is not touched."""
    return (
        f"This data was written by a newer Uchuu ({', '.join(newer)}). Nothing was changed: start that version, "
        "or use another UCHUU_HOME or DATABASE_URL."
    )


def unfit() -> list[str]:
    """Why the database does not fit this version, a sentence each; raises DatabaseError when it does not answer."""
    lacking, newer = migrations()
    reasons = []
    if lacking:
        reasons.append(f"The database lacks {', '.join(lacking)}: ./uchuu start brings it up to date.")
    if newer:
        reasons.append(newer_sentence(newer))
    return reasons
