"""Linear equations: simplify each side, then undo; or divide first; or clear the fractions."""

from __future__ import annotations

from math import lcm

from algebra.exact.rational_functions import Ratio
from algebra.methods.moves import beside, dividing, multiplying, taken_from, taking_off
from algebra.methods.terms import (
    Poly,
    has_brackets_to_open,
    holds_product,
    listed,
    number,
    over_one_bar,
    shown,
    spread,
    terms_of,
    times_each,
)
from algebra.methods.worked_lines import BRIEF, EVERY, Move, NotThisWay, Problem, WorkedLines, sides_of
from algebra.reports.side_work import Balance, CommonDenominator, Ladder
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
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
    return poly.degree <= 1


def _unknown_below(problem: Problem, tree: n.Node) -> bool:
    for part in n.parts_of(tree):
        if isinstance(part, n.Fraction) and problem.unknown in n.letters(part.denominator):
            return True
        if isinstance(part, n.Product) and "÷" in part.operators and problem.unknown in n.letters(part):
            return True
    return False


def simplify_then_undo(problem: Problem) -> WorkedLines:
    """Each side worked out, the unknown brought together, then undone in the reverse order of operations."""
    if not is_linear(problem):
        raise NotThisWay("The equation is not linear.")
    paper = WorkedLines(problem)
    left, right = problem.sides()
    simplify_sides(paper, left, right)
    undo(paper, *polys_of(paper.here))
    return paper


def clear_fractions(problem: Problem) -> WorkedLines:
    """The whole equation times the LCD of its numbers first."""
    if not is_linear(problem):
        raise NotThisWay("The equation is not linear.")
    left, right = problem.sides()
    pieces = [(s, t) for side in (left, right) for s, t in terms_of(side)]
    common = lcm(1, *(_number_below(problem, t) for _, t in pieces))
    if common == 1:
        raise NotThisWay("There are no fractions to clear.")
    paper = WorkedLines(problem)
    what = number(common)
    sides = [_each_times(what, side) for side in (left, right)]
    bottoms = sorted({_number_below(problem, t) for _, t in pieces} - {1})
    side_work = CommonDenominator(plain(what), tuple(str(bottom) for bottom in bottoms))
    paper.write(
        build.equation(*sides), "clear-fractions", what, shown_at=EVERY, move=beside("×", what), side=[side_work]
    )
    cleared = [
        build.sum_of(_cleared_term(problem, term, common, sign) for sign, term in terms_of(side))
        for side in (left, right)
    ]
    paper.write(build.equation(*cleared), "clear-fractions", what, noticed=("fractions",))
    simplify_sides(paper, *paper.here.sides())
    undo(paper, *polys_of(paper.here))
    return paper


def _each_times(what: n.Node, side: n.Node) -> n.Node:
    """Every term of a side times a number, not worked out: 6·x/2 − 6·5; of a single negative number, 7·(−3)."""
    if isinstance(side, n.Signed):
        return build.dotted(what, n.Group(side))
    return build.sum_of(build.signed(sign, build.dotted(what, build.factor(term))) for sign, term in terms_of(side))


def _cleared_term(problem: Problem, term: n.Node, common: int, sign: str) -> n.Node:
    """A term times the LCD, the bracket of its numerator kept."""
    scale = problem.field.constant(common)
    bare = n.bare(term)
    if isinstance(bare, n.Fraction) and isinstance(n.bare(bare.numerator), n.Sum):
        below = problem.value(bare.denominator).constant
        if below is not None and (common / below).denominator == 1:
            inner, count = n.bare(bare.numerator), number(common / below)
            return (
                inner
                if count == build.ONE and sign == "+"
                else build.signed(sign, build.product(count, n.Group(inner)))
            )
    if isinstance(bare, n.Product) and any(isinstance(n.bare(f), n.Sum) for f in bare.factors):
        value = problem.field.constant(common)
        brackets = []
        for factor in bare.factors:
            if isinstance(n.bare(factor), n.Sum):
                brackets.append(n.Group(n.bare(factor)))
            else:
                value = value * problem.value(factor)
        if value.constant is not None and value.constant.denominator == 1:
            product = build.product(number(abs(value.constant)), *brackets)
            return build.signed("-" if (value.constant < 0) != (sign == "-") else "+", product)
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


