"""The bank: all problems of a teacher, found by what they are."""

from urllib.parse import urlencode

import pytest
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

from server.bank import services as bank
from server.jobs.models import Piece, Run
from server.jobs.pieces import work
from server.sheets import services
from server.sheets.models import Problem, Sheet
from server.sheets.reports import STAMP
from server.sheets.schemas import ProblemChange, ProblemIn

pytestmark = pytest.mark.django_db

PROBLEMS = [
    ("Tides", "solve", "x^2 - 5x + 6 = 0"),
    ("Tides", "solve", "3x + 7 = 22"),
    ("Tides", "simplify", "√50 + √8"),
    ("Lanterns", "solve", "6 - 5t + t^2 = 0"),
    ("Lanterns", "factor", "2x^2 + 14x + 20"),
    ("Lanterns", "solve", "x^5 - x - 1 = 0"),
]


@pytest.fixture
def queue():
    with app.replace_connector(InMemoryConnector()) as replaced:
        yield replaced


@pytest.fixture
def filled(teacher, queue):
    sheets = {}
    for title, task, given in PROBLEMS:
        sheet = sheets.setdefault(title, None) or services.create_sheet(teacher, title)
        sheets[title] = sheet
        services.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given))
    return sheets


def looked_through(api):
    told = api.send("POST", "/api/bank/looked-through", {}).json()["waiting"]
    for piece in Piece.objects.filter(ended=None):
        work(piece.pk, 0)
    return told


def found(api, **wanted):
    answer = api.get(f"/api/bank?{urlencode(wanted)}")
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_by_its_text_before_it_is_looked_through(api, filled):
    first = found(api, text="x^2")
    assert first["waiting"] == len(PROBLEMS)
    assert {row["given"] for row in first["rows"]} == {"x^2 - 5x + 6 = 0", "2x^2 + 14x + 20"}
    assert {row["title"] for row in found(api, text="lantern")["rows"]} == {"Lanterns"}


def test_by_family_way_slip_difficulty_and_twice(api, filled):
    assert looked_through(api) == len(PROBLEMS)
    everything = found(api)
    assert (everything["found"], everything["waiting"]) == (len(PROBLEMS), 0)
    quadratics = {"x^2 - 5x + 6 = 0", "6 - 5t + t^2 = 0"}
    assert {row["given"] for row in found(api, family="quadratic-equations")["rows"]} == quadratics
    assert {row["given"] for row in found(api, method="completing-the-square")["rows"]} == quadratics
    assert {row["given"] for row in found(api, repeated="true")["rows"]} == quadratics
    assert {row["same"] for row in found(api, repeated="true")["rows"]} == {1}
    kinds = api.get("/api/bank/kinds").json()
    slip = kinds["slips"][0]
    assert found(api, slip=slip["id"])["found"] == slip["count"] > 0
    hard = [row["difficulty"] for row in found(api, order="hardest")["rows"]]
    assert hard == sorted(hard, key=lambda rating: (rating is None, -(rating or 0)))
    assert hard[-1] is None  # not worked: it is found all the same
    assert {row["difficulty"] for row in found(api, low=hard[0])["rows"]} == {hard[0]}
    assert all(row["difficulty"] < 4 for row in found(api, high=3.9)["rows"])


def test_what_was_changed_is_looked_through_again_and_nothing_else(api, teacher, filled):
    looked_through(api)
    problem = Problem.objects.get(given="3x + 7 = 22")
    services.change_problem(
        teacher,
        problem.pk,
        ProblemChange(
            given="√(x + 6) = x", task=None, variable=None, numbers=None, method=None, instruction=None, form=None
        ),
    )
    assert looked_through(api) == 1
    problem.refresh_from_db()
    assert problem.family == "radical-equations"


def test_a_problem_that_changes_meanwhile_keeps_no_old_entry(api, filled, monkeypatch):
    problem = Problem.objects.get(given="3x + 7 = 22")
    entry_of = bank.lanes.entry_of

    def overtaken(working, untaught=()):
        Problem.objects.filter(pk=problem.pk).update(given="5x = 10")
        return entry_of(working, untaught)

    monkeypatch.setattr(bank.lanes, "entry_of", overtaken)
    assert bank.work_piece({}, {"problems": [problem.pk]}) == 0
    problem.refresh_from_db()
    assert problem.indexed != STAMP


def test_what_is_too_heavy_is_looked_at_once_and_spoils_no_other(api, filled, monkeypatch):
    entry_of = bank.lanes.entry_of

    def heavy(working, untaught=()):
        if working.given.startswith("3x"):
            raise bank.lanes.TooHeavy("Too long.")
        return entry_of(working, untaught)

    monkeypatch.setattr(bank.lanes, "entry_of", heavy)
    looked_through(api)
    assert found(api)["waiting"] == 0
    assert [row["given"] for row in found(api, text="3x")["rows"]] == ["3x + 7 = 22"]


def test_it_is_begun_once(api, filled):
    for _ in range(2):
        api.send("POST", "/api/bank/looked-through", {})
    assert Run.objects.filter(kind=bank.KIND).count() == 1


def test_by_last_use(api, filled):
    sheet = filled["Tides"]
    assert api.get(f"/api/sheets/{sheet.pk}/paper.pdf").status_code == 200
    assert Sheet.objects.get(pk=sheet.pk).printed is not None
    today = timezone.now().date().isoformat()
    assert {row["title"] for row in found(api, unused=today)["rows"]} == {"Lanterns"}
    assert found(api, unused="2999-01-01")["found"] == len(PROBLEMS)
    assert found(api, order="unused")["rows"][0]["title"] == "Lanterns"


def test_a_stranger_finds_nothing(stranger, filled):
    assert found(stranger)["found"] == 0


@pytest.mark.parametrize("query", ["low=0", "high=11", "order=best", "unused=soon", "page=0", "text=" + "x" * 121])
def test_what_can_not_be_asked_is_refused(api, query):
    assert api.get(f"/api/bank?{query}").status_code == 422


def test_it_is_looked_through_again_when_the_conventions_change(api, filled):
    looked_through(api)
    assert looked_through(api) == 0
    sheet = filled["Tides"]
    api.send("PATCH", f"/api/sheets/{sheet.pk}", {"title": "Ebb and flow"})
    assert looked_through(api) == 0  # a title is nothing that a problem is found by
    api.send("PATCH", f"/api/sheets/{sheet.pk}", {"conventions": {"decimal": "comma"}})
    assert looked_through(api) == 3
