"""The slips of a whole working: what explains each line that does not hold, in words, with the right line beside it."""

from __future__ import annotations

from dataclasses import replace

from algebra.derive.explain import MOST, Found, explain
from algebra.derive.luck import lucky
from algebra.derive.right_line import right_line
from algebra.exact.decomposition import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.generators import Plan
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.report import AlsoMade, Link, Report, SlipSeen
from algebra.reports.working import Working
from algebra.slips import SLIPS, Sight, answers, functions
from algebra.slips.parts import with_fractions
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.diff import changed_places
from algebra.tree.plain import plain


def name_slips(working: Working, report: Report) -> Report:
    """The report with the slips beside every line that does not hold, as far as one explains it; an answer's beside the
    answer."""
    decimal = working.convention("decimal")
    if report.error is not None and report.error.line == 0:
        return report
    given = read_line(working.given, decimal=decimal).body
    assert given is not None
    before, chain = given, [given]
    in_answer: list[str] = []
    links: list[Link] = []
    last_exclusion = max((link.line for link in report.links if link.kind == "exclusion"), default=0)
    for link, text in zip(report.links, working.lines, strict=True):
        try:
            line = read_line(text, decimal=decimal)
        except ReadingError:
            links.append(link)
            continue
        in_chain = line.kind in ("expression", "equation", "statement") and line.body is not None
        # exclusion lines add up: only after the last of them is a value missing for good
        lacking = link.line == last_exclusion and "exclusions-missing" in link.notes
        faulty = link.relation in ("breaks", "narrows") or lacking
        if faulty or (link.error and link.error.code == "task"):
            seen = _looked_at(working, report, link, line, given, tuple(chain))
            if in_chain and line.body is not None and not seen and link.relation is not None:
                seen = explain(before, line.body, working.task, imaginary=working.numbers == "complex")
            link = _with_slips(working, link, seen, before, line.body, tuple(chain))
        links.append(link)
        if in_chain and line.body is not None:
            before = line.body
            chain.append(before)
            in_answer = []
        if link.slip is not None and link.slip.id in _OF_ANSWERS:
            in_answer.append(link.slip.id)
    answer = report.answer
    if in_answer and answer.verdict != "correct":
        answer = replace(answer, slips=(*answer.slips, *dict.fromkeys(in_answer)))
    return replace(report, links=tuple(links), answer=answer)


def name_answer(report: Report) -> Report:
    """The report with the slips that its verdict shows beside the answer."""
    shown = tuple(slip.id for slip in SLIPS if slip.of_verdict == report.answer.verdict)
    return replace(report, answer=replace(report.answer, slips=(*shown, *report.answer.slips))) if shown else report


def note_luck(working: Working, report: Report) -> Report:
    """The report with the note `lucky`, and the slip, at every line that holds by accident."""
    if working.task not in ("solve", "evaluate") or (report.error is not None and report.error.line == 0):
        return report
    decimal = working.convention("decimal")
    before = read_line(working.given, decimal=decimal).body
    links = []
    for link, text in zip(report.links, working.lines, strict=True):
        if link.error is None and link.kind in ("expression", "equation") and before is not None:
            body = read_line(text, decimal=decimal).body
            plainly = link.relation == "holds" and not link.notes and body is not None
            found = lucky(before, body, working.task) if plainly and body is not None else []
            if found:
                link = _with_slips(working, link, found, before, body)
                link = replace(link, notes=(*link.notes, "lucky"), move=None)
            before = body if body is not None else before
        links.append(link)
    return replace(report, links=tuple(links))


_OF_ANSWERS = frozenset(slip.id for slip in answers.SLIPS) | frozenset(slip.id for slip in functions.SLIPS)


def _looked_at(
    working: Working, report: Report, link: Link, line: ln.Line, given: n.Node, chain: tuple[n.Node, ...]
) -> list[Found]:
    """The slips that show in what a line states, which no rewriting of the line above makes."""
    try:
        plan = plan_of(
            [given, *chain, *(part for part in (line.body, line.subject) if part)],
            imaginary=working.numbers == "complex",
        )
    except ExactError:
        return []
    expected = report.answer.expected
    sight = Sight(
        task=working.task,
        given=given,
        before=chain[-1],
        chain=chain,
        line=line,
        relation=link.relation or "",
        lost=link.lost,
        expected=expected,
        plan=plan or Plan(),
    )
    found = []
    for slip in SLIPS:
        if slip.scope == "seen":
            found += [Found(slip, (), what) for what in slip.seen(sight)]
    return found[:MOST]


def _with_slips(
    working: Working,
    link: Link,
    found: list[Found],
    before: n.Node,
    after: n.Node | None,
    chain: tuple[n.Node, ...] = (),
) -> Link:
    """The link with what was found, in words, and the right line where the chain goes on."""
    if not found or after is None:
        return link
    in_chain = link.kind in ("expression", "equation", "statement")
    instead = right_line(working, before, after, found[0], earlier=chain) if in_chain else ""
    seen = [slip_seen(item, before, after, instead, in_chain=in_chain) for item in found]
    return replace(link, slip=seen[0], other_slips=tuple(seen[1:]))


def slip_seen(item: Found, before: n.Node, after: n.Node, instead: str = "", *, in_chain: bool = True) -> SlipSeen:
    """A slip in words, with its places in both lines."""
    old, new = changed_places(before, after) if in_chain else ([], [])
    places = [a for f in (item, item.second) if f is not None for a in _named_places(before, f)]
    places = places or [a for a in old if a]
    done = item.slip.said(item.what)
    if item.start is not None:
        done = f"After {plain(item.start)}: {done}"
    slip, second = item.slip, item.second
    also = None
    if second is not None:
        also = AlsoMade(second.slip.id, second.slip.name, second.slip.said(second.what), second.slip.cue)
    return SlipSeen(
        slip.id,
        slip.name,
        slip.kind,
        tuple(places),
        tuple(a for a in new if a),
        done,
        slip.why,
        slip.cue,
        instead,
        also,
    )


def _named_places(before: n.Node, found: Found) -> list[n.Address]:
    """Where the parts that the words show stand in the part that was rewritten; else that part."""
    if found.start is None:
        part = n.at(before, found.at)
        wanted = {with_fractions(n.bare(shown)) for shown in found.what.shows}
        places: list[n.Address] = []
        for address, node in n.walk(part):
            inside = any(address[: len(known)] == known for known in places)
            if address and not inside and with_fractions(n.bare(node)) in wanted:
                places.append(address)
        if places:
            return [(*found.at, *address) for address in places]
    return [found.at] if found.at else []
