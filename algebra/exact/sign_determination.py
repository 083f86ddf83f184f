"""Which sign a value has on a cell: from the signs given with the cell, by its terms, or by its norm and its enclosure.

In one letter a cell is an open interval. A value with roots is continuous there, and it is zero only where its norm is;
so once the norm has no zero on the cell, the certified sign at the sample is the sign of every point.
"""

from __future__ import annotations

from algebra.exact.definite import PI, definite_sign, sign_of_pi
from algebra.exact.errors import OutOfScope
from algebra.exact.generators import GeneratedField
from algebra.exact.rational_functions import Poly, Ratio, factored, irreducible_factors, ring_name, text_of


class SignUnknown(OutOfScope):
    """The sign of an irreducible polynomial on this cell was asked for and is not known yet: the cell is to be cut."""

    def __init__(self, poly: Poly) -> None:
        super().__init__("The sign of what stands here is not decided.")
        self.poly = poly


class SignedField(GeneratedField):
    """A field with generators in which the signs of values are determined on one cell."""

    def sign(self, poly: Poly, text: str = "") -> int:
        """The sign of an irreducible polynomial in the letters; raises SignUnknown when this cell does not have it."""
        if poly.is_constant():
            return 1 if poly.leading_coefficient() > 0 else -1
        if PI in self.letters:
            of_pi = sign_of_pi(poly)
            if of_pi is not None:
                return of_pi
        if self.formal and not self.signs:
            return 1
        known = self.signs.get(text or text_of(poly))
        if known is None and self.formal:
            return 1
        if known is None:
            inside = self.in_letters(poly)
            known = definite_sign(inside, self._letter_signs())
            if known is None:
                raise SignUnknown(inside)
        return known

    def _letter_signs(self) -> dict[str, int]:
        """The signs of single letters, as far as the cell has them."""
        return {name: self.signs[ring_name(name)] for name in self.letters if ring_name(name) in self.signs}

    def sign_of(self, value: Ratio) -> int | None:
        """The sign of a real value on this cell: by its factors, or by its enclosure at the sample; None if unknown."""
        if value.is_zero:
            return 0
        if not self.depends_on_added(value.numerator):
            self.sign_assumed = self.sign_assumed or not value.numerator.is_constant()
            return self.sign_of_poly(value.numerator) * self.sign_of_poly(value.denominator)
        if self.formal:
            self.sign_assumed = True
            return 1
        if not self.bounded and any(value.numerator.degrees()[len(self.added) :]):
            return None
        sign = self._sign_by_terms(value.numerator)
        if sign is None and not self._holds_i(value.numerator):
            sign = self._sign_with_roots(value.numerator)
        return None if sign is None else sign * self.sign_of_poly(value.denominator)

    def sign_of_terms(self, value: Ratio) -> int | None:
        """The sign of a value whose terms all have the same, whatever the letters of unknown sign are; else None."""
        above, below = self._sign_by_terms(value.numerator), self._sign_by_terms(value.denominator)
        return None if above is None or below is None else above * below

    def is_above_zero(self, value: Ratio) -> bool:
        """Whether a value is a sum of roots and of a number with one sign, so that it is nowhere zero: √x + 1.

        Of several letters the number may be missing: √x + √y is zero where both are, which is no condition on one.
        """
        if not self.depends_on_added(value.numerator) or not self.sign_of_terms(value):
            return False
        monomials = value.numerator.monoms()
        return not any(monomials[-1]) or (len(self.letters) > 1 and len(monomials) > 1)

    def _holds_i(self, poly: Poly) -> bool:
        return "i" in self.made and bool(poly.degrees()[self.made["i"].position])

    def _sign_by_terms(self, poly: Poly) -> int | None:
        """The sign that all terms share, as far as the signs of single letters are known; roots and powers are
        positive."""
        shared: set[int] = set()
        imaginary = self.made["i"].position if "i" in self.made else None
        signed_powers = {g.position for g in self.made.values() if g.below and self.signs.get(ring_name(g.below)) != 1}
        for monomial, coefficient in poly.to_dict().items():
            sign = 1 if coefficient > 0 else -1
            for position, power in enumerate(monomial):
                if power % 2 and position >= len(self.added):
                    known = self.signs.get(ring_name(self.names[position]))
                    if known is None:
                        return None
                    sign *= known
                if power and (position == imaginary or position in self.uncertain):
                    return None
                if power % 2 and position in signed_powers:
                    return None
            shared.add(sign)
        return shared.pop() if len(shared) == 1 else None

    def _sign_with_roots(self, poly: Poly) -> int | None:
        """The sign of a value with roots, proved for the whole cell; raises SignUnknown where the cell must be cut.

        In one letter a cell is an interval: no zero of the value lies on it once the norm has its sign there, so the
        sign at the sample is that of every point. In several, a + b√p is judged by the signs of a, b and a² - b²p.
        """
        used = [made for made in self.made.values() if poly.degrees()[made.position]]
        letters = [k for k in range(len(self.added), len(self.names)) if poly.degrees()[k]]
        inside = {k for made in used for k in self.letters_inside(made)}
        if not letters and not inside:
            return self._sign_at_sample(poly)
        if any(made.relation is None for made in used):
            return None
        if len({*letters, *inside}) <= 1 and self.bounded and self.connected:
            norm = self.norm(poly)
            if norm == 0 or self.depends_on_added(norm):
                return None
            for factor in irreducible_factors([norm]).values():
                self.sign(factor)  # the cell is cut at every zero that the value could have
            return self._sign_at_sample(poly)
        top = used[-1]
        half = top.degree // 2
        parts = {k: part for k, part in enumerate(self.powers_of(poly, top)) if part != 0}
        if top.degree % 2 or not set(parts) <= {0, half} or top.position in self.uncertain:
            return None
        signs = {k: self.sign_of(Ratio(self, part, self.one)) for k, part in parts.items()}
        if None in signs.values():
            return None
        if len(set(signs.values())) == 1:
            return next(iter(signs.values()))
        low, high = parts[0], parts[half]
        assert top.relation is not None
        square = self.normal(low * low - high * high * (top.symbol**top.degree - top.relation))
        outweighs = self.sign_of(Ratio(self, square, self.one))
        return None if outweighs in (None, 0) else signs[0] if outweighs == 1 else signs[half]

    def _sign_at_sample(self, poly: Poly) -> int | None:
        number = self.enclosure_of(poly)
        if not number.imag.contains(0):
            return None
        return 1 if number.real > 0 else -1 if number.real < 0 else None

    def sign_of_poly(self, poly: Poly) -> int:
        """The sign of a polynomial on the cell: 1, 0 or −1."""
        content, factors = factored(poly)
        sign = 1 if content > 0 else -1
        for factor, power in factors:
            if power % 2:
                sign *= self.sign(factor)
        return sign
