"""Printing as MathML, for pages that open anywhere."""

from __future__ import annotations

from html import escape

from algebra.tree import nodes as n
from algebra.tree.flow import Piece, PieceKind, pieces

_OPERATORS = {"·": "<mo>⋅</mo>", "×": "<mo>×</mo>", "÷": "<mo>÷</mo>", "": "<mo>&#x2062;</mo>"}
_SIGNS = {"+": "+", "-": "−", "±": "±", "∓": "∓"}


def mathml(node: n.Node, *, comma: bool = False) -> str:
    """A whole `math` element for an expression or a statement; `comma` writes decimals with one."""
    return f'<math xmlns="http://www.w3.org/1998/Math/MathML">{_Printer(comma).show(node)}</math>'


def _row(*parts: str) -> str:
    return f"<mrow>{''.join(parts)}</mrow>"


def _text(words: str) -> str:
    return f"<mtext>{escape(words)}</mtext>"


def _sign(sign: str) -> str:
    return f"<mo>{escape(sign)}</mo>"


_PIECES: dict[PieceKind, str] = {"or": _text(" or "), "and": _text(" and "), "union": _sign("∪"), "arrow": _sign("→")}
"""The pieces of a statement that have no text of their own."""


class _Printer:
    def __init__(self, comma: bool) -> None:
        self.comma = comma

    def _inner(self, node: n.Node) -> str:
        """A part whose brackets the bar, the root or the raised position makes unnecessary."""
        if isinstance(node, n.Group) and not isinstance(node.child, n.Group):
            return self.show(node.child)
        return self.show(node)

    def show(self, node: n.Node) -> str:
        """The node as one element. Raises TypeError for one that has no form."""
        match node:
            case n.Integer(value):
                return f"<mn>{value}</mn>"
            case n.Decimal(digits):
                return f"<mn>{digits.replace('.', ',') if self.comma else digits}</mn>"
            case n.Mixed(whole, top, bottom):
                return _row(f"<mn>{whole}</mn><mfrac><mn>{top}</mn><mn>{bottom}</mn></mfrac>")
            case n.Letter(name):
                return f"<mi>{escape(name)}</mi>"
            case n.Unit(word):
                return _text(word)
            case n.Signed(sign, child):
                return _row(_sign(_SIGNS[sign]), self.show(child))
            case n.Sum(terms, signs):
                rest = (_sign(_SIGNS[s]) + self.show(t) for s, t in zip(signs, terms[1:], strict=True))
                return _row(self.show(terms[0]), *rest)
            case n.Product(factors, operators):
                rest = (_OPERATORS[o] + self.show(f) for o, f in zip(operators, factors[1:], strict=True))
                return _row(self.show(factors[0]), *rest)
            case n.Fraction(top, bottom):
                return f"<mfrac>{self._inner(top)}{self._inner(bottom)}</mfrac>"
            case n.Power(base, exponent):
                return f"<msup>{self.show(base)}{self._inner(exponent)}</msup>"
            case n.Root(radicand, index):
                inside = self._inner(radicand)
                return f"<msqrt>{inside}</msqrt>" if index is None else f"<mroot>{inside}{self.show(index)}</mroot>"
            case n.Absolute(child):
                return _row(_sign("|"), self.show(child), _sign("|"))
            case n.Group(child, bracket):
                return _row(_sign(bracket), self.show(child), _sign({"(": ")", "[": "]", "{": "}"}[bracket]))
        return self._statement(node)

    def _statement(self, node: n.Node) -> str:
        shown = list(map(self._piece, pieces(node)))
        return shown[0] if len(shown) == 1 else _row(*shown)

    def _piece(self, piece: Piece) -> str:
        if piece.part is not None:
            return self.show(piece.part)
        if piece.kind == "separator":
            return _sign(";" if self.comma else ",")
        if piece.kind == "sign":
            return _row(_sign("−"), "<mi>∞</mi>") if piece.text == "-∞" else f"<mi>{piece.text}</mi>"
        if piece.kind in ("word", "named"):
            return _text(piece.text)
        return _PIECES.get(piece.kind) or _sign(piece.text)