def divide_first(problem: Problem) -> WorkedLines:
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
    paper = WorkedLines(problem)
    paper.write_move(build.equation(inner[0], shown(problem.value(right) / scale)), dividing(scale))
    simplify_sides(paper, *paper.here.sides())
    undo(paper, *polys_of(paper.here))
    return paper


def simplify_sides(paper: WorkedLines, left: n.Node, right: n.Node) -> None:
    """Brackets opened on both sides, then like terms combined."""
    problem = paper.problem
    x = problem.unknown
    opened = [listed(spread(problem, side)) if has_brackets_to_open(side) else side for side in (left, right)]
    first = next((side for side in (left, right) if has_brackets_to_open(side)), left)
    rule = "open-brackets" if holds_product(left) or holds_product(right) else "split-fraction"
    paper.write(build.equation(*opened), rule, times_each(first))
    written = sides_of(paper.line)
    polys = [Poly.of(problem.value(side), x) for side in (left, right)]
    combined = build.equation(*(poly.tree for poly in polys))
    # terms that only stand in another order are left as they are
    if not all(_has_terms(problem, side, poly) for side, poly in zip(written, polys, strict=True)):
        paper.write(combined, "simplify-sides", "like terms are combined on each side")


def _has_terms(problem: Problem, side: n.Node, poly: Poly) -> bool:
    """Whether the terms of a side are those of the polynomial, in whatever order and however each is written."""
    values = [-problem.value(t) if sign == "-" else problem.value(t) for sign, t in terms_of(side)]
    x = problem.field.letter(poly.unknown)
    wanted = [part * x**power for power, part in enumerate(poly.parts) if not part.is_zero or poly.is_zero]
    return len(values) == len(wanted) and all(value in wanted for value in values) and len(set(values)) == len(values)


def polys_of(problem: Problem) -> tuple[Poly, Poly]:
    """Both sides as polynomials in the unknown. Raises NotThisWay."""
    left, right = problem.sides()
    return Poly.of(problem.value(left), problem.unknown), Poly.of(problem.value(right), problem.unknown)


def undo(paper: WorkedLines, left: Poly, right: Poly, *, ladder: bool = True) -> None:
    """From a·x + b = c·x + d to the solution, one move a line; higher powers that both sides share are taken off
    first."""
    left, right = _drop_highest(paper, left, right)
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


def _drop_highest(paper: WorkedLines, left: Poly, right: Poly) -> tuple[Poly, Poly]:
    """The same higher powers taken from both sides."""
    for power in range(max(left.degree, right.degree), 1, -1):
        if left[power].is_zero:
            continue
        move = taking_off(left.term(power))
        left, right = (Poly([p[k] for k in range(power)], p.unknown) for p in (left, right))
        paper.write_move(build.equation(left.tree, right.tree), move)
    return left, right


def both(own: n.Node, other: n.Node, own_left: bool) -> n.Node:
    """The equation with the side that is worked on where it stood."""
    return build.equation(own, other) if own_left else build.equation(other, own)


def _gather(paper: WorkedLines, left: Poly, right: Poly) -> tuple[Poly, Poly]:
    """The unknown to the side where its coefficient stays positive."""
    a, b = left[1].constant, right[1].constant
    to_left = a is None or b is None or a > b
    moved = right if to_left else left
    term = moved.term(1)
    new_left = Poly([left[0], left[1] - moved[1]], left.unknown)
    new_right = Poly([right[0], right[1] - moved[1]], right.unknown)
    move = taking_off(term)
    detail = build.equation(*(taken_from(side.tree, term) for side in (left, right)))
    paper.write_move(detail, move, shown_at=EVERY, side=[_balance(left, right, move)])
    paper.write(build.equation(new_left.tree, new_right.tree), "simplify-sides", "like terms are combined")
    return new_left, new_right


