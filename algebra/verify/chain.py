"""The check of a whole working: every line read, every link judged, then the answer and what is left."""

from __future__ import annotations

import time
from dataclasses import dataclass, field
from functools import cache

from algebra import limits
from algebra.exact import budget
from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.ground import FEW, SPARE, MoreRootsNeeded
from algebra.exact.numbers import forget_roots
from algebra.exact.ratio import factored, forget_factors
from algebra.exact.solutions import Solution, SolutionSet
from algebra.model import (
    EXPRESSION_TASKS,
    Answer,
    LineError,
    Link,
    Owed,
    Relation,
    Remaining,
    Report,
    TaskError,
    Working,
)
from algebra.parse.errors import ReadingError
from algebra.parse.lines import forget_lines, read_line
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.verify import answer as answers
from algebra.verify import equations, expressions, sidework
from algebra.verify.analysis import Table
from algebra.verify.conditions import conditions
from algebra.verify.equations import Trail
from algebra.verify.finish import remaining_in
from algebra.verify.gains import Gain, was_raised
from algebra.verify.ledger import Ledger
from algebra.verify.meaning import ExpressionMeaning, Meaning, SetMeaning
from algebra.verify.moves import recognise_all
from algebra.verify.owed import Account, owed_checks
from algebra.verify.roads import is_longer
from algebra.verify.setting import Setting


def check(working: Working) -> Report:
    """Judges every line of a working. Never raises for bad input: what can't be read is said in the report."""
    started = time.perf_counter()
    with budget.granted():
        try:
            report = _checked(working, FEW)
        except MoreRootsNeeded:
            report = _checked(working, SPARE)
    report.ms = (time.perf_counter() - started) * 1000
    return report


def clear_caches() -> None:
    """Forgets the lines, factors and roots kept between checks, so that a measurement pays for all of its own work."""
    forget_lines()
    forget_factors()
    forget_roots()


def decide(task: str, before: str, line: str, *, numbers: str = "real") -> Relation | None:
    """The relation of one line to one before it, and nothing else: no evidence, answer or finish.

    None for lines that can't be read or lie outside the scope.
    """
    with budget.granted():
        try:
            working = Working(task, before, (line,), numbers=numbers)
            given, written = read_line(before), read_line(line)
            try:
                return _decided(working, given, written, FEW)
            except MoreRootsNeeded:
                return _decided(working, given, written, SPARE)
        except (ReadingError, TaskError, ExactError):
            return None


def _decided(working: Working, given: ln.Line, written: ln.Line, spare: int) -> Relation | None:
    setting = Setting(working, given, [written], spare=spare)
    setting.explains = False
    return _Chain(working, setting, given, [written]).relations()[0]


def _checked(working: Working, spare: int) -> Report:
    decimal = working.conventions.get("decimal", "point")
    try:
        working.validate()
        if len(working.lines) > limits.MAX_LINES:
            raise TaskError(f"A working has at most {limits.MAX_LINES} lines.")
    except TaskError as problem:
        return _refused(working, LineError(0, 1, str(problem), "task"))
    try:
        given = read_line(working.given, decimal=decimal)
    except ReadingError as problem:
        return _refused(working, LineError(0, problem.column, problem.message, problem.code))
    read: list[ln.Line | LineError] = []
    for number, text in enumerate((*working.assume, *working.lines), start=1 - len(working.assume)):
        try:
            read.append(read_line(text if number > 0 else f"assume: {text}", decimal=decimal))
        except ReadingError as problem:
            read.append(LineError(max(number, 0), problem.column, problem.message, problem.code))
    for item in read[: len(working.assume)]:
        if isinstance(item, LineError):
            return _refused(working, LineError(0, item.column, f"In the assumption: {item.message}", item.code))
    budget.begin()
    try:
        setting = Setting(working, given, [line for line in read if isinstance(line, ln.Line)], spare=spare)
        chain = _Chain(working, setting, given, read[len(working.assume) :])
        if isinstance(chain.given, SetMeaning):
            _ = chain.given.solutions  # a given that can't be solved is refused as a whole
        return chain.report()
    except TaskError as problem:
        return _refused(working, LineError(0, 1, str(problem), "task"))
    except ExactError as problem:
        return _refused(working, _located(problem, 0, working.given))


