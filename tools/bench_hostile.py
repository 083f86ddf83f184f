"""`./uchuu bench --hostile`: what others feel of one who asks as much as can be asked."""

from __future__ import annotations

import os
import statistics
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from urllib.error import URLError

from tools.faults import UNBOUNDED
from tools.installation import manage
from tools.loopback import Hand, Student
from tools.postgres import free_port, throwaway_cluster
from tools.start import gunicorn, wait_until_up
from tools.testing import settings_env

TEACHERS, PASSWORD = 8, "lantern-quay"
PAUSE = 0.8
"""Seconds between two questions of a teacher who works."""
HEAVY = ("2x^2 - 6x = 0", "(x+1)/(x-4) + 3/(x+2) = 5/(x^2-2x-8)", "√(2x+3) + √(x+1) = 7", "x^4 - 13x^2 + 36 = 0")


def table(seconds: float) -> str:
    """The milliseconds of teachers who work: alone, beside a teacher on eight connections, and beside a student on
    ten."""
    with throwaway_cluster() as cluster:
        url = cluster.url("hostile")
        os.environ.update(settings_env(url) | {"UCHUU_POOL": "1"})
        for name in ("UCHUU_LANES", *UNBOUNDED):
            os.environ.pop(name, None)
        manage("upgrade")
        manage("district", "--teachers", str(TEACHERS + 1), "--lines", "100", "--verbosity", "0")
        port = free_port()
        process = gunicorn(port, url, cluster.folder)
        try:
            if not wait_until_up(port, process):
                raise RuntimeError("the server did not come up")
            return _measured(f"http://127.0.0.1:{port}", seconds)
        finally:
            process.terminate()
            process.wait(timeout=15)


def _measured(base: str, seconds: float) -> str:
    teachers = [_at_work(base, k) for k in range(TEACHERS)]
    bad_teacher, problem = _at_work(base, TEACHERS)
    bad_student = _student(base, bad_teacher)

    def as_teacher(k: int) -> None:
        path = ("anticipate", "methods")[k % 2]
        bad_teacher.ask(f"/api/problems/{problem}/{path}")

    def as_student(k: int) -> None:
        lines = [f"{k % 97}x + {k} = {HEAVY[k % len(HEAVY)].partition('=')[2]}", HEAVY[k % len(HEAVY)]]
        bad_student.ask(f"/api/room/items/{bad_student.items[0]}", {"revision": k, "lines": lines}, "PUT")

    rows = [
        "| beside | asked | median ms | 95th percentile ms | slowest ms | errors | asked by the hostile one |",
        "|---|--:|--:|--:|--:|--:|--:|",
    ]
    for name, act, connections in (
        ("nobody", None, 0),
        ("a teacher on eight connections", as_teacher, 8),
        ("a student on ten connections", as_student, 10),
    ):
        took, errors, hostile = _run(teachers, seconds, act, connections)
        spread = statistics.quantiles(took, n=20)
        rows.append(
            f"| {name} | {len(took)} | {statistics.median(took):.0f} | {spread[-1]:.0f} | {max(took):.0f} "
            f"| {errors} | {hostile} |"
        )
    return "\n".join(rows)


def _at_work(base: str, k: int) -> tuple[Hand, int]:
    teacher = Hand(base)
    teacher.ask("/api/account/session")
    teacher.ask("/api/account/log-in", {"username": f"teacher{k}", "password": PASSWORD})
    sheet = teacher.ask("/api/sheets", {"title": "Work"})["id"]
    made = [teacher.ask(f"/api/sheets/{sheet}/problems", {"task": "solve", "given": given}) for given in HEAVY]
    return teacher, int(made[k % len(made)]["id"])


def _student(base: str, teacher: Hand) -> Student:
    sheet = teacher.ask("/api/sheets", {"title": "Room"})["id"]
    teacher.ask(f"/api/sheets/{sheet}/problems", {"task": "solve", "given": HEAVY[1]})
    made = teacher.ask("/api/classes", {"name": "Room", "students": [{"name": "Ada Quill"}]})["id"]
    given_set = teacher.ask(f"/api/classes/{made}/sets", {"sheet": sheet, "day": "2026-03-05"})["id"]
    code = teacher.ask(f"/api/sets/{given_set}/room", {"tells": "cue"})["code"]
    student = Student(base)
    student.ask("/api/account/session")
    come = {"code": code, "name": "Ada Quill", "secret": "river7"}
    student.items = [item["id"] for item in student.ask("/api/room/come-in", come)["room"]["items"]]
    return student


def _run(
    teachers: list[tuple[Hand, int]], seconds: float, hostile: Callable[[int], None] | None, connections: int
) -> tuple[list[float], int, int]:
    """What the teachers' questions took, how many of them failed, and how many the hostile one asked."""
    took: list[float] = []
    errors: list[str] = []
    asked: list[int] = []
    until = time.monotonic() + seconds

    def work(k: int) -> None:
        teacher, problem = teachers[k]
        time.sleep(PAUSE * k / len(teachers))
        count = 0
        while time.monotonic() < until:
            count += 1
            lines = [f"{count}x = {3 * count + k}", f"x = {(3 * count + k)}/{count}"]
            began = time.perf_counter()
            try:
                # a line, and now and then what one looks at beside it
                if count % 4:
                    teacher.ask("/api/check", {"task": "solve", "given": lines[0], "lines": lines})
                else:
                    teacher.ask(f"/api/problems/{problem}/methods")
                took.append((time.perf_counter() - began) * 1000)
            except URLError as problem_of:
                errors.append(repr(problem_of))
            time.sleep(PAUSE)

    def disturb(first: int) -> None:
        k = first
        while time.monotonic() < until:
            k += connections
            with suppress(OSError):
                asked.append(k)
                assert hostile is not None
                hostile(k)

    threads = [threading.Thread(target=work, args=(k,)) for k in range(len(teachers))]
    threads += [threading.Thread(target=disturb, args=(k,)) for k in range(connections)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return took, len(errors), len(asked)
