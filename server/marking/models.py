"""Classes, what they were given, what the students wrote, and marks.

Reports and proposals are derived, as everywhere: kept beside a working with the mark of what they were made from. A
mark is a decision of a teacher: it stands only with who confirmed it and when, by a constraint of the table.
"""

from __future__ import annotations

from typing import cast

from django.conf import settings
from django.db import models
from django.db.models import CheckConstraint, Q, UniqueConstraint

from algebra import ITEM_FORMS, NUMBERS, TASKS, Task, limits


class SchoolClass(models.Model):
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="classes")
    name = models.CharField(max_length=60)
    archived = models.BooleanField(default=False)
    regional = models.JSONField(default=dict)  # where it differs from its teacher's
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "id"]
        constraints = [
            CheckConstraint(condition=~Q(name=""), name="class_has_name"),
            UniqueConstraint(fields=["owner", "name"], name="class_once"),
        ]


class Student(models.Model):
    """A student as the class writes the name; `number` is the school's, where it has one. Two of one name have
    different numbers."""

    school_class = models.ForeignKey(SchoolClass, on_delete=models.CASCADE, related_name="students")
    name = models.CharField(max_length=80)
    number = models.CharField(max_length=30, blank=True, default="")

    class Meta:
        ordering = ["name", "id"]
        constraints = [
            CheckConstraint(condition=~Q(name=""), name="student_has_name"),
            UniqueConstraint(fields=["school_class", "name", "number"], name="student_once"),
            UniqueConstraint(fields=["school_class", "number"], condition=~Q(number=""), name="number_once"),
        ]


class GivenSet(models.Model):
    """A sheet as a class was given it on a day. Its items are copies: what changes on the sheet later does not change
    what was given."""

    school_class = models.ForeignKey(SchoolClass, on_delete=models.CASCADE, related_name="sets")
    title = models.CharField(max_length=120)
    day = models.DateField()
    conventions = models.JSONField(default=dict)
    codes = models.JSONField(default=list)  # of the printed sheet, from which its scanned pages are told
    late_percent = models.PositiveSmallIntegerField(default=0)  # what a late paper loses, of what it earned
    boundaries = models.JSONField(default=list)  # from how many percent on which grade is given, the highest first
    again_of = models.ForeignKey(
        "self", on_delete=models.SET_NULL, null=True, related_name="again"
    )  # the better of both counts
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-day", "-id"]
        constraints = [CheckConstraint(condition=Q(late_percent__lte=100), name="late_within_hundred")]


class SetItem(models.Model):
    """One problem of a set, with its scheme and the lines of its key."""

    given_set = models.ForeignKey(GivenSet, on_delete=models.CASCADE, related_name="items")
    position = models.PositiveIntegerField()
    task = models.CharField(max_length=20)
    given = models.CharField(max_length=limits.MAX_LINE_CHARACTERS)
    variable = models.CharField(max_length=40, blank=True, default="")
    numbers = models.CharField(max_length=10, default="real")
    method = models.CharField(max_length=40, blank=True, default="")
    form = models.CharField(max_length=10, default="work")  # as it stood on the sheet
    made = models.JSONField(
        null=True
    )  # what it is in that form, where it is not to be worked: as it was given, for good
    scheme = models.JSONField()
    key = models.JSONField(default=list)
    scheme_changed = models.DateTimeField(null=True)  # when its scheme was last changed
    foreseen = models.JSONField(
        null=True
    )  # the wrong answers that were foreseen, each with its slips; null while that is not worked out

    class Meta:
        ordering = ["position"]
        constraints = [
            UniqueConstraint(fields=["given_set", "position"], name="item_place"),
            CheckConstraint(condition=Q(task__in=TASKS), name="item_task_known"),
            CheckConstraint(condition=Q(numbers__in=NUMBERS), name="item_numbers_known"),
            CheckConstraint(
                condition=Q(form="work", made__isnull=True)
                | (Q(form__in=ITEM_FORMS, made__isnull=False) & ~Q(form="work")),
                name="item_form_is_made",
            ),
        ]

    @property
    def task_name(self) -> Task:
        """The task; that it is one of the known is a constraint of the table."""
        return cast(Task, self.task)


class Paper(models.Model):
    given_set = models.ForeignKey(GivenSet, on_delete=models.CASCADE, related_name="papers")
    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="papers")
    absent = models.BooleanField(default=False)
    late = models.BooleanField(default=False)

    class Meta:
        constraints = [UniqueConstraint(fields=["given_set", "student"], name="paper_once")]


