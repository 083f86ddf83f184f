"""The tasks evaluate, simplify, factor and expand: every line of the chain is equal to the one before it."""

from __future__ import annotations

from dataclasses import replace

from algebra.exact.errors import UndefinedValue
from algebra.exact.rational_functions import factored
from algebra.reports.report import Answer, Remaining
from algebra.reports.working import EXPRESSION_TASKS, TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.verify import answer as answers
from algebra.verify import expression_links, side_lines
from algebra.verify.context import Context
from algebra.verify.draft import LinkDraft
from algebra.verify.efficiency import is_longer
from algebra.verify.evaluated import EvaluatedExpression
from algebra.verify.finish import remaining_in
from algebra.verify.tasks.task import Outcome, WorkingTask, of_numbers


class ExpressionTask(WorkingTask):
    """A working of an expression."""

    given: EvaluatedExpression

    def __init__(self, context: Context) -> None:
        super().__init__(context)
        self.task = context.working.task
        self.broken: EvaluatedExpression | None = None
        self.broken_at = 0
        self.last_chain_line = 0
        self.called_prime = False
        self.wrongly_prime = False

    def evaluate_given(self) -> EvaluatedExpression:
        """The value of the given. Raises TaskError where it is no expression, UndefinedValue where it has no value."""
        if self.context.given.kind != "expression":
            goal = self.task if self.task != "domain" else "find the domain"
            raise TaskError(f"To {goal}, the given must be an expression.")
        given = self.evaluator.expression(self.given_body)
        if not self.comparison.is_defined(given):
            raise UndefinedValue("it has no value for real numbers", "√")
        self.before = given
        return given

    def judge_chain_line(self, draft: LinkDraft, line: ln.Line) -> None:
        """An expression, a chain of equalities, or the word prime."""
        self.judge_expression(draft, line)

    def judge_expression(self, draft: LinkDraft, line: ln.Line) -> None:
        """Every side of the line against what stands before it."""
        assert line.body is not None
        body, context = line.body, self.context
        if isinstance(body, ln.Word) and body.word == "prime" and self.task == "factor":
            self._judge_prime(draft)
            return
        if self._is_apart(body):
            self._judge_apart(draft, body)
            return
        if isinstance(body, ln.STATEMENTS) and not isinstance(body, ln.Equation):
            raise TaskError("This task goes on with expressions; this line is a statement.")
        sides = body.sides if isinstance(body, ln.Equation) else (body,)
        if len(sides) == 2 and sides[0] == n.Letter("y") and "y" not in context.letters:
            sides = sides[1:]
        before = self.before
        for position, side in enumerate(sides):
            after = self.evaluator.expression(side)
            where = f"at “= …” number {position} of this line: " if position else ""
            if draft.relation != "breaks":
                held = expression_links.relate(self.comparison, self.excluded, draft, before, after, where)
                if held and context.explains and is_longer(self.evaluator, before.trees[0], after.trees[0]):
                    draft.notes.append("longer-road")
            before = after
        if draft.relation == "breaks":
            # a line that contradicts itself repairs nothing, whatever it ends with
            mended = self.broken is not None and self._is_one_value(sides)
            if mended and self.comparison.equal(self.given, before):
                draft.relation, draft.evidence = "holds", None
                draft.notes.append("repaired")
                self.broken = None
            else:
                self.broken, self.broken_at = before, draft.line
        self.before, self.last_body = before, body
        self.called_prime = False
        self.chain_lines += 1
        self.last_chain_line = draft.line

    def _is_apart(self, body: n.Node) -> bool:
        """Whether an equality is worked beside the chain: it does not go on from the line before, and is one of numbers
        beside letters, or begins with a part of the line before or of the given."""
        if self._goes_on(body):
            return False
        if of_numbers(body) and any(n.letters(tree) for tree in self.before.trees):
            return True
        above = [self.last_side(), self.given_body]
        parts = body.items if isinstance(body, ln.AllOf | ln.Alternatives) else (body,)
        return all(
            any(side_lines.begins_beside(self.evaluator, part, each, by_value=True) for each in above) for part in parts
        )

    def last_side(self) -> n.Node:
        """What the chain goes on from, as it is written."""
        body = self.last_body if self.last_body is not None else self.given_body
        return body.sides[-1] if isinstance(body, ln.Equation) else body

    def _goes_on(self, body: n.Node) -> bool:
        """Whether an equation of numbers starts with the value of the line before: then it is the next line."""
        return isinstance(body, ln.Equation) and self.comparison.equal(
            self.before, self.evaluator.expression(body.sides[0])
        )

    def _is_one_value(self, sides: tuple[n.Node, ...]) -> bool:
        """Whether all sides of a chain are equal."""
        found = [self.evaluator.expression(side) for side in sides]
        return all(self.comparison.equal(found[0], other) for other in found[1:])

    def _judge_prime(self, draft: LinkDraft) -> None:
        ratio = self.given.values[0].ratio
        content, factors = factored(ratio.numerator)
        irreducible = ratio.is_polynomial and sum(power for _, power in factors) == 1 and abs(int(content)) == 1
        draft.relation = "holds" if irreducible else "breaks"
        if irreducible:
            self.before, self.last_body, self.called_prime = self.given, self.given_body, True
            self.chain_lines += 1
        else:
            self.wrongly_prime = True
            draft.evidence = expression_links.factors_shown(self.context, ratio)

    def finish(self) -> Outcome:
        """The verdict on the last line, and what is left to do to it."""
        return Outcome(self.answer(), [], self._remaining())

    def answer(self) -> Answer:
        """The last line against the given."""
        # an answer that is itself the broken line follows nothing through
        broken = self.broken if self.broken_at < self.last_chain_line else None
        ending = answers.Ending(self.before, None, broken, frozenset(), self.last_body, self.chain_lines)
        found = answers.expression_answer(self.evaluator, self.comparison, self.given, ending, self.task)
        if self.wrongly_prime and found.verdict == "none":
            return replace(found, verdict="wrong", given=("prime",), text="The answer is wrong: it does factor.")
        return found

    def _remaining(self) -> list[Remaining]:
        body = self.last_body
        if self.task not in EXPRESSION_TASKS or body is None or not self.chain_lines:
            return []
        if self.task == "factor" and self.called_prime:
            return []
        if isinstance(body, ln.Equation):
            last = len(body.sides) - 1
            return self._unstated() + remaining_in(self.evaluator, body.sides[last], self.task, (last,))
        return self._unstated() + remaining_in(self.evaluator, body, self.task)

    def _unstated(self) -> list[Remaining]:
        """Where the convention requires them: the excluded values, not yet written beside the expression."""
        required = self.context.working.convention("restrictions") == "required" and self.task == "simplify"
        listed = self.excluded.listed()
        if not required or not listed or self.states_restrictions:
            return []
        text = f"The excluded values are still to be written: {', '.join(listed)}."
        return [Remaining("restrictions-not-stated", (), text)]
