"""Rational functions worked out feature by feature, or as a shifted and stretched 1/x."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, integer_coefficients
from algebra.functions.features import Features, divided, features_of, range_text
from algebra.methods.domain import write_domain
from algebra.methods.paper import BRIEF, NotThisWay, Paper, Problem
from algebra.methods.polynomials import synthetic
from algebra.methods.rational_expressions import reduced_text
from algebra.methods.terms import Poly, factored, fraction, number
from algebra.reports.side_work import DivisionRow, LongDivision, SideWork
from algebra.tree import nodes as n


def _features(problem: Problem) -> Features:
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(problem.body)):
        raise NotThisWay("It is no rational function.")
    try:
        return features_of(value_of(problem.body, problem.field), problem.unknown)
    except ExactError as error:
        raise NotThisWay(error.message) from None


def analyse(problem: Problem) -> Paper:
    """Domain from the given, then the reduced form, then holes, asymptotes, intercepts and ends."""
    found = _features(problem)
    paper = Paper(problem)
    x = problem.unknown
    value = problem.value(problem.body)
    one_fraction = isinstance(n.bare(problem.body), n.Fraction)
    write_domain(paper)
    if one_fraction:
        bare = n.bare(problem.body)
        assert isinstance(bare, n.Fraction)
        top, bottom = problem.value(bare.numerator), problem.value(bare.denominator)
        if top.is_polynomial and bottom.is_polynomial:
            paper.write(fraction(factored(top), factored(bottom)), "factor-all")
    paper.write(reduced_text(value), "cancel-factors" if found.holes else "simplify-numerator",
                " and ".join(f"{x} - {h}".replace("- -", "+ ") for h, _ in found.holes) or "one fraction")  # fmt: skip
    _feature(paper, "hole", [f"({a}, {b})" for a, b in found.holes], "find-holes",
             f"the cancelled factor is 0 at {x} = {', '.join(str(a) for a, _ in found.holes)}; the height comes from the reduced form."
             if found.holes else "no factor cancels.")  # fmt: skip
    _feature(paper, "vertical asymptote", [f"{x} = {v}" for v in found.vertical], "vertical-asymptotes",
             ", ".join(f"{x} = {v}" for v in found.vertical) or "it never is")  # fmt: skip
    _ends(paper, found, problem)
    zero_words = (
        f"the reduced numerator is 0 at {x} = {', '.join(map(str, found.x_intercepts))}."
        if found.x_intercepts
        else "the numerator is never 0 in the domain."
    )
    _feature(paper, "x-intercept", [str(v) for v in found.x_intercepts], "intercepts", zero_words)
    _feature(paper, "y-intercept", [] if found.y_intercept is None else [number(found.y_intercept)], "intercepts",
             f"put {x} = 0 in.")  # fmt: skip
    if found.range is not None:
        text = range_text(found.range)
        paper.write(
            f"range: {'all real numbers' if text == 'all' else text}",
            "state-range",
            "the values that the graph reaches.",
            kind="feature",
            shown_at=BRIEF,
        )
    paper.answer = found_answer(found)
    return paper


def found_answer(found: Features) -> list[str]:
    """The table of features, one text each."""
    x = found.letter
    listed = [f"domain: {x} ≠ {', '.join(map(str, found.excluded))}" if found.excluded else "domain: all real numbers"]
    listed += [f"hole: ({a}, {b})" for a, b in found.holes] + [f"vertical asymptote: {x} = {v}" for v in found.vertical]
    if found.horizontal is not None:
        listed.append(f"horizontal asymptote: y = {found.horizontal}")
    if found.oblique is not None:
        listed.append(f"oblique asymptote: y = {found.oblique}")
    listed += [f"x-intercept: {v}" for v in found.x_intercepts]
    return listed + ([f"y-intercept: {found.y_intercept}"] if found.y_intercept is not None else [])


def _feature(paper: Paper, name: str, items: list[str], rule: str, what: str) -> None:
    label = name if len(items) == 1 else f"{name}s"
    text = ", ".join(items) if items else "none"
    if name == "vertical asymptote" and len(items) > 1:
        text = f"{items[0]}, {', '.join(i.partition('= ')[2] for i in items[1:])}"
    paper.write(f"{label}: {text}", rule, what, kind="feature", shown_at=BRIEF)


def _ends(paper: Paper, found: Features, problem: Problem) -> None:
    value, x = found.value, problem.unknown
    up = integer_coefficients(value.numerator, x)
    low = integer_coefficients(value.denominator, x)
    n_top, n_low = len(up) - 1, len(low) - 1
    if n_low == 0:
        return
    if found.horizontal is not None:
        if n_top < n_low:
            what = f"the degree above ({n_top}) is smaller than below ({n_low}), so the values go to 0."
        else:
            what = f"both degrees are {n_top}, so the values go to the ratio of the leading coefficients, {up[-1]}/{low[-1]}."
        paper.write(
            f"horizontal asymptote: y = {number(found.horizontal)}",
            "end-behaviour",
            what,
            kind="feature",
            shown_at=BRIEF,
        )
    elif found.oblique is not None:
        if n_low == 1 and low[1] in (1, -1):
            work: SideWork = synthetic(up, Q(-low[0], low[1]))[1]
        else:
            work = _long_division(value, x)
        _, rest = divided(value, x)
        what = f"the degree above is one more than below: the quotient is {found.oblique}" + (
            f", the remainder {rest[0]}." if len(rest) == 1 else ".")  # fmt: skip
        paper.write(
            f"oblique asymptote: y = {found.oblique}",
            "oblique-asymptote",
            what,
            kind="feature",
            side=[work],
            shown_at=BRIEF,
        )
    ends = []
    for sign, limit in (("-", found.ends["-"]), ("+", found.ends["+"])):
        text = str(limit).replace("inf", "∞")
        ends.append(f"x → {'-' if sign == '-' else ''}∞, y → {text}")
    paper.write(
        f"end behaviour: {', '.join(ends)}", "end-behaviour", "far out, only the leading terms count.", kind="feature"
    )


def _long_division(value: Ratio, x: str) -> LongDivision:
    ring = value.field
    bottom = Poly.of(ring.ratio(value.denominator), x)
    rows: list[DivisionRow] = []
    rest = Poly.of(ring.ratio(value.numerator), x)
    dividend = str(rest)
    terms = []
    while rest.degree >= bottom.degree and not rest.is_zero:
        shift = rest.degree - bottom.degree
        share = rest.parts[-1] / bottom.parts[-1]
        term = Poly([*([ring.constant(0)] * shift), share], x)
        product = Poly.of(term.value * bottom.value, x)
        after = Poly.of(rest.value - product.value, x)
        rows.append(DivisionRow(str(term), str(product), str(after)))
        terms.append(str(term))
        rest = after
    return LongDivision(dividend, str(bottom), tuple(terms), tuple(rows))


def transform_parent(problem: Problem) -> Paper:
    """a/(x − h) + k: how far 1/x is stretched and shifted, and two of its points moved along."""
    found = _features(problem)
    shape = found.shifted_reciprocal
    if shape is None or found.holes:
        raise NotThisWay("It is not of the form a/(x - h) + k.")
    a, h, k = shape
    x = problem.unknown
    paper = Paper(problem)
    bottom = f"{x} - {number(h)}" if h > 0 else f"{x} + {number(-h)}" if h < 0 else x
    body = fraction(number(abs(a)), bottom) if a.denominator == 1 else f"({number(abs(a))})·{fraction('1', bottom)}"
    text = f"-{body}" if a < 0 else body
    if k:
        text += f" + {number(k)}" if k > 0 else f" - {number(-k)}"
    paper.write(text, "transform-parent", "divide, so that the shift stands alone.")
    paper.write(f"a = {number(a)}", "transform-parent", "the number above stretches the graph.", kind="parameter")
    paper.write(
        f"h = {number(h)}",
        "transform-parent",
        f"{bottom} is 0 at {x} = {number(h)}: the graph moves across.",
        kind="parameter",
    )
    paper.write(
        f"k = {number(k)}", "transform-parent", "the number added moves the graph up or down.", kind="parameter"
    )
    for unit in (1, -1):
        paper.write(f"point: ({number(h + unit)}, {number(k + a * unit)})", "transform-parent",
                    f"({unit}, {unit}) of 1/{x} moves to ({number(h)} + {unit}, {number(a)}·{unit} + {number(k)}).".replace("+ -", "− "), kind="feature")  # fmt: skip
    if found.excluded:
        paper.write(
            f"domain: {x} ≠ {', '.join(map(str, found.excluded))}",
            "state-domain",
            "the denominator must not be 0.",
            kind="feature",
            shown_at=BRIEF,
        )
    _feature(paper, "vertical asymptote", [f"{x} = {number(h)}"], "vertical-asymptotes", f"{x} = {number(h)}")
    paper.write(
        f"horizontal asymptote: y = {number(k)}",
        "end-behaviour",
        "the fraction dies out, k is left.",
        kind="feature",
        shown_at=BRIEF,
    )
    paper.write(f"range: y ≠ {number(k)}", "state-range", "the fraction is never 0.", kind="feature", shown_at=BRIEF)
    _feature(paper, "x-intercept", [str(v) for v in found.x_intercepts], "intercepts", "set it to 0.")
    _feature(
        paper,
        "y-intercept",
        [] if found.y_intercept is None else [number(found.y_intercept)],
        "intercepts",
        f"put {x} = 0 in.",
    )
    paper.answer = found_answer(found)
    return paper