class StudentWorking(models.Model):
    """What a student wrote for an item, where it came from, what is proposed, and the mark that was confirmed."""

    paper = models.ForeignKey(Paper, on_delete=models.CASCADE, related_name="workings")
    item = models.ForeignKey(SetItem, on_delete=models.CASCADE, related_name="workings")
    lines = models.JSONField(default=list)
    revision = models.PositiveIntegerField(default=0)  # rises with every change of the lines
    source = models.CharField(max_length=10, default="typed")
    report = models.JSONField(null=True)
    proposal = models.JSONField(null=True)
    made_from = models.CharField(max_length=40, blank=True, default="")
    trouble = models.CharField(max_length=300, blank=True, default="")
    alike = models.CharField(max_length=16, blank=True, default="")
    slips = models.JSONField(default=list)
    right = models.BooleanField(default=False)
    mark = models.FloatField(null=True)
    confirmed_by = models.CharField(max_length=150, blank=True, default="")
    confirmed = models.DateTimeField(null=True)

    class Meta:
        constraints = [
            UniqueConstraint(fields=["paper", "item"], name="working_once"),
            CheckConstraint(
                condition=Q(mark__isnull=True, confirmed__isnull=True, confirmed_by="")
                | (Q(mark__isnull=False, confirmed__isnull=False) & ~Q(confirmed_by="")),
                name="mark_is_confirmed",
            ),
        ]
        indexes = [models.Index(fields=["item", "alike"], name="alike_of_an_item")]

    @property
    def texts(self) -> list[str]:
        """The lines as they were written."""
        return cast(list[str], self.lines)


class WorkingVersion(models.Model):
    """Lines that stood in a working with a mark, or had one once, before others came in their place: what was marked is
    never lost. `who` changed them."""

    working = models.ForeignKey(StudentWorking, on_delete=models.CASCADE, related_name="versions")
    revision = models.PositiveIntegerField()
    lines = models.JSONField()
    source = models.CharField(max_length=10)
    mark = models.FloatField(null=True)
    confirmed_by = models.CharField(max_length=150, blank=True, default="")
    who = models.CharField(max_length=150)
    until = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        constraints = [UniqueConstraint(fields=["working", "revision"], name="version_once")]

    @property
    def texts(self) -> list[str]:
        """The lines as they were written."""
        return cast(list[str], self.lines)


class Looked(models.Model):
    """Who looked at the marks of a set on which day, or took them away, once a day each."""

    given_set = models.ForeignKey(GivenSet, on_delete=models.CASCADE, related_name="looks")
    who = models.CharField(max_length=150)
    day = models.DateField()
    what = models.CharField(max_length=30)

    class Meta:
        ordering = ["-day", "-id"]
        constraints = [UniqueConstraint(fields=["given_set", "who", "day", "what"], name="looked_once_a_day")]


class Erased(models.Model):
    """That a student was erased: a mark that says nothing of who it was, by which the student is known again in the
    data of an older backup."""

    mark = models.CharField(max_length=64, primary_key=True)
    when = models.DateTimeField(auto_now_add=True)


class OwnScheme(models.Model):
    """A scheme that a teacher keeps to use again."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="schemes")
    name = models.CharField(max_length=60)
    scheme = models.JSONField()

    class Meta:
        ordering = ["name"]
        constraints = [UniqueConstraint(fields=["owner", "name"], name="scheme_once")]


class Learning(models.Model):
    """That a teacher has wrong answers ordered by what the own classes do."""

    owner = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, primary_key=True, related_name="learning"
    )


class Decision(models.Model):
    """One change of a mark. What was decided in one go has one `batch`, and is taken back in one."""

    working = models.ForeignKey(StudentWorking, on_delete=models.CASCADE, related_name="decisions")
    batch = models.UUIDField()
    who = models.CharField(max_length=150)
    when = models.DateTimeField(auto_now_add=True)
    before = models.FloatField(null=True)
    after = models.FloatField(null=True)
    taken_back = models.BooleanField(default=False)
    revision = models.PositiveIntegerField(null=True)  # of the lines that it was decided on
    closed = models.BooleanField(default=False)  # the lines have changed since: it can't be taken back any more

    class Meta:
        ordering = ["-when", "-id"]
        indexes = [models.Index(fields=["working", "-when"], name="decisions_last_first")]
