"""Nobody stalls the others: a few requests of one browser at a time, and the rest is refused in words."""

import threading
import time

import pytest
from django.http import HttpResponse
from django.test import RequestFactory

from lanes.turns import whose
from server.common import fair
from server.common.fair import Gate
from server.common.problems import TooMany


class Inside:
    """So many who are at work until they are let out."""

    def __init__(self, gate):
        self.gate, self.go_on, self.inside, self.refused = gate, threading.Event(), [], []
        self.threads = []

    def enter(self, who, seconds=20.0):
        thread = threading.Thread(target=self._work, args=(who, seconds))
        thread.start()
        self.threads.append(thread)

    def _work(self, who, seconds):
        try:
            with self.gate.through(who, seconds):
                self.inside.append(who)
                self.go_on.wait(20)
        except TooMany:
            self.refused.append(who)

    def until(self, condition):
        while not condition():
            time.sleep(0.001)

    def leave(self):
        self.go_on.set()
        for thread in self.threads:
            thread.join()


def test_a_few_are_at_work_a_few_wait_and_the_rest_is_refused_at_once():
    gate = Gate(at_work=2, waiting=1)
    room = Inside(gate)
    room.enter("greedy")
    room.enter("greedy")
    room.until(lambda: len(room.inside) == 2)
    room.enter("greedy")
    room.until(lambda: gate._wait.get("greedy") == 1)
    with pytest.raises(TooMany, match="at once"), gate.through("greedy", 20):
        pass
    with gate.through("ada", 0):
        assert room.inside == ["greedy", "greedy"]  # the others are let in meanwhile
    room.leave()
    assert (room.inside, room.refused) == (["greedy"] * 3, [])
    assert (gate._in, gate._wait) == ({}, {})


def test_who_waits_too_long_is_refused():
    gate = Gate(at_work=1, waiting=5)
    room = Inside(gate)
    room.enter("ada")
    room.until(lambda: room.inside)
    with pytest.raises(TooMany), gate.through("ada", 0.01):
        pass
    room.leave()
    assert gate._wait == {}


def test_what_fails_inside_is_let_out():
    gate = Gate(at_work=1, waiting=0)
    for _ in range(2):
        with pytest.raises(ValueError, match="no"), gate.through("ada", 0):
            raise ValueError("no")


@pytest.mark.parametrize(
    ("path", "cookies", "asks", "is_refused"),
    [
        ("/api/sheets", {"uchuu_session": "abc"}, "abc", True),
        ("/api/room", {"uchuu_room": "xyz"}, "xyz", True),
        ("/sheets/1", {"uchuu_session": "abc"}, "abc", False),
        ("/api/room/come-in", {}, "address 127.0.0.1", False),
    ],
)
def test_who_asks_is_told_by_the_cookie_and_a_class_at_the_door_is_not_counted(
    monkeypatch, path, cookies, asks, is_refused
):
    request = RequestFactory().get(path)
    request.COOKIES = cookies
    seen = []

    def view(_):
        seen.append(whose())
        return HttpResponse("here")

    assert fair.one_after_the_other(view)(request).content == b"here"
    assert seen == [asks]
    monkeypatch.setattr(fair, "gate", Gate(at_work=0, waiting=0))
    answer = fair.one_after_the_other(view)(request)
    assert (answer.status_code == 429) is is_refused
    assert len(seen) == (1 if is_refused else 2)
