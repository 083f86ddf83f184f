"""Paper, open forms, versions and advice of one's own sheets, as a browser asks for them."""

import base64
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
        ("solve", "3x + 7 = 22", ["3x = 15", "x = 5"]),
        ("solve", "x^2 - 5x + 6 = 0", []),
        ("factor", "2x^2 + 14x + 20", []),
        ("solve", "0,5x = 2", []),
    ]:
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

    @pytest.mark.parametrize(("form", "begins"), [("svg", b"<svg"), ("png", b"\x89PNG")])
    def test_a_page_is_a_picture(self, api, sheet, form, begins):
        assert api.get(f"/api/sheets/{sheet.pk}/page?form={form}&kind=key").content.startswith(begins)
        beyond = api.get(f"/api/sheets/{sheet.pk}/page?form={form}&number=99")
        assert (beyond.status_code, beyond.json()["code"]) == (400, "page")

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
        [
            ("chain", "# Week"),
            ("csv", "number,"),
            ("tex", "\\documentclass"),
            ("html", "<!doctype"),
            ("json", "{"),
            ("qti", "PK"),
        ],
    )
    def test_each_form_is_a_file(self, api, sheet, form, begins):
        answer = api.get(f"/api/sheets/{sheet.pk}/export?form={form}")
        assert answer.content.startswith(begins.encode())
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

    def test_forms_and_words_and_a_package_come_back(self, api, teacher, sheet):
        services.add_problem(
            teacher, sheet.pk, ProblemIn(task="simplify", given="(x+3)^2", form="claim", instruction="Is it so?")
        )
        for form in ("json", "qti"):
            content = api.get(f"/api/sheets/{sheet.pk}/export?form={form}").content
            text = base64.b64encode(content).decode() if form == "qti" else content.decode()
            made = api.send("POST", "/api/taken", {"form": form, "text": text}).json()
            assert made["left"] == []
            last = Problem.objects.filter(sheet_id=made["sheet"]).order_by("position").last()
            assert (last.form, last.instruction, last.given) == ("claim", "Is it so?", "(x+3)^2")

    @pytest.mark.parametrize("text", ["not base64!", "aGVsbG8="])
    def test_what_is_no_package_is_refused(self, api, teacher, text):
        answer = api.send("POST", "/api/taken", {"form": "qti", "text": text})
        assert (answer.status_code, answer.json()["code"]) == (400, "file")

    def test_a_plain_list_is_taken(self, api, teacher):
        made = api.send(
            "POST", "/api/taken", {"form": "txt", "text": "Solve.\n1. 3x = 12\n2. x^2 = 49\n", "title": "List"}
        ).json()
        rows = Problem.objects.filter(sheet_id=made["sheet"]).order_by("position")
        assert [(row.task, row.given) for row in rows] == [("solve", "3x = 12"), ("solve", "x^2 = 49")]

    @pytest.mark.parametrize(("form", "begins"), [("svg", b"<svg"), ("png", b"\x89PNG")])
    def test_a_chain_is_a_picture(self, api, sheet, form, begins):
        problem = sheet.problems.order_by("position").first()
        assert api.get(f"/api/problems/{problem.pk}/picture?form={form}").content.startswith(begins)
        refused = api.get(f"/api/problems/{problem.pk}/picture?shown=graph&form={form}")
        assert (refused.status_code, refused.json()["code"]) == (400, "picture")


class TestMending:
    @pytest.fixture
    def faulty(self, teacher):
        sheet = services.create_sheet(teacher, "Faulty")
        for task, given, lines in [
            ("solve", "3x + 7 = 22", []),
            ("solve", "7 + 3y = 22", []),
            ("solve", "(x+1)(x+2)", []),
            ("solve", "x^2 = 25", ["x = 5"]),
        ]:
            services.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given, form="choose"), lines)
        return sheet

    def said(self, api, sheet):
        return {
            (each["code"], tuple(each["items"])): each["mend"]
            for each in api.get(f"/api/sheets/{sheet.pk}/advice").json()["advice"]
        }

    def test_what_is_said_is_mended_and_no_longer_said_and_can_be_put_back(self, api, faulty):
        told = self.said(api, faulty)
        wanted = {("same-item", (1, 2)): "replace", ("instruction", (3,)): "task", ("key-narrows", (4,)): "key"}
        assert wanted.items() <= told.items()
        rows = list(faulty.problems.order_by("position").values_list("task", "given", "form"))
        kept = []
        for (_, items), mend in wanted.items():
            answer = api.send("POST", f"/api/sheets/{faulty.pk}/mended", {"item": items[-1], "mend": mend})
            kept.append(answer.json())
        assert not set(wanted) & set(self.said(api, faulty))
        assert set(faulty.problems.values_list("form", flat=True)) == {"choose"}
        for each in reversed(kept):
            assert api.send("PUT", f"/api/problems/{each['problem']}", each["before"]).status_code == 200
        assert list(faulty.problems.order_by("position").values_list("task", "given", "form")) == rows
        assert wanted.items() <= self.said(api, faulty).items()

    def test_a_key_that_is_not_worked_stays(self, api, teacher):
        sheet = services.create_sheet(teacher, "Hard")
        services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="x^5 - x - 1 = 0"), ["x = 1"])
        answer = api.send("POST", f"/api/sheets/{sheet.pk}/mended", {"item": 1, "mend": "key"})
        assert (answer.status_code, answer.json()["code"]) == (400, "mend")
        assert sheet.problems.get().working.lines.get().text == "x = 1"


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
        codes = [each["code"] for each in api.get(f"/api/sheets/{sheet.pk}/advice?lesson=5").json()["advice"]]
        assert "too-long" in codes
        assert "too-long" not in [each["code"] for each in found["advice"]]
