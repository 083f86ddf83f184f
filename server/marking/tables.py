"""Patterns as tables, for who reckons on: one row a slip, an item's error, a student's slip. Names of students stand in
them; marks do not."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

from paper import safe_cell
from server.marking.models import GivenSet, SchoolClass
from server.marking.overtime import patterns_of as over_time
from server.marking.queries import patterns_of
from server.marking.totals import students_of


def _table(head: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\r\n")
    table.writerow(head)
    table.writerows([safe_cell(cell) if isinstance(cell, str) else cell for cell in row] for row in rows)
    return out.getvalue()


def patterns_csv(given_set: GivenSet) -> str:
    """The slips of a set, then how its items went wrong: the same numbers as on the screen."""
    found = patterns_of(given_set)
    names = {student.pk: student.name for student in students_of(given_set)}
    slips = [
        ("slip", "", s.name, s.kind, s.count, "", ", ".join(names[student] for student in s.students))
        for s in found.slips
    ]
    items = [
        (
            "item",
            item.number,
            group.text,
            group.slip,
            group.count,
            {True: "yes", False: "no", None: ""}[group.foreseen],
            "",
        )
        for item in found.items
        for group in item.wrong
    ]
    right = [("right", item.number, "", "", item.right, "", f"of {item.workings}") for item in found.items]
    return _table(("what", "item", "error", "kind", "workings", "foreseen", "who"), [*slips, *items, *right])


def over_time_csv(school_class: SchoolClass) -> str:
    """A class over time: a row for each slip in each set, then one for each student with a slip."""
    found = over_time(school_class)
    names = {student.id: student.name for student in found.students}
    days = {given.id: given.day.isoformat() for given in found.sets}
    counts = [
        ("set", days[c.set], s.name, s.kind, len(c.workings), c.could, "", "") for s in found.slips for c in s.counts
    ]
    students = [
        ("student", "", s.name, s.kind, len(each.workings), "", names[each.student], each.state)
        for s in found.slips
        for each in s.students
    ]
    return _table(
        ("what", "day", "error", "kind", "workings", "could be made in", "student", "state"), [*counts, *students]
    )
