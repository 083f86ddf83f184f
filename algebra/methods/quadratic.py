"""Quadratic equations: by factoring, by square roots, by completing the square, by the formula."""

from __future__ import annotations

from fractions import Fraction as Q
from math import gcd, lcm

from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import DomainError, Ratio
from algebra.methods.linear import simplify_sides
from algebra.methods.paper import BOARD, BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.polynomials import factoring_of, root_statements
from algebra.methods.surds import Surd, surd_text
from algebra.methods.terms import Poly, factors_of, number, opposite, shown, wrapped
from algebra.reports.side_work import Box, QuadraticCoefficients
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def poly_of(problem: Problem) -> tuple[Poly, Poly]:
    """Both sides as polynomials in the unknown. Raises NotThisWay."""
    left, right = problem.sides()
    return Poly.of(problem.value(left), problem.unknown), Poly.of(problem.value(right), problem.unknown)


def is_quadratic(problem: Problem) -> bool:
    try:
        left, right = poly_of(problem)
    except NotThisWay:
        return False
    return Poly.of(left.value - right.value, problem.unknown).degree == 2


def _demand(problem: Problem) -> tuple[Poly, Poly]:
    if not is_quadratic(problem):
        raise NotThisWay("The equation is not quadratic.")
    return poly_of(problem)


def standard_form(paper: Paper) -> Poly:
    """Writes the line … = 0 with whole coefficients without a common factor; returns its left side."""
    problem = paper.problem
    x = problem.unknown
    current = problem.with_given(paper.line)
    left_tree, right_tree = current.sides()
    left, right = poly_of(current)
    if not (right.is_zero or left.is_zero):
        simplify_sides(paper, left_tree, right_tree)
        flipped = _leading(left) < _leading(right)
        total = Poly.of((right.value - left.value) if flipped else (left.value - right.value), x)
        moved = left if flipped else right
        paper.write(_zero(total, flipped), "all-on-one-side", f"{moved} is taken from both sides",
                    move=f"-{wrapped(str(moved))}" if not str(moved).startswith("-") or "+" in str(moved) else
                    f"+{opposite(str(moved))}" if not _is_long(moved) else f"-({moved})")  # fmt: skip
    else:
        flipped = left.is_zero
        total = right if flipped else left
        simplify_sides(paper, left_tree, right_tree)
    return _small_numbers(paper, total, flipped)


def _is_long(poly: Poly) -> bool:
    return sum(not part.is_zero for part in poly.parts) > 1


def _leading(poly: Poly) -> Q:
    found = poly[2].constant
    if found is None:
        return Q(1)
    return found if found or poly.degree > 2 else Q(0)


def _zero(poly: Poly, flipped: bool) -> str:
    return f"0 = {poly}" if flipped else f"{poly} = 0"


def _small_numbers(paper: Paper, total: Poly, flipped: bool) -> Poly:
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
    rule = "multiply-both-sides" if times else "divide-by-common"
    paper.write(_zero(smaller, flipped), rule, what, move=f"{'×' if times else '÷'}{wrapped(what)}",
                noticed=("common factor",) if not times else ())  # fmt: skip
    return smaller


def factoring(problem: Problem) -> Paper:
    """Everything on one side, factored, each factor zero."""
    _demand(problem)
    paper = Paper(problem)
    ready = product_is_zero(problem)
    if ready is not None:
        root_statements(paper, ready)
    else:
        by_factoring(paper, standard_form(paper))
    return paper


def product_is_zero(problem: Problem) -> list[tuple[str, Poly, int]] | None:
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
            found.append((plain(base), poly, power.value))
    return found or None


def by_factoring(paper: Paper, poly: Poly) -> None:
    """From a polynomial equal to 0, already written, to the solutions. Raises NotThisWay where it does not factor."""
    found = factoring_of(poly)
    if found is None:
        raise NotThisWay("It does not factor over the rational numbers.")
    flipped = paper.line.startswith("0 =")
    for text, rule, what, side in found.lines:
        paper.write(f"0 = {text}" if flipped else f"{text} = 0", rule if rule != "product-sum" else "factor-side", what,
                    side=side)  # fmt: skip
    root_statements(paper, found.factors)


def square_root(problem: Problem) -> Paper:
    """A square alone on one side, the root of both sides with ±."""
    _demand(problem)
    left, right = problem.sides()
    found = square_of(problem, left, right)
    if found is None:
        raise NotThisWay("The unknown does not stand in one square only.")
    paper = Paper(problem)
    isolate_square(paper, *found)
    return paper


