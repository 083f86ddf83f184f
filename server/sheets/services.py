"""Writes: one mutation, one function, with its permission (through the query it starts from) and its transaction."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404

from algebra import METHODS, NUMBER_KINDS, RULES, JsonValue, TaskError
from algebra import Working as CoreWorking
from server.accounts import people
from server.common.problems import Conflict, Refused
from server.sheets import queries, reports
from server.sheets.models import Line, Problem, Sheet, Working
from server.sheets.schemas import ProblemChange, ProblemIn, ProblemWhole, SheetChange, WorkingChange

MAX_SHEETS = 500
MAX_PROBLEMS = 200
TEACHABLE = frozenset(NUMBER_KINDS) | {method.id for method in METHODS} | {rule.id for rule in RULES}
"""What a class may know or not. What a sheet holds already stays, though a later version may not know it any more."""


def create_sheet(teacher: User, title: str) -> Sheet:
    """A new sheet of the teacher, empty."""
    if Sheet.objects.filter(owner=teacher).count() >= MAX_SHEETS:
        raise Refused(f"You have {MAX_SHEETS} sheets already.")
    return Sheet.objects.create(owner=teacher, title=title)


@transaction.atomic
def change_sheet(teacher: User, sheet_id: int, data: SheetChange) -> Sheet:
    """Renames a sheet or sets its conventions; raises Refused for an unknown convention, method or rule."""
    sheet = _locked(teacher, sheet_id)
    if data.title is not None:
        sheet.title = data.title
    if data.conventions is not None:
        try:
            CoreWorking("simplify", "x", conventions=data.conventions).validate()
        except TaskError as problem:
            raise Refused(problem.message, code="convention") from problem
        sheet.conventions = data.conventions
        sheet.problems.update(indexed="")
    if data.untaught is not None:
        unknown = sorted(set(data.untaught) - TEACHABLE - set(sheet.untaught))
        if unknown:
            raise Refused(f"There is no method, rule or kind of number “{unknown[0]}”.", code="untaught")
        sheet.untaught = sorted(set(data.untaught))
    sheet.save()
    return sheet


def delete_sheet(teacher: User, sheet_id: int) -> None:
    """Deletes a sheet of the teacher with all it holds; raises Refused for a stranger's."""
    queries.sheet_of(teacher, sheet_id).delete()


@transaction.atomic
def add_problem(teacher: User, sheet_id: int, data: ProblemIn, lines: list[str] | None = None) -> Problem:
    """A new problem at the end of the sheet."""
    sheet = _locked(teacher, sheet_id)
    count = sheet.problems.count()
    if count >= MAX_PROBLEMS:
        raise Refused(f"This sheet has {MAX_PROBLEMS} problems already.")
    problem = Problem.objects.create(sheet=sheet, position=count, **data.model_dump())
    _write_lines(Working.objects.create(problem=problem), lines or [])
    sheet.save(update_fields=["changed"])
    return problem


@transaction.atomic
def change_problem(teacher: User, problem_id: int, data: ProblemChange) -> Problem:
    """Changes the task or the given; the lines stay and are judged again."""
    changes = data.model_dump(exclude_none=True)
    # the sheet is locked first, as wherever problems are moved: two who change one sheet wait for each other and lose
    # nothing
    sheet = _locked(teacher, queries.problem_of(teacher, problem_id).sheet_id)
    if changes:
        Problem.objects.filter(pk=problem_id, sheet=sheet).update(indexed="", **changes)
    sheet.save(update_fields=["changed"])
    return queries.problem_of(teacher, problem_id)


@transaction.atomic
def put_problem(teacher: User, problem_id: int, data: ProblemWhole) -> ProblemWhole:
    """Puts a problem with its lines in the place of another; what stood there before, so that it can be put back."""
    sheet = _locked(teacher, queries.problem_of(teacher, problem_id).sheet_id)
    problem = queries.problem_of(teacher, problem_id)
    stored = [line.text for line in problem.working.lines.all()]
    before = ProblemWhole(problem=_as_new(problem), lines=stored)
    Problem.objects.filter(pk=problem_id).update(indexed="", **data.problem.model_dump())
    working = Working.objects.select_for_update().get(problem_id=problem_id)
    working.revision += 1
    _write_lines(working, data.lines, stored)
    sheet.save(update_fields=["changed"])
    return before


@transaction.atomic
def duplicate_problem(teacher: User, problem_id: int) -> Problem:
    """A copy with its lines, right after the original."""
    _locked(teacher, queries.problem_of(teacher, problem_id).sheet_id)
    original = queries.problem_of(teacher, problem_id)
    copy = add_problem(
        teacher, original.sheet_id, _as_new(original), [line.text for line in original.working.lines.all()]
    )
    order = list(original.sheet.problems.order_by("position").values_list("pk", flat=True))
    order.remove(copy.pk)
    order.insert(order.index(original.pk) + 1, copy.pk)
    reorder(teacher, original.sheet_id, order)
    return queries.problem_of(teacher, copy.pk)


