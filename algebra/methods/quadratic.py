"""Quadratic equations: by factoring, by square roots, by completing the square, by the formula."""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd, lcm

from algebra.exact.algebraic_numbers import whole_root
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import DomainError, Ratio
from algebra.methods.linear import both, polys_of, simplify_sides
from algebra.methods.moves import beside, dividing, taking_off, undoing
from algebra.methods.polynomials import Factor, Factoring, factoring_of, root_statements
from algebra.methods.surds import Surd, surd_tree
from algebra.methods.terms import Poly, factors_of, number, shown
from algebra.methods.worked_lines import BOARD, BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say, sides_of
from algebra.reports.side_work import Box, QuadraticCoefficients
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted


def is_quadratic(problem: Problem) -> bool:
    """Whether the equation is of the second degree in the unknown, without it in a denominator."""
    try:
        left, right = polys_of(problem)
    except NotThisWay:
        return False
    return Poly.of(left.value - right.value, problem.unknown).degree == 2


def _demand(problem: Problem) -> tuple[Poly, Poly]:
    if not is_quadratic(problem):
        raise NotThisWay("The equation is not quadratic.")
    return polys_of(problem)


def standard_form(paper: WorkedLines) -> Poly:
    """Writes the line … = 0 with whole coefficients without a common factor; returns its left side."""
    current = paper.here
    left_tree, right_tree = current.sides()
    left, right = polys_of(current)
    flipped = _leading(left) < _leading(right) if not (right.is_zero or left.is_zero) else left.is_zero
    kept, moved = (right, left) if flipped else (left, right)
    simplify_sides(paper, left_tree, right_tree)
    total = Poly.of(kept.value - moved.value, current.unknown)
    if not moved.is_zero:
        what = say("{} is taken from both sides", moved.tree)
        paper.write(_zero(total, flipped), "all-on-one-side", what, move=_taken(moved))
    return _small_numbers(paper, total, flipped)


def _taken(moved: Poly) -> str:
    """The move that takes a side away; one that has only minus signs is added instead."""
    terms = [moved.term(k) for k in range(moved.degree, -1, -1) if not moved[k].is_zero]
    if len(terms) == 1:
        return taking_off(terms[0]).text
    return beside("-", moved.tree)


def _leading(poly: Poly) -> Q:
    found = poly[2].constant
    if found is None:
        return Q(1)
    return found if found or poly.degree > 2 else Q(0)


def _zero(poly: Poly, flipped: bool) -> n.Node:
    return both(poly.tree, build.ZERO, not flipped)


def _small_numbers(paper: WorkedLines, total: Poly, flipped: bool) -> Poly:
    """Divides by the common number, or multiplies by the common denominator, −1 taken along."""
    numbers = total.numbers
    if numbers is None:
        return total
    below = lcm(1, *(c.denominator for c in numbers))
    common = gcd(*(int(c * below) for c in numbers))
    sign = -1 if numbers[-1] < 0 else 1
    scale = Q(below * sign, common)
    if scale == 1:
        return total
    smaller = Poly([part * part.field.constant(scale) for part in total.parts], total.unknown)
    times = abs(scale) >= 1 and scale.denominator == 1
    what = number(scale if times else 1 / scale)
    if times:
        paper.write(_zero(smaller, flipped), "multiply-both-sides", what, move=beside("×", what))
    else:
        paper.write(
            _zero(smaller, flipped), "divide-by-common", what, move=beside("÷", what), noticed=("common factor",)
        )
    return smaller


def factoring(problem: Problem) -> WorkedLines:
    """Everything on one side, factored, each factor zero."""
    _demand(problem)
    paper = WorkedLines(problem)
    ready = product_is_zero(problem)
    if ready is not None:
        root_statements(paper, ready)
    else:
        by_factoring(paper, standard_form(paper))
    return paper


