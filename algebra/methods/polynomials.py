"""How polynomials are factored on paper: the common factor, then the pattern that fits, each with its side work."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from fractions import Fraction as Q
from math import gcd, isqrt
from typing import NamedTuple

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import whole_root
from algebra.exact.rational_functions import coefficients, depends_on, integer_coefficients, irreducible_factors
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.terms import Poly, shown
from algebra.methods.worked_lines import BOARD, BRIEF, EVERY, NotThisWay, WorkedLines, say
from algebra.reports.side_work import AreaGrid, ProductSum, SideWork, SlideDivide, SquareTest, SyntheticDivision
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain


class Line(NamedTuple):
    """An expression, the rule that leads to it, what fills its reason, its side work, and at which grain it is
    shown."""

    tree: n.Node
    rule: str
    what: str | n.Node
    side: list[SideWork]
    shown_at: int = BOARD


Factor = tuple[n.Node, Poly, int]
"""A factor as it is written, as a polynomial, and its power."""
Make = Callable[[list[int]], Poly]
"""Makes the polynomial with these coefficients, lowest first."""
ZERO = build.ZERO


@dataclass(slots=True)
class Factoring:
    """The lines of a factoring and the factors it ends with, constants apart."""

    lines: list[Line] = field(default_factory=list)
    constant: Q = Q(1)
    factors: list[Factor] = field(default_factory=list)


def pairs_tried(product: int, total: int) -> list[tuple[int, int]]:
    """The pairs with this product, in the order in which one tries them, up to the pair with this sum (or all)."""
    found = []
    for small in numbers.divisors(product) if product else ():
        if small * small > abs(product):
            break
        large = abs(product) // small
        if product > 0:
            candidates = [(small, large)] if total >= 0 else [(-small, -large)]
        else:
            candidates = [(-small, large)] if total >= 0 else [(small, -large)]
            if total == 0:
                candidates = [(-small, large)]
        for pair in candidates:
            found.append(pair)
            if sum(pair) == total:
                return found
    return found


def product_sum_work(product: int, total: int, *, diamond: bool = True) -> ProductSum:
    """The search for two numbers, as a table of pairs and as a diamond."""
    tried = pairs_tried(product, total)
    fits = bool(tried) and sum(tried[-1]) == total
    return ProductSum(product, total, tuple((a, b, a + b) for a, b in tried), tried[-1] if fits else None, diamond)


def integers(poly: Poly) -> list[int] | None:
    """The coefficients, lowest first, where all are whole numbers; else None."""
    numbers = poly.numbers
    if numbers is None or any(c.denominator != 1 for c in numbers):
        return None
    return [int(c) for c in numbers]


def factoring_of(poly: Poly, how: str = "sum-product") -> Factoring | None:
    """How a polynomial with whole coefficients in one letter is factored; None where it is irreducible.

    `how` chooses the way for trinomials: sum-product, area-grid, ac-grouping, slide-and-divide.
    """
    whole = integers(poly)
    if whole is None:
        return _with_parameters(poly)
    found = Factoring()
    x = poly.unknown
    constant = poly.parts[0].field.constant

    def make(parts: list[int]) -> Poly:
        return Poly([constant(p) for p in parts], x)

    common = gcd(*whole) * (-1 if whole[-1] < 0 else 1)
    low = next(k for k, c in enumerate(whole) if c)
    rest = [c // common for c in whole[low:]]
    front = build.monomial(Q(common), [(x, low)])
    found.constant = Q(common)
    if low:
        found.factors.append((n.Letter(x), make([0, 1]), low))
    if front != build.ONE and len(rest) > 1:
        rule = "take-out-minus" if common == -1 and not low else "common-factor"
        what = "-" if rule == "take-out-minus" else front
        if rule == "common-factor":
            apart = build.sum_of(
                shared(front, make([0] * k + [c]).tree) for k, c in reversed(tuple(enumerate(rest))) if c
            )
            found.lines.append(Line(apart, rule, what, [], EVERY))
        found.lines.append(Line(_times(front, make(rest).tree), rule, what, []))
    if len(rest) == 1:
        return found if low + (abs(common) != 1) > 1 else None
    parts = _split(make, rest, how)
    if parts is None and front == build.ONE:
        return None
    if parts is None:
        inner = make(rest)
        found.factors.append((inner.tree, inner, 1))
        return found
    found.lines += [line._replace(tree=_times(front, line.tree)) for line in parts.lines]
    found.factors += parts.factors
    return found


def shared(front: n.Node, rest: n.Node) -> n.Node:
    """A term with the common factor apart: `4·3x`, `4·(-2)` as `-4·2`."""
    minus = build.is_minus(front) != build.is_minus(rest)
    sizes = [one.children[0] if build.is_minus(one) else one for one in (front, rest)]
    return build.minus_if(minus, build.dotted(*sizes))


def _times(front: n.Node, inner: n.Node) -> n.Node:
    """The product with what was taken out in front of it; a sum gets brackets, square ones around round ones."""
    if front == build.ONE:
        return inner
    if isinstance(inner, n.Sum):
        inner = n.Group(inner, "[" if any(isinstance(part, n.Group) for part in n.parts_of(inner)) else "(")
    if front == n.Signed("-", build.ONE):
        return n.Signed("-", inner)
    if build.is_minus(front):
        return n.Signed("-", build.product(front.children[0], inner))
    return build.product(front, inner)


def _split(make: Make, parts: list[int], how: str) -> Factoring | None:
    """A primitive polynomial with a constant term, split all the way down; None where it is irreducible."""
    degree = len(parts) - 1
    if degree == 1:
        return None
    if degree == 2:
        return _quadratic(make, parts, how)
    pattern = _pattern(make, parts, how)
    return pattern or _by_root(make, parts, how)


def _quadratic(make: Make, parts: list[int], how: str) -> Factoring | None:
    c, b, a = parts
    x = make([0, 1])
    d = b * b - 4 * a * c
    if d < 0 or isqrt(d) ** 2 != d:
        return None
    r, s = Q(-b + isqrt(d), 2 * a), Q(-b - isqrt(d), 2 * a)
    first, second = (make([-v.numerator, v.denominator]) for v in (r, s))
    found = Factoring()
    found.factors = [(first.tree, first, 2)] if r == s else [(first.tree, first, 1), (second.tree, second, 1)]
    root_a, root_c = isqrt(abs(a)), isqrt(abs(c))
    squares = root_a**2 == a and root_c**2 == abs(c)
    side_a, side_c = make([0, root_a]).tree, n.Integer(root_c)
    if b == 0 and squares:
        return _difference_of_squares(make, parts)
    middle = plain(make([0, abs(b)]).tree)
    if r == s and squares:
        test = SquareTest(plain(side_a), plain(side_c), middle, middle, fits=True)
        middle_apart = build.dotted(n.Integer(2), side_a, side_c)
        apart = build.sum_of([squared(side_a), build.minus_if(b < 0, middle_apart), build.power(side_c, 2)])
        found.lines.append(Line(apart, "as-powers", f"{middle} = {plain(middle_apart)}", [], EVERY))
        found.lines.append(Line(build.power(first.tree, 2), "perfect-square", _named(side_a, side_c), [test]))
        return found
    letter = x.unknown
    tests: list[SideWork] = []
    if squares and c > 0 and b:
        # both ends are squares but the middle does not fit: worth a look, and shown why it fails
        needed = plain(make([0, 2 * root_a * root_c]).tree)
        tests.append(SquareTest(plain(side_a), plain(side_c), middle, needed, fits=False))
    work = product_sum_work(a * c, b)
    assert work.pair is not None
    p, q = work.pair
    if a == 1:
        first, second = make([p, 1]), make([q, 1])
        found.factors = [(f.tree, f, 1) for f in (first, second)]
        if how == "area-grid":
            sides: list[SideWork] = [work, _grid(letter, parts, first, second)]
            found.lines.append(Line(_product(first, second), "area-grid", _both(first, second), sides))
        else:
            found.lines.append(Line(_product(first, second), "product-sum", pair_words(work), [*tests, work]))
        return found
    if how == "slide-and-divide":
        divided = [build.sum_of([n.Letter(letter), build.number(Q(k, a))]) for k in (p, q)]
        side = SlideDivide(
            a,
            plain(make([a * c, b, 1]).tree),
            (plain(make([p, 1]).tree), plain(make([q, 1]).tree)),
            (plain(divided[0]), plain(divided[1])),
            (plain(first.tree), plain(second.tree)),
        )
        found.lines.append(Line(_product(first, second), "slide-and-divide", n.Integer(a), [work, side]))
        return found
    if how == "area-grid":
        sides = [work, _grid(letter, parts, first, second)]
        found.lines.append(Line(_product(first, second), "area-grid", _both(first, second), sides))
        return found
    split = build.sum_of(make(part).tree for part in ([0, 0, a], [0, p], [0, q], [c]))
    found.lines.append(Line(split, "split-middle", pair_words(work, a, c), [work]))
    g1, g2 = gcd(a, p), gcd(q, c) * (-1 if q < 0 else 1)
    inner, outer = make([p // g1, a // g1]), make([g2, g1])
    _in_pairs(found, make([0, g1]).tree, g2, inner, outer)
    return found


def pair_words(work: ProductSum, *factors: int) -> str:
    """In words, the pair that was found; `factors` are those of the product, where it was multiplied first."""
    assert work.pair is not None
    p, q = work.pair
    product = f"{' · '.join(map(str, factors))} = {work.product}" if factors else str(work.product)
    return f"{p} · {q} = {product} and {p} {'−' if q < 0 else '+'} {abs(q)} = {work.sum}"


def _product(*factors: Poly) -> n.Node:
    return build.product(*(factor.tree for factor in factors))


def _both(first: Poly, second: Poly) -> str:
    return say("{} and {}", first.tree, second.tree)


def _named(a: n.Node, b: n.Node) -> str:
    return say("a = {}, b = {}", a, b)


def _in_pairs(found: Factoring, head: n.Node, tail: int, inner: Poly, outer: Poly) -> None:
    """Two pairs with the same bracket, then the bracket in front: head(…) + tail(…) = (…)(head + tail)."""
    bracket = n.Group(inner.tree)
    pairs = build.sum_of(
        [
            build.product(head, bracket),
            build.minus_if(tail < 0, build.product(n.Integer(abs(tail)), bracket)),
        ]
    )
    found.lines.append(Line(pairs, "group-in-pairs", say("{} and {}", head, build.number(tail)), []))
    found.lines.append(Line(_product(inner, outer), "common-bracket", inner.tree, []))
    found.factors = [(inner.tree, inner, 1), (outer.tree, outer, 1)]


def _grid(letter: str, parts: list[int], first: Poly, second: Poly) -> AreaGrid:
    """The two by two box: the first side's leading term times the second's constant is one middle area."""
    c, b, a = parts
    work = product_sum_work(a * c, b)
    assert work.pair is not None
    (c1, a1), (c2, a2) = (integers(side) or [0, 0] for side in (first, second))

    def area(coefficient: int, power: int) -> str:
        return plain(build.monomial(Q(coefficient), [(letter, power)]))

    areas = ((area(a1 * a2, 2), area(c1 * a2, 1)), (area(a1 * c2, 1), area(c1 * c2, 0)))
    return AreaGrid((area(a1, 1), area(c1, 0)), (area(a2, 1), area(c2, 0)), areas, work.pair)


def _pattern(make: Make, parts: list[int], how: str) -> Factoring | None:
    """Cubes, quadratics in x², and four terms grouped in pairs; None where none of them fits."""
    degree = len(parts) - 1
    used = [k for k, c in enumerate(parts) if c]
    if used == [0, degree] and degree % 2 == 0:
        # before the cubes: x^6 - 64 as a difference of cubes leaves a factor that is hard to see
        squares = _difference_of_squares(make, parts)
        if squares is not None:
            return _deeper(make, squares, how)
    if used == [0, 3]:
        a, b = _cube_root(parts[3]), _cube_root(parts[0])
        if a is not None and b is not None:
            first, second = make([b, a]), make([b * b, -a * b, a * a])
            found = Factoring()
            a_tree, b_tree = make([0, a]).tree, n.Integer(abs(b))
            apart = build.sum_of([build.power(a_tree, 3), build.minus_if(b < 0, build.power(b_tree, 3))])
            found.lines.append(
                Line(
                    apart,
                    "as-powers",
                    say("{} = {}", make([0, 0, 0, parts[3]]).tree, build.power(a_tree, 3)),
                    [],
                    EVERY,
                )
            )
            found.lines.append(Line(_product(first, second), "sum-of-cubes", _named(a_tree, b_tree), []))
            found.factors = [(first.tree, first, 1), (second.tree, second, 1)]
            return found
    if degree % 2 == 0 and all(k % 2 == 0 for k in used):
        inner = _split(lambda p: make([v for c in p for v in (c, 0)][:-1] if len(p) > 1 else p), parts[::2], how)
        if inner is not None:
            return _deeper(make, inner, how)
    if len(parts) == 4 and len(used) == 4:
        return _by_pairs(make, parts, how)
    return None


def powers_told(*pairs: tuple[n.Node, n.Node]) -> str:
    """In words, what each end is a power of: `4x^2 = (2x)^2, 9 = 3^2`."""
    return ", ".join(say("{} = {}", end, shown) for end, shown in pairs if plain(end) != plain(shown))


def squared(tree: n.Node) -> n.Node:
    """The square of a term as it is seen in a pattern: x², (2x)², (x²)²."""
    return n.Power(n.Group(tree), n.Integer(2)) if isinstance(tree, n.Power) else build.power(tree, 2)


def _difference_of_squares(make: Make, parts: list[int]) -> Factoring | None:
    """(a·x^k + b)(a·x^k - b) for a²·x^2k - b²; None where it is none."""
    degree = len(parts) - 1
    a, b = isqrt(max(parts[degree], 0)), isqrt(max(-parts[0], 0))
    if (a * a, b * b) != (parts[degree], -parts[0]):
        return None
    middle = [0] * (degree // 2 - 1)
    plus, minus = make([b, *middle, a]), make([-b, *middle, a])
    found = Factoring()
    a_tree, b_tree = make([0, *middle, a]).tree, n.Integer(b)
    words = _named(a_tree, b_tree)
    apart = build.sum_of([squared(a_tree), n.Signed("-", build.power(b_tree, 2))])
    squares = make([0, *middle, 0, *middle, a * a]).tree, n.Integer(b * b)
    told = powers_told((squares[0], squared(a_tree)), (squares[1], build.power(b_tree, 2)))
    found.lines.append(Line(apart, "as-powers", told, [], EVERY))
    found.lines.append(Line(_product(plus, minus), "difference-of-squares", words, []))
    found.factors = [(plus.tree, plus, 1), (minus.tree, minus, 1)]
    return found


def _deeper(make: Make, found: Factoring, how: str) -> Factoring:
    """Factors that factor again, each in one more line."""
    done: list[Factor] = []
    waiting = list(found.factors)
    while waiting:
        tree, poly, power = waiting.pop(0)
        again = _split(make, integers(poly) or [1], how) if poly.degree > 1 else None
        if again is None:
            done.append((tree, poly, power))
            continue
        inner = [(t, f, p * power) for t, f, p in again.factors]
        for line in again.lines[:-1]:
            between = product_of([*done, (line.tree, poly, power), *waiting])
            found.lines.append(line._replace(tree=between))
        found.lines.append(again.lines[-1]._replace(tree=product_of([*done, *inner, *waiting])))
        waiting = inner + waiting
        if all(f.degree == 1 for _, f, _ in waiting):
            done += waiting
            break
    found.factors = done
    return found


def product_of(factors: list[Factor]) -> n.Node:
    """The factors with their powers, side by side."""
    return build.product(
        *(
            tree if power == 1 and isinstance(tree, n.Product) else build.power(build.grouped(tree), power)
            for tree, _, power in factors
        )
    )


def _by_pairs(make: Make, parts: list[int], how: str) -> Factoring | None:
    d, c, b, a = parts
    if a * d != b * c:
        return None
    g1, g2 = gcd(a, b), gcd(c, d) * (-1 if c * a < 0 else 1)
    inner, outer = make([b // g1, a // g1]), make([g2, 0, g1])
    found = Factoring()
    _in_pairs(found, make([0, 0, g1]).tree, g2, inner, outer)
    return _deeper(make, found, how)


def _by_root(make: Make, parts: list[int], how: str) -> Factoring | None:
    """A rational root found by trying, divided out by synthetic division."""
    for root in _candidates(parts):
        if sum(c * root**k for k, c in enumerate(parts)) == 0:
            quotient, work = synthetic(parts, root)
            scale = root.denominator
            factor = make([-root.numerator, scale])
            rest = make([int(Q(v, scale)) for v in reversed(quotient)])
            found = Factoring()
            zero = build.equation(n.Letter(factor.unknown), build.number(root))
            what = say("{} makes it zero, so {} is a factor.", zero, factor.tree)
            found.lines.append(Line(_product(factor, rest), "rational-root", what, [work]))
            found.factors = [(factor.tree, factor, 1), (rest.tree, rest, 1)]
            return _deeper(make, found, how)
    return None


MOST_CANDIDATES = 2_000


def _candidates(parts: list[int]) -> Iterator[Q]:
    seen = set()
    bottoms, tops = numbers.divisors(parts[-1]), numbers.divisors(parts[0]) if parts[0] else []
    if len(bottoms) * len(tops) > MOST_CANDIDATES:
        raise NotThisWay("Too many rational numbers could be zeros.")
    for bottom in bottoms:
        for top in tops:
            for value in (Q(top, bottom), Q(-top, bottom)):
                if value not in seen:
                    seen.add(value)
                    yield value


def synthetic(parts: list[int], root: Q) -> tuple[list[Q], SyntheticDivision]:
    """Horner's scheme: the quotient of a division that leaves nothing (highest first), and the table as side work."""
    row = [Q(c) for c in reversed(parts)]
    below = [row[0]]
    carried: list[Q] = []
    for c in row[1:]:
        carried.append(below[-1] * root)
        below.append(c + carried[-1])
    top, middle, bottom = (tuple(str(c) for c in line) for line in (row, carried, below))
    return below[:-1], SyntheticDivision(str(root), top, middle, bottom)


