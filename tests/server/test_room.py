"""The practice room: coming in, writing, what is told and what is not, and the teacher's view of it."""

import json
from datetime import timedelta
from io import BytesIO

import pytest
from django.db.models.expressions import RawSQL
from django.utils import timezone
from pypdf import PdfReader

import lanes
from algebra import Working, check
from server.marking import decisions, pile
from server.marking.models import StudentWorking
from server.marking.schemas import DecideIn
from server.room import coming_in, telling
from server.room.models import Room, Visit, WrongTries
from tests.server.rooms import WRONG, come_in, inside, opened, working, write

pytestmark = pytest.mark.django_db


class TestComingIn:
    def test_by_code_name_and_a_secret_that_is_set_the_first_time(self, api, given):
        code = opened(api, given)["code"]
        client, answer = come_in(code.lower(), "quill, ada")
        room = answer.json()["room"]
        assert room["student"] == "Ada Quill" and room["title"] == "Thursday"
        assert come_in(code, secret="another")[1].json()["code"] == "secret"
        assert come_in(code)[1].status_code == 200  # a second device
        assert client.send("POST", "/api/room/leave").status_code == 204
        assert client.get("/api/room").status_code == 403

    @pytest.mark.parametrize(
        ("code", "name", "secret", "refusal"),
        [
            ("AAAAAA", "Ada Quill", "river7", "code"),
            (None, "Eve Nobody", "river7", "name"),
            (None, "Ada Quill", "abc", "secret"),
        ],
    )
    def test_what_is_wrong_is_said_and_no_list_is_given(self, api, given, code, name, secret, refusal):
        answer = come_in(code or opened(api, given)["code"], name, secret)[1]
        assert (answer.status_code, answer.json()["code"]) == (400, refusal)
        assert "Bo Tarn" not in answer.content.decode()

    def test_codes_can_not_be_guessed_and_who_was_in_before_still_comes_in(self, api, given, monkeypatch):
        monkeypatch.setattr(coming_in, "WRONG_CODES", 5)
        code = opened(api, given)["code"]
        device, _ = come_in(code)
        for wrong, name in (("AAAAAA", "Ada Quill"), (code, "Eve Nobody")) * 3:
            answer = come_in(wrong, name)[1].status_code
        assert answer == 429
        assert come_in(code, "Bo Tarn")[1].status_code == 429  # from a device that nobody knows
        assert come_in(code, client=device)[1].status_code == 200

    def test_secrets_are_bounded_by_student_and_place_and_nobody_shuts_a_classmate_out(self, api, given, monkeypatch):
        monkeypatch.setattr(coming_in, "WRONG_SECRETS", 3)
        code = opened(api, given)["code"]
        own, _ = come_in(code)
        shared, _ = come_in(code)
        for _ in range(3):  # from nowhere known: it locks no device on which she was in
            assert come_in(code, secret="guessed")[1].json()["code"] == "secret"
        assert come_in(code)[1].status_code == 429
        assert come_in(code, "Bo Tarn")[1].status_code == 200  # another name is not touched
        assert come_in(code, client=own)[1].status_code == 200
        for _ in range(3):  # where she was in before: no more than elsewhere, and her own device stays open
            assert come_in(code, secret="guessed", client=shared)[1].json()["code"] == "secret"
        answer = come_in(code, client=shared)[1]
        assert (answer.status_code, answer.json()["seconds"]) == (429, 900)
        assert come_in(code, client=own)[1].status_code == 200
        ada = given.school_class.students.get(name="Ada Quill")
        api.send("POST", f"/api/sets/{given.pk}/room/students/{ada.pk}", {"forget_secret": True})
        assert come_in(code, secret="fresh9", client=shared)[1].status_code == 200

    def test_the_count_of_wrong_secrets_ends_after_its_while(self, api, given, monkeypatch):
        monkeypatch.setattr(coming_in, "WRONG_SECRETS", 1)
        code = opened(api, given)["code"]
        come_in(code)
        come_in(code, secret="guessed")
        WrongTries.objects.update(since=RawSQL("now() - interval '14 minutes'", ()))
        assert come_in(code)[1].status_code == 429
        WrongTries.objects.update(since=RawSQL("now() - interval '16 minutes'", ()))
        assert come_in(code)[1].status_code == 200

    def test_a_forgotten_secret_is_taken_away_by_the_teacher(self, api, given):
        client, _ = inside(api, given)
        ada = given.school_class.students.get(name="Ada Quill")
        api.send("POST", f"/api/sets/{given.pk}/room/students/{ada.pk}", {"forget_secret": True})
        assert client.get("/api/room").status_code == 403  # who was in by the old one is out
        other, answer = come_in(Room.objects.get().code, secret="willow9")
        assert answer.status_code == 200 and other.get("/api/room").status_code == 200
        assert client.get("/api/room").status_code == 403  # and stays out

    def test_a_code_is_renewed_and_a_room_closes(self, api, given):
        first = opened(api, given)["code"]
        second = api.send("PATCH", f"/api/sets/{given.pk}/room", {"new_code": True}).json()["code"]
        assert come_in(first)[1].json()["code"] == "code"
        Room.objects.update(closes=timezone.now() - timedelta(minutes=5))
        assert come_in(second)[1].json()["code"] == "closed"


