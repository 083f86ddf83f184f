"""Fields with generators for roots and for powers with a letter above: their normal form, their norms, their
enclosures.

A generator is a root |base|^(1/degree), or a power prime^(above/step). A value is a fraction of polynomials in the
letters and the generators, reduced by the relation g^degree = |base| of each.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction as Q
from math import comb, gcd

from flint import acb, arb, fmpq, fmpz_poly

from algebra import limits
from algebra.exact.definite import PI
from algebra.exact.effort import spend
from algebra.exact.errors import TooLarge, UndefinedValue
from algebra.exact.rational_functions import Field, Key, Poly, Ratio, by_powers, field_of, refuse_high, univariate

MAX_INDEX = 60
"""Largest index of a root, nested ones multiplied."""
MAX_NORM = 72
"""Highest degree of a field with roots from which a polynomial is brought down to its letters."""
SPARE = 18
"""Generators kept ready for roots and powers; a line that needs more is refused."""
MAX_COUNT = 10**12
"""Largest number before a letter in an exponent. Such powers are only multiplied and compared; what would be made of
all the powers in between (a list of coefficients, a common factor) is refused where it is asked for."""
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


class GeneratedField(Field):
    """The region around `sample` where each polynomial of `signs` has the sign given, with its generators."""

    def __init__(
        self,
        letters: tuple[str, ...],
        plan: Plan,
        sample: Mapping[str, Q],
        signs: Mapping[str, int],
        *,
        bounded: bool = True,
        connected: bool = True,
        formal: bool = False,
    ) -> None:
        self.added = _ADDED[plan.spare]
        super().__init__(letters)
        self.plan = plan
        self.sample = dict(sample)
        self.signs = dict(signs)
        self.bounded = bounded  # whether the sample lies on the cell: always with at most one letter
        self.connected = connected  # whether the cell is one piece: an interval, or all there is
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
        self.roots: dict[tuple[int, Key, Key], tuple[Ratio, Doubts]] = {}  # with what was assumed for each
        self.constants: dict[str, Ratio] = {}  # letters that stand for a fixed number here
        self.uncertain: set[int] = set()  # positions of generators that may satisfy unknown relations
        self.seen: dict[int, tuple[object, Ratio | None]] = {}  # values of trees met before, by identity

    @property
    def doubts(self) -> Doubts:
        """What was assumed since the doubts were last set: `sign_assumed`, `joint`, `not_real`."""
        return self.sign_assumed, self.joint, self.not_real

    @doubts.setter
    def doubts(self, doubts: Doubts) -> None:
        """Sets back what was assumed."""
        self.sign_assumed, self.joint, self.not_real = doubts

    def approximate(self, value: Ratio) -> acb:
        """A certified enclosure of a value at the sample."""
        return self.enclosure_of(value.numerator) / self.enclosure_of(value.denominator)

    def enclosure_of(self, poly: Poly) -> acb:
        """A certified enclosure of a polynomial at the sample."""
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
                        factor = self.sample_of(name)
                    term *= factor ** int(power)
            total += term
        return total

    def sample_of(self, name: str) -> acb:
        """A certified enclosure of a letter at the sample: π is the number."""
        if name == PI:
            return acb(arb.pi())
        number = self.sample[name]
        return acb(arb(fmpq(number.numerator, number.denominator)))

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

    def base_in_one(self, made: Generator, place: int) -> fmpz_poly:
        """What stands under a root, as a polynomial in the letter at this place."""
        if made.position not in self._in_one:
            assert made.base is not None
            self._in_one[made.position] = univariate(made.base, place)
        return self._in_one[made.position]

    def powers_of(self, poly: Poly, made: Generator) -> list[Poly]:
        """The coefficients in powers of a generator, lowest first. Raises TooLarge."""
        parts = by_powers(poly, made.position)
        highest = max(parts, default=0)
        refuse_high(highest)
        return [parts.get(k, self.zero) for k in range(highest + 1)]

    def depends_on_added(self, poly: Poly) -> bool:
        """Whether a polynomial holds a generator that stands for a root or a power."""
        return not poly.is_constant() and any(poly.degrees()[: len(self.added)])

    def in_letters(self, poly: Poly) -> Poly:
        """The same polynomial over the letters alone; it must not hold a root."""
        skip = len(self.added)
        return self.plain.ring.from_dict({monomial[skip:]: c for monomial, c in poly.to_dict().items()})

    def make(
        self, key: str, degree: int, relation_value: Poly | None, find: Callable[[], acb], **more: object
    ) -> Generator:
        """A new generator, kept under its key; `find` gives its value at the sample."""
        position = self.next_position()  # later generators rank higher, so that reduction ends
        name = self.names[position]
        symbol = self.generators[name]
        relation = None if relation_value is None else symbol**degree - relation_value
        made = Generator(name, symbol, position, degree, relation, find, **more)  # type: ignore[arg-type]  # by name
        self.made[key] = made
        return made

    def next_position(self) -> int:
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
            raise UndefinedValue("an even root of a negative number is not a real number")
        made = self.made.get("i") or self.make("i", 2, self.ring.constant(-1), lambda: acb(0, 1))
        return Ratio(self, made.symbol, self.one)

    def algebraic(self, coefficients: tuple[int, ...], value: acb) -> Ratio:
        """The root `value` of an irreducible polynomial, as a generator of its own.

        Together with other roots it may satisfy relations that are not known here: so nothing but zero is certain.
        """
        degree, lead = len(coefficients) - 1, coefficients[-1]
        # lead·root is integral: it is a zero of x^d + c·x^(d-1) + …
        monic = [c * lead ** (degree - 1 - k) for k, c in enumerate(coefficients[:-1])]
        key = f"algebraic {coefficients} {value}"
        position = self.next_position()
        self.uncertain.add(position)
        symbol = self.generators[self.names[position]]
        relation = self.zero
        for k, c in enumerate(monic):
            relation -= c * symbol**k
        made = self.made.get(key) or self.make(key, degree, relation, lambda: value * lead)
        return self.ratio(made.symbol, self.ring.constant(lead))

    def _root_generator(self, text: str, base: Poly, size: Poly) -> Generator:
        """size^(1/index), the size that of a prime or an irreducible polynomial."""
        key = f"root {text}"
        made = self.made.get(key)
        if made is None:
            made = self.make(
                key, self.plan.index, size, lambda: acb(self.enclosure_of(size).real.root(self.plan.index)), base=base
            )
        return made

    def exponential(self, prime: int, above: Above, count: int) -> Ratio:
        """prime^(count · above / step)."""
        key = f"power {prime} {above}"
        made = self.made.get(key) or self.make(
            key, 0, None, lambda: acb(prime) ** self._exponent_at_sample(above), prime=prime, above=above
        )
        return self._counted(made, count)

    def letter_power(self, base: str, above: Above, count: int, *, size: bool = False) -> Ratio:
        """base^(count · above / step) for a letter below, taken as a quantity of its own; with `size`, |base| below.

        |x|^n is x^n or -x^n, as n is even or odd: what holds for both follows from the equality of their squares.
        """
        key = f"power |{base}| {above}" if size else f"power {base} {above}"
        made = self.made.get(key)
        if made is None:
            below = self.sample.get(base, Q(2))
            number = acb(arb(fmpq(abs(below.numerator) if size else below.numerator, below.denominator)))
            degree, relation = 0, None
            if size:
                degree = 2 * self.plan.step
                relation = self.letter_power(base, above, degree).numerator
            made = self.make(
                key, degree, relation, lambda: number ** self._exponent_at_sample(above), above=above, below=base
            )
        return self._counted(made, count)

    def _exponent_at_sample(self, above: Above) -> acb:
        exponent = Q(1, self.plan.step)
        for letter, power in above:
            exponent *= self.sample.get(letter, Q(1)) ** power
        return acb(arb(fmpq(exponent.numerator, exponent.denominator)))

    def _counted(self, made: Generator, count: int) -> Ratio:
        if abs(count) > MAX_COUNT:
            raise TooLarge("The number before the letter in this exponent is too large.", "^")
        if count >= 0:
            return Ratio(self, made.symbol**count, self.one)
        return Ratio(self, self.one, made.symbol ** (-count))

    def normal(self, poly: Poly) -> Poly:
        """The polynomial reduced by the relations of its generators."""
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

    def holds_uncertain(self, poly: Poly) -> bool:
        """Whether a polynomial holds a generator that may not be real."""
        degrees = poly.degrees() if self.uncertain else ()
        return any(degrees[position] for position in self.uncertain)

    def norm(self, poly: Poly) -> Poly:
        """A polynomial in letters alone that vanishes wherever the given one does, whatever the signs of its roots."""
        size = 1
        degrees = poly.degrees()
        occurring = sum(1 for made in self.made.values() if made.relation is not None and degrees[made.position])
        if 2**occurring > MAX_NORM:
            raise TooLarge(f"The roots here together have a degree above {MAX_NORM}.", "√")
        for made in reversed(list(self.made.values())):
            if made.relation is None or poly == 0 or not poly.degrees()[made.position]:
                continue
            place, relation = made.position, made.relation
            # a fourth root that occurs squared only is a square root: the smaller the degree, the quicker
            shared = gcd(*(int(monomial[place]) for p in (poly, relation) for monomial in p.monoms()))
            size *= made.degree // shared
            if size > MAX_NORM:
                raise TooLarge(f"The roots here together have a degree above {MAX_NORM}.", "√")
            spend(size)
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
