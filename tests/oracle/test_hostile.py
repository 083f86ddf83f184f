"""Whatever comes in, every question ends with an answer or one of the documented errors, and the next is answered as
well."""

import pytest

from algebra import ReadingError, TaskError, Working, analysed, check, next_step, predict, work
from tests.oracle.hostile import Hostile
from tests.oracle.test_differential import LONG

QUESTIONS = {
    "check": check,
    "work": work,
    "predict": predict,
    "next": next_step,
    "analysed": lambda working: analysed(working.given),
}
HARD = [
    Working("solve", "2^(10000x) = 8", ("x = 1",)),
    Working("solve", "·".join(f"(x-{k})" for k in range(1, 20)) + " = 0", ("x = 1 or x = 2",)),
    Working("simplify", "√(a+b+c+d+e+f+g+h)", ("a+b",)),
    Working("simplify", "√(a+b+c+d)+√(a-b)+√(c-d)+√(a-c)", ("a+b",)),
    Working("solve", "x^4 = a^2", ("x = √a",), variable="x"),
    Working("simplify", "\\frac²3", ("2/3",)),
    Working("simplify", "x\ud800", ("x",)),
    Working("evaluate", "3^(408786555491955555026261135831)", ("3",)),
    Working("solve", " + ".join(f"√(x+{k})" for k in range(9)) + " = 26", ("x = 1",)),
    Working("solve", "2^(x + 5 - x) = 12", ("no solution",)),
    Working("expand", "-((9 - y)·(|y|·y))", ("||π/1| + (541 + x)| = x - y + y",)),
    Working("domain", "√(∛(x^99 - 4))", ("x - 328481671524348509476657184775 - x",), assume=("x > 0",)),
    Working("solve", "(x·3)/(658 - x) = 9x·x", ("x = 1",)),
    Working("factor", "(3^531·tπ/(|k| + 198))^40", ("t",)),
    Working("analyze", "5 ± x - |x|", ("x = 1",)),
    Working("analyze", "0/x", ("y = 0",)),
    Working("solve", "(y + (9))·((600)/(1)) = (a)/(x)", ("x = 2",), "x"),
    Working(
        "expand",
        "x·x·x·x·x·974·x·5·x·x·x·334·x",
        ("44,f#9", "12 - (10) + (11) - (x) + (x) + (1) - (x) + (0) + (x) + (x) + (157) + (x) = (1/2)^(x)"),
    ),
    Working("expand", "(2^((71.99698)^(-3)))·((7)·(y))", ("y",)),
    Working("evaluate", "5·7·((1/2)^(4))", ("35/16",), numbers="complex"),
    Working("expand", "-((0)/(√(8)))", ("0",)),
    Working("evaluate", "(∛(|(b)/(a) + (x)| - (√(2))))^(2)", ("(x)/(b) = 11",)),
    Working(
        "analyze",
        "(274648039998435842510567037739 - (31.22462))·((813375317136284493676154212955)/(x) + (x))",
        ("x = 1",),
    ),
    Working("evaluate", "(1)/(0) + (∛(8))", ("2",)),
    Working("domain", "(√(5))^(2) = -(9)", ("|921| = x", "2^(2)", "-(x)"), numbers="complex"),
    Working("factor", "6x + 3y - (x - 9 ± x) + 12", ("x",)),
    Working("evaluate", "x/(771 + x)^99·√x·|10^a|", ("x^a",), numbers="complex"),
    Working(
        "domain",
        "|(root(8, 6))/(x) + (|644757942555222205157475128930|) - (-(3))|",
        ("(x)/(4) = (9)·(763)·(x) + (x)",),
        numbers="complex",
        assume=("x > 0",),
    ),
    Working("solve", "(((x)·(11))·(768))·(4^(564)) = |1|", ("((x)·(x))^(1/2) = |506|",), "x"),
    Working("solve", "(x·0)·(33·x)·(x + 12 ± x - (10^x) - (88 - x)) = 0·x", ("x = 1",), "x", numbers="complex"),
    Working("simplify", "∛(3^(1 - 957·5))", ("y^0",)),
    Working("solve", "-((((x)·(y))·(√(x)))^(99)) = √(x)", ("□ + x = 3", "∛(π) - ((1/2)^(y)) = x"), "x"),
]


def answered(ask, working):
    try:
        return ask(working) is not None
    except (TaskError, ReadingError) as problem:
        return bool(str(problem))


@pytest.mark.parametrize("name", QUESTIONS)
@pytest.mark.parametrize("working", HARD, ids=lambda working: ascii(working.given))
def test_what_once_took_minutes_or_failed_is_answered(name, working):
    assert answered(QUESTIONS[name], working)


@pytest.mark.parametrize("seed", range(40 if LONG else 4))
def test_hostile_inputs_are_answered(seed):
    source = Hostile(seed)
    for k in range(30):
        working = source.working()
        assert answered(list(QUESTIONS.values())[k % len(QUESTIONS)], working), working
