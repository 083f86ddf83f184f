"""Whatever is typed, a check ends with a report: fuzz over trees that can be printed and over raw text."""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from algebra import Working, analysed, check, echo, json_object, work
from algebra.exact.effort import has_some
from algebra.parse.errors import ReadingError
from algebra.tree.plain import plain
from tests.algebra.parse.test_notation import TREES

TASKS = st.sampled_from(["simplify", "solve", "factor", "expand", "evaluate", "domain"])
WORDS = st.sampled_from(
    [
        "no solution",
        "all real numbers",
        "x ≠ 2",
        "prime",
        "check x = 2",
        "check x = √2: 2 = 2",
        "let u = x^2",
        "x ≈ 1.5",
        "assume: x > 0",
        "aside: √4 = 2",
        "x = 1 or x = 2",
        "{1, √2}",
        "x = ±3",
        "u = 3",
    ]
)
LINES = st.one_of(
    TREES.map(plain),
    st.tuples(TREES, TREES).map(lambda pair: f"{plain(pair[0])} = {plain(pair[1])}"),
    WORDS,
)
RAW = st.text("xyai0123456789+-*/^()[]{}|=.,√∛±≠≈÷ orcheckletf\\#", max_size=40)


@settings(max_examples=100, suppress_health_check=[HealthCheck.too_slow])
@given(TASKS, LINES, st.lists(st.one_of(LINES, RAW), max_size=4), st.sampled_from(["real", "complex"]))
def test_a_check_always_ends_with_a_report(task, given_line, lines, numbers):
    report = check(Working(task, given_line, tuple(lines), variable="x" if task == "solve" else None, numbers=numbers))
    assert len(report.links) == len(lines)
    assert json_object(report)["format"] == 1


@settings(max_examples=150)
@given(RAW)
def test_an_echo_is_given_or_its_place_is_named(text):
    try:
        assert echo(text).kind
    except ReadingError as problem:
        assert problem.column >= 1


@pytest.mark.parametrize(
    "line",
    [
        "(x+y+1)^60 - (x+y+1)^60",
        "√" * 30 + "x",
        "2^2^2^2^2^2",
        "((((x^90)^90)^90)^90)",
        "1/" * 35 + "x",
        "x" + "·√x" * 90,
    ]
    + ["9^(1/7)·8^(1/11)·7^(1/12)", "√2+√3+√5+√7+√11+√13+√17+√19+√23+√29+√31+√37+√41+√43+√47+√53+√59+√61+√67"],
)
def test_what_is_too_large_is_refused_not_worked_on(line):
    report = check(Working("simplify", line, (line,)))
    assert report.links[0].relation in (None, "holds", "unclear")


def test_a_budget_ends_with_the_check_it_was_granted_to():
    check(Working("solve", "√(x+6) = x", ("x + 6 = x^2",)))
    work(Working("solve", "√(x+6) = x"))
    assert has_some()
    assert analysed("(x^2-4)/(x^2-x-2)").error is None
