"""Absolute value equations: the bars alone, then two cases."""

from __future__ import annotations

from algebra.methods.linear import simplify_sides, undo
from algebra.methods.paper import BRIEF, NotThisWay, Paper, Problem
from algebra.methods.quadratic import poly_of
from algebra.methods.radical_equations import check_text
from algebra.methods.terms import Poly, number, opposite, shown, terms_of, wrapped
from algebra.reports.side_work import Candidate
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def two_cases(problem: Problem) -> Paper:
    """|A| = c as A = c or A = −c, with the candidates checked where the other side holds the unknown."""
    left, right = problem.sides()
    bars = {
        p
        for side in (left, right)
        for p in n.parts_of(side)
        if isinstance(p, n.Absolute) and problem.unknown in n.letters(p)
    }
    if not bars:
        raise NotThisWay("No bars hold the unknown.")
    paper = Paper(problem)
    inner, other, both = _isolated(paper, left, right)
    x = problem.unknown
    value = other.numbers
    if not both and value is not None and other.degree == 0:
        if value[0] < 0:
            paper.write(
                "no solution",
                "bars-never-negative",
                f"it can't be {number(value[0])}",
                shown_at=BRIEF,
                noticed=("no solution",),
            )
            return paper
        if value[0] == 0:
            if inner.degree != 1:
                raise NotThisWay("The inside of the bars is not linear.")
            paper.write(f"{inner} = 0", "two-cases", str(inner))
            _solve_case(paper)
            paper.write(f"{x} = {paper.answer[0]}", "read-solution", "the inside is 0", shown_at=BRIEF)
            return paper
    minus = Poly([-c for c in other.parts], x)
    paper.write(f"{inner} = {other} or {inner} = {minus}", "two-cases", str(inner))
    answers = []
    for side in (other, minus):
        difference = Poly.of(inner.value - side.value, x)
        if difference.degree > 1:
            raise NotThisWay("A case is not linear.")
        if difference.degree == 0:
            if difference.is_zero:
                raise NotThisWay("One case is true for every value; the solution is an interval.")
            continue
        answers.append(shown(-difference[0] / difference[1]))
    answers = list(dict.fromkeys(answers))
    if not answers:
        paper.write("no solution", "contradiction", "neither case", shown_at=BRIEF)
        return paper
    text = " or ".join(f"{x} = {v}" for v in answers)
    paper.write(text, "read-solution", "each case is solved by itself", shown_at=BRIEF)
    paper.answer = answers
    if other.degree and not both:
        _checked(paper, answers)
    return paper


def _checked(paper: Paper, answers: list[str]) -> None:
    x = paper.problem.unknown
    kept = []
    for v in answers:
        claim, holds = check_text(paper.problem, v)
        paper.write(f"check {x} = {v}: {claim}", "check-candidate", f"{x} = {v} {'solves' if holds else 'does not solve'} the given.",
                    kind="check", shown_at=BRIEF, side=[Candidate(v, claim, holds)])  # fmt: skip
        if holds:
            kept.append(v)
    if len(kept) < len(answers):
        lost = [v for v in answers if v not in kept]
        paper.answer = kept
        text = " or ".join(f"{x} = {v}" for v in kept) if kept else "no solution"
        paper.write(text, "keep-what-solves", f"{x} = {' and '.join(lost)} solves only its case, not the given.", shown_at=BRIEF,
                    noticed=("extraneous",))  # fmt: skip


def _isolated(paper: Paper, left: n.Node, right: n.Node) -> tuple[Poly, Poly, bool]:
    """The inside of the bars, the other side, and whether that side is an absolute value too."""
    problem = paper.problem
    x = problem.unknown
    bare = [n.bare(side) for side in (left, right)]
    if all(isinstance(side, n.Absolute) for side in bare):
        inner, other = (Poly.of(problem.value(side.children[0]), x) for side in bare)
        return inner, other, True
    own, rest, own_left = (
        (left, right, True) if any(isinstance(p, n.Absolute) for p in n.parts_of(left)) else (right, left, False)
    )
    if any(isinstance(p, n.Absolute) for p in n.parts_of(rest)):
        raise NotThisWay("Bars stand on both sides beside other terms.")
    field = problem.field
    outside, scale, held = field.constant(0), field.constant(1), None
    for sign, term in terms_of(own):
        if not any(isinstance(p, n.Absolute) for p in n.parts_of(term)):
            outside = outside - problem.value(term) if sign == "-" else outside + problem.value(term)
            continue
        if held is not None:
            raise NotThisWay("Several absolute values stand together.")
        inner_term = n.bare(term)
        factors = (
            inner_term.factors
            if isinstance(inner_term, n.Product) and "÷" not in inner_term.operators
            else (inner_term,)
        )
        if isinstance(inner_term, n.Fraction):
            factors = (inner_term.numerator,)
            scale = scale / problem.value(inner_term.denominator)
        for factor in factors:
            if isinstance(n.bare(factor), n.Absolute):
                held = n.bare(factor)
            else:
                scale = scale * problem.value(factor)
        if sign == "-":
            scale = -scale
    if held is None:
        raise NotThisWay("The bars are no term of their own.")
    goal = problem.value(rest)
    bars = plain(held)

    def line(a: str, b: str) -> str:
        return f"{a} = {b}" if own_left else f"{b} = {a}"

    def with_scale() -> str:
        c = shown(scale)
        return bars if c == "1" else f"-{bars}" if c == "-1" else f"{wrapped(c) if '/' in c else c}{bars}"

    if not outside.is_zero:
        what = shown(outside)
        minus = what.startswith("-")
        what = opposite(what) if minus else what
        goal = goal - outside
        paper.write(line(with_scale(), str(Poly.of(goal, x))), "add-to-both-sides" if minus else "subtract-from-both-sides", what,
                    move=f"{'+' if minus else '-'}{wrapped(what)}")  # fmt: skip
    if scale.constant != 1:
        what = shown(scale)
        goal = goal / scale
        if scale.constant is not None and scale.constant.denominator != 1:
            what = number(1 / scale.constant)
            paper.write(line(bars, str(Poly.of(goal, x))), "multiply-both-sides", what, move=f"×{wrapped(what)}")
        else:
            paper.write(line(bars, str(Poly.of(goal, x))), "divide-both-sides", what, move=f"÷{wrapped(what)}")
    return Poly.of(problem.value(held.children[0]), x), Poly.of(goal, x), False


def _solve_case(paper: Paper) -> None:
    simplify_sides(paper, *paper.problem.with_given(paper.line).sides())
    undo(paper, *poly_of(paper.problem.with_given(paper.line)), ladder=False)
