"""Where a step acts: the parts that differ between two lines, and the factors that cancel, as addresses."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from algebra.formats.typeset import set_line
from algebra.methods.worked_lines import Step
from algebra.parse.lines import read_line
from algebra.reports.echo import Echo
from algebra.tree import nodes as n
from algebra.tree.diff import changed_places
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class Places:
    """Addresses in the line before and in the line after, with what marks them: `focus`, or `cancel-0`, `cancel-1` …"""

    before: Mapping[n.Address, str]
    after: Mapping[n.Address, str]

    def to_json(self) -> dict[str, list[list[object]]]:
        """The addresses with their marks, in order, as JSON has them."""
        return {
            "before": [[list(address), mark] for address, mark in sorted(self.before.items())],
            "after": [[list(address), mark] for address, mark in sorted(self.after.items())],
        }


def places_of(step: Step) -> Places:
    """The places of a step; nothing for a line that stands beside the chain."""
    if step.after is None or step.kind in ("aside", "check", "definition"):
        return Places({}, {})
    cancelled = _cancelled(step)
    if cancelled:
        return Places(cancelled, {})
    old, new = changed_places(step.before, step.after)
    # where the whole line is new, colour would say nothing
    return Places({a: "focus" for a in old if a}, {a: "focus" for a in new if a})


def _cancelled(step: Step) -> dict[n.Address, str]:
    found: dict[n.Address, str] = {}
    for group, wanted in enumerate(step.cancelled):
        for address, node in n.walk(step.before):
            inside = any(address[: len(known)] == known for known in found)
            if not inside and n.bare(node) == wanted and _is_factor(step.before, address):
                found[address] = f"cancel-{group % 4}"
    sides = {address[0] for address in found if address}
    return found if len(found) > 1 or len(sides) > 1 else {}


def _is_factor(tree: n.Node, address: n.Address) -> bool:
    """Whether a node is a factor of the whole numerator or denominator: under products, brackets and bars only."""
    node = tree
    for position in address:
        if not isinstance(node, n.Product | n.Fraction | n.Group | n.Signed | n.Power):
            return False
        node = node.children[position]
    return True


def typeset(step: Step, *, decimal: str = "point") -> tuple[Echo, Echo]:
    """The lines before and after, set for a screen with the places of the step marked."""
    places = places_of(step)
    comma = decimal == "comma"

    def classes(marks: Mapping[n.Address, str]) -> dict[n.Address, str]:
        return {address: f"mark-{mark}" for address, mark in marks.items()}

    return (
        set_line(read_line(plain(step.before)), comma=comma, marks=classes(places.before)),
        set_line(read_line(step.text), comma=comma, marks=classes(places.after)),
    )
