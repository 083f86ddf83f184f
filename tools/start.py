"""`./uchuu start`: database, migrations, demo data, front end, server; Ctrl-C stops it all and keeps the data."""

from __future__ import annotations

import argparse
import atexit
import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from collections import deque
from collections.abc import Callable, Sequence
from datetime import datetime, timedelta
from pathlib import Path
from urllib.error import HTTPError
from urllib.request import urlopen

import psycopg

from tools import front
from tools.backup import BackupError, before_upgrade, nightly
from tools.installation import (
    SERVED_AT,
    StartError,
    claim,
    home,
    manage,
    owner_url,
    remember_database,
    served,
    service_account,
    use_home,
    wait_for_database,
)
from tools.postgres import Cluster, PostgresError, free_port, let_serve
from tools.standins import stand_ins
from tools.worker import Kept, begin

DEMO_LOG_IN = ("demo", "lantern-quay")


def main(arguments: list[str]) -> int:
    """Serves until it is stopped; returns 0, or 3 with a sentence where it can't start."""
    parser = argparse.ArgumentParser(prog="uchuu start", description="Serve Uchuu on this machine.")
    parser.add_argument("--empty", action="store_true", help="a desk of your own without demo data")
    parser.add_argument(
        "--port", type=_port_number, default=os.environ.get("UCHUU_PORT", "8000"), help="0 takes any free one"
    )
    parser.add_argument(
        "--database", help="another database of its own cluster, such as one that a backup was brought back into"
    )
    parser.add_argument(
        "--address",
        default="127.0.0.1",
        help="where it listens; other than loopback only in a container, or behind a proxy on another machine",
    )
    parser.add_argument(
        "--no-worker", action="store_true", help="without a worker beside the server: ./uchuu worker runs elsewhere"
    )
    parser.add_argument(
        "--nightly-backup", action="store_true", help="a backup each night, those of the last two weeks kept"
    )
    options = parser.parse_args(arguments)
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    signal.signal(signal.SIGINT, signal.default_int_handler)  # a background shell would have it ignored
    demo = not (options.empty or options.database)
    folder = home()
    cluster = None
    beside: list[Kept] = []
    lock = -1
    try:
        lock = claim(folder)
        port = _port(options.port)
        use_home(folder)
        name = options.database or ("uchuu_own" if options.empty else "uchuu")
        given = os.environ.get("DATABASE_URL", "")
        if given:
            wait_for_database(owner_url())
            os.environ["DATABASE_URL"] = owner_url()
        else:
            cluster = Cluster(folder / "pg")
            cluster.start()
            os.environ["DATABASE_URL"] = cluster.url(name)
            remember_database(folder, name)
        kept = before_upgrade(folder, os.environ["DATABASE_URL"])
        if kept:
            print(f"uchuu: the data is brought up to date; as it was it is kept in {kept}", file=sys.stderr)
        manage("upgrade")
        if demo:
            manage("demo")
        front.ensure_built()
        beside = stand_ins() if demo else []
        owner = os.environ["DATABASE_URL"]
        night = Nightly(folder, owner) if options.nightly_backup else None
        if given and given != owner:
            let_serve(owner, given)
        database = cluster.url_without_rights(name) if cluster else given
        serving = Serving(lambda: gunicorn(port, database, folder, options.address), folder, port)
        if not options.no_worker:
            beside.append(Kept(lambda: begin(database, folder)))
        return _serve(port, serving, cluster, night, beside, demo=demo)
    except (BackupError, PostgresError, StartError) as problem:
        print(f"uchuu: {problem}", file=sys.stderr)
        return 3
    except subprocess.CalledProcessError:
        return 3  # the command that failed has said why
    except KeyboardInterrupt:
        return 0
    finally:
        for each in reversed(beside):
            each.end()
        if cluster:
            cluster.stop()
        if lock >= 0:
            os.close(lock)


def _port_number(text: str) -> int:
    number = int(text)
    if not 0 <= number <= 65_535:
        raise ValueError(text)
    return number


def _port(wanted: int) -> int:
    """The port to serve on; raises StartError when another program has it."""
    if wanted == 0:
        return free_port()
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", wanted))
        except OSError as problem:
            raise StartError(
                f"Port {wanted} can't be had ({problem.strerror}). Choose "
                f"another: ./uchuu start --port {min(wanted + 1, 65_535)}, "
                "or --port 0 for any free one."
            ) from problem
    return wanted


def gunicorn(port: int, database: str, folder: Path, address: str = "127.0.0.1") -> subprocess.Popen[bytes]:
    """The application server, on loopback unless another address is given, in a process group of its own so that Ctrl-C
    reaches us first; under an account of its own when root starts it, which sees the secret key and the database but
    not the home."""
    command = [
        sys.executable,
        "-m",
        "gunicorn",
        "server.config.wsgi",
        "-c",
        "python:tools.gunicorn",
        "--bind",
        f"{address}:{port}",
    ]
    figures = Path(tempfile.mkdtemp(prefix="uchuu-figures-"))
    atexit.register(shutil.rmtree, figures, ignore_errors=True)
    account = service_account()
    if account:
        shutil.chown(figures, account, account)
    return served(command, database, folder, {"PROMETHEUS_MULTIPROC_DIR": str(figures)})


