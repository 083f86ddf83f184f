"""Backups: taken while it runs, whole or not at all, brought back the same; nothing that can't be read is brought
back."""

import json
import os
import subprocess
import sys
import tempfile
import zipfile
from datetime import UTC, datetime, timedelta
from hashlib import sha256
from pathlib import Path

import psycopg
import pytest

from tools import backup, doctor, installation, start
from tools.installation import ROOT, with_database
from tools.postgres import SERVED, Cluster, let_serve
from tools.testing import settings_env

FIXTURE = Path(__file__).parents[1] / "fixtures" / "version-15.uchuu"
"""A backup of version 15: the demo data, a set with every form of item, marks decided and taken back."""


@pytest.fixture(scope="module")
def cluster(tmp_path_factory):
    with tempfile.TemporaryDirectory() as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "pg", fast=True)
        cluster.start()
        yield cluster
        cluster.stop()


@pytest.fixture(scope="module")
def filled(cluster):
    """A database with what version 15 kept, brought up to date."""
    url = cluster.url("harbour")
    before = dict(os.environ)
    os.environ.update(settings_env(url))
    backup.bring_back(FIXTURE, url)
    yield url
    os.environ.clear()
    os.environ.update(before)


@pytest.fixture
def kept(filled, tmp_path):
    return backup.take(filled, tmp_path / "all.uchuu")


def everything(url):
    """All rows of all tables, as text."""
    with psycopg.connect(url) as connection:
        return {
            table: sorted(map(repr, connection.execute(f'SELECT * FROM "{table}"').fetchall()))
            for table in backup.rows_of(connection)
        }


def test_what_comes_back_is_all_of_it_and_the_same(cluster, filled, kept):
    back = cluster.url("back")
    backup.bring_back(kept, back)
    assert everything(back) == everything(filled)
    with psycopg.connect(back) as connection:  # and numbers go on after the last
        new = connection.execute(
            "INSERT INTO auth_user (username, password, is_superuser, "
            "first_name, last_name, email, is_staff, is_active, date_joined) "
            "VALUES ('new', '', false, '', '', '', false, true, now()) RETURNING id"
        ).fetchone()[0]
    assert new > 2


def test_it_says_what_it_holds_and_is_for_its_owner_alone(kept):
    told = backup.about(kept)
    assert told.rows["auth_user"] == 2
    assert "accounts.0002_people" in told.migrations
    assert kept.stat().st_mode & 0o077 == 0
    assert backup.counted(told.rows).startswith("2 people, ")


def test_it_is_of_one_moment_though_somebody_writes(filled, tmp_path, monkeypatch):
    real = backup.rows_of

    def counted_while_written(connection):
        found = real(connection)
        with psycopg.connect(filled) as other:
            other.execute("INSERT INTO accounts_happening (\"when\", who, what, whom) VALUES (now(), 'x', 'y', 'z')")
        return found

    monkeypatch.setattr(backup, "rows_of", counted_while_written)
    path = backup.take(filled, tmp_path / "moment.uchuu")
    monkeypatch.setattr(backup, "rows_of", real)
    with psycopg.connect(filled) as connection:
        assert backup.rows_of(connection)["accounts_happening"] == backup.about(path).rows["accounts_happening"] + 1


class TestErased:
    @pytest.fixture
    def erased(self, filled):
        """Somebody of the data is erased, after a backup; the mark that is left."""
        with psycopg.connect(filled) as connection:
            row = connection.execute(
                "SELECT s.id, c.created FROM marking_student s JOIN marking_schoolclass c ON c.id = s.school_class_id "
                "JOIN marking_paper p ON p.student_id = s.id ORDER BY s.id LIMIT 1"
            ).fetchone()
        return row[0], sha256(f"{row[0]} {row[1].astimezone(UTC).isoformat()}".encode()).hexdigest()

    def test_who_was_erased_since_is_erased_again_with_every_paper(self, cluster, filled, kept, erased, capfd):
        student, mark = erased
        back = cluster.url("erased_again")
        backup.bring_back(kept, back, ["0" * 64, mark])
        assert "1 students who had been erased since" in capfd.readouterr().out
        with psycopg.connect(back) as connection, psycopg.connect(filled) as before:
            count = "SELECT count(*) FROM marking_paper WHERE student_id = %s"
            assert before.execute(count, [student]).fetchone()[0] > 0
            assert connection.execute(count, [student]).fetchone()[0] == 0
            assert backup.erased_in(connection) == [mark]
            rest = "SELECT count(*) FROM marking_student"
            assert connection.execute(rest).fetchone()[0] == before.execute(rest).fetchone()[0] - 1

    def test_it_is_known_from_later_backups_and_from_what_is_served(self, cluster, filled, kept, erased, tmp_path):
        _, mark = erased
        later = cluster.url("later")
        backup.bring_back(kept, later, [mark])
        (tmp_path / "backups").mkdir()
        (tmp_path / "backups" / "broken.uchuu").write_bytes(b"no zip")
        assert backup.erased_since(tmp_path, []) == set()
        assert backup.erased_since(tmp_path, [later, "postgresql://a:b@127.0.0.1:1/x"]) == {mark}
        backup.take(later, tmp_path / "backups" / "nightly.uchuu")
        assert backup.erased_since(tmp_path, []) == {mark}


