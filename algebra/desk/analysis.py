"""Features and graph of a function given as text."""

from __future__ import annotations

from dataclasses import replace

from algebra.exact.decomposition import roots_over
from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.evaluate.symbolic import value_of
from algebra.functions.features import Features, features_of
from algebra.functions.graph import graph_of
from algebra.methods.worked_lines import problem_of
from algebra.parse.errors import ReadingError
from algebra.reports.features import FeaturesReport
from algebra.reports.working import TaskError, Working
from algebra.ways.solve import error_of


def analysis(given: str, *, variable: str | None = None) -> Features:
    """The features of a rational function. Raises TaskError or ReadingError where it is none."""
    problem = problem_of(Working("analyze", given, (), variable))
    if roots_over(problem.body, problem.unknown):
        raise TaskError("Only rational functions are analysed: no roots and no bars.")
    try:
        return features_of(value_of(problem.body, problem.field), problem.unknown)
    except UndefinedValue as undefined:
        raise TaskError(f"The given is undefined: {undefined.why}.") from None
    except ExactError as outside:
        raise TaskError(outside.message) from None


def analysed(given: str, *, variable: str | None = None, with_graph: bool = False) -> FeaturesReport:
    """The features as they are given out, with the graph beside them where asked for; errors are told in the report."""
    try:
        found = analysis(given, variable=variable)
        return replace(found.report(), graph=graph_of(found)) if with_graph else found.report()
    except (TaskError, ReadingError) as problem:
        return FeaturesReport(error=error_of(problem))
    except ExactError as outside:  # a value that is too long to be written
        return FeaturesReport(error=error_of(TaskError(outside.message)))
