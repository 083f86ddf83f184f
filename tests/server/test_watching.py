"""What a technician sees of a running server: logs with ids and without people, and figures for a monitor."""

import json
import logging
import sys

import pytest

from server.common import logs
from tests.server.conftest import Api

pytestmark = pytest.mark.django_db


@pytest.fixture
def told():
    """The lines that are logged while a test runs."""
    lines = []

    class Keep(logging.Handler):
        def emit(self, record):
            lines.append(json.loads(logs.JsonLines().format(record)))

    handler = Keep()
    logs.requests.addHandler(handler)
    level = logs.requests.level
    logs.requests.setLevel(logging.INFO)
    yield lines
    logs.requests.setLevel(level)
    logs.requests.removeHandler(handler)


class TestLogs:
    def test_every_answer_carries_the_id_under_which_it_is_logged(self, api, problem, told):
        answer = api.get(f"/api/problems/{problem.pk}")
        (line,) = told
        assert line["request"] == answer.headers["X-Request-ID"]
        assert (line["method"], line["status"], line["text"], line["level"]) == ("GET", 200, "answered", "info")
        assert line["route"] == "/api/problems/<int:problem_id>"
        assert line["ms"] >= 0

    @pytest.mark.parametrize(
        ("given", "kept"), [("proxy-12345678", True), ("x", False), ("a b\nc d e f g", False), ("é" * 9, False)]
    )
    def test_an_id_from_a_proxy_is_kept_when_it_is_one(self, client, given, kept):
        answer = client.get("/healthz", headers={"X-Request-ID": given})
        assert (answer.headers["X-Request-ID"] == given) is kept
        assert len(answer.headers["X-Request-ID"]) >= 8

    def test_nothing_of_a_working_or_a_person_is_logged(self, api, problem, told, monkeypatch):
        monkeypatch.setattr(logs, "SLOW", 0)
        api.send("PUT", f"/api/problems/{problem.pk}/lines", {"revision": 0, "lines": ["x = 6173"]})
        api.send("POST", "/api/account/log-in", {"username": "maren", "password": "wrong-lamp-oil"})
        api.get("/api/sheets?search=tides")
        text = json.dumps(told)
        assert len(told) == 3
        for secret in ("6173", "maren", "lamp-oil", "tides", "Quadratics"):
            assert secret not in text

    def test_what_is_slow_is_a_warning_with_the_number_of_its_problem(self, api, problem, told, monkeypatch):
        monkeypatch.setattr(logs, "SLOW", 0)
        api.get(f"/api/problems/{problem.pk}")
        assert (told[0]["level"], told[0]["text"], told[0]["problem_id"]) == ("warning", "slow", problem.pk)

    def test_pages_are_not_logged_one_by_one(self, client, told):
        client.get("/healthz")
        assert told == []

    def test_a_failure_is_logged_with_its_trace_on_one_line(self):
        try:
            raise ValueError("lamp")
        except ValueError:
            record = logging.getLogger("x").makeRecord(
                "x", logging.ERROR, "f", 1, "It failed: %s", ("oil",), sys.exc_info()
            )
        line = logs.JsonLines().format(record)
        assert "\n" not in line
        assert json.loads(line)["text"] == "It failed: oil"
        assert "ValueError: lamp" in json.loads(line)["trace"]


class TestFigures:
    def test_answers_are_counted_by_route_and_status(self, api, problem, client):
        def count():
            wanted = 'uchuu_answers_total{method="GET",route="/api/problems/<int:problem_id>",status="404"}'
            lines = client.get("/metrics").content.decode().splitlines()
            return next((float(line.rpartition(" ")[2]) for line in lines if line.startswith(wanted)), 0.0)

        before = count()
        for _ in range(3):
            api.get("/api/problems/999999")
        assert count() == before + 3

    @pytest.mark.parametrize("how", [{"REMOTE_ADDR": "10.0.0.7"}, {"HTTP_X_FORWARDED_FOR": "10.0.0.7"}])
    def test_they_are_told_on_this_machine_only(self, client, how):
        answer = client.get("/metrics", **how)
        assert (answer.status_code, answer.content) == (404, b"")


def test_what_the_api_says_is_kept_by_no_browser_or_proxy(api, problem):
    for path in (
        "/api/sheets",
        f"/api/problems/{problem.pk}",
        "/api/account/session",
        "/api/problems/0",
        "/api/nothing",
    ):
        assert api.get(path).headers["Cache-Control"] == "no-store", path


@pytest.mark.parametrize("path", ["/api/openapi.json", "/api/docs", "/.built-from", "/assets/../.built-from", "/.env"])
def test_what_should_not_be_served_is_not(path):
    assert Api().get(path).status_code == 404
