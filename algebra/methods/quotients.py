"""Quotients that reduce by a detour: exponentials factored like polynomials, differences of roots over the difference
under them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.errors import ExactError
from algebra.methods.exponents import dotted_numbers
from algebra.methods.rational_expressions import factor_and_cancel, reduced
from algebra.methods.terms import shown, terms_of
from algebra.methods.worked_lines import BRIEF, NotThisWay, Problem, Step, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted

_STAND_INS = "ψφχ"
"""Letters for the powers while they are factored; no given has them, so they can be put back in words too."""


def powers_as_letters(problem: Problem) -> WorkedLines:
    """A quotient of exponentials, factored like polynomials in 2^x, 3^x … and cancelled."""
    body = n.bare(problem.body)
    if not isinstance(body, n.Fraction):
        raise NotThisWay("There is no fraction.")
    letters = sorted({name for p in n.parts_of(body) if isinstance(p, n.Power) for name in n.letters(p.exponent)})
    if len(letters) != 1 or n.letters(body) - set(letters):
        raise NotThisWay("Not one letter stands in the exponents alone.")
    unknown = letters[0]
    names: dict[int, str] = {}
    flat: dict[n.Node, n.Node] = {}
    split: dict[n.Node, n.Node] = {}
    for part in n.parts_of(body):
        if isinstance(part, n.Power) and n.letters(part.exponent):
            flat[part], split[part] = _in_letters(part, unknown, names)
    tree = dotted_numbers(substituted(body, flat))
    if unknown in n.letters(tree) or not any(isinstance(p, n.Sum) for p in n.parts_of(tree)):
        raise NotThisWay("The unknown stands beside its powers, or there is nothing to factor.")
    back: dict[n.Node, n.Node] = {
        n.Letter(name): n.Power(n.Integer(prime), n.Letter(unknown)) for prime, name in names.items()
    }
    paper = WorkedLines(problem)
    changed = [say("{} = {}", old, new) for old, new in split.items() if old != new]
    if changed:
        paper.write(substituted(body, split), "power-in-prime", ", ".join(changed))
    for step in factor_and_cancel(problem.about(tree)).chain:
        if step.after is not None:
            paper.steps.append(_put_back(replace(step, before=paper.line), back))
            paper.line = paper.steps[-1].after or paper.line
    joined: dict[n.Node, n.Node] = {
        p: n.Power(n.Integer(inner.base.value**p.exponent.value), inner.exponent)
        for p in n.parts_of(paper.line)
        if isinstance(p, n.Power)
        and isinstance(p.exponent, n.Integer)
        and isinstance(inner := n.bare(p.base), n.Power)
        and isinstance(inner.base, n.Integer)
    }
    if joined:
        told = ", ".join(say("{} = {}", old, new) for old, new in joined.items())
        paper.write(substituted(paper.line, joined), "power-of-power-back", told)
    paper.answer = [paper.line]
    return paper


def _in_letters(power: n.Power, unknown: str, names: dict[int, str]) -> tuple[n.Node, n.Node]:
    """A power such as 12^(2x) by letters of its primes, and by the powers of the primes. Raises NotThisWay for other
    exponents."""
    base = n.bare(power.base)
    exponent = n.bare(power.exponent)
    if not isinstance(base, n.Integer) or base.value < 2:
        raise NotThisWay("A base is no whole number.")
    times = 1
    if isinstance(exponent, n.Product) and len(exponent.factors) == 2 and isinstance(exponent.factors[0], n.Integer):
        times, exponent = exponent.factors[0].value, exponent.factors[1]
    if exponent != n.Letter(unknown) or times < 1:
        raise NotThisWay("An exponent is no multiple of the letter.")
    flat, split = [], []
    for prime, count in prime_factors(base.value):
        if int(prime) not in names:
            if len(names) == len(_STAND_INS):
                raise NotThisWay("There are too many bases.")
            names[int(prime)] = _STAND_INS[len(names)]
        size = int(count) * times
        bare = n.Power(n.Integer(int(prime)), n.Letter(unknown))
        flat.append(build.power(n.Letter(names[int(prime)]), size))
        split.append(bare if size == 1 else n.Power(n.Group(bare), n.Integer(size)))
    return build.product(*flat), split[0] if len(split) == 1 else n.Product(tuple(split), ("·",) * (len(split) - 1))


def _put_back(step: Step, back: Mapping[n.Node, n.Node]) -> Step:
    """The step with the powers where their stand-ins were, in its line and in its words."""

    def tree(node: n.Node) -> n.Node:
        raised: dict[n.Node, n.Node] = {
            p: n.Power(n.Group(back[n.bare(p.base)]), p.exponent)
            for p in n.parts_of(node)
            if isinstance(p, n.Power) and n.bare(p.base) in back
        }
        return dotted_numbers(substituted(substituted(node, raised), back))

    reason = step.reason
    for letter, power in back.items():
        name = plain(letter)
        reason = reason.replace(f"{name}^", f"({plain(power)})^").replace(name, plain(power))
    after = tree(step.after) if step.after is not None else None
    return replace(
        step, after=after, reason=reason, cancelled=tuple(map(tree, step.cancelled)), side_work=(), within=()
    )


def rationalise_numerator(problem: Problem) -> WorkedLines:
    """A difference with roots over what vanishes with it: top and bottom times the numerator with the other sign."""
    body = n.bare(problem.body)
    above = n.bare(body.numerator) if isinstance(body, n.Fraction) else body
    if not isinstance(body, n.Fraction) or not n.letters(body.denominator) or not isinstance(above, n.Sum):
        raise NotThisWay("There is no difference above a denominator with letters.")
    if any(isinstance(p, n.Root) for p in n.parts_of(body.denominator)):
        raise NotThisWay("A root stands in the denominator.")
    terms = terms_of(above)
    if len(terms) != 2 or not any(isinstance(n.bare(term), n.Root) for _, term in terms) or terms[0][0] == "-":
        raise NotThisWay("The numerator is no difference of two roots, or of a root and something else.")
    (_, first), (sign, second) = terms
    squares = [_square(term) for term in (first, second)]
    difference = build.sum_of([squares[0], n.Signed("-", build.factor(squares[1]))])
    try:
        value, below = problem.value(difference), problem.value(body.denominator)
    except ExactError as problem_found:
        raise NotThisWay("A root stands within a root.") from problem_found
    other = n.Sum((first, second), (*above.signs[:-1], "+" if sign == "-" else "-"))
    rest = n.bare(reduced(value / below))
    minus = isinstance(rest, n.Signed)
    if isinstance(rest, n.Signed):
        rest = n.bare(rest.child)
    left = (rest.numerator, rest.denominator) if isinstance(rest, n.Fraction) else (rest, build.ONE)
    bottom = n.bare(body.denominator)
    if n.bare(left[1]) == bottom:
        raise NotThisWay("Nothing would cancel then.")
    paper = WorkedLines(problem)
    paper.write(
        build.bar(build.product(n.Group(above), n.Group(other)), build.product(build.factor(bottom), n.Group(other))),
        "conjugate-above",
        other,
        noticed=("the conjugate of the numerator",),
    )
    told = build.sum_of([_squared(first), n.Signed("-", _squared(second))])
    lower = build.product(build.factor(bottom), n.Group(other))
    paper.write(build.bar(difference, lower), "difference-of-squares-roots", told)
    top = shown(value)
    paper.write(build.bar(top, lower), "simplify-numerator", say("{} = {}", difference, top))
    common = bottom if left[1] == build.ONE else shown(value)
    below_all = n.Group(other) if left[1] == build.ONE else build.product(build.factor(n.bare(left[1])), n.Group(other))
    paper.write(
        build.minus_if(minus, build.bar(n.bare(left[0]), n.bare(below_all))),
        "opposite-factors" if minus else "cancel-factors",
        common,
        cancelled=[common],
        shown_at=BRIEF,
    )
    paper.answer = [paper.line]
    return paper


def _square(term: n.Node) -> n.Node:
    """The term squared: of a root what stands under it."""
    bare = n.bare(term)
    if isinstance(bare, n.Root):
        if bare.index is not None and bare.index != 2:
            raise NotThisWay("The root is no square root.")
        return n.bare(bare.radicand)
    if any(isinstance(p, n.Root) for p in n.parts_of(bare)):
        raise NotThisWay("A root stands among other factors.")
    return build.power(bare, 2) if not isinstance(bare, n.Integer) else n.Integer(bare.value**2)


def _squared(term: n.Node) -> n.Node:
    bare = n.bare(term)
    return n.Power(n.Group(bare) if isinstance(bare, n.Root) else build.factor(bare), n.Integer(2))
