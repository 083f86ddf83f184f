"""Who asks."""

from __future__ import annotations

from typing import cast

from django.contrib.auth.models import User
from django.http import HttpRequest


def teacher_of(request: HttpRequest) -> User:
    """The teacher who is logged in; only for endpoints that demand it."""
    return cast(User, request.user)
