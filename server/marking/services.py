"""Writes: one mutation, one function, with its permission (through the query it starts from), its transaction and its
record."""

from __future__ import annotations

from base64 import b64decode
from binascii import Error as Base64Error
from collections.abc import Iterable, Sequence

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

import lanes
from algebra import Item, Scheme, TaskError, form_of, item_of
from paper import Wanted, code_of, made_items
from server.accounts import people
from server.common.codec import SCHEMES
from server.common.problems import Refused
from server.marking import erasing, forms, intake, learned, pile, queries
from server.marking.models import GivenSet, SchoolClass, SetItem, Student, StudentWorking
from server.marking.schemas import (
    MOST_STUDENTS,
    ClassChange,
    ClassIn,
    LeftOut,
    PileIn,
    PileOut,
    SchemeIn,
    SetIn,
    StudentChange,
    StudentIn,
    TypedIn,
)
from server.marking.totals import students_of
from server.marking.workings import put_lines
from server.sheets import planned, reports
from server.sheets import queries as sheets
from server.sheets.models import Problem
from server.workings.keep import Fate

VERSIONS = "ABCDEFGH"
"""The letters that versions of a printed sheet have."""
MOST_CLASSES, MOST_SETS, MOST_ITEMS = 60, 200, 40


@transaction.atomic
def make_class(teacher: User, data: ClassIn) -> SchoolClass:
    """A new class with its students. Raises Refused for a name that is there already."""
    if SchoolClass.objects.filter(owner=teacher).count() >= MOST_CLASSES:
        raise Refused(f"You have {MOST_CLASSES} classes already.")
    if SchoolClass.objects.filter(owner=teacher, name=data.name).exists():
        raise Refused(f"You have a class “{data.name}” already.", code="name")
    made = SchoolClass.objects.create(owner=teacher, name=data.name)
    _add_students(made, data.students)
    return made


@transaction.atomic
def change_class(teacher: User, class_id: int, data: ClassChange) -> SchoolClass:
    """Another name, archived or not, more students. Raises Refused for names that are there already."""
    queries.class_of(teacher, class_id)
    found = SchoolClass.objects.select_for_update().get(pk=class_id)
    if data.name is not None and data.name != found.name:
        if SchoolClass.objects.filter(owner=teacher, name=data.name).exists():
            raise Refused(f"You have a class “{data.name}” already.", code="name")
        found.name = data.name
    if data.archived is not None:
        found.archived = data.archived
    if data.regional is not None:
        found.regional = data.regional.over(found.regional)
    found.save()
    _add_students(found, data.students)
    return found


def _add_students(school_class: SchoolClass, rows: list[StudentIn]) -> None:
    known = list(school_class.students.values_list("name", "number"))
    for row in rows:
        _told_apart(row.name, row.number.strip(), known)
        known.append((row.name, row.number.strip()))
    if len(known) > MOST_STUDENTS:
        raise Refused(f"A class has {MOST_STUDENTS} students at most.")
    try:
        with transaction.atomic():
            Student.objects.bulk_create(
                Student(school_class=school_class, name=r.name, number=r.number.strip()) for r in rows
            )
    except IntegrityError as problem:
        raise Refused("Two students have the same number.", code="number") from problem


def _told_apart(name: str, number: str, known: Iterable[tuple[str, str]]) -> None:
    """Raises Refused where a student can't be told from one of these: by the name, or of one name by the numbers."""
    for other, its in known:
        if intake.folded(other) == intake.folded(name) and (not its or not number or its == number):
            raise Refused(
                f"The class has a student “{other}” already. Give both a number, or add something that tells them "
                "apart.",
                code="name",
            )


@transaction.atomic
def change_student(teacher: User, student_id: int, data: StudentChange) -> Student:
    """Another name or number, or into another class of the teacher's: what was written stays where it was written.
    Raises Refused for who can't be told from another there."""
    student = get_object_or_404(
        Student.objects.select_for_update(of=("self",)), pk=student_id, school_class__owner=teacher
    )
    if data.into is not None:
        student.school_class = queries.class_of(teacher, data.into)
        if student.school_class.students.count() >= MOST_STUDENTS:
            raise Refused(f"A class has {MOST_STUDENTS} students at most.")
    student.name = student.name if data.name is None else data.name
    student.number = student.number if data.number is None else data.number.strip()
    others = student.school_class.students.exclude(pk=student.pk)
    _told_apart(student.name, student.number, others.values_list("name", "number"))
    if student.number and others.filter(number=student.number).exists():
        raise Refused("Another student of the class has this number.", code="number")
    student.save()
    return student


