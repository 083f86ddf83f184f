"""The API on a real PostgreSQL: what it does, what it refuses, and whose data it shows."""

import json
import os
import subprocess
import sys
from datetime import timedelta
from io import StringIO

import pytest
from axes.models import AccessAttempt
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import IntegrityError, models, transaction
from django.test import Client
from django.utils import timezone

import lanes
from algebra import VERSION, json_object
from server.common.release import RELEASE
from server.sheets import reports
from server.sheets.models import Line, Problem, Sheet, Working
from server.sheets.schemas import ProblemOut
from tests.server.conftest import Api, make_teacher


def test_a_sheet_is_made_worked_on_and_found_again(api):
    sheet = api.send("POST", "/api/sheets", {"title": "  Linear  "}).json()
    assert sheet["title"] == "Linear"
    made = api.send("POST", f"/api/sheets/{sheet['id']}/problems", {"task": "solve", "given": "2(x-1) = 4"}).json()
    lines = ["2x-1 = 4", "2x = 5"]
    saved = api.send("PUT", f"/api/problems/{made['id']}/lines", {"revision": 0, "lines": lines}).json()
    assert ProblemOut.model_validate(saved).model_dump(mode="json", exclude_unset=True) == saved
    assert [link["relation"] for link in saved["report"]["links"]] == ["breaks", "holds"]
    assert saved["lines"][0]["echo"]["left"] == "2x - 1"
    again = api.get(f"/api/problems/{made['id']}").json()
    assert [line["text"] for line in again["lines"]] == lines
    assert again["revision"] == 1
    row = api.get(f"/api/sheets/{sheet['id']}").json()["problems"][0]
    assert [bead["relation"] for bead in row["beads"]] == ["breaks", "holds"]
    assert api.get("/api/sheets").json()["sheets"][0]["faulty"] == 1


def test_lines_are_kept_verbatim_even_when_they_can_not_be_read(api, problem):
    typed = ["x  =  (6", "  sin x", "x = 6 or x = -6 # ±"]
    saved = api.send("PUT", f"/api/problems/{problem.pk}/lines", {"revision": 0, "lines": typed}).json()
    assert [line["text"] for line in saved["lines"]] == typed
    assert list(Line.objects.order_by("position").values_list("text", flat=True)) == typed
    assert [link["relation"] for link in saved["report"]["links"]] == [None, None, "holds"]
    assert saved["lines"][0]["echo"]["error"]["column"] == 9


def test_a_lost_update_is_refused_with_what_stands_now(api, problem):
    url = f"/api/problems/{problem.pk}/lines"
    assert api.send("PUT", url, {"revision": 0, "lines": ["x = ±6"]}).status_code == 200
    refused = api.send("PUT", url, {"revision": 0, "lines": ["x = 7"]})
    assert refused.status_code == 409
    assert refused.json()["lines"] == ["x = ±6"]
    assert refused.json()["revision"] == 1


@pytest.mark.parametrize(
    ("method", "path", "data"),
    [
        ("GET", "/api/sheets/{sheet}", None),
        ("PATCH", "/api/sheets/{sheet}", {"title": "Mine"}),
        ("DELETE", "/api/sheets/{sheet}", None),
        ("PUT", "/api/sheets/{sheet}/order", {"problems": []}),
        ("POST", "/api/sheets/{sheet}/problems", {"task": "solve", "given": "x = 1"}),
        ("GET", "/api/problems/{problem}", None),
        ("PATCH", "/api/problems/{problem}", {"given": "x = 1"}),
        ("POST", "/api/problems/{problem}/copy", None),
        ("DELETE", "/api/problems/{problem}", None),
        ("PUT", "/api/problems/{problem}/lines", {"revision": 0, "lines": []}),
    ],
)
def test_a_teacher_can_neither_read_nor_change_what_belongs_to_another(stranger, problem, method, path, data):
    path = path.format(sheet=problem.sheet_id, problem=problem.pk)
    answer = stranger.get(path) if method == "GET" else stranger.send(method, path, data)
    assert answer.status_code == 404
    assert stranger.get("/api/sheets").json()["sheets"] == []
    problem.refresh_from_db()
    assert (problem.given, problem.sheet.title, Line.objects.count()) == ("x^2 = 36", "Quadratics", 1)
    anonymous = Api()
    answer = anonymous.get(path) if method == "GET" else anonymous.send(method, path, data)
    assert answer.status_code == 401


