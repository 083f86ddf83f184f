"""Real and complex numbers that solve an equation: exact, comparable, and printable in the plain notation."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction as Q
from functools import lru_cache
from math import isqrt
from typing import Any

from flint import ctx as flint_context
from flint import fmpz, fmpz_poly


@dataclass(frozen=True, slots=True)
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
    """Approximate roots in the fixed order, and how many of them are real (certified by FLINT's enclosures)."""
    if len(coefficients) == 2:
        return (complex(-coefficients[0] / coefficients[1]),), 1
    precision = flint_context.prec
    try:
        flint_context.prec = 80
        polynomial: Any = fmpz_poly(list(coefficients))
        found = [root for root, _ in polynomial.complex_roots()]
    finally:
        flint_context.prec = precision
    real = sorted((complex(float(r.real.mid())) for r in found if r.imag == 0), key=lambda z: z.real)
    others = [complex(float(r.real.mid()), float(r.imag.mid())) for r in found if r.imag != 0]
    others.sort(key=lambda z: (round(z.real, 9), z.imag))
    return (*real, *others), len(real)


def _written(coefficients: tuple[int, ...], index: int) -> str:
    if len(coefficients) == 2:
        return str(Q(-coefficients[0], coefficients[1]))
    if len(coefficients) == 3:
        c, b, a = coefficients
        return _surd(a, b, c, index)
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


def _bracketed(text: str) -> str:
    sign, rest = ("-", text[1:]) if text.startswith("-") else ("", text)
    return sign + (rest if rest.startswith("√") or rest == "i" else f"({rest})")


def _gcd(left: int, right: int) -> int:
    return int(fmpz(left).gcd(fmpz(right)))


def squarefree_part(number: int) -> tuple[int, int]:
    """(s, r) with number = s·r² and s squarefree, for a positive number."""
    root = isqrt(number)
    if root * root == number:
        return 1, root
    inside, outside = 1, 1
    for prime, power in fmpz(number).factor():
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
