"""Keys as teachers paste them: which kind of numbers, which task."""

import pytest

from algebra.formats.pasted_key import read_key


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("1. Simplify (3+2i)/(2-i)\n(4+7i)/5", [("simplify", "(3+2i)/(2-i)", "complex")]),
        ("1. Solve x^2 = -9\nx = 3i or x = -3i", [("solve", "x^2 = -9", "complex")]),
        ("1. Solve 2x = 8\nx = 4", [("solve", "2x = 8", "real")]),
        ("1. Simplify xi + x", [("simplify", "xi + x", "real")]),
        (
            "1. Solve 2x = 8\nx = 4\nb. 1/2 + 1/3 = 2/5",
            [("solve", "2x = 8", "real"), ("evaluate", "1/2 + 1/3", "real")],
        ),
    ],
)
def test_an_i_counts_as_complex_and_an_expression_is_not_to_be_solved(text, told):
    found = [problem.working for problem in read_key(text, "point").problems]
    assert [(working.task, working.given, working.numbers) for working in found] == told
