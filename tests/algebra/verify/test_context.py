"""What a working is evaluated in: its letters, its unknown, its field; and how expressions are compared there."""

import pytest

from algebra import TaskError, Working, check
from algebra.exact.effort import granted
from algebra.parse.lines import read_line
from algebra.verify.comparison import Comparison
from algebra.verify.context import context_of
from algebra.verify.evaluator import Evaluator


def context(task, given, *lines, **more):
    return context_of(Working(task, given, lines, **more), read_line(given), [read_line(line) for line in lines])


def compared(given, before, after, **more):
    found = context("simplify", given, before, after, **more)
    evaluator, comparison = Evaluator(found), Comparison(found)
    with granted():
        first, second = (evaluator.expression(read_line(text).body) for text in (before, after))
        return comparison.compare(first, second)


@pytest.mark.parametrize(
    ("task", "given", "variable", "unknown", "letters"),
    [
        ("solve", "2x = 4", None, "x", ["x"]),
        ("solve", "2y = 4", None, "y", ["y"]),
        ("solve", "a x = 4", "x", "x", ["a", "x"]),
        ("solve", "a x = 4", "a", "a", ["a", "x"]),
        ("simplify", "2 + 3", None, "x", []),
        ("simplify", "b + a", None, "a", ["a", "b"]),
        ("solve", "4 = 4", None, "x", []),
    ],
)
def test_the_unknown_and_the_letters(task, given, variable, unknown, letters):
    found = context(task, given, variable=variable)
    assert (found.unknown, found.letters) == (unknown, letters)


def test_several_letters_need_one_to_be_named():
    with pytest.raises(TaskError, match="name the one to solve for"):
        context("solve", "a x = 4")


def test_too_many_letters_are_refused():
    with pytest.raises(TaskError, match="different letters"):
        context("simplify", " + ".join("abcdefghjklmnopqrstuvwxyz"))


@pytest.mark.parametrize(
    ("given", "lines", "numbers", "needs_cells"),
    [
        ("(x+1)/(x-1)", (), "real", False),
        ("√x", (), "real", True),
        ("|x|", (), "real", True),
        ("2^x", (), "real", True),
        ("x", ("√2",), "real", True),
        ("x", (), "complex", False),
        ("x^2", ("3i",), "complex", True),
    ],
)
def test_cells_are_kept_only_where_they_are_asked_for(given, lines, numbers, needs_cells):
    found = context("simplify", given, *lines, numbers=numbers)
    assert (found.home is not None) == needs_cells or numbers == "complex"


@pytest.mark.parametrize(
    ("lines", "conventions", "signs"),
    [
        ((), {}, {}),
        ((), {"roots_of_letters": "non-negative"}, {"a": 1, "b": 1}),
        (("assume a > 0",), {}, {"a": 1}),
        (("assume a ≥ 0",), {}, {"a": 1}),
        (("assume a, b > 0",), {}, {"a": 1, "b": 1}),
        (("assume a > 0 and b < 0",), {}, {"a": 1, "b": -1}),
        (("assume a > 0, b < 0",), {}, {"a": 1, "b": -1}),
        (("assume 0 < a < 5",), {}, {"a": 1}),
        (("assume a < 0",), {}, {"a": -1}),
        (("assume -2a > 6",), {}, {"a": -1}),
        (("assume a > -1",), {}, {}),
        (("assume a ≠ 0",), {}, {}),
        (("assume a > b",), {}, {}),
        (("assume a = 2",), {}, {}),
    ],
)
def test_signs_of_letters_that_are_assumed(lines, conventions, signs):
    assert context("simplify", "√(a b)", *lines, conventions=conventions).assumed.signs == signs


@pytest.mark.parametrize(
    ("given", "line", "isolates"),
    [
        ("2x = 4", "x = 2", True),
        ("2x = 4", "2 = x", True),
        ("2x = 4", "2x = 4", False),
        ("2x = 4", "x = 4 - x", False),
        ("2x = 4", "(x) = 2", True),
    ],
)
def test_whether_the_unknown_stands_alone(given, line, isolates):
    assert context("solve", given, line).isolates(read_line(line).body) is isolates


@pytest.mark.parametrize(
    ("given", "line", "roots"),
    [("√x", "√x", True), ("√x", "x + 1", False), ("√x", "2^x", True), ("√x", "x^3", False), ("√x", "|x|", True)],
)
def test_whether_a_line_holds_more_than_rational_functions(given, line, roots):
    assert context("simplify", given, line).has_roots(read_line(line).body) is roots


