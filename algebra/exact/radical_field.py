"""Fields with roots, valid on one cell: a region of the letters on which all polynomials under roots keep their sign.

On a cell every even root of a polynomial is a product of positive real N-th roots |f|^(1/N), f running over primes
and irreducible polynomials of known sign. These roots are independent: real radicals of elements of a real field
satisfy only the relations g^N = |f| when no product of them lies in the field (L. J. Mordell, "On the linear
independence of algebraic numbers", Pacific J. Math. 3, 1953), and here unique factorisation rules that out. So the
form that is reduced by g^N = |f|, with a denominator free of roots, is a normal form: two values are equal on the
cell exactly when their normal forms are. Powers p^(x/D) of primes with a letter in the exponent are independent of
all of these and need no relation. A nested root that can not be taken apart gets a generator of its own; then a
zero normal form still proves equality, but one that holds it proves nothing (`RadicalField.uncertain`).
"""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd
from typing import Any

from flint import acb
from flint.utils.flint_exceptions import DomainError

from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.effort import spend
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.generators import NO_DOUBTS, Generator
from algebra.exact.linear_systems import eliminate
from algebra.exact.rational_functions import (
    Poly,
    Ratio,
    by_powers,
    factored_by_text,
    irreducible_factors,
    key_of,
    text_of,
)
from algebra.exact.sign_determination import SignedField

MAX_CLEARED, CLEARED_A_UNIT = 20_000, 100
"""How many products of two terms one step of rationalising may take, and how many are counted as a unit of work."""
MAX_ADJUGATE = 16
"""Highest degree of a root by which a denominator with more than two of its powers is rationalised."""


