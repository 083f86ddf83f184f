"""The part of the fault runs that is about jobs: workers that have nothing in common but the database share the load,
and are killed."""

from __future__ import annotations

import os
import random
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from http.cookiejar import CookieJar
from pathlib import Path

import psycopg

from tools.installation import ROOT, database_name
from tools.loopback import ask
from tools.postgres import Cluster

PROBLEMS, KILLS = 90, 20
PATIENCE = 240


def key(problems: int = PROBLEMS) -> str:
    """A made-up key whose problems each take a while: right lines, and a wrong one to be explained."""
    found = []
    for k in range(problems):
        a, b = 2 + k % 7, 3 + k // 7
        found.append(
            f"{k + 1}. Solve x^2 - {a + b}x + {a * b} = 0\n(x - {a})(x - "
            f"{b}) = 0\nx - {a} = 0 or x - {b} = 0\nx = {a} or x = -{b}\n\n"
            f"{problems + k + 1}. Simplify (x^2 - {a * a})/(x - {a}) + {b}/(x "
            f"+ {a})\n(x - {a}) + {b}/(x + {a})\n(x - {a} + {b})/(x + {a})\n"
        )
    return "\n".join(found[: problems // 2])


def run(base: str, home: Path, opener: urllib.request.OpenerDirector, jar: CookieJar) -> tuple[list[str], bool]:
    """Lines that tell how it went, and whether all was as it should be."""
    cluster = Cluster(home / "pg")
    cluster.start()  # joins the one that runs
    url = cluster.url(database_name(home))
    text = key()
    expected = ask(opener, jar, f"{base}/api/keys/proofread", {"text": text})
    told, good = ["", "| workers of one job at once | problems a second |", "|---|--:|"], True
    for count in (1, 2):
        _forget(url)
        with workers(url, home, count):
            number = _begin(opener, jar, base, text)
            found = _wait(opener, jar, base, number)
        good &= found["found"] == expected and not found["trouble"]
        told.append(f"| {count} | {_rate(url, number):.1f} |")
    _forget(url)
    number = _begin(opener, jar, base, text)
    same = True
    with workers(url, home, 2) as running:
        for _ in range(KILLS):
            time.sleep(random.uniform(0.3, 1.5))
            k = random.randrange(len(running))
            kill_worker(running[k])
            running[k] = begin_worker(url, home)
            found = _how_far(opener, jar, base, number)
            if found["ended"]:  # the next ones are killed during another
                same &= found["found"] == expected and not found["trouble"]
                _forget(url)
                number = _begin(opener, jar, base, text)
        found = _wait(opener, jar, base, number)
    same &= found["found"] == expected and not found["trouble"]
    told.append(
        f"\n{KILLS} workers killed while jobs were under way: the result "
        f"is {'complete and the same' if same else 'NOT as it should be'}"
    )
    return told, bool(good and same)


def _forget(url: str) -> None:
    """Forgets the answers that are kept, so that the same key is work again."""
    with psycopg.connect(url) as connection:
        connection.execute("DELETE FROM jobs_keptanswer")


def _begin(opener: urllib.request.OpenerDirector, jar: CookieJar, base: str, text: str) -> int:
    made = ask(opener, jar, f"{base}/api/keys/runs", {"text": text})
    assert isinstance(made, dict)
    return int(made["id"])


def _how_far(opener: urllib.request.OpenerDirector, jar: CookieJar, base: str, number: int) -> dict[str, object]:
    found = ask(opener, jar, f"{base}/api/keys/runs/{number}")
    assert isinstance(found, dict)
    return found


def _wait(opener: urllib.request.OpenerDirector, jar: CookieJar, base: str, number: int) -> dict[str, object]:
    until = time.monotonic() + PATIENCE
    while True:
        found = _how_far(opener, jar, base, number)
        if found["ended"] or time.monotonic() > until:
            return found
        time.sleep(0.2)


def _rate(url: str, number: int) -> float:
    """Problems a second, between the first and the last that was done."""
    with psycopg.connect(url) as connection:
        row = connection.execute(
            "SELECT count(*) - 1, extract(epoch FROM max(ended) - "
            "min(ended))::float8 FROM jobs_piece WHERE run_id = %s",
            [number],
        ).fetchone()
    assert row is not None
    return float(row[0]) / max(float(row[1]), 0.001)


@contextmanager
def workers(url: str, home: Path, count: int, cores: Sequence[int] = ()) -> Iterator[list[subprocess.Popen[bytes]]]:
    """So many workers for the time being; each on a core of its own where cores are named."""
    running = [begin_worker(url, home) for _ in range(count)]
    for worker, core in zip(running, cores, strict=False):
        os.sched_setaffinity(worker.pid, {core})
    time.sleep(3)  # until they look into the queue
    try:
        yield running
    finally:
        for worker in running:
            kill_worker(worker)


def begin_worker(url: str, home: Path) -> subprocess.Popen[bytes]:
    """A worker as on another machine: it has the address of the database and nothing else of this installation."""
    env = {name: value for name, value in os.environ.items() if not name.startswith("UCHUU_")}
    env |= {"DATABASE_URL": url, "UCHUU_HOME": str(home.parent / "elsewhere")}
    return subprocess.Popen(
        [sys.executable, "-m", "tools.worker", "--at-once", "1"],
        cwd=ROOT,
        env=env,
        start_new_session=True,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )


def kill_worker(worker: subprocess.Popen[bytes]) -> None:
    """The worker and all its processes, as when its machine loses power."""
    try:
        os.killpg(worker.pid, 9)
    except ProcessLookupError:
        return
    finally:
        worker.wait()
