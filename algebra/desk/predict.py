"""What students will write: slips applied along the correct working and carried on correctly to an answer."""

from __future__ import annotations

import random
import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction as Q

from algebra import limits
from algebra.desk.explain import wrong_lines
from algebra.desk.solve import Solution, Unsolved, problem_from, work
from algebra.exact.decomposition import plan_of
from algebra.exact.effort import OutOfEffort, granted, has_some, units_left
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.plus_minus import variants
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import field_of
from algebra.exact.writing import simplified_tree
from algebra.formats.typeset import values_in_latex
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.reports.prediction import Option, OptionOrder, PredictionReport, Unfinished, WrongAnswer
from algebra.reports.report import Evidence, PointEvidence
from algebra.reports.solution import Difficulty
from algebra.reports.working import TaskError, Working
from algebra.slips import BY_ID, SLIPS, Ending, Slip
from algebra.slips.likelihood import ELSEWHERE, LIKELY, LURKING, OFTEN, TEMPTING
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.check import check

ENOUGH = 3
"""With fewer wrong answers than these the search goes on, within four times the work."""
PER_SLIP = 2


@dataclass(slots=True)
class Anticipated:
    """A wrong answer and the roads to it: its slips, where it parts from the right working, its whole working, its refutation."""

    answer: list[str]
    slips: list[str]
    at_line: int
    done: str
    lines: list[str]
    refutation: Evidence | None
    weight: float
    roads: int = 1
    names: list[str] = field(default_factory=list)

    @property
    def text(self) -> str:
        """The answer as one would state it."""
        return " or ".join(self.answer) if self.answer else "no solution"

    def out(self) -> WrongAnswer:
        """The wrong answer as it is given out."""
        slip = BY_ID[self.slips[0]]
        return WrongAnswer(
            answer=self.text, slips=tuple(self.slips), at_line=self.at_line, done=self.done, lines=tuple(self.lines), refutation=self.refutation,
            weight=round(self.weight, 2), roads=self.roads, names=tuple(self.names), why=slip.why, cue=slip.cue, kind=slip.kind,
            answer_latex=values_in_latex(self.answer),
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Prediction:
    """The right answer, the wrong ones foreseen, and equal answers that stop too soon with what is missing."""

    answer: tuple[str, ...]
    wrong: tuple[Anticipated, ...]
    unfinished: tuple[Unfinished, ...]

    def report(self) -> PredictionReport:
        """The prediction as it is given out."""
        return PredictionReport(self.answer, tuple(item.out() for item in self.wrong), self.unfinished)


def predict(working: Working, *, most: int = 8) -> Prediction:
    """The wrong answers to a problem, the likeliest first. Raises TaskError where the problem is not worked."""
    working = replace(working, lines=(), method=None)
    right = _right(working)
    steps = [step for step in right.steps if step.kind == "line"]
    chain = [working.given, *([step.after for step in steps] or [working.given])]
    found = _along_the_way(working, right, chain, [frozenset(step.rule.slips) for step in steps])
    for item in _at_the_end(working, right, chain):
        found.setdefault(tuple(sorted(item.answer)), item)
    ranked = sorted(found.values(), key=lambda item: -item.weight)[:most]
    for item in ranked:
        item.refutation = item.refutation or _refuted(working, chain[item.at_line - 1], item)
    return Prediction(right.answer, tuple(ranked), tuple(_too_soon(working, chain)))


def _along_the_way(
    working: Working, right: Solution, chain: list[str], lurking: list[frozenset[str]]
) -> dict[tuple[str, ...], Anticipated]:
    """The wrong answers to which slips on the lines of the right working lead, by their answers."""
    found: dict[tuple[str, ...], Anticipated] = {}
    if working.task in ("domain", "analyze", "analyse"):
        return found
    with granted(4 * limits.PREDICT_WORK):
        for weight, slip, k, what, text in _wrong_ways(chain, lurking, working.task):
            done = 4 * limits.PREDICT_WORK - units_left()
            if (done > limits.PREDICT_WORK and len(found) >= ENOUGH) or not has_some():
                break
            try:
                item = _carried_on(working, right, chain, k, slip, what, text, weight)
            except OutOfEffort:
                break
            if item is None:
                continue
            known = found.get(key := tuple(sorted(item.answer)))
            if known is None:
                found[key] = item
                continue
            known.roads += 1
            if slip.id not in known.slips and item.weight > known.weight:
                item.roads = known.roads
                found[key] = item
            else:
                known.weight += 0.2
    return found


def _at_the_end(working: Working, right: Solution, chain: list[str]) -> Iterator[Anticipated]:
    """Right work to the end, and a wrong answer read from it."""
    report = check(replace(working, lines=right.lines))
    rejected = tuple(value for link in report.links if link.relation == "settles" for value in link.lost)
    problem = problem_from(working)
    ending = Ending(
        task=working.task, given=problem.body, unknown=problem.unknown, answer=right.answer, rejected=tuple(dict.fromkeys(rejected)),
    )  # fmt: skip
    before = chain if working.task == "solve" else chain[:1]
    lines = [line for line in before[1:] if not _is_answer(line)]
    for slip in SLIPS:
        for text, what in slip.foreseen(ending):
            shown = check(replace(working, lines=(*lines, text)))
            if shown.sound or shown.error is not None:
                continue
            said = shown.links[-1].evidence or PointEvidence(shown.answer.text)
            done = _capital(slip.done.format(what=what))
            weight = OFTEN.get(slip.id, LIKELY[slip.kind]) * LURKING / (1 + 0.06 * len(lines))
            answer = list(shown.answer.given) if working.task == "solve" else [text]
            yield Anticipated(answer, [slip.id], len(lines) + 1, done, [*lines, text], said, weight, 1, [slip.name])


def _is_answer(line: str) -> bool:
    return line == "no solution" or re.fullmatch(r"[a-zA-Z] = [^=]*?( or [a-zA-Z] = [^=]*)*", line) is not None


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:] if text[:2].isalpha() else text


