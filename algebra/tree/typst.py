"""Printing in typst's notation, for paper."""

from __future__ import annotations

from collections.abc import Iterable

from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.flow import Piece, PieceKind, beside_relation, pieces
from algebra.tree.greek import LETTERS

_OPERATORS = {"·": " dot.op ", "×": " times ", "÷": " div ", "": " "}
_SIGNS = {"+": "+", "-": "-", "±": "plus.minus ", "∓": "minus.plus "}
_NAMED = {
    "≠": "eq.not",
    "≈": "approx",
    "≥": ">=",
    "≤": "<=",
    "∖": "without",
    "∅": "emptyset",
    "ℝ": "RR",
    "∞": "infinity",
    "-∞": "-infinity",
}
"""Signs that have a name in typst."""
_PIECES: dict[PieceKind, str] = {
    "relation": " %s ",
    "or": ' quad "or" quad ',
    "and": ' quad "and" quad ',
    "union": " union ",
    "arrow": " arrow.r ",
    "from": "\\%s",
    "to": "\\%s",
    "word": " %s ",
    "named": "%s ",
}
"""How the pieces of a statement are written."""
_BRACKETS = {"(": ("(", ")"), "[": ("[", "]"), "{": ("{", "}")}
_GREEK = {letter: name for name, letter in LETTERS.items()}


def typst(node: n.Node, *, comma: bool = False) -> str:
    """What stands between two dollar signs for an expression or a statement; `comma` writes decimals with one."""
    return _Printer(comma).show(node)


def typst_sides(node: n.Node, *, comma: bool = False) -> tuple[str, str]:
    """What stands left of the first relation sign, and the sign with all that follows; an expression has no left
    part."""
    printer = _Printer(comma)
    if not isinstance(node, ln.STATEMENTS):
        return "", printer.show(node)
    left, right = beside_relation(node)
    return printer.joined(left), printer.joined(right).strip()


def quoted(text: str) -> str:
    """A text as typst's string."""
    escaped = text.replace("\\", "\\\\").replace('"', '\\"')
    return f'"{escaped}"'


class _Printer:
    def __init__(self, comma: bool) -> None:
        self.comma = comma

    def _inner(self, node: n.Node) -> str:
        """A part whose brackets the bar, the root or the raised position makes unnecessary."""
        if isinstance(node, n.Group) and not isinstance(node.child, n.Group):
            return self.show(node.child)
        return self.show(node)

    def show(self, node: n.Node) -> str:
        """The node in typst's notation. Raises TypeError for one that has none."""
        match node:
            case n.Integer(value):
                return str(value)
            case n.Decimal(digits):
                return quoted(digits.replace(".", ",")) if self.comma else digits
            case n.Mixed(whole, top, bottom):
                return f"{whole} thin frac({top}, {bottom})"
            case n.Letter(name):
                return _GREEK.get(name, "square" if name == "□" else name)
            case n.Unit(word):
                return quoted(word)
            case n.Signed(sign, child):
                return _SIGNS[sign] + self.show(child)
            case n.Sum(terms, signs):
                return self.show(terms[0]) + "".join(
                    f" {_SIGNS[sign]} {self.show(term)}" for sign, term in zip(signs, terms[1:], strict=True)
                )
            case n.Product(factors, operators):
                text = self.show(factors[0])
                for k, (operator, factor) in enumerate(zip(operators, factors[1:], strict=True)):
                    # two fraction bars side by side would read as one product by accident of spacing
                    thin = "thin " if operator == "" and isinstance(factors[k], n.Fraction) else ""
                    text += _OPERATORS[operator] + thin + self.show(factor)
                return text
            case n.Fraction(top, bottom):
                return f"frac({self._inner(top)}, {self._inner(bottom)})"
            case n.Power(base, exponent):
                shown = self.show(base)
                if not isinstance(base, n.Integer | n.Letter | n.Group):
                    shown = f"#box(${shown}$)"
                return f"{shown}^({self._inner(exponent)})"
            case n.Root(radicand, index):
                inside = self._inner(radicand)
                return f"sqrt({inside})" if index is None else f"root({self.show(index)}, {inside})"
            case n.Absolute(child):
                return f"abs({self.show(child)})"
            case n.Group(child, bracket):
                left, right = _BRACKETS[bracket]
                return f"{left}{self.show(child)}{right}"
        return self.joined(pieces(node))

    def joined(self, parts: Iterable[Piece]) -> str:
        """Pieces of a statement, one after the other."""
        return "".join(map(self._piece, parts))

    def _piece(self, piece: Piece) -> str:
        if piece.part is not None:
            return self.show(piece.part)
        if piece.kind == "separator":
            return ";space " if self.comma else ", "
        text = quoted(piece.text) if piece.kind in ("word", "named") else _NAMED.get(piece.text, piece.text)
        return _PIECES.get(piece.kind, "%s").replace("%s", text)
