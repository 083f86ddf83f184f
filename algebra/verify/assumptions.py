"""What a working assumes of its letters: it leaves out cells of their values, lets conditions fall away, and narrows
solutions."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass, field
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import Number, rational, roots_of
from algebra.exact.decomposition import Bound, between
from algebra.exact.definite import PI, definite_sign, sign_at_point, used_letters
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Field, Poly, factored, integer_coefficients, irreducible_factors, text_of
from algebra.exact.real_sets import RealSet
from algebra.records import record
from algebra.reports.working import EXPRESSION_TASKS, TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln

_ALLOWED = {">": (1,), "≥": (0, 1), "≠": (1, -1)}
_TURNED = {"<": ">", "≤": "≥"}


@record(frozen=True)
class Assumption:
    """A polynomial over the letters that is above zero (`>`), not below it (`≥`), or not zero (`≠`)."""

    poly: Poly
    operator: str


@dataclass(slots=True)
class Assumptions:
    """All that is assumed of the letters of a working."""

    items: tuple[Assumption, ...] = ()
    sets: dict[str, RealSet] = field(default_factory=dict)
    """The values that are left for a letter, where something is assumed of it alone."""

    def __post_init__(self) -> None:
        for item in self.items:
            letters = used_letters(item.poly)
            if len(letters) == 1:
                own, letter = _set_of(item, letters[0]), letters[0]
                known = self.sets.get(letter)
                self.sets[letter] = own if known is None else known.combined(own, lambda a, b: a and b)

    @property
    def bounds(self) -> tuple[Bound, ...]:
        """The signs of polynomials that are assumed; where one may be zero, it is so only on the edge of the cells."""
        return tuple(_bound(item.poly) for item in self.items if item.operator != "≠")

    @property
    def signs(self) -> dict[str, int]:
        """The signs of single letters: 1 for those that are nowhere negative, -1 for those that are nowhere
        positive."""
        found = {}
        zero = rational(0)
        for letter, values in self.sets.items():
            if all(low is not None and zero <= low for low, _, _, _ in values.pieces):
                found[letter] = 1
            elif all(high is not None and high <= zero for _, _, high, _ in values.pieces):
                found[letter] = -1
        return found

    def holds_at(self, point: Mapping[str, Q]) -> bool:
        """Whether a point, which names some of the letters, is not against what is assumed of those."""
        return all(
            sign_at_point(item.poly, point) in _ALLOWED[item.operator]
            for item in self.items
            if set(used_letters(item.poly)) <= set(point)
        )

    def never_zero(self, poly: Poly) -> bool:
        """Whether a polynomial is not zero anywhere as far as its letters are as assumed."""
        apart = irreducible_factors(item.poly for item in self.items if item.operator != "≥")
        return all(key in apart or self._has_no_zero(factor) for key, factor in irreducible_factors([poly]).items())

    def _has_no_zero(self, poly: Poly) -> bool:
        letters = [name for name in used_letters(poly) if name != PI]
        if len(letters) == 1 and letters == used_letters(poly) and letters[0] in self.sets:
            return not any(zero in self.sets[letters[0]] for zero in _zeros(poly, letters[0]))
        nonzero = {name for name in letters if name in self.sets and rational(0) not in self.sets[name]}
        return nonzero == set(letters) and definite_sign(poly, self.signs) is not None

    def not_negative(self, poly: Poly) -> bool:
        """Whether a polynomial is nowhere negative as far as its letters are as assumed."""
        held = {text_of(bound): sign for bound, sign in self.bounds}
        content, factors = factored(poly)
        total = 1 if content > 0 else -1
        for factor, power in factors:
            if power % 2:
                own = held.get(text_of(factor)) or definite_sign(factor, self.signs) or self._sign_of(factor)
                if own is None:
                    return False
                total *= own
        return total == 1

    def _sign_of(self, poly: Poly) -> int | None:
        """The sign of a polynomial in one letter on all that is left for it."""
        letters = used_letters(poly)
        if len(letters) != 1 or letters[0] not in self.sets:
            return None
        inside = self.sets[letters[0]]
        above = _set_of(Assumption(poly, "≥"), letters[0])
        if not inside.combined(above, lambda a, b: a and not b).pieces:
            return 1
        below = _set_of(Assumption(-poly, "≥"), letters[0])
        return None if inside.combined(below, lambda a, b: a and not b).pieces else -1


def _zeros(poly: Poly, letter: str) -> list[Number]:
    found = {
        number
        for factor in irreducible_factors([poly]).values()
        for number in roots_of(tuple(integer_coefficients(factor, letter)))
    }
    return sorted(found)


def _set_of(item: Assumption, letter: str) -> RealSet:
    """The values of its one letter for which an assumption holds."""
    ends = _zeros(item.poly, letter)
    samples = [between(low, high) for low, high in zip([None, *ends], [*ends, None], strict=True)]
    inside = [item.operator == "≠" or sign_at_point(item.poly, {letter: value}) > 0 for value in samples]
    return RealSet.of(ends, inside.__getitem__, lambda _: item.operator == "≥")


def _bound(poly: Poly) -> Bound:
    """A polynomial as factors are known, primitive and with a positive leading coefficient, and its sign when it is
    positive."""
    content, factors = factored(poly)
    whole = poly.context().constant(1)
    for factor, power in factors:
        whole = whole * factor**power
    return whole, 1 if content > 0 else -1


def assumptions_of(working: Working, over: Field, letters: Iterable[str], lines: list[ln.Line]) -> Assumptions:
    """What the lines assume, the convention on letters under roots, and that units are positive. What can't be taken is
    left out here; `read_assumption` says why."""
    items = [
        Assumption(over.letter(name).numerator, ">")
        for name in sorted(letters)
        if name.startswith('"') and name in over.names
    ]
    if working.convention("roots_of_letters") == "non-negative" and working.task in EXPRESSION_TASKS:
        items += [Assumption(over.letter(name).numerator, "≥") for name in sorted(letters) if name != PI]
    for line in lines:
        if line.kind == "assumption" and line.body is not None:
            with suppress(TaskError):
                items += read_assumption(over, line.body)
    return Assumptions(tuple(items))


def read_assumption(over: Field, body: n.Node) -> list[Assumption]:
    """What one line assumes. Raises TaskError for one that does not compare polynomials."""
    return [item for left, sign, right in _compared(body) for item in _of(over, left, sign, right)]


def _compared(body: n.Node) -> Iterator[tuple[n.Node, str, n.Node]]:
    """The comparisons that an assumption makes: `a > b`, `0 < x ≤ 5`, `x ≠ 0, 4`, `a, b > 0`, several joined by
    `and`."""
    match body:
        case ln.Comparison(left, operator, right) if operator in "<>≤≥≠":
            yield left, operator, right
        case ln.ValueList(left, items, "≠"):
            yield from ((left, "≠", item) for item in items)
        case ln.ValueList(left, (*others, right), operator) if operator in "<>≤≥":
            yield from ((name, operator, right) for name in (left, *others))
        case ln.Between(low, first, middle, second, high):
            yield low, first, middle
            yield middle, second, high
        case ln.AllOf(items):
            for item in items:
                yield from _compared(item)
        case _:
            raise TaskError("An assumption compares, as in a > 0 or x ≠ 2.")


def _of(over: Field, left: n.Node, operator: str, right: n.Node) -> Iterator[Assumption]:
    if operator in _TURNED:
        left, right, operator = right, left, _TURNED[operator]
    try:
        difference = value_of(left, over).ratio - value_of(right, over).ratio
    except ExactError:
        raise TaskError("An assumption compares polynomials in the letters, as in a > 0 or x ≠ 2.") from None
    if not difference.is_polynomial:
        raise TaskError("An assumption compares polynomials in the letters, as in a > 0 or x ≠ 2.")
    if not difference.numerator.is_constant():
        yield Assumption(difference.numerator, operator)
