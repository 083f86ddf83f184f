"""The API of worked solutions, next steps, features, and what a class knows."""

import pytest

from server.sheets import services
from server.sheets.schemas import ProblemIn
from tests.server.conftest import Api, make_teacher

pytestmark = pytest.mark.django_db


@pytest.fixture
def problem(teacher):
    def make(task, given, lines=(), **more):
        sheet = services.create_sheet(teacher, "Ways")
        return services.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given, **more), list(lines))

    return make


def test_the_methods_of_a_problem_come_side_by_side(api, problem):
    found = api.get(f"/api/problems/{problem('solve', 'x^2 - 4x - 7 = 0').pk}/methods").json()
    assert [m["method"] for m in found["methods"]] == ["completing-the-square", "quadratic-formula"]
    first = found["methods"][0]
    assert first["answer"] == ["2 + √11", "2 - √11"]
    assert first["steps"][1]["side_work"][0]["kind"] == "box"
    assert "mark-focus" in first["steps"][0]["after_echo"]["right"]
    assert set(first["difficulty"]["parts"]) == {"steps", "search", "numbers", "noticing", "length"}
    assert found["why_none"] == ""


def test_a_problem_that_no_method_works_says_so(api, problem):
    found = api.get(f"/api/problems/{problem('solve', 'x^5 - x - 1 = 0').pk}/methods").json()
    assert found["methods"] == []
    assert "No method" in found["why_none"]


def test_cancelled_factors_are_marked_in_pairs(api, problem):
    pk = problem("simplify", "(x^2-9)/(x^2+x-6)").pk
    steps = api.get(f"/api/problems/{pk}/methods").json()["methods"][0]["steps"]
    assert steps[-1]["before_echo"]["right"].count("mark-cancel-0") == 2


def test_the_next_step_is_a_hint_a_rule_and_a_line(api, problem):
    pk = problem("solve", "√(x + 6) = x").pk
    found = api.send("POST", f"/api/problems/{pk}/next-step", {"lines": ["x + 6 = x^2", "x = 3 or x = -2"]}).json()
    assert found["step"]["text"] == "check x = 3: 3 = 3"
    assert found["look"]
    refused = api.send("POST", f"/api/problems/{problem('solve', 'x^5 - x - 1 = 0').pk}/next-step", {"lines": []})
    assert (refused.status_code, refused.json()["code"]) == (400, "no-step")


def test_features_and_graph_of_a_function(api, problem):
    found = api.get(f"/api/problems/{problem('analyze', '(x^2-4)/(x^2-x-2)').pk}/analysis").json()
    assert (found["holes"], found["vertical_asymptotes"], found["error"]) == ([["2", "4/3"]], ["-1"], None)
    assert len(found["graph"]["pieces"]) == 2
    assert api.get(f"/api/problems/{problem('simplify', '√x + y').pk}/analysis").json()["error"]


def test_what_the_class_knows_shapes_the_solutions(api, problem):
    made = problem("solve", "x^2 - 6x - 16 = 0")
    changed = api.send("PATCH", f"/api/sheets/{made.sheet_id}", {"untaught": ["factoring", "leading-coefficient"]})
    assert changed.json()["untaught"] == ["factoring", "leading-coefficient"]
    ways = {m["method"]: m["not_yet"] for m in api.get(f"/api/problems/{made.pk}/methods").json()["methods"]}
    assert ways["factoring"] == ["Factoring"]
    assert ways["quadratic-formula"] == []


def test_own_words_are_used_wherever_the_rule_is_shown(api, problem):
    words = {"words": {"complete-the-square": {"name": "Fill the corner", "text": "The corner of the box."}}}
    assert api.send("PUT", "/api/account/words", words).status_code == 200
    steps = api.get(f"/api/problems/{problem('solve', 'x^2 - 4x - 7 = 0').pk}/methods").json()["methods"][0]["steps"]
    assert ("Fill the corner", "The corner of the box.") in [(s["name"], s["reason"]) for s in steps]
    unknown = api.send("PUT", "/api/account/words", {"words": {"no-such-rule": {"name": "x", "text": ""}}})
    assert unknown.status_code == 400
    assert api.get("/api/account/words").json() == words


def test_every_rule_and_method_can_be_named(api):
    entries = api.get("/api/catalogue").json()["entries"]
    assert {entry["kind"] for entry in entries} == {"method", "rule", "number", "slip"}
    assert all(entry["name"] and "{" not in entry["text"] for entry in entries)


def test_the_strip_shows_the_difficulty_and_it_follows_the_problem(api, problem):
    made = problem("solve", "x + 5 = 9")
    before = api.get(f"/api/sheets/{made.sheet_id}").json()["problems"][0]["difficulty"]
    api.send("PATCH", f"/api/problems/{made.pk}", {"given": "√(x + 5) - √x = 1"})
    after = api.get(f"/api/sheets/{made.sheet_id}").json()["problems"][0]["difficulty"]
    assert before < after


def test_a_task_that_names_a_method_notices_another(api, problem):
    made = problem("solve", "x^2 - 6x + 5 = 0", ["(x-5)(x-1) = 0", "x = 5 or x = 1"], method="completing-the-square")
    report = api.get(f"/api/problems/{made.pk}").json()["report"]
    assert report["answer"]["verdict"] == "correct"
    assert "method-differs" in report["links"][0]["notes"]


def test_what_belongs_to_another_teacher_does_not_exist(problem):
    make_teacher("oskar")
    other = Api()
    other.log_in("oskar")
    pk = problem("solve", "x = 1").pk
    assert other.get(f"/api/problems/{pk}/methods").status_code == 404
    assert other.send("POST", f"/api/problems/{pk}/next-step", {"lines": []}).status_code == 404
    assert other.get(f"/api/problems/{pk}/analysis").status_code == 404


def test_the_wrong_answers_to_expect_come_with_their_refutation_and_options(api, problem):
    pk = problem("solve", "3(x - 2) + 4 = 5x - 8").pk
    found = api.get(f"/api/problems/{pk}/anticipate?order=trap-first").json()
    first = found["wrong"][0]
    assert (first["answer"], first["slips"]) == ("5", ["distributed-first-only"])
    assert "but not this line" in first["refutation"]["text"]
    assert len(first["echoes"]) == len(first["lines"])
    assert [o["right"] for o in found["options"]].count(True) == 1
    assert not found["options"][0]["right"]
