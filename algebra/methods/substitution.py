"""Substitution: what repeats gets a letter of its own; and equations in powers that factor in groups."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.decomposition import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio, field_of
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.exponential import OnePower, base_of, power_in
from algebra.methods.linear import simplify_then_undo
from algebra.methods.paper import BRIEF, NotThisWay, Paper, Problem
from algebra.methods.polynomials import factoring_of
from algebra.methods.quadratic import factoring, poly_of, quadratic_formula, standard_form
from algebra.methods.rational_equations import clear_by_lcd
from algebra.methods.surds import Surd, surd_text
from algebra.methods.terms import Poly, joined, number, opposite, shown, terms_of
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def substitution(problem: Problem) -> Paper:
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
        poly = Poly([-c for c in poly.parts], letter)
    power_text = one.text(x)
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
    return _named(paper, letter, power_text, poly, lambda value: _from_power(one.base, one.count, value))


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


def _by_groups(problem: Problem, cell: RadicalField, difference: Ratio) -> Paper:
    """Powers, or powers beside the unknown itself, whose equation factors: x·2^x − 4x + 2^x − 4 = 0 in pairs."""
    x = problem.unknown
    content, factors = factors_of_poly(difference.numerator)
    paper = Paper(problem)
    texts: list[str] = []
    answers: list[str | None] = []
    positive: list[str] = []
    for factor, times in factors:
        used = [g for g in cell.made.values() if g.relation is None and factor.degrees()[g.position]]
        if len(used) == 1 and len(factor) == 1 and used[0].above == ((x, 1),):
            # a power alone is never zero: it stays beside the other factors
            count = Q(times, cell.plan.step)
            positive.append(OnePower(Q(used[0].prime), count, {}, cell.constant(1)).text(x))
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
                texts.append(f"({p})")
            continue
        one = power_in(cell, cell.ratio(factor), x)
        if one is None or set(one.parts) != {0, 1}:
            raise NotThisWay("It does not factor in groups.")
        value = -one.parts[0] / one.parts[1]
        answers.append(_from_power(one.base, one.count, value) if value > 0 else None)
        if value > 0 and answers[-1] is None:
            raise NotThisWay("A factor leads to no nice value.")
        lead = "" if abs(one.parts[1]) == 1 else f"{number(abs(one.parts[1]))}·"
        texts.append(f"({lead}{one.text(x)} {'-' if value > 0 else '+'} {number(abs(one.parts[0]))})")
    if len(texts) + len(positive) < 2:
        raise NotThisWay("It does not factor in groups.")
    left, right = problem.sides()
    if plain(right) != "0":
        moved = opposite(plain(right)) if len(terms_of(right)) == 1 else f"-({plain(right)})"
        paper.write(f"{joined([plain(left), moved])} = 0", "all-on-one-side", plain(right))
    front = [] if abs(content) == 1 else [str(abs(content))]
    product = "·".join([*front, *positive]) + "".join(texts)
    paper.write(f"{product} = 0", "group-in-pairs", "the powers in pairs" if len(texts) > 1 else f"{positive[0]} in every term",
                noticed=("grouping",))  # fmt: skip
    paper.write(" or ".join(f"{t[1:-1]} = 0" for t in texts), "zero-product")
    paper.answer = list(dict.fromkeys(a for a in answers if a is not None))
    text = " or ".join(f"{x} = {v}" for v in paper.answer) if paper.answer else "no solution"
    paper.write(text, "read-solution", "each factor gives its solution", shown_at=BRIEF)
    return paper


def _by_repeated_part(problem: Problem, left: n.Node, right: n.Node) -> Paper:
    """An expression that occurs again and again, such as x/(x+1) in (x/(x+1))^2 - 5·x/(x+1) + 6 = 0, named by a letter."""
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
        new = [_replaced(side, part, n.Letter(letter)) for side in (left, right)]
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


def _replaced(tree: n.Node, part: n.Node, letter: n.Letter) -> n.Node:
    if n.bare(tree) == part:
        return letter
    return tree.with_children(tuple(_replaced(child, part, letter) for child in tree.children))


def _part_named(problem: Problem, letter: str, part: n.Node, poly: Poly) -> Paper:
    """let u = …; the quadratic in u; then one equation in the unknown for each root."""
    paper = Paper(problem)
    text = plain(part)
    paper.write(f"let {letter} = {text}", "substitute", text, kind="definition")
    if (poly.numbers or [Q(0)])[-1] < 0:
        poly = Poly([-c for c in poly.parts], letter)
    paper.write(f"{poly} = 0", "substitute", text)
    found = factoring_of(poly)
    if found is None or any(p.degree != 1 for _, p, _ in found.factors):
        raise NotThisWay("The equation in the new letter does not factor.")
    for line, rule, what, side in found.lines:
        paper.write(f"{line} = 0", rule if rule != "product-sum" else "factor-side", what, side=side)
    if len(found.factors) > 1:
        paper.write(" or ".join(f"{line} = 0" for line, _, _ in found.factors), "zero-product")
    roots = [shown(-p[0] / p[1]) for _, p, _ in found.factors]
    paper.write(" or ".join(f"{letter} = {r}" for r in roots), "read-solution", "each factor gives its root")
    paper.write(" or ".join(f"{text} = {r}" for r in roots), "substitute-back", text)
    answers: list[str] = []
    for r in roots:
        inner = problem.with_given(f"{text} = {r}")
        for way in (clear_by_lcd, simplify_then_undo, factoring, quadratic_formula):
            try:
                answers += [a for a in way(inner).answer if a not in answers]
                break
            except (NotThisWay, ExactError):
                continue
        else:
            raise NotThisWay("An equation that is left is not solved here.")
    paper.answer = answers
    line = " or ".join(f"{problem.unknown} = {v}" for v in answers) if answers else "no solution"
    paper.write(line, "read-solution", "each equation gives its solutions", shown_at=BRIEF)
    return paper
