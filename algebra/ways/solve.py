"""A problem worked by a method: the steps at a grain, the answer, how hard it is; every line checked before it is
shown."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace

from algebra.exact.effort import granted
from algebra.exact.errors import ExactError
from algebra.families import FAMILIES, Family
from algebra.methods import catalogue
from algebra.methods.catalogue import Method
from algebra.methods.difficulty import difficulty_of
from algebra.methods.worked_lines import NotThisWay, Problem, Step, WorkedLines, at_grain, problem_of
from algebra.parse.errors import ReadingError
from algebra.reports.report import LineError
from algebra.reports.solution import GRAINS, Difficulty, Grain, Mark, SolutionReport, SolutionStep
from algebra.reports.working import TaskError, Working
from algebra.slips import lurking_at
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.check import check
from algebra.ways.finished import finished_already

TASK_KINDS = {
    "evaluate": ("evaluate", "simplify"),
    "simplify": ("simplify", "evaluate", "expand"),
    "expand": ("expand", "simplify"),
    "factor": ("factor",),
    "solve": ("solve",),
    "domain": ("domain",),
    "analyze": ("analyze",),
}


@dataclass(frozen=True, slots=True)
class Solution:
    """A worked solution. `not_yet` names what in it the class has not been taught; `already` says, of a problem with
    nothing left to do, that it is its own answer (there are no steps then, and no method)."""

    working: Working
    family: str
    method: str
    steps: tuple[Step, ...]
    answer: tuple[str, ...]
    difficulty: Difficulty
    not_yet: tuple[str, ...] = ()
    all_steps: tuple[Step, ...] = field(default=())
    answer_trees: tuple[n.Node, ...] = field(default=())
    already: str = ""

    @property
    def lines(self) -> tuple[str, ...]:
        """The lines as they are written in a working, each with its move."""
        return tuple(step.text for step in self.steps)

    def report(self) -> SolutionReport:
        """The solution as it is given out."""
        return SolutionReport(
            id=self.working.id,
            family=self.family,
            method=self.method,
            answer=self.answer,
            steps=tuple(step_report(step) for step in self.steps),
            difficulty=self.difficulty,
            not_yet=self.not_yet,
            already=self.already,
        )


def step_report(step: Step) -> SolutionStep:
    """One step as it is given out, every expression in the plain notation."""
    return SolutionStep(
        before=plain(step.before),
        after=step.line,
        kind="equation" if step.kind == "zero" else step.kind,
        move=step.move,
        rule=step.rule.id,
        name=step.rule.name,
        reason=step.reason,
        side_work=step.side_work,
        slips=tuple(slip.id for slip in lurking_at(step.rule.id)),
        excluded=tuple(map(plain, step.excluded)),
        marks=tuple(Mark("cancel", plain(factor), None, k) for k, factor in enumerate(step.cancelled)),
        text=step.text,
        lurking=tuple(slip.name for slip in lurking_at(step.rule.id)),
        noticed=step.noticed,
    )


class Unsolved(TaskError):
    """No method leads to the answer; the message says why, for each that was tried or for the one asked for."""


def problem_from(working: Working) -> Problem:
    """Raises TaskError for what is no problem, ReadingError for what can't be read."""
    working.validate()
    problem = problem_of(working)
    if working.task == "solve" and working.variable is None and len(problem.field.letters) > 1:
        raise TaskError("Several letters occur: name the one to solve for.")
    return problem


def family_of(problem: Problem) -> Family | None:
    """The first family that fits."""
    kinds = TASK_KINDS[problem.task]
    for kind in kinds:
        for family in FAMILIES:
            if family.task == kind and family.fits(problem):
                return family
    return None


def methods_in_order(problem: Problem) -> tuple[str, list[Method]]:
    """The family's name, its methods first, then the others of the task that might work."""
    family = family_of(problem)
    own = list(family.methods) if family else []
    if family and family.leads:
        own.sort(key=family.leads(problem).__ne__)
    kinds = TASK_KINDS[problem.task]
    others = [m for f in FAMILIES if f.task in kinds for m in f.methods]
    ordered = list(dict.fromkeys([*own, *others]))
    return (family.id if family else ""), [catalogue.BY_ID[name] for name in ordered]


def work(
    working: Working,
    *,
    method: str | None = None,
    grain: Grain = "board",
    untaught: Iterable[str] = (),
    as_it_stands: bool = True,
) -> Solution:
    """The worked solution by the method named, or by the first that works and that the class knows; of a problem with
    nothing left to do, itself, unless that is not asked for (`as_it_stands`).

    Raises TaskError (Unsolved where no method leads to the answer) and ReadingError.
    """
    if grain not in GRAINS:
        raise TaskError(f"Unknown grain “{grain}”: {', '.join(GRAINS)}.")
    problem = problem_from(working)
    if method is not None and method not in catalogue.BY_ID:
        raise TaskError(f"Unknown method “{method}”.")
    family, ordered = methods_in_order(problem)
    if not method and _may_stand(problem) and (done := _as_it_stands(problem, family)):
        return done
    wanted = [catalogue.BY_ID[method]] if method else ordered
    unknown = frozenset(untaught)
    reasons: dict[str, str] = {}
    fallback: Solution | None = None
    for candidate in wanted:
        try:
            found = _solution(problem, family, candidate, grain, unknown)
        except NotThisWay as reason:
            reasons[candidate.name] = str(reason)
            continue
        if not found.not_yet or method:
            return found
        fallback = fallback or found
    if fallback is not None:
        return fallback
    if as_it_stands and not method and (done := _as_it_stands(problem, family)):
        return done
    if method:
        raise Unsolved(f"{wanted[0].name} does not lead to the answer here: {reasons.get(wanted[0].name, '')}")
    raise Unsolved("No method known here leads to the answer of this problem.")


