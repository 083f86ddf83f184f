"""Every endpoint of the API, by its own description: what it gives its owner, a stranger, nobody, and to a malformed
body."""

import re
from pathlib import Path

import jsonschema
import pytest
from django.contrib.auth.models import User

from server.building import ladders
from server.building.schemas import LadderIn
from server.config.openapi import document
from server.jobs.models import Run
from server.keys import services as keys
from server.keys.schemas import KeyIn
from server.marking import decisions
from server.marking import services as marking
from server.marking.models import OwnScheme, SchoolClass, StudentWorking
from server.marking.schemas import ClassIn, DecideIn, SetIn, TypedIn
from server.room import services as rooms
from server.room.models import Room
from server.room.schemas import RoomIn
from server.scans.models import StudentPage
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn
from tests.server.conftest import Api, make_teacher

pytestmark = pytest.mark.django_db

DOCUMENT = document()
METHODS = ("get", "post", "put", "patch", "delete")
OPERATIONS = {
    (method.upper(), path): DOCUMENT["paths"][path][method]
    for path in DOCUMENT["paths"]
    for method in METHODS
    if method in DOCUMENT["paths"][path]
}
OPEN = {("GET", "/api/account/session"), ("POST", "/api/account/log-in"), ("POST", "/api/account/set-up")}
"""What one may ask without being logged in."""
ROOM = "/api/room"
"""Below this are students, who have no account: what they may is tried in test_room.py."""

