"""`./uchuu start`: database, migrations, demo data, front end, server; Ctrl-C stops it all and keeps the data."""

from __future__ import annotations

import argparse
import os
import secrets
import signal
import socket
import subprocess
import sys
import time
from pathlib import Path
from urllib.request import urlopen

from tools import front
from tools.postgres import Cluster, PostgresError, free_port

ROOT = front.ROOT
DEMO_LOG_IN = ("demo", "lantern-quay")


def home() -> Path:
    """Where data and the secret key are kept between starts."""
    if "UCHUU_HOME" in os.environ:
        return Path(os.environ["UCHUU_HOME"]).resolve()
    if os.geteuid() == 0:
        return Path("/var/lib/uchuu")
    return Path.home() / ".local" / "share" / "uchuu"


def main(arguments: list[str]) -> int:
    """Serves until it is stopped; returns 0, or 3 where the database can't be had."""
    parser = argparse.ArgumentParser(prog="uchuu start", description="Serve Uchuu on this machine.")
    parser.add_argument("--empty", action="store_true", help="a desk of your own without demo data")
    parser.add_argument("--port", type=int, default=int(os.environ.get("UCHUU_PORT", "8000")))
    options = parser.parse_args(arguments)
    folder = home()
    folder.mkdir(parents=True, exist_ok=True)
    _ensure_secret(folder / "secret-key")
    os.environ.update(UCHUU_HOME=str(folder), DJANGO_SETTINGS_MODULE="server.config.settings")
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    signal.signal(signal.SIGINT, signal.default_int_handler)  # a background shell would have it ignored
    cluster = None
    try:
        if "DATABASE_URL" not in os.environ:
            cluster = Cluster(folder / "pg")
            cluster.start()
            os.environ["DATABASE_URL"] = cluster.url("uchuu_own" if options.empty else "uchuu")
        manage("migrate", "--verbosity", "0")
        if not options.empty:
            manage("demo")
        front.ensure_built()
        return _serve(_port(options.port), demo=not options.empty)
    except PostgresError as problem:
        print(f"uchuu: {problem}", file=sys.stderr)
        return 3
    except KeyboardInterrupt:
        return 0
    finally:
        if cluster:
            cluster.stop()


def manage(*arguments: str) -> None:
    """Runs a Django command; raises CalledProcessError when it fails."""
    subprocess.run([sys.executable, str(ROOT / "manage.py"), *arguments], cwd=ROOT, check=True)


def _ensure_secret(path: Path) -> None:
    if not path.is_file():
        handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(handle, "w") as file:
            file.write(secrets.token_urlsafe(60))


def _port(wanted: int) -> int:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", wanted))
            return wanted
        except OSError:
            return free_port()


def gunicorn(port: int) -> subprocess.Popen[bytes]:
    """The application server on loopback, in a process group of its own so that Ctrl-C reaches us first."""
    command = [
        sys.executable, "-m", "gunicorn", "server.config.wsgi", "-c", "python:tools.gunicorn", "--bind", f"127.0.0.1:{port}",
    ]  # fmt: skip
    return subprocess.Popen(command, cwd=ROOT, start_new_session=True)


def wait_until_up(port: int, process: subprocess.Popen[bytes]) -> bool:
    """Whether the server answers within half a minute."""
    for _ in range(300):
        if process.poll() is not None:
            return False
        try:
            urlopen(f"http://127.0.0.1:{port}/api/account/session", timeout=2).close()
            return True
        except OSError:
            time.sleep(0.1)
    return False


def _serve(port: int, *, demo: bool) -> int:
    process = gunicorn(port)
    try:
        if not wait_until_up(port, process):
            print("uchuu: the server did not come up", file=sys.stderr)
            return 1
        print(f"\n  Uchuu is ready:  http://127.0.0.1:{port}/")
        if demo:
            print(f"  Demo log-in:     {DEMO_LOG_IN[0]}   password: {DEMO_LOG_IN[1]}")
        else:
            print("  It will ask for a first account, unless there is one.")
        print("  Ctrl-C stops it; the data stays.\n", flush=True)
        return process.wait()
    except (KeyboardInterrupt, SystemExit):
        print("\nuchuu: stopping")
        return 0
    finally:
        process.terminate()
        try:
            process.wait(timeout=15)
        except subprocess.TimeoutExpired:
            process.kill()