@transaction.atomic
def hand_over(teacher: User, class_id: int, username: str) -> None:
    """Gives a class with its papers and marks to a colleague, who has it from then on alone. Raises Refused where there
    is no such colleague, or one with a class of that name."""
    found = SchoolClass.objects.select_for_update().get(pk=queries.class_of(teacher, class_id).pk)
    colleague = people.everybody().filter(username=username, is_active=True, person__teaches=True).first()
    if colleague is None or colleague.pk == teacher.pk:
        raise Refused(f"No colleague has the log-in name “{username}”.", code="nobody")
    if SchoolClass.objects.filter(owner=colleague, name=found.name).exists():
        raise Refused(f"{colleague.first_name or username} has a class “{found.name}” already.", code="name")
    found.owner = colleague
    found.save(update_fields=["owner"])
    people.note(teacher.username, "handed over a class", f"“{found.name}” to {colleague.username}")


@transaction.atomic
def delete_class(teacher: User, class_id: int) -> None:
    """Ends a class with all that belongs to it."""
    found = queries.class_of(teacher, class_id)
    people.note(teacher.username, "ended a class", f"“{found.name}”")
    erasing.erase(found.students.all())
    found.delete()


@transaction.atomic
def erase_student(teacher: User, student_id: int) -> None:
    """Erases a student with every paper and mark."""
    student = get_object_or_404(Student, pk=student_id, school_class__owner=teacher)
    people.note(teacher.username, "erased a student", f"of “{student.school_class.name}”")
    erasing.erase(Student.objects.filter(pk=student.pk))


def give(teacher: User, class_id: int, data: SetIn) -> GivenSet:
    """Gives a class a sheet: its problems are copied, with a scheme and a key each. Raises Refused where there is
    nothing to give."""
    school_class = queries.class_of(teacher, class_id)
    sheet = sheets.sheet_of(teacher, data.sheet)
    problems = list(sheets.problems_in(sheet))
    if not problems:
        raise Refused("This sheet has no problems yet.", code="empty")
    if len(problems) > MOST_ITEMS:
        raise Refused(f"A set has {MOST_ITEMS} items at most.", code="many")
    if school_class.sets.count() >= MOST_SETS:
        raise Refused(f"This class was given {MOST_SETS} sets already.")
    items = []
    for position, (problem, item) in enumerate(zip(problems, _in_forms(problems), strict=True)):
        try:
            scheme = lanes.item_scheme(item, data.scheme)
            key = _own_key(problem, item) or lanes.key_lines(item)
        except lanes.Busy as problem_found:
            raise Refused(problem_found.message, code="busy") from problem_found
        except TaskError:  # too heavy: it can be given all the same, and marked by its answer
            scheme, key = Scheme("answer", 1), ()
        items.append(
            SetItem(
                position=position,
                task=problem.task,
                given=problem.given,
                variable=problem.variable,
                numbers=problem.numbers,
                method=problem.method,
                scheme=SCHEMES.kept(scheme),
                key=list(key),
                **forms.columns(item),
            )
        )
    with transaction.atomic():
        made = GivenSet.objects.create(
            school_class=school_class,
            title=data.title.strip() or sheet.title,
            day=data.day,
            codes=_codes(sheet.title, problems),
            conventions=dict(sheet.conventions),
        )
        for copied in items:
            copied.given_set = made
        learned.begin(SetItem.objects.bulk_create(items))
    return made


def _own_key(problem: Problem, item: Item) -> tuple[str, ...]:
    """The teacher's own lines, where they are the key: sound ones of a problem that is to be worked."""
    own = tuple(line.text for line in problem.working.lines.all())
    sound = bool(own) and not form_of(item).answered and reports.state(reports.of(problem)) == "sound"
    return own if sound else ()


def _in_forms(problems: Sequence[Problem]) -> Sequence[Item]:
    """What the problems of a sheet are in their forms, as they are printed. Raises Refused where nobody has time for it
    now."""
    wanted = [Wanted(reports.core_working(problem, []), problem.instruction, problem.item_form) for problem in problems]
    to_work = [item_of("work", each.working) for each in wanted]
    if all(each.form == "work" for each in wanted):
        return to_work
    try:
        return made_items(planned.items_of(wanted))
    except lanes.Busy as problem:
        raise Refused(problem.message, code="busy") from problem


