"""Sheets on paper: what stands on the pages, that it is the same each time, that nothing is cut, and that a screen
reader is told."""

import io
import re
from pathlib import Path

import pytest
from pypdf import PdfReader

from algebra import FAMILIES, Working, generate, read_workings
from cli.print import main as print_main
from paper import (
    KINDS,
    PAGE_SIZES,
    PagesError,
    Settings,
    Wanted,
    as_pdf,
    as_png,
    as_svg,
    code_of,
    in_other_order,
    planned,
    source_of,
)
from paper.graph import axes
from tools.installation import ROOT

PROBLEMS = [
    Wanted(Working("solve", "x^2 - 3x = 10", ("x^2 - 3x - 10 = 0", "(x - 5)(x + 2) = 0", "x = 5 or x = -2"))),
    Wanted(Working("solve", "√(x + 6) = x", ())),
    Wanted(Working("solve", "2(x + 3) = 2x + 7", ())),
    Wanted(Working("simplify", "(x^2 - 9)/(x^2 - 3x)", ())),
    Wanted(Working("factor", "x^2 + 4x + 9", ()), "Which is it?"),
    Wanted(Working("domain", "1/(x^2 - 4)", ())),
    Wanted(Working("analyze", "(x^2 - 4)/(x^2 - x - 2)", ())),
]


def reader(pdf):
    return PdfReader(io.BytesIO(pdf))


def text_of(pdf):
    return "\n".join(page.extract_text() for page in reader(pdf).pages)


@pytest.fixture(scope="module")
def plan():
    return planned("Thursday", PROBLEMS, form="choose")


class TestPlans:
    def test_items_are_numbered_through_and_stand_under_their_instruction(self, plan):
        assert [(s.instruction, [i.number for i in s.items]) for s in plan.sections] == [
            ("Solve.", [1, 2, 3]),
            ("Simplify.", [4]),
            ("Which is it?", [5]),
            ("State the domain.", [6]),
            ("State all features and sketch the graph.", [7]),
        ]

    def test_ones_own_sound_working_is_the_key_and_a_faulty_one_is_not(self):
        own = planned("x", [Wanted(Working("solve", "2x = 8", ("x = 8 ÷ 2", "x = 4")))]).items[0]
        wrong = planned("x", [Wanted(Working("solve", "2x = 8", ("x = 6",)))]).items[0]
        assert [line.text for line in own.key] == ["x = 8 ÷ 2", "x = 4"]
        assert wrong.key[-1].text.startswith("x = 4")
        assert (own.answer, wrong.answer) == (("4",), ("4",))

    def test_an_item_that_no_method_works_says_so(self):
        item = planned("x", [Wanted(Working("solve", "x^5 - x - 1 = 0", ()))]).items[0]
        assert item.trouble and not item.key

    def test_the_code_tells_sheets_and_versions_apart(self):
        codes = {
            planned(title, [Wanted(Working("solve", given, ()))], version=version).code
            for title, given, version in [
                ("a", "x = 1", "A"),
                ("a", "x = 1", "B"),
                ("a", "x = 2", "A"),
                ("b", "x = 1", "A"),
                ("a", "x = 1", "A"),
            ]
        }
        assert len(codes) == 4