@transaction.atomic
def delete_problem(teacher: User, problem_id: int) -> None:
    """Deletes a problem and its lines; those behind it move up."""
    sheet = _locked(teacher, queries.problem_of(teacher, problem_id).sheet_id)
    queries.problem_of(teacher, problem_id).delete()
    _number(list(sheet.problems.order_by("position")))


@transaction.atomic
def give_copy(teacher: User, sheet_id: int, username: str, *, workings: bool) -> None:
    """A copy of a sheet among those of a colleague, with the workings or without; raises Refused where there is no such
    colleague or no room there."""
    sheet = _locked(teacher, sheet_id)
    colleague = people.everybody().filter(username=username, is_active=True, person__teaches=True).first()
    if colleague is None or colleague.pk == teacher.pk:
        raise Refused(f"No colleague has the log-in name “{username}”.", code="nobody")
    if Sheet.objects.filter(owner=colleague).count() >= MAX_SHEETS:
        raise Refused(f"{colleague.first_name or username} has {MAX_SHEETS} sheets already.")
    copy = Sheet.objects.create(
        owner=colleague,
        title=sheet.title,
        conventions=sheet.conventions,
        untaught=sheet.untaught,
        received_from=teacher.first_name or teacher.username,
    )
    for problem in queries.problems_in(sheet):
        lines = [line.text for line in problem.working.lines.all()] if workings else []
        add_problem(colleague, copy.pk, _as_new(problem), lines)
    people.note(teacher.username, "gave a copy", f"“{sheet.title}” to {colleague.username}")


@transaction.atomic
def reorder(teacher: User, sheet_id: int, order: list[int]) -> Sheet:
    """Puts the problems into this order; raises Refused unless it names each of them once."""
    sheet = _locked(teacher, sheet_id)
    problems = {problem.pk: problem for problem in sheet.problems.all()}
    if sorted(order) != sorted(problems):
        raise Refused("The order must name every problem of the sheet once.", code="order")
    _number([problems[pk] for pk in order])
    return sheet


@transaction.atomic
def write_lines(teacher: User, problem_id: int, data: WorkingChange) -> Problem:
    """Replaces the lines and checks them; raises Conflict when others were written since `data.revision`.

    What stands there already is no conflict: the answer to a write that arrived was lost, and it is sent again.
    """
    owned = Working.objects.select_related("problem__sheet").select_for_update(of=("self",))
    working = get_object_or_404(owned, problem_id=problem_id, problem__sheet__owner=teacher)
    stored = list(working.lines.all())
    texts = [line.text for line in stored]
    if working.revision != data.revision and texts == data.lines:
        return queries.with_lines(working.problem, working, data.lines)
    if working.revision != data.revision:
        lines: list[JsonValue] = [*texts]
        raise Conflict("This working was changed in another window.", revision=working.revision, lines=lines)
    working.revision += 1
    problem = working.problem
    reports.attach(working, reports.core_working(problem, data.lines))
    _write_lines(working, data.lines, texts)
    return queries.with_lines(problem, working, data.lines)


def _write_lines(working: Working, texts: list[str], stored: list[str] | None = None) -> None:
    """Keeps the lines up to the first difference and writes the others again."""
    before = stored or []
    same = next(
        (k for k, (a, b) in enumerate(zip(before, texts, strict=False)) if a != b), min(len(before), len(texts))
    )
    if len(before) > same:
        working.lines.filter(position__gte=same).delete()
    new = [Line(working=working, position=k, text=text) for k, text in enumerate(texts) if k >= same]
    if new:
        Line.objects.bulk_create(new)
    working.save()


def _as_new(problem: Problem) -> ProblemIn:
    """What another problem needs to be the same as this one."""
    return ProblemIn(
        task=problem.task_name,
        given=problem.given,
        variable=problem.variable,
        numbers=problem.number_system,
        method=problem.method,
        instruction=problem.instruction,
        form=problem.item_form,
    )


def _locked(teacher: User, sheet_id: int) -> Sheet:
    """The teacher's sheet, locked until the transaction ends, so that places stay without gaps."""
    queries.sheet_of(teacher, sheet_id)
    return Sheet.objects.select_for_update().get(pk=sheet_id)


def _number(problems: list[Problem]) -> None:
    for position, problem in enumerate(problems):
        problem.position = position
    Problem.objects.bulk_update(problems, ["position"])
