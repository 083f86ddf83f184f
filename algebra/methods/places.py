"""Where a step acts: the parts that differ between two lines, and the factors that cancel, as addresses."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from algebra.formats.typeset import echo
from algebra.methods.paper import Step
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.echo import Echo
from algebra.tree import nodes as n


@dataclass(frozen=True, slots=True)
class Places:
    """Addresses in the line before and in the line after, with what marks them: `focus`, or `cancel-0`, `cancel-1` …"""

    before: Mapping[n.Address, str]
    after: Mapping[n.Address, str]

    def to_json(self) -> dict[str, list[list[object]]]:
        return {
            "before": [[list(address), mark] for address, mark in sorted(self.before.items())],
            "after": [[list(address), mark] for address, mark in sorted(self.after.items())],
        }


def places_of(step: Step, *, decimal: str = "point") -> Places:
    """The places of a step; nothing where a line can't be compared."""
    try:
        before, after = (read_line(text, decimal=decimal).body for text in (step.before, step.after))
    except ReadingError:
        return Places({}, {})
    if before is None or after is None or step.kind in ("aside", "check", "definition"):
        return Places({}, {})
    cancelled = _cancelled(step, before)
    if cancelled:
        return Places(cancelled, {})
    old, new = different(before, after)
    # where the whole line is new, colour would say nothing
    return Places({a: "focus" for a in old if a}, {a: "focus" for a in new if a})


def _cancelled(step: Step, before: n.Node) -> dict[n.Address, str]:
    found: dict[n.Address, str] = {}
    for mark in step.marks:
        if mark.kind != "cancel" or mark.before is None:
            continue
        try:
            wanted = read_line(mark.before).body
        except ReadingError:
            continue
        for address, node in n.walk(before):
            inside = any(address[: len(known)] == known for known in found)
            if wanted is not None and not inside and n.bare(node) == wanted and _is_factor(before, address):
                found[address] = f"cancel-{mark.group % 4}"
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


def different(
    before: n.Node, after: n.Node, at: n.Address = (), to: n.Address = ()
) -> tuple[list[n.Address], list[n.Address]]:
    """The smallest parts in which two lines of the same shape differ."""
    if before == after:
        return [], []
    if type(before) is not type(after) or not before.children or len(before.children) != len(after.children):
        if isinstance(before, n.Sum) and isinstance(after, n.Sum):
            return _terms(before, after, at, to)
        return [at], [to]
    old: list[n.Address] = []
    new: list[n.Address] = []
    for k, (a, b) in enumerate(zip(before.children, after.children, strict=True)):
        left, right = different(a, b, (*at, k), (*to, k))
        old += left
        new += right
    return (old, new) if old or new else ([at], [to])


def _terms(before: n.Sum, after: n.Sum, at: n.Address, to: n.Address) -> tuple[list[n.Address], list[n.Address]]:
    """The terms of one sum that the other has not."""
    first, second = list(before.terms), list(after.terms)
    return (
        [(*at, k) for k, term in enumerate(first) if term not in second],
        [(*to, k) for k, term in enumerate(second) if term not in first],
    )


def typeset(step: Step, *, decimal: str = "point") -> tuple[Echo, Echo]:
    """The lines before and after, set for a screen with the places of the step marked."""
    places = places_of(step, decimal=decimal)

    def classes(marks: Mapping[n.Address, str]) -> dict[n.Address, str]:
        return {address: f"mark-{mark}" for address, mark in marks.items()}

    return (
        echo(step.before, decimal=decimal, marks=classes(places.before)),
        echo(step.text, decimal=decimal, marks=classes(places.after)),
    )
