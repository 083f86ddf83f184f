"""Expression trees to rational functions, with the conditions under which they are defined."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction as Q

from algebra.exact.budget import spend
from algebra.exact.cell import MAX_INDEX, Above, Cell
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.numbers import prime_factors
from algebra.exact.ratio import Field, Poly, Ratio
from algebra.tree import nodes as n

MAX_DEGREE_ABOVE = 4
"""Highest degree of an exponent in its letters."""


@dataclass(frozen=True, slots=True)
class Value:
    """A value and the polynomials that must not be zero for the expression *as written* to be defined."""

    ratio: Ratio
    nonzero: tuple[Poly, ...] = field(default=())
    nonzero_powers: tuple[Poly, ...] = field(default=())  # those that hold powers with a letter above

    @property
    def domain_key(self) -> frozenset[str]:
        return frozenset(str(poly) for poly in self.nonzero)


def value_of(node: n.Node, over: Field) -> Value:
    """The value of an expression without ±.

    Raises OutOfScope, TooLarge, or UndefinedValue when it is undefined for every choice of its letters.
    """
    spend()
    evaluator = _Evaluator(over)
    ratio = evaluator.value(node)
    unique = {str(poly): poly for poly in evaluator.nonzero}
    return Value(ratio, tuple(unique.values()), tuple(evaluator.nonzero_powers))


class _Evaluator:
    def __init__(self, over: Field) -> None:
        self.field = over
        self.nonzero: list[Poly] = []
        self.nonzero_powers: list[Poly] = []

    def must_not_vanish(self, value: Ratio) -> None:
        if value.is_zero:
            raise UndefinedValue("It is undefined: it divides by zero.")
        if not value.numerator.is_constant():
            if isinstance(self.field, Cell):
                if self.field.is_above_zero(value):
                    return
                poly = self.field.norm(value.numerator)
                if self.field.depends_on_added(poly):
                    self.nonzero_powers.append(poly)
                else:
                    self.nonzero.append(self.field.in_letters(poly))
            else:
                self.nonzero.append(value.numerator)

    def value(self, node: n.Node) -> Ratio:
        match node:
            case n.Integer(number):
                return self.field.constant(number)
            case n.Decimal():
                return self.field.constant(node.value)
            case n.Mixed(whole, top, bottom):
                if bottom == 0:
                    raise UndefinedValue("It is undefined: it divides by zero.")
                return self.field.constant(whole + Q(top, bottom))
            case n.Letter(name):
                if isinstance(self.field, Cell) and name in self.field.constants:
                    return self.field.constants[name]
                if name == "i" and isinstance(self.field, Cell) and self.field.plan.imaginary:
                    return self.field.imaginary_unit()
                if name not in self.field.generators:
                    raise OutOfScope(f"{name} is used before it is given a meaning.", name)
                return self.field.letter(name)
            case n.Unit(word):
                name = f'"{word}"'
                if isinstance(self.field, Cell) and name in self.field.constants:
                    return self.field.constants[name]
                return self.field.letter(name)
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
            case n.Root(radicand, index):
                return self._root(self.value(radicand), 2 if index is None else self._index(index))
            case n.Absolute(child):
                return self._absolute(self.value(child))
        raise OutOfScope(f"A {type(node).__name__.lower()} has no value.")

    def _cell(self, symbol: str) -> Cell:
        if not isinstance(self.field, Cell):
            raise OutOfScope("Roots are not expected here.", symbol)
        return self.field

    def _index(self, node: n.Node) -> int:
        number = self.value(node).constant
        if number is None or number.denominator != 1 or not 2 <= number <= 12:
            raise OutOfScope("The index of a root is a whole number from 2 to 12.", "√")
        return int(number)

    def _root(self, value: Ratio, index: int) -> Ratio:
        return self._cell("√").root(value, index)

    def _absolute(self, value: Ratio) -> Ratio:
        sign = self._cell("|").sign_of(value)
        if sign is None:
            raise OutOfScope("The sign inside these bars is not decided.", "|")
        return -value if sign < 0 else value

    def _power(self, base: Ratio, exponent: Ratio) -> Ratio:
        number = exponent.constant
        if number is None:
            return self._exponential(base, exponent)
        if number <= 0:
            self.must_not_vanish(base)
        if number.denominator > MAX_INDEX:
            raise TooLarge(f"Roots with an index above {MAX_INDEX} are not worked out.", "^")
        if number.denominator != 1:
            if number.denominator % 2 == 0 and self._cell("^").sign_of(base) == -1:
                raise UndefinedValue("A fractional power of a negative number is not a real number.")
            whole, rest = divmod(number.numerator, number.denominator)
            return base**whole * self._root(base, number.denominator) ** rest
        if abs(number) > 10**6:
            raise TooLarge("This exponent is too large to be written out.", "^")
        return base ** int(number)

    def _exponential(self, base: Ratio, exponent: Ratio) -> Ratio:
        """base^(a + b·letter + …): a product of powers of primes and letters, each with one term of the exponent above.

        They are independent: exponentials of polynomials that are linearly independent up to a constant are algebraically
        independent (J. Ax, "On Schanuel's conjectures", Ann. of Math. 93, 1971, for functions).
        """
        cell = self._cell("^")
        if (
            not exponent.is_polynomial
            or exponent.numerator.total_degree() > MAX_DEGREE_ABOVE
            or cell.depends_on_added(exponent.numerator)
        ):
            raise OutOfScope(f"Exponents are polynomials up to degree {MAX_DEGREE_ABOVE}.", "^")
        bottom = int(exponent.denominator.leading_coefficient())
        result = cell.constant(1)
        for monomial, coefficient in exponent.numerator.to_dict().items():
            share = Q(int(coefficient), bottom)
            if not any(monomial):
                result = result * self._power(base, cell.constant(share))
                continue
            above = tuple((cell.names[k], int(power)) for k, power in enumerate(monomial) if power)
            result = result * self._raised(cell, base, above, share)
        return result

    def _raised(self, cell: Cell, base: Ratio, above: Above, share: Q) -> Ratio:
        number = base.constant
        count = share * cell.plan.step
        if count.denominator != 1:
            raise OutOfScope("This exponent is not worked out.", "^")
        if number is None:
            if not base.is_polynomial or len(base.numerator) != 1 or cell.depends_on_added(base.numerator):
                raise OutOfScope("A power with a letter above needs a number or single letters below.", "^")
            result = cell.constant(1)
            number = Q(int(base.numerator.leading_coefficient()), int(base.denominator.leading_coefficient()))
            for position, power in enumerate(base.numerator.monoms()[0]):
                if power:
                    result = result * cell.letter_power(cell.names[position], above, int(count) * int(power))
            return result if number == 1 else result * self._raised(cell, cell.constant(number), above, share)
        if number <= 0:
            raise OutOfScope("A power with a letter above needs a positive number below.", "^")
        result = cell.constant(1)
        for part, way in ((number.numerator, 1), (number.denominator, -1)):
            for prime, power in prime_factors(part):
                result = result * cell.exponential(int(prime), above, way * int(power) * int(count))
        return result
