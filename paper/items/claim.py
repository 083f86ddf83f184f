"""True or not: two boxes to tick, and room for the numbers that show it, where there are letters."""

from __future__ import annotations

from algebra import ClaimItem
from paper.items.drawing import Choice, Drawing
from paper.notation import DOTS, math, stated
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings


def _boxes(made: ClaimItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    box = "#box(baseline: 0.5mm, square(size: 3.2mm, stroke: 0.5pt))"
    shown = f", for example for #box(width: 1fr, {DOTS})" if made.true or made.counter else ""
    return f"#block(above: 4mm)[{box} true #h(8mm) {box} not true{shown}]"


def _answer(made: ClaimItem, item: PlannedItem, plan: SheetPlan) -> str:
    if made.true:
        return "true"
    shown = ", ".join(math(f"{name} = {value}", plan) for name, value in made.counter.items())
    right = f" #h(3mm) #text(0.82em, fill: luma(80))[it is #h(1mm)] {stated(item, plan)}"
    return f"not true{f', as for {shown}' if shown else ''}{right}"


def _choices(made: ClaimItem, item: PlannedItem) -> list[Choice]:
    said = "Put numbers in on both sides." if made.true else "For some numbers the sides differ."
    return [Choice("true", made.true, said), Choice("not true", not made.true, said)]


DRAWING = Drawing(_boxes, _answer, choices=_choices)