class TestWriting:
    def test_lines_stand_in_the_set_like_any_others(self, api, given):
        client, items = inside(api, given)
        answer = write(client, items[0], ["3x = 15", "x = 5"])
        assert working(answer) == {**working(answer), "revision": 1, "answered": True, "lines": ["3x = 15", "x = 5"]}
        kept = StudentWorking.objects.get()
        assert (kept.source, kept.paper.student.name, kept.right) == ("room", "Ada Quill", True)
        assert api.get(f"/api/sets/{given.pk}").json()["cells"][0]["proposed"] == 1

    def test_what_is_marked_is_closed_to_its_writer(self, api, given, teacher):
        client, items = inside(api, given, hints=2)
        write(client, items[0], ["x = 5"])
        kept = StudentWorking.objects.get()
        decisions.decide(teacher, given.pk, DecideIn(workings=[kept.pk]))
        answer = write(client, items[0], ["x = 6"], revision=1)
        assert (answer.status_code, answer.json()["code"]) == (400, "marked")
        assert client.send("POST", f"/api/room/items/{items[0]}/hint").json()["code"] == "marked"
        assert write(client, items[0], ["x = 5"]).status_code == 200  # what stands there, once more
        kept.refresh_from_db()
        assert (kept.mark, kept.texts, kept.revision) == (1, ["x = 5"], 1)
        assert [item["closed"] for item in client.get("/api/room").json()["items"]] == [True, False]
        assert write(client, items[1], ["x = 2 or x = 3"]).status_code == 200  # the rest is open
        [seat, _] = api.get(f"/api/sets/{given.pk}/room").json()["seats"]
        assert [cell["marked"] for cell in seat["cells"]] == [True, False]

    def test_a_room_for_reading_takes_nothing(self, api, given):
        client, items = inside(api, given, opens="reading", hints=2)
        assert write(client, items[0], ["x = 5"]).json()["code"] == "reading"
        assert client.send("POST", f"/api/room/items/{items[0]}/hint").json()["code"] == "reading"
        assert all(item["closed"] for item in client.get("/api/room").json()["items"])
        assert api.get(f"/api/sets/{given.pk}/room").json()["reading"] is True
        assert opened(api, given)["reading"] is False

    def test_a_second_attempt_is_kept_beside_the_first(self, api, given, teacher):
        client, items = inside(api, given)
        write(client, items[0], ["x = 6"])
        decisions.decide(teacher, given.pk, DecideIn(workings=[StudentWorking.objects.get().pk]))
        again = opened(api, given, opens="again")
        assert again["given_set"] != given.pk
        second, answer = come_in(again["code"])
        [one, two] = answer.json()["room"]["items"]
        assert [one["given"], two["given"]] == ["3x + 7 = 22", "x^2 - 5x + 6 = 0"]
        assert (one["working"], one["closed"], one["id"] not in items) == (None, False, True)
        assert write(second, one["id"], ["x = 5"]).status_code == 200
        table = api.get(f"/api/sets/{again['given_set']}").json()
        assert (table["title"], table["again_of"]) == ("Thursday, again", given.pk)
        assert [item["scheme"]["kind"] for item in table["items"]] == ["answer", "answer"]
        first = api.get(f"/api/sets/{given.pk}").json()["cells"]
        assert [(cell["mark"], cell["item"]) for cell in first] == [(0, items[0])]
        assert Room.objects.get(given_set=given).code != again["code"]

    def test_the_same_once_more_doubles_nothing_and_another_device_is_told(self, api, given):
        client, items = inside(api, given)
        write(client, items[0], ["3x = 15"])
        again = write(client, items[0], ["3x = 15"])  # its answer was lost
        assert working(again)["revision"] == 1
        answer = write(client, items[0], ["x = 5"], revision=0)
        assert answer.status_code == 409 and answer.json()["lines"] == ["3x = 15"]
        assert working(write(client, items[0], ["3x = 15", "x = 5"], revision=1))["revision"] == 2

    @pytest.mark.parametrize("number", [0, 2**31, 2**63 - 1, 2**63, 10**30])
    def test_a_number_that_is_no_items_or_rooms_is_found_nowhere(self, api, given, number):
        client, _ = inside(api, given)
        assert write(client, number, ["x = 5"]).status_code == 404
        assert api.get(f"/api/sets/{number}/room?since=0").status_code == 404

    def test_what_the_teacher_types_in_their_place_is_not_put_over_unseen(self, api, given):
        client, items = inside(api, given)
        ada = given.school_class.students.get(name="Ada Quill")

        def typed(*lines):
            sent = {"student": ada.pk, "item": items[0], "lines": lines}
            assert api.send("PUT", f"/api/sets/{given.pk}/workings", sent).status_code == 200

        typed("3x = 15")
        answer = write(client, items[0], ["x = 4"])  # by a screen that has not seen it
        assert answer.status_code == 409 and answer.json() | {"lines": ["3x = 15"], "revision": 1} == answer.json()
        assert working(write(client, items[0], ["3x = 15", "x = 4"], revision=1))["revision"] == 2
        version = api.get(f"/api/sets/{given.pk}/room").json()["version"]
        typed("x = 5")
        [seat] = api.get(f"/api/sets/{given.pk}/room?since={version}").json()["seats"]
        assert seat["name"] == "Ada Quill" and len(seat["cells"][0]["beads"]) == 1
        assert write(client, items[0], ["3x = 15", "x = 4", "x = 3"], revision=2).json()["lines"] == ["x = 5"]

    def test_nobody_writes_while_paused_or_closed_and_extra_time_is_one_students_own(self, api, given):
        client, items = inside(api, given, minutes=10, show_time=True)
        api.send("PATCH", f"/api/sets/{given.pk}/room", {"paused": "Look at the board."})
        assert write(client, items[0], ["x = 5"]).json()["detail"] == "A pause: Look at the board."
        api.send("PATCH", f"/api/sets/{given.pk}/room", {"paused": ""})
        Room.objects.update(closes=timezone.now() - timedelta(minutes=1))
        assert write(client, items[0], ["x = 5"]).json()["code"] == "closed"
        ada = given.school_class.students.get(name="Ada Quill")
        api.send(
            "POST", f"/api/sets/{given.pk}/room/students/{ada.pk}", {"more_minutes": 5, "nudge": "Begin with the 7."}
        )
        assert write(client, items[0], ["x = 5"]).status_code == 200
        assert client.get("/api/room").json()["nudge"] == "Begin with the 7."
        assert client.get("/api/room/news").json()["nudge"] == "Begin with the 7."
        code = Room.objects.get().code
        assert come_in(code)[1].status_code == 200  # again, in the extra time
        assert come_in(code, "Bo Tarn")[1].json()["code"] == "closed"

    def test_hints_are_counted_and_give_no_line_unless_that_is_wished(self, api, given):
        client, items = inside(api, given, hints=3)
        write(client, items[0], ["3x = 29"])
        asked = [client.send("POST", f"/api/room/items/{items[0]}/hint") for _ in range(4)]
        assert [bool(each.json()["rule"]) for each in asked[:3]] == [False, True, True]
        assert [each.json()["left"] for each in asked[:3]] == [2, 1, 0] and not any(
            each.json()["line"] for each in asked[:3]
        )
        assert asked[3].json()["code"] == "no-hint"
        assert api.get(f"/api/sets/{given.pk}/room").json()["seats"][0]["cells"][0]["hints"] == 3

    def test_nothing_of_another_student_and_no_key_is_sent(self, api, given):
        bo, items = inside(api, given, "Bo Tarn")
        write(bo, items[0], ["3x = 29"])
        code = Room.objects.get().code
        ada, answer = come_in(code)
        assert "Bo" not in answer.content.decode() and "3x = 29" not in answer.content.decode()
        assert answer.json()["room"]["items"][0]["working"] is None
        for path in (
            f"/api/sets/{given.pk}",
            f"/api/sets/{given.pk}/room",
            "/api/classes",
            f"/api/workings/{StudentWorking.objects.get().pk}",
        ):
            assert ada.get(path).status_code == 401
        assert '"key"' not in answer.content.decode()


