"""Marks decided, taken back and decided again: a mark is always what was decided last, and what was marked is kept."""

from contextlib import suppress

import pytest
from django.db import connection

from server.common.problems import Refused
from server.marking import decisions, pile, services
from server.marking.models import Decision, StudentWorking
from server.marking.schemas import ClassIn, DecideIn, PileIn, SetIn
from server.marking.workings import put_lines
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn
from tests.server.conftest import make_teacher
from tests.server.test_at_once import at_once
from tools.doctor import NOT_AS_DECIDED

ROUNDS = 30


def apart():
    """How many marks are not what was decided last."""
    with connection.cursor() as cursor:
        cursor.execute(NOT_AS_DECIDED)
        return cursor.fetchone()[0]


def put(given, student, number, *lines):
    item = given.items.get(position=number - 1)
    return put_lines("maren", given, given.school_class.students.get(name=student), item, list(lines), "typed")[1]


def marks():
    return list(StudentWorking.objects.order_by("pk").values_list("mark", flat=True))


def decide(teacher, given, *workings, mark):
    return decisions.decide(teacher, given.pk, DecideIn(workings=workings, mark=mark))


@pytest.fixture
def two(given):
    return put(given, "Ada Quill", 1, "x = 5"), put(given, "Bo Tarn", 1, "x = 6")


@pytest.mark.django_db
class TestTakingBackAndDoingAgain:
    def test_step_by_step_back_and_forth(self, teacher, given, two):
        ada, bo = two
        decide(teacher, given, ada, bo, mark=1)
        decide(teacher, given, bo, mark=0)
        told = [decisions.take_back(teacher, given.pk), decisions.take_back(teacher, given.pk)]
        assert told == [{bo: 1.0}, {ada: None, bo: None}]
        assert (marks(), apart()) == ([None, None], 0)
        assert decisions.do_again(teacher, given.pk) == {ada: 1.0, bo: 1.0}
        assert decisions.do_again(teacher, given.pk) == {bo: 0.0}
        assert (marks(), apart()) == ([1, 0], 0)
        with pytest.raises(Refused, match="could be done again"):
            decisions.do_again(teacher, given.pk)

    def test_nothing_is_done_again_after_another_decision(self, teacher, given, two):
        ada, bo = two
        decide(teacher, given, ada, mark=1)
        decisions.take_back(teacher, given.pk)
        decide(teacher, given, bo, mark=0)
        with pytest.raises(Refused):
            decisions.do_again(teacher, given.pk)
        assert (marks(), apart()) == ([None, 0], 0)

    def test_a_mark_never_comes_back_for_other_lines(self, teacher, given, two):
        ada, _ = two
        decide(teacher, given, ada, mark=1)
        decisions.take_back(teacher, given.pk)
        put(given, "Ada Quill", 1, "x = 7")
        for act in (decisions.do_again, decisions.take_back):
            with pytest.raises(Refused):
                act(teacher, given.pk)
        assert (marks(), apart()) == ([None, None], 0)

    def test_a_decision_on_lines_that_went_meanwhile_stays_where_it_is(self, teacher, given, two):
        """Also where the lines changed without closing it, as two at the same moment might."""
        ada, _ = two
        decide(teacher, given, ada, mark=1)
        decisions.take_back(teacher, given.pk)
        StudentWorking.objects.filter(pk=ada).update(revision=9)
        with pytest.raises(Refused):
            decisions.do_again(teacher, given.pk)

    def test_who_decided_is_kept_with_what_it_was_on(self, teacher, given, two):
        decide(teacher, given, two[0], mark=1)
        kept = Decision.objects.get()
        assert (kept.who, kept.before, kept.after, kept.revision) == ("maren", None, 1, 1)

    def test_what_is_sent_again_for_its_answer_was_lost_is_decided_once(self, teacher, given, two):
        ada, bo = two
        data = DecideIn(workings=[ada, bo], mark=1, key="6f1f2b62-3c53-4b54-9d7e-0a7f4f2a9a11")
        assert decisions.decide(teacher, given.pk, data) == {ada: 1.0, bo: 1.0}
        decide(teacher, given, bo, mark=0)
        assert decisions.decide(teacher, given.pk, data) == {ada: 1.0, bo: 0.0}  # as it stands by now
        assert (Decision.objects.count(), marks(), apart()) == (3, [1, 0], 0)

    def test_the_sets_of_another_are_not_decided(self, teacher, given, two, stranger):
        for method, path, data in (
            ("DELETE", "decisions", None),
            ("POST", "decisions/again", None),
            ("POST", "decisions/anew", {"workings": [two[0]]}),
        ):
            assert stranger.send(method, f"/api/sets/{given.pk}/{path}", data).status_code == 404


