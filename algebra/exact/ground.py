"""What a cell knows of itself: its letters and their sample, the roots and powers made so far, signs, enclosures, norms.

The signs of polynomials are given with the cell; those of values with roots are proved from them.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction as Q
from math import comb, gcd

from flint import acb, arb, fmpq, fmpz_poly

from algebra import limits
from algebra.exact.errors import OutOfScope, TooLarge, UndefinedValue
from algebra.exact.ratio import (
    Field,
    Poly,
    Ratio,
    by_powers,
    factored,
    field_of,
    irreducible_factors,
    ring_name,
    univariate,
)

MAX_INDEX = 60
"""Largest index of a root, nested ones multiplied."""
MAX_NORM = 72
"""Highest degree of a field with roots from which a polynomial is brought down to its letters."""
SPARE = 18
"""Generators kept ready for roots and powers; a line that needs more is refused."""
FEW = 7
"""As many are tried first: polynomials in few generators are worked with in half the time."""


@dataclass(frozen=True, slots=True)
class Plan:
    """What the lines of a working ask of their cells.

    `index`: a multiple of every root index along every nesting; `step`: of every denominator in an exponent;
    `imaginary`: whether roots of negative numbers are numbers; `spare`: how many generators are kept ready.
    """

    index: int = 2
    step: int = 1
    imaginary: bool = False
    spare: int = SPARE


class MoreRootsNeeded(Exception):
    """A plan with `FEW` generators is too small: the whole question is to be asked again with `SPARE`.

    Not an ExactError: no verdict may be made of it on the way up.
    """


Above = tuple[tuple[str, int], ...]
"""What stands in an exponent: letters with their powers."""


@dataclass(slots=True)
class Generator:
    """A root |base|^(1/degree) or a power prime^(above/step), `above` a product of powers of letters.

    `relation` is g^degree - value, or None. Its enclosure at the sample is found when it is first asked for.
    """

    name: str
    symbol: Poly
    position: int
    degree: int
    relation: Poly | None
    find: Callable[[], acb]
    base: Poly | None = None
    prime: int = 0
    above: Above = ()
    below: str = ""
    nested: Ratio | None = None
    _value: acb | None = None

    @property
    def value(self) -> acb:
        """A certified enclosure at the sample."""
        if self._value is None:
            self._value = self.find()
        return self._value


Doubts = tuple[bool, bool, bool]
NO_DOUBTS: Doubts = (False, False, False)

_ADDED = {count: tuple(f"_{k}" for k in reversed(range(count))) for count in (FEW, SPARE)}


class SignUnknown(OutOfScope):
    """The sign of an irreducible polynomial on this cell was asked for and is not known yet: the cell is to be cut."""

    def __init__(self, poly: Poly) -> None:
        super().__init__("The sign of what stands here is not decided.")
        self.poly = poly


class Ground(Field):
    """The region around `sample` where each polynomial of `signs` has the sign given, with its generators.

    Its values are put into normal form by `Cell`.
    """

    def __init__(
        self,
        letters: tuple[str, ...],
        plan: Plan,
        sample: Mapping[str, Q],
        signs: Mapping[str, int],
        *,
        bounded: bool = True,
        formal: bool = False,
    ) -> None:
        self.added = _ADDED[plan.spare]
        super().__init__(letters)
        self.plan = plan
        self.sample = dict(sample)
        self.signs = dict(signs)
        self.bounded = bounded  # whether the sample lies on the cell: always with at most one letter
        self.formal = formal  # compares forms only: unknown signs are +, roots of negatives are written with i
        self.sign_assumed = False  # formal only: a sign was taken for + that no root forces to be so
        self.joint = (
            False  # formal only: an even root was taken apart into several, whose signs its domain does not settle
        )
        self.not_real = (
            False  # formal only: an even root of a negative number was written with i, where numbers are real
        )
        self.made: dict[str, Generator] = {}
        self.plain = field_of(letters)
        self._in_one: dict[int, fmpz_poly] = {}
        self.roots: dict[tuple[int, str, str], tuple[Ratio, Doubts]] = {}  # with what was assumed for each
        self.constants: dict[str, Ratio] = {}  # letters that stand for a fixed number here
        self.uncertain: set[int] = set()  # positions of generators that may satisfy unknown relations
        self.seen: dict[int, tuple[object, Ratio | None]] = {}  # values of trees met before, by identity

    @property
    def doubts(self) -> Doubts:
        """What was assumed since the doubts were last set: `sign_assumed`, `joint`, `not_real`."""
        return self.sign_assumed, self.joint, self.not_real

    @doubts.setter
    def doubts(self, doubts: Doubts) -> None:
        self.sign_assumed, self.joint, self.not_real = doubts

    # -- signs and numbers ---------------------------------------------------------------------------------------

    def sign(self, poly: Poly, text: str = "") -> int:
        """The sign of an irreducible polynomial in the letters; raises SignUnknown when this cell does not have it."""
        if poly.is_constant():
            return 1 if poly.leading_coefficient() > 0 else -1
        if self.formal and not self.signs:
            return 1
        known = self.signs.get(text or str(poly))
        if known is None and self.formal:
            return 1
        if known is None:
            raise SignUnknown(self.in_letters(poly))
        return known

    def approximate(self, value: Ratio) -> acb:
        """A certified enclosure of a value at the sample."""
        return self._approximate(value.numerator) / self._approximate(value.denominator)

    def _approximate(self, poly: Poly) -> acb:
        total = acb(0)
        by_position = {g.position: g for g in self.made.values()}
        for monomial, coefficient in poly.to_dict().items():
            term = acb(int(coefficient))
            for position, power in enumerate(monomial):
                if power:
                    name = self.names[position]
                    if position in by_position:
                        factor = by_position[position].value
                    else:
                        number = self.sample[name]
                        factor = acb(arb(fmpq(number.numerator, number.denominator)))
                    term *= factor ** int(power)
            total += term
        return total

    def sign_of(self, value: Ratio) -> int | None:
        """The sign of a real value on this cell: by its factors, or by its enclosure at the sample; None if unknown."""
        if value.is_zero:
            return 0
        if not self.depends_on_added(value.numerator):
            self.sign_assumed = self.sign_assumed or not value.numerator.is_constant()
            return self._sign_of_poly(value.numerator) * self._sign_of_poly(value.denominator)
        if self.formal:
            self.sign_assumed = True
            return 1
        if not self.bounded and any(value.numerator.degrees()[len(self.added) :]):
            return None
        sign = self._sign_by_terms(value.numerator)
        if sign is None and not self._holds_i(value.numerator):
            sign = self._sign_with_roots(value.numerator)
        return None if sign is None else sign * self._sign_of_poly(value.denominator)

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
        """The sign that all terms share, as far as the signs of single letters are known; roots and powers are positive."""
        shared: set[int] = set()
        imaginary = self.made["i"].position if "i" in self.made else None
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
            shared.add(sign)
        return shared.pop() if len(shared) == 1 else None

    def _sign_with_roots(self, poly: Poly) -> int | None:
        """The sign of a value with roots, proved for the whole cell; raises SignUnknown where the cell must be cut.

        In one letter a cell is an interval: no zero of the value lies on it once the norm has its sign there, so the sign
        at the sample is that of every point. In several, a + b√p is judged by the signs of a, b and a² - b²p.
        """
        used = [made for made in self.made.values() if poly.degrees()[made.position]]
        letters = [k for k in range(len(self.added), len(self.names)) if poly.degrees()[k]]
        inside = {k for made in used for k in self.letters_inside(made)}
        if not letters and not inside:
            return self._sign_at_sample(poly)
        if any(made.relation is None for made in used):
            return None
        if len({*letters, *inside}) <= 1 and self.bounded:
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

    def letters_inside(self, made: Generator) -> set[int]:
        """The positions of the letters that a root or a power with a letter above is made of."""
        if made.above:
            return {self.position(name) for name in (*dict(made.above), made.below) if name in self.names}
        tree = made.base if made.nested is None else made.nested.numerator
        if tree is None:
            return set()
        found: set[int] = set()
        by_position = {other.position: other for other in self.made.values()}
        for k, degree in enumerate(tree.degrees()):
            if degree and k >= len(self.added):
                found.add(k)
            elif degree and k != made.position:
                found |= self.letters_inside(by_position[k])
        return found

    def powers_of(self, poly: Poly, made: Generator) -> list[Poly]:
        """The coefficients in powers of a generator, lowest first."""
        parts = by_powers(poly, made.position)
        return [parts.get(k, self.zero) for k in range(max(parts) + 1)]

    def _sign_at_sample(self, poly: Poly) -> int | None:
        number = self._approximate(poly)
        if not number.imag.contains(0):
            return None
        return 1 if number.real > 0 else -1 if number.real < 0 else None

    def _sign_of_poly(self, poly: Poly) -> int:
        content, factors = factored(poly)
        sign = 1 if content > 0 else -1
        for factor, power in factors:
            if power % 2:
                sign *= self.sign(factor)
        return sign

    def depends_on_added(self, poly: Poly) -> bool:
        return not poly.is_constant() and any(poly.degrees()[: len(self.added)])

    def in_letters(self, poly: Poly) -> Poly:
        """The same polynomial over the letters alone; it must not hold a root."""
        skip = len(self.added)
        return self.plain.ring.from_dict({monomial[skip:]: c for monomial, c in poly.to_dict().items()})

    # -- generators ----------------------------------------------------------------------------------------------

    def _make(
        self, key: str, degree: int, relation_value: Poly | None, find: Callable[[], acb], **more: object
    ) -> Generator:
        position = self._next_position()  # later generators rank higher, so that reduction ends
        name = self.names[position]
        symbol = self.generators[name]
        relation = None if relation_value is None else symbol**degree - relation_value
        made = Generator(name, symbol, position, degree, relation, find, **more)  # type: ignore[arg-type]
        self.made[key] = made
        return made

    def _next_position(self) -> int:
        """The place of the generator that is made next; raises TooLarge where all are taken."""
        position = self.plan.spare - 1 - len(self.made)
        if position >= 0:
            return position
        if self.plan.spare < SPARE:
            raise MoreRootsNeeded
        raise TooLarge(f"More than {SPARE} different roots occur together.", "√")

    def imaginary_unit(self) -> Ratio:
        """i; raises UndefinedValue where numbers are real."""
        if not (self.plan.imaginary or self.formal):
            raise UndefinedValue("An even root of a negative number is not a real number.")
        made = self.made.get("i") or self._make("i", 2, self.ring.constant(-1), lambda: acb(0, 1))
        return Ratio(self, made.symbol, self.one)

    def algebraic(self, coefficients: tuple[int, ...], value: acb) -> Ratio:
        """The root `value` of an irreducible polynomial, as a generator of its own.

        Together with other roots it may satisfy relations that are not known here: so nothing but zero is certain.
        """
        degree, lead = len(coefficients) - 1, coefficients[-1]
        # lead·root is integral: it is a zero of x^d + c·x^(d-1) + …
        monic = [c * lead ** (degree - 1 - k) for k, c in enumerate(coefficients[:-1])]
        key = f"algebraic {coefficients} {value}"
        position = self._next_position()
        self.uncertain.add(position)
        symbol = self.generators[self.names[position]]
        relation = self.zero
        for k, c in enumerate(monic):
            relation -= c * symbol**k
        made = self.made.get(key) or self._make(key, degree, relation, lambda: value * lead)
        return self.ratio(made.symbol, self.ring.constant(lead))

    def _root_generator(self, text: str, base: Poly, size: Poly) -> Generator:
        """size^(1/index), the size that of a prime or an irreducible polynomial."""
        key = f"root {text}"
        made = self.made.get(key)
        if made is None:
            made = self._make(
                key, self.plan.index, size, lambda: acb(self._approximate(size).real.root(self.plan.index)), base=base
            )
        return made

    def base_in_one(self, made: Generator, place: int) -> fmpz_poly:
        """What stands under a root, as a polynomial in the letter at this place."""
        if made.position not in self._in_one:
            assert made.base is not None
            self._in_one[made.position] = univariate(made.base, place)
        return self._in_one[made.position]

    def exponential(self, prime: int, above: Above, count: int) -> Ratio:
        """prime^(count · above / step)."""
        key = f"power {prime} {above}"
        made = self.made.get(key) or self._make(
            key, 0, None, lambda: acb(prime) ** self._exponent_at_sample(above), prime=prime, above=above
        )
        return self._counted(made, count)

    def letter_power(self, base: str, above: Above, count: int) -> Ratio:
        """base^(count · above / step) for a letter below, taken as a quantity of its own."""
        key = f"power {base} {above}"
        made = self.made.get(key)
        if made is None:
            below = self.sample.get(base, Q(2))
            number = acb(arb(fmpq(below.numerator, below.denominator)))
            made = self._make(key, 0, None, lambda: number ** self._exponent_at_sample(above), above=above, below=base)
        return self._counted(made, count)

    def _exponent_at_sample(self, above: Above) -> acb:
        exponent = Q(1, self.plan.step)
        for letter, power in above:
            exponent *= self.sample.get(letter, Q(1)) ** power
        return acb(arb(fmpq(exponent.numerator, exponent.denominator)))

    def _counted(self, made: Generator, count: int) -> Ratio:
        if count >= 0:
            return Ratio(self, made.symbol**count, self.one)
        return Ratio(self, self.one, made.symbol ** (-count))

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

    # -- normal form ---------------------------------------------------------------------------------------------

    def normal(self, poly: Poly) -> Poly:
        if not self.made or poly.is_constant():
            return poly
        degrees = poly.degrees()
        for made in reversed(self.made.values()):
            if made.relation is not None and degrees[made.position] >= made.degree:
                _, poly = divmod(poly, made.relation)
                if poly.is_constant():
                    return poly
                degrees = poly.degrees()
        return poly

    def spare_symbol(self) -> Poly | None:
        """A generator of the ring that stands for nothing yet; None where all are taken."""
        free = self.plan.spare - 1 - len(self.made)
        return None if free < 0 else self.generators[self.names[free]]

    def letters_in(self, poly: Poly) -> set[int]:
        """The positions of the letters that occur, under roots too."""
        degrees = poly.degrees()
        found = {k for k in range(len(self.added), len(self.names)) if degrees[k]}
        for made in self.made.values():
            if degrees[made.position]:
                found |= self.letters_inside(made)
        return found

    def _holds_uncertain(self, poly: Poly) -> bool:
        degrees = poly.degrees() if self.uncertain else ()
        return any(degrees[position] for position in self.uncertain)

    def norm(self, poly: Poly) -> Poly:
        """A polynomial in letters alone that vanishes wherever the given one does, whatever the signs of its roots."""
        size = 1
        for made in reversed(list(self.made.values())):
            if made.relation is None or poly == 0 or not poly.degrees()[made.position]:
                continue
            place, relation = made.position, made.relation
            # a fourth root that occurs squared only is a square root: the smaller the degree, the quicker
            shared = gcd(*(int(monomial[place]) for p in (poly, relation) for monomial in p.monoms()))
            size *= made.degree // shared
            if size > MAX_NORM:
                raise TooLarge(f"The roots here together have a degree above {MAX_NORM}.", "√")
            used = sum(1 for degree in poly.degrees()[len(self.added) :] if degree)
            if comb(size * poly.total_degree() + used, used) > limits.MAX_TERMS:
                raise TooLarge(f"Freed of its roots, this would have more than {limits.MAX_TERMS} terms.", "√")
            if shared > 1:
                poly, relation = (
                    self.ring.from_dict(
                        {(*m[:place], m[place] // shared, *m[place + 1 :]): c for m, c in p.to_dict().items()}
                    )
                    for p in (poly, relation)
                )
            poly = poly.resultant(relation, place)
        return poly
