"""Expressions as sums of single terms, where they are such: a quick exact value beside that of `symbolic`, for deciding
alone.

A term is a number times powers of letters, roots of primes and powers of numbers or letters with a letter above. Two
such sums are equal wherever both are defined if and only if their terms are: roots of products of different primes are
linearly independent over the rational numbers (A. S. Besicovitch, "On the linear independence of fractional powers of
integers", J. London Math. Soc. 15, 1940), and so are powers with letters above over functions of the letters (J. Ax,
"On Schanuel's conjectures", Ann. of Math. 93, 1971).
"""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction as Q
from typing import Any

from flint import fmpq

from algebra import limits
from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.definite import PI
from algebra.exact.errors import TooLarge
from algebra.tree import nodes as n

Powers = frozenset[tuple[Any, Any]]
"""What a term holds beside its number: a letter with its power, a prime with the power (0 to 1) of its root, (base,
letter) for base^letter with how often; -1 with a half is i."""
Terms = dict[Powers, Any]
"""The numbers of a sum by what stands beside them: whole or FLINT fractions, none of them 0."""

_HALF = Q(1, 2)
_ALONE: Powers = frozenset()
_MOST_TERMS = 48
_MOST_BITS = 2_000
_MOST_TIMES = 12
"""Largest power of a sum that is multiplied out here."""


class OtherShape(Exception):
    """The expression is no sum of single terms, is not defined, or is larger than is quick."""


def same_terms(first: n.Node, second: n.Node, *, imaginary: bool = False) -> bool | None:
    """Whether two expressions, of complex numbers where `imaginary`, are equal wherever both are defined; None where
    one of them has another shape, is defined nowhere, or is large: that is to be decided otherwise."""
    reader = _Reader(imaginary)
    try:
        after, before = reader.value(second), reader.value(first)
    except (OtherShape, TooLarge):
        return None
    return before == after if len(reader.letters) <= limits.MAX_LETTERS else None


