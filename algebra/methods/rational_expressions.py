"""Rational expressions: reduced, multiplied, divided, added; and fractions inside of fractions."""

from __future__ import annotations

from dataclasses import dataclass

from algebra.exact.rational_functions import Ratio
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.exponents import flatten, written
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.rational_equations import Lcd, Piece, piece_of, scaled
from algebra.methods.terms import factored, fraction, is_sum, joined, opposite, shown, terms_of, times, wrapped
from algebra.parse.lines import read_expression
from algebra.reports.solution import Mark
from algebra.tree import nodes as n
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class Factor:
    """An irreducible factor above (way 1) or below (way −1), or a number."""

    text: str
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


def factor_and_cancel(problem: Problem) -> Paper:
    """Divisors turned over, everything factored, common factors cancelled."""
    body = n.bare(problem.body)
    if isinstance(body, n.Sum) or _has_bar_inside(body):
        raise NotThisWay("Fractions are added here; bring them to one denominator first.")
    if not any(_is_fractional(p) for p in n.parts_of(body)):
        raise NotThisWay("There is no fraction.")
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(body)):
        raise NotThisWay("Roots stand among the factors.")
    paper = Paper(problem)
    _flip(paper, problem)
    cancel(paper, problem.with_given(paper.line).body)
    return paper


def _flip(paper: Paper, problem: Problem) -> None:
    """Every ÷ as a product with the reciprocal."""
    body = n.bare(problem.body)
    if not isinstance(body, n.Product) or "÷" not in body.operators:
        return
    texts = [plain(body.factors[0])]
    flipped = ""
    for operator, factor in zip(body.operators, body.factors[1:], strict=True):
        bare = n.bare(factor)
        if operator != "÷":
            texts.append(f"{operator or '·'} {plain(factor)}")
            continue
        flipped = flipped or plain(factor)
        if isinstance(bare, n.Fraction):
            text = fraction(plain(n.bare(bare.denominator)), plain(n.bare(bare.numerator)))
        else:
            text = fraction("1", plain(bare))
        texts.append(f"· {wrapped(text)}")
    paper.write(" ".join(texts), "flip-divisor", flipped)


def cancel(paper: Paper, tree: n.Node) -> None:
    """Factors everything above and below, cancels, and writes what is left."""
    problem = paper.problem
    sign, factors = _all_factors(problem, tree)
    one_bar = _one_bar(sign, factors)
    common = sorted({f.text for f in factors if f.way > 0} & {f.text for f in factors if f.way < 0})
    opposites = _sign_changes(problem, tree)
    if opposites:
        paper.write(one_bar, "opposite-factors", opposites[0], noticed=("opposite factors",))
    value = problem.value(tree)
    done = reduced_text(value)
    changed = any(len(list(_own(problem, part))) > 1 for part, _ in _pieces(problem, tree))
    multiplied = len([1 for part, way in _pieces(problem, tree)]) > 2
    if (changed or multiplied) and one_bar != done:
        paper.write(one_bar, "factor-all" if changed else "one-fraction")
    if common:
        marks = [Mark("cancel", text, None, k) for k, text in enumerate(common)]
        paper.write(done, "cancel-factors", " and ".join(common), marks=marks, shown_at=BRIEF)
    else:
        paper.write(done, "cancel-factors" if not changed else "factor-all", "the common number", shown_at=BRIEF)
    paper.answer = [paper.line]


def reduced_text(value: Ratio) -> str:
    """Lowest terms, sums factored, a minus in front."""
    top, bottom = factored(value.field.ratio(value.numerator)), factored(value.field.ratio(value.denominator))
    if bottom == "1":
        return shown(value) if not is_sum(top) and "(" not in top else top
    if top.startswith("-") and not is_sum(top[1:]):
        return f"-{fraction(top[1:], bottom)}"
    return fraction(top, bottom)


def _own(problem: Problem, part: n.Node) -> list[tuple[str, Ratio]]:
    """The irreducible factors of one piece, with repetition, numbers apart."""
    value = problem.value(part)
    if not value.is_polynomial or value.denominator != 1:
        return [(plain(part), value)]
    content, factors = factors_of_poly(value.numerator)
    found = []
    if abs(content) != 1:
        found.append((str(abs(content)), problem.field.constant(abs(content))))
    for factor, power in factors:
        ratio = problem.field.ratio(factor)
        found += [(shown(ratio), ratio)] * int(power)
    return found


def _all_factors(problem: Problem, tree: n.Node) -> tuple[int, list[Factor]]:
    sign, found = 1, []
    for part, way in _pieces(problem, tree):
        value = problem.value(part)
        total = problem.field.constant(1)
        for text, ratio in _own(problem, part):
            found.append(Factor(text, ratio, way))
            total = total * ratio
        if value == -total:
            sign = -sign
    return sign, found


def _sign_changes(problem: Problem, tree: n.Node) -> list[str]:
    """Where a factor above is the opposite of one below."""
    above = [part for part, way in _pieces(problem, tree) if way > 0]
    below = [part for part, way in _pieces(problem, tree) if way < 0]
    return [
        f"{plain(b)} = -({plain(a)})"
        for a in above
        for b in below
        if isinstance(n.bare(b), n.Sum)
        and isinstance(n.bare(a), n.Sum)
        and (problem.value(a) + problem.value(b)).is_zero
    ]


