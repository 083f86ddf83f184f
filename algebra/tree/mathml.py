"""Printing as MathML, for pages that open anywhere."""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

from algebra.tree import nodes as n
from algebra.tree import statements as ln

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


class _Printer:
    def __init__(self, comma: bool) -> None:
        self.comma = comma

    def _joined(self, nodes: Iterable[n.Node], between: str) -> str:
        return between.join(map(self.show, nodes))

    def listed(self, items: tuple[n.Node, ...]) -> str:
        """Values one after the other."""
        return self._joined(items, _sign(";" if self.comma else ","))

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
        match node:
            case ln.Equation(sides):
                return _row(self._joined(sides, _sign("=")))
            case ln.Comparison(left, operator, right):
                return _row(self.show(left), _sign(operator), self.show(right))
            case ln.Alternatives(items):
                return _row(self._joined(items, _text(" or ")))
            case ln.AllOf(items):
                return _row(self._joined(items, _text(" and ")))
            case ln.ValueList(left, items, operator):
                return _row(self.show(left), _sign(operator), self.listed(items))
            case ln.SetOf(items):
                return _row(_sign("{"), self.listed(items), _sign("}"))
            case ln.NoSolution(sign):
                return "<mi>∅</mi>" if sign else _text("no solution")
            case ln.AllReals(exceptions, sign):
                if sign:
                    rest = _sign("∖") + _sign("{") + self.listed(exceptions) + _sign("}") if exceptions else ""
                    return _row("<mi>ℝ</mi>", rest)
                return _row(
                    _text("all real numbers"), _text(" except ") + self.listed(exceptions) if exceptions else ""
                )
            case ln.Word(word):
                return _text(word)
            case ln.Claim(name, of, value):
                arguments = _sign("(") + self.listed(of) + _sign(")") if of else ""
                return _row(_text(name), arguments, _sign("="), self.show(value))
            case ln.Between(low, first, middle, second, high):
                return _row(self.show(low), _sign(first), self.show(middle), _sign(second), self.show(high))
            case ln.Infinity(sign):
                return _row(_sign("−") if sign == "-" else "", "<mi>∞</mi>")
            case ln.Interval(low, high, low_closed, high_closed):
                first_end = _row(_sign("−"), "<mi>∞</mi>") if low is None else self.show(low)
                last_end = "<mi>∞</mi>" if high is None else self.show(high)
                return _row(
                    _sign("[" if low_closed else "("),
                    first_end,
                    _sign(","),
                    last_end,
                    _sign("]" if high_closed else ")"),
                )
            case ln.Point(across, up):
                return _row(_sign("("), self.show(across), _sign(","), self.show(up), _sign(")"))
            case ln.End(side, value, growth):
                far = _row(_sign("−") if side == "-" else "", "<mi>∞</mi>")
                limit = _row(_sign("−") if growth == "-" else "", "<mi>∞</mi>") if value is None else self.show(value)
                return _row("<mi>x</mi>", _sign("→"), far, _sign(","), "<mi>y</mi>", _sign("→"), limit)
            case ln.Feature("moved point", (start, end)):
                return _row(self.show(start), _sign("→"), self.show(end))
            case ln.Feature(_, items, _, label):
                return _row(_text(f"{label}: "), self.listed(items))
            case ln.Union(items):
                return _row(self._joined(items, _sign("∪")))
        raise TypeError(f"no MathML for {type(node).__name__}")
