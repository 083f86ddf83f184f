"""Reads. Everything starts from the teacher: a class of another does not exist."""

from __future__ import annotations

import csv
import io
import statistics
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence

from django.contrib.auth.models import User
from django.db.models import Count, Q, QuerySet
from django.shortcuts import get_object_or_404

from algebra import SLIPS, Proposal, Report, understood
from paper import safe_cell
from server.common.regional import InForce, Regional, in_force, number
from server.marking import forms, pile
from server.marking.learned import was_foreseen
from server.marking.models import GivenSet, SchoolClass, SetItem, Student, StudentWorking
from server.marking.schemas import (
    CellOut,
    ClassOut,
    ClassRow,
    DecisionOut,
    ItemOut,
    ItemPattern,
    MarkedVersion,
    PatternsOut,
    SchemeIn,
    SetOut,
    SetRow,
    SlipCount,
    StudentOut,
    TotalOut,
    WorkingOut,
    WrittenOut,
    WrongGroup,
)
from server.marking.totals import Total, students_of, totals_of
from server.sheets.queries import tints_of
from server.sheets.schemas import Bead

_SLIPS = {slip.id: slip for slip in SLIPS}
MOST_OFFERED = 40
FEWEST_TO_TELL = 8
"""With fewer workings nothing is said of how well an item tells students apart."""


def class_of(teacher: User, class_id: int) -> SchoolClass:
    """The teacher's class. Raises Http404."""
    return get_object_or_404(SchoolClass.objects.select_related("owner__person"), pk=class_id, owner=teacher)


def set_of(teacher: User, set_id: int) -> GivenSet:
    """A set of one of the teacher's classes. Raises Http404."""
    return get_object_or_404(
        GivenSet.objects.select_related("school_class__owner__person", "again_of__school_class"),
        pk=set_id,
        school_class__owner=teacher,
    )


def working_of(teacher: User, working_id: int) -> StudentWorking:
    """A student's working in one of the teacher's classes. Raises Http404."""
    found = StudentWorking.objects.select_related("item__given_set", "paper__student")
    return get_object_or_404(found, pk=working_id, item__given_set__school_class__owner=teacher)


def _sets(found: QuerySet[GivenSet]) -> dict[int, list[SetRow]]:
    """The sets by their class, the last first."""
    counted = found.annotate(
        of_items=Count("items", distinct=True),
        of_workings=Count("papers__workings", distinct=True),
        of_marked=Count("papers__workings", filter=Q(papers__workings__confirmed__isnull=False), distinct=True),
    )
    rows: dict[int, list[SetRow]] = defaultdict(list)
    for s in counted.order_by("-day", "-pk"):
        row = SetRow(id=s.pk, title=s.title, day=s.day, items=s.of_items, workings=s.of_workings, marked=s.of_marked)
        rows[s.school_class_id].append(row)
    return rows


def classes_of(teacher: User) -> list[ClassRow]:
    """The teacher's classes with what they were given."""
    classes = SchoolClass.objects.filter(owner=teacher).annotate(of_students=Count("students"))
    sets = _sets(GivenSet.objects.filter(school_class__owner=teacher))
    return [
        ClassRow(id=c.pk, name=c.name, archived=c.archived, students=c.of_students, sets=sets.get(c.pk, []))
        for c in classes.order_by("archived", "name", "pk")
    ]


def class_out(school_class: SchoolClass) -> ClassOut:
    """A class with its students and sets."""
    sets = _sets(GivenSet.objects.filter(school_class=school_class))
    return ClassOut(
        id=school_class.pk,
        name=school_class.name,
        archived=school_class.archived,
        regional=Regional.model_validate(school_class.regional),
        in_force=written_in(school_class),
        students=students_out(school_class),
        sets=sets.get(school_class.pk, []),
    )


def written_in(school_class: SchoolClass, *layers: Mapping[str, str]) -> InForce:
    """How numbers and days are written for a class; a set's conventions, as one of `layers`, go before."""
    return in_force(*layers, school_class.regional, school_class.owner.person.regional)


def students_out(school_class: SchoolClass) -> list[StudentOut]:
    """The students of a class by name."""
    return [_student_out(student) for student in school_class.students.order_by("name", "number", "pk")]


def _student_out(student: Student) -> StudentOut:
    return StudentOut(id=student.pk, name=student.name, number=student.number)


def as_written(students: Iterable[Student]) -> dict[str, Student]:
    """The students by all that they may be called: the number, the name with the number behind it, and the name alone
    where no other has it."""
    found: dict[str, Student] = {}
    of_name: dict[str, list[Student]] = defaultdict(list)
    for student in students:
        of_name[student.name].append(student)
        if student.number:
            found |= dict.fromkeys((student.number, f"{student.name} {student.number}"), student)
    return found | {name: alone[0] for name, alone in of_name.items() if len(alone) == 1}


