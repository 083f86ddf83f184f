"""Deciding marks, taking back what was decided, and doing it again.

Whoever changes a mark locks the set first and its workings after it, so that of two who decide and take back at once
one comes after the other. A mark is what its last standing decision says; `./uchuu doctor` looks whether it is.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from uuid import UUID, uuid4

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import F, Q, QuerySet

from server.common.problems import Refused
from server.common.regional import number
from server.marking import pile, queries
from server.marking.models import Decision, GivenSet, StudentWorking
from server.marking.schemas import DecideIn

Marks = dict[int, float | None]
"""Marks that stand now, by the working."""


def locked_set(teacher: User, set_id: int) -> GivenSet:
    """A set of the teacher, held until the transaction ends. Raises Http404."""
    found = queries.set_of(teacher, set_id)
    GivenSet.objects.select_for_update().get(pk=found.pk)
    return found


@transaction.atomic
def decide(teacher: User, set_id: int, data: DecideIn) -> Marks:
    """Confirms marks; the marks that stand now. Raises Refused where nothing is proposed yet, or for a mark beyond the
    item's."""
    given_set = locked_set(teacher, set_id)
    if data.key is not None:
        before = Decision.objects.filter(batch=data.key, working__paper__given_set=given_set)
        if before.exists():
            return dict(before.values_list("working_id", "working__mark"))
    chosen = _locked(given_set).select_related("item__given_set")
    workings = list(chosen.filter(pk__in=data.workings))
    if len(workings) != len(set(data.workings)):
        raise Refused("A working is not of this set.", code="working")
    if data.alike:
        for working in list(workings):
            if working.alike:
                like = chosen.filter(item=working.item, alike=working.alike, confirmed=None)
                known = {each.pk for each in workings}
                workings += [each for each in like if each.pk not in known and pile.is_fresh(each)]
    marks = {working.pk: _decided(working, data.mark) for working in workings}
    return _write(teacher, workings, marks, data.key)


@transaction.atomic
def propose_anew(teacher: User, set_id: int, working_ids: list[int]) -> Marks:
    """Takes confirmed marks away, so that what is proposed stands in their place until it is confirmed. Raises
    Refused."""
    found = list(_locked(locked_set(teacher, set_id)).filter(pk__in=working_ids, confirmed__isnull=False))
    if len(found) != len(set(working_ids)):
        raise Refused("A working has no confirmed mark.", code="working")
    return _write(teacher, found, {each.pk: None for each in found})


@transaction.atomic
def take_back(teacher: User, set_id: int) -> Marks:
    """Takes back what was decided last in a set, all of it that was decided in one; the marks that stand now. Raises
    Refused where there is nothing."""
    given_set = locked_set(teacher, set_id)
    own = _open(given_set).filter(taken_back=False)
    last = own.order_by("-pk").first()  # not by time: a clock may have been set back
    if last is None:
        raise Refused("Nothing is left to be taken back.", code="nothing")
    workings = list(own.filter(batch=last.batch).values_list("working_id", flat=True))
    own.filter(batch=last.batch).update(taken_back=True)
    return _as_decided(workings)


@transaction.atomic
def do_again(teacher: User, set_id: int) -> Marks:
    """Decides again what was taken back last, as long as nothing was decided since; the marks that stand now. Raises
    Refused where there is nothing."""
    given_set = locked_set(teacher, set_id)
    every = Decision.objects.filter(working__paper__given_set=given_set)
    standing = every.filter(taken_back=False).order_by("-pk").values_list("pk", flat=True).first() or 0
    own = _open(given_set).filter(taken_back=True, pk__gt=standing)
    first = own.order_by("pk").first()
    if first is None:
        raise Refused("Nothing was taken back that could be done again.", code="nothing")
    workings = list(own.filter(batch=first.batch).values_list("working_id", flat=True))
    own.filter(batch=first.batch).update(taken_back=False)
    return _as_decided(workings)


def _locked(given_set: GivenSet) -> QuerySet[StudentWorking]:
    rows = StudentWorking.objects.select_for_update(of=("self",)).filter(paper__given_set=given_set)
    return rows.order_by("pk")


def _open(given_set: GivenSet) -> QuerySet[Decision]:
    """Decisions on lines that still stand."""
    own = Q(revision=None) | Q(revision=F("working__revision"))
    return Decision.objects.filter(own, working__paper__given_set=given_set, closed=False)


def _decided(working: StudentWorking, mark: float | None) -> float:
    total = pile.scheme_of(working.item).total
    if mark is not None:
        if mark > total:
            given_set = working.paper.given_set
            decimal = queries.written_in(given_set.school_class, given_set.conventions).decimal
            raise Refused(f"This item is worth {number(total, decimal)}.", code="mark")
        return mark
    proposal = pile.proposal_of(working) if pile.is_fresh(working) else None
    if proposal is None:
        raise Refused("This working is not verified yet: nothing is proposed.", code="waits")
    return proposal.mark


def _write(
    teacher: User, workings: Iterable[StudentWorking], marks: Mapping[int, float | None], key: UUID | None = None
) -> Marks:
    """Keeps decisions of one batch, and the marks that they set."""
    batch = key or uuid4()
    Decision.objects.bulk_create(
        Decision(
            working_id=each.pk,
            batch=batch,
            who=teacher.username,
            before=each.mark,
            after=marks[each.pk],
            revision=each.revision,
        )
        for each in workings
    )
    return _as_decided(marks)


def _as_decided(workings: Iterable[int]) -> Marks:
    """Has workings show what their last standing decision says: the mark, and who confirmed it when."""
    marks: Marks = {}
    for pk in workings:
        last = Decision.objects.filter(working=pk, taken_back=False).order_by("-pk").first()
        stands = last if last is not None and last.after is not None else None
        marks[pk] = stands.after if stands else None
        StudentWorking.objects.filter(pk=pk).update(
            mark=marks[pk],
            confirmed=stands.when if stands else None,
            confirmed_by=stands.who if stands else "",
        )
    return marks