def _as_it_stands(problem: Problem, family: str) -> Solution | None:
    """The solution of a problem with nothing left to do; else None."""
    already = finished_already(problem)
    if not already:
        return None
    items = problem.body.items if isinstance(problem.body, ln.Alternatives) else (problem.body,)
    answer = tuple(item.sides[-1] if isinstance(item, ln.Equation) else item for item in items)
    return Solution(
        problem.working,
        family,
        "",
        (),
        tuple(map(answer_text, answer)),
        Difficulty(1.0),
        answer_trees=answer,
        already=already,
    )


def _may_stand(problem: Problem) -> bool:
    """Whether it is asked first if anything is left to do: of a product to be factored, which the methods would
    multiply out, and of an equation that states its solution, on which each of them would be tried in vain."""
    body = problem.body
    if problem.task == "factor":
        return isinstance(n.bare(body), n.Product | n.Power)
    items = body.items if isinstance(body, ln.Alternatives) else (body,)
    return problem.task == "solve" and all(
        isinstance(item, ln.Equation) and n.bare(item.sides[0]) == n.Letter(problem.unknown) for item in items
    )


def all_methods(working: Working, *, grain: Grain = "board", untaught: Iterable[str] = ()) -> list[Solution]:
    """Every method that leads to the answer, the default first; one solution without steps where nothing is left to do.

    Raises TaskError and ReadingError.
    """
    problem = problem_from(working)
    family, ordered = methods_in_order(problem)
    found: list[Solution] = []
    if _may_stand(problem) and (done := _as_it_stands(problem, family)):
        return [done]
    for candidate in ordered:
        try:
            solution = _solution(problem, family, candidate, grain, frozenset(untaught))
        except NotThisWay:
            continue
        if all(_way(solution) != _way(other) for other in found):
            found.append(solution)
    if not found and (done := _as_it_stands(problem, family)):
        return [done]
    return found


def _way(solution: Solution) -> tuple[object, ...]:
    """What tells two methods apart: their lines, their rules, their side work."""
    return tuple((step.text, step.rule.id, *(work.kind for work in step.side_work)) for step in solution.steps)


def _solution(problem: Problem, family: str, method: Method, grain: Grain, untaught: frozenset[str]) -> Solution:
    """Raises NotThisWay where the method does not apply, or where a line of it does not pass the check."""
    paper = worked(problem, method)
    steps = tuple(at_grain(paper.steps, grain))
    verified(problem.working, steps, method)
    not_yet = sorted(_needs(problem, method, paper) & untaught)
    return Solution(
        problem.working,
        family,
        method.id,
        steps,
        tuple(map(answer_text, paper.answer)),
        difficulty_of(at_grain(paper.steps, "board"), paper.answer),
        tuple(not_yet),
        tuple(paper.steps),
        tuple(paper.answer),
    )


def answer_text(value: n.Node) -> str:
    """A value of an answer in the plain notation; `all` where every number is a solution."""
    return "all" if value == ln.AllReals() else plain(value)


def worked(problem: Problem, method: Method) -> WorkedLines:
    """The paper of a method. Raises NotThisWay where it does not apply."""
    with granted():
        try:
            paper = method.work(problem)
            paper.finish_mixed()
        except (ExactError, ReadingError) as reason:
            raise NotThisWay(reason.message) from reason
    if not paper.steps:
        raise NotThisWay("There is nothing to be done.")
    return paper


def verified(working: Working, steps: Iterable[Step], method: Method) -> None:
    """Nothing the tool writes escapes the check. Raises NotThisWay for a working that does not pass."""
    report = check(replace(working, lines=tuple(step.text for step in steps), method=None))
    for link in report.links:
        if link.relation not in ("holds", "widens", "settles"):
            raise NotThisWay(f"Line {link.line} of {method.id} does not pass the check.")
    if report.answer.verdict != "correct":
        raise NotThisWay(f"The answer of {method.id} is {report.answer.verdict}.")
    if report.finish.remaining:
        raise NotThisWay(f"{method.id} is not finished: {report.finish.remaining[0].text}")


def _needs(problem: Problem, method: Method, paper: WorkedLines) -> frozenset[str]:
    """What a class must know for this: the method, its rules, kinds of number."""
    kinds = set()
    parts = [part for step in paper.steps if step.after is not None for part in n.parts_of(step.after)]
    if problem.complex:
        kinds.add("complex-numbers")
    if any(isinstance(part, n.Root) for part in parts):
        kinds.add("irrational-numbers")
    if any(
        "leading coefficient" in step.noticed or step.rule.id in ("split-middle", "slide-and-divide")
        for step in paper.steps
    ):
        kinds.add("leading-coefficient")
    return frozenset({method.id, *(step.rule.id for step in paper.steps), *kinds})


def refused(problem: TaskError | ReadingError, working: Working | None = None) -> SolutionReport:
    """The report of a problem that is not worked: the error at its place."""
    return SolutionReport(working.id if working else None, "", "", (), (), Difficulty(None), (), error_of(problem))


def error_of(problem: TaskError | ReadingError) -> LineError:
    """The error of a given that can't be taken, at its place."""
    column = problem.column if isinstance(problem, ReadingError) else 1
    return LineError(0, column, problem.message, problem.code)
