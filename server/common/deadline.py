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
TICK_SECONDS = 1.0


class Deadline:
    """Ends the process when one of the requests that are under way takes longer than `seconds`.

    The watchdog is set by the first request after a silence, and from then on once a second: setting it starts a
    thread, which costs more than a short answer.
    """

    def __init__(self, seconds: float, arm: Callable[[float], None], disarm: Callable[[], None]) -> None:
        self.seconds = seconds
        self._arm, self._disarm = arm, disarm
        self._lock = threading.Lock()
        self._until: dict[int, float] = {}
        self._armed = False
        self._watched = False

    def begin(self, now: float) -> None:
        """A request begins in this thread."""
        with self._lock:
            self._until[threading.get_ident()] = now + self.seconds
            if not self._armed:
                self._set(now)

    def end(self) -> None:
        """The request of this thread is over."""
        with self._lock:
            self._until.pop(threading.get_ident(), None)

    def tick(self, now: float) -> None:
        """Sets the watchdog, which has one clock, to the request that has to end first."""
        with self._lock:
            self._set(now)

    def _set(self, now: float) -> None:
        if self._until:
            self._arm(max(min(self._until.values()) - now, 0.001))
        elif self._armed:
            self._disarm()
        self._armed = bool(self._until)

    def watch(self) -> None:
        """Ticks from now on, in a thread of its own; once, however often that is wished."""
        with self._lock:
            if self._watched:
                return
            self._watched = True
        threading.Thread(target=self._tick_on, name="deadline", daemon=True).start()

    def _tick_on(self) -> None:
        while True:
            time.sleep(TICK_SECONDS)
            self.tick(time.monotonic())


def _arm(seconds: float) -> None:
    faulthandler.dump_traceback_later(seconds, exit=True, file=sys.__stderr__ or 2)


deadline = Deadline(SECONDS, _arm, faulthandler.cancel_dump_traceback_later)


class DeadlineMiddleware:
    """Watches every request from its first line to its answer."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response
        deadline.watch()

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """The answer, within the time that a request may take."""
        deadline.begin(time.monotonic())
        try:
            return self.get_response(request)
        finally:
            deadline.end()
