"""Problems with nothing left to do: said so, in the words of their kind."""

from __future__ import annotations

from dataclasses import replace

from algebra.methods.worked_lines import Problem
from algebra.tree import nodes as n
from algebra.verify.check import check

_BY_TASK = {
    "solve": "It is solved already.",
    "factor": "It is factored already.",
    "expand": "There is nothing to multiply out or to combine.",
}


def finished_already(problem: Problem) -> str:
    """What is said of a given that is its own finished answer: “It is in lowest terms already.”; else an empty text."""
    working = problem.working
    if working.task not in ("evaluate", "simplify", *_BY_TASK):
        return ""
    report = check(replace(working, lines=(working.given,), method=None))
    if report.error or report.answer.verdict != "correct" or not report.finish.finished:
        return ""
    body = n.bare(problem.body.children[0] if isinstance(problem.body, n.Signed) else problem.body)
    if working.task in _BY_TASK:
        return _BY_TASK[working.task]
    if isinstance(body, n.Fraction) and not any(isinstance(p, n.Root) for p in n.parts_of(body)):
        return "It is in lowest terms already."
    if not n.letters(body) and not body.children:
        return "It is worked out already."
    return "It is simplified already."
