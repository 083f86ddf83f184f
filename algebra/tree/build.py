"""Making expressions out of nodes, with the brackets and signs that the notation needs. Nothing is worked out."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from fractions import Fraction as Q

from algebra.tree import nodes as n
from algebra.tree import statements as ln

ZERO, ONE = n.Integer(0), n.Integer(1)


def number(value: Q | int) -> n.Node:
    """A rational number: `3`, `-3`, `2/3`, `-2/3`."""
    size: n.Node = n.Integer(abs(value.numerator))
    if value.denominator != 1:
        size = n.Fraction(size, n.Integer(value.denominator))
    return n.Signed("-", size) if value < 0 else size


def letter(name: str) -> n.Node:
    """A letter, or the quoted word that goes by this name."""
    return n.Unit(name.strip('"')) if name.startswith('"') else n.Letter(name)


def grouped(node: n.Node, *, power_stands: bool = False) -> n.Node:
    """The node, in brackets unless it can stand by itself as a base, a radicand or (a power too) beside a slash."""
    stands = isinstance(node, n.FACTOR_LIKE) and (power_stands or not isinstance(node, n.Power))
    return node if stands else n.Group(node)


def beside_slash(node: n.Node) -> n.Node:
    """The node as a numerator or denominator: in brackets unless it is a single factor."""
    return grouped(node, power_stands=True)


def negated(node: n.Node) -> n.Node:
    """A minus before the node; of a node that has one, the node without it."""
    return node.child if isinstance(node, n.Signed) and node.sign == "-" else n.Signed("-", node)


def monomial(coefficient: Q, powers: Iterable[tuple[str, int]]) -> n.Node:
    """`3x^2y`, `-x`, `(2/3)x`; the number where no letter has a power other than 0."""
    parts: list[n.Node] = []
    size = abs(coefficient)
    for name, exponent in powers:
        if exponent:
            base = letter(name)
            parts.append(base if exponent == 1 else n.Power(base, n.Integer(int(exponent))))
    if size != 1 or not parts:
        front = number(size)
        parts.insert(0, n.Group(front) if isinstance(front, n.Fraction) and parts else front)
    node = implied_product(parts)
    return n.Signed("-", node) if coefficient < 0 else node


def multiple(coefficient: Q, node: n.Node) -> n.Node:
    """A number times a square, a root or a power: `-3(x-1)^2`, `√x/4`, `(2/3)x^2`."""
    size, count = node, abs(coefficient)
    if count.numerator == 1:
        size = quotient(node, n.Integer(count.denominator))
    elif count.denominator == 1:
        size = product(n.Integer(count.numerator), node)
    else:  # (2/3)x, without the dot that stands beside fractions elsewhere
        opened = isinstance(node, n.Product) and "÷" not in node.operators
        operators = node.operators if isinstance(node, n.Product) and opened else ()
        size = n.Product((n.Group(number(count)), *(node.children if opened else (node,))), ("", *operators))
    return n.Signed("-", size) if coefficient < 0 else size


def implied_product(factors: Sequence[n.Node]) -> n.Node:
    """The factors written side by side; one alone stays as it is."""
    return factors[0] if len(factors) == 1 else n.Product(tuple(factors), ("",) * (len(factors) - 1))


def is_minus(node: n.Node) -> bool:
    """Whether the node starts with a minus that belongs to all of it: `-x`, not `-x + 2`."""
    return isinstance(node, n.Signed) and node.sign == "-"


def starts_with_minus(node: n.Node) -> bool:
    """Whether a minus is written first, be it that of the first term only: `-x + 2`."""
    return is_minus(node.children[0] if isinstance(node, n.Sum) else node)


def opposite(node: n.Node) -> n.Node:
    """The node with the other sign: `x` of `-x`, `-(x+2)` of `x + 2`."""
    return negated(n.Group(node) if isinstance(node, n.Sum) else node)


def signed(sign: str, node: n.Node) -> n.Node:
    """The node as it is for `+`, a minus before it for `-`; a sum gets brackets then."""
    if sign == "+":
        return node
    return n.Signed(sign, n.Group(node) if isinstance(node, n.Sum | n.Signed) else node)


def minus_if(minus: bool, node: n.Node) -> n.Node:
    """A minus before the node where there is to be one; a sum gets brackets then."""
    return signed("-" if minus else "+", node)


def polynomial(coefficients: Sequence[Q | int], letter_name: str) -> n.Node:
    """A polynomial in one letter in falling powers; the coefficients are numbers, lowest first."""
    terms = [monomial(Q(c), [(letter_name, k)]) for k, c in enumerate(coefficients) if c]
    return sum_of(terms[::-1])


def sum_of(terms: Iterable[n.Node]) -> n.Node:
    """The terms joined; a leading minus of a later term becomes its sign, a sum among them is opened. Of no terms,
    0."""
    parts: list[n.Node] = []
    signs: list[str] = []
    for term in terms:
        held = term.terms if isinstance(term, n.Sum) else (term,)
        own = term.signs if isinstance(term, n.Sum) else ()
        minus = bool(parts) and is_minus(held[0])
        signs += ["-" if minus else "+", *own]
        parts += [held[0].children[0] if minus else held[0], *held[1:]]
    if len(parts) <= 1:
        return parts[0] if parts else ZERO
    return n.Sum(tuple(parts), tuple(signs[1:]))


def factor(node: n.Node) -> n.Node:
    """The node as a factor: in brackets where it is a sum or has a sign."""
    return n.Group(node) if isinstance(node, n.Sum | n.Signed) else node


def product(*factors: n.Node) -> n.Node:
    """The factors side by side, 1 left out; a dot before a number, a letter met again, and beside a fraction.

    Products among the factors are opened.
    """
    real = [one for one in factors if one != ONE]
    if len(real) <= 1:
        return real[0] if real else ONE
    parts: list[n.Node] = []
    operators: list[str] = []
    for one in real:
        opens = isinstance(one, n.Product) and "÷" not in one.operators
        held = one.children if opens else (factor(one),)
        if parts:
            operators.append("·" if _needs_dot(parts[-1], held[0]) else "")
        parts += held
        operators += one.operators if isinstance(one, n.Product) and opens else ()
    return n.Product(tuple(parts), tuple(operators))


def _needs_dot(before: n.Node, after: n.Node) -> bool:
    if starts_with_digit(after):
        return True
    first, last = _edge(after, 0), _edge(before, -1)
    if isinstance(first, n.Letter) and first == last:
        return True
    return isinstance(before, n.Fraction) or isinstance(after, n.Fraction)


def starts_with_digit(node: n.Node) -> bool:
    """Whether the first sign of the node is a digit, so that a dot must stand before it in a product."""
    return isinstance(_edge(node, 0), n.Integer | n.Decimal | n.Mixed)


def ends_with_digit(node: n.Node) -> bool:
    """Whether the last sign of the node is a digit: `3`, `x^2`, `√5`."""
    return isinstance(_edge(node, -1), n.Integer | n.Decimal | n.Mixed)


def _edge(node: n.Node, side: int) -> n.Node:
    """The sign that is written first (0) or last (-1): a letter, a number, a bracket, a root sign."""
    while isinstance(node, n.Product | n.Power | n.Fraction) or (side == -1 and isinstance(node, n.Root | n.Signed)):
        node = node.children[0 if isinstance(node, n.Root | n.Signed) else side]
    return node


def dotted(*factors: n.Node) -> n.Node:
    """The factors with a dot between each two, as one writes what was multiplied and is not worked out yet."""
    parts: list[n.Node] = []
    operators: list[str] = []
    for one in factors:
        opens = isinstance(one, n.Product) and "÷" not in one.operators
        operators += ["·"] if parts else []
        operators += one.operators if isinstance(one, n.Product) and opens else ()
        parts += one.children if opens else (factor(one),)
    return parts[0] if len(parts) == 1 else n.Product(tuple(parts), tuple(operators))


def product_dotted(front: n.Node, node: n.Node) -> n.Node:
    """A number times something that begins with a digit or is raised: `3·2^x`; 1 is left out."""
    if front == ONE or node == ONE:
        return node if front == ONE else front
    return dotted(n.Group(front) if isinstance(front, n.Fraction) else front, node)


def quotient(top: n.Node, bottom: n.Node) -> n.Node:
    """A fraction, its parts bracketed where the notation needs it; over 1, the numerator."""
    return top if bottom == ONE else n.Fraction(beside_slash(top), beside_slash(bottom))


def bar(top: n.Node, bottom: n.Node) -> n.Node:
    """A fraction, its parts bracketed where the notation needs it, a minus above taken in front."""
    if isinstance(top, n.Signed) and top.sign == "-":
        return n.Signed("-", n.Fraction(beside_slash(top.child), beside_slash(bottom)))
    return n.Fraction(beside_slash(top), beside_slash(bottom))


def power(base: n.Node, exponent: int | n.Node) -> n.Node:
    """A power, base and exponent bracketed where the notation needs it; of exponent 1, the base."""
    above = number(exponent) if isinstance(exponent, int) else exponent
    below = n.Group(base) if isinstance(base, n.Root) else grouped(base)  # √x^2 could be read in two ways
    return base if above == ONE else n.Power(below, grouped(above))


def root(radicand: n.Node, index: int = 2) -> n.Node:
    """A root, the radicand bracketed where the notation needs it."""
    return n.Root(grouped(radicand), None if index == 2 else n.Integer(index))


def plus_minus(middle: n.Node, part: n.Node) -> n.Node:
    """`m ± s`; `±s` where the middle is 0."""
    return n.Signed("±", part) if middle == ZERO else n.Sum((middle, part), ("±",))


def equation(*sides: n.Node) -> ln.Equation:
    """`left = right`, or a chain of equal expressions."""
    return ln.Equation(sides)


def alternatives(items: Sequence[n.Node]) -> n.Node:
    """The statements joined by `or`; one alone stays as it is."""
    return items[0] if len(items) == 1 else ln.Alternatives(tuple(items))


def solutions(unknown: str, values: Sequence[n.Node]) -> n.Node:
    """`x = 3 or x = -2`; of no values, that there is no solution."""
    return alternatives([equation(letter(unknown), value) for value in values]) if values else ln.NoSolution()


def left_out(unknown: str, values: Sequence[n.Node]) -> n.Node:
    """`x ≠ 3, -2`."""
    return ln.ValueList(letter(unknown), tuple(values), "≠")