def _one_bar(sign: int, factors: list[Factor]) -> str:
    def side(way: int) -> str:
        own: dict[str, int] = {}
        for f in factors:
            if f.way == way:
                own[f.text] = own.get(f.text, 0) + 1
        pieces = []
        for text, count in own.items():
            body = wrapped(text)
            pieces += [body] if count == 1 else [f"{body}^{count}"] if not text.isdigit() else [body] * count
        # numbers first, then single letters, then brackets
        pieces.sort(key=lambda t: (not t[0].isdigit(), t.startswith("(")))
        if len(pieces) == 1:
            return pieces[0][1:-1] if pieces[0].startswith("(") and pieces[0].endswith(")") else pieces[0]
        return times(*pieces) if pieces else "1"

    text = fraction(side(1), side(-1))
    return f"-{wrapped(text)}" if sign < 0 and is_sum(text) else f"-{text}" if sign < 0 else text


def lcd(problem: Problem) -> Paper:
    """Every fraction brought to the LCD, numerators added, then reduced."""
    terms = terms_of(problem.body)
    if len(terms) < 2:
        raise NotThisWay("There is only one term.")
    pieces = [piece_of_expression(problem, s, t) for s, t in terms]
    if all(p.bottom.constant == 1 for p in pieces):
        raise NotThisWay("There are no fractions.")
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(problem.body)):
        raise NotThisWay("Roots stand among the terms.")
    paper = Paper(problem)
    add_up(paper, pieces)
    return paper


def piece_of_expression(problem: Problem, sign: str, term: n.Node) -> Piece:
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


def add_up(paper: Paper, pieces: list[Piece]) -> None:
    """From the terms to one reduced fraction."""
    problem = paper.problem
    bottoms = [p.bottom for p in pieces]
    common = Lcd(problem, bottoms)
    text = common.text
    texts = joined(p.text(factored(p.bottom) if p.bottom.constant is None else None) for p in pieces)
    if any(
        len(factors_of_poly(b.numerator)[1]) > 1 and is_sum(p.bottom_text) for b, p in zip(bottoms, pieces, strict=True)
    ):
        paper.write(texts, "factor-all")
    opposite_pair = any((a + b).is_zero for k, a in enumerate(bottoms) for b in bottoms[k + 1 :] if a.constant is None)
    tops = [scaled(p, common.missing(p.bottom)) for p in pieces]
    if any(b != bottoms[0] for b in bottoms):
        parts = []
        for top in tops:
            minus = isinstance(read_expression(top), n.Signed)
            body = fraction(opposite(top) if minus else top, text)
            parts.append(f"-{body}" if minus else body)
        paper.write(joined(parts), "lcd", text, side=[common.side_work(bottoms)],
                    noticed=("opposite denominators",) if opposite_pair else ())  # fmt: skip
    over = joined(tops)
    if len(pieces) > 1:
        paper.write(fraction(over, text), "combine-numerators")
    tree = read_expression(over)
    value = problem.value(tree)
    listed_terms = shown(value)
    if value.is_zero:
        paper.write("0", "simplify-numerator", "the numerator is 0", shown_at=BRIEF)
        paper.answer = ["0"]
        return
    paper.write(fraction(listed_terms, text), "simplify-numerator", f"{over} = {listed_terms}")
    total = value / common.value
    done = reduced_text(total)
    if done != paper.line:
        top_factored = factored(value)
        if top_factored != listed_terms:
            paper.write(fraction(top_factored, text), "factor-all")
        shared = [
            shown(problem.field.ratio(f)) for f, _ in factors_of_poly(value.numerator.gcd(common.value.numerator))[1]
        ]
        paper.write(done, "cancel-factors" if shared else "reduce-fraction", " and ".join(shared) or "the common number",
                    marks=[Mark("cancel", s, None, k) for k, s in enumerate(shared)], shown_at=BRIEF)  # fmt: skip
    paper.answer = [paper.line]


# -- fractions inside of fractions ---------------------------------------------------------------------------------


def _complex_parts(problem: Problem) -> tuple[Paper, n.Node, n.Node]:
    body = n.bare(problem.body)
    if isinstance(body, n.Product) and body.operators == ("÷",):
        body = n.Fraction(body.factors[0], body.factors[1])
    if not isinstance(body, n.Fraction) or not any(_is_fractional(p) for c in body.children for p in n.parts_of(c)):
        raise NotThisWay("It is no fraction of fractions.")
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(body)):
        raise NotThisWay("Roots stand among the terms.")
    paper = Paper(problem)
    plain_powers = _without_negative_powers(body)
    if plain_powers != body:
        paper.write(plain(plain_powers), "negative-exponent", "a negative exponent makes a fraction")
    new = n.bare(problem.with_given(paper.line).body)
    if isinstance(new, n.Product) and new.operators == ("÷",):
        new = n.Fraction(new.factors[0], new.factors[1])
    assert isinstance(new, n.Fraction)
    return paper, n.bare(new.numerator), n.bare(new.denominator)


