"""Tasks that name a method: whether a right working went another way."""

from __future__ import annotations

import time
from dataclasses import replace

from algebra.exact.errors import ExactError
from algebra.methods import catalogue
from algebra.methods.paper import NotThisWay, Problem
from algebra.model import Report, TaskError, Working
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.chain import check
from algebra.work.diagnose import name_slips
from algebra.work.solve import STUMBLES, methods_in_order, problem_from, worked


def check_with_method(working: Working) -> Report:
    """The check with the slips that explain broken links, and, where the task names a method, the note `method-differs`
    on the line where another one shows."""
    report = check(working)
    if any(link.relation in ("breaks", "narrows") or link.error for link in report.links):
        started = time.perf_counter()
        try:
            name_slips(working, report)
        except (ExactError, *STUMBLES):
            pass  # the verdicts stand; what can't be explained is not
        report.ms += (time.perf_counter() - started) * 1000
    if working.method is None:
        return report
    started = time.perf_counter()
    if working.method not in catalogue.BY_ID:
        return report
    if report.error is None and report.answer.verdict == "correct":
        line = _differs(working)
        if line is not None:
            name = catalogue.BY_ID[working.method].name
            report.links[line - 1].notes.append("method-differs")
            report.answer = replace(
                report.answer, text=f"The answer is right, but the task asks for another way: {name.lower()}."
            )
    report.ms += (time.perf_counter() - started) * 1000
    return report


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
    written = [(number, plain(body).replace(" ", "")) for number, body in bodies]
    if not own or any(text in own for _, text in written):
        return None
    return next((number for number, text in written if text in others), None)


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
    return sign in {
        "factoring": ("product", "zero-square"), "square-root": ("square",), "completing-the-square": ("square", "zero-square"),
        "quadratic-formula": ("formula",),
    }[asked]  # fmt: skip


def _typical_lines(problem: Problem, asked: str) -> tuple[set[str], set[str]]:
    """The lines that only the method asked for has, and those that only others have."""
    own: set[str] = set()
    others: set[str] = set()
    for method in methods_in_order(problem)[1]:
        try:
            lines = {step.after.replace(" ", "") for step in worked(problem, method).steps}
        except NotThisWay:
            continue
        if method.id == asked:
            own |= lines
        else:
            others |= lines
    return own - others, others - own
