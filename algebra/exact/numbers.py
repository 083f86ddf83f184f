"""Real and complex numbers that solve an equation: exact, comparable, and printable in the plain notation."""

from __future__ import annotations

from fractions import Fraction as Q
from functools import lru_cache
from math import comb, gcd, isqrt, lcm
from typing import Any

from flint import acb, arb, fmpq, fmpz, fmpz_poly
from flint import ctx as flint_context

from algebra import limits
from algebra.exact.errors import TooLarge
from algebra.records import record

_SMALL_PRIMES = tuple(p for p in range(2, 200) if all(p % d for d in range(2, p)))
MAX_BITS = 900
"""Numbers are ordered by approximations, which must fit a floating point number."""


@record(frozen=True)
class Number:
    """The root with this index of an irreducible primitive polynomial (coefficients from the constant up).

    Real roots come first, in rising order; the others follow by real, then imaginary part. Two numbers are
    equal exactly when polynomial and index are: an irreducible polynomial is determined by any of its roots.
    """

    polynomial: tuple[int, ...]
    index: int

    @property
    def rational(self) -> Q | None:
        """The value as a fraction, or None when it is irrational."""
        if len(self.polynomial) == 2:
            return Q(-self.polynomial[0], self.polynomial[1])
        return None

    @property
    def is_real(self) -> bool:
        return self.index < _roots(self.polynomial)[1]

    @property
    def approximation(self) -> complex:
        """For ordering and for reading only; decides nothing."""
        return _roots(self.polynomial)[0][self.index]

    @property
    def has_root_form(self) -> bool:
        """Whether it is written with root signs: a quadratic surd, or a real root of a shifted a·x^n = c."""
        if len(self.polynomial) <= 3:
            return True
        return len(self.polynomial) <= 7 and self.is_real and not any(_centred(self.polynomial)[1][1:-1])

    @property
    def enclosure(self) -> acb:
        """A certified enclosure."""
        return _enclosures(self.polynomial)[self.index]

    def rounds_to(self, value: Q, places: int) -> bool:
        """Whether a real number, rounded to so many decimal places, is the value."""
        half = Q(1, 2 * 10**places)
        distance = abs(self.enclosure.real - arb(fmpq(value.numerator, value.denominator)))
        return bool(distance <= arb(fmpq(half.numerator, half.denominator)))

    def __str__(self) -> str:
        return _written(self.polynomial, self.index)


def rational(value: Q | int) -> Number:
    """The number equal to this fraction."""
    value = Q(value)
    return Number((-value.numerator, value.denominator), 0)


def roots_of(coefficients: tuple[int, ...], *, complex_too: bool = False) -> list[Number]:
    """The real roots (or all) of an irreducible primitive polynomial with a positive leading coefficient."""
    values, real = _roots(coefficients)
    return [Number(coefficients, k) for k in range(len(values) if complex_too else real)]


@lru_cache(maxsize=4096)
def _roots(coefficients: tuple[int, ...]) -> tuple[tuple[complex, ...], int]:
    """Approximate roots in the fixed order, and how many of them are real."""
    if max(abs(c).bit_length() for c in coefficients) > MAX_BITS:
        raise TooLarge("These numbers are too large to be put in order.")
    if len(coefficients) == 2:
        return (complex(-coefficients[0] / coefficients[1]),), 1
    found = _enclosures(coefficients)
    real = sum(1 for root in found if root.imag == 0)
    return tuple(complex(float(r.real.mid()), float(r.imag.mid())) for r in found), real


@lru_cache(maxsize=4096)
def _enclosures(coefficients: tuple[int, ...]) -> tuple[acb, ...]:
    """Disjoint certified enclosures of all roots: the real ones rising, then the others by real and imaginary part."""
    precision = flint_context.prec
    try:
        flint_context.prec = 160
        polynomial: Any = fmpz_poly(list(coefficients))
        found = [root for root, _ in polynomial.complex_roots()]
    finally:
        flint_context.prec = precision
    real = sorted((r for r in found if r.imag == 0), key=lambda r: float(r.real.mid()))
    others = [r for r in found if r.imag != 0]
    others.sort(key=lambda r: (round(float(r.real.mid()), 9), float(r.imag.mid())))
    return (*real, *others)


def forget_roots() -> None:
    """Empties what is kept of roots found before."""
    _roots.cache_clear()
    _enclosures.cache_clear()


