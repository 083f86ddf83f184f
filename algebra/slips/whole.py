"""Slips that concern a line as a whole: copying, arithmetic, a lost equals sign. They are found by looking, not by trying."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.slips.slip import Slip, Wrong
from algebra.tree import nodes as n


def _none(_: n.Node) -> Iterator[Wrong]:
    return iter(())


EQUALS_LOST = Slip(
    id="equals-lost", name="Lost the equals sign", kind="notation", topic="equations", done="{what}.",
    why="An equation goes on as an equation; an expression alone claims nothing.", cue="Is there still an equals sign?",
    examples=(("3x - 12 = 0", "x - 4"),), wrong=_none, scope="equation",
)  # fmt: skip
COPIED = Slip(
    id="copied-wrongly", name="Copied wrongly", kind="care", topic="any", done="{what}.",
    why="Nothing else was done to the line.", cue="Compare with the line above, sign by sign.",
    examples=(("2x + 5 = 11", "2x + 3 = 11"),), wrong=_none,
)  # fmt: skip
ARITHMETIC = Slip(
    id="arithmetic", name="A number worked out wrongly", kind="care", topic="any", done="{what}.", why="Everything else fits.",
    cue="Work this one fact out again.", examples=(("7·8 + 1", "54 + 1"),), wrong=_none,
)  # fmt: skip
SLIPS = (EQUALS_LOST, COPIED, ARITHMETIC)