def product_is_zero(problem: Problem) -> list[Factor] | None:
    """The factors of an equation that is a product of linear factors equal to 0 already; else None."""
    left, right = problem.sides()
    side = left if problem.value(right).is_zero else right if problem.value(left).is_zero else None
    bare = n.bare(side) if side is not None else None
    if not isinstance(bare, n.Product | n.Power):
        return None
    found = []
    for factor in factors_of(bare):
        power = factor.exponent if isinstance(factor, n.Power) else n.Integer(1)
        base = n.bare(factor.base if isinstance(factor, n.Power) else factor)
        if not isinstance(power, n.Integer):
            return None
        poly = Poly.of(problem.value(base), problem.unknown)
        if poly.degree > 1:
            return None
        if poly.degree == 1:
            found.append((base, poly, power.value))
    return found or None


def by_factoring(paper: WorkedLines, poly: Poly) -> None:
    """From a polynomial equal to 0, already written, to the solutions. Raises NotThisWay where it does not factor."""
    found = factoring_of(poly)
    if found is None:
        raise NotThisWay("It does not factor over the rational numbers.")
    flipped = sides_of(paper.line)[0] == build.ZERO
    write_factoring(paper, found, flipped=flipped)
    root_statements(paper, found.factors)


def write_factoring(paper: WorkedLines, found: Factoring, *, flipped: bool = False) -> None:
    """The lines of a factoring as one side of an equation whose other side is 0."""
    for tree, rule, what, side, shown_at in found.lines:
        line = both(tree, build.ZERO, not flipped)
        paper.write(line, rule if rule != "product-sum" else "factor-side", what, side=side, shown_at=shown_at)


def square_root(problem: Problem) -> WorkedLines:
    """A square alone on one side, the root of both sides with ±."""
    _demand(problem)
    left, right = problem.sides()
    found = square_of(problem, left, right)
    if found is None:
        raise NotThisWay("The unknown does not stand in one square only.")
    paper = WorkedLines(problem)
    isolate_square(paper, *found)
    return paper


def square_of(problem: Problem, left: n.Node, right: n.Node) -> tuple[n.Node, Poly, Poly] | None:
    """The base of the one square that holds the unknown, and both sides as polynomials in that square, called u."""
    bases: dict[n.Node, n.Node] = {}
    letters = 0
    for side in (left, right):
        for part in n.parts_of(side):
            if isinstance(part, n.Power) and part.exponent == n.Integer(2) and problem.unknown in n.letters(part.base):
                bases[n.bare(part.base)] = part
                letters += sum(1 for p in n.parts_of(part) if p == n.Letter(problem.unknown))
    total = sum(1 for side in (left, right) for p in n.parts_of(side) if p == n.Letter(problem.unknown))
    if len(bases) != 1 or letters != total:
        return None
    base, square = next(iter(bases.items()))
    sides = [_with_square(problem, side, square) for side in (left, right)]
    if any(side is None or side.degree > 1 for side in sides):
        return None
    first, second = sides
    assert first is not None
    assert second is not None
    return base, first, second


def _with_square(problem: Problem, tree: n.Node, square: n.Node) -> Poly | None:
    """A side as a polynomial in u, u standing for the square."""
    letter = next(c for c in "uvwzsq" if c not in problem.field.letters)
    from_field = type(problem.field)(tuple(sorted({*problem.field.letters, letter})))
    try:
        return Poly.of(value_of(substituted(tree, {square: n.Letter(letter)}), from_field).ratio, letter)
    except NotThisWay:
        return None


def isolate_square(paper: WorkedLines, base: n.Node, left: Poly, right: Poly) -> None:
    """From A·(base)² + B = C·(base)² + D to the roots."""
    square = build.power(base, 2)

    def side(poly: Poly) -> n.Node:
        parts = [] if poly[1].is_zero else [_multiple(poly[1], square)]
        return build.sum_of([*parts, shown(poly[0])] if not poly[0].is_zero or not parts else parts)

    u = left.unknown
    if not right[1].is_zero and left[1].is_zero:
        left, right = right, left
    if not right[1].is_zero:
        move = taking_off(_multiple(right[1], square))
        left, right = Poly([left[0], left[1] - right[1]], u), Poly([right[0]], u)
        paper.write_move(build.equation(side(left), side(right)), move)
    if not left[0].is_zero:
        move = taking_off(shown(left[0]))
        left, right = Poly([left[0] - left[0], left[1]], u), Poly([right[0] - left[0]], u)
        paper.write_move(build.equation(side(left), side(right)), move)
    coefficient = left[1]
    value = right[0] / coefficient
    line = build.equation(square, shown(value))
    if coefficient.constant != 1:
        c = coefficient.constant
        is_part = c is not None and abs(c.numerator) == 1 and c.denominator != 1
        paper.write_move(line, undoing(coefficient) if is_part else dividing(coefficient))
    elif not paper.steps:
        paper.write(line, "simplify-sides", "both sides worked out")
    take_root(paper, base, value)


