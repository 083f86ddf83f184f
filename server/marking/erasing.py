"""Erasing students, for good: what a backup brings back of them is erased again."""

from __future__ import annotations

from collections.abc import Collection
from hashlib import sha256

from django.db.models import QuerySet

from server.marking.models import Erased, Student


def mark_of(student: Student) -> str:
    """A mark by which a student is known again in an older backup of the same data: the number of its row and the
    moment at which its class was made. No name is in it."""
    return sha256(f"{student.pk} {student.school_class.created.isoformat()}".encode()).hexdigest()


def erase(students: QuerySet[Student]) -> int:
    """Erases students with every paper and mark, and keeps that they were; how many."""
    found = list(students.select_related("school_class"))
    Erased.objects.bulk_create([Erased(mark=mark_of(each)) for each in found], ignore_conflicts=True)
    for each in found:
        each.delete()
    return len(found)


def erase_again(marks: Collection[str]) -> int:
    """Erases those who were erased before and have come back; how many."""
    wanted = set(marks)
    every = Student.objects.select_related("school_class").only("pk", "school_class__created")
    return erase(Student.objects.filter(pk__in=[each.pk for each in every.iterator() if mark_of(each) in wanted]))
