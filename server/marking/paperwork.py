"""Around the marks: absent and late papers, blanks, what a set counts by, schemes that are kept, and the log of who
looked and who changed."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from server.common.problems import Refused
from server.marking import pile, queries
from server.marking.models import Decision, GivenSet, Looked, OwnScheme, Paper, StudentWorking
from server.marking.schemas import LogRow, OwnSchemeIn, OwnSchemeOut, PaperChange, SchemeIn, SetChange
from server.marking.totals import students_of

MOST_SCHEMES, LONGEST_LOG = 60, 300


@transaction.atomic
def change_set(teacher: User, set_id: int, data: SetChange) -> GivenSet:
    """What a set counts by. Raises Refused for a first attempt that is not an earlier set of the class, or for grades
    that stand twice."""
    queries.set_of(teacher, set_id)
    given_set = GivenSet.objects.select_for_update().get(pk=set_id)
    if data.title is not None:
        given_set.title = data.title
    if data.late_percent is not None:
        given_set.late_percent = data.late_percent
    if data.boundaries is not None:
        percents = [each.percent for each in data.boundaries]
        if len(set(percents)) < len(percents):
            raise Refused("Two grades begin at the same percent.", code="boundaries")
        given_set.boundaries = [each.model_dump() for each in sorted(data.boundaries, key=lambda each: -each.percent)]
    if data.again_of is not None:
        given_set.again_of = None
        if data.again_of:
            first = given_set.school_class.sets.filter(pk=data.again_of).exclude(pk=set_id).first()
            if first is None or (first.day, first.pk) > (given_set.day, given_set.pk):
                raise Refused("The first attempt is an earlier set of this class.", code="again_of")
            given_set.again_of = first
    given_set.save()
    return queries.set_of(teacher, set_id)


@transaction.atomic
def change_paper(teacher: User, set_id: int, student_id: int, data: PaperChange) -> GivenSet:
    """Whether a student was absent, or the paper came late. Raises Http404 for a student who is not of the class."""
    given_set = queries.set_of(teacher, set_id)
    student = get_object_or_404(students_of(given_set), pk=student_id)
    paper, _ = Paper.objects.get_or_create(given_set=given_set, student=student)
    if data.absent is not None:
        paper.absent = data.absent
    if data.late is not None:
        paper.late = data.late
    paper.save()
    if not (paper.absent or paper.late or paper.workings.exists()):
        paper.delete()  # nothing is said of it any more
    return given_set


@transaction.atomic
def fill_blanks(teacher: User, set_id: int) -> GivenSet:
    """Puts an empty working where a paper that was handed in has nothing: it is proposed for, and confirmed like the
    others."""
    given_set = queries.set_of(teacher, set_id)
    GivenSet.objects.select_for_update().get(pk=set_id)
    items = list(given_set.items.order_by("position"))
    papers = given_set.papers.filter(absent=False, workings__isnull=False).distinct()
    known = set(StudentWorking.objects.filter(paper__given_set=given_set).values_list("paper_id", "item_id"))
    StudentWorking.objects.bulk_create(
        StudentWorking(paper=paper, item=item, lines=[], source="blank")
        for paper in papers
        for item in items
        if (paper.pk, item.pk) not in known
    )
    pile.begin(given_set)
    return given_set


def note_look(teacher: User, given_set: GivenSet, what: str) -> None:
    """Keeps that a teacher looked at the marks of a set, or took them away: once a day for each."""
    today = timezone.localdate()
    Looked.objects.bulk_create(
        [Looked(given_set=given_set, who=teacher.username, day=today, what=what)], ignore_conflicts=True
    )


def log_of(given_set: GivenSet) -> list[LogRow]:
    """Who looked at the marks and who changed them, the last first."""
    looks = [
        LogRow(day=look.day, who=look.who, what=look.what, student=None, item=None, before=None, after=None)
        for look in given_set.looks.all()[:LONGEST_LOG]
    ]
    decisions = Decision.objects.filter(working__paper__given_set=given_set).select_related(
        "working__paper", "working__item"
    )
    changed = [
        LogRow(
            day=timezone.localdate(d.when),
            who=d.who,
            what="taken back" if d.taken_back else "mark",
            student=d.working.paper.student_id,
            item=d.working.item.position + 1,
            before=d.before,
            after=d.after,
        )
        for d in decisions.order_by("-pk")[:LONGEST_LOG]
    ]
    return sorted([*looks, *changed], key=lambda row: row.day, reverse=True)[:LONGEST_LOG]


def schemes_of(teacher: User) -> list[OwnSchemeOut]:
    """The schemes that a teacher keeps."""
    return [
        OwnSchemeOut(id=each.pk, name=each.name, scheme=SchemeIn.model_validate(each.scheme))
        for each in OwnScheme.objects.filter(owner=teacher)
    ]


@transaction.atomic
def keep_scheme(teacher: User, data: OwnSchemeIn) -> None:
    """Keeps a scheme under a name; one of that name is replaced. Raises Refused where there are too many."""
    own = OwnScheme.objects.filter(owner=teacher)
    if own.exclude(name=data.name).count() >= MOST_SCHEMES:
        raise Refused(f"You keep {MOST_SCHEMES} schemes already.", code="many")
    OwnScheme.objects.update_or_create(owner=teacher, name=data.name, defaults={"scheme": data.scheme.model_dump()})


@transaction.atomic
def forget_scheme(teacher: User, scheme_id: int) -> None:
    """Takes a kept scheme away; items marked by it stay as they are."""
    get_object_or_404(OwnScheme, pk=scheme_id, owner=teacher).delete()