def _cube_root(value: int) -> int | None:
    size = whole_root(abs(value), 3)
    return None if size is None else size if value >= 0 else -size


def _with_parameters(poly: Poly) -> Factoring | None:
    """With other letters: the irreducible factors at once."""
    value = poly.value
    _content, factors = factors_of_poly(value.numerator)
    own = [(f, int(p)) for f, p in factors if depends_on(f, poly.unknown)]
    if len(own) < 2 and all(p == 1 for _, p in own):
        return None
    found = Factoring()
    for irreducible, power in own:
        lead = coefficients(irreducible, poly.unknown)[-1]
        f = -irreducible if lead.is_constant() and lead.leading_coefficient() < 0 else irreducible
        ratio = value.field.ratio(f)
        found.factors.append((shown(ratio), Poly.of(ratio, poly.unknown), power))
    rest = value
    for _, factor, power in found.factors:
        rest = rest / factor.value**power
    line = _times(shown(rest), product_of(found.factors))
    names = ", ".join(plain(tree) for tree, _, _ in found.factors)
    found.lines.append(Line(line, "factor-side", f"the factors are {names}", []))
    return found


def root_statements(paper: WorkedLines, factors: list[Factor]) -> None:
    """From a product equal to 0 to its roots, a line of factors and a line of solutions."""
    x = paper.problem.unknown
    own = [(tree, poly) for tree, poly, _ in factors if poly.degree]
    if len(own) > 1 or own[0][0] != n.Letter(x):
        paper.write(build.alternatives([build.equation(tree, ZERO) for tree, _ in own]), "zero-product")
    values = [shown(-poly[0] / poly[1]) for _, poly in own if poly.degree == 1]
    for _, poly in own:
        if poly.degree > 1:
            values += _roots_of_rest(paper, poly)
    paper.answer = list(dict.fromkeys(values))
    line = build.solutions(x, paper.answer)
    if paper.answer:
        paper.write(line, "read-solution", "each factor gives its root", shown_at=BRIEF)
    else:
        paper.write(line, "no-real-root", "no factor can be 0", shown_at=BRIEF)


def _roots_of_rest(paper: WorkedLines, poly: Poly) -> list[n.Node]:
    """The roots of a factor that does not split, written with roots where that is possible."""
    if integers(poly) is None:
        return []
    found = []
    for key in irreducible_factors([poly.value.numerator]).values():
        parts = integer_coefficients(key, poly.unknown)
        if parts[-1] < 0:
            parts = [-c for c in parts]
        found += [written_root(root) for root in numbers.roots_of(tuple(parts), complex_too=paper.problem.complex)]
    return found[::-1]


def written_root(root: numbers.Number) -> n.Node:
    """A zero of a polynomial with radicals. Raises NotThisWay where it has no such form that is known here."""
    if root.tree is None:
        raise NotThisWay("A zero can't be written with roots.")
    return root.tree