class TestPages:
    @pytest.mark.parametrize("kind", KINDS)
    @pytest.mark.parametrize("paper", PAGE_SIZES)
    def test_every_kind_is_made_the_same_each_time_and_is_tagged(self, plan, kind, paper):
        source = source_of(plan, Settings(kind, paper, 2, "squares", reasons=True))
        pdf = as_pdf(source)
        assert pdf == as_pdf(source)
        found = reader(pdf)
        size = {"a4": (595, 842), "letter": (612, 792)}[paper]
        assert (round(found.pages[0].mediabox.width), round(found.pages[0].mediabox.height)) == size
        root = found.trailer["/Root"]
        assert root["/MarkInfo"]["/Marked"]
        assert root["/Lang"].startswith("en")
        assert found.metadata.title.startswith("Thursday")
        assert b"NewCM" in pdf or "NewCM" in str(
            [f for page in found.pages for f in page["/Resources"].get("/Font", {}).values()]
        )

    def test_a_formula_carries_its_plain_text(self, plan):
        pdf = reader(as_pdf(source_of(plan, Settings("sheet"))))

        def alternatives(node, depth=0):
            node = node.get_object() if hasattr(node, "get_object") else node
            if isinstance(node, list):
                return [text for each in node for text in alternatives(each, depth + 1)]
            if not hasattr(node, "get"):
                return []
            own = [str(node["/Alt"])] if "/Alt" in node else []
            return own + (alternatives(node["/K"], depth + 1) if "/K" in node and depth < 40 else [])

        told = alternatives(pdf.trailer["/Root"]["/StructTreeRoot"])
        assert "√(x+6) = x" in told
        assert "a grid to draw the graph in" in told

    def test_answers_are_stated_as_one_states_them(self, plan):
        text = re.sub(r"\s+", "", text_of(as_pdf(source_of(plan, Settings("answers")))))
        for words in ("nosolution", "prime", "Answers"):
            assert words in text

    @pytest.mark.parametrize(
        ("task", "given", "told"),
        [
            ("solve", r"\frac{\sqrt{t}}{2} = 3", ["t = 36"]),
            ("simplify", r"\frac{y^2 - 4}{y - 2}", ["y + 2", "y ≠ 2"]),
            ("solve", "(x + 1)(x - 3) = 0", ["x = -1", "x = 3"]),
            ("domain", "√(2t - 6)", ["[3, ∞)"]),
            ("domain", "√(2t - 6)/(t - 5)", ["[3, 5) ∪ (5, ∞)"]),
            ("domain", "1/(y^2 - 4)", ["y ≠ -2, 2"]),
        ],
    )
    def test_the_answer_speaks_of_the_letter_of_the_problem(self, task, given, told):
        source = source_of(planned("Letters", [Wanted(Working(task, given, ()))]), Settings("answers"))
        assert re.findall(r'alt: "([^"]*)"', source)[1:] == told  # the first one is that of the sheet's code

    def test_an_item_is_never_cut_in_two(self):
        many = planned("Long", [Wanted(s.working) for s in generate("quadratic-equations", 3, 14, 1)])
        source = source_of(many, Settings("key", columns=1))
        pages = [page.extract_text() for page in reader(as_pdf(source)).pages]
        assert len(pages) > 1
        numbers = [re.findall(r"^(\d+)\.", page, re.M) for page in pages]
        assert [n for page in numbers for n in page] == [str(k) for k in range(1, 15)]
        assert source.count("breakable: false") >= 14

    def test_a_sheet_to_mend_shows_one_faulty_line_and_tells_the_teacher_which(self):
        plan = planned("Mend", PROBLEMS[:4], form="mend")
        assert sum(item.form == "mend" for item in plan.items) >= 3
        *pages, last = (page.extract_text() for page in reader(as_pdf(source_of(plan, Settings("mend")))).pages)
        assert "The slip is in line" in " ".join(pages)
        assert "For the teacher" in last
        for item in plan.items:
            if item.form == "mend":
                assert f"line {item.made.line}" in last

    def test_a_sheet_to_fill_in_has_blanks_and_their_numbers_on_the_last_page(self):
        plan = planned("Fill", PROBLEMS[:2], form="fill")
        assert all(item.form == "fill" and len(item.made.wanted) == 4 for item in plan.items)
        *_, last = (page.extract_text() for page in reader(as_pdf(source_of(plan, Settings("fill")))).pages)
        assert all(value in last for item in plan.items for value in item.made.wanted)

    def test_the_letters_of_a_choose_sheet_are_told_to_the_teacher(self, plan):
        *_, last = (page.extract_text() for page in reader(as_pdf(source_of(plan, Settings("choose")))).pages)
        for item in plan.items:
            if item.form == "choose":
                right = "ABCD"[[option.right for option in item.made.options].index(True)]
                assert re.search(rf"^{item.number}\.\s*{right}\b", last, re.M)

    def test_each_item_may_have_a_form_of_its_own(self):
        forms = ("work", "choose", "mend", "fill")
        plan = planned("Mixed", [Wanted(PROBLEMS[0].working, "", form) for form in forms])
        assert [item.form for item in plan.items] == ["work", "choose", "mend", "fill"]
        text = text_of(as_pdf(source_of(plan, Settings("sheet"))))
        assert "The slip is in line" in text and "For the teacher" not in text
        answers = text_of(as_pdf(source_of(plan, Settings("answers"))))
        assert f"line {plan.items[2].made.line}" in answers

    def test_cards_match_their_backs_when_the_sheet_is_turned(self):
        plan = planned("Cards", [Wanted(Working("solve", f"{k}x = {k * 7}", ())) for k in range(2, 12)])
        pages = [page.extract_text() for page in reader(as_pdf(source_of(plan, Settings("cards")))).pages]
        assert len(pages) == 4
        front, back = (re.findall(r"(\d+)\.", page.split("Cards")[0]) for page in pages[:2])
        assert front == [str(k) for k in range(1, 9)]
        assert back == ["2", "1", "4", "3", "6", "5", "8", "7"]

    def test_every_family_prints_with_its_key(self):
        problems = [Wanted(s.working) for family in FAMILIES for s in generate(family.id, len(family.levels), 1, 3)]
        pages = as_svg(source_of(planned("All", problems), Settings("key", columns=2, reasons=True)))
        assert len(pages) >= 2
        assert all(page.startswith(b"<svg") for page in pages)

    @pytest.mark.parametrize(
        "title", ['a "quoted" #title $x$ \\ [b] *c* @d', "<svg>&amp;", "—–é∛", "#panic()", "]" * 30]
    )
    def test_words_of_a_teacher_are_only_words(self, title):
        problems = [Wanted(Working("solve", "2x = 8", ()), f"{title}.")]
        pdf = as_pdf(source_of(planned(title, problems), Settings("key")))
        assert title.replace(" ", "")[:6] in text_of(pdf).replace(" ", "").replace("“", '"').replace("”", '"')

    def test_a_given_that_cannot_be_read_stands_as_it_was_written(self):
        plan = planned("x", [Wanted(Working("solve", "2x = (8", ()))])
        assert "2x=(8" in text_of(as_pdf(source_of(plan, Settings("sheet")))).replace(" ", "")

    def test_decimals_with_a_comma(self):
        plan = planned("x", [Wanted(Working("solve", "0,5x = 1,5", (), conventions={"decimal": "comma"}))])
        assert "0,5" in text_of(as_pdf(source_of(plan, Settings("key"))))

    def test_a_source_that_is_none_is_an_error_of_ours(self):
        with pytest.raises(PagesError):
            as_pdf("#let")
        assert as_png("#set page(width: 2cm, height: 2cm)\nx")[0].startswith(b"\x89PNG")

    @pytest.mark.parametrize("columns", [0, 4])
    def test_columns_that_no_page_has(self, plan, columns):
        with pytest.raises(ValueError, match="one to three"):
            source_of(plan, Settings(columns=columns))