def wait_until_up(port: int, process: subprocess.Popen[bytes]) -> bool:
    """Whether the server is ready within half a minute."""
    for _ in range(300):
        if process.poll() is not None:
            return False
        try:
            urlopen(f"http://127.0.0.1:{port}/readyz", timeout=8).close()
            return True
        except HTTPError as answer:
            if answer.code != 503:
                raise
            time.sleep(0.1)
        except OSError:
            time.sleep(0.1)
    return False


class Serving:
    """The server of a home as it runs now; the home says at which port, for the doctor."""

    def __init__(self, begin: Callable[[], subprocess.Popen[bytes]], folder: Path, port: int) -> None:
        self._begin = begin
        self._note = folder / SERVED_AT
        self.process = begin()
        self._note.write_text(f"{port}\n", encoding="ascii")

    def again(self) -> subprocess.Popen[bytes]:
        """Begins it again; the new process."""
        self.process = self._begin()
        return self.process

    def end(self) -> None:
        """Ends it, with what it has under way."""
        self._note.unlink(missing_ok=True)
        self.process.terminate()
        try:
            self.process.wait(timeout=15)
        except subprocess.TimeoutExpired:
            self.process.kill()


class Nightly:
    """A backup each night, at the first look after three o'clock; one that could not be taken is said and tried the
    next night."""

    HOUR = 3

    def __init__(self, folder: Path, url: str) -> None:
        self.folder, self.url = folder, url
        self.last = datetime.now().date() - timedelta(days=datetime.now().hour < self.HOUR)

    def look(self, now: datetime) -> None:
        """Takes the backup when it is time."""
        if now.hour < self.HOUR or now.date() <= self.last:
            return
        self.last = now.date()
        try:
            nightly(self.folder, self.url)
        except (BackupError, PostgresError, OSError, psycopg.Error) as problem:
            print(f"uchuu: no backup was taken this night: {problem}", file=sys.stderr, flush=True)


MOST_AGAIN, AGAIN_WITHIN = 5, 600.0
"""So often in so many seconds the server is begun again where it ended by itself."""


def watch(
    process: subprocess.Popen[bytes],
    cluster: Cluster | None,
    pause: float = 2,
    night: Nightly | None = None,
    beside: Sequence[Kept] = (),
    again: Callable[[], subprocess.Popen[bytes]] | None = None,
) -> int:
    """Waits for the server to end and returns its status; begins it `again`, a few times, where it ended by itself;
    starts the cluster again, on its port, when it has died, and what runs beside, and takes the nightly backup."""
    begun: deque[float] = deque(maxlen=MOST_AGAIN)
    while True:
        try:
            status = process.wait(timeout=pause)
            if again is None or (len(begun) == MOST_AGAIN and time.monotonic() - begun[0] < AGAIN_WITHIN):
                return status
            begun.append(time.monotonic())
            print(f"uchuu: the server had ended ({status}); it is begun again", file=sys.stderr, flush=True)
            time.sleep(pause)  # what it had begun ends by itself, and lets the port go
            process = again()
        except subprocess.TimeoutExpired:
            if night:
                night.look(datetime.now())
            for each in beside:
                each.look()
            if cluster and not cluster.is_running():
                print("uchuu: the database had stopped; it is started again", file=sys.stderr, flush=True)
                try:
                    cluster.start(cluster.port)
                except PostgresError as problem:
                    print(f"uchuu: {problem}", file=sys.stderr, flush=True)


def _serve(
    port: int,
    serving: Serving,
    cluster: Cluster | None,
    night: Nightly | None,
    beside: Sequence[Kept],
    *,
    demo: bool,
) -> int:
    try:
        if not wait_until_up(port, serving.process):
            print("uchuu: the server did not come up", file=sys.stderr)
            return 1
        print(f"\n  Uchuu is ready:  http://127.0.0.1:{port}/")
        if os.environ.get("UCHUU_HTTPS") == "1":
            print(
                "  UCHUU_HTTPS=1: it answers a proxy that speaks HTTPS to the outside and says so in X-Forwarded-Proto."
            )
        if demo:
            print(f"  Demo log-in:     {DEMO_LOG_IN[0]}   password: {DEMO_LOG_IN[1]}")
        else:
            print("  Log in with your account, or make the first one there.")
        print("  Ctrl-C stops it; the data stays.\n", flush=True)
        manage("first_account")
        return watch(serving.process, cluster, night=night, beside=beside, again=serving.again)
    except (KeyboardInterrupt, SystemExit):
        print("\nuchuu: stopping")
        return 0
    finally:
        serving.end()
