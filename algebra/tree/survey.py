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
        if isinstance(part, n.Letter):
            found.letters.add(part.name)
            continue
        if isinstance(part, n.Integer):
            continue
        if isinstance(part, n.Sum):
            signs = part.signs
            found.signs = found.signs or "±" in signs or "∓" in signs
        elif isinstance(part, n.Signed):
            found.signs = found.signs or part.sign in "±∓"
        elif isinstance(part, n.Root | n.Absolute):
            found.roots = True
        elif isinstance(part, n.Power):
            found.exponents = found.exponents or not _is_whole(part.exponent)
        elif isinstance(part, n.Unit):
            found.letters.add(f'"{part.word}"')
        parts += part.children
    return found


def _is_whole(exponent: n.Node) -> bool:
    while isinstance(exponent, n.Group | n.Signed):
        exponent = exponent.child
    return isinstance(exponent, n.Integer)
