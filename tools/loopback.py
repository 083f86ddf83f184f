"""Questions to a server on this machine, as a browser asks them, for benches and fault runs."""

from __future__ import annotations

import json
import time
import urllib.request
from dataclasses import dataclass, field
from http.cookiejar import CookieJar
from typing import Any


def ask(
    opener: urllib.request.OpenerDirector, jar: CookieJar, address: str, body: object = None, method: str | None = None
) -> object:
    """What is answered. Raises HTTPError, OSError."""
    headers = {"Content-Type": "application/json"}
    token = next((cookie.value for cookie in jar if cookie.name == "uchuu_csrf"), None)
    if token:
        headers["X-CSRFToken"] = token
    data = None if body is None else json.dumps(body).encode()
    with opener.open(urllib.request.Request(address, data, headers, method=method), timeout=20) as answer:
        return json.loads(answer.read() or b"null")


@dataclass
class Hand:
    """Somebody at a browser."""

    base: str
    jar: CookieJar = field(default_factory=CookieJar)

    def __post_init__(self) -> None:
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def ask(self, path: str, body: object = None, method: str | None = None) -> Any:
        """What is answered."""
        return ask(self.opener, self.jar, self.base + path, body, method)


@dataclass
class Student(Hand):
    """A student who writes one line after the other, then begins anew."""

    items: list[int] = field(default_factory=list)
    lines: list[str] = field(default_factory=list)
    revision: int = 0
    number: int = 0

    def write(self) -> float:
        """One more line; the milliseconds until it was answered."""
        wanted = self.wanted()
        self.lines = wanted[: len(self.lines) % len(wanted) + 1]
        began = time.perf_counter()
        found = self.ask(f"/api/room/items/{self.items[0]}", {"revision": self.revision, "lines": self.lines}, "PUT")
        took = (time.perf_counter() - began) * 1000
        self.revision = int(found["working"]["revision"])
        return took

    def wanted(self) -> list[str]:
        """The lines of this student: every third makes an error, and hardly two write the same."""
        k = self.number % 30 + 2
        if self.number % 3 == 0:
            return ["3x = 22 + 7", f"3x + {k} = 29 + {k}", "x = 29/3"]
        return ["3x + 7 - 7 = 22 - 7", f"3x + {k} = 15 + {k}", "3x = 15", "x = 15/3", "x = 5"]

    def look(self) -> float:
        """What the teacher has said meanwhile; the milliseconds until it was answered."""
        began = time.perf_counter()
        self.ask("/api/room/news")
        return (time.perf_counter() - began) * 1000
