"""Features of a function: a grid to draw its graph in."""

from __future__ import annotations

from algebra import FeaturesItem, WorkItem
from paper.items import work
from paper.items.drawing import Drawing
from paper.notation import graph, math
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings


def _grid(made: FeaturesItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    if item.graph is None:
        return work.DRAWING.to_work(WorkItem(made.working), item, plan, settings)
    return f"#block(above: 4mm)[{graph(item, with_curve=False)}]"


def _answer(made: FeaturesItem, item: PlannedItem, plan: SheetPlan) -> str:
    return ", ".join(math(line.text, plan) for line in item.key)


DRAWING = Drawing(_grid, _answer)
