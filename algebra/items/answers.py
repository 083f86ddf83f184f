"""Answers to items in other forms than a chain: what a student writes for them line by line, verified like any line,
with a mark proposed.

An answer is written so that it can stand on paper as well: `B`; `line 2` and below it the right line; a number for each
blank; the name of a way; `true`, or `not true` and below it numbers that show it.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import replace
from hashlib import sha256

from algebra.items.forms import ClaimItem, FillItem, MendItem, WayItem, is_claim_judged, is_filled, is_mended, is_way
from algebra.methods.catalogue import METHODS
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.records import record
from algebra.reports.marking import Eye, Proposal, ProposedPoint, Scheme
from algebra.reports.prediction import Option
from algebra.reports.report import Answer, Finish, LineError, Link, Relation, Report, SlipSeen, Verdict
from algebra.reports.working import Working
from algebra.slips import SLIPS
from algebra.tree import nodes as n
from algebra.verify.check import decide

LETTERS = "ABCDEFGH"
LEFT_OPEN = "?"
"""What stands for a blank that is left open before one that is filled."""
_SLIPS = {slip.id: slip for slip in SLIPS}
_METHODS = {method.id: method.name for method in METHODS}
_LINE = re.compile(r"\s*(?:line|l\.?)?\s*(\d{1,2})\s*[.)]?\s*", re.IGNORECASE)
_TRUE = frozenset({"true", "yes", "t"})
_FALSE = frozenset({"not true", "false", "no", "f", "untrue", "wrong"})
_NUMBER = re.compile(r"\s*([A-Za-z])\s*=\s*(.+?)\s*$")
_LEADS_THERE = "leads-there"


@record(frozen=True)
class ChooseItem:
    """A problem with options, one of them right."""

    working: Working
    options: tuple[Option, ...]


FormItem = ChooseItem | MendItem | FillItem | WayItem | ClaimItem


def key_lines(item: FormItem) -> tuple[str, ...]:
    """The right answer as a student writes it."""
    match item:
        case ChooseItem():
            return (LETTERS[_right(item)],)
        case MendItem():
            return (f"line {item.line}", item.right.partition("|")[0].strip())
        case FillItem():
            return item.wanted
        case WayItem():
            return (_METHODS.get(item.best, item.best),)
    return ("true",) if item.true else ("not true", *(f"{name} = {value}" for name, value in item.counter.items()))


def _right(item: ChooseItem) -> int:
    return next(k for k, option in enumerate(item.options) if option.right)


def claim_letters(item: ClaimItem) -> tuple[str, ...]:
    """The letters of a claim, for which numbers can be put."""
    return tuple(sorted(n.letters(read_line(item.claim).body or n.Integer(0))))


def form_scheme(item: FormItem) -> Scheme:
    """What an item is worth: a point for each part of its answer; the numbers that show a claim to be false are one."""
    return Scheme("answer", len(_part_names(item)))


def judge(item: FormItem, lines: Sequence[str]) -> Report:
    """The report on an answer: a link for each of its lines. Never raises for what can't be read."""
    match item:
        case ChooseItem():
            links = _chosen(item, lines)
        case MendItem():
            links = _mended(item, lines)
        case FillItem():
            links = _filled(item, lines)
        case WayItem():
            links = _way(item, lines)
        case ClaimItem():
            links = _judged(item, lines)
    expected = key_lines(item)
    slips = tuple(link.slip.id for link in links if link.slip is not None)
    verdict = _verdict(item, links, lines)
    given = tuple(line.strip() for line in lines)
    text = {"correct": "Right.", "incomplete": "Not all of it is there.", "none": "There is no answer."}.get(
        verdict, "Not right."
    )
    answer = Answer(verdict, expected, given, slips=slips, text=text)
    return Report(None, tuple(links), (), answer, Finish(verdict == "correct"), (), None)


