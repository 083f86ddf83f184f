"""Sentences about a line: templates whose slots are parts of it, so that what is named can be found and coloured."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.records import record
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

Slot = n.Node | str


@record(frozen=True)
class Words:
    """A sentence without its full stop. `shows` are the parts whose places in the line are coloured."""

    template: str
    slots: tuple[tuple[str, Slot], ...] = ()
    shows: tuple[n.Node, ...] = ()

    def __str__(self) -> str:
        """The sentence with its slots filled in the plain notation."""
        if not self.slots:
            return self.template
        return self.template.format_map({name: _shown(slot) for name, slot in self.slots})


def said(template: str, *, shows: n.Node | None = None, **slots: n.Node | Q | int | str) -> Words:
    """The words with these parts in their slots; `shows` is the part that is coloured."""
    filled = ((name, build.number(slot) if isinstance(slot, Q | int) else slot) for name, slot in slots.items())
    return Words(template, tuple(filled), () if shows is None else (shows,))


def listed(items: list[n.Node]) -> str:
    """Parts joined by `and`."""
    return " and ".join(plain(item) for item in items)


def _shown(slot: Slot) -> str:
    return slot if isinstance(slot, str) else plain(slot)
