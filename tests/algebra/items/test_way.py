"""Which way: a way is known by its name, as it is said."""

import pytest

from algebra import TaskError, Working, is_way, item_of, judge, shown_of
from tests.algebra.items.answered import marks

WAY = item_of("way", Working("solve", "x^2 - 5x + 6 = 0"))


class TestMaking:
    def test_the_shortest_way_is_best_and_others_lead_there(self):
        item = item_of("way", Working("solve", "x^2 - 6x = 16"))
        assert [is_way(item, method) for method in ("factoring", "quadratic-formula", "cross-multiply")] == [
            "best",
            "leads there",
            "no",
        ]

    def test_a_problem_with_one_way_has_nothing_to_choose(self):
        with pytest.raises(TaskError, match="Only one way"):
            item_of("way", Working("solve", "|x| = 3"))


class TestAnswers:
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

    @pytest.mark.parametrize(
        ("said", "mark"),
        [
            ("Factoring", 1),
            ("factorising", 1),
            ("factorizing", 1),
            ("by factoring", 1),
            ("factorisation", 1),
            ("I would factorise", 1),
            ("I'd factor it", 1),
            ("by completing squares", 0.5),
            ("factor", 1),
            ("the quadratic formula", 0.5),
            ("by using the quadratic formula", 0.5),
            ("formula", 0.5),
            ("complete the square", 0.5),
            ("Completing the square.", 0.5),
            ("the method of completing the square", 0.5),
            ("cross multiplication", 0),
            ("two cases", 0),
        ],
    )
    def test_a_name_in_other_words_is_the_same_way(self, said, mark):
        assert marks(WAY, said)[2] == mark and judge(WAY, (said,)).links[0].error is None

    @pytest.mark.parametrize("said", ["by guessing", "the", "by", "x = 2", "square"])
    def test_what_names_no_way_is_said(self, said):
        assert judge(WAY, (said,)).links[0].error.message == "No way of this name is known here."

    def test_right_ways_stand_among_others_to_choose_from(self):
        assert {"Factoring", "Quadratic formula"} <= set(shown_of(WAY).ways) and len(shown_of(WAY).ways) == 6
