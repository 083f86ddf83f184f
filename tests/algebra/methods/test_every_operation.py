"""The finest grain: one operation a line, in every family; and the side work that a step rests on."""

import pytest

from algebra import Working, all_methods, generate, work

LINES = [
    ("evaluate", "order-of-operations", "24÷6·8", ["4 · 8", "32"]),
    ("evaluate", "order-of-operations", "8 - (5 - 2)·2", ["8 - 3 · 2", "8 - 6", "2"]),
    ("evaluate", "order-of-operations", "3 - 4 + 5", ["-1 + 5", "4"]),
    ("evaluate", "order-of-operations", "9/14 - 3/7", ["9/14 - (3·2)/(7·2)", "9/14 - 6/14", "(9-6)/14", "3/14"]),
    (
        "evaluate",
        "order-of-operations",
        "1/2·2/3·3/5",
        ["(1·2)/(2·3) · 3/5", "2/6 · 3/5", "1/3 · 3/5", "(1·3)/(3·5)", "3/15", "1/5"],
    ),
    ("evaluate", "order-of-operations", "(2/3)^-2", ["(3/2)^2", "3^2/2^2", "9/4"]),
    ("evaluate", "order-of-operations", "12/18", ["(6·2)/(6·3)", "2/3"]),
    (
        "evaluate",
        "order-of-operations",
        "-12/18 + 1",
        ["-12/18 + (1·18)/18", "-12/18 + 18/18", "(-12+18)/18", "6/18", "1/3"],
    ),
    ("simplify", "exponent-laws", "x^7/x^5", ["x^(7-5)", "x^2"]),
    ("simplify", "exponent-laws", "2x^5·3x^3", ["2 · 3x^(5+3)", "2 · 3x^8", "6x^8"]),
    (
        "simplify",
        "exponent-laws",
        "(x^5y^5)^3/x^5",
        ["(x^(5·3)y^(5·3))/x^5", "(x^15y^15)/x^5", "x^(15-5)y^15", "x^10y^15"],
    ),
    ("simplify", "factor-and-cancel", "(x+1)^5/(x+1)^3", ["((x+1)^3(x+1)^2)/(x+1)^3", "(x+1)^2"]),
    ("simplify", "largest-square-factor", "√75", ["√(25·3)", "√25 · √3", "5√3"]),
    ("simplify", "largest-square-factor", "3√8", ["3√(4·2)", "3√4 · √2", "3 · 2√2", "6√2"]),
    ("simplify", "largest-square-factor", "√49·√2", ["7√2"]),
    ("simplify", "largest-square-factor", "∛54", ["∛(27·2)", "∛27 · ∛2", "3∛2"]),
    ("simplify", "largest-square-factor", "(6+3√2)/6", ["(3(2+√2))/(3·2)", "(2+√2)/2"]),
    ("simplify", "prime-pairs", "√72", ["√(2·2·2·3·3)", "√(2·2·3·3) · √2", "6√2"]),
    ("simplify", "lcd", "3/(x+1) - (x-2)/(x+1)", ["(3-(x-2))/(x+1)", "(3-x+2)/(x+1)", "(5-x)/(x+1)"]),
    ("expand", "expand-and-combine", "(2x+7)^2", ["(2x+7)(2x+7)", "4x^2 + 14x + 14x + 49", "4x^2 + 28x + 49"]),
    ("factor", "sum-product", "12x + 8", ["4 · 3x + 4 · 2", "4(3x+2)"]),
    ("factor", "sum-product", "4x^2 - 9", ["(2x)^2 - 3^2", "(2x+3)(2x-3)"]),
    ("factor", "sum-product", "25 - 4x^2", ["5^2 - (2x)^2", "(5+2x)(5-2x)"]),
    ("factor", "sum-product", "27 - x^3", ["3^3 - x^3", "(3-x)(9+3x+x^2)"]),
    ("factor", "sum-product", "4x^2 + 12x + 9", ["(2x)^2 + 2 · 2x · 3 + 3^2", "(2x+3)^2"]),
    ("factor", "sum-product", "2x^2 + 7xy + 3y^2", ["2x^2 + xy + 6xy + 3y^2", "x(2x+y) + 3y(2x+y)", "(2x+y)(x+3y)"]),
    (
        "factor",
        "sum-product",
        "2x^3 + 7x^2 + 3x",
        ["x · 2x^2 + x · 7x + x · 3", "x(2x^2+7x+3)", "x(2x^2+x+6x+3)", "x[x(2x+1)+3(2x+1)]", "x(2x+1)(x+3)"],
    ),
    (
        "solve",
        "simplify-then-undo",
        "-31 = 4x - 7",
        ["-31 + 7 = 4x - 7 + 7   | +7", "-24 = 4x", "(-24)/4 = (4x)/4   | ÷4", "-6 = x"],
    ),
    ("solve", "simplify-then-undo", "x/7 = -3", ["7 · x/7 = 7 · (-3)   | ×7", "x = -21"]),
    (
        "solve",
        "simplify-then-undo",
        "2(x+9) = 2x + 18",
        ["2x + 18 = 2x + 18", "2x + 18 - 2x = 2x + 18 - 2x   | -2x", "18 = 18", "all real numbers"],
    ),
    (
        "solve",
        "undo-in-reverse",
        "3(x-2)^3 = 81",
        ["(3(x-2)^3)/3 = 81/3   | ÷3", "(x-2)^3 = 27", "x - 2 = 3", "x - 2 + 2 = 3 + 2   | +2", "x = 5"],
    ),
    (
        "solve",
        "completing-the-square",
        "4x^2 - 12x + 9 = 25",
        [
            "(2x-3)^2 = 25",
            "2x - 3 = ±√25   | root",
            "2x - 3 = ±5",
            "2x = 3 ± 5   | +3",
            "x = (3±5)/2   | ÷2",
            "x = (3+5)/2 or x = (3-5)/2",
            "x = 4 or x = -1",
        ],
    ),
    (
        "solve",
        "isolate-and-square",
        "√(x+6) = x",
        [
            "(√(x+6))^2 = x^2   | square",
            "x + 6 = x^2",
            "0 = x^2 - x - 6   | -(x + 6)",
            "0 = (x+2)(x-3)",
            "x + 2 = 0 or x - 3 = 0",
            "x = -2 or x = 3",
            "check x = -2: √((-2)+6) ≠ -2",
            "check x = -2: 2 ≠ -2",
            "check x = 3: √(3+6) = 3",
            "check x = 3: 3 = 3",
            "x = 3",
        ],
    ),
    (
        "solve",
        "common-base",
        "27^x·3^(x-1) = 9",
        [
            "(3^3)^x · 3^(x-1) = 3^2",
            "3^(3x) · 3^(x-1) = 3^2",
            "3^(3x+x-1) = 3^2",
            "3^(4x-1) = 3^2",
            "4x - 1 = 2",
            "4x - 1 + 1 = 2 + 1   | +1",
            "4x = 3",
            "(4x)/4 = 3/4   | ÷4",
            "x = 3/4",
        ],
    ),
    (
        "solve",
        "substitution",
        "6^x - 4·3^x - 27·2^x + 108 = 0",
        [
            "2^x · 3^x - 4 · 3^x - 27 · 2^x + 108 = 0",
            "3^x(2^x-4) - 27(2^x-4) = 0",
            "(2^x-4)(3^x-27) = 0",
            "2^x - 4 = 0 or 3^x - 27 = 0",
            "2^x = 4 or 3^x = 27",
            "2^x = 2^2 or 3^x = 3^3",
            "x = 2 or x = 3",
        ],
    ),
    (
        "solve",
        "spot-the-structure",
        "(x-a)/b + (x-b)/a = 2",
        [
            "((x-a)/b-1) + ((x-b)/a-1) = 0   | -2",
            "(x-a-b)/b + (x-a-b)/a = 0",
            "(x-a-b)(1/b+1/a) = 0",
            "x - a - b = 0   | ÷(1/b + 1/a)",
            "x - a - b + a + b = 0 + a + b   | +(a + b)",
            "x = a + b",
        ],
    ),
]


