"""How many heavy questions one person may ask: counted in the database, so that all processes count together."""

from __future__ import annotations

import os

from django.contrib.auth.models import User

from server.common.minutes import Minutes
from server.common.problems import TooMany

A_MINUTE = int(os.environ.get("UCHUU_HEAVY_A_MINUTE", "120"))
"""Heavy questions of one person a minute: more than a hand can ask, few enough that the others don't feel a program
that asks."""

_SPENT = Minutes("accounts_spent", "user_id", "asked")


def spend(user: User) -> None:
    """Counts a heavy question; raises TooMany, with when to try again, where the person has asked too many in this
    minute."""
    asked, wait = _SPENT.add(user.pk)
    if asked > A_MINUTE:
        raise TooMany(
            f"That is more than {A_MINUTE} questions of this kind in a minute. Try again in {wait} seconds.",
            code="allowance",
            seconds=wait,
        )