KEY = "solve: x^2 = 9\nx = ±3\n"
LADDER = LadderIn(families=["linear-equations"], count=2)
PAGE = (Path(__file__).parents[2] / "standins" / "pages" / "iris-vane-1.jpg").read_bytes()
SENT = {
    # operation: (what is sent, the status that answers it, bodies that are malformed)
    ("GET", "/api/account/session"): (None, 200, []),
    ("POST", "/api/account/log-in"): ({"username": "maren", "password": "lantern-quay"}, 200, [{}, {"username": 3}]),
    ("POST", "/api/account/set-up"): (
        {"username": "ilse", "password": "tide-table-41", "name": "Ilse"},
        400,
        [{}, {"username": "ilse", "password": "12"}],
    ),
    ("POST", "/api/account/second-factor"): (None, 201, []),
    ("PUT", "/api/account/second-factor"): ({"digits": "123456"}, 400, [{}, {"digits": ""}, {"digits": "x" * 40}]),
    ("POST", "/api/account/second-factor/away"): (
        {"password": "lantern-quay"},
        200,
        [{}, {"password": "wrong"}],
    ),
    ("POST", "/api/account/log-out"): (None, 200, []),
    ("PATCH", "/api/account/regional"): ({"decimal": "comma"}, 200, [{"decimal": "dot"}, {"week": "friday"}]),
    ("POST", "/api/account/password"): (
        {"old": "lantern-quay", "new": "tide-table-41"},
        200,
        [
            {},
            {"old": "lantern-quay", "new": "12"},
            {"old": "wrong", "new": "tide-table-41"},
            {"old": "lantern-quay", "new": "lantern-quay"},
        ],
    ),
    ("GET", "/api/people"): (None, 200, []),
    ("POST", "/api/people"): (
        {"username": "ilse", "name": "Ilse"},
        201,
        [
            {},
            {"username": ""},
            {"username": "a b"},
            {"username": "maren"},
            {"username": "ilse", "teaches": False, "manages": False},
        ],
    ),
    ("PATCH", "/api/people/{user_id}"): (
        {"name": "Odo Quill", "manages": True},
        200,
        [{"teaches": False}, {"name": 3}],
    ),
    ("POST", "/api/people/{user_id}/reset"): (None, 200, []),
    ("POST", "/api/people/{user_id}/unlock"): (None, 200, []),
    ("GET", "/api/colleagues"): (None, 200, []),
    ("POST", "/api/sheets/{sheet_id}/copies"): (
        {"username": "odo", "workings": False},
        204,
        [{}, {"username": ""}, {"username": "nobody"}, {"username": "maren"}],
    ),
    ("GET", "/api/account/words"): (None, 200, []),
    ("PUT", "/api/account/words"): (
        {"words": {"distribute": {"name": "Open the brackets", "text": "Each term."}}},
        200,
        [{}, {"words": [1]}, {"words": {"no-such": {"name": "", "text": ""}}}],
    ),
    ("GET", "/api/catalogue"): (None, 200, []),
    ("POST", "/api/check"): (
        {"task": "solve", "given": "x^2 = 9", "lines": ["x = 3"]},
        200,
        [
            {},
            {"task": "solve"},
            {"task": "solve", "given": "x" * 601},
            {"task": "solve", "given": "x", "lines": "x"},
            {"task": "solve", "given": "x", "format": 2},
        ],
    ),
    ("POST", "/api/check/echo"): (
        {"text": "(x+1)/2 = 3 | ×2"},
        200,
        [{}, {"text": 3}, {"text": "x", "decimal": "dot"}],
    ),
    ("POST", "/api/check/typeset"): (
        {"texts": ["(x+1)/2", "no (mathematics"]},
        200,
        [{}, {"texts": "x"}, {"texts": ["x"] * 101}, {"texts": ["x" * 601]}],
    ),
    ("GET", "/api/sheets"): (None, 200, []),
    ("POST", "/api/sheets"): ({"title": "Roots"}, 201, [{}, {"title": ""}, {"title": "x" * 400}]),
    ("GET", "/api/sheets/{sheet_id}"): (None, 200, []),
    ("PATCH", "/api/sheets/{sheet_id}"): (
        {"conventions": {"decimal": "comma"}},
        200,
        [{"title": ""}, {"conventions": {"hue": "red"}}, {"untaught": ["no-such-thing"]}],
    ),
    ("DELETE", "/api/sheets/{sheet_id}"): (None, 204, []),
    ("PUT", "/api/sheets/{sheet_id}/order"): (
        {"problems": ["{problem_id}"]},
        200,
        [{}, {"problems": [0]}, {"problems": "all"}],
    ),
    ("POST", "/api/sheets/{sheet_id}/problems"): (
        {"task": "solve", "given": "|x| = 2"},
        201,
        [
            {},
            {"task": "guess", "given": "x"},
            {"task": "solve", "given": ""},
            {"task": "solve", "given": "x = (", "numbers": "odd"},
        ],
    ),
    ("GET", "/api/sheets/{sheet_id}/export"): (None, 200, []),
    ("POST", "/api/taken"): (
        {"form": "csv", "text": "given\n2x = 8\n", "title": "Taken"},
        201,
        [{}, {"form": "pdf", "text": "x"}, {"form": "json", "text": "{"}, {"form": "csv", "text": ""}],
    ),
    ("GET", "/api/families"): (None, 200, []),
    ("POST", "/api/ladders"): (
        {"families": ["linear-equations"], "count": 3, "kept": [{"task": "solve", "given": "3x = 6"}]},
        200,
        [
            {},
            {"families": []},
            {"families": [], "slip": "no-such"},
            {"families": ["no-such"]},
            {"families": ["factor"], "low": 4, "high": 2},
            {"families": ["factor"], "count": 99},
            {"families": ["factor"], "events": ["rain"]},
        ],
    ),
    ("POST", "/api/another"): (
        {"problem": {"task": "solve", "given": "3x + 7 = 22"}, "what": "harder"},
        200,
        [
            {},
            {"problem": {"task": "solve", "given": "x = ("}},
            {"problem": {"task": "solve", "given": "3x = 6"}, "what": "nicer"},
        ],
    ),
    ("POST", "/api/built"): (
        {"title": "Thursday", "problems": [{"task": "solve", "given": "3x = 6"}]},
        201,
        [{}, {"title": "x", "problems": []}, {"title": "", "problems": [{"task": "solve", "given": "x"}]}],
    ),
    ("POST", "/api/sheets/{sheet_id}/versions"): ({"name": "B"}, 201, [{}, {"name": ""}, {"name": "B", "seed": -1}]),
    ("GET", "/api/sheets/{sheet_id}/advice"): (None, 200, []),
    ("POST", "/api/sheets/{sheet_id}/mended"): (
        {"item": 1, "mend": "replace"},
        200,
        [{}, {"item": 0, "mend": "replace"}, {"item": 1, "mend": "burn"}, {"item": 99, "mend": "key"}],
    ),
    ("PUT", "/api/problems/{problem_id}"): (
        {"problem": {"task": "solve", "given": "3x = 6"}, "lines": ["x = 2"]},
        200,
        [
            {},
            {"problem": {"task": "guess", "given": "x"}},
            {"problem": {"task": "solve", "given": "x", "form": "song"}},
            {"problem": {"task": "solve", "given": "x"}, "lines": "x"},
        ],
    ),
    ("GET", "/api/problems/{problem_id}/picture"): (None, 200, []),
    ("GET", "/api/sheets/{sheet_id}/page"): (None, 200, []),
    ("GET", "/api/bank"): (None, 200, []),
    ("GET", "/api/bank/kinds"): (None, 200, []),
    ("POST", "/api/bank/looked-through"): (None, 202, []),
    ("GET", "/api/classes"): (None, 200, []),
    ("POST", "/api/classes"): (
        {"name": "Evening B", "students": [{"name": "Ida Fenn", "number": "12"}]},
        201,
        [
            {},
            {"name": " "},
            {"name": "Evening A"},
            {"name": "B", "students": [{"name": "I"}, {"name": "I"}]},
            {"name": "B", "students": [{"name": "I", "number": "1"}, {"name": "J", "number": "1"}]},
        ],
    ),
    ("GET", "/api/classes/{class_id}"): (None, 200, []),
    ("PATCH", "/api/classes/{class_id}"): (
        {"students": [{"name": "Ida Fenn"}]},
        200,
        [{"name": ""}, {"students": [{"name": "Ada Quill"}]}],
    ),
    ("GET", "/api/classes/{class_id}/door"): (None, 200, []),
    ("POST", "/api/classes/{class_id}/door"): (None, 200, []),
    ("DELETE", "/api/classes/{class_id}/door"): (None, 204, []),
    ("POST", "/api/classes/{class_id}/handed-over"): (
        {"username": "odo"},
        204,
        [{}, {"username": ""}, {"username": "nobody"}, {"username": "maren"}],
    ),
    ("DELETE", "/api/classes/{class_id}"): (None, 204, []),
    ("GET", "/api/students/{student_id}"): (None, 200, []),
    ("DELETE", "/api/students/{student_id}"): (None, 204, []),
    ("PATCH", "/api/students/{student_id}"): (
        {"name": "Ada Quill-Marsh", "into": "{class_id}"},
        200,
        [{"name": ""}, {"number": 7}],
    ),
    ("DELETE", "/api/classes/{class_id}/records"): (None, 200, []),
    ("POST", "/api/classes/{class_id}/sets"): (
        {"sheet": "{sheet_id}", "day": "2026-03-05"},
        201,
        [{}, {"sheet": "{sheet_id}", "day": "soon"}, {"sheet": "{sheet_id}", "day": "2026-03-05", "scheme": "luck"}],
    ),
    ("GET", "/api/sets/{set_id}"): (None, 200, []),
    ("PATCH", "/api/sets/{set_id}"): (
        {"late_percent": 20, "boundaries": [{"grade": "pass", "percent": 50}]},
        200,
        [
            {"late_percent": -1},
            {"boundaries": "A"},
            {"boundaries": [{"grade": "A"}]},
            {"again_of": "{set_id}"},
            {"title": " "},
        ],
    ),
    ("PATCH", "/api/sets/{set_id}/papers/{student_id}"): ({"late": True}, 200, [{"late": "perhaps"}, {"absent": 7}]),
    ("POST", "/api/sets/{set_id}/blanks"): (None, 200, []),
    ("GET", "/api/sets/{set_id}/log"): (None, 200, []),
    ("GET", "/api/classes/{class_id}/patterns"): (None, 200, []),
    ("GET", "/api/classes/{class_id}/patterns.csv"): (None, 200, []),
    ("GET", "/api/sets/{set_id}/patterns.csv"): (None, 200, []),
    ("GET", "/api/learned"): (None, 200, []),
    ("PUT", "/api/learned"): ({"on": True}, 200, [{}, {"on": "perhaps"}]),
    ("GET", "/api/schemes"): (None, 200, []),
    ("PUT", "/api/schemes"): (
        {"name": "Own", "scheme": {"kind": "answer", "total": 1}},
        200,
        [
            {},
            {"name": "", "scheme": {"kind": "answer", "total": 1}},
            {"name": "Own", "scheme": {"kind": "luck", "total": 1}},
        ],
    ),
    ("DELETE", "/api/schemes/{scheme_id}"): (None, 204, []),
    ("GET", "/api/records/classes"): (None, 200, []),
    ("POST", "/api/rosters/preview"): (
        {"source": "table", "text": "Ida Fenn", "into": "{class_id}"},
        200,
        [
            {},
            {"source": "tea"},
            {"source": "table", "text": " "},
            {"source": "table", "text": "Ida"},
            {"source": "bundle", "text": "!"},
            {"source": "bundle", "text": "aGVsbG8="},
            {"source": "records", "ids": ["c"]},
        ],
    ),
    ("POST", "/api/rosters"): (
        {"source": "table", "text": "Ida Fenn", "into": "{class_id}", "chosen": [0]},
        201,
        [{}, {"source": "table", "text": "Ida", "title": "B", "chosen": [-1]}],
    ),
    ("PUT", "/api/classes/{class_id}/records"): ({"id": "c"}, 400, [{}, {"id": ""}]),
    ("GET", "/api/sets/{set_id}/records"): (None, 200, []),
    ("POST", "/api/sets/{set_id}/records"): (
        {"students": ["{student_id}"]},
        400,
        [{}, {"students": []}, {"students": "all"}],
    ),
    ("GET", "/api/sets/{set_id}/oneroster.zip"): (None, 200, []),
    ("DELETE", "/api/sets/{set_id}"): (None, 204, []),
    ("POST", "/api/sets/{set_id}/taken"): (
        {"text": "Ada Quill\n1. x = 6"},
        200,
        [
            {},
            {"text": ""},
            {"text": "x", "form": "tea"},
            {"text": "!", "form": "zip"},
            {"text": "aGVsbG8=", "form": "zip"},
        ],
    ),
    ("POST", "/api/sets/{set_id}/verified"): (None, 202, []),
    ("PUT", "/api/sets/{set_id}/workings"): (
        {"student": "{student_id}", "item": "{item_id}", "lines": ["x = 6 or x = -6"]},
        200,
        [{}, {"student": "{student_id}", "item": "{item_id}", "lines": [""]}],
    ),
    ("GET", "/api/workings/{working_id}"): (None, 200, []),
    ("POST", "/api/sets/{set_id}/decisions"): (
        {"workings": ["{working_id}"], "mark": 1},
        200,
        [
            {},
            {"workings": []},
            {"workings": ["{working_id}"], "mark": 99},
            {"workings": ["{working_id}"], "mark": -1},
            {"workings": [0], "mark": 1},
        ],
    ),
    ("DELETE", "/api/sets/{set_id}/decisions"): (None, 200, []),
    ("POST", "/api/sets/{set_id}/decisions/again"): (None, 400, []),
    ("POST", "/api/sets/{set_id}/decisions/anew"): (
        {"workings": ["{working_id}"]},
        200,
        [{}, {"workings": []}, {"workings": [0]}],
    ),
    ("GET", "/api/items/{item_id}/written"): (None, 200, []),
    ("PUT", "/api/items/{item_id}/scheme"): (
        {"kind": "levels", "total": 4},
        200,
        [
            {},
            {"kind": "luck", "total": 1},
            {"kind": "points", "total": 3},
            {"kind": "answer", "total": 0},
            {"kind": "answer", "total": 1, "lucky": "maybe"},
        ],
    ),
    ("GET", "/api/sets/{set_id}/marks.csv"): (None, 200, []),
    ("GET", "/api/sets/{set_id}/patterns"): (None, 200, []),
    ("GET", "/api/sets/{set_id}/feedback.pdf"): (None, 200, []),
    ("GET", "/api/sets/{set_id}/feedback"): (None, 200, []),
    ("POST", "/api/sets/{set_id}/tomorrow"): (None, 201, []),
    ("GET", "/api/sets/{set_id}/pages"): (None, 200, []),
    ("POST", "/api/sets/{set_id}/pages"): (PAGE, 201, [b"", b"no page", b"%PDF-1.7 broken"]),
    ("GET", "/api/pages/{page_id}"): (None, 200, []),
    ("GET", "/api/pages/{page_id}/picture"): (None, 200, []),
    ("POST", "/api/pages/{page_id}/settled"): (
        {"at": 0, "texts": ["x = 6"]},
        200,
        [{}, {"at": 9, "texts": []}, {"at": -1, "texts": None}, {"at": 0, "texts": [""]}, {"at": 0}],
    ),
    ("POST", "/api/pages/{page_id}/other"): (None, 200, []),
    ("POST", "/api/pages/{page_id}/student"): (
        {"student": "{student_id}"},
        200,
        [{}, {"student": 0}, {"student": "Ada"}],
    ),
    ("POST", "/api/pages/{page_id}/again"): (None, 200, []),
    ("DELETE", "/api/pages/{page_id}"): (None, 204, []),
    ("POST", "/api/sets/{set_id}/room"): (
        {"tells": "place", "hints": 2},
        201,
        [{"tells": "all"}, {"hints": 21}, {"minutes": 0}],
    ),
    ("GET", "/api/sets/{set_id}/room"): (None, 200, []),
    ("PATCH", "/api/sets/{set_id}/room"): (
        {"paused": "Eyes to the board."},
        200,
        [{"tells": "all"}, {"paused": "x" * 201}],
    ),
    ("POST", "/api/sets/{set_id}/room/students/{student_id}"): (
        {"nudge": "Begin with the 7."},
        200,
        [{"more_minutes": -1}, {"nudge": 3}],
    ),
    ("GET", "/api/sets/{set_id}/room/ask"): (None, 200, []),
    ("POST", "/api/sets/{set_id}/room/ask"): (
        {"kind": "try", "item": "{item_id}", "lines": []},
        200,
        [{}, {"kind": "guess"}, {"kind": "try", "item": "x"}],
    ),
    ("DELETE", "/api/sets/{set_id}/room/ask"): (None, 204, []),
    ("GET", "/api/problems/{problem_id}/room"): (None, 200, []),
    ("POST", "/api/room/ask"): ({"ask": 1, "text": "2"}, 403, []),
    ("GET", "/api/room"): (None, 403, []),
    ("GET", "/api/room/news"): (None, 403, []),
    ("GET", "/api/room/home"): (None, 403, []),
    ("PUT", "/api/room/home/problems/{problem_id}"): ({"revision": 0, "lines": ["x = 6"]}, 403, []),
    ("POST", "/api/room/come-in"): (
        {"code": "AAAAAA", "name": "Ada Quill", "secret": "river7"},
        400,
        [{}, {"code": "", "name": "A", "secret": "s"}, {"code": "A", "name": " ", "secret": "s"}],
    ),
    ("POST", "/api/room/leave"): (None, 204, []),
    ("POST", "/api/room/echo"): ({"text": "x = 2"}, 403, []),
    ("PUT", "/api/room/items/{item_id}"): ({"revision": 0, "lines": ["x = 6"]}, 403, []),
    ("POST", "/api/room/items/{item_id}/hint"): (None, 403, []),
    ("GET", "/api/sheets/{sheet_id}/paper"): (None, 200, []),
    ("GET", "/api/sheets/{sheet_id}/paper.pdf"): (None, 200, []),
    ("GET", "/api/problems/{problem_id}"): (None, 200, []),
    ("PATCH", "/api/problems/{problem_id}"): (
        {"given": "x^2 = 49"},
        200,
        [{"task": "guess"}, {"numbers": "odd"}, {"given": ""}],
    ),
    ("POST", "/api/problems/{problem_id}/copy"): (None, 201, []),
    ("DELETE", "/api/problems/{problem_id}"): (None, 204, []),
    ("PUT", "/api/problems/{problem_id}/lines"): (
        {"revision": 0, "lines": ["x = ±6", "x = (6"]},
        200,
        [
            {},
            {"revision": 0},
            {"revision": -1, "lines": []},
            {"revision": 0, "lines": [""]},
            {"revision": "a", "lines": []},
        ],
    ),
    ("GET", "/api/problems/{problem_id}/methods"): (None, 200, []),
    ("POST", "/api/problems/{problem_id}/next-step"): (
        {"lines": []},
        200,
        [{}, {"lines": "x"}, {"lines": ["x" * 601]}],
    ),
    ("GET", "/api/problems/{problem_id}/anticipate"): (None, 200, []),
    ("GET", "/api/problems/{problem_id}/analysis"): (None, 200, []),
    ("POST", "/api/keys/proofread"): ({"text": KEY}, 200, [{}, {"text": 3}]),
    ("POST", "/api/keys/sheet"): (
        {"title": "From a key", "text": KEY},
        201,
        [{}, {"title": "", "text": KEY}, {"title": "x", "text": ""}],
    ),
    ("POST", "/api/keys/runs"): ({"text": KEY}, 202, [{}, {"text": 3}, {"text": ""}]),
    ("GET", "/api/keys/runs/{run_id}"): (None, 200, []),
    ("POST", "/api/keys/runs/{run_id}/sheet"): ({"title": "From a key"}, 201, [{}, {"title": ""}]),
    ("GET", "/api/runs"): (None, 200, []),
    ("GET", "/api/runs/{run_id}"): (None, 200, []),
    ("DELETE", "/api/runs/{run_id}"): (None, 204, []),
    ("POST", "/api/sheets/{sheet_id}/items"): ({"kind": "choose"}, 202, [{"kind": "no such"}, {"kind": 3}]),
    ("POST", "/api/ladders/runs"): (
        {"families": ["linear-equations"], "count": 3},
        202,
        [
            {},
            {"families": ["nope"]},
            {"families": ["factor"], "events": ["rain"]},
            {"families": ["factor"], "count": 99},
        ],
    ),
    ("GET", "/api/ladders/runs/{ladder_id}"): (None, 200, []),
}


