"""`./uchuu bench --room`: practice rooms under load. Classes of 35 write at once, each student a line every 20 seconds, each teacher looks every second.

Traffic goes to loopback, bounded in count and time.
"""

from __future__ import annotations

import heapq
import os
import random
import statistics
import threading
import time
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from http.cookiejar import CookieJar
from typing import Any

from tools.installation import manage
from tools.loopback import ask
from tools.postgres import free_port, throwaway_cluster
from tools.start import gunicorn, wait_until_up
from tools.testing import settings_env

STUDENTS, LINE_SECONDS, LOOK_SECONDS, HANDS = 35, 20.0, 1.0, 48
PASSWORD = "lantern-quay"
LINES = ["3x + 7 - 7 = 22 - 7", "3x = 15", "x = 15/3", "x = 5"]
WRONG = ["3x = 22 + 7", "3x = 29", "x = 29/3"]


@dataclass
class Hand:
    """Somebody at a browser."""

    base: str
    jar: CookieJar = field(default_factory=CookieJar)

    def __post_init__(self) -> None:
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def ask(self, path: str, body: object = None, method: str | None = None) -> Any:
        """What is answered."""
        return ask(self.opener, self.jar, self.base + path, body, method)


@dataclass
class Student(Hand):
    """A student who writes one line after the other, then begins anew."""

    items: list[int] = field(default_factory=list)
    lines: list[str] = field(default_factory=list)
    revision: int = 0
    wrong: bool = False

    def write(self) -> float:
        """One more line; the milliseconds until it was answered."""
        wanted = WRONG if self.wrong else LINES
        self.lines = wanted[: len(self.lines) % len(wanted) + 1]
        began = time.perf_counter()
        found = self.ask(f"/api/room/items/{self.items[0]}", {"revision": self.revision, "lines": self.lines}, "PUT")
        took = (time.perf_counter() - began) * 1000
        self.revision = int(found["items"][0]["working"]["revision"])
        return took


def table(rooms: int, seconds: float) -> str:
    """Fills a database with that many classes, lets them write, and tells how long lines and looks took."""
    with throwaway_cluster() as cluster:
        url = cluster.url("rooms")
        os.environ.update(settings_env(url) | {"UCHUU_POOL": "1", "UCHUU_HEAVY_A_MINUTE": "100000"})
        os.environ.pop("UCHUU_LANES", None)
        manage("upgrade")
        manage("district", "--teachers", str(rooms), "--lines", "100", "--verbosity", "0")
        port = free_port()
        process = gunicorn(port, url, cluster.folder)
        try:
            if not wait_until_up(port, process):
                raise RuntimeError("the server did not come up")
            return _measured(f"http://127.0.0.1:{port}", rooms, seconds)
        finally:
            process.terminate()
            process.wait(timeout=15)


def _measured(base: str, rooms: int, seconds: float) -> str:
    teachers: list[tuple[Hand, int]] = []
    students: list[Student] = []
    for k in range(rooms):
        teacher, set_id, code = _opened(base, k)
        teachers.append((teacher, set_id))
        with ThreadPoolExecutor(8) as pool:
            students += pool.map(lambda j, code=code: _inside(base, code, j), range(STUDENTS))
    lines, looks, seen, errors = _run(teachers, students, seconds)
    rows = ["| what | asked | median ms | 95th percentile ms | slowest ms |", "|---|--:|--:|--:|--:|"]
    for name, found in (("a student's line", lines), ("a teacher's look", looks)):
        found.sort()
        rows.append(
            f"| {name} | {len(found)} | {statistics.median(found):.0f} | {found[int(len(found) * 0.95)]:.0f} | {found[-1]:.0f} |"
        )
    return (
        f"{rooms} rooms of {STUDENTS} students, a line each every {LINE_SECONDS:.0f} s, for {seconds:.0f} s: {len(errors)} errors; a line stood in the "
        f"teacher's view after {statistics.median(seen):.1f} s, {max(seen):.1f} s at most of {len(seen)} tries\n\n" + "\n".join(rows) + "".join(f"\n! {each}" for each in errors[:5]) + "\n"
    )  # fmt: skip