class TestRefusals:
    def refused(self, path, url, words):
        with pytest.raises(backup.BackupError, match=words):
            backup.bring_back(path, url)

    def test_a_database_that_holds_something(self, filled, kept):
        before = everything(filled)
        self.refused(kept, filled, "is not empty")
        assert everything(filled) == before

    def test_a_backup_of_a_newer_version(self, cluster, kept, tmp_path):
        newer = tmp_path / "newer.uchuu"
        with zipfile.ZipFile(kept) as old, zipfile.ZipFile(newer, "w") as new:
            told = json.loads(old.read(backup.ABOUT))
            told["migrations"].append("sheets.9999_from_tomorrow")
            new.writestr(backup.ABOUT, json.dumps(told))
            new.writestr(backup.DUMP, old.read(backup.DUMP))
        self.refused(newer, cluster.url("newer"), r"newer Uchuu \(sheets\.9999_from_tomorrow\)")

    @pytest.mark.parametrize("content", [b"", b"nothing of the kind", b"PK\x05\x06" + bytes(18)])
    def test_a_file_that_is_none(self, cluster, tmp_path, content):
        path = tmp_path / "none.uchuu"
        path.write_bytes(content)
        self.refused(path, cluster.url("none"), "is no backup of Uchuu")

    def test_a_file_that_is_damaged_or_cut_off(self, cluster, kept, tmp_path):
        whole = bytearray(kept.read_bytes())
        whole[len(whole) // 2] ^= 0xFF
        damaged, short = tmp_path / "damaged.uchuu", tmp_path / "short.uchuu"
        damaged.write_bytes(whole)
        short.write_bytes(kept.read_bytes()[:-200])
        url = cluster.url("damaged")
        self.refused(damaged, url, "is damaged|is no backup")
        self.refused(short, url, "is no backup")
        with psycopg.connect(url) as connection:
            assert backup.rows_of(connection) == {}

    def test_a_form_of_another_time_and_no_file(self, cluster, kept, tmp_path):
        other = tmp_path / "other.uchuu"
        with zipfile.ZipFile(other, "w") as new:
            new.writestr(backup.ABOUT, json.dumps({"form": 2, "taken": "", "migrations": [], "rows": {}}))
            new.writestr(backup.DUMP, b"")
        self.refused(other, cluster.url("other"), "form that this version does not know")
        self.refused(tmp_path / "missing.uchuu", cluster.url("other"), "There is no file")

    def test_where_it_cannot_be_written(self, filled, tmp_path):
        with pytest.raises(backup.BackupError, match="There is no folder"):
            backup.take(filled, tmp_path / "no" / "such" / "all.uchuu")
        (tmp_path / "all.uchuu").mkdir()
        with pytest.raises(backup.BackupError, match="can't be written"):
            backup.take(filled, tmp_path / "all.uchuu")


class TestNights:
    def test_those_of_two_weeks_are_kept_and_others_files_left_alone(self, filled, tmp_path):
        today = datetime(2031, 5, 20, 4, tzinfo=UTC)
        place = tmp_path / "backups"
        place.mkdir()
        for name in [f"nightly-{today - timedelta(days=k):%Y-%m-%d}.uchuu" for k in (14, 15, 40)] + [
            "nightly-mine.uchuu",
            "before.uchuu",
        ]:
            (place / name).write_bytes(b"")
        made = backup.nightly(tmp_path, filled, today)
        left = sorted(path.name for path in place.iterdir())
        assert left == ["before.uchuu", "nightly-2031-05-06.uchuu", made.name, "nightly-mine.uchuu"]

    def test_one_a_night_after_three(self, filled, tmp_path, monkeypatch, capsys):
        taken = []
        monkeypatch.setattr(start, "nightly", lambda folder, url: taken.append(url))
        night = start.Nightly(tmp_path, filled)
        night.last = datetime(2031, 5, 19).date()
        for hour, count in ((1, 0), (2, 0), (3, 1), (3, 1), (23, 1)):
            night.look(datetime(2031, 5, 20, hour))
            assert len(taken) == count
        night.look(datetime(2031, 5, 21, 5))
        assert len(taken) == 2

    def test_one_that_fails_is_said_and_the_server_goes_on(self, tmp_path, monkeypatch, capsys):
        def fails(folder, url):
            raise backup.BackupError("The disk is full.")

        monkeypatch.setattr(start, "nightly", fails)
        night = start.Nightly(tmp_path, "")
        night.last = datetime(2031, 5, 19).date()
        night.look(datetime(2031, 5, 20, 4))
        assert "no backup was taken this night: The disk is full." in capsys.readouterr().err


class TestUpgrades:
    def test_data_is_kept_before_it_is_changed_and_only_then(self, cluster, filled, tmp_path):
        assert backup.before_upgrade(tmp_path, filled) is None
        assert backup.before_upgrade(tmp_path, cluster.url("quite_empty")) is None
        with psycopg.connect(filled) as connection:
            connection.execute("DELETE FROM django_migrations WHERE app = 'sheets' AND name LIKE '0003%'")
        try:
            path = backup.before_upgrade(tmp_path, filled)
            assert "sheets.0003_lists_and_copies" not in backup.about(path).migrations
        finally:
            with psycopg.connect(filled) as connection:
                connection.execute(
                    "INSERT INTO django_migrations (app, name, applied) "
                    "VALUES ('sheets', '0003_lists_and_copies', now())"
                )


class TestTheServersRole:
    @pytest.fixture
    def served(self, cluster, filled):
        return cluster.url_without_rights("harbour")

    def test_it_reads_and_writes_rows(self, served):
        assert f"//{SERVED}:" in served
        with psycopg.connect(served) as connection:
            connection.execute("UPDATE sheets_sheet SET title = title")
            connection.execute(
                "INSERT INTO accounts_happening (\"when\", who, what, whom) VALUES (now(), 'x', 'y', 'z')"
            )
            assert connection.execute("SELECT count(*) FROM django_migrations").fetchone()[0] > 10

    @pytest.mark.parametrize(
        "words",
        [
            "CREATE TABLE loot (a int)",
            "DROP TABLE sheets_sheet",
            "ALTER TABLE sheets_sheet ADD a int",
            "TRUNCATE sheets_line",
            "CREATE ROLE thief",
            "CREATE DATABASE loot",
            "SELECT * FROM pg_authid",
            "COPY sheets_sheet TO '/tmp/loot'",
            "SET ROLE uchuu",
            "DELETE FROM django_migrations",
            "CREATE SCHEMA loot",
            "SELECT pg_read_file('/etc/passwd')",
        ],
    )
    def test_it_may_do_nothing_else(self, served, words):
        with (
            psycopg.connect(served, autocommit=True) as connection,
            pytest.raises(psycopg.errors.InsufficientPrivilege),
        ):
            connection.execute(words)

    def test_its_password_stays_and_is_for_the_owner_alone(self, cluster, served):
        assert cluster.url_without_rights("harbour") == served
        assert (cluster.folder / "password-of-the-server").stat().st_mode & 0o077 == 0


class TestAGivenDatabase:
    """One whose owner's role and whose server's role are told by two addresses."""

    @pytest.fixture
    def addresses(self, cluster, filled, monkeypatch):
        served = filled.replace(filled.split("//")[1].split("@")[0], "desk_app:a%2Fword")
        monkeypatch.setenv("DATABASE_URL", served)
        monkeypatch.setenv("UCHUU_OWNER_URL", filled)
        return filled, served

    def test_its_server_gets_the_rows_and_a_role_of_the_name_that_is_given(self, addresses):
        owner, served = addresses
        let_serve(owner, served)
        let_serve(owner, served)
        with psycopg.connect(served, autocommit=True) as connection:
            assert connection.execute("SELECT current_user").fetchone() == ("desk_app",)
            connection.execute("UPDATE sheets_sheet SET title = title")
            with pytest.raises(psycopg.errors.InsufficientPrivilege):
                connection.execute("ALTER TABLE sheets_sheet ADD a int")

    def test_commands_take_the_owner_and_leave_the_address_as_it_was(self, addresses, tmp_path):
        owner, served = addresses
        let_serve(owner, served)
        (tmp_path / "secret-key").write_text("x")
        with with_database(tmp_path) as url:
            assert url == owner == os.environ["DATABASE_URL"]
        assert os.environ["DATABASE_URL"] == served

    def test_what_serves_is_not_told_the_owner(self, addresses, tmp_path, monkeypatch):
        begun = []
        monkeypatch.setattr(installation.subprocess, "Popen", lambda *_, **more: begun.append(more["env"]))
        monkeypatch.setattr(installation, "service_account", lambda: "")
        installation.served(["desk"], addresses[1], tmp_path, {})
        assert "UCHUU_OWNER_URL" not in begun[0] and begun[0]["DATABASE_URL"] == addresses[1]

    def test_a_role_of_rows_says_whom_an_upgrade_needs(self, addresses):
        owner, served = addresses
        let_serve(owner, served)
        with psycopg.connect(owner) as connection:
            connection.execute("DELETE FROM django_migrations WHERE app = 'jobs' AND name LIKE '0002%'")
        try:
            done = subprocess.run(
                [sys.executable, "manage.py", "upgrade"],
                cwd=ROOT,
                env=os.environ | {"DATABASE_URL": served},
                capture_output=True,
                text=True,
                check=False,
            )
            assert done.returncode != 0 and "UCHUU_OWNER_URL" in done.stderr and "Traceback" not in done.stderr
        finally:
            with psycopg.connect(owner) as connection:
                connection.execute(
                    "INSERT INTO django_migrations (app, name, applied) VALUES ('jobs', '0002_kept_answers', now())"
                )


class TestDoctor:
    def findings(self, folder):
        return [finding for look in doctor.LOOKS for finding in look(folder)]

    def test_a_home_in_order(self, filled, tmp_path):
        (tmp_path / "secret-key").write_text("x")
        (tmp_path / "secret-key").chmod(0o600)
        backup.nightly(tmp_path, filled)
        bad = [finding.text for finding in self.findings(tmp_path) if finding.state == doctor.BAD]
        assert bad == []

    @pytest.mark.parametrize(
        ("change", "words"),
        [
            (lambda home, env: home.rmdir(), "There is no home"),
            (lambda home, env: env.setattr(doctor, "LITTLE_SPACE", 2**60), "MB are free"),
            (lambda home, env: env.delenv("UCHUU_SECRET"), "secret key is missing"),
            (lambda home, env: env.setenv("DATABASE_URL", "postgresql://a:b@127.0.0.1:1/x"), "does not answer"),
            (lambda home, env: env.setattr(doctor, "CLOCKS_APART", -1), "clocks of this machine"),
            (lambda home, env: env.setenv("UCHUU_HOSTS", "desk.example"), "in the clear"),
            (lambda home, env: env.setattr(doctor, "NOT_AS_DECIDED", "SELECT 3"), "3 marks are not what was decided"),
        ],
    )
    def test_what_is_wrong_is_named_with_what_mends_it(self, filled, tmp_path, monkeypatch, change, words):
        home = tmp_path / "home"
        home.mkdir()
        change(home, monkeypatch)
        found = [finding for finding in self.findings(home) if words in finding.text]
        assert len(found) == 1
        assert found[0].state == doctor.BAD
        assert found[0].mend

    def test_it_says_so_in_its_status(self, filled, tmp_path, monkeypatch, capsys):
        monkeypatch.setenv("UCHUU_HOME", str(tmp_path))
        assert doctor.main([]) == 0
        monkeypatch.setattr(doctor, "LITTLE_SPACE", 2**60)
        assert doctor.main([]) == 1
        assert "! Only" in capsys.readouterr().out
        assert doctor.main(["x"]) == 2
