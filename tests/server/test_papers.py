"""Paper, open forms, versions and advice of one's own sheets, as a browser asks for them."""

import json

import pytest

from algebra import Working, likeness
from server.sheets import services
from server.sheets.models import Problem, Sheet
from server.sheets.schemas import ProblemIn, SheetChange

pytestmark = pytest.mark.django_db


@pytest.fixture
def sheet(teacher):
    sheet = services.create_sheet(teacher, "Week 3/4: “tides”")
    services.change_sheet(
        teacher, sheet.pk, SheetChange(title=None, conventions={"decimal": "comma"}, untaught=["irrational-numbers"])
    )
    for task, given, lines in [
        ("solve", "3x + 7 = 22", ["3x = 15", "x = 5"]), ("solve", "x^2 - 5x + 6 = 0", []), ("factor", "2x^2 + 14x + 20", []), ("solve", "0,5x = 2", []),
    ]:  # fmt: skip
        services.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given), lines)
    return sheet


class TestPaper:
    def test_a_pdf_with_a_name_of_its_own(self, api, sheet):
        answer = api.get(f"/api/sheets/{sheet.pk}/paper.pdf?kind=key&paper=letter&columns=2&version=B")
        assert answer.content.startswith(b"%PDF")
        assert answer.headers["Content-Type"] == "application/pdf"
        assert "key%20B.pdf" in answer.headers["Content-Disposition"]
        assert "/4" not in answer.headers["Content-Disposition"]

    def test_a_preview_has_a_picture_a_page_and_says_what_is_doubtful(self, api, teacher, sheet):
        services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="x^5 - x - 1 = 0"))
        found = api.get(f"/api/sheets/{sheet.pk}/paper?kind=answers").json()
        assert all(page.startswith("<svg") for page in found["pages"])
        assert [doubt["item"] for doubt in found["doubts"]] == [5]

    @pytest.mark.parametrize(
        "query", ["kind=poster", "columns=0", "columns=4", "paper=a3", "space=dots", "version=" + "x" * 13]
    )
    def test_what_no_page_has_is_refused(self, api, sheet, query):
        assert api.get(f"/api/sheets/{sheet.pk}/paper?{query}").status_code == 422

    def test_an_empty_sheet_prints_nothing(self, api, teacher):
        empty = services.create_sheet(teacher, "Empty")
        for path in ("paper", "paper.pdf"):
            assert api.get(f"/api/sheets/{empty.pk}/{path}").json()["code"] == "empty"


class TestOpenForms:
    def test_a_sheet_comes_back_the_same(self, api, sheet):
        text = api.get(f"/api/sheets/{sheet.pk}/export?form=json").content.decode()
        made = api.send("POST", "/api/taken", {"form": "json", "text": text}).json()
        assert made["left"] == []
        back = Sheet.objects.get(pk=made["sheet"])
        assert (back.title, back.conventions, back.untaught) == (
            sheet.title,
            {"decimal": "comma"},
            ["irrational-numbers"],
        )

        def rows(one):
            return [
                (p.task, p.given, p.variable, p.numbers, p.method, [line.text for line in p.working.lines.all()])
                for p in Problem.objects.filter(sheet=one).order_by("position")
            ]

        assert rows(back) == rows(sheet)

    @pytest.mark.parametrize(
        ("form", "begins"),
        [("chain", "# Week"), ("csv", "number,"), ("tex", "\\documentclass"), ("html", "<!doctype"), ("json", "{")],
    )
    def test_each_form_is_a_file(self, api, sheet, form, begins):
        answer = api.get(f"/api/sheets/{sheet.pk}/export?form={form}")
        assert answer.content.decode().startswith(begins)
        assert answer.headers["Content-Disposition"].startswith("attachment")

    def test_what_cannot_be_taken_is_named_and_nothing_half_made(self, api, teacher):
        problems = [
            {"task": "solve", "given": "2x = 8", "lines": ["x = 4", " "]},
            {"task": "solve", "given": "x = 1", "variable": "y" * 50},
        ]
        made = api.send(
            "POST", "/api/taken", {"form": "json", "text": json.dumps({"title": "T", "problems": problems})}
        ).json()
        assert [each["place"] for each in made["left"]] == [2]
        assert Problem.objects.filter(sheet_id=made["sheet"]).count() == 1
        before = Sheet.objects.count()
        assert api.send("POST", "/api/taken", {"form": "json", "text": "{}"}).status_code == 400
        assert Sheet.objects.count() == before


class TestBuilding:
    def test_a_ladder_keeps_what_is_kept(self, api):
        kept = {"task": "solve", "given": "x^2 = 49"}
        rungs = api.send(
            "POST", "/api/ladders", {"families": ["quadratic-equations"], "count": 4, "kept": [kept]}
        ).json()["rungs"]
        assert len(rungs) == 4
        assert "x^2 = 49" in [rung["given"] for rung in rungs]
        assert [rung["difficulty"] for rung in rungs] == sorted(rung["difficulty"] for rung in rungs)

    @pytest.mark.parametrize(("what", "sign"), [("easier", -1), ("harder", 1)])
    def test_another_one_is_easier_or_harder(self, api, what, sign):
        problem = {"task": "solve", "given": "(x - 3)^2 = 7"}
        first = api.send("POST", "/api/another", {"problem": problem, "what": "like"}).json()["rung"]
        other = api.send("POST", "/api/another", {"problem": problem, "what": what}).json()["rung"]
        assert sign * (other["difficulty"] - first["difficulty"]) > 0

    def test_a_version_has_the_structure_and_other_numbers_and_names_what_stayed(self, api, teacher, sheet):
        services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="ax = b", variable="x"))
        made = api.send("POST", f"/api/sheets/{sheet.pk}/versions", {"name": "B"}).json()
        other = Sheet.objects.get(pk=made["sheet"])
        assert (other.title, other.conventions) == ("Week 3/4: “tides” · B", {"decimal": "comma"})
        pairs = list(zip(sheet.problems.order_by("position"), other.problems.order_by("position"), strict=True))
        assert 5 in made["stayed"]
        for number, (old, new) in enumerate(pairs, start=1):
            same = likeness(Working(old.task, old.given, (), conventions={"decimal": "comma"})) == likeness(
                Working(new.task, new.given, (), conventions={"decimal": "comma"})
            )
            assert same is (number in made["stayed"])

    def test_a_colleague_names_the_items(self, api, teacher, sheet):
        services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="6 - 5t + t^2 = 0"))
        found = api.get(f"/api/sheets/{sheet.pk}/advice").json()
        assert ("same-item", [2, 5]) in [(each["code"], each["items"]) for each in found["advice"]]
        assert found["minutes"] > 3
