"""A class over time, and what its counts say against the table of judgement."""

import csv
import io

import pytest

from server.jobs.models import Piece
from server.jobs.pieces import work
from server.marking import learned, overtime, services
from server.marking.models import SetItem, StudentWorking
from server.marking.schemas import ClassIn, SetIn, TypedIn
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn
from server.solving.queries import by_own_counts

pytestmark = pytest.mark.django_db
RIGHT, MOVED = ["3x = 15", "x = 5"], ["3x = 29", "x = 29/3"]  # the second moves 7 over without changing its sign


@pytest.fixture
def classroom(teacher, queue):
    return services.make_class(
        teacher, ClassIn(name="Evening A", students=[{"name": n} for n in ("Ada", "Bo", "Cleo", "Dag")])
    )


def given(classroom, day, **wrote):
    """A set with one equation, and what each student wrote."""
    teacher = classroom.owner
    sheet = sheets.create_sheet(teacher, f"Set {day}")
    problem = sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="3x + 7 = 22"))
    assert problem
    made = services.give(teacher, classroom.pk, SetIn(sheet=sheet.pk, day=day, scheme="answer"))
    for piece in Piece.objects.filter(ended=None):
        work(piece.pk, 0)
    for name, lines in wrote.items():
        typed = TypedIn(student=classroom.students.get(name=name).pk, item=made.items.get().pk, lines=lines)
        services.put_typed(teacher, made.pk, typed)
    return made


@pytest.mark.parametrize(
    ("made", "state"),
    [
        ([True], "new"),
        ([False, True], "new"),
        ([True, True], "steady"),
        ([True, False, True], "back"),
        ([True, False], "fading"),
        ([False, False, True], "new"),
        ([True, True, False], "fading"),
        ([False, True, True], "steady"),
    ],
)
def test_a_slip_of_a_student_is_new_steady_back_or_fading(made, state):
    assert overtime.state_of(made) == state


def test_a_class_over_its_sets(api, classroom):
    given(classroom, "2026-03-05", Ada=MOVED, Bo=MOVED, Cleo=RIGHT, Dag=RIGHT)
    given(classroom, "2026-03-12", Ada=RIGHT, Bo=MOVED, Cleo=RIGHT)
    given(classroom, "2026-03-19", Ada=MOVED, Bo=MOVED, Cleo=MOVED, Dag=RIGHT)
    told = api.get(f"/api/classes/{classroom.pk}/patterns").json()
    assert [(s["workings"], s["right"]) for s in told["sets"]] == [(4, 2), (3, 2), (4, 1)]
    [slip] = told["slips"]
    assert slip["id"] == "moved-same-sign" and [(c["could"], len(c["workings"])) for c in slip["counts"]] == [
        (4, 2),
        (3, 1),
        (4, 3),
    ]
    names = {s["id"]: s["name"] for s in told["students"]}
    assert {names[s["student"]]: (s["state"], len(s["workings"])) for s in slip["students"]} == {
        "Ada": ("back", 2),
        "Bo": ("steady", 3),
        "Cleo": ("new", 1),
    }
    assert [[names[s] for s in group["students"]] for group in told["groups"]] == [["Ada", "Bo", "Cleo"]]
    assert [names[s] for s in told["alone"]] == ["Dag"]
    assert StudentWorking.objects.get(pk=slip["students"][0]["workings"][0]).slips == ["moved-same-sign"]


def test_who_did_not_write_is_not_counted_as_rid_of_it(classroom):
    given(classroom, "2026-03-05", Dag=MOVED)
    given(classroom, "2026-03-12", Ada=RIGHT)
    [slip] = overtime.patterns_of(classroom).slips
    assert [s.state for s in slip.students] == ["new"]


def test_what_went_wrong_was_foreseen_or_not(api, classroom):
    made = given(classroom, "2026-03-05", Ada=MOVED, Bo=["3x = 15", "x = 61"])
    told = api.get(f"/api/sets/{made.pk}/patterns").json()
    assert {group["text"]: group["foreseen"] for group in told["items"][0]["wrong"]} == {
        "3x = 29": True,
        "x = 61": False,
    }
    SetItem.objects.update(foreseen=None)
    assert api.get(f"/api/sets/{made.pk}/patterns").json()["items"][0]["wrong"][0]["foreseen"] is None


def test_counts_move_a_likelihood_from_the_table_towards_the_class(api, classroom):
    given(classroom, "2026-03-05", Ada=MOVED, Bo=MOVED, Cleo=MOVED, Dag=MOVED)
    rows = {row["id"]: row for row in api.get("/api/learned").json()["slips"]}
    moved, other = rows["moved-same-sign"], rows["subtracted-coefficient"]
    assert (moved["made"], moved["could"], other["made"], other["could"]) == (4, 4, 0, 4)
    assert moved["factor"] > 1 > other["factor"] >= learned.FACTORS[0]
    assert 0 < other["share"] < moved["share"] < 1


def test_wrong_answers_are_ordered_by_the_class_only_when_that_is_wished(api, classroom, teacher):
    given(classroom, "2026-03-05", **{name: ["3x = 15", "x = 12"] for name in ("Ada", "Bo", "Cleo", "Dag")})
    sheet = sheets.create_sheet(teacher, "Next")
    problem = sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="4x + 5 = 29"))
    path = f"/api/problems/{problem.pk}/anticipate"
    before = api.get(path).json()
    assert not before["learned"] and learned.factors(teacher.pk) == {}
    assert api.send("PUT", "/api/learned", {"on": True}).json()["on"] is True
    after = api.get(path).json()

    def slips(told):
        return [wrong["slips"][0] for wrong in told["wrong"]]

    assert after["learned"] and slips(before)[0] == "moved-same-sign" and slips(after)[0] == "subtracted-coefficient"
    assert sorted(slips(before)) == sorted(slips(after))
    api.send("PUT", "/api/learned", {"on": False})
    assert api.get(path).json() == before


def test_without_counts_the_order_stands():
    assert by_own_counts([], {}) == ()
    assert learned.rows_of(0) == []


def test_patterns_are_tables_too(api, classroom):
    made = given(classroom, "2026-03-05", Ada=MOVED, Bo=MOVED, Cleo=RIGHT)
    given(classroom, "2026-03-12", Ada=RIGHT)

    def rows(path):
        return list(csv.DictReader(io.StringIO(api.get(path).content.decode("utf-8-sig"))))

    of_set = rows(f"/api/sets/{made.pk}/patterns.csv")
    assert [(r["what"], r["workings"], r["foreseen"], r["who"]) for r in of_set] == [
        ("slip", "2", "", "Ada, Bo"),
        ("item", "2", "yes", ""),
        ("right", "1", "", "of 3"),
    ]
    told = rows(f"/api/classes/{classroom.pk}/patterns.csv")
    assert [(r["what"], r["day"], r["workings"], r["could be made in"]) for r in told[:2]] == [
        ("set", "2026-03-05", "2", "3"),
        ("set", "2026-03-12", "0", "1"),
    ]
    assert {(r["student"], r["state"]) for r in told[2:]} == {("Ada", "fading"), ("Bo", "new")}
