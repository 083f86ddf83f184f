"""Values back to trees: numbers, expanded and factored polynomials, fractions in lowest terms."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction as Q
from math import gcd

from algebra import limits
from algebra.exact.errors import TooLarge
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Poly, Ratio, factored, text_of
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.build import bar, grouped, implied_product, sum_of


def number_tree(value: Q | int) -> n.Node:
    """A rational number: `3`, `-3`, `2/3`, `-2/3`. Raises TooLarge when it is too long to be written."""
    _refuse_long(value)
    return build.number(value)


def _refuse_long(value: Q | int) -> None:
    if max(value.numerator.bit_length(), value.denominator.bit_length()) > limits.MAX_POWER_BITS:
        raise TooLarge("This number is too long to be written out.")


def monomial_tree(coefficient: Q, powers: list[tuple[str, int]]) -> n.Node:
    """`3x^2y`, `-x`, `(2/3)x`; without letters, the number. Raises TooLarge when that is too long to be written."""
    _refuse_long(coefficient)
    return build.monomial(coefficient, powers)


def polynomial_tree(poly: Poly, letters: tuple[str, ...], divisor: int = 1) -> n.Node:
    """The expanded form in falling powers, each coefficient divided by `divisor`; of terms of one degree a positive one
    leads.

    Of terms of one degree those in x, y, z come first: x + h, x² + 2hx + h².
    """
    first = sorted(range(len(letters)), key=lambda k: (letters[k] not in ("x", "y", "z"), letters[k]))
    terms = sorted(poly.to_dict().items(), key=lambda item: (-sum(item[0]), [-item[0][k] for k in first]))
    if not terms:
        return n.Integer(0)
    one_degree = len({sum(powers) for powers, _ in terms}) == 1
    two_letters = (
        len(terms) == 2 and sum(any(column) for column in zip(*(powers for powers, _ in terms), strict=True)) > 1
    )
    if int(terms[0][1]) * divisor < 0 and (one_degree or two_letters):  # d - b rather than -b + d; a - bc too
        terms.sort(key=lambda item: int(item[1]) * divisor < 0)
    return sum_of(
        [
            monomial_tree(Q(int(coefficient), divisor), list(zip(letters, powers, strict=False)))
            for powers, coefficient in terms
        ]
    )


def polynomial_in(parts: Sequence[Ratio], unknown: str) -> n.Node:
    """A polynomial in one letter in falling powers; `parts` are its coefficients, lowest first, free of that letter."""
    return sum_of([term_in(parts[k], unknown, k) for k in range(len(parts) - 1, -1, -1) if not parts[k].is_zero])


def term_in(part: Ratio, unknown: str, power: int) -> n.Node:
    """One term of a polynomial in a letter: `3x^2`, `x/4`, `(a + 1)x`."""
    constant = part.constant
    if constant is not None:
        if power and abs(constant.numerator) == 1 and constant.denominator != 1:  # x/4 rather than (1/4)x
            over = n.Fraction(build.power(n.Letter(unknown), power), n.Integer(constant.denominator))
            return n.Signed("-", over) if constant < 0 else over
        return monomial_tree(constant, [(unknown, power)])
    if power == 0:
        return simplified_tree(part)
    if len(part.numerator) == 1:  # x/a rather than (1/a)x
        return simplified_tree(part * part.field.letter(unknown) ** power)
    tree = simplified_tree(part)
    size = tree.children[0] if build.is_minus(tree) else tree
    inner = n.Product((n.Group(size), build.power(n.Letter(unknown), power)), ("",))
    return n.Signed("-", inner) if build.is_minus(tree) else inner


def factored_tree(poly: Poly, letters: tuple[str, ...]) -> n.Node:
    """The product of the irreducible factors over the rationals, the integer in front."""
    if poly == 0 or poly.is_constant():
        return polynomial_tree(poly, letters)
    content, factors = factored(poly)
    parts: list[n.Node] = []
    ordered = sorted(factors, key=lambda f: (len(f[0]), f[0].total_degree(), text_of(f[0])))
    for factor, power in ordered:
        tree = polynomial_tree(factor, letters)
        bare_ok = isinstance(tree, n.Letter | n.Unit)
        if not bare_ok and (len(ordered) > 1 or power > 1 or abs(int(content)) != 1):
            tree = n.Group(tree)
        parts.append(tree if power == 1 else n.Power(tree, n.Integer(int(power))))
    number = int(content)
    if abs(number) != 1:
        parts.insert(0, number_tree(abs(number)))
    node = implied_product(parts)
    if number == -1 and isinstance(node, n.Sum):
        return _positive_first(node)
    if number < 0:
        bracket = len(parts) == 1 and isinstance(node, n.Sum)
        return n.Signed("-", n.Group(node) if bracket else node)
    return node


def _positive_first(negated: n.Sum | n.Node) -> n.Node:
    """The opposite of a sum, begun with a positive term where it has one: `c - b` for `-(b - c)`."""
    assert isinstance(negated, n.Sum)
    terms = [
        negated.terms[0],
        *(n.Signed("-", t) if s == "-" else t for s, t in zip(negated.signs, negated.terms[1:], strict=True)),
    ]
    opposite = [build.negated(term) for term in terms]
    opposite.sort(key=lambda term: isinstance(term, n.Signed))
    return sum_of(opposite)


def simplified_tree(value: Ratio) -> n.Node:
    """Lowest terms; a true fraction with top and bottom factored, a polynomial expanded."""
    if isinstance(value.field, RadicalField):
        if value.field.depends_on_added(value.numerator):
            return surd_tree(value)
        top, bottom = value.field.in_letters(value.numerator), value.field.in_letters(value.denominator)
        value = Ratio(value.field.plain, top, bottom)
    letters = value.field.letters
    constant = value.constant
    if constant is not None:
        return number_tree(constant)
    if value.is_polynomial:
        return polynomial_tree(value.numerator, letters, int(value.denominator.leading_coefficient()))
    return bar(factored_tree(value.numerator, letters), factored_tree(value.denominator, letters))


def surd_tree(value: Ratio) -> n.Node:
    """A value of a cell, its roots written as roots: `5√2`, `(1+√5)/2`, `x√(x - 2)`."""
    cell = value.field
    assert isinstance(cell, RadicalField)
    bottom = value.denominator
    constant = bottom.is_constant()
    below = int(bottom.leading_coefficient()) if constant else 1
    terms = sorted(value.numerator.to_dict().items(), key=lambda item: _term_order(cell, item[0]))
    shared = below if len(terms) > 1 and below != 1 else 1
    trees = [_surd_term(cell, Q(int(c), below // shared), monomial) for monomial, c in terms]
    top = sum_of(trees)
    if shared != 1:
        return bar(top, n.Integer(shared))
    if constant:
        return top
    letters = factored_tree(cell.in_letters(bottom), cell.letters)
    return bar(top, letters)


def _term_order(cell: RadicalField, monomial: tuple[int, ...]) -> tuple[object, ...]:
    skip = len(cell.added)
    rooted = any(monomial[:skip])
    return (rooted, -sum(monomial[skip:]), [-power for power in monomial[skip:]], monomial[:skip])


def _surd_term(cell: RadicalField, coefficient: Q, monomial: tuple[int, ...]) -> n.Node:
    skip = len(cell.added)
    letters = [(name, int(power)) for name, power in zip(cell.letters, monomial[skip:], strict=False)]
    factors: list[n.Node] = []
    under: list[tuple[Poly, int]] = []
    for made in cell.made.values():
        power = int(monomial[made.position])
        if not power:
            continue
        if made.base is not None:
            under.append((made.base, power))
        elif made.nested is not None:
            inside = surd_tree(made.nested)
            root = n.Root(grouped(inside), None if made.degree == 2 else n.Integer(made.degree))
            factors.append(root if power == 1 else n.Power(n.Group(root), n.Integer(power)))
        elif made.relation is not None:
            factors.append(n.Letter("i"))
        else:
            terms = [monomial_tree(Q(power, cell.plan.step), list(made.above))]
            base: n.Node = n.Integer(made.prime) if made.prime else n.Letter(made.below)
            shared = next((p for name, p in letters if name == made.below), 0)
            if shared:  # x^4·x^n is written x^(n+4)
                terms.append(n.Integer(shared))
                letters = [(name, 0 if name == made.below else p) for name, p in letters]
            factors.append(n.Power(base, grouped(sum_of(terms))))
    if under:
        factors.append(_one_root(cell, under))
    if not factors:
        return monomial_tree(coefficient, letters)
    top, bottom = coefficient.numerator, coefficient.denominator
    plain_part = (
        [] if abs(top) == 1 and not any(power for _, power in letters) else [monomial_tree(Q(abs(top)), letters)]
    )
    parts: list[n.Node] = []
    for part in (*plain_part, *factors):
        parts.extend(part.factors if isinstance(part, n.Product) else (part,))
    node = parts[0] if len(parts) == 1 else n.Product(tuple(parts), _implied(parts))
    if bottom != 1:
        node = n.Fraction(node if isinstance(node, n.FACTOR_LIKE) else n.Group(node), n.Integer(bottom))
    return n.Signed("-", node) if top < 0 else node


def _implied(parts: list[n.Node]) -> tuple[str, ...]:
    """Implied products, a dot before a number that is raised to a power."""
    return tuple("·" if isinstance(p, n.Power) and isinstance(p.base, n.Integer) else "" for p in parts[1:])


def _one_root(cell: RadicalField, under: list[tuple[Poly, int]]) -> n.Node:
    """All roots of a term under one sign, with the smallest index."""
    common = gcd(cell.plan.index, *(power for _, power in under))
    index = cell.plan.index // common
    number, rest = 1, cell.plain.one
    for base, power in under:
        if base.is_constant():
            number *= int(base.leading_coefficient()) ** (power // common)
        else:
            size = base if cell.sign(base) > 0 else -base
            rest = rest * cell.in_letters(size) ** (power // common)
    tree = factored_tree(cell.plain.ring.constant(number) * rest, cell.letters)
    return n.Root(grouped(tree), None if index == 2 else n.Integer(index))
