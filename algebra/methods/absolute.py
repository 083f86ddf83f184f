"""Absolute value equations: the bars alone, then two cases."""

from __future__ import annotations

from algebra.methods.linear import both, polys_of, simplify_sides, undo
from algebra.methods.moves import taking_off, undoing
from algebra.methods.radical_equations import check_candidates
from algebra.methods.terms import Poly, number, shown, terms_of
from algebra.methods.worked_lines import BRIEF, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def two_cases(problem: Problem) -> WorkedLines:
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
    paper = WorkedLines(problem)
    inner, other, two_bars = _isolated(paper, left, right)
    x = problem.unknown
    value = other.numbers
    if not two_bars and value is not None and other.degree == 0:
        if value[0] < 0:
            what = say("it can't be {}", number(value[0]))
            paper.write(ln.NoSolution(), "bars-never-negative", what, shown_at=BRIEF, noticed=("no solution",))
            return paper
        if value[0] == 0:
            if inner.degree != 1:
                raise NotThisWay("The inside of the bars is not linear.")
            paper.write(build.equation(inner.tree, build.ZERO), "two-cases", inner.tree)
            _solve_case(paper)
            paper.write(build.solutions(x, paper.answer), "read-solution", "the inside is 0", shown_at=BRIEF)
            return paper
    cases = build.alternatives([build.equation(inner.tree, side.tree) for side in (other, other.opposite)])
    paper.write(cases, "two-cases", inner.tree)
    answers = []
    for side in (other, other.opposite):
        difference = Poly.of(inner.value - side.value, x)
        if difference.degree > 1:
            raise NotThisWay("A case is not linear.")
        if difference.degree == 0:
            if difference.is_zero:
                raise NotThisWay("One case is true for every value; the solution is an interval.")
            continue
        answers.append(shown(-difference[0] / difference[1]))
    paper.answer = list(dict.fromkeys(answers))
    if not answers:
        paper.write(ln.NoSolution(), "contradiction", "neither case", shown_at=BRIEF)
        return paper
    paper.write(build.solutions(x, paper.answer), "read-solution", "each case is solved by itself", shown_at=BRIEF)
    check_candidates(paper, owed=bool(other.degree) and not two_bars, why="{} solves only its case, not the given.")
    return paper


def _isolated(paper: WorkedLines, left: n.Node, right: n.Node) -> tuple[Poly, Poly, bool]:
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
    inner = Poly.of(problem.value(held.children[0]), x)
    size = scale.constant
    with_scale = build.product(shown(scale), held) if size is None else build.multiple(size, held)
    if not outside.is_zero:
        goal = goal - outside
        paper.write_move(both(with_scale, Poly.of(goal, x).tree, own_left), taking_off(shown(outside)))
    if scale.constant != 1:
        goal = goal / scale
        paper.write_move(both(held, Poly.of(goal, x).tree, own_left), undoing(scale))
    return inner, Poly.of(goal, x), False


def _solve_case(paper: WorkedLines) -> None:
    simplify_sides(paper, *paper.here.sides())
    undo(paper, *polys_of(paper.here), ladder=False)
