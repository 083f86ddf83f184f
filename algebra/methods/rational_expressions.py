"""Rational expressions: reduced, multiplied, divided, added; and fractions inside of fractions."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import gcd, prod

from algebra.exact.rational_functions import Ratio
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.exponents import flatten, written
from algebra.methods.factoring import searches_in
from algebra.methods.rational_equations import Lcd, Piece, piece_of
from algebra.methods.terms import (
    factored,
    has_brackets_to_open,
    listed,
    same_terms,
    shown,
    spread,
    terms_of,
    times_each,
)
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class Factor:
    """An irreducible factor above (way 1) or below (way −1), or a number."""

    tree: n.Node
    value: Ratio
    way: int


def _pieces(problem: Problem, tree: n.Node, way: int = 1) -> list[tuple[n.Node, int]]:
    """The sums and powers that are multiplied and divided, each with its side of the bar."""
    bare = n.bare(tree)
    if isinstance(bare, n.Signed) and bare.sign == "-":
        return [(n.Signed("-", n.Integer(1)), way), *_pieces(problem, bare.child, way)]
    if isinstance(bare, n.Product):
        found = _pieces(problem, bare.factors[0], way)
        for operator, factor in zip(bare.operators, bare.factors[1:], strict=True):
            found += _pieces(problem, factor, -way if operator == "÷" else way)
        return found
    if isinstance(bare, n.Fraction):
        return _pieces(problem, bare.numerator, way) + _pieces(problem, bare.denominator, -way)
    return [(bare, way)]


def _has_bar_inside(tree: n.Node) -> bool:
    """Whether a fraction or a negative power stands inside a sum."""
    bare = n.bare(tree)
    if isinstance(bare, n.Product | n.Fraction | n.Signed):
        return any(_has_bar_inside(c) for c in bare.children)
    if isinstance(bare, n.Sum):
        return any(_is_fractional(p) for p in n.parts_of(bare))
    return False


def _is_fractional(part: n.Node) -> bool:
    if isinstance(part, n.Power):
        exponent = n.bare(part.exponent)
        return isinstance(exponent, n.Signed) and exponent.sign == "-"
    return isinstance(part, n.Fraction) or (isinstance(part, n.Product) and "÷" in part.operators)


def factor_and_cancel(problem: Problem) -> WorkedLines:
    """Divisors turned over, everything factored, common factors cancelled."""
    body = n.bare(problem.body)
    if isinstance(body, n.Sum) or _has_bar_inside(body):
        raise NotThisWay("Fractions are added here; bring them to one denominator first.")
    if not any(_is_fractional(p) for p in n.parts_of(body)):
        raise NotThisWay("There is no fraction.")
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(body)):
        raise NotThisWay("Roots stand among the factors.")
    if any(isinstance(p, n.Power) and _is_fractional(p) for p in n.parts_of(body)):
        raise NotThisWay("Negative exponents stand among the factors.")
    paper = WorkedLines(problem)
    _flip(paper, problem)
    cancel(paper, paper.line)
    return paper


def _flip(paper: WorkedLines, problem: Problem) -> None:
    """Every ÷ as a product with the reciprocal."""
    body = n.bare(problem.body)
    if not isinstance(body, n.Product) or "÷" not in body.operators:
        return
    factors = [body.factors[0]]
    operators = []
    divisors = []
    for operator, factor in zip(body.operators, body.factors[1:], strict=True):
        if operator != "÷":
            factors.append(factor)
            operators.append(operator or "·")
            continue
        divisors.append(factor)
        factors.append(build.factor(reciprocal(factor)))
        operators.append("·")
    paper.write(n.Product(tuple(factors), tuple(operators)), "flip-divisor", divisors[0])


def reciprocal(tree: n.Node) -> n.Node:
    """One over an expression; of a fraction, the fraction turned over."""
    bare = n.bare(tree)
    if isinstance(bare, n.Fraction):
        return build.quotient(n.bare(bare.denominator), n.bare(bare.numerator))
    return build.quotient(build.ONE, bare)


def cancel(paper: WorkedLines, tree: n.Node) -> None:
    """Factors everything above and below, cancels, and writes what is left."""
    problem = paper.problem
    sign, factors = _all_factors(problem, tree)
    one_bar = _one_bar(sign, factors)
    counts = {way: Counter(f.tree for f in factors if f.way == way) for way in (1, -1)}
    shared = {f: min(counts[1][f], counts[-1][f]) for f in sorted(counts[1].keys() & counts[-1].keys(), key=plain)}
    common = [build.power(f, 1 if isinstance(f, n.Integer) else k) for f, k in shared.items()]
    opposites = _sign_changes(problem, tree)
    if opposites:
        paper.write(one_bar, "opposite-factors", opposites[0], noticed=("opposite factors",))
    done = reduced(problem.value(tree))
    changed = any(isinstance(part, n.Sum) and len(_own(problem, part)) > 1 for part, _ in _pieces(problem, tree))
    bare = n.bare(tree.children[0] if isinstance(tree, n.Signed) else tree)
    raised = any(
        isinstance(part, n.Power) and isinstance(n.bare(part.base), n.Product) for part, _ in _pieces(problem, tree)
    )
    multiplied = raised or (len(_pieces(problem, tree)) > 2 and not isinstance(bare, n.Fraction))
    if changed or multiplied:
        side = searches_in(problem, tree) if changed else []
        paper.write(one_bar, "factor-all" if changed else "one-fraction", side=side)
    split = _one_bar(sign, factors, apart=shared)
    if plain(split) != plain(one_bar):
        paper.write(split, "split-power", listing(common), shown_at=EVERY)
    number = gcd(*(_size(factors, way) for way in (1, -1)))
    if number > 1 and not any(isinstance(f, n.Integer) for f in shared):
        common.append(n.Integer(number))
    if common:
        paper.write(done, "cancel-factors", listing(common), cancelled=common, shown_at=BRIEF)
    else:
        paper.write(done, "multiply-numbers", "numbers first, then letters", shown_at=BRIEF)
    paper.answer = [paper.line]


def _size(factors: list[Factor], way: int) -> int:
    """The product of the numbers on one side of the bar."""
    return prod(f.tree.value for f in factors if f.way == way and isinstance(f.tree, n.Integer))


def listing(trees: Sequence[n.Node]) -> str:
    """In words: `x, x + 1 and x - 2`."""
    *first, last = map(plain, trees) if trees else [""]
    return f"{', '.join(first)} and {last}" if first else last


def reduced(value: Ratio) -> n.Node:
    """Lowest terms, sums factored, a minus in front."""
    top, bottom = factored(value.field.ratio(value.numerator)), factored(value.field.ratio(value.denominator))
    if bottom == build.ONE:
        return top if any(isinstance(part, n.Sum) for part in n.parts_of(top)) else shown(value)
    return build.bar(top, bottom)


def _own(problem: Problem, part: n.Node) -> list[tuple[n.Node, Ratio]]:
    """The irreducible factors of one piece, with repetition, numbers apart."""
    value = problem.value(part)
    if not value.is_polynomial or value.denominator != 1:
        return [(part, value)]
    content, factors = factors_of_poly(value.numerator)
    found: list[tuple[n.Node, Ratio]] = []
    if abs(content) != 1:
        found.append((n.Integer(int(abs(content))), problem.field.constant(abs(content))))
    for factor, power in factors:
        ratio = problem.field.ratio(factor)
        found += [(shown(ratio), ratio)] * int(power)
    return found


def _all_factors(problem: Problem, tree: n.Node) -> tuple[int, list[Factor]]:
    sign, found = 1, []
    for part, way in _pieces(problem, tree):
        value = problem.value(part)
        total = problem.field.constant(1)
        for factor, ratio in _own(problem, part):
            found.append(Factor(factor, ratio, way))
            total = total * ratio
        if value == -total:
            sign = -sign
    return sign, found


def _sign_changes(problem: Problem, tree: n.Node) -> list[n.Node]:
    """Where a factor above is the opposite of one below, that they are."""
    above = [part for part, way in _pieces(problem, tree) if way > 0]
    below = [part for part, way in _pieces(problem, tree) if way < 0]
    return [
        build.equation(b, n.Signed("-", n.Group(a)))
        for a in above
        for b in below
        if isinstance(n.bare(b), n.Sum)
        and isinstance(n.bare(a), n.Sum)
        and (problem.value(a) + problem.value(b)).is_zero
    ]


def _one_bar(sign: int, factors: list[Factor], *, apart: Mapping[n.Node, int] | None = None) -> n.Node:
    """All factors over one bar; `apart`: of these factors so many stand by themselves: x^5·x^2 for x^7."""

    def side(way: int) -> n.Node:
        own = Counter(f.tree for f in factors if f.way == way)
        pieces: list[n.Node] = []
        for tree, count in own.items():
            kept = (apart or {}).get(tree, 0)
            if isinstance(tree, n.Integer):
                pieces += [tree] * count
            else:
                pieces += [build.power(tree, k) for k in (kept, count - kept) if k]
        # numbers first, then single letters, then brackets
        pieces.sort(key=lambda t: (not isinstance(t, n.Integer), any(isinstance(p, n.Sum) for p in n.parts_of(t))))
        return build.product(*pieces)

    return build.minus_if(sign < 0, build.quotient(side(1), side(-1)))


def lcd(problem: Problem) -> WorkedLines:
    """Every fraction brought to the LCD, numerators added, then reduced."""
    terms = terms_of(problem.body)
    if len(terms) < 2:
        raise NotThisWay("There is only one term.")
    pieces = [piece_of_expression(problem, s, t) for s, t in terms]
    if all(p.bottom.constant == 1 for p in pieces):
        raise NotThisWay("There are no fractions.")
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(problem.body)):
        raise NotThisWay("Roots stand among the terms.")
    paper = WorkedLines(problem)
    add_up(paper, pieces)
    return paper


def piece_of_expression(problem: Problem, sign: str, term: n.Node) -> Piece:
    """A term as one fraction. Raises NotThisWay for fractions inside of fractions."""
    if _has_bar_inside(term) or (
        isinstance(n.bare(term), n.Fraction)
        and any(_has_bar_inside(c) or _is_fractional(n.bare(c)) for c in n.bare(term).children)
    ):
        raise NotThisWay("There are fractions inside of fractions.")
    bare = n.bare(term)
    if (isinstance(bare, n.Product) and any(isinstance(n.bare(f), n.Fraction) for f in bare.factors)) or (
        _is_fractional(bare) and not isinstance(bare, n.Fraction)
    ):
        value = problem.value(term)
        top, bottom = value.field.ratio(value.numerator), value.field.ratio(value.denominator)
        return Piece(sign, top, bottom, shown(top), factored(bottom))
    return piece_of(problem, sign, term)


def add_up(paper: WorkedLines, pieces: list[Piece]) -> None:
    """From the terms to one reduced fraction."""
    problem = paper.problem
    bottoms = [p.bottom for p in pieces]
    common = Lcd(problem, bottoms)
    below = common.tree
    if any(
        len(factors_of_poly(p.bottom.numerator)[1]) > 1 and isinstance(p.bottom_tree, n.Sum | n.Signed) for p in pieces
    ):
        line = build.sum_of(p.over(factored(p.bottom) if p.bottom.constant is None else p.bottom_tree) for p in pieces)
        side = [work for p in pieces for work in searches_in(problem, p.bottom_tree)]
        paper.write(line, "factor-bottoms", side=side)
    opposite_pair = any((a + b).is_zero for k, a in enumerate(bottoms) for b in bottoms[k + 1 :] if a.constant is None)
    if any(b != bottoms[0] for b in bottoms):
        paper.write(
            common.fractions(pieces),
            "lcd",
            below,
            side=[common.side_work(bottoms)],
            noticed=("opposite denominators",) if opposite_pair else (),
        )
    over = common.numerators(pieces)
    if len(pieces) > 1:
        paper.write(build.quotient(over, below), "combine-numerators")
    value = problem.value(over)
    if value.is_zero:
        paper.write(build.ZERO, "simplify-numerator", "the numerator is 0", shown_at=BRIEF)
        paper.answer = [build.ZERO]
        return
    top = factored(value)
    combined = top if isinstance(top, n.Sum) else shown(value)
    if has_brackets_to_open(over):
        over = listed(spread(problem, over))
        paper.write(build.quotient(over, below), "distribute", times_each(n.bare(common.numerators(pieces))))
    paper.write(build.quotient(combined, below), "simplify-numerator", build.equation(over, combined))
    done = reduced(value / common.value)
    if plain(done) != plain(paper.line):
        if top != combined:
            paper.write(
                build.quotient(top, below),
                "factor-numerator",
                say("{} = {}", combined, top),
                side=searches_in(problem, combined),
            )
        shared = [
            shown(problem.field.ratio(f)) for f, _ in factors_of_poly(value.numerator.gcd(common.value.numerator))[1]
        ]
        paper.write(
            done,
            "cancel-factors" if shared else "reduce-fraction",
            listing(shared) or "the common number",
            cancelled=shared,
            shown_at=BRIEF,
        )
    paper.answer = [paper.line]


# -- fractions inside of fractions ---------------------------------------------------------------------------------


def _complex_parts(problem: Problem) -> tuple[WorkedLines, n.Node, n.Node]:
    body = n.bare(problem.body)
    if isinstance(body, n.Product) and body.operators == ("÷",):
        body = n.Fraction(body.factors[0], body.factors[1])
    if not isinstance(body, n.Fraction) or not any(_is_fractional(p) for c in body.children for p in n.parts_of(c)):
        raise NotThisWay("It is no fraction of fractions.")
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(body)):
        raise NotThisWay("Roots stand among the terms.")
    paper = WorkedLines(problem)
    plain_powers = _without_negative_powers(body)
    if plain_powers != body:
        paper.write(plain_powers, "negative-exponent", "a negative exponent makes a fraction")
    new = n.bare(paper.line)
    if isinstance(new, n.Product) and new.operators == ("÷",):
        new = n.Fraction(new.factors[0], new.factors[1])
    assert isinstance(new, n.Fraction)
    return paper, n.bare(new.numerator), n.bare(new.denominator)


def _without_negative_powers(tree: n.Node) -> n.Node:
    if isinstance(tree, n.Product) and "÷" not in tree.operators:
        below = [f for f in tree.factors if _is_negative(f)]
        if below:
            above = [f for f in tree.factors if f not in below]
            return build.quotient(build.dotted(*above or [build.ONE]), build.product(*map(_positive, below)))
    if _is_negative(tree):
        return build.quotient(build.ONE, _positive(tree))
    inner = [_without_negative_powers(child) for child in tree.children]
    if isinstance(tree, n.Fraction | n.Power | n.Product):  # x^-2 below the bar becomes (1/x^2)
        inner = [
            n.Group(new) if isinstance(new, n.Fraction) and not isinstance(old, n.Fraction) else new
            for new, old in zip(inner, tree.children, strict=True)
        ]
    return tree.with_children(tuple(inner))


def _is_negative(tree: n.Node) -> bool:
    return isinstance(tree, n.Power) and _is_fractional(tree) and isinstance(n.bare(tree.exponent), n.Signed)


def _positive(tree: n.Node) -> n.Node:
    assert isinstance(tree, n.Power)
    exponent = n.bare(tree.exponent)
    assert isinstance(exponent, n.Signed)
    return tree.base if exponent.child == build.ONE else n.Power(tree.base, exponent.child)


def combine_then_divide(problem: Problem) -> WorkedLines:
    """Top and bottom each to one fraction, apart; then multiply by the reciprocal."""
    paper, top, bottom = _complex_parts(problem)
    above, below = (_as_one_fraction(paper, part) for part in (top, bottom))
    paper.write(build.quotient(above, below), "combine-top-and-bottom", "each part was brought to one denominator")
    paper.write(build.dotted(above, reciprocal(below)), "flip-divisor", below)
    cancel(paper, paper.line)
    return paper


def _as_one_fraction(paper: WorkedLines, part: n.Node) -> n.Node:
    """A part as one fraction, worked out in an aside; one without fractions as it is."""
    problem = paper.problem
    pieces = [piece_of_expression(problem, s, t) for s, t in terms_of(part)]
    common = Lcd(problem, [p.bottom for p in pieces])
    if len(pieces) == 1 or common.value.constant == 1:
        return part
    over = common.numerators(pieces)
    one = build.quotient(over, common.tree)
    worked = shown(problem.value(over))
    if same_terms(worked, over):
        worked = over
    done = build.quotient(worked, common.tree)
    chain = build.equation(part, one) if done == one else build.equation(part, one, done)
    paper.write(chain, "lcd", common.tree, kind="aside", side=[common.side_work([p.bottom for p in pieces])])
    return done


def clear_by_lcd(problem: Problem) -> WorkedLines:
    """Top and bottom times the LCD of all the small denominators."""
    paper, top, bottom = _complex_parts(problem)
    groups = [[piece_of_expression(problem, s, t) for s, t in terms_of(part)] for part in (top, bottom)]
    every = [p.bottom for group in groups for p in group]
    common = Lcd(problem, every)
    scaled_parts = [
        _times_whole(part, common.tree) if all(p.bottom.constant == 1 for p in group) else common.numerators(group)
        for part, group in zip((top, bottom), groups, strict=True)
    ]
    raw = [build.dotted(n.Group(part), common.tree) for part in (top, bottom)]
    paper.write(build.quotient(*raw), "clear-small-denominators", common.tree, shown_at=EVERY)
    paper.write(build.quotient(*scaled_parts), "clear-small-denominators", common.tree, side=[common.side_work(every)])
    opened = [_opened(problem, part) for part in scaled_parts]
    paper.write(build.quotient(*opened), "distribute", next(map(times_each, scaled_parts)), shown_at=EVERY)
    worked = [part if isinstance(part, n.Product) else shown(problem.value(part)) for part in map(n.bare, scaled_parts)]
    if not all(same_terms(new, old) for new, old in zip(worked, scaled_parts, strict=True)):
        line = build.quotient(*worked) if worked[1] == build.ONE else build.bar(*worked)
        paper.write(line, "simplify-numerator", "top and bottom worked out")
    cancel(paper, paper.line)
    return paper


def _times_whole(part: n.Node, lcd: n.Node) -> n.Node:
    """A part without fractions times the LCD, its brackets kept."""
    return build.product(lcd, n.Group(part)) if isinstance(part, n.Sum) else build.product(part, lcd)


def _opened(problem: Problem, part: n.Node) -> n.Node:
    """A sum with its brackets opened; a product stays in factors, which may cancel."""
    return listed(spread(problem, part)) if isinstance(part, n.Sum) and has_brackets_to_open(part) else part


def unit_chain(problem: Problem) -> WorkedLines:
    """A product of fractions of units: equal words above and below cancel."""
    if not any(isinstance(p, n.Unit) for p in n.parts_of(problem.body)):
        raise NotThisWay("There are no units.")
    sign, parts = flatten(problem, problem.body)
    paper = WorkedLines(problem)
    paper.write(written(sign, parts), "one-fraction")
    done = shown(problem.value(problem.body))
    both = sorted({p.base for p in parts if p.way > 0} & {p.base for p in parts if p.way < 0}, key=plain)
    paper.write(done, "cancel-factors", listing(both) or "the common number", cancelled=both, shown_at=BRIEF)
    paper.answer = [paper.line]
    return paper
