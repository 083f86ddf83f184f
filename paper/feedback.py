"""What comes back to students: a slip of paper each, two to a page, cut in the middle, in the order of the pile.

It says what went right, shows the first place that does not hold, gives a cue and two problems to try. The right line
is shown only where the teacher wants it. A mark stands there only when it was confirmed.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from algebra import printed, quoted, without_move

MOST_SHOWN = 4
"""How many places that do not hold a slip has room for; the others are named by their numbers."""


@dataclass(frozen=True, slots=True)
class Place:
    """The first place of a working that does not hold: the line before and the line, what to look at, and the right
    line if it is to be shown."""

    number: int
    before: str
    line: str
    cue: str
    right: str = ""
    in_words: bool = False
    """Whether the line is an answer in words, as the number of a line is, and no mathematics."""


@dataclass(frozen=True, slots=True)
class FeedbackSlip:
    """What one student gets back. `well` and `open_ends` are numbers of items; `mark` is empty until every working is
    confirmed."""

    student: str
    well: tuple[int, ...]
    places: tuple[Place, ...]
    open_ends: tuple[int, ...]
    tries: tuple[str, ...]
    mark: str = ""


def feedback_source(
    title: str, day: str, slips: list[FeedbackSlip], *, paper: Literal["a4", "letter"] = "a4", decimal: str = "point"
) -> str:
    """The document: half a page a student, a dashed line to cut along."""
    name, height = {"a4": ("a4", 297), "letter": ("us-letter", 279)}[paper]
    half = height / 2
    parts = [
        f"""#set document(title: {quoted(f"{title}: feedback")}, date: none)
#set page(paper: {quoted(name)}, margin: 0mm)
#set text(font: "New Computer Modern", size: 10.5pt, lang: "en", region: "us")
#set par(leading: 0.6em)
#show math.equation: set text(font: "New Computer Modern Math")
"""
    ]
    for k, slip in enumerate(slips):
        cut = (
            ""
            if k % 2
            else "#place(bottom, dx: -18mm, dy: 6mm, line(length: 100% + 36mm, "
            'stroke: (paint: luma(150), dash: "dashed", thickness: 0.5pt)))'
        )
        rows = ", ".join(f"[{row}]" for row in _rows(title, day, slip, decimal))
        parts.append(
            f"#block(width: 100%, height: {half}mm, inset: (x: 18mm, top: "
            f"11mm, bottom: 6mm), breakable: false, clip: true, spacing: 0pt)"
            f"[#stack(dir: ttb, spacing: 4.6mm, {rows}){cut}]"
        )
    return "\n".join(parts)


def _rows(title: str, day: str, slip: FeedbackSlip, decimal: str) -> list[str]:
    mark = f"#h(1fr) *{slip.mark}*" if slip.mark else ""
    rows = [
        f"#block(spacing: 0pt)[#heading(level: 1)[#text(1.05em)[#{quoted(slip.student)}]]]",
        f"#text(0.9em, fill: luma(80))[#{quoted(f'{title}, {day}')}] {mark}",
    ]
    if slip.well:
        rows.append(
            f"Right: {_listed(slip.well)}." if slip.places or slip.open_ends else "Everything is right. Well done."
        )
    for place in slip.places[:MOST_SHOWN]:
        right = f"#h(4mm) #text(0.85em)[right would be] #h(1mm) {_math(place.right, decimal)}" if place.right else ""
        rows.append(
            f"#grid(columns: (8mm, 1fr), row-gutter: 3.4mm, [*{place.number}.*], [{_math(place.before, decimal)}], [], "
            f"[{_answer(place, decimal)} #h(3mm) #text(0.85em, fill: "
            f'rgb("#b93a20"))[{"this is not right" if place.in_words else "this does not follow"}]{right}], '
            f"[], [#emph[#{quoted(place.cue)}]])"
        )
    more = [place.number for place in slip.places[MOST_SHOWN:]]
    if more:
        rows.append(f"Look again at {_listed(more)} too.")
    if slip.open_ends:
        rows.append(f"Not finished yet: {_listed(slip.open_ends)}.")
    if slip.tries:
        tries = " #h(10mm) ".join(_math(text, decimal) for text in slip.tries)
        rows.append(f"#text(0.9em, fill: luma(80))[To try:] #h(3mm) {tries}")
    return rows


def _answer(place: Place, decimal: str) -> str:
    return f"#{quoted(place.line)}" if place.in_words else _math(place.line, decimal)


def _listed(numbers: list[int] | tuple[int, ...]) -> str:
    *first, last = map(str, numbers)
    return f"{', '.join(first)} and {last}" if first else last


def _math(text: str, decimal: str) -> str:
    found = printed(without_move(text), decimal=decimal)
    if found.kind == "unread":
        return f"#{quoted(text)}"
    body = f"math.display($ {found.left} {found.right} $.body)"
    return f"#math.equation(alt: {quoted(found.text)}, block: false, {body})"
