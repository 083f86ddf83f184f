"""From a reading to workings: which lines belong to which item, what is doubtful, what is left out. Knows no
database."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from server.marking.intake import labelled
from server.scans.reader import PageReading, ReadLine

DOUBTFUL = 0.8
"""Below this confidence a symbol is asked about."""


@dataclass(frozen=True, slots=True)
class PlacedLine:
    """A row of a page: the item that it belongs to (0 for none), the texts that stand for it, whether it is doubtful
    still."""

    at: int
    item: int
    texts: tuple[str, ...]
    doubtful: bool
    settled: bool
    line: ReadLine


def doubtful_symbols(line: ReadLine) -> tuple[int, ...]:
    """The symbols of a line that are asked about."""
    return tuple(k for k, symbol in enumerate(line.symbols) if symbol.confidence < DOUBTFUL)


def name_on(reading: PageReading) -> str:
    """The name as it was read; empty where none was."""
    return " ".join(line.text for line in reading.lines if line.about == "name").strip()


def placed(reading: PageReading, settled: Mapping[str, Sequence[str]], items: int) -> list[PlacedLine]:
    """The rows that belong to workings, from top to bottom. A number that the teacher typed before a line goes before
    what was read."""
    found, item = [], 0
    for at, line in enumerate(reading.lines):
        if line.about == "name":
            continue
        if line.about == "number":
            told = "".join(filter(str.isdigit, line.text))
            item = int(told) if told and 1 <= int(told) <= items else 0
            continue
        own = settled.get(str(at))
        if own is not None:
            texts = []
            for text in own:
                number, rest = labelled(text)
                if number is not None and 1 <= number <= items:
                    item, text = number, rest
                if text:
                    texts.append(text)
            found.append(PlacedLine(at, item, tuple(texts), False, True, line))
        elif line.crossed:
            found.append(PlacedLine(at, item, (), False, False, line))
        else:
            doubtful = not line.symbols or bool(doubtful_symbols(line))
            found.append(PlacedLine(at, item, (line.text,) if line.text else (), doubtful, False, line))
    return found


def open_lines(lines: Sequence[PlacedLine]) -> int:
    """How many lines are still to be settled: doubtful ones, and those that belong to no item."""
    return sum(line.doubtful or (not line.item and bool(line.texts)) for line in lines)


def workings_of(pages: Sequence[Sequence[PlacedLine]]) -> dict[int, list[str] | None]:
    """The lines by item, over all pages of a student in their order; None for an item with a line that is not
    settled."""
    found: dict[int, list[str] | None] = {}
    for page in pages:
        for line in page:
            if not line.item:
                continue
            before = found.setdefault(line.item, [])
            if line.doubtful:
                found[line.item] = None
            elif before is not None:
                before += line.texts
    return found
