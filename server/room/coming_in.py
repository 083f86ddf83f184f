"""Coming into a room: the code, the name as the class has it, a short secret of one's own.

Wrong codes are bounded by the address they come from, generously, for a school comes from one. Wrong secrets are
bounded by the student and where they are tried: on a device on which the student was in before by that device alone, so
that nobody shuts a classmate out of theirs; from elsewhere by the address.
"""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, Protocol, cast

from django.contrib.auth.hashers import check_password, make_password
from django.core import signing
from django.http import HttpRequest
from django.utils import timezone

from lanes.allowance import STUDENT
from server.common.addresses import network_of
from server.common.fair import is_person
from server.common.hashing import turn
from server.common.minutes import Minutes
from server.common.problems import Forbidden, Refused, TooMany
from server.common.rows import Rows
from server.marking import intake
from server.marking.models import SchoolClass, Student
from server.marking.queries import as_written
from server.room import telling
from server.room.hashers import SecretHasher
from server.room.models import Door, Room, Secret, Visit, WrongTries

LETTERS = "ABCDEFGHJKMNPQRSTUVWXYZ23456789"
CODE_LENGTH, SHORTEST_SECRET = 6, 4
WRONG_CODES, WRONG_SECRETS = 300, 12
"""How many wrong codes from an address are borne in a minute, and how many wrong secrets of a student at one place in a
quarter of an hour: a secret of four digits would last for days."""
INSIDE, DEVICE = "uchuu_room", "uchuu_device"
MARK = 16
INSIDE_AGE, DEVICE_AGE = 12 * 3600, 400 * 24 * 3600
_CODES = Minutes("room_wrongtries", "what", "count")
_SECRETS = Minutes("room_wrongtries", "what", "count", 15 * 60)


def new_code() -> str:
    """A code that no room and no class has: six letters and digits that nobody mistakes."""
    while True:
        code = "".join(secrets.choice(LETTERS) for _ in range(CODE_LENGTH))
        if not (Room.objects.filter(code=code).exists() or Door.objects.filter(code=code).exists()):
            return code


class Closing(Protocol):
    """What can be over: a room, or a student's view of it."""

    @property
    def ended(self) -> bool:
        """Whether it was ended by hand."""

    @property
    def closes(self) -> datetime | None:
        """When it ends by itself."""


def is_over(room: Closing, more_minutes: int = 0, until: datetime | None = None) -> bool:
    """Whether a room has ended, by hand or by its time; for one student so many minutes later, or open again until
    then."""
    if until is not None and timezone.now() < until:
        return False
    if room.ended:
        return True
    return room.closes is not None and timezone.now() > room.closes + timedelta(minutes=more_minutes)


@dataclass(frozen=True, slots=True)
class Came:
    """Who came in: into a room, or from home, and the hash of the secret."""

    student: Student
    visit: Visit | None
    hashed: str


def come_in(request: HttpRequest, code: str, name: str, secret: str) -> Came:
    """A student in the room, or at home, that has a code; the secret is set at the first time. Raises Refused, with
    what is wrong, or TooMany."""
    codes_from = f"code {network_of(request)}"
    wanted = code.strip().upper()
    room = Room.objects.select_related("given_set__school_class").filter(code=wanted).first()
    door = None if room else Door.objects.select_related("school_class").filter(code=wanted).first()
    device, known = _device_of(request)
    school_class = room.given_set.school_class if room else door.school_class if door else None
    if _CODES.now(codes_from) >= WRONG_CODES and (school_class is None or not known):
        raise TooMany("Too many wrong tries from here. Wait a minute.", code="slow", seconds=60)
    if school_class is None:
        _CODES.add(codes_from)
        raise Refused("No room has this code. Look at it once more.", code="code")
    student = _named(school_class, name)
    if student is None:
        _CODES.add(codes_from)
        raise Refused("This name is not on the list of the class. Write it as your teacher has it.", code="name")
    before = Visit.objects.filter(room=room, student=student).first()
    if room and is_over(room, before.more_minutes if before else 0, before.until if before else None):
        raise Refused("This room is closed.", code="closed")
    if len(secret.strip()) < SHORTEST_SECRET:
        raise Refused(f"A secret has at least {SHORTEST_SECRET} letters or digits.", code="secret")
    place = f"on {device}" if student.pk in known else f"from {network_of(request)}"
    secrets_of = _secrets_of(student.pk, place)
    if _SECRETS.now(secrets_of) >= WRONG_SECRETS:
        raise TooMany(
            "Too many wrong secrets were tried for this name here. Wait a quarter of an hour, or ask your teacher to "
            "take the secret away.",
            code="slow",
            seconds=_SECRETS.seconds,
        )
    kept = Secret.objects.filter(student=student).first()
    if kept is None:  # of two who come in at once with one name, the first has set it
        kept, made = Secret.objects.get_or_create(student=student, defaults={"hashed": _hashed(secret.strip())})
        right = made or _fits(secret.strip(), kept.hashed)
    else:
        right = _fits(secret.strip(), kept.hashed)
    if not right:
        _SECRETS.add(secrets_of)
        raise Refused(
            "This is not the secret that goes with this name. If you have forgotten it, your teacher can take it away.",
            code="secret",
        )
    if room is None:
        return Came(student, None, kept.hashed)
    visit, _ = Visit.objects.get_or_create(room=room, student=student)
    visit.version = room.touch()
    visit.save(update_fields=["version", "heard"])
    return Came(student, visit, kept.hashed)


