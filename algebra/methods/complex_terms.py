"""Terms of complex numbers: a rational number times a power of i times a square root, read off written sums and
written."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction as Q

from algebra.methods.surds import square_part
from algebra.methods.terms import terms_of
from algebra.tree import build
from algebra.tree import nodes as n

I = n.Letter("i")


@dataclass(frozen=True, slots=True)
class Term:
    """coefficient · i^power · √radicand; the radicand is a positive whole number, 1 where there is no root."""

    coefficient: Q
    power: int = 0
    radicand: int = 1

    def times(self, other: Term) -> Term:
        """The product, the radicands under one root, √a·√a as a; i² stays."""
        size = self.coefficient * other.coefficient
        if self.radicand == other.radicand:
            return Term(size * self.radicand, self.power + other.power)
        return Term(size, self.power + other.power, self.radicand * other.radicand)

    @property
    def opposite(self) -> Term:
        """The term with the other sign."""
        return Term(-self.coefficient, self.power, self.radicand)

    @property
    def small(self) -> Term:
        """The term with i² put as −1 and the square factor of its radicand in front."""
        outside, inside = square_part(self.radicand)
        sign = -1 if self.power % 4 in (2, 3) else 1
        return Term(self.coefficient * outside * sign, self.power % 2, inside)

    @property
    def is_rational(self) -> bool:
        """Whether it is a rational number as it is written."""
        return self.power == 0 and self.radicand == 1

    @property
    def tree(self) -> n.Node:
        """The term as it is written: `2i√3`, `-i`, `7i/5`, `6i^2`."""
        parts: list[n.Node] = [n.Integer(abs(self.coefficient.numerator))]
        parts += [build.power(I, self.power)] if self.power else []
        parts += [build.root(n.Integer(self.radicand))] if self.radicand != 1 else []
        size = build.quotient(build.product(*parts), n.Integer(self.coefficient.denominator))
        return build.minus_if(self.coefficient < 0, size)


def terms_in(node: n.Node, *, opened: bool = False) -> list[Term] | None:
    """The terms of a sum of numbers, i and square roots, as they are written; None for anything else.

    `opened` looks into brackets that are added or subtracted too.
    """
    match node:
        case n.Group(child):
            return terms_in(child, opened=opened)
        case n.Sum():
            found: list[Term] = []
            for sign, term in terms_of(node):
                if not opened and isinstance(n.bare(term), n.Sum):
                    return None
                inner = terms_in(term, opened=opened)
                if inner is None:
                    return None
                found += [t.opposite for t in inner] if sign == "-" else inner
            return found
        case n.Signed(sign, child) if sign in "+-" and (opened or not isinstance(n.bare(child), n.Sum)):
            inner = terms_in(child, opened=opened)
            return [t.opposite for t in inner] if inner and sign == "-" else inner
    one = one_term(node)
    return None if one is None else [one]


def one_term(node: n.Node) -> Term | None:
    """A product of a number, powers of i and roots; None for anything else, and where two of a kind stand side by
    side."""
    match node:
        case n.Integer(value):
            return Term(Q(value))
        case n.Letter("i"):
            return Term(Q(1), 1)
        case n.Power(n.Letter("i"), n.Integer(power)):
            return Term(Q(1), power)
        case n.Root(radicand, None):
            inside = n.bare(radicand)
            return Term(Q(1), 0, inside.value) if isinstance(inside, n.Integer) and inside.value > 0 else None
        case n.Fraction(top, n.Integer(below)) if below:
            above = terms_in(top)
            return (
                Term(above[0].coefficient / below, above[0].power, above[0].radicand)
                if above and len(above) == 1
                else None
            )
        case n.Product(parts, operators) if "÷" not in operators:
            whole = Term(Q(1))
            for part in parts:
                one = one_term(part)
                clash = one is None or any(
                    (
                        one.coefficient != 1 and whole != Term(Q(1)),
                        one.power and whole.power,
                        one.radicand != 1 != whole.radicand,
                    )
                )
                if one is None or clash:
                    return None
                whole = whole.times(one)
            return whole
    return None


def written(terms: Sequence[Term]) -> n.Node:
    """The sum of the terms, in their order."""
    return build.sum_of(t.tree for t in terms if t.coefficient)


def combined(terms: Sequence[Term]) -> list[Term]:
    """Like terms added, the real ones first, i² as −1."""
    found: dict[tuple[int, int], Q] = {}
    for t in (term.small for term in terms):
        found[t.power, t.radicand] = found.get((t.power, t.radicand), Q(0)) + t.coefficient
    return [Term(found[key], *key) for key in sorted(found) if found[key]]


def place(term: Term) -> tuple[int, int]:
    """Real terms first, then those with i; numbers before roots."""
    return term.power, term.radicand
