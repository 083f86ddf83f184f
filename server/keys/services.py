"""Proof-reading a pasted key, and making a sheet of it."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

import lanes
from algebra import OTHER_SPELLINGS, Proof, Proofs, ReadingError, TaskError, understood
from server.common.problems import Refused
from server.keys.schemas import KeyIn, KeyOut, KeyProblemOut, KeySheetIn
from server.sheets import services as sheets
from server.sheets.models import Sheet
from server.sheets.queries import beads_of
from server.sheets.schemas import ProblemIn, SheetChange


def proofs_of(data: KeyIn) -> KeyOut:
    """What does not hold in the key, problem by problem; nothing is stored. Raises Refused where it can't be taken in."""
    found = _proofs(data)
    return KeyOut(
        problems=[_problem_out(proof, data) for proof in found.proofs],
        skipped=list(found.out().skipped),
        faulty=sum(bool(proof.findings) for proof in found.proofs),
    )


@transaction.atomic
def sheet_from(teacher: User, data: KeySheetIn) -> Sheet:
    """A new sheet with the key's problems and their workings, faults and all. Raises Refused where it can't be taken in."""
    found = _proofs(data)
    sheet = sheets.create_sheet(teacher, data.title)
    if data.conventions:
        sheets.change_sheet(teacher, sheet.pk, SheetChange(title=None, conventions=data.conventions, untaught=None))
    for proof in found.proofs:
        working = proof.problem.working
        problem = ProblemIn(
            task=OTHER_SPELLINGS.get(working.task, working.task),  # type: ignore[arg-type]
            given=working.given,
            variable=working.variable or "",
            numbers=working.numbers,  # type: ignore[arg-type]
            method=working.method or "",
        )
        sheets.add_problem(teacher, sheet.pk, problem, list(working.lines))
    return sheet


def _proofs(data: KeyIn) -> Proofs:
    try:
        return lanes.proofread(data.text, data.conventions)
    except (TaskError, ReadingError) as problem:
        raise Refused(problem.message, code="key") from problem


def _problem_out(proof: Proof, data: KeyIn) -> KeyProblemOut:
    out, report = proof.out(), proof.report
    given = understood(out.given, decimal=data.conventions.get("decimal", "point"))
    return KeyProblemOut(
        label=out.label, at=out.at, places=list(out.places), task=out.task, given=out.given,
        given_latex=f"{given.left} {given.right}".strip(), lines=list(out.lines), beads=beads_of(report.links),
        verdict=report.answer.verdict, finished=report.finish.finished, findings=list(out.findings),
    )  # fmt: skip
