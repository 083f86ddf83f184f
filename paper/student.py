"""Everything that is kept of a student, to read on paper: for the student, or for whoever asks in their name."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from algebra import printed, quoted


@dataclass(frozen=True, slots=True)
class StudentWork:
    """What was written for an item and what was decided of it: each decision is a sentence."""

    number: int
    given: str
    lines: tuple[str, ...]
    came_from: str
    mark: str
    slips: tuple[str, ...]
    decisions: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class StudentSet:
    """What was written in a set; `told` are sentences about the paper: late, absent, sent to the records."""

    title: str
    day: str
    decimal: str
    told: tuple[str, ...]
    workings: tuple[StudentWork, ...]


@dataclass(frozen=True, slots=True)
class StudentData:
    """All of it; `pages` are the pictures of pages, as JPEG, each with what stands under it."""

    name: str
    number: str
    school_class: str
    told: tuple[str, ...]
    sets: tuple[StudentSet, ...]
    pages: tuple[tuple[str, bytes], ...]


def student_source(data: StudentData, *, paper: Literal["a4", "letter"] = "a4") -> str:
    """The document in typst."""
    name = {"a4": "a4", "letter": "us-letter"}[paper]
    parts = [
        f"""#set document(title: {quoted(f"{data.name}: all data")}, date: none)
#set page(paper: {quoted(name)}, margin: (x: 18mm, y: 16mm), numbering: "1 / 1")
#set text(font: "New Computer Modern", size: 10.5pt, lang: "en", region: "us")
#show math.equation: set text(font: "New Computer Modern Math")
= #{quoted(data.name)}
""",
        *(
            f"#{quoted(row)} \\"
            for row in (
                f"Class {data.school_class}",
                f"Number {data.number}" if data.number else "No number",
                *data.told,
            )
        ),
    ]
    for each in data.sets:
        parts.append(f"== #{quoted(f'{each.title}, {each.day}')}")
        parts += [f"#{quoted(row)} \\" for row in each.told]
        parts += [_work(working, each.decimal) for working in each.workings]
    if not data.sets:
        parts.append("Nothing was taken in for this student.")
    for words, picture in data.pages:
        shown = ", ".join(str(byte) for byte in picture)
        parts.append(
            f"#pagebreak()\n== #{quoted(words)}\n#image(bytes(({shown},)), "
            f'format: "jpg", height: 90%, alt: {quoted(words)})'
        )
    return "\n\n".join(parts)


def _work(working: StudentWork, decimal: str) -> str:
    rows = [f"*{working.number}.* #h(2mm) {_math(working.given, decimal)} #h(1fr) #{quoted(working.mark)}"]
    rows += [f"#h(8mm) {_math(line, decimal)}" for line in working.lines] or ["#h(8mm) _blank_"]
    notes = [f"It came {working.came_from}.", *(f"Seen: {slip}." for slip in working.slips), *working.decisions]
    rows += [f"#h(8mm) #text(0.85em, fill: luma(80))[#{quoted(note)}]" for note in notes]
    return f"#block(breakable: true, below: 4mm)[{' #linebreak() '.join(rows)}]"


def _math(text: str, decimal: str) -> str:
    found = printed(text, decimal=decimal)
    if found.kind == "unread":
        return f"#{quoted(text)}"
    body = f"math.display($ {found.left} {found.right} $.body)"
    return f"#math.equation(alt: {quoted(found.text)}, block: false, {body})"
