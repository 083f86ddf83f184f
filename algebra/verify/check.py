"""The check of a whole working: its lines are read, its task judges them one after the other and says how it ends."""

from __future__ import annotations

from algebra import limits
from algebra.exact.algebraic_numbers import forget_roots
from algebra.exact.effort import OutOfEffort, granted
from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.evaluate.terms import same_terms
from algebra.exact.generators import FEW, SPARE, MoreRootsNeeded
from algebra.exact.rational_functions import forget_factors
from algebra.parse.errors import ReadingError
from algebra.parse.lines import forget_lines, read_line
from algebra.reports.report import Answer, Finish, LineError, Link, PointEvidence, Relation, Report
from algebra.reports.working import EXPRESSION_TASKS, TaskError, Working
from algebra.tree import statements as ln
from algebra.verify.assumptions import read_assumption
from algebra.verify.context import TOO_MANY_LETTERS, Context, context_of, letters_of
from algebra.verify.draft import LinkDraft
from algebra.verify.tasks.domain import DomainTask
from algebra.verify.tasks.expression import ExpressionTask
from algebra.verify.tasks.features import FeaturesTask
from algebra.verify.tasks.solve import SolveTask
from algebra.verify.tasks.task import Outcome, Task

ReadLine = ln.Line | LineError


def check(working: Working) -> Report:
    """Judges every line of a working. Never raises for bad input: what can't be read is said in the report."""
    try:
        return _checked(working, FEW)
    except MoreRootsNeeded:
        return _checked(working, SPARE)


def decide(working: Working) -> Relation | None:
    """The relation of the only line of a working to its given, and nothing else: no evidence, answer or finish.

    None for lines that can't be read or lie outside the scope.
    """
    decimal = working.convention("decimal")
    try:
        given, written = read_line(working.given, decimal=decimal), read_line(working.lines[0], decimal=decimal)
        assumed = [read_line(f"assume: {text}", decimal=decimal) for text in working.assume]
        quick = _by_terms(working, given, written)
        if quick is not None:
            return quick
        try:
            return _decided(working, given, written, assumed, FEW)
        except MoreRootsNeeded:
            return _decided(working, given, written, assumed, SPARE)
    except (ReadingError, TaskError, ExactError):
        return None


def _by_terms(working: Working, given: ln.Line, written: ln.Line) -> Relation | None:
    """The relation of two expressions that are sums of single terms; None for others."""
    if working.task not in EXPRESSION_TASKS or working.assume:
        return None
    trees = []
    for line in (given, written):
        if line.kind != "expression" or line.restriction is not None or line.move is not None or line.body is None:
            return None
        trees.append(line.body)
    same = same_terms(*trees, imaginary=working.numbers == "complex")
    return None if same is None else "holds" if same else "breaks"


def clear_caches() -> None:
    """Forgets the lines, factors and roots kept between checks, so that a measurement pays for all of its own work."""
    forget_lines()
    forget_factors()
    forget_roots()


def task_of(context: Context) -> Task:
    """The task of a working, which has not begun yet."""
    match context.working.task:
        case "solve":
            return SolveTask(context)
        case "domain":
            return DomainTask(context)
        case "analyze":
            return FeaturesTask(context)
    return ExpressionTask(context)


def _decided(working: Working, given: ln.Line, written: ln.Line, assumed: list[ln.Line], spare: int) -> Relation | None:
    with granted():
        context = context_of(working, given, [*assumed, written], spare=spare)
        context.explains = False
        task = task_of(context)
        task.begin()
    return _judged(task, 1, written, working).relation


def _checked(working: Working, spare: int) -> Report:
    try:
        working.validate()
        if len(working.lines) > limits.MAX_LINES:
            raise TaskError(f"A working has at most {limits.MAX_LINES} lines.")
        given, read = _read(working)
    except TaskError as problem:
        return _refused(working, LineError(0, 1, problem.message, "task"))
    except ReadingError as problem:
        return _refused(working, LineError(0, problem.column, problem.message, problem.code))
    try:
        with granted():
            context = context_of(working, given, [line for line in read if isinstance(line, ln.Line)], spare=spare)
            for line in read[: len(working.assume)]:
                if isinstance(line, ln.Line) and line.body is not None:
                    read_assumption(context.field, line.body)
            task = task_of(context)
            task.begin()
            task.solve_given()
    except TaskError as problem:
        return _refused(working, LineError(0, 1, problem.message, "task"))
    except UndefinedValue as problem:
        return _refused(working, _located(problem, 0, working.given), undefined=True)
    except ExactError as problem:
        return _refused(working, _located(problem, 0, working.given))
    lines = read[len(working.assume) :]
    return _report(working, task, [_judged(task, k, item, working) for k, item in enumerate(lines, start=1)])