class TestGrids:
    def test_the_grid_holds_the_points_that_are_asked_for_and_the_curve_only_in_the_key(self, plan):
        graph = plan.items[-1].graph
        empty, drawn = axes(graph, with_curve=False), axes(graph, with_curve=True)
        assert "<polyline" not in empty and "<polyline" in drawn
        left, right, bottom, top = graph.window
        for dot in (*graph.intercepts, *graph.holes, *graph.check_points):
            assert left <= dot.x <= right and bottom <= dot.y <= top


class TestCommand:
    FILE = str(ROOT / "server" / "sheets" / "demo" / "1-rational-expressions.chain")

    def run(self, *arguments, stdin=""):
        out, err = io.StringIO(), io.StringIO()
        return print_main(list(arguments), stdin=io.StringIO(stdin), out=out, err=err), out.getvalue(), err.getvalue()

    def test_a_file_becomes_a_sheet(self, tmp_path):
        path = tmp_path / "out.pdf"
        status, out, _ = self.run(self.FILE, "--out", str(path), "--kind", "key", "--paper", "letter", "--columns", "2")
        assert status == 0
        assert f"{len(read_workings(Path(self.FILE).read_text(encoding='utf-8')))} items" in out
        assert path.read_bytes().startswith(b"%PDF")

    def test_a_doubtful_key_is_said_and_the_sheet_written(self, tmp_path):
        path = tmp_path / "out.pdf"
        status, _, err = self.run("-", "--out", str(path), stdin="task: solve\ngiven: x^5 - x - 1 = 0\n---\n")
        assert status == 1 and "No method known" in err and path.exists()

    @pytest.mark.parametrize("head", ["#\n", "#   \n", "", "# Thursday\n"])
    def test_a_list_without_a_title_is_printed(self, tmp_path, head):
        path = tmp_path / "out.pdf"
        status, _, err = self.run("-", "--out", str(path), stdin=f"{head}task: solve\ngiven: 2x = 4\n---\n")
        assert (status, err) == (0, "") and path.exists()

    @pytest.mark.parametrize(
        ("arguments", "stdin"),
        [
            (["missing.chain", "--out", "x.pdf"], ""),
            (["-", "--out", "x.pdf"], ""),
            (["-", "--out", "/no/such/x.pdf"], "task: solve\ngiven: x = 1\n---\n"),
        ],
    )
    def test_what_cannot_be_printed_is_said(self, arguments, stdin):
        status, _, err = self.run(*arguments, stdin=stdin)
        assert status == 2 and err.startswith("uchuu print: ")


