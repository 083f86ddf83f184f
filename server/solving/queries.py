"""Reads: worked solutions, next steps and features, in the conventions of a sheet and the words of its teacher."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from django.contrib.auth.models import User

import lanes
from algebra import (
    METHODS,
    NUMBER_KINDS,
    RULES,
    SLIPS,
    Anticipated,
    FeaturesReport,
    Grain,
    OptionOrder,
    ReadingError,
    Solution,
    Step,
    TaskError,
    TypesetStep,
    TypesetWrongAnswer,
    WrongAnswer,
    step_report,
    typeset,
    understood,
    values_in_latex,
    widened,
)
from server.accounts.words import Words, words_of
from server.common.problems import Refused
from server.sheets import queries as sheets
from server.sheets import reports
from server.solving.schemas import AnticipatedOut, EntryOut, HintOut, MethodsOut, SolutionOut
from server.solving.weights import factors_of

_METHODS = {method.id: method for method in METHODS}


def catalogue() -> list[EntryOut]:
    """Everything that a class may have been taught, and that may get words of one's own."""
    entries = [EntryOut(id=m.id, kind="method", name=m.name, text=m.description, topic=m.example[0]) for m in METHODS]
    entries += [
        EntryOut(id=key, kind="number", name=name, text=text, topic="") for key, (name, text) in NUMBER_KINDS.items()
    ]
    entries += [EntryOut(id=s.id, kind="slip", name=s.name, text=s.why, topic=s.topic) for s in SLIPS]
    return entries + [
        EntryOut(id=r.id, kind="rule", name=r.name, text=_plain_reason(r.reason), topic="") for r in RULES
    ]


def _plain_reason(reason: str) -> str:
    return reason.replace("{what}", "…").replace("{half}", "b").replace("{square}", "…").replace("{order}: ", "")


_NAMES = {entry.id: entry.name for entry in reversed(catalogue())}  # a method comes before a rule of the same name


def methods(teacher: User, problem_id: int, grain: Grain) -> MethodsOut:
    """Every method that leads to the answer of a problem, worked out."""
    problem = sheets.problem_of(teacher, problem_id)
    words, decimal = words_of(teacher.pk), sheets.decimal_of(problem.sheet)
    why, found = "", []
    try:
        found = lanes.all_methods(
            reports.core_working(problem, []), grain=grain, untaught=tuple(problem.sheet.untaught)
        )
        if not found:
            why = "No method known here leads to the answer of this problem."
        elif found[0].already:
            why, found = found[0].already, []
    except (TaskError, ReadingError) as reason:
        why = reason.message
    return MethodsOut(
        family=found[0].family if found else "",
        given_echo=understood(problem.given, decimal=decimal),
        methods=[_solution_out(solution, words, decimal) for solution in found],
        why_none=why,
    )


def _solution_out(solution: Solution, words: Words, decimal: str) -> SolutionOut:
    method = _METHODS[solution.method]
    own = words.of(method.id, method.name, method.description)
    return SolutionOut(
        method=method.id,
        name=own.name,
        description=own.text,
        searches=method.searches,
        answer=list(solution.answer),
        steps=[_step_out(step, words, decimal) for step in solution.steps],
        difficulty=solution.difficulty,
        not_yet=[_name_of(key, words) for key in solution.not_yet],
    )


def _name_of(key: str, words: Words) -> str:
    """What a rule, method or kind of number is called."""
    return words.of(key, _NAMES.get(key, key)).name


def _step_out(step: Step, words: Words, decimal: str) -> TypesetStep:
    """A step in the teacher's own words, both its lines set with the places where it acts."""
    before, after = typeset(step, decimal=decimal)
    own = words.of(step.rule.id, step.rule.name, step.reason)
    told = step_report(step)
    lurking = tuple(words.of(key, name).name for key, name in zip(told.slips, told.lurking, strict=True))
    said = replace(told, kind=step.kind, name=own.name, reason=own.text, lurking=lurking)
    return widened(TypesetStep, said, before_echo=before, after_echo=after)


def next_of(teacher: User, problem_id: int, lines: list[str]) -> HintOut:
    """The next step after these lines; raises Refused where none is known."""
    problem = sheets.problem_of(teacher, problem_id)
    words, decimal = words_of(teacher.pk), sheets.decimal_of(problem.sheet)
    try:
        hint = lanes.next_step(reports.core_working(problem, lines), untaught=tuple(problem.sheet.untaught))
    except (TaskError, ReadingError) as reason:
        raise Refused(reason.message, code="no-step") from reason
    return HintOut(
        look=hint.look,
        step=_step_out(hint.step, words, decimal) if hint.step else None,
        method=_name_of(hint.method, words) if hint.method else "",
        shorter=hint.shorter,
        done=hint.done,
    )


def anticipated(teacher: User, problem_id: int, order: OptionOrder, seed: int) -> AnticipatedOut:
    """The wrong answers to expect, and multiple-choice options made from them."""
    problem = sheets.problem_of(teacher, problem_id)
    words, decimal = words_of(teacher.pk), sheets.decimal_of(problem.sheet)
    working = reports.core_working(problem, [])
    try:
        found = lanes.predict(working)
        factors = factors_of(teacher.pk)
        found = replace(found, wrong=by_own_counts(found.wrong, factors))
        choices = lanes.options(working, order=order, seed=seed, found=found)
    except (TaskError, ReadingError) as reason:
        return AnticipatedOut(
            answer=[], answer_latex="", wrong=[], unfinished=[], options=[], why_none=reason.message, learned=False
        )
    return AnticipatedOut(
        answer=list(found.answer),
        answer_latex=values_in_latex(found.answer),
        wrong=[_way_out(item.out(), words, decimal) for item in found.wrong],
        unfinished=list(found.unfinished),
        options=list(choices),
        why_none="",
        learned=bool(factors),
    )


def by_own_counts(wrong: Sequence[Anticipated], factors: Mapping[str, float]) -> tuple[Anticipated, ...]:
    """The wrong answers with their weights by what the teacher's own classes do, the likeliest first; as they are
    without factors."""
    if not factors:
        return tuple(wrong)
    weighed = [replace(item, weight=item.weight * factors.get(item.slips[0], 1.0)) for item in wrong]
    return tuple(sorted(weighed, key=lambda item: -item.weight))


def _way_out(item: WrongAnswer, words: Words, decimal: str) -> TypesetWrongAnswer:
    """A wrong answer in the teacher's own words, its working typeset."""
    own = words.of(item.slips[0], item.names[0], item.why)
    echoes = tuple(understood(line, decimal=decimal) for line in item.lines)
    return widened(TypesetWrongAnswer, replace(item, names=(own.name,), why=own.text), echoes=echoes)


def analysis_of(teacher: User, problem_id: int) -> FeaturesReport:
    """Features and graph of a problem's given, where it is a rational function of one letter."""
    problem = sheets.problem_of(teacher, problem_id)
    return lanes.analysed(problem.given, variable=problem.variable or None, with_graph=True)