def _codes(title: str, problems: Sequence[Problem]) -> list[str]:
    """The codes that the sheet has in its footer, whatever version is printed on it."""
    workings = [reports.core_working(problem, []) for problem in problems]
    return [code_of(title, version, workings) for version in VERSIONS]


@transaction.atomic
def give_again(teacher: User, set_id: int) -> GivenSet:
    """A set once more as a second attempt, with the same items and nothing written: it is kept beside the first, and
    the better of both counts. Raises Refused where the class has too many sets."""
    first = queries.set_of(teacher, set_id)
    if first.school_class.sets.count() >= MOST_SETS:
        raise Refused(f"This class was given {MOST_SETS} sets already.")
    words = ", again"
    made = GivenSet.objects.create(
        school_class=first.school_class,
        title=first.title[: 120 - len(words)] + words,
        day=timezone.localdate(),
        conventions=first.conventions,
        late_percent=first.late_percent,
        boundaries=first.boundaries,
        again_of=first,
    )
    items = list(first.items.order_by("position"))
    for item in items:
        item.pk, item.given_set, item.scheme_changed = None, made, None
        item._state.adding = True
    SetItem.objects.bulk_create(items)
    return made


@transaction.atomic
def delete_set(teacher: User, set_id: int) -> None:
    """Ends a set with its papers and marks."""
    queries.set_of(teacher, set_id).delete()


@transaction.atomic
def change_scheme(teacher: User, item_id: int, data: SchemeIn) -> GivenSet:
    """Another scheme for an item: proposals are made anew, marks that were confirmed stay. Raises Refused for points
    without a total of theirs."""
    item = get_object_or_404(SetItem.objects.select_for_update(), pk=item_id, given_set__school_class__owner=teacher)
    if data.kind == "points" and not data.points:
        raise Refused("A scheme of points has at least one.", code="scheme")
    item.scheme, item.scheme_changed = data.model_dump(), timezone.now()
    item.save(update_fields=["scheme", "scheme_changed"])
    given_set = queries.set_of(teacher, item.given_set_id)
    pile.begin(given_set)
    return given_set


@transaction.atomic
def take_in(teacher: User, set_id: int, data: PileIn) -> PileOut:
    """Takes in what students wrote, and begins to verify it. What stands there already is not taken twice. Raises
    Refused for what is no file of its form."""
    given_set = queries.set_of(teacher, set_id)
    GivenSet.objects.select_for_update().get(pk=set_id)
    students = queries.as_written(students_of(given_set))
    items = list(given_set.items.select_related("given_set").order_by("position"))
    try:
        content = b64decode(data.text, validate=True) if data.form == "zip" else data.text.encode()
        found = intake.taken_apart(content, data.form, students, [item.given for item in items])
    except Base64Error as problem:
        raise Refused("An archive is sent in base64.", code="file") from problem
    except TaskError as problem:
        raise Refused(problem.message, code="file") from problem
    counts: dict[Fate, int] = {"new": 0, "changed": 0, "same": 0}
    for each in found.written:
        student, item = students[each.student], items[each.item - 1]
        fate, _ = put_lines(teacher.username, given_set, student, item, list(each.lines), data.form)
        counts[fate] += 1
    pile.begin(given_set)
    left = [
        LeftOut(place=row.place, text=row.text, why=row.why) for row in sorted(found.left, key=lambda row: row.place)
    ]
    return PileOut(**counts, left=left)


def put_typed(teacher: User, set_id: int, data: TypedIn) -> StudentWorking:
    """The lines of one student for one item, and their verification at once."""
    given_set = queries.set_of(teacher, set_id)
    student = get_object_or_404(students_of(given_set), pk=data.student)
    item = get_object_or_404(given_set.items.select_related("given_set"), pk=data.item)
    _, working = put_lines(teacher.username, given_set, student, item, data.lines, "typed")
    try:
        pile.work_piece({}, {"working": working})
    except lanes.Busy:  # it is kept, and verified among the jobs
        pile.begin(given_set)
    return queries.working_of(teacher, working)
