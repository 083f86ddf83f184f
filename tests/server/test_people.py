"""Accounts: who may do what, one-time words, one's own password, what is written down, and how much may be asked."""

from datetime import timedelta
from io import StringIO
from urllib.parse import urlencode

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.db.models.expressions import RawSQL
from django.utils import timezone

from server.accounts import allowance, people
from server.accounts.models import Happening, Person, Spent
from server.common.problems import Refused
from server.sheets import services
from server.sheets.models import Line, Sheet, Working
from server.sheets.schemas import ProblemIn
from tests.server.conftest import Api, make_teacher

pytestmark = pytest.mark.django_db


def add(api, username="ilse", **more):
    return api.send("POST", "/api/people", {"username": username, "name": username.title(), **more})


class TestOneTimeWords:
    def test_a_new_teacher_logs_in_once_chooses_a_password_and_works(self, api):
        word = add(api).json()["word"]
        ilse = Api()
        session = ilse.log_in("ilse", word).json()
        assert session["teacher"]["new_password"] is True
        assert ilse.get("/api/sheets").json()["code"] == "new-password"
        answer = ilse.send("POST", "/api/account/password", {"old": word, "new": "tide-table-41"})
        assert answer.json()["teacher"]["new_password"] is False
        assert ilse.send("POST", "/api/sheets", {"title": "Mine"}).status_code == 201
        assert Api().log_in("ilse", word).status_code == 400
        assert Api().log_in("ilse", "tide-table-41").status_code == 200

    def test_a_word_runs_out(self, api):
        word = add(api).json()["word"]
        Person.objects.filter(user__username="ilse").update(one_time_until=timezone.now() - timedelta(seconds=1))
        answer = Api().log_in("ilse", word)
        assert (answer.status_code, answer.json()["code"]) == (400, "one-time-word")

    def test_a_reset_ends_the_sessions_and_the_old_password(self, api, stranger):
        odo = User.objects.get(username="odo")
        word = api.send("POST", f"/api/people/{odo.pk}/reset").json()["word"]
        assert stranger.get("/api/sheets").status_code == 401
        assert Api().log_in("odo").status_code == 400
        assert Api().log_in("odo", word).status_code == 200

    def test_words_are_long_and_never_the_same(self):
        words = {people.one_time_word() for _ in range(200)}
        assert len(words) == 200
        assert all(len(word.replace("-", "")) == 16 and word.replace("-", "").isalpha() for word in words)


class TestRoles:
    def test_who_only_manages_sees_no_sheets(self, db):
        make_teacher("vesna", teaches=False, manages=True)
        vesna = Api()
        vesna.log_in("vesna")
        assert vesna.get("/api/people").status_code == 200
        for path in ("/api/sheets", "/api/catalogue", "/api/colleagues", "/api/account/words"):
            assert vesna.get(path).status_code == 403
        assert vesna.send("POST", "/api/check", {"task": "solve", "given": "x = 1", "lines": []}).status_code == 403

    def test_rights_are_taken_and_given_back_at_once(self, api, stranger):
        odo = User.objects.get(username="odo").pk
        for teaches, status in ((False, 403), (True, 200)):
            api.send("PATCH", f"/api/people/{odo}", {"teaches": teaches, "manages": True})
            assert stranger.get("/api/sheets").status_code == status

    def test_a_switched_off_account_ends_at_once_and_comes_back_with_its_sheets(self, api, stranger):
        stranger.send("POST", "/api/sheets", {"title": "Kept"})
        odo = User.objects.get(username="odo").pk
        assert api.send("PATCH", f"/api/people/{odo}", {"active": False}).json()["active"] is False
        assert stranger.get("/api/sheets").status_code == 401
        assert Api().log_in("odo").status_code == 400
        api.send("PATCH", f"/api/people/{odo}", {"active": True})
        back = Api()
        back.log_in("odo")
        assert back.get("/api/sheets").json()["all"] == 1

    @pytest.mark.parametrize(
        ("changes", "code"),
        [
            ({"active": False}, "self"),
            ({"manages": False}, "last-manager"),
            ({"teaches": False, "manages": False}, "role"),
        ],
    )
    def test_the_last_manager_stays(self, api, teacher, changes, code):
        answer = api.send("PATCH", f"/api/people/{teacher.pk}", changes)
        assert (answer.status_code, answer.json()["code"]) == (400, code)
        person = Person.objects.get(user=teacher)
        assert (person.teaches, person.manages, person.user.is_active) == (True, True, True)

    def test_one_of_two_managers_may_go(self, api, teacher):
        add(api, manages=True)
        assert api.send("PATCH", f"/api/people/{teacher.pk}", {"manages": False}).status_code == 200
        assert api.get("/api/people").status_code == 403

    def test_a_switched_off_manager_does_not_count(self, api, teacher):
        ilse = add(api, manages=True).json()["person"]["id"]
        api.send("PATCH", f"/api/people/{ilse}", {"active": False})
        assert api.send("PATCH", f"/api/people/{teacher.pk}", {"manages": False}).json()["code"] == "last-manager"

    def test_an_account_without_a_role_may_nothing(self, db):
        User.objects.create_user("bare", password="lantern-quay")
        answer = Api().log_in("bare")
        assert (answer.status_code, answer.json()["code"]) == (400, "role")


