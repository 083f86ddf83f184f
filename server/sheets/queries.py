"""Reads. Everything starts from the teacher: what belongs to another does not exist."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import Prefetch, QuerySet
from django.shortcuts import get_object_or_404

from server.checking.schemas import JsonObject
from server.checking.services import echo_line
from server.sheets import reports
from server.sheets.models import Line, Problem, Sheet, Working

_LINES = Prefetch("lines", queryset=Line.objects.order_by("position"))
_WORKINGS = Prefetch("working", queryset=Working.objects.prefetch_related(_LINES))


def sheet_of(teacher: User, sheet_id: int) -> Sheet:
    """The teacher's sheet; raises Http404 for any other."""
    return get_object_or_404(Sheet, pk=sheet_id, owner=teacher)


def problem_of(teacher: User, problem_id: int) -> Problem:
    """The teacher's problem with its working; raises Http404 for any other."""
    found = Problem.objects.select_related("sheet").prefetch_related(_WORKINGS)
    return get_object_or_404(found, pk=problem_id, sheet__owner=teacher)


def sheet_rows(teacher: User) -> list[JsonObject]:
    """The teacher's sheets, each with how many of its workings are sound and how many hold a fault."""
    rows = []
    for sheet in Sheet.objects.filter(owner=teacher).prefetch_related(Prefetch("problems", _problems())):
        problems = list(sheet.problems.all())
        states = [reports.state(reports.of(problem)) for problem in problems]
        rows.append(
            {
                "id": sheet.pk,
                "title": sheet.title,
                "changed": sheet.changed,
                "problems": len(problems),
                "sound": states.count("sound"),
                "faulty": states.count("faulty"),
            }
        )
    return rows


def _problems() -> QuerySet[Problem]:
    return Problem.objects.select_related("sheet").prefetch_related(_WORKINGS).order_by("position")


def sheet_out(sheet: Sheet) -> JsonObject:
    """A sheet with a row for every problem."""
    problems = _problems().filter(sheet=sheet)
    return {
        "id": sheet.pk,
        "title": sheet.title,
        "conventions": sheet.conventions,
        "untaught": sheet.untaught,
        "problems": [problem_row(problem) for problem in problems],
    }


def problem_row(problem: Problem) -> JsonObject:
    report = reports.of(problem)
    given = echo_line(problem.given, decimal_of(problem.sheet))
    return {
        "id": problem.pk,
        "position": problem.position,
        "task": problem.task,
        "given": problem.given,
        "given_latex": f"{given.left} {given.right}".strip(),
        "beads": [{"kind": link["kind"], "relation": link["relation"]} for link in report["links"]],
        "difficulty": reports.difficulty_of(problem),
        "verdict": report["answer"]["verdict"],
        "finished": report["finish"]["finished"],
        "owed": len(report["owed"]),
    }


def with_lines(problem: Problem, working: Working, texts: list[str]) -> Problem:
    """The problem with these lines as its stored ones, without asking the database again."""
    lines = [Line(working=working, position=k, text=text) for k, text in enumerate(texts)]
    working._prefetched_objects_cache = {"lines": lines}  # type: ignore[attr-defined]
    problem.working = working
    return problem


def problem_out(problem: Problem) -> JsonObject:
    """A problem with its lines as typed and as understood, and the report on them."""
    decimal = decimal_of(problem.sheet)
    texts = [line.text for line in problem.working.lines.all()]
    return {
        "id": problem.pk,
        "sheet": problem.sheet_id,
        "position": problem.position,
        "task": problem.task,
        "given": problem.given,
        "variable": problem.variable,
        "numbers": problem.numbers,
        "method": problem.method,
        "given_echo": echo_line(problem.given, decimal).model_dump(),
        "revision": problem.working.revision,
        "lines": [{"text": text, "echo": echo_line(text, decimal).model_dump()} for text in texts],
        "report": reports.of(problem),
    }


def decimal_of(sheet: Sheet) -> str:
    return str(sheet.conventions.get("decimal", "point"))