def _right(working: Working) -> Solution:
    """The right working; of an expression that is finished already, itself."""
    try:
        return work(working)
    except Unsolved:
        report = check(replace(working, lines=(working.given,)))
        if working.task == "solve" or report.finish.remaining or report.answer.verdict != "correct":
            raise
        return Solution(working, "", "", (), (working.given,), Difficulty(1.0, {}))


def _wrong_ways(chain: list[str], lurking: list[frozenset[str]], task: str) -> list[tuple[float, Slip, int, str, str]]:
    """Wrong lines at every line of the right working, a few of each slip, with how likely each is; the likeliest first."""
    ways: list[tuple[float, Slip, int, str, str]] = []
    for k, line in enumerate(chain[:-1][:6]):
        body = read_line(line).body
        if body is None:
            continue
        here = lurking[k] if k < len(lurking) else frozenset()
        count: dict[str, int] = {}
        for slip, _, what, text in wrong_lines(body, task):
            count[slip.id] = count.get(slip.id, 0) + 1
            if count[slip.id] <= PER_SLIP:
                likely = OFTEN.get(slip.id, LIKELY[slip.kind])
                tempting = slip.id in here or (k == 0 and likely >= TEMPTING)
                likely *= LURKING if tempting else ELSEWHERE
                # of two places of one slip the first read is the likelier; so is the earlier line
                ways.append((likely / (1 + 0.12 * k + 0.1 * (count[slip.id] - 1)), slip, k, what, text))
    return sorted(ways, key=lambda way: (-way[0], way[2]))


def _carried_on(
    working: Working, right: Solution, chain: list[str], k: int, slip: Slip, what: str, text: str, weight: float
) -> Anticipated | None:
    """The wrong line, written neatly, and the correct work after it; None where nothing wrong comes of it."""
    product = as_product(text) if working.task == "factor" and slip.topic == "factoring" else None
    line = product or neat(text)
    if line is None or line == chain[k]:
        return None
    link = check(replace(working, given=chain[k], lines=(line,))).links[0]
    if link.relation not in ("breaks", "narrows"):
        return None
    lines, answer = [line], None
    try:
        if product:
            answer = [product]
        else:
            rest = work(replace(working, given=line))
            lines += [step.text for step in rest.steps if step.kind == "line"]
            answer = list(rest.answer)
    except (TaskError, ReadingError):
        answer = _read_off(working, line)
    if answer is None or sorted(answer) == sorted(right.answer) or len(" ".join(answer)) > 60:
        return None
    done = slip.done.format(what=what)
    return Anticipated(
        answer,
        [slip.id],
        k + 1,
        _capital(done),
        [*chain[1 : k + 1], *lines],
        None,
        weight,
        1,
        [slip.name],
    )


