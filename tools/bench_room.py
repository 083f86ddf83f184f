"""`./uchuu bench --room`: practice rooms under load. Classes of 35 write at once, each student a line every 20 seconds;
halfway between two lines their screens look for news, each teacher's looks every second.

Traffic goes to loopback, bounded in count and time.
"""

from __future__ import annotations

import heapq
import os
import random
import statistics
import threading
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path

from tools.faults_machines import Proxy
from tools.installation import manage
from tools.loopback import Hand, Student
from tools.postgres import free_port, throwaway_cluster
from tools.start import gunicorn, wait_until_up
from tools.testing import settings_env

STUDENTS, LINE_SECONDS, LOOK_SECONDS, HANDS = 35, 20.0, 1.0, 48
PASSWORD = "lantern-quay"


def table(rooms: int, seconds: float, machines: int = 1) -> str:
    """Fills a database with that many classes, lets them write, and tells how long lines and looks took; with more than
    one machine there are as many servers, behind a proxy that gives each connection to the next."""
    with throwaway_cluster() as cluster:
        url = cluster.url("rooms")
        os.environ.update(settings_env(url) | {"UCHUU_POOL": "1", "UCHUU_HEAVY_A_MINUTE": "100000"})
        os.environ.pop("UCHUU_LANES", None)
        manage("upgrade")
        manage("district", "--teachers", str(rooms), "--lines", "100", "--verbosity", "0")
        ports = [free_port() for _ in range(machines)]
        servers = [gunicorn(port, url, cluster.folder) for port in ports]
        try:
            if not all(wait_until_up(port, server) for port, server in zip(ports, servers, strict=True)):
                raise RuntimeError("the server did not come up")
            base = f"http://127.0.0.1:{ports[0]}" if machines == 1 else Proxy(ports).base
            return _measured(base, rooms, seconds)
        finally:
            for server in servers:
                server.terminate()
            for server in servers:
                server.wait(timeout=15)


def _measured(base: str, rooms: int, seconds: float) -> str:
    teachers: list[tuple[Hand, int]] = []
    students: list[Student] = []
    for k in range(rooms):
        teacher, set_id, code = _opened(base, k)
        teachers.append((teacher, set_id))
        with ThreadPoolExecutor(8) as pool:
            students += pool.map(lambda j, code=code: _inside(base, code, j), range(STUDENTS))
    before = _processors()
    lines, news, looks, seen, errors = _run(teachers, students, seconds)
    rows = ["| what | asked | median ms | 95th percentile ms | slowest ms |", "|---|--:|--:|--:|--:|"]
    for name, found in (("a student's line", lines), ("a student's look", news), ("a teacher's look", looks)):
        found.sort()
        rows.append(
            f"| {name} | {len(found)} | {statistics.median(found):.0f} "
            f"| {found[int(len(found) * 0.95)]:.0f} | {found[-1]:.0f} |"
        )
    return (
        f"{_taken_away(before):.0%} of the processors' time was taken away from this machine meanwhile.\n\n"
        f"{rooms} rooms of {STUDENTS} students, a line each every {LINE_SECONDS:.0f} "
        f"s, for {seconds:.0f} s: {len(errors)} errors; a line stood in the "
        f"teacher's view after {statistics.median(seen):.1f} s, {max(seen):.1f} s at "
        f"most of {len(seen)} tries ({sum(each > 2 for each in seen)} over 2 s)\n\n"
        + "\n".join(rows)
        + "".join(f"\n! {each}" for each in errors[:5])
        + "\n"
    )


def _processors() -> list[int]:
    """The processors' time since the start, by what it went to."""
    return [int(each) for each in Path("/proc/stat").read_text(encoding="ascii").split("\n", 1)[0].split()[1:9]]


def _taken_away(before: list[int]) -> float:
    """The share of time in which the host of a virtual machine let others run: figures are of this machine only where
    it is small."""
    spent = [after - each for after, each in zip(_processors(), before, strict=True)]
    return spent[7] / max(sum(spent), 1)


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
    student = Student(base, number=j)
    student.ask("/api/account/session")
    found = student.ask("/api/room/come-in", {"code": code, "name": f"Student {j:02}", "secret": "river7"})
    student.items = [item["id"] for item in found["room"]["items"]]
    return student


def _run(
    teachers: list[tuple[Hand, int]], students: list[Student], seconds: float
) -> tuple[list[float], list[float], list[float], list[float], list[str]]:
    """Everybody at their own pace, by a few hands: milliseconds of lines and of looks, seconds until a line was seen,
    and what went wrong."""
    lines: list[float] = []
    news: list[float] = []
    looks: list[float] = []
    errors: list[str] = []
    versions: dict[int, int] = {}
    lock = threading.Lock()
    begun = time.monotonic()

    def write(student: Student) -> None:
        lines.append(student.write())

    def hear(student: Student) -> None:
        news.append(student.look())

    def look(k: int) -> None:
        teacher, set_id = teachers[k]
        began = time.perf_counter()
        found = teacher.ask(f"/api/sets/{set_id}/room?since={versions.get(k, -1)}")
        looks.append((time.perf_counter() - began) * 1000)
        versions[k] = int(found["version"])

    # when, a number of its own, after how many seconds again, what
    due: list[tuple[float, int, float, Callable[[], object]]] = []
    for k, student in enumerate(students[1:]):
        begins = begun + random.uniform(0, LINE_SECONDS)
        due.append((begins, 2 * k, LINE_SECONDS, partial(write, student)))
        due.append((begins + LINE_SECONDS / 2, 2 * k + 1, LINE_SECONDS, partial(hear, student)))
    for k in range(len(teachers)):
        begins = begun + random.uniform(0, LOOK_SECONDS)
        due.append((begins, -1 - k, LOOK_SECONDS, partial(look, k)))
    heapq.heapify(due)

    def hand() -> None:
        while True:
            with lock:
                if not due or due[0][0] > begun + seconds:
                    return
                when, order, pause, act = heapq.heappop(due)
            time.sleep(max(0.0, when - time.monotonic()))
            try:
                act()
            except Exception as problem:  # whatever it is, it is counted
                errors.append(repr(problem)[:200])
            with lock:
                heapq.heappush(due, (when + pause, order, pause, act))

    threads = [threading.Thread(target=hand) for _ in range(HANDS)]
    for thread in threads:
        thread.start()
    seen = _seen(students[0], *teachers[0], begun + seconds)
    for thread in threads:
        thread.join()
    return lines, news, looks, seen, errors


def _seen(student: Student, teacher: Hand, set_id: int, until: float) -> list[float]:
    """Seconds from a student's Enter until a screen that looks each second shows the line: written now and then by one
    student of the first room."""
    found = []
    name, version = "Student 00", -1
    while time.monotonic() < until:
        began = time.monotonic()
        student.write()
        time.sleep(random.uniform(0, LOOK_SECONDS))
        while True:
            room = teacher.ask(f"/api/sets/{set_id}/room?since={version}")
            version = room["version"]
            cells = [cell for seat in room["seats"] if seat["name"] == name for cell in seat["cells"]]
            if cells and len(cells[0]["beads"]) == len(student.lines):
                break
            time.sleep(LOOK_SECONDS)
        found.append(time.monotonic() - began)
        time.sleep(3)
    return found
