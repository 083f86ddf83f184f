"""Whether a value with roots is zero on its cell: by normal form, by enclosure, by exact algebraic numbers."""

from __future__ import annotations

from typing import Any

from flint import acb, arb, fmpq
from flint import ctx as flint_context
from flint.types._gr import gr_complex_qqbar_ctx

from algebra.exact.definite import PI
from algebra.exact.errors import TooLarge
from algebra.exact.generators import Generator
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, Ratio, univariate

MAX_NUMBER_DEGREE = 200
_NUMBERS = gr_complex_qqbar_ctx.new()


def is_zero(cell: RadicalField, value: Ratio) -> bool | None:
    """Whether a value is zero on this cell; None where nested roots of letters leave it undecided.

    The normal form decides unless nested roots occur; then a certified enclosure refutes, and numbers without
    letters are computed as algebraic numbers, exactly.
    """
    if value.is_zero:
        return True
    if not cell.holds_uncertain(value.numerator) or not cell.approximate(value).contains(0):
        return False
    found = is_zero_number(cell, value.numerator)
    return is_zero_function(cell, value.numerator) if found is None else found


def is_zero_number(cell: RadicalField, poly: Poly) -> bool | None:
    """Whether a value without letters is zero, in exact algebraic numbers; None where that is not worked out."""
    used = _generators_in(cell, poly)
    degree = 1
    for made in used:
        degree *= made.degree or MAX_NUMBER_DEGREE + 1
    if degree > MAX_NUMBER_DEGREE or any(poly.degrees()[len(cell.added) :]) or not used:
        return None
    numbers: dict[int, Any] = {}
    for made in used:
        number = _as_number(made, numbers)
        if number is None:
            return None
        numbers[made.position] = number
    return bool(_number_of(poly, numbers).is_zero())


def is_zero_function(cell: RadicalField, poly: Poly) -> bool | None:
    """Whether a value in one letter is zero on the whole cell; None where that is not decided.

    The value z is analytic on the cell, an interval, and a zero of P(T) = T^m·R(T), the product of T - z' over all
    choices of roots. With m = 0 it is not zero. Else, at a point where R(0) is not 0, every zero of R is larger than a
    bound that its coefficients give (Cauchy); if z is smaller there, it is zero there, so R(z) is not the zero
    function, so z is.
    """
    symbol = cell.spare_symbol()
    letters = [cell.names[k] for k in cell.letters_in(poly)]
    if symbol is None or not (cell.bounded and cell.connected) or len(letters) > 1 or PI in letters:
        return None
    try:
        total = cell.norm(symbol - poly)
    except TooLarge:
        return None
    place = len(cell.added) - 1 - len(cell.made)
    if total == 0 or any(total.degrees()[g.position] for g in cell.made.values()):
        return None
    parts: dict[int, fmpq] = {}
    low = min(int(monomial[place]) for monomial in total.to_dict())
    if low == 0:
        return False
    for monomial, coefficient in total.to_dict().items():
        value = fmpq(int(coefficient))
        for k in range(len(cell.added), len(cell.names)):
            if monomial[k]:
                number = cell.sample[cell.names[k]]
                value *= fmpq(number.numerator, number.denominator) ** int(monomial[k])
        power = int(monomial[place])
        parts[power] = parts.get(power, fmpq(0)) + value
    lowest = abs(parts.get(low, fmpq(0)))
    if lowest == 0:
        return None
    bound = lowest / (lowest + max([abs(c) for k, c in parts.items() if k > low] or [fmpq(0)]))
    size = abs(_enclosed(cell, poly))
    if size < arb(bound):
        return True
    return False if size > 0 else None


def _enclosed(cell: RadicalField, poly: Poly, precision: int = 300) -> Any:
    """A value at the sample, certified, to many digits."""
    before = flint_context.prec
    try:
        flint_context.prec = precision
        values: dict[int, Any] = {}
        for made in cell.made.values():
            if made.base is not None:
                values[made.position] = acb(abs(_filled(cell, made.base, values).real).root(made.degree))
            elif made.nested is not None:
                values[made.position] = acb(_filled(cell, made.nested.numerator, values).real.root(made.degree))
            else:
                values[made.position] = _refined(made)
        return _filled(cell, poly, values)
    finally:
        flint_context.prec = before


def _refined(made: Generator) -> Any:
    """The root of a generator's own polynomial that its enclosure holds, to the digits now asked for."""
    if made.relation is None:
        return made.value
    polynomial: Any = univariate(made.relation, made.position)
    roots = [root for root, _ in polynomial.complex_roots()]
    near = [root for root in roots if (root - made.value).contains(0)]
    return near[0] if len(near) == 1 else made.value


def _filled(cell: RadicalField, poly: Poly, values: dict[int, Any]) -> Any:
    total = acb(0)
    for monomial, coefficient in poly.to_dict().items():
        term = acb(int(coefficient))
        for k, power in enumerate(monomial):
            if power:
                base = values[k] if k in values else cell.sample_of(cell.names[k])
                term *= base ** int(power)
        total += term
    return total


def _generators_in(cell: RadicalField, poly: Poly) -> list[Generator]:
    """The generators a value is built with, those under nested roots too, in the order in which they were made."""
    needed: set[int] = set()
    degrees = poly.degrees()
    for made in reversed(cell.made.values()):  # a nested root is made after the roots inside it
        if degrees[made.position] or made.position in needed:
            needed.add(made.position)
            if made.nested is not None:
                inside = made.nested.numerator.degrees()
                needed |= {other.position for other in cell.made.values() if inside[other.position]}
    return [made for made in cell.made.values() if made.position in needed]


def _as_number(made: Generator, numbers: dict[int, Any]) -> Any:
    if made.name and made.nested is not None:
        if any(power and place not in numbers for place, power in enumerate(made.nested.numerator.degrees())):
            return None  # letters stand under the root
        inside = _number_of(made.nested.numerator, numbers)
    elif made.base is not None and made.base.is_constant():
        inside = _NUMBERS(int(made.base.leading_coefficient()))
    elif made.degree == 2 and made.base is None and made.nested is None:
        inside = _NUMBERS(-1)
    else:
        return None
    return inside ** (_NUMBERS(1) / _NUMBERS(made.degree))


def _number_of(poly: Poly, numbers: dict[int, Any]) -> Any:
    total = _NUMBERS(0)
    for monomial, coefficient in poly.to_dict().items():
        term = _NUMBERS(int(coefficient))
        for position, power in enumerate(monomial):
            for _ in range(int(power)):
                term = term * numbers[position]
        total = total + term
    return total
