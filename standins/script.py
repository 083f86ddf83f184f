"""A line as it is written by hand: from plain notation to glyphs at their places, fractions stacked, exponents
raised."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

Kind = Literal["glyph", "stroke", "root", "gap"]
RAISED, SMALLER = 0.42, 0.66
_TIGHT = "+-−=≠<>≤≥·×÷±|"


@dataclass(frozen=True, slots=True)
class Mark:
    """One symbol of a line in its place: `index` is where it stands in the plain text, `size` its height; x to the
    right, y downward from the base line. A stroke is `width` wide."""

    kind: Kind
    index: int
    text: str
    x: float
    y: float
    size: float
    width: float


@dataclass(frozen=True, slots=True)
class Laid:
    """Marks with what they take up: above and below the base line."""

    marks: tuple[Mark, ...]
    width: float
    above: float
    below: float


@dataclass(frozen=True, slots=True)
class _Node:
    kind: Literal["char", "group", "power", "over", "root"]
    index: int
    text: str = ""
    closing: int = -1
    parts: tuple[tuple[_Node, ...], ...] = ()


def laid(text: str, size: float) -> Laid:
    """A line in the notation of a working, `(x+1)/(x-2)` over each other, `x^2` raised, `√(…)` under a bar."""
    return _row(_parsed(list(enumerate(text))), size)


def _parsed(chars: Sequence[tuple[int, str]]) -> tuple[_Node, ...]:
    found: list[_Node] = []
    k = 0
    while k < len(chars):
        index, char = chars[k]
        if char == "(":
            end = _closing(chars, k)
            closing = chars[end][0] if end < len(chars) else -1
            found.append(_Node("group", index, closing=closing, parts=(_parsed(chars[k + 1 : end]),)))
            k = end + 1
        elif char in "^√" and k + 1 < len(chars):
            inner, k = _operand(chars, k + 1)
            found.append(_Node("power" if char == "^" else "root", index, parts=(inner,)))
        elif char == "/" and found and k + 1 < len(chars):
            below, k = _operand(chars, k + 1, run=True)
            above = _taken_up(found)
            found.append(_Node("over", index, parts=(above, below)))
        else:
            found.append(_Node("char", index, char))
            k += 1
    return tuple(found)


def _closing(chars: Sequence[tuple[int, str]], at: int) -> int:
    depth = 0
    for k in range(at, len(chars)):
        depth += {"(": 1, ")": -1}.get(chars[k][1], 0)
        if not depth:
            return k
    return len(chars)


def _operand(chars: Sequence[tuple[int, str]], at: int, *, run: bool = False) -> tuple[tuple[_Node, ...], int]:
    """What belongs to the sign before it: what stands in parentheses, or one symbol; with `run` all that stands
    close."""
    if chars[at][1] == "(":
        end = _closing(chars, at)
        return _parsed(chars[at + 1 : end]), end + 1
    end = at + 1 + (chars[at][1] in "-−" and at + 1 < len(chars))
    while run and end < len(chars) and chars[end][1].isalnum():
        end += 1
    return _parsed(chars[at:end]), end


def _taken_up(found: list[_Node]) -> tuple[_Node, ...]:
    """What stands over the bar: the group before it without its parentheses, or the symbols that stand close."""
    if found[-1].kind == "group":
        return found.pop().parts[0]
    taken: list[_Node] = []
    while found and (found[-1].kind == "power" or (found[-1].kind == "char" and found[-1].text.isalnum())):
        taken.insert(0, found.pop())
    return tuple(taken)


def _row(nodes: Sequence[_Node], size: float) -> Laid:
    marks: list[Mark] = []
    x, above, below = 0.0, size * 0.72, size * 0.2
    for node in nodes:
        part = _node(node, size)
        marks += _moved(part.marks, x, 0)
        x += part.width
        above, below = max(above, part.above), max(below, part.below)
    return Laid(tuple(marks), x, above, below)


def _node(node: _Node, size: float) -> Laid:
    match node.kind:
        case "power":
            inner = _row(node.parts[0], size * SMALLER)
            up = size * RAISED
            return Laid(tuple(_moved(inner.marks, 0, -up)), inner.width, inner.above + up, 0)
        case "over":
            top, bottom = (_row(part, size * 0.86) for part in node.parts)
            width = max(top.width, bottom.width) + size * 0.3
            axis = size * 0.26
            marks = [
                *_moved(top.marks, (width - top.width) / 2, -axis - top.below - size * 0.12),
                Mark("stroke", node.index, "/", 0, -axis, size, width),
                *_moved(bottom.marks, (width - bottom.width) / 2, -axis + bottom.above + size * 0.12),
            ]
            return Laid(
                tuple(marks),
                width + size * 0.16,
                axis + top.above + top.below + size * 0.14,
                bottom.above + bottom.below + size * 0.14 - axis,
            )
        case "root":
            inner = _row(node.parts[0], size)
            hook = size * 0.42
            mark = Mark("root", node.index, "√", 0, 0, inner.above + size * 0.12, inner.width + hook)
            return Laid(
                (mark, *_moved(inner.marks, hook, 0)),
                inner.width + hook + size * 0.1,
                inner.above + size * 0.2,
                inner.below,
            )
        case "group":
            inner = _row(node.parts[0], size)
            wide = size * 0.3
            tall = inner.above + inner.below
            left = Mark("glyph", node.index, "(", 0, inner.below - size * 0.2, tall * 1.05, wide)
            right = Mark("glyph", node.closing, ")", wide + inner.width, inner.below - size * 0.2, tall * 1.05, wide)
            return Laid((left, *_moved(inner.marks, wide, 0), right), inner.width + 2 * wide, inner.above, inner.below)
    if node.text == " ":
        return Laid((Mark("gap", node.index, " ", 0, 0, size, size * 0.28),), size * 0.28, 0, 0)
    width = size * (
        0.62 if node.text in _TIGHT else 0.5 if node.text.isdigit() else 0.3 if node.text in ".,:il" else 0.52
    )
    return Laid((Mark("glyph", node.index, node.text, 0, 0, size, width),), width, size * 0.72, size * 0.2)


def _moved(marks: Sequence[Mark], x: float, y: float) -> Iterator[Mark]:
    for mark in marks:
        yield Mark(mark.kind, mark.index, mark.text, mark.x + x, mark.y + y, mark.size, mark.width)
