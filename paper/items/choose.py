"""To choose from: the options in two columns, and a strip in which their letters are ticked."""

from __future__ import annotations

from algebra import LETTERS, ChooseItem, quoted, right_place
from paper.items.drawing import Choice, Drawing
from paper.notation import block, math, stated, with_unknown
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings


def _options(made: ChooseItem, item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    shown = [
        f"[#h(1mm) *{letter}* #h(2mm) {math(with_unknown(option.answer, item), plan, display=True)}]"
        for letter, option in zip(LETTERS, made.options, strict=False)
    ]
    return block(f"#grid(columns: (1fr, 1fr), row-gutter: 4mm, align: horizon, {', '.join(shown)})", above=3.5)


def _answer(made: ChooseItem, item: PlannedItem, plan: SheetPlan) -> str:
    reasons = "  ".join(
        f"{letter}: {option.reason}" for letter, option in zip(LETTERS, made.options, strict=False) if option.reason
    )
    small = f"#h(3mm) #text(0.82em, fill: luma(80))[#{quoted(reasons)}]"
    return f"*{LETTERS[right_place(made)]}* #h(3mm) {stated(item, plan)} {small}"


def _choices(made: ChooseItem, item: PlannedItem) -> list[Choice]:
    return [Choice(with_unknown(option.answer, item), option.right, option.reason) for option in made.options]


DRAWING = Drawing(_options, _answer, choices=_choices, bubbles=lambda made: len(made.options))
