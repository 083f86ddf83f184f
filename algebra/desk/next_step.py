"""The next step from where a working stands: a hint, then the rule, then the line; by the method it is on."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from algebra.methods import catalogue
from algebra.methods.radical_equations import put_in
from algebra.methods.worked_lines import NotThisWay, Problem, Step, at_grain
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.reports.report import Report
from algebra.reports.working import TaskError, Working
from algebra.rules import BY_ID
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.check import check
from algebra.ways.solve import methods_in_order, problem_from, verified, worked


@dataclass(frozen=True, slots=True)
class Hint:
    """What to do next. `look` says what to look at, `step` holds rule and line; `done` when nothing is left to do.

    `shorter` names another method that would now need fewer lines.
    """

    look: str
    step: Step | None
    method: str
    after_line: int
    shorter: str = ""
    done: bool = False


LOOKS = {
    "open-brackets": "Look at the brackets.",
    "distribute": "Look at the brackets.",
    "simplify-sides": "Look for like terms on one side.",
    "like-terms": "Look for like terms.",
    "add-to-both-sides": "Which term stands beside the unknown's, and how is it undone?",
    "subtract-from-both-sides": "Which term stands beside the unknown's, and how is it undone?",
    "divide-both-sides": "What is the unknown multiplied by?",
    "multiply-both-sides": "What is the unknown divided by?",
    "clear-fractions": "Look at the denominators: what do they all divide?",
    "clear-denominators": "Look at the denominators: what do they all divide?",
    "factor-side": "Look for two numbers with the right product and sum.",
    "product-sum": "Look for two numbers with the right product and sum.",
    "zero-product": "A product is 0: what does that say of its factors?",
    "excluded-values": "For which values is a denominator 0?",
    "square-both-sides": "The root stands alone: how does it go away?",
    "isolate-root": "Does the root stand alone yet?",
    "all-on-one-side": "One side should be 0.",
    "common-factor": "Do all terms share a factor?",
    "cancel-factors": "Which factors stand above and below?",
    "factor-all": "Only factors cancel: what can be factored?",
    "lcd": "What does each denominator lack?",
    "common-base": "Which number are all bases powers of?",
    "check-candidate": "Both sides were raised: is every candidate put into the given?",
    "keep-what-solves": "Which candidates solved the given?",
    "drop-excluded": "Is one of the candidates excluded?",
    "read-solution": "What is the unknown in each equation?",
    "complete-the-square": "What is half of the coefficient of x, squared?",
    "root-both-sides": "The square stands alone: which two roots has it?",
    "largest-square-factor": "Which square divides the radicand?",
    "multiply-by-conjugate": "What removes the root below?",
    "factor-bottoms": "Which factors have the denominators?",
    "factor-numerator": "Does anything cancel?",
    "multiply-complex": "Multiply as with a letter.",
    "powers-of-i": "What is i²?",
    "combine-parts": "Which terms are real, which have an i?",
    "complex-conjugate": "What makes the denominator real?",
    "multiply-by-i": "What makes the denominator real?",
    "negative-radicand": "What is the root of −1?",
    "largest-power-factor": "Which power divides the radicand?",
    "as-powers": "Are both ends powers?",
    "multiply-numbers": "Put the numbers together.",
    "two-cases": "What can stand between the bars?",
    "substitute": "What occurs again and again?",
    "split-plus-minus": "± stands for two values.",
}


def next_step(working: Working, *, untaught: Iterable[str] = ()) -> Hint:
    """The next step after the lines written so far. Raises TaskError where none is known, ReadingError for the
    given."""
    problem = problem_from(working)
    report = check(working)
    broken = next(
        (
            link
            for link in report.links
            if link.relation in ("breaks", "narrows", None) and not _repaired(report, link.line)
        ),
        None,
    )
    if broken is not None:
        return Hint(
            f"Look at line {broken.line} first: it does not follow from the line before it.", None, "", broken.line
        )
    settled = _settling(problem, working, report)
    if settled is not None:
        return settled
    place, current = _last_chain_line(working)
    if report.answer.verdict == "correct" and not report.finish.remaining:
        return Hint("The answer is right and finished.", None, "", len(working.lines), done=True)
    method = _method_of(problem, working)
    # the domain is asked of the given, whatever has been worked out beside it
    here = problem if place == 0 or problem.task == "domain" else _from_line(problem, current)
    options = _continuations(here, problem, untaught, written=_bodies(working), started=place > 0)
    if not options:
        raise TaskError("No next step is known from here.")
    chosen = next((option for option in options if option[0] == method), options[0])
    shortest = min(options, key=lambda option: len(option[1]))
    shorter = ""
    if len(shortest[1]) + 1 < len(chosen[1]) and place > 0:
        shorter = (
            f"{catalogue.BY_ID[shortest[0]].name} would now take {len(shortest[1])} lines in place of {len(chosen[1])}."
        )
    step = chosen[1][0]
    look = LOOKS.get(step.rule.id, f"{step.rule.name}: where could that be done?")
    return Hint(look, step, chosen[0], place, shorter)


def _repaired(report: Report, line: int) -> bool:
    return any("repaired" in link.notes for link in report.links[line:])


def _bodies(working: Working) -> set[n.Node]:
    """What the lines say."""
    found = set()
    for text in working.lines:
        try:
            line = read_line(text, decimal=working.convention("decimal"))
        except ReadingError:
            continue
        if line.body is not None and line.kind in ("expression", "equation", "statement", "exclusion", "feature"):
            found.add(line.body)
        elif line.kind == "definition" and line.subject is not None:
            found.add(line.subject)
    return found


def _last_chain_line(working: Working) -> tuple[int, str]:
    """The number and text of the last line that goes on; 0 and the given where there is none."""
    for k in range(len(working.lines), 0, -1):
        try:
            line = read_line(working.lines[k - 1], decimal=working.convention("decimal"))
        except ReadingError:
            continue
        if line.kind in ("expression", "equation") and line.body is not None:
            return k, plain(line.body)
    return 0, working.given


def _last_body(working: Working) -> n.Node | None:
    """What the last line says."""
    try:
        return read_line(working.lines[-1], decimal=working.convention("decimal")).body
    except ReadingError:
        return None


def _settling(problem: Problem, working: Working, report: Report) -> Hint | None:
    """Checks that are owed and candidates that are to be dropped come before anything else."""
    if problem.task != "solve":
        return None
    x, after = problem.unknown, len(working.lines)
    if report.owed and report.answer.verdict in ("correct", "extraneous"):
        value = report.owed[0].value
        candidate = build.equation(n.Letter(x), read_expression(value))
        claim, holds = put_in(problem, candidate.sides[1])
        rule = BY_ID["check-candidate"]
        reason = f"{x} = {value} {'solves' if holds else 'does not solve'} the given."
        step = Step(candidate, claim, rule, reason, kind="check", subject=candidate)
        return Hint(LOOKS["check-candidate"], step, "", after)
    if report.answer.verdict == "correct" and any(f.code == "plus-minus-not-split" for f in report.finish.remaining):
        line = build.solutions(x, [read_expression(value) for value in report.answer.given])
        rule = BY_ID["split-plus-minus"]
        return Hint(LOOKS[rule.id], Step(_last_body(working) or problem.body, line, rule, rule.reason), "", after)
    if report.answer.verdict == "extraneous":
        kept = [v for v in report.answer.given if v not in report.answer.extra]
        excluded = set(report.answer.extra) <= set(report.excluded)
        rule = BY_ID["drop-excluded" if excluded else "keep-what-solves"]
        what = f"{x} = {' and '.join(report.answer.extra)}"
        reason = rule.reason.format(what=what if excluded else f"{what} does not solve the given.")
        line = build.solutions(x, [read_expression(value) for value in kept])
        return Hint(LOOKS[rule.id], Step(_last_body(working) or problem.body, line, rule, reason), "", after)
    return None


def _from_line(problem: Problem, text: str) -> Problem:
    working = replace(problem.working, given=text, lines=(), variable=problem.working.variable or problem.unknown)
    return problem_from(working)


def _method_of(problem: Problem, working: Working) -> str:
    """The method whose lines the writer's lines are, as far as they agree; the first in order where none does."""
    written = _bodies(working)
    best, score = "", 0
    for method in methods_in_order(problem)[1]:
        try:
            lines = {step.after for step in worked(problem, method).steps if step.subject is None}
        except NotThisWay:
            continue
        count = len(lines & written)
        if count > score or not best:
            best, score = method.id, count
    return best


def _continuations(
    here: Problem, origin: Problem, untaught: Iterable[str], *, written: set[n.Node], started: bool
) -> list[tuple[str, list[Step]]]:
    """(method, the steps still to be written) for every method that goes on from here."""
    unknown = set(untaught)
    found = []
    for method in methods_in_order(here)[1]:
        if method.id in unknown:
            continue
        try:
            steps = at_grain(worked(here, method).steps, "board")
            verified(here.working, steps, method)
        except NotThisWay:
            continue
        if started and here.task == "solve" and origin.working.given != here.working.given:
            # what concerns the given (excluded values, checks) is asked for from the given itself
            steps = [s for s in steps if s.kind not in ("exclusion", "check")]
        steps = [
            s for s in steps if (s.subject if s.kind == "definition" else s.after) not in written or s.kind == "check"
        ]
        if steps:
            found.append((method.id, steps))
    return found
