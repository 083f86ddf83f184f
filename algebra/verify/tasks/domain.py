"""The task domain: where is the given defined? The given may be an equation too."""

from __future__ import annotations

from algebra.reports.report import Answer
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.verify import answer as answers
from algebra.verify import equation_links, side_lines
from algebra.verify.context import Context
from algebra.verify.draft import LinkDraft
from algebra.verify.equation_links import History
from algebra.verify.evaluated import EvaluatedStatement
from algebra.verify.excluded_values import ExcludedValues
from algebra.verify.pending_checks import owed_checks
from algebra.verify.tasks.expression import ExpressionTask
from algebra.verify.tasks.task import Outcome

_DOMAIN_STATEMENTS = (ln.AllReals, ln.AllOf, ln.Interval, ln.Union, ln.Comparison, ln.Between)


class DomainTask(ExpressionTask):
    """A working that ends with a statement of the domain."""

    def __init__(self, context: Context) -> None:
        super().__init__(context)
        self.zeros: EvaluatedStatement | None = None  # the last line of a denominator set to zero

    @property
    def is_of_equation(self) -> bool:
        """Whether the given is an equation."""
        return self.context.given.kind == "equation"

    def begin(self) -> None:
        """Evaluates the given; of an equation, the values that can never be solutions are asked for."""
        if self.is_of_equation:
            if not isinstance(self.given_body, ln.Equation):
                raise TaskError("To find the domain, the given must be one expression or one equation.")
            self.equation_given = self.evaluator.statement(self.given_body)
            self.excluded = ExcludedValues(self.evaluator, self.equation_given)
        else:
            super().begin()

    def judge_chain_line(self, draft: LinkDraft, line: ln.Line) -> None:
        """A statement of the domain, the denominator set to zero, or the expression rewritten."""
        values = self._bare_values(line.body)
        if values:
            self.judge_exclusion(draft, self._left_out_line(line, values))
        elif self.states_domain(line):
            self.judge_domain(draft, line)
        elif self.is_of_equation:
            raise TaskError("Here a statement of the domain is expected, not an expression.")
        else:
            self.judge_expression(draft, line)

    def _bare_values(self, body: n.Node | None) -> tuple[n.Node, ...]:
        """The numbers of a bare list, which are those left out; none where the line is anything else."""
        if self.task != "domain" or body is None or not n.letters(self.given_body):
            return ()
        items = body.items if isinstance(body, ln.Alternatives | ln.AllOf) else (body,)
        return () if any(isinstance(item, ln.STATEMENTS) or n.letters(item) for item in items) else items

    def states_domain(self, line: ln.Line) -> bool:
        """Whether a line says something of the domain, and does not go on with the expression."""
        return line.kind in ("statement", "equation")

    def judge_feature(self, draft: LinkDraft, line: ln.Line) -> None:
        """`domain: …`, a statement like any other here."""
        assert isinstance(line.body, ln.Feature)
        if line.body.name != "domain":
            raise TaskError(f"The {line.body.name} belongs to the task analyze.")
        inner = line.body.items[0]
        if isinstance(inner, ln.ValueList) and inner.operator == "≠":
            self.judge_exclusion(draft, ln.Line(line.text, "exclusion", inner))
        else:
            self.judge_domain(draft, ln.Line(line.text, "statement", inner))

    def judge_domain(self, draft: LinkDraft, line: ln.Line) -> None:
        """A statement of the domain, or the denominator set to zero, which starts a chain of its own."""
        assert line.body is not None
        found = self.evaluator.statement(line.body)
        parts = line.body.items if isinstance(line.body, ln.Alternatives) else (line.body,)
        if all(isinstance(part, _DOMAIN_STATEMENTS) for part in parts):
            self.stated_domain = found.solutions
            side_lines.judge_stated_domain(self.context, draft, found.solutions, self.excluded.domain())
            self.note_domain(draft)
            return
        before = self.zeros
        if before is None:
            inside = not found.solutions.cofinite and found.solutions.members <= self.excluded.zeros
            draft.relation = "holds" if inside and not found.solutions.is_empty else "breaks"
        else:
            history = History(before, [before])
            equation_links.relate(self.evaluator, self.comparison.cells, draft, before, found, history, line.move)
        self.zeros = found

    def note_domain(self, draft: LinkDraft) -> None:
        """Called once a domain has been stated and judged."""

    def solve_given(self) -> None:
        """Finds the solutions of a given equation. Raises ExactError where they are not decided."""
        if self.is_of_equation:
            _ = self.equation_given.solutions

    def answer(self) -> Answer:
        """The stated domain against the real one."""
        return answers.domain_answer(self.excluded, self.stated_domain)

    def finish(self) -> Outcome:
        """The verdict on the last statement of the domain."""
        owed = owed_checks(self.context, self.excluded, self.pending, None) if self.is_of_equation else []
        return Outcome(self.answer(), owed, [])
