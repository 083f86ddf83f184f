"""Rosters into classes: looked at first, then taken."""

from __future__ import annotations

from base64 import b64decode
from binascii import Error as Base64Error
from dataclasses import replace
from itertools import count

from django.contrib.auth.models import User
from django.db import transaction

from algebra import TaskError
from server.accounts import people
from server.common.problems import Refused
from server.marking.intake import folded
from server.marking.models import SchoolClass, Student
from server.marking.queries import class_of
from server.marking.schemas import MOST_STUDENTS, ClassChange, ClassIn, StudentIn
from server.marking.services import change_class, make_class
from server.records.client import RecordsRefusal, RecordsTrouble, School
from server.records.models import ClassLink, StudentLink
from server.records.roster import Roster, RosterClass, RosterStudent, from_bundle, from_table, sound
from server.records.schemas import (
    RecordsClass,
    RecordsOut,
    RosterClassOut,
    RosterColumn,
    RosterIn,
    RosterLeft,
    RosterOut,
    RosterStudentOut,
    RosterTake,
    RosterTaken,
)


def school() -> School:
    """The school's records. Raises Refused where there are none."""
    try:
        return School()
    except RecordsTrouble as problem:
        raise Refused(str(problem), code="records") from problem


def classes_of_records(teacher: User) -> RecordsOut:
    """The classes of the school's records. Raises Refused where they do not answer; none where no records are set
    up."""
    try:
        found = School()
    except RecordsTrouble:
        return RecordsOut(there=False, classes=[])
    linked = dict(ClassLink.objects.filter(school_class__owner=teacher).values_list("sourced_id", "school_class_id"))
    try:
        rows = found.classes()
    except (RecordsTrouble, RecordsRefusal) as problem:
        raise Refused(str(problem), code="records") from problem
    return RecordsOut(
        there=True,
        classes=[RecordsClass(id=row.sourced_id, title=row.title, linked=linked.get(row.sourced_id)) for row in rows],
    )


def read(teacher: User, data: RosterIn) -> Roster:
    """The roster that is meant. Raises Refused where it can't be read."""
    try:
        match data.source:
            case "table":
                found = from_table(data.text, data.columns, titles=data.titles)
            case "bundle":
                found = from_bundle(b64decode(data.text, validate=True))
            case "records":
                found = _from_records(data.ids)
    except Base64Error as problem:
        raise Refused("A bundle is sent in base64.", code="file") from problem
    except TaskError as problem:
        raise Refused(problem.message, code="file") from problem
    except (RecordsTrouble, RecordsRefusal) as problem:
        raise Refused(str(problem), code="records") from problem
    found.classes = [_named(teacher, each, data) for each in found.classes]
    return found


def _from_records(ids: list[str]) -> Roster:
    there = School()
    titles = {row.sourced_id: row.title for row in there.classes()}
    found = Roster()
    for own in ids:
        students = sound(enumerate(there.students(own), start=1), found)
        found.classes.append(RosterClass(titles.get(own, own[:60]), tuple(students), own))
    return found


def _named(teacher: User, found: RosterClass, data: RosterIn) -> RosterClass:
    """A class of a table without classes has the name of the class that it is for."""
    if found.title:
        return found
    if data.into is not None:
        return replace(found, title=class_of(teacher, data.into).name)
    if not data.title:
        raise Refused("This table names no class. Say for which class it is.", code="title")
    return replace(found, title=data.title)


def _here(teacher: User, found: RosterClass) -> SchoolClass | None:
    """The class here that a class of a roster is: by its link, else by its name, unless that one is linked to
    another."""
    own = SchoolClass.objects.filter(owner=teacher)
    if not found.sourced_id:
        return own.filter(name=found.title).first()
    linked = own.filter(record__sourced_id=found.sourced_id).first()
    return linked or own.filter(name=found.title, record=None).first()


def _free_name(teacher: User, title: str) -> str:
    """A name that no class of the teacher has: two classes of the records may have one title."""
    taken = set(SchoolClass.objects.filter(owner=teacher).values_list("name", flat=True))
    names = (title if not k else f"{title[:55]} {k + 1}" for k in count())
    return next(name for name in names if name not in taken)


