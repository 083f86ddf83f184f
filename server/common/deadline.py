"""The outer bound of a worker: how long one request may take.

The core counts its work and gives up by itself; this bound is for what it could not foresee. The time is kept by the
interpreter's own watchdog (`faulthandler`), a thread of the C level: it ends the process even while a library holds the
interpreter's lock. The application server then starts a new worker.
"""

from __future__ import annotations

import faulthandler
import os
import sys
import threading
import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponseBase

SECONDS = float(os.environ.get("UCHUU_REQUEST_SECONDS", "60"))
"""Longest time a request may take before its process is ended."""


class Deadline:
    """Ends the process when one of the requests that are under way takes longer than `seconds`."""

    def __init__(self, seconds: float, arm: Callable[[float], None], disarm: Callable[[], None]) -> None:
        self.seconds = seconds
        self._arm, self._disarm = arm, disarm
        self._lock = threading.Lock()
        self._until: dict[int, float] = {}

    def begin(self, now: float) -> None:
        """A request begins in this thread."""
        with self._lock:
            self._until[threading.get_ident()] = now + self.seconds
            self._set(now)

    def end(self, now: float) -> None:
        """The request of this thread is over."""
        with self._lock:
            self._until.pop(threading.get_ident(), None)
            self._set(now)

    def _set(self, now: float) -> None:
        """The watchdog has one clock: it is set to the request that has to end first."""
        if self._until:
            self._arm(max(min(self._until.values()) - now, 0.001))
        else:
            self._disarm()


def _arm(seconds: float) -> None:
    faulthandler.dump_traceback_later(seconds, exit=True, file=sys.__stderr__ or 2)


deadline = Deadline(SECONDS, _arm, faulthandler.cancel_dump_traceback_later)


class DeadlineMiddleware:
    """Watches every request from its first line to its answer."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, within the time that a request may take."""
        deadline.begin(time.monotonic())
        try:
            return self.get_response(request)
        finally:
            deadline.end(time.monotonic())
