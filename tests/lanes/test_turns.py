"""Whose turn it is, and what a question may use: fair to persons, and the same on a busy machine."""

import subprocess
import sys
import threading
import time

import pytest

from lanes import pool as pools
from lanes.pool import Pool, TooHeavy
from lanes.turns import Turns, asked_by, known_as, seconds_of, whose


class Line:
    """Persons who wait in threads of their own; what each got, in order."""

    def __init__(self, turns):
        self.turns, self.served, self.threads = turns, [], []

    def wait(self, person, seconds=20.0):
        before = self.waiting()
        thread = threading.Thread(target=self._take, args=(person, seconds))
        thread.start()
        self.threads.append(thread)
        while thread.is_alive() and self.waiting() == before and person not in self.served[-1:]:
            time.sleep(0.001)

    def waiting(self):
        return sum(len(tickets) for tickets in self.turns._waiting.values())

    def _take(self, person, seconds):
        if self.turns.take(person, seconds) is not None:
            self.served.append(person)

    def give(self, person):
        """One is given back by a person, and the next is served."""
        count = len(self.served)
        self.turns.give_back(person, "thing")
        while self.waiting() and len(self.served) == count:
            time.sleep(0.001)

    def end(self):
        for thread in self.threads:
            thread.join()


def test_of_those_who_wait_each_person_comes_after_the_other():
    turns = Turns(most_each=1)
    turns.add("thing")
    assert turns.take("first", 1) == "thing"
    line = Line(turns)
    for person in ("greedy", "greedy", "greedy", "ada", "bo"):
        line.wait(person)
    for giver in ("first", "greedy", "ada", "bo", "greedy"):
        line.give(giver)
    line.end()
    assert line.served == ["greedy", "ada", "bo", "greedy", "greedy"]


def test_nobody_has_more_than_a_share_at_work_though_things_are_free():
    turns = Turns(most_each=2)
    for _ in range(4):
        turns.add("thing")
    assert [turns.take("greedy", 0.01) for _ in range(3)] == ["thing", "thing", None]
    assert turns.take("ada", 0.01) == "thing"
    turns.give_back("greedy", "thing")
    assert turns.take("greedy", 0.01) == "thing"


def test_without_a_name_nobody_is_counted_together_with_others():
    turns = Turns(most_each=1)
    for _ in range(3):
        turns.add("thing")
    assert [turns.take("", 0.01) for _ in range(4)] == ["thing", "thing", "thing", None]


def test_who_has_waited_in_vain_is_forgotten():
    turns = Turns(most_each=1)
    assert turns.take("ada", 0.01) is None
    turns.add("thing")
    assert (turns.take("bo", 0.01), turns._waiting) == ("thing", {})


def test_what_is_lent_comes_back_though_it_fails():
    turns = Turns(most_each=1)
    turns.add("thing")
    with pytest.raises(ValueError, match="no"), turns.lent("ada", 1):
        raise ValueError("no")
    with turns.lent("ada", 1) as thing, turns.lent("bo", 0.01) as none:
        assert (thing, none) == ("thing", None)


def test_who_asks_is_known_inside_and_nobody_outside():
    with asked_by("ada"):
        assert whose() == "ada"
    assert whose() == ""


class TestProcessorTime:
    def test_it_is_that_of_the_process_and_not_of_the_clock(self):
        sleeping = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(30)"])
        busy = subprocess.Popen([sys.executable, "-c", "while True: pass"])
        try:
            before = seconds_of(busy.pid)
            while seconds_of(busy.pid) - before < 0.3:
                time.sleep(0.01)
            assert seconds_of(sleeping.pid) < 0.3
        finally:
            for each in (sleeping, busy):
                each.kill()
                each.wait()
        with pytest.raises(OSError, match=r"\["):
            seconds_of(busy.pid)

    def test_a_question_that_only_waits_has_not_used_its_budget(self, monkeypatch):
        """As on a machine on which others compute: by the clock it is long over, by its own work it is not."""
        monkeypatch.setattr(pools, "serve", _slowly)
        made = Pool(1, memory=500 * 2**20)
        try:
            made.ask("ready", seconds=20)  # a process that has begun
            assert made.ask("sleep", seconds=0.05) == "slept"
            monkeypatch.setattr(pools, "OUTER", 1.0)
            monkeypatch.setattr(pools, "OUTER_LEAST", 0.1)
            with pytest.raises(TooHeavy, match="too long"):
                made.ask("sleep", seconds=0.05)
            monkeypatch.undo()
            monkeypatch.setattr(pools, "serve", _slowly)
            made.ask("ready", seconds=20)
            with pytest.raises(TooHeavy, match="too long"):
                made.ask("burn", seconds=0.05)
        finally:
            made.close()


def _slowly(connection, memory, niceness):
    """A process that sleeps, or burns, before it answers."""
    while True:
        try:
            name, _, _ = connection.recv()
        except (EOFError, OSError):
            return
        if name == "sleep":
            time.sleep(0.6)
        until = time.process_time() + (60 if name == "burn" else 0)
        while time.process_time() < until:
            pass
        connection.send(("answer", "slept"))


def test_who_is_known_only_later_is_known_until_the_question_ends():
    known_as("user 5")
    assert whose() == ""
    with asked_by("a cookie"):
        known_as("user 5")
        assert whose() == "user 5"
    assert whose() == ""
