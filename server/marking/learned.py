"""What was to be expected of the items of a set, and how likely slips are in a teacher's own classes against the table
of judgement."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Any, cast

from django.contrib.auth.models import User

import lanes
from algebra import SLIPS, ReadingError, TaskError
from server.jobs import services as jobs
from server.marking import pile
from server.marking.models import Learning, SetItem, StudentWorking
from server.marking.schemas import LearnedOut, LearnedRow

KIND = "foreseen"
MOST_FORESEEN = 8
PRIOR = 20.0
"""How many workings the table of judgement weighs as much as: with fewer of its own it leads, with more it follows."""
FACTORS = (0.25, 4.0)
"""Between which factors the counts may move a likelihood."""


def begin(items: Iterable[SetItem]) -> None:
    """Has the wrong answers to expect worked out for items that were given."""
    jobs.begin(None, KIND, ({"item": item.pk} for item in items))


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """Keeps what is foreseen of an item; how many wrong answers that are. Where nothing can be foreseen, that is
    kept."""
    item = SetItem.objects.select_related("given_set").filter(pk=cast(int, asked["item"])).first()
    if item is None:
        return 0
    found: list[dict[str, object]] = []
    try:
        wrong = lanes.predict(pile.problem_of(item), most=MOST_FORESEEN).wrong
        found = [{"answer": sorted(each.answer), "slips": each.slips} for each in wrong]
    except (TaskError, ReadingError):
        pass
    SetItem.objects.filter(pk=item.pk).update(foreseen=found)
    return len(found)


def was_foreseen(item: SetItem, working: StudentWorking) -> bool | None:
    """Whether the answer of a working, or the slip in it, is among what was foreseen; None while that is not worked
    out."""
    if item.foreseen is None:
        return None
    report = cast(dict[str, Any] | None, working.report)
    given = sorted(report["answer"]["given"]) if report else []
    rows = cast(list[dict[str, Any]], item.foreseen)
    return any((given and row["answer"] == given) or set(row["slips"][:1]) & set(working.slips) for row in rows)


def foreseen_slips(item_foreseen: object) -> set[str]:
    """The slips that an item was expected to show."""
    return {slip for row in cast(list[dict[str, Any]], item_foreseen or []) for slip in row["slips"]}


def counts_of(teacher_id: int) -> dict[str, tuple[int, int]]:
    """By slip: in how many workings of a teacher's classes it was made, and in how many it could have been."""
    items = SetItem.objects.filter(given_set__school_class__owner_id=teacher_id)
    expected = {pk: foreseen_slips(found) for pk, found in items.values_list("pk", "foreseen")}
    made: Counter[str] = Counter()
    could: Counter[str] = Counter()
    rows = StudentWorking.objects.filter(
        item__given_set__school_class__owner_id=teacher_id, report__isnull=False
    ).exclude(lines=[])
    for item, slips in rows.values_list("item_id", "slips"):
        made.update(set(slips))
        could.update(expected[item] | set(slips))
    return {slip: (made[slip], could[slip]) for slip in could}


def rows_of(teacher_id: int) -> list[LearnedRow]:
    """The slips that could be made in a teacher's classes, those made most first.

    The share of a slip is that of its own workings, drawn towards what the table expects as if that were `PRIOR`
    workings more (the mean of a beta distribution); the table's likelihoods are scaled so that all of them together
    expect as many slips as were made.
    """
    counts = counts_of(teacher_id)
    declared = {slip.id: slip.likelihood for slip in SLIPS}
    known = {slip: found for slip, found in counts.items() if slip in declared}
    wanted = sum(declared[slip] * could for slip, (_, could) in known.items())
    scale = sum(made for made, _ in known.values()) / wanted if wanted else 0.0
    names = {slip.id: slip for slip in SLIPS}
    rows = []
    for slip, (made, could) in known.items():
        expected = scale * declared[slip]
        share = (made + PRIOR * expected) / (could + PRIOR)
        factor = min(max(share / expected, FACTORS[0]), FACTORS[1]) if expected else 1.0
        rows.append(
            LearnedRow(
                id=slip,
                name=names[slip].name,
                kind=names[slip].kind,
                made=made,
                could=could,
                declared=declared[slip],
                share=round(share, 4),
                factor=round(factor, 3),
            )
        )
    return sorted(rows, key=lambda row: (-row.made, -row.share, row.id))


def factors(teacher_id: int) -> Mapping[str, float]:
    """By slip, how many times as likely it is in the own classes as the table has it; nothing where the teacher keeps
    to the table."""
    if not Learning.objects.filter(owner_id=teacher_id).exists():
        return {}
    return {row.id: row.factor for row in rows_of(teacher_id)}


def learned_out(teacher: User) -> LearnedOut:
    """The counts, and whether they are used."""
    return LearnedOut(on=Learning.objects.filter(owner=teacher).exists(), slips=rows_of(teacher.pk))


def switch(teacher: User, on: bool) -> None:
    """Has wrong answers ordered by the own classes, or by the table again."""
    if on:
        Learning.objects.get_or_create(owner=teacher)
    else:
        Learning.objects.filter(owner=teacher).delete()
