"""Rational functions worked out feature by feature, or as a shifted and stretched 1/x."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction as Q

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, integer_coefficients
from algebra.exact.real_sets import RealSet
from algebra.functions.features import Features, divided, features_of, shifted_reciprocal
from algebra.methods.domain import write_domain
from algebra.methods.factoring import searches_in
from algebra.methods.polynomials import synthetic, written_root
from algebra.methods.rational_expressions import reduced
from algebra.methods.terms import Poly, factored, number
from algebra.methods.worked_lines import BOARD, BRIEF, NotThisWay, Problem, WorkedLines, say
from algebra.reports.side_work import DivisionRow, LongDivision, SideWork
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain


def _features(problem: Problem) -> Features:
    if any(isinstance(p, n.Root | n.Absolute) for p in n.parts_of(problem.body)):
        raise NotThisWay("It is no rational function.")
    try:
        return features_of(value_of(problem.body, problem.field), problem.unknown)
    except ExactError as error:
        raise NotThisWay(error.message) from None


def analyse(problem: Problem) -> WorkedLines:
    """Domain from the given, then the reduced form, then holes, asymptotes, intercepts and ends."""
    found = _features(problem)
    paper = WorkedLines(problem)
    x = problem.unknown
    value = problem.value(problem.body)
    one_fraction = isinstance(n.bare(problem.body), n.Fraction)
    write_domain(paper)
    if one_fraction:
        bare = n.bare(problem.body)
        assert isinstance(bare, n.Fraction)
        top, bottom = problem.value(bare.numerator), problem.value(bare.denominator)
        if top.is_polynomial and bottom.is_polynomial:
            paper.write(build.quotient(factored(top), factored(bottom)), "factor-all", side=searches_in(problem, bare))
    zeros = [say("{}", build.sum_of([n.Letter(x), build.opposite(written_root(h))])) for h, _ in found.holes]
    rule = "cancel-factors" if found.holes else "simplify-numerator"
    paper.write(reduced(value), rule, " and ".join(zeros) or "one fraction")
    _holes(paper, found)
    poles = [build.equation(n.Letter(x), written_root(v)) for v in found.vertical]
    _feature(paper, "vertical asymptote", poles, "vertical-asymptotes", ", ".join(map(plain, poles)) or "it never is")
    _ends(paper, found, problem)
    crossings = [written_root(v) for v in found.x_intercepts]
    zero_words = (
        f"the reduced numerator is 0 at {x} = {', '.join(map(plain, crossings))}."
        if crossings
        else "the numerator is never 0 in the domain."
    )
    _feature(paper, "x-intercept", crossings, "intercepts", zero_words)
    _y_intercept(paper, found)
    if found.range is not None:
        _stated(paper, "range", range_statement(found.range), "state-range", "the values that the graph reaches.")
    paper.answer = feature_table(found)
    return paper


def range_statement(found: RealSet) -> n.Node:
    """The range as one states it: `y ≠ 2`, all real numbers, or intervals. Raises NotThisWay for an end without a
    form."""
    if found.is_cofinite:
        ends = [written_root(end) for end in found.ends]
        return build.left_out("y", ends) if ends else ln.AllReals()
    items: list[n.Node] = []
    for low, low_closed, high, high_closed in found.pieces:
        ends_of = [None if end is None else written_root(end) for end in (low, high)]
        if low is not None and low == high and ends_of[0] is not None:
            items.append(ln.SetOf((ends_of[0],)))
        else:
            items.append(ln.Interval(ends_of[0], ends_of[1], low_closed, high_closed))
    return items[0] if len(items) == 1 else ln.Union(tuple(items))


def feature_table(found: Features) -> list[n.Node]:
    """The features that make the answer, one statement each."""
    x, y = n.Letter(found.letter), n.Letter("y")
    domain = (
        build.left_out(found.letter, [written_root(v) for v in found.excluded]) if found.excluded else ln.AllReals()
    )
    rows: list[tuple[str, n.Node]] = [("domain", domain)]
    rows += [("hole", ln.Point(written_root(a), b)) for a, b in found.holes]
    rows += [("vertical asymptote", build.equation(x, written_root(v))) for v in found.vertical]
    if found.horizontal is not None:
        rows.append(("horizontal asymptote", build.equation(y, number(found.horizontal))))
    if found.oblique is not None:
        rows.append(("oblique asymptote", build.equation(y, found.oblique)))
    rows += [("x-intercept", written_root(v)) for v in found.x_intercepts]
    if found.y_intercept is not None:
        rows.append(("y-intercept", number(found.y_intercept)))
    return [ln.Feature(name, (item,), False, name) for name, item in rows]


def _feature(paper: WorkedLines, name: str, items: Sequence[n.Node], rule: str, what: str | n.Node) -> None:
    """A line with all features of a name; none of them is said to be none."""
    label = name if len(items) == 1 else f"{name}s"
    line = ln.Feature(name, tuple(items) or (ln.Word("none"),), len(items) != 1, label)
    paper.write(line, rule, what, kind="feature", shown_at=BRIEF)


def _stated(
    paper: WorkedLines,
    name: str,
    item: n.Node,
    rule: str,
    what: str,
    *,
    shown_at: int = BRIEF,
    side: Sequence[SideWork] = (),
) -> None:
    """A line with one feature that a function has once."""
    paper.write(ln.Feature(name, (item,), False, name), rule, what, kind="feature", shown_at=shown_at, side=side)


def _holes(paper: WorkedLines, found: Features) -> None:
    points = [ln.Point(written_root(a), b) for a, b in found.holes]
    places = ", ".join(plain(point.across) for point in points)
    what = f"the cancelled factor is 0 at {found.letter} = {places}; the height comes from the reduced form."
    _feature(paper, "hole", points, "find-holes", what if points else "no factor cancels.")


def _y_intercept(paper: WorkedLines, found: Features) -> None:
    items = [] if found.y_intercept is None else [number(found.y_intercept)]
    _feature(paper, "y-intercept", items, "intercepts", f"put {found.letter} = 0 in.")


def _ends(paper: WorkedLines, found: Features, problem: Problem) -> None:
    value, x = found.value, problem.unknown
    up = integer_coefficients(value.numerator, x)
    low = integer_coefficients(value.denominator, x)
    n_top, n_low = len(up) - 1, len(low) - 1
    if n_low == 0:
        return
    y = n.Letter("y")
    if found.horizontal is not None:
        if n_top < n_low:
            what = f"the degree above ({n_top}) is smaller than below ({n_low}), so the values go to 0."
        else:
            what = (
                f"both degrees are {n_top}, so the values go to the "
                f"ratio of the leading coefficients, {up[-1]}/{low[-1]}."
            )
        _stated(paper, "horizontal asymptote", build.equation(y, number(found.horizontal)), "end-behaviour", what)
    elif found.oblique is not None:
        if n_low == 1 and low[1] in (1, -1):
            work: SideWork = synthetic(up, Q(-low[0], low[1]))[1]
        else:
            work = _long_division(value, x)
        _, rest = divided(value, x)
        what = say("the degree above is one more than below: the quotient is {}", found.oblique)
        what += f", the remainder {rest[0]}." if len(rest) == 1 else "."
        _stated(paper, "oblique asymptote", build.equation(y, found.oblique), "oblique-asymptote", what, side=[work])
    line = ln.Feature("end behaviour", (_end(found, "-"), _end(found, "+")), True, "end behaviour")
    paper.write(line, "end-behaviour", "far out, only the leading terms count.", kind="feature")


def _end(found: Features, side: str) -> n.Node:
    limit = found.ends[side]
    if isinstance(limit, Q):
        return ln.End(side, number(limit))
    return ln.End(side, None, "-" if limit == "-inf" else "+")


def _long_division(value: Ratio, x: str) -> LongDivision:
    ring = value.field
    bottom = Poly.of(ring.ratio(value.denominator), x)
    rows: list[DivisionRow] = []
    rest = Poly.of(ring.ratio(value.numerator), x)
    dividend = plain(rest.tree)
    terms = []
    while rest.degree >= bottom.degree and not rest.is_zero:
        shift = rest.degree - bottom.degree
        share = rest.parts[-1] / bottom.parts[-1]
        term = Poly([*([ring.constant(0)] * shift), share], x)
        product = Poly.of(term.value * bottom.value, x)
        after = Poly.of(rest.value - product.value, x)
        rows.append(DivisionRow(*(plain(poly.tree) for poly in (term, product, after))))
        terms.append(plain(term.tree))
        rest = after
    return LongDivision(dividend, plain(bottom.tree), tuple(terms), tuple(rows))


def transform_parent(problem: Problem) -> WorkedLines:
    """a/(x − h) + k: how far 1/x is stretched and shifted, and two of its points moved along."""
    found = _features(problem)
    shape = found.shifted_reciprocal
    if shape is None or found.holes:
        raise NotThisWay("It is not of the form a/(x - h) + k.")
    a, h, k = shape
    x = problem.unknown
    paper = WorkedLines(problem)
    letter = n.Letter(x)
    bottom = build.polynomial((-h, 1), x)
    paper.write(shifted_reciprocal(a, h, k, x), "transform-parent", "divide, so that the shift stands alone.")
    zero = build.equation(letter, number(h))
    for name, value, what in (
        ("a", a, "the number above stretches the graph."),
        ("h", h, say("{} is 0 at {}: the graph moves across.", bottom, zero)),
        ("k", k, "the number added moves the graph up or down."),
    ):
        paper.write(build.equation(n.Letter(name), number(value)), "transform-parent", what, kind="parameter")
    for unit in (1, -1):
        point = ln.Point(number(h + unit), number(k + a * unit))
        across, up = (
            build.sum_of([number(h), number(unit)]),
            build.sum_of([build.dotted(number(a), number(unit)), number(k)]),
        )
        what = say(f"({unit}, {unit}) of 1/{x} moves to ({{}}, {{}}).", across, up)
        _stated(paper, "point", point, "transform-parent", what, shown_at=BOARD)
    _stated(paper, "domain", build.left_out(x, [number(h)]), "state-domain", "the denominator must not be 0.")
    _feature(paper, "vertical asymptote", [zero], "vertical-asymptotes", zero)
    y = n.Letter("y")
    _stated(
        paper,
        "horizontal asymptote",
        build.equation(y, number(k)),
        "end-behaviour",
        "the fraction dies out, k is left.",
    )
    _stated(paper, "range", build.left_out("y", [number(k)]), "state-range", "the fraction is never 0.")
    _feature(paper, "x-intercept", [written_root(v) for v in found.x_intercepts], "intercepts", "set it to 0.")
    _y_intercept(paper, found)
    paper.answer = feature_table(found)
    return paper
