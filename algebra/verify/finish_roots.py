"""Roots that are still to be simplified."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from math import gcd, isqrt, prod

from algebra.exact.rational_functions import Poly, factored
from algebra.reports.report import Remaining
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.finish_parts import Finish, is_number, primes, said


def roots_left(finish: Finish) -> Iterator[Remaining]:
    """Square factors and fractions under roots, powers that come out, roots in denominators, roots still to
    multiply."""
    clear = finish.context.working.convention("root_denominators") == "clear"
    for address, node in finish.parts(n.Root):
        assert isinstance(node, n.Root)
        inside = finish.ratio(node.radicand)
        index = node.index.value if isinstance(node.index, n.Integer) else 2
        if inside is None:
            continue
        if inside.is_zero:
            yield said("radical-not-simplified", f"{plain(node)} is 0.", address)
            continue
        if _comes_apart(node):
            text = f"{plain(node)} can be written as a sum of roots."
            yield said("radical-not-simplified", text, address)
            continue
        if inside.denominator != 1:
            yield said("fraction-under-root", f"A fraction still stands under the root in {plain(node)}.", address)
            continue
        content, factors = factored(inside.numerator)
        number = abs(int(content))
        taken = 1
        for prime, power in Counter(primes(number)).items():
            taken *= prime ** (power // index * index)
        if number > 1 and taken > 1:
            word = {2: "square", 3: "cube"}.get(index, f"{index}th-power")
            text = f"{plain(node)} still holds the {word} factor {taken}."
            yield said("radical-not-simplified", text, address)
        elif any(power >= index for _, power in factors):
            yield said("radical-not-simplified", f"A power can still be taken out of {plain(node)}.", address)
        elif _shared_power(number, factors, index) > 1:
            yield said("radical-not-simplified", f"{plain(node)} has a smaller index.", address)
        elif int(content) < 0 and (index % 2 or finish.context.complex) and is_number(node.radicand):
            yield said("radical-not-simplified", f"The minus can still be taken out of {plain(node)}.", address)
        elif int(content) == 1 and not factors:
            yield said("radical-not-simplified", f"{plain(node)} is 1.", address)
    for address, node in finish.parts(n.Product):
        roots = [f for f in node.children if isinstance(n.bare(f), n.Root)]
        indices = {f.index for f in map(n.bare, roots) if isinstance(f, n.Root)}
        if len(roots) > 1 and len(indices) == 1:
            yield said("radical-not-simplified", "Roots are still to be multiplied.", address)
    if clear and finish.context.rationalises_numerator:
        clear = False  # its roots were brought below on purpose
    for address, node in finish.parts(n.Fraction):
        assert isinstance(node, n.Fraction)
        if clear and any(isinstance(part, n.Root) for part in n.parts_of(node.denominator)):
            yield said("root-in-denominator", "A root still stands in the denominator.", address)


def _comes_apart(root: n.Root) -> bool:
    """Whether √(a ± b√c) is √p ± √q with rational p, q: where a² − b²c is a square (Borodin, Fagin, Hopcroft, Tompa,
    Decreasing the nesting depth of expressions involving square roots, 1985, theorem 1 over ℚ)."""
    inside = n.bare(root.radicand)
    if root.index not in (None, n.Integer(2)) or not isinstance(inside, n.Sum) or len(inside.terms) != 2:
        return False
    whole = next((n.bare(term) for term in inside.terms if isinstance(n.bare(term), n.Integer)), None)
    other = next((n.bare(term) for term in inside.terms if not isinstance(n.bare(term), n.Integer)), None)
    factors = [n.bare(f) for f in other.factors] if isinstance(other, n.Product) else [other]
    times = prod(f.value for f in factors if isinstance(f, n.Integer))
    roots = [f for f in factors if isinstance(f, n.Root)]
    if not isinstance(whole, n.Integer) or len(roots) != 1 or len(factors) > 2:
        return False
    under = n.bare(roots[0].radicand)
    if not isinstance(under, n.Integer) or len(factors) - 1 != sum(isinstance(f, n.Integer) for f in factors):
        return False
    left = whole.value**2 - times**2 * under.value
    return left >= 0 and isqrt(left) ** 2 == left


def _shared_power(number: int, factors: list[tuple[Poly, int]], index: int) -> int:
    """The largest number that divides the index of a root and every power under it: root(4, 9) is √3."""
    powers = [*Counter(primes(number)).values(), *(power for _, power in factors)]
    return gcd(index, *powers) if powers else 1
