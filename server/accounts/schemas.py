"""What the account endpoints take and give."""

from __future__ import annotations

from datetime import datetime

from ninja import Field, Schema

from server.common.schemas import Text


class Credentials(Schema):
    username: Text = Field(max_length=150)
    password: Text = Field(max_length=200)


class NewAccount(Credentials):
    name: Text = Field("", max_length=150)


class NewPassword(Schema):
    """The password that was, and the one that is to be."""

    old: Text = Field(max_length=200)
    new: Text = Field(max_length=200)


class Teacher(Schema):
    """Who is logged in. While `new_password` is true nothing else can be asked than to choose one."""

    id: int
    username: str
    name: str
    teaches: bool
    manages: bool
    new_password: bool


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
    """An account as who manages sees it. `word_until`: until when its one-time word is good, while it has one."""

    id: int
    username: str
    name: str
    teaches: bool
    manages: bool
    active: bool
    last_here: datetime | None
    word_until: datetime | None


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
