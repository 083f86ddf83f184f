"""Rational equations: clear by the LCD, common denominator, cross-multiply, and equations with a pattern."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction as Q
from math import lcm

from algebra.exact.algebraic_numbers import Number, rational, roots_of
from algebra.exact.rational_functions import Poly as RawPoly
from algebra.exact.rational_functions import Ratio, depends_on
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.linear import simplify_sides
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.polynomial_equations import finish_polynomial
from algebra.methods.terms import Poly, factored, fraction, joined, number, opposite, shown, terms_of, times, wrapped
from algebra.parse.lines import read_expression
from algebra.reports.side_work import CommonDenominator
from algebra.tree import nodes as n
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class Piece:
    """A term as one fraction, numerator and denominator as written."""

    sign: str
    top: Ratio
    bottom: Ratio
    top_text: str
    bottom_text: str

    def text(self, bottom: str | None = None) -> str:
        body = fraction(self.top_text, bottom or self.bottom_text)
        return f"-{body}" if self.sign == "-" else body


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


def _written(term: n.Node) -> tuple[str, str]:
    bare = n.bare(term)
    if isinstance(bare, n.Fraction):
        return plain(n.bare(bare.numerator)), plain(n.bare(bare.denominator))
    if isinstance(bare, n.Product) and any(isinstance(n.bare(f), n.Fraction) for f in bare.factors):
        tops, bottoms = [], []
        for factor in bare.factors:
            a, b = _written(factor)
            tops.append(wrapped(a))
            if b != "1":
                bottoms.append(wrapped(b))
        return "·".join(t for t in tops if t != "1") or "1", "·".join(bottoms)
    return plain(bare), "1"


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
    def text(self) -> str:
        return factored(self.value)

    def missing(self, bottom: Ratio) -> Ratio:
        """What a denominator lacks."""
        return self.value / bottom

    def side_work(self, bottoms: list[Ratio]) -> CommonDenominator:
        """What each denominator lacks."""
        unique = {str(b): b for b in bottoms}.values()
        rows = tuple((factored(b), factored(self.missing(b))) for b in unique if b.constant != 1)
        return CommonDenominator(self.text, tuple(row[0] for row in rows), rows)


def scaled(piece: Piece, missing: Ratio) -> str:
    """The numerator times what its denominator lacked, products left standing."""
    c = missing.constant
    if c == 1:
        text = piece.top_text
        if piece.sign == "-":
            tree = read_expression(text)
            return f"-({text})" if isinstance(tree, n.Sum | n.Signed) else f"-{text}"
        return text
    if c is not None and c == -1:
        return opposite(scaled(piece, missing * missing))
    text, other = piece.top_text, factored(missing)
    top = piece.top.constant
    if top is not None and c is not None:
        body = shown(piece.top * missing)
        return opposite(body) if piece.sign == "-" else body
    if text == "1":
        body = wrapped(other) if piece.sign == "-" else other
    else:
        body = times(other, text) if c is not None else times(text, other)
    return f"-{body}" if piece.sign == "-" else body


def pieces_of(problem: Problem) -> tuple[list[Piece], list[Piece]]:
    left, right = problem.sides()
    found = [[piece_of(problem, s, t) for s, t in terms_of(side)] for side in (left, right)]
    if not any(depends_on(p.bottom.numerator, problem.unknown) for side in found for p in side):
        raise NotThisWay("No denominator holds the unknown.")
    return found[0], found[1]


def is_rational(problem: Problem) -> bool:
    try:
        pieces_of(problem)
    except NotThisWay:
        return False
    return True


def begin(paper: Paper, left: list[Piece], right: list[Piece]) -> Lcd:
    """Denominators factored, excluded values stated."""
    problem = paper.problem
    bottoms = [p.bottom for p in (*left, *right)]
    lcd = Lcd(problem, bottoms)
    texts = [joined(p.text(_factored_bottom(p)) for p in side) for side in (left, right)]
    paper.write(" = ".join(texts), "factor-denominators", side=[lcd.side_work(bottoms)])
    values = excluded_values(problem, lcd)
    if values:
        paper.exclude(values)
        paper.write(f"{problem.unknown} ≠ {', '.join(values)}", "excluded-values", kind="exclusion")
    return lcd


def _factored_bottom(piece: Piece) -> str:
    text = factored(piece.bottom)
    same = piece.bottom_text.replace(" ", "") == text.replace(" ", "")
    tree = read_expression(text)
    return piece.bottom_text if same or not isinstance(tree, n.Product | n.Power) or (not depends_on(
        piece.bottom.numerator, next(iter(piece.bottom.field.letters))) and len(piece.bottom.field.letters) == 1) else text  # fmt: skip


def excluded_values(problem: Problem, lcd: Lcd) -> list[str]:
    """The zeros of the LCD, in order; with other letters as expressions."""
    x = problem.unknown
    numbers: list[Number] = []
    others: list[str] = []
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
    return [*map(str, sorted(numbers)), *others]


def settle(paper: Paper) -> None:
    """Drops the candidates that are excluded; checks the others in the given at the finest grain."""
    x = paper.problem.unknown
    excluded = set(paper.excluded)
    dropped = [value for value in paper.answer if value in excluded]
    kept = [value for value in paper.answer if value not in excluded]
    if paper.answer == ["all"]:
        if excluded:
            paper.write(f"all real numbers except {', '.join(paper.excluded)}", "drop-excluded",
                        f"{x} = {' and '.join(paper.excluded)}", shown_at=BRIEF)  # fmt: skip
        return
    if dropped:
        paper.answer = kept
        text = " or ".join(f"{x} = {v}" for v in kept) if kept else "no solution"
        paper.write(text, "drop-excluded", f"{x} = {' and '.join(dropped)}", shown_at=BRIEF, noticed=("extraneous",))
    if len(paper.problem.field.letters) > 1:
        return  # values in other letters are not put in
    for value in kept:
        paper.write(
            f"check {x} = {value}",
            "check-candidate",
            f"{x} = {value} goes into the given.",
            kind="check",
            shown_at=EVERY,
        )


def clear_by_lcd(problem: Problem) -> Paper:
    """Every term times the LCD; candidates that the ledger excludes are dropped."""
    left, right = pieces_of(problem)
    paper = Paper(problem)
    lcd = begin(paper, left, right)
    texts = [joined(scaled(p, lcd.missing(p.bottom)) for p in side) for side in (left, right)]
    paper.write(" = ".join(texts), "clear-denominators", lcd.text, move=f"×{wrapped(lcd.text)}",
                noticed=("opposite denominators",) if _opposites([*left, *right]) else ())  # fmt: skip
    finish_polynomial(paper)
    settle(paper)
    return paper


def _opposites(pieces: list[Piece]) -> bool:
    bottoms = [p.bottom for p in pieces if p.bottom.constant is None]
    return any((a + b).is_zero for k, a in enumerate(bottoms) for b in bottoms[k + 1 :])


def cross_multiply(problem: Problem) -> Paper:
    """One fraction equals one fraction."""
    left, right = pieces_of(problem)
    if len(left) != 1 or len(right) != 1:
        raise NotThisWay("A side is a sum; only one fraction on each side may be cross-multiplied.")
    a, b = left[0], right[0]
    paper = Paper(problem)
    values = excluded_values(problem, Lcd(problem, [a.bottom, b.bottom]))
    if values:
        paper.exclude(values)
        paper.write(f"{problem.unknown} ≠ {', '.join(values)}", "excluded-values", kind="exclusion")
    texts = [
        scaled(a, problem.value(read_expression(b.bottom_text))),
        scaled(b, problem.value(read_expression(a.bottom_text))),
    ]
    what = " and ".join(p.bottom_text for p in (a, b) if p.bottom_text != "1")
    both = times(*sorted((p.bottom_text for p in (a, b)), key=len))
    paper.write(" = ".join(texts), "cross-multiply", what, move=f"×{wrapped(both)}")
    finish_polynomial(paper)
    settle(paper)
    return paper


def common_denominator(problem: Problem) -> Paper:
    """Every term over the LCD, then the numerators are equal."""
    left, right = pieces_of(problem)
    paper = Paper(problem)
    lcd = begin(paper, left, right)
    bottom = lcd.text
    sides = []
    for side in (left, right):
        parts = []
        for p in side:
            top = scaled(p, lcd.missing(p.bottom))
            minus = isinstance(read_expression(top), n.Signed)
            body = fraction(opposite(top) if minus else top, bottom)
            parts.append(f"-{body}" if minus else body)
        sides.append(joined(parts))
    paper.write(" = ".join(sides), "lcd", bottom)
    tops = [joined(scaled(p, lcd.missing(p.bottom)) for p in side) for side in (left, right)]
    paper.write(" = ".join(fraction(top, bottom) for top in tops), "combine-numerators")
    paper.write(" = ".join(tops), "equate-numerators", move=f"×{wrapped(bottom)}")
    finish_polynomial(paper)
    settle(paper)
    return paper


def spot_the_structure(problem: Problem) -> Paper:
    """Fractions whose numerators become equal when 1 is taken from each."""
    left, right = problem.sides()
    if problem.unknown in n.letters(right):
        left, right = right, left
    total = problem.value(right).constant if problem.unknown not in n.letters(right) else None
    terms = terms_of(left)
    if total is None or len(terms) < 2 or total != len(terms) or any(s == "-" for s, _ in terms):
        raise NotThisWay("The sides do not show a pattern that shortens the work.")
    less = [problem.value(t) - problem.field.constant(1) for _, t in terms]
    tops = [value * problem.field.constant(_below(value)) for value in less]
    if any(tops[0] != top and tops[0] != -top for top in tops[1:]) or tops[0].constant is not None:
        raise NotThisWay("Taking 1 from each term does not make the numerators equal.")
    paper = Paper(problem)
    paper.write(f"{' + '.join(f'({plain(t)} - 1)' for _, t in terms)} = 0", "spot-structure",
                f"{len(terms)} terms make {len(terms)}: take 1 from each, and every numerator becomes the same.",
                move=f"-{number(total)}", noticed=("pattern",))  # fmt: skip
    top = shown(tops[0])
    rest = [number(Q(1, _below(v)) if tops[0] == t else Q(-1, _below(v))) for v, t in zip(less, tops, strict=True)]
    written = [
        fraction(top, r.split("/")[1]) if not r.startswith("-") else f"-{fraction(top, r.split('/')[1])}" for r in rest
    ]
    paper.write(f"{joined(written)} = 0", "spot-structure", f"every numerator is now {top}.")
    paper.write(f"({top})({joined(rest)}) = 0", "common-bracket", top)
    paper.write(f"{top} = 0", "divide-both-sides", joined(rest), move=f"÷({joined(rest)})")
    simplify_sides(paper, *problem.with_given(paper.line).sides())
    finish_polynomial(paper)
    return paper


def _below(value: Ratio) -> int:
    return abs(int(value.denominator.leading_coefficient()))
