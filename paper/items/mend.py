"""To mend: a working with one slip in it; which line, and what should stand there."""

from __future__ import annotations

from algebra import MendItem, printed, quoted, without_move
from paper.items.drawing import Drawing
from paper.notation import DOTS, block, formula, math
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings


def _lines(made: MendItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    rows = []
    for number, text in enumerate(made.lines, start=1):
        found = printed(text, decimal=plan.decimal)
        whole = f"{found.left} {found.right}"
        shown = f"#{quoted(text)}" if found.kind == "unread" else formula(whole, found.text, display=True)
        rows.append(f"[#text(0.8em, fill: luma(90))[({number})]], [{shown}]")
    lines = f"#grid(columns: (9mm, 1fr), row-gutter: 3mm, align: horizon, {', '.join(rows)})"
    ask = f"The slip is in line #box(width: 12mm, {DOTS}) \\ #v(1mm) It should read #box(width: 1fr, {DOTS})"
    return f"{block(lines, above=3)}\n#block(above: 5mm)[{ask}]"


def _answer(made: MendItem, item: PlannedItem, plan: SheetPlan) -> str:
    done = f"#h(3mm) #text(0.82em, fill: luma(80))[#{quoted(made.done)}]"
    return f"line {made.line}: {math(without_move(made.right), plan)} {done}"


DRAWING = Drawing(
    _lines,
    _answer,
    lines=lambda made: made.lines,
    rubric=lambda made: (f"Line {made.line} should read", without_move(made.right)),
)
