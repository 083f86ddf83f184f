"""Work that takes longer than an answer: runs of pieces, taken from the queue by workers."""

import os
import subprocess
import sys
from datetime import timedelta
from pathlib import Path
from urllib.parse import quote

import pytest
from django.db import connection
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

import lanes
from paper import planned_item
from server.jobs import kept, pieces, services
from server.jobs.models import KeptAnswer, Piece, Run
from server.papers import services as papers
from server.sheets import planned, renewal
from server.sheets.models import Problem, Sheet, Working

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
    for method, path in (("GET", ""), ("POST", "/sheet")):
        assert stranger.send(method, f"/api/keys/runs/{run['id']}{path}", {"title": "x"}).status_code == 404
    assert stranger.send("DELETE", f"/api/runs/{run['id']}").status_code == 404
    assert api.send("DELETE", f"/api/runs/{run['id']}").status_code == 204
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


def ladder_of(api, **more):
    asked = {"families": ["radical-equations"], "count": 5, "seed": 2, "events": ["extraneous"], **more}
    answer = api.send("POST", "/api/ladders/runs", asked)
    assert answer.status_code == 202, answer.content
    return answer.json(), asked


def test_a_ladder_is_drawn_part_by_part_and_shows_what_is_there(api, queue):
    run, asked = ladder_of(api)
    assert (run["done"], run["ended"], run["rungs"], run["without"]) == (0, False, [], [])
    first, *_ = Run.objects.get(pk=run["id"]).pieces.all()
    pieces.work(first.pk, 0)
    some = api.get(f"/api/ladders/runs/{run['id']}").json()
    assert (some["done"], len(some["rungs"]), some["ended"]) == (1, 1, False)
    worked(queue)
    now = api.get(f"/api/ladders/runs/{run['id']}").json()
    assert (now["ended"], now["trouble"], now["without"]) == (True, [], [])
    assert now["rungs"] == api.send("POST", "/api/ladders", asked).json()["rungs"]


def test_what_was_drawn_once_is_not_drawn_again(api, stranger, queue, monkeypatch):
    ladder_of(api)
    worked(queue)
    monkeypatch.setattr(lanes, "drawn", lambda draw: pytest.fail("it is kept"))
    run, _ = ladder_of(api)
    assert run["ended"] and run["done"] == run["total"] and len(run["rungs"]) == 5
    assert ladder_of(stranger)[0]["ended"]  # whoever asks: nothing in it says who did before


def test_an_event_that_is_not_to_be_had_is_said(api, queue):
    run, _ = ladder_of(api, families=["linear-equations"], events=["hole", "fraction-answer"])
    worked(queue)
    now = api.get(f"/api/ladders/runs/{run['id']}").json()
    assert (now["without"], len(now["rungs"])) == (["hole"], 5)


def test_a_run_of_one_kind_is_none_of_another(api, queue):
    drawn, _ = ladder_of(api)
    assert api.get(f"/api/keys/runs/{drawn['id']}").status_code == 404
    assert api.send("POST", f"/api/keys/runs/{drawn['id']}/sheet", {"title": "x"}).status_code == 404
    assert api.get(f"/api/ladders/runs/{begun(api)['id']}").status_code == 404


def test_all_that_is_under_way_can_be_seen_and_cancelled(api, stranger, queue):
    key, (drawn, _) = begun(api), ladder_of(api)
    assert [(run["kind"], run["done"]) for run in api.get("/api/runs").json()["runs"]] == [("ladder", 0), ("key", 0)]
    assert stranger.get("/api/runs").json() == {"runs": []}
    assert stranger.send("DELETE", f"/api/runs/{key['id']}").status_code == 404
    assert api.send("DELETE", f"/api/runs/{key['id']}").status_code == 204
    worked(queue)
    assert api.get("/api/runs").json() == {"runs": []}
    assert api.get(f"/api/runs/{drawn['id']}").json()["ended"]


SHEET = [("solve", "2x + 6 = 10"), ("solve", "x^2 - 5x + 6 = 0"), ("simplify", "√50 + √8")]


def sheet_with(api, form="choose"):
    sheet = api.send("POST", "/api/sheets", {"title": "Thursday"}).json()["id"]
    for task, given in SHEET:
        asked = {"task": task, "given": given, "form": form}
        assert api.send("POST", f"/api/sheets/{sheet}/problems", asked).status_code == 201
    return sheet


