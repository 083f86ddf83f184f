"""Work that takes longer than an answer: runs of pieces, taken from the queue by workers."""

import os
import subprocess
import sys
from pathlib import Path
from urllib.parse import quote

import pytest
from django.db import connection
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

import lanes
from server.jobs import pieces, services
from server.jobs.models import Piece, Run
from server.sheets import renewal
from server.sheets.models import Problem, Working

KEY = """1. Solve 2x + 6 = 10
2x = 4
x = 2

2. Solve x^2 = 9x
x = 9

3. Simplify (x+9)/x
9

4. Solve 2x + 6 = 10
2x = 4
x = 2
"""


@pytest.fixture
def queue(db):
    """The queue in memory: what a worker would take is taken when asked for."""
    with app.replace_connector(InMemoryConnector()) as replaced:
        yield replaced


def worked(queue):
    """Does what waits, here: a worker's threads would not see what this test's transaction has written."""
    for job in queue.connector.jobs.values():
        if job["status"] == "todo":
            job["status"] = "doing"
            pieces.work(job["args"]["piece_id"], job["attempts"])


def begun(api, text=KEY):
    answer = api.send("POST", "/api/keys/runs", {"text": text})
    assert answer.status_code == 202, answer.content
    return answer.json()


def test_a_long_key_is_read_problem_by_problem(api, queue):
    run = begun(api)
    assert (run["total"], run["done"], run["ended"]) == (4, 0, False)
    assert run["found"]["problems"] == []
    worked(queue)
    now = api.get(f"/api/keys/runs/{run['id']}").json()
    assert (now["done"], now["ended"], now["trouble"]) == (4, True, [])
    at_once = api.send("POST", "/api/keys/proofread", {"text": KEY}).json()
    assert now["found"] == at_once
    assert now["found"]["faulty"] == 3


def test_a_sheet_is_made_of_what_was_read(api, queue):
    run = begun(api)
    worked(queue)
    made = api.send("POST", f"/api/keys/runs/{run['id']}/sheet", {"title": "From a key"})
    assert made.status_code == 201
    assert list(Problem.objects.filter(sheet_id=made.json()["id"]).values_list("given", flat=True))[:2] == [
        "2x + 6 = 10",
        "x^2 = 9x",
    ]


def test_a_run_is_its_owners(api, stranger, queue):
    run = begun(api)
    for method, path in (("GET", ""), ("DELETE", ""), ("POST", "/sheet")):
        assert stranger.send(method, f"/api/keys/runs/{run['id']}{path}", {"title": "x"}).status_code == 404
    assert api.send("DELETE", f"/api/keys/runs/{run['id']}").status_code == 204
    worked(queue)  # what waited finds nothing to do
    assert not Piece.objects.exists()


def test_what_is_no_key_is_refused_and_nothing_waits(api, queue):
    assert api.send("POST", "/api/keys/runs", {"text": "no problem here"}).status_code == 400
    assert not Run.objects.exists()


def test_only_so_many_at_once(api, queue):
    for _ in range(services.MOST_RUNS):
        begun(api)
    answer = api.send("POST", "/api/keys/runs", {"text": KEY})
    assert (answer.status_code, answer.json()["code"]) == (400, "busy")
    worked(queue)
    begun(api)


@pytest.fixture
def kind():
    """A kind of run whose work is told by the test; what was asked, in its order."""
    asked = []

    def work(about, piece):
        asked.append(piece["n"])
        return about["then"](piece) if callable(about.get("then")) else about.get("answer", piece["n"])

    kept = dict(pieces._KINDS)
    holder = {"work": work, "asked": asked}
    pieces.register(pieces.Kind("counted", lambda about, piece: holder["work"](about, piece)))
    yield holder
    pieces._KINDS.clear()
    pieces._KINDS.update(kept)


def test_a_piece_is_done_once_in_effect(queue, kind):
    run = services.begin(None, "counted", [{"n": 1}, {"n": 2}])
    first, second = run.pieces.all()
    pieces.work(first.pk, 0)
    pieces.work(first.pk, 0)
    assert kind["asked"] == [1]
    assert services.progress_of(run) == services.Progress(2, 1, 0)
    pieces.work(second.pk, 0)
    run.refresh_from_db()
    assert run.ended is not None


def test_of_two_workers_at_one_piece_the_first_has_done_it(queue, kind):
    run = services.begin(None, "counted", [{"n": 1}])
    piece = run.pieces.get()

    def while_another_is_quicker(about, asked):
        kind["work"] = lambda about, asked: "first"
        pieces.work(piece.pk, 0)
        return "second"

    kind["work"] = while_another_is_quicker
    pieces.work(piece.pk, 0)
    piece.refresh_from_db()
    assert piece.answer == "first"


