"""Expression trees to rational functions, with the conditions under which they are defined."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction as Q

from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.ratio import Field, Poly, Ratio
from algebra.tree import nodes as n


@dataclass(frozen=True, slots=True)
class Value:
    """A value and the polynomials that must not be zero for the expression *as written* to be defined."""

    ratio: Ratio
    nonzero: tuple[Poly, ...] = field(default=())

    @property
    def domain_key(self) -> frozenset[str]:
        return frozenset(str(poly) for poly in self.nonzero)


def value_of(node: n.Node, over: Field) -> Value:
    """The value of an expression without ±.

    Raises OutOfScope, TooLarge, or UndefinedValue when it is undefined for every choice of its letters.
    """
    evaluator = _Evaluator(over)
    ratio = evaluator.value(node)
    unique = {str(poly): poly for poly in evaluator.nonzero}
    return Value(ratio, tuple(unique.values()))


class _Evaluator:
    def __init__(self, over: Field) -> None:
        self.field = over
        self.nonzero: list[Poly] = []

    def must_not_vanish(self, value: Ratio) -> None:
        if value.is_zero:
            raise UndefinedValue("It divides by zero.")
        if not value.numerator.is_constant():
            self.nonzero.append(value.numerator)

    def value(self, node: n.Node) -> Ratio:
        match node:
            case n.Integer(number):
                return self.field.constant(number)
            case n.Decimal():
                return self.field.constant(node.value)
            case n.Mixed(whole, top, bottom):
                if bottom == 0:
                    raise UndefinedValue("It divides by zero.")
                return self.field.constant(whole + Q(top, bottom))
            case n.Letter(name):
                return self.field.letter(name)
            case n.Unit(word):
                return self.field.letter(f'"{word}"')
            case n.Group(child):
                return self.value(child)
            case n.Signed(sign, child):
                inner = self.value(child)
                return -inner if sign == "-" else inner
            case n.Sum(terms, signs):
                total = self.value(terms[0])
                for sign, term in zip(signs, terms[1:], strict=True):
                    inner = self.value(term)
                    total = total - inner if sign == "-" else total + inner
                return total
            case n.Product(factors, operators):
                total = self.value(factors[0])
                for operator, factor in zip(operators, factors[1:], strict=True):
                    inner = self.value(factor)
                    if operator == "÷":
                        self.must_not_vanish(inner)
                        total = total / inner
                    else:
                        total = total * inner
                return total
            case n.Fraction(top, bottom):
                above, below = self.value(top), self.value(bottom)
                self.must_not_vanish(below)
                return above / below
            case n.Power(base, exponent):
                return self._power(self.value(base), self.value(exponent))
            case n.Root():
                raise OutOfScope("Lines with roots are not checked yet.", "√")
            case n.Absolute():
                raise OutOfScope("Lines with absolute values are not checked yet.", "|")
        raise OutOfScope(f"A {type(node).__name__.lower()} has no value.")

    def _power(self, base: Ratio, exponent: Ratio) -> Ratio:
        number = exponent.constant
        if number is None:
            raise OutOfScope("Powers with a letter in the exponent are not checked yet.", "^")
        if number.denominator != 1:
            raise OutOfScope("Powers with a fraction in the exponent are not checked yet.", "^")
        if number <= 0:
            self.must_not_vanish(base)
        if abs(number) > 10**6:
            raise TooLarge("This exponent is too large to be written out.", "^")
        return base ** int(number)
