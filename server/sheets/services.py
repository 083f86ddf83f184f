"""Writes: one mutation, one function, with its permission (through the query it starts from) and its transaction."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from algebra import METHODS, NUMBER_KINDS, RULES, TaskError
from algebra import Working as CoreWorking
from server.accounts import people
from server.common.problems import Refused
from server.common.regional import in_force
from server.sheets import queries, reports
from server.sheets.models import Line, Problem, Sheet, Working
from server.sheets.schemas import ProblemChange, ProblemIn, ProblemWhole, SheetChange, WorkingChange
from server.workings.keep import Stored, keep

MAX_SHEETS = 500
MAX_PROBLEMS = 200
TEACHABLE = frozenset(NUMBER_KINDS) | {method.id for method in METHODS} | {rule.id for rule in RULES}
"""What a class may know or not. What a sheet holds already stays, though a later version may not know it any more."""


def create_sheet(teacher: User, title: str, conventions: dict[str, str] | None = None) -> Sheet:
    """A new sheet of the teacher, empty: in these conventions, else with decimals as the teacher writes them. Later
    changes of the account leave it as it is, since its lines are written so."""
    if Sheet.objects.filter(owner=teacher).count() >= MAX_SHEETS:
        raise Refused(f"You have {MAX_SHEETS} sheets already.")
    if conventions is None:
        comma = in_force(teacher.person.regional).decimal == "comma"
        conventions = {"decimal": "comma"} if comma else {}
    return Sheet.objects.create(owner=teacher, title=title, conventions=conventions)


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
    """Deletes a sheet of the teacher with all it holds. Raises Http404 for a stranger's."""
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
    working.save(update_fields=["revision", "changed"])
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


class SheetPlace:
    """A teacher's working of a problem on a sheet."""

    def __init__(self, teacher: User, problem_id: int) -> None:
        owned = Working.objects.select_related("problem__sheet")
        self.working = get_object_or_404(owned, problem_id=problem_id, problem__sheet__owner=teacher)

    def read(self) -> Stored:
        """What stands there now: the revision first, so that lines written after it make it an old one."""
        self.working.refresh_from_db(fields=["revision", "report", "report_version"])
        texts = list(self.working.lines.order_by("position").values_list("text", flat=True))
        asked = reports.core_working(self.working.problem, texts)
        return Stored(texts, self.working.revision, self.working.report_version == reports.mark_of(asked))

    def write(self, stored: Stored, lines: list[str]) -> bool:
        """Puts the lines there; False where others were put since."""
        rows = Working.objects.filter(pk=self.working.pk, revision=stored.revision)
        if not rows.update(revision=stored.revision + 1, report_version="", changed=timezone.now()):
            return False
        _write_lines(self.working, lines, stored.lines)
        return True

    def overtaken(self, stored: Stored) -> str:
        """What is said to who wrote on an older revision."""
        return "This working was changed in another window."

    def judge(self, lines: list[str]) -> Working:
        """The working with the report on these lines."""
        reports.attach(self.working, reports.core_working(self.working.problem, lines))
        return self.working

    def save(self, judged: Working | None, revision: int) -> bool:
        """Keeps the report beside the lines that it was made from; False where others stand there by now."""
        assert judged is not None  # a sheet's lines are judged in any case: what is too heavy is said in the report
        columns = {"report": judged.report, "report_version": judged.report_version, "state": judged.state}
        return bool(Working.objects.filter(pk=judged.pk, revision=revision).update(**columns))


def write_lines(teacher: User, problem_id: int, data: WorkingChange) -> Problem:
    """Replaces the lines and checks them; raises Conflict when others were written since `data.revision`.

    What stands there already is no conflict: the answer to a write that arrived was lost, and it is sent again.
    """
    place = SheetPlace(teacher, problem_id)
    found = keep(place, data.lines, data.revision, judge=place.judge, save=place.save)
    place.working.revision = found.revision
    return queries.with_lines(place.working.problem, place.working, data.lines)


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
