"""The task analyze: the features of a rational function, stated entry by entry."""

from __future__ import annotations

from algebra.exact.decomposition import roots_over
from algebra.reports.report import Answer
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.verify import side_lines
from algebra.verify.draft import LinkDraft
from algebra.verify.feature_table import FeatureTable
from algebra.verify.tasks.domain import DomainTask
from algebra.verify.tasks.task import states_all


class FeaturesTask(DomainTask):
    """A working that states the features of its given."""

    def begin(self) -> None:
        """Evaluates the given and finds its features. Raises ExactError for what is no rational function of one
        letter."""
        if self.is_of_equation:
            raise TaskError(f"To {self.task}, the given must be an expression.")
        super().begin()
        with_bars = any(roots_over(tree, self.context.unknown) for tree in self.context.given_trees())
        if with_bars and len(self.context.given_trees()) > 1:
            raise TaskError("A function has one value for each x; ± gives two.")
        if with_bars:
            self.table = FeatureTable.of_pieces(self.evaluator, self.excluded)
        else:
            self.table = FeatureTable.of(self.evaluator, self.given)

    def states_domain(self, line: ln.Line) -> bool:
        """A statement, or the unknown isolated: the zeros of the denominator."""
        if line.kind == "statement":
            return True
        return line.kind == "equation" and isinstance(line.body, ln.Equation) and self.context.isolates(line.body)

    def judge_chain_line(self, draft: LinkDraft, line: ln.Line) -> None:
        """A value of the function, a number of the form a/(x − h) + k, a statement of the domain, or the function
        rewritten."""
        if (at := self._value_at(line)) is not None:
            side_lines.judge_check(self.evaluator, draft, at, self.given_body)
            return
        stated = line.body.items if isinstance(line.body, ln.Alternatives) else (line.body,)
        parameters = [item for item in stated if isinstance(item, ln.Equation) and self.table.states_parameter(item)]
        if len(parameters) == len(stated):
            for item in parameters:
                if draft.relation != "breaks":
                    self.table.judge_parameter(draft, item)
        else:
            super().judge_chain_line(draft, line)

    def _value_at(self, line: ln.Line) -> ln.Line | None:
        """`f(3) = 9` as a check of the value at 3; None for any other line. Its sides stand there as a product of the
        name and a bracket."""
        body = line.body
        if not isinstance(body, ln.Equation) or not isinstance(body.sides[0], n.Product):
            return None
        name, *rest = body.sides[0].factors
        if not isinstance(name, n.Letter) or name.name in self._own_letters() or len(rest) != 1:
            return None
        if n.letters(rest[0]) or any(n.letters(side) for side in body.sides[1:]):
            return None
        claim = body.sides[1] if len(body.sides) == 2 else ln.Equation(body.sides[1:])
        return ln.Line(line.text, "check", claim, ln.Equation((self.context.unknown_letter, rest[0])))

    def _own_letters(self) -> frozenset[str]:
        """The letters of what the function is; the name before its equals sign is none."""
        return frozenset().union(*map(n.letters, self.context.given_trees()))

    def judge_feature(self, draft: LinkDraft, line: ln.Line) -> None:
        """An entry of the table."""
        assert isinstance(line.body, ln.Feature)
        self.table.judge(draft, line.body)

    def judge_exclusion(self, draft: LinkDraft, line: ln.Line) -> None:
        """The excluded values state the domain."""
        super().judge_exclusion(draft, line)
        self.table.exclusion(states_all(draft))

    def note_domain(self, draft: LinkDraft) -> None:
        """A statement of the domain counts in the table."""
        self.table.exclusion(draft.relation == "holds")

    def answer(self) -> Answer:
        """The table against what the function has."""
        return self.table.answer()
