"""The check of a working with the slips that explain its broken links, and whether it went by the method asked for."""

from __future__ import annotations

from dataclasses import replace

from algebra.derive.diagnose import name_answer, name_slips, note_luck
from algebra.methods import catalogue
from algebra.methods.worked_lines import NotThisWay, Problem
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.report import Report
from algebra.reports.working import TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.verify import check as verdicts
from algebra.ways.solve import methods_in_order, problem_from, worked


def check(working: Working) -> Report:
    """The report on a working: the slip beside every line that does not hold, as far as one explains it, and, where the
    task names a method, the note `method-differs` on the line where another one shows. Never raises for bad input."""
    report = name_answer(verdicts.check(working))
    if any(link.relation in ("breaks", "narrows") or link.error or link.notes for link in report.links):
        report = name_slips(working, report)
    report = note_luck(working, report)
    if working.method in catalogue.BY_ID and report.error is None and report.answer.verdict == "correct":
        line = _differs(working)
        if line is not None:
            return _with_other_method(report, line, catalogue.BY_ID[working.method].name)
    return report


def _with_other_method(report: Report, line: int, asked: str) -> Report:
    links = list(report.links)
    links[line - 1] = replace(links[line - 1], notes=(*links[line - 1].notes, "method-differs"))
    text = f"The answer is right, but the task asks for another way: {asked.lower()}."
    return replace(report, links=tuple(links), answer=replace(report.answer, text=text))


def _differs(working: Working) -> int | None:
    """The first line by which another method is recognised, where the one asked for shows nowhere; else None."""
    try:
        problem = problem_from(working)
    except (TaskError, ReadingError):
        return None
    bodies = _bodies(working)
    asked = working.method or ""
    quadratic = {"factoring", "square-root", "completing-the-square", "quadratic-formula"}
    if asked in quadratic:
        seen = {number: _quadratic_sign(problem, body) for number, body in bodies}
        if any(_counts_as(asked, sign) for sign in seen.values()):
            return None
        return next((number for number, sign in seen.items() if sign), None)
    own, others = _typical_lines(problem, asked)
    if not own or any(body in own for _, body in bodies):
        return None
    return next((number for number, body in bodies if body in others), None)


def _bodies(working: Working) -> list[tuple[int, n.Node]]:
    found = []
    for number, text in enumerate(working.lines, start=1):
        try:
            line = read_line(text, decimal=working.convention("decimal"))
        except ReadingError:
            continue
        if line.body is not None and line.kind in ("equation", "expression", "statement"):
            found.append((number, line.body))
    return found


def _quadratic_sign(problem: Problem, body: n.Node) -> str:
    """What a line of a quadratic equation's working shows: product, square, formula, root, or nothing."""
    if not isinstance(body, ln.Equation) or len(body.sides) != 2:
        return ""
    unknown = n.Letter(problem.unknown)
    for own, other in (body.sides, body.sides[::-1]):
        bare = n.bare(own)
        if isinstance(bare, n.Product) and n.bare(other) == n.Integer(0):
            held = [f for f in bare.factors if problem.unknown in n.letters(f)]
            if len(held) > 1:
                return "product"
        if isinstance(bare, n.Power) and bare.exponent == n.Integer(2) and isinstance(n.bare(bare.base), n.Sum):
            return "zero-square" if n.bare(other) == n.Integer(0) else "square"
        if own == unknown and isinstance(n.bare(other), n.Fraction) and _holds_sign_and_root(other):
            return "formula"
    return ""


def _holds_sign_and_root(tree: n.Node) -> bool:
    parts = list(n.parts_of(tree))
    signed = any(
        (isinstance(p, n.Sum) and "±" in p.signs) or (isinstance(p, n.Signed) and p.sign == "±") for p in parts
    )
    return signed and any(isinstance(p, n.Root) for p in parts)


def _counts_as(asked: str, sign: str) -> bool:
    return (
        sign
        in {
            "factoring": ("product", "zero-square"),
            "square-root": ("square",),
            "completing-the-square": ("square", "zero-square"),
            "quadratic-formula": ("formula",),
        }[asked]
    )


def _typical_lines(problem: Problem, asked: str) -> tuple[set[n.Node], set[n.Node]]:
    """The lines that only the method asked for has, and those that only others have."""
    own: set[n.Node] = set()
    others: set[n.Node] = set()
    for method in methods_in_order(problem)[1]:
        try:
            lines = {step.after for step in worked(problem, method).steps if step.after and not step.subject}
        except NotThisWay:
            continue
        if method.id == asked:
            own |= lines
        else:
            others |= lines
    return own - others, others - own