class _Reader:
    def __init__(self, imaginary: bool) -> None:
        self.imaginary = imaginary
        self.letters: set[str] = set()

    def value(self, node: n.Node) -> Terms:
        if isinstance(node, n.Integer):
            return {_ALONE: node.value} if node.value else {}
        read = _READ.get(type(node))
        if read is None:
            raise OtherShape
        return read(self, node)

    def _decimal(self, node: n.Decimal) -> Terms:
        return _number(node.value)

    def _mixed(self, node: n.Mixed) -> Terms:
        if not node.denominator:
            raise OtherShape
        return _number(node.whole + Q(node.numerator, node.denominator))

    def _letter(self, node: n.Letter) -> Terms:
        self.letters.add(node.name)
        if node.name == "i" and self.imaginary:
            return {_I: 1}
        return {frozenset({(node.name, 1)}): 1}

    def _group(self, node: n.Group) -> Terms:
        return self.value(node.child)

    def _signed(self, node: n.Signed) -> Terms:
        found = self.value(node.child)
        if node.sign == "-":
            return {powers: -number for powers, number in found.items()}
        if node.sign == "+":
            return found
        raise OtherShape

    def _sum(self, node: n.Sum) -> Terms:
        total = dict(self.value(node.terms[0]))
        for sign, term in zip(node.signs, node.terms[1:], strict=True):
            if sign not in "+-":
                raise OtherShape
            for powers, number in self.value(term).items():
                found = total.get(powers, 0) + (number if sign == "+" else -number)
                if found:
                    total[powers] = found
                else:
                    del total[powers]
        return total

    def _product(self, node: n.Product) -> Terms:
        total = self.value(node.factors[0])
        for operator, factor in zip(node.operators, node.factors[1:], strict=True):
            found = self.value(factor)
            total = _times(total, _inverse(found) if operator == "÷" else found)
        return total

    def _fraction(self, node: n.Fraction) -> Terms:
        below = _inverse(self.value(node.denominator))
        return _times(self.value(node.numerator), below)

    def _power(self, node: n.Power) -> Terms:
        above = self.value(node.exponent)
        base = self.value(node.base)
        number = _rational(above)
        if number is None:
            return self._with_letters_above(base, above)
        if number.denominator == 1:
            return _raised(base, number.numerator)
        return _number_raised(_positive(base), number)

    def _with_letters_above(self, base: Terms, above: Terms) -> Terms:
        """base^(a + b·n + …): (base^n)^b times base^a."""
        if len(base) != 1 or self.imaginary:
            raise OtherShape
        [(powers, number)] = base.items()
        bases = list(powers)
        if not all(type(name) is str and name != PI for name, _ in bases) or not number > 0:
            raise OtherShape
        top, bottom = _over(number)
        bases += [(prime, times) for prime, times in prime_factors(top)]
        bases += [(prime, -times) for prime, times in prime_factors(bottom)]
        total: Terms = {_ALONE: 1}
        for letter, share in above.items():
            count = Q(*_over(share))
            if count.denominator != 1 or abs(count) > limits.MAX_EXPONENT:
                raise OtherShape
            if not letter:
                total = _times(total, _raised(base, count.numerator))
                continue
            if len(letter) != 1:
                raise OtherShape
            [(name, power)] = letter
            if type(name) is not str or power != 1 or name == PI:
                raise OtherShape
            raised = frozenset(((low, name), times * count.numerator) for low, times in bases)
            total = _times(total, {raised: 1})
        return total

    def _root(self, node: n.Root) -> Terms:
        index = 2 if node.index is None else _whole(self.value(node.index))
        if not 2 <= index <= 12:
            raise OtherShape
        inner = self.value(node.radicand)
        if not inner:
            return inner
        number = _rational(inner)
        if number is None:
            raise OtherShape
        if number > 0:
            return _number_raised(number, Q(1, index))
        if index == 2 and self.imaginary:
            return _times({_I: 1}, _number_raised(-number, _HALF))
        if index % 2 and not self.imaginary:
            return {powers: -times for powers, times in _number_raised(-number, Q(1, index)).items()}
        raise OtherShape

    def _absolute(self, node: n.Absolute) -> Terms:
        number = _rational(self.value(node.child))
        if number is None:
            raise OtherShape
        return _number(abs(number))


_READ: dict[type[n.Node], Callable[[_Reader, Any], Terms]] = {
    n.Decimal: _Reader._decimal,
    n.Mixed: _Reader._mixed,
    n.Letter: _Reader._letter,
    n.Group: _Reader._group,
    n.Signed: _Reader._signed,
    n.Sum: _Reader._sum,
    n.Product: _Reader._product,
    n.Fraction: _Reader._fraction,
    n.Power: _Reader._power,
    n.Root: _Reader._root,
    n.Absolute: _Reader._absolute,
}
_I: Powers = frozenset({(-1, _HALF)})


def _number(value: Q) -> Terms:
    if not value:
        return {}
    return {_ALONE: value.numerator if value.denominator == 1 else fmpq(value.numerator, value.denominator)}


def _over(number: Any) -> tuple[int, int]:
    """Numerator and denominator of a number of a sum."""
    return (number, 1) if type(number) is int else (int(number.p), int(number.q))


def _rational(terms: Terms) -> Q | None:
    """The value of a sum that is a single number; None for others."""
    if not terms:
        return Q(0)
    if len(terms) > 1 or _ALONE not in terms:
        return None
    return Q(*_over(terms[_ALONE]))


def _whole(terms: Terms) -> int:
    number = _rational(terms)
    if number is None or number.denominator != 1:
        raise OtherShape
    return number.numerator


def _positive(terms: Terms) -> Q:
    number = _rational(terms)
    if number is None or number <= 0:
        raise OtherShape
    return number