@pytest.mark.parametrize(("task", "method", "given", "lines"), LINES, ids=[f"{row[1]}: {row[2]}" for row in LINES])
def test_one_operation_stands_in_each_line(task, method, given, lines):
    solution = work(Working(task, given, (), "x" if task == "solve" else None), method=method, grain="every")
    assert [step.text for step in solution.steps] == lines


SIDE_WORK = [
    ("simplify", "factor-and-cancel", "(x^2-2x-3)/(x^2+5x+4)", "factor-all", "product-sum"),
    ("simplify", "factor-and-cancel", "(x^2+7xy+12y^2)/(x+3y)", "factor-all", "product-sum"),
    ("simplify", "lcd", "1/(x-2) - (x-7)/(x^2+2x-8)", "factor-bottoms", "product-sum"),
    ("simplify", "lcd", "5/x + 7/(x+2)", "lcd", "lcd"),
    ("simplify", "prime-pairs", "√72", "prime-pairs", "factor-tree"),
    ("solve", "clear-by-lcd", "6/(x-2) = x/4 - 1", "clear-denominators", "lcd"),
    ("solve", "clear-by-lcd", "1/(x^2-x-2) = 1/(x-2)", "factor-denominators", "product-sum"),
    ("solve", "undo-in-reverse", "3(2x-1)^3 + 5 = 86", "subtract-from-both-sides", "ladder"),
    ("solve", "undo-in-reverse", "√(2x+3) - 1 = 4", "add-to-both-sides", "ladder"),
    ("solve", "clear-by-lcd", "2/x = 1/3", "check-candidate", "candidate"),
    ("analyze", "analyse", "(x^2-x-2)/(x^2-4)", "factor-all", "product-sum"),
]