@pytest.mark.parametrize("path", ["/api/account/log-in", "/api/account/set-up", "/api/sheets", "/api/check"])
def test_every_change_needs_the_csrf_token(api, path):
    client = api.client
    assert client.post(path, {"username": "maren"}, content_type="application/json").status_code == 403


def test_order_copies_and_places_stay_without_gaps(api, problem):
    sheet = problem.sheet_id
    for given in ("x = 1", "x = 2"):
        api.send("POST", f"/api/sheets/{sheet}/problems", {"task": "solve", "given": given})
    copy = api.send("POST", f"/api/problems/{problem.pk}/copy").json()
    assert (copy["position"], [line["text"] for line in copy["lines"]]) == (1, ["x = 6"])
    ids = [row["id"] for row in api.get(f"/api/sheets/{sheet}").json()["problems"]]
    turned = api.send("PUT", f"/api/sheets/{sheet}/order", {"problems": ids[::-1]}).json()
    assert [row["id"] for row in turned["problems"]] == ids[::-1]
    assert api.send("PUT", f"/api/sheets/{sheet}/order", {"problems": ids[1:]}).status_code == 400
    api.send("DELETE", f"/api/problems/{ids[1]}")
    assert list(Problem.objects.order_by("position").values_list("position", flat=True)) == [0, 1, 2]


def test_changing_the_given_judges_the_lines_again(api, problem):
    changed = api.send("PATCH", f"/api/problems/{problem.pk}", {"given": "2x = 12"}).json()
    assert changed["report"]["answer"]["verdict"] == "correct"


def test_conventions_of_a_sheet_reach_the_verdict(api, problem):
    url = f"/api/problems/{problem.pk}"
    api.send("PUT", f"{url}/lines", {"revision": 0, "lines": ["x = ±6"]})
    assert not api.get(url).json()["report"]["finish"]["finished"]
    sheet = f"/api/sheets/{problem.sheet_id}"
    assert api.send("PATCH", sheet, {"conventions": {"solutions": "plus-minus"}}).status_code == 200
    assert api.get(url).json()["report"]["finish"]["finished"]
    assert api.send("PATCH", sheet, {"conventions": {"hue": "red"}}).status_code == 400


@pytest.mark.parametrize(
    "data",
    [
        {"revision": 0, "lines": ["x" * 601]},
        {"revision": 0, "lines": ["x"] * 201},
        {"revision": 0, "lines": [""]},
        {"revision": -1, "lines": []},
        {"lines": []},
    ],
)
def test_sizes_are_bounded(api, problem, data):
    assert api.send("PUT", f"/api/problems/{problem.pk}/lines", data).status_code == 422
    assert Line.objects.count() == 1


@pytest.mark.parametrize(
    ("method", "path", "data"),
    [
        ("PUT", "/api/problems/{id}/lines", {"revision": 0, "lines": ["x\0 = 1"]}),
        ("PUT", "/api/problems/{id}/lines", {"revision": 0, "lines": ["x\ud800 = 1"]}),
        ("PATCH", "/api/problems/{id}", {"given": "x\0 = 1"}),
        ("POST", "/api/sheets", {"title": "A\0"}),
        ("POST", "/api/keys/sheet", {"text": "1) x = 2\0", "title": "A"}),
        ("POST", "/api/account/log-in", {"username": "m\0", "password": "x"}),
    ],
)
def test_characters_that_can_not_be_kept_are_refused(api, problem, method, path, data):
    assert api.send(method, path.format(id=problem.pk), data).status_code == 422


@pytest.mark.parametrize("character", ["\0", "\ud800"])
def test_a_line_with_a_broken_character_is_shown_as_not_read(api, character):
    found = api.send(
        "POST", "/api/check", {"task": "solve", "given": "x = 1", "lines": [f"x{character} = 1", "x = 1"], "assume": []}
    )
    assert [link["error"] is not None for link in found.json()["links"]] == [True, False]


