"""What a step needs of the other letters of an equation."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.exact.rational_functions import Poly, depends_on, irreducible_factors, letters_of_ring
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.context import Context
from algebra.verify.evaluated import EvaluatedStatement, Pair
from algebra.verify.excluded_values import condition_text


def conditions(context: Context, before: EvaluatedStatement, after: EvaluatedStatement) -> list[str]:
    """What a step needs of the other letters: that what it divides by is not 0, and that what it roots is not negative."""
    divided = dict(after.poles)
    for key in before.poles:
        divided.pop(key, None)
    old, new = before.product, after.product
    if old is not None and new is not None:
        divided |= irreducible_factors([(old / new).numerator])
    letters = set(context.letters) - {context.unknown, "π"}
    found = {
        condition_text(context, poly)
        for poly in divided.values()
        if not depends_on(poly, context.unknown) and set(_letters_of(poly)) <= letters
    }
    rooted = {_radicand(part) for pair in after.pairs for part in _roots(pair)}
    for tree in rooted - {_radicand(part) for pair in before.pairs for part in _roots(pair)}:
        if n.letters(tree) and n.letters(tree) <= letters:
            found.add(f"{plain(tree)} ≥ 0")
    if before.single is not None and not any(context.unknown in n.letters(r) for p in after.pairs for r in _roots(p)):
        found |= set(_not_negative(before.single, context.unknown))
    return sorted(found)


def _not_negative(pair: Pair, unknown: str) -> Iterator[str]:
    """What must not be negative, since it equals an even root of the unknown: `v ≥ 0` for v = √(2gh)."""
    for side, other in ((pair.left_tree, pair.right_tree), (pair.right_tree, pair.left_tree)):
        bare = n.bare(side)
        factors = bare.factors if isinstance(bare, n.Product) else (bare,)
        roots = [f for f in factors if isinstance(f, n.Root) and unknown in n.letters(f)]
        rest = [f for f in factors if f not in roots]
        if len(roots) != 1 or not n.letters(other) or any(unknown in n.letters(t) for t in (other, *rest)):
            continue
        lettered = [f for f in rest if n.letters(f)]
        below = f"/({'·'.join(plain(f) for f in lettered)})" if lettered else ""
        yield f"{plain(other)}{below} ≥ 0"


def _letters_of(poly: Poly) -> list[str]:
    names = letters_of_ring(poly)
    return [name for name, power in zip(names, poly.degrees(), strict=True) if power]


def _roots(pair: Pair) -> list[n.Root]:
    """The even roots of an equation."""
    parts = (*n.parts_of(pair.left_tree), *n.parts_of(pair.right_tree))
    return [
        part
        for part in parts
        if isinstance(part, n.Root)
        and (part.index is None or (isinstance(part.index, n.Integer) and part.index.value % 2 == 0))
    ]


def _radicand(root: n.Root) -> n.Node:
    return n.bare(root.radicand)
