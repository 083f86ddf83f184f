"""Parts worked apart: a bracket or a fraction beside other factors is worked out as an aside, then put back."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from algebra.exact.errors import ExactError
from algebra.methods.multiply_out import expand_and_combine
from algebra.methods.rational_expressions import combine_then_divide, factor_and_cancel, lcd
from algebra.methods.worked_lines import NotThisWay, Problem, Step, WorkedLines, at_grain
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

_WAYS: tuple[Callable[[Problem], WorkedLines], ...] = (lcd, combine_then_divide, factor_and_cancel)


def part_by_part(problem: Problem) -> WorkedLines:
    """x/(x - 3)·((x² - 9)/(x + 3) + 2): the bracket first, beside; then the product of what is left."""
    body = n.bare(problem.body)
    minus = isinstance(body, n.Signed) and body.sign == "-"
    product = n.bare(body.children[0]) if isinstance(body, n.Signed) else body
    if not isinstance(product, n.Product) or "÷" in product.operators:
        raise NotThisWay("There are no factors to be worked apart.")
    apart = [k for k, factor in enumerate(product.factors) if _is_work(n.bare(factor))]
    if not apart:
        raise NotThisWay("No factor has to be worked out by itself.")
    paper = WorkedLines(problem)
    factors = list(product.factors)
    for k in apart:
        factors[k] = _aside(paper, problem, n.bare(factors[k]))
    line = build.minus_if(minus, build.dotted(*factors))
    paper.write(line, "join-parts", "what was worked out beside is put back")
    for way in (factor_and_cancel, expand_and_combine):
        try:
            paper.go_on(way(paper.here))
        except (NotThisWay, ExactError):
            continue
        break
    paper.answer = [paper.line]
    return paper


def _is_work(part: n.Node) -> bool:
    """A sum with fractions in it, or a fraction with fractions inside."""
    fractions = [inner for inner in n.parts_of(part) if isinstance(inner, n.Fraction) and n.letters(inner)]
    if isinstance(part, n.Sum):
        return bool(fractions)
    return isinstance(part, n.Fraction) and len(fractions) > 1


def _aside(paper: WorkedLines, problem: Problem, part: n.Node) -> n.Node:
    """Writes the working of one part as an aside; returns what it comes to."""
    for way in _WAYS:
        try:
            found = way(problem.about(part))
        except (NotThisWay, ExactError):
            continue
        lines = [step for step in at_grain(found.steps, "board") if step.kind == "line"]
        if not lines:
            continue
        heaviest: Step = max(lines, key=lambda step: step.rule.weight)
        chain = [part, *(step.after for step in lines if step.after is not None)]
        side_work = tuple(work for step in found.steps for work in step.side_work)
        paper.steps.append(
            replace(
                heaviest,
                before=paper.line,
                after=build.equation(*chain),
                kind="aside",
                move=None,
                side_work=side_work,
                cancelled=(),
            )
        )
        return chain[-1]
    raise NotThisWay(f"{plain(part)} is not worked out here.")
