"""Who has an account and what it may do: made, reset, switched off by who manages. Each writes down what was done."""

from __future__ import annotations

import secrets
from datetime import timedelta

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.http import Http404
from django.utils import timezone
from django.utils.crypto import salted_hmac

from server.accounts import locks
from server.accounts.models import Happening, Person
from server.common.problems import Refused

WORD_LASTS = timedelta(days=7)
_CONSONANTS, _VOWELS = "bdfgklmnprstvz", "aeiou"
_SYLLABLES, _PARTS = 2, 4
LAST_HAPPENINGS = 200
RESET = "reset"


def one_time_word() -> str:
    """A word for the first log-in that can be read out, as `bako-timu-rela-sopi`; one of 70⁸, so that ten tries find
    nothing."""

    def part() -> str:
        return "".join(secrets.choice(_CONSONANTS) + secrets.choice(_VOWELS) for _ in range(_SYLLABLES))

    return "-".join(part() for _ in range(_PARTS))


def everybody() -> QuerySet[User]:
    """All accounts by name, with what each may do."""
    return User.objects.select_related("person").order_by("username")


def named(username: str) -> User:
    """The account of that name; raises Refused where there is none."""
    user = everybody().filter(username=username).first()
    if user is None:
        raise Refused(f"Nobody has the log-in name “{username}”.", code="nobody")
    return user


def with_id(user_id: int) -> User:
    """The account with that number; raises Http404 where there is none."""
    user = everybody().filter(pk=user_id).first()
    if user is None:
        raise Http404
    return user


def word_of_first_account() -> str:
    """The word that who makes the first account has to know: it is printed by the start command, so it is known to who
    has the machine. It follows from the secret key of the installation."""
    return salted_hmac("first account", "uchuu", algorithm="sha256").hexdigest()[:12]


def make(
    username: str,
    name: str = "",
    *,
    password: str | None = None,
    teaches: bool = True,
    manages: bool = False,
    by: str = "",
) -> tuple[User, str]:
    """A new account and its one-time word, which is empty where a password is given; raises Refused for a name that is
    taken or no name, a weak password, or an account that may do nothing."""
    if not (teaches or manages):
        raise Refused("An account must teach or manage, or both.", code="role")
    user = User(username=username.strip(), first_name=name.strip())
    word = "" if password else one_time_word()
    try:
        user.full_clean(exclude=["password"])
        if password:
            validate_password(password, user)
    except ValidationError as problem:
        raise Refused(" ".join(problem.messages), code="account") from problem
    user.set_password(password or word)
    try:
        with transaction.atomic():
            user.save()
            until = timezone.now() + WORD_LASTS if word else None
            Person.objects.create(user=user, teaches=teaches, manages=manages, one_time_until=until)
            note(by or user.username, "made", user.username)
    except IntegrityError as problem:  # made in the same moment
        raise Refused("A user with that username already exists.", code="account") from problem
    return user, word


def reset(user: User, *, by: str) -> str:
    """A one-time word in place of the password; all sessions of the account end, and it is locked nowhere any more."""
    word = one_time_word()
    user.set_password(word)  # before the transaction: who waits for it holds no connection
    return _reset(user, word, by)


@transaction.atomic
def _reset(user: User, word: str, by: str) -> str:
    user.save(update_fields=["password"])
    Person.objects.filter(user=user).update(one_time_until=timezone.now() + WORD_LASTS)
    locks.unlock(user.username)
    note(by, RESET, user.username)
    return word


def last_reset(user: User) -> Happening | None:
    """When and by whom a one-time word was last put in place of an account's password."""
    return Happening.objects.filter(what=RESET, whom=user.username).first()


def unlock(user: User, *, by: str) -> None:
    """Forgets the wrong passwords that were tried for an account."""
    locks.unlock(user.username)
    note(by, "unlocked", user.username)


@transaction.atomic
def change(
    user: User,
    *,
    by: User | None,
    name: str | None = None,
    active: bool | None = None,
    teaches: bool | None = None,
    manages: bool | None = None,
) -> User:
    """Another name, other rights, or an account switched off or on again. Raises Refused where nobody would be left who
    manages, where one would switch oneself off, or where an account may do nothing."""
    Person.objects.select_for_update().filter(manages=True).order_by("pk").first()  # two who give up at once: one waits
    person = Person.objects.select_for_update().get(user=user)
    actor = by.username if by else "the command line"
    was = (user.is_active, person.teaches, person.manages)
    user.is_active = user.is_active if active is None else active
    person.teaches = person.teaches if teaches is None else teaches
    person.manages = person.manages if manages is None else manages
    if name is not None:
        user.first_name = name.strip()
    if by is not None and by.pk == user.pk and not user.is_active:
        raise Refused("You can't switch off your own account.", code="self")
    if not (person.teaches or person.manages):
        raise Refused("An account must teach or manage, or both.", code="role")
    user.save(update_fields=["is_active", "first_name"])
    person.save()
    if not Person.objects.filter(manages=True, user__is_active=True).exists():
        raise Refused("Somebody must be left who manages people.", code="last-manager")
    if was[0] != user.is_active:
        note(actor, "switched on" if user.is_active else "switched off", user.username)
    if was[1:] != (person.teaches, person.manages):
        roles = " and ".join(word for word, has in (("teaches", person.teaches), ("manages", person.manages)) if has)
        note(actor, f"now {roles}", user.username)
    user.person = person
    return user


def note(who: str, what: str, whom: str = "") -> None:
    """Writes down what was done."""
    Happening.objects.create(who=who, what=what, whom=whom)


def happenings() -> QuerySet[Happening]:
    """What was done last, the last first."""
    return Happening.objects.all()[:LAST_HAPPENINGS]
