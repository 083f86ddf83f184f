"""Ready-made schemes: a point for the answer, up to three for the way, one for checks, one for excluded values."""

import pytest

from algebra import Working, scheme_for, usual_marks, work


@pytest.mark.parametrize(
    ("given", "points"),
    [
        ("3x = 12", ["method", "accuracy"]),
        ("3x + 7 = 22", ["method", "accuracy"]),
        ("x^2 - 5x + 6 = 0", ["method", "method", "accuracy"]),
        ("3(x - 2) = 12", ["method", "method", "accuracy"]),
        ("x^2 - 4x - 7 = 0", ["method", "method", "method", "accuracy"]),
        ("√(x + 6) = x", ["method", "method", "method", "accuracy", "check"]),
    ],
)
def test_points_of_method_are_lines_of_the_way_but_the_last(given, points):
    scheme = scheme_for(Working("solve", given))
    lines = sum(step.kind == "line" for step in work(Working("solve", given)).steps)
    assert scheme.points.count("method") == max(1, min(3, lines - 1))
    assert (list(scheme.points), scheme.total) == (points, len(points))
    assert usual_marks(work(Working("solve", given))) == scheme.total


@pytest.mark.parametrize(("kind", "total"), [("answer", 1), ("levels", 4), ("steps", 2), ("points", 2)])
def test_each_kind_has_its_total(kind, total):
    scheme = scheme_for(Working("solve", "3x + 7 = 22"), kind)
    assert (scheme.kind, scheme.total) == (kind, total)


def test_steps_are_five_at_most():
    assert scheme_for(Working("solve", "6/(x-2) = x/4 - 1"), "steps").total == 5


def test_a_function_has_a_step_a_feature_whatever_was_asked():
    function = Working("analyze", "(x^2-4)/(x^2-x-2)")
    assert scheme_for(function, "points") == scheme_for(function, "steps")
    assert scheme_for(function).total == 6 and scheme_for(function, "answer").total == 1


def test_excluded_values_are_a_point_where_they_are_to_be_named_and_there_are_some():
    required = {"restrictions": "required"}
    fraction = Working("simplify", "(x^2 - 9)/(x - 3)", conventions=required)
    assert scheme_for(fraction).points[-1] == "excluded"
    assert "excluded" not in scheme_for(Working("simplify", "(x^2 - 9)/(x - 3)")).points
    assert "excluded" not in scheme_for(Working("simplify", "x + x", conventions=required)).points


def test_what_is_not_worked_is_worth_its_answer():
    unworked = Working("solve", "x^5 - x - 1 = 0")
    assert (scheme_for(unworked).points, scheme_for(unworked).total) == (("accuracy",), 1)
    assert usual_marks(None) == 1
