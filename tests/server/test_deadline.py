"""The outer bound of a request: the watchdog is set to whichever has to end first, and ends a process that holds the
lock."""

import subprocess
import sys
from threading import Thread, active_count

import pytest

from server.common import deadline as module
from server.common.deadline import Deadline


class Clock:
    """A watchdog that only notes what it is told."""

    def __init__(self):
        self.told = []
        self.deadline = Deadline(10.0, self.told.append, lambda: self.told.append(None))


def elsewhere(work, *arguments):
    """Does the work in another thread, to its end."""
    thread = Thread(target=work, args=arguments)
    thread.start()
    thread.join()


def test_the_first_request_arms_and_a_silence_disarms():
    clock = Clock()
    clock.deadline.begin(100.0)
    clock.deadline.end()
    assert clock.told == [10.0]
    clock.deadline.tick(103.0)
    clock.deadline.tick(104.0)
    assert clock.told == [10.0, None]
    clock.deadline.begin(200.0)
    assert clock.told == [10.0, None, 10.0]


def test_of_two_requests_the_one_that_began_first_counts():
    clock = Clock()
    clock.deadline.begin(100.0)
    elsewhere(clock.deadline.begin, 104.0)
    assert clock.told == [10.0]  # it is set to the first already
    clock.deadline.tick(104.5)
    clock.deadline.end()
    clock.deadline.tick(105.0)
    assert clock.told == [10.0, 5.5, 9.0]  # the other one has until 114


def test_what_is_late_already_is_ended_at_once():
    clock = Clock()
    elsewhere(clock.deadline.begin, 100.0)
    clock.deadline.tick(120.0)
    assert clock.told[-1] == pytest.approx(0.001)


def test_the_end_of_what_never_began_changes_nothing():
    clock = Clock()
    clock.deadline.end()
    clock.deadline.tick(1.0)
    assert clock.told == []


def test_however_many_handlers_there_are_one_thread_watches():
    clock = Clock()
    before = active_count()
    for _ in range(5):
        clock.deadline.watch()
    assert active_count() == before + 1


def test_a_process_that_computes_without_end_is_ended():
    program = """
from server.common.deadline import Deadline, _arm
Deadline(0.3, _arm, lambda: None).begin(0.0)
sum(iter(int, 1))  # never ends, and never lets another thread in for long
"""
    found = subprocess.run([sys.executable, "-c", program], capture_output=True, timeout=60, check=False)
    assert found.returncode == 1
    assert b"Timeout" in found.stderr


@pytest.mark.django_db
def test_every_request_is_watched(client, monkeypatch):
    clock = Clock()
    monkeypatch.setattr(module, "deadline", clock.deadline)
    assert client.get("/api/account/session").status_code == 200
    assert clock.told == [pytest.approx(10.0)]
    clock.deadline.tick(0.0)
    assert clock.told[-1] is None  # and it is over
