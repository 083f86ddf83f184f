"""Answers to items in other forms: a link for every line, what the whole is, and what is proposed for it."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from algebra import (
    SLIPS,
    ChooseItem,
    ClaimItem,
    FillItem,
    MendItem,
    Scheme,
    WayItem,
    Working,
    claim_letters,
    fill_item,
    form_scheme,
    judge,
    key_lines,
    mend_item,
    options,
    propose_for,
    way_item,
)

LINEAR = Working("solve", "3(x - 2) = 12", ())
SQUARES = Working("solve", "x^2 - 5x + 6 = 0", ())
CHOOSE = ChooseItem(LINEAR, options(LINEAR))
MEND = mend_item(LINEAR, 2)
FILL = fill_item(LINEAR)
WAY = way_item(SQUARES)
FALSE = ClaimItem("(a + b)^2 = a^2 + b^2", False, {"a": "1", "b": "1"}, "power-over-sum")
NUMBERS = ClaimItem("√50 + √8 = √58", False, {}, "radicands-added")
TRUE = ClaimItem("(ab)^3 = a^3b^3", True, {}, "")
ITEMS = [CHOOSE, MEND, FILL, WAY, FALSE, TRUE, NUMBERS]
IDS = ["choose", "mend", "fill", "way", "claim", "law", "numbers"]
RIGHT = key_lines(CHOOSE)[0]
WRONG = next(letter for letter in "ABCD" if letter != RIGHT)


def marks(item, *lines):
    """The relation of each line, the verdict, and what is proposed, of what it is worth."""
    report = judge(item, lines)
    proposal = propose_for(item, form_scheme(item), lines, report)
    told = ["error" if link.error else link.relation for link in report.links]
    return told, report.answer.verdict, proposal.mark, proposal.total


@pytest.mark.parametrize("item", ITEMS, ids=IDS)
class TestEveryForm:
    def test_its_key_is_right_and_earns_all(self, item):
        told, verdict, mark, total = marks(item, *key_lines(item))
        assert set(told) == {"holds"} and verdict == "correct" and mark == total == form_scheme(item).total

    def test_nothing_is_no_answer(self, item):
        assert marks(item) == ([], "none", 0, form_scheme(item).total)

    def test_what_can_not_be_read_is_said_at_its_line_and_earns_nothing(self, item):
        report = judge(item, ("((",))
        assert report.links[0].error.message and report.links[0].error.line == 1 and not report.finish.finished
        assert propose_for(item, form_scheme(item), ("((",), report).eye == ("unread",)

    @settings(max_examples=40, deadline=None)
    @given(lines=st.lists(st.text("ABCDx0123 =?()√line/-true", max_size=9), max_size=5))
    def test_whatever_is_written_has_a_link_a_line_and_a_mark_within_bounds(self, item, lines):
        report = judge(item, lines)
        proposal = propose_for(item, Scheme("answer", 3), lines, report)
        assert [link.line for link in report.links] == sorted({link.line for link in report.links})
        assert 0 <= proposal.mark <= 3 and (report.answer.verdict == "correct") == report.finish.finished
        assert proposal == propose_for(item, Scheme("answer", 3), lines, judge(item, lines))


class TestChoosing:
    @pytest.mark.parametrize("text", [RIGHT.lower(), f"({RIGHT})", f" {RIGHT}. "])
    def test_a_letter_is_read_as_it_is_written(self, text):
        assert marks(CHOOSE, text) == (["holds"], "correct", 1, 1)

    @pytest.mark.parametrize("text", ["AB", "ABCD", "", "E", "5"])
    def test_what_is_no_letter_of_it_is_no_choice(self, text):
        assert marks(CHOOSE, text)[0] == ["error"]

    def test_a_wrong_option_has_the_error_that_it_was_made_from(self):
        place = "ABCD".index(WRONG)
        [link] = judge(CHOOSE, (WRONG,)).links
        assert link.relation == "breaks" and link.slip.id == CHOOSE.options[place].slips[0]
        assert link.slip.done == CHOOSE.options[place].reason and link.slip.id in {slip.id for slip in SLIPS}

    def test_who_names_two_has_not_chosen(self):
        assert marks(CHOOSE, RIGHT, WRONG)[1:3] == ("wrong", 0)


class TestMending:
    OTHER = next(k for k in range(1, len(MEND.lines) + 1) if k != MEND.line)

    @pytest.mark.parametrize(
        ("lines", "told", "verdict", "mark"),
        [
            ((f"line {MEND.line}",), ["holds"], "incomplete", 1),
            ((f"{MEND.line}.", MEND.right.partition("|")[0]), ["holds", "holds"], "correct", 2),
            ((f"{MEND.line}", MEND.lines[MEND.line - 1]), ["holds", "breaks"], "wrong", 1),
            ((f"line {OTHER}", MEND.right.partition("|")[0]), ["breaks", "breaks"], "wrong", 0),
            (("line 99", "x = 6"), ["error"], "wrong", 0),
            ((f"line {MEND.line}", "x = ("), ["holds", "error"], "wrong", 1),
        ],
    )
    def test_the_place_and_the_line_are_a_part_each(self, lines, told, verdict, mark):
        assert marks(MEND, *lines)[:3] == (told, verdict, mark)


class TestFilling:
    def test_a_blank_left_open_is_no_error_and_earns_nothing(self):
        told, verdict, mark, total = marks(FILL, "?", *FILL.wanted[1:])
        assert (told[0], verdict, mark) == (None, "incomplete", total - 1)

    def test_each_blank_is_judged_by_itself(self):
        told, verdict, mark, total = marks(FILL, "999", *FILL.wanted[1:])
        assert (told, verdict, mark) == (["breaks", *["holds"] * (total - 1)], "wrong", total - 1)

    def test_there_is_no_fifth_of_four(self):
        assert marks(FILL, *FILL.wanted, "1")[0][-1] == "error"

    def test_only_open_ones_are_no_answer(self):
        assert marks(FILL, "?", "?")[1] == "none"


class TestTheWay:
    def test_another_that_leads_there_is_right_and_earns_half(self):
        other = next(
            name for name in ("Quadratic formula", "Completing the square") if judge(WAY, (name,)).links[0].notes
        )
        assert marks(WAY, other) == (["holds"], "correct", 0.5, 1)

    @pytest.mark.parametrize(
        ("text", "told"), [("factoring.", "holds"), ("Largest square factor", "breaks"), ("by magic", "error")]
    )
    def test_names_are_known(self, text, told):
        assert marks(WAY, text)[0] == [told]


class TestClaims:
    @pytest.mark.parametrize(
        ("lines", "told", "verdict", "mark"),
        [
            (("not true", "a = 1", "b = 2"), ["holds"] * 3, "correct", 2),
            (("False", "a = 1, b = 2"), ["holds"] * 2, "correct", 2),
            (("no", "a = 0", "b = 2"), ["holds", "breaks", "breaks"], "wrong", 1),
            (("not true", "a = 1"), ["holds", "breaks"], "wrong", 1),
            (("not true",), ["holds"], "incomplete", 1),
            (("true",), ["breaks"], "wrong", 0),
            (("not true", "a = x"), ["holds", "error"], "wrong", 1),
            (("not true", "a + b"), ["holds", "error"], "wrong", 1),
        ],
    )
    def test_what_is_not_true_is_shown_by_numbers(self, lines, told, verdict, mark):
        assert marks(FALSE, *lines)[:3] == (told, verdict, mark)

    def test_who_takes_it_for_a_law_makes_its_error(self):
        assert judge(FALSE, ("true",)).links[0].slip.id == "power-over-sum"

    def test_letters_are_those_of_the_claim_not_of_a_word_in_it(self):
        assert claim_letters(ClaimItem("sqrt(x + y) = sqrt(x) + sqrt(y)", False, {}, "root-over-sum")) == ("x", "y")

    def test_a_law_is_not_untrue(self):
        assert marks(TRUE, "not true", "a = 1", "b = 1")[1:3] == ("wrong", 0)


def test_workings_that_are_written_alike_are_known_by_one_mark():
    alike = {
        propose_for(MEND, form_scheme(MEND), lines, judge(MEND, lines)).alike
        for lines in (("line 1", "x = 2"), ("Line 1", " x =  2"))
    }
    assert len(alike) == 1


@pytest.mark.parametrize("kind", [ChooseItem, MendItem, FillItem, WayItem, ClaimItem])
def test_there_is_an_item_of_every_kind_here(kind):
    assert any(isinstance(item, kind) for item in ITEMS)