def _read(working: Working) -> tuple[ln.Line, list[ReadLine]]:
    """The given, then the assumptions and lines or why they can't be read. Raises ReadingError for the given or an
    assumption."""
    decimal = working.convention("decimal")
    given = read_line(working.given, decimal=decimal)
    read: list[ReadLine] = []
    for text in working.assume:
        try:
            read.append(read_line(f"assume: {text}", decimal=decimal))
        except ReadingError as problem:
            raise ReadingError(f"In the assumption: {problem.message}", problem.column, problem.code) from problem
    for number, text in enumerate(working.lines, start=1):
        try:
            read.append(read_line(text, decimal=decimal))
        except ReadingError as problem:
            read.append(LineError(number, problem.column, problem.message, problem.code))
    return given, _few_letters(given, read, len(working.assume))


def _few_letters(given: ln.Line, read: list[ReadLine], assumed: int) -> list[ReadLine]:
    """The lines, the ones refused with which there would be too many letters: one odd line does not spoil the
    others."""
    known = letters_of([given])
    if len(known) > limits.MAX_LETTERS:
        return read  # said of the given
    kept: list[ReadLine] = []
    for place, line in enumerate(read):
        own = letters_of([line]) if isinstance(line, ln.Line) else frozenset()
        if len(known | own) > limits.MAX_LETTERS and place >= assumed:
            kept.append(LineError(place - assumed + 1, 1, TOO_MANY_LETTERS, "limit"))
            continue
        known |= own
        kept.append(line)
    return kept


def _judged(task: Task, number: int, item: ReadLine, working: Working) -> LinkDraft:
    """What is said of one line; errors of the core are what is said of it."""
    draft = LinkDraft(number)
    if isinstance(item, LineError):
        draft.error = item
        return draft
    draft.kind = item.kind
    draft.notes.extend(item.notes)
    try:
        with granted():
            task.judge(draft, item)
    except OutOfEffort:
        draft.relation = "unclear"
        draft.notes.append("out-of-time")
    except UndefinedValue as problem:
        draft.relation = "breaks"
        draft.notes.append("undefined")
        draft.evidence = PointEvidence(f"This line has no value: {problem.why}.")
    except ExactError as problem:
        draft.relation = None
        draft.error = _located(problem, number, working.lines[number - 1])
    except TaskError as problem:
        draft.relation = None
        draft.error = LineError(number, 1, problem.message, "task")
    return draft


def _report(working: Working, task: Task, drafts: list[LinkDraft]) -> Report:
    excluded: tuple[str, ...] = ()
    try:
        with granted():
            excluded = task.listed_exclusions()
            outcome = task.finish()
    except ExactError as problem:
        outcome = Outcome(Answer("none", text=f"The answer: {problem.message}"), [], [])
    answer, remaining = outcome.answer, tuple(outcome.remaining)
    return Report(
        id=working.id,
        links=tuple(draft.frozen(excluded) for draft in drafts),
        owed=tuple(outcome.owed),
        answer=answer,
        finish=Finish(not remaining and answer.verdict == "correct", remaining),
        excluded=excluded,
        error=next((draft.error for draft in drafts if draft.error), None),
    )


def _refused(working: Working, error: LineError, *, undefined: bool = False) -> Report:
    """The report of a working whose given or setting can't be taken: nothing is said of any line."""
    relation: Relation | None = "unclear" if undefined else None
    links = tuple(Link(k, relation, notes=("given-not-read",)) for k in range(1, len(working.lines) + 1))
    return Report.of_refused(working.id, error, links)


def _located(problem: ExactError, line: int, text: str) -> LineError:
    """The error at the first place of the line where its symbol stands."""
    names = {"√": ("√", "sqrt", "∛", "cbrt", "root", "∜"), "^": ("^", "**"), "|": ("|", "abs")}
    places = [text.find(s) for s in names.get(problem.symbol, (problem.symbol,)) if problem.symbol and s in text]
    return LineError(line, min(places, default=0) + 1, problem.message, problem.code)
