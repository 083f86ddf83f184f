"""Exponential equations: one base on both sides, or a polynomial in one power."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction as Q
from math import gcd

from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.decomposition import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio
from algebra.methods.linear import both, polys_of, simplify_sides, undo
from algebra.methods.moves import dividing, taken_from, taking_off
from algebra.methods.quadratic import factoring, quadratic_formula, square_root
from algebra.methods.terms import Poly, number, shown, terms_of
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def base_of(value: Q) -> tuple[Q, int]:
    """(b, k) with value = b^k, b above 1 and k as large as possible; 1/8 is (2, −3). Raises NotThisWay for 1, 0 and
    negatives."""
    if value <= 0 or value == 1:
        raise NotThisWay("A base must be positive and not 1.")
    if value < 1:
        base, power = base_of(1 / value)
        return base, -power
    powers = [int(p) for part in (value.numerator, value.denominator) for _, p in prime_factors(part)]
    count = gcd(*powers)
    if count == 1:
        return value, 1

    def root(part: int) -> int:
        total = 1
        for prime, power in prime_factors(part):
            total *= int(prime) ** (int(power) // count)
        return total

    return Q(root(value.numerator), root(value.denominator)), count


@dataclass(frozen=True, slots=True)
class Product:
    """A product of powers of one base: base^exponent; `exponents` are those of its factors as they are written.

    `raised` are its factors with every base as a power in brackets: (3^3)^x.
    """

    base: Q
    exponent: Poly
    exponents: tuple[n.Node, ...]
    raised: tuple[n.Node, ...] = ()


def product_of(problem: Problem, tree: n.Node) -> Product:
    """Raises NotThisWay where the side is no product of powers of one base."""
    x = problem.unknown
    total: Ratio = problem.field.constant(0)
    bases: set[Q] = set()
    exponents: list[n.Node] = []
    raised: list[n.Node] = []
    for factor, way in _factors(tree):
        base_value, exponent = _power(problem, factor)
        if base_value == 1:
            continue
        base, count = base_of(base_value)
        bases.add(base)
        piece = exponent * problem.field.constant(count * way)
        total = total + piece
        inner = Poly.of(exponent, x)
        if inner.degree == 0:
            exponents.append(shown(piece))
        else:
            size = build.product(n.Integer(abs(count)), inner.tree)
            exponents.append(build.minus_if(way * count < 0, size))
        once = count == 1 or inner.degree == 0 or way < 0
        lower = number(base)
        power = exponents[-1] if once else inner.tree
        raised.append(build.power(lower if once else n.Group(build.power(lower, number(count))), power))
    if len(bases) > 1:
        raise NotThisWay("The bases are no powers of one number.")
    if not bases:
        return Product(Q(1), Poly([total], x), (build.ZERO,))
    return Product(bases.pop(), Poly.of(total, x), tuple(exponents), tuple(raised))


def _factors(tree: n.Node, way: int = 1) -> list[tuple[n.Node, int]]:
    bare = n.bare(tree)
    if isinstance(bare, n.Product):
        found: list[tuple[n.Node, int]] = _factors(bare.factors[0], way)
        for operator, factor in zip(bare.operators, bare.factors[1:], strict=True):
            found += _factors(factor, -way if operator == "÷" else way)
        return found
    if isinstance(bare, n.Fraction) and n.letters(bare):
        return _factors(bare.numerator, way) + _factors(bare.denominator, -way)
    return [(bare, way)]


def _power(problem: Problem, factor: n.Node) -> tuple[Q, Ratio]:
    one = problem.field.constant(1)
    bare = n.bare(factor)
    if isinstance(bare, n.Power):
        inner = n.bare(bare.base)
        exponent = problem.value(bare.exponent)
        if isinstance(inner, n.Power):
            base, deeper = _power(problem, inner)
            return base, deeper * exponent
        if n.letters(inner):
            raise NotThisWay("The unknown stands below.")
        below = problem.value(inner).constant
        if below is None:
            raise NotThisWay("A base is no number.")
        return below, exponent
    if isinstance(bare, n.Root):
        index = bare.index.value if isinstance(bare.index, n.Integer) else 2
        below, exponent = _power(problem, bare.radicand)
        return below, exponent * problem.field.constant(Q(1, index))
    if n.letters(bare):
        raise NotThisWay("A factor is no power.")
    value = problem.value(bare).constant
    if value is None:
        raise NotThisWay("A factor is no number.")
    return value, one


def is_exponential(problem: Problem) -> bool:
    """Whether the unknown stands in exponents, and nowhere else but there."""
    try:
        sides = problem.sides()
    except NotThisWay:
        return False
    x = problem.unknown
    powers = [p for side in sides for p in n.parts_of(side) if isinstance(p, n.Power)]
    above = {part for p in powers for part in n.parts_of(p.exponent)}
    return any(x in n.letters(p.exponent) for p in powers) and not any(
        x in n.letters(p.base) for p in powers if p not in above
    )


def common_base(problem: Problem) -> WorkedLines:
    """Both sides as powers of one base, then equal exponents."""
    if not is_exponential(problem):
        raise NotThisWay("The unknown stands in no exponent.")
    left_tree, right_tree = problem.sides()
    paper = WorkedLines(problem)
    left_tree, right_tree = _collected(paper, left_tree, right_tree)
    left_tree, right_tree = _one_power_each(paper, left_tree, right_tree)
    powers = [product_of(problem, side) for side in (left_tree, right_tree) if n.letters(side)]
    if powers and _negative(problem, left_tree, right_tree):
        value = left_tree if not n.letters(left_tree) else right_tree
        what = say("no power of a positive number is {}", value)
        paper.write(ln.NoSolution(), "power-never-negative", what, shown_at=BRIEF, noticed=("no solution",))
        return paper
    left, right = product_of(problem, left_tree), product_of(problem, right_tree)
    bases = {side.base for side in (left, right)} - {Q(1)}
    if len(bases) != 1:
        raise NotThisWay("The two sides are no powers of one number.")
    base = number(bases.pop())
    sides = [build.dotted(*(build.power(base, exponent) for exponent in side.exponents)) for side in (left, right)]
    told = say("every number here is a power of {}", base)
    if left.raised and right.raised:
        paper.write(
            build.equation(*(build.dotted(*side.raised) for side in (left, right))), "common-base", told, shown_at=EVERY
        )
    paper.write(build.equation(*sides), "common-base", told)
    exponents = [side.exponents[0] if len(side.exponents) == 1 else side.exponent.tree for side in (left, right)]
    combined = [build.power(base, exponent) for exponent in exponents]
    if any(len(side.exponents) > 1 for side in (left, right)):
        added = [build.power(base, build.sum_of(side.exponents)) for side in (left, right)]
        paper.write(
            build.equation(*added), "product-of-powers", "the exponents of each side put together", shown_at=EVERY
        )
        paper.write(build.equation(*combined), "product-of-powers", "the exponents of each side put together")
    paper.write(build.equation(*exponents), "equate-exponents", base)
    simplify_sides(paper, *paper.here.sides())
    first, second = polys_of(paper.here)
    if max(first.degree, second.degree) > 1:
        return _went_on(paper, (factoring, square_root, quadratic_formula))
    undo(paper, first, second, ladder=False)
    return paper


def _went_on(paper: WorkedLines, ways: Sequence[Callable[[Problem], WorkedLines]]) -> WorkedLines:
    """The paper with the rest worked by the first of these methods that leads on from its last line."""
    for way in ways:
        try:
            paper.go_on(way(paper.here))
        except NotThisWay:
            continue
        return paper
    raise NotThisWay("What the exponents lead to is not solved here.")


def _collected(paper: WorkedLines, left: n.Node, right: n.Node) -> tuple[n.Node, n.Node]:
    """Several terms with the same power, as in 3^(x+1) + 3^x = 36, put together; other equations as they are."""
    problem = paper.problem
    x = problem.unknown
    if sum(x in n.letters(t) for side in (left, right) for _, t in terms_of(side)) < 2:
        return left, right
    plan = plan_of([left, right], imaginary=False)
    if plan is None:
        return left, right
    cell = RadicalField((x,), plan, {x: Q(2)}, {}, formal=True)
    try:
        difference = value_of(left, cell).ratio - value_of(right, cell).ratio
        one = power_in(cell, difference, x)
        if one is None or set(one.parts) != {0, 1}:
            return left, right
        written = [
            build.sum_of(_as_multiple(cell, sign, term, one) for sign, term in terms_of(side)) for side in (left, right)
        ]
    except (ExactError, NotThisWay):
        return left, right
    power = one.tree(x)
    told = say("every term as a multiple of {}", power)
    paper.write(build.equation(*written), "product-of-powers", told, noticed=("one power",))
    size, rest = one.parts[1], -one.parts[0]
    if size < 0:
        size, rest = -size, -rest
    paper.write(build.equation(_times(size, power), number(rest)), "like-terms", say("the terms with {}", power))
    return paper.here.sides()


def _as_multiple(cell: RadicalField, sign: str, term: n.Node, one: OnePower) -> n.Node:
    """A term as a number times the power, or as a number. Raises NotThisWay for anything else."""
    value = value_of(term, cell).ratio
    if sign == "-":
        value = -value
    if value.constant is not None:
        return number(value.constant)
    size = (value / one.symbol).constant
    if size is None:
        raise NotThisWay("A term is no multiple of the power.")
    return _times(size, one.tree(cell.letters[0]))


def _times(size: Q, power: n.Node) -> n.Node:
    """`5·2^x`, `-2^x`, `(1/2)·3^x`."""
    return build.minus_if(size < 0, build.product_dotted(number(abs(size)), power))


@dataclass(frozen=True, slots=True)
class OnePower:
    """An equation as a polynomial in base^(count·x): `parts` are its coefficients by degree, `symbol` the power
    itself."""

    base: Q
    count: Q
    parts: dict[int, Q]
    symbol: Ratio

    def tree(self, x: str) -> n.Node:
        """The power as it is written: `2^x`, `2^(3x)`, `(1/2)^(x/2)`."""
        return build.power(number(self.base), build.multiple(self.count, n.Letter(x)))


def power_in(cell: RadicalField, difference: Ratio, x: str) -> OnePower | None:
    """The one power of the unknown in which a difference of two sides is a polynomial; None where there is none.

    Powers of several primes count as one where they always occur together: 10^x is 2^x·5^x.
    """
    made = [g for g in cell.made.values() if g.relation is None]
    if not made or any(g.above != ((x, 1),) or not g.prime for g in made):
        return None
    rows = []
    for monomial, c in difference.numerator.to_dict().items():
        counts = tuple(int(monomial[g.position]) for g in made)
        if sum(monomial) != sum(counts):
            return None
        rows.append((counts, Q(int(c))))
    if not rows:
        return None
    low = min(rows)[0]
    away = [(tuple(k - m for k, m in zip(counts, low, strict=True)), c) for counts, c in rows]
    step = next((vector for vector, _ in sorted(away) if any(vector)), None)
    if step is None:
        return None
    shared = gcd(*(gcd(*vector) for vector, _ in away if any(vector)))
    step = tuple(k // gcd(*step) for k in step)
    parts: dict[int, Q] = {}
    lead = next(k for k, part in enumerate(step) if part)
    for vector, size in away:
        times, rest = divmod(vector[lead], step[lead])
        if rest or vector != tuple(times * k for k in step) or times < 0:
            return None
        parts[times // shared] = size
    base = Q(1)
    symbol = cell.constant(1)
    for g, k in zip(made, step, strict=True):
        base *= Q(g.prime) ** k
        symbol = symbol * cell.ratio(g.symbol) ** (k * shared)
    return OnePower(base, Q(shared, cell.plan.step), parts, symbol)


def _negative(problem: Problem, left: n.Node, right: n.Node) -> bool:
    for side in (left, right):
        if not n.letters(side):
            try:
                value = problem.value(side).constant
            except ExactError:
                return False
            if value is not None and value <= 0:
                return True
    return False


def _one_power_each(paper: WorkedLines, left: n.Node, right: n.Node) -> tuple[n.Node, n.Node]:
    """a·b^x + c = d with the power let stand alone; other equations as they are."""
    problem = paper.problem
    for own, other, own_left in ((left, right, True), (right, left, False)):
        terms = terms_of(own)
        held = [(s, t) for s, t in terms if problem.unknown in n.letters(t)]
        if problem.unknown in n.letters(other) or len(held) != 1:
            continue
        bare = n.bare(held[0][1])
        factors = bare.factors if isinstance(bare, n.Product) and "÷" not in bare.operators else (bare,)
        powers = [f for f in factors if problem.unknown in n.letters(f)]
        if len(powers) != 1 or (len(terms) == 1 and len(factors) == 1 and held[0][0] == "+"):
            continue
        rest = problem.field.constant(0)
        for s, t in terms:
            if problem.unknown not in n.letters(t):
                rest = rest - problem.value(t) if s == "-" else rest + problem.value(t)
        value = problem.value(other) - rest
        scale = problem.field.constant(-1 if held[0][0] == "-" else 1)
        for f in factors:
            if f is not powers[0]:
                scale = scale * problem.value(f)

        term = build.signed(*held[0])
        if not rest.is_zero:
            move = taking_off(shown(rest))
            mine, others = (taken_from(side, shown(rest)) for side in (own, other))
            detail = both(mine, others, own_left)
            paper.write_move(detail, move, shown_at=EVERY)
            paper.write(both(term, shown(value), own_left), move.rule, move.what)
        if scale.constant != 1:
            try:
                base_of((value / scale).constant or Q(0))
            except NotThisWay:
                if (value / scale).constant != 1 and ((value / scale).constant or Q(-1)) > 0:
                    continue
            move = dividing(scale)
            if scale.constant != -1:
                mine, others = (build.quotient(side, move.what) for side in (term, shown(value)))
                detail = both(mine, others, own_left)
                paper.write_move(detail, move, shown_at=EVERY)
            value = value / scale
            paper.write(
                both(powers[0], shown(value), own_left),
                move.rule,
                move.what,
                move=move.text if scale.constant == -1 else None,
            )
        return paper.here.sides()
    return left, right
