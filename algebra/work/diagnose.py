"""The slips of a whole working: what explains each line that does not hold, in words, with the right line beside it."""

from __future__ import annotations

import re
from dataclasses import replace
from fractions import Fraction as Q

from algebra.exact.cell import Cell, Plan
from algebra.exact.cells import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.forms import simplified_tree
from algebra.exact.ratio import field_of
from algebra.exact.values import value_of
from algebra.methods.paper import NotThisWay, at_grain
from algebra.methods.places import different
from algebra.model import Link, Report, SlipSeen, TaskError, Working
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.slips import SLIPS, Sight, answers, functions
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.work.explain import MOST, Found, explain
from algebra.work.solve import methods_in_order, problem_from, worked


def name_slips(working: Working, report: Report) -> Report:
    """Puts the slips beside every line that does not hold, as far as one explains it; an answer's beside the answer."""
    decimal = working.convention("decimal")
    try:
        given = read_line(working.given, decimal=decimal).body
    except ReadingError:
        return report
    if given is None or (report.error is not None and report.error.line == 0):
        return report
    before, chain = given, [given]
    in_answer: list[str] = []
    for link, text in zip(report.links, working.lines, strict=True):
        try:
            line = read_line(text, decimal=decimal)
        except ReadingError:
            continue
        in_chain = line.kind in ("expression", "equation", "statement") and line.body is not None
        if link.relation in ("breaks", "narrows") or (link.error and link.error.code == "task"):
            seen = _looked_at(working, report, link, line, given, tuple(chain))
            if in_chain and line.body is not None and not seen and link.relation is not None:
                seen = explain(before, line.body, working.task, imaginary=working.numbers == "complex")
            _put(working, link, seen, before, line.body)
        if in_chain and line.body is not None:
            before = line.body
            chain.append(before)
            in_answer = []
        if link.slip is not None and link.slip.id in _OF_ANSWERS:
            in_answer.append(link.slip.id)
    if in_answer and report.answer.verdict != "correct":
        report.answer = replace(report.answer, slips=[*report.answer.slips, *dict.fromkeys(in_answer)])
    return report


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
    expected = tuple(report.answer.expected)
    sight = Sight(
        task=working.task, given=given, before=chain[-1], chain=chain, line=line, relation=link.relation or "",
        lost=tuple(link.lost), expected=expected, plan=plan or Plan(),
    )  # fmt: skip
    found = []
    for slip in SLIPS:
        if slip.scope == "seen":
            found += [Found(slip, (), what) for what in slip.seen(sight)]
    return found[:MOST]


def right_line(working: Working, before: n.Node, at: n.Address) -> str:
    """The line that would have been right: the part worked out where the slip was made, or the first line of the worked
    solution that goes on from the line before."""
    if at and not isinstance(before, ln.STATEMENTS):
        right = _part_worked_out(before, at)
        if right:
            return right
    try:
        problem = problem_from(replace(working, given=plain(before), lines=(), method=None))
        for method in methods_in_order(problem)[1]:
            try:
                steps = [step for step in at_grain(worked(problem, method).steps, "board") if step.kind == "line"]
            except NotThisWay:
                continue
            if steps:
                return steps[0].text
    except (TaskError, ReadingError):
        pass
    return ""


def _part_worked_out(before: n.Node, at: n.Address) -> str:
    part = n.at(before, at)
    names = tuple(sorted(n.letters(part)))
    try:
        plan = plan_of([part], imaginary=False)
        over = Cell(names, plan, {name: Q(2 + k) for k, name in enumerate(names)}, {}) if plan else field_of(names)
        done = simplified_tree(value_of(part, over).ratio)
    except ExactError:
        return ""
    if done == part:
        return ""
    held = isinstance(n.at(before, at[:-1]), n.Group)
    return plain(n.replaced(before, at, done if held or isinstance(done, n.FACTOR_LIKE) else n.Group(done)))


def _put(working: Working, link: Link, found: list[Found], before: n.Node, after: n.Node | None) -> None:
    """What was found, in words, into the link; the right line where the chain goes on."""
    if not found or after is None:
        return
    in_chain = link.kind in ("expression", "equation", "statement")
    instead = right_line(working, before, found[0].at) if in_chain else ""
    seen = [slip_seen(item, before, after, instead, in_chain=in_chain) for item in found]
    link.slip, link.other_slips = seen[0], seen[1:]


def slip_seen(item: Found, before: n.Node, after: n.Node, instead: str = "", *, in_chain: bool = True) -> SlipSeen:
    """A slip in words, with its places in both lines."""
    old, new = different(before, after) if in_chain else ([], [])
    places = [list(a) for f in (item, item.second) if f is not None for a in _named_places(before, f)]
    places = places or [list(a) for a in old if a]
    done = _sentence(item.slip.done.format(what=item.what))
    if item.start:
        done = f"After {item.start}: {done}"
    also = item.second
    return SlipSeen(
        item.slip.id, item.slip.name, item.slip.kind, places, [list(a) for a in new if a], done, item.slip.why, item.slip.cue, instead,
        None if also is None else {"id": also.slip.id, "name": also.slip.name, "done": _sentence(also.slip.done.format(what=also.what)), "cue": also.slip.cue},
    )  # fmt: skip


_NAMED = re.compile(r"(?:only |the minus before )?(.+?) (?:was|were|is|are|multiplies|came|crossed|went|reached|and)\b")


def _named_places(before: n.Node, found: Found) -> list[n.Address]:
    """Where the terms that the words name stand in the part that was rewritten; else that part."""
    named = _NAMED.match(found.what)
    part = n.at(before, found.at) if not found.start else before
    if named and not found.start:
        try:
            wanted = n.bare(read_expression(named.group(1)))
        except ReadingError:
            wanted = None
        places: list[n.Address] = []
        for address, node in n.walk(part):
            inside = any(address[: len(known)] == known for known in places)
            if wanted is not None and not inside and n.bare(node) == wanted and address:
                places.append(address)
        if places:
            return [(*found.at, *address) for address in places]
    return [found.at] if found.at else []


def _sentence(text: str) -> str:
    """With a capital letter in front, unless it starts with a letter of algebra."""
    return text[:1].upper() + text[1:] if re.match(r"[a-z]{2}", text) else text
