"""Mathematics and words of a sheet in typst's language, as every page of it writes them.

Nothing of a sheet reaches typst but as mathematics made by the core's own printer or as a quoted string.
"""

from __future__ import annotations

from algebra import printed, quoted
from paper.graph import axes
from paper.plan import PlannedItem, SheetPlan

DOTS = "repeat[#h(1pt).#h(1pt)]"
"""A line of dots to write on."""


def math(text: str, plan: SheetPlan, *, display: bool = False) -> str:
    """One line as a formula that carries its plain text; what could not be read stands as it was written."""
    found = printed(text, decimal=plan.decimal)
    if found.kind == "unread":
        return f"#{quoted(text)}"
    return formula(f"{found.left} {found.right}", found.text, display=display)


def formula(notation: str, text: str, *, display: bool = False) -> str:
    """One formula in typst, with the plain text that a screen reader speaks."""
    body = f"math.display($ {notation} $.body)" if display else f"$ {notation} $"
    return f"#math.equation(alt: {quoted(text)}, block: false, {body})"


def small(text: str) -> str:
    """Words beside an answer, small and grey."""
    return f"#text(0.82em, fill: luma(80))[#{quoted(text)}]"


def block(content: str, *, above: float, below: float | None = None) -> str:
    """A block whose height is that of the formulas in it, not that of a line of text."""
    after = "" if below is None else f", below: {below}mm"
    return f'#block(above: {above}mm{after})[#set text(top-edge: "bounds", bottom-edge: "bounds")\n{content}]'


def graph(item: PlannedItem, *, with_curve: bool) -> str:
    """The grid of a function, with its curve or to be drawn in. The item must have a graph."""
    assert item.graph is not None
    svg = axes(item.graph, with_curve=with_curve)
    words = f"graph of {item.working.given}" if with_curve else "a grid to draw the graph in"
    return f'#image(bytes({quoted(svg)}), format: "svg", width: 74mm, alt: {quoted(words)})'


def stated(item: PlannedItem, plan: SheetPlan) -> str:
    """The answer as one states it, with the values that are left out."""
    if item.working.task == "solve":
        if not item.answer:
            return "no solution"
        if item.answer == ("all",):
            left_out = f" except {', '.join(item.excluded)}" if item.excluded else ""
            return math(f"all real numbers{left_out}", plan)
        return " #h(2mm) or #h(2mm) ".join(math(f"{item.unknown} = {value}", plan) for value in item.answer)
    if item.working.task == "domain":
        return ", ".join(math(line.text, plan) for line in item.key[-1:])
    shown = ", ".join(math(value, plan) for value in item.answer)
    if item.excluded:
        named = [text if "≠" in text else f"{item.unknown} ≠ {text}" for text in item.excluded]
        shown += f" #h(3mm) #text(0.9em, fill: luma(80))[({', '.join(math(text, plan) for text in named)})]"
    return shown


def with_unknown(answer: str, item: PlannedItem) -> str:
    """An answer of values as it is stated: `x = 2 or x = 3` for `2 or 3`."""
    if item.working.task != "solve" or "solution" in answer:
        return answer
    return " or ".join(f"{item.unknown} = {value}" for value in answer.split(" or "))
