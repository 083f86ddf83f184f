"""The instruction as it stands over a problem."""

from __future__ import annotations

from algebra.reports.working import Working

_BY_TASK = {
    "solve": "Solve",
    "simplify": "Simplify",
    "factor": "Factor completely",
    "expand": "Multiply out",
    "evaluate": "Work out",
    "domain": "State the domain",
    "analyze": "State all features and sketch the graph",
}
_BY_METHOD = {
    "factoring": "by factoring",
    "square-root": "by square roots",
    "completing-the-square": "by completing the square",
    "quadratic-formula": "by the quadratic formula",
    "clear-by-lcd": "by clearing the denominators",
    "cross-multiply": "by cross-multiplying",
    "substitution": "by substitution",
}


def instruction(working: Working) -> str:
    """The words over a problem, without a full stop: `Solve`, `Solve for r`, `Solve by factoring`."""
    words = _BY_TASK[working.task]
    if working.task == "solve" and working.variable:
        words += f" for {working.variable}"
    how = _BY_METHOD.get(working.method or "")
    return f"{words} {how}" if how else words
