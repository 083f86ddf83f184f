"""What stands in a statement one after the other, for all printers: its parts, signs, words and brackets.

A printer says how it writes each kind of piece; which pieces a statement has, and in which order, is said here alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any, Literal

from algebra.records import record
from algebra.tree import nodes as n
from algebra.tree import statements as ln

PieceKind = Literal[
    "part",
    "relation",
    "or",
    "and",
    "union",
    "arrow",
    "separator",
    "open",
    "close",
    "from",
    "to",
    "sign",
    "word",
    "named",
]
"""`part`: a child; `relation`: = ≠ < and their like; `sign`: ∅ ℝ ∞ -∞ x y; `from`, `to`: the
ends of an interval, which need not match; `word`: words of the language; `named`: a name
that stands before what it names, `LCD`, `hole: `."""


@record(frozen=True)
class Piece:
    """One piece: its text where it is no part; the part and its place among the children where it is one."""

    kind: PieceKind
    text: str = ""
    part: n.Node | None = None
    place: int = 0


def _part(node: n.Node, place: int) -> Piece:
    return Piece("part", "", node, place)


def _joined(parts: tuple[n.Node, ...], joint: Piece, first: int = 0) -> Iterator[Piece]:
    for k, part in enumerate(parts):
        if k:
            yield joint
        yield _part(part, first + k)


SEPARATOR = Piece("separator")
EQUALS = Piece("relation", "=")


def _relation(sign: str) -> Piece:
    return Piece("relation", sign)


def _in_braces(parts: tuple[n.Node, ...]) -> Iterator[Piece]:
    yield Piece("open", "{")
    yield from _joined(parts, SEPARATOR)
    yield Piece("close", "}")


def _equation(node: ln.Equation) -> Iterator[Piece]:
    return _joined(node.sides, EQUALS)


def _comparison(node: ln.Comparison) -> Iterator[Piece]:
    return iter((_part(node.left, 0), _relation(node.operator), _part(node.right, 1)))


def _alternatives(node: ln.Alternatives) -> Iterator[Piece]:
    return _joined(node.items, Piece("or"))


def _all_of(node: ln.AllOf) -> Iterator[Piece]:
    return _joined(node.items, Piece("and"))


def _value_list(node: ln.ValueList) -> Iterator[Piece]:
    yield from (_part(node.left, 0), _relation(node.operator))
    yield from _joined(node.items, SEPARATOR, 1)


def _set_of(node: ln.SetOf) -> Iterator[Piece]:
    return _in_braces(node.items)


def _no_solution(node: ln.NoSolution) -> Iterator[Piece]:
    yield Piece("sign", "∅") if node.sign else Piece("word", "no solution")


def _all_reals(node: ln.AllReals) -> Iterator[Piece]:
    yield Piece("sign", "ℝ") if node.sign else Piece("word", "all real numbers")
    if node.exceptions and node.sign:
        yield _relation("∖")
        yield from _in_braces(node.exceptions)
    elif node.exceptions:
        yield Piece("word", " except ")
        yield from _joined(node.exceptions, SEPARATOR)


def _word(node: ln.Word) -> Iterator[Piece]:
    yield Piece("word", node.word)


def _claim(node: ln.Claim) -> Iterator[Piece]:
    yield Piece("named", node.name)
    if node.of:
        yield Piece("open", "(")
        yield from _joined(node.of, SEPARATOR)
        yield Piece("close", ")")
    yield from (EQUALS, _part(node.value, len(node.of)))


def _between(node: ln.Between) -> Iterator[Piece]:
    yield from (_part(node.low, 0), _relation(node.low_operator), _part(node.middle, 1))
    yield from (_relation(node.high_operator), _part(node.high, 2))


def _infinity(node: ln.Infinity) -> Iterator[Piece]:
    yield Piece("sign", f"{node.sign}∞")


def _interval(node: ln.Interval) -> Iterator[Piece]:
    yield Piece("from", "[" if node.low_closed else "(")
    yield Piece("sign", "-∞") if node.low is None else _part(node.low, 0)
    yield SEPARATOR
    yield Piece("sign", "∞") if node.high is None else _part(node.high, int(node.low is not None))
    yield Piece("to", "]" if node.high_closed else ")")


def _point(node: ln.Point) -> Iterator[Piece]:
    yield from (Piece("open", "("), _part(node.across, 0), SEPARATOR, _part(node.up, 1), Piece("close", ")"))


def _end(node: ln.End) -> Iterator[Piece]:
    side = "-∞" if node.side == "-" else "∞"
    yield from (Piece("sign", "x"), Piece("arrow"), Piece("sign", side), SEPARATOR, Piece("sign", "y"), Piece("arrow"))
    growth = "-∞" if node.growth == "-" else "∞"
    yield Piece("sign", growth) if node.value is None else _part(node.value, 0)


def _feature(node: ln.Feature) -> Iterator[Piece]:
    if node.name == "moved point" and len(node.items) == 2:
        yield from _joined(node.items, Piece("arrow"))
        return
    yield Piece("named", f"{node.label}: ")
    yield from _joined(node.items, SEPARATOR)


def _union(node: ln.Union) -> Iterator[Piece]:
    return _joined(node.items, Piece("union"))


_PIECES: dict[type[n.Node], Callable[[Any], Iterator[Piece]]] = {
    ln.Equation: _equation,
    ln.Comparison: _comparison,
    ln.Alternatives: _alternatives,
    ln.AllOf: _all_of,
    ln.ValueList: _value_list,
    ln.SetOf: _set_of,
    ln.NoSolution: _no_solution,
    ln.AllReals: _all_reals,
    ln.Word: _word,
    ln.Claim: _claim,
    ln.Between: _between,
    ln.Infinity: _infinity,
    ln.Interval: _interval,
    ln.Point: _point,
    ln.End: _end,
    ln.Feature: _feature,
    ln.Union: _union,
}


def pieces(statement: n.Node) -> Iterator[Piece]:
    """The pieces of a statement in their order. Raises TypeError for what is none."""
    found = _PIECES.get(type(statement))
    if found is None:
        raise TypeError(f"a {type(statement).__name__} is no statement")
    return found(statement)


def beside_relation(statement: n.Node) -> tuple[list[Piece], list[Piece]]:
    """The pieces left of the first relation sign, and the sign with all that follows it. What has no such sign, and
    what is not set under others by it, has nothing left of it."""
    every = list(pieces(statement))
    aligned = isinstance(statement, ln.Equation | ln.Comparison | ln.ValueList)
    at = next((k for k, piece in enumerate(every) if piece.kind == "relation"), 0) if aligned else 0
    return every[:at], every[at:]