def _opened(base: str, k: int) -> tuple[Hand, int, str]:
    teacher = Hand(base)
    teacher.ask("/api/account/session")
    teacher.ask("/api/account/log-in", {"username": f"teacher{k}", "password": PASSWORD})
    sheet = teacher.ask("/api/sheets", {"title": "Room"})["id"]
    for given in ("3x + 7 = 22", "x^2 - 5x + 6 = 0", "2(x - 3) = 4x + 8"):
        teacher.ask(f"/api/sheets/{sheet}/problems", {"task": "solve", "given": given})
    names = [{"name": f"Student {j:02}"} for j in range(STUDENTS)]
    made = teacher.ask("/api/classes", {"name": "Room", "students": names})["id"]
    given_set = teacher.ask(f"/api/classes/{made}/sets", {"sheet": sheet, "day": "2026-03-05"})["id"]
    return teacher, given_set, teacher.ask(f"/api/sets/{given_set}/room", {"tells": "cue"})["code"]


def _inside(base: str, code: str, j: int) -> Student:
    student = Student(base, wrong=j % 3 == 0)
    student.ask("/api/account/session")
    found = student.ask("/api/room/come-in", {"code": code, "name": f"Student {j:02}", "secret": "river7"})
    student.items = [item["id"] for item in found["items"]]
    return student


def _run(
    teachers: list[tuple[Hand, int]], students: list[Student], seconds: float
) -> tuple[list[float], list[float], list[float], list[str]]:
    """Everybody at their own pace, by a few hands: milliseconds of lines and of looks, seconds until a line was seen, and what went wrong."""
    lines: list[float] = []
    looks: list[float] = []
    errors: list[str] = []
    versions: dict[int, int] = {}
    lock = threading.Lock()
    begun = time.monotonic()
    # when, in which order, a student's or a teacher's, which
    due = [(begun + random.uniform(0, LINE_SECONDS), k, True, k) for k in range(1, len(students))]
    due += [(begun + random.uniform(0, LOOK_SECONDS), len(students) + k, False, k) for k in range(len(teachers))]
    heapq.heapify(due)

    def look(k: int) -> int:
        teacher, set_id = teachers[k]
        began = time.perf_counter()
        found = teacher.ask(f"/api/sets/{set_id}/room?since={versions.get(k, -1)}")
        looks.append((time.perf_counter() - began) * 1000)
        versions[k] = int(found["version"])
        return versions[k]

    def hand() -> None:
        while True:
            with lock:
                if not due or due[0][0] > begun + seconds:
                    return
                when, order, writes, k = heapq.heappop(due)
            time.sleep(max(0.0, when - time.monotonic()))
            try:
                if writes:
                    lines.append(students[k].write())
                else:
                    look(k)
            except Exception as problem:  # whatever it is, it is counted
                errors.append(repr(problem)[:200])
            with lock:
                heapq.heappush(due, (when + (LINE_SECONDS if writes else LOOK_SECONDS), order, writes, k))

    threads = [threading.Thread(target=hand) for _ in range(HANDS)]
    for thread in threads:
        thread.start()
    seen = _seen(students[0], *teachers[0], begun + seconds)
    for thread in threads:
        thread.join()
    return lines, looks, seen, errors


def _seen(student: Student, teacher: Hand, set_id: int, until: float) -> list[float]:
    """Seconds from a student's Enter until a screen that looks each second shows the line: written now and then by one student of the first room."""
    found = []
    name = "Student 00"
    while time.monotonic() < until:
        began = time.monotonic()
        student.write()
        while True:
            time.sleep(random.uniform(0, LOOK_SECONDS) if time.monotonic() - began < 0.1 else LOOK_SECONDS)
            seats = teacher.ask(f"/api/sets/{set_id}/room")["seats"]
            cells = next(seat["cells"] for seat in seats if seat["name"] == name)
            if cells and len(cells[0]["beads"]) == len(student.lines):
                break
        found.append(time.monotonic() - began)
        time.sleep(3)
    return found
