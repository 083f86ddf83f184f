"""The part of the fault runs that is about piles: a class set is verified by one worker and by two, while a teacher
writes, and while workers are killed."""

from __future__ import annotations

import os
import random
import statistics
import threading
import time
import urllib.request
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from tools.faults_jobs import PATIENCE, begin_worker, kill_worker, workers
from tools.installation import database_name
from tools.loopback import ask
from tools.postgres import Cluster

STUDENTS, ITEMS, KILLS = 30, 12, 20
WRITES_A_SECOND = 4


def pile(students: int = STUDENTS, items: int = ITEMS) -> str:
    """A made-up pile: six lines each, no two workings alike, a fifth of them wrong."""
    rows = []
    for k in range(students):
        rows.append(f"Student {k:02}")
        for j in range(items):
            a, b, x = 2 + j % 5, 3 + j, 2 + j % 7
            c = a * x + b
            wrong = (k + j) % 5 == 0
            top = c + b if wrong else c - b
            rows += [
                f"{j + 1}. {a}x + {b} + {k + 1} = {c} + {k + 1}",
                f"{a}x + {b} = {c}",
                f"{a}x = {c} {'+' if wrong else '-'} {b}",
                f"{a}x = {top}",
                f"x = {top}/{a}",
                f"x = {top}/{a} + {k} - {k}",
            ]
    return "\n".join(rows)


def run(
    base: str, home: Path, opener: urllib.request.OpenerDirector, jar: CookieJar, problem: int
) -> tuple[list[str], bool]:
    """Lines that tell how it went, and whether all was as it should be."""
    cluster = Cluster(home / "pg")
    cluster.start()  # joins the one that runs
    url = cluster.url(database_name(home))

    def asked(path: str, body: object = None, method: str | None = None) -> Any:
        return ask(opener, jar, f"{base}/api{path}", body, method)

    sheet = asked("/sheets", {"title": "Pile"})["id"]
    for j in range(ITEMS):
        a, b, x = 2 + j % 5, 3 + j, 2 + j % 7
        asked(f"/sheets/{sheet}/problems", {"task": "solve", "given": f"{a}x + {b} = {a * x + b}"})
    school_class = asked(
        "/classes", {"name": "Pile", "students": [{"name": f"Student {k:02}"} for k in range(STUDENTS)]}
    )["id"]
    told = [
        "",
        f"| {STUDENTS} papers of {ITEMS} items, six lines each | seconds | p95 of a line meanwhile, ms |",
        "|---|--:|--:|",
    ]
    results = []
    cores = sorted(os.sched_getaffinity(0))
    for count in (1, 2):
        made = asked(f"/classes/{school_class}/sets", {"sheet": sheet, "day": "2026-03-05"})["id"]
        with workers(url, home, count, cores[:count]):
            time.sleep(2)
            began = time.monotonic()
            asked(f"/sets/{made}/taken", {"text": pile()})
            lines = _Lines(base, opener, jar, problem)
            results.append(_until_done(asked, made))
            seconds = time.monotonic() - began
            told.append(
                f"| {count} worker{'s' if count > 1 else ''}, "
                f"{'a core each' if count > 1 else 'one core'} | {seconds:.1f} | {lines.p95():.0f} |"
            )
    made = asked(f"/classes/{school_class}/sets", {"sheet": sheet, "day": "2026-03-05"})["id"]
    killed = 0
    with workers(url, home, 2) as running:
        asked(f"/sets/{made}/taken", {"text": pile()})
        until = time.monotonic() + PATIENCE
        while killed < KILLS and time.monotonic() < until:
            time.sleep(random.uniform(0.2, 1.2))
            k = random.randrange(len(running))
            kill_worker(running[k])
            running[k] = begin_worker(url, home)
            killed += 1
            found = asked(f"/sets/{made}")
            if (
                found["done"] == found["total"] and killed < KILLS
            ):  # the next ones are killed over the same pile once more
                results.append(_marks(found))
                asked(f"/sets/{made}", method="DELETE")
                made = asked(f"/classes/{school_class}/sets", {"sheet": sheet, "day": "2026-03-05"})["id"]
                asked(f"/sets/{made}/taken", {"text": pile()})
        results.append(_until_done(asked, made))
    same = all(result == results[0] and len(result) == STUDENTS * ITEMS for result in results)
    told.append(
        f"\n{killed} workers killed over a pile: the result is "
        f"{'complete and the same' if same else 'NOT as it should be'}"
    )
    return told, same


def _marks(found: dict[str, Any]) -> list[tuple[str, int, float | None]]:
    """What is proposed, by student and item; ids differ from set to set."""
    names = {each["id"]: each["name"] for each in found["students"]}
    numbers = {each["id"]: each["number"] for each in found["items"]}
    return sorted((names[cell["student"]], numbers[cell["item"]], cell["proposed"]) for cell in found["cells"])


def _until_done(asked: Any, made: int) -> list[tuple[str, int, float | None]]:
    until = time.monotonic() + PATIENCE
    while True:
        found = asked(f"/sets/{made}")
        if found["done"] == found["total"] or time.monotonic() > until:
            return _marks(found)
        time.sleep(0.3)


class _Lines:
    """A teacher at the desk who writes line after line, with what each took."""

    def __init__(self, base: str, opener: urllib.request.OpenerDirector, jar: CookieJar, problem: int) -> None:
        self._base, self._opener, self._jar, self._problem = base, opener, jar, problem
        self._took: list[float] = []
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._write)
        self._thread.start()

    def _write(self) -> None:
        path = f"{self._base}/api/problems/{self._problem}"
        found = ask(self._opener, self._jar, path)
        assert isinstance(found, dict)
        revision = int(found["revision"])
        while not self._stop.wait(1 / WRITES_A_SECOND):
            began = time.perf_counter()
            body = {"revision": revision, "lines": [f"2x = 8 + {len(self._took)} - {len(self._took)}", "x = 4"]}
            answer = ask(self._opener, self._jar, f"{path}/lines", body, "PUT")
            self._took.append((time.perf_counter() - began) * 1000)
            assert isinstance(answer, dict)
            revision = int(answer["revision"])

    def p95(self) -> float:
        """Milliseconds within which 95 of 100 lines were answered; ends the writing."""
        self._stop.set()
        self._thread.join(timeout=30)
        return statistics.quantiles(self._took, n=20)[-1] if len(self._took) > 1 else float("nan")