@pytest.fixture(scope="module")
def teacher(kept_db):
    return make_teacher("maren", manages=True)


@pytest.fixture(scope="module")
def odo(kept_db):
    return make_teacher("odo")


@pytest.fixture(scope="module")
def problem(teacher):
    sheet = sheets.create_sheet(teacher, "Quadratics")
    made = sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="x^2 = 36"), ["x = 6"])
    ids_of(made)  # made once; each test takes its changes back
    return made


@pytest.fixture
def stranger(db, odo):
    api = Api()
    api.log_in("odo")
    return api


OWNED = [
    operation
    for operation in SENT
    if re.search(r"\{(sheet|problem|run|ladder|class|set|student|item|working|page|scheme)_id\}", operation[1])
    and not operation[1].startswith(ROOM)
]
MANAGED = [operation for operation in SENT if operation[1].startswith("/api/people")]


def placed(value, ids):
    """A path or body with the ids of what exists put in."""
    if isinstance(value, str):
        whole = re.fullmatch(r"\{(\w+)\}", value)
        return ids[whole[1]] if whole else re.sub(r"\{(\w+)\}", lambda found: str(ids[found[1]]), value)
    if isinstance(value, dict):
        return {key: placed(inner, ids) for key, inner in value.items()}
    if isinstance(value, list):
        return [placed(inner, ids) for inner in value]
    return value


