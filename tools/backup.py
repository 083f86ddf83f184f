"""`./uchuu backup FILE` and `./uchuu restore FILE`: all data in one file, taken while the server runs.

The file is a zip of two members: `uchuu.json`, which says what it is, of which version and what it holds, and
`data.dump`, PostgreSQL's own compressed form, taken in one transaction. Who has the file has everybody's work: it is
written for its owner's eyes only.
"""

from __future__ import annotations

import argparse
import json
import os
import subprocess
import sys
import tempfile
import zipfile
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import NamedTuple
from urllib.parse import unquote, urlsplit, urlunsplit

import psycopg
from psycopg import sql

from tools.installation import ROOT, StartError, database_name, home, manage, with_database
from tools.postgres import PostgresError, programs

FORM = 1
ABOUT, DUMP = "uchuu.json", "data.dump"
KEPT_DAYS = 14


class About(NamedTuple):
    """What a backup says of itself: when it was taken, the migrations of its data, how many rows each table has."""

    taken: str
    migrations: list[str]
    rows: dict[str, int]
    erased: list[str]


class BackupError(RuntimeError):
    """Why a backup can't be taken or brought back: a sentence for people."""


def backup_command(arguments: list[str]) -> int:
    """`./uchuu backup`; returns 0, or 3 with a sentence."""
    parser = argparse.ArgumentParser(prog="uchuu backup", description="All data in one file, while the server runs.")
    parser.add_argument("file", nargs="?", type=Path, help="left out with --nightly")
    parser.add_argument(
        "--nightly",
        action="store_true",
        help=f"into backups/ of the home, where those of the last {KEPT_DAYS} days are kept",
    )
    options = parser.parse_args(arguments)
    if (options.file is None) != options.nightly:
        parser.error("name a file, or say --nightly")
    with _told():
        with with_database() as url:
            path = nightly(home(), url) if options.nightly else take(url, options.file)
        print(f"uchuu: {path} holds {counted(about(path).rows)}")
        return 0
    return 3


def restore_command(arguments: list[str]) -> int:
    """`./uchuu restore`; returns 0, or 3 with a sentence."""
    parser = argparse.ArgumentParser(prog="uchuu restore", description="Brings the data of a backup back.")
    parser.add_argument("file", type=Path)
    parser.add_argument(
        "--into", metavar="DATABASE", help="another database of the cluster, made if it is missing; it must be empty"
    )
    options = parser.parse_args(arguments)
    with _told():
        told, given = about(options.file), dict(os.environ)
        with with_database(name=options.into or "") as url:
            into = _named(url, options.into) if options.into else url
            own = [_named(url, database_name(home()))] if "DATABASE_URL" not in given else [url]
            bring_back(options.file, into, erased_since(home(), own))
        print(f"uchuu: {counted(told.rows)} of {told.taken} are back")
        return 0
    return 3


@contextmanager
def _told() -> Iterator[None]:
    try:
        yield
    except (BackupError, PostgresError, StartError) as problem:
        print(f"uchuu: {problem}", file=sys.stderr)
    except subprocess.CalledProcessError:
        pass  # the command that failed has said why


def counted(rows: dict[str, int]) -> str:
    """What a backup holds, in words."""
    names = {"auth_user": "people", "sheets_sheet": "sheets", "sheets_problem": "problems", "sheets_line": "lines"}
    return ", ".join(f"{rows.get(table, 0)} {words}" for table, words in names.items())


