"""The paper a worked solution is written on: lines with the rule that leads to each, its reason and its side work."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace

from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Field, Ratio, field_of
from algebra.parse.lines import read_line
from algebra.reports.side_work import SideWork
from algebra.reports.solution import GRAINS, Grain
from algebra.reports.working import Working
from algebra.rules import BY_ID, Rule
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain

EVERY, BOARD, BRIEF = range(3)
LEADS = {"aside": "aside: ", "check": "check ", "definition": "let "}
"""The word before a line of some kinds."""


class NotThisWay(Exception):
    """The method does not lead to an answer of this problem; says why, in words for a teacher."""


@dataclass(frozen=True, slots=True)
class Step:
    """One line of a worked solution and how it came about.

    `kind` is that of the line (`ln.Line.kind`). `subject` is the candidate of a check or the meaning that a definition
    gives; `after` is then what the check claims, if anything. `cancelled` are the factors that leave the line before.
    """

    before: n.Node
    after: n.Node | None
    rule: Rule
    reason: str
    shown_at: int = BOARD
    kind: str = "line"
    subject: n.Node | None = None
    move: str | None = None
    side_work: tuple[SideWork, ...] = ()
    cancelled: tuple[n.Node, ...] = ()
    excluded: tuple[n.Node, ...] = ()
    noticed: tuple[str, ...] = ()
    within: tuple[Step, ...] = field(default=())  # the finer steps that this one stands for

    @property
    def line(self) -> str:
        """The line in the plain notation, without its move."""
        lead = LEADS.get(self.kind, "")
        return lead + ": ".join(plain(part) for part in (self.subject, self.after) if part is not None)

    @property
    def text(self) -> str:
        """The line as it is written in a working, its move after a bar."""
        return f"{self.line}   | {self.move}" if self.move else self.line


@dataclass(frozen=True, slots=True)
class Problem:
    """A working's problem as the methods see it: the given read, and the letter to solve for."""

    working: Working
    body: n.Node
    unknown: str
    field: Field

    @property
    def task(self) -> str:
        """The task, as in the working."""
        return self.working.task

    def convention(self, key: str) -> str:
        """The position of a convention in force."""
        return self.working.convention(key)

    @property
    def complex(self) -> bool:
        """Whether complex numbers count as solutions."""
        return self.working.numbers == "complex"

    def value(self, tree: n.Node) -> Ratio:
        """The value of a tree without roots. Raises ExactError."""
        return value_of(tree, self.field).ratio

    def sides(self) -> tuple[n.Node, n.Node]:
        """The two sides of the given equation."""
        return sides_of(self.body)

    def about(self, body: n.Node) -> Problem:
        """The same task for another given."""
        return _problem(replace(self.working, given=plain(body), lines=()), body)


def sides_of(body: n.Node) -> tuple[n.Node, n.Node]:
    """The two sides of an equation. Raises NotThisWay for other statements."""
    if not isinstance(body, ln.Equation) or len(body.sides) != 2:
        raise NotThisWay("An equation with one equals sign is needed.")
    return body.sides[0], body.sides[1]


def problem_of(working: Working) -> Problem:
    """The problem of a working. Raises ReadingError where the given can't be read."""
    line = read_line(working.given, decimal=working.convention("decimal"))
    return _problem(working, line.body if line.body is not None else n.Integer(0))


def unknown_of(working: Working) -> str:
    """The letter to solve for, or the first one of a problem with nothing to solve. Raises ReadingError."""
    return problem_of(working).unknown


def _problem(working: Working, body: n.Node) -> Problem:
    found = n.letters(body)
    if working.numbers == "complex":
        found -= {"i"}
    unknown = working.variable or next(iter(sorted(found)), "x")
    return Problem(working, body, unknown, field_of(tuple(sorted(found | {unknown}))))


@dataclass(frozen=True, slots=True)
class Move:
    """What is done to both sides: the rule, what fills its reason, and how it is written: `+5`, `÷(x - 1)`."""

    rule: str
    what: n.Node
    text: str


