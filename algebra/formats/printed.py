"""A line for paper and for pages: its sides in typst's notation or MathML, with the plain text for who can't see it."""

from __future__ import annotations

from typing import NamedTuple

from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.tree.mathml import mathml
from algebra.tree.plain import plain
from algebra.tree.typst import typst, typst_sides


class Printed(NamedTuple):
    """A line in typst's notation: what stands left of the first sign, the sign and the rest, the move beside it, a
    remark; `text` is the whole in plain notation, `move_text` the move. `kind` is that of the line: expression,
    equation, check, aside …; a line that can't be read has only its text. `about` is what a check is about: the
    candidate."""

    left: str
    right: str
    move: str
    remark: str
    text: str
    move_text: str
    kind: str
    about: str = ""


def printed(text: str, *, decimal: str = "point") -> Printed:
    """The line for typst. Never raises: what can't be read is given as it was written."""
    comma = decimal == "comma"
    try:
        line = read_line(text, decimal=decimal)
    except ReadingError:
        return Printed("", "", "", "", text, "", "unread")
    tree = line.body if line.body is not None else line.subject
    if tree is None:
        return Printed("", "", "", line.remark, text, "", line.kind)
    left, right = typst_sides(tree, comma=comma)
    move = line.move
    moved = (
        ""
        if move is None
        else _move(move.name, move.text, None if move.operand is None else typst(move.operand, comma=comma))
    )
    about, said = "", plain(tree)
    if line.kind == "check" and line.subject is not None and line.subject is not tree:
        about, said = typst(line.subject, comma=comma), f"{plain(line.subject)}: {said}"
    return Printed(left, right, moved, line.remark, said, "" if move is None else move.text, line.kind, about)


_SIGNS = {"add": "+", "subtract": "-", "multiply": "times", "divide": "div"}


def _move(name: str, text: str, operand: str | None) -> str:
    sign = _SIGNS.get(name)
    if sign and operand is not None:
        return f"{sign} {operand}"
    escaped = text.replace("\\", "").replace('"', "")
    return f'"{escaped}"'


def as_mathml(text: str, *, decimal: str = "point") -> str:
    """The line's expression or statement as a `math` element; empty for a line that can't be read or has none."""
    try:
        line = read_line(text, decimal=decimal)
    except ReadingError:
        return ""
    tree = line.body if line.body is not None else line.subject
    return "" if tree is None else mathml(tree, comma=decimal == "comma")