def _drop_constant(paper: WorkedLines, own: Poly, other: Poly, own_left: bool, work: list[Ladder]) -> tuple[Poly, Poly]:
    term = own.term(0)
    move = taking_off(term)
    mine, others = (taken_from(side.tree, term) for side in (own, other))
    detail = both(mine, others, own_left)
    new_own = Poly([own[0] - own[0], own[1]], own.unknown)
    new_other = Poly([other[0] - own[0]], own.unknown)
    balance = _balance(own, other, move) if own_left else _balance(other, own, move)
    paper.write_move(detail, move, shown_at=EVERY, side=[*work, balance])
    paper.write(both(new_own.tree, new_other.tree, own_left), "simplify-sides", "like terms are combined")
    return new_own, new_other


def _divide(paper: WorkedLines, coefficient: Ratio, other: Poly, own_left: bool) -> None:
    x = n.Letter(paper.problem.unknown)
    result = over_one_bar(other[0] / coefficient)
    own = Poly([coefficient - coefficient, coefficient], x.name).tree
    constant = coefficient.constant
    if not coefficient.is_polynomial or coefficient.denominator != 1:
        move = multiplying(_reciprocal(coefficient))
        detail = both(
            build.dotted(build.factor(move.what), own),
            build.dotted(build.factor(move.what), build.factor(other.tree)),
            own_left,
        )
    else:
        move = dividing(coefficient)
        detail = both(build.quotient(own, move.what), build.quotient(other.tree, move.what), own_left)
    if constant != -1:
        paper.write_move(detail, move, shown_at=EVERY)
        paper.write(both(x, result, own_left), move.rule, move.what, shown_at=BRIEF)
    else:
        paper.write_move(both(x, result, own_left), move, shown_at=BRIEF)
    paper.answer = [result]


def _has_slash(tree: n.Node) -> bool:
    return any(isinstance(part, n.Fraction) for part in n.parts_of(tree))


def _reciprocal(coefficient: Ratio) -> Ratio:
    return coefficient.field.constant(1) / coefficient


def _unreduced(top: Ratio, bottom: Ratio) -> bool:
    a, b = top.constant, bottom.constant
    return a is not None and b is not None and (a / b).denominator != abs(b)


def _state(paper: WorkedLines, value: Ratio, own_left: bool) -> None:
    paper.answer = [shown(value)]
    if paper.steps:
        return
    line = both(n.Letter(paper.problem.unknown), shown(value), own_left)
    paper.write(line, "read-solution", "the unknown stands alone")


def _no_unknown(paper: WorkedLines, left: Poly, right: Poly) -> None:
    constants = build.equation(shown(left[0]), shown(right[0]))
    if not left[1].is_zero:
        term = left.term(1)
        detail = build.equation(*(taken_from(side.tree, term) for side in (left, right)))
        paper.write_move(detail, taking_off(term), shown_at=EVERY)
        paper.write(constants, taking_off(term).rule, term)
    if (left[0] - right[0]).is_zero:
        paper.write(ln.AllReals(), "identity", shown_at=BRIEF, noticed=("identity",))
        paper.answer = [ln.AllReals()]
    else:
        paper.write(ln.NoSolution(), "contradiction", constants, shown_at=BRIEF, noticed=("contradiction",))
        paper.answer = []


def _balance(left: Poly, right: Poly, move: Move) -> Balance:
    """A balance with the two sides, and what is done to both; it tips when it is done to one only."""
    return Balance(plain(left.tree), plain(right.tree), move.text)


def _ladder(own: Poly, other: Poly) -> Ladder:
    """What was done to the unknown, and how it is undone from the bottom up."""
    do, undo_steps = [], []
    if own[1].constant != 1:
        scale, signs = own[1], ("×", "÷")
        below = _reciprocal(scale)
        if below.is_polynomial and below.denominator == 1 and scale.constant != -1:
            scale, signs = below, ("÷", "×")
        do.append(beside(signs[0], shown(scale)))
        undo_steps.append(beside(signs[1], shown(scale)))
    term = own.term(0)
    do.append(taking_off(build.opposite(term)).text)
    undo_steps.append(taking_off(term).text)
    return Ladder(own.unknown, tuple(do), tuple(undo_steps[::-1]), plain(other.tree))