class TestTelling:
    REPORT = check(Working("solve", "3x + 7 = 22", ("3x = 29", "x = 29/3")))
    INSTEAD = REPORT.links[0].slip.instead

    @pytest.mark.parametrize(
        ("tells", "ended", "verdicts", "words", "right"),
        [
            ("end", False, ["", ""], False, False),
            ("end", True, ["look", "holds"], True, True),
            ("line", False, ["look", "holds"], False, False),
            ("line", True, ["look", "holds"], False, False),
            ("place", False, ["look", ""], False, False),
            ("place", True, ["look", "holds"], False, False),
            ("cue", False, ["look", ""], True, True),
            ("words", False, ["look", ""], True, True),
        ],
    )
    @pytest.mark.parametrize("right_line", [False, True])
    def test_each_setting_tells_what_it_says(self, tells, ended, verdicts, words, right, right_line):
        found = telling.told(self.REPORT, tells, ended=ended, right_line=right_line, words={})
        assert [line.verdict for line in found.lines] == verdicts
        assert bool(found.lines[0].words) is words
        assert (found.lines[0].right == self.INSTEAD) is (right and right_line)

    @pytest.mark.parametrize("tells", ["end", "line", "place", "cue", "words"])
    def test_what_is_withheld_is_not_in_the_data(self, api, given, tells):
        client, items = inside(api, given, tells=tells)
        sent = (
            write(client, items[0], ["3x = 29", "x = 29/3"]).content.decode() + client.get("/api/room").content.decode()
        )
        assert "3x = 15" not in sent and "x = 5" not in sent and "evidence" not in sent and "instead" not in sent
        told = json.loads(client.get("/api/room").content)["items"][0]["working"]["told"]
        assert bool("".join(line["words"] for line in told)) is (tells in ("cue", "words"))
        assert ("look" in {line["verdict"] for line in told}) is (tells != "end")

    def test_a_right_answer_is_told_only_where_lines_are(self):
        right = check(Working("solve", "3x + 7 = 22", ("3x = 15", "x = 5")))
        assert [
            telling.told(right, tells, ended=False, right_line=False, words={}).answered
            for tells in ("end", "line", "place")
        ] == [False, True, True]
        assert telling.told(right, "end", ended=True, right_line=False, words={}).answered

    def test_a_line_that_can_not_be_read_is_always_told(self):
        report = check(Working("solve", "3x + 7 = 22", ("3x = (15",)))
        for tells in ("end", "place", "line"):
            [line] = telling.told(report, tells, ended=False, right_line=False, words={}).lines
            assert line.verdict == "unread" and "not closed" in line.words


