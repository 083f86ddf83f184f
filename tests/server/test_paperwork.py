"""Around the marks: absent and late papers, blanks, totals and grades, a second attempt, kept schemes, who looked and
who changed."""

import csv
import io
from datetime import timedelta

import pytest

from server.jobs.models import Piece
from server.jobs.pieces import work
from server.marking import decisions, services
from server.marking.models import StudentWorking
from server.marking.schemas import ClassIn, DecideIn, SetIn, TypedIn
from server.marking.totals import grade_of
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn

pytestmark = pytest.mark.django_db
GRADES = [{"grade": "pass", "percent": 50}, {"grade": "good", "percent": 75}]


@pytest.fixture
def given(teacher, queue):
    sheet = sheets.create_sheet(teacher, "Thursday")
    for each in ("x + 1 = 3", "2x = 8"):
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given=each))
    made = services.make_class(
        teacher, ClassIn(name="Evening A", students=[{"name": n} for n in ("Ada", "Bo", "Cleo")])
    )
    return services.give(teacher, made.pk, SetIn(sheet=sheet.pk, day="2026-03-05", scheme="answer"))


def written(given, name, *answers):
    """The answers of a student, typed and confirmed as they are proposed."""
    student, teacher = given.school_class.students.get(name=name), given.school_class.owner
    for item, line in zip(given.items.order_by("position"), answers, strict=False):
        typed = TypedIn(student=student.pk, item=item.pk, lines=[line])
        working = services.put_typed(teacher, given.pk, typed)
        decisions.decide(teacher, given.pk, DecideIn(workings=[working.pk]))


def change(api, given, **data):
    return api.send("PATCH", f"/api/sets/{given.pk}", data)


def paper(api, given, name, **data):
    student = given.school_class.students.get(name=name)
    answer = api.send("PATCH", f"/api/sets/{given.pk}/papers/{student.pk}", data)
    assert answer.status_code == 200, answer.content


def totals(api, given):
    named = {s.pk: s.name for s in given.school_class.students.all()}
    return {named[row["student"]]: row for row in api.get(f"/api/sets/{given.pk}").json()["totals"]}


def test_a_total_stands_only_where_every_item_is_confirmed(api, given):
    written(given, "Ada", "x = 2", "x = 4")
    written(given, "Bo", "x = 2")
    found = totals(api, given)
    assert [(found[n]["state"], found[n]["total"], found[n]["of"]) for n in ("Ada", "Bo", "Cleo")] == [
        ("complete", 2, 2),
        ("open", None, 2),
        ("nothing", None, 2),
    ]


def test_a_slip_says_the_same_total_as_the_table(api, given):
    written(given, "Ada", "x = 2", "x = 4")
    written(given, "Bo", "x = 2")
    change(api, given, late_percent=25, boundaries=[{"grade": "A", "percent": 50}, {"grade": "B", "percent": 0}])
    paper(api, given, "Ada", late=True)
    slips = {slip["student"]: slip["mark"] for slip in api.get(f"/api/sets/{given.pk}/feedback").json()}
    assert slips == {"Ada": "1.5 of 2, A, late", "Bo": ""}


def test_a_late_paper_loses_what_is_set_and_an_absent_student_nothing(api, given):
    written(given, "Ada", "x = 2", "x = 4")
    change(api, given, late_percent=25)
    paper(api, given, "Ada", late=True)
    paper(api, given, "Cleo", absent=True)
    found = totals(api, given)
    assert (found["Ada"]["total"], found["Ada"]["late"], found["Cleo"]["state"]) == (1.5, True, "absent")
    paper(api, given, "Cleo", absent=False)
    assert totals(api, given)["Cleo"]["state"] == "nothing" and not given.papers.filter(student__name="Cleo").exists()


def test_blanks_are_proposed_for_and_confirmed_like_the_others(api, given):
    written(given, "Bo", "x = 2")
    paper(api, given, "Cleo", absent=True)
    assert api.send("POST", f"/api/sets/{given.pk}/blanks").status_code == 200
    for piece in Piece.objects.filter(ended=None):
        work(piece.pk, 0)
    [blank] = StudentWorking.objects.filter(source="blank")
    assert (blank.paper.student.name, blank.item.position, blank.mark) == ("Bo", 1, None)
    assert api.send("POST", f"/api/sets/{given.pk}/decisions", {"workings": [blank.pk]}).json()["marks"] == {
        str(blank.pk): 0
    }
    assert totals(api, given)["Bo"]["total"] == 1
    api.send("POST", f"/api/sets/{given.pk}/blanks")
    assert StudentWorking.objects.count() == 2


@pytest.mark.parametrize(
    ("total", "expected"), [(None, ""), (0.9, ""), (1, "pass"), (1.49, "pass"), (1.5, "good"), (2, "good")]
)
def test_a_grade_begins_at_its_percent(total, expected):
    assert grade_of(total, 2, GRADES) == expected
    assert grade_of(total, 0, GRADES) == ""


