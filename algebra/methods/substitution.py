"""Substitution: what repeats gets a letter of its own; and equations in powers that factor in groups."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.decomposition import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio, field_of
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.exponential import OnePower, base_of, power_in
from algebra.methods.linear import polys_of, simplify_then_undo
from algebra.methods.polynomials import factoring_of
from algebra.methods.quadratic import factoring, quadratic_formula, standard_form, write_factoring
from algebra.methods.rational_equations import clear_by_lcd
from algebra.methods.surds import Surd, surd_tree
from algebra.methods.terms import Poly, number, shown, terms_of
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted


def substitution(problem: Problem) -> WorkedLines:
    """A polynomial in one power of the unknown, named by a letter, solved, put back."""
    left, right = problem.sides()
    power = _repeated_power(problem)
    if power is not None:
        return _by_letter_power(problem, power)
    if not any(
        isinstance(p, n.Power) and problem.unknown in n.letters(p.exponent)
        for s in (left, right)
        for p in n.parts_of(s)
    ):
        return _by_repeated_part(problem, left, right)
    plan = plan_of([left, right], imaginary=False)
    if plan is None:
        raise NotThisWay("The unknown stands in no exponent.")
    x = problem.unknown
    cell = RadicalField((x,), plan, {x: Q(2)}, {}, formal=True)
    try:
        difference = value_of(left, cell).ratio - value_of(right, cell).ratio
    except ExactError as error:
        raise NotThisWay(error.message) from None
    one = power_in(cell, difference, x)
    if one is None:
        return _by_groups(problem, cell, difference)
    degree = max(one.parts)
    if degree < 2:
        raise NotThisWay("Only one power of the unknown occurs.")
    letter = next(c for c in "uvwzt" if c not in problem.field.letters)
    flat = field_of((letter,))
    poly = Poly([flat.constant(one.parts.get(k, Q(0))) for k in range(degree + 1)], letter)
    if (poly.numbers or [Q(0)])[-1] < 0:
        poly = poly.opposite
    meaning = one.tree(x)
    paper = WorkedLines(problem)
    powers = [(poly[k].constant, build.power(n.Group(meaning), k)) for k in range(degree, 1, -1)]
    powers += [(poly[1].constant, meaning), (poly[0].constant, build.ONE)]
    terms = [build.minus_if(c < 0, build.product_dotted(number(abs(c)), p)) for c, p in powers if c]
    told = say("every power here is a power of {}", meaning)
    paper.write(build.equation(build.sum_of(terms), build.ZERO), "common-base", told, noticed=("substitution",))

    def back(value: Q) -> list[n.Node]:
        if value <= 0:
            return []
        exponent = _from_power(one.base, one.count, value)
        if exponent is None:
            raise NotThisWay("A root of the equation in the new letter leads to no nice value.")
        return [exponent]

    return _named(paper, letter, meaning, poly, back, "power-never-negative")


def _from_power(base: Q, count: Q, value: Q) -> n.Node | None:
    """The x with base^(count·x) = value, or None where it is no rational number."""
    if value == 1:
        return build.ZERO
    try:
        own, power = base_of(value)
        low, low_power = base_of(base)
    except NotThisWay:
        return None
    return number(Q(power, low_power) / count) if own == low else None


def _named(
    paper: WorkedLines, letter: str, meaning: n.Node, poly: Poly, back: Callable[[Q], list[n.Node]], nothing: str
) -> WorkedLines:
    """let u = …; the equation in u; its roots; back to the unknown. `nothing` is the rule where a root leads to no
    value."""
    x = paper.problem.unknown
    roots = _roots_in_letter(paper, letter, meaning, poly)
    values = [root.constant or Q(0) for root in roots]
    found = {value: back(value) for value in values}
    paper.answer = list(dict.fromkeys(answer for value in values for answer in found[value]))
    lost = [number(value) for value in values if not found[value]]
    line = build.solutions(x, paper.answer)
    if lost:
        told = f"{plain(meaning)} = {' and '.join(map(plain, lost))} has no solution"
        paper.write(line, nothing, told, shown_at=BRIEF, noticed=("no solution",))
    else:
        paper.write(line, "read-solution", "each equation gives its solution", shown_at=BRIEF)
    return paper


def _roots_in_letter(paper: WorkedLines, letter: str, meaning: n.Node, poly: Poly) -> list[Ratio]:
    """let u = …, the equation in u factored, its roots, and what they say of the meaning. Raises NotThisWay."""
    u = n.Letter(letter)
    paper.write(None, "substitute", meaning, kind="definition", subject=build.equation(u, meaning))
    paper.write(build.equation(poly.tree, build.ZERO), "substitute", meaning)
    found = factoring_of(poly)
    if found is None:
        raise NotThisWay("The equation in the new letter does not factor.")
    write_factoring(paper, found)
    if any(p.degree != 1 for _, p, _ in found.factors):
        raise NotThisWay("The equation in the new letter does not factor into linear factors.")
    roots = [-p[0] / p[1] for _, p, _ in found.factors]
    if len(found.factors) > 1:
        zero = [build.equation(tree, build.ZERO) for tree, _, _ in found.factors]
        paper.write(build.alternatives(zero), "zero-product")
    for left, rule, what in (
        (u, "read-solution", "each factor gives its root"),
        (meaning, "substitute-back", plain(meaning)),
    ):
        paper.write(build.alternatives([build.equation(left, shown(root)) for root in roots]), rule, what)
    return roots


def _repeated_power(problem: Problem) -> int | None:
    """k where the equation is a polynomial of degree 2 in x^k; None otherwise."""
    try:
        left, right = polys_of(problem)
    except (NotThisWay, ExactError):
        return None
    difference = Poly.of(left.value - right.value, problem.unknown)
    used = [k for k, c in enumerate(difference.parts) if not c.is_zero]
    if len(used) == 3 and used[0] == 0 and used[2] == 2 * used[1] and used[1] > 1:
        return used[1]
    return None


def _by_letter_power(problem: Problem, power: int) -> WorkedLines:
    paper = WorkedLines(problem)
    total = standard_form(paper)
    letter = next(c for c in "uvwzt" if c not in problem.field.letters)
    flat = field_of((letter,))
    numbers = total.numbers
    if numbers is None:
        raise NotThisWay("The coefficients hold letters.")
    poly = Poly([flat.constant(numbers[k * power]) for k in range(3)], letter)
    x = problem.unknown

    def back(value: Q) -> list[n.Node]:
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
            return [build.ZERO]
        root = surd_tree(Surd.root(value))
        return [root, build.opposite(root)]

    return _named(paper, letter, build.power(n.Letter(x), power), poly, back, "no-real-root")


def _by_groups(problem: Problem, cell: RadicalField, difference: Ratio) -> WorkedLines:
    """Powers, or powers beside the unknown itself, whose equation factors: x·2^x − 4x + 2^x − 4 = 0 in pairs."""
    x = problem.unknown
    content, factors = factors_of_poly(difference.numerator)
    paper = WorkedLines(problem)
    sums: list[n.Node] = []
    stated: list[tuple[n.Node, n.Node | None]] = []
    """What each sum says, and the same with both sides as powers; None where no number does it."""
    answers: list[n.Node] = []
    positive: list[n.Node] = []
    for factor, times in factors:
        used = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
        if len(used) == 1 and len(factor) == 1 and used[0].above == ((x, 1),):
            # a power alone is never zero: it stays beside the other factors
            count = Q(times, cell.plan.step)
            positive.append(OnePower(Q(used[0].prime), count, {}, cell.constant(1)).tree(x))
            continue
        if times != 1:
            raise NotThisWay("It does not factor in groups.")
        if not used:
            part = Poly.of(Ratio(problem.field, cell.in_letters(factor), problem.field.one), x)
            found = factoring_of(part)
            roots = [] if found is None else [p for _, p, _ in found.factors]
            if part.degree != 1 and (not roots or any(p.degree != 1 for p in roots)):
                raise NotThisWay("It does not factor in groups.")
            for p in roots or [part]:
                answers.append(shown(-p[0] / p[1]))
                sums.append(p.tree)
                stated.append((line := build.equation(n.Letter(x), answers[-1]), line))
            continue
        one = power_in(cell, cell.ratio(factor), x)
        if one is None or set(one.parts) != {0, 1}:
            raise NotThisWay("It does not factor in groups.")
        value = -one.parts[0] / one.parts[1]
        exponent = _from_power(one.base, one.count, value) if value > 0 else None
        if value > 0 and exponent is None:
            raise NotThisWay("A factor leads to no nice value.")
        answers += [] if exponent is None else [exponent]
        lead = build.product_dotted(number(abs(one.parts[1])), one.tree(x))
        sums.append(build.sum_of([lead, number(-value * abs(one.parts[1]))]))
        says = build.equation(one.tree(x), number(value))
        powered = None if exponent is None else build.equation(one.tree(x), _as_power_of(one, value))
        stated.append((says, powered))
    if len(sums) + len(positive) < 2:
        raise NotThisWay("It does not factor in groups.")
    left, right = problem.sides()
    if right != build.ZERO:
        moved = build.opposite(right) if len(terms_of(right)) == 1 else n.Signed("-", n.Group(right))
        paper.write(build.equation(build.sum_of([left, moved]), build.ZERO), "all-on-one-side", right)
    front = [] if abs(content) == 1 else [n.Integer(int(abs(content)))]
    outside = build.dotted(*front, *positive) if front or positive else build.ONE
    what = "the powers in pairs" if len(sums) > 1 else say("{} in every term", positive[0])
    if len(sums) == 2:
        _in_pairs(paper, outside, sums, x)
    product = build.product(outside, *(n.Group(part) for part in sums))
    rule = "common-bracket" if len(sums) == 2 else "group-in-pairs"
    shared = sums[0] if len(sums) == 2 else what
    paper.write(build.equation(product, build.ZERO), rule, shared, noticed=("grouping",))
    paper.write(build.alternatives([build.equation(part, build.ZERO) for part in sums]), "zero-product")
    paper.write(
        build.alternatives([says for says, _ in stated]), "read-solution", "each power stands alone", shown_at=EVERY
    )
    as_powers = [line for _, line in stated if line is not None]
    if as_powers:
        paper.write(build.alternatives(as_powers), "common-base", "both sides of each as powers of one number")
    paper.answer = list(dict.fromkeys(answers))
    paper.write(build.solutions(x, paper.answer), "read-solution", "each factor gives its solution", shown_at=BRIEF)
    return paper


def _as_power_of(one: OnePower, value: Q) -> n.Node:
    """A value as a power of the base that stands with it: 27 beside 3^x as 3^3."""
    base, count = base_of(value) if value != 1 else (one.base, 0)
    same, times = base_of(one.base)
    if count == 0 or (base == same and count % times == 0):
        return build.power(number(one.base), number(count // times if count else 0))
    return build.power(number(base), number(count))


def _in_pairs(paper: WorkedLines, outside: n.Node, sums: list[n.Node], x: str) -> None:
    """6^x as 2^x·3^x where it occurs, then each pair with the bracket that both share."""
    left = paper.here.sides()[0]
    told: list[str] = []

    def by_primes(node: n.Node) -> n.Node:
        base = n.bare(node.base) if isinstance(node, n.Power) else None
        if isinstance(node, n.Power) and isinstance(base, n.Integer) and x in n.letters(node.exponent):
            primes = [int(p) ** int(k) for p, k in prime_factors(base.value)]
            if len(primes) > 1:
                new = build.dotted(*(build.power(n.Integer(p), node.exponent) for p in primes))
                told.append(say("{} = {}", node, new))
                return new
        children = tuple(by_primes(child) for child in node.children)
        if isinstance(node, n.Product) and children != node.children and "÷" not in node.operators:
            return build.dotted(*children)
        return node.with_children(children) if children else node

    line = by_primes(left)
    if told:
        paper.write(build.equation(line, build.ZERO), "prime-base", ", ".join(dict.fromkeys(told)))
    first, second = sorted(sums, key=lambda part: not any(isinstance(p, n.Power) for p in n.parts_of(part)))
    bracket = n.Group(first)
    pairs = build.sum_of(build.signed(s, build.product(t, bracket)) for s, t in terms_of(second))
    if outside != build.ONE:
        pairs = build.product(outside, n.Group(pairs, "["))
    fronts = " and ".join(("−" if s == "-" else "") + plain(t) for s, t in terms_of(second))
    paper.write(build.equation(pairs, build.ZERO), "group-in-pairs", fronts)


def _by_repeated_part(problem: Problem, left: n.Node, right: n.Node) -> WorkedLines:
    """An expression that occurs again and again, such as x/(x+1) in (x/(x+1))^2 - 5·x/(x+1) + 6 = 0, named by a
    letter."""
    x = problem.unknown
    letter = next(c for c in "uvwzt" if c not in problem.field.letters)
    counted: dict[n.Node, int] = {}
    for side in (left, right):
        for part in n.parts_of(side):
            bare = n.bare(part)
            if x in n.letters(bare) and isinstance(bare, n.Sum | n.Fraction | n.Product) and part is bare:
                counted[bare] = counted.get(bare, 0) + 1
    for part, count in sorted(counted.items(), key=lambda item: -len(plain(item[0]))):
        if count < 2:
            continue
        places = {part: n.Letter(letter), n.Group(part): n.Letter(letter)}
        new = [substituted(side, places) for side in (left, right)]
        if any(x in n.letters(side) for side in new):
            continue
        field = field_of((letter,))
        try:
            difference = value_of(new[0], field).ratio - value_of(new[1], field).ratio
        except ExactError:
            continue
        if not difference.is_polynomial:
            continue
        poly = Poly.of(Ratio(field, difference.numerator, field.one), letter)
        if poly.degree == 2:
            return _part_named(problem, letter, part, poly)
    raise NotThisWay("Nothing repeats that could be named by a letter.")


def _part_named(problem: Problem, letter: str, part: n.Node, poly: Poly) -> WorkedLines:
    """let u = …; the quadratic in u; then one equation in the unknown for each root."""
    paper = WorkedLines(problem)
    if (poly.numbers or [Q(0)])[-1] < 0:
        poly = poly.opposite
    answers: list[n.Node] = []
    for root in _roots_in_letter(paper, letter, part, poly):
        inner = problem.about(build.equation(part, shown(root)))
        for way in (clear_by_lcd, simplify_then_undo, factoring, quadratic_formula):
            try:
                answers += [a for a in way(inner).answer if a not in answers]
                break
            except (NotThisWay, ExactError):
                continue
        else:
            raise NotThisWay("An equation that is left is not solved here.")
    paper.answer = answers
    line = build.solutions(problem.unknown, answers)
    paper.write(line, "read-solution", "each equation gives its solutions", shown_at=BRIEF)
    return paper
