"""A written line as the core understands it, set for a screen."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.echo import Echo
from algebra.reports.report import LineError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.latex import latex, latex_sides, words_in_latex
from algebra.tree.nodes import Address
from algebra.tree.plain import plain


def echo(text: str, *, decimal: str = "point", marks: Mapping[Address, str] | None = None) -> Echo:
    """The line as understood; raises ReadingError at the place that can't be read."""
    return set_line(read_line(text, decimal=decimal), comma=decimal == "comma", marks=marks)


def set_line(line: ln.Line, *, comma: bool = False, marks: Mapping[Address, str] | None = None) -> Echo:
    """A line that was read, set for a screen; `comma` writes decimals with a comma."""
    prefix = {"aside": "aside", "check": "check", "definition": "let", "assumption": "assume"}.get(line.kind, "")
    if isinstance(line.body, ln.Claim) and not line.text.lstrip().lower().startswith("aside"):
        prefix = ""
    if line.as_answer and line.body is not None:
        prefix = prefix or "answer"
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
    elif line.kind == "move" and line.move is not None:  # under both sides
        operand = line.move.operand  # of several terms, -30x - 90, all of it is added
        left = right = latex(operand, comma=comma) if isinstance(operand, n.Sum) else _move_text(line.move, comma)
        readable = line.text.strip()
    else:  # with boxes, or only what is thrown out: as it is written
        readable, right = line.text.strip(), words_in_latex(line.text.strip())
    if line.restriction is not None:
        readable += ", " + plain(line.restriction, comma=comma)
        right += r",\quad " + latex(line.restriction, comma=comma)
    move = _move_text(line.move, comma) if line.move and line.kind != "move" else ""
    remark = line.remark if line.body is not None or not line.dropped else ""
    return Echo(line.kind, left, right, f"{prefix} {readable}".strip(), prefix, move, remark, line.notes)


def understood(text: str, *, decimal: str = "point", marks: Mapping[Address, str] | None = None) -> Echo:
    """The line as understood, with places marked, or its error; never raises for what can't be read."""
    try:
        return echo(text, decimal=decimal, marks=marks)
    except ReadingError as problem:
        return Echo(error=LineError(0, problem.column, problem.message, problem.code))


def values_in_latex(values: Sequence[str]) -> str:
    """The values of an answer in LaTeX, joined by `or`; of none, the words no solution."""
    if not values or list(values) == ["no solution"]:
        return r"\text{no solution}"
    echoes = [understood(value) for value in values]
    return r"\;\text{ or }\;".join(e.latex or words_in_latex(value) for e, value in zip(echoes, values, strict=True))


def _move_text(move: ln.Move, comma: bool) -> str:
    if move.operand is None:
        return rf"\text{{{move.name}}}"
    sign = {"add": "+", "subtract": "-", "multiply": r"\times ", "divide": r"\div ", "power": r"\wedge "}[move.name]
    return sign + latex(move.operand, comma=comma)
