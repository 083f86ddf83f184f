"""The verdict on the answer, what is left to finish, checks owed, and refusals."""

import json

import pytest

from algebra import Working, check, json_object
from algebra.exact.effort import granted
from algebra.formats.text_form import read_workings
from algebra.reports.working import TaskError


def judged(task, given, *lines, **more):
    return check(Working(task, given, tuple(lines), **more))


@pytest.mark.parametrize(
    ("given", "lines", "verdict", "missing", "extra"),
    [
        ("x^2 = 36", ["x = ±6", "x = 6 or x = -6"], "correct", [], []),
        ("x^2 = 36", ["x = 6"], "incomplete", ["-6"], []),
        ("x^2 = 36", ["no solution"], "wrong", ["6", "-6"], []),
        ("x^2 = 36", ["x = 6 or x = 5"], "wrong", ["-6"], ["5"]),
        ("x^2 = 36", ["x^2 - 36 = 0"], "unfinished", [], []),
        ("x^2 = 36", [], "none", [], []),
        ("x^2 = 36", ["x^2 = 35"], "none", [], []),
        ("x/(x-3) = 3/(x-3) + 2", ["x = 3 + 2(x-3)", "x = 3"], "extraneous", [], ["3"]),
        ("2x + 1 = 2x + 5", ["1 = 5", "no solution"], "correct", [], []),
        ("2(x+1) = 2x+2", ["all real numbers"], "correct", [], []),
        ("5 = x", ["5 = x"], "correct", [], []),
    ],
)
def test_the_answer_to_an_equation(given, lines, verdict, missing, extra):
    answer = judged("solve", given, *lines).answer
    assert (answer.verdict, list(answer.missing), list(answer.extra)) == (verdict, missing, extra)


@pytest.mark.parametrize(
    ("task", "given", "expected"),
    [
        ("solve", "x^2 - 6x + 7 = 0", ["3 + √2", "3 - √2"]),
        ("solve", "x^2 + x - 1 = 0", ["(-1+√5)/2", "(-1-√5)/2"]),
        ("solve", "4x^2 = 3", ["√3/2", "-√3/2"]),
        ("solve", "x^3 - x - 1 = 0", ["root(x^3 - x - 1, 1.32, 1.33)"]),
        ("solve", "x/x = 1", ["all", "≠ 0"]),
        ("simplify", "(x^2-9)/(x^2+5x+6)", ["(x-3)/(x+2)"]),
        ("simplify", "(2-x)/(x^2-4)", ["-1/(x+2)"]),
        ("factor", "2x^2+14x+20", ["2(x+2)(x+5)"]),
        ("factor", "x^4 y - x y^4", ["xy(x-y)(x^2+xy+y^2)"]),
        ("expand", "(2x-3)^2", ["4x^2 - 12x + 9"]),
        ("evaluate", "1/5 + 2/3 ÷ 2/3", ["6/5"]),
    ],
)
def test_the_expected_answer_stands_in_the_plain_notation(task, given, expected):
    assert list(judged(task, given).answer.expected) == expected


