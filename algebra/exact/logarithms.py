"""Logarithms of algebraic numbers to a rational base: the solutions of exponential equations that are no algebraic
numbers.

log_b(a) is rational or transcendental (Gelfond, Schneider 1934). So one that is not rational is never equal to an
algebraic number, and enclosures tell them apart in the end.
"""

from __future__ import annotations

from fractions import Fraction as Q

from flint import arb, fmpq
from flint import ctx as flint_context

from algebra.exact.algebraic_numbers import MAX_PRECISION, PRECISION, Number, prime_factors
from algebra.exact.errors import TooLarge
from algebra.records import record

Direction = tuple[tuple[int, int], ...]
"""Primes with their powers, of a rational number above 1."""


@record(frozen=True)
class Logarithm:
    """times·log_base(of): `base` by its primes, `of` a positive real number."""

    base: Direction
    times: Q
    of: Number

    def enclosed(self, precision: int = PRECISION) -> arb:
        """A certified enclosure to about so many binary digits. Raises TooLarge past MAX_PRECISION."""
        inner = self.of.enclosed(precision).real
        before = flint_context.prec
        try:
            flint_context.prec = precision
            below = sum((arb(prime).log() * power for prime, power in self.base), arb(0))
            return arb(fmpq(self.times.numerator, self.times.denominator)) * inner.log() / below
        finally:
            flint_context.prec = before

    def is_below(self, value: Q) -> bool:
        """Whether it is smaller than a rational number."""
        precision = PRECISION
        while precision <= MAX_PRECISION:
            at, goal = self.enclosed(precision), arb(fmpq(value.numerator, value.denominator))
            if at < goal:
                return True
            if at > goal:
                return False
            precision *= 2
        raise TooLarge("These numbers lie too close together to be told apart.")

    def rounds_to(self, value: Q, places: int) -> bool:
        """Whether it is the value when rounded to so many decimal places."""
        half = Q(1, 2 * 10**places)
        return not self.is_below(value - half) and self.is_below(value + half)

    def decimal(self, places: int) -> str:
        """The number rounded to so many decimal places, for reading."""
        scaled = (self.enclosed() * 10**places + arb(fmpq(1, 2))).floor().unique_fmpz()
        if scaled is None:
            return str(self)
        digits = str(abs(int(scaled))).rjust(places + 1, "0")
        text = f"{digits[:-places]}.{digits[-places:]}" if places else digits
        return f"-{text}" if scaled < 0 else text

    @property
    def approximation(self) -> complex:
        """For ordering and for reading only; decides nothing."""
        return complex(float(self.enclosed().mid()))

    def __str__(self) -> str:
        base = base_value(self.base)
        written = str(base) if base.denominator == 1 else f"({base})"
        front = "" if self.times == 1 else "-" if self.times == -1 else f"{self.times}·"
        if self.times.denominator != 1:
            front = f"({self.times})·"
        return f"{front}log_{written}({self.of})"


def base_value(base: Direction) -> Q:
    """The rational number that a base is."""
    value = Q(1)
    for prime, power in base:
        value *= Q(prime) ** power
    return value


def rational_exponent(base: Direction, of: Number) -> Q | None:
    """The r with base^r = of, where there is a rational one: then of is the positive root of a·x^n = c. Else None."""
    lead, rest = of.polynomial[-1], -of.polynomial[0]
    if any(of.polynomial[1:-1]) or rest <= 0:
        return None
    degree = len(of.polynomial) - 1
    powers = dict(prime_factors(rest)) | {prime: -power for prime, power in prime_factors(lead)}
    if not powers:
        return Q(0)
    if set(powers) != {prime for prime, _ in base}:
        return None
    shares = {Q(powers[prime], power * degree) for prime, power in base}
    return shares.pop() if len(shares) == 1 else None
