"""The API of pasted keys."""

import pytest

from server.sheets.models import Sheet

pytestmark = pytest.mark.django_db
KEY = "Solve.\n1) 2(x-1) = 4\n2x - 1 = 4\nx = 5/2\n2) 3x = 6\nx = 2\n"


def test_a_key_is_proofread_and_nothing_is_stored(api):
    found = api.send("POST", "/api/keys/proofread", {"text": KEY}).json()
    assert [problem["label"] for problem in found["problems"]] == ["1", "2"]
    assert found["faulty"] == 1
    first = found["problems"][0]
    assert first["findings"][0] | {"text": ""} == {
        "line": 1,
        "place": 3,
        "kind": "breaks",
        "text": "",
        "instead": "2x - 2 = 4",
    }
    assert [bead["relation"] for bead in first["beads"]] == ["breaks", "holds"]
    assert Sheet.objects.count() == 0


def test_a_sheet_is_made_of_a_key_faults_and_all(api, teacher):
    made = api.send("POST", "/api/keys/sheet", {"text": KEY, "title": " Unit 4 "})
    assert made.status_code == 201
    sheet = made.json()
    assert sheet["title"] == "Unit 4"
    assert [(p["given"], [s["id"] for s in p["slips"]]) for p in sheet["problems"]] == [
        ("2(x-1) = 4", ["distributed-first-only"]),
        ("3x = 6", []),
    ]


@pytest.mark.parametrize(
    ("path", "body", "status"),
    [
        ("proofread", {"text": "nothing here"}, 400),
        ("proofread", {"text": KEY, "conventions": {"colour": "red"}}, 400),
        ("sheet", {"text": KEY, "title": "  "}, 422),
        ("sheet", {"text": "nothing here", "title": "X"}, 400),
        ("proofread", {"text": "x" * 100_001}, 422),
    ],
)
def test_what_can_not_be_taken_in_is_refused(api, path, body, status):
    assert api.send("POST", f"/api/keys/{path}", body).status_code == status
    assert Sheet.objects.count() == 0


def test_the_place_of_a_slip_is_marked_in_both_lines(api, problem):
    lines = ["x^2 - 36 = 0", "(x-6)^2 = 0"]
    saved = api.send("PUT", f"/api/problems/{problem.pk}/lines", {"revision": 0, "lines": lines}).json()
    (tint,) = saved["tints"]
    assert (tint["line"], tint["before_line"]) == (2, 1)
    assert "mark-slip" in tint["before"]["left"]


def test_a_slip_is_said_in_the_teachers_own_words(api, problem):
    api.send("PUT", "/api/account/words", {"words": {"plus-minus-missing": {"name": "The lonely root", "text": ""}}})
    slip = api.get(f"/api/problems/{problem.pk}").json()["report"]["links"][0]["slip"]
    assert (slip["id"], slip["name"]) == ("plus-minus-missing", "The lonely root")
    assert slip["why"]
