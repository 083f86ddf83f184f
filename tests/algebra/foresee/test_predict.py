"""Wrong answers to expect: each comes from a slip, is wrong, and is refuted; options made of them are fair."""

from fractions import Fraction

import pytest

from algebra import OPTION_ORDERS, SLIPS, TaskError, Working, check, options, predict
from algebra.foresee.options import ascending

PROBLEMS = [
    ("solve", "3(x - 2) + 4 = 5x - 8"),
    ("solve", "x^2 = 9x"),
    ("solve", "√(x+6) = x"),
    ("solve", "x^2 - 5x + 6 = 0"),
    ("simplify", "(x^2-9)/(x^2+x-6)"),
    ("simplify", "√50 + √8"),
    ("expand", "(x+7)^2"),
    ("factor", "x^2 - 81"),
    ("evaluate", "-3^2 + 2·4"),
    ("domain", "(x-1)/((x-1)(x+3))"),
]
KNOWN = {slip.id for slip in SLIPS}


@pytest.mark.parametrize(("task", "given"), PROBLEMS)
class TestEveryProblem:
    def test_the_right_answer_is_right(self, task, given):
        found = predict(Working(task, given))
        assert found.answer
        assert found.answer == predict(Working(task, given)).answer

    def test_each_wrong_answer_is_wrong_and_comes_from_known_slips(self, task, given):
        found = predict(Working(task, given))
        assert found.wrong
        answers = [item.answer for item in found.wrong]
        assert len(answers) == len(set(map(tuple, answers)))
        for item in found.wrong:
            assert set(item.slips) <= KNOWN
            assert item.slips
            report = check(Working(task, given, tuple(item.lines)))
            assert report.answer.verdict != "correct", item.lines

    def test_its_working_holds_up_to_the_line_where_it_parts(self, task, given):
        for item in predict(Working(task, given)).wrong:
            report = check(Working(task, given, tuple(item.lines)))
            chain = [link for link in report.links if link.kind not in ("check", "aside", "exclusion")]
            assert 1 <= item.at_line <= len(item.lines)
            early = [link for link in chain if link.line < item.at_line]
            assert all(link.relation in ("holds", "widens", "settles") for link in early), item.lines

    def test_the_likeliest_come_first(self, task, given):
        weights = [item.weight for item in predict(Working(task, given)).wrong]
        assert weights == sorted(weights, reverse=True)

    def test_no_more_than_asked_for(self, task, given):
        assert len(predict(Working(task, given), most=2).wrong) <= 2

    def test_what_is_unfinished_is_right_and_not_finished(self, task, given):
        for item in predict(Working(task, given)).unfinished:
            report = check(Working(task, given, (item.answer,)))
            assert report.links[0].relation == "holds"
            assert item.missing in {left.code for left in report.finish.remaining}

    @pytest.mark.parametrize("order", OPTION_ORDERS)
    def test_options_hold_the_right_answer_once_and_each_wrong_one_has_its_reason(self, task, given, order):
        found = options(Working(task, given), order=order, seed=4)
        assert sum(option.right for option in found) == 1
        assert len({option.answer for option in found}) == len(found) >= 2
        for option in found:
            assert bool(option.reason) != option.right
            assert bool(option.slips) != option.right
            assert option.answer_latex

    def test_the_same_seed_gives_the_same_order(self, task, given):
        first = options(Working(task, given), order="shuffled", seed=9)
        assert first == options(Working(task, given), order="shuffled", seed=9)


def test_another_seed_gives_another_order():
    working = Working("solve", "3(x - 2) + 4 = 5x - 8")
    orders = {tuple(o.answer for o in options(working, order="shuffled", seed=seed)) for seed in range(8)}
    assert len(orders) > 2


def test_the_trap_comes_first_and_ascending_ascends():
    working = Working("solve", "3(x - 2) + 4 = 5x - 8")
    assert not options(working, order="trap-first")[0].right
    numbers = [Fraction(option.answer) for option in options(working, order="ascending")]
    assert numbers == sorted(numbers)
    assert len(numbers) == 4


@pytest.mark.parametrize(
    ("answers", "order"),
    [
        ([["3"], ["5"], ["-1"], ["3/2"]], [2, 3, 0, 1]),
        ([["√2"], ["3/2"], ["7/5"], ["1.42"]], [2, 0, 3, 1]),
        ([["2", "-2"], ["-2"], ["-3", "9"], []], [3, 2, 1, 0]),
        ([["x + 1"], ["2"], ["x"], ["-2"]], [3, 1, 2, 0]),
        ([["1 + √2"], ["√(3 + 2√2) + 1"]], [0, 1]),
        ([["2√2"], ["√8"], ["1"]], [2, 0, 1]),
        ([["x ≠ 3"], ["4"]], [1, 0]),
    ],
)
def test_answers_are_put_in_order_by_their_exact_values(answers, order):
    assert ascending(answers) == order


@pytest.mark.parametrize(
    ("task", "given"), [("solve", "x^5 - x - 1 = 0"), ("guess", "x"), ("solve", "x + 1"), ("analyze", "√x")]
)
def test_what_can_not_be_worked_is_refused_in_words(task, given):
    with pytest.raises(TaskError) as refused:
        predict(Working(task, given))
    assert refused.value.message.endswith(".")


def test_the_known_traps_are_foreseen():
    """The classics that a teacher would name at once."""
    for task, given, answer, name in [
        ("expand", "(x+7)^2", ["x^2 + 49"], "power-over-sum"),
        ("solve", "x^2 = 9x", ["9"], "variable-divided-out"),
        ("solve", "√(x+6) = x", ["3", "-2"], "extraneous-kept"),
        ("domain", "(x-1)/((x-1)(x+3))", ["x ≠ -3"], "excluded-from-reduced"),
        ("evaluate", "-3^2 + 2·4", ["17"], "minus-inside-power"),
    ]:
        found = [(list(item.answer), item.slips) for item in predict(Working(task, given)).wrong]
        assert (answer, (name,)) in found or (answer, [name]) in found, (given, found)
