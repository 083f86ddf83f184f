"""What a worked solution is worth: how many points its lines are."""

from __future__ import annotations

from algebra.ways.solve import Solution

MOST_METHOD = 3
"""How many points of method a ready-made scheme has at most."""


def usual_marks(solution: Solution | None) -> int:
    """What a problem is worth by method and accuracy, as its worked solution shows: a point for the answer, up to three
    for the way, one for checks."""
    lines = key_lines_of(solution)
    checked = solution is not None and any(step.kind == "check" for step in solution.steps)
    return (max(1, min(MOST_METHOD, lines - 1)) if lines else 0) + 1 + checked


def key_lines_of(solution: Solution | None) -> int:
    """How many lines a worked solution has, without asides and checks."""
    if solution is None:
        return 0
    return sum(step.kind == "line" for step in solution.steps)