def ids_of(problem):
    odo = User.objects.filter(username="odo").first()
    run = Run.objects.filter(kind=keys.KIND).first() or keys.begin_run(problem.sheet.owner, KeyIn(text=KEY))
    return {
        "sheet_id": problem.sheet_id,
        "problem_id": problem.pk,
        "user_id": odo.pk if odo else 0,
        "run_id": run.pk,
        "ladder_id": (Run.objects.filter(kind=ladders.KIND).first() or ladders.begin(problem.sheet.owner, LADDER)).pk,
        **marking_ids(problem),
    }


def marking_ids(problem):
    """A class that was given the sheet, one working of it decided."""
    owner = problem.sheet.owner
    found = SchoolClass.objects.first()
    if found is None:
        found = marking.make_class(owner, ClassIn(name="Evening A", students=[{"name": "Ada Quill", "number": "7"}]))
        given = marking.give(owner, found.pk, SetIn(sheet=problem.sheet_id, day="2026-03-05"))
        typed = TypedIn(student=found.students.get().pk, item=given.items.get().pk, lines=["x = 6"])
        working = marking.put_typed(owner, given.pk, typed)
        decisions.decide(owner, given.pk, DecideIn(workings=[working.pk]))
    given = found.sets.order_by("pk").first()
    working = StudentWorking.objects.filter(paper__given_set=given).first()
    page = StudentPage.objects.filter(given_set=given).first() or StudentPage.objects.create(
        given_set=given,
        original=PAGE,
        media="image/jpeg",
        picture=PAGE,
        width=9,
        height=9,
        digest="1",
        state="read",
        reading={"protocol": 1, "lines": [{"about": "line", "box": [0, 0, 1, 1], "symbols": []}]},
    )
    if not Room.objects.filter(given_set=given).exists():
        rooms.open_room(owner, given.pk, RoomIn())
    return {
        "class_id": found.pk,
        "set_id": given.pk,
        "student_id": found.students.order_by("pk").first().pk,
        "item_id": given.items.get().pk,
        "working_id": working.pk,
        "page_id": page.pk,
        "scheme_id": OwnScheme.objects.get_or_create(
            owner=owner, name="Answers", scheme={"kind": "answer", "total": 1}
        )[0].pk,
    }


