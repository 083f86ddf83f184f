"""Complex numbers worked by hand: every kind of step, at the grains, in the order a teacher writes them."""

import pytest

from algebra import Unsolved, Working, predict, work
from algebra.methods.complex_terms import Term

BOARD = [
    ("(3 + 2i) - (1 - 4i)", ["2 + 6i"]),
    ("2(3 - i) - 4(1 + 2i)", ["6 - 2i - 4 - 8i", "2 - 10i"]),
    ("(3 + 2i)(1 - 4i)", ["3 - 12i + 2i - 8i^2", "3 - 12i + 2i + 8", "11 - 10i"]),
    ("(2 + 3i)(2 - 3i)", ["4 - 9i^2", "4 + 9", "13"]),
    ("2i(3 - i)", ["6i - 2i^2", "6i + 2", "2 + 6i"]),
    (
        "(1 + i)(2 - i)(3 + i)",
        ["(2-i+2i-i^2)(3+i)", "(2-i+2i+1)(3+i)", "(3+i)(3+i)", "9 + 3i + 3i + i^2", "9 + 3i + 3i - 1", "8 + 6i"],
    ),
    ("-(2 - i)^2", ["-(4-2i-2i+i^2)", "-(4-2i-2i-1)", "-3 + 4i"]),
    ("(2i)^3", ["8i^3", "-8i"]),
    ("i^7", ["i^4 · i^3", "-i"]),
    ("i^12", ["(i^4)^3", "1"]),
    ("√(-12)", ["2i√3"]),
    ("√(-12)·√(-3)", ["2i√3 · i√3", "6i^2", "-6"]),
    ("(1 + √(-8))^2", ["(1+2i√2)^2", "1 + 2i√2 + 2i√2 + 8i^2", "1 + 2i√2 + 2i√2 - 8", "-7 + 4i√2"]),
    ("5/(2i)", ["(5i)/(2i·i)", "(5i)/(2i^2)", "(5i)/(-2)", "-(5i)/2"]),
    ("(3 - i)/(2i)", ["((3-i)·i)/(2i·i)", "(3i-i^2)/(2i^2)", "(3i+1)/(-2)", "-1/2 - (3i)/2"]),
    ("i^-3", ["1/i^3", "1/(-i)", "i/(-i·i)", "i/(-i^2)", "i/(-(-1))", "i"]),
    (
        "(1 - i)÷(1 + i)",
        ["(1-i)/(1+i)", "((1-i)(1-i))/((1+i)(1-i))", "(1-i-i+i^2)/(1-i^2)", "(1-i-i-1)/(1+1)", "(-2i)/2", "-i"],
    ),
    ("(6 + 4i)/10", ["3/5 + (2i)/5"]),
    ("(1 + i)/√2", ["((1+i)·√2)/(√2·√2)", "(√2+i√2)/2", "√2/2 + (i√2)/2"]),
    ("3/(√2 + i)", ["(3(√2-i))/((√2+i)(√2-i))", "(3√2-3i)/(2-i^2)", "(3√2-3i)/(2+1)", "(3√2-3i)/3", "√2 - i"]),
]


def solved(given, grain="board"):
    return work(Working("simplify", given, numbers="complex"), grain=grain)


@pytest.mark.parametrize(("given", "lines"), BOARD, ids=[row[0] for row in BOARD])
def test_the_lines_as_at_the_board(given, lines):
    solution = solved(given)
    assert (solution.family, solution.method) == ("complex-numbers", "i-squared")
    assert [step.text for step in solution.steps] == lines
    assert all(step.reason and "{" not in step.reason for step in solution.steps)


@pytest.mark.parametrize(
    ("given", "lines"),
    [
        ("(2 + i)^2", ["(2+i)(2+i)", "4 + 2i + 2i + i^2", "4 + 2i + 2i + (-1)", "4 + 2i + 2i - 1", "3 + 4i"]),
        ("√(-12)", ["i√12", "2i√3"]),
        ("(3 + 2i) - (1 - 4i)", ["3 + 2i - 1 + 4i", "2 + 6i"]),
        ("6 - 3i^2", ["6 - 3(-1)", "6 + 3", "9"]),
    ],
)
def test_every_operation_in_a_line_of_its_own(given, lines):
    assert [step.text for step in solved(given, "every").steps] == lines


@pytest.mark.parametrize(
    ("given", "rule", "reason"),
    [
        (
            "5/(2 - i)",
            "complex-conjugate",
            "Multiply top and bottom by 2 + i: (a + bi)(a − bi) = a² + b² has no i left.",
        ),
        ("5/(2i)", "multiply-by-i", "Multiply top and bottom by i: then no i is left below."),
        ("i^23", "powers-of-i", "i^4 = 1 and 23 = 4·5 + 3, so i^23 = -i."),
        ("(1+i)(3-i)", "combine-parts", "3 + 1 = 4, -i + 3i = 2i."),
        ("3i·2i", "multiply-complex", "i is multiplied like a letter: 3i · 2i = 6i^2."),
        ("2i(3 - i)", "multiply-complex", "i is multiplied like a letter: 2i times 3 and -i."),
        ("√(-4)·x^0", None, None),
    ],
)
def test_reasons_name_the_numbers_at_hand(given, rule, reason):
    if rule is None:
        with pytest.raises(Unsolved):
            work(Working("simplify", given, numbers="complex"), method="i-squared")
        return
    assert (rule, reason) in [(step.rule.id, step.reason) for step in solved(given).steps]


@pytest.mark.parametrize("given", ["(1+i)^5", "2x + i + x", "|3+4i|", "∛(-8)·i", "(1+i)^i"])
def test_what_is_not_worked_by_hand_is_left_to_others(given):
    with pytest.raises(Unsolved):
        work(Working("simplify", given, numbers="complex"), method="i-squared")


def test_real_numbers_only_know_no_i():
    with pytest.raises(Unsolved, match="no complex numbers"):
        work(Working("simplify", "i·i + i^2"), method="i-squared")


@pytest.mark.parametrize(
    ("term", "small"),
    [
        (Term(2, 2), Term(-2)),
        (Term(1, 3), Term(-1, 1)),
        (Term(5, 4), Term(5)),
        (Term(1, 1, 12), Term(2, 1, 3)),
        (Term(3, 0, 1), Term(3)),
        (Term(1, 6, 5), Term(-1, 0, 5)),
    ],
)
def test_a_term_in_its_smallest_form(term, small):
    assert term.small == small


@pytest.mark.parametrize(
    ("given", "wrong"),
    [
        ("(3 + 2i)(1 - 4i)", ["-5 - 10i", "11"]),
        ("√(-4)·√(-9)", ["6"]),
        ("(2 + i)^2", ["3", "5 + 4i"]),
        ("i^7", ["i"]),
        ("(3+2i) - (1-4i)", ["2 - 2i"]),
        ("√(-12)", ["-2√3"]),
        ("5/(2i)", ["(5i)/2"]),
    ],
)
def test_what_a_class_answers_is_foreseen(given, wrong):
    found = [
        answer for item in predict(Working("simplify", given, numbers="complex")).wrong[:8] for answer in item.answer
    ]
    assert set(wrong) <= set(found)
