"""Printing as LaTeX for typesetting; any node can be marked, so that it shows in colour."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.flow import Piece, PieceKind, beside_relation, pieces
from algebra.tree.greek import LETTERS

_OPERATORS = {"·": r" \cdot ", "×": r" \times ", "÷": r" \div ", "": ""}
_SIGNS = {"+": "+", "-": "-", "±": r"\pm ", "∓": r"\mp "}
_NAMED = {
    "≠": r"\ne",
    "≈": r"\approx",
    "≥": r"\ge",
    "≤": r"\le",
    "∖": r"\setminus",
    "∅": r"\varnothing",
    "ℝ": r"\mathbb{R}",
    "∞": r"\infty",
    "-∞": r"-\infty",
    "{": r"\{",
    "}": r"\}",
}
"""Signs that have a name in LaTeX."""
_PIECES: dict[PieceKind, str] = {
    "relation": " %s ",
    "or": r" \;\text{ or }\; ",
    "and": r" \;\text{ and }\; ",
    "union": r" \cup ",
    "arrow": r" \to ",
    "open": r"\left%s",
    "close": r"\right%s",
    "from": r"\left%s",
    "to": r"\right%s",
    "word": r"\text{%s}",
    "named": r"\text{%s}",
}
"""How the pieces of a statement are written."""
_GREEK = {letter: name for name, letter in LETTERS.items()}


def latex(node: n.Node, marks: Mapping[n.Address, str] | None = None, *, comma: bool = False) -> str:
    """LaTeX of an expression or statement. `marks` gives addresses a class name, written as `\\htmlClass`."""
    return _Typesetter(marks or {}, comma).show(node, ())


_ESCAPED = {
    "\\": r"\textbackslash ",
    "{": r"\{",
    "}": r"\}",
    "$": r"\$",
    "#": r"\#",
    "%": r"\%",
    "&": r"\&",
    "_": r"\_",
    "^": r"\textasciicircum ",
    "~": r"\textasciitilde ",
}


def words_in_latex(text: str) -> str:
    """Any text as words inside of LaTeX: nothing in it is a command."""
    return rf"\text{{{''.join(_ESCAPED.get(sign, sign) for sign in text)}}}"


class _Typesetter:
    def __init__(self, marks: Mapping[n.Address, str], comma: bool) -> None:
        self.marks = marks
        self.comma = comma

    def show(self, node: n.Node, address: n.Address) -> str:
        """The LaTeX of the node at this address."""
        text = self._plain(node, address)
        mark = self.marks.get(address)
        return rf"\htmlClass{{{mark}}}{{{text}}}" if mark else text

    def _inner(self, node: n.Node, address: n.Address) -> str:
        """A part whose brackets the bar, the root or the raised position makes unnecessary."""
        if isinstance(node, n.Group) and not isinstance(node.child, n.Group):
            text = self.show(node.child, (*address, 0))
            mark = self.marks.get(address)
            return rf"\htmlClass{{{mark}}}{{{text}}}" if mark else text
        return self.show(node, address)

    def _plain(self, node: n.Node, at: n.Address) -> str:
        match node:
            case n.Integer(value):
                return str(value)
            case n.Decimal(digits):
                return digits.replace(".", "{,}") if self.comma else digits
            case n.Mixed(whole, top, bottom):
                return rf"{whole}\tfrac{{{top}}}{{{bottom}}}"
            case n.Letter(name):
                return f"\\{_GREEK[name]} " if name in _GREEK else r"\square " if name == "□" else name
            case n.Unit(word):
                return words_in_latex(word)
            case n.Signed(sign, child):
                return _SIGNS[sign] + self.show(child, (*at, 0))
            case n.Sum(terms, signs):
                text = self.show(terms[0], (*at, 0))
                for k, (sign, term) in enumerate(zip(signs, terms[1:], strict=True), start=1):
                    text += " " + _SIGNS[sign] + " " + self.show(term, (*at, k))
                return text
            case n.Product(factors, operators):
                text = self.show(factors[0], (*at, 0))
                for k, (operator, factor) in enumerate(zip(operators, factors[1:], strict=True), start=1):
                    shown = self.show(factor, (*at, k))
                    # two fraction bars side by side would read as one product by accident of spacing
                    thin = r"\," if operator == "" and isinstance(factors[k - 1], n.Fraction) else ""
                    text += _OPERATORS[operator] + thin + shown
                return text
            case n.Fraction(top, bottom):
                return rf"\frac{{{self._inner(top, (*at, 0))}}}{{{self._inner(bottom, (*at, 1))}}}"
            case n.Power(base, exponent):
                shown = self.show(base, (*at, 0))
                if isinstance(base, n.Power | n.Fraction | n.Root):
                    shown = f"{{{shown}}}"
                return f"{shown}^{{{self._inner(exponent, (*at, 1))}}}"
            case n.Root(radicand, index):
                which = f"[{self.show(index, (*at, 1))}]" if index is not None else ""
                return rf"\sqrt{which}{{{self._inner(radicand, (*at, 0))}}}"
            case n.Absolute(child):
                return rf"\left|{self.show(child, (*at, 0))}\right|"
            case n.Group(child, bracket):
                left, right = {"(": ("(", ")"), "[": ("[", "]"), "{": (r"\{", r"\}")}[bracket]
                return rf"\left{left}{self.show(child, (*at, 0))}\right{right}"
            case _:
                return self.joined(pieces(node), at)

    def joined(self, parts: Iterable[Piece], at: n.Address) -> str:
        """Pieces of the statement at an address, one after the other."""
        return "".join(self._piece(piece, at) for piece in parts)

    def _piece(self, piece: Piece, at: n.Address) -> str:
        if piece.part is not None:
            return self.show(piece.part, (*at, piece.place))
        if piece.kind == "separator":
            return r";\; " if self.comma else r",\; "
        text = _NAMED.get(piece.text, piece.text)
        return _PIECES.get(piece.kind, "%s").replace("%s", text)


def latex_sides(node: n.Node, marks: Mapping[n.Address, str] | None = None, *, comma: bool = False) -> tuple[str, str]:
    """What stands left of the first relation sign, and the sign with all that follows it.

    An expression has no left part. Used to set equals signs exactly under each other.
    """
    setter = _Typesetter(marks or {}, comma)
    if isinstance(node, ln.Feature) and node.label == "D":
        _, *rest = pieces(node)
        return "D", f"= {setter.joined(rest, ())}"
    if not isinstance(node, ln.STATEMENTS):
        return "", setter.show(node, ())
    left, right = beside_relation(node)
    return setter.joined(left, ()), setter.joined(right, ()).lstrip() if left else setter.show(node, ())
