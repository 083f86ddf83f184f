"""Roots, bars, i, and letters in exponents: one row, one link."""

import pytest

from algebra import Working, check


def judged(task, given, *lines, **more):
    return check(Working(task, given, tuple(lines), **more))


@pytest.mark.parametrize(
    ("task", "given", "line", "relation"),
    [
        ("simplify", "√50", "5√2", "holds"),
        ("simplify", "√50", "25√2", "breaks"),
        ("simplify", "√12 + √27", "5√3", "holds"),
        ("simplify", "√12 + √27", "√39", "breaks"),
        ("simplify", "3√2 + 5√3", "8√5", "breaks"),
        ("simplify", "7/√5", "(7√5)/5", "holds"),
        ("simplify", "2/(1+√3)", "(2(1+√3))/(1+3)", "breaks"),
        ("simplify", "2/(1+√3)", "√3 - 1", "holds"),
        ("simplify", "1/(1 + ∛2 + ∛4)", "∛2 - 1", "holds"),
        ("simplify", "√(5 + 2√6)", "√2 + √3", "holds"),
        ("simplify", "√(2 + √2)·√(2 - √2)", "√2", "holds"),
        ("simplify", "√(2 + √2)", "√2 + 1", "breaks"),
        ("simplify", "√49", "±7", "breaks"),
        ("simplify", "∛(-8)", "-2", "holds"),
        ("simplify", "(-8)^(1/3)", "-2", "holds"),
        ("simplify", "8^(2/3)", "4", "holds"),
        ("simplify", "√√16", "2", "holds"),
        ("simplify", "√(x^2)", "x", "breaks"),
        ("simplify", "√(x^2)", "|x|", "holds"),
        ("simplify", "√(x^2)", "√x·√x", "breaks"),
        ("simplify", "√x·√x", "x", "holds"),
        ("simplify", "√(x^2 + 36)", "x + 6", "breaks"),
        ("simplify", "√(x^3)", "x√x", "holds"),
        ("simplify", "√(x^2 - 4)/√(x - 2)", "√(x + 2)", "holds"),
        ("simplify", "(1 + √(x+4))^2", "1 + x + 4", "breaks"),
        ("simplify", "√(x y)", "√x·√y", "breaks"),
        ("simplify", "(√(x+h) - √x)/h", "1/(√(x+h) + √x)", "holds"),
        ("simplify", "|x - 3|·|x + 3|", "|x^2 - 9|", "holds"),
        ("simplify", "x^(2n+5)/x^(n+1)", "x^(n+4)", "holds"),
        ("simplify", "9^(x+1)", "3^(2x+2)", "holds"),
        ("simplify", "(1/5)^(-2x)", "25^x", "holds"),
        ("simplify", "2^x·3^x", "5^x", "breaks"),
        ("solve", "√(x+6) = x", "x + 6 = x^2", "widens"),
        ("solve", "√(x+6) = x", "x = 3 or x = -2", "widens"),
        ("solve", "√x + 3 = √(x+21)", "x + 9 = x + 21", "breaks"),
        ("solve", "√(2x-1) = -3", "2x - 1 = 9", "widens"),
        ("solve", "√x + 5 = 2", "√x = -3", "holds"),
        ("solve", "√x = -3", "no solution", "holds"),
        ("solve", "3x^2 = 60", "x = ±2√5", "holds"),
        ("solve", "3x^2 = 60", "x = 2√5", "narrows"),
        ("solve", "x^3 = 5", "x = ∛5", "holds"),
        ("solve", "(x-1)^3 = 16", "x = 1 + 2∛2", "holds"),
        ("solve", "x^2 + 3x - 5 = 0", "x = (-3 ± √29)/2", "holds"),
        ("solve", "x^2 + 3x - 5 = 0", "x = -3 ± √29/2", "breaks"),
        ("solve", "|x-2| = 5", "x - 2 = 5 or x - 2 = -5", "holds"),
        ("solve", "|x-2| = 5", "x = 7", "narrows"),
        ("solve", "x^(2/3) = 4", "x = 8 or x = -8", "holds"),
        ("solve", "2^(3x) = 4^(x+1)", "3x = 2x + 2", "holds"),
        ("solve", "2^x = 3", "x = 2", "breaks"),
        ("solve", "6^x = 36", "x = 2", "holds"),
        ("solve", "x^2 = 2", "x ≈ 1.41", "holds"),
        ("solve", "x^2 = 2", "x ≈ 1.42", "breaks"),
    ],
)
def test_one_link(task, given, line, relation):
    report = judged(task, given, line)
    assert report.error is None
    assert report.links[0].relation == relation


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        ("x^2 = -9", "x = ±3i", "holds"),
        ("x^2 - 4x + 13 = 0", "x = 2 ± 3i", "holds"),
        ("x^2 - 4x + 13 = 0", "x = 2 + 3i", "narrows"),
        ("x^2 + x + 1 = 0", "x = (-1 ± i√3)/2", "holds"),
    ],
)
def test_complex_solutions(given, line, relation):
    assert judged("solve", given, line, numbers="complex").links[0].relation == relation
    assert judged("solve", given, "no solution").answer.verdict == "correct"


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        ("(x^2-2x)/(x-2) = √4", "no solution", "holds"),
        ("(x^2-2x)/(x-2) = √4", "x = 2", "widens"),
        ("(x-1)/(x-1)·√16 = 4", "all real numbers except 1", "holds"),
        ("(x-1)/(x-1)·√16 = 4", "all real numbers", "widens"),
        ("(4^x-9)/(2^x-3) = 6", "no solution", "holds"),
        ("(4^x-16)/(2^x-4) = 6", "x = 1", "holds"),
    ],
)
def test_a_solution_never_lies_where_a_denominator_is_zero(given, line, relation):
    assert judged("solve", given, line).links[0].relation == relation


