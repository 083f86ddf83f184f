"""Other forms of an item: each has one right key, and an answer is verified, not compared."""

import pytest

from algebra import (
    SLIPS,
    FillItem,
    TaskError,
    Working,
    check,
    claim_item,
    claim_of,
    fill_item,
    is_claim_judged,
    is_filled,
    is_mended,
    is_way,
    mend_item,
    way_item,
)
from algebra.items.forms import FALSE_CLAIMS, LAWS

PROBLEMS = [
    ("solve", "3(x - 2) = 12"),
    ("solve", "x^2 = 9x"),
    ("simplify", "√50 + √8"),
    ("solve", "√(x + 6) = x"),
    ("factor", "2x^2 + 14x + 20"),
    ("simplify", "3/x + 2/(x + 1)"),
    ("evaluate", "18 - 6 ÷ 3 × 2"),
    ("solve", "2/x + 1 = 7/3"),
]


class TestMending:
    @pytest.mark.parametrize(("task", "given"), PROBLEMS)
    @pytest.mark.parametrize("seed", [1, 2])
    def test_exactly_one_line_does_not_follow_and_the_right_one_does(self, task, given, seed):
        working = Working(task, given, ())
        item = mend_item(working, seed)
        report = check(Working(task, given, item.lines))
        assert [link.line for link in report.links if link.relation in ("breaks", "narrows")] == [item.line]
        assert item.slip in {slip.id for slip in SLIPS}
        assert item.done
        assert is_mended(item, item.line, item.right)

    def test_another_line_or_another_fault_is_not_mended(self):
        item = mend_item(Working("solve", "3(x - 2) = 12", ()), 2)
        before = item.lines[item.line - 2] if item.line > 1 else item.working.given
        assert not is_mended(item, item.line + 1, item.right)
        assert not is_mended(item, item.line, item.lines[item.line - 1])
        assert not is_mended(item, item.line, before)
        assert not is_mended(item, item.line, "x = (")
        assert is_mended(item, item.line, "x = 6")  # another right line is right as well

    def test_the_same_seed_plants_the_same_slip(self):
        working = Working("solve", "3(x - 2) = 12", ())
        assert mend_item(working, 3) == mend_item(working, 3)

    def test_what_is_not_worked_has_none(self):
        with pytest.raises(TaskError):
            mend_item(Working("solve", "x^5 - x - 1 = 0", ()))


class TestFilling:
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


class TestClaims:
    def test_laws_hold_and_the_others_are_shown_false_by_their_numbers(self):
        seen = {}
        for seed in range(200):
            item = claim_item(seed)
            seen[item.claim] = item
            assert is_claim_judged(item, item.true, item.counter)
            assert not is_claim_judged(item, not item.true, {"a": "2", "b": "3", "c": "5", "d": "7"})
        assert {claim for claim, item in seen.items() if item.true} == set(LAWS)
        assert {claim for claim, item in seen.items() if not item.true} == {claim for claim, _ in FALSE_CLAIMS}
        assert {slip for _, slip in FALSE_CLAIMS} <= {slip.id for slip in SLIPS}

    @pytest.mark.parametrize(
        ("numbers", "right"),
        [
            ({"a": "2", "b": "3"}, True),
            ({"a": "-1", "b": "1/2"}, True),
            ({"a": "0", "b": "5"}, False),
            ({"a": "2"}, False),
            ({}, False),
            ({"a": "x", "b": "1"}, False),
        ],
    )
    def test_numbers_must_show_it(self, numbers, right):
        item = next(item for item in map(claim_item, range(200)) if item.claim == "(a + b)^2 = a^2 + b^2")
        assert is_claim_judged(item, False, numbers) is right


class TestWays:
    def test_the_shortest_way_is_best_and_others_lead_there(self):
        item = way_item(Working("solve", "x^2 - 6x = 16", ()))
        assert [is_way(item, method) for method in ("factoring", "quadratic-formula", "cross-multiply")] == [
            "best",
            "leads there",
            "no",
        ]

    def test_a_problem_with_one_way_has_nothing_to_choose(self):
        with pytest.raises(TaskError, match="Only one way"):
            way_item(Working("solve", "|x| = 3", ()))


class TestClaimsOfProblems:
    EXPRESSIONS = [
        ("simplify", "(x+3)^2 - 9"),
        ("simplify", "3/x + 2/(x+1)"),
        ("evaluate", "18 - 6 ÷ 3 × 2"),
        ("factor", "2x^2+14x+20"),
        ("simplify", "√50 + √8"),
        ("expand", "(2x - 5)^2"),
    ]

    @pytest.mark.parametrize(("task", "given"), EXPRESSIONS)
    def test_a_claim_is_judged_as_it_is(self, task, given):
        seen = set()
        for seed in range(8):
            item = claim_of(Working(task, given), seed)
            seen.add(item.true)
            left, _, right = item.claim.partition(" = ")
            assert left == given
            assert (check(Working(task, given, (right,))).links[0].relation == "holds") is item.true
            assert is_claim_judged(item, item.true, item.counter)
            assert not is_claim_judged(item, not item.true, item.counter)
            assert bool(item.slip) is not item.true
        assert seen == {True, False}

    def test_nothing_is_claimed_of_an_equation(self):
        with pytest.raises(TaskError):
            claim_of(Working("solve", "3x = 12"))
