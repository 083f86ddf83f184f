"""`./uchuu test --faults`: processes are killed while lines are written; no acknowledged line may be lost, none
doubled, and it starts anew.

It starts Uchuu on a home of its own and ends only processes that belong to it. Traffic goes to loopback, bounded in
count and time.
"""

from __future__ import annotations

import json
import os
import random
import re
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from http.cookiejar import CookieJar
from pathlib import Path
from urllib.parse import urlsplit

from tools import faults_jobs, faults_piles
from tools.installation import ROOT
from tools.loopback import ask
from tools.postgres import free_port

UNBOUNDED = {"UCHUU_TEACHER_SECONDS": "100000", "UCHUU_STUDENT_SECONDS": "100000"}
"""A program that tries the product asks more than a person may."""
ROUNDS, WRITERS = 4, 4
UP_SECONDS = 60
PASSWORD = "tide-table-41"
FIRST = {"username": "faults", "password": PASSWORD, "name": "Faults"}


@dataclass
class Writer:
    """One teacher's browser that writes line after line into a working of its own, and sends again what was not
    answered."""

    base: str
    problem: int
    opener: urllib.request.OpenerDirector
    jar: CookieJar
    acknowledged: list[str] = field(default_factory=list)
    revision: int = 0
    failures: int = 0
    trouble: str = ""

    def write(self, until: threading.Event) -> None:
        """Writes until it is told to stop; at most forty lines, then it begins anew at the first."""
        count = 0
        while not until.is_set():
            count += 1
            wanted = [*self.acknowledged, f"x = {count}"][-40:]
            while not until.is_set():
                try:
                    body = {"revision": self.revision, "lines": wanted}
                    found = ask(self.opener, self.jar, f"{self.base}/api/problems/{self.problem}/lines", body, "PUT")
                except urllib.error.HTTPError as answer:
                    if answer.code < 500:
                        self.trouble = f"status {answer.code}: {answer.read()[:200]!r}"
                        return
                    self.failures += 1
                    time.sleep(0.2)
                except OSError:
                    self.failures += 1
                    time.sleep(0.2)
                else:
                    assert isinstance(found, dict)
                    self.revision, self.acknowledged = int(found["revision"]), wanted
                    break


class Installation:
    """An Uchuu of this run's own."""

    def __init__(self, home: Path, options: Sequence[str] = ("--no-worker",)) -> None:
        self.home, self.port, self.options = home, free_port(), options
        self.words = home.parent / "words-of-the-start"
        self.process: subprocess.Popen[bytes] | None = None
        self.more: dict[str, str] = {}

    def start(self) -> float:
        """Starts it and waits until it is ready; the seconds that took. Raises RuntimeError when it does not come
        up."""
        began = time.monotonic()
        env = os.environ | {"UCHUU_HOME": str(self.home)} | UNBOUNDED | self.more
        with self.words.open("wb") as words:
            self.process = subprocess.Popen(
                [sys.executable, "-m", "tools.main", "start", "--empty", *self.options, "--port", str(self.port)],
                cwd=ROOT,
                env=env,
                stdout=words,
                stderr=subprocess.STDOUT,
            )
        return self.until_ready(began)

    def word(self) -> str:
        """The word with which the first account is made, as the start prints it. Raises RuntimeError where it does
        not."""
        until = time.monotonic() + UP_SECONDS
        while time.monotonic() < until:
            found = re.search(r"with the word (\w+)", self.words.read_text(encoding="utf-8", errors="replace"))
            if found:
                return found[1]
            time.sleep(0.1)
        raise RuntimeError("The start printed no word for the first account.")

    def until_ready(self, began: float) -> float:
        """The seconds since then until it answers that it is ready. Raises RuntimeError with the start's own words when
        it does not."""
        assert self.process is not None
        while time.monotonic() - began < UP_SECONDS and self.process.poll() is None:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{self.port}/readyz", timeout=8).close()
                return time.monotonic() - began
            except OSError:
                time.sleep(0.1)
        ended = f"ended with status {self.process.returncode}" if self.process.poll() is not None else "did not end"
        said = self.words.read_text(encoding="utf-8", errors="replace")[-2000:]
        raise RuntimeError(
            f"It was not ready again after {time.monotonic() - began:.0f} s; the start {ended}. It said:\n{said}"
        )

    def children(self) -> list[int]:
        """The processes that descend from the start command, the nearest first."""
        assert self.process is not None
        found, parents = [], _parents()
        waiting = [self.process.pid]
        while waiting:
            mine = [pid for pid, parent in parents.items() if parent == waiting[0]]
            waiting = waiting[1:] + mine
            found += mine
        return found

    def kill_worker(self) -> None:
        """One worker of the application server."""
        master = next(pid for pid in self.children() if "gunicorn" in _command(pid))
        workers = [pid for pid, parent in _parents().items() if parent == master]
        os.kill(random.choice(workers), signal.SIGKILL)

    def kill_database(self) -> None:
        """The database's first process."""
        os.kill(int((self.home / "pg" / "data" / "postmaster.pid").read_text().split()[0]), signal.SIGKILL)

    def kill_all(self) -> None:
        """The start command, the application server and all its processes, as when the machine loses power; then it is
        started."""
        assert self.process is not None
        for pid in [self.process.pid, *self.children()]:
            try:
                os.kill(pid, signal.SIGKILL)
            except ProcessLookupError:
                continue
        self.process.wait()
        self.kill_database()
        time.sleep(0.5)
        self.start()

    def stop(self) -> None:
        """Stops it as Ctrl-C does."""
        if self.process is not None and self.process.poll() is None:
            self.process.terminate()
            self.process.wait(timeout=40)


