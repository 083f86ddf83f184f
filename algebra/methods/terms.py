"""Writing values in the plain notation, and taking written expressions apart into terms and factors."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from fractions import Fraction as Q

from algebra.exact.rational_functions import Ratio, coefficients, depends_on
from algebra.exact.writing import factored_tree, monomial_tree, number_tree, simplified_tree
from algebra.methods.paper import NotThisWay, Problem
from algebra.parse.lines import read_expression
from algebra.tree import nodes as n
from algebra.tree.build import sum_of
from algebra.tree.plain import plain


def shown(value: Ratio) -> str:
    """A value in lowest terms, a polynomial expanded."""
    return plain(simplified_tree(value))


def number(value: Q | int) -> str:
    return plain(number_tree(value))


def factored(value: Ratio) -> str:
    """A polynomial as the product of its irreducible factors."""
    return plain(factored_tree(value.numerator, value.field.letters))


def is_sum(text: str) -> bool:
    """Whether a written expression is a sum or starts with a sign, so that it needs brackets as a factor."""
    tree = read_expression(text)
    return isinstance(tree, n.Sum | n.Signed)


def wrapped(text: str) -> str:
    """The expression as a factor: in brackets where it is a sum or has a sign."""
    return f"({text})" if is_sum(text) else text


def as_part(text: str) -> str:
    """The expression as the numerator or denominator of a slash."""
    tree = read_expression(text)
    return text if isinstance(tree, n.FACTOR_LIKE) else f"({text})"


def fraction(top: str, bottom: str) -> str:
    return top if bottom == "1" else f"{as_part(top)}/{as_part(bottom)}"


def times(*factors: str) -> str:
    """The product of written expressions: sums in brackets, a dot where a number or the same letter follows."""
    text = ""
    for factor in factors:
        if factor == "1" and len(factors) > 1:
            continue
        part = wrapped(factor)
        if text:
            alike = text[-1] == part[0] and part[0].isalpha()
            text += (
                f"·{part}"
                if part[0].isdigit() or alike or "/" in text.rsplit("·", maxsplit=1)[-1] or "/" in part
                else part
            )
        else:
            text = part
    return text or "1"


def joined(terms: Iterable[str]) -> str:
    """Terms to a sum; a term that starts with a minus is subtracted."""
    text = ""
    for term in terms:
        if not text:
            text = term
        elif term.startswith("-") and isinstance(read_expression(term), n.Signed):
            text += f" - {term[1:].strip()}"
        else:
            text += f" + {term}"
    return text or "0"


def opposite(text: str) -> str:
    """The term with the other sign."""
    tree = read_expression(text)
    if isinstance(tree, n.Signed) and tree.sign == "-":
        return plain(tree.child)
    return f"-({text})" if isinstance(tree, n.Sum) else f"-{text}"


def terms_of(tree: n.Node) -> list[tuple[str, n.Node]]:
    """The terms of a sum with their signs, outer brackets opened only where nothing changes."""
    if isinstance(tree, n.Group):
        return terms_of(tree.child)
    if isinstance(tree, n.Sum):
        first = tree.terms[0]
        head = ("-", first.child) if isinstance(first, n.Signed) and first.sign == "-" else ("+", first)
        return [head, *zip(tree.signs, tree.terms[1:], strict=True)]
    if isinstance(tree, n.Signed) and tree.sign in "+-":
        return [(tree.sign, tree.child)]
    return [("+", tree)]


def factors_of(tree: n.Node) -> list[n.Node]:
    """The factors of a product, brackets around a product opened; ÷ is not taken apart."""
    tree = n.bare(tree) if isinstance(n.bare(tree), n.Product) else tree
    if isinstance(tree, n.Product) and "÷" not in tree.operators:
        return [part for factor in tree.factors for part in factors_of(factor)]
    return [tree]


class Poly:
    """A polynomial in the unknown with coefficients free of it, lowest first."""

    def __init__(self, parts: Sequence[Ratio], unknown: str) -> None:
        kept = list(parts)
        while len(kept) > 1 and kept[-1].is_zero:
            kept.pop()
        self.parts = tuple(kept)
        self.unknown = unknown

    @classmethod
    def of(cls, value: Ratio, unknown: str) -> Poly:
        """Raises NotThisWay where the unknown stands in the denominator."""
        if depends_on(value.denominator, unknown):
            raise NotThisWay("The unknown stands in a denominator.")
        found = coefficients(value.numerator, unknown)
        return cls([value.field.ratio(part, value.denominator) for part in found], unknown)

    @property
    def degree(self) -> int:
        return len(self.parts) - 1

    @property
    def is_zero(self) -> bool:
        return self.degree == 0 and self.parts[0].is_zero

    def __getitem__(self, power: int) -> Ratio:
        return self.parts[power] if power < len(self.parts) else self.parts[0].field.constant(0)

    @property
    def value(self) -> Ratio:
        field = self.parts[0].field
        total, x = field.constant(0), field.letter(self.unknown)
        for part in reversed(self.parts):
            total = total * x + part
        return total

    @property
    def numbers(self) -> list[Q] | None:
        """The coefficients where all are rational numbers, lowest first; else None."""
        found = [part.constant for part in self.parts]
        return None if None in found else [c for c in found if c is not None]

    def term(self, power: int) -> str:
        """One term as it is written, with its sign; empty where its coefficient is 0."""
        part = self[power]
        if part.is_zero:
            return ""
        return plain(_term_tree(part, self.unknown, power))

    def __str__(self) -> str:
        found = [_term_tree(self[k], self.unknown, k) for k in range(self.degree, -1, -1) if not self[k].is_zero]
        return plain(sum_of(found)) if found else "0"


def _term_tree(part: Ratio, unknown: str, power: int) -> n.Node:
    constant = part.constant
    if constant is not None:
        tree = monomial_tree(constant, [(unknown, power)])
        if power and abs(constant.numerator) == 1 and constant.denominator != 1:  # x/4 rather than (1/4)x
            over: n.Node = n.Fraction(_power(unknown, power), n.Integer(constant.denominator))
            tree = n.Signed("-", over) if constant < 0 else over
        return tree
    if power == 0:
        return simplified_tree(part)
    x = part.field.letter(unknown)
    if len(part.numerator) == 1:  # x/a rather than (1/a)x
        return simplified_tree(part * x**power)
    tree = simplified_tree(part)
    minus = isinstance(tree, n.Signed)
    inner = n.Product((n.Group(tree.children[0] if minus else tree), _power(unknown, power)), ("",))
    return n.Signed("-", inner) if minus else inner


def _power(letter: str, power: int) -> n.Node:
    return n.Letter(letter) if power == 1 else n.Power(n.Letter(letter), n.Integer(power))


def spread(problem: Problem, tree: n.Node) -> list[Ratio]:
    """The terms that multiplying out gives, not yet combined, in the order in which they are written."""
    match tree:
        case n.Group(child):
            return spread(problem, child)
        case n.Signed(sign, child) if sign in "+-":
            return [-term if sign == "-" else term for term in spread(problem, child)]
        case n.Sum():
            found: list[Ratio] = []
            for sign, term in terms_of(tree):
                found += [-t if sign == "-" else t for t in spread(problem, term)]
            return found
        case n.Product(factors, operators) if "÷" not in operators:
            total = [problem.field.constant(1)]
            for factor in factors:
                inner = spread(problem, factor)
                total = [a * b for a in total for b in inner]
            return total
        case n.Fraction(top, bottom):
            below = problem.value(bottom)
            if not depends_on(below.numerator, problem.unknown):
                return [term / below for term in spread(problem, top)]
        case n.Power(base, n.Integer(2)):
            inner = spread(problem, base)
            if len(inner) == 2:
                a, b = inner
                return [a * a, problem.field.constant(2) * a * b, b * b]
    return [problem.value(tree)]


def listed(values: Sequence[Ratio]) -> str:
    """The terms as a sum, zeros left out."""
    return joined(shown(value) for value in values if not value.is_zero)


def has_brackets_to_open(tree: n.Node) -> bool:
    """Whether a sum in brackets is multiplied, subtracted or raised somewhere."""
    for part in n.parts_of(tree):
        if isinstance(part, n.Product) and any(isinstance(n.bare(f), n.Sum) for f in part.factors):
            return True
        if isinstance(part, n.Sum) and any(isinstance(n.bare(t), n.Sum) for t in part.terms):
            return True
        if isinstance(part, n.Signed) and isinstance(n.bare(part.child), n.Sum):
            return True
        if isinstance(part, n.Power) and isinstance(n.bare(part.base), n.Sum):
            return True
        if isinstance(part, n.Fraction) and isinstance(n.bare(part.numerator), n.Sum):
            return True
    return False


def times_each(tree: n.Node) -> str:
    """In words, what the first bracket is multiplied by: “3 times x and −2”."""
    for part in n.parts_of(tree):
        if isinstance(part, n.Product):
            for k, factor in enumerate(part.factors):
                inner = n.bare(factor)
                if isinstance(inner, n.Sum):
                    others = [plain(f) for j, f in enumerate(part.factors) if j != k]
                    each = [("−" if s == "-" else "") + plain(t) for s, t in terms_of(inner)]
                    return f"{''.join(others)} times {' and '.join(each)}"
        if isinstance(part, n.Power) and isinstance(n.bare(part.base), n.Sum):
            return f"{plain(part)} is the bracket times itself"
    return "the minus reaches every term"
