"""Nobody stalls the others: a few requests of one browser at a time, and the rest is refused in words."""

import threading
import time

import pytest
from django.http import HttpResponse
from django.test import RequestFactory

from lanes.allowance import Allowances
from lanes.turns import whose
from server.common import fair
from server.common.fair import Gate
from server.common.problems import TooMany
from tests.server import rooms


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


def test_all_browsers_of_a_person_are_counted_together_once_it_is_known_who_it_is(monkeypatch):
    seen = []

    def view(request):
        seen.append(whose())
        fair.is_person(request, "user 5")
        seen.append(whose())
        return HttpResponse("here")

    for cookie in ("desk", "phone", "desk", "phone"):
        request = RequestFactory().get("/api/sheets")
        request.COOKIES = {"uchuu_session": cookie}
        fair.one_after_the_other(view)(request)
    assert seen == ["desk", "user 5", "phone", "user 5", *["user 5"] * 4]
    assert whose() == ""


def test_of_those_who_are_known_the_oldest_are_forgotten(monkeypatch):
    monkeypatch.setattr(fair, "_PERSONS", type(fair._PERSONS)())
    monkeypatch.setattr(fair, "_MOST_KNOWN", 2)
    for k in range(3):
        request = RequestFactory().get("/api/sheets")
        request.COOKIES = {"uchuu_session": f"cookie {k}"}
        fair.is_person(request, f"user {k}")
    assert list(fair._PERSONS) == ["cookie 1", "cookie 2"]


def test_who_is_logged_in_and_who_is_in_a_room_are_known(api, given):
    api.get("/api/sheets")
    assert fair._PERSONS[api.client.cookies["uchuu_session"].value].startswith("user ")
    student, _ = rooms.inside(api, given)
    student.get("/api/room")
    assert fair._PERSONS[student.client.cookies["uchuu_room"].value].startswith("student ")


def test_who_has_had_all_the_work_for_now_waits_and_is_answered(monkeypatch):
    waited = []
    mine = Allowances(student=5, other=5)
    monkeypatch.setattr(fair, "allowances", mine)
    monkeypatch.setattr(fair, "sleep", waited.append)

    def view(_):
        until = time.thread_time() + 0.03
        while time.thread_time() < until:
            pass
        return HttpResponse("here")

    request = RequestFactory().get("/api/sheets")
    request.COOKIES = {"uchuu_session": "eager"}
    assert fair.one_after_the_other(view)(request).content == b"here"
    assert waited == []
    assert 4.5 < mine._left["eager"][0] < 5 - fair.WITH_DATABASE * 0.03 - fair.EACH
    mine.used("eager", 5)
    assert fair.one_after_the_other(view)(request).content == b"here"
    mine.used("eager", 50)
    fair.one_after_the_other(view)(request)
    assert [each > 0 for each in waited] == [True, True] and waited[-1] == fair.SLOWEST


def test_a_refusal_for_asking_too_much_takes_a_moment(monkeypatch):
    waited = []
    monkeypatch.setattr(fair, "sleep", waited.append)
    request = RequestFactory().get("/api/sheets")
    request.COOKIES = {"uchuu_session": "eager"}
    for status in (200, 400, 429):
        fair.one_after_the_other(lambda _, status=status: HttpResponse("here", status=status))(request)
    assert waited == [fair.REFUSED]
