"""Rational functions with integer coefficients, in lowest terms, over a fixed list of letters."""

from __future__ import annotations

import re
from collections.abc import Iterable
from fractions import Fraction as Q
from functools import lru_cache
from math import gcd
from typing import Any

from flint import Ordering, fmpz_mpoly, fmpz_mpoly_ctx, fmpz_poly
from flint.utils.flint_exceptions import DomainError

from algebra import limits
from algebra.exact.effort import spend
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue

Poly = fmpz_mpoly
MAX_SINGLE = 10**13
"""Highest degree of a single term: it takes no more room than any other."""
MAX_DENSE = 6_000
"""Highest degree of a polynomial whose coefficients are listed, or that is taken apart."""

__all__ = [
    "DomainError",
    "Field",
    "Poly",
    "Ratio",
    "by_powers",
    "coefficients",
    "depends_on",
    "factored",
    "factored_by_text",
    "field_of",
    "filled",
    "forget_factors",
    "integer_coefficients",
    "irreducible_factors",
    "key_of",
    "letters_of_ring",
    "refuse_high",
    "ring_name",
    "text_of",
    "univariate",
]


Key = tuple[tuple[int, ...], ...]
"""A polynomial within its ring: its coefficients, then the exponents of each term."""


def key_of(poly: Poly) -> Key:
    """By what a polynomial is known among others of its ring."""
    return (tuple(map(int, poly.coeffs())), *(tuple(map(int, powers)) for powers in poly.monoms()))


def text_of(poly: Poly) -> str:
    """A polynomial as FLINT writes it, 2*x^2*y - 3*x + 1. FLINT's own text is never freed by the library that hands it
    over."""
    names = poly.context().names()
    pieces: list[str] = []
    for powers, coefficient in poly.terms():
        number = int(coefficient)
        factors = [name if k == 1 else f"{name}^{k}" for name, k in zip(names, powers, strict=True) if k]
        if not factors or abs(number) != 1:
            factors.insert(0, str(abs(number)))
        sign = (" - " if pieces else "-") if number < 0 else (" + " if pieces else "")
        pieces.append(sign + "*".join(factors))
    return "".join(pieces) or "0"