def preview(teacher: User, data: RosterIn) -> RosterOut:
    """What would be taken."""
    roster = read(teacher, data)
    classes = []
    for found in roster.classes:
        here = _here(teacher, found)
        known = _Known(here)
        rows = [RosterStudentOut(name=s.name, number=s.number, state=known.state(s)) for s in found.students]
        classes.append(RosterClassOut(title=found.title, into=here.pk if here else None, students=rows))
    left = [RosterLeft(place=row.place, text=row.text, why=row.why) for row in roster.left]
    columns = [RosterColumn(title=c.title, means=c.means, examples=list(c.examples)) for c in roster.columns]
    return RosterOut(classes=classes, left=left, columns=columns, titles=roster.titles, sure=roster.sure)


class _Known:
    """Who is in a class already."""

    def __init__(self, here: SchoolClass | None) -> None:
        students = list(here.students.select_related("record")) if here else []
        self.by_number = {student.number: student for student in students if student.number}
        self.count = len(students)
        self.by_name: dict[str, list[Student]] = {}
        for student in students:
            self.by_name.setdefault(folded(student.name), []).append(student)
        self.by_id = {s.record.sourced_id: s for s in students if hasattr(s, "record")}

    def student(self, row: RosterStudent) -> Student | None:
        """The student that a row is: by the id of the records, the number, the name. Of one name with another number it
        is another student."""
        found = self.by_id.get(row.sourced_id) or self.by_number.get(row.number)
        if found is not None:
            return found
        alike = [s for s in self.by_name.get(folded(row.name), []) if not s.number or not row.number]
        return alike[0] if len(alike) == 1 else None

    def state(self, row: RosterStudent) -> str:
        """Whether a row is new, there, or there with another name; or new, though its name is there with another
        number (or without one, of several)."""
        found = self.student(row)
        if found is None:
            return "number" if folded(row.name) in self.by_name else "new"
        return "there" if folded(found.name) == folded(row.name) else "differs"


def take(teacher: User, data: RosterTake) -> RosterTaken:
    """Takes the chosen classes of a roster. Who is there already is not taken twice, and keeps the name. Raises Refused
    for too many."""
    roster = read(teacher, data)  # before the transaction: the records may be slow
    with transaction.atomic():
        taken = [_taken(teacher, found) for place, found in enumerate(roster.classes) if place in data.chosen]
        new = sum(fresh for _, fresh in taken)
        people.note(teacher.username, "took a roster", f"{new} students")
    return RosterTaken(classes=[here.pk for here, _ in taken], students=new)


def _taken(teacher: User, found: RosterClass) -> tuple[SchoolClass, int]:
    """The class, made or added to, and how many students are new in it."""
    here = _here(teacher, found)
    known = _Known(here)
    fresh = [StudentIn(name=s.name, number=s.number) for s in found.students if known.student(s) is None]
    if known.count + len(fresh) > MOST_STUDENTS:
        raise Refused(f"A class has {MOST_STUDENTS} students at most; “{found.title}” would have more.", code="many")
    if here is None:
        here = make_class(teacher, ClassIn(name=_free_name(teacher, found.title), students=fresh))
    elif fresh:
        here = change_class(teacher, here.pk, ClassChange(students=fresh))
    _link(here, found)
    return here, len(fresh)


def _link(here: SchoolClass, found: RosterClass) -> None:
    """Keeps which class and which students of the records these are."""
    if not found.sourced_id:
        return
    ClassLink.objects.update_or_create(school_class=here, defaults={"sourced_id": found.sourced_id})
    known = _Known(here)
    for row in found.students:
        student = known.student(row)
        if student is not None and row.sourced_id:
            StudentLink.objects.update_or_create(student=student, defaults={"sourced_id": row.sourced_id})


@transaction.atomic
def unlink(teacher: User, class_id: int) -> SchoolClass:
    """A class and its students are none of the records any more; what was sent there stays there."""
    here = class_of(teacher, class_id)
    ClassLink.objects.filter(school_class=here).delete()
    StudentLink.objects.filter(student__school_class=here).delete()
    return here


def link(teacher: User, class_id: int, sourced_id: str) -> SchoolClass:
    """Says which class of the records a class is; its students are told by number, else by name, and nobody is added.
    Raises Refused."""
    here = class_of(teacher, class_id)
    try:
        students = school().students(sourced_id)
    except (RecordsTrouble, RecordsRefusal) as problem:
        raise Refused(str(problem), code="records") from problem
    with transaction.atomic():
        _link(here, RosterClass(here.name, tuple(students), sourced_id))
    return here