def _read_off(working: Working, line: str) -> list[str] | None:
    """The answer that a line states already; an expression is its own answer."""
    if working.task != "solve":
        return [line]
    stated = check(replace(working, given=line, lines=(line,)))
    return list(stated.answer.given) if stated.answer.verdict == "correct" else None


def neat(text: str) -> str | None:
    """A wrong line as a student would write it: each side worked out. None for what has no value."""
    try:
        body = read_line(text).body
        if body is None:
            return None
        return plain(_neat(body))
    except (ReadingError, ExactError):
        return None


def as_product(text: str) -> str | None:
    """A wrong product as it stands, each factor worked out, for what is meant to stay factored; None for other lines."""
    try:
        body = n.bare(read_line(text).body or n.Integer(0))
        if not isinstance(body, n.Product):
            return None
        held = [n.bare(_neat(factor)) for factor in body.factors]
        written = [f"({plain(f, tight=True)})" if isinstance(f, n.Sum) else plain(f, tight=True) for f in held]
        return plain(read_expression("".join(written)))
    except (ReadingError, ExactError):
        return None


def _neat(node: n.Node) -> n.Node:
    if isinstance(node, ln.Alternatives | ln.Equation):
        return node.with_children(tuple(_neat(child) for child in node.children))
    if isinstance(node, ln.STATEMENTS):
        return node
    if len(variants(node)) > 1:
        return node
    names = tuple(sorted(n.letters(node)))
    plan = plan_of([node], imaginary=False)
    over = (
        RadicalField(names, plan, {name: Q(2 + k) for k, name in enumerate(names)}, {}, formal=True)
        if plan
        else field_of(names)
    )
    return simplified_tree(value_of(node, over).ratio)


def _refuted(working: Working, before: str, item: Anticipated) -> Evidence | None:
    """Plain numbers that show the first wrong line to be wrong."""
    line = item.lines[item.at_line - 1]
    return check(replace(working, given=before, lines=(line,))).links[0].evidence


def _too_soon(working: Working, chain: list[str]) -> Iterator[Unfinished]:
    """Lines of the right working at which one might stop, equal but unfinished, with the code of what is missing."""
    if working.task == "solve":
        return
    for line in chain[1:-1]:
        report = check(replace(working, lines=(line,)))
        if report.finish.remaining:
            yield Unfinished(line, report.finish.remaining[0].code, values_in_latex([line]))


def options(
    working: Working, *, count: int = 4, seed: int = 1, order: OptionOrder = "shuffled", found: Prediction | None = None
) -> tuple[Option, ...]:
    """Multiple-choice options: the right answer and the best distractors, each with its reason. Raises TaskError.

    `found` is what was foreseen for the working, where that is known already.
    """
    found = found or predict(working, most=count + 4)
    right = " or ".join(found.answer) if found.answer else "no solution"
    length = max(len(right), 4)
    # options of like length: an answer three times as long gives itself away
    fair = [item for item in found.wrong if len(item.text) <= 3 * length]
    rows = [Option(right, True, "", (), values_in_latex(found.answer))]
    rows += [
        Option(item.text, False, item.done, tuple(item.slips), values_in_latex(item.answer))
        for item in fair[: count - 1]
    ]
    draw = random.Random(seed)
    if order == "ascending":
        return tuple(sorted(rows, key=lambda row: (len(row.answer), row.answer)))
    trap = rows[1:2] if order == "trap-first" else []
    rest = rows[:1] + rows[2:] if trap else rows
    draw.shuffle(rest)
    return (*trap, *rest)