def square_of(problem: Problem, left: n.Node, right: n.Node) -> tuple[str, Poly, Poly] | None:
    """The base of the one square that holds the unknown, and both sides as polynomials in that square, called u."""
    bases: dict[str, n.Node] = {}
    letters = 0
    for side in (left, right):
        for part in n.parts_of(side):
            if isinstance(part, n.Power) and part.exponent == n.Integer(2) and problem.unknown in n.letters(part.base):
                bases[plain(n.bare(part.base))] = part
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

    def put(node: n.Node) -> n.Node:
        return n.Letter(letter) if node == square else node.with_children(tuple(put(c) for c in node.children))

    from_field = type(problem.field)(tuple(sorted({*problem.field.letters, letter})))
    try:
        return Poly.of(value_of(put(tree), from_field).ratio, letter)
    except NotThisWay:
        return None


def isolate_square(paper: Paper, base: str, left: Poly, right: Poly) -> None:
    """From A·(base)² + B = C·(base)² + D to the roots."""
    square = f"({base})^2" if len(base) > 1 else f"{base}^2"

    def side(poly: Poly) -> str:
        parts = []
        if not poly[1].is_zero:
            c = poly[1].constant
            if c is None:
                parts.append(f"{wrapped(shown(poly[1]))}{square}")
            elif abs(c) == 1:
                parts.append(square if c > 0 else f"-{square}")
            elif abs(c.numerator) == 1:
                parts.append(f"{'-' if c < 0 else ''}{square}/{c.denominator}")
            else:
                parts.append(f"{number(c) if c.denominator == 1 else '(' + number(c) + ')'}{square}")
        if not poly[0].is_zero or not parts:
            parts.append(shown(poly[0]))
        return (
            parts[0] if len(parts) == 1 else f"{parts[0]} {'-' if parts[1][0] == '-' else '+'} {parts[1].lstrip('-')}"
        )

    u = left.unknown
    if not right[1].is_zero and left[1].is_zero:
        left, right = right, left
    if not right[1].is_zero:
        text = side(Poly([right[1] - right[1], right[1]], u))
        left, right = Poly([left[0], left[1] - right[1]], u), Poly([right[0]], u)
        paper.write(
            f"{side(left)} = {side(right)}",
            "subtract-from-both-sides",
            text,
            move=f"-{text}" if text[0] != "-" else f"+{text[1:]}",
        )
    if not left[0].is_zero:
        what = shown(left[0])
        minus = what.startswith("-")
        what = opposite(what) if minus else what
        left, right = Poly([left[0] - left[0], left[1]], u), Poly([right[0] - left[0]], u)
        paper.write(f"{side(left)} = {side(right)}", "add-to-both-sides" if minus else "subtract-from-both-sides", what,
                    move=f"{'+' if minus else '-'}{wrapped(what)}")  # fmt: skip
    coefficient = left[1]
    value = right[0] / coefficient
    if coefficient.constant != 1:
        c = coefficient.constant
        if c is not None and abs(c.numerator) == 1 and c.denominator != 1:
            what = number(1 / c)
            paper.write(f"{square} = {shown(value)}", "multiply-both-sides", what, move=f"×{wrapped(what)}")
        else:
            what = shown(coefficient)
            paper.write(f"{square} = {shown(value)}", "divide-both-sides", what, move=f"÷{wrapped(what)}")
    elif paper.line != f"{square} = {shown(value)}" and not paper.steps:
        paper.write(f"{square} = {shown(value)}", "simplify-sides", "both sides worked out")
    take_root(paper, base, value)


def take_root(paper: Paper, base: str, value: Ratio) -> None:
    """From (base)² = value to the solutions; the base is linear in the unknown."""
    x = paper.problem.unknown
    inner = Poly.of(paper.problem.value(paper.problem.with_given(base).body), x)
    a, b = inner[1].constant, inner[0].constant
    constant = value.constant
    if constant is None or a is None or b is None:
        _root_with_letters(paper, inner, value)
        return
    if constant < 0 and not paper.problem.complex:
        paper.write(
            "no solution", "no-real-root", f"{number(constant)} is negative", shown_at=BRIEF, noticed=("no solution",)
        )
        paper.answer = []
        return
    surd = Surd.root(constant)
    if constant == 0:
        paper.write(f"{base} = 0", "root-both-sides", "the square of a number is 0 only for 0", move="root")
        solution = -b / a
        if base != x:
            paper.write(f"{x} = {number(solution)}", "read-solution", "the bracket is 0")
        paper.answer = [number(solution)]
        return
    raw = f"√{number(constant)}" if constant.denominator == 1 else f"√({number(constant)})"
    whole = surd.radicand == 1 and not surd.imaginary
    paper.write(f"{base} = ±{raw}", "root-both-sides", "the square has two roots, one positive and one negative", move="root",
                shown_at=BOARD if base != x or not whole else EVERY)  # fmt: skip
    paper.write(f"{base} = ±{surd_text(surd)}", "root-of-square" if whole else "simplify-root-in-solution",
                f"{raw} = {surd_text(surd)}")  # fmt: skip
    finish_plus_minus(paper, -b / a, surd.times(1 / abs(a)), base != x, inner)