class TestTheTeachersView:
    def test_the_class_as_it_stands_and_nothing_where_nothing_has_changed(self, api, given):
        client, items = inside(api, given)
        write(client, items[0], WRONG)
        told = api.get(f"/api/sets/{given.pk}/room").json()
        ada, bo = told["seats"]
        assert (ada["name"], bo["heard"], ada["cells"][0]["stuck"]) == ("Ada Quill", None, 1)
        assert ada["heard"] and ada["cells"][0]["slip"]
        assert [bead["relation"] for bead in ada["cells"][0]["beads"]] == ["breaks", "holds"]
        assert api.get(f"/api/sets/{given.pk}/room?since={told['version']}").json()["seats"] == []
        write(client, items[1], ["(x-2)(x-3) = 0"])
        now = api.get(f"/api/sets/{given.pk}/room?since={told['version']}").json()
        assert now["version"] > told["version"]
        assert [(seat["name"], [cell["item"] for cell in seat["cells"]]) for seat in now["seats"]] == [
            ("Ada Quill", [items[1]])
        ]

    def test_what_is_verified_late_is_seen_late(self, api, given, monkeypatch):
        client, items = inside(api, given)

        def busy(*_, **__):
            raise lanes.Busy("All hands are busy.")

        with monkeypatch.context() as patched:
            patched.setattr(lanes, "marked", busy)
            assert write(client, items[0], WRONG).json()["working"]["told"] == []
        before = api.get(f"/api/sets/{given.pk}/room").json()
        assert before["seats"][0]["cells"][0]["beads"] == []
        pile.verify(StudentWorking.objects.select_related("item__given_set").get())
        now = api.get(f"/api/sets/{given.pk}/room?since={before['version']}").json()
        assert [bead["relation"] for bead in now["seats"][0]["cells"][0]["beads"]] == ["breaks", "holds"]
        assert client.get("/api/room").json()["items"][0]["working"]["told"]

    def test_a_nudge_and_who_comes_in_are_changes_of_one_seat(self, api, given):
        _, _ = inside(api, given)
        version = api.get(f"/api/sets/{given.pk}/room").json()["version"]
        come_in(Room.objects.get().code, "Bo Tarn")
        [seat] = api.get(f"/api/sets/{given.pk}/room?since={version}").json()["seats"]
        assert seat["name"] == "Bo Tarn" and seat["heard"]

    def test_another_teacher_sees_no_room(self, api, stranger, given):
        opened(api, given)
        assert stranger.get(f"/api/sets/{given.pk}/room").status_code == 404
        assert api.get(f"/api/sets/{given.pk + 99}/room").status_code == 404

    def test_a_room_that_is_opened_again_keeps_what_was_written(self, api, given):
        client, items = inside(api, given)
        write(client, items[0], ["3x = 15"])
        code = opened(api, given, tells="place")["code"]
        _, answer = come_in(code)
        assert working(answer)["lines"] == ["3x = 15"] and answer.json()["room"]["tells"] == "place"
        assert Visit.objects.count() == 1