class RadicalField(SignedField):
    """A field with roots on a cell: normal forms, roots, and the zero test."""

    def cleared(self, numerator: Poly, denominator: Poly) -> tuple[Poly, Poly]:
        """Rationalises the denominator, the highest generator first."""
        if denominator.is_constant() or not self.depends_on_added(denominator):
            return numerator, denominator
        for made in reversed(list(self.made.values())):
            if made.relation is None:
                continue
            for _ in range(8):
                if denominator == 0:
                    raise UndefinedValue("it divides by zero")
                if denominator.degrees()[made.position] == 0:
                    break
                factor = self._conjugate(denominator, made)
                size = max(len(numerator), len(denominator)) * len(factor)
                if size > MAX_CLEARED:
                    raise TooLarge("The denominator holds too many roots.", "√")
                spend(size // CLEARED_A_UNIT)
                numerator, denominator = self.normal(numerator * factor), self.normal(denominator * factor)
            else:
                raise OutOfScope("A denominator with this root is not worked out.", "√")
        return numerator, denominator

    def _conjugate(self, poly: Poly, made: Generator) -> Poly:
        """A non-zero factor that lowers the degree of a generator in a denominator."""
        parts = by_powers(poly, made.position)
        powers = sorted(parts)
        if len(powers) == 1 and (made.base is not None or made.degree == 2):
            return made.symbol ** (made.degree - powers[0])
        if len(powers) == 2:
            low, high = powers
            a, b = parts[low], parts[high] * made.symbol ** (high - low)
            if made.base is None and made.degree > 2:
                return self._adjugate(parts, made)
            times = made.degree // gcd(made.degree, high - low)
            total, sign = self.zero, 1
            for k in range(times):
                total += sign * a ** (times - 1 - k) * b**k
                sign = -sign
            return self.normal(total)
        return self._adjugate(parts, made)

    def _adjugate(self, parts: dict[int, Poly], made: Generator) -> Poly:
        """The inverse of a polynomial in one root up to a factor free of it, by elimination over the lower field."""
        size = made.degree
        if size > MAX_ADJUGATE:
            raise OutOfScope("A denominator with this root is not worked out.", "√")
        rows = []
        for k in range(size):  # the row of part·g^k, written in powers of g
            row = [self.constant(0)] * size
            total = self.zero
            for power, part in parts.items():
                total += part * made.symbol ** (power + k)
            for monomial, coefficient in self.normal(total).to_dict().items():
                rest = list(monomial)
                at, rest[made.position] = int(rest[made.position]), 0
                row[at] = row[at] + Ratio(self, self.ring.from_dict({tuple(rest): coefficient}), self.one)
            rows.append(row)
        columns = [[rows[k][i] for k in range(size)] + [self.constant(1 if i == 0 else 0)] for i in range(size)]
        solved = eliminate(columns)
        bottom = self.one
        for entry in solved:
            bottom = bottom * (entry.denominator / bottom.gcd(entry.denominator))
        total = self.zero
        for k, entry in enumerate(solved):
            total += entry.numerator * (bottom / entry.denominator) * made.symbol**k
        return self.normal(total)

    def _size_power(self, text: str, base: Poly, count: int) -> Ratio:
        """|base|^(count/index); `text` is that of the base."""
        whole, rest = divmod(count, self.plan.index)
        if self.formal and whole % 2 and not rest and not base.is_constant():
            self.sign_assumed = True
        size = base if self.sign(base, text) > 0 else -base
        if not rest:
            return Ratio(self, size, self.one) ** whole
        symbol = self._root_generator(text, base, size).symbol
        root = Ratio(self, symbol if rest == 1 else symbol**rest, self.one)
        return Ratio(self, size, self.one) ** whole * root if whole else root

    # -- roots ---------------------------------------------------------------------------------------------------

    def root(self, value: Ratio, index: int) -> Ratio:
        """The real root (the non-negative one where the index is even); i√|a| for a square root of a negative a.

        Raises UndefinedValue where there is none, SignUnknown where the cell must be split first.
        """
        if value.is_zero:
            return value
        if self.plan.index % index:
            raise OutOfScope(f"A root with the index {index} was not foreseen here.", "√")
        if not self.depends_on_added(value.numerator):
            return self._known_root(value, index)
        monomial = self._root_of_monomial(value, index)
        if monomial is not None:
            return monomial
        sign = self.sign_of(value)
        if sign is None:
            raise OutOfScope("The sign under this root is not decided.", "√")
        if sign < 0 and index % 2:
            return -self.root(-value, index)
        if sign < 0:
            if index != 2:
                raise UndefinedValue("an even root of a negative number is not a real number")
            return self.imaginary_unit() * self.root(-value, 2)
        if index == 2:
            apart = self._denested(value)
            if apart is not None:
                return apart
        return self._nested_root(value, index)

    def _known_root(self, value: Ratio, index: int) -> Ratio:
        """A root of a rational function: the same ones stand on line after line."""
        key = (index, key_of(value.numerator), () if value.denominator is self.one else key_of(value.denominator))
        known = self.roots.get(key)
        if known is None:
            before, self.doubts = self.doubts, NO_DOUBTS
            try:
                known = self.roots[key] = self._root_of_rational(value, index), self.doubts
            finally:
                self.doubts = before
        result, (assumed, joint, not_real) = known
        self.doubts = self.sign_assumed or assumed, self.joint or joint, self.not_real or not_real
        return result

    def _root_of_rational(self, value: Ratio, index: int) -> Ratio:
        sign, result, odd = 1, self.constant(1), 0
        for poly, way in ((value.numerator, 1), (value.denominator, -1)):
            if poly is self.one:
                continue
            content, factors = factored_by_text(poly)
            turned = None
            if content < 0:
                sign, content = -sign, -content
                turned = self._turned(factors) if self.formal and way == 1 and index % 2 == 0 else None
            if content > 1:
                for prime, power in prime_factors(content):
                    count = way * power * self.plan.index // index
                    result = result * self._size_power(str(prime), self.ring.constant(prime), count)
            for text, factor, power in factors:
                if power % 2:
                    sign *= self.sign(factor, text)
                    odd += 1
                if text == turned:
                    sign, factor = -sign, -factor
                    text = text_of(factor)
                result = result * self._size_power(text, factor, way * power * self.plan.index // index)
        self.joint = self.joint or (odd > 1 and index % 2 == 0)
        if sign > 0:
            return result
        if index % 2:
            return -result
        if index != 2:
            raise UndefinedValue("an even root of a negative number is not a real number")
        self.not_real = self.not_real or (value.constant is not None and not self.plan.imaginary)
        self.joint = self.joint or value.constant is None
        return self.imaginary_unit() * result

    def _turned(self, factors: list[tuple[str, Poly, int]]) -> str | None:
        """Where signs are only a matter of form, what takes up a minus in front under an even root: b² - 4ac and not
        i√(4ac - b²); a sum if there is one, else (where numbers are real) a letter."""
        odd = [(text, len(factor)) for text, factor, power in factors if power % 2]
        sums = [text for text, size in odd if size > 1]
        letters = [text for text, _ in odd] if not self.plan.imaginary else []
        return next(iter(sums + letters), None)

    def _root_of_monomial(self, value: Ratio, index: int) -> Ratio | None:
        """The root of c·g^e·…, where each exponent of a root is a multiple of the index; else None."""
        parts = value.numerator.to_dict()
        shared: list[tuple[Generator, int]] = []
        sizes: list[tuple[Generator, int]] = []  # √(x^(2n)) is |x|^n
        rest = value.numerator
        for made in self.made.values():
            powers = {monomial[made.position] for monomial in parts}
            if len(powers) != 1:
                return None
            power = powers.pop()
            if power == 0:
                continue
            is_power = made.relation is None and (made.prime or made.below)
            if (made.base is None and not is_power) or power % index:
                return None
            if made.below and index % 2 == 0 and self.sign(self.generators[made.below]) < 0:
                sizes.append((made, int(power) // index))
            else:
                shared.append((made, int(power)))
            rest = rest / made.symbol ** int(power)
        result = self.root(Ratio(self, rest, value.denominator), index)
        for made, count in sizes:
            result = result * self.letter_power(made.below, made.above, count, size=True)
        for made, power in shared:
            result = result * Ratio(self, made.symbol ** (power // index), self.one)
        return result

    def _denested(self, value: Ratio) -> Ratio | None:
        """√(a + b) = √((a + d)/2) ± √((a - d)/2) with d² = a² - b², where a is the part free of roots."""
        free: dict[tuple[int, ...], Any] = {}
        for monomial, coefficient in value.numerator.to_dict().items():
            if not any(monomial[: len(self.added)]):
                free[monomial] = coefficient
        a = self.ratio(self.ring.from_dict(free), value.denominator)
        b = value - a
        inside = a * a - b * b
        if self.depends_on_added(inside.numerator) or a.is_zero:
            return None
        square = self.constant(0) if inside.is_zero else self._square_root_in_letters(inside)
        if square is None:
            return None
        half = self.constant(Q(1, 2))
        for d in (square, -square):
            try:
                first, second = self.root((a + d) * half, 2), self.root((a - d) * half, 2)
            except UndefinedValue:
                continue
            for candidate in (first + second, first - second, second - first):
                if candidate * candidate == value and self.sign_of(candidate) == 1:
                    return candidate
        return None

    def _square_root_in_letters(self, value: Ratio) -> Ratio | None:
        """A square root that needs no root sign, or None."""
        roots = []
        for poly in (value.numerator, value.denominator):
            try:
                roots.append(poly.sqrt())
            except DomainError:
                return None
        return self.ratio(roots[0], roots[1])

    def _nested_root(self, value: Ratio, index: int) -> Ratio:
        """A root that can not be taken apart: a generator of its own."""
        inside = value.numerator * value.denominator ** (index - 1)
        key = f"nested {index} {inside}"
        made = self.made.get(key)
        if made is None:
            self.uncertain.add(self.next_position())
            made = self.make(
                key,
                index,
                self.normal(inside),
                lambda: acb(self.enclosure_of(inside).real.root(index)),
                nested=Ratio(self, inside, self.one),
            )
        sign = 1 if index % 2 else self.sign_of_poly(value.denominator)
        return self.ratio(sign * made.symbol, value.denominator)

    def split_by(self, value: Ratio) -> dict[str, Poly]:
        """Irreducible polynomials in letters among whose zeros those of the value lie."""
        return irreducible_factors([self.in_letters(self.norm(value.numerator))])
