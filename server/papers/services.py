"""Sheets on paper, of what a teacher has written."""

from __future__ import annotations

from base64 import b64decode
from binascii import Error as Base64Error
from typing import Literal

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone
from pydantic import TypeAdapter, ValidationError

import lanes
from algebra import OTHER_SPELLINGS, NotTaken, ReadingError, SheetFile, SheetProblem, TaskError, widened
from paper import FileFormat, Picture, Settings, Shown, in_other_order
from server.common.problems import Refused
from server.common.schemas import LineText
from server.papers.schemas import NotTakenOut, PaperIn, TakeIn, TakenOut
from server.sheets import planned, queries, reports, services
from server.sheets.models import Sheet
from server.sheets.schemas import ProblemIn, SheetChange

MADE_AT_ONCE = 6
"""So many items that are not worked out yet are worked out while one waits for the page."""
LINES: TypeAdapter[str] = TypeAdapter(LineText)


def pages_of(
    teacher: User, sheet_id: int, data: PaperIn, form: Literal["pdf", "svg", "png"]
) -> tuple[list[bytes], list[tuple[int, str]]]:
    """The PDF or the pages of one of the teacher's sheets, and what can't be relied on in its key. Raises Refused where
    it can't be made."""
    sheet = queries.sheet_of(teacher, sheet_id)
    problems = in_other_order(planned.wanted_of(sheet, data.kind), data.order)
    if not problems:
        raise Refused("This sheet has no problems yet.", code="empty")
    if data.so_far:
        problems = [each for each, made in zip(problems, planned.made_already(problems), strict=True) if made]
        if not problems:
            raise Refused("Nothing of this sheet is made yet.", code="empty")
    if data.quick and (left := planned.made_already(problems).count(False)) > MADE_AT_ONCE:
        raise Refused(f"{left} of {len(problems)} items are still to be worked out.", code="to-make")
    settings = Settings(data.kind, data.paper, data.columns, data.space, data.name_line, data.reasons, data.marks)
    try:
        items = planned.items_of(problems)
        return lanes.printed(sheet.title, problems, items, settings, version=data.version, form=form)
    except TaskError as problem:
        raise Refused(problem.message, code="paper") from problem


def note_printed(teacher: User, sheet_id: int) -> None:
    """Keeps when a sheet was last made into a PDF: problems are found in the bank by their last use."""
    Sheet.objects.filter(pk=sheet_id, owner=teacher).update(printed=timezone.now())


def exported(teacher: User, sheet_id: int, form: FileFormat) -> bytes:
    """One of the teacher's sheets in an open form. Raises Refused where it can't be made."""
    sheet = queries.sheet_of(teacher, sheet_id)
    problems = tuple(
        widened(
            SheetProblem,
            reports.core_working(problem, [line.text for line in problem.working.lines.all()]),
            instruction=problem.instruction,
            form=problem.form,
        )
        for problem in queries.problems_in(sheet)
    )
    try:
        return lanes.out(SheetFile(sheet.title, problems, tuple(sheet.untaught)), form)
    except TaskError as problem:
        raise Refused(problem.message, code="export") from problem


def picture(teacher: User, problem_id: int, shown: Shown, form: Picture) -> bytes:
    """The chain or the graph of one of the teacher's problems as a picture. Raises Refused where there is none."""
    problem = queries.problem_of(teacher, problem_id)
    working = reports.core_working(problem, [line.text for line in problem.working.lines.all()])
    try:
        return lanes.picture(working, shown, form)
    except (TaskError, ReadingError) as refusal:
        raise Refused(refusal.message, code="picture") from refusal


@transaction.atomic
def take_in(teacher: User, data: TakeIn) -> TakenOut:
    """A new sheet from a file, with what could be taken of it. Raises Refused where nothing could."""
    try:
        content = b64decode(data.text, validate=True) if data.form == "qti" else data.text.encode()
        file, left = lanes.taken(content, data.form, data.title.strip())
    except Base64Error as refusal:
        raise Refused("An archive is sent in base64.", code="file") from refusal
    except TaskError as refusal:
        raise Refused(refusal.message, code="file") from refusal
    sheet = services.create_sheet(teacher, file.title.strip() or "Taken in", {})
    first = file.problems[0]
    untaught = [each for each in file.untaught if each in services.TEACHABLE]
    services.change_sheet(
        teacher,
        sheet.pk,
        SheetChange(title=None, conventions=dict(first.conventions) or None, untaught=untaught or None),
    )
    refused = list(left)
    for place, working in enumerate(file.problems, start=1):
        try:
            problem = ProblemIn.model_validate(
                {
                    "task": OTHER_SPELLINGS.get(working.task, working.task),
                    "given": working.given,
                    "variable": working.variable or "",
                    "numbers": working.numbers,
                    "method": working.method or "",
                    "instruction": working.instruction,
                    "form": working.form,
                }
            )
            lines = [LINES.validate_python(line) for line in working.lines if line.strip()]
        except ValidationError as found:
            refused.append(NotTaken(place, working.given[:80], found.errors()[0]["msg"]))
            continue
        services.add_problem(teacher, sheet.pk, problem, lines)
    return TakenOut(sheet=sheet.pk, left=[NotTakenOut(place=n.place, text=n.text, why=n.why) for n in refused])
