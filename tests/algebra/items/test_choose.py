"""To choose from: a letter is chosen, and the right letters are spread over a sheet."""

from collections import Counter

import pytest

from algebra import SLIPS, ChooseItem, Working, item_of, judge, key_lines, options, right_place, shown_of
from algebra.items.choose import spread
from tests.algebra.items.answered import marks

LINEAR = Working("solve", "3(x - 2) = 12")
CHOOSE = ChooseItem(LINEAR, options(LINEAR))
RIGHT = key_lines(CHOOSE)[0]
WRONG = next(letter for letter in "ABCD" if letter != RIGHT)


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


class TestSpreading:
    def test_each_letter_is_right_about_as_often_and_never_three_times_in_a_row(self):
        for seed in range(30):
            places = [right_place(item) for item in spread([CHOOSE] * 16, str(seed))]
            assert set(Counter(places).values()) == {4}
            assert all(len(set(places[k : k + 3])) > 1 for k in range(14))

    def test_twice_in_a_row_may_happen(self):
        rows = [[right_place(item) for item in spread([CHOOSE] * 16, str(seed))] for seed in range(30)]
        assert any(a == b for row in rows for a, b in zip(row, row[1:], strict=False))

    def test_the_options_stay_the_same_and_so_does_a_seed(self):
        first, second = spread([CHOOSE] * 4, "7"), spread([CHOOSE] * 4, "7")
        assert first == second and all(set(item.options) == set(CHOOSE.options) for item in first)

    def test_what_is_drawn_differs_with_the_seed(self):
        working = Working("solve", "x^2 - 5x + 6 = 0")
        assert len({item_of("choose", working, seed).options for seed in range(8)}) > 1


def test_a_student_sees_options_and_nothing_behind_them():
    shown = shown_of(CHOOSE)
    assert shown.options == tuple(option.answer_latex for option in CHOOSE.options)
    assert (shown.lines, shown.ways, shown.letters, shown.blanks) == ((), (), (), 0)
