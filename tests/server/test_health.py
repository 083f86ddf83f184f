"""What a proxy, a technician and the start command ask: is it alive, is it ready, is there such a page."""

import re

import pytest
from django.core.management import CommandError, call_command
from django.db import OperationalError, connection
from django.test import override_settings

from server.common.release import RELEASE
from server.config import health, urls
from server.sheets import services
from tools.front import WEB

pytestmark = pytest.mark.django_db


def record(name):
    with connection.cursor() as cursor:
        cursor.execute("insert into django_migrations (app, name, applied) values ('sheets', %s, now())", [name])


def forget_the_last():
    with connection.cursor() as cursor:
        cursor.execute(
            "delete from django_migrations where id = (select max(id) from django_migrations where app = 'sheets')"
        )


class TestHealth:
    def test_a_server_that_is_well(self, client):
        assert client.get("/healthz").content == f"alive {RELEASE}\n".encode()
        answer = client.get("/readyz")
        assert (answer.status_code, answer.content) == (200, b"ready\n")

    @pytest.mark.parametrize(
        ("ago", "worker", "told"),
        [(90, False, True), (90, True, False), (30, False, False)],
        ids=["nobody", "somebody", "not-long"],
    )
    def test_jobs_that_nobody_takes_are_said(self, client, ago, worker, told):
        with connection.cursor() as cursor:
            cursor.execute(
                "SELECT procrastinate_defer_jobs_v1(ARRAY[ROW('uchuu', 'x', 0, "
                "NULL, NULL, '{}'::jsonb, NULL)::procrastinate_job_to_defer_v1])"
            )
            cursor.execute("UPDATE procrastinate_events SET at = now() - make_interval(secs => %s)", [ago])
            if worker:
                cursor.execute("INSERT INTO procrastinate_workers DEFAULT VALUES")
        answer = client.get("/readyz")
        assert (answer.status_code, b"1 jobs wait, and no worker takes them" in answer.content) == (200, told)
        figures = client.get("/metrics").content.decode()
        assert 'uchuu_jobs{state="waiting"} 1.0' in figures
        assert f"uchuu_workers {float(worker)}" in figures

    def test_data_of_a_newer_version(self, client):
        record("9999_from_tomorrow")
        answer = client.get("/readyz")
        assert answer.status_code == 503
        assert b"newer Uchuu (sheets.9999_from_tomorrow)" in answer.content
        with pytest.raises(CommandError, match=r"sheets\.9999_from_tomorrow"):
            call_command("upgrade")

    def test_data_of_an_older_version(self, client):
        forget_the_last()
        answer = client.get("/readyz")
        assert answer.status_code == 503
        assert b"The database lacks sheets." in answer.content

    def test_a_database_of_this_version_needs_nothing(self):
        call_command("upgrade")

    def test_without_a_database_it_lives_but_is_not_ready(self, client, monkeypatch):
        def gone():
            raise OperationalError("connection refused")

        monkeypatch.setattr(health, "unfit", gone)
        assert client.get("/healthz").status_code == 200
        answer = client.get("/readyz")
        assert (answer.status_code, answer.content) == (503, b"The database does not answer.\n")

    def test_only_what_reads_is_answered(self, client):
        assert client.post("/healthz").status_code == 405

    @override_settings(SECURE_SSL_REDIRECT=True)
    def test_behind_https_they_are_asked_without_it(self, client):
        assert [client.get(path).status_code for path in ("/healthz", "/readyz", "/")] == [200, 200, 301]


class TestDatabaseThatDoesNotAnswer:
    def test_the_api_says_so(self, api, monkeypatch):
        def gone(*_):
            raise OperationalError("connection refused")

        monkeypatch.setattr(services, "create_sheet", gone)
        answer = api.send("POST", "/api/sheets", {"title": "Tides"})
        assert answer.status_code == 503
        assert answer.json()["code"] == "unavailable"
        assert "refused" not in answer.json()["detail"]


class TestPages:
    @pytest.fixture(autouse=True)
    def built(self, tmp_path, settings):
        settings.WEB_DIST = tmp_path
        (tmp_path / "index.html").write_text("<p>the page</p>")

    @pytest.mark.parametrize(
        "path", ["", "keys", "log-in", "sheets/12", "sheets/12/3", "sheets/12/3/board", "sheets/12/"]
    )
    def test_a_screen(self, client, path):
        assert client.get(f"/{path}").status_code == 200

    @pytest.mark.parametrize(
        "path", ["nothing", "sheets", "sheets/x", "sheets/1/2/nothing", "keys/2", ".env", "admin/"]
    )
    def test_no_screen(self, client, path):
        answer = client.get(f"/{path}")
        assert answer.status_code == 404
        assert b"the page" in answer.content

    def test_every_path_of_the_router_is_a_screen(self):
        paths = re.findall(r"path: '/(.*?)',\s+name:", (WEB / "src" / "router.ts").read_text())
        assert len(paths) >= 4
        for path in paths:
            # a number for what is one, else the first of the words that may stand there
            example = re.sub(
                r":\w+\((.*?)\)\??", lambda found: "1" if r"\d" in found[1] else found[1].split("|")[0], path
            )
            assert urls.SCREENS.fullmatch(example), path
