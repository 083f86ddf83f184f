"""`./uchuu people`, and others that do the same: hand over to Django's command, with the database of this home beside
it."""

from __future__ import annotations

import subprocess
import sys

from tools.installation import StartError, manage, with_database
from tools.postgres import PostgresError


def main(arguments: list[str]) -> int:
    """Returns 0, 1 where it can't be done (the reason is on standard error), 3 where there is no database."""
    return handed_over("people", *arguments)


def handed_over(*arguments: str) -> int:
    """One of Django's commands with the database of this home. Returns as `main`."""
    try:
        with with_database():
            manage(*arguments, here=True)  # files are named from where one stands
        return 0
    except (PostgresError, StartError) as problem:
        print(f"uchuu: {problem}", file=sys.stderr)
        return 3
    except subprocess.CalledProcessError as failed:
        return int(failed.returncode)
