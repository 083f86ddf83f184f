"""What the account endpoints take and give."""

from __future__ import annotations

from ninja import Field, Schema


class Credentials(Schema):
    username: str = Field(max_length=150)
    password: str = Field(max_length=200)


class NewAccount(Credentials):
    name: str = Field("", max_length=150)


class Teacher(Schema):
    id: int
    username: str
    name: str


class Session(Schema):
    """Who is logged in; `needs_setup` while there is no account at all."""

    teacher: Teacher | None
    needs_setup: bool
