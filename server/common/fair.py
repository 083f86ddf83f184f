"""So that nobody stalls the others: of one browser only a few requests are at work at once in a process, a few more
wait, and the rest is refused at once with a sentence.

A browser itself opens six connections at most. Who asks a question of the core is told to the lanes, where each person
waits for the person's own questions.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from time import sleep, thread_time

from django.http import HttpRequest, HttpResponse, JsonResponse

from lanes.allowance import allowances
from lanes.turns import asked_by, known_as, whose
from server.common.addresses import address_of
from server.common.problems import TooMany

AT_WORK, WAITING, LONGEST_WAIT = 4, 6, 15.0
"""Requests of one browser that are at work at once, those that may wait, and for how many seconds."""
SLOWEST = 2.0
"""For how many seconds a request waits at most, of who has had all the work that one person may have for now. It is
answered then: what was written is not lost."""
WITH_DATABASE, EACH = 2.0, 0.004
"""What a request costs in all: the database does about as much for it as the server, and taking it in and sending the
answer some milliseconds."""
REFUSED = 1.0
"""After how many seconds it is said that too much was asked."""
_COOKIES = ("uchuu_session", "uchuu_room")
Middleware = Callable[[HttpRequest], HttpResponse]


class Gate:
    """Lets so many of each in at once, and has a few more wait."""

    def __init__(self, at_work: int, waiting: int) -> None:
        self.at_work, self.waiting = at_work, waiting
        self._changed = threading.Condition()
        self._in: dict[str, int] = {}
        self._wait: dict[str, int] = {}

    @contextmanager
    def through(self, who: str, seconds: float) -> Iterator[None]:
        """In here one is at work. Raises TooMany where too many wait already, or it takes too long."""
        with self._changed:
            if self._in.get(who, 0) >= self.at_work:
                self._queue(who, seconds)
            self._in[who] = self._in.get(who, 0) + 1
        try:
            yield
        finally:
            with self._changed:
                _less(self._in, who)
                self._changed.notify_all()

    def _queue(self, who: str, seconds: float) -> None:
        if self._wait.get(who, 0) >= self.waiting:
            raise _too_many()
        self._wait[who] = self._wait.get(who, 0) + 1
        try:
            if not self._changed.wait_for(lambda: self._in.get(who, 0) < self.at_work, seconds):
                raise _too_many()
        finally:
            _less(self._wait, who)


def _less(counts: dict[str, int], who: str) -> None:
    left = counts.get(who, 1) - 1
    if left > 0:
        counts[who] = left
    else:
        counts.pop(who, None)


def _at_its_pace(request: HttpRequest, who: str, get_response: Middleware) -> HttpResponse:
    """The answer; sooner or later, as who asks has work left. What the request uses is counted for who asks."""
    if wait := allowances.wait(who):
        sleep(min(wait, SLOWEST))
    began = thread_time()
    try:
        answer = get_response(request)
    finally:
        allowances.used(whose(), WITH_DATABASE * (thread_time() - began) + EACH)
    if answer.status_code == TooMany.status:
        sleep(REFUSED)  # who asks again at once is not answered at once
    return answer


_PERSONS: OrderedDict[str, str] = OrderedDict()
_MOST_KNOWN = 20_000


def is_person(request: HttpRequest, person: str) -> None:
    """Notes who it is that has this cookie: from now on all of a person's browsers are counted together. Said wherever
    somebody is known by a session or as a student."""
    known_as(person)
    cookie = _cookie_of(request)
    if cookie:
        _PERSONS[cookie] = person
        _PERSONS.move_to_end(cookie)
        while len(_PERSONS) > _MOST_KNOWN:
            _PERSONS.popitem(last=False)


def _cookie_of(request: HttpRequest) -> str:
    return next((request.COOKIES[name] for name in _COOKIES if request.COOKIES.get(name)), "")


def _too_many() -> TooMany:
    return TooMany("Too much is asked from here at once. Try again in a moment.", code="at-once", seconds=2)


gate = Gate(AT_WORK, WAITING)


def one_after_the_other(get_response: Middleware) -> Middleware:
    """Middleware: requests of the API pass through the gate, counted by who asks, as far as
    the cookie tells. Who has none yet, a
    class at the door, is counted by nothing."""

    def middleware(request: HttpRequest) -> HttpResponse:
        cookie = _cookie_of(request)
        who = _PERSONS.get(cookie, cookie)
        with asked_by(who or f"address {address_of(request)}"):
            if not who or not request.path.startswith("/api/"):
                return get_response(request)
            try:
                with gate.through(who, LONGEST_WAIT):
                    return _at_its_pace(request, who, get_response)
            except TooMany as problem:
                return JsonResponse(problem.to_json(), status=problem.status)

    return middleware