def take(url: str, path: Path) -> Path:
    """Writes a backup of a database; the file appears only when it is whole. Raises BackupError."""
    path = path.resolve()
    if not path.parent.is_dir():
        raise BackupError(f"There is no folder {path.parent}.")
    with tempfile.TemporaryDirectory(prefix="uchuu-backup-") as folder, psycopg.connect(url) as connection:
        # the counts and the dump are of one and the same moment
        connection.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
        found = connection.execute("SELECT pg_export_snapshot()").fetchone()
        snapshot = str(found[0]) if found else ""
        told = {
            "form": FORM,
            "taken": datetime.now(UTC).isoformat(timespec="seconds"),
            "migrations": _migrations(connection),
            "server": connection.info.server_version // 10000,
            "rows": rows_of(connection),
            "erased": erased_in(connection),
        }
        dump = Path(folder) / DUMP
        _run(
            "pg_dump",
            url,
            "--format=custom",
            "--no-owner",
            "--no-privileges",
            f"--snapshot={snapshot}",
            f"--file={dump}",
        )
        part = path.with_name(path.name + ".part")
        try:
            handle = os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
            with os.fdopen(handle, "wb") as out, zipfile.ZipFile(out, "w") as whole:
                whole.writestr(ABOUT, json.dumps(told, indent=1))
                whole.write(dump, DUMP)
                out.flush()
                os.fsync(out.fileno())
            part.replace(path)
        except OSError as problem:
            part.unlink(missing_ok=True)
            raise BackupError(f"{path} can't be written ({problem.strerror}). Nothing was changed.") from problem
    return path


def about(path: Path) -> About:
    """What a backup says of itself. Raises BackupError for a file that is none, is broken, or is of a form not known
    here."""
    try:
        with zipfile.ZipFile(path) as whole:
            broken = whole.testzip()
            if broken:
                raise BackupError(f"{path} is damaged at {broken}. Nothing was changed.")
            told = json.loads(whole.read(ABOUT))
            whole.getinfo(DUMP)
            if told["form"] != FORM:
                raise BackupError(f"{path} has a form that this version does not know. Nothing was changed.")
            erased = [str(mark) for mark in told.get("erased", [])]
            return About(str(told["taken"]), list(told["migrations"]), dict(told["rows"]), erased)
    except FileNotFoundError as problem:
        raise BackupError(f"There is no file {path}.") from problem
    except (OSError, zipfile.BadZipFile, KeyError, ValueError, TypeError) as problem:
        raise BackupError(f"{path} is no backup of Uchuu, or it is damaged. Nothing was changed.") from problem


def erased_in(connection: psycopg.Connection[tuple[object, ...]]) -> list[str]:
    """The marks of students who were erased from this data; see server/marking/erasing.py."""
    if connection.execute("SELECT to_regclass('marking_erased')").fetchone() == (None,):
        return []
    return [str(row[0]) for row in connection.execute("SELECT mark FROM marking_erased ORDER BY mark").fetchall()]


def erased_since(folder: Path, urls: Iterable[str]) -> set[str]:
    """Who is known to have been erased: by the backups of a home, and by these databases where they are there."""
    found: set[str] = set()
    for path in (folder / "backups").glob("*.uchuu"):
        try:
            found.update(about(path).erased)
        except BackupError:
            continue  # a broken one keeps nobody from bringing a sound one back
    for url in urls:
        try:
            with psycopg.connect(url, connect_timeout=3) as connection:
                found.update(erased_in(connection))
        except psycopg.Error:
            continue
    return found


def bring_back(path: Path, url: str, erased: Iterable[str] = ()) -> None:
    """Puts the data of a backup into an empty database, all or nothing, brings it up to date, and erases again who was
    `erased` since. Raises BackupError."""
    told = about(path)
    unknown = sorted(set(told.migrations) - set(_own_migrations()))
    if unknown:
        raise BackupError(f"{path} was taken by a newer Uchuu ({', '.join(unknown)}). Nothing was changed.")
    with psycopg.connect(url) as connection:
        tables = connection.execute("SELECT count(*) FROM pg_tables WHERE schemaname = 'public'").fetchone()
        if tables and tables[0]:
            raise BackupError(
                f"The database “{connection.info.dbname}” is not empty. "
                f"Nothing was changed: restore into another with --into."
            )
    with tempfile.TemporaryDirectory(prefix="uchuu-restore-") as folder, zipfile.ZipFile(path) as whole:
        dump = whole.extract(DUMP, folder)
        _run("pg_restore", url, "--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction", dump)
    with psycopg.connect(url) as connection:
        if rows_of(connection) != told.rows:
            raise BackupError(
                "What came back is not what the backup says it holds. Look at the database before you use it."
            )
    before = os.environ.get("DATABASE_URL")
    os.environ["DATABASE_URL"] = url
    try:
        manage("upgrade")
        marks = "\n".join(sorted(set(erased)))
        if marks:
            manage("erase_again", text=marks)
    finally:
        if before is not None:
            os.environ["DATABASE_URL"] = before


