"""What the account endpoints take and give."""

from __future__ import annotations

from datetime import datetime

from ninja import Field, Schema

from server.common.regional import InForce, Regional
from server.common.schemas import Text


class Credentials(Schema):
    """`digits`: of the second factor, where the account has one."""

    username: Text = Field(max_length=150)
    password: Text = Field(max_length=200)
    digits: Text = Field("", max_length=12)


class NewAccount(Schema):
    """The first account; `word` is what the start command has printed."""

    username: Text = Field(max_length=150)
    password: Text = Field(max_length=200)
    name: Text = Field("", max_length=150)
    word: Text = Field("", max_length=40)


class NewPassword(Schema):
    """The password that was, and the one that is to be."""

    old: Text = Field(max_length=200)
    new: Text = Field(max_length=200)


class ResetOut(Schema):
    """Who has put a one-time word in place of one's password, and when."""

    who: str
    when: datetime


class Digits(Schema):
    digits: Text = Field(min_length=1, max_length=12)


class PasswordAgain(Schema):
    password: Text = Field(max_length=200)


class OfferedFactor(Schema):
    """A second factor that is yet to be confirmed: its key as it is typed, its address, and that as a square code (rows
    of 0 and 1)."""

    key: str
    address: str
    code: list[str]


class Teacher(Schema):
    """Who is logged in. While `new_password` is true nothing else can be asked than to choose one; `reset` says who
    made that so. `second_factor`: whether the account has one; while `needs_second_factor` it may not manage.
    `regional` is what was set of how numbers and days are written, `in_force` how they are."""

    id: int
    username: str
    name: str
    teaches: bool
    manages: bool
    new_password: bool
    reset: ResetOut | None
    second_factor: bool
    needs_second_factor: bool
    regional: Regional
    in_force: InForce


class Session(Schema):
    """Who is logged in; `needs_setup` while there is no account at all; which version of the product and of the core
    answers."""

    teacher: Teacher | None
    needs_setup: bool
    version: str
    core: str


class PersonIn(Schema):
    username: Text = Field(min_length=1, max_length=150)
    name: Text = Field("", max_length=150)
    teaches: bool = True
    manages: bool = False


class PersonChange(Schema):
    name: Text | None = Field(None, max_length=150)
    active: bool | None = None
    teaches: bool | None = None
    manages: bool | None = None


class PersonOut(Schema):
    """An account as who manages sees it. `word_until`: until when its one-time word is good, while it has one; `locked`
    while too many wrong passwords were tried for it somewhere."""

    id: int
    username: str
    name: str
    teaches: bool
    manages: bool
    active: bool
    last_here: datetime | None
    word_until: datetime | None
    locked: bool
    second_factor: bool


class PersonWord(Schema):
    """An account and its one-time word, which is shown this once."""

    person: PersonOut
    word: str


class HappeningOut(Schema):
    when: datetime
    who: str
    what: str
    whom: str


class PeopleOut(Schema):
    """Everybody with an account, and what was done last."""

    people: list[PersonOut]
    happenings: list[HappeningOut]


class Colleague(Schema):
    """Somebody to whom a sheet can be given."""

    username: str
    name: str
