"""To mend: one line does not follow, the right one does, and nothing else mends it."""

import pytest

from algebra import SLIPS, MendItem, TaskError, Working, check, is_mended, item_of, judge, key_lines
from tests.algebra.items.answered import PROBLEMS, marks

MEND = item_of("mend", Working("solve", "3(x - 2) = 12"), 2)
LINES = ("2x - 3 = 8 - x", "3x = 11", "x = 11/3")
BROKEN = MendItem(Working("solve", "2(x - 3) = 8 - x"), LINES, 1, "2x - 6 = 8 - x", "distributed-first-only", "")


class TestMaking:
    @pytest.mark.parametrize(("task", "given"), PROBLEMS)
    @pytest.mark.parametrize("seed", [1, 2])
    def test_exactly_one_line_does_not_follow_and_the_right_one_does(self, task, given, seed):
        working = Working(task, given, ())
        item = item_of("mend", working, seed)
        report = check(Working(task, given, item.lines))
        assert [link.line for link in report.links if link.relation in ("breaks", "narrows")] == [item.line]
        assert item.slip in {slip.id for slip in SLIPS}
        assert item.done
        assert is_mended(item, item.line, item.right)

    def test_another_line_or_another_fault_is_not_mended(self):
        item = item_of("mend", Working("solve", "3(x - 2) = 12"), 2)
        before = item.lines[item.line - 2] if item.line > 1 else item.working.given
        assert not is_mended(item, item.line + 1, item.right)
        assert not is_mended(item, item.line, item.lines[item.line - 1])
        assert not is_mended(item, item.line, before)
        assert not is_mended(item, item.line, "x = (")
        assert is_mended(item, item.line, "x = 6")  # another right line is right as well

    def test_the_same_seed_plants_the_same_slip(self):
        working = Working("solve", "3(x - 2) = 12", ())
        assert item_of("mend", working, 3) == item_of("mend", working, 3)

    def test_what_is_not_worked_has_none(self):
        with pytest.raises(TaskError):
            item_of("mend", Working("solve", "x^5 - x - 1 = 0"))


class TestAnswers:
    OTHER = next(k for k in range(1, len(MEND.lines) + 1) if k != MEND.line)

    @pytest.mark.parametrize(
        ("lines", "told", "verdict", "mark"),
        [
            ((f"line {MEND.line}",), ["holds"], "incomplete", 1),
            ((f"{MEND.line}.", MEND.right), ["holds", "holds"], "correct", 2),
            ((f"{MEND.line}", MEND.lines[MEND.line - 1]), ["holds", "breaks"], "wrong", 1),
            ((f"line {OTHER}", MEND.right), ["breaks", "breaks"], "wrong", 0),
            (("line 99", "x = 6"), ["error"], "wrong", 0),
            ((f"line {MEND.line}", "x = ("), ["holds", "error"], "wrong", 1),
        ],
    )
    def test_the_place_and_the_line_are_a_part_each(self, lines, told, verdict, mark):
        assert marks(MEND, *lines)[:3] == (told, verdict, mark)

    @pytest.mark.parametrize(
        "above",
        [
            "2(x-3)=8-x",
            "2 ( x - 3 ) = 8 - x",
            "8 - x = 2(x - 3)",
            "2(-3 + x) = 8 - x",
            "(x - 3)·2 = -x + 8",
            "2·(x-3) = (8 - x)",
        ],
    )
    def test_the_line_above_written_again_mends_nothing(self, above):
        assert marks(BROKEN, "line 1", above)[:2] == (["holds", "breaks"], "wrong")

    @pytest.mark.parametrize("right", ["2x - 6 = 8 - x", "8 - x = 2x - 6", "x - 3 = 4 - x/2", "x = 14/3", "3x = 14"])
    def test_any_line_that_follows_mends_it(self, right):
        assert marks(BROKEN, "line 1", right)[:2] == (["holds", "holds"], "correct")

    @pytest.mark.parametrize("text", ["aside: 2·3 = 6", "check x = 14/3: 10/3 = 10/3", "x ≠ 3", "let u = x - 3"])
    def test_a_line_of_another_kind_mends_nothing(self, text):
        assert judge(BROKEN, ("1", text)).links[1].relation != "holds"

    @pytest.mark.parametrize(
        "place",
        ["line 1", "Line 1:", "LINE 1.", "(1)", "1", "1.", "1)", "l. 1", "no. 1", "No 1", "#1", "in line 1", " 1 : "],
    )
    def test_the_place_is_read_as_it_is_written(self, place):
        assert marks(BROKEN, place, "2x - 6 = 8 - x")[1] == "correct"

    @pytest.mark.parametrize(
        ("lines", "told", "verdict", "mark"),
        [
            (("line 1: 2x - 6 = 8 - x",), ["holds"], "correct", 2),
            (("Line 1. 3x = 14",), ["holds"], "correct", 2),
            (("(line 1) 2x - 6 = 8 - x",), ["holds"], "correct", 2),
            (("no. 1: 2x - 6 = 8 - x",), ["holds"], "correct", 2),
            (("1: 2x - 6 = 8 - x",), ["holds"], "correct", 2),
            (("(1) 2x - 6 = 8 - x",), ["holds"], "correct", 2),
            (("line 1: 2x - 5 = 8 - x",), ["breaks"], "wrong", 1),
            (("line 1: 2(x-3) = 8 - x",), ["breaks"], "wrong", 1),
            (("line 2: 2x - 6 = 8 - x",), ["breaks"], "wrong", 0),
            (("line 1: 2x = (",), ["error"], "wrong", 1),
            (("line 9: x = 2",), ["error"], "wrong", 0),
        ],
    )
    def test_place_and_line_may_stand_in_one(self, lines, told, verdict, mark):
        assert marks(BROKEN, *lines)[:3] == (told, verdict, mark)

    @pytest.mark.parametrize("place", ["0", "4", "one", "line", "1 2", "-1", "1.5"])
    def test_what_names_no_line_is_said(self, place):
        assert "1 to 3" in judge(BROKEN, (place,)).links[0].error.message


class TestKeys:
    @pytest.mark.parametrize("given", ["10 - |x| = 1", "|x - 2| = 5", "|2x + 1| - 3 = 4", "4|x| = 12"])
    def test_bars_of_an_absolute_value_are_no_margin(self, given):
        made = 0
        for seed in range(1, 7):
            try:
                item = item_of("mend", Working("solve", given), seed)
            except TaskError:
                continue
            made += 1
            place, right = key_lines(item)
            assert right.count("|") % 2 == 0 and judge(item, (place, right)).answer.verdict == "correct"
        assert made

    @pytest.mark.parametrize("given", ["(x - 4)/(x + 3)", "(x^2 - 4)/(x^2 - x - 2)", "3/(x - 2) + 1"])
    @pytest.mark.parametrize("seed", [1, 2, 3, 4])
    def test_a_wrong_feature_is_mended_by_that_feature(self, given, seed):
        item = item_of("mend", Working("analyze", given), seed)
        faulty = item.lines[item.line - 1].partition(":")[0]
        assert key_lines(item)[1].partition(":")[0].rstrip("s") == faulty.rstrip("s")
        assert marks(item, *key_lines(item))[1] == "correct"
