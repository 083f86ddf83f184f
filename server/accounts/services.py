"""Logging in and out, and the first account."""

from __future__ import annotations

from axes.handlers.proxy import AxesProxyHandler
from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.contrib.auth.models import AbstractBaseUser, User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import connection, transaction
from django.http import HttpRequest

from server.common.problems import Refused, TooMany


def current(request: HttpRequest) -> User | None:
    """The teacher who is logged in, or None."""
    user = request.user
    return user if isinstance(user, User) and user.is_authenticated else None


def needs_setup() -> bool:
    """Whether nobody has an account yet."""
    return not get_user_model().objects.exists()


def log_in(request: HttpRequest, username: str, password: str) -> User:
    """Opens the session; raises Refused for wrong credentials, without saying which part is wrong.

    Raises TooMany when the name is locked because too many passwords were tried for it, even for the right one.
    """
    user: AbstractBaseUser | None = authenticate(request, username=username, password=password)
    if not isinstance(user, User):
        if AxesProxyHandler.is_locked(request, {"username": username}):
            minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
            raise TooMany(
                f"Too many wrong passwords were tried for this name. Try again in {minutes} minutes.", code="locked"
            )
        raise Refused("The name or the password is not right.", code="credentials")
    login(request, user)
    return user


def log_out(request: HttpRequest) -> None:
    """Ends the session of this browser."""
    logout(request)


def create_first(request: HttpRequest, username: str, password: str, name: str) -> User:
    """Makes the first account and logs it in; raises Refused once there is one, or for a weak password."""
    with transaction.atomic():
        with connection.cursor() as cursor:  # two first visitors at once: only one may win
            cursor.execute("SELECT pg_advisory_xact_lock(7501)")
        if not needs_setup():
            raise Refused("There is an account already: log in with it.", code="already-set-up")
        user = User(username=username.strip(), first_name=name.strip())
        try:
            user.full_clean(exclude=["password"])
            validate_password(password, user)
        except ValidationError as problem:
            raise Refused(" ".join(problem.messages), code="account") from problem
        user.set_password(password)
        user.save()
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return user