def _located(problem: ExactError, line: int, text: str) -> LineError:
    names = {"√": ("√", "sqrt", "∛", "cbrt", "root", "∜"), "^": ("^", "**"), "|": ("|", "abs")}
    places = [text.find(s) for s in names.get(problem.symbol, (problem.symbol,)) if problem.symbol and s in text]
    return LineError(line, min(places, default=0) + 1, problem.message, problem.code)


def _refused(working: Working, error: LineError) -> Report:
    """The report of a working whose given or setting can't be taken: nothing is said of any line."""
    relation: Relation | None = "unclear" if error.code == "task" and "undefined" in error.message else None
    links = [Link(k, relation, notes=["given-not-read"]) for k in range(1, len(working.lines) + 1)]
    return Report(working.id, links, [], Answer("none"), [], [], error)


ANALYSIS = ("analyze", "analyse")
_DOMAIN_STATEMENTS = (ln.AllReals, ln.Interval, ln.Union, ln.Comparison, ln.Between)


@dataclass(slots=True)
class _State:
    """Where the chain stands while its lines are judged."""

    before: Meaning
    body: n.Node | None = None
    statement: SetMeaning | None = None
    statement_body: n.Node | None = None
    broken: Meaning | None = None
    broken_at: int = 0
    last_chain_line: int = 0
    chain_lines: int = 0
    domain: SolutionSet | None = None
    zeros: SetMeaning | None = None
    worked_apart: list[n.Node] = field(default_factory=list)
    prime: bool = False
    restricted: bool = False
    error: LineError | None = None
    account: Account = field(default_factory=Account)


