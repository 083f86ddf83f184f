"""What students will write: slips applied along the correct working and carried on correctly to an answer."""

from __future__ import annotations

import random
import time
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction as Q
from typing import Any, Literal

from algebra.exact.cell import Cell, SignUnknown
from algebra.exact.cells import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.forms import simplified_tree
from algebra.exact.ratio import field_of
from algebra.exact.signs import variants
from algebra.exact.values import value_of
from algebra.methods.difficulty import Difficulty
from algebra.model import FORMAT, Evidence, TaskError, Working
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.slips import Slip
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.chain import check
from algebra.work.explain import wrong_lines
from algebra.work.solve import Solution, Unsolved, work

SECONDS = 0.45
"""How long the wrong ways of one problem are looked for."""
LIKELY: dict[str, float] = {"concept": 3.0, "procedure": 2.4, "notation": 2.0, "care": 1.0}
"""How likely a kind of slip is: judgement, since there are no data yet."""
OFTEN: dict[str, float] = {
    "cancelled-terms": 4.0, "distributed-first-only": 3.6, "power-over-sum": 4.0, "minus-on-first-term-only": 3.6, "plus-minus-missing": 3.6,
    "added-across": 3.6, "root-over-sum": 3.6, "variable-divided-out": 3.2, "moved-same-sign": 3.0, "left-to-right": 3.4,
    "squared-termwise": 3.6, "zero-product-without-zero": 3.2, "unlike-terms-combined": 2.6, "common-factor-wrong-rest": 1.6, "exponents-added-over-sum": 2.0, "divided-one-term": 2.2,
    "sum-of-squares-factored": 2.0, "base-times-exponent": 2.0,
}  # fmt: skip
"""Slips that every teacher meets each year; the others have the likelihood of their kind."""
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

    def to_json(self) -> dict[str, Any]:
        return {
            "answer": " or ".join(self.answer) if self.answer else "no solution", "slips": self.slips, "at_line": self.at_line, "done": self.done,
            "lines": self.lines, "refutation": self.refutation.to_json() if self.refutation else None, "weight": round(self.weight, 2),
            "roads": self.roads,
        }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Prediction:
    """The right answer, the wrong ones foreseen, and equal answers that stop too soon with what is missing."""

    answer: tuple[str, ...]
    wrong: tuple[Anticipated, ...]
    unfinished: tuple[tuple[str, str], ...]

    def to_json(self) -> dict[str, Any]:
        return {
            "format": FORMAT, "answer": list(self.answer), "wrong": [item.to_json() for item in self.wrong],
            "unfinished": [{"answer": text, "missing": code} for text, code in self.unfinished], "error": None,
        }  # fmt: skip


def predict(working: Working, *, most: int = 8) -> Prediction:
    """The wrong answers to a problem, the likeliest first. Raises TaskError where the problem is not worked."""
    working = replace(working, lines=(), method=None)
    right = _right(working)
    steps = [step.after for step in right.steps if step.kind == "line"]
    chain = [working.given, *(steps or [working.given])]
    found: dict[tuple[str, ...], Anticipated] = {}
    deadline = time.monotonic() + SECONDS
    for slip, k, what, text in _wrong_ways(chain, working.task):
        if time.monotonic() > deadline:
            break
        weight = OFTEN.get(slip.id, LIKELY[slip.kind]) / (1 + 0.12 * k)
        item = _carried_on(working, right, chain, k, slip, what, text, weight)
        if item is None:
            continue
        key = tuple(sorted(item.answer))
        known = found.get(key)
        if known is None:
            found[key] = item
        else:
            known.roads += 1
            if slip.id not in known.slips and item.weight > known.weight:
                item.roads = known.roads
                found[key] = item
            else:
                known.weight += 0.2
    ranked = sorted(found.values(), key=lambda item: -item.weight)[:most]
    for item in ranked:
        item.refutation = _refuted(working, chain[item.at_line - 1], item)
    return Prediction(right.answer, tuple(ranked), tuple(_too_soon(working, chain)))


def _right(working: Working) -> Solution:
    """The right working; of an expression that is finished already, itself."""
    try:
        return work(working)
    except Unsolved:
        report = check(replace(working, lines=(working.given,)))
        if working.task == "solve" or report.remaining or report.answer.verdict != "correct":
            raise
        return Solution(working, "", "", (), (working.given,), Difficulty(1.0, {}))


