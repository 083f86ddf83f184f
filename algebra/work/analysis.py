"""Features and graph of a function given as text."""

from __future__ import annotations

from typing import Any

from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.values import value_of
from algebra.functions.features import Features, features_of
from algebra.functions.graph import graph_of
from algebra.methods.paper import problem_of
from algebra.model import FORMAT, TaskError, Working
from algebra.parse.errors import ReadingError


def analysis(given: str, *, variable: str | None = None) -> Features:
    """The features of a rational function. Raises TaskError or ReadingError where it is none."""
    problem = problem_of(Working("analyze", given, (), variable))
    try:
        return features_of(value_of(problem.body, problem.field), problem.unknown)
    except UndefinedValue as undefined:
        raise TaskError(f"The given is undefined. {undefined.message}") from None
    except (ExactError, KeyError) as outside:
        raise TaskError(getattr(outside, "message", "This is no rational function of one letter.")) from None


def analysis_json(given: str, *, variable: str | None = None, with_graph: bool = False) -> dict[str, Any]:
    """The shape of `analyse --json`, with the graph beside it where asked for; errors are told in it."""
    try:
        found = analysis(given, variable=variable)
    except (TaskError, ReadingError) as problem:
        error = {
            "line": 0, "column": getattr(problem, "column", 1), "message": getattr(problem, "message", str(problem)),
            "code": getattr(problem, "code", "task"),
        }  # fmt: skip
        return {
            "format": FORMAT, "excluded": [], "holes": [], "vertical_asymptotes": [], "horizontal_asymptote": None, "oblique_asymptote": None,
            "x_intercepts": [], "y_intercept": None, "end_behaviour": {}, "range": None, "grid_points": [], "error": error,
        }  # fmt: skip
    return found.to_json() | ({"graph": graph_of(found)} if with_graph else {})
