"""To fill in: the numbers left out make it whole again, and each blank is judged by itself."""

import pytest

from algebra import FillItem, TaskError, Working, check, fill_item, is_filled, item_of, judge, key_lines, shown_of
from tests.algebra.items.answered import PROBLEMS, marks

FILL = fill_item(Working("solve", "3(x - 2) = 12"))


class TestMaking:
    @pytest.mark.parametrize(("task", "given"), PROBLEMS)
    def test_the_numbers_left_out_make_it_whole_again(self, task, given):
        item = fill_item(Working(task, given, ()), 3, 1)
        assert sum(line.count("□") for line in item.lines) == len(item.wanted) == 3
        assert is_filled(item, item.wanted) == (True,) * 3
        whole = iter(item.wanted)
        lines = ["".join(next(whole) if c == "□" else c for c in line) for line in item.lines]
        report = check(Working(task, given, tuple(lines)))
        assert all(link.relation in ("holds", "widens", "settles") for link in report.links)

    def test_each_blank_is_judged_by_itself_and_by_value(self):
        item = fill_item(Working("solve", "3(x - 2) = 12", ()), 3, 1)
        wrong = [str(int(item.wanted[0]) + 1), f"{item.wanted[1]}/1", ""]
        assert is_filled(item, wrong) == (False, True, False)
        assert is_filled(item, []) == (False, False, False)

    def test_a_blank_takes_a_decimal_with_the_comma_of_the_sheet(self):
        item = FillItem(Working("solve", "2x = 1", (), conventions={"decimal": "comma"}), ("x = □",), ("1/2",))
        assert is_filled(item, ["0,5"]) == (True,)
        assert is_filled(item, ["5"]) == (False,)

    def test_other_numbers_that_make_every_line_right_are_right(self):
        item = FillItem(Working("simplify", "√50 + √8", ()), ("√(□·□) + √8", "5√2 + 2√2", "□√2"), ("25", "2", "7"))
        assert is_filled(item, ["2", "25", "7"]) == (True, True, True)
        assert is_filled(item, ["5", "9", "7"]) == (False, False, True)


class TestAnswers:
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

    def test_a_line_with_bars_keeps_them(self):
        item = item_of("fill", Working("solve", "10 - |x| = 1"))
        assert any(line.count("|") == 2 for line in item.lines)
        assert marks(item, *key_lines(item))[1] == "correct"

    def test_blanks_are_numbered_for_who_fills_them(self):
        shown = shown_of(FILL)
        assert shown.blanks == len(FILL.wanted) == sum(line.count("boxed") for line in shown.lines)
        assert "{\\scriptstyle 1}" in "".join(shown.lines) and FILL.wanted[0] not in shown.ways

    def test_what_is_no_number_is_said_at_its_blank(self):
        assert judge(FILL, ("((",)).links[0].error.line == 1

    def test_a_problem_without_a_solution_has_none(self):
        with pytest.raises(TaskError):
            item_of("fill", Working("solve", "x^5 - x - 1 = 0"))
