"""What holds for every form: it has a key that is right, an answer has a link a line and a mark within bounds, and
every floor of the house knows it."""

import re
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from algebra import (
    BY_NAME,
    FORMS,
    ITEM_FORMS,
    ChooseItem,
    ClaimItem,
    Scheme,
    Working,
    fill_item,
    form_named,
    form_of,
    given_of,
    item_of,
    item_scheme,
    judge,
    key_lines,
    options,
    propose,
    propose_for,
    shown_of,
)
from paper import DRAWINGS, KINDS
from tests.algebra.items.answered import marks

LINEAR = Working("solve", "3(x - 2) = 12")
FUNCTION = Working("analyze", "(x^2-4)/(x^2-x-2)")
ITEMS = {
    "choose": ChooseItem(LINEAR, options(LINEAR)),
    "mend": item_of("mend", LINEAR, 2),
    "fill": fill_item(LINEAR),
    "way": item_of("way", Working("solve", "x^2 - 5x + 6 = 0")),
    "claim": ClaimItem("(a + b)^2 = a^2 + b^2", False, {"a": "1", "b": "1"}, "power-over-sum"),
    "law": ClaimItem("(ab)^3 = a^3b^3", True, {}, ""),
    "numbers": ClaimItem("√50 + √8 = √58", False, {}, "radicands-added"),
}
WORKED = {"work": item_of("work", LINEAR), "features": item_of("work", FUNCTION)}
WEB = Path(__file__).parents[3] / "web" / "src" / "features" / "items"


@pytest.mark.parametrize("item", ITEMS.values(), ids=ITEMS)
class TestEveryForm:
    def test_its_key_is_right_and_earns_all(self, item):
        told, verdict, mark, total = marks(item, *key_lines(item))
        assert set(told) == {"holds"} and verdict == "correct" and mark == total == item_scheme(item).total

    def test_nothing_is_no_answer(self, item):
        assert marks(item) == ([], "none", 0, item_scheme(item).total)

    def test_what_can_not_be_read_is_said_at_its_line_and_earns_nothing(self, item):
        report = judge(item, ("((",))
        assert report.links[0].error.message and report.links[0].error.line == 1 and not report.finish.finished
        assert propose_for(item, item_scheme(item), ("((",), report).eye == ("unread",)

    @settings(max_examples=40, deadline=None)
    @given(lines=st.lists(st.text("ABCDx0123 =?()√line/-true", max_size=9), max_size=5))
    def test_whatever_is_written_has_a_link_a_line_and_a_mark_within_bounds(self, item, lines):
        report = judge(item, lines)
        proposal = propose_for(item, Scheme("answer", 3), lines, report)
        assert [link.line for link in report.links] == sorted({link.line for link in report.links})
        assert 0 <= proposal.mark <= 3 and (report.answer.verdict == "correct") == report.finish.finished
        assert proposal == propose_for(item, Scheme("answer", 3), lines, judge(item, lines))


class TestToWork:
    @pytest.mark.parametrize("item", WORKED.values(), ids=WORKED)
    def test_its_lines_are_judged_and_marked_as_those_of_a_working(self, item):
        key = key_lines(item)
        report = judge(item, key)
        assert report.answer.verdict == "correct" and len(report.links) == len(key) > 1
        scheme = item_scheme(item, "points")
        assert propose_for(item, scheme, key, report).mark == scheme.total
        worked = Working(item.working.task, item.working.given, key)
        assert propose_for(item, scheme, key, report) == propose(worked, scheme, report)

    def test_a_function_is_asked_for_its_features(self):
        assert form_named("work", FUNCTION).name == "features" and form_of(WORKED["features"]).kept_as == "work"
        assert shown_of(WORKED["features"]).letters == ("x",) and shown_of(WORKED["work"]) is None

    def test_what_is_not_worked_has_no_key(self):
        assert key_lines(item_of("work", Working("solve", "x^5 - x - 1 = 0"))) == ()

    def test_what_stands_over_it_is_its_given_or_its_claim(self):
        assert given_of(WORKED["work"]) == LINEAR.given and given_of(ITEMS["law"]) == "(ab)^3 = a^3b^3"


def test_workings_that_are_written_alike_are_known_by_one_mark():
    mend = ITEMS["mend"]
    alike = {
        propose_for(mend, item_scheme(mend), lines, judge(mend, lines)).alike
        for lines in (("line 1", "x = 2"), ("Line 1", " x =  2"))
    }
    assert len(alike) == 1


class TestEveryFloorHasEveryForm:
    def test_the_core_has_a_module_a_form_with_a_record_of_its_own(self):
        assert len({form.record for form in FORMS}) == len(BY_NAME) == len(FORMS)
        assert {form.kept_as for form in FORMS} == set(ITEM_FORMS)
        folder = Path(__file__).parents[3] / "algebra" / "items"
        modules = {path.stem for path in folder.glob("*.py")} - {"__init__", "form", "answers"}
        assert modules == set(BY_NAME)

    def test_paper_draws_each(self):
        assert set(DRAWINGS) == set(BY_NAME)
        assert set(ITEM_FORMS) - {"work"} <= set(KINDS)

    def test_there_is_a_test_of_each(self):
        tests = {path.stem.removeprefix("test_") for path in Path(__file__).parent.glob("test_*.py")}
        assert {form.name for form in FORMS if form.answered} <= tests
        assert {form_of(item).name for item in (*ITEMS.values(), *WORKED.values())} == set(BY_NAME)

    def test_the_front_end_has_a_component_for_each(self):
        table = (WEB / "forms.ts").read_text(encoding="utf-8")
        named = set(re.findall(r"^  (\w+): \{", table, re.MULTILINE))
        assert named == set(BY_NAME)
        for name in named:
            assert (WEB / f"{name.title()}Answer.vue").is_file(), name
