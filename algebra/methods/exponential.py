"""Exponential equations: one base on both sides, or a polynomial in one power."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction as Q
from math import gcd

from algebra.exact.cell import Cell
from algebra.exact.cells import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.numbers import prime_factors
from algebra.exact.ratio import Ratio, depends_on, field_of
from algebra.exact.ratio import factored as factors_of_poly
from algebra.exact.values import value_of
from algebra.methods.linear import simplify_sides, undo
from algebra.methods.paper import BRIEF, NotThisWay, Paper, Problem
from algebra.methods.polynomials import factoring_of
from algebra.methods.quadratic import poly_of, standard_form
from algebra.methods.surds import Surd, surd_text
from algebra.methods.terms import Poly, joined, number, shown, terms_of, wrapped
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def base_of(value: Q) -> tuple[Q, int]:
    """(b, k) with value = b^k and k as large as possible; 1/8 is (2, −3). Raises NotThisWay for 1, 0 and negatives."""
    if value <= 0 or value == 1:
        raise NotThisWay("A base must be positive and not 1.")
    if value < 1 and value.numerator == 1:
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
    """A product of powers of one base: base^(sum of parts); `texts` are its factors written with that base."""

    base: Q
    exponent: Poly
    texts: tuple[str, ...]


def product_of(problem: Problem, tree: n.Node) -> Product:
    """Raises NotThisWay where the side is no product of powers of one base."""
    x = problem.unknown
    total: Ratio = problem.field.constant(0)
    bases: set[Q] = set()
    texts: list[str] = []
    for factor, way in _factors(tree):
        base_value, exponent = _power(problem, factor)
        if base_value == 1:
            continue
        base, count = base_of(base_value)
        bases.add(base)
        piece = exponent * problem.field.constant(count * way)
        total = total + piece
        inner = Poly.of(exponent, x)
        if way * count == 1:
            exponent_text = str(inner)
        elif inner.degree == 0:
            exponent_text = shown(piece)
        else:
            exponent_text = f"{'-' if way * count == -1 else way * count}{wrapped(str(inner))}"
        texts.append(_power_text(base, exponent_text))
    if len(bases) > 1:
        raise NotThisWay("The bases are no powers of one number.")
    if not bases:
        return Product(Q(1), Poly([total], x), ("1",))
    return Product(bases.pop(), Poly.of(total, x), tuple(texts))


def _power_text(base: Q, exponent: str) -> str:
    below = number(base) if base.denominator == 1 else f"({number(base)})"
    if exponent == "1":
        return below
    return f"{below}^{exponent}" if len(exponent) == 1 else f"{below}^({exponent})"


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
    if isinstance(bare, n.Root) and not n.letters(bare):
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
    try:
        sides = problem.sides()
    except NotThisWay:
        return False
    return any(
        isinstance(p, n.Power) and problem.unknown in n.letters(p.exponent) for side in sides for p in n.parts_of(side)
    ) and not any(
        problem.unknown in n.letters(p.base) for side in sides for p in n.parts_of(side) if isinstance(p, n.Power)
    )


def common_base(problem: Problem) -> Paper:
    """Both sides as powers of one base, then equal exponents."""
    if not is_exponential(problem):
        raise NotThisWay("The unknown stands in no exponent.")
    left_tree, right_tree = problem.sides()
    paper = Paper(problem)
    left_tree, right_tree = _one_power_each(paper, left_tree, right_tree)
    if _negative(problem, left_tree, right_tree):
        value = left_tree if not n.letters(left_tree) else right_tree
        paper.write("no solution", "power-never-negative", f"no power of a positive number is {plain(value)}", shown_at=BRIEF,
                    noticed=("no solution",))  # fmt: skip
        return paper
    left, right = product_of(problem, left_tree), product_of(problem, right_tree)
    bases = {side.base for side in (left, right)} - {Q(1)}
    if len(bases) != 1:
        raise NotThisWay("The two sides are no powers of one number.")
    base = bases.pop()
    sides = []
    for side in (left, right):
        sides.append(_power_text(base, "0") if side.base == 1 else "·".join(side.texts))
    what = f"every number here is a power of {number(base)}"
    paper.write(" = ".join(sides), "common-base", what)
    combined = [_power_text(base, str(side.exponent)) for side in (left, right)]
    if any(len(side.texts) > 1 for side in (left, right)):
        paper.write(" = ".join(combined), "product-of-powers", "the exponents of each side put together")
    exponents = []
    for side in (left, right):
        text = side.texts[0].partition("^")[2] if len(side.texts) == 1 and "^" in side.texts[0] else str(side.exponent)
        exponents.append(text[1:-1] if text.startswith("(") and text.endswith(")") and text.count("(") == 1 else text)
    if all(len(side.texts) == 1 for side in (left, right)):
        exponents = [_outer(text) for text in exponents]
    paper.write(" = ".join(exponents), "equate-exponents", number(base))
    simplify_sides(paper, *problem.with_given(paper.line).sides())
    first, second = poly_of(problem.with_given(paper.line))
    if max(first.degree, second.degree) > 1:
        raise NotThisWay("The exponents are not linear.")
    undo(paper, first, second, ladder=False)
    return paper


def _outer(text: str) -> str:
    """The text without a pair of brackets around all of it."""
    if not (text.startswith("(") and text.endswith(")")):
        return text
    depth = 0
    for k, c in enumerate(text):
        depth += (c == "(") - (c == ")")
        if depth == 0 and k < len(text) - 1:
            return text
    return text[1:-1]


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


def _one_power_each(paper: Paper, left: n.Node, right: n.Node) -> tuple[n.Node, n.Node]:
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

        def line(a: str, b: str, first: bool = own_left) -> str:
            return f"{a} = {b}" if first else f"{b} = {a}"

        term_text = plain(held[0][1]) if held[0][0] == "+" else f"-{plain(held[0][1])}"
        if not rest.is_zero:
            what = shown(rest)
            minus = what.startswith("-")
            what = what[1:] if minus else what
            paper.write(line(term_text, shown(value)), "add-to-both-sides" if minus else "subtract-from-both-sides", what,
                        move=f"{'+' if minus else '-'}{wrapped(what)}")  # fmt: skip
        if scale.constant != 1:
            try:
                base_of((value / scale).constant or Q(0))
            except NotThisWay:
                if (value / scale).constant != 1 and ((value / scale).constant or Q(-1)) > 0:
                    continue
            value = value / scale
            what = shown(scale)
            paper.write(line(plain(powers[0]), shown(value)), "divide-both-sides", what, move=f"÷{wrapped(what)}")
        new = problem.with_given(paper.line)
        return new.sides()
    return left, right


def substitution(problem: Problem) -> Paper:
    """A polynomial in one power of the unknown, named by a letter, solved, put back."""
    left, right = problem.sides()
    power = _repeated_power(problem)
    if power is not None:
        return _by_letter_power(problem, power)
    if not is_exponential(problem):
        raise NotThisWay("Nothing repeats that could be named by a letter.")
    plan = plan_of([left, right], imaginary=False)
    if plan is None:
        raise NotThisWay("The unknown stands in no exponent.")
    x = problem.unknown
    cell = Cell((x,), plan, {x: Q(2)}, {}, formal=True)
    try:
        difference = value_of(left, cell).ratio - value_of(right, cell).ratio
    except ExactError as error:
        raise NotThisWay(error.message) from None
    powers = [g for g in cell.made.values() if g.relation is None]
    if len(powers) == 2:
        return _by_groups(problem, cell, difference)
    if len(powers) != 1 or depends_on(cell.norm(difference.numerator), x):
        raise NotThisWay("It is no polynomial in one power.")
    made = powers[0]
    letter = next(c for c in "uvwzt" if c not in problem.field.letters)
    flat = field_of((letter,))
    parts: dict[int, Q] = {}
    for monomial, c in difference.numerator.to_dict().items():
        if sum(monomial) != monomial[made.position]:
            raise NotThisWay("It is no polynomial in one power.")
        parts[int(monomial[made.position])] = Q(int(c))
    step = gcd(*(k for k in parts if k)) or 1
    count = Q(step, plan.step)
    degree = max(parts) // step
    if degree < 2:
        raise NotThisWay("Only one power of the unknown occurs.")
    poly = Poly([flat.constant(parts.get(k * step, Q(0))) for k in range(degree + 1)], letter)
    if (poly.numbers or [Q(0)])[-1] < 0:
        poly = Poly([-c for c in poly.parts], letter)
    exponent = x if count == 1 else f"({number(count)}{x})" if count.denominator == 1 else f"({x}/{count.denominator})"
    power_text = f"{made.prime}^{exponent}"
    paper = Paper(problem)
    rewritten = []
    for k in range(degree, -1, -1):
        coefficient = poly[k].constant
        if not coefficient:
            continue
        body = "" if k == 0 else power_text if k == 1 else f"({power_text})^{k}"
        size = abs(coefficient)
        text = number(size) if not body else body if size == 1 else f"{number(size)}·{body}"
        rewritten.append(f"-{text}" if coefficient < 0 else text)
    paper.write(
        f"{joined(rewritten)} = 0",
        "common-base",
        f"every power here is a power of {power_text}",
        noticed=("substitution",),
    )
    return _named(paper, letter, power_text, poly, lambda value: _from_power(Q(made.prime), count, value))


def _from_power(base: Q, count: Q, value: Q) -> str | None:
    """The x with base^(count·x) = value, or None where it is no rational number."""
    if value == 1:
        return "0"
    try:
        own, power = base_of(value)
        low, low_power = base_of(base)
    except NotThisWay:
        return None
    if own != low:
        return None
    return number(Q(power, low_power) / count)


def _named(paper: Paper, letter: str, power: str, poly: Poly, back: object) -> Paper:
    """let u = …; the equation in u; its roots; back to the unknown."""
    x = paper.problem.unknown
    paper.write(f"let {letter} = {power}", "substitute", power, kind="definition")
    paper.write(f"{poly} = 0", "substitute", power)
    found = factoring_of(poly)
    if found is None:
        raise NotThisWay("The equation in the new letter does not factor.")
    for text, rule, what, side in found.lines:
        paper.write(f"{text} = 0", rule if rule != "product-sum" else "factor-side", what, side=side)
    if any(p.degree != 1 for _, p, _ in found.factors):
        raise NotThisWay("The equation in the new letter does not factor into linear factors.")
    roots = [(-p[0] / p[1]).constant for _, p, _ in found.factors]
    if len(found.factors) > 1:
        paper.write(" or ".join(f"{text} = 0" for text, _, _ in found.factors), "zero-product")
    paper.write(
        " or ".join(f"{letter} = {number(r or Q(0))}" for r in roots), "read-solution", "each factor gives its root"
    )
    paper.write(" or ".join(f"{power} = {number(r or Q(0))}" for r in roots), "substitute-back", power)
    assert callable(back)
    values: list[str] = []
    for r in roots:
        got = back(r or Q(0))
        if got is None and (r or Q(0)) > 0:
            raise NotThisWay("A root of the equation in the new letter leads to no nice value.")
        values += [got] if isinstance(got, str) else got or []
    low = [number(r or Q(0)) for r in roots if not back(r or Q(0))]
    paper.answer = list(dict.fromkeys(values))
    text = " or ".join(f"{x} = {v}" for v in paper.answer) if paper.answer else "no solution"
    if low:
        rule = "no-real-root" if power.startswith(x) else "power-never-negative"
        paper.write(
            text, rule, f"{power} = {' and '.join(low)} has no solution", shown_at=BRIEF, noticed=("no solution",)
        )
    else:
        paper.write(text, "read-solution", "each equation gives its solution", shown_at=BRIEF)
    return paper


def _repeated_power(problem: Problem) -> int | None:
    """k where the equation is a polynomial of degree 2 in x^k; None otherwise."""
    try:
        left, right = poly_of(problem)
    except (NotThisWay, ExactError):
        return None
    difference = Poly.of(left.value - right.value, problem.unknown)
    used = [k for k, c in enumerate(difference.parts) if not c.is_zero]
    if len(used) == 3 and used[0] == 0 and used[2] == 2 * used[1] and used[1] > 1:
        return used[1]
    return None


def _by_letter_power(problem: Problem, power: int) -> Paper:
    paper = Paper(problem)
    total = standard_form(paper)
    letter = next(c for c in "uvwzt" if c not in problem.field.letters)
    flat = field_of((letter,))
    numbers = total.numbers
    if numbers is None:
        raise NotThisWay("The coefficients hold letters.")
    poly = Poly([flat.constant(numbers[k * power]) for k in range(3)], letter)
    x = problem.unknown

    def back(value: Q) -> list[str]:
        if power % 2 and value:
            try:
                base, count = base_of(abs(value)) if abs(value) != 1 else (Q(1), power)
            except NotThisWay:
                raise NotThisWay("A root leads to no nice value.") from None
            if count % power:
                raise NotThisWay("A root leads to no nice value.")
            return [number(base ** (count // power) * (1 if value > 0 else -1))]
        if value < 0:
            return []
        if power != 2:
            raise NotThisWay("Only squares and cubes are put back here.")
        if value == 0:
            return ["0"]
        text = surd_text(Surd.root(value))
        return [text, f"-{text}"]

    return _named(paper, letter, f"{x}^{power}", poly, back)


def _by_groups(problem: Problem, cell: Cell, difference: Ratio) -> Paper:
    """Two different powers whose equation factors: a^x·b^x − … grouped in pairs."""
    x = problem.unknown
    content, factors = factors_of_poly(difference.numerator)
    paper = Paper(problem)
    texts, answers = [], []
    for factor, times in factors:
        used = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
        if len(used) != 1 or len(factor) != 2 or times != 1:
            raise NotThisWay("It does not factor in groups.")
        made = used[0]
        parts = {int(m[made.position]): int(c) for m, c in factor.to_dict().items()}
        degree = max(parts)
        value = Q(-parts.get(0, 0), parts[degree])
        count = Q(degree, cell.plan.step)
        got = _from_power(Q(made.prime), count, value) if value > 0 else None
        exponent = x if count == 1 else f"({number(count)}{x})"
        sign = "-" if value > 0 else "+"
        lead = "" if abs(parts[degree]) == 1 else f"{abs(parts[degree])}·"
        texts.append(f"({lead}{made.prime}^{exponent} {sign} {number(abs(Q(parts.get(0, 0))))})")
        answers.append(got)
    if len(texts) < 2:
        raise NotThisWay("It does not factor in groups.")
    if abs(content) != 1:
        texts.insert(0, str(abs(content)))
    if plain(problem.sides()[1]) != "0":
        raise NotThisWay("One side must be 0.")
    paper.write(f"{''.join(texts)} = 0", "group-in-pairs", "the powers in pairs", noticed=("grouping",))
    own = [t[1:-1] for t in texts if t.startswith("(")]
    paper.write(" or ".join(f"{t} = 0" for t in own), "zero-product")
    paper.answer = list(dict.fromkeys(a for a in answers if a is not None))
    text = " or ".join(f"{x} = {v}" for v in paper.answer) if paper.answer else "no solution"
    paper.write(text, "read-solution", "each factor gives its solution", shown_at=BRIEF)
    return paper