def test_the_database_itself_refuses_what_must_not_be(problem):
    working = problem.working
    for broken in (
        lambda: Problem.objects.create(sheet=problem.sheet, position=9, task="guess", given="x"),
        lambda: Problem.objects.create(sheet=problem.sheet, position=9, task="solve", given=""),
        lambda: Sheet.objects.create(owner=problem.sheet.owner, title=""),
        lambda: Working.objects.create(problem=problem),
        lambda: Line.objects.create(working=working, position=200, text="x"),
    ):
        with pytest.raises(IntegrityError), transaction.atomic():
            broken()


def test_kept_reports_are_made_again_when_the_core_changed(api, problem):
    Working.objects.update(report={"old": True}, report_version="0")
    assert api.get(f"/api/problems/{problem.pk}").json()["report"]["answer"]["verdict"] == "incomplete"
    made_from = reports.core_working(Problem.objects.get(), ["x = 6"])
    assert Working.objects.get().report_version == reports.mark_of(made_from)
    Working.objects.update(report=None)
    call_command("recheck", verbosity=0)
    assert Working.objects.get().report["answer"]["missing"] == ["-6"]


WHILE_CHECKED = {
    "a line is written": lambda: Line.objects.update(text="x = -6 or x = 6"),
    "the given is changed": lambda: Problem.objects.update(given="x^2 = 49"),
    "the conventions are changed": lambda: Sheet.objects.update(conventions={"solutions": "plus-minus"}),
}


@pytest.mark.parametrize("what", WHILE_CHECKED)
def test_a_report_made_of_what_stood_before_is_never_shown(api, problem, monkeypatch, what):
    """A check that began before a write and is kept after it: the next reader gets a report of what stands now."""
    Working.objects.update(report=None)
    really, begun = lanes.check, []

    def overtaken(working):
        report = really(working)
        if not begun:
            begun.append(working)
            WHILE_CHECKED[what]()
        return report

    monkeypatch.setattr(lanes, "check", overtaken)
    api.get(f"/api/problems/{problem.pk}")
    shown = api.get(f"/api/problems/{problem.pk}").json()["report"]
    stands = Problem.objects.get()
    lines = [line.text for line in stands.working.lines.all()]
    now = json.loads(json.dumps(json_object(really(reports.core_working(stands, lines)))))
    assert shown["answer"] == now["answer"]
    assert stands.working.report_version == reports.mark_of(reports.core_working(stands, lines))


def test_a_report_that_could_not_be_made_for_now_is_not_kept(api, problem, monkeypatch):
    monkeypatch.setattr(lanes.light, "ask", _busy)
    Working.objects.update(report=None)
    error = api.get(f"/api/problems/{problem.pk}").json()["report"]["error"]
    assert error["message"] == lanes.pool.ALL_BUSY
    monkeypatch.undo()
    assert api.get(f"/api/problems/{problem.pk}").json()["report"]["error"] is None


def _busy(*_, **__):
    raise lanes.Busy(lanes.pool.ALL_BUSY)


def test_a_rating_is_made_again_when_what_it_was_made_from_has_changed(api, problem):
    def rated():
        return api.get(f"/api/sheets/{problem.sheet_id}").json()["problems"][0]["difficulty"]

    before = rated()
    Problem.objects.update(given="3x^2 - 7x - 6 = 0")
    assert rated() > before


def test_check_and_echo_need_no_stored_working(api):
    body = {"id": 7, "task": "solve", "given": "x^2 = 9x", "lines": ["x = 9"]}
    report = api.send("POST", "/api/check", body).json()
    assert (report["id"], report["links"][0]["relation"], report["links"][0]["lost"]) == (7, "narrows", ["0"])
    echo = api.send("POST", "/api/check/echo", {"text": "(x+1)/2 = 3 | ×2"}).json()
    assert (echo["left"], echo["right"], echo["move"]) == (r"\frac{x + 1}{2}", "= 3", r"\times 2")
    assert api.send("POST", "/api/check/echo", {"text": "(x+1"}).json()["error"]["column"] == 5


