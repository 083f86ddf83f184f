"""The paper a worked solution is written on: lines with the rule that leads to each, its reason and its side work."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Field, Ratio, field_of
from algebra.parse.lines import read_line
from algebra.reports.side_work import SideWork
from algebra.reports.solution import GRAINS, Grain, Mark
from algebra.reports.working import Working
from algebra.rules import BY_ID, Rule
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain

EVERY, BOARD, BRIEF = range(3)


class NotThisWay(Exception):
    """The method does not lead to an answer of this problem; says why, in words for a teacher."""


@dataclass(frozen=True, slots=True)
class Step:
    """One line of a worked solution and how it came about. `kind` is that of the line (`ln.Line.kind`)."""

    before: str
    after: str
    rule: Rule
    reason: str
    shown_at: int = BOARD
    kind: str = "line"
    move: str | None = None
    side_work: tuple[SideWork, ...] = ()
    marks: tuple[Mark, ...] = ()
    excluded: tuple[str, ...] = ()
    noticed: tuple[str, ...] = ()
    within: tuple[Step, ...] = field(default=())  # the finer steps that this one stands for

    @property
    def text(self) -> str:
        """The line as it is written in a working, its move after a bar."""
        return f"{self.after}   | {self.move}" if self.move else self.after


@dataclass(frozen=True, slots=True)
class Problem:
    """A working's problem as the methods see it: the given read, and the letter to solve for."""

    working: Working
    body: n.Node
    unknown: str
    field: Field

    @property
    def task(self) -> str:
        return self.working.task

    def convention(self, key: str) -> str:
        return self.working.convention(key)

    @property
    def complex(self) -> bool:
        return self.working.numbers == "complex"

    def value(self, tree: n.Node) -> Ratio:
        """The value of a tree without roots. Raises ExactError."""
        return value_of(tree, self.field).ratio

    def sides(self) -> tuple[n.Node, n.Node]:
        """The two sides of the given equation."""
        if not isinstance(self.body, ln.Equation) or len(self.body.sides) != 2:
            raise NotThisWay("An equation with one equals sign is needed.")
        return self.body.sides[0], self.body.sides[1]

    def with_given(self, text: str) -> Problem:
        """The same task for another given."""
        working = replace(self.working, given=text, lines=())
        return problem_of(working)


def problem_of(working: Working) -> Problem:
    """The problem of a working. Raises ReadingError where the given can't be read."""
    line = read_line(working.given, decimal=working.convention("decimal"))
    body = line.body if line.body is not None else n.Integer(0)
    found = n.letters(body)
    if working.numbers == "complex":
        found -= {"i"}
    unknown = working.variable or next(iter(sorted(found)), "x")
    return Problem(working, body, unknown, field_of(tuple(sorted(found | {unknown}))))


