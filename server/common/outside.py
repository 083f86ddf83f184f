"""Asking services outside over HTTP, as the page reader and the school's records are: bounded in time and size, and
saying when to ask again."""

from __future__ import annotations

import http.client
import json
from urllib.error import HTTPError, URLError
from urllib.request import Request, urlopen

MOST_BYTES = 4 * 2**20
LONGEST_WAIT = 5.0


class AskAgain(Exception):
    """No answer, half of one, or one that asks for patience; `wait` is how many seconds to wait first."""

    def __init__(self, message: str, wait: float = 0.5) -> None:
        super().__init__(message)
        self.wait = min(wait, LONGEST_WAIT)


def sent(request: Request, *, seconds: float, silent: str) -> bytes:
    """The answer to a request, at most a byte more than `MOST_BYTES` of it. Raises AskAgain with the words `silent`,
    and HTTPError for a refusal."""
    try:
        with urlopen(request, timeout=seconds) as answer:
            found: bytes = answer.read(MOST_BYTES + 1)
    except HTTPError as problem:
        if problem.code == 429 or problem.code >= 500:
            raise AskAgain(silent, _seconds(problem.headers.get("Retry-After"))) from problem
        raise
    except (URLError, OSError, http.client.HTTPException) as problem:  # refused, silent, or ended in the middle
        raise AskAgain(silent) from problem
    return found


def reason(problem: HTTPError, key: str, otherwise: str) -> str:
    """The words of a refusal: what stands under this key of its JSON, else `otherwise` with the status."""
    try:
        found = json.loads(problem.read(4000))[key]
    except (ValueError, KeyError, TypeError, RecursionError, OSError, http.client.HTTPException):
        found = ""
    return str(found)[:250] if found else f"{otherwise} ({problem.code})"


def _seconds(told: str | None) -> float:
    try:
        return max(0.0, float(told or 0.5))
    except ValueError:
        return 0.5
