"""What occurs in some trees, found in one walk: this is asked of every line before anything else."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from algebra.tree import nodes as n


@dataclass(slots=True)
class Survey:
    """The letters and quoted words; whether ± or ∓ occurs; whether roots, bars or exponents other than whole numbers do."""

    letters: set[str] = field(default_factory=set)
    signs: bool = False
    roots: bool = False


def surveyed(trees: Iterable[n.Node]) -> Survey:
    """What occurs in these trees."""
    found = Survey()
    parts = list(trees)
    for part in parts:  # grows while it is walked
        kind = type(part)
        if kind is n.Letter:
            found.letters.add(part.name)  # type: ignore[attr-defined]
            continue
        if kind is n.Integer:
            continue
        if kind is n.Sum:
            signs = part.signs  # type: ignore[attr-defined]
            found.signs = found.signs or "±" in signs or "∓" in signs
        elif kind is n.Signed:
            found.signs = found.signs or part.sign in "±∓"  # type: ignore[attr-defined]
        elif kind is n.Root or kind is n.Absolute or (kind is n.Power and not _is_whole(part.children[1])):
            found.roots = True
        elif kind is n.Unit:
            found.letters.add(f'"{part.word}"')  # type: ignore[attr-defined]
        parts += part.children
    return found


def _is_whole(exponent: n.Node) -> bool:
    while isinstance(exponent, n.Group | n.Signed):
        exponent = exponent.child
    return isinstance(exponent, n.Integer)