@pytest.mark.parametrize(("task", "method", "given", "rule", "kind"), SIDE_WORK)
def test_a_step_shows_the_side_work_it_rests_on(task, method, given, rule, kind):
    steps = work(Working(task, given), method=method, grain="every").steps
    assert kind in [side.kind for step in steps if step.rule.id == rule for side in step.side_work]


def test_the_ladder_names_what_was_done_and_how_it_is_undone():
    first = work(Working("solve", "3(2x-1)^3 + 5 = 86"), method="undo-in-reverse").steps[0]
    [ladder] = [side for side in first.side_work if side.kind == "ladder"]
    assert ladder.do == ("×2", "-1", "^3", "×3", "+5")
    assert ladder.undo == ("-5", "÷3", "∛", "+1", "÷2")


@pytest.mark.parametrize(
    ("given", "rule"),
    [
        ("√6/(2+√6)", "minus-up"),
        ("2x^5·3x^3", "multiply-numbers"),
        ("∛54", "root-of-power"),
        ("3/x + 3/(x+2)", "factor-numerator"),
    ],
)
def test_no_step_bears_a_wrong_name(given, rule):
    assert rule in [step.rule.id for step in work(Working("simplify", given), grain="every").steps]


@pytest.mark.parametrize(
    ("family", "level"),
    [("order-of-operations", 5), ("exponents", 2), ("roots", 2), ("linear-equations", 2), ("quadratic-equations", 1)],
)
def test_every_operation_and_the_board_differ(family, level):
    drawn = generate(family, level, 6, seed=5)
    finer = sum(len(work(p.working, grain="every").steps) > len(p.steps) for p in drawn)
    assert finer >= len(drawn) / 2


def test_both_schools_of_complex_fractions_are_short_and_without_detours():
    found = {s.method: [step.text for step in s.steps] for s in all_methods(Working("simplify", "(7/(x + h) - 7/x)/h"))}
    assert found["clear-inner-by-lcd"] == ["(7x-7(x+h))/(hx(x+h))", "-(7h)/(hx(x+h))", "-7/(x(x+h))"]
    assert found["combine-then-divide"][0] == "aside: 7/(x+h) - 7/x = (7x-7(x+h))/(x(x+h)) = (-7h)/(x(x+h))"