def test_the_first_account_is_asked_for_once(db):
    api = Api()
    told = {"teacher": None, "needs_setup": True, "version": RELEASE, "core": VERSION}
    assert api.get("/api/account/session").json() == told
    wanted = {"username": "ilse", "password": "tide-table-41", "name": "Ilse"}
    assert api.send("POST", "/api/account/set-up", wanted).json()["code"] == "word"
    assert api.send("POST", "/api/account/set-up", wanted | {"word": "0" * 12}).json()["code"] == "word"
    printed = StringIO()
    call_command("first_account", stdout=printed)
    wanted["word"] = printed.getvalue().split()[-1]
    weak = api.send("POST", "/api/account/set-up", wanted | {"password": "123"})
    assert (weak.status_code, weak.json()["code"]) == (400, "account")
    made = api.send("POST", "/api/account/set-up", wanted | {"word": f" {wanted['word'].upper()} "})
    assert made.json()["teacher"]["name"] == "Ilse"
    second = Api().send("POST", "/api/account/set-up", {"username": "odo", "password": "tide-table-41"})
    assert (second.status_code, second.json()["code"]) == (400, "already-set-up")
    assert User.objects.count() == 1
    call_command("first_account", stdout=(said := StringIO()))
    assert said.getvalue() == ""


def test_wrong_credentials_are_refused_without_saying_which(teacher):
    api = Api()
    first, second = api.log_in("maren", "wrong"), api.log_in("nobody", "wrong")
    assert (first.status_code, first.json()) == (second.status_code, second.json()) == (400, first.json())


class TestGuessedPasswords:
    @pytest.fixture
    def guessed(self, teacher):
        api = Api()
        answers = [api.log_in("maren", f"guess-{n}").status_code for n in range(10)]
        assert answers == [400] * 9 + [429]
        return api

    def test_the_right_one_is_refused_too_and_says_when_to_try(self, guessed):
        answer = guessed.log_in("maren")
        assert (answer.status_code, answer.json()["code"]) == (429, "locked")
        assert "15 minutes" in answer.json()["detail"]

    def test_another_name_from_the_same_address_is_let_in(self, guessed):
        make_teacher("odo")
        assert guessed.log_in("odo").status_code == 200

    def test_it_opens_again_though_more_were_tried_meanwhile(self, guessed):
        AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(minutes=14))
        assert guessed.log_in("maren", "guess-10").status_code == 429
        AccessAttempt.objects.update(attempt_time=models.F("attempt_time") - timedelta(minutes=2))
        assert guessed.log_in("maren").status_code == 200

    def test_a_right_one_begins_the_count_anew(self, teacher):
        api = Api()
        for _ in range(2):
            assert {api.log_in("maren", f"guess-{n}").status_code for n in range(9)} == {400}
            assert api.log_in("maren").status_code == 200

    def test_a_name_that_nobody_has_is_answered_alike(self, db):
        api = Api()
        assert [api.log_in("nobody", f"guess-{n}").status_code for n in range(11)] == [400] * 9 + [429] * 2

    def test_no_guess_is_kept(self, guessed):
        assert not any("guess" in str(row) for row in AccessAttempt.objects.values())


def test_the_demo_covers_the_slice_and_is_loaded_once(db):
    call_command("demo", verbosity=0)
    call_command("demo", verbosity=0)
    assert (Sheet.objects.count() >= 3, Problem.objects.count() >= 20) == (True, True)
    api = Api()
    api.log_in("demo")
    relations = set()
    for row in api.get("/api/sheets").json()["sheets"]:
        for problem in api.get(f"/api/sheets/{row['id']}").json()["problems"]:
            relations |= {bead["relation"] for bead in problem["beads"]}
    assert {"holds", "widens", "settles", "narrows", "breaks"} <= relations


def test_pages_carry_a_policy_that_allows_no_other_host(db):
    policy = Client().get("/").headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "http" not in policy
    assert "unsafe" not in policy


def test_production_settings_pass_the_deployment_check():
    env = {key: value for key, value in os.environ.items() if key != "DJANGO_ALLOW_ASYNC_UNSAFE"} | {"UCHUU_HTTPS": "1"}
    result = subprocess.run(
        [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"],
        capture_output=True,
        text=True,
        check=False,
        env=env,
    )
    assert result.returncode == 0, result.stderr
