"""Sheets on paper, of what a teacher has written."""

from __future__ import annotations

from typing import Literal

from django.contrib.auth.models import User

import lanes
from algebra import TaskError, Working
from paper import Settings
from server.common.problems import Refused
from server.papers.schemas import PaperIn
from server.sheets import queries, reports


def pages_of(
    teacher: User, sheet_id: int, data: PaperIn, form: Literal["pdf", "svg"]
) -> tuple[list[bytes], list[tuple[int, str]]]:
    """The PDF or the pages of one of the teacher's sheets, and what can't be relied on in its key. Raises Refused where it can't be made."""
    sheet = queries.sheet_of(teacher, sheet_id)
    problems: list[tuple[str, Working]] = [
        ("", reports.core_working(problem, [line.text for line in problem.working.lines.all()]))
        for problem in queries.problems_in(sheet)
    ]
    if not problems:
        raise Refused("This sheet has no problems yet.", code="empty")
    settings = Settings(data.kind, data.paper, data.columns, data.space, data.name_line, data.reasons)
    try:
        return lanes.printed(sheet.title, problems, settings, version=data.version, form=form)
    except TaskError as problem:
        raise Refused(problem.message, code="paper") from problem