def _written(coefficients: tuple[int, ...], index: int) -> str:
    if len(coefficients) == 2:
        return str(Q(-coefficients[0], coefficients[1]))
    if len(coefficients) == 3:
        c, b, a = coefficients
        return _surd(a, b, c, index)
    shift, pure = _centred(coefficients)
    if not any(pure[1:-1]) and index < _roots(coefficients)[1]:
        root = _binomial(pure, index)
        if shift == 0:
            return root
        return f"{shift} - {root[1:]}" if root.startswith("-") else f"{shift} + {root}"
    terms = _polynomial_text(coefficients)
    middle = _roots(coefficients)[0][index].real
    low = int(middle * 100 // 1)
    return f"root({terms}, {low / 100:.2f}, {(low + 1) / 100:.2f})"


def _surd(a: int, b: int, c: int, index: int) -> str:
    """(-b ± √(b² - 4ac))/(2a) with the square part taken out and the fraction reduced."""
    discriminant = b * b - 4 * a * c
    inside, outside = squarefree_part(abs(discriminant))
    common = _gcd(_gcd(b, outside), 2 * a)
    top, coefficient, bottom = -b // common, outside // common, 2 * a // common
    minus = index == 0
    root = ("" if coefficient == 1 else str(coefficient)) + ("i" if discriminant < 0 else "")
    if inside != 1:
        root += f"√{inside}"
    if root in ("", str(coefficient)) and discriminant > 0:
        raise ValueError("the polynomial is not irreducible")
    if top == 0:
        text = ("-" if minus else "") + root
        return text if bottom == 1 else f"{_bracketed(text)}/{bottom}"
    text = f"{top} {'-' if minus else '+'} {root}"
    return text if bottom == 1 else f"({text.replace(' ', '')})/{bottom}".replace("-", "-")


def _centred(coefficients: tuple[int, ...]) -> tuple[Q, tuple[int, ...]]:
    """The mean s of the roots, and the primitive polynomial of x - s."""
    degree = len(coefficients) - 1
    shift = Q(-coefficients[-2], degree * coefficients[-1])
    if shift == 0:
        return shift, coefficients
    moved = [Q(0)] * (degree + 1)
    for power, c in enumerate(coefficients):
        for k in range(power + 1):
            moved[k] += c * comb(power, k) * shift ** (power - k)
    bottom = lcm(*(c.denominator for c in moved))
    whole = [int(c * bottom) for c in moved]
    common = gcd(*whole)
    return shift, tuple(c // common for c in whole)


def _binomial(coefficients: tuple[int, ...], index: int) -> str:
    """A real root of a·x^n = c, as one root sign over a whole number: `∛5`, `-∛2/3`, `root(4, 3)`."""
    degree, lead = len(coefficients) - 1, coefficients[-1]
    inside = abs(coefficients[0]) * lead ** (degree - 1)
    outside = 1
    for prime, power in prime_factors(inside):
        outside *= int(prime) ** (power // degree)
        inside //= int(prime) ** (power // degree * degree)
    common = _gcd(outside, lead)
    outside, bottom = outside // common, lead // common
    minus = _roots(coefficients)[0][index].real < 0
    root = {3: f"∛{inside}", 4: f"∜{inside}"}.get(degree, f"root({degree}, {inside})")
    text = ("-" if minus else "") + ("" if outside == 1 else str(outside)) + root
    return text if bottom == 1 else f"{_bracketed(text) if outside != 1 else text}/{bottom}"


def _bracketed(text: str) -> str:
    sign, rest = ("-", text[1:]) if text.startswith("-") else ("", text)
    return sign + (rest if rest.startswith("√") or rest == "i" else f"({rest})")


def _gcd(left: int, right: int) -> int:
    return int(fmpz(left).gcd(fmpz(right)))


def prime_factors(number: int) -> list[tuple[int, int]]:
    """The primes of a positive whole number with their powers; raises TooLarge where that could take long."""
    if number.bit_length() > limits.MAX_FACTORED_BITS:
        rest, found = number, []
        for prime in _SMALL_PRIMES:
            power = 0
            while rest % prime == 0:
                rest, power = rest // prime, power + 1
            if power:
                found.append((prime, power))
        if rest.bit_length() > limits.MAX_FACTORED_BITS:
            raise TooLarge("A number here is too large to be taken apart into primes.", "√")
        return found + [(int(p), int(k)) for p, k in fmpz(rest).factor()]
    return [(int(prime), int(power)) for prime, power in fmpz(number).factor()]


def squarefree_part(number: int) -> tuple[int, int]:
    """(s, r) with number = s·r² and s squarefree, for a positive number."""
    root = isqrt(number)
    if root * root == number:
        return 1, root
    inside, outside = 1, 1
    for prime, power in prime_factors(number):
        outside *= int(prime) ** (power // 2)
        inside *= int(prime) ** (power % 2)
    return inside, outside


def _polynomial_text(coefficients: tuple[int, ...], letter: str = "x") -> str:
    text = ""
    for power in range(len(coefficients) - 1, -1, -1):
        c = coefficients[power]
        if c == 0:
            continue
        size = "" if abs(c) == 1 and power else str(abs(c))
        body = size + ("" if power == 0 else letter if power == 1 else f"{letter}^{power}")
        text += (f" {'-' if c < 0 else '+'} " if text else "-" if c < 0 else "") + body
    return text