@pytest.mark.parametrize("given", ["x = √(a^2)", "x = |a|"])
def test_what_the_sign_of_a_letter_decides_is_refused_not_guessed(given):
    report = judged("solve", given, "x = a", variable="x")
    assert (report.links[0].relation, report.error.code) == (None, "scope")


def test_letters_beside_the_unknown():
    report = judged("solve", "A = s^2", "s = ±√A", variable="s")
    assert (report.links[0].relation, report.answer.verdict) == ("holds", "correct")
    assert report.links[0].conditions == ("A ≥ 0",)
    divided = judged("solve", "a x + b = c", "a x = c - b", "x = (c-b)/a", variable="x")
    assert [link.conditions for link in divided.links] == [(), ("a ≠ 0",)]
    assert judged("solve", "A = s^2", "s = √A", variable="s").links[0].relation == "narrows"


@pytest.mark.parametrize(
    ("given", "line", "codes"),
    [
        ("√18", "√18", {"radical-not-simplified"}),
        ("√2·√3", "√2·√3", {"radical-not-simplified"}),
        ("√(1/2)", "√(1/2)", {"fraction-under-root"}),
        ("1/√2", "1/√2", {"root-in-denominator"}),
        ("2√3 + 3√3", "2√3 + 3√3", {"like-radicals"}),
        ("√(x^3)", "√(x^3)", {"radical-not-simplified"}),
        ("1 + √2", "1 + √2", set()),
        ("√2/2", "√2/2", set()),
    ],
)
def test_what_is_left_under_roots(given, line, codes):
    assert {item.code for item in judged("simplify", given, line).finish.remaining} == codes


def test_a_given_without_a_real_value_is_said_and_nothing_holds():
    report = judged("evaluate", "√-4", "2")
    assert (report.error.code, report.links[0].relation) == ("task", "unclear")
    assert judged("evaluate", "√-4", "2i", numbers="complex").answer.verdict == "correct"


