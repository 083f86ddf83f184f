"""Equations in which the unknown stands once: undone from the outside in, in the reverse order of operations."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.rational_functions import Ratio
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.quadratic import take_root
from algebra.methods.radical_equations import check_candidates
from algebra.methods.rational_equations import settle
from algebra.methods.terms import Poly, fraction, number, opposite, shown, terms_of, wrapped
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def undo_in_reverse(problem: Problem) -> Paper:
    """One inverse operation a line."""
    left, right = problem.sides()
    x = n.Letter(problem.unknown)
    count = sum(1 for side in (left, right) for part in n.parts_of(side) if part == x)
    if count != 1:
        raise NotThisWay("The unknown stands in more than one place.")
    own_left = problem.unknown in n.letters(left)
    own, other = (left, right) if own_left else (right, left)
    if any(isinstance(p, n.Power) and problem.unknown in n.letters(p.exponent) for p in n.parts_of(own)):
        raise NotThisWay("The unknown stands in an exponent.")
    if any(isinstance(p, n.Absolute) for p in n.parts_of(own)):
        raise NotThisWay("The unknown stands between bars.")
    paper = Paper(problem)
    _Undoing(paper, own_left).run(own, problem.value(other))
    return paper


class _Undoing:
    def __init__(self, paper: Paper, own_left: bool) -> None:
        self.paper = paper
        self.problem = paper.problem
        self.own_left = own_left
        self.owed = False
        self.depth = 0
        self.steps: list[tuple[str, str]] = []

    def line(self, own: str, other: str) -> str:
        return f"{own} = {other}" if self.own_left else f"{other} = {own}"

    def run(self, own: n.Node, value: Ratio) -> None:
        """Peels the side that holds the unknown until it stands alone."""
        x = self.problem.unknown
        while True:
            bare = n.bare(own)
            if bare == n.Letter(x):
                break
            done = self._peel(bare, value)
            if done is None:
                return
            own, value = done
            self.depth += 1
        if self.depth == 0:
            raise NotThisWay("The unknown stands alone already.")
        self.paper.answer = [shown(value)]
        if self.paper.excluded:
            settle(self.paper)
        check_candidates(self.paper, owed=self.owed)

    def _peel(self, bare: n.Node, value: Ratio) -> tuple[n.Node, Ratio] | None:
        match bare:
            case n.Sum() | n.Signed():
                return self._sum(bare, value)
            case n.Product():
                return self._product(bare, value)
            case n.Fraction(top, bottom) if self.problem.unknown in n.letters(top):
                scale = self.problem.value(bottom)
                what = shown(scale)
                result = value * scale
                self._write(plain(n.bare(top)), result, "multiply-both-sides", what, f"×{wrapped(what)}")
                return top, result
            case n.Fraction(top, bottom):
                return self._turned_over(top, bottom, value)
            case n.Power(base, n.Integer(power)) if power > 1:
                return self._root(base, power, value)
            case n.Root(radicand, index):
                power = index.value if isinstance(index, n.Integer) else 2
                constant = value.constant
                if power % 2 == 0:
                    if constant is not None and constant < 0:
                        self.paper.write("no solution", "root-never-negative", f"{plain(bare)} can't be {shown(value)}", shown_at=BRIEF,
                                         noticed=("no solution",))  # fmt: skip
                        return None
                    self.owed = True
                result = value**power
                rule, move = ("square-both-sides", "square") if power == 2 else ("power-both-sides", f"^{power}")
                self._write(plain(n.bare(radicand)), result, rule, str(power), move)
                return radicand, result
            case n.Power(base, exponent):
                return self._fractional(base, exponent, value)
        raise NotThisWay("This operation has no inverse that is worked out here.")

    def _fractional(self, base: n.Node, exponent: n.Node, value: Ratio) -> tuple[n.Node, Ratio]:
        """x^(2/3) = 4: raised to the third power, x^2 = 64."""
        power = self.problem.value(exponent).constant
        if power is None or power.denominator == 1 or power < 0:
            raise NotThisWay("This exponent is not undone here.")
        if power.denominator % 2 == 0:
            if (value.constant or Q(0)) < 0:
                raise NotThisWay("An even root is never negative.")
            self.owed = True
        result = value**power.denominator
        rest = base if power.numerator == 1 else n.Power(base, n.Integer(power.numerator))
        self._write(plain(n.bare(rest)), result, "power-both-sides", str(power.denominator), f"^{power.denominator}")
        return rest, result

    def _write(self, own: str, value: Ratio, rule: str, what: str, move: str | None) -> None:
        self.paper.write(self.line(own, shown(value)), rule, what, move=move)

    def _sum(self, bare: n.Node, value: Ratio) -> tuple[n.Node, Ratio]:
        terms = terms_of(bare)
        held = [(s, t) for s, t in terms if self.problem.unknown in n.letters(t)]
        rest = self.problem.field.constant(0)
        for sign, term in terms:
            if self.problem.unknown not in n.letters(term):
                rest = rest - self.problem.value(term) if sign == "-" else rest + self.problem.value(term)
        sign, term = held[0]
        result = value - rest
        own = plain(term) if sign == "+" else f"-{plain(term)}"
        if not rest.is_zero:
            what = shown(rest)
            minus = what.startswith("-")
            what = opposite(what) if minus else what
            self._write(own, result, "add-to-both-sides" if minus else "subtract-from-both-sides", what,
                        f"{'+' if minus else '-'}{wrapped(what)}")  # fmt: skip
        if sign == "-":
            result = -result
            self._write(plain(n.bare(term)), result, "multiply-both-sides", "-1", "×(-1)")
        return term, result

    def _product(self, bare: n.Product, value: Ratio) -> tuple[n.Node, Ratio]:
        if "÷" in bare.operators:
            raise NotThisWay("A division sign stands beside the unknown; write a fraction bar.")
        held = [f for f in bare.factors if self.problem.unknown in n.letters(f)]
        scale = self.problem.field.constant(1)
        for factor in bare.factors:
            if factor is not held[0]:
                scale = scale * self.problem.value(factor)
        result = value / scale
        constant = scale.constant
        own = plain(n.bare(held[0]))
        if constant is not None and constant.denominator != 1:
            what = number(1 / constant)
            self._write(own, result, "multiply-both-sides", what, f"×{wrapped(what)}")
        else:
            what = shown(scale)
            self._write(own, result, "divide-both-sides", what, f"÷{wrapped(what)}")
        return held[0], result

    def _turned_over(self, top: n.Node, bottom: n.Node, value: Ratio) -> tuple[n.Node, Ratio] | None:
        """a/D = v as D = a/v."""
        above = self.problem.value(top)
        if value.is_zero:
            self.paper.write(
                "no solution", "contradiction", f"{plain(top)} = 0", shown_at=BRIEF, noticed=("no solution",)
            )
            return None
        result = above / value
        if above.constant == 1 or value.constant is None or above.constant is None:
            self._write(plain(n.bare(bottom)), result, "reciprocal-both-sides", "", None)
        else:
            self.paper.write(self.line(fraction(plain(n.bare(bottom)), shown(above)), shown(above.field.constant(1) / value)),
                             "reciprocal-both-sides", shown_at=EVERY)  # fmt: skip
            self._write(plain(n.bare(bottom)), result, "reciprocal-both-sides", "", None)
        return bottom, result

    def _root(self, base: n.Node, power: int, value: Ratio) -> tuple[n.Node, Ratio] | None:
        constant = value.constant
        if power == 2:
            inner = Poly.of(self.problem.value(base), self.problem.unknown)
            if inner.degree == 1:
                take_root(self.paper, plain(n.bare(base)), value)
                return None
            raise NotThisWay("The square holds more than a linear term.")
        if constant is None:
            raise NotThisWay("The number under the root holds letters.")
        root = _exact_root(constant, power)
        if power % 2 == 0 and constant < 0:
            self.paper.write(
                "no solution",
                "no-real-root",
                f"{number(constant)} is negative",
                shown_at=BRIEF,
                noticed=("no solution",),
            )
            return None
        if root is None:
            raise NotThisWay("The root is no rational number.")
        own = plain(n.bare(base))
        if power % 2:
            result = self.problem.field.constant(root)
            self._write(own, result, "root-both-sides", f"the root with index {power} of {number(constant)} is {number(root)}",
                        None)  # fmt: skip
            return base, result
        inner = Poly.of(self.problem.value(base), self.problem.unknown)
        if inner.degree != 1 or inner.numbers is None:
            raise NotThisWay("The power holds more than a linear term.")
        x = self.problem.unknown
        self.paper.write(
            self.line(own, f"±{number(root)}"),
            "root-both-sides",
            "an even power has two roots, one positive and one negative",
        )
        b, a = inner.numbers
        values = [number((sign * root - b) / a) for sign in (1, -1)]
        if own != x:
            self.paper.write(f"{own} = {number(root)} or {own} = {number(-root)}", "split-plus-minus", shown_at=EVERY)
        self.paper.write(" or ".join(f"{x} = {v}" for v in dict.fromkeys(values)), "split-plus-minus", shown_at=BRIEF)
        self.paper.answer = list(dict.fromkeys(values))
        return None


def _exact_root(value: Q, power: int) -> Q | None:
    parts = []
    for part in (abs(value.numerator), value.denominator):
        root = round(part ** (1 / power))
        if root**power != part:
            return None
        parts.append(root)
    return Q(parts[0], parts[1]) * (-1 if value < 0 else 1)