def test_of_two_attempts_the_better_counts(api, teacher, given):
    written(given, "Ada", "x = 2", "x = 4")
    written(given, "Bo", "x = 2", "x = 5")
    sheet = sheets.create_sheet(teacher, "Once more")
    for each in ("x + 1 = 3", "2x = 8", "3x = 9", "4x = 4"):
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given=each))
    again = services.give(teacher, given.school_class_id, SetIn(sheet=sheet.pk, day="2026-03-12", scheme="answer"))
    assert change(api, again, again_of=given.pk, boundaries=GRADES).status_code == 200
    written(again, "Ada", "x = 0", "x = 0", "x = 0", "x = 1")
    written(again, "Bo", "x = 2", "x = 4", "x = 3", "x = 0")
    found = totals(api, again)
    assert [(found[n]["first"], found[n]["total"], found[n]["counts"], found[n]["grade"]) for n in ("Ada", "Bo")] == [
        (2, 1, 4, "good"),
        (1, 3, 3, "good"),
    ]
    table = list(csv.DictReader(io.StringIO(api.get(f"/api/sets/{again.pk}/marks.csv").content.decode("utf-8-sig"))))
    assert [(row["sum"], row["first attempt"], row["counts"], row["grade"]) for row in table[:2]] == [
        ("1", "2", "4", "good"),
        ("3", "1", "3", "good"),
    ]
    assert change(api, given, again_of=again.pk).json()["code"] == "again_of"  # the later is no first attempt
    assert change(api, again, again_of=0).json()["again_of"] == 0


def test_a_table_for_spreadsheets_with_a_decimal_comma(api, given):
    written(given, "Ada", "x = 2", "x = 4")
    change(api, given, late_percent=25)
    paper(api, given, "Ada", late=True)
    text = api.get(f"/api/sets/{given.pk}/marks.csv?semicolons=true").content.decode("utf-8-sig")
    first = next(csv.DictReader(io.StringIO(text), delimiter=";"))
    assert (first["sum"], first["of"], first["paper"]) == ("1,5", "2", "late")


@pytest.mark.parametrize(
    "data",
    [
        {"late_percent": 101},
        {"boundaries": [{"grade": "", "percent": 5}]},
        {"boundaries": [{"grade": "a", "percent": 5}] * 2},
        {"again_of": 999_999},
    ],
)
def test_what_a_set_counts_by_is_checked(api, given, data):
    assert change(api, given, **data).status_code in (400, 422)


def test_schemes_are_kept_replaced_and_used_again(api, stranger, given):
    scheme = {"kind": "points", "total": 2, "points": ["method", "accuracy"]}
    [kept] = api.send("PUT", "/api/schemes", {"name": "Two points", "scheme": scheme}).json()
    [now] = api.send("PUT", "/api/schemes", {"name": "Two points", "scheme": {**scheme, "lucky": "keeps"}}).json()
    assert (now["id"], now["scheme"]["lucky"]) == (kept["id"], "keeps")
    item = given.items.first()
    answer = api.send("PUT", f"/api/items/{item.pk}/scheme", now["scheme"]).json()
    assert answer["items"][0]["scheme"]["lucky"] == "keeps"
    assert stranger.get("/api/schemes").json() == []
    assert stranger.send("DELETE", f"/api/schemes/{now['id']}").status_code == 404
    assert api.send("DELETE", f"/api/schemes/{now['id']}").status_code == 204 and api.get("/api/schemes").json() == []


def test_who_looked_and_who_changed_is_kept(api, given):
    written(given, "Ada", "x = 2")
    for _ in range(2):
        api.get(f"/api/sets/{given.pk}")
    api.get(f"/api/sets/{given.pk}/marks.csv")
    found = api.get(f"/api/sets/{given.pk}/log").json()
    assert sorted(row["what"] for row in found) == ["looked at the marks", "mark", "took the marks away"]
    [mark] = [row for row in found if row["what"] == "mark"]
    assert (mark["who"], mark["item"], mark["before"], mark["after"]) == ("maren", 1, None, 1)
    api.send("DELETE", f"/api/sets/{given.pk}/decisions")
    assert "taken back" in {row["what"] for row in api.get(f"/api/sets/{given.pk}/log").json()}


def test_the_last_decision_is_taken_back_also_when_the_clock_was_set_back(api, given, monkeypatch):
    written(given, "Ada", "x = 2")
    now = services.timezone.now
    monkeypatch.setattr(services.timezone, "now", lambda: now() - timedelta(hours=2))
    written(given, "Bo", "x = 2")
    bo = StudentWorking.objects.get(paper__student__name="Bo")
    assert api.send("DELETE", f"/api/sets/{given.pk}/decisions").json()["marks"] == {str(bo.pk): None}


def test_what_was_written_is_offered_the_commonest_first(api, given):
    written(given, "Ada", "x = 2")
    written(given, "Bo", "x = 4")
    written(given, "Cleo", "x = 4")
    item = given.items.order_by("position").first()
    assert api.get(f"/api/items/{item.pk}/written").json() == [
        {"lines": ["x = 4"], "count": 2},
        {"lines": ["x = 2"], "count": 1},
    ]