def ask(client, operation, problem, body):
    method, path = operation
    ids = ids_of(problem)
    if method == "GET":
        return client.get(placed(path, ids))
    if isinstance(body, bytes):
        return client.send_file(placed(path, ids), body)
    return client.send(method, placed(path, ids), placed(body, ids))


def fits(operation, answer):
    """Raises ValidationError where the body is not what the description promises for its status."""
    described = OPERATIONS[operation]["responses"]
    assert answer.status_code in {int(status) for status in described}, (operation, answer.status_code, answer.content)
    content = described[answer.status_code].get("content")
    if content:
        schema = {**content["application/json"]["schema"], "components": DOCUMENT["components"]}
        # not `validate`: it would look through the whole description each time
        jsonschema.Draft202012Validator(schema).validate(answer.json())


def test_the_table_has_every_operation_and_no_other():
    plain = {(method, re.sub(r"\{int:", "{", path)) for method, path in OPERATIONS}
    assert set(SENT) == plain


@pytest.mark.parametrize("operation", SENT, ids=" ".join)
def test_what_is_mine_answers_as_described(api, stranger, problem, operation):
    body, status, _ = SENT[operation]
    answer = ask(api, operation, problem, body)
    assert answer.status_code == status, answer.content
    fits(operation, answer)


@pytest.mark.parametrize("operation", OWNED, ids=" ".join)
def test_what_is_a_strangers_does_not_exist(stranger, problem, operation):
    answer = ask(stranger, operation, problem, SENT[operation][0])
    assert answer.status_code == 404
    fits(operation, answer)
    problem.refresh_from_db()
    assert (problem.given, problem.working.lines.count(), problem.sheet.problems.count()) == ("x^2 = 36", 1, 1)


