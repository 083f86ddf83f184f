"""`./uchuu doctor`: looks at the installation and says what is wrong and how to mend it. It changes nothing."""

from __future__ import annotations

import os
import shutil
import stat
import sys
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from urllib.error import HTTPError, URLError
from urllib.request import urlopen

import psycopg

from tools import front
from tools.backup import about_migrations
from tools.installation import SERVED_AT, database_name, home
from tools.postgres import Cluster, PostgresError, programs

GOOD, WORTH_A_LOOK, BAD = "good", "look", "bad"
LITTLE_SPACE = 2 * 2**30
CLOCKS_APART = 5.0
OLD_BACKUP_DAYS = 2
NOT_AS_DECIDED = """
SELECT count(*) FROM marking_studentworking AS working WHERE working.mark IS DISTINCT FROM (
  SELECT after FROM marking_decision AS decision WHERE decision.working_id = working.id AND NOT decision.taken_back
  ORDER BY decision.id DESC LIMIT 1)
"""
"""How many workings have another mark than their last standing decision says."""


@dataclass(frozen=True, slots=True)
class Finding:
    """What was looked at, how it stands, and what mends it; `state` is good, look or bad."""

    state: str
    text: str
    mend: str = ""


def main(arguments: list[str]) -> int:
    """Prints a line for each thing looked at; returns 0 when nothing is bad, else 1."""
    if arguments:
        print("uchuu doctor takes no arguments; UCHUU_HOME and DATABASE_URL say what it looks at.", file=sys.stderr)
        return 2
    worst = 0
    for look in LOOKS:
        for finding in look(home()):
            sign = {GOOD: "  ", WORTH_A_LOOK: "? ", BAD: "! "}[finding.state]
            print(sign + finding.text + (f"\n    → {finding.mend}" if finding.mend else ""))
            worst = max(worst, finding.state == BAD)
    return int(worst)


def _the_home(folder: Path) -> Iterator[Finding]:
    if not folder.is_dir():
        yield Finding(BAD, f"There is no home {folder}.", "./uchuu start makes it, or set UCHUU_HOME.")
        return
    if not os.access(folder, os.W_OK):
        yield Finding(BAD, f"The home {folder} can't be written.", "Give it to the account that starts Uchuu.")
    else:
        yield Finding(GOOD, f"The home is {folder}.")
    free = shutil.disk_usage(folder).free
    if free < LITTLE_SPACE:
        yield Finding(BAD, f"Only {free // 2**20} MB are free there.", "Free some space, or move the home.")
    else:
        yield Finding(GOOD, f"{free // 2**30} GB are free there.")
    key = folder / "secret-key"
    if "UCHUU_SECRET" in os.environ:
        yield Finding(GOOD, "The secret key comes from UCHUU_SECRET.")
    elif not key.is_file():
        yield Finding(
            BAD, "The secret key is missing: everybody would be logged out.", "./uchuu start makes a new one."
        )
    elif key.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO):
        yield Finding(BAD, "The secret key can be read by others.", f"chmod 600 {key}")
    else:
        yield Finding(GOOD, "The secret key is there, for its owner alone.")


def _the_programs(_: Path) -> Iterator[Finding]:
    if "DATABASE_URL" in os.environ:
        yield Finding(GOOD, "The database is that of DATABASE_URL.")
    try:
        yield Finding(GOOD, f"PostgreSQL's programs are in {programs()}.")
    except PostgresError as problem:
        yield Finding(BAD, str(problem), "Without them no database of its own, no backup.")
    built = (front.DIST / "index.html").is_file()
    yield (
        Finding(GOOD, "The front end is built.")
        if built
        else Finding(WORTH_A_LOOK, "The front end is not built yet.", "./uchuu start builds it.")
    )


def _the_database(folder: Path) -> Iterator[Finding]:
    url = os.environ.get("DATABASE_URL", "")
    if not url:
        cluster = Cluster(folder / "pg")
        if not (cluster.data / "PG_VERSION").is_file():
            yield Finding(WORTH_A_LOOK, "There is no data yet.", "./uchuu start makes it.")
            return
        if not cluster.is_running():
            yield Finding(WORTH_A_LOOK, "The database does not run just now.", "./uchuu start starts it.")
            return
        try:
            cluster.start()  # joins the one that runs
            url = cluster.url(database_name(folder))
        except PostgresError as problem:
            yield Finding(BAD, str(problem))
            return
    try:
        with psycopg.connect(url, connect_timeout=3) as connection:
            yield Finding(GOOD, f"The database answers (PostgreSQL {connection.info.server_version // 10000}).")
            yield from _its_clock(connection)
            yield from _its_version(connection)
            yield from _its_marks(connection)
    except psycopg.Error as problem:
        reason = str(problem).strip().splitlines()[-1]
        yield Finding(BAD, f"The database does not answer: {reason}", "Is it started, is the address right?")


