"""What the account endpoints take and give."""

from __future__ import annotations

from ninja import Field, Schema

from server.common.schemas import Text


class Credentials(Schema):
    username: Text = Field(max_length=150)
    password: Text = Field(max_length=200)


class NewAccount(Credentials):
    name: Text = Field("", max_length=150)


class Teacher(Schema):
    id: int
    username: str
    name: str


class Session(Schema):
    """Who is logged in; `needs_setup` while there is no account at all."""

    teacher: Teacher | None
    needs_setup: bool
