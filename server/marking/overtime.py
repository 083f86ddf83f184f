"""A class over time: which slips in which sets, of whom, what is new, fading or back, and who shares which."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence

from algebra import SLIPS
from server.marking.learned import foreseen_slips
from server.marking.models import SchoolClass, SetItem, StudentWorking
from server.marking.queries import students_out, written_in
from server.marking.schemas import ClassPatterns, SlipGroup, StudentSlip, TimeCount, TimeSet, TimeSlip

_SLIPS = {slip.id: slip for slip in SLIPS}
FEWEST_OF_A_GROUP = 2
MOST_SETS = 40
"""The latest sets of a class that are looked at."""


def patterns_of(school_class: SchoolClass) -> ClassPatterns:
    """What the class shows over its sets, the earliest first."""
    sets = list(school_class.sets.order_by("-day", "-pk")[:MOST_SETS])[::-1]
    expected = {
        pk: foreseen_slips(found)
        for pk, found in SetItem.objects.filter(given_set__in=sets).values_list("pk", "foreseen")
    }
    rows = list(
        StudentWorking.objects.filter(paper__given_set__in=sets, report__isnull=False)
        .exclude(lines=[])
        .order_by("pk")
        .values_list("pk", "paper__given_set_id", "paper__student_id", "item_id", "slips", "right")
    )
    made: dict[str, dict[int, list[int]]] = defaultdict(lambda: defaultdict(list))  # slip, set, workings
    could: dict[str, dict[int, int]] = defaultdict(lambda: defaultdict(int))
    of: dict[str, dict[int, dict[int, list[int]]]] = defaultdict(
        lambda: defaultdict(lambda: defaultdict(list))
    )  # slip, student, set
    wrote: dict[int, set[int]] = defaultdict(set)
    for pk, given_set, student, item, slips, _ in rows:
        wrote[student].add(given_set)
        for slip in set(slips) & _SLIPS.keys():
            made[slip][given_set].append(pk)
            of[slip][student][given_set].append(pk)
        for slip in expected[item] | set(slips):
            could[slip][given_set] += 1
    order = [each.pk for each in sets]
    slips_out = [
        TimeSlip(
            id=slip,
            name=_SLIPS[slip].name,
            kind=_SLIPS[slip].kind,
            counts=[
                TimeCount(set=pk, could=could[slip][pk], workings=made[slip][pk]) for pk in order if could[slip][pk]
            ],
            students=[
                StudentSlip(
                    student=student,
                    state=state_of(_sequence(order, wrote[student], could[slip], found)),
                    workings=[w for pk in order for w in found.get(pk, [])],
                )
                for student, found in sorted(of[slip].items())
            ],
        )
        for slip in sorted(made, key=lambda slip: (-sum(map(len, made[slip].values())), slip))
    ]
    groups, alone = groups_of(slips_out, list(wrote))
    return ClassPatterns(
        id=school_class.pk,
        name=school_class.name,
        students=students_out(school_class),
        slips=slips_out,
        groups=groups,
        alone=alone,
        in_force=written_in(school_class),
        sets=[
            TimeSet(
                id=each.pk,
                title=each.title,
                day=each.day,
                workings=sum(row[1] == each.pk for row in rows),
                right=sum(row[1] == each.pk and row[5] for row in rows),
            )
            for each in sets
        ],
    )


def _sequence(
    order: Sequence[int], wrote: set[int], could: Mapping[int, int], made: Mapping[int, list[int]]
) -> list[bool]:
    """Set after set whether a student made a slip, where it could be made and the student wrote."""
    return [pk in made for pk in order if pk in wrote and (could.get(pk) or pk in made)]


def state_of(made: Sequence[bool]) -> str:
    """What a slip of a student is: `new`, `steady`, `back` or `fading`."""
    if not made[-1]:
        return "fading"
    if not any(made[:-1]):
        return "new"
    return "steady" if made[-2] else "back"


def groups_of(slips: Sequence[TimeSlip], students: Sequence[int]) -> tuple[list[SlipGroup], list[int]]:
    """Each student in the largest group of those who share a slip that is not fading; and who is in none."""
    sharing = {slip.id: {each.student for each in slip.students if each.state != "fading"} for slip in slips}
    left = set(students)
    found = []
    while sharing:
        slip = max(sharing, key=lambda each: (len(sharing[each] & left), each))
        together = sharing.pop(slip) & left
        if len(together) < FEWEST_OF_A_GROUP:
            break
        found.append(SlipGroup(slip=slip, name=_SLIPS[slip].name, students=sorted(together)))
        left -= together
    return found, sorted(left)
