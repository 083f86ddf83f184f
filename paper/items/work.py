"""To work: room for lines."""

from __future__ import annotations

from algebra import WorkItem
from paper.items.drawing import Drawing
from paper.notation import stated
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings

LINE_MM, LEAST_MM, MOST_MM = 9, 18, 130
"""How much room a line of the key gives to who works the item, and the bounds of the space for one item."""


def _space(made: WorkItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    if settings.space == "none":
        return ""
    height = min(max(LEAST_MM, LINE_MM * (len(item.key) + 1)), MOST_MM)
    match settings.space:
        case "lines":
            ruled = (
                f"#for _ in range({height // LINE_MM}) "
                f"{{ v({LINE_MM}mm, weak: false); line(length: 100%, stroke: 0.4pt + luma(170)) }}"
            )
            return f"#block(width: 100%)[#set block(spacing: 0pt)\n{ruled}]"
        case "squares":
            fill = "tiling(size: (5mm, 5mm))[#square(size: 5mm, stroke: 0.3pt + luma(200))]"
            return f"#block(width: 100%, height: {height // 5 * 5}mm, above: 3mm, fill: {fill})"
    return f"#v({height}mm)"


def _answer(made: WorkItem, item: PlannedItem, plan: SheetPlan) -> str:
    return stated(item, plan)


DRAWING = Drawing(_space, _answer)
