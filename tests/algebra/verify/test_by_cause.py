"""Verdicts by what makes them hard, each with neighbours on either side: what holds, and what looks like it."""

import pytest

from algebra import Working, check

POWERS = [
    ("solve", "3^x + √7 = 0", ("no solution",), "holds", {}),
    ("solve", "5^x = √3", ("5^x = -√3",), "breaks", {}),
    ("solve", "2^x = 5 - √3", ("2^x = 5 + √3",), "breaks", {}),
    ("solve", "2^x = 5 - √3", ("2^x + √3 = 5",), "holds", {}),
    ("solve", "√(3^x + 2) = -1", ("no solution",), "holds", {}),
    ("solve", "√(3^x - 2) = 5", ("3^x - 2 = 25", "3^x = 27", "x = 3"), "holds holds holds", {}),
    ("solve", "√(2^x) = 2^x - 2", ("x = 2",), "holds", {}),
    ("solve", "√(2^x) = 2^x - 2", ("2^x = (2^x - 2)^2",), "widens", {}),
    ("solve", "|3^x - 5| = 4", ("x = 2 or x = 0",), "holds", {}),
    ("solve", "|3^x - 5| = 4", ("3^x - 5 = 4",), "narrows", {}),
    ("solve", "|3^x - 5| = 4", ("3^x - 5 = 4 or 3^x - 5 = -4",), "holds", {}),
    ("solve", "3^|x| = 27", ("x = 3",), "narrows", {}),
    ("solve", "3^|x| = 27", ("|x| = 3", "x = 3 or x = -3"), "holds holds", {}),
    ("solve", "2^|x - 1| = 8", ("x = 4 or x = -2",), "holds", {}),
    ("solve", "5^x·(x^2 + 4) = 0", ("x^2 + 4 = 0",), "holds", {}),
    ("solve", "5^x·(x^2 - 4) = 0", ("x^2 - 4 = 0", "x = 2 or x = -2"), "holds holds", {}),
    ("solve", "x·3^x - 2·3^x = 0", ("3^x(x - 2) = 0", "x - 2 = 0", "x = 2"), "holds holds holds", {}),
    ("domain", "1/(3^x - 9)", ("x ≠ 2",), "holds", {}),
    ("domain", "1/(3^x - 9)", ("x ≠ 3",), "breaks", {}),
    ("domain", "1/(4^x - 5·2^x + 4)", ("x ≠ 0, 2",), "holds", {}),
    ("domain", "1/(2^x + 1)", ("all real numbers",), "holds", {}),
    ("solve", "7^x = 3·2^x", ("(7/2)^x = 3",), "holds", {}),
    ("solve", "7^x = 3·2^x", ("(2/7)^x = 1/3",), "holds", {}),
    ("solve", "7^x = 3·2^x", ("(2/7)^x = 3",), "breaks", {}),
    ("solve", "4^x = 5", ("2^x = √5",), "holds", {}),
    ("solve", "4^x = 5", ("2^x = ±√5",), "holds", {}),
    ("solve", "(2^x - 8)/(2^x - 8) = 1", ("all real numbers",), "breaks", {}),
    ("solve", "2^x = √2 - 2", ("no solution",), "holds", {}),
]
"""Powers with the unknown above."""
CHECKS = [
    ("solve", "x^2 = 3 + √5", ("check x = √(3+√5)",), "holds", {}),
    ("solve", "x^2 = 3 + √5", ("check x = √(3-√5)",), "breaks", {}),
    ("solve", "x^4 - 10x^2 + 1 = 0", ("check x = √2 + √3",), "holds", {}),
    ("solve", "x^4 - 10x^2 + 1 = 0", ("check x = √2 + √3: 49+20√6-10(5+2√6)+1 = 0",), "holds", {}),
    ("solve", "x^2 = 2 + √3", ("check x = (√6+√2)/2: 2+√3 = 2+√3",), "holds", {}),
    ("solve", "x = √(7 + 4√3)", ("x = 2 + √3",), "holds", {}),
]
"""Checks with nested roots."""
CHAINS = [
    ("solve", "x^2 = 16", ("x = ±√16 = ±4",), "holds", {}),
    ("solve", "x^2 = 16", ("x = ±√16 = 4",), "breaks", {}),
    ("solve", "(x-1)^2 = 9", ("x = 1 ± √9 = 1 ± 3",), "holds", {}),
    ("solve", "2x = 14", ("x = 14/2 = 7",), "holds", {}),
    ("solve", "2x = 14", ("x = 14/2 = 8",), "breaks", {}),
    ("evaluate", "3 + 4·2", ("14", "14 = 11", "11"), "breaks breaks holds", {}),
    ("evaluate", "3 + 4·2", ("14", "11 = 11"), "breaks holds", {}),
]
"""Chains of equalities."""
HALF_POWERS = [
    ("simplify", "√(2 - x)", ("(2 - x)^(1/2)",), "holds", {}),
    ("simplify", "(4 - x)^(3/2)", ("(4 - x)√(4 - x)",), "holds", {}),
    ("solve", "(5 - x)^(1/2) = 2", ("5 - x = 4", "x = 1"), "holds holds", {}),
    ("simplify", "√(-x)·√(-x)", ("-x",), "holds", {}),
    ("simplify", "√(-x)·√(-x)", ("x",), "breaks", {}),
    ("simplify", "root(6, (-x)^3)", ("√(-x)",), "holds", {}),
    ("solve", "(16 - x^2)^(1/2) = 5", ("no solution",), "holds", {}),
]
"""Half powers of what has a minus in front."""
BARS = [
    ("domain", "1/(|x| - 3)", ("x ≠ 3, -3",), "holds", {}),
    ("domain", "1/(|x - 1| - 2)", ("x ≠ 3 and x ≠ -1",), "holds", {}),
    ("domain", "1/(|x| + 3)", ("all real numbers",), "holds", {}),
    ("domain", "1/(√(x^2) - 5)", ("x ≠ ±5",), "holds", {}),
    ("simplify", "(x^2 - 4)/(|x| - 2)", ("|x| + 2",), "holds", {}),
    ("domain", "1/(|x| + x)", ("x > 0",), "holds", {}),
    ("simplify", "1/(|x| + x)", ("1/(2x)",), "holds", {}),
    ("analyze", "|x - 3|", ("range: y ≥ 0",), "holds", {}),
    ("analyze", "|x - 3|", ("range: y ≥ 3",), "breaks", {}),
    ("analyze", "(x - 2)/|x - 2|", ("hole: (2, 1)",), "breaks", {}),
    ("analyze", "1/|x|", ("range: y > 0",), "holds", {}),
]
"""Bars below a line and in features."""
ASSUMED = [
    ("simplify", "√((x - 3)^2)", ("x - 3",), "breaks", {"assume": ("x > 0",)}),
    ("simplify", "√((x - 3)^2)", ("x - 3",), "holds", {"assume": ("x > 3",)}),
    ("simplify", "√((x - 3)^2)", ("3 - x",), "holds", {"assume": ("x < 3",)}),
    ("simplify", "√((x - 3)^2)", ("x - 3",), "holds", {"assume": ("x ≥ 3",)}),
    ("simplify", "√(x^2 y^2)", ("xy",), "holds", {"assume": ("x, y ≥ 0",)}),
    ("simplify", "√(x^2 y^2)", ("-xy",), "holds", {"assume": ("x > 0 and y < 0",)}),
    (
        "simplify",
        "√(x^2 y^2)",
        ("-xy",),
        "holds",
        {
            "assume": (
                "x > 0",
                "y < 0",
            )
        },
    ),
    ("simplify", "|a - b|", ("a - b",), "holds", {"assume": ("a > b",)}),
    ("simplify", "|a - b|", ("b - a",), "breaks", {"assume": ("a > b",)}),
    ("simplify", "√(x^2)", ("x",), "holds", {"assume": ("0 < x < 5",)}),
    ("simplify", "√(9 - x)", ("√(9 - x)",), "holds", {"assume": ("x ≥ 0",)}),
    ("simplify", "|x + 1|", ("x + 1",), "holds", {"assume": ("x > 0",)}),
    ("simplify", "√(x^2 + 2x + 1)", ("x + 1",), "holds", {"assume": ("x > -1",)}),
    ("simplify", "√(4x^2)", ("2x",), "holds", {"conventions": {"roots_of_letters": "non-negative"}}),
    ("simplify", "√((2x - 1)^2)", ("2x - 1",), "breaks", {"conventions": {"roots_of_letters": "non-negative"}}),
    ("solve", "x^2 = 25", ("x = 5",), "settles", {"assume": ("x > 0",)}),
]
"""Assumptions."""
SEVERAL_LETTERS = [
    ("simplify", "√(x^2 - 3)·(|x - √3| + |y|)", ("√(x^2 - 3)·(x - √3 + |y|)",), "breaks", {}),
    ("simplify", "√(a^2)·|b|", ("|ab|",), "holds", {}),
    ("simplify", "|x|·|y|", ("xy",), "breaks", {}),
    ("simplify", "|a^2 + ab + b^2|", ("a^2 + ab + b^2",), "holds", {}),
    ("simplify", "|a^2 - 2ab + b^2|", ("(a - b)^2",), "holds", {}),
    ("simplify", "√((a^2 + b^2)^2)", ("a^2 + b^2",), "holds", {}),
]
"""Several letters."""
PARAMETERS = [
    ("solve", "A = πr^2", ("r = ±√(A/π)",), "holds", {"variable": "r"}),
    ("solve", "y = (x - 2)^3", ("x = ∛y + 2",), "holds", {"variable": "x"}),
    ("solve", "y = 2x^3 - 5", ("x = ∛((y+5)/2)",), "holds", {"variable": "x"}),
    ("solve", "x^2 + b^2 + 4 = 0", ("no solution",), "holds", {"variable": "x"}),
    ("solve", "x^2 - 2ax + a^2 + 9 = 0", ("no solution",), "holds", {"variable": "x"}),
    ("solve", "x^3 = 8a^3", ("x = 2a",), "holds", {"variable": "x"}),
    ("solve", "x^2 = -a^2", ("no solution",), "holds", {"variable": "x", "assume": ("a ≠ 0",)}),
    ("solve", "x√(x - b) = 3x", ("√(x - b) = 3",), "narrows", {"variable": "x"}),
    ("solve", "x√b = 2x", ("x = 0",), "holds", {"variable": "x"}),
    ("solve", "x^2 = b", ("x^4 = b^2",), "holds", {"variable": "x"}),
]
"""Parameters."""
PLUS_MINUS = [
    ("solve", "x^2 = 25", ("let m = ±5", "x = m"), "holds holds", {}),
    ("simplify", "1/(a^2 - 4b^2)", ("a ≠ ±2b",), "holds", {}),
    ("analyze", "x/(x^2 - 9)", ("vertical asymptotes: x = ±3",), "holds", {}),
    ("analyze", "x/(x^2 - 9)", ("vertical asymptotes: x = ±9",), "breaks", {}),
    ("analyze", "x^2 - 4", ("x-intercepts: ±2",), "holds", {}),
    ("domain", "1/(x^2 - 16)", ("x ≠ ±4",), "holds", {}),
]
"""Plus or minus in definitions, exclusions and features."""
ROUNDINGS = [
    ("solve", "3^x = 7", ("x ≈ 1.77",), "holds", {}),
    ("solve", "3^x = 7", ("x ≈ 1.78",), "breaks", {}),
    ("solve", "x^3 = 10", ("x ≈ 2.154",), "holds", {}),
    ("solve", "16x = 1", ("x ≈ 0.06",), "holds", {}),
    ("solve", "16x = 1", ("x ≈ 0.063",), "holds", {}),
    ("solve", "16x = 1", ("x ≈ 0.07",), "breaks", {}),
]
"""Roundings."""
ASIDES = [
    ("solve", "3x = 6", ("aside: 4 < 3",), "breaks", {}),
    ("solve", "3x = 6", ("aside: 3·4 ≠ 12",), "breaks", {}),
    ("solve", "3x = 6", ("aside: √2 ≈ 1.41",), "holds", {}),
    ("solve", "3x = 6", ("aside: √2 ≈ 1.42",), "breaks", {}),
    ("solve", "3x = 6", ("aside: 0/0",), "breaks", {}),
    ("solve", "3x = 6", ("aside: 2^x + 1 > 0",), "holds", {}),
    ("solve", "|x - 2| = x - 2", ("(-∞, 2]",), "breaks", {}),
    ("solve", "|x - 2| = x - 2", ("[2, -∞)",), "breaks", {}),
    ("solve", "|x - 2| = x - 2", ("[2, ∞)",), "holds", {}),
    ("domain", "√(5 - x)", ("(∞, 5]",), "breaks", {}),
    ("domain", "√(5 - x)", ("(-∞, 5]",), "holds", {}),
    ("domain", "1/(2x - 6)", ("2x - 6 ≠ 0",), "holds", {}),
]
"""Asides that are no equations, and ends of intervals."""
LARGE = [
    ("simplify", "|x - 123456789012345678901|", ("123456789012345678901 - x",), "breaks", {}),
    ("domain", "√(x + 123456789012345678901)", ("x ≥ -123456789012345678901",), "holds", {}),
    ("evaluate", "√(10^40)", ("10^20",), "holds", {}),
]
"""Large numbers."""
RAISED = [
    ("solve", "√(2x + 3) + x = 6", ("2x + 3 = (6 - x)^2",), "widens", {}),
    ("solve", "√(2x + 3) + x = 6", ("2x + 3 = (x - 6)^2",), "widens", {}),
    ("solve", "2√x - 1 = x - 4", ("4x = (x - 3)^2",), "widens", {}),
    ("solve", "√x + √(x + 5) = 5", ("x + 5 = (5 - √x)^2",), "holds", {}),
    ("solve", "√(x + 5) + 1 = x", ("x + 5 = x^2 - 1",), "breaks", {}),
    ("solve", "x = -3", ("x^8 = 6561 | ^8",), "widens", {}),
    ("solve", "x = 2", ("x^10 = 1024 | ^10",), "widens", {}),
    ("solve", "x^6 = 64", ("x = 2",), "narrows", {}),
    ("solve", "x^6 = 64", ("x = ±2",), "holds", {}),
    ("solve", "x^8 = 1", ("x = ±1",), "holds", {}),
    ("solve", "3/(x^2 + 2) = 5/(x^2 + 2)", ("3(x^2 + 2) = 5(x^2 + 2)",), "holds", {}),
    ("solve", "3/(x^2 + 2) = 5/(x^2 + 2)", ("3 = 5",), "holds", {}),
]
"""Roots set apart and squared, higher powers."""
LETTERS_ABOVE = [
    ("simplify", "(x^2)^(m/2)", ("x^m",), "breaks", {}),
    ("simplify", "√(a^(2n))", ("a^n",), "breaks", {}),
    ("simplify", "√(a^(2n))", ("a^n",), "holds", {"assume": ("a > 0",)}),
    ("simplify", "(x^2)^n", ("x^(2n)",), "holds", {}),
    ("simplify", "(9^n)^(1/2)", ("3^n",), "holds", {}),
]
"""Letters above over bases of any sign."""
POINTS = [
    ("analyze", "x/(x^2 + 1)", ("point: (√3, √3/4)",), "holds", {}),
    ("analyze", "x/(x^2 + 1)", ("point: (√3, √3/2)",), "breaks", {}),
    ("analyze", "x^2", ("point: (√2, 2)",), "holds", {}),
]
"""Points of a graph."""
STAYS_REAL = [
    ("solve", "√(x^2 + 10) = 3", ("no solution",), "holds", {"numbers": "complex"}),
    ("solve", "|x| = -2", ("no solution",), "holds", {"numbers": "complex"}),
    ("solve", "2^x = -4", ("no solution",), "holds", {"numbers": "complex"}),
    ("solve", "x^2 + 10 = 1", ("x = ±3i",), "holds", {"numbers": "complex"}),
]
"""Complex numbers where the unknown stays real."""
PI = [
    ("simplify", "|3 - π|", ("π - 3",), "holds", {}),
    ("simplify", "√((π - 4)^2)", ("4 - π",), "holds", {}),
    ("simplify", "|π - 4|", ("π - 4",), "breaks", {}),
    ("evaluate", "2π + 3π", ("6π",), "breaks", {}),
    ("evaluate", "2π + 3π", ("5π",), "holds", {}),
]
"""The number π."""


@pytest.mark.parametrize(
    ("task", "given", "lines", "relations", "more"),
    [
        *POWERS,
        *CHECKS,
        *CHAINS,
        *HALF_POWERS,
        *BARS,
        *ASSUMED,
        *SEVERAL_LETTERS,
        *PARAMETERS,
        *PLUS_MINUS,
        *ROUNDINGS,
        *ASIDES,
        *LARGE,
        *RAISED,
        *LETTERS_ABOVE,
        *POINTS,
        *STAYS_REAL,
        *PI,
    ],
)
def test_the_relation_of_every_line(task, given, lines, relations, more):
    report = check(Working(task, given, lines, **more))
    assert " ".join(link.relation or "unread" for link in report.links) == relations