def test_who_is_overtaken_while_the_lines_are_judged_is_told_what_stands(api, given, monkeypatch):
    client, items = inside(api, given)
    judged = pile.judged
    ada = given.school_class.students.get(name="Ada Quill")

    def judged_while_another_writes(item, lines, **how):
        monkeypatch.setattr(pile, "judged", judged)
        typed = {"student": ada.pk, "item": items[0], "lines": ["x = 9"]}
        assert api.send("PUT", f"/api/sets/{given.pk}/workings", typed).status_code == 200
        return judged(item, lines, **how)

    monkeypatch.setattr(pile, "judged", judged_while_another_writes)
    told = working(write(client, items[0], ["3x = 15"]))
    assert (told["lines"], told["revision"], told["told"][0]["verdict"]) == (["x = 9"], 2, "look")


def test_what_a_room_keeps_of_a_student_is_in_the_students_data(api, given, teacher):
    client, items = inside(api, given, hints=2)
    client.send("POST", f"/api/room/items/{items[0]}/hint")
    write(client, items[0], ["x = 6"], revision=0)
    ada = given.school_class.students.get(name="Ada Quill")
    seat = f"/api/sets/{given.pk}/room/students/{ada.pk}"
    api.send("POST", seat, {"more_minutes": 5, "nudge": "Begin with the 7."})
    decisions.decide(teacher, given.pk, DecideIn(workings=[StudentWorking.objects.get().pk]))
    typed = {"student": ada.pk, "item": items[0], "lines": ["x = 5"]}
    api.send("PUT", f"/api/sets/{given.pk}/workings", typed)
    api.get(f"/api/sets/{given.pk}")
    told = api.get(f"/api/students/{ada.pk}").json()
    [visit] = told["practice"]["visits"]
    assert (visit["nudge"], visit["extra_minutes"], told["practice"]["has_a_secret"]) == ("Begin with the 7.", 5, True)
    [working] = told["sets"][0]["workings"]
    assert (working["hints"], working["lines"], working["versions"][0]["lines"]) == (1, ["x = 5"], ["x = 6"])
    assert ("maren", "looked at the marks") in {(row["who"], row["what"]) for row in told["looked_at"]}
    text = "".join(page.extract_text() for page in PdfReader(BytesIO(paper_of(api, ada))).pages)
    assert all(
        words in text for words in ("told: Begin with the 7.", "5 minutes more", "1 hint taken", "it read: x = 6")
    )


def paper_of(api, student):
    return api.get(f"/api/students/{student.pk}?form=pdf").content
