"""Care rather than algebra: one symbol copied wrongly, one number worked out wrongly."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from math import isqrt
from typing import Protocol

from algebra.slips.parts import Counted, coefficient, number_of, signed, terms
from algebra.slips.words import Words, said
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.diff import symbol_changes

Fact = tuple[Q, str, n.Node | None]
"""What two numbers make, how that is written, and what stands behind the result; None for nothing, ANYTHING where it is
open."""
ANYTHING = n.Letter("?")


class Right(Protocol):
    """What tells whether a line, set right, has the value of the line before."""

    @property
    def is_spent(self) -> bool:
        """Whether the work that was granted is used up."""

    def is_it(self, body: n.Node) -> int:
        """How well a line explains the one that was written; 0 where it does not."""


def copied(before: n.Node, after: n.Node) -> tuple[n.Address, Words] | None:
    """Where one sign, digit, exponent or letter differs and nothing else, and what became what."""
    changes = symbol_changes(before, after)
    if changes is None or len(changes) != 1 or changes[0].kind == "minus":
        return None
    change = changes[0]
    return change.at, said("{old} became {new}", old=change.old, new=change.new)


def _facts(body: n.Node) -> list[Fact]:
    """What numbers that stand together make: in a product, a sum, a power, a coefficient before a bracket."""
    found: list[Fact] = []

    def pair(a: Q, b: Q, signs: str, rest: n.Node | None = ANYTHING) -> None:
        for sign in signs:
            if sign != "÷" or b:
                found.append(
                    (
                        {"+": a + b, "−": a - b, "·": a * b, "÷": a / (b or 1)}[sign],
                        f"{_shown(a)} {sign} {_shown(b)}",
                        rest,
                    )
                )

    for part in n.parts_of(body):
        if isinstance(part, n.Product | n.Fraction):
            numbers = [number_of(child) for child in part.children]
            held = [value for value in numbers if value is not None]
            for k, a in enumerate(held):
                for b in held[k + 1 :]:
                    pair(a, b, "÷" if isinstance(part, n.Fraction) else "·÷")
            sums = [child for child in part.children if isinstance(n.bare(child), n.Sum)]
            for a in held:
                for b, rest in (item for child in sums for item in signed(terms(child)) or []):
                    pair(a, b, "·", rest)
        elif isinstance(part, n.Sum):
            items = signed(terms(part)) or []
            for k, (a, rest) in enumerate(items):
                for b, other in items[k + 1 :]:
                    if rest == other:
                        pair(a, b, "+", rest) if b > 0 else pair(a, -b, "−", rest)
        elif isinstance(part, n.Root) and part.index is None and (value := number_of(part.radicand)) is not None:
            found += _rooted(value)
        elif isinstance(part, n.Power):
            base, power = number_of(part.base), number_of(part.exponent)
            if base is not None and power is not None and 0 <= power <= 10 and power.denominator == 1:
                found.append((base ** int(power), f"{_shown(base)}^{power}", ANYTHING))
    for part in n.parts_of(body):
        for first, second in _multiplied_out(part):
            for a, _ in first:
                for b, _ in second:
                    if abs(a) != 1 and abs(b) != 1:
                        pair(a, b, "·")
    if isinstance(body, ln.Equation) and len(body.sides) == 2:
        for own, other in (body.sides, body.sides[::-1]):
            value = number_of(other)
            if value is not None and isinstance(n.bare(own), n.Power):
                found += _rooted(value)
        (left, right) = (signed(terms(side)) or [] for side in body.sides)
        for a, rest in left:
            for b, other in right:
                if rest == other:
                    pair(b, abs(a), "−" if a > 0 else "+", rest)
                    pair(a, abs(b), "−" if b > 0 else "+", rest)
                elif rest is None or other is None:
                    pair(*((a, b) if other is not None else (b, a)), "÷")
    return found


def _rooted(value: Q) -> list[Fact]:
    """√225 is 15, where it is a whole number."""
    whole = isqrt(int(value)) if value > 0 and value.denominator == 1 else 0
    return [(Q(whole), f"√{value}", ANYTHING)] if whole and whole * whole == value else []


def _multiplied_out(part: n.Node) -> Iterator[tuple[list[Counted], list[Counted]]]:
    """The terms of two brackets that are multiplied, or of one that is squared."""
    if isinstance(part, n.Product):
        sums = [f for f in part.factors if isinstance(n.bare(f), n.Sum)]
    elif isinstance(part, n.Power) and number_of(part.exponent) == 2 and isinstance(n.bare(part.base), n.Sum):
        sums = [part.base, part.base]
    else:
        return
    if len(sums) == 2:
        first, second = (signed(terms(child)) for child in sums)
        if first and second:
            yield first, second


def _shown(value: Q) -> str:
    return f"({value})" if value < 0 else str(value)


def arithmetic(before: n.Node, after: n.Node, right: Right) -> Words | None:
    """The fact that was mistaken: one number of the line written, changed to what numbers that stand together above
    make, sets it right."""
    facts = _facts(before)
    for address, part in n.walk(after):
        if not isinstance(part, n.Integer):
            continue
        behind = _behind(after, address)
        for value, fact, rest in facts:
            if rest is not ANYTHING and rest != behind:
                continue
            if value == part.value or not _easily_mistaken(value, part.value) or right.is_spent:
                continue
            new: n.Node = (
                n.Integer(int(value)) if value.denominator == 1 and value >= 0 else n.Group(build.number(value))
            )
            if right.is_it(n.replaced(after, address, new)):
                return said("{fact} is {value}, not {written}", fact=fact, value=value, written=part.value)
    return None


def _behind(body: n.Node, address: n.Address) -> n.Node | None:
    """What the number at this place multiplies; None for a number alone."""
    parent = n.at(body, address[:-1])
    parts = coefficient(parent) if isinstance(parent, n.Product) else None
    return None if parts is None else parts[1]


def _easily_mistaken(right: Q, written: int) -> bool:
    """Off by a little, by ten, or by a digit: what one takes for another in arithmetic."""
    off = abs(right - written)
    digits = sorted(str(abs(right))) == sorted(str(written))
    return off <= max(Q(3), abs(right) / 5) or off in (10, 100) or digits
