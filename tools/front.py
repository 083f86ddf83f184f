"""The front end: its packages, its build, and the types made from the API."""

from __future__ import annotations

import hashlib
import subprocess
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
WEB = ROOT / "web"
DIST = WEB / "dist"
_INPUTS = ("src", "index.html", "package-lock.json", "vite.config.ts", "tsconfig.json", "public")


def _digest(paths: list[Path]) -> str:
    found = hashlib.sha256()
    for path in paths:
        for file in sorted(path.rglob("*")) if path.is_dir() else [path]:
            if file.is_file():
                found.update(str(file.relative_to(WEB)).encode())
                found.update(file.read_bytes())
    return found.hexdigest()


def npm(*arguments: str) -> None:
    """Runs npm in web/; raises CalledProcessError when it fails."""
    subprocess.run(["npm", "--no-update-notifier", *arguments], cwd=WEB, check=True)


def ensure_packages() -> None:
    """Installs what the lock file names, once per lock file."""
    stamp = WEB / "node_modules" / ".made-from"
    wanted = _digest([WEB / "package-lock.json"])
    if stamp.is_file() and stamp.read_text() == wanted:
        return
    print("uchuu: installing front-end packages (once)", flush=True)
    npm("ci", "--loglevel", "error")
    stamp.write_text(wanted)


def ensure_built() -> None:
    """Builds the front end unless the build is of these very sources, or came without any."""
    if (DIST / "index.html").is_file() and not (WEB / "src").is_dir():
        return
    stamp = WEB / ".built-from"  # beside the build, not in it: what lies in it is served
    wanted = _digest([WEB / name for name in _INPUTS if (WEB / name).exists()])
    if (DIST / "index.html").is_file() and stamp.is_file() and stamp.read_text() == wanted:
        return
    ensure_packages()
    print("uchuu: building the front end", flush=True)
    npm("run", "--silent", "build", "--", "--logLevel", "warn")
    stamp.write_text(wanted)