def _multiple(coefficient: Ratio, square: n.Node) -> n.Node:
    """A number times a square: `-3(x-1)^2`, `x^2/4`, `(2/3)x^2`."""
    c = coefficient.constant
    return build.product(shown(coefficient), square) if c is None else build.multiple(c, square)


TWO_ROOTS = "the square has two roots, one positive and one negative"


def take_root(paper: WorkedLines, base: n.Node, value: Ratio) -> None:
    """From (base)² = value to the solutions; the base is linear in the unknown."""
    x = paper.problem.unknown
    alone = base == n.Letter(x)
    inner = Poly.of(paper.problem.value(base), x)
    a, b = inner[1].constant, inner[0].constant
    constant = value.constant
    if constant is None or a is None or b is None:
        _root_with_letters(paper, inner, value)
        return
    if constant < 0 and not paper.problem.complex:
        what = say("{} is negative", number(constant))
        paper.write(ln.NoSolution(), "no-real-root", what, shown_at=BRIEF, noticed=("no solution",))
        paper.answer = []
        return
    surd = Surd.root(constant)
    if constant == 0:
        zero = build.equation(base, build.ZERO)
        paper.write(zero, "root-both-sides", "the square of a number is 0 only for 0", move="root")
        solution = number(-b / a)
        if not alone:
            paper.write(build.solutions(x, [solution]), "read-solution", "the bracket is 0")
        paper.answer = [solution]
        return
    raw = build.root(number(constant))
    whole = surd.radicand == 1 and not surd.imaginary
    paper.write(
        build.equation(base, n.Signed("±", raw)),
        "root-both-sides",
        TWO_ROOTS,
        move="root",
        shown_at=BOARD if not alone or not whole else EVERY,
    )
    paper.write(
        build.equation(base, n.Signed("±", surd_tree(surd))),
        "root-of-square" if whole else "simplify-root-in-solution",
        build.equation(raw, surd_tree(surd)),
    )
    finish_plus_minus(paper, -b / a, surd.times(1 / abs(a)), None if alone else inner)


def finish_plus_minus(paper: WorkedLines, middle: Q, surd: Surd, inner: Poly | None) -> None:
    """From base = ±s to x = m ± s/a and the two solutions; `inner` is the base where it is not the unknown itself."""
    x = paper.problem.unknown
    sign = paper.problem.convention("solutions")
    if inner is not None:
        a, b = inner[1].constant, inner[0].constant
        assert a is not None
        assert b is not None
        if b:
            scaled = surd_tree(surd.times(abs(a)))
            line = build.equation(inner.term(1), build.plus_minus(number(-b), scaled))
            paper.write_move(line, taking_off(number(b)))
        if a != 1:
            line = build.equation(n.Letter(x), _with_middle(middle, surd, "±"))
            paper.write_move(line, dividing(inner[1]))
    if surd.is_rational:
        _both_sums(paper)
        paper.answer = [number(middle + surd.rational), number(middle - surd.rational)]
    else:
        paper.answer = [_with_middle(middle, surd, "+"), _with_middle(middle, surd, "-")]
        if sign == "plus-minus":
            return
    paper.write(build.solutions(x, paper.answer), "split-plus-minus", shown_at=BRIEF)