@pytest.mark.parametrize(
    ("task", "given", "line", "codes"),
    [
        ("simplify", "(x^2-9)/(x^2+5x+6)", "((x-3)(x+3))/((x+3)(x+2))", ["not-lowest-terms"]),
        ("simplify", "(6x+9)/3", "(6x+9)/3", ["not-lowest-terms"]),
        ("simplify", "3x + 2x + 1", "3x + 2x + 1", ["like-terms"]),
        ("simplify", "2(x+3) + 4x", "2(x+3) + 4x", ["not-expanded"]),
        ("simplify", "1/x + 1/y", "1/x + 1/y", ["uncombined-fractions"]),
        ("simplify", "(1/x)/(x+1)", "(1/x)/(x+1)", ["complex-fraction"]),
        ("simplify", "x^-2", "x^-2", ["negative-exponent"]),
        ("simplify", "5y^0", "5y^0", ["zero-exponent"]),
        ("simplify", "x·x^2", "x·x^2", ["repeated-base"]),
        ("simplify", "2(x+3)", "2(x+3)", []),
        ("simplify", "2(x+3)", "2x + 6", []),
        ("simplify", "x/2 + 1/3", "x/2 + 1/3", []),
        ("evaluate", "2^3 · 3", "2^3 · 3", ["power-not-evaluated", "arithmetic-left"]),
        ("evaluate", "6/4", "6/4", ["not-lowest-terms"]),
        ("evaluate", "3 - -2", "3 - -2", ["arithmetic-left"]),
        ("factor", "4x^2-36", "(2x-6)(2x+6)", ["common-factor"]),
        ("factor", "x^4-16", "(x^2-4)(x^2+4)", ["not-factored"]),
        ("factor", "x^2-25", "x^2-25", ["not-factored"]),
        ("factor", "x^3+x^2", "x(x^2+x)", ["common-factor"]),
        ("factor", "x^2-25", "(x-5)(x+5)", []),
        ("expand", "(x+1)(x+2)", "(x+1)(x+2)", ["not-expanded"]),
        ("solve", "2x = 5", "x = 10/4", ["not-lowest-terms"]),
        ("solve", "2x = 5", "2x - 5 = 0", ["variable-not-isolated"]),
        ("solve", "(x-2)^2 = 9", "x = 2 ± 3", ["plus-minus-not-split"]),
        ("solve", "x - 2 = 3", "x = 3 + 2", ["arithmetic-left"]),
    ],
)
def test_what_is_left_to_do_is_named(task, given, line, codes):
    report = judged(task, given, line)
    assert report.links[0].relation == "holds"
    assert {item.code for item in report.finish.remaining} == set(codes)
    assert report.finish.finished == (codes == [] and report.answer.verdict == "correct")


def test_a_convention_decides_whether_plus_minus_may_stand():
    lines = ("x = ±6",)
    assert [r.code for r in judged("solve", "x^2 = 36", *lines).finish.remaining] == ["plus-minus-not-split"]
    assert judged("solve", "x^2 = 36", *lines, conventions={"solutions": "plus-minus"}).finish.finished


@pytest.mark.parametrize(
    ("policy", "lines", "owed"),
    [
        ("always", ["x^2 = 9", "x = 3 or x = -3", "x = 3"], ["3", "-3"]),
        ("when-gained", ["x^2 = 9", "x = 3 or x = -3", "x = 3"], ["-3"]),
        ("never", ["x^2 = 9", "x = 3 or x = -3", "x = 3"], []),
        ("always", ["x^2 = 9", "x = 3 or x = -3", "x = 3   # -3 fails", "check x = 3: 3 = 3"], []),
        ("always", ["x^2 = 9", "x = 3 or x = -3", "check x = -3: -3 ≠ 3", "x = 3", "check x = 3"], []),
    ],
)
def test_checks_owed_after_squaring_follow_the_convention(policy, lines, owed):
    report = judged("solve", "x = 3", *lines, conventions={"checks_after_squaring": policy})
    assert [item.value for item in report.owed] == owed
    assert ("candidates-unchecked" in [r.code for r in report.finish.remaining]) == bool(owed)


@pytest.mark.parametrize(
    ("working", "code", "words"),
    [
        (Working("solve", "x^x = 3"), "scope", "positive number"),
        (Working("solve", "2^x = x"), "scope", "exponent"),
        (Working("simplify", "2^(x^5)"), "scope", "degree"),
        (Working("evaluate", "√-4"), "task", "undefined"),
        (Working("simplify", "(x+1"), "syntax", "closed"),
        (Working("simplify", "5/0"), "task", "divides by zero"),
        (Working("solve", "x + 1"), "task", "equation"),
        (Working("simplify", "x = 1"), "task", "expression"),
        (Working("simplify", "(x+y+z)^99"), "limit", "terms"),
        (Working("simplify", "x^5000"), "limit", "100"),
        (Working("simplify", "9^99999"), "limit", "digits"),
        (Working("guess", "x"), "task", "guess"),
        (Working("simplify", "x", conventions={"colour": "red"}), "task", "colour"),
    ],
)
def test_what_can_not_be_taken_is_refused_with_its_reason(working, code, words):
    error = check(working).error
    assert error.code == code
    assert words in error.message


def test_lines_after_an_unreadable_one_are_checked_against_the_last_readable_one():
    report = judged("solve", "x^2 - 4 = 0", "x^2 = ", "sin x = 3", "x = 2 or x = -2")
    assert [link.relation for link in report.links] == [None, None, "holds"]
    assert (report.error.line, report.error.column) == (1, 6)
    assert report.links[1].error.code == "scope"
    assert report.answer.verdict == "correct"