def test_evidence_for_roots_is_exact_and_to_three_decimals():
    evidence = judged("simplify", "√12 + √27", "√39").links[0].evidence
    assert (evidence.before, evidence.after) == ("5√3", "√39")
    assert evidence.text == "5√3 (8.660) before, √39 (6.245) after"
    assert judged("simplify", "√(x^2)", "x").links[0].evidence.values == {"x": "-1"}


def test_a_check_with_roots_is_put_into_the_given():
    report = judged(
        "solve", "√(x+6) = x", "x + 6 = x^2", "x = 3 or x = -2", "check x = 3: √9 = 3", "check x = -2: √4 ≠ -2", "x = 3"
    )
    assert report.sound
    assert judged("solve", "√(x+6) = x", "check x = -2: √4 = -2").links[0].relation == "breaks"


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        ("|x - 3| = x - 3", "x ≥ 3", "holds"),
        ("|x - 3| = x - 3", "[3, ∞)", "holds"),
        ("|x - 3| = x - 3", "x > 3", "narrows"),
        ("|x - 3| = x - 3", "x = 3", "narrows"),
        ("|x - 3| = x - 3", "all real numbers", "breaks"),
        ("|x| + |x - 2| = 2", "0 ≤ x ≤ 2", "holds"),
        ("√((x-2)^2) = 2 - x", "(-∞, 2]", "holds"),
    ],
)
def test_solutions_that_fill_an_interval(given, line, relation):
    assert judged("solve", given, line).links[0].relation == relation


@pytest.mark.parametrize(
    ("given", "lines", "verdict", "expected"),
    [
        ("1/((x+5)(x-2))", ["x ≠ -5, 2"], "correct", ["-5", "2"]),
        ("1/((x+5)(x-2))", ["x ≠ 2"], "incomplete", ["-5", "2"]),
        ("1/((x+5)(x-2))", ["(-∞, -5) ∪ (-5, 2) ∪ (2, ∞)"], "correct", ["-5", "2"]),
        ("1/(x^2-9)", ["x^2 - 9 = 0", "x = ±3", "all real numbers except -3, 3"], "correct", ["-3", "3"]),
        ("√(x-3)/(x-5)", ["[3, 5) ∪ (5, ∞)"], "correct", ["[3, 5) ∪ (5, ∞)"]),
        ("√(x^2-4)", ["x ≤ -2 or x ≥ 2"], "correct", ["(-∞, -2] ∪ [2, ∞)"]),
        ("√(x^2-4)", ["x ≥ 2"], "wrong", ["(-∞, -2] ∪ [2, ∞)"]),
        ("x/(x^2+1)", ["all real numbers"], "correct", []),
        ("1/((x+5)(x-2))", [r"D = ℝ \ {-5, 2}"], "correct", ["-5", "2"]),
        ("1/((x+5)(x-2))", ["x ∈ (-∞, -5) ∪ (2, ∞)"], "wrong", ["-5", "2"]),
        ("1/((x+5)(x-2))", ["x ∈ ℝ, x ≠ 2"], "incomplete", ["-5", "2"]),
        ("6/(x-2) = x", ["x ≠ 2"], "correct", ["2"]),
    ],
)
def test_the_domain_is_judged_in_any_of_its_notations(given, lines, verdict, expected):
    answer = judged("domain", given, *lines).answer
    assert (answer.verdict, list(answer.expected)) == (verdict, expected)


@pytest.mark.parametrize(
    ("line", "relation"),
    [
        (r"D = ℝ \ {2}", "holds"),
        (r"D = \mathbb{R} \setminus \{3\}", "breaks"),
        ("domain: x ≠ 2", "holds"),
        ("D = (2, ∞)", None),  # an interval needs the task domain
        ("y ∈ {7/3}", None),  # the unknown is x
        ("x ∈ {7/3}", "holds"),
        ("L = {5}", "breaks"),
    ],
)
def test_set_notation_stands_in_a_solution(line, relation):
    link = judged("solve", "1/(x-2) = 3", line).links[0]
    assert link.relation == relation
    assert (link.error is None) == (relation is not None)
