"""Wrong passwords lock a name for a while: where they were tried, and nowhere else.

Tries are counted by name and network (django-axes). A browser in which somebody has been in before is counted by itself
for that name, so that nobody can lock a colleague out of her own devices.
"""

from __future__ import annotations

from datetime import timedelta
from hashlib import sha256
from secrets import token_hex
from typing import Any

from axes.models import AccessAttempt
from django.conf import settings
from django.core import signing
from django.db.models import Q
from django.http import HttpRequest
from django.utils import timezone

DEVICE = "uchuu_known"
DEVICE_AGE = int(timedelta(days=400).total_seconds())
MOST_NAMES = 20
_ON = " on "
"""Stands between a name and the device on which it is counted; no log-in name has a space."""


def _mark(username: str) -> str:
    return sha256(username.encode()).hexdigest()[:16]


def _known(request: HttpRequest) -> tuple[str, list[str]]:
    """The browser's own id, and the marks of those who have been in on it."""
    try:
        device, marks = signing.loads(request.COOKIES.get(DEVICE, ""), salt=DEVICE, max_age=DEVICE_AGE)
    except (signing.BadSignature, ValueError):
        return "", []
    return str(device), [str(mark) for mark in marks]


def counted_as(request: HttpRequest, credentials: dict[str, Any] | None) -> str:
    """As what a try is counted: the name, with the device where its owner has been in on it before."""
    username = str((credentials or {}).get("username", ""))
    device, marks = _known(request)
    return f"{username}{_ON}{device}" if device and _mark(username) in marks else username


def device_cookie(request: HttpRequest, username: str) -> str:
    """What a browser keeps when somebody has come in: who that were, so that it is known again."""
    device, marks = _known(request)
    mark = _mark(username)
    kept = [each for each in marks if each != mark][-(MOST_NAMES - 1) :]
    return signing.dumps([device or token_hex(8), [*kept, mark]], salt=DEVICE)


def _tries(username: str) -> Q:
    return Q(username=username) | Q(username__startswith=username + _ON)


def locked_names() -> set[str]:
    """The names that are locked somewhere just now."""
    since = timezone.now() - settings.AXES_COOLOFF_TIME
    found = AccessAttempt.objects.filter(
        failures_since_start__gte=settings.AXES_FAILURE_LIMIT, attempt_time__gte=since
    ).values_list("username", flat=True)
    return {str(name).partition(_ON)[0] for name in found}


def unlock(username: str) -> None:
    """Forgets the wrong tries for a name, wherever they were made."""
    AccessAttempt.objects.filter(_tries(username)).delete()