class TestPasswords:
    def test_other_browsers_are_logged_out_and_this_one_goes_on(self, api):
        other = Api()
        other.log_in("maren")
        answer = api.send("POST", "/api/account/password", {"old": "lantern-quay", "new": "tide-table-41"})
        assert answer.status_code == 200
        assert api.get("/api/sheets").status_code == 200
        assert other.get("/api/sheets").status_code == 401

    @pytest.mark.parametrize(
        ("old", "new", "words"),
        [
            ("lantern-qua", "tide-table-41", "is not right"),
            ("lantern-quay", "lantern-quay", "is the one you have"),
            ("lantern-quay", "short", "too short"),
            ("lantern-quay", "password1", "too common"),
            ("lantern-quay", "maren123", "too similar"),
        ],
    )
    def test_what_is_refused(self, api, old, new, words):
        answer = api.send("POST", "/api/account/password", {"old": old, "new": new})
        assert answer.status_code == 400
        assert words in answer.json()["detail"]
        assert Api().log_in("maren").status_code == 200


def test_what_is_done_to_accounts_is_written_down(api, stranger):
    odo = User.objects.get(username="odo").pk
    add(api)
    api.send("POST", f"/api/people/{odo}/reset")
    api.send("PATCH", f"/api/people/{odo}", {"active": False, "manages": True})
    api.send("PATCH", f"/api/people/{odo}", {"name": "Odo Quill"})
    told = api.get("/api/people").json()["happenings"]
    assert [(h["who"], h["what"], h["whom"]) for h in told[:4]] == [
        ("maren", "now teaches and manages", "odo"),
        ("maren", "switched off", "odo"),
        ("maren", "reset", "odo"),
        ("maren", "made", "ilse"),
    ]


def test_a_name_made_in_the_same_moment_is_refused_not_a_crash(db, monkeypatch):
    make_teacher("twin")
    monkeypatch.setattr(User, "full_clean", lambda self, **_: None)
    with pytest.raises(Refused, match="already exists"):
        people.make("twin", password="lantern-quay")
    assert User.objects.filter(username="twin").count() == 1


class TestAllowance:
    @pytest.fixture(autouse=True)
    def few(self, monkeypatch):
        monkeypatch.setattr(allowance, "A_MINUTE", 3)

    def ask(self, api):
        return api.send("POST", "/api/check", {"task": "solve", "given": "x = 1", "lines": []})

    def test_too_many_questions_are_refused_with_when_to_come_back(self, api):
        assert [self.ask(api).status_code for _ in range(4)] == [200, 200, 200, 429]
        said = self.ask(api).json()
        assert said["code"] == "allowance"
        assert 1 <= said["seconds"] <= 60
        assert f"in {said['seconds']} seconds" in said["detail"]

    def test_light_work_and_other_people_are_not_touched(self, api, stranger, problem):
        for _ in range(4):
            self.ask(api)
        sent = {"revision": 0, "lines": ["x = ±6"]}
        assert api.send("PUT", f"/api/problems/{problem.pk}/lines", sent).status_code == 200
        assert api.send("POST", "/api/check/echo", {"text": "x"}).status_code == 200
        assert self.ask(stranger).status_code == 200

    def test_the_next_minute_begins_anew(self, api):
        for _ in range(4):
            self.ask(api)
        # by the database's own clock, which stands still inside a transaction
        Spent.objects.update(since=RawSQL("now() - interval '61 seconds'", []))
        assert self.ask(api).status_code == 200
        assert Spent.objects.get().asked == 1


