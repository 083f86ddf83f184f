"""Printing as LaTeX for typesetting; any node can be marked, so that it shows in colour."""

from __future__ import annotations

from collections.abc import Mapping

from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.greek import LETTERS

_OPERATORS = {"·": r" \cdot ", "×": r" \times ", "÷": r" \div ", "": ""}
_SIGNS = {"+": "+", "-": "-", "±": r"\pm ", "∓": r"\mp "}
_RELATIONS = {"=": "=", "≠": r"\ne", "≈": r"\approx", "≥": r"\ge", "≤": r"\le", ">": ">", "<": "<"}
_GREEK = {letter: name for name, letter in LETTERS.items()}


def latex(node: n.Node, marks: Mapping[n.Address, str] | None = None, *, comma: bool = False) -> str:
    """LaTeX of an expression or statement. `marks` gives addresses a class name, written as `\\htmlClass`."""
    return _Typesetter(marks or {}, comma).show(node, ())


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
                return rf"\text{{{word}}}"
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
                return self._statement(node, at)

    def _list(self, items: tuple[n.Node, ...], at: n.Address, first: int) -> str:
        separator = r";\; " if self.comma else r",\; "
        return separator.join(self.show(item, (*at, first + k)) for k, item in enumerate(items))

    def _statement(self, node: n.Node, at: n.Address) -> str:
        match node:
            case ln.Equation(sides):
                return " = ".join(self.show(side, (*at, k)) for k, side in enumerate(sides))
            case ln.Comparison(left, operator, right):
                return f"{self.show(left, (*at, 0))} {_RELATIONS[operator]} {self.show(right, (*at, 1))}"
            case ln.Alternatives(items):
                return r" \;\text{ or }\; ".join(self.show(item, (*at, k)) for k, item in enumerate(items))
            case ln.AllOf(items):
                return r" \;\text{ and }\; ".join(self.show(item, (*at, k)) for k, item in enumerate(items))
            case ln.ValueList(left, items, operator):
                return f"{self.show(left, (*at, 0))} {_RELATIONS[operator]} {self._list(items, at, 1)}"
            case ln.SetOf(items):
                return rf"\left\{{{self._list(items, at, 0)}\right\}}"
            case ln.NoSolution(sign):
                return r"\varnothing" if sign else r"\text{no solution}"
            case ln.AllReals(exceptions, True):
                rest = rf" \setminus \left\{{{self._list(exceptions, at, 0)}\right\}}" if exceptions else ""
                return r"\mathbb{R}" + rest
            case ln.AllReals(exceptions):
                rest = rf"\text{{ except }}{self._list(exceptions, at, 0)}" if exceptions else ""
                return r"\text{all real numbers}" + rest
            case ln.Word(word):
                return rf"\text{{{word}}}"
            case ln.Claim(name, of, value):
                arguments = rf"\left({self._list(of, at, 0)}\right)" if of else ""
                return rf"\text{{{name}}}{arguments} = {self.show(value, (*at, len(of)))}"
            case ln.Between(low, first, middle, second, high):
                shown = [self.show(part, (*at, k)) for k, part in enumerate((low, middle, high))]
                return f"{shown[0]} {_RELATIONS[first]} {shown[1]} {_RELATIONS[second]} {shown[2]}"
            case ln.Infinity(sign):
                return rf"{sign}\infty"
            case ln.Interval(low, high, low_closed, high_closed):
                first_end = r"-\infty" if low is None else self.show(low, (*at, 0))
                last_end = r"\infty" if high is None else self.show(high, (*at, int(low is not None)))
                opening, closing = "[" if low_closed else "(", "]" if high_closed else ")"
                return f"\\left{opening}{first_end},\\; {last_end}\\right{closing}"
            case ln.Point(across, up):
                return rf"\left({self.show(across, (*at, 0))},\; {self.show(up, (*at, 1))}\right)"
            case ln.End(side, value, growth):
                limit = ("-" if growth == "-" else "") + r"\infty" if value is None else self.show(value, (*at, 0))
                start = ("-" if side == "-" else "") + r"\infty"
                return rf"x \to {start},\; y \to {limit}"
            case ln.Feature("moved point", (start, end)):
                return rf"{self.show(start, (*at, 0))} \to {self.show(end, (*at, 1))}"
            case ln.Feature(_, items, _, label):
                return rf"\text{{{label}: }}{self._list(items, at, 0)}"
            case ln.Union(items):
                return r" \cup ".join(self.show(item, (*at, k)) for k, item in enumerate(items))
        raise TypeError(f"no typesetting for {type(node).__name__}")


def latex_sides(node: n.Node, marks: Mapping[n.Address, str] | None = None, *, comma: bool = False) -> tuple[str, str]:
    """What stands left of the first relation sign, and the sign with all that follows it.

    An expression has no left part. Used to set equals signs exactly under each other.
    """
    setter = _Typesetter(marks or {}, comma)
    match node:
        case ln.Equation(sides):
            rest = " = ".join(setter.show(side, (k,)) for k, side in enumerate(sides) if k)
            return setter.show(sides[0], (0,)), "= " + rest
        case ln.Comparison(left, operator, right):
            return setter.show(left, (0,)), f"{_RELATIONS[operator]} {setter.show(right, (1,))}"
        case ln.ValueList(left, items, operator):
            return setter.show(left, (0,)), f"{_RELATIONS[operator]} {setter._list(items, (), 1)}"
        case ln.Feature(_, items, _, "D"):
            return "D", f"= {setter._list(items, (), 0)}"
    return "", setter.show(node, ())