@pytest.mark.parametrize("operation", MANAGED, ids=" ".join)
def test_people_are_for_who_manages_them(stranger, problem, operation):
    answer = ask(stranger, operation, problem, SENT[operation][0])
    assert answer.status_code == 403
    fits(operation, answer)
    assert User.objects.get(username="odo").first_name == "Odo"
    assert User.objects.count() == 2


@pytest.mark.parametrize(
    "operation", [op for op in SENT if op not in OPEN and not op[1].startswith(ROOM)], ids=" ".join
)
def test_nobody_gets_nothing(problem, operation):
    answer = ask(Api(), operation, problem, SENT[operation][0])
    assert answer.status_code == 401
    assert "x^2" not in answer.content.decode()


@pytest.mark.parametrize("operation", [op for op in SENT if op[0] != "GET"], ids=" ".join)
def test_no_change_without_the_token(api, problem, operation):
    method, path = operation
    ids = ids_of(problem)
    answer = api.client.generic(method, placed(path, ids), "{}", content_type="application/json")
    assert answer.status_code == 403


@pytest.mark.parametrize(
    ("operation", "body"), [(op, body) for op, (_, _, bodies) in SENT.items() for body in bodies], ids=str
)
def test_a_malformed_body_is_refused_with_words_and_changes_nothing(api, stranger, problem, operation, body):
    answer = ask(api, operation, problem, body)
    assert answer.status_code in (400, 422), answer.content
    detail = answer.json()["detail"]
    if answer.status_code == 400:
        assert detail.strip()
        assert detail[0].isupper() or detail[0] == "“"
    else:
        assert all(item["msg"] and item["loc"] for item in detail)
    problem.refresh_from_db()
    assert (problem.given, problem.working.lines.count(), problem.sheet.title) == ("x^2 = 36", 1, "Quadratics")


@pytest.mark.parametrize(
    "operation",
    [op for op in SENT if op[0] != "GET" and SENT[op][2] and not isinstance(SENT[op][0], bytes)],
    ids=" ".join,
)
def test_what_is_no_json_is_refused(api, problem, operation):
    method, path = operation
    ids = ids_of(problem)
    answer = api.client.generic(
        method, placed(path, ids), "{“", content_type="application/json", headers={"X-CSRFToken": api._token()}
    )
    assert answer.status_code == 400


def test_an_unknown_path_below_the_api_is_not_a_page(api):
    assert api.get("/api/no-such-thing").status_code == 404