def test_a_link_on_an_undefined_given_is_unclear_never_right():
    report = judged("simplify", "5/0", "5/0")
    assert report.links[0].relation == "unclear"
    assert not report.sound


def test_a_link_whose_budget_is_spent_is_unclear_and_says_so(monkeypatch):
    budgets = iter([100, 0])  # enough for the given, nothing for the line
    monkeypatch.setattr("algebra.verify.check.granted", lambda: granted(next(budgets, 100)))
    report = judged("simplify", "x + x", "2x", "2x")
    assert [(link.relation, link.notes) for link in report.links] == [("unclear", ("out-of-time",)), ("holds", ())]


def test_the_text_form_holds_several_workings():
    workings = read_workings("task: solve\ngiven: x = 1 # note\n---\nx = 1\n\ntask: simplify\ngiven: 2/4\n---\n1/2\n")
    assert [(w.task, w.lines) for w in workings] == [("solve", ("x = 1",)), ("simplify", ("1/2",))]
    for bad in ("", "task: solve\n---\nx = 1", "tusk: solve\n", "task: solve\ngiven: x=1\nconventions: decimal\n---"):
        with pytest.raises(TaskError):
            read_workings(bad)


def test_the_report_is_plain_json():
    report = judged("solve", "6/(x-2) = x/4 - 1", "24 = x(x-2) - 4(x-2)   | ×4(x-2)", "x = 2")
    assert json.loads(json.dumps(json_object(report)))["links"][0]["move"]["as_stated"] is True


@pytest.mark.parametrize(
    ("task", "given", "lines", "convention", "default", "other"),
    [
        ("simplify", "7/√5", ["7/√5"], ("root_denominators", "allow"), ["root-in-denominator"], []),
        ("evaluate", "2^3", ["2^3"], ("powers", "leave"), ["power-not-evaluated"], []),
        ("solve", "x^2 = 36", ["x = ±6"], ("solutions", "plus-minus"), ["plus-minus-not-split"], []),
        ("evaluate", "3 + 1/2", ["7/2"], ("fractions", "mixed"), [], ["improper-fraction"]),
        ("evaluate", "3 + 1/2", ["3 1/2"], ("fractions", "mixed"), [], []),
        ("simplify", "x^2/x", ["x"], ("restrictions", "required"), [], ["restrictions-not-stated"]),
        ("simplify", "x^2/x", ["x", "x ≠ 0"], ("restrictions", "required"), [], []),
    ],
)
def test_each_position_of_a_convention_decides_what_is_finished(task, given, lines, convention, default, other):
    assert [r.code for r in judged(task, given, *lines).finish.remaining] == default
    assert [r.code for r in judged(task, given, *lines, conventions=dict([convention])).finish.remaining] == other


def test_decimal_comma_and_letters_under_roots_are_conventions_too():
    assert judged("evaluate", "0,5 + 1", "1,5", conventions={"decimal": "comma"}).answer.verdict == "correct"
    assert judged("simplify", "√(x^2)", "x").links[0].relation == "breaks"
    assert (
        judged("simplify", "√(x^2)", "x", conventions={"roots_of_letters": "non-negative"}).links[0].relation == "holds"
    )
    assert judged("simplify", "√(x^2)", "assume: x > 0", "x").links[1].relation == "holds"


@pytest.mark.parametrize(
    ("task", "given", "numbers", "expected"),
    [
        ("expand", "(2+3i)^2", "complex", "-5 + 12i"),
        ("factor", "(2+3i)^2", "complex", "-5 + 12i"),
        ("expand", "(x+i)(x-i)", "complex", "x^2 + 1"),
        ("expand", "(x+√2)^2", "real", "x^2 + 2 + 2x√2"),
        ("expand", "(x+2)^2", "real", "x^2 + 4x + 4"),
    ],
)
def test_what_is_expected_keeps_its_roots_and_its_i(task, given, numbers, expected):
    report = check(Working(task, given, ("1",), numbers=numbers))
    assert report.answer.expected == (expected,)
    again = check(Working(task, given, (expected,), numbers=numbers))
    assert again.answer.verdict == "correct"
