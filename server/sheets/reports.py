"""The derived side of a working: its report, kept beside it and made again when the core has changed."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import replace
from hashlib import sha256
from typing import Literal
from zlib import crc32

import lanes
from algebra import VERSION, ReadingError, Report, TaskError
from algebra import Working as CoreWorking
from server.common.codec import DIFFICULTIES, REPORTS
from server.sheets.models import Problem, Working

STAMP = f"{VERSION}-{crc32(json.dumps(REPORTS.schema, sort_keys=True).encode()):08x}"
"""Of the core and of the report's shape."""
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


def mark_of(working: CoreWorking, untaught: Sequence[str] = ()) -> str:
    """What a kept report or rating was made from, in 20 characters: the problem, its lines, the conventions, the core.

    What was made from anything else than what stands now has another mark and is made again: it can't be shown, however
    writes and checks came in between each other.
    """
    made_from = [
        STAMP,
        working.task,
        working.given,
        working.lines,
        working.variable,
        working.numbers,
        sorted(working.conventions.items()),
        working.method,
        list(untaught),
    ]
    return sha256(json.dumps(made_from).encode()).hexdigest()[:20]


def difficulty_of(problem: Problem) -> float | None:
    """The rating from 1 to 10 by the default method, kept beside the problem; None where it is not worked."""
    working, untaught = replace(core_working(problem, []), method=None), tuple(problem.sheet.untaught)
    mark = mark_of(working, untaught)
    if problem.difficulty_version != mark:
        try:
            problem.difficulty = DIFFICULTIES.kept(lanes.work(working, untaught=untaught).difficulty)
        except lanes.Busy:
            return None  # not known now; asked again the next time
        except (TaskError, ReadingError):
            problem.difficulty = None
        problem.difficulty_version = mark
        Problem.objects.filter(pk=problem.pk).update(difficulty=problem.difficulty, difficulty_version=mark)
    return DIFFICULTIES.back(problem.difficulty).rating if problem.difficulty else None


def of(problem: Problem) -> Report:
    """The report on the stored working: the kept one, or a new one (kept too) where it is missing or old."""
    working = problem.working
    asked = core_working(problem, [line.text for line in working.lines.all()])
    if working.report is None or working.report_version != mark_of(asked):
        attach(working, asked)
        Working.objects.filter(pk=working.pk).update(
            report=working.report, report_version=working.report_version, state=working.state
        )
    return REPORTS.back(working.report)


def attach(working: Working, asked: CoreWorking) -> None:
    """Checks, and puts the report beside a working with the mark of what it was made from; saving is the caller's."""
    report = lanes.check(asked)
    working.report, working.state = REPORTS.kept(report), state(report)
    working.report_version = mark_of(asked) if lanes.is_lasting(report) else ""


def state(report: Report) -> State:
    """`sound`, `faulty` (a link breaks, narrows or can't be read, or the answer is not right), or `open`."""
    verdict = report.answer.verdict
    if any(link.relation in ("breaks", "narrows", None) for link in report.links):
        return "faulty"
    if verdict in ("wrong", "incomplete", "extraneous"):
        return "faulty"
    return "sound" if verdict == "correct" and report.finish.finished else "open"