def item_out(item: SetItem) -> ItemOut:
    """An item with its key typeset."""
    decimal = str(item.given_set.conventions.get("decimal", "point"))
    given = understood(item.given, decimal=decimal)
    return ItemOut(
        id=item.pk,
        number=item.position + 1,
        task=item.task_name,
        given=item.given,
        given_latex=given.latex,
        variable=item.variable,
        key=[understood(line, decimal=decimal) for line in item.key],
        key_lines=item.key,
        scheme=SchemeIn.model_validate(item.scheme),
        form=forms.shown(item, pile.problem_of(item)),
    )


def set_out(given_set: GivenSet) -> SetOut:
    """The marking table of a set."""
    items = list(given_set.items.select_related("given_set").order_by("position"))
    by_id = {item.pk: item for item in items}
    cells = []
    workings = StudentWorking.objects.filter(paper__given_set=given_set).select_related("paper")
    for working in workings.order_by("paper__student__name", "item__position"):
        working.item = by_id[working.item_id]
        cells.append(_cell(working))
    done = sum(not cell.waits for cell in cells)
    return SetOut(
        id=given_set.pk,
        school_class=given_set.school_class_id,
        class_name=given_set.school_class.name,
        title=given_set.title,
        day=given_set.day,
        items=[item_out(item) for item in items],
        students=[_student_out(student) for student in students_of(given_set)],
        cells=cells,
        total=len(cells),
        done=done,
        totals=totals_out(given_set),
        late_percent=given_set.late_percent,
        boundaries=given_set.boundaries,
        again_of=given_set.again_of_id or 0,
        in_force=written_in(given_set.school_class, given_set.conventions),
    )


def _cell(working: StudentWorking) -> CellOut:
    fresh = pile.is_fresh(working)
    proposal = pile.proposal_of(working) if fresh else None
    report = working.report if fresh else None
    links = report["links"] if isinstance(report, dict) else []
    slip = _SLIPS.get(proposal.slip) if proposal else None
    return CellOut(
        working=working.pk,
        student=working.paper.student_id,
        item=working.item_id,
        beads=[Bead(kind=link["kind"], relation=link["relation"]) for link in links],
        waits=not fresh,
        outdated=_is_outdated(working, proposal),
        proposed=proposal.mark if proposal else None,
        mark=working.mark,
        eye=list(proposal.eye) if proposal else [],
        alike=proposal.alike if proposal else "",
        slip=slip.name if slip else "",
    )


def _is_outdated(working: StudentWorking, proposal: Proposal | None) -> bool:
    """Whether a mark was confirmed by a scheme that is no more, and another one would be proposed now."""
    changed = working.item.scheme_changed
    if proposal is None or changed is None or working.confirmed is None or working.confirmed >= changed:
        return False
    return working.mark != proposal.mark


def working_out(working: StudentWorking) -> WorkingOut:
    """A working opened."""
    decimal = str(working.item.given_set.conventions.get("decimal", "point"))
    fresh = pile.is_fresh(working)
    report, proposal = (pile.report_of(working), pile.proposal_of(working)) if fresh else (None, None)
    same = StudentWorking.objects.filter(item=working.item, alike=working.alike, confirmed=None).exclude(pk=working.pk)
    return WorkingOut(
        id=working.pk,
        student=working.paper.student_id,
        item=working.item_id,
        source=working.source,
        lines=working.texts,
        echoes=[understood(line, decimal=decimal) for line in working.texts],
        report=report,
        tints=tints_of(working.item.given, working.texts, report, decimal)
        if report and working.item.form == "work"
        else [],
        proposal=proposal,
        mark=working.mark,
        confirmed_by=working.confirmed_by,
        decisions=[
            DecisionOut(who=d.who, when=d.when, before=d.before, after=d.after, taken_back=d.taken_back)
            for d in working.decisions.all()[:20]
        ],
        versions=[
            MarkedVersion(
                lines=v.texts, source=v.source, mark=v.mark, confirmed_by=v.confirmed_by, who=v.who, until=v.until
            )
            for v in working.versions.all()[:20]
        ],
        same=same.count() if working.alike else 0,
    )


def totals_out(given_set: GivenSet) -> list[TotalOut]:
    """What the students of a set have reached."""
    return [_total_out(student, total) for student, total in totals_of(given_set).items()]


def _total_out(student: int, total: Total) -> TotalOut:
    return TotalOut(
        student=student,
        state=total.state,
        late=total.late,
        total=total.total,
        first=total.first,
        counts=total.counts,
        of=total.of,
        grade=total.grade,
    )


def written_for(item: SetItem) -> list[WrittenOut]:
    """What was written for an item, by how many, the commonest first: who types a pile types what comes again only
    once."""
    rows = StudentWorking.objects.filter(item=item).exclude(lines=[]).values_list("lines").annotate(count=Count("pk"))
    return [WrittenOut(lines=lines, count=count) for lines, count in rows.order_by("-count", "lines")[:MOST_OFFERED]]