class TestCopies:
    def give(self, api, sheet, **more):
        return api.send("POST", f"/api/sheets/{sheet}/copies", {"username": "odo", **more})

    @pytest.mark.parametrize(("workings", "lines"), [(True, ["x = 6"]), (False, [])])
    def test_a_colleague_gets_a_copy_of_their_own(self, api, stranger, problem, workings, lines):
        api.send("PATCH", f"/api/sheets/{problem.sheet_id}", {"conventions": {"decimal": "comma"}})
        assert self.give(api, problem.sheet_id, workings=workings).status_code == 204
        (row,) = stranger.get("/api/sheets").json()["sheets"]
        assert (row["title"], row["received_from"], row["problems"]) == ("Quadratics", "Maren", 1)
        sheet = stranger.get(f"/api/sheets/{row['id']}").json()
        assert sheet["conventions"] == {"decimal": "comma"}
        copied = sheet["problems"][0]["id"]
        assert [line["text"] for line in stranger.get(f"/api/problems/{copied}").json()["lines"]] == lines
        stranger.send("PUT", f"/api/problems/{copied}/lines", {"revision": 0, "lines": ["x = ±6"]})
        assert list(Line.objects.filter(working__problem=problem).values_list("text", flat=True)) == ["x = 6"]

    def test_no_copy_to_who_does_not_teach_is_off_or_has_no_room(self, api, stranger, problem, monkeypatch):
        make_teacher("vesna", teaches=False, manages=True)
        odo = User.objects.get(username="odo")
        assert api.send("POST", f"/api/sheets/{problem.sheet_id}/copies", {"username": "vesna"}).status_code == 400
        people.change(odo, by=None, active=False)
        assert self.give(api, problem.sheet_id).status_code == 400
        people.change(odo, by=None, active=True)
        monkeypatch.setattr(services, "MAX_SHEETS", 0)
        assert "has 0 sheets already" in self.give(api, problem.sheet_id).json()["detail"]
        assert not Sheet.objects.filter(owner=odo).exists()

    def test_colleagues_are_the_other_teachers(self, api, stranger):
        make_teacher("vesna", teaches=False, manages=True)
        assert api.get("/api/colleagues").json() == [{"username": "odo", "name": "Odo"}]


class TestLists:
    def test_pages_hold_all_sheets_the_last_changed_first(self, api, teacher, monkeypatch):
        monkeypatch.setattr("server.sheets.queries.PAGE", 2)
        made = [services.create_sheet(teacher, f"Sheet {k}").pk for k in range(5)]
        services.add_problem(teacher, made[0], ProblemIn(task="solve", given="x = 1"), [])
        pages = [api.get(f"/api/sheets?page={k}").json() for k in (1, 2, 3, 4)]
        assert [[row["id"] for row in page["sheets"]] for page in pages] == [
            [made[0], made[4]],
            [made[3], made[2]],
            [made[1]],
            [],
        ]
        assert [(page["more"], page["all"]) for page in pages] == [(True, 5), (True, 5), (False, 5), (False, 5)]

    @pytest.mark.parametrize(
        ("search", "found"), [("root", ["Cube roots", "Roots"]), ("%", []), ("ROOTS", ["Cube roots", "Roots"])]
    )
    def test_sheets_are_found_by_their_title(self, api, teacher, search, found):
        for title in ("Roots", "Linear", "Cube roots"):
            services.create_sheet(teacher, title)
        answer = api.get(f"/api/sheets?{urlencode({'search': search})}")
        assert sorted(row["title"] for row in answer.json()["sheets"]) == found

    @pytest.mark.parametrize("query", ["page=0", "page=x", "search=" + "x" * 121, "search=%00"])
    def test_a_page_that_is_none(self, api, query):
        assert api.get(f"/api/sheets?{query}").status_code == 422

    def test_a_state_that_belongs_to_other_lines_is_not_shown(self, api, problem):
        assert api.get("/api/sheets").json()["sheets"][0]["faulty"] == 1
        Line.objects.filter(working__problem=problem).update(text="x = 6 or x = -6")  # as if a write came in between
        assert Working.objects.get(problem=problem).state == "faulty"
        row = api.get("/api/sheets").json()["sheets"][0]
        assert (row["sound"], row["faulty"]) == (1, 0)
        assert Working.objects.get(problem=problem).state == "sound"


class TestCommandLine:
    def run(self, *arguments):
        out = StringIO()
        call_command("people", *arguments, stdout=out)
        return out.getvalue()

    def test_a_second_teacher_is_made_listed_reset_and_switched_off(self, teacher):
        word = self.run("add", "ilse", "--name", "Ilse Tarn").split()[7]
        assert Api().log_in("ilse", word).status_code == 200
        listed = self.run("list").splitlines()
        assert listed[1].split("  ")[0] == "ilse" and "Ilse Tarn" in listed[1] and "teach" in listed[1]
        assert "teach and manage" in listed[2] and "never" in listed[2]
        new = self.run("reset", "ilse").split()[7]
        assert (Api().log_in("ilse", word).status_code, Api().log_in("ilse", new).status_code) == (400, 200)
        self.run("disable", "ilse")
        assert "switched off" in self.run("list")
        self.run("enable", "ilse")
        assert Api().log_in("ilse", new).status_code == 200
        assert Happening.objects.filter(who="the command line", whom="ilse").count() == 4

    @pytest.mark.parametrize(
        ("arguments", "words"),
        [
            (["reset", "nobody"], "Nobody has the log-in name"),
            (["add", "a b"], "valid username"),
            (["add", "x", "--no-teaching"], "must teach or manage"),
            (["disable", "maren"], "Somebody must be left"),
        ],
    )
    def test_what_cannot_be_done_is_said(self, teacher, arguments, words):
        with pytest.raises(CommandError, match=words):
            self.run(*arguments)