class Field:
    """The field of rational functions in some letters; makes `Ratio` values.

    `names` are the generators of the ring: those a subclass adds in front, then the letters.
    """

    added: tuple[str, ...] = ()

    def __init__(self, letters: tuple[str, ...]) -> None:
        self.letters = letters
        self.names = (*self.added, *(letters or ("x",)))
        self.ring, self.generators, self.one, self.zero = _ring_of(self.names)
        self._known: dict[int | Q | str, Ratio] = {}  # constants and letters met before

    def constant(self, value: int | Q) -> Ratio:
        """The rational number as a value of the field."""
        known = self._known.get(value)
        if known is None:
            bottom = self.one if value.denominator == 1 else self.ring.constant(value.denominator)
            known = Ratio(self, self.ring.constant(value.numerator), bottom)
            if len(self._known) < _KEPT and value.numerator.bit_length() < 64:
                self._known[value] = known
        return known

    def letter(self, name: str) -> Ratio:
        """The letter as a value; raises OutOfScope when the field does not have it."""
        known = self._known.get(name)
        if known is None:
            generator = self.generators.get(name)
            if generator is None:
                raise OutOfScope(f"{name} is used before it is given a meaning.", name)
            known = self._known[name] = Ratio(self, generator, self.one)
        return known

    def normal(self, poly: Poly) -> Poly:
        """The normal form of a polynomial in the generators; here every polynomial is in it."""
        return poly

    def cleared(self, numerator: Poly, denominator: Poly) -> tuple[Poly, Poly]:
        """The same fraction with a denominator in letters only."""
        return numerator, denominator

    def ratio(self, numerator: Poly, denominator: Poly | None = None) -> Ratio:
        """numerator/denominator in lowest terms with a positive leading coefficient below."""
        if denominator is None or denominator is self.one:
            return Ratio(self, self.normal(numerator) if self.added else numerator, self.one)
        size = len(numerator) * len(denominator)
        if size > _SMALL:
            spend(size // _SMALL)
        if self.added:
            numerator, denominator = self.cleared(self.normal(numerator), self.normal(denominator))
        if denominator.is_constant():
            return self._over(numerator, _constant(denominator))
        if self.added and len(numerator) > 1 and len(denominator) > 1:
            refuse_high(max(numerator.total_degree(), denominator.total_degree()))
        common = numerator.gcd(denominator)
        if common != 1:
            numerator, denominator = numerator / common, denominator / common
        if denominator.leading_coefficient() < 0:
            numerator, denominator = -numerator, -denominator
        return Ratio(self, numerator, denominator)

    def _over(self, numerator: Poly, number: int) -> Ratio:
        """numerator/number in lowest terms, the number positive."""
        if number == 0:
            raise UndefinedValue("it divides by zero")
        content: Any = numerator
        common = gcd(int(content.content()), number) if number != 1 else 1
        if number < 0:
            common = -common
        if common != 1:
            numerator, number = numerator / common, number // common
        return Ratio(self, numerator, self.one if number == 1 else self.constant(number).numerator)

    def position(self, letter: str) -> int:
        """The place of a letter among the generators."""
        return self.names.index(letter)


def ring_name(letter: str) -> str:
    """A letter's name inside the ring, whose names are ASCII: π is u3c0."""
    return letter if letter.isascii() else "".join(c if c.isascii() else f"u{ord(c):x}" for c in letter)


@lru_cache(maxsize=1024)
def _letter_of(name: str) -> str:
    """The letter that goes by this name inside a ring; a lone u is itself, since letters have one character."""
    if name.startswith('"') or not re.fullmatch(r"u[0-9a-f]{2,5}", name):
        return name
    return chr(int(name[1:], 16))


def letters_of_ring(poly: Poly) -> tuple[str, ...]:
    """The letters of the ring that a polynomial lies in, in the order of its exponents."""
    return tuple(map(_letter_of, poly.context().names()))


@lru_cache(maxsize=256)
def _ring_of(names: tuple[str, ...]) -> tuple[fmpz_mpoly_ctx, dict[str, Poly], Poly, Poly]:
    """The ring over these generators, with its generators by name, 1 and 0."""
    ring = fmpz_mpoly_ctx.get(tuple(map(ring_name, names)), Ordering.lex)
    return ring, dict(zip(names, ring.gens(), strict=True)), ring.constant(1), ring.constant(0)


@lru_cache(maxsize=256)
def field_of(letters: tuple[str, ...]) -> Field:
    """The field over these letters (sorted, without repeats); the same object for the same letters."""
    return Field(letters)


class Ratio:
    """An element of a `Field`. Immutable; equal values have equal numerator and denominator."""

    __slots__ = ("denominator", "field", "numerator")

    def __init__(self, field: Field, numerator: Poly, denominator: Poly) -> None:
        self.field = field
        self.numerator = numerator
        self.denominator = denominator

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Ratio):
            return NotImplemented
        return self.numerator == other.numerator and self.denominator == other.denominator

    def __hash__(self) -> int:
        return hash((*map(int, self.numerator.coeffs()), "/", *map(int, self.denominator.coeffs())))

    def __repr__(self) -> str:
        return f"Ratio({text_of(self.numerator)}, {text_of(self.denominator)})"

    def __neg__(self) -> Ratio:
        return Ratio(self.field, -self.numerator, self.denominator)

    def __add__(self, other: Ratio) -> Ratio:
        below, its = self.denominator, other.denominator
        if below is its is self.field.one:
            return Ratio(self.field, self.numerator + other.numerator, below)
        if below == its:
            return self.field.ratio(self.numerator + other.numerator, below)
        return self.field.ratio(_times(self.numerator, its) + _times(other.numerator, below), _times(below, its))

    def __sub__(self, other: Ratio) -> Ratio:
        below, its = self.denominator, other.denominator
        if below is its is self.field.one:
            return Ratio(self.field, self.numerator - other.numerator, below)
        if below == its:
            return self.field.ratio(self.numerator - other.numerator, below)
        return self.field.ratio(_times(self.numerator, its) - _times(other.numerator, below), _times(below, its))

    def __mul__(self, other: Ratio) -> Ratio:
        field, below, its = self.field, self.denominator, other.denominator
        above = _times(self.numerator, other.numerator)
        if below is field.one:
            if its is below:
                return Ratio(field, field.normal(above) if field.added else above, below)
            return field.ratio(above, its)
        return field.ratio(above, below if its is field.one else _times(below, its))

    def scaled(self, number: int) -> Ratio:
        """The value times a whole number."""
        one = self.field.one
        if self.denominator is one:
            return Ratio(self.field, self.numerator * number, one)
        return self.field.ratio(self.numerator * number, self.denominator)

    def __truediv__(self, other: Ratio) -> Ratio:
        """Raises UndefinedValue when the divisor is identically zero."""
        one, below, its = self.field.one, self.denominator, other.denominator
        above = self.numerator if its is one else _times(self.numerator, its)
        return self.field.ratio(above, other.numerator if below is one else _times(below, other.numerator))

    def __pow__(self, exponent: int) -> Ratio:
        """Raises UndefinedValue for 0 to a power that is not positive, TooLarge past the bounds."""
        if exponent < 0:
            return self.field.ratio(_power(self.denominator, -exponent), _power(self.numerator, -exponent))
        if self.field.added:
            return self.field.ratio(_power(self.numerator, exponent), _power(self.denominator, exponent))
        return Ratio(self.field, _power(self.numerator, exponent), _power(self.denominator, exponent))

    @property
    def is_zero(self) -> bool:
        """Whether the value is 0."""
        return bool(self.numerator == 0)

    @property
    def constant(self) -> Q | None:
        """The rational number, or None when letters occur."""
        if not self.numerator.is_constant():
            return None
        if self.denominator is self.field.one:
            return Q(_constant(self.numerator))
        return Q(_constant(self.numerator), _constant(self.denominator)) if self.denominator.is_constant() else None

    @property
    def is_polynomial(self) -> bool:
        """Whether it is a polynomial with rational coefficients."""
        return bool(self.denominator.is_constant())