def nightly(folder: Path, url: str, today: datetime | None = None) -> Path:
    """A backup into backups/ of the home; those that are older than two weeks go. Raises BackupError."""
    now = today or datetime.now(UTC)
    place = folder / "backups"
    place.mkdir(mode=0o700, exist_ok=True)
    path = take(url, place / f"nightly-{now:%Y-%m-%d}.uchuu")
    for old in place.glob("nightly-*.uchuu"):
        try:
            day = datetime.strptime(old.name, "nightly-%Y-%m-%d.uchuu").replace(tzinfo=UTC)
        except ValueError:
            continue  # another's
        if (now - day).days > KEPT_DAYS:
            old.unlink()
    return path


def before_upgrade(folder: Path, url: str) -> Path | None:
    """A backup of data that this version is about to change; None where there is nothing to change or to lose."""
    with psycopg.connect(url) as connection:
        if connection.execute("SELECT to_regclass('django_migrations')").fetchone() == (None,):
            return None
        done = set(_migrations(connection))
    lacking = set(_own_migrations()) - done
    if not done or not lacking or done - set(_own_migrations()):
        return None
    place = folder / "backups"
    place.mkdir(mode=0o700, exist_ok=True)
    return take(url, place / f"before-upgrade-{datetime.now(UTC):%Y-%m-%d-%H%M%S}.uchuu")


def about_migrations(connection: psycopg.Connection[tuple[object, ...]]) -> tuple[list[str], list[str]]:
    """The migrations that the data lacks, and those that this version does not know."""
    own, done = set(_own_migrations()), set(_migrations(connection))
    return sorted(own - done), sorted(done - own)


def rows_of(connection: psycopg.Connection[tuple[object, ...]]) -> dict[str, int]:
    """How many rows each table holds."""
    tables = [
        str(row[0])
        for row in connection.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY tablename")
    ]
    found = {}
    for table in tables:
        row = connection.execute(sql.SQL("SELECT count(*) FROM {}").format(sql.Identifier(table))).fetchone()
        found[table] = int(str(row[0])) if row else 0
    return found


def _migrations(connection: psycopg.Connection[tuple[object, ...]]) -> list[str]:
    rows = connection.execute("SELECT app, name FROM django_migrations ORDER BY id").fetchall()
    own = set(_own_apps())
    return [f"{app}.{name}" for app, name in rows if app in own]


def _own_apps() -> list[str]:
    return [path.parent.name for path in sorted((ROOT / "server").glob("*/migrations"))]


def _own_migrations() -> list[str]:
    return [
        f"{path.parent.parent.name}.{path.stem}" for path in sorted((ROOT / "server").glob("*/migrations/[0-9]*.py"))
    ]


def _run(program: str, url: str, *arguments: str) -> None:
    """Runs one of PostgreSQL's programs on a database; the password goes by the environment, so that no list of
    processes shows it."""
    parts = urlsplit(url)
    bare = urlunsplit(parts._replace(netloc=f"{parts.username}@{parts.hostname}:{parts.port or 5432}"))
    done = subprocess.run(
        [str(programs() / program), *arguments[:-1], f"--dbname={bare}", arguments[-1]],
        env={**os.environ, "PGPASSWORD": unquote(parts.password or "")},
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode:
        raise BackupError(
            f"{program} failed: {done.stderr.strip().splitlines()[-1] if done.stderr.strip() else done.returncode}"
        )


def _named(url: str, database: str) -> str:
    """The address of another database of the same server, made where it is missing."""
    with psycopg.connect(url, autocommit=True) as connection:
        if not connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", [database]).fetchone():
            connection.execute(sql.SQL("CREATE DATABASE {}").format(sql.Identifier(database)))
    return urlunsplit(urlsplit(url)._replace(path=f"/{database}"))