@pytest.mark.parametrize(
    ("problem", "told"),
    [(lanes.TooHeavy("This takes too long."), "This takes too long."), (RuntimeError("unforeseen"), pieces.GIVEN_UP)],
)
def test_what_can_not_be_worked_out_says_why(queue, kind, problem, told):
    def fails(about, asked):
        raise problem

    kind["work"] = fails
    run = services.begin(None, "counted", [{"n": 1}])
    piece = run.pieces.get()
    if isinstance(problem, RuntimeError):  # it is tried again first
        with pytest.raises(RuntimeError, match="unforeseen"):
            pieces.work(piece.pk, 0)
        assert services.progress_of(run).done == 0
    pieces.work(piece.pk, pieces.MOST_TRIES - 1)
    piece.refresh_from_db()
    assert (piece.trouble, piece.answer) == (told, None)
    assert services.progress_of(run) == services.Progress(1, 1, 1)


def test_a_piece_that_ends_its_worker_each_time_is_given_up(queue, kind):
    run = services.begin(None, "counted", [{"n": 1}])
    pieces.work(run.pieces.get().pk, pieces.MOST_TRIES)
    assert kind["asked"] == []
    assert run.pieces.get().trouble == pieces.GIVEN_UP


def test_no_process_free_is_no_answer(queue, kind):
    def busy(about, asked):
        raise lanes.Busy("Try again.")

    kind["work"] = busy
    run = services.begin(None, "counted", [{"n": 1}])
    with pytest.raises(lanes.Busy):
        pieces.work(run.pieces.get().pk, 0)
    assert services.progress_of(run).done == 0


def test_what_ended_long_ago_is_forgotten(teacher, queue, kind):
    old, new = (services.begin(teacher, "counted", [{"n": n}]) for n in (1, 2))
    for run in (old, new):
        pieces.work(run.pieces.get().pk, 0)
    Run.objects.filter(pk=old.pk).update(ended=Run.objects.get(pk=old.pk).ended - pieces.KEPT - pieces.KEPT / 100)
    pieces.forget_old()
    assert list(Run.objects.values_list("pk", flat=True)) == [new.pk]


def test_nothing_to_do_is_done(queue):
    assert services.begin(None, "counted", []).ended is not None


def test_after_an_upgrade_reports_are_made_again_once(problem, queue):
    Working.objects.update(report={"old": True}, report_version="of an older core", state="open")
    run = renewal.begin_where_needed()
    assert renewal.begin_where_needed() is None
    worked(queue)
    run.refresh_from_db()
    assert run.ended is not None
    assert run.pieces.get().answer == 1
    working = Working.objects.get(problem=problem)
    assert (working.state, "old" in working.report) == ("faulty", False)


ROOT = Path(__file__).parents[2]


@pytest.mark.django_db(transaction=True)
def test_a_worker_of_its_own_process_works_a_run_out():
    run = services.begin(
        None,
        "key",
        [piece_of(given, line) for given, line in (("2x = 4", "x = 2"), ("x^2 = 9x", "x = 9"))],
        about=ABOUT,
    )
    try:
        database = connection.settings_dict
        url = f"postgresql://{database['USER']}:{quote(database['PASSWORD'])}@{database['HOST']}:{database['PORT']}/{database['NAME']}"
        done = subprocess.run(
            [sys.executable, "-m", "tools.worker", "--until-empty", "--at-once", "2"],
            cwd=ROOT,
            env=os.environ | {"DATABASE_URL": url},
            capture_output=True,
            text=True,
            timeout=120,
            check=False,
        )
        assert done.returncode == 0, done.stderr
        run.refresh_from_db()
        assert run.ended is not None
        assert [bool(piece.answer["problem"]["findings"]) for piece in run.pieces.all()] == [False, True]
    finally:
        with connection.cursor() as cursor:  # the queue's tables are no models of Django's, so its clean-up leaves them
            cursor.execute("TRUNCATE procrastinate_jobs, procrastinate_workers, procrastinate_periodic_defers CASCADE")


ABOUT = {"conventions": {}, "skipped": []}


def piece_of(given, line):
    working = {"task": "solve", "given": given, "lines": [line]}
    return {"problem": {"label": "1", "at": 1, "working": working, "places": [2]}, "repeats": ""}


@pytest.mark.parametrize(("arguments", "told"), [([], "DATABASE_URL"), (["--at-once", "0"], "1 to 64")])
def test_a_worker_that_can_not_start_says_why(arguments, told):
    env = {name: value for name, value in os.environ.items() if name != "DATABASE_URL"}
    done = subprocess.run(
        [sys.executable, "-m", "tools.worker", *arguments],
        cwd=ROOT,
        env=env,
        capture_output=True,
        text=True,
        check=False,
    )
    assert (done.returncode, told in done.stderr) == (3, True)
