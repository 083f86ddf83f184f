"""Logging in and out, the first account, one's own password."""

from __future__ import annotations

from axes.handlers.proxy import AxesProxyHandler
from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout, update_session_auth_hash
from django.contrib.auth.models import AbstractBaseUser, User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import connection, transaction
from django.http import HttpRequest
from django.utils import timezone
from django.utils.crypto import constant_time_compare

from server.accounts import people, second_factor
from server.accounts.models import Person
from server.common.problems import Refused, TooMany
from server.common.regional import Regional

BACKEND = "server.accounts.backend.AccountBackend"


def current(request: HttpRequest) -> User | None:
    """The teacher who is logged in, or None."""
    user = request.user
    return user if isinstance(user, User) and user.is_authenticated else None


def needs_setup() -> bool:
    """Whether nobody has an account yet."""
    return not get_user_model().objects.exists()


def log_in(request: HttpRequest, username: str, password: str, digits: str = "") -> User:
    """Opens the session; raises Refused for wrong credentials, without saying which part is wrong, and where a second
    factor lacks.

    Raises TooMany when the name is locked here because too many passwords were tried for it, even for the right one; a
    one-time word that is good is let through.
    """
    user: AbstractBaseUser | None = authenticate(request, username=username, password=password)
    if not isinstance(user, User):
        user = _by_one_time_word(username, password)
    if not isinstance(user, User):
        if AxesProxyHandler.is_locked(request, {"username": username}):
            minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
            raise TooMany(
                f"Too many wrong passwords were tried for this name. Try again in {minutes} minutes.", code="locked"
            )
        raise Refused("The name or the password is not right.", code="credentials")
    if not Person.objects.filter(user=user).exists():  # made by other means than these
        raise Refused("This account may do nothing here yet.", code="role")
    until = user.person.one_time_until
    if until is not None and until < timezone.now():
        raise Refused("This one-time word has run out. Ask for a new one.", code="one-time-word")
    second_factor.check(user, digits)
    login(request, user, backend=BACKEND)
    return user


def _by_one_time_word(username: str, password: str) -> User | None:
    """An account with a one-time word that is good, while its name is locked: nobody guesses such a word."""
    waiting = User.objects.select_related("person").filter(
        username=username, is_active=True, person__one_time_until__gt=timezone.now()
    )
    user = waiting.first()
    return user if user is not None and user.check_password(password) else None


def log_out(request: HttpRequest) -> None:
    """Ends the session of this browser."""
    logout(request)


def create_first(request: HttpRequest, username: str, password: str, name: str, word: str) -> User:
    """Makes the first account and logs it in; raises Refused without the word that the start command has printed, once
    there is an account, or for a weak password."""
    if needs_setup() and not constant_time_compare(word.strip().lower(), people.word_of_first_account()):
        raise Refused(
            "This is not the word that ./uchuu start has printed: look there, or ask who started it.", code="word"
        )
    with transaction.atomic():
        with connection.cursor() as cursor:  # two first visitors at once: only one may win
            cursor.execute("SELECT pg_advisory_xact_lock(7501)")
        if not needs_setup():
            raise Refused("There is an account already: log in with it.", code="already-set-up")
        user, _ = people.make(username, name, password=password, teaches=True, manages=True)
    login(request, user, backend=BACKEND)
    return user


def set_password(request: HttpRequest, user: User, old: str, new: str) -> User:
    """Another password for oneself; raises Refused where the old one is wrong or the new one weak. Other sessions
    end."""
    if not user.check_password(old):
        raise Refused("The password you have now is not right.", code="credentials")
    if old == new:
        raise Refused("The new password is the one you have now.", code="password")
    try:
        validate_password(new, user)
    except ValidationError as problem:
        raise Refused(" ".join(problem.messages), code="password") from problem
    user.set_password(new)  # outside of the transaction: who waits for it holds no connection
    with transaction.atomic():
        user.save(update_fields=["password"])
        Person.objects.filter(user=user).update(one_time_until=None)
        people.note(user.username, "new password")
    user.person.one_time_until = None
    update_session_auth_hash(request, user)
    return user


def reset(user: User, *, by: str) -> str:
    """A one-time word in place of an account's password; its second factor is gone too, for a telephone may be lost."""
    second_factor.take_away(user, by=by)
    return people.reset(user, by=by)


@transaction.atomic
def change_regional(user: User, change: Regional) -> User:
    """Changes how numbers and days are written for this account."""
    person = Person.objects.select_for_update().get(user=user)
    person.regional = change.over(person.regional)
    person.save(update_fields=["regional"])
    user.person = person
    return user


def drop_second_factor(user: User, password: str) -> User:
    """An account without its second factor. Raises Refused for a wrong password."""
    if not user.check_password(password):
        raise Refused("The password is not right.", code="credentials")
    second_factor.take_away(user, by=user.username)
    return user