def _secrets_of(student: int, place: str) -> str:
    return f"{student} {place}"


def forget_tries(student: int) -> None:
    """Forgets the wrong secrets that were tried for a student."""
    WrongTries.objects.filter(what__startswith=_secrets_of(student, "")).delete()


def _hashed(secret: str) -> str:
    with turn():
        return make_password(secret, hasher=SecretHasher.algorithm)


def _fits(secret: str, hashed: str) -> bool:
    with turn():
        return check_password(secret, hashed)


def _named(school_class: SchoolClass, name: str) -> Student | None:
    students = as_written(school_class.students.all())
    return students.get(intake.by_name(students).whose(name) or "")


def _device_of(request: HttpRequest) -> tuple[str, set[int]]:
    """This device, and the students who came in on it before: wrong tries elsewhere don't keep them out."""
    try:
        device, known = signing.loads(request.COOKIES.get(DEVICE, ""), salt=DEVICE, max_age=DEVICE_AGE)
        return str(device), set(cast(list[int], known))
    except (signing.BadSignature, TypeError, ValueError):
        return "", set()


def cookies(request: HttpRequest, came: Came) -> dict[str, tuple[str, int]]:
    """What the browser of a student keeps, by name, each with its seconds: who is in which room, and who came in here
    before. Both are signed; the first holds by an end of the secret's hash, so with another secret, or none, it is
    over."""
    visit = came.visit.pk if came.visit else 0
    inside = signing.dumps([visit, came.hashed[-MARK:], came.student.pk], salt=INSIDE)
    device, known = _device_of(request)
    kept = signing.dumps([device or secrets.token_hex(8), sorted(known | {came.student.pk})[-40:]], salt=DEVICE)
    return {INSIDE: (inside, INSIDE_AGE), DEVICE: (kept, DEVICE_AGE)}


@dataclass(frozen=True, slots=True)
class Inside:
    """A student in a room, with what the room tells and may: one read, for every request of a class begins with it."""

    visit: int
    student: int
    name: str
    nudge: str
    more_minutes: int
    until: datetime | None
    room: int
    tells: telling.Tells
    right_line: bool
    hints: int
    paused: str
    closes: datetime | None
    show_time: bool
    reading: bool
    ended: bool
    given_set: int
    title: str
    conventions: dict[str, Any]
    owner: int
    ask: int | None

    @property
    def over(self) -> bool:
        """Whether this student's time has ended."""
        return is_over(self, self.more_minutes, self.until)


_COLUMNS = (
    "pk",
    "student",
    "student__name",
    "nudge",
    "more_minutes",
    "until",
    "room",
    "room__tells",
    "room__right_line",
    "room__hints",
    "room__paused",
    "room__closes",
    "room__show_time",
    "room__reading",
    "room__ended",
    "room__given_set",
    "room__given_set__title",
    "room__given_set__conventions",
    "room__given_set__school_class__owner",
    "room__ask",
)


_VISIT = Rows(1, lambda visit: Visit.objects.filter(pk=visit).values_list("student__secret__hashed", *_COLUMNS))


def inside(visit: int, mark: str = "") -> Inside:
    """The student of a visit; `mark` is how the hash of the secret must end. Raises Forbidden."""
    for hashed, *found in _VISIT(visit):
        if hashed is not None and hashed.endswith(mark):
            return Inside(*found)
    raise Forbidden("Come in with the code of the room first.", code="outside")


def inside_of(request: HttpRequest) -> Inside:
    """Who is in which room. Raises Forbidden where nobody is."""
    visit, mark, _ = _cookie(request)
    found = inside(visit, mark)
    is_person(request, f"{STUDENT}{found.student}")
    return found


def student_of(request: HttpRequest) -> Student:
    """Who is here, in a room or at home. Raises Forbidden where nobody is."""
    _, mark, student = _cookie(request)
    known = Student.objects.select_related("school_class__owner__person")
    found = known.filter(pk=student, secret__hashed__endswith=mark).first()
    if found is None:
        raise Forbidden("Come in with a code first.", code="outside")
    is_person(request, f"{STUDENT}{found.pk}")
    return found


def _cookie(request: HttpRequest) -> tuple[int, str, int]:
    try:
        visit, mark, student = signing.loads(request.COOKIES.get(INSIDE, ""), salt=INSIDE, max_age=INSIDE_AGE)
    except (signing.BadSignature, ValueError):
        return 0, "", 0
    return int(visit), str(mark), int(student)