def _both_sums(paper: WorkedLines) -> None:
    """x = -2 ± 5 as x = -2 + 5 or x = -2 - 5, at the finest grain."""
    left, right = sides_of(paper.line)

    def taken(node: n.Node, sign: str) -> n.Node:
        match node:
            case n.Sum(terms, signs) if "±" in signs:
                return n.Sum(terms, tuple(sign if s == "±" else s for s in signs))
            case n.Signed("±", child):
                return build.signed(sign, child)
        children = tuple(taken(child, sign) for child in node.children)
        return node.with_children(children) if children else node

    if any(isinstance(p, n.Sum) and "±" in p.signs for p in n.parts_of(right)):
        cases = [build.equation(left, taken(right, sign)) for sign in "+-"]
        paper.write(build.alternatives(cases), "split-plus-minus", shown_at=EVERY)


def _with_middle(middle: Q, surd: Surd, sign: str) -> n.Node:
    """`3 + √5`, `(1 ± √5)/2`, `-√7`: a rational number and a root over one denominator."""
    if middle == 0:
        return build.signed(sign, surd_tree(surd))
    below = lcm(middle.denominator, surd.coefficient.denominator)
    top = n.Sum((number(middle * below), surd_tree(surd.times(below))), (sign,))
    return build.quotient(top, number(below))


def _root_with_letters(paper: WorkedLines, inner: Poly, value: Ratio) -> None:
    x = paper.problem.unknown
    tree = _square_root(value) or build.root(shown(value))
    rest = shown(-inner[0])
    paper.write(build.equation(inner.tree, n.Signed("±", tree)), "root-both-sides", TWO_ROOTS, move="root")
    if not inner[0].is_zero:
        line = build.equation(inner.term(1), n.Sum((rest, tree), ("±",)))
        paper.write_move(line, taking_off(shown(inner[0])))
    if inner[1].constant != 1:
        raise NotThisWay("The bracket holds a coefficient beside letters.")
    if inner[0].is_zero:
        paper.answer = [tree, build.opposite(tree)]
    else:
        paper.answer = [build.sum_of([rest, tree]), build.sum_of([rest, build.opposite(tree)])]
    paper.write(build.solutions(x, paper.answer), "split-plus-minus", shown_at=BRIEF)


def completing_the_square(problem: Problem) -> WorkedLines:
    """x² + bx = c with the square of half of b added on both sides."""
    _demand(problem)
    paper = WorkedLines(problem)
    x = problem.unknown
    if _square_stands(paper):
        return paper
    poly = _under_way(problem) or standard_form(paper)
    numbers = poly.numbers
    if numbers is None:
        raise NotThisWay("The coefficients hold letters.")
    c, b, a = numbers
    if b == 0:
        raise NotThisWay("There is no term in the first power, so there is no square to complete.")
    constant = problem.field.constant
    if a != 1:
        b, c = b / a, c / a
        poly = Poly([constant(c), constant(b), constant(1)], x)
        line = build.equation(poly.tree, build.ZERO)
        paper.write_move(line, dividing(constant(a)), noticed=("leading coefficient",))
    square_part = Poly([constant(0), constant(b), constant(1)], x).tree
    if c and _under_way(paper.here) is None:
        paper.write_move(build.equation(square_part, number(-c)), taking_off(number(c)))
    half = b / 2
    added = number(half * half)
    box = Box(plain(number(half)), plain(added), plain(number(b)))
    right = build.sum_of([number(-c), added]) if c else added
    paper.write(
        build.equation(build.sum_of([square_part, added]), right),
        "complete-the-square",
        number(half),
        side=[box],
        move=beside("+", added),
        half=number(b),
        square=added,
    )
    base = Poly([constant(half), constant(1)], x).tree
    value = half * half - c
    write_as_square(paper, base, constant(value))
    return paper


def write_as_square(paper: WorkedLines, base: n.Node, value: Ratio) -> None:
    """From a square written out to (base)² = value, and on to the solutions."""
    square = build.power(base, 2)
    paper.write(build.equation(square, shown(value)), "write-as-square", square)
    take_root(paper, base, value)


