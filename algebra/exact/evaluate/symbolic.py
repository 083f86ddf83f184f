"""Expression trees to rational functions, with the conditions under which they are defined."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import field
from fractions import Fraction as Q
from typing import Any

from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.effort import spend
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.generators import MAX_INDEX, Above
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Field, Poly, Ratio, key_of
from algebra.records import record
from algebra.tree import nodes as n

MAX_DEGREE_ABOVE = 4
"""Highest degree of an exponent in its letters."""
_FEW_TERMS = 4
STEPS_A_UNIT = 32
"""How many nodes are worked out for one unit of work more."""
_WRITTEN_OUT = 10**6
"""Largest exponent that is not refused outright; `limits` bounds what it makes."""


@record(frozen=True)
class Value:
    """A value and the polynomials that must not be zero for the expression *as written* to be defined."""

    ratio: Ratio
    nonzero: tuple[Poly, ...] = field(default=())
    nonzero_powers: tuple[Poly, ...] = field(default=())  # those that hold powers with a letter above


def value_of(node: n.Node, over: Field) -> Value:
    """The value of an expression without ±.

    Raises OutOfScope, TooLarge, or UndefinedValue when it is undefined for every choice of its letters.
    """
    spend()
    evaluator = _Evaluator(over)
    ratio = evaluator.value(node)
    if evaluator.steps > STEPS_A_UNIT:
        spend(evaluator.steps // STEPS_A_UNIT)
    if not evaluator.nonzero and not evaluator.nonzero_powers:
        return Value(ratio)
    unique = {key_of(poly): poly for poly in evaluator.nonzero}
    return Value(ratio, tuple(unique.values()), tuple(evaluator.nonzero_powers))


class _Evaluator:
    def __init__(self, over: Field) -> None:
        self.field = over
        self.constant = over.constant
        self.nonzero: list[Poly] = []
        self.nonzero_powers: list[Poly] = []
        self.groups: dict[int, Ratio] = {}
        self.steps = 0

    def must_not_vanish(self, value: Ratio) -> None:
        """Notes a polynomial that the line divides by."""
        if value.is_zero:
            raise UndefinedValue("it divides by zero")
        if not value.numerator.is_constant():
            if isinstance(self.field, RadicalField):
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
        """The value of a tree. Raises ExactError."""
        self.steps += 1
        if isinstance(node, n.Integer):
            return self.constant(node.value)
        read = _READ.get(type(node))
        if read is None:
            raise OutOfScope("This is a statement: it has no value.")
        return read(self, node)

    def _mixed(self, node: n.Mixed) -> Ratio:
        if node.denominator == 0:
            raise UndefinedValue("it divides by zero")
        return self.field.constant(node.whole + Q(node.numerator, node.denominator))

    def _letter(self, node: n.Letter) -> Ratio:
        name, field = node.name, self.field
        if field.added:  # a cell
            assert isinstance(field, RadicalField)
            if name in field.constants:
                return field.constants[name]
            if name == "i" and field.plan.imaginary:
                return field.imaginary_unit()
        return field.letter(name)

    def _unit(self, node: n.Unit) -> Ratio:
        name = f'"{node.word}"'
        if isinstance(self.field, RadicalField) and name in self.field.constants:
            return self.field.constants[name]
        return self.field.letter(name)

    def _group(self, node: n.Group) -> Ratio:
        known = self.groups.get(id(node))  # what a letter stands for is one object wherever it is put in
        if known is None:
            known = self.groups[id(node)] = self.value(node.child)
        return known

    def _signed(self, node: n.Signed) -> Ratio:
        inner = self.value(node.child)
        return -inner if node.sign == "-" else inner

    def _sum(self, node: n.Sum) -> Ratio:
        count = len(node.terms)
        if count > _FEW_TERMS:  # definitions put into each other can make a short line very long
            spend(count // _FEW_TERMS)
        total = self.value(node.terms[0])
        for sign, term in zip(node.signs, node.terms[1:], strict=True):
            inner = self.value(term)
            total = total - inner if sign == "-" else total + inner
        return total

    def _product(self, node: n.Product) -> Ratio:
        factors, operators = node.factors, node.operators
        if type(factors[0]) is n.Integer and operators[0] != "÷":  # 3x: no polynomial needs to be made of the 3
            total = self.value(factors[1]).scaled(factors[0].value)
            factors, operators = factors[1:], operators[1:]
        else:
            total = self.value(factors[0])
        for operator, factor in zip(operators, factors[1:], strict=True):
            inner = self.value(factor)
            if operator == "÷":
                self.must_not_vanish(inner)
                total = total / inner
            else:
                total = total * inner
        return total

    def _fraction(self, node: n.Fraction) -> Ratio:
        if type(node.numerator) is type(node.denominator) is n.Integer and node.denominator.value:
            return self.constant(Q(node.numerator.value, node.denominator.value))
        above, below = self.value(node.numerator), self.value(node.denominator)
        self.must_not_vanish(below)
        return above / below

    def _raised_to(self, node: n.Power) -> Ratio:
        exponent = node.exponent
        if type(exponent) is n.Integer and 0 < exponent.value <= _WRITTEN_OUT:  # nearly every power
            return self.value(node.base) ** exponent.value
        return self._power(self.value(node.base), self.value(node.exponent))

    def _rooted(self, node: n.Root) -> Ratio:
        return self._root(self.value(node.radicand), 2 if node.index is None else self._index(node.index))

    def _in_bars(self, node: n.Absolute) -> Ratio:
        return self._absolute(self.value(node.child))

    def _cell(self, symbol: str) -> RadicalField:
        if not isinstance(self.field, RadicalField):
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
        if number == 0 and base.is_zero:
            raise UndefinedValue("0 to the power 0 has no value")
        if number <= 0:
            self.must_not_vanish(base)
        if number.denominator > MAX_INDEX:
            raise TooLarge(f"Roots with an index above {MAX_INDEX} are not worked out.", "^")
        if number.denominator != 1:
            cell = self._cell("^")
            if number.denominator % 2 == 0 and not cell.formal and cell.sign_of(base) == -1:
                raise UndefinedValue("a fractional power of a negative number is not a real number")
            whole, rest = divmod(number.numerator, number.denominator)
            return base**whole * self._root(base, number.denominator) ** rest
        if abs(number) > _WRITTEN_OUT:
            raise TooLarge("This exponent is too large to be written out.", "^")
        return base ** int(number)

    def _exponential(self, base: Ratio, exponent: Ratio) -> Ratio:
        """base^(a + b·letter + …): a product of powers of primes and letters, each with one term of the exponent above.

        They are independent: exponentials of polynomials that are linearly independent up to a constant are
        algebraically independent (J. Ax, "On Schanuel's conjectures", Ann. of Math. 93, 1971, for functions).
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

    def _raised(self, cell: RadicalField, base: Ratio, above: Above, share: Q) -> Ratio:
        number = base.constant
        count = share * cell.plan.step
        if count.denominator != 1:
            raise OutOfScope("This exponent is not worked out.", "^")
        if number is None:
            if not base.is_polynomial or len(base.numerator) != 1 or cell.depends_on_added(base.numerator):
                raise OutOfScope("A power with a letter above needs a number or single letters below.", "^")
            result = cell.constant(1)
            number = Q(int(base.numerator.leading_coefficient()), int(base.denominator.leading_coefficient()))
            if share.denominator != 1 and cell.sign_of(base) == -1:
                raise UndefinedValue("a fractional power of a negative number is not a real number")
            for position, power in enumerate(base.numerator.monoms()[0]):
                if power:
                    name, times = cell.names[position], share * int(power)
                    # (x²)^(n/2) is |x|^n; with a whole number before the letter, x^n for any x
                    plain = share.denominator == 1 or (times.denominator == 1 and times.numerator % 2 == 0)
                    size = not plain and cell.sign_of(cell.letter(name)) == -1
                    result = result * cell.letter_power(name, above, int(count) * int(power), size=size)
            return result if number == 1 else result * self._raised(cell, cell.constant(number), above, share)
        if number <= 0:
            raise OutOfScope("A power with a letter above needs a positive number below.", "^")
        result = cell.constant(1)
        for part, way in ((number.numerator, 1), (number.denominator, -1)):
            for prime, power in prime_factors(part):
                result = result * cell.exponential(int(prime), above, way * int(power) * int(count))
        return result


# by kind of node: a table is read faster than a list of cases, and every expression passes here many times
_READ: dict[type[n.Node], Callable[[_Evaluator, Any], Ratio]] = {
    n.Decimal: lambda self, node: self.field.constant(node.value),
    n.Mixed: _Evaluator._mixed,
    n.Letter: _Evaluator._letter,
    n.Unit: _Evaluator._unit,
    n.Group: _Evaluator._group,
    n.Signed: _Evaluator._signed,
    n.Sum: _Evaluator._sum,
    n.Product: _Evaluator._product,
    n.Fraction: _Evaluator._fraction,
    n.Power: _Evaluator._raised_to,
    n.Root: _Evaluator._rooted,
    n.Absolute: _Evaluator._in_bars,
}
