"""The pages of a sheet in typst's language: sheet, answers, worked key, choose form, cards, large print.

Nothing of a sheet reaches typst but as mathematics made by the core's own printer or as a quoted string.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Literal, get_args

import segno

from algebra import METHODS, ClaimItem, FillItem, MendItem, Option, Printed, printed, quoted
from paper.graph import axes
from paper.plan import ItemForm, PlannedItem, SheetPlan

Kind = Literal["sheet", "answers", "key", "choose", "mend", "fill", "way", "claim", "cards", "large"]
PageSize = Literal["a4", "letter"]
Space = Literal["blank", "lines", "squares", "none"]
KINDS, PAGE_SIZES = get_args(Kind), get_args(PageSize)
LETTERS = "ABCDEFGH"
LINE_MM, LEAST_MM, MOST_MM = 9, 18, 130
"""How much room a line of the key gives to who works the item, and the bounds of the space for one item."""
CARD_ROWS, CARD_COLUMNS = 4, 2
DOTS = "repeat[#h(1pt).#h(1pt)]"


@dataclass(frozen=True, slots=True)
class Settings:
    """How a sheet is laid out. `columns` is that of the items; `space` is what the work space looks like."""

    kind: Kind = "sheet"
    paper: PageSize = "a4"
    columns: int = 1
    space: Space = "blank"
    name_line: bool = True
    reasons: bool = False
    marks: bool = False


def item_form(kind: Kind) -> ItemForm | None:
    """The form that all items take on a page of this kind; None where each keeps its own."""
    return kind if kind in ("choose", "mend", "fill", "way", "claim") else None


def source_of(plan: SheetPlan, settings: Settings) -> str:
    """The whole document. Raises ValueError for columns that no page has."""
    if not 1 <= settings.columns <= 3:
        raise ValueError("A page has one to three columns.")
    if settings.kind == "cards":
        return _head(plan, settings) + _cards(plan)
    parts = [_head(plan, settings), _title(plan, settings)]
    for section in plan.sections:
        parts.append(
            f"#block(sticky: true, above: 6mm, below: 4mm)[#text(weight: 600)[#{quoted(section.instruction)}]]"
        )
        parts += [_item(item, plan, settings) for item in section.items]
    if settings.kind == "choose":
        parts.append(_bubbles(plan))
    if item_form(settings.kind):
        parts.append(_for_the_teacher(plan))
    return "\n".join(parts)


def _head(plan: SheetPlan, settings: Settings) -> str:
    size = 18 if settings.kind == "large" else 11
    paper = {"a4": "a4", "letter": "us-letter"}[settings.paper]
    words = {"answers": "Answers", "key": "Worked key"}.get(settings.kind, "")
    code = f"{plan.code} · {plan.version}"
    columns = 1 if settings.kind in ("large", "cards") else settings.columns
    return f"""#set document(title: {quoted(f"{plan.title} {words}".strip())}, date: none)
#set page(paper: {quoted(paper)}, margin: (x: 18mm, top: 16mm, bottom: 22mm), columns: {columns}, footer: context [
  #set text(8pt, fill: luma(90))
  #grid(columns: (1fr, auto, auto), column-gutter: 5mm, align: horizon,
    [#{quoted(plan.title)}#{quoted(f" · {words}" if words else "")}],
    [#{quoted(code)} · #counter(page).display("1 / 1", both: true)],
    image(bytes({quoted(_qr(plan))}), format: "svg", height: 9mm, alt: {quoted(f"sheet code {code}")}))
])
#set text(font: "New Computer Modern", size: {size}pt, lang: "en", region: "us")
#set par(leading: 0.7em)
#set columns(gutter: 9mm)
#show math.equation: set text(font: "New Computer Modern Math")
"""


@cache
def _qr_svg(text: str) -> str:
    return segno.make(text, error="m", micro=False).svg_inline(border=0)


def _qr(plan: SheetPlan) -> str:
    """The sheet's code, from which a scanned page is told."""
    return _qr_svg(f"uchuu:{plan.code}:{plan.version}").replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ', 1)


def _title(plan: SheetPlan, settings: Settings) -> str:
    words = {"answers": " · answers", "key": " · worked key"}.get(settings.kind, "")
    title = (
        f"#heading(level: 1)[#text(1.25em)[#{quoted(plan.title)}]]\n#text(0.9em, "
        f"fill: luma(80))[#{quoted(f'Version {plan.version}{words}')}]"
    )
    if settings.marks:
        title += f" #h(6mm) #text(0.9em, fill: luma(80))[of {sum(item.marks for item in plan.items)}]"
    if settings.name_line and settings.kind not in ("answers", "key"):
        title += f" #h(8mm) Name #h(2mm) #box(width: 1fr, {DOTS}) #h(6mm) Date #h(2mm) #box(width: 38mm, {DOTS})"
    return f'#place(top, scope: "parent", float: true, clearance: 6mm)[#block(width: 100%, below: 0pt)[{title}]]\n'