@pytest.mark.django_db
class TestAfterAnotherScheme:
    def test_marks_that_no_longer_fit_are_flagged_and_can_be_proposed_anew(self, api, teacher, given):
        sent = {"student": given.school_class.students.get(name="Ada Quill").pk, "lines": ["x = 5"]}
        items = list(given.items.order_by("position"))
        for item in items:
            api.send("PUT", f"/api/sets/{given.pk}/workings", {**sent, "item": item.pk})
        one, two = StudentWorking.objects.order_by("item__position")
        decisions.decide(teacher, given.pk, DecideIn(workings=[one.pk, two.pk]))

        def outdated():
            return [cell["outdated"] for cell in api.get(f"/api/sets/{given.pk}").json()["cells"]]

        assert outdated() == [False, False]
        for item in items:  # of the second nothing is right: no scheme gives it more
            api.send("PUT", f"/api/items/{item.pk}/scheme", {"kind": "answer", "total": 10})
            api.send("PUT", f"/api/sets/{given.pk}/workings", {**sent, "item": item.pk})
        for working in (one, two):
            pile.work_piece({}, {"working": working.pk})
        assert outdated() == [True, False]
        decisions.take_back(teacher, given.pk)
        decisions.do_again(teacher, given.pk)  # it was decided when it was
        assert outdated() == [True, False]
        told = api.send("POST", f"/api/sets/{given.pk}/decisions/anew", {"workings": [one.pk]}).json()
        assert told["marks"] == {str(one.pk): None}
        cell = api.get(f"/api/sets/{given.pk}").json()["cells"][0]
        assert (cell["mark"], cell["proposed"], cell["outdated"]) == (None, 10, False)
        refused = api.send("POST", f"/api/sets/{given.pk}/decisions/anew", {"workings": [one.pk]})
        assert (refused.status_code, refused.json()["code"]) == (400, "working")
        assert decisions.take_back(teacher, given.pk) == {one.pk: 1.0}
        assert apart() == 0


@pytest.mark.django_db
class TestVersions:
    def test_marked_lines_are_kept_when_others_come_in_their_place(self, api, teacher, given, two):
        ada, bo = two
        decide(teacher, given, ada, mark=1)
        text = "Ada Quill\n1. x = 8\nBo Tarn\n1. x = 9"
        services.take_in(teacher, given.pk, PileIn(text=text))
        opened = api.get(f"/api/workings/{ada}").json()
        assert (opened["mark"], opened["lines"]) == (None, ["x = 8"])
        [version] = opened["versions"]
        assert {**version, "until": ""} == {
            "lines": ["x = 5"],
            "source": "typed",
            "mark": 1.0,
            "confirmed_by": "maren",
            "who": "maren",
            "until": "",
        }
        assert api.get(f"/api/workings/{bo}").json()["versions"] == []  # it never was marked
        put(given, "Ada Quill", 1, "x = 10")
        assert [v["lines"] for v in api.get(f"/api/workings/{ada}").json()["versions"]] == [["x = 8"], ["x = 5"]]


@pytest.mark.django_db(transaction=True)
def test_of_two_who_decide_and_take_back_at_once_the_mark_is_what_was_decided_last(queue):
    teacher = make_teacher("maren")
    sheet = sheets.create_sheet(teacher, "Thursday")
    sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="3x + 7 = 22"))
    students = [{"name": name} for name in ("Ada Quill", "Bo Tarn")]
    school_class = services.make_class(teacher, ClassIn(name="Evening A", students=students))
    given = services.give(teacher, school_class.pk, SetIn(sheet=sheet.pk, day="2026-03-05", scheme="answer"))
    ada, bo = put(given, "Ada Quill", 1, "x = 5"), put(given, "Bo Tarn", 1, "x = 6")

    def back():
        with suppress(Refused):
            decisions.take_back(teacher, given.pk)

    for k in range(ROUNDS):
        raised = at_once(
            lambda: decide(teacher, given, bo, ada, mark=1),
            back,
            lambda: decide(teacher, given, ada, mark=0.5),
            lambda k=k: put(given, "Bo Tarn", 1, f"x = {k}"),
        )
        assert raised == [None] * 4
        assert apart() == 0
