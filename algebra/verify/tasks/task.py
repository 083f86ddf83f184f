"""What a task is to the check: it begins with the given, judges line after line, and ends with the answer.

`WorkingTask` does what all tasks share: the lines beside the chain, of which each claims something by itself.
"""

from __future__ import annotations

from abc import abstractmethod
from dataclasses import dataclass, replace
from typing import Protocol

from algebra.exact.solution_sets import SolutionSet
from algebra.reports.report import Answer, Owed, Remaining
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.survey import surveyed
from algebra.verify import side_lines
from algebra.verify.assumptions import read_assumption
from algebra.verify.claims import judge_claim
from algebra.verify.comparison import Comparison
from algebra.verify.context import Context
from algebra.verify.draft import LinkDraft
from algebra.verify.evaluated import Evaluated
from algebra.verify.evaluator import Evaluator
from algebra.verify.excluded_values import ExcludedValues
from algebra.verify.pending_checks import PendingChecks


@dataclass(slots=True)
class Outcome:
    """How a working ends: the answer, the checks still owed, what is left to do."""

    answer: Answer
    owed: list[Owed]
    remaining: list[Remaining]


class Task(Protocol):
    """One kind of working. Errors of the core are the caller's: they become what is said of a line."""

    def begin(self) -> None:
        """Evaluates the given. Raises TaskError where it does not suit the task, ExactError where it has no value."""

    def solve_given(self) -> None:
        """Finds the solutions of a given equation, so that one that can't be solved is refused. Raises ExactError."""

    def judge(self, draft: LinkDraft, line: ln.Line) -> None:
        """Fills in what is said of a line and goes on from it. Raises TaskError, ExactError."""

    def finish(self) -> Outcome:
        """The answer and what is left to do. Raises ExactError."""

    def listed_exclusions(self) -> tuple[str, ...]:
        """The ledger of the given, as it is written."""


