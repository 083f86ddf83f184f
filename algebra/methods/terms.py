"""Values as written expressions, written expressions as terms and factors, polynomials in the unknown."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction as Q

from algebra.exact.rational_functions import Ratio, coefficients, depends_on
from algebra.exact.writing import factored_tree, number_tree, polynomial_in, simplified_tree, term_in
from algebra.methods.worked_lines import NotThisWay, Problem
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

shown = simplified_tree
number = number_tree


def factored(value: Ratio) -> n.Node:
    """A polynomial as the product of its irreducible factors."""
    return factored_tree(value.numerator, value.field.letters)


def over_one_bar(value: Ratio) -> n.Node:
    """A value as it is written for a letter that is set free: (c - b)/5 rather than (1/5)c - (1/5)b."""
    if value.is_polynomial and value.denominator != 1 and len(value.numerator) > 1:
        below = int(value.denominator.leading_coefficient())
        top = shown(value.field.ratio(value.numerator if below > 0 else -value.numerator))
        return build.quotient(top, n.Integer(abs(below)))
    return shown(value)


def candidates_named(x: str, values: Sequence[n.Node]) -> str:
    """In words: `x = 2 and -3`."""
    return f"{x} = {' and '.join(map(plain, values))}"


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


def same_terms(one: n.Node, other: n.Node) -> bool:
    """Whether two sums have the same terms in another order."""
    return sorted((s, plain(t)) for s, t in terms_of(one)) == sorted((s, plain(t)) for s, t in terms_of(other))


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
        """The degree in the unknown; 0 for the zero polynomial."""
        return len(self.parts) - 1

    @property
    def is_zero(self) -> bool:
        """Whether it is 0 for every value of the unknown."""
        return self.degree == 0 and self.parts[0].is_zero

    def __getitem__(self, power: int) -> Ratio:
        return self.parts[power] if power < len(self.parts) else self.parts[0].field.constant(0)

    @property
    def value(self) -> Ratio:
        """The polynomial as a value of the field."""
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

    @property
    def tree(self) -> n.Node:
        """The polynomial as it is written, in falling powers."""
        return polynomial_in(self.parts, self.unknown)

    def term(self, power: int) -> n.Node:
        """One term as it is written, with its sign; 0 where its coefficient is 0."""
        return term_in(self[power], self.unknown, power)

    @property
    def opposite(self) -> Poly:
        """The polynomial with every sign changed."""
        return Poly([-part for part in self.parts], self.unknown)


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


def listed(values: Sequence[Ratio]) -> n.Node:
    """The terms as a sum, zeros left out."""
    return build.sum_of(shown(value) for value in values if not value.is_zero)


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


def holds_product(tree: n.Node) -> bool:
    """Whether a bracket is multiplied, raised, or has a sign before it: more than a numerator to be divided."""
    for part in n.parts_of(tree):
        inside = part.factors if isinstance(part, n.Product) else (part.base,) if isinstance(part, n.Power) else ()
        inside += part.terms if isinstance(part, n.Sum) else (part.child,) if isinstance(part, n.Signed) else ()
        if any(isinstance(n.bare(child), n.Sum) for child in inside):
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
    for part in n.parts_of(tree):
        if isinstance(part, n.Fraction) and isinstance(n.bare(part.numerator), n.Sum):
            return f"each term is divided by {plain(n.bare(part.denominator))}"
    return "the minus reaches every term"
