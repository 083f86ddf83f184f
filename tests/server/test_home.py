"""A student's own page: what is seen there and when, and problems against errors that come again after 1, 3, 7 and 21
days."""

from datetime import datetime, timedelta

import pytest
from django.utils import timezone

from server.marking import decisions
from server.marking import services as marking
from server.marking.models import StudentWorking
from server.marking.schemas import DecideIn
from server.records import person
from server.room import home, services
from server.room.models import DueSlip, HomeProblem, Room, Visit
from server.room.schemas import RoomChange, RoomIn
from tests.server.conftest import Api
from tests.server.rooms import WRONG, come_in, inside, opened, write

pytestmark = pytest.mark.django_db


@pytest.fixture
def clock(monkeypatch):
    """Moves the days on."""
    began = timezone.now()
    moved = {"days": 0}

    def now() -> datetime:
        return began + timedelta(days=moved["days"])

    monkeypatch.setattr(timezone, "now", now)
    return moved


@pytest.fixture
def at_home(api, given, clock):
    """Ada at home, after a room in which she made an error."""
    client, items = inside(api, given)
    write(client, items[0], WRONG)
    api.send("PATCH", f"/api/sets/{given.pk}/room", {"ended": True})
    return client


def page(client):
    answer = client.get("/api/room/home")
    assert answer.status_code == 200, answer.content
    return answer.json()


def solve(client, task, lines, revision=0):
    return client.send("PUT", f"/api/room/home/problems/{task['id']}", {"revision": revision, "lines": lines})


def key_of(task):
    problem = HomeProblem.objects.get(pk=task["id"])
    return list(home.lanes.work(home._working(problem, [])).lines)


def slipped(task):
    """The same error in the problem that was given against it."""
    problem = HomeProblem.objects.get(pk=task["id"])
    found = home.lanes.predict(home._working(problem, []), most=8)
    return next(list(each.lines[:1]) for each in found.wrong if problem.slip in each.slips)


class TestTheDoor:
    def test_a_class_comes_in_from_home_by_a_code_of_its_own(self, api, given):
        inside(api, given)
        code = api.send("POST", f"/api/classes/{given.school_class_id}/door").json()["code"]
        assert api.get(f"/api/classes/{given.school_class_id}/door").json()["code"] == code
        client, answer = come_in(code)
        assert answer.json() == {"room": None} and page(client)["student"] == "Ada Quill"
        assert client.get("/api/room").status_code == 403  # at home one is in no room
        assert come_in(code, secret="guessed")[1].json()["code"] == "secret"
        other = api.send("POST", f"/api/classes/{given.school_class_id}/door").json()["code"]
        assert other != code and come_in(code)[1].json()["code"] == "code"
        api.send("DELETE", f"/api/classes/{given.school_class_id}/door")
        assert come_in(other)[1].json()["code"] == "code"

    def test_it_is_the_teachers_alone(self, stranger, given):
        for method in ("GET", "POST", "DELETE"):
            assert stranger.send(method, f"/api/classes/{given.school_class_id}/door").status_code == 404
        assert Api().get("/api/room/home").status_code == 403

    def test_who_was_away_comes_in_later_alone(self, api, given):
        code = opened(api, given)["code"]
        api.send("PATCH", f"/api/sets/{given.pk}/room", {"ended": True})
        assert come_in(code)[1].json()["code"] == "closed"
        ada = given.school_class.students.get(name="Ada Quill")
        api.send("POST", f"/api/sets/{given.pk}/room/students/{ada.pk}", {"open_minutes": 30})
        client, answer = come_in(code)
        assert answer.status_code == 200 and not answer.json()["room"]["over"]
        item = answer.json()["room"]["items"][0]["id"]
        assert write(client, item, ["3x = 15"]).status_code == 200
        assert come_in(code, "Bo Tarn")[1].json()["code"] == "closed"
        Visit.objects.update(until=timezone.now() - timedelta(minutes=1))
        assert write(client, item, ["3x = 15", "x = 5"], 1).json()["code"] == "closed"


