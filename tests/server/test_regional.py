"""How numbers and days are written: set for an account, for a class, for a sheet; the nearest one counts."""

from datetime import date

import pytest

from paper import FeedbackSlip
from server.common.regional import InForce, day_on_paper, in_force, number
from server.marking import feedback
from server.room import home
from server.sheets.models import Sheet

COMMA = {"decimal": "comma"}


@pytest.mark.parametrize(
    ("layers", "found"),
    [
        ([], ("point", "day-first", "monday")),
        ([{}, {}], ("point", "day-first", "monday")),
        ([{}, COMMA], ("comma", "day-first", "monday")),
        ([{"decimal": "point"}, COMMA], ("point", "day-first", "monday")),
        ([COMMA, {"dates": "year-first", "week": "sunday"}], ("comma", "year-first", "sunday")),
        ([{"powers": "leave"}, {"week": "saturday"}], ("point", "day-first", "saturday")),
    ],
)
def test_the_nearest_setting_counts(layers, found):
    assert in_force(*layers) == InForce(decimal=found[0], dates=found[1], week=found[2])


@pytest.mark.parametrize(
    ("dates", "told"),
    [("day-first", "5 March 2026"), ("month-first", "March 5, 2026"), ("year-first", "2026-03-05")],
)
def test_a_day_in_words(dates, told):
    assert day_on_paper(date(2026, 3, 5), dates) == told


@pytest.mark.parametrize(
    ("value", "decimal", "told"), [(2.5, "point", "2.5"), (2.5, "comma", "2,5"), (3.0, "comma", "3")]
)
def test_a_mark(value, decimal, told):
    assert number(value, decimal) == told


def write(api, **chosen):
    return api.send("PATCH", "/api/account/regional", chosen).json()["teacher"]


def test_an_account_says_how_it_writes_and_new_sheets_follow(api, teacher):
    before = api.send("POST", "/api/sheets", {"title": "Before"}).json()
    told = write(api, decimal="comma", dates="month-first")
    assert told["regional"] == {"decimal": "comma", "dates": "month-first", "week": None}
    assert told["in_force"] == {"decimal": "comma", "dates": "month-first", "week": "monday"}
    after = api.send("POST", "/api/sheets", {"title": "After"}).json()
    assert (before["conventions"], after["conventions"]) == ({}, COMMA)
    assert Sheet.objects.get(pk=before["id"]).conventions == {}  # its lines are written with points
    assert write(api, decimal=None)["regional"] == {"decimal": None, "dates": "month-first", "week": None}
    assert api.send("POST", "/api/sheets", {"title": "Again"}).json()["conventions"] == {}


def test_what_is_no_setting_is_refused_and_changes_nothing(api):
    write(api, dates="year-first")
    refused = api.send("PATCH", "/api/account/regional", {"dates": "moon-first"})
    assert refused.status_code in (400, 422) and "dates" in refused.content.decode()
    assert api.get("/api/account/session").json()["teacher"]["in_force"]["dates"] == "year-first"


def test_a_sheet_that_comes_with_points_keeps_them(api, given):
    write(api, decimal="comma")
    built = api.send(
        "POST",
        "/api/built",
        {"title": "Made", "problems": [{"task": "solve", "given": "0.5x = 2", "variable": "x"}]},
    )
    assert built.status_code == 201 and built.json()["conventions"] == {}


def test_a_class_goes_before_its_teacher_and_a_set_before_its_class(api, given):
    write(api, decimal="comma", dates="month-first", week="sunday")
    path, shown = f"/api/classes/{given.school_class_id}", f"/api/sets/{given.pk}"
    assert api.get(path).json()["in_force"] == {"decimal": "comma", "dates": "month-first", "week": "sunday"}
    changed = api.send("PATCH", path, {"regional": {"decimal": "point"}}).json()
    assert changed["in_force"] == {"decimal": "point", "dates": "month-first", "week": "sunday"}
    changed = api.send("PATCH", path, {"regional": {"week": "saturday"}}).json()  # what is not said stays
    assert changed["regional"] == {"decimal": "point", "dates": None, "week": "saturday"}
    changed = api.send("PATCH", path, {"regional": {"week": None}}).json()
    assert changed["regional"] == {"decimal": "point", "dates": None, "week": None}
    assert api.send("PATCH", path, {"name": "7c"}).json()["regional"]["decimal"] == "point"  # another change leaves it
    assert api.get(shown).json()["in_force"]["decimal"] == "point"
    given.conventions = COMMA
    given.save()
    assert api.get(shown).json()["in_force"]["decimal"] == "comma"
    over_time = api.get(f"{path}/patterns").json()["in_force"]
    assert over_time == {"decimal": "point", "dates": "month-first", "week": "sunday"}


def test_the_table_of_marks_is_written_as_the_class_does(api, given):
    path = f"/api/sets/{given.pk}/marks.csv"
    assert ";" not in api.get(path).content.decode()
    api.send("PATCH", f"/api/classes/{given.school_class_id}", {"regional": COMMA})
    assert ";" in api.get(path).content.decode()
    assert ";" not in api.get(f"{path}?semicolons=false").content.decode()


def test_slips_have_the_day_as_the_class_writes_it(api, given, teacher, monkeypatch):
    told = []
    slips = [FeedbackSlip("Ada Quill", (1,), (), (), ())]
    monkeypatch.setattr(feedback, "slips_of", lambda *_, **__: (given, slips))
    monkeypatch.setattr(feedback.lanes, "feedback", lambda title, day, *_: told.append(day) or b"")
    given.day = date(2026, 3, 5)
    feedback.feedback_pdf(teacher, given.pk, right=False, paper="a4")
    given.school_class.regional = {"dates": "year-first"}
    feedback.feedback_pdf(teacher, given.pk, right=False, paper="a4")
    assert told == ["5 March 2026", "2026-03-05"]


def test_a_students_own_page_is_written_as_the_class_does(given):
    student = given.school_class.students.first()
    given.school_class.regional = {"dates": "year-first"}
    given.school_class.save()
    assert home.home(student).in_force.dates == "year-first"


def test_what_an_item_is_worth_is_said_as_the_set_writes(api, given, teacher):
    item = given.items.first()
    typed = {"student": given.school_class.students.first().pk, "item": item.pk, "lines": ["x = 6"]}
    working = api.send("PUT", f"/api/sets/{given.pk}/workings", typed).json()["id"]
    scheme = {"kind": "points", "total": 2.5, "points": ["method", "accuracy"]}
    item.scheme = item.scheme | scheme
    item.save()
    asked = {"workings": [working], "mark": 3}
    assert api.send("POST", f"/api/sets/{given.pk}/decisions", asked).json()["detail"] == "This item is worth 2.5."
    given.conventions = COMMA
    given.save()
    assert api.send("POST", f"/api/sets/{given.pk}/decisions", asked).json()["detail"] == "This item is worth 2,5."