def _its_clock(connection: psycopg.Connection[tuple[object, ...]]) -> Iterator[Finding]:
    row = connection.execute("SELECT extract(epoch FROM clock_timestamp())::float8").fetchone()
    apart = abs(float(str(row[0])) - time.time()) if row else 0.0
    if apart > CLOCKS_APART:
        yield Finding(
            BAD, f"The clocks of this machine and the database are {apart:.0f} s apart.", "Set them by a time server."
        )
    else:
        yield Finding(GOOD, "Its clock agrees with this machine's.")


def _its_version(connection: psycopg.Connection[tuple[object, ...]]) -> Iterator[Finding]:
    lacking, newer = about_migrations(connection)
    if newer:
        yield Finding(BAD, f"The data was written by a newer Uchuu ({', '.join(newer)}).", "Start that version.")
    elif lacking:
        yield Finding(
            WORTH_A_LOOK,
            f"The data is older than this version ({len(lacking)} steps).",
            "./uchuu start brings it up to date, after a backup.",
        )
    else:
        yield Finding(GOOD, "The data fits this version.")


def _its_marks(connection: psycopg.Connection[tuple[object, ...]]) -> Iterator[Finding]:
    lacking, newer = about_migrations(connection)
    if lacking or newer:
        return
    row = connection.execute(NOT_AS_DECIDED).fetchone()
    apart = int(str(row[0])) if row else 0
    if apart:
        yield Finding(
            BAD,
            f"{apart} marks are not what was decided last.",
            "Look at the log of their sets, and decide them again; tell who looks after Uchuu.",
        )
    else:
        yield Finding(GOOD, "Every mark is what was decided last.")


def _the_server(folder: Path) -> Iterator[Finding]:
    noted = folder / SERVED_AT
    # that of this home, where it runs; another may stand on the usual port
    port = noted.read_text(encoding="ascii").strip() if noted.is_file() else os.environ.get("UCHUU_PORT", "8000")
    try:
        with urlopen(f"http://127.0.0.1:{port}/readyz", timeout=8) as answer:
            yield Finding(GOOD, f"A server answers on port {port} and is ready.")
            for line in answer.read().decode(errors="replace").splitlines():
                if line != "ready":  # of the queue
                    yield Finding(BAD, line)
    except HTTPError as refused:
        said = refused.read().decode(errors="replace").strip().replace("\n", " ")
        yield Finding(BAD, f"What answers on port {port} is not ready: {said or refused.code}", "Its log says more.")
    except (URLError, OSError):
        yield Finding(WORTH_A_LOOK, f"Nothing answers on port {port}.", "./uchuu start, or set UCHUU_PORT to its port.")


def _the_backups(folder: Path) -> Iterator[Finding]:
    found = sorted((folder / "backups").glob("*.uchuu"), key=lambda path: path.stat().st_mtime)
    if not found:
        yield Finding(
            WORTH_A_LOOK,
            "There is no backup in the home.",
            "./uchuu start --nightly-backup, or ./uchuu backup FILE to another disk.",
        )
        return
    age = datetime.now(UTC) - datetime.fromtimestamp(found[-1].stat().st_mtime, UTC)
    text = f"The last backup in the home, {found[-1].name}, is {age.days} days old."
    yield (
        Finding(WORTH_A_LOOK, text, "./uchuu backup --nightly takes one now.")
        if age.days > OLD_BACKUP_DAYS
        else Finding(GOOD, text)
    )


def _the_outside(_: Path) -> Iterator[Finding]:
    if os.environ.get("UCHUU_HOSTS") and os.environ.get("UCHUU_HTTPS") != "1":
        yield Finding(
            BAD,
            "UCHUU_HOSTS names hosts, but UCHUU_HTTPS is not 1: passwords would go in the clear.",
            "Put it behind a proxy with HTTPS and set UCHUU_HTTPS=1.",
        )


LOOKS: tuple[Callable[[Path], Iterator[Finding]], ...] = (
    _the_home,
    _the_programs,
    _the_database,
    _the_server,
    _the_backups,
    _the_outside,
)
