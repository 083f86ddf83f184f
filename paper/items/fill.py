"""To fill in: a worked solution with blanks in it."""

from __future__ import annotations

from algebra import FillItem
from paper.items.drawing import Drawing
from paper.notation import block, math
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings


def _lines(made: FillItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    rows = ", ".join(f"[{math(text, plan, display=True)}]" for text in made.lines)
    return block(f"#grid(columns: 1, row-gutter: 4mm, {rows})", above=3)


def _answer(made: FillItem, item: PlannedItem, plan: SheetPlan) -> str:
    return ", ".join(math(value, plan) for value in made.wanted)


DRAWING = Drawing(
    _lines, _answer, lines=lambda made: made.lines, rubric=lambda made: (f"Missing: {', '.join(made.wanted)}",)
)