def _times(first: Terms, second: Terms) -> Terms:
    """The product of two sums, multiplied out."""
    if len(first) * len(second) > _MOST_TERMS:
        raise OtherShape
    total: Terms = {}
    for left, number in first.items():
        for right, other in second.items():
            found = number * other
            if not left:
                powers = right
            elif not right:
                powers = left
            else:
                powers, found = _joined(left, right, found)
            if powers in total:
                found = total[powers] + found
                if not found:
                    del total[powers]
                    continue
            total[powers] = found
    for number in total.values():
        if type(number) is int and number.bit_length() > _MOST_BITS:
            raise OtherShape
    return total


def _joined(left: Powers, right: Powers, number: Any) -> tuple[Powers, Any]:
    """What stands beside the product of two terms, and its number: two halves of a root make a whole."""
    joined = dict(left)
    for base, power in right:
        total = joined.get(base, 0) + power
        if type(base) is int and total >= 1:
            number, total = number * base, total - 1
        if total:
            joined[base] = total
        else:
            del joined[base]
    return frozenset(joined.items()), number


def _inverse(terms: Terms) -> Terms:
    """1 over a sum: of a single term, or of numbers with square roots, by conjugates."""
    if len(terms) == 1:
        [(powers, number)] = terms.items()
        top, bottom = _over(number)
        if not powers:
            return {_ALONE: bottom * top if top in (1, -1) else fmpq(bottom, top)}
        turned = []
        for base, power in powers:
            if type(base) is int:  # 1/√2 = √2/2
                top, power = top * base, 1 - power
                turned.append((base, power))
            else:
                turned.append((base, -power))
        return {frozenset(turned): fmpq(bottom, top)}
    for base, power in (each for powers in terms for each in powers):
        if type(base) is not int or power != _HALF:
            raise OtherShape
        root = (base, power)
    if not terms or len(terms) > 8:
        raise OtherShape
    conjugate = {powers: -number if root in powers else number for powers, number in terms.items()}
    return _times(conjugate, _inverse(_times(terms, conjugate)))


def _raised(base: Terms, times: int) -> Terms:
    """A whole power of a sum."""
    if times == 0 and base:
        return {_ALONE: 1}
    if len(base) == 1:
        [(powers, number)] = base.items()
        if (
            abs(times) > limits.MAX_EXPONENT
            or max(abs(each) for each in _over(number)).bit_length() * abs(times) > _MOST_BITS
        ):
            raise OtherShape
        if any(type(low) is int for low, _ in powers):
            return _repeated(base, times)
        top, bottom = (each ** abs(times) for each in _over(number))
        if times < 0:
            top, bottom = bottom, top
        made = frozenset((low, power * times) for low, power in powers)
        return {made: top if bottom == 1 else fmpq(top, bottom)}
    return _repeated(base, times)


def _repeated(base: Terms, times: int) -> Terms:
    if not base or abs(times) > _MOST_TIMES:
        raise OtherShape
    if times < 0:
        base, times = _inverse(base), -times
    total = base
    for _ in range(times - 1):
        total = _times(total, base)
    return total


def _number_raised(number: Q, power: Q) -> Terms:
    """A positive number to a power that is not whole, with the smallest whole numbers under its roots."""
    if power.denominator > 12 or abs(power.numerator) > limits.MAX_EXPONENT:
        raise OtherShape
    top = bottom = 1
    roots = []
    parts = [(prime, times) for prime, times in prime_factors(number.numerator)]
    parts += [(prime, -times) for prime, times in prime_factors(number.denominator)]
    for prime, times in parts:
        whole, rest = divmod(times * power.numerator, power.denominator)
        if rest:
            roots.append((prime, Q(rest, power.denominator)))
        if abs(whole) * prime.bit_length() > _MOST_BITS:
            raise OtherShape
        if whole > 0:
            top *= prime**whole
        elif whole < 0:
            bottom *= prime**-whole
    return {frozenset(roots): top if bottom == 1 else fmpq(top, bottom)}
