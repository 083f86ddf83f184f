"""To mend: a worked solution in which one slip was made. The faulty line is named, and written right."""

from __future__ import annotations

import random
import re
from collections import Counter
from collections.abc import Hashable, Iterator, Mapping, Sequence
from dataclasses import replace

from algebra.derive.check import check
from algebra.foresee.predict import predict
from algebra.formats.typeset import understood
from algebra.items.answers import answered, relation, trouble_in, unread
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.parse.margin import without_move
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.report import Link
from algebra.reports.working import TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.vocabulary import Note
from algebra.verify.check import decide
from algebra.ways.solve import work

_PLACE = re.compile(r"\s*\(?\s*(?:(?:in\s+)?line|l\.?|no\.?|nr\.?|number|#)?\s*(\d{1,2})\s*[.):]*\s*", re.IGNORECASE)
_PLACE_AND_LINE = re.compile(
    r"\s*\(?\s*(?:in\s+)?(?:line|l\.|no\.|nr\.|number|#)?\s*(\d{1,2})\s*(?:\)\s*[:.]?|:|\.(?=\s))\s*(?=\S)",
    re.IGNORECASE,
)
RIGHT_PLACE: Note = "right-place"
"""Beside the link of a line that names the place and is not the right one there."""
_CHAIN = frozenset({"expression", "equation", "statement"})
_LEGAL = frozenset({"holds", "widens", "settles"})


@record(frozen=True)
class MendItem:
    """A worked solution in which one slip was made and carried on correctly. `line` (from 1) is where; `right` what
    should stand there; `done` what was done, in words."""

    working: Working
    lines: tuple[str, ...]
    line: int
    right: str
    slip: str
    done: str


def make(working: Working, seed: int = 1) -> MendItem:
    """A worked solution with one slip planted: one of the likeliest for this problem. Raises TaskError where none is
    known, or none that a known right line would mend."""
    found = [
        item
        for item in predict(replace(working, lines=(), method=None), most=6).wrong
        if len(item.lines) >= item.at_line and item.slips
    ]
    random.Random(f"{working.given} {seed}").shuffle(found)
    for wrong in found:
        report = check(replace(working, lines=tuple(wrong.lines), method=None))
        broken = [each.line for each in report.links if each.relation in ("breaks", "narrows")]
        if broken != [wrong.at_line]:
            continue  # one slip, no more: what follows is worked rightly from it
        item = MendItem(working, tuple(wrong.lines), wrong.at_line, "", wrong.slips[0], wrong.done)
        slip = report.links[wrong.at_line - 1].slip
        for right in _right_lines(item, slip.instead if slip else ""):
            if is_mended(item, item.line, right):
                return replace(item, right=right)
    raise TaskError("No slip is known that could be planted in this problem.")


def _right_lines(item: MendItem, instead: str) -> Iterator[str]:
    """What may stand in the faulty line's place, the likeliest first."""
    if instead:
        yield without_move(instead)
    for given in dict.fromkeys((line_above(item), item.working.given)):
        try:
            solution = work(replace(item.working, given=given, lines=(), method=None))
        except (TaskError, ReadingError):
            continue
        yield from (step.line for step in solution.steps)


def line_above(item: MendItem) -> str:
    """The line from which the faulty one was to follow. Features are stated of the given, each by itself."""
    if item.line == 1 or item.working.task == "analyze":
        return item.working.given
    return item.lines[item.line - 2]


def is_mended(item: MendItem, line: int, text: str) -> bool:
    """Whether an answer names the faulty line and writes one there that follows from the line before: a line of the
    same kind, and not the line before once more."""
    above = line_above(item)
    if line != item.line or not _is_alike(item, item.lines[item.line - 1], text) or _says_the_same(item, above, text):
        return False
    return decide(replace(item.working, given=above, lines=(text,), method=None)) in _LEGAL


