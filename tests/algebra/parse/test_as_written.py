"""Lines as teachers write them, and how each is judged: the notation beyond the textbook's."""

import pytest

from algebra import Working, check, echo

ANSWERS = [
    ("solve", "x^2 - x - 6 = 0", ("x = 3, x = -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3 and x = -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3 & x = -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3; x = -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3   x = -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3 x = -2",), "holds", {}),
    (
        "solve",
        "x^2 - x - 6 = 0",
        ("(x-3)(x+2) = 0", "x - 3 = 0   x + 2 = 0", "x = 3   x = -2"),
        "holds holds holds",
        {},
    ),
    ("solve", "x^2 - x - 6 = 0", ("x - 3 = 0, x + 2 = 0",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x - 3 = 0 and x + 2 = 0",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("3 or -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("3, -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("{3, -2}",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x ∈ {3, -2}",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = {3, -2}",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3 or -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x = 3 and -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x_1 = 3, x_2 = -2",), "holds", {}),
    ("solve", "x^2 - x - 6 = 0", ("x₁ = 3, x₂ = -2",), "holds", {}),
    ("solve", "2x = 10", ("x = 1   x = 5",), "breaks", {}),
    ("solve", "2x = 10", ("x = 5",), "holds", {}),
    ("solve", "x^2 = 9", ("x = 3 or x = -3",), "holds", {}),
    ("solve", "x^2 = 9", ("x = ±3, so x = 3 or x = -3",), "holds", {}),
    ("solve", "x^3 - 14x^2 + 59x - 70 = 0", ("x = 2 or x = 5 or x = 7",), "holds", {}),
    ("solve", "x^3 - 14x^2 + 59x - 70 = 0", ("x = 2, x = 5 and x = 7",), "holds", {}),
    ("solve", "x^3 - 14x^2 + 59x - 70 = 0", ("x=2,5,7",), "holds", {}),
    ("solve", "x^3 - 14x^2 + 59x - 70 = 0", ("x = 2, 5 and 7",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x = 3 \\text{ or } x = -2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x=3 \\quad x=-2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x = 3,\\; x = -2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x \\in \\{3,-2\\}",), "holds", {}),
    ("solve", "x^2-x-6=0", ("\\boxed{x=3\\text{ or }x=-2}",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x_{1,2} = (1 ± 5)/2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x₁ = 3   x₂ = -2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("Therefore, x = 3 or x = -2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("∴ x = 3 or x = -2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("Answer: x = 3 or x = -2",), "holds", {}),
    ("solve", "x^2-x-6=0", ("S = {3, -2}",), "holds", {}),
    ("solve", "x^2-x-6=0", ("x = 3 ∨ x = -2",), "holds", {}),
    ("solve", "x^2+1=0", ("no real solutions",), "holds", {}),
    ("solve", "x^2+1=0", ("no real roots",), "holds", {}),
    ("solve", "x^2+1=0", ("No real solution.",), "holds", {}),
    ("solve", "x^2+1=0", ("{}",), "holds", {}),
    ("solve", "x^2+1=0", ("∅",), "holds", {}),
    ("solve", "x^2+1=0", ("DNE",), "holds", {}),
]
"""Several values: joined, listed, side by side, named by subscripts."""
EXCLUSIONS = [
    ("simplify", "(x^2-4x)/(x^2-16)", ("x(x-4)/((x-4)(x+4))", "x/(x+4), x ≠ ±4"), "holds holds", {}),
    ("simplify", "(x^2-4x)/(x^2-16)", ("x/(x+4), x ≠ 4",), "holds", {}),
    ("simplify", "(x^2-4x)/(x^2-16)", ("x/(x+4), x ≠ 5",), "breaks", {}),
    ("simplify", "(x^2-4x)/(x^2-16)", ("x/(x+4); x ≠ 4, -4",), "holds", {}),
    ("simplify", "(x^2-4x)/(x^2-16)", ("x/(x+4) where x ≠ 4",), "holds", {}),
    ("simplify", "(x^2-4x)/(x^2-16)", ("x/(x+4) for x ≠ 4, -4",), "holds", {}),
    ("simplify", "(x^2-4x)/(x^2-16)", ("x/(x+4)   x ≠ 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0, 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0 and x ≠ 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0, x ≠ 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0 & x ≠ 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0 or 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0 and 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x ≠ 0   x ≠ 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("all real numbers except 0 and 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("all reals except 0, 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("all real numbers except x = 0 and x = 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("all real numbers, x ≠ 0, 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("Domain: x ≠ 0 and x ≠ 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("Domain: all real numbers except 0 and 4",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("D = ℝ \\ {0, 4}",), "holds", {}),
    ("domain", "1/(x^2-4x)", ("x != 0, 4",), "holds", {}),
    ("simplify", "(x^2-16)/(x^2+x-12)", ("(x-4)/(x-3), x ≠ -4",), "holds", {}),
    ("simplify", "(x^2-16)/(x^2+x-12)", ("(x-4)/(x-3) (x ≠ -4)",), "holds", {}),
    ("simplify", "(x^2-16)/(x^2+x-12)", ("(x-4)/(x-3) [x ≠ -4, 3]",), "holds", {}),
    ("simplify", "(x^2-16)/(x^2+x-12)", ("= (x-4)/(x-3), x ≠ -4, x ≠ 3",), "holds", {}),
    ("simplify", "(x^2-16)/(x^2+x-12)", ("(x-4)/(x-3), \\quad x \\neq -4",), "holds", {}),
    ("domain", "√x/(x-4)", ("x ≥ 0, x ≠ 4",), "holds", {}),
    ("domain", "√x/(x-4)", ("x ≥ 0 and x ≠ 4",), "holds", {}),
    ("domain", "√x/(x-4)", ("[0, 4) ∪ (4, ∞)",), "holds", {}),
    ("domain", "1/(x-2)", ("{x | x ≠ 2}",), "holds", {}),
    ("domain", "1/(x-2)", ("{x ∈ ℝ | x ≠ 2}",), "holds", {}),
    ("domain", "1/(x-2)", ("x ∈ ℝ, x ≠ 2",), "holds", {}),
    ("domain", "1/(x-2)", ("D: x ≠ 2",), "holds", {}),
    ("domain", "1/(x-2)", ("x is not 2",), "holds", {}),
    ("domain", "1/(x-2)", ("x cannot be 2",), "holds", {}),
]
"""What is left out: joined, at the end of a line, as a set."""
CLAIMS = [
    ("solve", "3/t + 2/(t-5) = 1", ("LCD = t(t-5)", "3(t-5) + 2t = t(t-5)"), "holds holds", {}),
    ("solve", "3/t + 2/(t-5) = 1", ("LCD: t(t-5)", "3(t-5) + 2t = t(t-5)"), "holds holds", {}),
    ("solve", "3/t + 2/(t-5) = 1", ("LCD = t(t+5)",), "breaks", {}),
    ("solve", "3/t + 2/(t-5) = 1", ("LCD = t^2(t-5)",), "breaks", {}),
    ("simplify", "1/(6x) + 1/(4x^2)", ("LCD = 12x^2", "(2x + 3)/(12x^2)"), "holds holds", {}),
    ("simplify", "1/(6x) + 1/(4x^2)", ("LCD = 24x^2",), "breaks", {}),
    ("factor", "8x^2 + 12x", ("GCF = 4x", "4x(2x + 3)"), "holds holds", {}),
    ("factor", "8x^2 + 12x", ("GCF = 2x",), "breaks", {}),
    ("factor", "8x^2 + 12x", ("HCF = 4x",), "holds", {}),
    ("evaluate", "1/6 + 1/8", ("LCM = 24", "4/24 + 3/24"), "holds holds", {}),
    ("evaluate", "1/6 + 1/8", ("LCM(6, 8) = 24",), "holds", {}),
    ("evaluate", "1/6 + 1/8", ("LCM(6, 8) = 48",), "breaks", {}),
    ("evaluate", "1/6 + 1/8", ("LCD = 48",), "breaks", {}),
    ("solve", "1/x + 1/3 = 2", ("The LCD is 3x",), "holds", {}),
    ("solve", "1/x + 1/3 = 2", ("lcd = 3x",), "holds", {}),
    ("solve", "3/(x-2) + 1/(x+2) = 4/(x^2-4)", ("LCD = (x-2)(x+2)",), "holds", {}),
    ("solve", "3/(x-2) + 1/(x+2) = 4/(x^2-4)", ("LCD: x^2-4",), "holds", {}),
    ("solve", "3/(x-2) + 1/(2-x) = 4", ("LCD = x - 2",), "holds", {}),
    ("factor", "6x^3y - 9x^2y^2", ("GCF = 3x^2y",), "holds", {}),
    ("factor", "6x^3y - 9x^2y^2", ("GCF is 3xy",), "breaks", {}),
]
"""Common multiples and factors by their names."""
BOXES = [
    ("solve", "x^2 + 6x = -5", ("x^2 + 6x + □ = -5 + □", "x^2 + 6x + 9 = -5 + 9"), "open holds", {}),
    ("solve", "x^2 + 6x = -5", ("x^2 + 6x + __ = -5 + __", "x^2 + 6x + 9 = 4"), "open holds", {}),
    ("solve", "x^2 + 6x = -5", ("x^2 + 6x + [ ] = -5 + [ ]",), "open", {}),
    ("factor", "x^2 + 5x + 6", ("(x + □)(x + □)", "(x+2)(x+3)"), "open holds", {}),
]
"""Boxes that are still to be filled."""
SIDE_WORK = [
    (
        "solve",
        "x^2 + 25x + 154 = 0",
        ("154 = 2·7·11", "(x+11)(x+14) = 0", "x = -11 or x = -14"),
        "holds holds holds",
        {},
    ),
    ("solve", "x^2 + 5x + 6 = 0", ("5^2 - 4·6 = 1", "x = (-5 ± √1)/2"), "holds holds", {}),
    ("solve", "x^2 + 11x + 24 = 0", ("8·3 = 24", "8 + 3 = 11", "(x+8)(x+3) = 0"), "holds holds holds", {}),
    ("solve", "x^2 + 11x + 24 = 0", ("8·3 = 25",), "breaks", {}),
    ("factor", "x^2 + 11x + 24", ("8·3 = 24", "8 + 3 = 11", "(x+8)(x+3)"), "holds holds holds", {}),
    ("factor", "x^2 + 11x + 24", ("8·3 = 24, 8 + 3 = 11", "(x+8)(x+3)"), "holds holds", {}),
]
"""Numbers worked out between the lines."""
CHECKS = [
    (
        "solve",
        "√(x+12) = x",
        ("x + 12 = x^2", "x = 4 or x = -3", "check x = 4: √16 =? 4", "check x = -3: √9 = 3 ≠ -3"),
        "widens holds holds holds",
        {},
    ),
    ("solve", "√(x+12) = x", ("check x = -3: √(-3+12) = 3 ≠ -3",), "holds", {}),
    ("solve", "√(x+12) = x", ("check x = 4: √(4+12) ≟ 4",), "holds", {}),
    ("solve", "√(x+12) = x", ("check x = 4: √(4+12) = √16 = 4 = 4",), "holds", {}),
    ("solve", "√(x+12) = x", ("check x = 4: √(4+12) = √16 = 4",), "holds", {}),
    ("solve", "√(x+2) = x - 4", ("check x = 7: √(7+2) = 3",), "holds", {}),
    ("solve", "√(x+2) = x - 4", ("check x = 7: √(7+2) = 3, 7 - 4 = 3",), "holds", {}),
    ("solve", "√(x+2) = x - 4", ("check x = 7: 3 = 3 ✓",), "holds", {}),
    ("solve", "√(x+2) = x - 4", ("check x = 2: 2 ≠ -2 ✗",), "holds", {}),
    ("solve", "√(x+12) = x", ("check x = 4: LHS = √16 = 4, RHS = 4",), "holds", {}),
    ("solve", "√(x+12) = x", ("check: x = 4",), "holds", {}),
    ("solve", "√(x+12) = x", ("Check x = 4",), "holds", {}),
    ("solve", "√(x+12) = x", ("check x = -3: 3 = -3 ✗",), "holds", {}),
    ("solve", "√(x+12) = x", ("check x = -3: 3 = -3",), "breaks", {}),
    ("solve", "√(x+12) = x", ("check x = -3: 3 = -3 ✓",), "breaks", {}),
    ("solve", "√(x+12) = x", ("check x = -3: 3 = -3 true",), "breaks", {}),
    ("solve", "√(x+12) = x", ("check x = 4: 4 = 4 ✗",), "breaks", {}),
    ("solve", "√(x+12) = x", ("check x = 4: 4 = 4 (false)",), "breaks", {}),
    *(
        ("solve", "√(x+12) = x", (f"check x = -3: 3 = -3{said}",), "holds", {})
        for said in (
            " no",
            " false",
            ", reject",
            " which is not true",
            " doesn't work",
            " (fails)",
            " ✘",
            " is extraneous",
        )
    ),
    *(
        ("solve", "√(x+12) = x", (f"check x = 4: √16 = 4{said}",), "holds", {})
        for said in (" yes", " works", ", true", " (correct)", " ✓", " which is true", " is right.")
    ),
]
"""Checks as they are written."""
MARGINS = [
    ("solve", "(x+1)/2 = (x-3)/5", ("5(x+1) = 2(x-3)   | cross-multiply",), "holds", {}),
    ("solve", "(x+1)/2 = (x-3)/5", ("5(x+1) = 2(x-3)   | cross multiply",), "holds", {}),
    ("solve", "2/x + 1/3 = 1", ("6 + x = 3x   | ×LCD",), "holds", {}),
    ("solve", "x^3 = 8", ("x = 2   | cube root",), "holds", {}),
    ("solve", "2(x+3) = 10", ("2x + 6 = 10  | distribute",), "holds", {}),
    ("factor", "x^2 + 5x + 6", ("(x+2)(x+3)  | factor",), "holds", {}),
    ("simplify", "3x + 2x + 1", ("5x + 1   | combine like terms",), "holds", {}),
    ("simplify", "(x/3) ÷ (x/6)", ("(x/3)·(6/x)   | flip", "2   | cancel"), "holds holds", {}),
    ("solve", "2x + 6 = 10", ("2x = 4   | minus six on both sides", "x = 2  | half it"), "holds holds", {}),
    ("solve", "2x + 6 = 10", ("2x = 4   | subtract 6", "x = 2  | divide by 2"), "holds holds", {}),
    ("solve", "2x + 6 = 10", ("2x = 4   | -6 both sides",), "holds", {}),
    ("solve", "2x + 6 = 10", ("2x = 4   | FOIL",), "holds", {}),
    ("solve", "x^2 = 9", ("x = ±3   | √",), "holds", {}),
    ("solve", "x^2 = 9", ("x = ±3   | sqrt both sides",), "holds", {}),
    ("solve", "√x = 3", ("x = 9   | square both sides",), "holds", {}),
    ("solve", "√x = 3", ("x = 9   | squared",), "holds", {}),
    (
        "solve",
        "x^2 - 5x + 6 = 0",
        ("(x-2)(x-3) = 0  | factor", "x = 2 or x = 3  | zero product property"),
        "holds holds",
        {},
    ),
    ("solve", "x/3 = 5", ("x = 15   | ·3",), "holds", {}),
    ("solve", "x/3 = 5", ("x = 15   | multiply by 3",), "holds", {}),
    ("solve", "x/3 = 5", ("x = 15   | \\times 3",), "holds", {}),
]
"""Words behind the bar."""
FEATURES = [
    ("analyze", "(3x+1)/(x-2)", ("As x → ∞, f(x) → 3",), "holds", {}),
    ("analyze", "(3x+1)/(x-2)", ("as x -> -inf, y -> 3",), "holds", {}),
    ("analyze", "(3x+1)/(x-2)", ("x → ±∞, y → 3",), "holds", {}),
    ("analyze", "1/(x-2) + 3", ("a = 1, h = 2, k = 3",), "holds", {}),
    ("analyze", "1/(x-2) + 3", ("a = 1, h = -2, k = 3",), "breaks", {}),
    ("analyze", "1/(x-2) + 3", ("(1, 1) → (3, 4)",), "holds", {}),
    ("analyze", "1/(x-2) + 3", ("(1, 1) → (3, 5)",), "breaks", {}),
    ("factor", "x^2 + x + 1", ("Prime",), "holds", {}),
    ("factor", "x^2 + x + 1", ("prime",), "holds", {}),
    ("factor", "x^2 + x + 1", ("not factorable",), "holds", {}),
    ("solve", "0x = 3", ("No solution",), "holds", {}),
    ("solve", "x = x", ("All real numbers",), "holds", {}),
]
"""Features of functions, and words that stand for an answer."""
NUMBERS = [
    ("solve", "2x = 6", ("\\boxed{x = 3}",), "holds", {}),
    (
        "simplify",
        "\\cfrac{x^2-1}{x-1}",
        ("\\frac{\\cancel{(x-1)}(x+1)}{\\cancel{x-1}}", "\\boxed{x+1}"),
        "holds holds",
        {},
    ),
    ("evaluate", "3^-4·5^2", ("3^-4 5^2", "25/81"), "holds holds", {}),
    ("evaluate", "2^3 5^2", ("8·25", "200"), "holds holds", {}),
    ("evaluate", "2,400/12", ("200",), "holds", {}),
    ("evaluate", "2{,}400/12", ("200",), "holds", {}),
    ("evaluate", "1,200 + 2,400", ("3,600",), "holds", {}),
    ("solve", "12x = 2,400", ("x = 200",), "holds", {}),
    ("evaluate", "½ + ¼", ("¾",), "holds", {}),
    ("evaluate", "2½ + 1¼", ("3¾",), "holds", {}),
    ("evaluate", "1,234,567 - 234,567", ("1,000,000",), "holds", {}),
    ("solve", "x = 1200 + 34", ("x = 1,234",), "holds", {}),
    ("evaluate", "(1,200 + 300)/5", ("300",), "holds", {}),
    ("evaluate", "12.345,5·2", ("24.691",), "holds", {"conventions": {"decimal": "comma"}}),
    ("evaluate", "2^3·5^2", ("2³ 5²", "200"), "holds holds", {}),
    ("simplify", "x^3 y^2·x", ("x^4 y^2",), "holds", {}),
    ("simplify", "\\dfrac{\\cancel{3}x}{\\cancel{3}}", ("x",), "holds", {}),
]
"""LaTeX that sets off, powers side by side, thousands, fractions of one character."""
OTHERS = [
    ("simplify", "2x + 3x", ("= 5x",), "holds", {}),
    ("solve", "2x + 3 = 7", ("2x + 3 - 3 = 7 - 3", "2x = 4", "x = 2 ✓"), "holds holds holds", {}),
]
"""Leading signs and ticks."""


@pytest.mark.parametrize(
    ("task", "given", "lines", "relations", "more"),
    [*ANSWERS, *EXCLUSIONS, *CLAIMS, *BOXES, *SIDE_WORK, *CHECKS, *MARGINS, *FEATURES, *NUMBERS, *OTHERS],
)
def test_lines_as_they_are_written(task, given, lines, relations, more):
    report = check(Working(task, given, lines, **more))
    assert (
        " ".join(link.relation or ("open" if "open" in link.notes else "unread") for link in report.links) == relations
    )


@pytest.mark.parametrize(
    ("line", "understood"),
    [
        ("x = 3 and x = -2", "x = 3 or x = -2"),
        ("x = 3    x = -2", "x = 3 or x = -2"),
        ("x_1 = 3, x_2 = -2", "x = 3 or x = -2"),
        ("x ≠ 0 & x ≠ 4", "x ≠ 0, 4"),
        ("{x ∈ ℝ | x ≠ 2}", "x ≠ 2"),
        ("LCD is 3x", "LCD = 3x"),
        ("2½", "2 1/2"),
        ("2,400", "2400"),
        ("x ≥ 0, x ≠ 4", "x ≥ 0 and x ≠ 4"),
        ("\\boxed{x = 3}", "x = 3"),
        ("As x → ∞, f(x) → 3", "end behaviour: x → ∞, y → 3"),
        ("(1, 1) -> (3, 4)", "(1, 1) → (3, 4)"),
        ("√9 = 3 ≠ -3", "√9 = 3 and 3 ≠ -3"),
        ("x^2 + □ = 5", "x^2 + □ = 5"),
        ("x/(x+2) (x ≠ ±2)", "x/(x+2), x ≠ ±2"),
    ],
)
def test_the_echo_shows_what_was_understood(line, understood):
    assert echo(line).plain == understood
