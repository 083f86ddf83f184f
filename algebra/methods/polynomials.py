"""How polynomials are factored on paper: the common factor, then the pattern that fits, each with its side work."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction as Q
from math import gcd, isqrt
from typing import Any

from algebra.exact import algebraic_numbers as numbers
from algebra.exact.algebraic_numbers import whole_root
from algebra.exact.rational_functions import coefficients, depends_on, integer_coefficients, irreducible_factors
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.paper import BRIEF, Paper
from algebra.methods.terms import Poly, is_sum, number, shown
from algebra.reports.side_work import AreaGrid, ProductSum, SideWork, SlideDivide, SquareTest, SyntheticDivision

Line = tuple[str, str, str, list[SideWork]]
"""The text of an expression, the rule that leads to it, what fills its reason, and its side work."""


@dataclass(slots=True)
class Factoring:
    """The lines of a factoring and the factors it ends with: (text, polynomial, power), constants apart."""

    lines: list[Line] = field(default_factory=list)
    constant: Q = Q(1)
    factors: list[tuple[str, Poly, int]] = field(default_factory=list)


def pairs_tried(product: int, total: int) -> list[tuple[int, int]]:
    """The pairs with this product, in the order in which one tries them, up to the pair with this sum (or all)."""
    found = []
    for small in range(1, isqrt(abs(product)) + 1):
        if product % small:
            continue
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
    front = _front(common, x, low)
    found.constant = Q(common)
    if low:
        found.factors.append((x, make([0, 1]), low))
    if front:
        inner = make(rest)
        bracket = f"({inner})" if len(rest) > 1 and _terms(rest) > 1 else str(inner)
        if len(rest) > 1:
            rule = "take-out-minus" if front == "-" else "common-factor"
            found.lines.append((f"{front}{bracket}", rule, front, []))
    if len(rest) == 1:
        return found if low + (abs(common) != 1) > 1 else None
    parts = _split(make, rest, how)
    if parts is None and not front:
        return None
    if parts is None:
        inner = make(rest)
        found.factors.append((str(inner), inner, 1))
        return found
    for product, rule, what, side in parts.lines:
        found.lines.append((_times(front, product), rule, what, side))
    found.factors += parts.factors
    return found


def _front(common: int, x: str, low: int) -> str:
    letter = "" if low == 0 else x if low == 1 else f"{x}^{low}"
    if common == 1:
        return letter
    if common == -1:
        return f"-{letter}"
    return f"{common}{letter}"


def _times(front: str, product: str) -> str:
    """The product with what was taken out in front of it; a sum gets brackets."""
    if not front:
        return product
    return (
        f"{front}[{product}]"
        if is_sum(product) and "(" in product
        else f"{front}({product})"
        if is_sum(product)
        else f"{front}{product}"
    )


def _terms(parts: list[int]) -> int:
    return sum(1 for c in parts if c)


def _split(make: Any, parts: list[int], how: str) -> Factoring | None:
    """A primitive polynomial with a constant term, split all the way down; None where it is irreducible."""
    degree = len(parts) - 1
    if degree == 1:
        return None
    if degree == 2:
        return _quadratic(make, parts, how)
    pattern = _pattern(make, parts, how)
    return pattern or _by_root(make, parts, how)


def _quadratic(make: Any, parts: list[int], how: str) -> Factoring | None:
    c, b, a = parts
    x = make([0, 1])
    d = b * b - 4 * a * c
    if d < 0 or isqrt(d) ** 2 != d:
        return None
    r, s = Q(-b + isqrt(d), 2 * a), Q(-b - isqrt(d), 2 * a)
    first, second = (make([-v.numerator, v.denominator]) for v in (r, s))
    found = Factoring()
    found.factors = [(str(first), first, 2)] if r == s else [(str(first), first, 1), (str(second), second, 1)]
    root_a, root_c = isqrt(abs(a)), isqrt(abs(c))
    squares = root_a**2 == a and root_c**2 == abs(c)
    if b == 0 and squares:
        text_a = str(make([0, root_a]))
        plus, minus = make([root_c, root_a]), make([-root_c, root_a])
        found.factors = [(str(plus), plus, 1), (str(minus), minus, 1)]
        found.lines.append((f"({plus})({minus})", "difference-of-squares", f"a = {text_a}, b = {root_c}", []))
        return found
    if r == s and squares:
        middle = str(make([0, abs(b)]))
        test = SquareTest(str(make([0, root_a])), number(root_c), middle, middle, fits=True)
        found.lines.append((f"({first})^2", "perfect-square", f"a = {make([0, root_a])}, b = {number(root_c)}", [test]))
        return found
    letter = x.unknown
    tests = []
    if squares and c > 0 and b:
        # both ends are squares but the middle does not fit: worth a look, and shown why it fails
        middle, needed = str(make([0, abs(b)])), str(make([0, 2 * root_a * root_c]))
        tests.append(SquareTest(str(make([0, root_a])), number(root_c), middle, needed, fits=False))
    if a == 1:
        work = product_sum_work(c, b)
        assert work.pair is not None
        p, q = work.pair
        factors = [make([p, 1]), make([q, 1])]
        text = f"({factors[0]})({factors[1]})"
        found.factors = [(str(f), f, 1) for f in factors]
        if how == "area-grid":
            grid = _grid(letter, [["x²", p], [q, c]], parts, factors)
            found.lines.append((text, "area-grid", f"{factors[0]} and {factors[1]}", [work, grid]))
        else:
            found.lines.append(
                (text, "product-sum", f"{p} · {q} = {c} and {p} + {q} = {b}".replace("+ -", "− "), [*tests, work])
            )
        return found
    work = product_sum_work(a * c, b)
    assert work.pair is not None
    p, q = work.pair
    # the split that leaves the smaller common factor behind first reads more easily
    product = f"({first})({second})"
    if how == "slide-and-divide":
        slid = make([a * c, b, 1])
        one, two = make([p, 1]), make([q, 1])
        divided = tuple(f"{letter} + {Q(k, a)}".replace("+ -", "- ") for k in (p, q))
        side = SlideDivide(a, str(slid), (str(one), str(two)), (divided[0], divided[1]), (str(first), str(second)))
        found.lines.append((product, "slide-and-divide", str(a), [work, side]))
        return found
    if how == "area-grid":
        grid = _grid(letter, [[f"{a}{letter}²", p], [q, c]], parts, [first, second])
        found.lines.append((product, "area-grid", f"{first} and {second}", [work, grid]))
        return found
    split = f"{make([0, 0, a])} {_plus(make([0, p]))} {_plus(make([0, q]))} {_plus(make([c]))}"
    found.lines.append(
        (split, "split-middle", f"{p} · {q} = {a} · {c} = {a * c} and {p} + {q} = {b}".replace("+ -", "− "), [work])
    )
    g1, g2 = gcd(a, p), gcd(q, c) * (-1 if q < 0 else 1)
    inner = make([p // g1, a // g1])
    outer = make([g2, g1])
    head = str(make([0, g1]))
    tail = "+ " if g2 > 0 else "- "
    times = "" if abs(g2) == 1 else str(abs(g2))
    found.lines.append((f"{head}({inner}) {tail}{times}({inner})", "group-in-pairs", f"{head} and {g2}", []))
    found.lines.append((f"({inner})({outer})", "common-bracket", str(inner), []))
    found.factors = [(str(inner), inner, 1), (str(outer), outer, 1)]
    return found


def _plus(poly: Poly) -> str:
    text = str(poly)
    return f"- {text[1:]}" if text.startswith("-") else f"+ {text}"


def _grid(letter: str, cells: list[list[object]], parts: list[int], sides: list[Poly]) -> AreaGrid:
    c, b, a = parts
    work = product_sum_work(a * c, b)
    assert work.pair is not None
    p, q = work.pair
    first, second = sides
    # the first side's leading term times the second's constant is one middle area
    a1, c1 = (integers(first) or [0, 0])[1], (integers(first) or [0, 0])[0]
    a2, c2 = (integers(second) or [0, 0])[1], (integers(second) or [0, 0])[0]
    areas = ((_term(a1 * a2, f"{letter}^2"), _term(c1 * a2, letter)), (_term(a1 * c2, letter), str(c1 * c2)))
    return AreaGrid((_term(a1, letter), str(c1)), (_term(a2, letter), str(c2)), areas, (p, q))


def _term(coefficient: int, letter: str) -> str:
    return letter if coefficient == 1 else f"-{letter}" if coefficient == -1 else f"{coefficient}{letter}"


def _pattern(make: Any, parts: list[int], how: str) -> Factoring | None:
    """Cubes, quadratics in x², and four terms grouped in pairs; None where none of them fits."""
    degree = len(parts) - 1
    used = [k for k, c in enumerate(parts) if c]
    if used == [0, 3]:
        a, b = _cube_root(parts[3]), _cube_root(parts[0])
        if a is not None and b is not None:
            first, second = make([b, a]), make([b * b, -a * b, a * a])
            found = Factoring()
            found.lines.append((f"({first})({second})", "sum-of-cubes", f"a = {make([0, a])}, b = {abs(b)}", []))
            found.factors = [(str(first), first, 1), (str(second), second, 1)]
            return found
    if degree % 2 == 0 and all(k % 2 == 0 for k in used):
        inner = _split(lambda p: make([v for c in p for v in (c, 0)][:-1] if len(p) > 1 else p), parts[::2], how)
        if inner is not None:
            return _deeper(make, inner, how)
    if len(parts) == 4 and len(used) == 4:
        return _by_pairs(make, parts, how)
    return None


def _deeper(make: Any, found: Factoring, how: str) -> Factoring:
    """Factors that factor again, each in one more line."""
    done: list[tuple[str, Poly, int]] = []
    waiting = list(found.factors)
    while waiting:
        text, poly, power = waiting.pop(0)
        again = _split(make, integers(poly) or [1], how) if poly.degree > 1 else None
        if again is None:
            done.append((text, poly, power))
            continue
        final = again.lines[-1]
        before = "".join(_bracketed(t, p) for t, _, p in done)
        after = "".join(_bracketed(t, p) for t, _, p in waiting)
        inner = "".join(_bracketed(t, p * power) for t, _, p in again.factors)
        found.lines.append((before + inner + after, final[1], final[2], [w for line in again.lines for w in line[3]]))
        waiting = [(t, f, p * power) for t, f, p in again.factors] + waiting
        if all(f.degree == 1 for _, f, _ in waiting):
            done += waiting
            break
    found.factors = done
    return found


def _bracketed(text: str, power: int) -> str:
    base = text if len(text) == 1 else f"({text})"
    return base if power == 1 else f"{base}^{power}"


def _by_pairs(make: Any, parts: list[int], how: str) -> Factoring | None:
    d, c, b, a = parts
    if a * d != b * c:
        return None
    g1, g2 = gcd(a, b), gcd(c, d) * (-1 if c * a < 0 else 1)
    inner, outer = make([b // g1, a // g1]), make([g2, 0, g1])
    times = "" if abs(g2) == 1 else str(abs(g2))
    found = Factoring()
    head = str(make([0, 0, g1]))
    found.lines.append(
        (f"{head}({inner}) {'+' if g2 > 0 else '-'} {times}({inner})", "group-in-pairs", f"{head} and {g2}", [])
    )
    found.lines.append((f"({inner})({outer})", "common-bracket", str(inner), []))
    found.factors = [(str(inner), inner, 1), (str(outer), outer, 1)]
    return _deeper(make, found, how)


def _by_root(make: Any, parts: list[int], how: str) -> Factoring | None:
    """A rational root found by trying, divided out by synthetic division."""
    for root in _candidates(parts):
        if sum(c * root**k for k, c in enumerate(parts)) == 0:
            quotient, work = synthetic(parts, root)
            scale = root.denominator
            factor = make([-root.numerator, scale])
            rest = make([int(Q(v, scale)) for v in reversed(quotient)])
            found = Factoring()
            what = f"{make([0, 1]).unknown} = {root} makes it zero, so {factor} is a factor."
            found.lines.append((f"({factor})({rest})", "rational-root", what, [work]))
            found.factors = [(str(factor), factor, 1), (str(rest), rest, 1)]
            return _deeper(make, found, how)
    return None


def _candidates(parts: list[int]) -> Iterator[Q]:
    seen = set()
    for bottom in (d for d in range(1, abs(parts[-1]) + 1) if parts[-1] % d == 0):
        for top in (d for d in range(1, abs(parts[0]) + 1) if parts[0] % d == 0):
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
    pieces = []
    for irreducible, power in own:
        lead = coefficients(irreducible, poly.unknown)[-1]
        f = -irreducible if lead.is_constant() and lead.leading_coefficient() < 0 else irreducible
        ratio = value.field.ratio(f)
        pieces.append(_bracketed(shown(ratio), power))
        found.factors.append((shown(ratio), Poly.of(ratio, poly.unknown), power))
    rest = value
    for _, factor, power in found.factors:
        rest = rest / factor.value**power
    front = "" if rest.constant == 1 else "-" if rest.constant == -1 else shown(rest)
    text = front + "".join(pieces)
    found.lines.append((text, "factor-side", f"the factors are {', '.join(t for t, _, _ in found.factors)}", []))
    return found


def root_statements(paper: Paper, factors: list[tuple[str, Poly, int]]) -> None:
    """From a product equal to 0 to its roots, a line of factors and a line of solutions."""
    x = paper.problem.unknown
    own = [(text, poly) for text, poly, _ in factors if poly.degree]
    zero = [f"{text} = 0" for text, _ in own]
    if len(own) > 1 or own[0][0] != x:
        paper.write(" or ".join(zero), "zero-product")
    values: list[str] = []
    open_factors = []
    for _, poly in own:
        if poly.degree == 1:
            values.append(shown(-poly[0] / poly[1]))
        else:
            open_factors.append(poly)
    for poly in open_factors:
        roots = _roots_of_rest(paper, poly)
        values += roots
    values = list(dict.fromkeys(values))
    paper.answer = values
    if not values:
        paper.write("no solution", "no-real-root", "no factor can be 0", shown_at=BRIEF)
        return
    paper.write(
        " or ".join(f"{x} = {v}" for v in values), "read-solution", "each factor gives its root", shown_at=BRIEF
    )


def _roots_of_rest(paper: Paper, poly: Poly) -> list[str]:
    """The roots of a factor that does not split, written with roots where that is possible."""
    whole = integers(poly)
    if whole is None:
        return []
    found = []
    for key in irreducible_factors([poly.value.numerator]).values():
        parts = integer_coefficients(key, poly.unknown)
        if parts[-1] < 0:
            parts = [-c for c in parts]
        found += [str(root) for root in numbers.roots_of(tuple(parts), complex_too=paper.problem.complex)]
    return found[::-1]