def _verdict(item: FormItem, links: Sequence[Link], lines: Sequence[str]) -> Verdict:
    if not links or all(line.strip() == LEFT_OPEN for line in lines):
        return "none"
    if any(link.relation == "breaks" or link.error is not None for link in links):
        return "wrong"
    holding = sum(link.relation == "holds" for link in links)
    return "correct" if holding >= len(_part_names(item)) else "incomplete"


def _unread(number: int, message: str) -> Link:
    return Link(number, None, "answer", error=LineError(number, 1, message, "syntax"))


def _relation(right: bool) -> Relation:
    return "holds" if right else "breaks"


def _slip(slip_id: str, done: str = "") -> SlipSeen | None:
    slip = _SLIPS.get(slip_id)
    if slip is None:
        return None
    return SlipSeen(slip.id, slip.name, slip.kind, (), (), done or slip.name, slip.why, slip.cue)


def _chosen(item: ChooseItem, lines: Sequence[str]) -> list[Link]:
    links = []
    for number, text in enumerate(lines, start=1):
        letter = text.strip().strip("().").upper()
        place = LETTERS.find(letter)
        if len(letter) != 1 or not 0 <= place < len(item.options):
            links.append(_unread(number, f"One of {', '.join(LETTERS[: len(item.options)])}."))
            continue
        option = item.options[place]
        slip = None if option.right or not option.slips else _slip(option.slips[0], option.reason)
        right = option.right and len(lines) == 1  # who names several has not chosen
        links.append(Link(number, _relation(right), "choice", slip=slip))
    return links


def _mended(item: MendItem, lines: Sequence[str]) -> list[Link]:
    if not lines:
        return []
    place = _LINE.fullmatch(lines[0])
    if place is None or not 1 <= int(place[1]) <= len(item.lines):
        return [_unread(1, f"The number of a line comes first: 1 to {len(item.lines)}.")]
    links = [Link(1, _relation(int(place[1]) == item.line), "place")]
    for number, text in enumerate(lines[1:], start=2):
        try:
            read_line(text, decimal=item.working.convention("decimal"))
        except ReadingError as problem:
            links.append(
                Link(number, None, "answer", error=LineError(number, problem.column, problem.message, "syntax"))
            )
            continue
        links.append(Link(number, _relation(is_mended(item, int(place[1]), text)), "answer"))
    return links


def _filled(item: FillItem, lines: Sequence[str]) -> list[Link]:
    told = ["" if text.strip() == LEFT_OPEN else text for text in lines[: len(item.wanted)]]
    links = []
    for number, (text, right) in enumerate(zip(told, is_filled(item, told), strict=False), start=1):
        try:
            read_line(text or "0", decimal=item.working.convention("decimal"))
        except ReadingError as problem:
            links.append(
                Link(number, None, "blank", error=LineError(number, problem.column, problem.message, "syntax"))
            )
            continue
        links.append(Link(number, _relation(right) if text else None, "blank"))
    surplus = lines[len(item.wanted) :]
    return links + [_unread(len(links) + k, "There are no more blanks.") for k in range(1, len(surplus) + 1)]


def _way(item: WayItem, lines: Sequence[str]) -> list[Link]:
    links = []
    for number, text in enumerate(lines, start=1):
        told = text.strip().rstrip(".").casefold()
        # two ways may have one name, as factoring of a quadratic and of a power
        meant = [each for each, name in _METHODS.items() if told in (each, name.casefold())]
        if not meant:
            links.append(_unread(number, "No way of this name is known here."))
            continue
        found = {is_way(item, each) for each in meant}
        notes = (_LEADS_THERE,) if "leads there" in found and "best" not in found else ()
        links.append(Link(number, _relation(found != {"no"}), "way", notes=notes))
    return links


