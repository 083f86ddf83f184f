"""Proof-reading a pasted key, and making a sheet of it."""

from __future__ import annotations

from typing import cast

from django.contrib.auth.models import User
from django.db import transaction

import lanes
from algebra import (
    Key,
    KeyProblem,
    Numbers,
    Proof,
    Proofs,
    ReadingError,
    Task,
    TaskError,
    Working,
    repeats_in,
    understood,
)
from server.common.codec import Codec
from server.common.problems import Refused
from server.jobs import services as jobs
from server.jobs.models import Run
from server.keys.schemas import KeyIn, KeyOut, KeyProblemOut, KeyRunOut, KeySheetIn
from server.sheets import services as sheets
from server.sheets.models import Sheet
from server.sheets.queries import beads_of
from server.sheets.schemas import ProblemIn, SheetChange

KIND = "key"
_PROBLEMS = Codec(KeyProblem)


def proofs_of(data: KeyIn) -> KeyOut:
    """What does not hold in the key, problem by problem; nothing is stored. Raises Refused where it can't be taken
    in."""
    found = _proofs(data)
    return KeyOut(
        problems=[_problem_out(proof, data.conventions) for proof in found.proofs],
        skipped=list(found.out().skipped),
        faulty=sum(bool(proof.findings) for proof in found.proofs),
    )


def begin_run(teacher: User, data: KeyIn) -> Run:
    """Proof-reads a long key problem by problem among the jobs. Raises Refused where it can't be taken in."""
    key = _apart(data)
    pieces: list[dict[str, object]] = [
        {"problem": _PROBLEMS.kept(problem), "repeats": repeats}
        for problem, repeats in zip(key.problems, repeats_in(key), strict=True)
    ]
    skipped = [{"line": line, "text": text} for line, text in key.skipped]
    return jobs.begin(
        teacher, KIND, pieces, title=data.text.strip()[:60], about={"conventions": data.conventions, "skipped": skipped}
    )


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """What was found in one problem of a key, as the API gives it out. Raises TaskError."""
    problem = _PROBLEMS.back(asked["problem"])
    proof = lanes.proof_of(problem, str(asked["repeats"]))
    conventions = about["conventions"]
    assert isinstance(conventions, dict)
    told = Proofs(Key((problem,), ()), (proof,)).out().skipped
    return {
        "problem": _problem_out(proof, conventions).model_dump(mode="json"),
        "skipped": [{"line": row.line, "text": row.text} for row in told],
    }


def made_from(about: dict[str, object], asked: dict[str, object]) -> object:
    """What is found depends on the problem as it stands in the key, and on the conventions."""
    return [about["conventions"], asked]


def run_out(run: Run) -> KeyRunOut:
    """How far a run is, and what was found so far, in the order of the key."""
    progress = jobs.progress_of(run)
    problems, skipped, trouble = [], list(run.about.get("skipped", [])), []
    for piece in run.pieces.exclude(ended=None):
        if piece.answer is None:
            label = piece.asked["problem"]["label"]
            trouble.append(f"{label}: {piece.trouble}")
        else:
            problems.append(piece.answer["problem"])
            skipped += piece.answer["skipped"]
    skipped.sort(key=lambda row: row["line"])
    key = KeyOut.model_validate(
        {"problems": problems, "skipped": skipped, "faulty": sum(bool(problem["findings"]) for problem in problems)}
    )
    return KeyRunOut(
        id=run.pk, total=progress.total, done=progress.done, ended=run.ended is not None, trouble=trouble, found=key
    )


@transaction.atomic
def sheet_from(teacher: User, data: KeySheetIn) -> Sheet:
    """A new sheet with the key's problems and their workings, faults and all. Raises Refused where it can't be taken
    in."""
    return _sheet(teacher, data.title, data.conventions, [problem.working for problem in _apart(data).problems])


@transaction.atomic
def sheet_of_run(teacher: User, run_id: int, title: str) -> Sheet:
    """A new sheet with the problems of a key that was proof-read among the jobs. Raises Http404."""
    run = jobs.own_run(teacher, run_id, KIND)
    problems = [_PROBLEMS.back(piece.asked["problem"]) for piece in run.pieces.all()]
    return _sheet(teacher, title, run.about["conventions"], [problem.working for problem in problems])


def _sheet(teacher: User, title: str, conventions: dict[str, str], workings: list[Working]) -> Sheet:
    sheet = sheets.create_sheet(teacher, title, {})
    sheets.change_sheet(teacher, sheet.pk, SheetChange(title=None, conventions=conventions, untaught=None))
    for working in workings:
        problem = ProblemIn(
            task=cast(Task, working.task),
            given=working.given,
            variable=working.variable or "",
            numbers=cast(Numbers, working.numbers),
            method=working.method or "",
        )
        sheets.add_problem(teacher, sheet.pk, problem, list(working.lines))
    return sheet


def _apart(data: KeyIn) -> Key:
    try:
        return lanes.key_apart(data.text, data.conventions)
    except (TaskError, ReadingError) as problem:
        raise Refused(problem.message, code="key") from problem


def _proofs(data: KeyIn) -> Proofs:
    try:
        return lanes.proofread(data.text, data.conventions)
    except (TaskError, ReadingError) as problem:
        code = "too-long" if isinstance(problem, lanes.TooHeavy) else "key"
        raise Refused(problem.message, code=code) from problem


def _problem_out(proof: Proof, conventions: dict[str, str]) -> KeyProblemOut:
    out, report = proof.out(), proof.report
    given = understood(out.given, decimal=conventions.get("decimal", "point"))
    return KeyProblemOut(
        label=out.label,
        at=out.at,
        places=list(out.places),
        task=out.task,
        given=out.given,
        given_latex=given.latex,
        lines=list(out.lines),
        beads=beads_of(report.links),
        verdict=report.answer.verdict,
        finished=report.finish.finished,
        findings=list(out.findings),
    )