def _command(pid: int) -> str:
    try:
        return Path(f"/proc/{pid}/cmdline").read_text()
    except OSError:
        return ""


def _parents() -> dict[int, int]:
    found = {}
    for path in Path("/proc").glob("[0-9]*/stat"):
        try:
            fields = path.read_text().rpartition(")")[2].split()
        except OSError:
            continue
        found[int(path.parent.name)] = int(fields[1])
    return found


def run(rounds: int = ROUNDS, writers: int = WRITERS, seed: int | None = None) -> int:
    """Kills one thing after the other while lines are written; prints a table; returns 0 when nothing was lost."""
    random.seed(seed)
    folder = Path(tempfile.mkdtemp(prefix="uchuu-faults-", dir="/tmp"))
    folder.chmod(0o755)
    installation = Installation(folder / "home")
    rows = ["| killed with -9 | seconds until it was ready again |", "|---|--:|"]
    stopped = threading.Event()
    try:
        rows.append(f"| (first start) | {installation.start():.1f} |")
        base = f"http://127.0.0.1:{installation.port}"
        pens = _writers(installation, writers)
        threads = [threading.Thread(target=pen.write, args=(stopped,)) for pen in pens]
        for thread in threads:
            thread.start()
        kills: list[tuple[str, Callable[[], None]]] = [
            ("a worker", installation.kill_worker),
            ("the database", installation.kill_database),
            ("everything", installation.kill_all),
        ]
        for _ in range(rounds):
            for name, kill in kills:
                time.sleep(random.uniform(0.5, 2.0))
                began = time.monotonic()
                kill()
                time.sleep(0.3)
                rows.append(f"| {name} | {installation.until_ready(began):.1f} |")
        time.sleep(2)
        stopped.set()
        for thread in threads:
            thread.join(timeout=60)
        lost = [text for pen in pens for text in compared(pen)]
        print("\n".join(rows))
        total = sum(pen.revision for pen in pens)
        print(
            f"\n{total} lines acknowledged, {sum(pen.failures for pen in pens)} "
            f"requests sent again, {len(lost)} workings not as acknowledged"
        )
        for text in lost:
            print(f"! {text}")
        good = True
        for told, well in (
            faults_jobs.run(base, installation.home, pens[0].opener, pens[0].jar),
            faults_piles.run(base, installation.home, pens[0].opener, pens[0].jar, pens[0].problem),
            dropped(pens[-1]),
            full_disk(),
            jumping_clock(),
        ):
            print("\n".join(told))
            good &= well
        return int(bool(lost) or total == 0 or not good)
    except RuntimeError as problem:
        print("\n".join(rows))
        print(f"! {problem}")
        return 1
    finally:
        stopped.set()
        installation.stop()
        shutil.rmtree(folder, ignore_errors=True)