def _constant(poly: Poly) -> int:
    return int(poly.leading_coefficient()) if poly != 0 else 0


def _times(left: Poly, right: Poly) -> Poly:
    """The product, before it is put into normal form. Raises TooLarge."""
    size = len(left) * len(right)
    if size > _SMALL:
        spend(size // (16 * _SMALL))
    if size > limits.MAX_TERMS:
        raise TooLarge(f"Multiplied out, this would have more than {limits.MAX_TERMS} terms.")
    return left * right


def _power(base: Poly, exponent: int) -> Poly:
    if base.is_constant():
        if _constant(base).bit_length() * exponent > limits.MAX_POWER_BITS:
            raise TooLarge(f"This power has more than {limits.MAX_POWER_BITS} binary digits.", "^")
    else:
        if exponent > limits.MAX_EXPONENT:
            raise TooLarge(f"Powers above {limits.MAX_EXPONENT} are not written out.", "^")
        terms, degree = len(base), base.total_degree() * exponent
        # the number of monomials bounds the size: C(exponent + terms - 1, terms - 1)
        count = 1
        for k in range(1, terms):
            count = count * (exponent + k) // k
            if count > limits.MAX_TERMS:
                raise TooLarge(f"Multiplied out, this would have more than {limits.MAX_TERMS} terms.", "^")
        if degree > (limits.MAX_DEGREE if terms > 1 else MAX_SINGLE):
            raise TooLarge(f"Multiplied out, this would have a degree above {limits.MAX_DEGREE}.", "^")
    return base**exponent


Factors = tuple[int, list[tuple[Poly, int]]]


def factored(poly: Poly) -> Factors:
    """The integer content with its sign, and the irreducible factors with their powers, each primitive with a positive
    leading coefficient. Raises TooLarge."""
    if poly.is_constant():
        return _constant(poly), []
    return _factored_once(poly)[:2]


def factored_by_text(poly: Poly) -> tuple[int, list[tuple[str, Poly, int]]]:
    """As `factored`, with the text of each factor, by which factors are known."""
    if poly.is_constant():
        return _constant(poly), []
    content, factors, texts = _factored_once(poly)
    return content, [(text, *factor) for text, factor in zip(texts, factors, strict=True)]


def irreducible_factors(polys: Iterable[Poly]) -> dict[str, Poly]:
    """The non-constant irreducible factors over the rationals, by their text, as `factored` makes them."""
    found: dict[str, Poly] = {}
    for poly in polys:
        if not poly.is_constant():
            found |= _factored_once(poly)[2]
    return found


_SMALL = 32
"""Sizes of polynomials, in terms times terms, up to which work with them is not counted apart."""


def _factored_once(poly: Poly) -> tuple[int, list[tuple[Poly, int]], dict[str, Poly]]:
    size = len(poly) * int(poly.total_degree())
    if size > _SMALL:  # counted whether or not it is known already, so that the past does not decide
        spend(size // _SMALL)
    key = (poly.context(), key_of(poly))
    found = _FACTORED.get(key)
    if found is None:
        if len(_FACTORED) >= _KEPT:
            _FACTORED.clear()
        content, factors = _factored(poly)
        found = _FACTORED[key] = content, factors, {text_of(factor): factor for factor, _ in factors}
    return found


# the same polynomials come back on every line of a working; they don't hash, their keys do
_FACTORED: dict[tuple[fmpz_mpoly_ctx, Key], tuple[int, list[tuple[Poly, int]], dict[str, Poly]]] = {}
_KEPT = 4096


def forget_factors() -> None:
    """Empties what `factored` keeps."""
    _FACTORED.clear()


def _factored(poly: Poly) -> Factors:
    if poly.total_degree() == 1:  # no factors but its content
        shared = 0
        for coefficient in poly.coeffs():
            shared = gcd(shared, int(coefficient))
        if poly.leading_coefficient() < 0:
            shared = -shared
        return shared, [(poly if shared == 1 else poly / shared, 1)]
    degrees = poly.degrees()
    if len(poly) > 1:
        refuse_high(max(map(int, degrees)))
    used = [k for k, power in enumerate(degrees) if power]
    if len(used) == 1:
        return _factored_in_one(poly, used[0])
    try:
        content, factors = poly.factor()
    except OverflowError:  # the library can't put factors with such coefficients in order
        raise TooLarge("The numbers here are too large to be worked with.") from None
    sign = 1
    turned = []
    for factor, power in factors:
        if factor.leading_coefficient() < 0:
            factor, sign = -factor, sign * (-1) ** int(power)
        turned.append((factor, int(power)))
    return sign * int(content), turned


def _factored_in_one(poly: Poly, at: int) -> Factors:
    """The factors of a polynomial in the generator at this place: many times faster in a ring of one letter."""
    parts = univariate(poly, at)
    if parts.degree() > limits.MAX_FACTORED_DEGREE:
        raise TooLarge(f"Polynomials of a degree above {limits.MAX_FACTORED_DEGREE} are not factored.")
    if parts.degree() * max(int(c).bit_length() for c in parts.coeffs()) > limits.MAX_FACTORED_SIZE:
        raise TooLarge("The numbers and powers here are too large to be factored.")
    content, found = parts.factor()
    if len(found) == 1 and content == 1 and found[0][1] == 1:
        return 1, [(poly, 1)]
    ring = poly.context()
    before, behind = (0,) * at, (0,) * (ring.nvars() - at - 1)
    lifted = [
        (ring.from_dict({(*before, k, *behind): c for k, c in enumerate(factor.coeffs()) if c != 0}), int(power))
        for factor, power in found
    ]
    return int(content), lifted


def univariate(poly: Poly, at: int) -> fmpz_poly:
    """A polynomial in the generator at this place alone, as one in one letter."""
    return filled({int(monomial[at]): c for monomial, c in poly.to_dict().items()})


def refuse_high(degree: int) -> None:
    """Raises TooLarge for a degree of which the coefficients are not written out."""
    if degree > MAX_DENSE:
        raise TooLarge(f"Powers above {MAX_DENSE} are not worked with here.", "^")


def filled(terms: dict[int, Any]) -> fmpz_poly:
    """The polynomial with these coefficients by their powers. Raises TooLarge."""
    refuse_high(max(terms, default=0))
    return fmpz_poly([terms.get(k, 0) for k in range(max(terms, default=0) + 1)])


def integer_coefficients(poly: Poly, letter: str) -> list[int]:
    """The coefficients of a polynomial in one letter, lowest first; raises ValueError when others occur."""
    place = _place(poly.context(), letter)
    refuse_high(int(poly.degrees()[place]) if poly != 0 else 0)
    terms: dict[int, int] = {}
    for monomial, coefficient in poly.to_dict().items():
        power = int(monomial[place])
        if sum(map(int, monomial)) != power:
            raise ValueError("another letter occurs")
        terms[power] = int(coefficient)
    return [terms.get(k, 0) for k in range(max(terms, default=0) + 1)]


@lru_cache(maxsize=1024)
def _place(ring: fmpz_mpoly_ctx, letter: str) -> int:
    return int(ring.names().index(ring_name(letter)))


def coefficients(poly: Poly, letter: str) -> list[Poly]:
    """The coefficients in powers of one letter, lowest first, each a polynomial in the others."""
    ring = poly.context()
    parts = by_powers(poly, _place(ring, letter))
    return [parts.get(power, ring.constant(0)) for power in range(max(parts, default=0) + 1)]


def by_powers(poly: Poly, at: int) -> dict[int, Poly]:
    """The coefficients of those powers of the generator at this place that occur, each a polynomial in the others."""
    parts: dict[int, dict[tuple[int, ...], Any]] = {}
    for monomial, coefficient in poly.to_dict().items():
        parts.setdefault(int(monomial[at]), {})[(*monomial[:at], 0, *monomial[at + 1 :])] = coefficient
    return {power: poly.context().from_dict(terms) for power, terms in parts.items()}


def depends_on(poly: Poly, letter: str) -> bool:
    """Whether the letter occurs."""
    return poly != 0 and bool(poly.degrees()[_place(poly.context(), letter)] > 0)
