"""Worked solutions: every line passes the product's own check, and the answer is the oracle's, on generated
problems."""

import os
import random
import re
from pathlib import Path

import pytest
import sympy as sp

from algebra import Working, check
from algebra.families import FAMILIES, Draw
from algebra.methods.catalogue import BY_ID, METHODS
from algebra.methods.worked_lines import GRAINS, at_grain
from algebra.parse.lines import read_expression, read_line
from algebra.ways.solve import Unsolved, all_methods, problem_from, work, worked
from tests.algebra.ranked_pairs import PAIRS
from tests.oracle.test_differential import to_sympy

LONG = os.environ.get("UCHUU_LONG") == "1"
COUNT = 400 if LONG else 12
LEVELS = [(family, level) for family in FAMILIES for level in range(1, len(family.levels) + 1)]
X = sp.Symbol("x", real=True)


def drawn(family, level, count):
    """Problems of a level, each once, the same at every run."""
    draw = Draw(random.Random(f"{family.id} {level}"))
    return list(dict.fromkeys(family.make(draw, level) for _ in range(count)))


def report_of(solution, steps):
    working = solution.working
    return check(Working(working.task, working.given, tuple(s.text for s in steps), working.variable, working.numbers))


@pytest.mark.parametrize(("family", "level"), LEVELS, ids=lambda value: getattr(value, "id", value))
def test_every_line_of_every_worked_solution_passes_the_check(family, level):
    for given in drawn(family, level, COUNT):
        for solution in all_methods(Working(family.task, given, (), variable=family.unknown, numbers=family.numbers)):
            for grain in GRAINS:
                report = report_of(solution, at_grain(solution.all_steps, grain))
                context = (given, solution.method, grain)
                assert report.answer.verdict == "correct", context
                assert {link.relation for link in report.links} <= {"holds", "widens", "settles"}, context
                assert not report.finish.remaining, (*context, report.finish.remaining)
                assert not report.owed, context
                assert all(link.move is None or link.move.as_stated is not False for link in report.links), context


@pytest.mark.parametrize(("family", "level"), LEVELS, ids=lambda value: getattr(value, "id", value))
def test_a_generated_problem_is_of_its_family_and_can_be_worked(family, level):
    for given in drawn(family, level, COUNT):
        assert (
            work(Working(family.task, given, (), variable=family.unknown, numbers=family.numbers)).family == family.id
        ), given


SOLVED = (
    "linear-equations",
    "quadratic-equations",
    "rational-equations",
    "radical-equations",
    "absolute-equations",
    "polynomial-equations",
)


