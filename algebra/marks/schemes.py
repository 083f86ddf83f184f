"""Ready-made schemes: how a problem is marked, as its worked solution shows."""

from __future__ import annotations

from dataclasses import replace

from algebra.derive.check import check
from algebra.parse.errors import ReadingError
from algebra.reports.marking import PointKind, Scheme, SchemeKind
from algebra.reports.working import EXPRESSION_TASKS, TaskError, Working
from algebra.ways.solve import Solution, work
from algebra.ways.worth import MOST_METHOD, key_lines_of


def scheme_for(working: Working, kind: SchemeKind = "points") -> Scheme:
    """A ready-made scheme for a problem, from its worked solution. Never raises: what is not worked is worth one point
    for its answer."""
    try:
        solution: Solution | None = work(replace(working, lines=()), method=working.method)
    except (TaskError, ReadingError):
        solution = None
    lines = key_lines_of(solution)
    if working.task == "analyze" and kind in ("points", "steps"):  # a point for each feature
        return Scheme("steps", max(1, len(solution.answer) if solution else 1))
    match kind:
        case "answer":
            return Scheme("answer", 1)
        case "levels":
            return Scheme("levels", 4)
        case "steps":
            return Scheme("steps", max(1, min(5, lines)))
    points: list[PointKind] = ["method"] * max(1, min(MOST_METHOD, lines - 1)) if lines else []
    points.append("accuracy")
    if solution is not None and any(step.kind == "check" for step in solution.steps):
        points.append("check")
    named = working.convention("restrictions") == "required" and working.task in EXPRESSION_TASKS
    if named and check(replace(working, lines=())).excluded:
        points.append("excluded")
    return Scheme("points", len(points), tuple(points))
