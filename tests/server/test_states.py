"""What the strip and the proof-reading make of a report: states, tints, the place of the decimal comma, the limits."""

import pytest

from server.sheets import queries, services
from server.sheets.schemas import ProblemIn

pytestmark = pytest.mark.django_db


@pytest.fixture
def add(teacher):
    def make(task, given, *lines, conventions=None):
        sheet = services.create_sheet(teacher, "States")
        if conventions:
            services.change_sheet(teacher, sheet.pk, services.SheetChange(None, conventions, None))
        return services.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given), list(lines))

    return make


@pytest.mark.parametrize(
    ("task", "given", "lines", "sound", "faulty"),
    [
        ("solve", "x^2 = 36", ["x = 6 or x = -6"], 1, 0),
        ("solve", "x^2 = 36", [], 0, 0),
        ("simplify", "2x + 3x + 1 + 1", ["5x + 1 + 1"], 0, 0),  # right so far, not done
        ("solve", "x^2 = 36", ["x = 6"], 0, 1),  # a link narrows
        ("solve", "√(x+6) = x", ["x + 6 = x^2", "x = 3 or x = -2"], 0, 1),  # every link stands, the answer does not
        ("domain", "1/((x-1)(x+3))", ["x ≠ 1"], 0, 1),  # true, and incomplete
        ("solve", "x^2 = 36", ["x = (", "x = ±6"], 0, 1),  # a line that can't be read
    ],
)
def test_a_sheet_counts_what_is_sound_and_what_is_faulty(api, add, task, given, lines, sound, faulty):
    sheet = add(task, given, *lines).sheet_id
    (row,) = [row for row in api.get("/api/sheets").json()["sheets"] if row["id"] == sheet]
    assert (row["problems"], row["sound"], row["faulty"]) == (1, sound, faulty)


def test_the_line_after_a_slip_is_tinted_too(api, add):
    pk = add("solve", "2x + 3 = 9", "2x = 12").pk
    (tint,) = api.get(f"/api/problems/{pk}").json()["tints"]
    after = tint["after"]
    assert "mark-slip" in after["left"] + after["right"]


def test_a_wrong_statement_is_a_line_above_the_next(api, add):
    pk = add("solve", "x^2 = 36", "x = 6 or x = 6", "x = 12").pk
    tints = api.get(f"/api/problems/{pk}").json()["tints"]
    assert all(tint["before_line"] < tint["line"] for tint in tints)


def test_a_key_with_a_decimal_comma_is_read_so(api):
    key = {"text": "1) x + 0,5 = 2\nx = 1,5\n", "conventions": {"decimal": "comma"}}
    (problem,) = api.send("POST", "/api/keys/proofread", key).json()["problems"]
    assert problem["verdict"] == "correct"
    assert "5" in problem["given_latex"]
    assert "{,}" in problem["given_latex"]


def test_a_key_that_can_not_be_read_names_itself(api):
    refused = api.send("POST", "/api/keys/proofread", {"text": "nothing here"})
    assert (refused.status_code, refused.json()["code"]) == (400, "key")


def test_one_sheet_too_many_is_refused(api, teacher, monkeypatch):
    monkeypatch.setattr(services, "MAX_SHEETS", 2)
    assert [api.send("POST", "/api/sheets", {"title": t}).status_code for t in "abc"] == [201, 201, 400]
    assert queries.sheets_of(teacher).all == 2


def test_what_is_not_worked_has_no_answers_to_expect(api, add):
    found = api.get(f"/api/problems/{add('solve', 'x^5 - x - 1 = 0').pk}/anticipate").json()
    assert found["why_none"].startswith("No method")
    assert (found["answer"], found["answer_latex"], found["wrong"], found["options"]) == ([], "", [], [])


def test_a_wrong_answer_to_expect_is_said_in_the_teachers_own_words(api, add):
    api.send(
        "PUT", "/api/account/words", {"words": {"distributed-first-only": {"name": "Half a hug", "text": "Both."}}}
    )
    first = api.get(f"/api/problems/{add('solve', '3(x - 2) + 4 = 5x - 8').pk}/anticipate").json()["wrong"][0]
    assert (first["names"], first["why"]) == (["Half a hug"], "Both.")


def test_the_next_step_of_a_finished_working_is_none(api, add):
    made = add("solve", "2x + 3 = 9")
    sent = api.send("POST", f"/api/problems/{made.pk}/next-step", {"lines": ["2x = 6", "x = 3"]}).json()
    assert (sent["done"], sent["step"]) == (True, None)
    first = api.send("POST", f"/api/problems/{made.pk}/next-step", {"lines": []}).json()
    assert first["done"] is False
    assert first["method"]
    assert first["step"]["reason"]


def test_no_reason_of_the_catalogue_shows_a_hole(api):
    assert [
        e["text"] for e in api.get("/api/catalogue").json()["entries"] if "{" in e["text"] or "  " in e["text"]
    ] == []
