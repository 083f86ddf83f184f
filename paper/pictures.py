"""A chain or a graph as a picture of its own, to be put into slides and papers: SVG or PNG."""

from __future__ import annotations

from typing import Literal, get_args

from algebra import Relation, TaskError, Working, analysed, check, printed, quoted
from paper.graph import axes
from paper.layout import check_line, level
from paper.notation import formula
from paper.pages import as_png, as_svg

Picture = Literal["svg", "png"]
PICTURES: tuple[Picture, ...] = get_args(Picture)
Shown = Literal["chain", "graph"]
SHOWN: tuple[Shown, ...] = get_args(Shown)
PIXELS_AN_INCH = 220.0
_COLOURS: dict[Relation | None, str] = {
    "holds": "#2a766d",
    "widens": "#9a6512",
    "settles": "#34639b",
    "narrows": "#85427f",
    "breaks": "#b93a20",
    "unclear": "#6f7590",
    None: "#6f7590",
}
_LINKS: dict[Relation | None, str] = {
    "holds": '<path d="M10 1V23"/>',
    "widens": '<path d="M10 1V8"/><path d="M10 8C10 13 5 11 5 16V23"/><path d="M10 8C10 13 15 11 15 16V23"/>',
    "settles": '<path d="M5 1V9C5 14 10 12 10 17"/><path d="M15 1V9C15 14 10 12 10 17"/><path d="M10 17V23"/>',
    "narrows": '<path d="M5 1C5 10 9 9 9 12S5 14 5 23H15C15 14 11 '
    '15 11 12S15 10 15 1Z" fill="{colour}" stroke="none"/>',
    "breaks": '<path d="M10 1L6.5 10"/><path d="M13.5 14L10 23"/>',
}
"""The links as the rail beside a working draws them, from one bead down to the next."""
_DOTTED = '<path d="M10 1V23" stroke-dasharray="0.1 5"/>'


def picture_of(working: Working, shown: Shown, form: Picture) -> bytes:
    """The chain of a working with its links, or the graph of a function. Raises TaskError where there is none."""
    if shown == "graph":
        svg = _graph(working)
        if form == "svg":
            return svg.encode()
        return _picture(f'#image(bytes({quoted(svg)}), format: "svg", width: 96mm)', form)
    return _picture(_chain(working), form)


def _picture(content: str, form: Picture) -> bytes:
    source = f"""#set document(date: none)
#set page(width: auto, height: auto, margin: 4mm, fill: white)
#set text(font: "New Computer Modern", size: 12pt, lang: "en")
#show math.equation: set text(font: "New Computer Modern Math")
{content}
"""
    pages = as_svg(source) if form == "svg" else as_png(source, pixels_an_inch=PIXELS_AN_INCH)
    return pages[0]


def _graph(working: Working) -> str:
    found = analysed(working.given, variable=working.variable, with_graph=True)
    if found.graph is None:
        why = f" {found.error.message}" if found.error else ""
        raise TaskError(f"Only a function of one letter has a graph.{why}")
    return axes(found.graph, with_curve=True)


def _chain(working: Working) -> str:
    report = check(working)
    if report.error is not None and report.error.line == 0:
        raise TaskError(report.error.message)
    decimal = working.convention("decimal")
    rows = [_row(working.given, decimal)]
    for link, text in zip(report.links, working.lines, strict=True):
        rows += [_link(link.relation), _row(text, decimal)]
    return (
        '#set text(top-edge: "bounds", bottom-edge: "bounds")\n'
        "#grid(columns: (7mm, auto, auto, auto), column-gutter: 1.2mm, row-gutter: 0.9mm, "
        f"align: (center + horizon, right + horizon, left + horizon, left + horizon), {', '.join(rows)})"
    )


def _link(relation: Relation | None) -> str:
    colour = _COLOURS[relation]
    strokes = _LINKS.get(relation, _DOTTED).replace("{colour}", colour)
    svg = (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 '
        '24" fill="none" stroke-width="2.2" stroke-linecap="round" '
        f'stroke-linejoin="round" stroke="{colour}">{strokes}</svg>'
    )
    return (
        f'[#image(bytes({quoted(svg)}), format: "svg", height: 6mm, alt: {quoted(relation or "not read")})], [], [], []'
    )


_BEAD = '#circle(radius: 0.9mm, fill: rgb("#1d2440"))'


def _row(text: str, decimal: str) -> str:
    found = printed(text, decimal=decimal)
    if found.kind == "unread":
        return f"[{_BEAD}], grid.cell(colspan: 3, align: left + horizon)[#{quoted(text)}]"
    words = (
        f"#text(0.8em, fill: luma(80))[#h(3mm) "
        f"{formula(found.move, found.move_text) if found.move else ''} #{quoted(found.remark)}]"
    )
    if found.kind == "check":
        return f"[{_BEAD}], grid.cell(colspan: 3, align: left + horizon)[{check_line(found)}]"
    left_side, right_side = level(found.left, found.right)
    left = f"[{formula(found.left, found.text, display=True)}{right_side}]" if found.left else "[]"
    return f"[{_BEAD}], {left}, [{left_side}{formula(found.right, found.text, display=True)}], [{words}]"