DROPS, TMPFS_MB, FULL_SECONDS = 200, 320, 8


def dropped(pen: Writer) -> tuple[list[str], bool]:
    """Connections that end before, in the middle of, or just after the answer to a write; each write is sent again
    until it is acknowledged."""
    token = next(cookie.value for cookie in pen.jar if cookie.name == "uchuu_csrf")
    cookies = "; ".join(f"{cookie.name}={cookie.value}" for cookie in pen.jar)
    address = urlsplit(pen.base)
    now = ask(
        pen.opener, pen.jar, f"{pen.base}/api/problems/{pen.problem}"
    )  # one line more than acknowledged may stand there
    assert isinstance(now, dict)
    pen.acknowledged, pen.revision = [line["text"] for line in now["lines"]], int(now["revision"])
    for count in range(DROPS):
        wanted = [*pen.acknowledged, f"x = {count} + 1"][-40:]
        body = json.dumps({"revision": pen.revision, "lines": wanted}).encode()
        head = (
            f"PUT /api/problems/{pen.problem}/lines HTTP/1.1\r\nHost: "
            f"{address.netloc}\r\nContent-Type: application/json\r\n"
            f"X-CSRFToken: {token}\r\nCookie: {cookies}\r\nContent-Length: {len(body)}\r\n\r\n"
        ).encode()
        whole = head + body
        with socket.create_connection((address.hostname or "", address.port or 80), timeout=10) as line:
            line.sendall(whole[: random.choice((len(head) + len(body) // 2, len(whole), len(whole)))])
            if random.random() < 0.5:
                line.settimeout(0.5)
                with suppress(OSError):
                    line.recv(random.randint(1, 60))
        found = ask(
            pen.opener,
            pen.jar,
            f"{pen.base}/api/problems/{pen.problem}/lines",
            {"revision": pen.revision, "lines": wanted},
            "PUT",
        )
        assert isinstance(found, dict)
        pen.acknowledged, pen.revision = wanted, int(found["revision"])
    lost = compared(pen)
    return [f"\n{DROPS} connections dropped around the answer to a write: {lost or 'every line there once'}"], not lost


def full_disk() -> tuple[list[str], bool]:
    """The disk of an installation fills up while lines are written, and is emptied again. Needs root, for a file system
    of its own."""
    if os.geteuid() != 0:
        return ["\na full disk: not tried, as that needs root"], True
    folder = Path(tempfile.mkdtemp(prefix="uchuu-disk-", dir="/tmp"))
    if subprocess.run(
        ["mount", "-t", "tmpfs", "-o", f"size={TMPFS_MB}m,mode=755", "tmpfs", str(folder)], check=False
    ).returncode:
        folder.rmdir()
        return ["\na full disk: not tried, as no file system can be made here"], True
    installation = Installation(folder / "home")
    installation.words = Path(tempfile.mkstemp(prefix="uchuu-words-")[1])
    stopped = threading.Event()
    try:
        installation.start()
        pens = _writers(installation, 2)
        threads = [threading.Thread(target=pen.write, args=(stopped,)) for pen in pens]
        for thread in threads:
            thread.start()
        time.sleep(2)
        before = sum(pen.revision for pen in pens)
        filler = folder / "filler"
        with suppress(OSError), filler.open("wb", buffering=0) as file:
            while file.write(b"0" * 2**16):
                pass
        time.sleep(FULL_SECONDS)
        full = sum(pen.revision for pen in pens)
        filler.unlink()
        again = installation.until_ready(time.monotonic())
        time.sleep(4)
        stopped.set()
        for thread in threads:
            thread.join(timeout=60)
        after = sum(pen.revision for pen in pens)
        lost = [text for pen in pens for text in compared(pen)]
        words = (
            f"\na full disk for {FULL_SECONDS} s: {before} lines before, {full - before} "
            f"while it was full, {after - full} after; ready again after {again:.1f} s; "
        )
        return [
            words + (f"NOT as acknowledged: {lost}" if lost else "every acknowledged line is there")
        ], not lost and after > full
    finally:
        stopped.set()
        installation.stop()
        subprocess.run(["umount", "-l", str(folder)], check=False)
        shutil.rmtree(folder, ignore_errors=True)
        installation.words.unlink(missing_ok=True)


JUMPS = (3600.0, -3600.0, 86_400.0 * 400, -86_400.0 * 400, 0.0)
"""By how many seconds the clock of the server jumps, one after the other; a session that has ended by a jump forward is
begun anew."""


def jumping_clock() -> tuple[list[str], bool]:
    """The clock of the server jumps by hours and by a year, to and fro, while lines are written."""
    folder = Path(tempfile.mkdtemp(prefix="uchuu-clock-", dir="/tmp"))
    folder.chmod(0o755)
    clock = folder / "clock"
    clock.write_text("0", encoding="ascii")
    installation = Installation(folder / "home")
    installation.more = {"PYTHONPATH": str(ROOT / "tools" / "clock"), "UCHUU_CLOCK": str(clock)}
    stopped = threading.Event()
    told, good = [], True
    try:
        installation.start()
        pens = _writers(installation, 2)
        for jump in JUMPS:
            clock.write_text(str(jump), encoding="ascii")
            stopped.clear()
            before = sum(pen.revision for pen in pens)
            for pen in pens:
                pen.trouble = ""
                ask(pen.opener, pen.jar, f"{pen.base}/api/account/session")
                ask(pen.opener, pen.jar, f"{pen.base}/api/account/log-in", {"username": "faults", "password": PASSWORD})
            threads = [threading.Thread(target=pen.write, args=(stopped,)) for pen in pens]
            for thread in threads:
                thread.start()
            time.sleep(2)
            stopped.set()
            for thread in threads:
                thread.join(timeout=60)
            lost = [text for pen in pens for text in compared(pen)]
            written = sum(pen.revision for pen in pens) - before
            good &= not lost and written > 0
            told.append(f"{jump / 3600:+.0f} h: {written} lines{f', NOT as acknowledged: {lost}' if lost else ''}")
    finally:
        stopped.set()
        installation.stop()
        shutil.rmtree(folder, ignore_errors=True)
    return [
        f"\na clock that jumps: {'; '.join(told)}; "
        f"{'every acknowledged line is there' if good else 'NOT as it should be'}"
    ], good


def _writers(installation: Installation, count: int) -> list[Writer]:
    base = f"http://127.0.0.1:{installation.port}"
    jar = CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
    ask(opener, jar, f"{base}/api/account/session")
    ask(opener, jar, f"{base}/api/account/set-up", FIRST | {"word": installation.word()})
    return writers_of(base, opener, jar, count)


def writers_of(base: str, opener: urllib.request.OpenerDirector, jar: CookieJar, count: int) -> list[Writer]:
    """So many problems to write into, of who is logged in there."""
    sheet = ask(opener, jar, f"{base}/api/sheets", {"title": "Faults"})
    assert isinstance(sheet, dict)
    pens = []
    for _ in range(count):
        made = ask(opener, jar, f"{base}/api/sheets/{sheet['id']}/problems", {"task": "solve", "given": "2x = 8"})
        assert isinstance(made, dict)
        pens.append(Writer(base, made["id"], opener, jar))
    return pens


def compared(pen: Writer) -> list[str]:
    """What is not as it was acknowledged."""
    if pen.trouble:
        return [f"problem {pen.problem}: {pen.trouble}"]
    found = ask(pen.opener, pen.jar, f"{pen.base}/api/problems/{pen.problem}")
    assert isinstance(found, dict)
    stored = [line["text"] for line in found["lines"]]
    # the last write may have arrived without its answer: then one line more stands there, and no other difference
    if stored == pen.acknowledged or (
        found["revision"] == pen.revision + 1 and stored[:-1] in (pen.acknowledged, pen.acknowledged[1:])
    ):
        return []
    return [f"problem {pen.problem}: acknowledged {pen.acknowledged[-3:]}, stored {stored[-3:]}"]