@pytest.mark.parametrize(
    ("before", "after", "relation"),
    [
        ("(x^2-1)/(x-1)", "x + 1", "holds"),
        ("(x^2-1)/(x-1)", "x - 1", "breaks"),
        ("√(x^2)", "|x|", "holds"),
        ("√(x^2)", "x", "breaks"),
        ("√x·√x", "x", "holds"),
        ("√(x-1)", "√(1-x)", "breaks"),
        ("√(-1-x^2)", "x", "unclear"),
    ],
)
def test_two_expressions(before, after, relation):
    found, sample = compared(before, before, after)
    assert found == relation
    if relation == "breaks" and "√" in before + after:
        assert set(sample) == {"x"}


def test_a_comparison_is_made_once():
    found = context("simplify", "√(x^2)", "|x|")
    evaluator, comparison = Evaluator(found), Comparison(found)
    with granted():
        first, second = (evaluator.expression(read_line(text).body) for text in ("√(x^2)", "|x|"))
        assert comparison.equal(first, second)
        assert comparison.compare(first, second) is comparison.compare(first, second)
        assert comparison.is_defined(first)


@pytest.mark.parametrize(
    ("given", "line", "conditions"),
    [
        ("a x = b", "x = b/a", ("a ≠ 0",)),
        ("a x + b x = c", "x = c/(a+b)", ("a ≠ -b",)),
        ("x + a = b", "x = b - a", ()),
        ("v = √(2gx)", "v^2 = 2gx", ("v ≥ 0",)),
        ("x^2 = a", "x = ±√a", ("a ≥ 0",)),
        ("2x = a", "x = a/2", ()),
    ],
)
def test_what_a_step_needs_of_other_letters(given, line, conditions):
    found = check(Working("solve", given, (line,), "x")).links[0]
    assert found.relation == "holds"
    assert found.conditions == conditions


@pytest.mark.parametrize(
    ("task", "given", "line", "words"),
    [
        ("solve", "x + 1", "x = 1", "equation"),
        ("simplify", "x = 1", "x", "expression"),
        ("domain", "1/x", "hole: (1, 2)", "belongs to the task analyze"),
        ("domain", "x = 1/x", "x + 1", "a statement of the domain is expected"),
    ],
)
def test_what_does_not_belong_to_a_task_is_refused_at_its_place(task, given, line, words):
    report = check(Working(task, given, (line,)))
    error = report.error or report.links[0].error
    assert words in error.message


@pytest.mark.parametrize(
    ("given", "lines", "verdict"),
    [
        ("1/(x-2)", ["x ≠ 2"], "correct"),
        ("1/(x-2)", ["domain: x ≠ 2"], "correct"),
        ("1/(x-2)", ["x - 2 = 0", "x = 2", "x ≠ 2"], "correct"),
        ("1/((x-2)(x+1))", ["x ≠ 2"], "incomplete"),
        ("1/(x-2)", ["x ≠ 3"], "wrong"),
        ("√(x-2)", ["x ≥ 2"], "correct"),
        ("√(x-2)", ["x > 2"], "wrong"),
        ("x + 1", ["all real numbers"], "correct"),
        ("1/(x-2)", [], "none"),
        ("6/(x-2) = x", ["x ≠ 2"], "correct"),
    ],
)
def test_the_domain_as_a_task(given, lines, verdict):
    assert check(Working("domain", given, tuple(lines))).answer.verdict == verdict


@pytest.mark.parametrize(
    ("odd", "said"),
    [
        ("a + b + c + d + e + f + g + h = 1", "More than 8 different letters occur."),
        ("foo bar baz qux", "These words have no meaning here; put | before a remark."),
    ],
)
def test_an_odd_line_is_refused_and_the_others_are_judged(odd, said):
    report = check(Working("solve", "3^(-x) = 81", (odd, "3^(-x) = 3^4", "x = 4")))
    assert [link.relation for link in report.links] == [None, "holds", "breaks"]
    assert report.links[0].error.message == said


def test_letters_are_counted_over_all_lines():
    report = check(Working("simplify", "a + b + c + d", ("a + b + e + f + g + h", "a + k", "a + b")))
    assert [link.error is not None for link in report.links] == [False, True, False]