def finish_plus_minus(paper: Paper, middle: Q, surd: Surd, isolate: bool, inner: Poly) -> None:
    """From base = ±s to x = m ± s/a and the two solutions."""
    x = paper.problem.unknown
    sign = paper.problem.convention("solutions")
    if isolate:
        a, b = inner[1].constant, inner[0].constant
        assert a is not None
        assert b is not None
        scaled = surd.times(abs(a))
        if b:
            what = number(abs(b))
            line = f"{Poly([inner[0] - inner[0], inner[1]], x)} = {number(-b)} ± {surd_text(scaled)}"
            paper.write(line, "add-to-both-sides" if b < 0 else "subtract-from-both-sides", what,
                        move=f"{'+' if b < 0 else '-'}{what}")  # fmt: skip
        if a != 1:
            _over(paper, middle, surd, a)
    if surd.is_rational:
        low, high = middle - surd.rational, middle + surd.rational
        paper.write(f"{x} = {number(high)} or {x} = {number(low)}", "split-plus-minus", shown_at=BRIEF)
        paper.answer = [number(high), number(low)]
        return
    high_text, low_text = _with_middle(middle, surd, "+"), _with_middle(middle, surd, "-")
    paper.answer = [high_text, low_text]
    if sign == "plus-minus":
        return
    paper.write(f"{x} = {high_text} or {x} = {low_text}", "split-plus-minus", shown_at=BRIEF)


def _over(paper: Paper, middle: Q, surd: Surd, a: Q) -> None:
    x = paper.problem.unknown
    what = number(a)
    paper.write(f"{x} = {_with_middle(middle, surd, '±')}", "divide-both-sides", what, move=f"÷{wrapped(what)}")


def _with_middle(middle: Q, surd: Surd, sign: str) -> str:
    """`3 + √5`, `(1 ± √5)/2`, `-√7`: a rational number and a root over one denominator."""
    if middle == 0:
        text = surd_text(surd)
        return f"±{text}" if sign == "±" else text if sign == "+" else opposite(text)
    below = lcm(middle.denominator, surd.coefficient.denominator)
    if below == 1:
        return f"{number(middle)} {sign} {surd_text(surd)}"
    return f"({number(middle * below)} {sign} {surd_text(surd.times(below))})/{below}"


def _root_with_letters(paper: Paper, inner: Poly, value: Ratio) -> None:
    x = paper.problem.unknown
    text = shown(value)
    whole = _square_root(value)
    tree = whole or (f"√({text})" if len(text) > 1 else f"√{text}")
    paper.write(
        f"{inner} = ±{tree}", "root-both-sides", "the square has two roots, one positive and one negative", move="root"
    )
    if not inner[0].is_zero:
        what = shown(inner[0])
        minus = what.startswith("-")
        what = opposite(what) if minus else what
        rest = shown(-inner[0])
        paper.write(f"{inner.term(1)} = {rest} ± {tree}", "add-to-both-sides" if minus else "subtract-from-both-sides", what,
                    move=f"{'+' if minus else '-'}{wrapped(what)}")  # fmt: skip
    if inner[1].constant != 1:
        raise NotThisWay("The bracket holds a coefficient beside letters.")
    rest = "" if inner[0].is_zero else shown(-inner[0])
    first, second = (f"{rest} + {tree}", f"{rest} - {tree}") if rest else (tree, f"-{tree}")
    paper.write(f"{x} = {first} or {x} = {second}", "split-plus-minus", shown_at=BRIEF)
    paper.answer = [first, second]


def completing_the_square(problem: Problem) -> Paper:
    """x² + bx = c with the square of half of b added on both sides."""
    _demand(problem)
    paper = Paper(problem)
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
        paper.write(
            f"{poly} = 0",
            "divide-both-sides",
            number(a),
            move=f"÷{wrapped(number(a))}",
            noticed=("leading coefficient",),
        )
    square_part = Poly([constant(0), constant(b), constant(1)], x)
    if c and _under_way(problem.with_given(paper.line)) is None:
        what = number(abs(c))
        paper.write(f"{square_part} = {number(-c)}", "add-to-both-sides" if c < 0 else "subtract-from-both-sides", what,
                    move=f"{'+' if c < 0 else '-'}{what}")  # fmt: skip
    half = b / 2
    added = number(half * half)
    box = Box(number(half), added, number(b))
    right = f"{number(-c)} + {added}" if c else added
    paper.write(f"{square_part} + {added} = {right}", "complete-the-square", number(half), side=[box],
                move=f"+{added}", half=number(b), square=added)  # fmt: skip
    base = str(Poly([constant(half), constant(1)], x))
    value = half * half - c
    paper.write(f"({base})^2 = {number(value)}", "write-as-square", f"({base})²")
    take_root(paper, base, constant(value))
    return paper


