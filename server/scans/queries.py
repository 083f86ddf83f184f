"""Reads of pages. Everything starts from the teacher: a page of another's class does not exist."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, cast

from django.conf import settings
from django.contrib.auth.models import User
from django.shortcuts import get_object_or_404

import lanes
from algebra import understood
from server.marking import pile
from server.marking.forms import is_answered
from server.marking.models import GivenSet, SetItem
from server.scans import placing
from server.scans.models import StudentPage
from server.scans.placing import PlacedLine
from server.scans.reader import PageReading
from server.scans.schemas import Mends, PageLine, PageOut, PageRow, PagesOut, SymbolOut

MOST_TRIED = 24
"""How many other readings of a page are tried for whether the line follows with them."""


def page_of(teacher: User, page_id: int) -> StudentPage:
    """A page of one of the teacher's sets. Raises Http404."""
    found = StudentPage.objects.select_related("given_set__school_class").defer("original", "picture")
    return get_object_or_404(found, pk=page_id, given_set__school_class__owner=teacher)


def reading_of(page: StudentPage) -> PageReading | None:
    """What was read on a page; None while it waits."""
    return None if page.reading is None else PageReading.model_validate(page.reading)


def placed_of(page: StudentPage, items: int) -> list[PlacedLine]:
    """The rows of a page that belong to workings."""
    reading = reading_of(page)
    return [] if reading is None else placing.placed(reading, cast(dict[str, list[str]], page.settled), items)


def pages_out(given_set: GivenSet) -> PagesOut:
    """The pages of a set, those that nobody has first, then those with something to settle."""
    items = given_set.items.count()
    rows = [_row(page, items) for page in given_set.pages.defer("original", "picture").order_by("pk")]
    rows.sort(key=lambda row: (row.student is not None, not row.open and row.state == "read", row.id))
    return PagesOut(reader=bool(settings.PAGE_READER), pages=rows)


def _row(page: StudentPage, items: int) -> PageRow:
    reading = reading_of(page)
    return PageRow(
        id=page.pk,
        student=page.student_id,
        name=placing.name_on(reading) if reading else "",
        state=page.state,
        trouble=page.trouble,
        open=placing.open_lines(placed_of(page, items)),
        again_of=page.again_of_id,
    )


def page_out(page: StudentPage) -> PageOut:
    """A page opened: its rows with what is doubtful, and which other reading would make a line follow."""
    items = list(page.given_set.items.select_related("given_set").order_by("position"))
    lines = placed_of(page, len(items))
    reading = reading_of(page)
    mends = _mends(items, lines)
    return PageOut(
        again_of=page.again_of_id,
        id=page.pk,
        student=page.student_id,
        name=placing.name_on(reading) if reading else "",
        state=page.state,
        trouble=page.trouble,
        width=page.width,
        height=page.height,
        lines=[_line(line, items[line.item - 1] if line.item else None, mends.get(line.at, [])) for line in lines],
    )


def _line(line: PlacedLine, item: SetItem | None, mends: list[Mends]) -> PageLine:
    asked = placing.doubtful_symbols(line.line) if line.doubtful else ()
    decimal = str(item.given_set.conventions.get("decimal", "point")) if item else "point"
    symbols = [
        SymbolOut(
            text=s.text,
            box=list(s.box) if s.box else None,
            asks=k in asked,
            others=[other.text for other in s.alternatives],
        )
        for k, s in enumerate(line.line.symbols)
    ]
    return PageLine(
        at=line.at,
        item=item.pk if item else None,
        box=list(line.line.box),
        symbols=symbols,
        texts=list(line.texts),
        echoes=[understood(text, decimal=decimal) for text in line.texts],
        doubtful=line.doubtful,
        settled=line.settled,
        crossed=line.line.crossed,
        mends=mends,
    )


def _mends(items: Sequence[SetItem], lines: Sequence[PlacedLine]) -> dict[int, list[Mends]]:
    """For each doubtful line that does not follow as it was read: the other readings of one symbol with which it
    does."""
    found: dict[int, list[Mends]] = {}
    above: dict[int, list[str]] = {}
    left = MOST_TRIED
    for line in lines:
        before = above.setdefault(line.item, [])
        if line.doubtful and line.item and line.line.symbols and left:
            item = items[line.item - 1]
            others = [
                (k, other.text)
                for k in placing.doubtful_symbols(line.line)
                for other in line.line.symbols[k].alternatives
            ]
            if others and _judged(item, before, line.line.text) == "broken":
                left -= 1
                for k, text in others[:left]:
                    left -= 1
                    if _judged(item, before, _with_other(line, k, text)) == "follows":
                        found.setdefault(line.at, []).append(Mends(symbol=k, text=text))
        before += line.texts
    return found


def _with_other(line: PlacedLine, symbol: int, text: str) -> str:
    """A line with another reading of one symbol."""
    symbols = [each.text for each in line.line.symbols]
    symbols[symbol] = text
    return "".join(symbols).strip()


def _judged(item: SetItem, above: Sequence[str], line: str) -> Literal["follows", "broken", "open"]:
    """Whether a line follows from those above it; broken also where it can't be read, open where that is not told."""
    if is_answered(item):  # an answer is no line of a chain
        return "open"
    try:
        report = lanes.check(pile.problem_of(item, [*above, line]))
    except lanes.Busy:
        return "open"
    last = report.links[-1] if report.links else None
    if last is None or last.line != len(above) + 1:
        return "open"
    if last.error is not None or last.relation in ("breaks", "narrows"):
        return "broken"
    return "open" if last.relation in (None, "unclear") else "follows"
