"""True or not: a claim is judged as it is, and shown false by numbers for which its sides differ."""

import pytest

from algebra import (
    FALSE_CLAIMS,
    LAWS,
    SLIPS,
    ClaimItem,
    TaskError,
    Working,
    check,
    claim_item,
    claim_letters,
    is_claim_judged,
    item_of,
    judge,
)
from tests.algebra.items.answered import marks

FALSE = ClaimItem("(a + b)^2 = a^2 + b^2", False, {"a": "1", "b": "1"}, "power-over-sum")
TRUE = ClaimItem("(ab)^3 = a^3b^3", True, {}, "")


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
            item = item_of("claim", Working(task, given), seed)
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
            item_of("claim", Working("solve", "3x = 12"))


class TestAnswers:
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

    @pytest.mark.parametrize(
        "said",
        ["true", "True!", "always true", "It is true.", "it's true", "correct", "yes", "T", "true for all numbers"],
    )
    def test_true_in_other_words(self, said):
        assert marks(TRUE, said)[1] == "correct"

    @pytest.mark.parametrize(
        "said",
        [
            "not true",
            "False.",
            "no",
            "not always true",
            "sometimes true",
            "It is not true",
            "it isn't true",
            "nope",
            "wrong",
            "never true",
        ],
    )
    def test_not_true_in_other_words(self, said):
        assert marks(FALSE, said, "a = b = 1")[1] == "correct"

    @pytest.mark.parametrize("said", ["perhaps", "true or false", "", "a = 1", "truely"])
    def test_what_says_neither_is_said(self, said):
        assert judge(TRUE, (said,)).links[0].error is not None

    @pytest.mark.parametrize(
        ("numbers", "mark"),
        [
            ("a = b = 1", 2),
            ("a=1 b=2", 2),
            ("a = 1, b = 1", 2),
            ("for a = 1 and b = 2", 2),
            ("e.g. a = -1; b = 1/2", 2),
            ("let a = 2, b = 3.", 2),
            ("a = b = 0", 1),
            ("a = b", 1),
            ("a = = 1", 1),
            ("ab = 1", 1),
        ],
    )
    def test_numbers_as_they_are_written(self, numbers, mark):
        assert marks(FALSE, "false", numbers)[2] == mark