def items_of(api, sheet, kind="sheet"):
    answer = api.send("POST", f"/api/sheets/{sheet}/items", {"kind": kind})
    assert answer.status_code == 202, answer.content
    return answer.json()


def test_the_items_of_a_sheet_are_made_one_by_one_and_kept(api, queue, monkeypatch):
    sheet = sheet_with(api)
    run = items_of(api, sheet)
    assert (run["total"], run["done"]) == (3, 0)
    assert api.get(f"/api/sheets/{sheet}/paper?so_far=true").json()["code"] == "empty"
    pieces.work(Run.objects.get(pk=run["id"]).pieces.first().pk, 0)
    assert "Nothing" not in api.get(f"/api/sheets/{sheet}/paper?so_far=true").json()["pages"][0]
    worked(queue)
    monkeypatch.setattr(lanes, "planned_item", lambda *asked: pytest.fail("it is kept"))
    assert items_of(api, sheet)["ended"]
    whole = api.get(f"/api/sheets/{sheet}/paper").json()
    assert whole["doubts"] == [] and len(whole["pages"]) == 1
    monkeypatch.undo()
    problem = Problem.objects.filter(sheet_id=sheet).first().pk
    changed = {"problem": {"task": "solve", "given": "2x + 6 = 12", "form": "choose"}, "lines": []}
    assert api.send("PUT", f"/api/problems/{problem}", changed).status_code == 200
    assert items_of(api, sheet)["done"] == 2  # only what was changed is to be made


def test_who_is_in_a_hurry_is_told_that_much_is_to_be_made(api, queue, monkeypatch):
    monkeypatch.setattr(papers, "MADE_AT_ONCE", 2)
    sheet = sheet_with(api)
    answer = api.get(f"/api/sheets/{sheet}/paper?quick=true")
    assert (answer.status_code, answer.json()["code"]) == (400, "to-make")
    assert answer.json()["detail"] == "3 of 3 items are still to be worked out."
    pieces.work(Run.objects.get(pk=items_of(api, sheet)["id"]).pieces.first().pk, 0)
    assert len(api.get(f"/api/sheets/{sheet}/paper?quick=true").json()["pages"]) == 1  # two are made at once


def test_paper_is_made_without_a_run_too_and_as_with_one(api, queue):
    first, second = sheet_with(api), sheet_with(api)
    at_once = api.get(f"/api/sheets/{first}/paper?kind=key").json()
    items_of(api, second, "key")
    worked(queue)
    assert api.get(f"/api/sheets/{second}/paper?kind=key").json() == at_once


@pytest.mark.parametrize("kind", ["sheet", "answers", "key", "choose", "mend", "fill", "way", "claim"])
def test_what_is_kept_of_an_item_is_what_was_made(api, queue, kind):
    sheet = Sheet.objects.get(pk=sheet_with(api))
    wanted = planned.wanted_of(sheet, kind)
    kept = planned.items_of(wanted)
    assert kept == [planned_item(k, each.working, form=each.form) for k, each in enumerate(wanted, start=1)]
    assert planned.items_of(wanted) == kept


def test_one_that_is_too_heavy_leaves_the_others_their_key(api, queue, monkeypatch):
    made = lanes.planned_item

    def heavy(number, working, form):
        if working.given.startswith("x^2"):
            raise lanes.TooHeavy("This takes too long.")
        return made(number, working, form)

    monkeypatch.setattr(lanes, "planned_item", heavy)
    found = api.get(f"/api/sheets/{sheet_with(api)}/paper?kind=key").json()
    assert found["doubts"] == [{"item": 2, "text": "This takes too long."}]


def test_what_nobody_asks_for_is_forgotten(db):
    kept.keep("a" * 64, {"n": 1})
    kept.keep("b" * 64, {"n": 2})
    old = timezone.localdate() - kept.UNUSED - timedelta(days=1)
    KeptAnswer.objects.update(used=old)
    assert kept.known(["a" * 64]) == {"a" * 64: {"n": 1}}  # used today
    assert kept.forget_unused() == 1
    assert kept.known(["a" * 64, "b" * 64]) == {"a" * 64: {"n": 1}}


def test_what_was_made_by_another_version_of_the_core_is_not_taken(monkeypatch):
    before = kept.made_from("items", {"n": 1})
    assert before == kept.made_from("items", {"n": 1}) != kept.made_from("ladder", {"n": 1})
    monkeypatch.setattr(kept, "VERSION", -1)
    assert kept.made_from("items", {"n": 1}) != before