def _wrong_ways(chain: list[str], task: str) -> Iterator[tuple[Slip, int, str, str]]:
    """Wrong lines at every line of the right working, a few of each slip, the likeliest slips first."""
    ways: list[tuple[float, int, Slip, str, str]] = []
    for k, line in enumerate(chain[:-1][:6]):
        body = read_line(line).body
        if body is None:
            continue
        count: dict[str, int] = {}
        for slip, _, what, text in wrong_lines(body, task):
            count[slip.id] = count.get(slip.id, 0) + 1
            if count[slip.id] <= PER_SLIP:
                ways.append((-OFTEN.get(slip.id, LIKELY[slip.kind]) / (1 + 0.12 * k), k, slip, what, text))
    for _, k, slip, what, text in sorted(ways, key=lambda way: (way[0], way[1])):
        yield slip, k, what, text


def _carried_on(
    working: Working, right: Solution, chain: list[str], k: int, slip: Slip, what: str, text: str, weight: float
) -> Anticipated | None:
    """The wrong line, written neatly, and the correct work after it; None where nothing wrong comes of it."""
    line = neat(text)
    if line is None or line == chain[k]:
        return None
    link = check(replace(working, given=chain[k], lines=(line,))).links[0]
    if link.relation not in ("breaks", "narrows"):
        return None
    lines, answer = [line], None
    try:
        rest = work(replace(working, given=line))
        lines += [step.text for step in rest.steps if step.kind in ("line",)]
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
        done[:1].upper() + done[1:] if done[:2].isalpha() else done,
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
    return stated.answer.given if stated.answer.verdict == "correct" else None


def neat(text: str) -> str | None:
    """A wrong line as a student would write it: each side worked out. None for what has no value."""
    try:
        body = read_line(text).body
        if body is None:
            return None
        return plain(_neat(body))
    except (ReadingError, ExactError, SignUnknown, KeyError, ZeroDivisionError):
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
        Cell(names, plan, {name: Q(2 + k) for k, name in enumerate(names)}, {}, formal=True)
        if plan
        else field_of(names)
    )
    return simplified_tree(value_of(node, over).ratio)


def _refuted(working: Working, before: str, item: Anticipated) -> Evidence | None:
    """Plain numbers that show the first wrong line to be wrong."""
    line = item.lines[item.at_line - 1]
    return check(replace(working, given=before, lines=(line,))).links[0].evidence


def _too_soon(working: Working, chain: list[str]) -> Iterator[tuple[str, str]]:
    """Lines of the right working at which one might stop, equal but unfinished, with the code of what is missing."""
    if working.task == "solve":
        return
    for line in chain[1:-1]:
        report = check(replace(working, lines=(line,)))
        if report.remaining:
            yield line, report.remaining[0].code


Order = Literal["shuffled", "ascending", "trap-first"]


def options(working: Working, *, count: int = 4, seed: int = 1, order: Order = "shuffled") -> list[dict[str, Any]]:
    """Multiple-choice options: the right answer and the best distractors, each with its reason. Raises TaskError."""
    found = predict(working, most=count + 4)
    right = " or ".join(found.answer) if found.answer else "no solution"
    length = max(len(right), 4)
    # options of like length: an answer three times as long gives itself away
    fair = [item for item in found.wrong if len(item.to_json()["answer"]) <= 3 * length]
    rows = [{"answer": right, "right": True, "reason": "", "slips": []}]
    rows += [
        {"answer": item.to_json()["answer"], "right": False, "reason": item.done, "slips": item.slips}
        for item in fair[: count - 1]
    ]
    if order == "shuffled":
        random.Random(seed).shuffle(rows)
    elif order == "ascending":
        rows.sort(key=lambda row: (len(str(row["answer"])), str(row["answer"])))
    else:
        rows = [*rows[1:2], *_shuffled(rows[:1] + rows[2:], seed)]
    return rows


def _shuffled(rows: list[dict[str, Any]], seed: int) -> list[dict[str, Any]]:
    random.Random(seed).shuffle(rows)
    return rows