def item_of(teacher: User, item_id: int) -> SetItem:
    """An item of one of the teacher's sets. Raises Http404."""
    return get_object_or_404(SetItem, pk=item_id, given_set__school_class__owner=teacher)


def marks_csv(given_set: GivenSet, *, semicolons: bool = False) -> str:
    """The confirmed marks as a table; what nobody confirmed is an empty cell. With `semicolons` as spreadsheets with a
    decimal comma read it."""
    items = list(given_set.items.order_by("position"))
    totals = totals_of(given_set)

    def cell(value: float | None) -> str:
        return "" if value is None else number(value, "comma" if semicolons else "point")

    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n", delimiter=";" if semicolons else ",")
    again = ["first attempt", "counts"] if given_set.again_of_id else []
    grade = ["grade"] if given_set.boundaries else []
    rows.writerow(
        ["number", "student", *(f"{item.position + 1}" for item in items), "sum", "of", "paper", *again, *grade]
    )
    for student in students_of(given_set):
        total = totals[student.pk]
        words = {"absent": "absent", "nothing": "nothing handed in"}.get(total.state, "late" if total.late else "")
        rows.writerow(
            [
                safe_cell(student.number),
                safe_cell(student.name),
                *(cell(total.marks.get(item.pk)) for item in items),
                cell(total.total),
                cell(total.of),
                words,
                *([cell(total.first), cell(total.counts)] if again else []),
                *([total.grade] if grade else []),
            ]
        )
    return out.getvalue()


def patterns_of(given_set: GivenSet) -> PatternsOut:
    """Slips and items of a set, each number with the workings behind it."""
    workings = list(
        StudentWorking.objects.filter(paper__given_set=given_set, report__isnull=False)
        .exclude(lines=[])
        .select_related("paper", "item")
        .order_by("pk")
    )
    held: dict[str, list[StudentWorking]] = defaultdict(list)
    for working in workings:
        for slip in dict.fromkeys(working.slips):
            held[slip].append(working)
    slips = [
        SlipCount(
            id=slip,
            name=_SLIPS[slip].name,
            kind=_SLIPS[slip].kind,
            count=len(found),
            students=_distinct(w.paper.student_id for w in found),
            items=_distinct(w.item_id for w in found),
            workings=[w.pk for w in found],
        )
        for slip, found in sorted(held.items(), key=lambda pair: (-len(pair[1]), pair[0]))
        if slip in _SLIPS
    ]
    share = _shares(workings)
    items = [
        _item_pattern(item, [w for w in workings if w.item_id == item.pk], share)
        for item in given_set.items.order_by("position")
    ]
    return PatternsOut(workings=len(workings), slips=slips, items=items)


def _distinct(ids: Iterable[int]) -> list[int]:
    return list(dict.fromkeys(ids))


def _shares(workings: Sequence[StudentWorking]) -> dict[int, float]:
    """Of each student, which share of the workings is right."""
    right: Counter[int] = Counter()
    every: Counter[int] = Counter()
    for working in workings:
        every[working.paper.student_id] += 1
        right[working.paper.student_id] += working.right
    return {student: right[student] / every[student] for student in every}


def _item_pattern(item: SetItem, workings: list[StudentWorking], share: dict[int, float]) -> ItemPattern:
    groups: dict[str, list[StudentWorking]] = defaultdict(list)
    for working in workings:
        if not working.right:
            groups[working.alike].append(working)
    wrong = [
        WrongGroup(
            text=_where_wrong(found[0]),
            slip=next((_SLIPS[s].name for s in found[0].slips if s in _SLIPS), ""),
            count=len(found),
            workings=[w.pk for w in found],
            foreseen=was_foreseen(item, found[0]),
        )
        for found in sorted(groups.values(), key=lambda found: -len(found))
    ]
    return ItemPattern(
        item=item.pk,
        number=item.position + 1,
        workings=len(workings),
        right=sum(w.right for w in workings),
        tells_apart=_tells_apart(workings, share),
        wrong=wrong[:6],
    )


def _where_wrong(working: StudentWorking) -> str:
    """The line of a working at which it goes wrong, or its last."""
    report: Report | None = pile.report_of(working)
    broken = next((link.line for link in report.links if link.relation in ("breaks", "narrows")), 0) if report else 0
    return working.texts[(broken or len(working.texts)) - 1]


def _tells_apart(workings: list[StudentWorking], share: dict[int, float]) -> float | None:
    """The correlation of being right here with the share of right workings on the whole set (the point-biserial
    coefficient)."""
    if len(workings) < FEWEST_TO_TELL:
        return None
    here = [float(w.right) for w in workings]
    whole = [share[w.paper.student_id] for w in workings]
    try:
        return round(statistics.correlation(here, whole), 2)
    except statistics.StatisticsError:  # all right, or all wrong
        return None
