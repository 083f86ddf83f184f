"""A written line as the core understands it, set for a screen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.tree import lines as ln
from algebra.tree.latex import latex, latex_sides
from algebra.tree.nodes import Address
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class Echo:
    """LaTeX left of the first relation sign and from it on, the move, the remark, and the reading in plain notation."""

    kind: str
    left: str
    right: str
    plain: str
    prefix: str
    move: str
    remark: str
    notes: tuple[str, ...]


def echo(text: str, *, decimal: str = "point", marks: Mapping[Address, str] | None = None) -> Echo:
    """The line as understood; raises ReadingError at the place that can't be read."""
    line = read_line(text, decimal=decimal)
    comma = decimal == "comma"
    prefix = {"aside": "aside", "check": "check", "definition": "let", "assumption": "assume"}.get(line.kind, "")
    left, right, readable = "", "", ""
    if line.subject is not None:
        right, readable = latex(line.subject, comma=comma), plain(line.subject, comma=comma)
        if line.body is not None:
            right += r" : \quad " + latex(line.body, comma=comma)
            readable += ": " + plain(line.body, comma=comma)
    elif line.body is not None:
        readable = plain(line.body, comma=comma)
        left, right = latex_sides(line.body, marks, comma=comma)
        if line.lead.endswith((" =", " ∈")):  # S = or x ∈, before a set
            left, right = line.lead[-3], (r"\in " if line.lead.endswith("∈") else "= ") + right
        elif not left and line.lead.endswith("="):
            right = "= " + right
        elif not left and line.lead.endswith(")"):
            left, right = line.lead.lstrip("=⇒∴ "), "= " + right
    move = _move_text(line.move, comma) if line.move else ""
    return Echo(line.kind, left, right, f"{prefix} {readable}".strip(), prefix, move, line.remark, line.notes)


def _move_text(move: ln.Move, comma: bool) -> str:
    if move.operand is None:
        return rf"\text{{{move.name}}}"
    sign = {"add": "+", "subtract": "-", "multiply": r"\times ", "divide": r"\div ", "power": r"\wedge "}[move.name]
    return sign + latex(move.operand, comma=comma)


__all__ = ["Echo", "ReadingError", "echo"]
