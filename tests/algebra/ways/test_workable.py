"""Equations that no method works are seen before one is tried, and no others are taken for such."""

import pytest

from algebra import FAMILIES, Working, generate, work
from algebra.foresee import predict as predicting
from algebra.parse.lines import read_line
from algebra.reports.working import TaskError
from algebra.ways.workable import is_workable


@pytest.mark.parametrize(
    ("line", "found"),
    [
        ("x^2 + x + 1 = 0", True),
        ("x^3 = 8", True),
        ("x^5 = 243", True),
        ("2(x - 5)^4 + 1 = 33", True),
        ("(x + 1)^3 = x^3 + 3x^2 + 7", True),
        ("x^4 - 10x^2 + 1 = 0", True),
        ("x^6 - 217x^3 + 216 = 0", True),
        ("x^3 + 4x^2 - 36x - 144 = 0", True),
        ("(x^2 + x)^2 - 5(x^2 + x) + 1 = 0", True),
        ("x^3 + x + 1 = 0", False),
        ("x^3 - 60x^2 + 300x = 7", False),
        ("(x - 4)(x^3 + x + 1) = 0", False),
        ("x^4 + x = 1", False),
        ("1/x + x^2 = 3", False),
        ("x/(x - 2) + 8/(x - 5) = 5/(x^2 - 5x - 2)", False),
        ("x/(x - 2) + 8/(x - 5) = 5/(x^2 - 7x + 10)", True),
        ("√x + x^3 = 1", True),
        ("2^x = x^3 + x + 1", True),
        ("x^3 + ax + 1 = 0", True),
        ("x^3 + x ± 1 = 0", True),
        ("x^3 + x + 1", True),
        ("x = 1 or x^3 + x = 1", True),
        ("1/(x - x) = x^3", True),
        ("3 = 4", True),
    ],
)
def test_what_is_workable(line, found):
    assert is_workable(read_line(line).body) is found


@pytest.mark.parametrize("line", ["x^3 + x + 1 = 0", "(x - 4)(x^3 + x + 1) = 0", "x^4 + x = 1", "1/x + x^2 = 3"])
def test_what_is_not_has_no_solution_by_any_method(line):
    with pytest.raises(TaskError):
        work(Working("solve", line, ()))


def test_every_generated_equation_is():
    for family in FAMILIES:
        for level in range(1, len(family.levels) + 1):
            for solution in generate(family.id, level, 2, 19):
                assert is_workable(read_line(solution.working.given).body), solution.working.given


def test_a_line_that_is_come_to_again_is_worked_once(monkeypatch):
    worked = []
    real = predicting.work
    monkeypatch.setattr(
        predicting,
        "work",
        lambda working, **more: (worked.append((working.given, more.get("method"))), real(working, **more))[1],
    )
    predicting.predict(Working("solve", "4(x - 5)^3 + 5 = 261", ()))
    wrong = [given for given, method in worked if method is None]
    assert len(wrong) == len(set(wrong))


@pytest.mark.parametrize("text", ["5√2", "3/4", "x + 1"])
def test_a_finished_expression_is_its_own_solution_where_that_is_asked_for(text):
    asked = Working("simplify", text, ())
    assert work(asked).already
    with pytest.raises(TaskError):
        work(asked, as_it_stands=False)