def _math(text: str, plan: SheetPlan, *, display: bool = False) -> str:
    """One line as a formula that carries its plain text; what could not be read stands as it was written."""
    found = printed(text, decimal=plan.decimal)
    if found.kind == "unread":
        return f"#{quoted(text)}"
    return formula(f"{found.left} {found.right}", found.text, display=display)


def formula(notation: str, text: str, *, display: bool = False) -> str:
    """One formula in typst, with the plain text that a screen reader speaks."""
    body = f"math.display($ {notation} $.body)" if display else f"$ {notation} $"
    return f"#math.equation(alt: {quoted(text)}, block: false, {body})"


def _item(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    shown = _math(item.claim.claim if item.claim else item.working.given, plan, display=True)
    below = {
        "answers": _answer,
        "key": _key,
    }.get(settings.kind, _to_work)(item, plan, settings)
    if settings.kind == "answers":
        content = below
    else:
        given = _block(shown, above=0, below=3)
        content = f"{given}\n{below}"
    worth = f", [#text(0.9em, fill: luma(80))[\\[{item.marks}\\]]]" if settings.marks else ""
    columns = "(7mm, 1fr, auto)" if settings.marks else "(7mm, 1fr)"
    return (
        f"#block(breakable: false, width: 100%, above: 4mm, below: "
        f"4mm)[#grid(columns: {columns}, [*{item.number}.*], [\n{content}\n]{worth})]"
    )


def _block(content: str, *, above: float, below: float | None = None) -> str:
    """A block whose height is that of the formulas in it, not that of a line of text."""
    after = "" if below is None else f", below: {below}mm"
    return f'#block(above: {above}mm{after})[#set text(top-edge: "bounds", bottom-edge: "bounds")\n{content}]'


def _to_work(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    """What stands under the given, by the form of the item."""
    if item.options:
        return _choice(item, item.options, plan)
    if item.mend is not None:
        return _mend(item.mend, plan)
    if item.fill is not None:
        return _fill(item.fill, plan)
    if item.way is not None:
        return f"#block(above: 4mm)[The way #box(width: 62mm, {DOTS})]"
    return _claim(item.claim) if item.claim is not None else _space(item, plan, settings)


def _space(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    if item.graph is not None:
        return f"#block(above: 4mm)[{_graph(item, plan, with_curve=False)}]"
    if settings.space == "none":
        return ""
    height = min(max(LEAST_MM, LINE_MM * (len(item.key) + 1)), MOST_MM)
    match settings.space:
        case "lines":
            ruled = (
                f"#for _ in range({height // LINE_MM}) {{ v({LINE_MM}mm, "
                f"weak: false); line(length: 100%, stroke: 0.4pt + luma(170)) }}"
            )
            return f"#block(width: 100%)[#set block(spacing: 0pt)\n{ruled}]"
        case "squares":
            fill = "tiling(size: (5mm, 5mm))[#square(size: 5mm, stroke: 0.3pt + luma(200))]"
            return f"#block(width: 100%, height: {height // 5 * 5}mm, above: 3mm, fill: {fill})"
    return f"#v({height}mm)"


def _graph(item: PlannedItem, plan: SheetPlan, *, with_curve: bool) -> str:
    assert item.graph is not None
    svg = axes(item.graph, with_curve=with_curve)
    words = f"graph of {item.working.given}" if with_curve else "a grid to draw the graph in"
    return f'#image(bytes({quoted(svg)}), format: "svg", width: 74mm, alt: {quoted(words)})'


def _trouble(item: PlannedItem) -> str:
    return f'#text(fill: rgb("#b93a20"))[#{quoted(item.trouble)}]'


def _answer(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    if item.trouble:
        return _trouble(item)
    small = "#h(3mm) #text(0.82em, fill: luma(80))"
    if item.options:
        pairs = list(zip(LETTERS, item.options, strict=False))
        right = next(letter for letter, option in pairs if option.right)
        reasons = "  ".join(f"{letter}: {option.reason}" for letter, option in pairs if option.reason)
        return f"*{right}* #h(3mm) {_stated(item, plan)} {small}[#{quoted(reasons)}]"
    if item.mend is not None:
        return (
            f"line {item.mend.line}: {_math(item.mend.right.partition('|')[0], plan)} "
            f"{small}[#{quoted(item.mend.done)}]"
        )
    if item.fill is not None:
        return ", ".join(_math(value, plan) for value in item.fill.wanted)
    if item.way is not None:
        also = f"also: {', '.join(map(_way_named, item.way.also))}"
        return f"#{quoted(_way_named(item.way.best))} {small}[#{quoted(also)}]"
    if item.claim is not None:
        shown = ", ".join(_math(f"{name} = {value}", plan) for name, value in item.claim.counter.items())
        right = f" {small}[it is #h(1mm)] {_stated(item, plan)}"
        return "true" if item.claim.true else f"not true{f', as for {shown}' if shown else ''}{right}"
    if item.working.task in ("analyze", "analyse"):
        return ", ".join(_math(line.text, plan) for line in item.key)
    return _stated(item, plan)


def _stated(item: PlannedItem, plan: SheetPlan) -> str:
    """The answer as one states it, with the values that are left out."""
    if item.working.task == "solve":
        if not item.answer:
            return "no solution"
        if item.answer == ("all",):
            left_out = f" except {', '.join(item.excluded)}" if item.excluded else ""
            return _math(f"all real numbers{left_out}", plan)
        return " #h(2mm) or #h(2mm) ".join(_math(f"{item.unknown} = {value}", plan) for value in item.answer)
    if item.working.task == "domain":
        return ", ".join(_math(line.text, plan) for line in item.key[-1:])
    shown = ", ".join(_math(value, plan) for value in item.answer)
    if item.excluded:
        named = [text if "≠" in text else f"{item.unknown} ≠ {text}" for text in item.excluded]
        shown += f" #h(3mm) #text(0.9em, fill: luma(80))[({', '.join(_math(text, plan) for text in named)})]"
    return shown


def _key(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    if item.trouble:
        return _trouble(item)
    rows = []
    for line in item.key:
        found = printed(line.text, decimal=plan.decimal)
        if found.kind == "unread":
            rows.append(f"grid.cell(colspan: 3)[#{quoted(line.text)}]")
            continue
        beside = settings.columns == 1 and settings.reasons
        rows.append(_key_row(found, line.reason if beside else ""))
        if settings.reasons and line.reason and not beside:  # a narrow column has no room beside its lines
            rows.append(f"grid.cell(colspan: 3, align: left)[#text(0.82em, fill: luma(80))[#{quoted(line.reason)}]]")
    drawn = f"\n#block(above: 3mm)[{_graph(item, plan, with_curve=True)}]" if item.graph is not None else ""
    if not rows:
        return _stated(item, plan) + drawn
    grid = (
        f"#grid(columns: (auto, auto, 1fr), column-gutter: 1.2mm, row-gutter: 3.2mm, "
        f"align: (right + horizon, left + horizon, left + horizon),\n  {', '.join(rows)})"
    )
    return _block(grid, above=3.5) + drawn


def _key_row(found: Printed, reason: str) -> str:
    if found.kind == "check":
        return f"grid.cell(colspan: 3, align: left + horizon)[{check_line(found)}]"
    left_side, right_side = level(found.left, found.right)
    # a screen reader is told the line once, at its right part, and of the left part that it belongs to it
    left = f"[{formula(found.left, 'left side of ' + found.text, display=True)}{right_side}]" if found.left else "[]"
    # in a box: a formula is never broken at its end
    right = f"[#box[{left_side}{formula(found.right, found.text, display=True)}]]"
    beside = f"#h(4mm) #box[{formula(found.move, found.move_text)}]" if found.move else ""
    words = " ".join(part for part in (found.remark, reason) if part)
    note = f"{beside}{f' #h(3mm) #{quoted(words)}' if words else ''}"
    return f"{left}, {right}, [#text(0.82em, fill: luma(80))[{note}]]"


def level(left: str, right: str) -> tuple[str, str]:
    """The two sides of a line without width or ink. Each beside the other gives both cells the same height, so that
    they stand on one base line."""

    def strut(notation: str) -> str:
        shown = f'math.equation(alt: "-", block: false, math.display($ {notation} $.body))'
        return f"#pdf.artifact(box(width: 0pt, box(width: 180mm, hide({shown}))))" if notation else ""

    return strut(left), strut(right)


def check_line(found: Printed) -> str:
    """A check as it stands in a key and in a picture: which candidate, and what comes out."""
    about, _, said = found.text.rpartition(": ")
    of = f"#h(1mm) {formula(found.about, about)}:" if found.about else ""
    whole = formula(f"{found.left} {found.right}", said, display=True)
    return f"#text(0.82em, fill: luma(80))[check{of}] #h(2mm) {whole}"


def _choice(item: PlannedItem, options: Sequence[Option], plan: SheetPlan) -> str:
    shown = []
    for letter, option in zip(LETTERS, options, strict=False):
        text = (
            option.answer
            if item.working.task != "solve" or "solution" in option.answer
            else " or ".join(f"{item.unknown} = {value}" for value in option.answer.split(" or "))
        )
        shown.append(f"[#h(1mm) *{letter}* #h(2mm) {_math(text, plan, display=True)}]")
    return _block(f"#grid(columns: (1fr, 1fr), row-gutter: 4mm, align: horizon, {', '.join(shown)})", above=3.5)


def _mend(item: MendItem, plan: SheetPlan) -> str:
    """A working with one slip in it: which line, and what should stand there."""
    rows = []
    for number, text in enumerate(item.lines, start=1):
        found = printed(text, decimal=plan.decimal)
        shown = (
            f"#{quoted(text)}"
            if found.kind == "unread"
            else formula(f"{found.left} {found.right}", found.text, display=True)
        )
        rows.append(f"[#text(0.8em, fill: luma(90))[({number})]], [{shown}]")
    lines = f"#grid(columns: (9mm, 1fr), row-gutter: 3mm, align: horizon, {', '.join(rows)})"
    ask = f"The slip is in line #box(width: 12mm, {DOTS}) \\ #v(1mm) It should read #box(width: 1fr, {DOTS})"
    return f"{_block(lines, above=3)}\n#block(above: 5mm)[{ask}]"


def _fill(item: FillItem, plan: SheetPlan) -> str:
    """A worked solution with blanks in it."""
    rows = ", ".join(f"[{_math(text, plan, display=True)}]" for text in item.lines)
    return _block(f"#grid(columns: 1, row-gutter: 4mm, {rows})", above=3)


def _claim(item: ClaimItem) -> str:
    """Two boxes to tick, and room for the numbers that show it, where there are letters."""
    box = "#box(baseline: 0.5mm, square(size: 3.2mm, stroke: 0.5pt))"
    shown = f", for example for #box(width: 1fr, {DOTS})" if item.true or item.counter else ""
    return f"#block(above: 4mm)[{box} true #h(8mm) {box} not true{shown}]"


def _way_named(method: str) -> str:
    return next((each.name for each in METHODS if each.id == method), method)


def _for_the_teacher(plan: SheetPlan) -> str:
    """A last page with what is right: the letters, the faulty lines, the numbers of the blanks."""
    rows = [
        f"#block(breakable: false)[#grid(columns: (8mm, 1fr), [*{item.number}.*], [{_answer(item, plan, Settings())}])]"
        for item in plan.items
    ]
    return "#pagebreak()\n#block(below: 4mm)[#text(weight: 600)[For the teacher]]\n" + "\n".join(rows)


def _bubbles(plan: SheetPlan) -> str:
    """A strip in which the answers are marked, for an eye or a machine to read in one look."""
    rows = []
    for item in plan.items:
        if item.options:
            circles = ", ".join(
                f"[#circle(radius: 2.4mm, stroke: 0.5pt, inset: "
                f"0pt)[#set align(center + horizon); #text(7pt)[{letter}]]]"
                for letter in LETTERS[: len(item.options)]
            )
            rows.append(
                f"[#grid(columns: (7mm,) + (7mm,) * {len(item.options)}, align: horizon, [*{item.number}*], {circles})]"
            )
    if not rows:
        return ""
    return (
        f"#block(breakable: false, above: 9mm, stroke: (top: 0.5pt), inset: (top: 4mm), width: "
        f"100%)[#grid(columns: 4, column-gutter: 6mm, row-gutter: 2.5mm, {', '.join(rows)})]"
    )


def _cards(plan: SheetPlan) -> str:
    """Cards to cut out: a page of items, then its back with the answers mirrored, so that they match when it is turned
    over its long edge."""
    pages = []
    each = CARD_ROWS * CARD_COLUMNS
    items = list(plan.items)
    for start in range(0, len(items), each):
        page = items[start : start + each]
        front = [
            f"[*{item.number}.* #v(4mm) #align(center)[{_math(item.working.given, plan, display=True)}]]"
            for item in page
        ]
        backs = [f"[*{item.number}.* #v(4mm) #align(center)[{_answer(item, plan, Settings())}]]" for item in page]
        blank = ["[]"] * (each - len(page))
        pages.append(_card_page(front + blank))
        mirrored = backs + blank
        pages.append(
            _card_page(
                [
                    mirrored[row * CARD_COLUMNS + CARD_COLUMNS - 1 - column]
                    for row in range(CARD_ROWS)
                    for column in range(CARD_COLUMNS)
                ]
            )
        )
    return "#pagebreak()\n".join(pages)


def _card_page(cells: list[str]) -> str:
    return (
        f"#grid(columns: (1fr,) * {CARD_COLUMNS}, rows: (60mm,) * {CARD_ROWS}, stroke: (paint: "
        f'luma(160), dash: "dashed", thickness: 0.5pt), inset: 6mm, {", ".join(cells)})\n'
    )
