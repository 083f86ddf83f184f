"""The pages of a sheet in typst's language: sheet, answers, worked key, choose form, cards, large print.

Nothing of a sheet reaches typst but as mathematics made by the core's own printer or as a quoted string.
"""

from __future__ import annotations

from functools import cache

import segno

from algebra import LETTERS, Printed, given_of, printed, quoted
from paper.items import drawing_of
from paper.notation import DOTS, block, formula, graph, math, stated
from paper.plan import PlannedItem, SheetPlan
from paper.settings import Settings, item_form

CARD_ROWS, CARD_COLUMNS = 4, 2


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


def _item(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    shown = math(given_of(item.made), plan, display=True)
    below = {
        "answers": _answer,
        "key": _key,
    }.get(settings.kind, _to_work)(item, plan, settings)
    if settings.kind == "answers":
        content = below
    else:
        given = block(shown, above=0, below=3)
        content = f"{given}\n{below}"
    worth = f", [#text(0.9em, fill: luma(80))[\\[{item.marks}\\]]]" if settings.marks else ""
    columns = "(7mm, 1fr, auto)" if settings.marks else "(7mm, 1fr)"
    return (
        f"#block(breakable: false, width: 100%, above: 4mm, below: "
        f"4mm)[#grid(columns: {columns}, [*{item.number}.*], [\n{content}\n]{worth})]"
    )


def _trouble(item: PlannedItem) -> str:
    return f'#text(fill: rgb("#b93a20"))[#{quoted(item.trouble)}]'


def _answer(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    return _trouble(item) if item.trouble else drawing_of(item).answer(item.made, item, plan)


def _to_work(item: PlannedItem, plan: SheetPlan, settings: Settings) -> str:
    """What stands under the given, by the form of the item."""
    return drawing_of(item).to_work(item.made, item, plan, settings)


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
    drawn = f"\n#block(above: 3mm)[{graph(item, with_curve=True)}]" if item.graph is not None else ""
    if not rows:
        return stated(item, plan) + drawn
    grid = (
        f"#grid(columns: (auto, auto, 1fr), column-gutter: 1.2mm, row-gutter: 3.2mm, "
        f"align: (right + horizon, left + horizon, left + horizon),\n  {', '.join(rows)})"
    )
    return block(grid, above=3.5) + drawn


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
        letters = drawing_of(item).bubbles(item.made)
        if letters:
            circles = ", ".join(
                "[#circle(radius: 2.4mm, stroke: 0.5pt, inset: 0pt)"
                f"[#set align(center + horizon); #text(7pt)[{letter}]]]"
                for letter in LETTERS[:letters]
            )
            rows.append(f"[#grid(columns: (7mm,) + (7mm,) * {letters}, align: horizon, [*{item.number}*], {circles})]")
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
            f"[*{item.number}.* #v(4mm) #align(center)[{math(item.working.given, plan, display=True)}]]"
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
