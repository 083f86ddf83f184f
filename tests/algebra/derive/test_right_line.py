"""The right line beside a wrong one: the same move done right, of the shape of the line written, or none."""

import pytest

from algebra import Working, check

SAME_MOVE = [
    ("solve", "(x+2)^2 = 0", "x^2 + 4 = 0", "x^2 + 4x + 4 = 0"),
    ("solve", "x^2 = 49", "x = 7", "x = ±7"),
    ("solve", "(x-3)^2 = 25", "x - 3 = 5", "x - 3 = ±5"),
    ("solve", "4x^2 = 36", "2x = 6", "2x = ±6"),
    ("solve", "x^2+8x = 5", "x^2+8x+16 = 5", "x^2 + 8x + 16 = 5 + 16"),
    ("solve", "3^(-x) = 3^4", "x = 4", "x = -4"),
    ("solve", "4 - (x - 3) = 2", "4 - x - 3 = 2", "4 - x + 3 = 2"),
    ("solve", "x/2 - 1 = x/3", "3x - 1 = 2x", "3x - 6 = 2x"),
    ("solve", "2√x = 8", "4x = 8", "4x = 64"),
    ("solve", "5x - 3 = 2x + 9", "3x = 6", "3x = 12"),
    ("solve", "x^2-6x+4 = 0", "x = (-6 ± √20)/2", "x = (6±√20)/2"),
    ("solve", "2x^2+5x+1 = 0", "x = (-5 ± √17)/2", "x = (-5±√17)/4"),
    ("solve", "(3x-5)(x+1) = 0", "x = 5 or x = -1", "x = 5/3 or x = -1"),
    ("solve", "√x + 2 = √(x+12)", "x + 4 = x + 12", "x + 4 + 4√x = x + 12"),
    ("simplify", "(x+7)^2 - 5", "x^2 + 49 - 5", "x^2 + 14x + 49 - 5"),
    ("simplify", "(5x-1)/(x+2) - (2x-7)/(x+2)", "(5x-1-2x-7)/(x+2)", "(5x-1-2x+7)/(x+2)"),
    ("simplify", "3^-2 + 1", "-9 + 1", "1/9 + 1"),
    ("simplify", "2(3x-4) + 5", "6x - 4 + 5", "6x - 8 + 5"),
    ("simplify", "3x/(x(x-3))", "3/x - 3", "3/(x-3)"),
    ("evaluate", "6·9 + 1", "56 + 1", "54 + 1"),
    ("solve", "3(x+2) = 5(x-4)", "3x + 2 = 5x - 4", "3x + 6 = 5x - 20"),
    ("simplify", "√28", "2√14", "2√7"),
    ("simplify", "2/(1+√3)", "(2(1+√3))/(1+3)", "(2(1-√3))/(1-3)"),
    ("evaluate", "8 + 12 ÷ 4 - 1", "20 ÷ 4 - 1", "8 + 3 - 1"),
    ("factor", "x^3-27", "(x-3)(x^2-3x+9)", "(x-3)(x^2+3x+9)"),
]
NONE = [
    ("simplify", "√(x^2+36)", "x + 6"),
    ("factor", "x^2+25", "(x+5)(x-5)"),
    ("simplify", "6x + 2", "8x"),
    ("simplify", "(x+5)/(x+2)", "5/2"),
    ("solve", "2x + 5 = 11", "2x + 3 = 11"),
]


def slip(task, given, line):
    found = check(Working(task, given, (line,))).links[0].slip
    assert found is not None
    return found


@pytest.mark.parametrize(("task", "given", "line", "instead"), SAME_MOVE)
def test_the_same_move_done_right(task, given, line, instead):
    offered = slip(task, given, line).instead
    assert offered.partition("   | ")[0] == instead
    assert check(Working(task, given, (offered,))).links[0].relation == "holds"


@pytest.mark.parametrize(("task", "given", "line"), NONE)
def test_where_nothing_near_is_right_no_line_is_offered(task, given, line):
    assert slip(task, given, line).instead == ""


@pytest.mark.parametrize(
    ("task", "given", "lines", "instead"),
    [
        ("factor", "12x^3 - 27x", ("3x(4x^2 - 9)", "3x(2x-3)^2"), "3x(2x+3)(2x-3)"),
        ("factor", "5x^3 - 80x", ("5x(x^2 - 16)", "5x(x-4)^2"), "5x(x^2-4^2)"),
    ],
)
def test_a_line_that_stands_in_the_chain_already_is_no_right_line(task, given, lines, instead):
    found = check(Working(task, given, lines)).links[-1].slip
    assert found is not None
    assert found.instead == instead