class TestWhatIsSeen:
    def test_nothing_of_a_room_that_is_open(self, api, given):
        client, items = inside(api, given)
        write(client, items[0], WRONG)
        assert page(client) == {**page(client), "sets": [], "slips": [], "next": None}

    def test_the_own_chains_when_the_room_is_over(self, at_home):
        found = page(at_home)
        [given_set] = found["sets"]
        told = given_set["items"][0]["working"]["told"]
        assert (given_set["title"], told[0]["verdict"], given_set["items"][1]["working"]) == ("Thursday", "look", None)
        [slip] = found["slips"]
        assert not slip["rid"] and slip["solved"] == 0
        assert "points" not in str(found) and "mark" not in found

    def test_a_paper_without_a_room_when_its_mark_is_confirmed(self, api, given, teacher):
        client, items = inside(api, given)
        write(client, items[0], WRONG)
        decisions.decide(teacher, given.pk, DecideIn(workings=[StudentWorking.objects.get().pk]))
        Room.objects.all().delete()
        client, _ = come_in(api.send("POST", f"/api/classes/{given.school_class_id}/door").json()["code"])
        assert [each["title"] for each in page(client)["sets"]] == ["Thursday"]

    def test_who_is_let_in_later_sees_nothing_of_it_before_the_own_end(self, api, given, at_home):
        ada = given.school_class.students.get(name="Ada Quill")
        assert page(at_home)["sets"]
        api.send("POST", f"/api/sets/{given.pk}/room/students/{ada.pk}", {"open_minutes": 30})
        assert page(at_home)["sets"] == []
        Visit.objects.update(until=timezone.now() - timedelta(minutes=1))
        assert page(at_home)["sets"]

    def test_nothing_of_another(self, api, given, at_home):
        client, _ = come_in(api.send("POST", f"/api/classes/{given.school_class_id}/door").json()["code"], "Bo Tarn")
        found = page(client)
        assert "29" not in str(found) and found["slips"] == []
        at_home_task = HomeProblem.objects.first()
        assert at_home_task is None or solve(client, {"id": at_home_task.pk}, ["x = 1001"]).status_code == 404


class TestSpacing:
    def test_it_is_due_after_1_3_7_and_21_days_and_then_she_is_rid_of_it(self, at_home, clock):
        assert page(at_home)["next"] is None
        gaps = []
        for _ in home.INTERVALS:
            waited = 0
            while page(at_home)["next"] is None:
                clock["days"] += 1
                waited += 1
                assert waited < 40
            gaps.append(waited)
            task = page(at_home)["next"]
            answer = solve(at_home, task, key_of(task)).json()
            assert answer["done"] and answer["working"]["answered"]
        assert tuple(gaps) == home.INTERVALS
        assert [slip["rid"] for slip in page(at_home)["slips"]] == [True]
        clock["days"] += 100
        assert page(at_home)["next"] is None

    def test_made_again_it_begins_anew(self, at_home, clock):
        clock["days"] = 1
        task = page(at_home)["next"]
        solve(at_home, task, key_of(task))
        clock["days"] = 4
        task = page(at_home)["next"]
        told = solve(at_home, task, slipped(task)).json()["working"]["told"]
        assert told[0]["verdict"] == "look" and told[0]["words"]
        assert solve(at_home, task, key_of(task), 1).json()["done"]
        due = DueSlip.objects.get()
        assert (due.stage, due.due) == (0, timezone.localdate() + timedelta(days=1))

    def test_an_error_in_a_later_room_begins_anew_too(self, teacher, given, at_home, clock):
        clock["days"] = 1
        task = page(at_home)["next"]
        solve(at_home, task, key_of(task))
        assert DueSlip.objects.get().stage == 1
        services.open_room(teacher, given.pk, RoomIn())
        client, answer = come_in(Room.objects.get().code)
        item = answer.json()["room"]["items"][0]
        write(client, item["id"], WRONG[:1], item["working"]["revision"])
        services.change_room(teacher, given.pk, RoomChange(ended=True))
        page(client)
        assert DueSlip.objects.get().stage == 0

    def test_a_problem_is_one_like_that_in_which_it_was_made_and_stays_until_it_is_solved(self, at_home, clock):
        clock["days"] = 1
        task = page(at_home)["next"]
        assert task["given_latex"] != "3 x + 7 = 22" and task["against"]
        assert page(at_home)["next"] == task
        solve(at_home, task, ["x = 1001"])
        clock["days"] = 2
        assert page(at_home)["next"]["working"]["lines"] == ["x = 1001"]

    def test_the_same_twice_changes_nothing_and_another_device_is_told(self, at_home, clock):
        clock["days"] = 1
        task = page(at_home)["next"]
        solve(at_home, task, ["x = 1001"])
        assert solve(at_home, task, ["x = 1001"]).json()["working"]["revision"] == 1
        assert solve(at_home, task, ["x = 1002"], 0).status_code == 409
        solve(at_home, task, key_of(task), 1)
        assert solve(at_home, task, ["x = 1003"], 2).json()["code"] == "done"


def test_it_is_in_the_students_data_and_goes_with_the_student(api, given, teacher, at_home, clock):
    clock["days"] = 1
    task = page(at_home)["next"]
    solve(at_home, task, ["x = 1001"])
    ada = given.school_class.students.get(name="Ada Quill")
    told = person.data_of(teacher, ada.pk)["practice"]
    assert told["problems"][0]["lines"] == ["x = 1001"] and len(told["due"]) == 1
    assert person.as_pdf(person.data_of(teacher, ada.pk), person.written_of(ada.pk)).startswith(b"%PDF")
    marking.erase_student(teacher, ada.pk)
    assert not HomeProblem.objects.exists() and not DueSlip.objects.exists()
    assert at_home.get("/api/room/home").status_code == 403
