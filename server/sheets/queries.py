"""Reads. Everything starts from the teacher: what belongs to another does not exist."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import Prefetch, QuerySet
from django.shortcuts import get_object_or_404

from algebra import SLIPS
from server.checking.schemas import JsonObject
from server.checking.services import echo_line
from server.sheets import reports
from server.sheets.models import Line, Problem, Sheet, Working
from server.solving.models import OwnWords

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
        "slips": [{"id": key, "name": name} for key, name in slips_in(report).items()],
    }


def slips_in(report: JsonObject) -> dict[str, str]:
    """The slips that a report names first, with what they are called."""
    found = [link["slip"]["id"] for link in report["links"] if link["slip"]] + report["answer"]["slips"]
    return {key: _SLIP_NAMES[key] for key in dict.fromkeys(found) if key in _SLIP_NAMES}


def _in_own_words(report: JsonObject, teacher_id: int) -> JsonObject:
    """The report with the teacher's own words for the slips it names; the kept report stays as it is."""
    if not any(link["slip"] for link in report["links"]):
        return report
    words = OwnWords.objects.filter(owner_id=teacher_id).values_list("words", flat=True).first()
    if not words:
        return report

    def said(slip: JsonObject) -> JsonObject:
        own = words.get(slip["id"], {})
        return slip | {"name": own.get("name") or slip["name"], "why": own.get("text") or slip["why"]}

    links = [
        link | {"slip": said(link["slip"]), "other_slips": [said(other) for other in link["other_slips"]]}
        if link["slip"]
        else link
        for link in report["links"]
    ]
    return report | {"links": links}


def _tints(given: str, texts: list[str], report: JsonObject, decimal: str) -> list[JsonObject]:
    """The places of every slip, in its line and in the line of the chain before it."""
    found = []
    before = 0
    for link in report["links"]:
        slip, number = link["slip"], link["line"]
        if slip and (slip["before"] or slip["after"]):
            above = given if before == 0 else texts[before - 1]
            found.append(
                {
                    "line": number, "before_line": before,
                    "before": echo_line(above, decimal, _marked(slip["before"])).model_dump(),
                    "after": echo_line(texts[number - 1], decimal, _marked(slip["after"])).model_dump(),
                }
            )  # fmt: skip
        if link["kind"] in ("expression", "equation", "statement") and not link["error"]:
            before = number
    return found


def _marked(addresses: list[list[int]]) -> dict[tuple[int, ...], str]:
    return {tuple(address): "mark-slip" for address in addresses}


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
    report = _in_own_words(reports.of(problem), problem.sheet.owner_id)
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
        "report": report,
        "tints": _tints(problem.given, texts, report, decimal),
    }


def decimal_of(sheet: Sheet) -> str:
    return str(sheet.conventions.get("decimal", "point"))
