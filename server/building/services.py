"""Building sheets: ladders, problems in the place of others, whole sheets and versions of them, a colleague's
advice."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User
from django.db import transaction

import lanes
from algebra import EVENTS, FAMILIES, SLIPS, LadderWish, ReadingError, TaskError, Working
from server.building.schemas import (
    AdviceOut,
    AdvisedOut,
    AnotherIn,
    BuiltIn,
    FamiliesOut,
    FamilyOut,
    LadderIn,
    LevelOut,
    MendedOut,
    MendIn,
    RungOut,
    SlipOut,
    VersionIn,
    VersionOut,
)
from server.common.problems import Refused
from server.sheets import queries, reports, services
from server.sheets.models import Sheet
from server.sheets.schemas import ProblemIn, ProblemWhole, SheetChange


def families() -> FamiliesOut:
    """All families with their levels, and the events."""
    return FamiliesOut(
        families=[
            FamilyOut(
                id=family.id,
                name=family.name,
                task=family.task,
                description=family.description,
                example=family.example,
                levels=[LevelOut(number=k, name=name) for k, name in enumerate(family.levels, start=1)],
            )
            for family in FAMILIES
        ],
        events=list(EVENTS),
        slips=[
            SlipOut(id=slip.id, name=slip.name) for slip in sorted(SLIPS, key=lambda slip: slip.name) if slip.lurks_in
        ],
    )


def ladder(data: LadderIn) -> list[RungOut]:
    """A ladder as it is proposed. Raises Refused for what there is not."""
    try:
        found = lanes.laddered(wish_of(data))
    except (TaskError, ReadingError) as problem:
        raise Refused(problem.message, code="ladder") from problem
    return [rung_out(rung) for rung in found]


def wish_of(data: LadderIn) -> LadderWish:
    """What is wished for, as the core takes it."""
    return LadderWish(
        tuple(data.families),
        data.count,
        data.seed,
        data.low,
        data.high,
        tuple(data.events),
        data.largest,
        kept=tuple(working_of(problem) for problem in data.kept),
        slip=data.slip,
    )


def another(data: AnotherIn) -> RungOut | None:
    """Another problem in the place of one. Raises Refused where that one is not worked."""
    try:
        found = lanes.another(
            working_of(data.problem), data.what, data.seed, [working_of(problem) for problem in data.known]
        )
    except (TaskError, ReadingError) as problem:
        raise Refused(problem.message, code="another") from problem
    return None if found is None else rung_out(found)


@transaction.atomic
def build(teacher: User, data: BuiltIn) -> Sheet:
    """A new sheet of these problems. Raises Refused where the teacher has too many."""
    points = any("." in problem.given for problem in data.problems)  # as the core writes what it makes
    sheet = services.create_sheet(teacher, data.title, {} if points else None)
    for problem in data.problems:
        services.add_problem(teacher, sheet.pk, problem)
    return sheet


def make_version(teacher: User, sheet_id: int, data: VersionIn) -> VersionOut:
    """Another version of a sheet as a sheet of its own: each problem like the one in its place, with other numbers.
    Problems for which none was found stay as they are, and are named."""
    sheet = queries.sheet_of(teacher, sheet_id)
    workings = [reports.core_working(problem, []) for problem in queries.problems_in(sheet)]
    if not workings:
        raise Refused("This sheet has no problems yet.", code="empty")
    try:
        found = lanes.version(workings, data.seed)
    except TaskError as problem:
        raise Refused(problem.message, code="version") from problem
    problems = [_problem(new or old) for new, old in zip(found, workings, strict=True)]
    with transaction.atomic():
        made = build(teacher, BuiltIn(title=f"{sheet.title[:105]} · {data.name}", problems=problems))
        change = SheetChange(title=None, conventions=dict(sheet.conventions), untaught=list(sheet.untaught) or None)
        services.change_sheet(teacher, made.pk, change)
    return VersionOut(sheet=made.pk, stayed=[k for k, new in enumerate(found, start=1) if new is None])


def advised(teacher: User, sheet_id: int, lesson: float | None = None) -> AdvisedOut:
    """What a careful colleague would say of one of the teacher's sheets."""
    sheet = queries.sheet_of(teacher, sheet_id)
    workings = [
        reports.core_working(problem, [line.text for line in problem.working.lines.all()])
        for problem in queries.problems_in(sheet)
    ]
    try:
        told, minutes = lanes.advised(workings, list(sheet.untaught), lesson)
    except TaskError as problem:
        raise Refused(problem.message, code="advice") from problem
    return AdvisedOut(
        advice=[AdviceOut(code=each.code, items=list(each.items), text=each.text, mend=each.mend) for each in told],
        minutes=minutes,
    )


def mend(teacher: User, sheet_id: int, data: MendIn) -> MendedOut:
    """Puts another problem like it, the task that fits, or a key worked anew in the place of an item. Raises Refused
    where none is known."""
    problems = list(queries.problems_in(queries.sheet_of(teacher, sheet_id)))
    if data.item > len(problems):
        raise Refused(f"This sheet has {len(problems)} problems.", code="item")
    problem = problems[data.item - 1]
    old = reports.core_working(problem, [line.text for line in problem.working.lines.all()])
    known = [reports.core_working(each, []) for each in problems]
    try:
        new = _mended(old, known, data, tuple(problem.sheet.untaught))
    except (TaskError, ReadingError) as refusal:
        raise Refused(refusal.message, code="mend") from refusal
    kept = {"instruction": problem.instruction, "form": problem.form}
    asked = ProblemIn.model_validate(_problem(new).model_dump() | kept)
    whole = ProblemWhole(problem=asked, lines=list(new.lines))
    return MendedOut(problem=problem.pk, before=services.put_problem(teacher, problem.pk, whole))


def _mended(old: Working, known: list[Working], data: MendIn, untaught: tuple[str, ...]) -> Working:
    match data.mend:
        case "task":
            solved = any(sign in old.given for sign in "=≤≥<>")
            return replace(old, task="solve" if solved else "simplify", method=None)
        case "key":
            return replace(old, lines=lanes.work(old, method=old.method, untaught=untaught).lines)
    found = lanes.another(replace(old, lines=()), "like", data.seed, known)
    if found is None:
        raise TaskError("No other problem like it was found.")
    return replace(found.working, lines=())


def working_of(problem: ProblemIn) -> Working:
    """A problem as the core takes it, without lines."""
    return Working(
        problem.task,
        problem.given,
        (),
        variable=problem.variable or None,
        numbers=problem.numbers,
        method=problem.method or None,
    )


def _problem(working: Working) -> ProblemIn:
    return ProblemIn.model_validate(
        {
            "task": working.task,
            "given": working.given,
            "variable": working.variable or "",
            "numbers": working.numbers,
            "method": working.method or "",
        }
    )


def rung_out(found: lanes.Proposed) -> RungOut:
    """A proposed problem as it is given out."""
    return RungOut(
        **_problem(found.working).model_dump(),
        given_latex=found.given_latex,
        answer_latex=found.answer_latex,
        difficulty=found.difficulty,
        family=found.family,
        level=found.level,
        adds=found.adds,
        marks=found.marks,
    )
