"""Two machines on one database, behind a proxy: `./uchuu test --machines`, and a part of `--faults`.

Each machine is a start command with a home of its own, its server and its worker; the proxy gives each connection to
the other one in turn. What people do is asked through the proxy, so that every second request goes to either. Traffic
goes to loopback only; only processes that were started here are ended.
"""

from __future__ import annotations

import json
import os
import secrets
import shutil
import socket
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from tools import faults, faults_jobs
from tools.installation import ROOT
from tools.loopback import Hand, Student
from tools.postgres import SERVED, throwaway_cluster

STUDENTS, LINES, RESTARTS_SECONDS = 6, 8, 3.0
PAGE = bytes.fromhex(
    "89504e470d0a1a0a0000000d4948445200000001000000010802000000907753de"
    "0000000c49444154789c63f8ffff3f0005fe02fe0def46b80000000049454e44ae426082"
)
"""The smallest page there is: one white point."""


class Proxy:
    """Gives each connection to the next of the machines that are in."""

    def __init__(self, ports: list[int]) -> None:
        self.ports = list(ports)
        self.served: dict[int, int] = dict.fromkeys(ports, 0)
        self._turn = 0
        self._lock = threading.Lock()
        self._door = socket.create_server(("127.0.0.1", 0))
        self.base = f"http://127.0.0.1:{self._door.getsockname()[1]}"
        threading.Thread(target=self._accept, daemon=True).start()

    def close(self) -> None:
        """Takes no more connections."""
        self._door.close()

    def _accept(self) -> None:
        while True:
            try:
                line, _ = self._door.accept()
            except OSError:
                return
            with self._lock:
                self._turn += 1
                port = self.ports[self._turn % len(self.ports)]
                self.served[port] += 1
            threading.Thread(target=self._carry, args=(line, port), daemon=True).start()

    def _carry(self, line: socket.socket, port: int) -> None:
        try:
            machine = socket.create_connection(("127.0.0.1", port), timeout=30)
        except OSError:
            line.close()
            return
        there = threading.Thread(target=_pour, args=(line, machine), daemon=True)
        there.start()
        _pour(machine, line)
        there.join(timeout=30)
        line.close()
        machine.close()


def _pour(source: socket.socket, into: socket.socket) -> None:
    with suppress(OSError):
        while data := source.recv(65_536):
            into.sendall(data)
        into.shutdown(socket.SHUT_WR)


@contextmanager
def two() -> Iterator[tuple[Proxy, list[faults.Installation], str]]:
    """Two machines that were started at the same moment on an empty database, the proxy before them, and the address of
    the database with the owner's role."""
    folder = Path(tempfile.mkdtemp(prefix="uchuu-machines-", dir="/tmp"))
    folder.chmod(0o755)
    with throwaway_cluster() as cluster:
        owner = cluster.url("uchuu")
        host = owner.rpartition("@")[2]
        env = {
            "DATABASE_URL": f"postgresql://{SERVED}:{secrets.token_urlsafe(12)}@{host}",
            "UCHUU_OWNER_URL": owner,
            "UCHUU_SECRET": secrets.token_urlsafe(60),
        }
        machines = []
        for name in ("one", "two"):
            machine = faults.Installation(folder / name, options=())
            machine.words, machine.more = folder / f"words-of-{name}", env
            machines.append(machine)
        proxy = None
        try:
            starts = [threading.Thread(target=machine.start) for machine in machines]
            for start in starts:
                start.start()
            for start in starts:
                start.join()
            for machine in machines:
                machine.until_ready(time.monotonic())
            proxy = Proxy([machine.port for machine in machines])
            yield proxy, machines, owner
        finally:
            if proxy:
                proxy.close()
            for machine in machines:
                machine.stop()
            shutil.rmtree(folder, ignore_errors=True)


def run() -> tuple[list[str], bool]:
    """What was tried on two machines, a sentence each, and whether all of it went well."""
    told: list[str] = ["\ntwo machines on one database, behind a proxy:"]
    with two() as (proxy, machines, owner):
        teacher = Hand(proxy.base)
        teacher.ask("/api/account/session")
        teacher.ask("/api/account/set-up", faults.FIRST | {"word": machines[0].word()})
        looks: list[tuple[str, Callable[[], str]]] = [
            ("sessions", lambda: _sessions(teacher)),
            ("a room", lambda: _room(teacher)),
            ("pages", lambda: _pages(teacher)),
            ("runs", lambda: _runs(teacher)),
            ("a backup", lambda: _backup(machines[1], owner)),
            ("one after the other begun again", lambda: _begun_again(teacher, proxy, machines)),
        ]
        good = True
        for name, look in looks:
            try:
                told.append(f"- {name}: {look()}")
            except Exception as problem:  # whatever it is, the others are tried too
                good = False
                told.append(f"- {name}: NOT as it should be: {problem!r}"[:400])
        told.append(f"- connections to each: {', '.join(str(count) for count in proxy.served.values())}")
        good &= min(proxy.served.values()) > 10
    return told, good


def _sessions(teacher: Hand) -> str:
    names = {teacher.ask("/api/account/session")["teacher"]["username"] for _ in range(10)}
    sheets = [teacher.ask("/api/sheets", {"title": f"Tide {k}"})["id"] for k in range(6)]
    listed = {row["id"] for row in teacher.ask("/api/sheets")["sheets"]}
    _wanted(names == {"faults"} and set(sheets) <= listed)
    return "one log-in holds on both; what one has made the other lists"


