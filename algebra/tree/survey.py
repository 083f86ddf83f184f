"""What occurs in some trees, found in one walk: this is asked of every line before anything else."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from algebra.tree import nodes as n


@dataclass(slots=True)
class Survey:
    """The letters and quoted words; whether ± or ∓ occurs, roots or bars, exponents that are not written as whole
    numbers."""

    letters: set[str] = field(default_factory=set)
    signs: bool = False
    roots: bool = False
    exponents: bool = False

    @property
    def asks_for_more(self) -> bool:
        """Whether rational functions may not be enough."""
        return self.roots or self.exponents


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
        elif kind is n.Root or kind is n.Absolute:
            found.roots = True
        elif kind is n.Power:
            found.exponents = found.exponents or not _is_whole(part.exponent)  # type: ignore[attr-defined]
        elif kind is n.Unit:
            found.letters.add(f'"{part.word}"')  # type: ignore[attr-defined]
        parts += part.children
    return found


def _is_whole(exponent: n.Node) -> bool:
    while isinstance(exponent, n.Group | n.Signed):
        exponent = exponent.child
    return isinstance(exponent, n.Integer)
