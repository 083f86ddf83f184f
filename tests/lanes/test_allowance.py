"""How much work one person may have done: so many processor seconds at once, so many more each minute."""

import pytest

from lanes import allowance, pool
from lanes.allowance import Allowances
from lanes.pool import Busy, Pool
from lanes.turns import asked_by


class Clock:
    def __init__(self):
        self.now = 100.0

    def __call__(self):
        return self.now


@pytest.fixture
def clock():
    return Clock()


@pytest.fixture
def allowances(clock):
    return Allowances(student=6, other=60, clock=clock)


def test_a_question_may_begin_as_long_as_something_is_left(allowances):
    allowances.used("user 1", 59.9)
    assert allowances.wait("user 1") == 0
    allowances.used("user 1", 5)
    assert allowances.wait("user 1") > 0


def test_it_fills_by_the_minute_and_no_higher_than_at_first(allowances, clock):
    allowances.used("user 1", 70)
    assert allowances.wait("user 1") == pytest.approx(13)  # the ten that are owed, and a twentieth of a minute's
    clock.now += 10.1
    assert allowances.wait("user 1") == 0
    clock.now += 1000
    allowances.used("user 1", 61)
    assert allowances.wait("user 1") > 0


def test_a_student_has_less_and_each_counts_alone(allowances):
    allowances.used("student 1", 6.1)
    allowances.used("user 1", 6.1)
    assert allowances.wait("student 1") > 0
    assert allowances.wait("student 2") == allowances.wait("user 1") == 0


def test_a_job_is_asked_by_nobody_and_always_may(allowances):
    allowances.used("", 1000)
    assert allowances.wait("") == 0


def test_of_two_processes_each_has_half(clock):
    half = Allowances(student=6, other=60, parts=2, clock=clock)
    half.used("user 1", 31)
    assert half.wait("user 1") > 0


def test_who_has_everything_again_is_forgotten(allowances, clock, monkeypatch):
    monkeypatch.setattr(allowance, "MOST_KNOWN", 3)
    for k in range(4):
        allowances.used(f"user {k}", 1)
        clock.now += 60
    assert set(allowances._left) == {"user 3"}


def test_what_a_question_has_used_is_counted_and_more_is_refused_in_words(monkeypatch, clock):
    mine = Allowances(student=0.000_001, other=60, clock=clock)
    monkeypatch.setattr(pool, "allowances", mine)
    asked = Pool(1, memory=500 * 2**20)
    try:
        with asked_by("student 1"):
            assert asked.ask("key_apart", "1) 2x = 4", {}, seconds=20)
            assert mine._left["student 1"][0] < 0
            with pytest.raises(Busy, match="than is worked out for one person in a minute"):
                asked.ask("key_apart", "1) 2x = 4", {}, seconds=20)
        with asked_by("student 2"):
            assert asked.ask("key_apart", "1) 2x = 4", {}, seconds=20)
    finally:
        asked.close()
