"""How many heavy questions one person may ask: counted in the database, so that all processes count together."""

from __future__ import annotations

import os

from django.contrib.auth.models import User
from django.db import connection

from server.common.problems import TooMany

A_MINUTE = int(os.environ.get("UCHUU_HEAVY_A_MINUTE", "120"))
"""Heavy questions of one person a minute: more than a hand can ask, few enough that the others don't feel a program that asks."""

_COUNT = """
INSERT INTO accounts_spent (user_id, since, asked) VALUES (%s, now(), 1)
ON CONFLICT (user_id) DO UPDATE SET
    asked = CASE WHEN accounts_spent.since BETWEEN now() - interval '1 minute' AND now() THEN accounts_spent.asked + 1 ELSE 1 END,
    since = CASE WHEN accounts_spent.since BETWEEN now() - interval '1 minute' AND now() THEN accounts_spent.since ELSE now() END
RETURNING asked, ceil(extract(epoch FROM since + interval '1 minute' - now()))
"""


def spend(user: User) -> None:
    """Counts a heavy question; raises TooMany, with when to try again, where the person has asked too many in this minute."""
    with connection.cursor() as cursor:
        cursor.execute(_COUNT, [user.pk])
        asked, seconds = cursor.fetchone()
    if asked > A_MINUTE:
        wait = max(int(seconds), 1)
        raise TooMany(
            f"That is more than {A_MINUTE} questions of this kind in a minute. Try again in {wait} seconds.",
            code="allowance",
            seconds=wait,
        )
