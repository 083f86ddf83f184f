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


@pytest.mark.parametrize(
    ("text", "task", "given", "lines"),
    [
        ("1. y = 2/(x-3)\nvertical asymptote: x = 3", "analyze", "2/(x-3)", ("vertical asymptote: x = 3",)),
        ("Graph y = 2/(x-3)\nvertical asymptote: x = 3", "analyze", "2/(x-3)", ("vertical asymptote: x = 3",)),
        ("1. Simplify y = x/x^2\n1/x", "simplify", "x/x^2", ("1/x",)),
        ("1. Evaluate y = 2^3\n8", "evaluate", "2^3", ("8",)),
        ("1. Simplify x = x^2/x\nx", "simplify", "x", ("x^2/x", "x")),  # a chain, in which x is no name
        ("1. Simplify 2x + 3x = 5x", "simplify", "2x + 3x", ("5x",)),
        ("1. Solve y = 2x\nx = y/2", "solve", "y = 2x", ("x = y/2",)),
        ("1. x^2 + 9 prime", "factor", "x^2 + 9", ("prime",)),
        ("1. x^2 + 9\nnot factorable", "factor", "x^2 + 9", ("not factorable",)),
        ("1. Simplify x^2 + 9\nprime", "simplify", "x^2 + 9", ("prime",)),  # as it is asked for
    ],
)
def test_a_name_of_a_function_is_not_given_and_what_is_prime_was_to_be_factored(text, task, given, lines):
    (found,) = (problem.working for problem in read_key(text, "point").problems)
    assert (found.task, found.given, found.lines) == (task, given, lines)