def _square_stands(paper: WorkedLines) -> bool:
    """Whether the given is a square (written so, or to be written so) equal to a number; then goes on from there."""
    problem = paper.problem
    left, right = problem.sides()
    found = square_of(problem, left, right)
    if found is not None and found[0] != n.Letter(problem.unknown):
        isolate_square(paper, *found)
        return True
    first, second = polys_of(problem)
    numbers = first.numbers
    if numbers is None or first.degree != 2 or second.degree or second.parts[0].constant is None or second.is_zero:
        return False
    c, b, a = numbers
    front = whole_root(a.numerator, 2) if a > 0 and a.denominator == 1 else None
    if front is None or b == 0 or b * b != 4 * a * c:
        return False
    value = second.parts[0]
    base = Poly([problem.field.constant(b / (2 * front)), problem.field.constant(front)], problem.unknown).tree
    write_as_square(paper, base, value)
    return True


def _under_way(problem: Problem) -> Poly | None:
    """x² + bx − c where the given reads x² + bx = c already; else None."""
    left, right = polys_of(problem)
    if left.degree != 2 or right.degree or left[2].constant != 1 or not left[0].is_zero or left[1].is_zero:
        return None
    return Poly([-right[0], left[1], left[2]], problem.unknown)


def quadratic_formula(problem: Problem) -> WorkedLines:
    """x = (−b ± √(b² − 4ac))/(2a)."""
    _demand(problem)
    paper = WorkedLines(problem)
    by_formula(paper, standard_form(paper))
    return paper


def by_formula(paper: WorkedLines, poly: Poly) -> None:
    """From a quadratic equal to 0, already written, to the solutions by the formula. Raises NotThisWay for coefficients
    with letters."""
    x = n.Letter(paper.problem.unknown)
    numbers = poly.numbers
    if numbers is None:
        raise NotThisWay("The coefficients hold letters.")
    c, b, a = numbers
    trees = [number(v) for v in (a, b, c)]
    four_ac = 4 * a * c
    below = number(2 * a)
    inside = build.sum_of(
        [
            build.power(trees[1], 2),
            n.Signed("-", build.dotted(n.Integer(4), trees[0], trees[2])),
        ]
    )
    what = say("a = {}, b = {}, c = {}", *trees)
    first = n.Sum((number(-b), build.root(inside)), ("±",))
    paper.write(
        build.equation(x, build.quotient(first, build.dotted(n.Integer(2), trees[0]))),
        "quadratic-formula",
        what,
        side=[QuadraticCoefficients(plain(trees[0]), plain(trees[1]), plain(trees[2]))],
    )
    d = b * b - four_ac
    worked = build.sum_of([number(b * b), number(-four_ac)]) if four_ac else number(b * b)

    def line(root: n.Node) -> n.Node:
        return build.equation(x, build.quotient(build.plus_minus(number(-b), root), below))

    paper.write(line(build.root(worked)), "quadratic-formula", what)
    discriminant = build.equation(worked, number(d))
    if d < 0 and not paper.problem.complex:
        paper.write(
            ln.NoSolution(),
            "no-real-root",
            say("the discriminant {} is negative", discriminant),
            shown_at=BRIEF,
            noticed=("no solution",),
        )
        paper.answer = []
        return
    if d == 0:
        paper.answer = [number(-b / (2 * a))]
        line_of = build.solutions(paper.problem.unknown, paper.answer)
        paper.write(line_of, "discriminant", "the discriminant is 0, so both roots are the same", shown_at=BRIEF)
        return
    raw = build.root(number(d))
    paper.write(line(raw), "discriminant", discriminant)
    surd = Surd.root(d)
    inner = surd_tree(surd)
    if inner != raw:
        paper.write(
            line(inner), "simplify-root-in-solution", build.equation(raw, inner), shown_at=BOARD if d != 1 else EVERY
        )
    middle, part = -b / (2 * a), surd.times(1 / abs(2 * a))
    if not surd.is_rational:
        common = gcd(int(b), int(surd.coefficient), int(2 * a)) if surd.coefficient.denominator == 1 else 1
        paper.write(build.equation(x, _with_middle(middle, part, "±")), "reduce-solution", number(common))
    finish_plus_minus(paper, middle, part, None)


def _square_root(value: Ratio) -> n.Node | None:
    """The root of an expression that is a square, as a factor; with ± in front the sign of a letter does not matter."""
    try:
        roots = [value.numerator.sqrt(), value.denominator.sqrt()]
    except DomainError:
        return None
    return build.factor(shown(value.field.ratio(*roots)))
