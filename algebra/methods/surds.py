"""Numbers c·√n with n free of squares, and how they are written."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import prime_factors
from algebra.methods.terms import number
from algebra.tree import build
from algebra.tree import nodes as n


@dataclass(frozen=True, slots=True)
class Surd:
    """coefficient · √radicand, times i where imaginary; the radicand is a positive whole number without square
    factors."""

    coefficient: Q
    radicand: int = 1
    imaginary: bool = False

    @classmethod
    def root(cls, value: Q) -> Surd:
        """√value: √(2/3) is √6/3; of a negative number, i times the root of its opposite."""
        size = abs(value)
        whole = size.numerator * size.denominator
        outside, inside = square_part(whole)
        return cls(Q(outside, size.denominator), inside, value < 0)

    @property
    def is_rational(self) -> bool:
        """Whether no root is left, and no i."""
        return self.radicand == 1 and not self.imaginary

    @property
    def rational(self) -> Q:
        """The value of a number without a root."""
        return self.coefficient

    def times(self, scale: Q | int) -> Surd:
        """The surd times a rational number."""
        return Surd(self.coefficient * scale, self.radicand, self.imaginary)


def square_part(whole: int) -> tuple[int, int]:
    """(a, b) with whole = a²·b and b free of square factors."""
    outside, inside = 1, 1
    for prime, power in prime_factors(whole):
        outside *= int(prime) ** (int(power) // 2)
        inside *= int(prime) ** (int(power) % 2)
    return outside, inside


def surd_tree(surd: Surd) -> n.Node:
    """`6√2`, `√6/3`, `2i√3`, `-√5`, or the number."""
    tail: list[n.Node] = [n.Letter("i")] if surd.imaginary else []
    if surd.radicand != 1:
        tail.append(build.root(n.Integer(surd.radicand)))
    if not tail:
        return number(surd.coefficient)
    top, bottom = surd.coefficient.numerator, surd.coefficient.denominator
    size = build.quotient(build.product(n.Integer(abs(top)), *tail), n.Integer(bottom))
    return n.Signed("-", size) if top < 0 else size
