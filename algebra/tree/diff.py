"""Where two trees differ."""

from __future__ import annotations

from typing import Literal

from algebra.records import record
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def changed_places(
    before: n.Node, after: n.Node, at: n.Address = (), to: n.Address = ()
) -> tuple[list[n.Address], list[n.Address]]:
    """The smallest parts in which two lines of the same shape differ: addresses in the one and in the other."""
    if before == after:
        return [], []
    if type(before) is not type(after) or not before.children or len(before.children) != len(after.children):
        if isinstance(before, n.Sum) and isinstance(after, n.Sum):
            return (
                [(*at, k) for k, term in enumerate(before.terms) if term not in after.terms],
                [(*to, k) for k, term in enumerate(after.terms) if term not in before.terms],
            )
        return [at], [to]
    old: list[n.Address] = []
    new: list[n.Address] = []
    for k, (a, b) in enumerate(zip(before.children, after.children, strict=True)):
        left, right = changed_places(a, b, (*at, k), (*to, k))
        old += left
        new += right
    return (old, new) if old or new else ([at], [to])


@record(frozen=True)
class Change:
    """One symbol that differs: a number, a letter, the sign before a term, or a minus that is there in one tree only.

    `at` is its place in the first tree; `old` and `new` are how it is written.
    """

    at: n.Address
    kind: Literal["number", "letter", "sign", "minus"]
    old: str
    new: str


def symbol_changes(before: n.Node, after: n.Node, at: n.Address = ()) -> list[Change] | None:
    """The symbols in which two trees of one shape differ, in the order in which they are written; None where the shapes
    do."""
    if before == after:
        return []
    if isinstance(before, n.Integer | n.Letter) and type(before) is type(after):
        return [Change(at, "number" if isinstance(before, n.Integer) else "letter", plain(before), plain(after))]
    if _has_sign_more(before, after) or _has_sign_more(after, before):
        return [Change(at, "minus", plain(before), plain(after))]
    if type(before) is not type(after) or len(before.children) != len(after.children) or not before.children:
        return None
    if isinstance(before, n.Product) and isinstance(after, n.Product) and before.operators != after.operators:
        return None
    signs = (("", ""),) * len(before.children)
    if isinstance(before, n.Sum) and isinstance(after, n.Sum):
        signs = (("", ""), *zip(before.signs, after.signs, strict=True))
    found: list[Change] = []
    for k, (a, b, (sign, other)) in enumerate(zip(before.children, after.children, signs, strict=True)):
        inner = symbol_changes(a, b, (*at, k))
        if inner is None or (sign != other and inner):
            return None
        found += inner
        if sign != other:
            found.append(Change((*at, k), "sign", f"{sign} {plain(a)}", f"{other} {plain(b)}"))
    return found


def _has_sign_more(one: n.Node, other: n.Node) -> bool:
    """Whether the one is the other with a sign before it."""
    return isinstance(one, n.Signed) and one.child == other
