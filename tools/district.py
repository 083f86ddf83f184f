"""`./uchuu bench --district`: how fast lists and pages answer on data as large as a district's. Prints a Markdown
table."""

from __future__ import annotations

import http.cookiejar
import json
import os
import random
import statistics
import time
import urllib.request
from typing import Any, cast

import psycopg

from tools.installation import manage
from tools.postgres import Cluster, free_port, throwaway_cluster
from tools.start import gunicorn, wait_until_up
from tools.testing import settings_env

TEACHERS_ASKED, TIMES = 12, 5
PASSWORD = "lantern-quay"


class Client:
    """One teacher's browser, as far as it asks the API."""

    def __init__(self, base: str, username: str) -> None:
        self.base = base
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.ask("/api/account/session")
        self.ask("/api/account/log-in", {"username": username, "password": PASSWORD})

    def ask(self, path: str, body: object = None) -> tuple[object, float]:
        """What is answered, and the milliseconds that it took."""
        headers = {"Content-Type": "application/json"}
        token = next((cookie.value for cookie in self.jar if cookie.name == "uchuu_csrf"), None)
        if token:
            headers["X-CSRFToken"] = token
        data = None if body is None else json.dumps(body).encode()
        started = time.perf_counter()
        with self.opener.open(urllib.request.Request(self.base + path, data, headers), timeout=60) as answer:
            found = json.loads(answer.read() or b"null")
        return found, (time.perf_counter() - started) * 1000


def table(teachers: int, lines: int) -> str:
    """Fills a database of that size and measures every list and page on it."""
    with throwaway_cluster() as cluster:
        return _measured(cluster, teachers, lines)


def _measured(cluster: Cluster, teachers: int, lines: int) -> str:
    url = cluster.url("district")
    os.environ.update(settings_env(url) | {"UCHUU_POOL": "1"})
    manage("upgrade")
    started = time.monotonic()
    manage("district", "--teachers", str(teachers), "--lines", str(lines))
    manage("district_classes")
    filled = time.monotonic() - started
    with psycopg.connect(url, autocommit=True) as connection:
        connection.execute("VACUUM ANALYZE")
        row = connection.execute(
            "SELECT (SELECT count(*) FROM sheets_line), (SELECT count(*) "
            "FROM sheets_sheet), pg_database_size(current_database()), "
            "(SELECT count(*) FROM marking_student), (SELECT count(*) FROM marking_studentworking)"
        ).fetchone()
    assert row is not None
    port = free_port()
    process = gunicorn(port, url, cluster.folder)
    try:
        if not wait_until_up(port, process):
            raise RuntimeError("the server did not come up")
        times = _asked(f"http://127.0.0.1:{port}", teachers)
    finally:
        process.terminate()
        process.wait(timeout=15)
    rows = ["| page | asked | median ms | 95th percentile ms | slowest ms |", "|---|--:|--:|--:|--:|"]
    for name, found in times.items():
        found.sort()
        rows.append(
            f"| {name} | {len(found)} | {statistics.median(found):.0f} "
            f"| {found[int(len(found) * 0.95)]:.0f} | {found[-1]:.0f} |"
        )
    return (
        f"{teachers} teachers, {row[1]} sheets, {row[0]} lines, {row[3]} students, {row[4]} workings of "
        f"theirs, {row[2] / 2**30:.1f} GB, filled in {filled:.0f} s; {TEACHERS_ASKED} teachers asked\n\n"
        + "\n".join(rows)
        + "\n"
    )


def _asked(base: str, teachers: int) -> dict[str, list[float]]:
    random.seed(5)
    times: dict[str, list[float]] = {}

    def note(name: str, client: Client, path: str) -> Any:
        found, took = client.ask(path)
        times.setdefault(name, []).append(took)
        return found

    for nth in [0, *random.sample(range(1, teachers), min(TEACHERS_ASKED, teachers) - 1)]:
        client = Client(base, f"teacher{nth}")
        for _ in range(TIMES):
            sheets = note("the list of sheets", client, "/api/sheets")
            note("its tenth page", client, "/api/sheets?page=10")
            note("sheets found by title", client, f"/api/sheets?search={random.randint(1, 99)}")
            sheet = random.choice(sheets["sheets"])["id"]
            problem = random.choice(note("a sheet of 20 problems", client, f"/api/sheets/{sheet}")["problems"])
            note("a problem", client, f"/api/problems/{problem['id']}")
            note("colleagues", client, "/api/colleagues")
            classes = note("the classes", client, "/api/classes")
            chosen: dict[str, Any] = random.choice(cast(list[dict[str, Any]], classes))
            note("a class over time", client, f"/api/classes/{chosen['id']}/patterns")
            if chosen["sets"]:
                given = random.choice(chosen["sets"])["id"]
                cells = note("a marking table", client, f"/api/sets/{given}")["cells"]
                note("the patterns of a set", client, f"/api/sets/{given}/patterns")
                note("a student's working", client, f"/api/workings/{random.choice(cells)['working']}")
            note("likelihoods learned", client, "/api/learned")
            if nth == 0:
                note("people", client, "/api/people")
    return times
