"""Reads. Everything starts from the teacher: what belongs to another does not exist."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import replace

from django.contrib.auth.models import User
from django.db.models import Prefetch, QuerySet
from django.shortcuts import get_object_or_404

from algebra import SLIPS, Link, Report, SlipSeen, understood
from server.accounts.people import everybody
from server.accounts.schemas import Colleague
from server.accounts.words import Words, words_of
from server.common.schemas import ConventionsOut
from server.sheets import reports
from server.sheets.models import Line, Problem, Sheet, Working
from server.sheets.schemas import (
    Bead,
    LineOut,
    ProblemOut,
    ProblemRow,
    SheetOut,
    SheetRow,
    SheetsOut,
    SlipNamed,
    TintOut,
)

PAGE = 30
"""Sheets on one page of their list."""
_SLIP_NAMES = {slip.id: slip.name for slip in SLIPS}
_LINES = Prefetch("lines", queryset=Line.objects.order_by("position"))
_WORKINGS = Prefetch("working", queryset=Working.objects.prefetch_related(_LINES))


def sheet_of(teacher: User, sheet_id: int) -> Sheet:
    """The teacher's sheet; raises Http404 for any other."""
    return get_object_or_404(Sheet, pk=sheet_id, owner=teacher)


def problem_of(teacher: User, problem_id: int) -> Problem:
    """The teacher's problem with its working; raises Http404 for any other."""
    found = Problem.objects.select_related("sheet").prefetch_related(_WORKINGS)
    return get_object_or_404(found, pk=problem_id, sheet__owner=teacher)


def sheets_of(teacher: User, search: str = "", page: int = 1) -> SheetsOut:
    """A page of the teacher's sheets, the last changed first, each with how many of its workings are sound and how many
    hold a fault; `search` is looked for in the titles."""
    mine = Sheet.objects.filter(owner=teacher).order_by("-changed", "-pk")
    found = mine.filter(title__icontains=search) if search else mine
    start = (page - 1) * PAGE
    sheets = list(found[start : start + PAGE + 1])
    states = _states(sheets[:PAGE])
    return SheetsOut(
        sheets=[_sheet_row(sheet, states[sheet.pk]) for sheet in sheets[:PAGE]],
        more=len(sheets) > PAGE,
        all=mine.count(),
    )


def _sheet_row(sheet: Sheet, states: list[str]) -> SheetRow:
    return SheetRow(
        id=sheet.pk,
        title=sheet.title,
        received_from=sheet.received_from,
        changed=sheet.changed,
        problems=len(states),
        sound=states.count("sound"),
        faulty=states.count("faulty"),
    )


def _states(sheets: list[Sheet]) -> dict[int, list[str]]:
    """The states of the workings of these sheets: the kept ones as far as they were made from what stands now, the
    others anew."""
    by_id = {sheet.pk: sheet for sheet in sheets}
    lines: dict[int, list[str]] = defaultdict(list)
    of_working = Line.objects.filter(working__problem__sheet__in=by_id).order_by("working_id", "position")
    for working_id, text in of_working.values_list("working_id", "text"):
        lines[working_id].append(text)
    found: dict[int, list[str]] = {pk: [] for pk in by_id}
    problems = Problem.objects.filter(sheet__in=by_id).select_related("working").defer("working__report", "difficulty")
    for problem in problems.order_by("position"):
        problem.sheet = by_id[problem.sheet_id]
        kept = problem.working
        if kept.state and kept.report_version == reports.mark_of(reports.core_working(problem, lines[kept.pk])):
            found[problem.sheet_id].append(kept.state)
        else:
            found[problem.sheet_id].append(reports.state(reports.of(problem)))
    return found


def problems_in(sheet: Sheet) -> QuerySet[Problem]:
    """The problems of a sheet in their order, each with its working."""
    return _problems().filter(sheet=sheet)


def _problems() -> QuerySet[Problem]:
    return Problem.objects.select_related("sheet").prefetch_related(_WORKINGS).order_by("position")


def sheet_out(sheet: Sheet) -> SheetOut:
    """A sheet with a row for every problem."""
    return SheetOut(
        id=sheet.pk,
        title=sheet.title,
        conventions=ConventionsOut(**sheet.conventions),
        untaught=sheet.untaught,
        problems=[problem_row(problem) for problem in problems_in(sheet)],
    )


