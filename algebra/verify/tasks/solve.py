"""The task solve: every line of the chain keeps the solutions of the one before it, or a legal move says what it
adds."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

from algebra.exact.errors import ExactError
from algebra.exact.generators import FEW
from algebra.exact.solution_sets import SolutionSet, within
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.reports.report import PointEvidence, Remaining
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify import answer as answers
from algebra.verify import empty_sets, equation_links, side_lines
from algebra.verify.conditions import conditions
from algebra.verify.context import Context, context_of
from algebra.verify.draft import LinkDraft
from algebra.verify.efficiency import is_longer
from algebra.verify.equation_links import History
from algebra.verify.evaluated import EvaluatedStatement
from algebra.verify.excluded_values import in_order
from algebra.verify.legal_moves import recognise_all
from algebra.verify.pending_checks import owed_checks
from algebra.verify.tasks.task import WORKED, Outcome, WorkingTask, of_numbers
from algebra.verify.widening import Gain, was_raised


class SolveTask(WorkingTask):
    """A working of an equation."""

    given: EvaluatedStatement

    def __init__(self, context: Context) -> None:
        super().__init__(context)
        self.statement: EvaluatedStatement | None = None
        self.statement_body: n.Node | None = None
        self.broken: EvaluatedStatement | None = None
        self.broken_at = 0
        self.last_chain_line = 0

    def evaluate_given(self) -> EvaluatedStatement:
        """The given with its solutions, found when first asked for. Raises TaskError where it is no equation."""
        if self.context.given.kind != "equation":
            raise TaskError("To solve, the given must be an equation, with an equals sign.")
        given = self.evaluator.statement(self.given_body)
        self.before = given
        self.goal = given
        assumed = self.context.assumed.sets.get(self.context.unknown)
        if assumed is not None:
            self.goal = EvaluatedStatement(given.body, lambda: within(given.solutions, assumed), given.pairs)
        self.history = History(self.goal, [given])
        return given

    def solve_given(self) -> None:
        """Finds the solutions of the given. Raises ExactError where they are not decided."""
        _ = self.given.solutions

    def judge_chain_line(self, draft: LinkDraft, line: ln.Line) -> None:
        """An equation, or a statement of solutions."""
        context = self.context
        if line.dropped and not self._are_candidates(draft, line):
            return
        if line.body is None:
            line = replace(line, body=self._kept(line.dropped))
        elif line.as_answer and (stated := self._as_answer(line.body)) is not None:
            line = replace(line, kind="equation", body=stated)
        assert line.body is not None
        if line.kind == "expression" and line.lead.endswith("=") and isinstance(self.last_body, ln.Equation):
            # “= 6” under “x = 42/7” goes on with the right side
            line = replace(line, kind="equation", body=ln.Equation((self.last_body.sides[0], line.body)), lead="")
        assert line.body is not None
        if line.kind == "expression":
            draft.relation = "breaks"
            draft.notes.append("equals-lost")
            self.broken = self.broken or self.before
            self.broken_at = draft.line
            self.history.faulty = True
            return
        rounded = side_lines.roundings(line.body)
        for one in rounded:
            side_lines.judge_rounding(context, draft, self.before.solutions, one)
        if rounded:
            return
        before = self.before
        if of_numbers(line.body) and self._is_apart(before, line):
            self._judge_apart(draft, line.body)
            return
        if self._is_beside(before, line):
            self._judge_apart(draft, line.body)
            return
        after = self.evaluator.statement(line.body)
        cells = self.comparison.cells
        gains = equation_links.relate(self.evaluator, cells, draft, before, after, self.history, line.move)
        says_values = after.statement and draft.relation in ("holds", "narrows")
        if says_values and after.solutions.is_empty and self._is_wrong_over_complex(before, line):
            draft.relation, draft.lost = "breaks", []
            draft.evidence = PointEvidence("These numbers are not real, and they do not solve the line before.")
        if context.explains:
            if len(context.letters) > 1:
                draft.conditions = sorted({*draft.conditions, *conditions(context, before, after)})
            if draft.relation == "holds" and is_longer(self.evaluator, before.body, line.body):
                draft.notes.append("longer-road")
            draft.move = recognise_all(self.evaluator, line.move, before.pairs, after.pairs)
            unexplained = draft.relation == "holds" and draft.move is None and "repaired" not in draft.notes
            if unexplained and self._is_by_luck(before, after):
                draft.notes.append("lucky")
            self._note_debts(draft, line, before, after, gains)
        self._follow(draft, after)
        self.last_body = line.body
        self.statement, self.statement_body = (after, line.body) if after.statement else (None, None)

    def judge_dropped(self, draft: LinkDraft, line: ln.Line) -> None:
        """Candidates that are thrown out: the others are kept."""
        self.judge_chain_line(draft, line)

    def with_candidate(self, line: ln.Line) -> ln.Line:
        """The check of the candidate above that it fits; of the first where it fits none. Raises TaskError."""
        solutions = self.before.solutions
        texts = [] if solutions.cofinite else in_order(self.context, solutions.members)
        about = [
            replace(line, subject=ln.Equation((self.context.unknown_letter, read_expression(text)))) for text in texts
        ]
        if not about:
            return super().with_candidate(line)
        for each in about:
            if side_lines.judge_check(self.evaluator, LinkDraft(0), each, self.given_body) is not None:
                return each
        return about[0]

    def _are_candidates(self, draft: LinkDraft, line: ln.Line) -> bool:
        """Whether what is thrown out stood there before, and is not kept all the same."""
        before = self.before.solutions
        for value in line.dropped:
            found = self.evaluator.candidate(value)
            if found is None or not (before.cofinite or found in before.members):
                draft.relation = "breaks"
                draft.evidence = PointEvidence(
                    f"{plain(value)} does not solve the line before, so it was no candidate."
                )
                return False
        return True

    def _kept(self, dropped: tuple[n.Node, ...]) -> n.Node:
        """The statement of what is left of the line before when some of it is thrown out."""
        out = {found for value in dropped if (found := self.evaluator.candidate(value)) is not None}
        left = in_order(self.context, self.before.solutions.minus(SolutionSet(frozenset(out))).members)
        if not left:
            return ln.NoSolution()
        unknown = self.context.unknown_letter
        trees = [read_expression(text) for text in left]
        return ln.Equation((unknown, trees[0])) if len(trees) == 1 else ln.ValueList(unknown, tuple(trees), "=")

    def _as_answer(self, body: n.Node) -> n.Node | None:
        """A value, or several, that are called the answer, as a statement of the unknown; None for what is one
        already."""
        unknown = self.context.unknown_letter
        if not isinstance(body, ln.STATEMENTS):
            return None if self.context.unknown in n.letters(body) else ln.Equation((unknown, body))
        if isinstance(body, ln.Alternatives) and not any(isinstance(item, ln.STATEMENTS) for item in body.items):
            return ln.ValueList(unknown, body.items, "=")
        return None

    def _is_apart(self, before: EvaluatedStatement, line: ln.Line) -> bool:
        """Whether an equation of numbers is side work: something is worked out in it, and the line before has
        solutions, but not every number. What stands there worked out already, as 1 = 2 or 0 = 0, is the next line,
        unless side work came before."""
        assert line.body is not None
        if self.context.unknown not in n.letters(self.context.filled(before.body)) or line.move is not None:
            return False
        if not self.aside_before and not any(isinstance(part, WORKED) for part in n.parts_of(line.body)):
            return False
        if before.solutions.is_empty:  # what is true of numbers is no line of an equation without solutions
            return self._is_true(line.body)
        return not before.solutions.cofinite

    def _is_true(self, body: n.Node) -> bool:
        """Whether an equation of numbers, or each of several, is true."""
        parts = body.items if isinstance(body, ln.Alternatives | ln.AllOf) else (body,)
        try:
            return all(
                isinstance(part, ln.Equation)
                and all(
                    self.comparison.equal(self.evaluator.expression(part.sides[0]), self.evaluator.expression(side))
                    for side in part.sides[1:]
                )
                for part in parts
            )
        except ExactError:
            return False

    def _is_beside(self, before: EvaluatedStatement, line: ln.Line) -> bool:
        """Whether an equation is an identity that begins with a part of the line before, or of the given: side work. A
        false one is judged as a line of the chain."""
        body = line.body
        if line.move is not None or not isinstance(body, ln.Equation) or not n.letters(body):
            return False
        if not any(side_lines.begins_beside(self.evaluator, body, each) for each in (before.body, self.given_body)):
            return False
        try:
            sides = [self.evaluator.expression(side) for side in body.sides]
            return all(self.comparison.compare(sides[0], other)[0] == "holds" for other in sides[1:])
        except ExactError:
            return False  # not decided: a line of the chain

    def _is_wrong_over_complex(self, before: EvaluatedStatement, line: ln.Line) -> bool:
        """Whether a statement of values that are not real, where nothing real is to be found, is wrong over the complex
        numbers too: x = 7 + √(−1) is no step from x² + 4 = 0, and x = ±√(−4) is one."""
        context = self.context
        if context.complex or len(context.letters) != 1 or line.body is None:
            return False
        if isinstance(line.body, ln.NoSolution) or not any(isinstance(part, n.Root) for part in n.parts_of(line.body)):
            return False
        texts = plain(before.body), plain(line.body)
        try:
            working = replace(context.working, given=texts[0], lines=(), numbers="complex", conventions={}, assume=())
            given, written = (read_line(text) for text in texts)
            task = SolveTask(context_of(working, given, [written], spare=FEW))
            task.context.explains = False
            task.begin()
            draft = LinkDraft(1)
            task.judge(draft, written)
        except (ExactError, TaskError, ReadingError):
            return False
        return draft.relation not in ("holds", None)

    def _is_by_luck(self, before: EvaluatedStatement, after: EvaluatedStatement) -> bool:
        """Whether two equations have the same real solutions, though a factor of the second without real zeros is none
        of the first: x³ − 8 as (x − 2)(x² − 2x + 4)."""
        if before.rooted or after.rooted or after.statement or before.single is None or after.single is None:
            return False
        if before.solutions.is_empty or before.solutions.cofinite or self.context.complex:
            return False
        old, new = before.solutions.complex_factors, after.solutions.complex_factors
        if not old or new <= old | set(before.poles):
            return False
        return not empty_sets.is_power_of(before.single, after.single)

    def _note_debts(
        self,
        draft: LinkDraft,
        line: ln.Line,
        before: EvaluatedStatement,
        after: EvaluatedStatement,
        gains: list[Gain],
    ) -> None:
        """What the candidates of this line owe."""
        pending = self.pending
        pending.gains.extend((draft.line, gain) for gain in gains)
        raised = any(gain.cause == "power" for gain in gains) or was_raised(before, after, line.move)
        if raised and not draft.conditions:  # with other letters the condition says when the candidate holds
            pending.raised.append((draft.line, after.solutions))
        if line.remark:
            pending.remarked |= before.solutions.minus(after.solutions).members

    def _follow(self, draft: LinkDraft, after: EvaluatedStatement) -> None:
        """After a break the chain is judged by what the problem has become, until it is repaired."""
        history = self.history
        if "repaired" in draft.notes:
            history.faulty, history.become = False, None
            self.broken = None
        elif draft.relation == "breaks":
            history.faulty = True
            history.become = cache(lambda: after.solutions.minus(SolutionSet(self.excluded.zeros)))
            self.broken, self.broken_at = after, draft.line
        elif draft.relation == "narrows":
            history.faulty = True
        elif not history.faulty:
            history.sound.append(after)
        self.before = after
        self.chain_lines += 1
        self.last_chain_line = draft.line

    def finish(self) -> Outcome:
        """The verdict on the last statement of the unknown, the checks still owed, and what is left to do."""
        # an answer that is itself the broken line follows nothing through
        broken = self.broken if self.broken_at < self.last_chain_line else None
        candidates = frozenset(gain.solution for _, gain in self.pending.gains)
        if self.goal is not self.given:
            candidates |= self.given.solutions.minus(self.goal.solutions).members
        ending = answers.Ending(self.before, self.statement, broken, candidates, self.last_body, self.chain_lines)
        answer = answers.solve_answer(self.context, self.excluded, self.goal, ending)
        unreal = None if self.statement_body is None else answers.no_value(self.evaluator, self.statement_body)
        if unreal is not None:
            answer = replace(
                answer, verdict="wrong", given=(plain(unreal),), text=f"{plain(unreal)} is not a real number."
            )
        final = self.statement.solutions if self.statement else None
        owed = owed_checks(self.context, self.excluded, self.pending, final)
        remaining: list[Remaining] = []
        if self.statement_body is not None:
            remaining = answers.solve_remaining(self.evaluator, self.statement_body)
        elif answer.verdict == "unfinished":
            text = f"{self.context.unknown} does not stand alone yet."
            remaining = [Remaining("variable-not-isolated", (), text)]
        if owed and self.statement is not None:
            names = ", ".join(item.value for item in owed)
            remaining.append(Remaining("candidates-unchecked", (), f"Still to be checked in the given: {names}."))
        return Outcome(answer, owed, remaining)
