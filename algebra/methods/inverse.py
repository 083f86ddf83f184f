"""Equations in which the unknown stands once: undone from the outside in, in the reverse order of operations."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import whole_root
from algebra.exact.rational_functions import Ratio
from algebra.methods.linear import both
from algebra.methods.moves import beside, multiplying, taken_from, taking_off, undoing
from algebra.methods.quadratic import take_root
from algebra.methods.radical_equations import check_candidates
from algebra.methods.rational_equations import settle
from algebra.methods.terms import Poly, number, over_one_bar, shown, terms_of
from algebra.methods.worked_lines import BRIEF, EVERY, Move, NotThisWay, Problem, WorkedLines, say
from algebra.reports.side_work import Ladder
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain


def undo_in_reverse(problem: Problem) -> WorkedLines:
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
    paper = WorkedLines(problem)
    work = _Undoing(paper, own_left)
    work.run(own, problem.value(other))
    if len(work.done) > 1 and paper.steps:
        done, undone = zip(*work.done, strict=True)
        ladder = Ladder(problem.unknown, done[::-1], undone, plain(other))
        paper.steps[0] = replace(paper.steps[0], side_work=(ladder, *paper.steps[0].side_work))
    return paper


class _Undoing:
    def __init__(self, paper: WorkedLines, own_left: bool) -> None:
        self.paper = paper
        self.problem = paper.problem
        self.own_left = own_left
        self.owed = False
        self.done: list[tuple[str, str]] = []
        """What was done to the unknown and how it was undone, the last that was done first."""

    def line(self, own: n.Node, other: n.Node) -> n.Node:
        """The equation with the side that is worked on where it stood."""
        return both(own, other, self.own_left)

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
        if not self.done:
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
                result = value * scale
                detail = [build.dotted(build.factor(shown(scale)), build.factor(side)) for side in (bare, shown(value))]
                self._move(n.bare(top), result, multiplying(scale), beside("÷", shown(scale)), detail)
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
                        self._nothing("root-never-negative", say("{} can't be {}", bare, shown(value)))
                        return None
                    self.owed = True
                result = value**power
                rule, move = ("square-both-sides", "square") if power == 2 else ("power-both-sides", f"^{power}")
                self.done.append(("√" if power == 2 else "∛" if power == 3 else f"root {power}", move))
                raised = [
                    build.power(n.Group(side) if isinstance(side, n.Root) else side, power)
                    for side in (bare, shown(value))
                ]
                self._detail(raised, rule, str(power), move)
                self._write(n.bare(radicand), result, rule, str(power), None)
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
        self.done.append((f"^({power})", f"^{power.denominator}"))
        self._write(n.bare(rest), result, "power-both-sides", str(power.denominator), f"^{power.denominator}")
        return rest, result

    def _write(self, own: n.Node, value: Ratio, rule: str, what: str | n.Node = "", move: str | None = None) -> None:
        self.paper.write(self.line(own, over_one_bar(value)), rule, what, move=move)

    def _detail(self, sides: Sequence[n.Node], rule: str, what: str | n.Node, move: str | None) -> None:
        """What is done to both sides, written out, at the finest grain."""
        self.paper.write(self.line(*sides), rule, what, move=move, shown_at=EVERY)

    def _move(self, own: n.Node, value: Ratio, move: Move, was_done: str, detail: Sequence[n.Node] = ()) -> None:
        self.done.append((was_done, move.text))
        if detail:
            self._detail(detail, move.rule, move.what, move.text)
        self.paper.write(self.line(own, over_one_bar(value)), move.rule, move.what, move=None if detail else move.text)

    def _nothing(self, rule: str, why: str | n.Node) -> None:
        self.paper.write(ln.NoSolution(), rule, why, shown_at=BRIEF, noticed=("no solution",))

    def _sum(self, bare: n.Node, value: Ratio) -> tuple[n.Node, Ratio]:
        terms = terms_of(bare)
        held = [(s, t) for s, t in terms if self.problem.unknown in n.letters(t)]
        rest = self.problem.field.constant(0)
        for sign, term in terms:
            if self.problem.unknown not in n.letters(term):
                rest = rest - self.problem.value(term) if sign == "-" else rest + self.problem.value(term)
        sign, term = held[0]
        result = value - rest
        if not rest.is_zero:
            move, back = taking_off(shown(rest)), taking_off(build.opposite(shown(rest)))
            detail = [taken_from(side, shown(rest)) for side in (bare, shown(value))]
            self._move(build.signed(sign, term), result, move, back.text, detail)
        if sign == "-":
            result = -result
            self._move(n.bare(term), result, multiplying(self.problem.field.constant(-1)), "×(-1)")
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
        move = undoing(scale)
        sides = (bare, shown(value))
        if move.rule == "multiply-both-sides":
            detail = [build.dotted(build.factor(move.what), build.factor(side)) for side in sides]
        else:
            detail = [build.quotient(side, move.what) for side in sides]
        self._move(n.bare(held[0]), result, move, beside("×", shown(scale)), [] if scale.constant == -1 else detail)
        return held[0], result

    def _turned_over(self, top: n.Node, bottom: n.Node, value: Ratio) -> tuple[n.Node, Ratio] | None:
        """a/D = v as D = a/v."""
        above = self.problem.value(top)
        if value.is_zero:
            self._nothing("contradiction", build.equation(top, build.ZERO))
            return None
        result = above / value
        if above.constant != 1 and value.constant is not None and above.constant is not None:
            line = self.line(build.quotient(n.bare(bottom), shown(above)), shown(above.field.constant(1) / value))
            self.paper.write(line, "reciprocal-both-sides", shown_at=EVERY)
        self.done.append((f"{plain(build.factor(shown(above)))} over it", "turn over"))
        self._write(n.bare(bottom), result, "reciprocal-both-sides")
        return bottom, result

    def _root(self, base: n.Node, power: int, value: Ratio) -> tuple[n.Node, Ratio] | None:
        constant = value.constant
        if power % 2 == 0:
            self.done.append(("square" if power == 2 else f"^{power}", "±√" if power == 2 else f"±root {power}"))
        if power == 2:
            inner = Poly.of(self.problem.value(base), self.problem.unknown)
            if inner.degree == 1:
                take_root(self.paper, n.bare(base), value)
                return None
            raise NotThisWay("The square holds more than a linear term.")
        if constant is None:
            raise NotThisWay("The number under the root holds letters.")
        root = _exact_root(constant, power)
        if power % 2 == 0 and constant < 0:
            self._nothing("no-real-root", say("{} is negative", number(constant)))
            return None
        if root is None:
            raise NotThisWay("The root is no rational number.")
        own = n.bare(base)
        if power % 2:
            self.done.append((f"^{power}", "∛" if power == 3 else f"root {power}"))
            told = say(f"the root with index {power} of {{}} is {{}}", number(constant), number(root))
            self._write(own, self.problem.field.constant(root), "root-both-sides", told)
            return base, self.problem.field.constant(root)
        inner = Poly.of(self.problem.value(base), self.problem.unknown)
        if inner.degree != 1 or inner.numbers is None:
            raise NotThisWay("The power holds more than a linear term.")
        x = n.Letter(self.problem.unknown)
        line = self.line(own, n.Signed("±", number(root)))
        self.paper.write(line, "root-both-sides", "an even power has two roots, one positive and one negative")
        b, a = inner.numbers
        values = list(dict.fromkeys(number((sign * root - b) / a) for sign in (1, -1)))
        if own != x:
            cases = build.alternatives([build.equation(own, number(sign * root)) for sign in (1, -1)])
            self.paper.write(cases, "split-plus-minus", shown_at=EVERY)
        self.paper.answer = list(values)
        self.paper.write(build.solutions(x.name, self.paper.answer), "split-plus-minus", shown_at=BRIEF)
        return None


def _exact_root(value: Q, power: int) -> Q | None:
    top, bottom = whole_root(abs(value.numerator), power), whole_root(value.denominator, power)
    return None if top is None or bottom is None else Q(top, bottom) * (-1 if value < 0 else 1)
