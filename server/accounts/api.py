"""/api/account: the session and one's own password. /api/people: the accounts, for who manages them."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router, Status
from ninja.decorators import decorate_view

from server.accounts import locks, second_factor, services
from server.accounts import people as who
from server.accounts.allowance import spend
from server.accounts.schemas import (
    Credentials,
    Digits,
    HappeningOut,
    NewAccount,
    NewPassword,
    OfferedFactor,
    PasswordAgain,
    PeopleOut,
    PersonChange,
    PersonIn,
    PersonOut,
    PersonWord,
    ResetOut,
    Session,
    Teacher,
)
from server.common.regional import Regional, in_force
from server.common.release import CORE, RELEASE
from server.common.schemas import Detail
from server.common.who import person_of

router = Router()
people = Router()


def _session(user: User | None) -> Session:
    teacher = None
    if user is not None:
        person = user.person
        told = who.last_reset(user) if person.one_time_until is not None else None
        teacher = Teacher(
            id=user.pk,
            username=user.username,
            name=user.first_name or user.username,
            teaches=person.teaches,
            manages=person.manages,
            new_password=person.one_time_until is not None,
            reset=ResetOut(who=told.who, when=told.when) if told is not None else None,
            second_factor=second_factor.device_of(user) is not None,
            needs_second_factor=person.lacks_second_factor,
            regional=Regional.model_validate(person.regional),
            in_force=in_force(person.regional),
        )
    return Session(teacher=teacher, needs_setup=user is None and services.needs_setup(), version=RELEASE, core=CORE)


@router.get("/session", response=Session, auth=None)
@decorate_view(ensure_csrf_cookie)
def session(request: HttpRequest) -> Session:
    """Who is logged in. Sets the CSRF cookie that every change needs."""
    return _session(services.current(request))


@router.post("/log-in", response={200: Session, 400: Detail, 429: Detail}, auth=None)
@decorate_view(csrf_protect)
def log_in(request: HttpRequest, response: HttpResponse, data: Credentials) -> Session:
    """Begins a session; refused where name and password don't fit, where the digits of a second factor are missing, and
    for a while after ten wrong passwords from here."""
    user = services.log_in(request, data.username, data.password, data.digits)
    _know_again(request, response, user)
    return _session(user)


def _know_again(request: HttpRequest, response: HttpResponse, user: User) -> None:
    response.set_cookie(
        locks.DEVICE,
        locks.device_cookie(request, user.username),
        max_age=locks.DEVICE_AGE,
        httponly=True,
        samesite="Lax",
        secure=request.is_secure(),
    )


@router.post("/set-up", response={200: Session, 400: Detail}, auth=None)
@decorate_view(csrf_protect)
def set_up(request: HttpRequest, response: HttpResponse, data: NewAccount) -> Session:
    """The first account, while there is none, for who has the word that the start command has printed."""
    user = services.create_first(request, data.username, data.password, data.name, data.word)
    _know_again(request, response, user)
    return _session(user)


@router.post("/log-out", response=Session)
def log_out(request: HttpRequest) -> Session:
    """Ends the session."""
    services.log_out(request)
    return _session(None)


@router.post("/password", response={200: Session, 400: Detail, 429: Detail})
def new_password(request: HttpRequest, data: NewPassword) -> Session:
    """Another password for oneself; one's sessions in other browsers end."""
    spend(person_of(request))  # so that nobody guesses the old one with a session that was left open
    return _session(services.set_password(request, person_of(request), data.old, data.new))


@router.patch("/regional", response=Session)
def change_regional(request: HttpRequest, data: Regional) -> Session:
    """How numbers and days are written for oneself: in new sheets, and in classes that say nothing else. What is not
    said stays."""
    return _session(services.change_regional(person_of(request), data))


@router.post("/second-factor", response={201: OfferedFactor, 400: Detail, 429: Detail})
def offer_second_factor(request: HttpRequest) -> Status[OfferedFactor]:
    """A second factor for oneself, to be confirmed by its digits."""
    spend(person_of(request))
    found = second_factor.offer(person_of(request))
    return Status(201, OfferedFactor(key=found.key, address=found.address, code=list(found.code)))


@router.put("/second-factor", response={200: Session, 400: Detail, 429: Detail})
def confirm_second_factor(request: HttpRequest, data: Digits) -> Session:
    """The second factor counts, once its digits are given."""
    spend(person_of(request))
    second_factor.confirm(person_of(request), data.digits)
    return _session(person_of(request))


@router.post("/second-factor/away", response={200: Session, 400: Detail, 429: Detail})
def drop_second_factor(request: HttpRequest, data: PasswordAgain) -> Session:
    """No second factor any more, for who knows the password."""
    spend(person_of(request))
    return _session(services.drop_second_factor(person_of(request), data.password))


def _person_out(user: User, locked: set[str] | None = None, factors: set[int] | None = None) -> PersonOut:
    held = second_factor.device_of(user) is not None if factors is None else user.pk in factors
    person = user.person
    return PersonOut(
        id=user.pk,
        username=user.username,
        name=user.first_name,
        teaches=person.teaches,
        manages=person.manages,
        active=user.is_active,
        last_here=user.last_login,
        word_until=person.one_time_until,
        locked=user.username in (locks.locked_names() if locked is None else locked),
        second_factor=held,
    )


@people.get("", response={200: PeopleOut, 403: Detail})
def list_people(request: HttpRequest) -> PeopleOut:
    """Everybody with an account, and what was done last."""
    locked, factors = locks.locked_names(), second_factor.holders()
    return PeopleOut(
        people=[_person_out(user, locked, factors) for user in who.everybody()],
        happenings=[HappeningOut(when=h.when, who=h.who, what=h.what, whom=h.whom) for h in who.happenings()],
    )


@people.post("", response={201: PersonWord, 400: Detail, 403: Detail})
def add_person(request: HttpRequest, data: PersonIn) -> Status[PersonWord]:
    """A new account, with a one-time word for its first log-in."""
    user, word = who.make(
        data.username, data.name, teaches=data.teaches, manages=data.manages, by=person_of(request).username
    )
    return Status(201, PersonWord(person=_person_out(user), word=word))


@people.patch("/{int:user_id}", response={200: PersonOut, 400: Detail, 403: Detail, 404: Detail})
def change_person(request: HttpRequest, user_id: int, data: PersonChange) -> PersonOut:
    """Another name or other rights; switched off, or on again."""
    changes = data.model_dump(exclude_none=True)
    return _person_out(who.change(who.with_id(user_id), by=person_of(request), **changes))


@people.post("/{int:user_id}/reset", response={200: PersonWord, 403: Detail, 404: Detail})
def reset_person(request: HttpRequest, user_id: int) -> PersonWord:
    """A one-time word in place of a forgotten password; sessions of the account end."""
    word = services.reset(who.with_id(user_id), by=person_of(request).username)
    return PersonWord(person=_person_out(who.with_id(user_id)), word=word)


@people.post("/{int:user_id}/unlock", response={200: PersonOut, 403: Detail, 404: Detail})
def unlock_person(request: HttpRequest, user_id: int) -> PersonOut:
    """Forgets the wrong passwords that were tried for an account."""
    who.unlock(who.with_id(user_id), by=person_of(request).username)
    return _person_out(who.with_id(user_id))
