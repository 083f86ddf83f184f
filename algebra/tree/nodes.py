"""Immutable nodes of an expression. Nothing is simplified on the way in.

The tree mirrors the notation one to one: brackets are nodes (`Group`), `÷` and `/` are different,
`2·3` is not `6`. So printing a parsed tree and parsing it again gives the same tree.
An address is the path of child positions from the root, e.g. `(0, 2, 1)`.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction as Q
from typing import ClassVar

from algebra.records import record

Address = tuple[int, ...]


@record(frozen=True)
class Node:
    """A piece of an expression; `parts` names the fields that hold child nodes, in order."""

    parts: ClassVar[tuple[str, ...]] = ()

    @property
    def children(self) -> tuple[Node, ...]:
        """The child nodes in the order in which they are written."""
        if not self.parts:
            return ()
        found: list[Node] = []
        for name in self.parts:
            value = getattr(self, name)
            if isinstance(value, tuple):
                found.extend(value)
            elif value is not None:
                found.append(value)
        return tuple(found)

    def with_children(self, children: tuple[Node, ...]) -> Node:
        """The same node with other children; raises ValueError when their number differs."""
        if len(children) != len(self.children):
            raise ValueError(f"{type(self).__name__} has {len(self.children)} children, got {len(children)}")
        rest = list(children)
        changes: dict[str, object] = {}
        for name in self.parts:
            value = getattr(self, name)
            if isinstance(value, tuple):
                changes[name] = tuple(rest[: len(value)])
                del rest[: len(value)]
            elif value is not None:
                changes[name] = rest.pop(0)
        return replace(self, **changes) if changes else self


@record(frozen=True)
class Integer(Node):
    """A whole number as written, without a sign."""

    value: int


@record(frozen=True)
class Decimal(Node):
    """A decimal, its digits kept as written with a point: `0.50`."""

    digits: str

    @property
    def value(self) -> Q:
        """The exact rational value."""
        return Q(self.digits if not self.digits.startswith(".") else "0" + self.digits)


@record(frozen=True)
class Mixed(Node):
    """A mixed number such as `2 1/4`."""

    whole: int
    numerator: int
    denominator: int


@record(frozen=True)
class Letter(Node):
    """One letter: a variable or a parameter."""

    name: str


@record(frozen=True)
class Unit(Node):
    """A word in quotes: one positive indeterminate."""

    word: str


@record(frozen=True)
class Signed(Node):
    """A leading sign: `-x`, `+3`, `±2`. The sign is one of `+ - ± ∓`."""

    sign: str
    child: Node
    parts: ClassVar[tuple[str, ...]] = ("child",)

    @property
    def children(self) -> tuple[Node, ...]:  # the commonest nodes answer without looking their parts up
        return (self.child,)


@record(frozen=True)
class Sum(Node):
    """Terms joined by signs; `signs[k]` stands before `terms[k + 1]`."""

    terms: tuple[Node, ...]
    signs: tuple[str, ...]
    parts: ClassVar[tuple[str, ...]] = ("terms",)

    @property
    def children(self) -> tuple[Node, ...]:
        return self.terms


@record(frozen=True)
class Product(Node):
    """Factors of one rank; `operators[k]` stands before `factors[k + 1]`: `""` (implied), `·`, `×` or `÷`."""

    factors: tuple[Node, ...]
    operators: tuple[str, ...]
    parts: ClassVar[tuple[str, ...]] = ("factors",)

    @property
    def children(self) -> tuple[Node, ...]:
        return self.factors


@record(frozen=True)
class Fraction(Node):
    """A slash or a fraction bar between two factors; a longer part stands in a `Group`."""

    numerator: Node
    denominator: Node
    parts: ClassVar[tuple[str, ...]] = ("numerator", "denominator")

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.numerator, self.denominator)


@record(frozen=True)
class Power(Node):
    base: Node
    exponent: Node
    parts: ClassVar[tuple[str, ...]] = ("base", "exponent")

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.base, self.exponent)


@record(frozen=True)
class Root(Node):
    """A root; without an index, the square root."""

    radicand: Node
    index: Node | None = None
    parts: ClassVar[tuple[str, ...]] = ("radicand", "index")

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.radicand,) if self.index is None else (self.radicand, self.index)


@record(frozen=True)
class Absolute(Node):
    child: Node
    parts: ClassVar[tuple[str, ...]] = ("child",)


@record(frozen=True)
class Group(Node):
    """Brackets as written: `(`, `[` or `{`."""

    child: Node
    bracket: str = "("
    parts: ClassVar[tuple[str, ...]] = ("child",)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.child,)


FACTOR_LIKE = (Integer, Decimal, Letter, Unit, Group, Root, Power, Absolute)
"""What may stand on either side of a slash without brackets."""


def at(node: Node, address: Address) -> Node:
    """The node at an address; raises IndexError when there is none."""
    for position in address:
        node = node.children[position]
    return node


def replaced(node: Node, address: Address, new: Node) -> Node:
    """A copy of the tree with another node at the address."""
    if not address:
        return new
    head, *tail = address
    children = list(node.children)
    children[head] = replaced(children[head], tuple(tail), new)
    return node.with_children(tuple(children))


def walk(node: Node, address: Address = ()) -> Iterator[tuple[Address, Node]]:
    """Every node with its address, from the root down, left to right."""
    waiting = [(address, node)]
    while waiting:
        place, part = waiting.pop()
        yield place, part
        children = part.children
        for position in range(len(children) - 1, -1, -1):
            waiting.append(((*place, position), children[position]))


def parts_of(node: Node) -> list[Node]:
    """Every node, without its address, in no order to rely on."""
    found = [node]
    for part in found:  # grows while it is walked
        if part.parts:
            found += part.children
    return found


def letters(node: Node) -> frozenset[str]:
    """The names of the letters and quoted words that occur."""
    found = set()
    for part in parts_of(node):
        if isinstance(part, Letter):
            found.add(part.name)
        elif isinstance(part, Unit):
            found.add(f'"{part.word}"')
    return frozenset(found)


def bare(node: Node) -> Node:
    """The node without the brackets around it."""
    while isinstance(node, Group):
        node = node.child
    return node