@pytest.mark.parametrize("family", [f for f in FAMILIES if f.id in SOLVED], ids=lambda f: f.id)
def test_the_solutions_are_those_of_the_oracle(family):
    compared = 0
    for level in range(1, len(family.levels) + 1):
        for given in drawn(family, level, COUNT // 2):
            left, right = (to_sympy(read_expression(side)) for side in given.split(" = "))
            try:
                found = sp.solveset(left - right, X, sp.S.Reals)
            except (NotImplementedError, ValueError, TypeError):
                continue
            ours = work(Working("solve", given)).answer
            if found is sp.S.Reals:
                assert ours == ("all",)
            elif isinstance(found, sp.FiniteSet) or found is sp.S.EmptySet:
                # the oracle keeps values at which its own simplified form is defined though the given is not
                kept = {v for v in found if all(side.subs(X, v).is_finite for side in (left, right))}
                values = [to_sympy(read_expression(v)) for v in ours]
                assert len(values) == len(kept), (given, ours, kept)
                assert all(any(abs(sp.N(v - w, 30)) < 1e-20 for w in kept) for v in values), (given, ours, kept)
                compared += 1
    assert compared > 5


EXPRESSIONS = (
    "exponents",
    "add-rational",
    "reduce-rational",
    "complex-fractions",
    "multiply-out",
    "factor",
    "roots",
    "rationalise",
    "order-of-operations",
)


@pytest.mark.parametrize("family", [f for f in FAMILIES if f.id in EXPRESSIONS], ids=lambda f: f.id)
def test_the_expressions_are_equal_by_the_oracle(family):
    for level in range(1, len(family.levels) + 1):
        for given in drawn(family, level, COUNT // 2):
            answer = work(Working(family.task, given)).answer[-1]
            if answer == "prime":
                poly = sp.Poly(to_sympy(read_expression(given)))
                assert poly.is_irreducible, given
                continue
            difference = to_sympy(read_expression(given)) - to_sympy(read_expression(answer))
            for value in (sp.Rational(7, 3), sp.Rational(17, 5)):
                point = {s: value + k for k, s in enumerate(sorted(difference.free_symbols, key=str))}
                assert abs(sp.N(difference.subs(point), 30)) < 1e-20, (given, answer)


@pytest.mark.parametrize("method", METHODS, ids=lambda m: m.id)
def test_the_example_of_a_method_is_worked_by_it(method):
    task, given = method.example
    solution = work(Working(task, given, numbers=method.numbers), method=method.id)
    assert solution.method == method.id
    assert all(step.reason and not step.reason.count("{") for step in solution.steps)


@pytest.mark.parametrize("family", FAMILIES, ids=lambda f: f.id)
def test_a_family_names_methods_that_exist_and_works_its_example_by_the_first_that_fits(family):
    ids = [m.id for m in METHODS]
    assert set(family.methods) <= set(ids)
    solution = work(Working(family.task, family.example, (), variable=family.unknown, numbers=family.numbers))
    assert solution.family == family.id
    assert solution.method in family.methods


@pytest.mark.parametrize(
    ("task", "given", "method", "answer"),
    [
        ("solve", "6/(x-2) = x/4 - 1", "clear-by-lcd", {"8", "-2"}),
        ("solve", "x/(x-3) = 3/(x-3)", "common-denominator", set()),
        ("solve", "√(x+6) = x", "isolate-and-square", {"3"}),
        ("solve", "x^2 - 4x - 7 = 0", "completing-the-square", {"2 + √11", "2 - √11"}),
        ("solve", "8^x·2^(x - 2) = 1/8", "common-base", {"-1/4"}),
        ("solve", "x^2 + 25 = 0", "square-root", set()),
        ("solve", "2(x+1) = 2x + 2", "simplify-then-undo", {"all"}),
        ("factor", "x^2 + x + 7", "sum-product", {"prime"}),
        ("simplify", "(x-5)/(5-x)", "factor-and-cancel", {"-1"}),
        ("simplify", "(2^(n+3) + 2^n)/2^n", "exponent-laws", {"9"}),
        ("domain", "(x-1)/((x-1)(x+3))", "factor-denominator", {"-3", "1"}),
    ],
)
def test_answers_that_teachers_know(task, given, method, answer):
    assert set(work(Working(task, given), method=method).answer) == answer


def test_complex_solutions_where_numbers_are_complex():
    found = work(Working("solve", "x^2 + 4x + 13 = 0", (), numbers="complex"), method="quadratic-formula")
    assert found.answer == ("-2 + 3i", "-2 - 3i")


def test_a_method_that_does_not_lead_to_the_answer_says_why():
    with pytest.raises(Unsolved, match="sum"):
        work(Working("solve", "3/x + 1/(x+2) = 2"), method="cross-multiply")


@pytest.mark.parametrize(
    ("conventions", "given", "last"),
    [
        ({"solutions": "plus-minus"}, "x^2 - 4x - 7 = 0", "x = 2 ± √11   | +2"),
        ({}, "x^2 - 4x - 7 = 0", "x = 2 + √11 or x = 2 - √11"),
        ({"moves": "carried"}, "3x + 5 = 20", "x = 5"),
    ],
)
def test_conventions_reach_the_lines(conventions, given, last):
    method = "completing-the-square" if "^2" in given else None
    assert work(Working("solve", given, (), conventions=conventions), method=method).lines[-1] == last


def test_numbers_are_written_by_the_conventions():
    assert work(Working("evaluate", "3/4 + 3/2", (), conventions={"fractions": "mixed"})).answer == ("2 1/4",)
    assert work(Working("simplify", "(2x^3)^4", (), conventions={"powers": "leave"})).answer == ("2^4x^12",)


def test_what_the_class_has_not_been_taught_is_passed_over_or_flagged():
    given = Working("solve", "x^2 - 6x - 16 = 0")
    assert work(given, untaught=["factoring"]).method == "completing-the-square"
    everything = [m.id for m in METHODS]
    assert "factoring" in work(given, untaught=everything).not_yet


@pytest.mark.parametrize(("task", "easier", "harder", "why"), PAIRS)
def test_difficulty_orders_as_a_teacher_would(task, easier, harder, why):
    first, second = (work(Working(task, given)).difficulty for given in (easier, harder))
    assert first.rating < second.rating, why
    assert 1 <= first.rating <= 10
    assert set(first.parts) == {"steps", "search", "numbers", "noticing", "length"}


def test_finer_grains_have_more_lines():
    problem = problem_from(Working("solve", "3(x - 2) + 4 = 5x - 8"))
    method = next(m for m in METHODS if m.id == "simplify-then-undo")
    counts = [len(at_grain(worked(problem, method).steps, grain)) for grain in GRAINS]
    assert counts == sorted(counts, reverse=True)
    assert counts[0] > counts[2]


def _blocks():
    """(task, letter, method, given, lines) of every worked solution that is kept."""
    text = (Path(__file__).parents[1] / "corpus" / "worked.txt").read_text(encoding="utf-8")
    for block in text.split("\n\n"):
        head, *lines = [line for line in block.splitlines() if not line.startswith("#")] or [""]
        found = re.fullmatch(r"(\w+)(?: for (\w))? by ([\w-]+): (.*)", head)
        if found:
            yield pytest.param(*found.groups(), [line.strip() for line in lines], id=f"{found[3]}: {found[4]}")


@pytest.mark.parametrize(("task", "letter", "method", "given", "lines"), list(_blocks()))
def test_a_solution_reads_as_it_did_when_a_person_last_read_it(task, letter, method, given, lines):
    solution = work(Working(task, given, (), variable=letter), method=method)
    assert [step.text for step in solution.steps] == lines


@pytest.mark.parametrize(("task", "letter", "method", "given", "lines"), list(_blocks()))
def test_a_line_is_the_tree_that_its_text_reads_as(task, letter, method, given, lines):
    problem = problem_from(Working(task, given, (), variable=letter))
    for step in worked(problem, BY_ID[method]).steps:
        read = read_line(step.text)
        assert (read.body, read.subject) == (step.after, step.subject), step.text


UNLIKE_A_BOOK = re.compile(r"(?<![\d.^/])1(?:√|·|[a-z(])|\+ -|- -|\^1(?!\d)|/1(?!\d)")


@pytest.mark.parametrize(("family", "level"), LEVELS, ids=lambda value: getattr(value, "id", value))
def test_a_drawn_problem_is_written_as_in_a_book(family, level):
    for given in drawn(family, level, 150):
        assert not UNLIKE_A_BOOK.search(given), given


BEYOND = [
    # problems of other shapes than the generators make: (task, given, the answer)
    ("simplify", "x/(x-3)·((x^2-9)/(x+3) + 2)", "x(x-1)/(x-3)"),
    ("simplify", "2·(1/x + 1/y)/(1/x - 1/y)", "-2(x+y)/(x-y)"),
    ("simplify", "-4((x^2-1)/(x+1) - 3)", "16-4x"),
    ("simplify", "(x+1)(1/x + 1/(x+1))", "(2x+1)/x"),
    ("solve", "3^(x+1) + 3^x = 36", "x = 2"),
    ("solve", "2^(x^2-3x) = 1/4", "x = 1 or x = 2"),
    ("solve", "25^x = 5^(x^2 - 3)", "x = 3 or x = -1"),
    ("solve", "(2/3)^(2x-1) = (9/4)^(x+2)", "x = -3/4"),
    ("solve", "√(2^x) = 8", "x = 6"),
    ("solve", "10^(2x) - 11·10^x + 10 = 0", "x = 0 or x = 1"),
    ("solve", "x·2^x - 4x + 2^x - 4 = 0", "x = -1 or x = 2"),
    ("solve", "x^2·3^x - 9·3^x = 0", "x = 3 or x = -3"),
    ("solve", "x·2^x = 3·2^x", "x = 3"),
    ("solve", "(x/(x+1))^2 - 5(x/(x+1)) + 6 = 0", "x = -2 or x = -3/2"),
    ("solve", "x^(2/3) = 4", "x = 8 or x = -8"),
    ("solve", "(x+1)^(3/2) = 8", "x = 3"),
]


@pytest.mark.parametrize(("task", "given", "answer"), BEYOND)
def test_problems_of_other_shapes_are_worked_too(task, given, answer):
    solution = work(Working(task, given))
    report = check(Working(task, given, (*solution.lines, answer)))
    assert {link.relation for link in report.links} <= {"holds", "widens", "settles"}
    assert report.answer.verdict == "correct"


@pytest.mark.parametrize(
    ("task", "given", "last"),
    [
        ("solve", "2x = 7", "x = 3 1/2"),
        ("solve", "(2x+7)(x-3) = 0", "x = -3 1/2 or x = 3"),
        ("evaluate", "3/4 + 3/2", "2 1/4"),
        ("solve", "2x = 1", "x = 1/2"),
    ],
)
def test_mixed_numbers_are_written_where_the_convention_asks_for_them(task, given, last):
    working = Working(task, given, conventions={"fractions": "mixed"})
    solution = work(working)
    assert solution.lines[-1].partition("   |")[0] == last
    assert check(Working(task, given, solution.lines, conventions={"fractions": "mixed"})).finish.finished