def problem_row(problem: Problem) -> ProblemRow:
    """A problem as the strip shows it."""
    report = reports.of(problem)
    given = understood(problem.given, decimal=decimal_of(problem.sheet))
    return ProblemRow(
        id=problem.pk,
        position=problem.position,
        task=problem.task_name,
        given=problem.given,
        given_latex=given.latex,
        beads=beads_of(report.links),
        difficulty=reports.difficulty_of(problem),
        instruction=problem.instruction,
        form=problem.item_form,
        verdict=report.answer.verdict,
        finished=report.finish.finished,
        owed=len(report.owed),
        slips=[SlipNamed(id=key, name=name) for key, name in slips_in(report).items()],
    )


def beads_of(links: Iterable[Link]) -> list[Bead]:
    """The tiny chain of a working."""
    return [Bead(kind=link.kind, relation=link.relation) for link in links]


def slips_in(report: Report) -> dict[str, str]:
    """The slips that a report names first, with what they are called."""
    found = [link.slip.id for link in report.links if link.slip] + list(report.answer.slips)
    return {key: _SLIP_NAMES[key] for key in dict.fromkeys(found) if key in _SLIP_NAMES}


def _in_own_words(report: Report, teacher_id: int) -> Report:
    """The report with the teacher's own words for the slips it names; the kept report stays as it is."""
    if not any(link.slip for link in report.links):
        return report
    words = words_of(teacher_id)
    return replace(report, links=tuple(_reworded(link, words) for link in report.links)) if words.stored else report


def _reworded(link: Link, words: Words) -> Link:
    if link.slip is None:
        return link

    def said(slip: SlipSeen) -> SlipSeen:
        own = words.of(slip.id, slip.name, slip.why)
        return replace(slip, name=own.name, why=own.text)

    return replace(link, slip=said(link.slip), other_slips=tuple(map(said, link.other_slips)))


def tints_of(given: str, texts: list[str], report: Report, decimal: str) -> list[TintOut]:
    """The places of every slip, in its line and in the line of the chain before it."""
    found = []
    before = 0
    for link in report.links:
        slip, number = link.slip, link.line
        if slip and (slip.before or slip.after):
            above = given if before == 0 else texts[before - 1]
            found.append(
                TintOut(
                    line=number,
                    before_line=before,
                    before=understood(above, decimal=decimal, marks=dict.fromkeys(slip.before, "mark-slip")),
                    after=understood(texts[number - 1], decimal=decimal, marks=dict.fromkeys(slip.after, "mark-slip")),
                )
            )
        if link.kind in ("expression", "equation", "statement") and not link.error:
            before = number
    return found


def with_lines(problem: Problem, working: Working, texts: list[str]) -> Problem:
    """The problem with these lines as its stored ones, without asking the database again."""
    lines = [Line(working=working, position=k, text=text) for k, text in enumerate(texts)]
    working._prefetched_objects_cache = {"lines": lines}  # type: ignore[attr-defined]  # of the ORM, undocumented
    problem.working = working
    return problem


def problem_out(problem: Problem) -> ProblemOut:
    """A problem with its lines as typed and as understood, and the report on them."""
    decimal = decimal_of(problem.sheet)
    texts = [line.text for line in problem.working.lines.all()]
    report = _in_own_words(reports.of(problem), problem.sheet.owner_id)
    return ProblemOut(
        id=problem.pk,
        sheet=problem.sheet_id,
        position=problem.position,
        task=problem.task_name,
        given=problem.given,
        variable=problem.variable,
        numbers=problem.number_system,
        method=problem.method,
        instruction=problem.instruction,
        form=problem.item_form,
        given_echo=understood(problem.given, decimal=decimal),
        revision=problem.working.revision,
        lines=[LineOut(text=text, echo=understood(text, decimal=decimal)) for text in texts],
        report=report,
        tints=tints_of(problem.given, texts, report, decimal),
    )


def decimal_of(sheet: Sheet) -> str:
    """The sheet's decimal sign: point or comma."""
    return str(sheet.conventions.get("decimal", "point"))


def colleagues_of(teacher: User) -> list[Colleague]:
    """The other teachers, to whom a sheet can be given, by name."""
    others = everybody().filter(is_active=True, person__teaches=True).exclude(pk=teacher.pk)
    return [Colleague(username=user.username, name=user.first_name or user.username) for user in others]
