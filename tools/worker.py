"""`./uchuu worker`: works out what waits in the queue; as many of them as one likes, on any machine that reaches the
database."""

from __future__ import annotations

import argparse
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path

from tools.installation import ROOT, StartError, home, served, use_home, wait_for_database

AGAIN_SECONDS = 2.0
"""After how long a worker that has ended by itself is begun again."""


def command(at_once: int, *, until_empty: bool = False) -> list[str]:
    """The command of the worker itself."""
    found = [sys.executable, str(ROOT / "manage.py"), "worker", "--at-once", str(at_once)]
    return [*found, "--until-empty"] if until_empty else found


def settings(at_once: int) -> dict[str, str]:
    """The variables that a worker needs beside those of the server: as many processes for the mathematics as it has
    jobs at once."""
    return {"UCHUU_HEAVY": str(at_once), "UCHUU_POOL": "0", "DJANGO_SETTINGS_MODULE": "server.config.settings"}


def begin(database: str, folder: Path, at_once: int = 1) -> subprocess.Popen[bytes]:
    """A worker beside the server, under the same account."""
    return served(command(at_once), database, folder, settings(at_once))


class Kept:
    """A process that is begun again when it has ended by itself, as a worker does when the database was away."""

    def __init__(self, begin: Callable[[], subprocess.Popen[bytes]]) -> None:
        self._begin = begin
        self.process = begin()
        self._ended_at = 0.0

    def look(self) -> None:
        """Begins it again where it has ended, a moment after it has."""
        if self.process.poll() is None:
            return
        now = time.monotonic()
        if not self._ended_at:
            self._ended_at = now
        elif now - self._ended_at >= AGAIN_SECONDS:
            self._ended_at = 0.0
            self.process = self._begin()

    def end(self, seconds: float = 15) -> None:
        """Lets it finish what is under way, for so long."""
        self.process.terminate()
        try:
            self.process.wait(timeout=seconds)
        except subprocess.TimeoutExpired:
            self.process.kill()


def main(arguments: list[str]) -> int:
    """Works until it is stopped; returns 0, or 3 with a sentence where there is no database."""
    parser = argparse.ArgumentParser(prog="uchuu worker", description="Work out what waits in the queue.")
    parser.add_argument(
        "--at-once",
        type=int,
        default=os.cpu_count() or 1,
        help="how many jobs at the same time (this machine's processors)",
    )
    parser.add_argument("--until-empty", action="store_true", help="end when nothing waits any more")
    options = parser.parse_args(arguments)
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    try:
        if not 1 <= options.at_once <= 64:
            raise StartError("A worker does 1 to 64 jobs at once.")
        if "DATABASE_URL" not in os.environ:
            raise StartError(
                "A worker needs the database that it shares with the server: "
                "set DATABASE_URL. On a machine of its own ./uchuu start "
                "runs a worker already."
            )
        wait_for_database(os.environ["DATABASE_URL"])
    except StartError as problem:
        print(f"uchuu: {problem}", file=sys.stderr)
        return 3
    use_home(home())
    # a worker signs nothing, so it needs no key of the installation
    os.environ.setdefault("UCHUU_SECRET", "a-worker-signs-nothing-and-serves-no-page-0123456789-abcdefghijklmnop")
    os.environ.update(settings(options.at_once))
    if options.until_empty:
        return subprocess.run(command(options.at_once, until_empty=True), cwd=ROOT, check=False).returncode
    process = subprocess.Popen(command(options.at_once), cwd=ROOT)
    try:
        while True:
            print(f"uchuu: working, {options.at_once} at once; Ctrl-C stops when what is under way is done", flush=True)
            process.wait()
            time.sleep(AGAIN_SECONDS)
            print("uchuu: the worker had ended; it is begun again", file=sys.stderr, flush=True)
            process = subprocess.Popen(command(options.at_once), cwd=ROOT)
    except (KeyboardInterrupt, SystemExit):
        process.terminate()
        process.wait()
        return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
