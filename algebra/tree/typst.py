"""Printing in typst's notation, for paper."""

from __future__ import annotations

from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.greek import LETTERS

_OPERATORS = {"·": " dot.op ", "×": " times ", "÷": " div ", "": " "}
_SIGNS = {"+": "+", "-": "-", "±": "plus.minus ", "∓": "minus.plus "}
_RELATIONS = {"=": "=", "≠": "eq.not", "≈": "approx", "≥": ">=", "≤": "<=", ">": ">", "<": "<"}
_BRACKETS = {"(": ("(", ")"), "[": ("[", "]"), "{": ("{", "}")}
_GREEK = {letter: name for name, letter in LETTERS.items()}


def typst(node: n.Node, *, comma: bool = False) -> str:
    """What stands between two dollar signs for an expression or a statement; `comma` writes decimals with one."""
    return _Printer(comma).show(node)


def typst_sides(node: n.Node, *, comma: bool = False) -> tuple[str, str]:
    """What stands left of the first relation sign, and the sign with all that follows; an expression has no left
    part."""
    printer = _Printer(comma)
    match node:
        case ln.Equation(sides):
            return printer.show(sides[0]), "= " + " = ".join(map(printer.show, sides[1:]))
        case ln.Comparison(left, operator, right):
            return printer.show(left), f"{_RELATIONS[operator]} {printer.show(right)}"
        case ln.ValueList(left, items, operator):
            return printer.show(left), f"{_RELATIONS[operator]} {printer.listed(items)}"
    return "", printer.show(node)


def quoted(text: str) -> str:
    """A text as typst's string."""
    escaped = text.replace("\\", "\\\\").replace('"', '\\"')
    return f'"{escaped}"'


class _Printer:
    def __init__(self, comma: bool) -> None:
        self.comma = comma

    def listed(self, items: tuple[n.Node, ...]) -> str:
        """Values one after the other."""
        return (";space " if self.comma else ", ").join(map(self.show, items))

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
        return self._statement(node)

    def _statement(self, node: n.Node) -> str:
        match node:
            case ln.Equation(sides):
                return " = ".join(map(self.show, sides))
            case ln.Comparison(left, operator, right):
                return f"{self.show(left)} {_RELATIONS[operator]} {self.show(right)}"
            case ln.Alternatives(items):
                return ' quad "or" quad '.join(map(self.show, items))
            case ln.AllOf(items):
                return ' quad "and" quad '.join(map(self.show, items))
            case ln.ValueList(left, items, operator):
                return f"{self.show(left)} {_RELATIONS[operator]} {self.listed(items)}"
            case ln.SetOf(items):
                return f"{{{self.listed(items)}}}"
            case ln.NoSolution(sign):
                return "emptyset" if sign else '"no solution"'
            case ln.AllReals(exceptions, True):
                return "RR" + (f" without {{{self.listed(exceptions)}}}" if exceptions else "")
            case ln.AllReals(exceptions):
                return '"all real numbers"' + (f' "except" {self.listed(exceptions)}' if exceptions else "")
            case ln.Word(word):
                return quoted(word)
            case ln.Claim(name, of, value):
                arguments = f"({self.listed(of)})" if of else ""
                return f"{quoted(name)}{arguments} = {self.show(value)}"
            case ln.Between(low, first, middle, second, high):
                shown = [self.show(part) for part in (low, middle, high)]
                return f"{shown[0]} {_RELATIONS[first]} {shown[1]} {_RELATIONS[second]} {shown[2]}"
            case ln.Infinity(sign):
                return f"{sign}infinity"
            case ln.Interval(low, high, low_closed, high_closed):
                ends = ["-infinity" if low is None else self.show(low), "infinity" if high is None else self.show(high)]
                opening, closing = r"\[" if low_closed else r"\(", r"\]" if high_closed else r"\)"
                return f"{opening}{', '.join(ends)}{closing}"
            case ln.Point(across, up):
                return f"({self.show(across)}, {self.show(up)})"
            case ln.End(side, value, growth):
                limit = ("-" if growth == "-" else "") + "infinity" if value is None else self.show(value)
                return f"x arrow.r {'-' if side == '-' else ''}infinity, thin y arrow.r {limit}"
            case ln.Feature("moved point", (start, end)):
                return f"{self.show(start)} arrow.r {self.show(end)}"
            case ln.Feature(_, items, _, label):
                return f"{quoted(label + ': ')} {self.listed(items)}"
            case ln.Union(items):
                return " union ".join(map(self.show, items))
        raise TypeError(f"no typst notation for {type(node).__name__}")
