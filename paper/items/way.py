"""Which way: a line for its name."""

from __future__ import annotations

from algebra import LETTERS, WayItem, quoted, way_named
from paper.items.drawing import Choice, Drawing
from paper.notation import DOTS
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings


def _line(made: WayItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    return f"#block(above: 4mm)[The way #box(width: 62mm, {DOTS})]"


def _answer(made: WayItem, item: PlannedItem, plan: SheetPlan) -> str:
    also = f"also: {', '.join(map(way_named, made.also))}"
    return f"#{quoted(way_named(made.best))} #h(3mm) #text(0.82em, fill: luma(80))[#{quoted(also)}]"


def _choices(made: WayItem, item: PlannedItem) -> list[Choice]:
    ways = sorted([made.best, *made.also][: len(LETTERS)])
    return [Choice(way_named(way), way == made.best, "It leads there by a longer road.") for way in ways]


DRAWING = Drawing(_line, _answer, choices=_choices)