def _without_negative_powers(tree: n.Node) -> n.Node:
    if isinstance(tree, n.Product) and "÷" not in tree.operators:
        below = [f for f in tree.factors if _is_negative(f)]
        if below:
            above = [f for f in tree.factors if f not in below]
            tops = "·".join(plain(f) for f in above) or "1"
            return read_expression(fraction(tops, times(*(_positive(f) for f in below))))
    if _is_negative(tree):
        return read_expression(fraction("1", _positive(tree)))
    inner = [_without_negative_powers(child) for child in tree.children]
    if isinstance(tree, n.Fraction | n.Power | n.Product):  # x^-2 below the bar becomes (1/x^2)
        inner = [
            n.Group(new) if isinstance(new, n.Fraction) and not isinstance(old, n.Fraction) else new
            for new, old in zip(inner, tree.children, strict=True)
        ]
    return tree.with_children(tuple(inner))


def _is_negative(tree: n.Node) -> bool:
    return isinstance(tree, n.Power) and _is_fractional(tree) and isinstance(n.bare(tree.exponent), n.Signed)


def _positive(tree: n.Node) -> str:
    assert isinstance(tree, n.Power)
    exponent = n.bare(tree.exponent)
    assert isinstance(exponent, n.Signed)
    power = plain(exponent.child)
    base = plain(tree.base)
    return base if power == "1" else f"{base}^{power}"


def combine_then_divide(problem: Problem) -> Paper:
    """Top and bottom each to one fraction, apart; then multiply by the reciprocal."""
    paper, top, bottom = _complex_parts(problem)
    parts = []
    for part in (top, bottom):
        pieces = [piece_of_expression(problem, s, t) for s, t in terms_of(part)]
        value = problem.value(part)
        if len(pieces) == 1:
            parts.append((plain(part), value))
            continue
        common = Lcd(problem, [p.bottom for p in pieces])
        over = joined(scaled(p, common.missing(p.bottom)) for p in pieces)
        one = fraction(over, common.text)
        done = fraction(shown(problem.value(read_expression(over))), common.text)
        if common.value.constant == 1:
            parts.append((plain(part), value))
            continue
        chain = f"{plain(part)} = {one}" + (f" = {done}" if done != one else "")
        paper.write(
            f"aside: {chain}", "lcd", common.text, kind="aside", side=[common.side_work([p.bottom for p in pieces])]
        )
        parts.append((done, value))
    paper.write(
        fraction(parts[0][0], parts[1][0]), "combine-top-and-bottom", "each part was brought to one denominator"
    )
    below = read_expression(parts[1][0])
    flipped = n.bare(below)
    text = (
        fraction(plain(n.bare(flipped.denominator)), plain(n.bare(flipped.numerator)))
        if isinstance(flipped, n.Fraction)
        else fraction("1", parts[1][0])
    )
    first = parts[0][0]
    paper.write(f"{wrapped(first)}·{wrapped(text)}", "flip-divisor", parts[1][0])
    cancel(paper, problem.with_given(paper.line).body)
    return paper


def clear_by_lcd(problem: Problem) -> Paper:
    """Top and bottom times the LCD of all the small denominators."""
    paper, top, bottom = _complex_parts(problem)
    groups = [[piece_of_expression(problem, s, t) for s, t in terms_of(part)] for part in (top, bottom)]
    common = Lcd(problem, [p.bottom for group in groups for p in group])
    texts = [joined(scaled(p, common.missing(p.bottom)) for p in group) for group in groups]
    raw = [f"({plain(part)})·{wrapped(common.text)}" for part in (top, bottom)]
    paper.write(fraction(*raw), "clear-small-denominators", common.text, shown_at=EVERY)
    paper.write(fraction(texts[0], texts[1]), "clear-small-denominators", common.text,
                side=[common.side_work([p.bottom for group in groups for p in group])])  # fmt: skip
    values = [problem.value(read_expression(t)) for t in texts]
    paper.write(fraction(shown(values[0]), shown(values[1])), "simplify-numerator", "top and bottom multiplied out")
    cancel(paper, problem.with_given(paper.line).body)
    return paper


def unit_chain(problem: Problem) -> Paper:
    """A product of fractions of units: equal words above and below cancel."""
    if not any(isinstance(p, n.Unit) for p in n.parts_of(problem.body)):
        raise NotThisWay("There are no units.")
    sign, parts = flatten(problem, problem.body)
    paper = Paper(problem)
    paper.write(written(sign, parts), "one-fraction")
    done = shown(problem.value(problem.body))
    both = sorted({p.base for p in parts if p.way > 0} & {p.base for p in parts if p.way < 0})
    paper.write(
        done,
        "cancel-factors",
        " and ".join(both) or "the common number",
        marks=[Mark("cancel", b, None, k) for k, b in enumerate(both)],
        shown_at=BRIEF,
    )
    paper.answer = [paper.line]
    return paper
