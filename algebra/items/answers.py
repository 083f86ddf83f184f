"""What all forms share in which an answer is given: a link for each of its lines, a point for each of its parts.

An answer is written so that it can stand on paper as well: `B`; `line 2` and below it the right line; a number for each
blank; the name of a way; `true`, or `not true` and below it numbers that show it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from hashlib import sha256

from algebra.items.form import Form, I, as_they_are, given_of
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.items import FormName, Shown
from algebra.reports.marking import ROUNDING_STEPS, Eye, Proposal, ProposedPoint, Scheme, SchemeKind
from algebra.reports.report import Answer, Finish, LineError, Link, Relation, Report, SlipSeen, Verdict
from algebra.reports.working import Working
from algebra.slips import BY_ID as SLIPS
from algebra.tree import nodes as n
from algebra.tree.vocabulary import LinkKind, Note

LETTERS = "ABCDEFGH"
"""The names of options."""
LEFT_OPEN = "?"
"""What stands for a part that is left open before one that is given."""
LEADS_THERE: Note = "leads-there"
"""Beside a link: it is right, another is shorter."""
_SAID: Mapping[Verdict, str] = {
    "correct": "Right.",
    "incomplete": "Not all of it is there.",
    "none": "There is no answer.",
}


def answered(
    name: FormName,
    record: type[I],
    asks: str,
    *,
    make: Callable[[Working, int], I],
    key: Callable[[I], tuple[str, ...]],
    parts: Callable[[I], tuple[str, ...]],
    links: Callable[[I, Sequence[str]], list[Link]],
    shown: Callable[[I], Shown],
    given: Callable[[I], str] = given_of,
    by_part: Callable[[Sequence[Link]], Mapping[int, Link]] | None = None,
    by_place: bool = False,
    arrange: Callable[[Sequence[I], str], Sequence[I]] = as_they_are,
) -> Form[I]:
    """A form in which an answer is given. `parts` are the names of what an answer consists of, a point each; `links`
    judges its lines; `by_part` gives the link of each part, from 1, where that is not the link of the line with its
    number."""

    def scheme(item: I, kind: SchemeKind) -> Scheme:
        return Scheme("answer", len(parts(item)))

    def judge(item: I, lines: Sequence[str]) -> Report:
        found = sorted(links(item, lines), key=lambda link: link.line)
        slips = tuple(link.slip.id for link in found if link.slip is not None)
        verdict = _verdict(found, (by_part or _by_line)(found), lines, len(parts(item)))
        told = tuple(line.strip() for line in lines)
        answer = Answer(verdict, key(item), told, slips=slips, text=_SAID.get(verdict, "Not right."))
        return Report(None, tuple(found), (), answer, Finish(verdict == "correct"), (), None)

    def propose(item: I, wanted: Scheme, lines: Sequence[str], report: Report) -> Proposal:
        of_parts = (by_part or _by_line)(report.links)
        shares = [_share(part, of_parts.get(number), number) for number, part in enumerate(parts(item), start=1)]
        return _proposal(wanted, shares, lines, report)

    return Form(name, record, asks, make, key, scheme, judge, propose, given, shown, by_place=by_place, arrange=arrange)


def _by_line(links: Sequence[Link]) -> Mapping[int, Link]:
    return {link.line: link for link in links}


def _verdict(links: Sequence[Link], by_part: Mapping[int, Link], lines: Sequence[str], parts: int) -> Verdict:
    if not links or all(line.strip() == LEFT_OPEN for line in lines):
        return "none"
    if any(link.relation == "breaks" or link.error is not None for link in links):
        return "wrong"
    return "correct" if sum(link.relation == "holds" for link in by_part.values()) >= parts else "incomplete"


def _share(part: str, link: Link | None, number: int) -> tuple[float, str, int | None]:
    """How much of a part is right, why, and its line."""
    if link is None or (link.relation is None and link.error is None):
        return 0.0, f"{part}: nothing is written", None
    if link.error is not None:
        return 0.0, f"{part} can’t be read", number
    if LEADS_THERE in link.notes:
        return 0.5, f"{part} leads there, another is shorter", number
    right = link.relation == "holds"
    return float(right), f"{part} is {'right' if right else 'not right'}", number


def _proposal(
    scheme: Scheme, shares: Sequence[tuple[float, str, int | None]], lines: Sequence[str], report: Report
) -> Proposal:
    """An answer's share of what the item is worth, a reason for each part. The teacher decides."""
    worth = scheme.total / len(shares)
    points = [ProposedPoint("answer", worth, worth * share, why, line) for share, why, line in shares]
    step = ROUNDING_STEPS[scheme.rounding]
    mark = int(sum(point.got for point in points) / step + 0.5 + 1e-9) * step
    eye: tuple[Eye, ...] = ("unread",) if any(link.error is not None for link in report.links) else ()
    broken = next((link for link in report.links if link.relation == "breaks"), None)
    slip = broken.slip.id if broken is not None and broken.slip is not None else ""
    told = repr([mark, [" ".join(line.split()).casefold() for line in lines]])
    alike = sha256(told.encode()).hexdigest()[:16]
    line = broken.line if broken else None
    return replace(
        Proposal(min(mark, scheme.total), scheme.total, tuple(points), eye, "", slip, line),
        alike=alike,
    )


def unread(number: int, message: str, column: int = 1, kind: LinkKind = "answer") -> Link:
    """The link of a line that can't be read."""
    return Link(number, None, kind, error=LineError(number, column, message, "syntax"))


def relation(right: bool) -> Relation:
    """How a line of an answer stands: it holds or it breaks."""
    return "holds" if right else "breaks"


def slip_made(slip_id: str, done: str = "") -> SlipSeen | None:
    """A slip as it is said of an answer; None for an id that no slip has (any more)."""
    slip = SLIPS.get(slip_id)
    if slip is None:
        return None
    return SlipSeen(slip.id, slip.name, slip.kind, (), (), done or slip.name, slip.why, slip.cue)


def trouble_in(number: int, text: str, working: Working, kind: LinkKind) -> Link | None:
    """The link of a line that is no mathematics; None where it can be read."""
    try:
        read_line(text, decimal=working.convention("decimal"))
    except ReadingError as problem:
        return unread(number, problem.message, problem.column, kind)
    return None


def letters_of(text: str, decimal: str = "point") -> frozenset[str]:
    """The letters in a line. Raises ReadingError."""
    body = read_line(text, decimal=decimal).body
    return frozenset() if body is None else frozenset(n.letters(body))