def say(template: str, *nodes: n.Node) -> str:
    """A sentence with written expressions in its slots."""
    return template.format(*map(plain, nodes))


class WorkedLines:
    """Collects the steps of one worked solution. `line` is the last line of the chain, `answer` what was found so
    far."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.steps: list[Step] = []
        self.line = problem.body
        self.answer: list[n.Node] = []
        self.excluded: tuple[n.Node, ...] = ()

    @property
    def here(self) -> Problem:
        """The problem that the last line of the chain leaves."""
        return self.problem.about(self.line)

    def write(
        self,
        after: n.Node | None,
        rule: str,
        what: str | n.Node = "",
        *,
        shown_at: int = BOARD,
        kind: str = "line",
        subject: n.Node | None = None,
        move: str | None = None,
        side: Sequence[SideWork] = (),
        cancelled: Iterable[n.Node] = (),
        noticed: Iterable[str] = (),
        **words: str | n.Node,
    ) -> None:
        """Adds a line. A line of the chain that says the same as the one before is left out; that one is then shown
        wherever this one would be."""
        cross = self.problem.convention("product") == "cross"
        fills = {
            name: plain(word) if isinstance(word, n.Node) else word for name, word in {"what": what, **words}.items()
        }
        if cross:
            after = with_crosses(after) if after is not None else None
            fills = {name: word.replace("·", "×") for name, word in fills.items()}
            move = move.replace("·", "×") if move else None
        if kind == "line" and after is not None and plain(after) == plain(self.line):
            last = self.steps[-1] if self.steps else None
            if last is not None and last.kind == "line" and last.rule.id == rule and last.shown_at < shown_at:
                self.steps[-1] = replace(last, shown_at=shown_at)
            return
        record = BY_ID[rule]
        if move is not None and self.problem.convention("moves") == "carried":
            move = None
        reason = record.reason.format_map({"order": self.problem.convention("order_name"), **fills})
        self.steps.append(
            Step(
                self.line,
                after,
                record,
                _sentence(reason),
                shown_at,
                kind,
                subject,
                move,
                tuple(side),
                tuple(cancelled),
                self.excluded,
                tuple(noticed),
            )
        )
        if kind == "line" and after is not None:
            self.line = after

    def write_move(
        self,
        after: n.Node,
        move: Move,
        *,
        shown_at: int = BOARD,
        side: Sequence[SideWork] = (),
        noticed: Iterable[str] = (),
    ) -> None:
        """Adds the line that a move leads to."""
        self.write(after, move.rule, move.what, shown_at=shown_at, move=move.text, side=side, noticed=noticed)

    def go_on(self, rest: WorkedLines) -> None:
        """Takes over what another paper, begun with the last line of this one, wrote and found."""
        self.steps += rest.steps
        self.line, self.answer = rest.line, rest.answer

    def exclude(self, values: Iterable[n.Node]) -> None:
        """The excluded values that the ledger shows from here on."""
        self.excluded = tuple(values)

    def finish_mixed(self) -> None:
        """A last line with mixed numbers, where the convention asks for them."""
        if self.problem.convention("fractions") == "mixed":
            self.write(
                with_mixed_numbers(self.line),
                "mixed-number",
                "the whole part stands before what is left",
                shown_at=BRIEF,
            )

    @property
    def chain(self) -> list[Step]:
        """The steps that lead from line to line, without what stands beside them."""
        return [step for step in self.steps if step.kind == "line"]


def with_crosses(body: n.Node) -> n.Node:
    """The line with × for every multiplication sign."""
    children = tuple(with_crosses(child) for child in body.children)
    if isinstance(body, n.Product):
        return n.Product(children, tuple("×" if sign == "·" else sign for sign in body.operators))
    return body.with_children(children) if children else body


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
    return replace(
        last,
        before=first.before,
        rule=main.rule,
        reason=main.reason,
        move=moved[0].move if told else None,
        side_work=tuple(work for step in parts for work in step.side_work),
        cancelled=first.cancelled,
        noticed=tuple(word for step in parts for word in step.noticed),
        within=parts,
    )
