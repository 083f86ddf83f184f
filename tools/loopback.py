"""Questions to a server on this machine, as a browser asks them, for the fault runs."""

from __future__ import annotations

import json
import urllib.request
from http.cookiejar import CookieJar


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