def _square_stands(paper: Paper) -> bool:
    """Whether the given is a square (written so, or to be written so) equal to a number; then goes on from there."""
    problem = paper.problem
    left, right = problem.sides()
    found = square_of(problem, left, right)
    if found is not None and found[0] != problem.unknown:
        isolate_square(paper, *found)
        return True
    first, second = poly_of(problem)
    numbers = first.numbers
    if numbers is None or first.degree != 2 or second.degree or second.parts[0].constant is None or second.is_zero:
        return False
    c, b, a = numbers
    if a != 1 or b == 0 or b * b != 4 * c:
        return False
    value = second.parts[0]
    base = str(Poly([problem.field.constant(b / 2), problem.field.constant(1)], problem.unknown))
    paper.write(f"({base})^2 = {shown(value)}", "write-as-square", f"({base})²")
    take_root(paper, base, value)
    return True


def _under_way(problem: Problem) -> Poly | None:
    """x² + bx − c where the given reads x² + bx = c already; else None."""
    left, right = poly_of(problem)
    if left.degree != 2 or right.degree or left[2].constant != 1 or not left[0].is_zero or left[1].is_zero:
        return None
    return Poly([-right[0], left[1], left[2]], problem.unknown)


def quadratic_formula(problem: Problem) -> Paper:
    """x = (−b ± √(b² − 4ac))/(2a)."""
    _demand(problem)
    paper = Paper(problem)
    by_formula(paper, standard_form(paper))
    return paper


def by_formula(paper: Paper, poly: Poly) -> None:
    x = paper.problem.unknown
    numbers = poly.numbers
    if numbers is None:
        raise NotThisWay("The coefficients hold letters.")
    c, b, a = numbers
    four_ac = 4 * a * c
    inside = f"{number(b) if b >= 0 else '(' + number(b) + ')'}^2 - 4·{wrapped(number(a))}·{wrapped(number(c))}"
    what = f"a = {number(a)}, b = {number(b)}, c = {number(c)}"
    below = 2 * a
    paper.write(f"{x} = ({number(-b)} ± √({inside}))/(2·{wrapped(number(a))})", "quadratic-formula", what, shown_at=EVERY,
                side=[QuadraticCoefficients(number(a), number(b), number(c))])  # fmt: skip
    d = b * b - four_ac
    joined = f"{number(b * b)} {'-' if four_ac > 0 else '+'} {number(abs(four_ac))}" if four_ac else number(b * b)
    head = f"{number(-b)} " if b else ""
    paper.write(f"{x} = ({head}± √({joined}))/{number(below)}", "quadratic-formula", what)
    if d < 0 and not paper.problem.complex:
        paper.write("no solution", "no-real-root", f"the discriminant {joined} = {number(d)} is negative", shown_at=BRIEF,
                    noticed=("no solution",))  # fmt: skip
        paper.answer = []
        return
    if d == 0:
        solution = number(-b / below)
        paper.write(
            f"{x} = {solution}", "discriminant", "the discriminant is 0, so both roots are the same", shown_at=BRIEF
        )
        paper.answer = [solution]
        return
    raw = f"√{number(d)}" if d.denominator == 1 and d > 0 else f"√({number(d)})"
    paper.write(f"{x} = ({head}± {raw})/{number(below)}", "discriminant", f"{joined} = {number(d)}")
    surd = Surd.root(d)
    inner = surd_text(surd)
    if surd.is_rational:
        paper.write(f"{x} = ({head}± {inner})/{number(below)}", "simplify-root-in-solution", f"{raw} = {inner}",
                    shown_at=BOARD if d != 1 else EVERY)  # fmt: skip
    elif inner != raw:
        paper.write(f"{x} = ({head}± {inner})/{number(below)}", "simplify-root-in-solution", f"{raw} = {inner}")
    middle, part = -b / below, surd.times(1 / abs(below))
    if not surd.is_rational:
        common = gcd(int(b), int(surd.coefficient), int(below)) if surd.coefficient.denominator == 1 else 1
        paper.write(f"{x} = {_with_middle(middle, part, '±')}", "reduce-solution", number(common))
    finish_plus_minus(paper, middle, part, False, poly)


def _square_root(value: Ratio) -> str | None:
    """The root of an expression that is a square, as a factor; with ± in front the sign of a letter does not matter."""
    try:
        roots = [value.numerator.sqrt(), value.denominator.sqrt()]
    except DomainError:
        return None
    return wrapped(shown(value.field.ratio(*roots)))