class TestPlacesOfTheRightAnswer:
    def test_no_letter_is_left_out_and_none_comes_three_times_in_a_row(self):
        items = [Wanted(Working("solve", f"{a}x + {a + 3} = {5 * a + 3}"), "", "choose") for a in range(2, 14)]
        for seed in (1, 2, 3):
            plan = planned("Choose", items, seed=seed)
            places = [next(k for k, option in enumerate(item.made.options) if option.right) for item in plan.items]
            counts = [places.count(place) for place in range(4)]
            assert max(counts) - min(counts) <= 1
            assert all(places[k : k + 3] != [places[k]] * 3 for k in range(len(places)))

    def test_they_are_the_same_each_time(self):
        items = [Wanted(Working("solve", "2x + 5 = 13"), "", "choose")] * 3
        assert planned("A", items) == planned("A", items)


def test_every_form_stands_on_paper_with_its_key():
    problems = [
        ("solve", "x^2 + 6x = 7", "way", "Factoring"),
        ("simplify", "3/x + 2/(x + 1)", "claim", "true"),
        ("solve", "3x = 12", "way", ""),
    ]
    plan = planned("Forms", [Wanted(Working(task, given), "", form) for task, given, form, _ in problems])
    assert [item.form for item in plan.items] == ["way", "claim", "work"]  # of one way only, it stays to be worked
    text = "".join(page.extract_text() for page in reader(as_pdf(source_of(plan, Settings("sheet")))).pages)
    assert "Which way would you go?" in text
    assert "not true" in text
    answers = "".join(page.extract_text() for page in reader(as_pdf(source_of(plan, Settings("answers")))).pages)
    for *_, words in problems:
        assert words in answers


class TestForms:
    ITEMS = tuple(Wanted(Working("solve", f"{a}x = {6 * a}")) for a in range(2, 8)) + tuple(
        Wanted(Working("factor", f"x^2 - {a * a}")) for a in range(2, 8)
    )

    def test_a_form_is_the_same_items_in_another_order_section_by_section(self):
        orders = [in_other_order(self.ITEMS, form) for form in range(4)]
        assert orders[0] == list(self.ITEMS)
        assert len({tuple(each.working.given for each in order) for order in orders}) == 4
        for order in orders:
            assert {each.working.given for each in order[:6]} == {each.working.given for each in self.ITEMS[:6]}
            assert sorted(each.working.given for each in order) == sorted(each.working.given for each in self.ITEMS)
        assert in_other_order(self.ITEMS, 2) == orders[2]

    def test_each_form_has_a_code_of_its_own(self):
        assert len({planned("Forms", in_other_order(self.ITEMS[:3], form)).code for form in range(3)}) == 3


def test_marks_stand_beside_the_items_where_that_is_wished():
    plan = planned("Marks", [Wanted(Working("solve", "3x + 7 = 22")), Wanted(Working("solve", "√(x + 6) = x"))])
    assert [item.marks for item in plan.items] == [2, 5]
    for kind in ("sheet", "key", "answers"):
        text = reader(as_pdf(source_of(plan, Settings(kind, marks=True)))).pages[0].extract_text()
        assert "[2]" in text
        assert "[5]" in text
        assert "of 7" in text
    assert "[2]" not in reader(as_pdf(source_of(plan, Settings("sheet")))).pages[0].extract_text()


class TestCodes:
    BASE = Working("solve", "x^2 = -4")

    @pytest.mark.parametrize(
        "other",
        [
            Working("factor", "x^2 = -4"),
            Working("solve", "x^2 = -9"),
            Working("solve", "x^2 = -4", variable="y"),
            Working("solve", "x^2 = -4", numbers="complex"),
        ],
    )
    def test_another_problem_has_another_code(self, other):
        assert code_of("Tides", "A", [self.BASE]) != code_of("Tides", "A", [other])

    def test_a_title_and_a_version_too_but_not_what_was_worked(self):
        codes = {code_of(*named, [self.BASE]) for named in (("Tides", "A"), ("Tides", "B"), ("Ebb", "A"))}
        assert len(codes) == 3 and all(re.fullmatch("[0-9A-F]{8}", code) for code in codes)
        worked = Working("solve", "x^2 = -4", ("no solution",))
        assert code_of("Tides", "A", [self.BASE]) == code_of("Tides", "A", [worked])
