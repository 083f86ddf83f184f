"""What a service refuses: a status, a code for programs and a sentence for people.

Problem
  Refused     400  the input breaks a rule
  Conflict    409  somebody else changed it in between; carries what stands now
"""

from __future__ import annotations

from typing import Any


class Problem(Exception):
    status = 400
    code = "refused"

    def __init__(self, detail: str, *, code: str | None = None, **more: Any) -> None:
        super().__init__(detail)
        self.detail = detail
        self.code = code or self.code
        self.more = more

    def to_json(self) -> dict[str, Any]:
        return {"code": self.code, "detail": self.detail, **self.more}


class Refused(Problem):
    pass


class Conflict(Problem):
    status = 409
    code = "conflict"