def _is_alike(item: MendItem, faulty: str, text: str) -> bool:
    """Whether a line does what the faulty one was to do: goes on with the chain, or states the same feature."""
    decimal = item.working.convention("decimal")
    try:
        first, second = read_line(faulty, decimal=decimal), read_line(text, decimal=decimal)
    except ReadingError:
        return False
    if isinstance(first.body, ln.Feature) and isinstance(second.body, ln.Feature):
        return first.body.name == second.body.name
    return first.kind == second.kind or {first.kind, second.kind} <= _CHAIN


def _says_the_same(item: MendItem, above: str, text: str) -> bool:
    """Whether a line is another with other spaces or brackets, its terms, factors or sides in another order."""
    decimal = item.working.convention("decimal")
    first, second = read_line(above, decimal=decimal).body, read_line(text, decimal=decimal).body
    return first is not None and second is not None and _without_order(first) == _without_order(second)


def _without_order(node: n.Node) -> Hashable:
    """What is the same for trees that differ in brackets and in the order of what may change places."""
    node = n.bare(node)
    parts = [_without_order(child) for child in node.children]
    if isinstance(node, n.Sum):
        return "sum", frozenset(Counter(map(_signed, ("+", *node.signs), node.children)).items())
    if isinstance(node, n.Product) and "÷" not in node.operators:
        return "product", frozenset(Counter(parts).items())
    if isinstance(node, ln.Equation | ln.Alternatives):
        return type(node).__name__, frozenset(Counter(parts).items())
    return (type(node).__name__, *parts) if parts else node


def _signed(sign: str, term: n.Node) -> Hashable:
    """A term of a sum with its sign: − of 1 is 1 with −."""
    if isinstance(term, n.Signed) and term.sign == "-":
        return {"+": "-", "-": "+"}.get(sign, sign), _without_order(term.child)
    return sign, _without_order(term)


def key(item: MendItem) -> tuple[str, ...]:
    """The place, and the right line."""
    return f"line {item.line}", without_move(item.right)


def parts(item: MendItem) -> tuple[str, ...]:
    """The place and the line, a part each."""
    return "the place", "the line"


def links(item: MendItem, lines: Sequence[str]) -> list[Link]:
    """The place judged, then the lines written for it."""
    if not lines:
        return []
    place = _PLACE.fullmatch(lines[0])
    both = _PLACE_AND_LINE.match(lines[0]) if place is None else None
    if both is not None and 1 <= int(both[1]) <= len(item.lines):
        first = _line_link(item, 1, int(both[1]), lines[0][both.end() :])
        right_place = int(both[1]) == item.line and first.relation != "holds"
        first = replace(first, notes=(RIGHT_PLACE,)) if right_place else first
        return [
            first,
            *(_line_link(item, number, int(both[1]), text) for number, text in enumerate(lines[1:], start=2)),
        ]
    if place is None or not 1 <= int(place[1]) <= len(item.lines):
        return [unread(1, f"The number of a line comes first: 1 to {len(item.lines)}.", kind="place")]
    found = [Link(1, relation(int(place[1]) == item.line), "place")]
    return found + [_line_link(item, number, int(place[1]), text) for number, text in enumerate(lines[1:], start=2)]


def _line_link(item: MendItem, number: int, place: int, text: str) -> Link:
    trouble = trouble_in(number, text, item.working, "answer")
    return trouble or Link(number, relation(is_mended(item, place, text)), "answer")


def by_part(links: Sequence[Link]) -> Mapping[int, Link]:
    """The place is the first line, the right line the second; or both are the first: `line 1: 2x - 6 = 8`."""
    found = {link.line: link for link in links}
    first = found.get(1)
    if first is not None and first.kind == "answer":
        right_place = first.relation == "holds" or RIGHT_PLACE in first.notes
        found = {1: Link(1, relation(right_place), "place"), 2: replace(first, notes=())}
    return found


def shown(item: MendItem) -> Shown:
    """The lines, with the faulty one among them."""
    decimal = item.working.convention("decimal")
    return Shown("mend", lines=tuple(understood(line, decimal=decimal).latex for line in item.lines))


FORM = answered(
    "mend",
    MendItem,
    "One line does not follow from the one before. Name it, and write it right.",
    make=make,
    key=key,
    parts=parts,
    links=links,
    shown=shown,
    by_part=by_part,
)
