"""Printing in the plain notation, which can be typed and read back."""

from __future__ import annotations

import re

from algebra.tree import nodes as n
from algebra.tree.flow import Piece, PieceKind, pieces

_CLOSING = {"(": ")", "[": "]", "{": "}"}
_ROOTS = {3: "∛", 4: "∜"}
_PIECES: dict[PieceKind, str] = {
    "relation": " {} ",
    "or": " or ",
    "and": " and ",
    "union": " ∪ ",
    "arrow": " → ",
}
"""How the pieces of a statement are written that are more than their text."""
_RESERVED = (
    "or",
    "and",
    "no",
    "all",
    "real",
    "inf",
    "abs",
    "root",
    "sqrt",
    "cbrt",
    "sin",
    "cos",
    "tan",
    "cot",
    "sec",
    "csc",
    "log",
    "ln",
    "exp",
    "lim",
    "none",
    "U",
)


def plain(node: n.Node, *, comma: bool = False, tight: bool = False) -> str:
    """The plain notation of an expression or statement; `comma` writes decimals with a comma."""
    return _Printer(comma).show(node, tight)


def _kept_apart(before: str, after: str, tight: bool) -> str:
    """What stands between factors without a sign: a gap or a dot where the letters that meet would be taken for
    words."""
    left = re.search(r"[A-Za-z]*$", before)
    right = re.match(r"[A-Za-z]*", after)
    if not (left and right and left.group() and right.group()):
        return ""
    run = left.group() + right.group()
    if len(run) > 4:
        return "·" if tight else " · "
    return " " if any(word in run for word in _RESERVED) else ""


class _Printer:
    def __init__(self, comma: bool) -> None:
        self.comma = comma
        self.separator = "; " if comma else ", "

    def show(self, node: n.Node, tight: bool) -> str:
        """The plain notation of a node; `tight` leaves the spaces around signs out."""
        match node:
            case n.Integer(value):
                return str(value)
            case n.Decimal(digits):
                return digits.replace(".", ",") if self.comma else digits
            case n.Mixed(whole, top, bottom):
                return f"{whole} {top}/{bottom}"
            case n.Letter(name):
                return name
            case n.Unit(word):
                return f'"{word}"'
            case n.Signed(sign, child):
                shown = self.show(child, tight)
                return sign + (" " if shown[0] in "+-±∓" and shown[0] != sign else "") + shown
            case n.Sum():
                return self._sum(node, tight)
            case n.Product():
                return self._product(node, tight)
            case n.Fraction(top, bottom):
                return f"{self.show(top, True)}/{self.show(bottom, True)}"
            case n.Power(base, exponent):
                return f"{self.show(base, True)}^{self.show(exponent, True)}"
            case n.Root():
                return self._root(node)
            case n.Absolute(child):
                # bars inside bars can't be told apart, so an inner one is written as a word
                inner = self.show(child, True)
                return f"abs({inner})" if "|" in inner else f"|{inner}|"
            case n.Group(child, bracket):
                return bracket + self.show(child, True) + _CLOSING[bracket]
            case _:
                return self._statement(node)

    def _sum(self, node: n.Sum, tight: bool) -> str:
        text = self.show(node.terms[0], tight)
        for sign, term in zip(node.signs, node.terms[1:], strict=True):
            shown = self.show(term, tight)
            if not tight:
                text += f" {sign} {shown}"
            else:  # a gap keeps `+` and a following `-` from being read as ±
                text += sign + (" " if shown[0] in "+-±∓" else "") + shown
        return text

    def _product(self, node: n.Product, tight: bool) -> str:
        text = self.show(node.factors[0], tight)
        for operator, factor in zip(node.operators, node.factors[1:], strict=True):
            shown = self.show(factor, tight)
            if operator == "":
                text += _kept_apart(text, shown, tight) + shown
            elif operator == "÷" or not tight:
                text += f" {operator} {shown}"
            else:
                text += f"{operator}{shown}"
        return text

    def _root(self, node: n.Root) -> str:
        inner = self.show(node.radicand, True)
        if node.index is None:
            return f"√{inner}"
        if isinstance(node.index, n.Integer) and node.index.value in _ROOTS:
            return _ROOTS[node.index.value] + inner
        inside = node.radicand.child if isinstance(node.radicand, n.Group) else None
        if inside is not None and (isinstance(inside, n.Power) or not isinstance(inside, n.FACTOR_LIKE)):
            inner = inner[1:-1]
        return f"root({self.show(node.index, True)}, {inner})"

    def _statement(self, node: n.Node) -> str:
        return "".join(map(self._piece, pieces(node)))

    def _piece(self, piece: Piece) -> str:
        if piece.part is not None:
            return self.show(piece.part, False)
        return self.separator if piece.kind == "separator" else _PIECES.get(piece.kind, "{}").format(piece.text)
