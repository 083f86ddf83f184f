"""Real and complex algebraic numbers: exact, in order, and printable in the plain notation."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction as Q
from functools import cmp_to_key, lru_cache
from math import comb, floor, gcd, isqrt, lcm
from typing import Any

from flint import acb, fmpz, fmpz_poly
from flint import ctx as flint_context

from algebra import limits
from algebra.exact.errors import TooLarge
from algebra.records import record
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

_SMALL_PRIMES = tuple(p for p in range(2, 200) if all(p % d for d in range(2, p)))
MAX_BITS = 900
"""Largest size of a coefficient whose roots are approximated for reading, which must fit a floating point number."""
PRECISION = 160
"""Binary digits to which roots are enclosed at first."""
MAX_PRECISION = 1 << 15
"""Most binary digits to which two numbers are told apart."""


@record(frozen=True)
class Number:
    """The root with this index of an irreducible primitive polynomial (coefficients from the constant up).

    Real roots come first, in rising order; the others follow by real, then imaginary part. Two numbers are
    equal exactly when polynomial and index are: an irreducible polynomial is determined by any of its roots.
    Real numbers are in order: different ones are enclosed until their enclosures lie apart.
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
        """Whether the number is real."""
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

    def enclosed(self, precision: int) -> acb:
        """A certified enclosure to about so many binary digits. Raises TooLarge past MAX_PRECISION."""
        return _enclosures(self.polynomial, precision)[self.index]

    def __lt__(self, other: Number) -> bool:
        if self.polynomial == other.polynomial:
            return self.index < other.index
        first, second = self.rational, other.rational
        if first is not None and second is not None:
            return first < second
        precision = PRECISION
        while True:
            left, right = self.enclosed(precision).real, other.enclosed(precision).real
            if left < right:
                return True
            if right < left:
                return False
            precision *= 2

    def sign_of(self, coefficients: Sequence[int]) -> int:
        """The sign at a real number of a polynomial (coefficients from the constant up): 0 exactly where it is a
        root."""
        value = self.rational
        if value is not None:
            total = sum((c * value**k for k, c in enumerate(coefficients)), Q(0))
            return (total > 0) - (total < 0)
        if fmpz_poly(list(coefficients)).gcd(fmpz_poly(list(self.polynomial))).degree() > 0:
            return 0
        precision = PRECISION
        while True:
            at = self.enclosed(precision).real
            enclosed = sum((at**k * c for k, c in enumerate(coefficients)), at * 0)
            if enclosed > 0 or enclosed < 0:
                return 1 if enclosed > 0 else -1
            precision *= 2

    def __le__(self, other: Number) -> bool:
        return self == other or self < other

    @property
    def floor(self) -> int:
        """The largest whole number that a real number is not below."""
        value = self.rational
        if value is not None:
            return floor(value)
        precision = PRECISION
        while True:
            ball = self.enclosed(precision).real
            low, high = ball.lower().floor().unique_fmpz(), ball.upper().floor().unique_fmpz()
            if low is not None and low == high:
                return int(low)
            precision *= 2

    def rounds_to(self, value: Q, places: int) -> bool:
        """Whether a real number, rounded to so many decimal places, is the value; a half rounds either way."""
        half = Q(1, 2 * 10**places)
        return rational(value - half) <= self <= rational(value + half)

    def decimal(self, places: int) -> str:
        """A real number rounded to so many decimal places, for reading."""
        scaled = (self.times(10**places)).nearest
        digits = str(abs(scaled)).rjust(places + 1, "0")
        text = f"{digits[:-places]}.{digits[-places:]}" if places else digits
        return f"-{text}" if scaled < 0 else text

    @property
    def in_words(self) -> str:
        """The number in a sentence: as it is written, or where it lies."""
        tree = self.tree
        if tree is not None:
            return plain(tree)
        return f"the number near {self.decimal(3)}" if self.is_real else "a number with i"

    def times(self, factor: int) -> Number:
        """The number times a positive whole one."""
        size = len(self.polynomial) - 1
        scaled = [c * factor ** (size - k) for k, c in enumerate(self.polynomial)]
        shared = gcd(*scaled)
        return Number(tuple(c // shared for c in scaled), self.index)

    @property
    def nearest(self) -> int:
        """The whole number nearest to a real one; a half is rounded up."""
        return (self.times(2).floor + 1) // 2

    @property
    def tree(self) -> n.Node | None:
        """The number as it is written, with root signs; None where the notation has no form for it."""
        return _tree_of(self.polynomial, self.index)

    def __str__(self) -> str:
        tree = self.tree
        if tree is not None:
            return plain(tree)
        low = self.times(100).floor
        return f"root({plain(build.polynomial(self.polynomial, 'x'))}, {_hundredths(low)}, {_hundredths(low + 1)})"


def _hundredths(value: int) -> str:
    whole, rest = divmod(abs(value), 100)
    return f"{'-' if value < 0 else ''}{whole}.{rest:02d}"


def rational(value: Q | int) -> Number:
    """The number equal to this fraction."""
    value = Q(value)
    return Number((-value.numerator, value.denominator), 0)


def roots_of(coefficients: tuple[int, ...], *, complex_too: bool = False) -> list[Number]:
    """The real roots (or all) of an irreducible primitive polynomial with a positive leading coefficient."""
    values, real = _roots(coefficients)
    return [Number(coefficients, k) for k in range(len(values) if complex_too else real)]


MAX_ISOLATED = 160


@lru_cache(maxsize=4096)
def _roots(coefficients: tuple[int, ...]) -> tuple[tuple[complex, ...], int]:
    """Approximate roots in the fixed order, and how many of them are real."""
    if max(abs(c).bit_length() for c in coefficients) > MAX_BITS:
        raise TooLarge("These numbers are too large to be put in order.")
    if len(coefficients) > MAX_ISOLATED:
        raise TooLarge(f"The roots of a polynomial of a degree above {MAX_ISOLATED} are not told apart.")
    if len(coefficients) == 2:
        return (complex(-coefficients[0] / coefficients[1]),), 1
    found = _enclosures(coefficients)
    real = sum(1 for root in found if root.imag == 0)
    return tuple(complex(float(r.real.mid()), float(r.imag.mid())) for r in found), real


@lru_cache(maxsize=4096)
def _enclosures(coefficients: tuple[int, ...], precision: int = PRECISION) -> tuple[acb, ...]:
    """Disjoint certified enclosures of all roots: the real ones rising, then the others by real and imaginary part."""
    if precision > MAX_PRECISION:
        raise TooLarge("These numbers lie too close together to be told apart.")
    before = flint_context.prec
    try:
        flint_context.prec = precision
        polynomial: Any = fmpz_poly(list(coefficients))
        found = [root for root, _ in polynomial.complex_roots()]
    finally:
        flint_context.prec = before
    real = sorted((r for r in found if r.imag == 0), key=cmp_to_key(_by_place))
    others = sorted((r for r in found if r.imag != 0), key=cmp_to_key(_by_place))
    return (*real, *others)


def _by_place(first: acb, second: acb) -> int:
    """Which of two roots comes first: by real part where the enclosures of these lie apart, else by imaginary part."""
    for left, right in ((first.real, second.real), (first.imag, second.imag)):
        if left < right:
            return -1
        if right < left:
            return 1
    return 0


def forget_roots() -> None:
    """Empties what is kept of roots found before."""
    _roots.cache_clear()
    _enclosures.cache_clear()


def _tree_of(coefficients: tuple[int, ...], index: int) -> n.Node | None:
    if len(coefficients) == 2:
        return build.number(Q(-coefficients[0], coefficients[1]))
    if len(coefficients) == 3:
        c, b, a = coefficients
        return _surd(a, b, c, index)
    shift, pure = _centred(coefficients)
    if any(pure[1:-1]) or index >= _roots(coefficients)[1]:
        return None
    root = _binomial(pure, index)
    return root if shift == 0 else build.sum_of([build.number(shift), root])


def _surd(a: int, b: int, c: int, index: int) -> n.Node:
    """(-b ± √(b² - 4ac))/(2a) with the square part taken out and the fraction reduced."""
    discriminant = b * b - 4 * a * c
    inside, outside = squarefree_part(abs(discriminant))
    common = gcd(b, outside, 2 * a)
    top, coefficient, bottom = -b // common, outside // common, 2 * a // common
    parts: list[n.Node] = [] if coefficient == 1 else [n.Integer(coefficient)]
    if discriminant < 0:
        parts.append(n.Letter("i"))
    if inside != 1:
        parts.append(n.Root(n.Integer(inside)))
    root = build.implied_product(parts)
    minus = index == 0
    if top == 0:
        whole = root if bottom == 1 else n.Fraction(build.beside_slash(root), n.Integer(bottom))
        return n.Signed("-", whole) if minus else whole
    total = build.sum_of([build.number(top), n.Signed("-", root) if minus else root])
    return total if bottom == 1 else n.Fraction(n.Group(total), n.Integer(bottom))


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


def _binomial(coefficients: tuple[int, ...], index: int) -> n.Node:
    """A real root of a·x^n = c, as one root sign over a whole number: `∛5`, `-∛2/3`, `root(4, 3)`."""
    degree, lead = len(coefficients) - 1, coefficients[-1]
    inside = abs(coefficients[0]) * lead ** (degree - 1)
    outside = 1
    for prime, power in prime_factors(inside):
        outside *= int(prime) ** (power // degree)
        inside //= int(prime) ** (power // degree * degree)
    common = gcd(outside, lead)
    outside, bottom = outside // common, lead // common
    root: n.Node = n.Root(n.Integer(inside), n.Integer(degree))
    if outside != 1:
        root = build.implied_product([n.Integer(outside), root])
    whole = root if bottom == 1 else n.Fraction(build.beside_slash(root), n.Integer(bottom))
    minus = _roots(coefficients)[1] == 2 and index == 0 if degree % 2 == 0 else coefficients[0] > 0
    return n.Signed("-", whole) if minus else whole


MAX_DIVISORS = 1_000


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


def whole_root(value: int, index: int) -> int | None:
    """The whole number whose power with this exponent a whole number from 0 is; None where there is none."""
    if index > value.bit_length():  # of 2 and more there is none; the library takes no larger index either
        return value if value < 2 else None
    root = isqrt(value) if index == 2 else int(fmpz(value).root(index))
    return root if root**index == value else None


def divisors(number: int) -> list[int]:
    """The positive whole numbers that divide one that is not 0, ascending; raises TooLarge where that could take
    long."""
    found = [1]
    for prime, power in prime_factors(abs(number)):
        found = [d * prime**k for d in found for k in range(power + 1)]
        if len(found) > MAX_DIVISORS:
            raise TooLarge("A number here has too many divisors.")
    return sorted(found)


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