def _judged(item: ClaimItem, lines: Sequence[str]) -> list[Link]:
    if not lines:
        return []
    word = " ".join(lines[0].strip().rstrip(".").casefold().split())
    if word not in _TRUE | _FALSE:
        return [_unread(1, "True, or not true, comes first.")]
    says_true = word in _TRUE
    right = says_true is item.true
    slip = _slip(item.slip, "The claim was taken for a law.") if says_true and not item.true else None
    links = [Link(1, _relation(right), "judgement", slip=slip)]
    numbers: dict[str, str] = {}
    shown: list[int] = []
    for number, text in enumerate(lines[1:], start=2):
        for part in re.split(r"[,;]|\band\b", text):
            found = _NUMBER.fullmatch(part)
            if found is None or _is_no_number(found[2]):
                links.append(_unread(number, "A number for a letter: a = 2."))
                break
            numbers[found[1]] = found[2]
        else:
            shown.append(number)
    shows = is_claim_judged(item, False, numbers) if shown and not item.true else False
    links += [Link(number, _relation(shows), "numbers") for number in shown]
    return sorted(links, key=lambda link: link.line)


def _is_no_number(text: str) -> bool:
    try:
        body = read_line(text).body
    except ReadingError:
        return True
    return body is None or bool(n.letters(body)) or decide(Working("evaluate", text, (text,))) != "holds"


def propose_for(item: FormItem, scheme: Scheme, lines: Sequence[str], report: Report) -> Proposal:
    """What an answer earns: its share of what the item is worth, a reason for each part. The teacher decides."""
    rights = _parts(item, report)
    worth = scheme.total / len(rights)
    points = [ProposedPoint("answer", worth, worth * share, why, line) for share, why, line in rights]
    step = {"half": 0.5, "whole": 1.0}[scheme.rounding]
    mark = int(sum(point.got for point in points) / step + 0.5 + 1e-9) * step
    eye: tuple[Eye, ...] = ("unread",) if any(link.error is not None for link in report.links) else ()
    broken = next((link for link in report.links if link.relation == "breaks"), None)
    slip = broken.slip.id if broken is not None and broken.slip is not None else ""
    told = repr([mark, [" ".join(line.split()).casefold() for line in lines]])
    proposal = Proposal(
        min(mark, scheme.total), scheme.total, tuple(points), eye, "", slip, broken.line if broken else None
    )
    return replace(proposal, alike=sha256(told.encode()).hexdigest()[:16])


def _parts(item: FormItem, report: Report) -> list[tuple[float, str, int | None]]:
    """Of each part of an answer: its share that is right, why, the line."""
    by_line: Mapping[int, Link] = {link.line: link for link in report.links}
    names = _part_names(item)
    if isinstance(item, ClaimItem) and len(names) == 2:
        numbers = [link for line, link in by_line.items() if line > 1]
        shown = bool(numbers) and all(link.relation == "holds" for link in numbers)
        by_line = {1: by_line[1]} if 1 in by_line else {}
        if numbers:
            by_line = {**by_line, 2: Link(2, _relation(shown), "numbers")}
    found: list[tuple[float, str, int | None]] = []
    for number, name in enumerate(names, start=1):
        link = by_line.get(number)
        if link is None or (link.relation is None and link.error is None):
            found.append((0.0, f"{name}: nothing is written", None))
        elif link.error is not None:
            found.append((0.0, f"{name} can’t be read", number))
        elif _LEADS_THERE in link.notes:
            found.append((0.5, f"{name} leads there, another is shorter", number))
        else:
            found.append(
                (
                    float(link.relation == "holds"),
                    f"{name} is {'right' if link.relation == 'holds' else 'not right'}",
                    number,
                )
            )
    return found


def _part_names(item: FormItem) -> list[str]:
    match item:
        case ChooseItem():
            return ["the choice"]
        case MendItem():
            return ["the place", "the line"]
        case FillItem():
            return [f"blank {k}" for k in range(1, len(item.wanted) + 1)]
        case WayItem():
            return ["the way"]
    # of numbers alone there is nothing to put in
    return ["the judgement"] if item.true or not claim_letters(item) else ["the judgement", "the counterexample"]
