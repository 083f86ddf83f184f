"""Linear equations: simplify each side, then undo; or divide first; or clear the fractions."""

from __future__ import annotations

from math import lcm

from algebra.exact.rational_functions import Ratio
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.terms import (
    Poly,
    fraction,
    has_brackets_to_open,
    joined,
    listed,
    number,
    opposite,
    shown,
    spread,
    terms_of,
    times_each,
    wrapped,
)
from algebra.reports.side_work import Balance, CommonDenominator, Ladder
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def is_linear(problem: Problem) -> bool:
    """Whether the given is linear in the unknown, possibly after working out, with no unknown below a bar."""
    try:
        left, right = problem.sides()
        if any(_unknown_below(problem, side) for side in (left, right)):
            return False
        poly = Poly.of(problem.value(left) - problem.value(right), problem.unknown)
    except NotThisWay:
        return False
    powers = [
        p for s in (left, right) for p in n.parts_of(s) if isinstance(p, n.Power) and problem.unknown in n.letters(p)
    ]
    return poly.degree <= 1 and not (powers and poly.degree == 0)


def _unknown_below(problem: Problem, tree: n.Node) -> bool:
    for part in n.parts_of(tree):
        if isinstance(part, n.Fraction) and problem.unknown in n.letters(part.denominator):
            return True
        if isinstance(part, n.Product) and "÷" in part.operators and problem.unknown in n.letters(part):
            return True
    return False


def simplify_then_undo(problem: Problem) -> Paper:
    """Each side worked out, the unknown brought together, then undone in the reverse order of operations."""
    if not is_linear(problem):
        raise NotThisWay("The equation is not linear.")
    paper = Paper(problem)
    left, right = problem.sides()
    simplify_sides(paper, left, right)
    undo(paper, *_polys(paper))
    return paper


def clear_fractions(problem: Problem) -> Paper:
    """The whole equation times the LCD of its numbers first."""
    if not is_linear(problem):
        raise NotThisWay("The equation is not linear.")
    left, right = problem.sides()
    pieces = [(s, t) for side in (left, right) for s, t in terms_of(side)]
    common = lcm(1, *(_number_below(problem, t) for _, t in pieces))
    if common == 1:
        raise NotThisWay("There are no fractions to clear.")
    paper = Paper(problem)
    what = number(common)
    sides = [
        joined(f"{'-' if sign == '-' else ''}{what}·{wrapped(plain(term))}" for sign, term in terms_of(side))
        for side in (left, right)
    ]
    bottoms = sorted({_number_below(problem, t) for _, t in pieces} - {1})
    side_work = CommonDenominator(what, tuple(str(bottom) for bottom in bottoms))
    paper.write(" = ".join(sides), "clear-fractions", what, shown_at=EVERY, move=f"×{what}", side=[side_work])
    cleared = [
        joined(_cleared_term(problem, term, common, sign) for sign, term in terms_of(side)) for side in (left, right)
    ]
    paper.write(" = ".join(cleared), "clear-fractions", what, noticed=("fractions",))
    new = problem.with_given(paper.line)
    simplify_sides(paper, *new.sides())
    undo(paper, *_polys(paper))
    return paper


def _cleared_term(problem: Problem, term: n.Node, common: int, sign: str) -> str:
    """A term times the LCD, the bracket of its numerator kept."""
    scale = problem.field.constant(common)
    bare = n.bare(term)
    if isinstance(bare, n.Fraction) and isinstance(n.bare(bare.numerator), n.Sum):
        below = problem.value(bare.denominator).constant
        if below is not None and (common / below).denominator == 1:
            count = int(common / below)
            inner = plain(n.bare(bare.numerator))
            text = inner if count == 1 and sign == "+" else f"{'' if count == 1 else count}({inner})"
            return f"-{text}" if sign == "-" else text
    if isinstance(bare, n.Product) and any(isinstance(n.bare(f), n.Sum) for f in bare.factors):
        value = problem.field.constant(common)
        brackets = []
        for factor in bare.factors:
            if isinstance(n.bare(factor), n.Sum):
                brackets.append(f"({plain(n.bare(factor))})")
            else:
                value = value * problem.value(factor)
        if value.constant is not None and value.constant.denominator == 1:
            text = ("" if value.constant == 1 else shown(value)) + "".join(brackets)
            return f"-{text}" if sign == "-" else text
    value = problem.value(term) * scale
    return shown(-value if sign == "-" else value)


def _number_below(problem: Problem, term: n.Node) -> int:
    """The least number that clears the fractions of a term."""
    try:
        values = spread(problem, term)
    except NotThisWay:
        return 1
    whole = lcm(1, *(_content(value) for value in values))
    bare = n.bare(term)
    if isinstance(bare, n.Fraction):
        below = problem.value(bare.denominator).constant
        if below is not None and below.denominator == 1:
            whole = lcm(whole, int(below))
    return whole


