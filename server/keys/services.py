"""Proof-reading a pasted key, and making a sheet of it."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from algebra import Proof, Proofs, ReadingError, TaskError, proofread
from server.checking.schemas import JsonObject
from server.checking.services import echo_line
from server.config.problems import Refused
from server.keys.schemas import KeyIn, KeySheetIn
from server.sheets import services as sheets
from server.sheets.models import Sheet
from server.sheets.schemas import ProblemIn, SheetChange


def proofs_of(data: KeyIn) -> JsonObject:
    """What does not hold in the key, problem by problem; nothing is stored. Raises Refused where it can't be taken in."""
    found = _proofs(data)
    return {
        "problems": [_problem_out(proof, data) for proof in found.proofs],
        "skipped": [{"line": number, "text": text} for number, text in found.key.skipped],
        "faulty": sum(bool(proof.findings) for proof in found.proofs),
    }


@transaction.atomic
def sheet_from(teacher: User, data: KeySheetIn) -> Sheet:
    """A new sheet with the key's problems and their workings, faults and all."""
    found = _proofs(data)
    sheet = sheets.create_sheet(teacher, data.title)
    if data.conventions:
        sheets.change_sheet(teacher, sheet.pk, SheetChange(title=None, conventions=data.conventions, untaught=None))
    for proof in found.proofs:
        working = proof.problem.working
        problem = ProblemIn(
            task="analyze" if working.task == "analyse" else working.task,  # type: ignore[arg-type]
            given=working.given,
            variable=working.variable or "",
            numbers=working.numbers,  # type: ignore[arg-type]
            method=working.method or "",
        )
        sheets.add_problem(teacher, sheet.pk, problem, list(working.lines))
    return sheet


def _proofs(data: KeyIn) -> Proofs:
    try:
        return proofread(data.text, data.conventions)
    except (TaskError, ReadingError) as problem:
        raise Refused(str(problem), code="key") from problem


def _problem_out(proof: Proof, data: KeyIn) -> JsonObject:
    problem, report = proof.problem, proof.report
    given = echo_line(problem.working.given, data.conventions.get("decimal", "point"))
    return {
        "label": problem.label,
        "at": problem.at,
        "places": list(problem.places),
        "task": problem.working.task,
        "given": problem.working.given,
        "given_latex": f"{given.left} {given.right}".strip(),
        "lines": list(problem.working.lines),
        "beads": [{"kind": link.kind, "relation": link.relation} for link in report.links],
        "verdict": report.answer.verdict,
        "finished": report.finished,
        "findings": [
            {
                "line": finding.line,
                "place": problem.at if not finding.line else problem.place_of(finding.line),
                "kind": finding.kind,
                "text": finding.text,
                "instead": finding.instead,
            }
            for finding in proof.findings
        ],
    }
