"""Lines that hold by accident carry the note `lucky` and the slip; right lines that look like them carry neither."""

import pytest

from algebra import Working, check

LUCKY = [
    ("solve", "x/3 + x/5 = 0", "2x/8 = 0", "added-across"),
    ("solve", "0 = x/2 + x/7", "0 = 2x/9", "added-across"),
    ("evaluate", "8 ÷ 2 × 1", "8 ÷ 2", "multiply-before-divide"),
    ("evaluate", "6 - 3·1", "3·1", "left-to-right"),
    ("evaluate", "12 ÷ 4 × 1 + 5", "12 ÷ 4 + 5", "multiply-before-divide"),
    ("evaluate", "2·(6 - 3·1) + 4", "2·(3·1) + 4", "left-to-right"),
    ("evaluate", "7 + (9 - (6 - 3·1))", "7 + (9 - (3·1))", "left-to-right"),
    ("evaluate", "5(8 ÷ 2 × 1)^2", "5(8 ÷ 2)^2", "multiply-before-divide"),
]
RIGHT = [
    ("solve", "x/3 + x/5 = 0", "8x/15 = 0"),
    ("solve", "x/3 + x/5 = 0", "8x = 0"),
    ("solve", "x/3 + x/5 = 0", "x = 0"),
    ("solve", "2(x + 3) = 0", "x + 3 = 0"),
    ("solve", "6x - 12 = 0", "x - 2 = 0"),
    ("solve", "2x + 4 = 10", "2x = 6"),
    ("solve", "2x^2 + 13x + 2 = 0", "x^2 + 13x/2 + 1 = 0"),
    ("solve", "(2x + 3)^3 = -1", "2x + 3 = -1"),
    ("solve", "(x - 2)^4 = 0", "x - 2 = 0"),
    ("evaluate", "8 ÷ 2 × 1", "4 × 1"),
    ("evaluate", "6 - 3·1", "6 - 3"),
    ("evaluate", "2·3·4", "2·12"),
    ("evaluate", "5 + 4·0", "5 + 0"),
    ("simplify", "x/3 + x/5", "8x/15"),
]


@pytest.mark.parametrize(("task", "given", "line", "slip"), LUCKY)
def test_an_accident_is_said(task, given, line, slip):
    link = check(Working(task, given, (line,))).links[0]
    assert link.relation == "holds"
    assert "lucky" in link.notes
    assert link.slip is not None
    assert link.slip.id == slip
    assert link.move is None


@pytest.mark.parametrize(("task", "given", "line"), RIGHT)
def test_a_right_line_is_no_accident(task, given, line):
    link = check(Working(task, given, (line,))).links[0]
    assert link.relation == "holds"
    assert "lucky" not in link.notes
    assert link.slip is None