class _Chain:
    def __init__(self, working: Working, setting: Setting, given: ln.Line, read: list[ln.Line | LineError]) -> None:
        self.working = working
        self.setting = setting
        self.read = read
        self.is_equation = self._check_task_fits(given)
        assert given.body is not None
        self.given_body = given.body
        self.given: Meaning = setting.solutions(given.body) if self.is_equation else setting.expression(given.body)
        if isinstance(self.given, ExpressionMeaning) and not setting.is_defined(self.given):
            raise UndefinedValue("It is undefined for real numbers.", "√")
        self.ledger = Ledger(setting, self.given)
        analysed = working.task in ANALYSIS and isinstance(self.given, ExpressionMeaning)
        self.table = Table.of(setting, self.given) if analysed and isinstance(self.given, ExpressionMeaning) else None
        self.state = _State(self.given)
        if isinstance(self.given, SetMeaning):
            self.trail = Trail(self.given, [self.given])

    def _check_task_fits(self, given: ln.Line) -> bool:
        """Whether the given is an equation; raises TaskError when it does not suit the task."""
        task = self.working.task
        if given.kind == "equation" and task in ("solve", "domain"):
            return True
        if given.kind == "expression" and task != "solve":
            return False
        if task == "solve":
            raise TaskError("To solve, the given must be an equation, with an equals sign.")
        raise TaskError(f"To {task if task != 'domain' else 'find the domain'}, the given must be an expression.")

    def relations(self) -> list[Relation | None]:
        return [self._judged(number, item).relation for number, item in enumerate(self.read, start=1)]

    def report(self) -> Report:
        links = [self._judged(number, item) for number, item in enumerate(self.read, start=1)]
        budget.begin()
        state = self.state
        # an answer that is itself the broken line follows nothing through
        broken = state.broken if state.broken_at < state.last_chain_line else None
        ending = answers.Ending(
            state.before, state.statement, broken, self._candidates(), state.body, state.chain_lines
        )
        try:
            answer, owed, remaining = self._ending(ending)
        except budget.OutOfTime as spent:
            answer, owed, remaining = Answer("none", text=f"The answer: {spent.message}"), [], []
        return Report(self.working.id, links, owed, answer, remaining, self.ledger.listed(), state.error)

    def _ending(self, ending: answers.Ending) -> tuple[Answer, list[Owed], list[Remaining]]:
        """The answer, the checks still owed, and what is left to do."""
        state = self.state
        if self.table is not None:
            answer = self.table.answer()
        elif self.working.task == "domain":
            answer = answers.domain_answer(self.setting, self.ledger, state.domain)
        elif isinstance(self.given, SetMeaning):
            answer = answers.solve_answer(self.setting, self.ledger, self.given, ending)
        else:
            answer = answers.expression_answer(self.setting, self.given, ending, self.working.task)
        final = state.statement.solutions if state.statement else None
        owed = owed_checks(self.setting, self.ledger, state.account, final) if self.is_equation else []
        remaining = self._remaining(answer)
        if owed and state.statement is not None:
            names = ", ".join(item.value for item in owed)
            remaining.append(Remaining("candidates-unchecked", f"Still to be checked in the given: {names}."))
        return answer, owed, remaining

    def _candidates(self) -> frozenset[Solution]:
        return frozenset(gain.solution for _, gain in self.state.account.gains)

    def _remaining(self, answer: Answer) -> list[Remaining]:
        state, task = self.state, self.working.task
        if task == "solve":
            if state.statement_body is not None:
                return answers.solve_remaining(self.setting, state.statement_body)
            if answer.verdict == "unfinished":
                return [Remaining("variable-not-isolated", f"{self.setting.unknown} does not stand alone yet.")]
            return []
        if task in EXPRESSION_TASKS and state.body is not None and state.chain_lines:
            if task == "factor" and state.prime:
                return []
            if isinstance(state.body, ln.Equation):
                last = len(state.body.sides) - 1
                return self._unstated() + remaining_in(self.setting, state.body.sides[last], task, (last,))
            return self._unstated() + remaining_in(self.setting, state.body, task)
        return []

    def _unstated(self) -> list[Remaining]:
        """Where the convention requires them: the excluded values, not yet written beside the expression."""
        required = self.working.convention("restrictions") == "required" and self.working.task == "simplify"
        listed = self.ledger.listed()
        if not required or not listed or self.state.restricted:
            return []
        return [
            Remaining("restrictions-not-stated", f"The excluded values are still to be written: {', '.join(listed)}.")
        ]

    def _judged(self, number: int, item: ln.Line | LineError) -> Link:
        link = Link(number, None)
        budget.begin()
        try:
            if isinstance(item, LineError):
                link.error = item
            else:
                link.kind = item.kind
                link.notes.extend(item.notes)
                self._judge(link, item)
        except budget.OutOfTime:
            link.relation = "unclear"
            link.notes.append("out-of-time")
        except UndefinedValue:
            link.relation = "breaks"
            link.notes.append("undefined")
            link.evidence = expressions.undefined_shown()
        except ExactError as problem:
            link.relation = None
            link.error = _located(problem, number, self.working.lines[number - 1])
        except TaskError as problem:
            link.relation = None
            link.error = LineError(number, 1, str(problem), "task")
        except (LookupError, ArithmeticError, ValueError, TypeError, AttributeError, AssertionError, StopIteration):
            # a fault of the core must not cost the teacher the other lines; the fuzz tests look for this note
            link.relation = link.relation or "unclear"
            link.notes.append("stumbled")
        if link.error and self.state.error is None:
            self.state.error = link.error
        return link

    def _judge(self, link: Link, line: ln.Line) -> None:
        """One line, by its kind. The chain goes on from it only when it is an expression or an equation."""
        member = line.lead.removesuffix(" ∈") if line.lead.endswith("∈") and line.kind == "statement" else ""
        if member and not member.endswith(self.setting.unknown):
            raise TaskError(f"The unknown here is {self.setting.unknown}, not {member[-1]}.")
        match line.kind:
            case "aside":
                assert line.body is not None
                sidework.judge_aside(self.setting, link, line.body)
                part = sidework.bound_part(line.body, self.state.body or self.given_body)
                if part is not None and link.relation == "holds":
                    self.state.worked_apart.append(part)
            case "check":
                found = sidework.judge_check(self.setting, link, line, self.given_body)
                if found is not None:
                    self.state.account.checked.add(found)
            case "exclusion":
                assert line.body is not None
                sidework.judge_exclusion(self.setting, link, self.ledger, line.body)
                values = sidework.excluded_values(self.setting, line.body)
                self.state.account.excluded |= values
                self.state.domain = SolutionSet(values, cofinite=True)
                self.state.restricted = link.relation == "holds"
                if self.table is not None:
                    self.table.exclusion(link.relation == "holds")
            case "feature":
                self._judge_feature(link, line)
            case "assumption":
                link.relation = "holds"
            case "definition":
                self._define(link, line)
            case _ if isinstance(self.given, SetMeaning) and self.working.task == "solve":
                self._judge_equation(link, line)
            case "equation" if self.table is not None and self.table.states_parameter(line.body):
                assert isinstance(line.body, ln.Equation)
                self.table.judge_parameter(link, line.body)
            case _ if self.working.task in ("domain", *ANALYSIS) and self._states_domain(line):
                self._judge_domain(link, line)
            case _:
                self._judge_expression(link, line)
        if line.kind in ("expression", "equation") and line.body is not None:
            apart, self.state.worked_apart = self.state.worked_apart, []
            if any(not sidework.is_put_back(self.setting, part, line.body) for part in apart):
                link.notes.append("aside-not-put-back")

    def _states_domain(self, line: ln.Line) -> bool:
        if line.kind == "statement" or self.working.task == "domain":
            return line.kind in ("statement", "equation")
        return line.kind == "equation" and isinstance(line.body, ln.Equation) and self.setting.isolates(line.body)

    def _judge_feature(self, link: Link, line: ln.Line) -> None:
        """A named feature; the domain may be stated so in its own task too."""
        assert isinstance(line.body, ln.Feature)
        if self.table is not None:
            self.table.judge(link, line.body)
        elif line.body.name == "domain" and self.working.task == "domain":
            inner = line.body.items[0]
            kind = "exclusion" if isinstance(inner, ln.ValueList) and inner.operator == "≠" else "statement"
            self._judge(link, ln.Line(line.text, kind, inner))
            link.kind = line.kind
        elif line.body.name == "domain":
            self._judge(link, ln.Line(line.text, "exclusion", self._left_out(line.body.items[0])))
        else:
            raise TaskError(f"The {line.body.name} belongs to the task analyze.")

    def _left_out(self, domain: n.Node) -> n.Node:
        """The exclusions that a domain comes to beside a working of another task."""
        match domain:
            case ln.ValueList(_, _, "≠"):
                return domain
            case ln.AllReals(exceptions) if exceptions:
                return ln.ValueList(n.Letter(self.setting.unknown), exceptions, "≠")
        raise TaskError("Name the values left out, as in x ≠ 2; intervals belong to the tasks domain and analyze.")

    def _define(self, link: Link, line: ln.Line) -> None:
        assert isinstance(line.subject, ln.Equation)
        letter, meaning = line.subject.sides
        assert isinstance(letter, n.Letter)
        if letter.name in n.letters(self.given_body):
            raise TaskError(f"{letter.name} already has a meaning in this problem; take another letter.")
        self.setting.definitions[letter.name] = self.setting.filled(meaning)
        link.relation = "holds"

    def _judge_domain(self, link: Link, line: ln.Line) -> None:
        """A statement of the domain, or the denominator set to zero, which starts a chain of its own."""
        assert line.body is not None
        found = self.setting.solutions(line.body)
        parts = line.body.items if isinstance(line.body, ln.Alternatives) else (line.body,)
        if all(isinstance(part, _DOMAIN_STATEMENTS) for part in parts):
            self.state.domain = found.solutions
            sidework.judge_stated_domain(self.setting, link, found.solutions, self.setting.domain(self.ledger.zeros))
            if self.table is not None:
                self.table.exclusion(link.relation == "holds")
            return
        before = self.state.zeros
        if before is None:
            inside = not found.solutions.cofinite and found.solutions.members <= self.ledger.zeros
            link.relation = "holds" if inside and not found.solutions.is_empty else "breaks"
        else:
            equations.relate(self.setting, link, before, found, Trail(before, [before]), line.move)
        self.state.zeros = found

    def _judge_equation(self, link: Link, line: ln.Line) -> None:
        assert isinstance(self.state.before, SetMeaning) and line.body is not None
        if line.kind == "expression":
            link.relation = "breaks"
            link.notes.append("equals-lost")
            self.state.broken = self.state.broken or self.state.before
            self.state.broken_at = link.line
            self.trail.faulty = True
            return
        rounded = sidework.roundings(line.body)
        for one in rounded:
            sidework.judge_rounding(self.setting, link, self.state.before.solutions, one)
        if rounded:
            return
        before, after = self.state.before, self.setting.solutions(line.body)
        gains = equations.relate(self.setting, link, before, after, self.trail, line.move)
        if self.setting.explains and len(self.setting.letters) > 1:
            link.conditions = conditions(self.setting, before, after)
        if self.setting.explains and link.relation == "holds" and is_longer(self.setting, before.body, line.body):
            link.notes.append("longer-road")
        if self.setting.explains:
            link.move = recognise_all(self.setting, line.move, before.pairs, after.pairs)
            self._keep_account(link, line, before, after, gains)
        self._follow(link, after)
        self.state.body = line.body
        if after.statement:
            self.state.statement, self.state.statement_body = after, line.body
        else:
            self.state.statement = self.state.statement_body = None

    def _keep_account(
        self, link: Link, line: ln.Line, before: SetMeaning, after: SetMeaning, gains: list[Gain]
    ) -> None:
        """What the candidates of this line owe."""
        account = self.state.account
        account.gains.extend((link.line, gain) for gain in gains)
        raised = any(gain.kind == "power" for gain in gains) or was_raised(before, after, line.move)
        if raised and not link.conditions:  # with other letters the condition says when the candidate holds
            account.raised.append((link.line, after.solutions))
        if line.remark:
            account.remarked |= before.solutions.minus(after.solutions).members

    def _follow(self, link: Link, after: SetMeaning) -> None:
        """After a break the chain is judged by what the problem has become, until it is repaired."""
        trail = self.trail
        if "repaired" in link.notes:
            trail.faulty, trail.become = False, None
            self.state.broken = None
        elif link.relation == "breaks":
            trail.faulty = True
            trail.become = cache(lambda: after.solutions.minus(SolutionSet(self.ledger.zeros)))
            self.state.broken, self.state.broken_at = after, link.line
        elif link.relation == "narrows":
            trail.faulty = True
        elif not trail.faulty:
            trail.sound.append(after)
        self.state.before = after
        self.state.chain_lines += 1
        self.state.last_chain_line = link.line

    def _judge_expression(self, link: Link, line: ln.Line) -> None:
        if not isinstance(self.state.before, ExpressionMeaning):
            raise TaskError("Here a statement of the domain is expected, not an expression.")
        assert line.body is not None
        body = line.body
        if isinstance(body, ln.Word) and body.word == "prime" and self.working.task == "factor":
            self._judge_prime(link)
            return
        sides = body.sides if isinstance(body, ln.Equation) else (body,)
        if isinstance(body, ln.STATEMENTS) and not isinstance(body, ln.Equation):
            raise TaskError("This task goes on with expressions; this line is a statement.")
        if len(sides) == 2 and sides[0] == n.Letter("y") and "y" not in self.setting.letters:
            sides = sides[1:]
        before = self.state.before
        for position, side in enumerate(sides):
            after = self.setting.expression(side)
            where = f"at “= …” number {position} of this line: " if position else ""
            if link.relation != "breaks":
                held = expressions.relate(self.setting, self.ledger, link, before, after, where)
                if held and self.setting.explains and is_longer(self.setting, before.trees[0], after.trees[0]):
                    link.notes.append("longer-road")
            before = after
        if link.relation == "breaks":
            if self._repairs(before):
                link.relation, link.evidence = "holds", None
                link.notes.append("repaired")
                self.state.broken = None
            else:
                self.state.broken, self.state.broken_at = before, link.line
        self.state.before, self.state.body = before, body
        self.state.prime = False
        self.state.chain_lines += 1
        self.state.last_chain_line = link.line

    def _repairs(self, after: ExpressionMeaning) -> bool:
        """Whether a faulty chain comes back to the value of the given."""
        assert isinstance(self.given, ExpressionMeaning)
        return self.state.broken is not None and self.setting.equal(self.given, after)

    def _judge_prime(self, link: Link) -> None:
        assert isinstance(self.given, ExpressionMeaning)
        ratio = self.given.values[0].ratio
        content, factors = factored(ratio.numerator)
        irreducible = ratio.is_polynomial and sum(power for _, power in factors) == 1 and abs(int(content)) == 1
        link.relation = "holds" if irreducible else "breaks"
        if irreducible:
            self.state.before, self.state.body, self.state.prime = self.given, self.given_body, True
            self.state.chain_lines += 1
        else:
            link.evidence = expressions.factors_shown(self.setting, ratio)
