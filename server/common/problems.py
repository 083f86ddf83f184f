"""What a service refuses: a status, a code for programs and a sentence for people.

Problem
  Refused     400  the input breaks a rule
  Forbidden   403  the account may not do this
  Conflict    409  somebody else changed it in between; carries what stands now
  TooMany     429  too often in too short a time; says when to try again
"""

from __future__ import annotations

from algebra import JsonValue


class Problem(Exception):
    """`code` is for programs, `detail` for people; `more` are further fields of the answer."""

    status = 400
    code = "refused"

    def __init__(self, detail: str, *, code: str | None = None, **more: JsonValue) -> None:
        super().__init__(detail)
        self.detail = detail
        self.code = code or self.code
        self.more = more

    def to_json(self) -> dict[str, JsonValue]:
        """The body of the answer."""
        return {"code": self.code, "detail": self.detail, **self.more}


class Refused(Problem):
    """The input breaks a rule."""


class Forbidden(Problem):
    """The account may not do this."""

    status = 403
    code = "forbidden"


class Conflict(Problem):
    """Somebody else changed it in between; carries what stands now."""

    status = 409
    code = "conflict"


class TooMany(Problem):
    """Too often in too short a time; the sentence says when to try again."""

    status = 429
    code = "too-many"
