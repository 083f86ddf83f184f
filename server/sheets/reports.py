"""The derived side of a working: its report, kept beside it and made again when the core has changed."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Literal
from zlib import crc32

from pydantic import TypeAdapter

import lanes
from algebra import VERSION, Difficulty, ReadingError, Report, TaskError, json_object
from algebra import Working as CoreWorking
from server.sheets.models import Problem, Working

_REPORT, _DIFFICULTY = TypeAdapter(Report), TypeAdapter(Difficulty)
STAMP = f"{VERSION}-{crc32(json.dumps(_REPORT.json_schema(), sort_keys=True).encode()):08x}"
"""Of the core and of the report's shape: a kept report with another stamp is made again."""
State = Literal["sound", "faulty", "open"]


def core_working(problem: Problem, lines: list[str]) -> CoreWorking:
    """The problem with these lines, in the conventions of its sheet, as the core takes it."""
    return CoreWorking(
        task=problem.task,
        given=problem.given,
        lines=tuple(lines),
        variable=problem.variable or None,
        numbers=problem.numbers,
        conventions=dict(problem.sheet.conventions),
        method=problem.method or None,
    )


def difficulty_of(problem: Problem) -> float | None:
    """The rating from 1 to 10 by the default method, kept beside the problem; None where it is not worked."""
    if problem.difficulty_version != STAMP:
        try:
            found = lanes.work(replace(core_working(problem, []), method=None), untaught=tuple(problem.sheet.untaught))
            problem.difficulty = json_object(found.difficulty)
        except (TaskError, ReadingError):
            problem.difficulty = None
        problem.difficulty_version = STAMP
        Problem.objects.filter(pk=problem.pk).update(difficulty=problem.difficulty, difficulty_version=STAMP)
    return _DIFFICULTY.validate_python(problem.difficulty).rating if problem.difficulty else None


def of(problem: Problem) -> Report:
    """The report on the stored working: the kept one, or a new one (kept too) where it is missing or old."""
    working = problem.working
    if working.report is None or working.report_version != STAMP:
        refresh(problem)
    return _REPORT.validate_python(working.report)


def report_on(problem: Problem, lines: list[str]) -> Report:
    """The report on these lines, stored or not."""
    return lanes.check(core_working(problem, lines))


def attach(working: Working, report: Report) -> None:
    """Puts a report beside a working; saving is the caller's."""
    working.report, working.report_version = json_object(report), STAMP


def refresh(problem: Problem) -> None:
    """Checks the stored lines again and keeps the report; the working's revision stays."""
    working = problem.working
    attach(working, report_on(problem, [line.text for line in working.lines.all()]))
    Working.objects.filter(pk=working.pk).update(report=working.report, report_version=STAMP)


def state(report: Report) -> State:
    """`sound`, `faulty` (a link breaks, narrows or can't be read, or the answer is not right), or `open`."""
    verdict = report.answer.verdict
    if any(link.relation in ("breaks", "narrows", None) for link in report.links):
        return "faulty"
    if verdict in ("wrong", "incomplete", "extraneous"):
        return "faulty"
    return "sound" if verdict == "correct" and report.finish.finished else "open"