def _content(value: Ratio) -> int:
    below = value.denominator
    return abs(int(below.leading_coefficient())) if below.is_constant() else 1


def divide_first(problem: Problem) -> Paper:
    """a(…) = c with the whole side divided by a first."""
    if not is_linear(problem):
        raise NotThisWay("The equation is not linear.")
    left, right = problem.sides()
    if problem.unknown in n.letters(right):
        if problem.unknown in n.letters(left):
            raise NotThisWay("The unknown stands on both sides.")
        left, right = right, left
    bare = n.bare(left)
    outer = [f for f in bare.factors if not isinstance(n.bare(f), n.Sum)] if isinstance(bare, n.Product) else []
    inner = [n.bare(f) for f in bare.factors if isinstance(n.bare(f), n.Sum)] if isinstance(bare, n.Product) else []
    if len(inner) != 1 or not outer or any(problem.unknown in n.letters(f) for f in outer):
        raise NotThisWay("The side with the unknown is not a number times one bracket.")
    scale = problem.field.constant(1)
    for factor in outer:
        scale = scale * problem.value(factor)
    paper = Paper(problem)
    text = f"{plain(inner[0])} = {shown(problem.value(right) / scale)}"
    paper.write(text, "divide-both-sides", shown(scale), move=f"÷{wrapped(shown(scale))}")
    simplify_sides(paper, *problem.with_given(paper.line).sides())
    undo(paper, *_polys(paper))
    return paper


def simplify_sides(paper: Paper, left: n.Node, right: n.Node) -> None:
    """Brackets opened on both sides, then like terms combined."""
    problem = paper.problem
    x = problem.unknown
    opened = [listed(spread(problem, side)) if has_brackets_to_open(side) else plain(side) for side in (left, right)]
    first = next((side for side in (left, right) if has_brackets_to_open(side)), left)
    paper.write(" = ".join(opened), "open-brackets", times_each(first))
    written = problem.with_given(paper.line).sides()
    polys = [Poly.of(problem.value(side), x) for side in (left, right)]
    combined = " = ".join(map(str, polys))
    if all(_has_terms(problem, side, poly) for side, poly in zip(written, polys, strict=True)):
        paper.write(combined, "simplify-sides", "terms in order", shown_at=EVERY)
    else:
        paper.write(combined, "simplify-sides", "like terms are combined on each side")


def _has_terms(problem: Problem, side: n.Node, poly: Poly) -> bool:
    """Whether the terms of a side are those of the polynomial, in whatever order and however each is written."""
    values = [-problem.value(t) if sign == "-" else problem.value(t) for sign, t in terms_of(side)]
    written = sorted(str(Poly.of(value, poly.unknown)) for value in values)
    return written == sorted(poly.term(k) or "0" for k in range(poly.degree + 1) if not poly[k].is_zero or poly.is_zero)


def _polys(paper: Paper) -> tuple[Poly, Poly]:
    left, right = paper.problem.with_given(paper.line).sides()
    x = paper.problem.unknown
    return Poly.of(paper.problem.value(left), x), Poly.of(paper.problem.value(right), x)


def undo(paper: Paper, left: Poly, right: Poly, *, ladder: bool = True) -> None:
    """From a·x + b = c·x + d to the solution, one move a line."""
    difference = left[1] - right[1]
    if difference.is_zero:
        _no_unknown(paper, left, right)
        return
    if not right[1].is_zero and left[1].is_zero:
        pass  # the unknown is on the right only and stays there
    elif not right[1].is_zero:
        left, right = _gather(paper, left, right)
    unknown_left = not left[1].is_zero
    own, other = (left, right) if unknown_left else (right, left)
    work = [_ladder(own, other)] if ladder and not own[0].is_zero else []
    if not own[0].is_zero:
        own, other = _drop_constant(paper, own, other, unknown_left, work)
    coefficient = own[1]
    if coefficient.constant != 1:
        _divide(paper, coefficient, other, unknown_left)
    else:
        _state(paper, other[0], unknown_left)


def _both(paper: Paper, own: str, other: str, own_left: bool) -> str:
    return f"{own} = {other}" if own_left else f"{other} = {own}"


def _gather(paper: Paper, left: Poly, right: Poly) -> tuple[Poly, Poly]:
    """The unknown to the side where its coefficient stays positive."""
    a, b = left[1].constant, right[1].constant
    to_left = a is None or b is None or a > b
    moved = right if to_left else left
    term = moved.term(1)
    new_left = Poly([left[0], left[1] - moved[1]], left.unknown)
    new_right = Poly([right[0], right[1] - moved[1]], right.unknown)
    minus = term.startswith("-")
    rule = "add-to-both-sides" if minus else "subtract-from-both-sides"
    what = opposite(term) if minus else term
    detail = f"{joined([str(left), opposite(term)])} = {joined([str(right), opposite(term)])}"
    move = f"{'+' if minus else '-'}{what}"
    paper.write(detail, rule, what, shown_at=EVERY, move=move, side=[_balance(left, right, move)])
    paper.write(f"{new_left} = {new_right}", "simplify-sides", "like terms are combined")
    return new_left, new_right


