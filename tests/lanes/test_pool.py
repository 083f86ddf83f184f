"""Questions in processes that can be ended: what is too heavy is refused in a sentence, and the next question is
served."""

import os
import signal
import threading

import pytest

import lanes
from algebra import ReadingError, Report, TaskError, Unsolved, Working
from lanes.child import answered
from lanes.pool import ALL_BUSY, TOO_LARGE, TOO_LONG, Busy, Pool, TooHeavy

HEAVY = Working("simplify", " + ".join(f"1/(x+{k})" for k in range(1, 14)), ("1",))
"""A sum whose check takes many seconds."""
EASY = Working("solve", "2x = 4", ("x = 2",))
ROOM = 500 * 2**20


@pytest.fixture
def pool():
    made = Pool(1, memory=ROOM, patience=0.3)
    yield made
    made.close()


def process_of(pool):
    return pool._slots[0]._process.pid


def test_a_question_is_answered_as_the_core_answers(pool):
    found = pool.ask("check", EASY, seconds=20)
    assert isinstance(found, Report)
    assert found.answer.verdict == "correct"
    assert found.ms > 0
    assert pool.ask("work", Working("solve", "2x = 4"), seconds=20).answer == ("2",)


def test_what_takes_too_long_ends_its_process_and_the_next_is_served(pool):
    pool.ask("check", EASY, seconds=20)
    before = process_of(pool)
    with pytest.raises(TooHeavy, match="too long"):
        pool.ask("check", HEAVY, seconds=0.2)
    assert pool.ask("check", EASY, seconds=20).answer.verdict == "correct"
    assert process_of(pool) != before
    with pytest.raises(ProcessLookupError):
        os.kill(before, 0)


def test_what_takes_too_much_memory_is_refused():
    small = Pool(1, memory=8 * 2**20)
    try:
        with pytest.raises(TooHeavy) as problem:
            small.ask("check", HEAVY, seconds=60)
        assert problem.value.message == TOO_LARGE
        assert problem.value.code == "limit"
    finally:
        small.close()


def test_a_process_that_dies_is_replaced(pool):
    pool.ask("check", EASY, seconds=20)
    os.kill(process_of(pool), signal.SIGKILL)
    pool._slots[0]._process.join()
    assert pool.ask("check", EASY, seconds=20).answer.verdict == "correct"


def test_a_process_is_renewed_after_its_share_of_questions(pool, monkeypatch):
    monkeypatch.setattr("lanes.pool.QUESTIONS_EACH", 2)
    seen = []
    for _ in range(4):
        pool.ask("check", EASY, seconds=20)
        seen.append(process_of(pool))
    assert seen[0] == seen[1] != seen[2] == seen[3]


@pytest.mark.parametrize(
    ("name", "arguments", "error", "said"),
    [
        ("work", (Working("solve", "x = (3"),), ReadingError, "bracket"),
        ("work", (Working("solve", "x^5 - x = 1"),), Unsolved, "No method"),
        ("work", (Working("dance", "x"),), TaskError, "dance"),
        ("no such question", (), RuntimeError, "KeyError"),
    ],
)
@pytest.mark.parametrize("inline", [True, False])
def test_errors_come_through_as_they_were_raised(name, arguments, error, said, inline):
    asked = Pool(1, memory=ROOM, inline=inline)
    try:
        with pytest.raises(error, match=said) as problem:
            asked.ask(name, *arguments, seconds=20)
        if error is ReadingError:
            assert (problem.value.column, problem.value.code) == (7, "syntax")
    finally:
        asked.close()


def test_one_waits_for_a_free_process_only_so_long(pool):
    pool.ask("check", EASY, seconds=20)
    begun = threading.Event()

    def heavy():
        begun.set()
        with pytest.raises(TooHeavy):
            pool.ask("check", HEAVY, seconds=1.5)

    other = threading.Thread(target=heavy)
    other.start()
    begun.wait()
    while pool._turns._free:
        pass
    with pytest.raises(Busy) as problem:
        pool.ask("check", EASY, seconds=20)
    assert problem.value.message == ALL_BUSY
    other.join()


def test_memory_that_runs_out_inside_a_question_is_told():
    def greedy():
        raise MemoryError

    assert answered("greedy", (), {}, {"greedy": greedy}) == ("memory", None)


@pytest.fixture
def two_lanes(monkeypatch):
    made = {"light": Pool(1, memory=ROOM), "heavy": Pool(1, memory=ROOM)}
    for name, one in made.items():
        monkeypatch.setattr(lanes, name, one)
    yield made
    for one in made.values():
        one.close()


def test_what_is_too_heavy_for_the_light_lane_is_asked_again_in_the_heavy_one(two_lanes, monkeypatch):
    two_lanes["light"].ask("check", EASY, seconds=20)  # begun before the clock runs
    monkeypatch.setattr(lanes, "LIGHT_SECONDS", 0.0)
    monkeypatch.setattr(lanes, "HEAVY_SECONDS", 20.0)
    assert lanes.check(EASY).answer.verdict == "correct"


def test_a_check_that_is_too_heavy_says_so_in_its_report(two_lanes, monkeypatch):
    monkeypatch.setattr(lanes, "LIGHT_SECONDS", 0.05)
    monkeypatch.setattr(lanes, "HEAVY_SECONDS", 0.2)
    report = lanes.check(HEAVY)
    assert (report.error.message, report.error.code, report.links) == (TOO_LONG, "limit", ())


def test_the_others_answer_as_the_core_does(two_lanes, monkeypatch):
    monkeypatch.setattr(lanes, "HEAVY_SECONDS", 30.0)
    problem = Working("solve", "x^2 = 49")
    assert set(lanes.work(problem).answer) == {"7", "-7"}
    assert len(lanes.all_methods(problem)) > 1
    assert lanes.next_step(problem).step is not None
    foreseen = lanes.predict(problem)
    assert ["7"] in [item.answer for item in foreseen.wrong]
    assert sum(option.right for option in lanes.options(problem, found=foreseen)) == 1
    assert lanes.analysed("1/x").excluded == ("0",)
    assert not lanes.proofread("1. Work out.\n2 + 3 = 6").sound


def test_features_that_are_too_heavy_say_so(two_lanes, monkeypatch):
    def refuses(*_, **__):
        raise TooHeavy(TOO_LONG)

    monkeypatch.setattr(two_lanes["heavy"], "ask", refuses)
    assert lanes.analysed("1/x").error.message == TOO_LONG