class Paper:
    """Collects the steps of one worked solution."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.steps: list[Step] = []
        self.line = plain(problem.body)  # the last line of the chain
        self.answer: list[str] = []
        self.excluded: tuple[str, ...] = ()

    def write(
        self,
        after: str,
        rule: str,
        what: str = "",
        *,
        shown_at: int = BOARD,
        kind: str = "line",
        move: str | None = None,
        side: Sequence[SideWork] = (),
        marks: Iterable[Mark] = (),
        noticed: Iterable[str] = (),
        **words: str,
    ) -> None:
        """Adds a line. A line of the chain that says the same as the one before is left out."""
        in_chain = kind == "line"
        if self.problem.convention("product") == "cross":
            after, what = after.replace("·", "×"), what.replace("·", "×")
            words = {name: text.replace("·", "×") for name, text in words.items()}
            move = move.replace("·", "×") if move else None
        if in_chain:
            body = read_line(after).body
            after = plain(body) if body is not None else after
            if after == self.line:
                return
        record = BY_ID[rule]
        if move is not None and self.problem.convention("moves") == "carried":
            move = None
        reason = record.reason.format_map({"what": what, "order": self.problem.convention("order_name"), **words})
        self.steps.append(
            Step(
                self.line, after, record, _sentence(reason), shown_at, kind, move, tuple(side), tuple(marks),
                self.excluded, tuple(noticed),
            )
        )  # fmt: skip
        if in_chain:
            self.line = after

    def exclude(self, values: Iterable[str]) -> None:
        """The excluded values that the ledger shows from here on."""
        self.excluded = tuple(values)

    def finish_mixed(self) -> None:
        """A last line with mixed numbers, where the convention asks for them."""
        body = read_line(self.line).body
        if self.problem.convention("fractions") == "mixed" and body is not None:
            self.write(
                plain(with_mixed_numbers(body)),
                "mixed-number",
                "the whole part stands before what is left",
                shown_at=BRIEF,
            )

    @property
    def chain(self) -> list[Step]:
        return [step for step in self.steps if step.kind == "line"]


def with_mixed_numbers(body: n.Node) -> n.Node:
    """The line with its improper fractions as mixed numbers, where they stand by themselves and not beside a letter."""
    bare = n.bare(body)
    match bare:
        case n.Fraction(n.Integer(top), n.Integer(bottom)) if top > bottom > 1:
            whole, rest = divmod(top, bottom)
            return n.Mixed(whole, rest, bottom) if rest else n.Integer(whole)
        case n.Signed() | ln.Equation() | ln.Alternatives() | ln.ValueList() | ln.SetOf():
            return bare.with_children(tuple(with_mixed_numbers(child) for child in bare.children))
    return body


def _sentence(text: str) -> str:
    """The reason with a capital letter in front, unless it starts with a letter of algebra."""
    return text[:1].upper() + text[1:] if re.match(r"[a-z]{2}", text) else text


def at_grain(steps: Sequence[Step], grain: Grain) -> list[Step]:
    """The steps at a grain: finer ones are taken into the next line shown."""
    level = GRAINS.index(grain)
    shown: list[Step] = []
    waiting: list[Step] = []
    last = max((k for k, step in enumerate(steps) if step.kind == "line"), default=-1)
    for k, step in enumerate(steps):
        if step.kind != "line":
            if step.shown_at >= level:
                shown.append(step)
            continue
        # a line that adds candidates can't be passed over: what follows is judged from it
        adds = step.rule.preserves == "widens" and step.shown_at >= BOARD
        if step.shown_at < level and k != last and not adds:
            waiting.append(step)
            continue
        earlier = [other for other in waiting if other.rule is not step.rule]
        if adds and level == BRIEF and earlier:
            shown.append(_merged(earlier[:-1], earlier[-1]) if earlier[1:] else earlier[0])
            waiting = [other for other in waiting if other.rule is step.rule]
        shown.append(_merged(waiting, step) if waiting else step)
        waiting = []
    return shown


_SIDES_ONLY = frozenset({"simplify-sides", "open-brackets", "reduce-fraction"})


def _merged(finer: Sequence[Step], last: Step) -> Step:
    """One step for several: the weightiest rule names it and gives its reason; the finer ones stay within it."""
    parts = (*finer, last)
    # the first of the weightiest: what one decides to do comes before the working out
    main = max(parts, key=lambda step: step.rule.weight)
    moved = [step for step in parts if step.move]
    # the move still tells what was done when the other lines only work out the sides
    told = len(moved) == 1 and all(s is moved[0] or s.rule is moved[0].rule or s.rule.id in _SIDES_ONLY for s in parts)
    first = finer[0]
    marks = tuple(replace(mark, after=None) for mark in first.marks if mark.kind == "cancel") or first.marks
    return replace(
        last,
        before=first.before,
        rule=main.rule,
        reason=main.reason,
        move=moved[0].move if told else None,
        side_work=tuple(work for step in parts for work in step.side_work),
        marks=marks,
        noticed=tuple(word for step in parts for word in step.noticed),
        within=parts,
    )