def _drop_constant(paper: Paper, own: Poly, other: Poly, own_left: bool, work: list[Ladder]) -> tuple[Poly, Poly]:
    term = own.term(0)
    minus = term.startswith("-")
    what = opposite(term) if minus else term
    rule = "add-to-both-sides" if minus else "subtract-from-both-sides"
    move = f"{'+' if minus else '-'}{wrapped(what)}"
    detail = _both(paper, joined([str(own), opposite(term)]), joined([str(other), opposite(term)]), own_left)
    new_own = Poly([own[0] - own[0], own[1]], own.unknown)
    new_other = Poly([other[0] - own[0]], own.unknown)
    balance = _balance(own, other, move) if own_left else _balance(other, own, move)
    paper.write(detail, rule, what, shown_at=EVERY, move=move, side=[*work, balance])
    paper.write(_both(paper, str(new_own), str(new_other), own_left), "simplify-sides", "like terms are combined")
    return new_own, new_other


def _divide(paper: Paper, coefficient: Ratio, other: Poly, own_left: bool) -> None:
    x = paper.problem.unknown
    result = other[0] / coefficient
    constant = coefficient.constant
    if not coefficient.is_polynomial or coefficient.denominator != 1:
        times = shown(_reciprocal(coefficient))
        rule, what, move = "multiply-both-sides", times, f"×{wrapped(times)}"
        detail = _both(paper, x, f"{wrapped(str(other))}·{wrapped(times)}", own_left)
    else:
        text = shown(coefficient)
        rule, what, move = "divide-both-sides", text, f"÷{wrapped(text)}"
        detail = _both(paper, x, fraction(str(other), text), own_left) if constant != -1 else ""
    final = _both(paper, x, shown(result), own_left)
    if detail and detail != final and "/" in detail and constant is not None and _unreduced(other[0], coefficient):
        paper.write(detail, rule, what, move=move, shown_at=EVERY)
        paper.write(final, "reduce-fraction" if "/" in final else rule, what, shown_at=BRIEF)
    else:
        paper.write(final, rule, what, move=move, shown_at=BRIEF)
    paper.answer = [shown(result)]


def _reciprocal(coefficient: Ratio) -> Ratio:
    return coefficient.field.constant(1) / coefficient


def _unreduced(top: Ratio, bottom: Ratio) -> bool:
    a, b = top.constant, bottom.constant
    return a is not None and b is not None and (a / b).denominator != abs(b)


def _state(paper: Paper, value: Ratio, own_left: bool) -> None:
    text = shown(value)
    paper.answer = [text]
    if paper.steps:
        return
    paper.write(_both(paper, paper.problem.unknown, text, own_left), "read-solution", "the unknown stands alone")


def _no_unknown(paper: Paper, left: Poly, right: Poly) -> None:
    x = paper.problem.unknown
    if not left[1].is_zero:
        term = left.term(1)
        minus = term.startswith("-")
        what = opposite(term) if minus else term
        rule = "add-to-both-sides" if minus else "subtract-from-both-sides"
        paper.write(f"{Poly([left[0]], x)} = {Poly([right[0]], x)}", rule, what, move=f"{'+' if minus else '-'}{what}")
    if (left[0] - right[0]).is_zero:
        paper.write("all real numbers", "identity", shown_at=BRIEF, noticed=("identity",))
        paper.answer = ["all"]
    else:
        paper.write("no solution", "contradiction", f"{shown(left[0])} = {shown(right[0])}", shown_at=BRIEF,
                    noticed=("contradiction",))  # fmt: skip
        paper.answer = []


def _balance(left: Poly, right: Poly, move: str) -> Balance:
    """A balance with the two sides, and what is done to both; it tips when it is done to one only."""
    return Balance(str(left), str(right), move)


def _ladder(own: Poly, other: Poly) -> Ladder:
    """What was done to the unknown, and how it is undone from the bottom up."""
    do, undo_steps = [], []
    constant = own[1].constant
    if constant != 1:
        below = _reciprocal(own[1])
        if below.is_polynomial and below.denominator == 1 and constant != -1:
            do.append(f"÷{wrapped(shown(below))}")
            undo_steps.append(f"×{wrapped(shown(below))}")
        else:
            do.append(f"×{wrapped(shown(own[1]))}")
            undo_steps.append(f"÷{wrapped(shown(own[1]))}")
    term = own.term(0)
    minus = term.startswith("-")
    what = opposite(term) if minus else term
    do.append(f"{'-' if minus else '+'}{what}")
    undo_steps.append(f"{'+' if minus else '-'}{what}")
    return Ladder(own.unknown, tuple(do), tuple(undo_steps[::-1]), str(other))