class WorkingTask:
    """What all tasks share: the given, and the lines beside the chain."""

    given: Evaluated

    def __init__(self, context: Context) -> None:
        self.context = context
        self.evaluator = Evaluator(context)
        self.comparison = Comparison(context)
        # a given that is neither expression nor equation is refused in `begin`
        self.given_body = context.given.body if context.given.body is not None else n.Integer(0)
        self.last_body: n.Node | None = None  # the last line of the chain
        self.chain_lines = 0
        self.pending = PendingChecks()
        self.named = side_lines.Named()
        self.states_restrictions = False
        self.stated_domain: SolutionSet | None = None
        self._worked_apart: list[tuple[n.Node, n.Node]] = []
        self.aside_before = False  # whether the line before was side work
        self.move_below: ln.Move | None = None  # what the line before says is done to both sides

    def begin(self) -> None:
        """Evaluates the given."""
        self.given = self.evaluate_given()
        self.excluded = ExcludedValues(self.evaluator, self.given)

    def solve_given(self) -> None:
        """Finds the solutions of a given equation; an expression has none to be found."""

    @abstractmethod
    def evaluate_given(self) -> Evaluated:
        """What the given evaluates to. Raises TaskError where it does not suit the task."""

    @abstractmethod
    def judge_chain_line(self, draft: LinkDraft, line: ln.Line) -> None:
        """A line of the chain itself, or a statement of the answer."""

    def listed_exclusions(self) -> tuple[str, ...]:
        """The ledger of the given, as it is written."""
        return tuple(self.excluded.listed())

    def judge(self, draft: LinkDraft, line: ln.Line) -> None:
        """One line, by its kind. The chain goes on from it only when it is an expression or an equation."""
        self._check_member(line)
        if line.kind == "move":
            self.move_below = line.move
            return
        numbers = line.body is not None and of_numbers(line.body)  # worked beside the chain, as a rule
        if line.kind in ("equation", "statement") and self.move_below is not None and not numbers:
            line, self.move_below = replace(line, move=line.move or self.move_below), None
        self._judge(draft, line)
        self.aside_before = draft.kind == "aside"

    def _judge(self, draft: LinkDraft, line: ln.Line) -> None:
        match line.kind:
            case "open":
                return  # what stands in the boxes is still to be written
            case "aside":
                self._judge_aside(draft, line)
            case "check":
                if line.subject is None:
                    line = self.with_candidate(line)
                found = side_lines.judge_check(self.evaluator, draft, line, self.given_body)
                if found is not None:
                    self.pending.checked.add(found)
            case "exclusion":
                self.judge_exclusion(draft, line)
            case "feature":
                self.judge_feature(draft, line)
            case "assumption":
                assert line.body is not None
                read_assumption(self.context.field, line.body)
                draft.relation = "holds"
            case "definition":
                self._define(draft, line)
            case "statement" if line.body is None:
                self.judge_dropped(draft, line)
            case _:
                self.judge_chain_line(draft, line)
                self._judge_restriction(draft, line)
        if line.kind in ("expression", "equation") and line.body is not None and draft.kind != "aside":
            apart, self._worked_apart = self._worked_apart, []
            if any(
                side_lines.stands_in(part, line.body) and not side_lines.stands_in(result, line.body)
                for part, result in apart
            ):
                draft.notes.append("aside-not-put-back")

    def _judge_restriction(self, draft: LinkDraft, line: ln.Line) -> None:
        """The exclusion at the end of a line, `(x+1)/(x+2), x ≠ ±2`, which must hold beside the line."""
        if line.restriction is None:
            return
        beside = LinkDraft(draft.line)
        self.judge_exclusion(beside, ln.Line(line.text, "exclusion", line.restriction))
        if beside.relation != "holds" and draft.relation in ("holds", "widens", "settles"):
            draft.relation, draft.evidence = beside.relation, beside.evidence
        draft.notes += [note for note in beside.notes if note not in draft.notes]

    def _judge_apart(self, draft: LinkDraft, body: n.Node) -> None:
        """Side work without the word: a line of numbers in a chain that has letters, or one that begins with a part of
        the line above."""
        draft.kind = "aside"
        draft.notes.append("side-work")
        side_lines.judge_aside(self.evaluator, self.comparison, draft, body)
        self._bind(draft, body)

    def _check_member(self, line: ln.Line) -> None:
        """`x ∈ …` must name the unknown."""
        member = line.lead.removesuffix(" ∈") if line.lead.endswith("∈") and line.kind == "statement" else ""
        if member and not member.endswith(self.context.unknown):
            raise TaskError(f"The unknown here is {self.context.unknown}, not {member[-1]}.")

    def _judge_aside(self, draft: LinkDraft, line: ln.Line) -> None:
        assert line.body is not None
        if isinstance(line.body, ln.Claim):
            if not line.text.lstrip().lower().startswith("aside"):
                draft.notes.append("side-work")
            above = [body for body in (self.last_body, self.given_body) if body is not None]
            judge_claim(self.evaluator, draft, line.body, above)
            return
        side_lines.judge_aside(self.evaluator, self.comparison, draft, line.body)
        self._bind(draft, line.body)

    def _bind(self, draft: LinkDraft, body: n.Node) -> None:
        """Keeps the part of the line above that was worked out, until it is put back."""
        part = side_lines.bound_part(body, self.last_body or self.given_body)
        if part is not None and draft.relation == "holds":
            self._worked_apart.append(part)

    def judge_exclusion(self, draft: LinkDraft, line: ln.Line) -> None:
        """`x ≠ 4`, or the domain where it is written as the values left out."""
        assert line.body is not None
        values = side_lines.judge_exclusion(self.evaluator, draft, self.excluded, line.body, self.named)
        self.pending.excluded |= values
        self.stated_domain = SolutionSet(frozenset(self.named.values | values), cofinite=True)
        self.states_restrictions = states_all(draft)

    def judge_feature(self, draft: LinkDraft, line: ln.Line) -> None:
        """A named feature; beside a working of another task, only the domain, as the values left out."""
        assert isinstance(line.body, ln.Feature)
        if line.body.name != "domain":
            raise TaskError(f"The {line.body.name} belongs to the task analyze.")
        self.judge_exclusion(draft, ln.Line(line.text, "exclusion", self._left_out(line.body.items[0])))

    def judge_dropped(self, draft: LinkDraft, line: ln.Line) -> None:
        """Values that are thrown out in words, beside a working that has no candidates: they are left out."""
        self.judge_exclusion(draft, self._left_out_line(line, line.dropped))

    def _left_out_line(self, line: ln.Line, values: tuple[n.Node, ...]) -> ln.Line:
        return ln.Line(line.text, "exclusion", ln.ValueList(self.context.unknown_letter, values, "≠"))

    def with_candidate(self, line: ln.Line) -> ln.Line:
        """A check that names no candidate, with the one that it is about. Raises TaskError."""
        raise TaskError("A check names the candidate first, as in “check x = 6”.")

    def _left_out(self, domain: n.Node) -> n.Node:
        """The exclusions that a domain comes to beside a working of another task."""
        match domain:
            case ln.ValueList(_, _, "≠"):
                return domain
            case ln.AllReals(exceptions) if exceptions:
                return ln.ValueList(self.context.unknown_letter, exceptions, "≠")
        raise TaskError("Name the values left out, as in x ≠ 2; intervals belong to the tasks domain and analyze.")

    def _define(self, draft: LinkDraft, line: ln.Line) -> None:
        assert isinstance(line.subject, ln.Equation)
        letter, meaning = line.subject.sides
        assert isinstance(letter, n.Letter)
        if letter.name in n.letters(self.given_body):
            raise TaskError(f"{letter.name} already has a meaning in this problem; take another letter.")
        self.context.signed_definitions |= surveyed([meaning]).signs
        self.context.definitions[letter] = n.Group(self.context.filled(meaning))
        draft.relation = "holds"


WORKED = (n.Sum, n.Product, n.Power, n.Root, n.Fraction, n.Absolute)
"""Numbers that are still to be worked out."""


def of_numbers(body: n.Node) -> bool:
    """Whether a line is an equation of numbers, or several: no letter occurs in it."""
    parts = body.items if isinstance(body, ln.Alternatives | ln.AllOf) else (body,)
    return all(isinstance(part, ln.Equation) for part in parts) and not n.letters(body)


def states_all(draft: LinkDraft) -> bool:
    """Whether an exclusion is right, and nothing more is to be excluded."""
    return draft.relation == "holds" and "exclusions-missing" not in draft.notes
