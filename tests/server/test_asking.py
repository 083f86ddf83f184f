"""The room on the board: a vote, the next line, what was just written; nothing of it has a name."""

import pytest

from server.marking.models import StudentWorking
from server.records import person
from server.room.models import Ask, AskAnswer, Room
from tests.server.rooms import WRONG, come_in, inside, write

pytestmark = pytest.mark.django_db


@pytest.fixture
def room(api, given):
    """Ada and Bo in a room, where Ada made an error in the first problem."""
    ada, items = inside(api, given)
    bo, _ = come_in(Room.objects.get().code, "Bo Tarn")
    write(ada, items[0], WRONG)
    return ada, bo, items


def asks(api, given, **data):
    return api.send("POST", f"/api/sets/{given.pk}/room/ask", data)


def asked(api, given):
    return api.get(f"/api/sets/{given.pk}/room/ask").json()["ask"]


def answers(client, ask, text):
    return client.send("POST", "/api/room/ask", {"ask": ask["id"], "text": text})


def test_a_vote_which_line_breaks(api, given, room):
    ada, bo, _ = room
    ask = asks(api, given, kind="vote", working=StudentWorking.objects.get().pk).json()["ask"]
    assert ask == {**ask, "kind": "vote", "right": 1, "answered": 0, "here": 2} and len(ask["lines"]) == 2
    seen = bo.get("/api/room/news").json()["ask"]
    assert set(seen) == {"id", "kind", "given_latex", "lines", "answer"}  # not which line it is, nor whose
    assert "Ada" not in bo.get("/api/room/news").content.decode()
    assert answers(bo, ask, "2").json()["ask"]["answer"] == "2"
    answers(ada, ask, "1")
    answers(bo, ask, "1")  # thought better of it
    found = asked(api, given)
    assert [(each["text"], each["count"], each["relation"]) for each in found["answers"]] == [("1", 2, "holds")]
    assert found["answered"] == 2 and "Ada" not in str(found) and "Bo" not in str(found)


@pytest.mark.parametrize("text", ["3", "x", "-1", "1.5", "²"])
def test_a_vote_names_a_line(api, given, room, text):
    ask = asks(api, given, kind="vote", working=StudentWorking.objects.get().pk).json()["ask"]
    assert answers(room[0], ask, text).json()["code"] == "answer"
    assert not AskAnswer.objects.exists()


def test_pause_and_try_takes_the_rooms_lines_with_how_they_follow(api, given, room):
    ada, bo, items = room
    ask = asks(api, given, kind="try", item=items[1], lines=["(x - 2)(x - 3) = 0"]).json()["ask"]
    assert ask["right"] is None
    answers(ada, ask, "x = 2 or x = 3")
    answers(bo, ask, "x = -2 or x = -3")
    found = asked(api, given)["answers"]
    relations = {each["text"]: each["relation"] for each in found}
    assert relations == {"x = 2 or x = 3": "holds", "x = -2 or x = -3": "breaks"}
    answers(bo, ask, "x=2 or x=3")
    assert [each["count"] for each in asked(api, given)["answers"]] == [2]


def test_how_a_working_goes_on_is_asked_before_its_error(api, given, room):
    ask = asks(api, given, kind="try", working=StudentWorking.objects.get().pk).json()["ask"]
    assert ask["lines"] == []  # its first line breaks already


def test_what_is_over_takes_no_answer(api, given, room):
    ada, _, items = room
    first = asks(api, given, kind="try", item=items[0]).json()["ask"]
    second = asks(api, given, kind="try", item=items[1]).json()["ask"]
    assert answers(ada, first, "x = 5").json()["code"] == "over"
    api.send("DELETE", f"/api/sets/{given.pk}/room/ask")
    assert answers(ada, second, "x = 5").json()["code"] == "over"
    assert asked(api, given) is None and ada.get("/api/room/news").json()["ask"] is None


def test_only_of_lines_it_is_asked_which_breaks_and_only_by_the_teacher(api, stranger, given, room):
    _, _, items = room
    assert asks(api, given, kind="vote", item=items[1]).json()["code"] == "ask"
    assert asks(stranger, given, kind="try", item=items[1]).status_code == 404
    assert asks(api, given, kind="try", item=items[1] + 99).status_code == 404
    assert not Ask.objects.exists()


@pytest.mark.parametrize("lines", [["3x = ("], ["(3 +"]])
def test_that_none_breaks_is_not_asked_of_what_is_not_decided(api, given, room, lines):
    _, bo, items = room
    write(bo, items[1], lines)
    working = StudentWorking.objects.get(item=items[1])
    assert asks(api, given, kind="vote", working=working.pk).json()["code"] == "ask"
    StudentWorking.objects.update(made_from="", report=None)  # not verified yet
    assert asks(api, given, kind="vote", working=working.pk).json()["code"] == "ask"


def test_what_the_room_has_written_comes_to_the_problem_on_the_board(api, stranger, given, room):
    _, bo, items = room
    write(bo, items[0], WRONG)
    problem = api.get("/api/sheets").json()["sheets"][0]["id"]
    row = api.get(f"/api/sheets/{problem}").json()["problems"][0]
    found = api.get(f"/api/problems/{row['id']}/room").json()
    assert found == {"given_set": given.pk, "item": items[0], "written": [{"lines": WRONG, "count": 2, "broken": 1}]}
    assert stranger.get(f"/api/problems/{row['id']}/room").status_code == 404
    api.send("PATCH", f"/api/sets/{given.pk}/room", {"ended": True})
    assert api.get(f"/api/problems/{row['id']}/room").json()["item"] == 0


def test_an_answer_is_in_the_students_data(api, given, room, teacher):
    ask = asks(api, given, kind="vote", working=StudentWorking.objects.get().pk).json()["ask"]
    answers(room[0], ask, "1")
    ada = given.school_class.students.get(name="Ada Quill")
    assert person.data_of(teacher, ada.pk)["practice"]["answers"][0]["answer"] == "1"


@pytest.mark.parametrize("line", [r"\htmlClass{el-overlay}{x}", r"x \href{a}{b} ===", r"} \htmlId{app}{x ("])
def test_a_line_that_is_not_read_is_words_on_the_board(api, given, room, line):
    ask = asks(api, given, kind="try", item=room[2][1], lines=[line]).json()["ask"]
    answers(room[0], ask, line)
    found = asked(api, given)
    for latex in (*found["lines"], found["answers"][0]["latex"]):
        assert latex.startswith(r"\text{") and r"\html" not in latex and r"\href" not in latex
