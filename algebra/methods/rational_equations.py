"""Rational equations: clear by the LCD, common denominator, cross-multiply, and equations with a pattern."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import lcm

from algebra.exact.algebraic_numbers import Number, rational, roots_of
from algebra.exact.rational_functions import Poly as RawPoly
from algebra.exact.rational_functions import Ratio, depends_on
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.factoring import searches_in
from algebra.methods.linear import simplify_sides
from algebra.methods.moves import beside
from algebra.methods.polynomial_equations import finish_polynomial
from algebra.methods.polynomials import written_root
from algebra.methods.radical_equations import write_check
from algebra.methods.terms import Poly, candidates_named, factored, number, shown, terms_of
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.reports.side_work import CommonDenominator
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class Piece:
    """A term as one fraction, numerator and denominator as written."""

    sign: str
    top: Ratio
    bottom: Ratio
    top_tree: n.Node
    bottom_tree: n.Node

    def over(self, bottom: n.Node) -> n.Node:
        """The term with its denominator written in this way."""
        return build.signed(self.sign, build.quotient(self.top_tree, bottom))


def piece_of(problem: Problem, sign: str, term: n.Node) -> Piece:
    """Raises NotThisWay for a fraction in a fraction."""
    top, bottom = _over(problem, term)
    tops, bottoms = _written(term)
    if depends_on(top.denominator, problem.unknown) or depends_on(bottom.denominator, problem.unknown):
        raise NotThisWay("There are fractions inside of fractions; combine them first.")
    return Piece(sign, top, bottom, tops, bottoms)


def _over(problem: Problem, term: n.Node) -> tuple[Ratio, Ratio]:
    bare = n.bare(term)
    one = problem.field.constant(1)
    if isinstance(bare, n.Signed):
        top, bottom = _over(problem, bare.child)
        return (-top if bare.sign == "-" else top), bottom
    if isinstance(bare, n.Fraction):
        return problem.value(bare.numerator), problem.value(bare.denominator)
    if isinstance(bare, n.Product) and "÷" not in bare.operators:
        top, bottom = one, one
        for factor in bare.factors:
            a, b = _over(problem, factor)
            top, bottom = top * a, bottom * b
        return top, bottom
    return problem.value(term), one


def _written(term: n.Node) -> tuple[n.Node, n.Node]:
    bare = n.bare(term)
    if isinstance(bare, n.Fraction):
        return n.bare(bare.numerator), n.bare(bare.denominator)
    if isinstance(bare, n.Product) and any(isinstance(n.bare(f), n.Fraction) for f in bare.factors):
        parts = [_written(factor) for factor in bare.factors]
        tops, bottoms = ([part[side] for part in parts if part[side] != build.ONE] for side in (0, 1))
        return build.dotted(*tops or [build.ONE]), build.dotted(*bottoms or [build.ONE])
    return bare, build.ONE


class Lcd:
    """The least common denominator of some denominators: factors with their powers, the number apart."""

    def __init__(self, problem: Problem, bottoms: list[Ratio]) -> None:
        self.problem = problem
        self.count = 1
        self.factors: dict[str, tuple[RawPoly, int]] = {}
        for bottom in bottoms:
            content, factors = factors_of_poly(bottom.numerator)
            self.count = lcm(self.count, abs(content))
            for factor, power in factors:
                lead = factor.leading_coefficient()
                kept = -factor if lead < 0 else factor
                known = self.factors.get(str(kept), (kept, 0))[1]
                self.factors[str(kept)] = (kept, max(known, power))
        total = problem.field.constant(self.count)
        for factor, power in self.factors.values():
            total = total * problem.field.ratio(factor) ** power
        self.value = total

    @property
    def tree(self) -> n.Node:
        """The denominator as a product of its factors."""
        return factored(self.value)

    def missing(self, bottom: Ratio) -> Ratio:
        """What a denominator lacks."""
        return self.value / bottom

    def side_work(self, bottoms: list[Ratio]) -> CommonDenominator:
        """What each denominator lacks."""
        unique = {str(b): b for b in bottoms}.values()
        rows = tuple((plain(factored(b)), plain(factored(self.missing(b)))) for b in unique if b.constant != 1)
        return CommonDenominator(plain(self.tree), tuple(row[0] for row in rows), rows)

    def numerators(self, pieces: Sequence[Piece]) -> n.Node:
        """The sum of the numerators, each times what its denominator lacked."""
        return build.sum_of(scaled(piece, self.missing(piece.bottom)) for piece in pieces)

    def fractions(self, pieces: Sequence[Piece]) -> n.Node:
        """The sum of the terms, each over this denominator."""
        return build.sum_of(build.bar(scaled(piece, self.missing(piece.bottom)), self.tree) for piece in pieces)


def scaled(piece: Piece, missing: Ratio) -> n.Node:
    """The numerator times what its denominator lacked, products left standing."""
    c = missing.constant
    if c == 1:
        return build.signed(piece.sign, piece.top_tree)
    if c == -1:
        return build.opposite(scaled(piece, missing * missing))
    other = factored(missing)
    if piece.top.constant is not None and c is not None:
        body = shown(piece.top * missing)
        return build.opposite(body) if piece.sign == "-" else body
    body = build.product(other, piece.top_tree) if c is not None else build.product(piece.top_tree, other)
    return build.signed(piece.sign, body)


def pieces_of(problem: Problem) -> tuple[list[Piece], list[Piece]]:
    """The terms of both sides as fractions. Raises NotThisWay where no denominator holds the unknown."""
    left, right = problem.sides()
    found = [[piece_of(problem, s, t) for s, t in terms_of(side)] for side in (left, right)]
    if not any(depends_on(p.bottom.numerator, problem.unknown) for side in found for p in side):
        raise NotThisWay("No denominator holds the unknown.")
    return found[0], found[1]


def is_rational(problem: Problem) -> bool:
    """Whether the unknown stands in a denominator, with no fraction inside of a fraction."""
    try:
        pieces_of(problem)
    except NotThisWay:
        return False
    return True


def begin(paper: WorkedLines, left: list[Piece], right: list[Piece]) -> Lcd:
    """Denominators factored, excluded values stated."""
    problem = paper.problem
    bottoms = [p.bottom for p in (*left, *right)]
    lcd = Lcd(problem, bottoms)
    sides = [build.sum_of(p.over(_factored_bottom(p)) for p in side) for side in (left, right)]
    side = [work for p in (*left, *right) for work in searches_in(problem, p.bottom_tree)]
    paper.write(build.equation(*sides), "factor-denominators", side=side)
    exclude_zeros(paper, lcd)
    return lcd


def exclude_zeros(paper: WorkedLines, lcd: Lcd) -> None:
    """States the excluded values, where there are any."""
    values = excluded_values(paper.problem, lcd)
    if values:
        paper.exclude(values)
        paper.write(build.left_out(paper.problem.unknown, values), "excluded-values", kind="exclusion")


def _factored_bottom(piece: Piece) -> n.Node:
    """The denominator in factors, where that shows more than what is written."""
    tree = factored(piece.bottom)
    letters = piece.bottom.field.letters
    is_number = len(letters) == 1 and not depends_on(piece.bottom.numerator, letters[0])
    if (
        is_number
        or not isinstance(tree, n.Product | n.Power)
        or plain(tree, tight=True) == plain(piece.bottom_tree, tight=True)
    ):
        return piece.bottom_tree
    return tree


def excluded_values(problem: Problem, lcd: Lcd) -> list[n.Node]:
    """The zeros of the LCD, in order; with other letters as expressions."""
    x = problem.unknown
    numbers: list[Number] = []
    others: list[n.Node] = []
    for factor, _ in lcd.factors.values():
        if not depends_on(factor, x):
            continue
        poly = Poly.of(problem.field.ratio(factor), x)
        if poly.degree == 1:
            value = -poly[0] / poly[1]
            if value.constant is None:
                others.append(shown(value))
            else:
                numbers.append(rational(value.constant))
        elif poly.degree == 2 and poly.numbers is not None:
            numbers += roots_of(tuple(int(c) for c in poly.numbers))
    return [*map(written_root, sorted(numbers)), *others]


def settle(paper: WorkedLines) -> None:
    """Drops the candidates that are excluded; checks the others in the given at the finest grain."""
    x = paper.problem.unknown
    if paper.answer == [ln.AllReals()]:
        if paper.excluded:
            paper.write(
                ln.AllReals(paper.excluded), "drop-excluded", candidates_named(x, paper.excluded), shown_at=BRIEF
            )
        return
    dropped = [value for value in paper.answer if value in paper.excluded]
    kept = [value for value in paper.answer if value not in paper.excluded]
    if dropped:
        paper.answer = kept
        what = candidates_named(x, dropped)
        paper.write(build.solutions(x, kept), "drop-excluded", what, shown_at=BRIEF, noticed=("extraneous",))
    if len(paper.problem.field.letters) > 1:
        return  # values in other letters are not put in
    for value in kept:
        write_check(paper, value, shown_at=EVERY)


def clear_by_lcd(problem: Problem) -> WorkedLines:
    """Every term times the LCD; candidates that the ledger excludes are dropped."""
    left, right = pieces_of(problem)
    paper = WorkedLines(problem)
    lcd = begin(paper, left, right)
    line = build.equation(lcd.numerators(left), lcd.numerators(right))
    noticed = ("opposite denominators",) if _opposites([*left, *right]) else ()
    side = [lcd.side_work([p.bottom for p in (*left, *right)])]
    paper.write(line, "clear-denominators", lcd.tree, move=beside("×", lcd.tree), noticed=noticed, side=side)
    finish_polynomial(paper)
    settle(paper)
    return paper


def _opposites(pieces: list[Piece]) -> bool:
    bottoms = [p.bottom for p in pieces if p.bottom.constant is None]
    return any((a + b).is_zero for k, a in enumerate(bottoms) for b in bottoms[k + 1 :])


def cross_multiply(problem: Problem) -> WorkedLines:
    """One fraction equals one fraction."""
    left, right = pieces_of(problem)
    if len(left) != 1 or len(right) != 1:
        raise NotThisWay("A side is a sum; only one fraction on each side may be cross-multiplied.")
    a, b = left[0], right[0]
    paper = WorkedLines(problem)
    exclude_zeros(paper, Lcd(problem, [a.bottom, b.bottom]))
    line = build.equation(scaled(a, problem.value(b.bottom_tree)), scaled(b, problem.value(a.bottom_tree)))
    below = [p.bottom_tree for p in (a, b)]
    what = " and ".join(plain(tree) for tree in below if tree != build.ONE)
    both = build.product(*sorted(below, key=lambda tree: len(plain(tree))))
    paper.write(line, "cross-multiply", what, move=beside("×", both))
    finish_polynomial(paper)
    settle(paper)
    return paper


def common_denominator(problem: Problem) -> WorkedLines:
    """Every term over the LCD, then the numerators are equal."""
    left, right = pieces_of(problem)
    paper = WorkedLines(problem)
    lcd = begin(paper, left, right)
    bottom = lcd.tree
    paper.write(build.equation(lcd.fractions(left), lcd.fractions(right)), "lcd", bottom)
    tops = [lcd.numerators(side) for side in (left, right)]
    paper.write(build.equation(*(build.quotient(top, bottom) for top in tops)), "combine-numerators")
    paper.write(build.equation(*tops), "equate-numerators", move=beside("×", bottom))
    finish_polynomial(paper)
    settle(paper)
    return paper


def spot_the_structure(problem: Problem) -> WorkedLines:
    """Fractions whose numerators become equal when 1 is taken from each."""
    left, right = problem.sides()
    if problem.unknown in n.letters(right):
        left, right = right, left
    total = problem.value(right).constant if problem.unknown not in n.letters(right) else None
    terms = terms_of(left)
    if total is None or len(terms) < 2 or total != len(terms) or any(s == "-" for s, _ in terms):
        raise NotThisWay("The sides do not show a pattern that shortens the work.")
    less = [problem.value(t) - problem.field.constant(1) for _, t in terms]
    first = problem.field.ratio(less[0].numerator)
    if first.constant is not None or problem.unknown not in n.letters(shown(first)):
        raise NotThisWay("Taking 1 from each term leaves no unknown.")
    parts = [value / first for value in less]
    if any(depends_on(p, problem.unknown) for part in parts for p in (part.numerator, part.denominator)):
        raise NotThisWay("Taking 1 from each term does not make the numerators equal.")
    paper = WorkedLines(problem)
    one_less = [n.Group(build.sum_of([t, n.Signed("-", build.ONE)])) for _, t in terms]
    paper.write(
        build.equation(build.sum_of(one_less), build.ZERO),
        "spot-structure",
        f"{len(terms)} terms make {len(terms)}: take 1 from each, and every numerator becomes the same.",
        move=beside("-", number(total)),
        noticed=("pattern",),
    )
    top = shown(first)
    rest = build.sum_of(map(shown, parts))
    written = [_over_part(top, part) for part in parts]
    paper.write(
        build.equation(build.sum_of(written), build.ZERO), "spot-structure", say("every numerator is now {}.", top)
    )
    paper.write(build.equation(build.product(top, n.Group(rest)), build.ZERO), "common-bracket", top)
    paper.write(build.equation(top, build.ZERO), "divide-both-sides", rest, move=beside("÷", rest))
    simplify_sides(paper, *paper.here.sides())
    finish_polynomial(paper)
    return paper


def _over_part(top: n.Node, part: Ratio) -> n.Node:
    """The shared numerator times a part that is free of the unknown: (x-76)/72, -(x-76)/71."""
    tree = shown(part)
    minus = build.is_minus(tree)
    size = tree.children[0] if minus else tree
    if isinstance(size, n.Fraction) and n.bare(size.numerator) == build.ONE:
        return build.minus_if(minus, build.quotient(top, n.bare(size.denominator)))
    return build.minus_if(minus, build.product(size, n.Group(top)))