def _given(teacher: Hand) -> tuple[int, list[dict[str, str]]]:
    sheet = teacher.ask("/api/sheets", {"title": "Room"})["id"]
    for given in ("3x + 7 = 22", "2(x - 3) = 4x + 8"):
        teacher.ask(f"/api/sheets/{sheet}/problems", {"task": "solve", "given": given})
    names = [{"name": f"Student {j:02}"} for j in range(STUDENTS)]
    made = teacher.ask("/api/classes", {"name": f"Evening {sheet}", "students": names})
    given = teacher.ask(f"/api/classes/{made['id']}/sets", {"sheet": sheet, "day": "2026-03-05"})
    return int(given["id"]), names


def _room(teacher: Hand) -> str:
    given_set, names = _given(teacher)
    code = teacher.ask(f"/api/sets/{given_set}/room", {"tells": "cue"})["code"]
    students = []
    for j, name in enumerate(names):
        student = Student(teacher.base, number=j)
        student.ask("/api/account/session")
        come = {"code": code, "name": name["name"], "secret": "river7"}
        student.items = [item["id"] for item in student.ask("/api/room/come-in", come)["room"]["items"]]
        students.append(student)
    for _ in range(LINES):
        for student in students:
            student.write()
    seats = teacher.ask(f"/api/sets/{given_set}/room")["seats"]
    stood = {seat["name"]: max(len(cell["beads"]) for cell in seat["cells"]) for seat in seats}
    _wanted(all(stood[f"Student {student.number:02}"] == len(student.lines) for student in students))
    return f"{STUDENTS} students wrote {STUDENTS * LINES} lines on both, all of them in the teacher's view"


def _pages(teacher: Hand) -> str:
    given_set, _ = _given(teacher)
    boundary = secrets.token_hex(8)
    body = (
        f'--{boundary}\r\nContent-Disposition: form-data; name="file"; filename="page.png"\r\n'
        f"Content-Type: image/png\r\n\r\n"
    ).encode() + PAGE
    body += f"\r\n--{boundary}--\r\n".encode()
    token = next(cookie.value for cookie in teacher.jar if cookie.name == "uchuu_csrf")
    asked = urllib.request.Request(
        f"{teacher.base}/api/sets/{given_set}/pages",
        body,
        {"Content-Type": f"multipart/form-data; boundary={boundary}", "X-CSRFToken": str(token)},
    )
    with teacher.opener.open(asked, timeout=30) as answer:
        json.loads(answer.read())
    found = [len(teacher.ask(f"/api/sets/{given_set}/pages")["pages"]) for _ in range(4)]
    _wanted(found == [1] * 4)
    return "what was uploaded to one is shown by both"


def _runs(teacher: Hand) -> str:
    run = teacher.ask("/api/keys/runs", {"text": faults_jobs.key(24)})
    until = time.monotonic() + 90
    while not run["ended"] and time.monotonic() < until:
        time.sleep(0.3)
        run = teacher.ask(f"/api/keys/runs/{run['id']}")
    _wanted(run["ended"] and run["done"] == run["total"] and not run["trouble"])
    return f"a key of {run['total']} problems was worked out by two workers, each problem once"


def _backup(machine: faults.Installation, owner: str) -> str:
    file = machine.home.parent / "both.uchuu"
    env = os.environ | {"UCHUU_HOME": str(machine.home)} | machine.more
    command = [sys.executable, "-m", "tools.main", "backup", str(file)]
    done = subprocess.run(command, cwd=ROOT, env=env, capture_output=True, text=True, check=False)
    _wanted(done.returncode == 0 and file.stat().st_size > 10_000, done.stderr)
    return f"taken at the second while both serve, {file.stat().st_size // 1000} kB"


def _begun_again(teacher: Hand, proxy: Proxy, machines: list[faults.Installation]) -> str:
    """Each is taken out of the proxy, begun again, and put in again, as an upgrade is done, while lines are written."""
    pens = faults.writers_of(teacher.base, teacher.opener, teacher.jar, 2)
    stopped = threading.Event()
    threads = [threading.Thread(target=pen.write, args=(stopped,)) for pen in pens]
    for thread in threads:
        thread.start()
    took = []
    for machine in machines:
        proxy.ports.remove(machine.port)
        time.sleep(RESTARTS_SECONDS)  # what is under way there ends
        machine.stop()
        took.append(machine.start())
        proxy.ports.append(machine.port)
        time.sleep(RESTARTS_SECONDS)
    stopped.set()
    for thread in threads:
        thread.join(timeout=60)
    lost = [text for pen in pens for text in faults.compared(pen)]
    failures = sum(pen.failures for pen in pens)
    _wanted(not lost and failures == 0, f"{lost} {failures} requests failed")
    lines = sum(pen.revision for pen in pens)
    return f"{lines} lines meanwhile, no request failed; ready after {', '.join(f'{each:.1f} s' for each in took)}"


def _wanted(is_so: bool, otherwise: str = "it is otherwise") -> None:
    if not is_so:
        raise RuntimeError(otherwise)


def main() -> int:
    """Prints what was tried; returns 0 when all of it went well."""
    told, good = run()
    print("\n".join(told))
    return int(not good)
