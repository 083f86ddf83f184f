"""Sheets, their problems, and the workings written under them.

Lines are kept as typed. Verdicts are derived: the report beside a working is a copy that can be made again
at any time (`manage.py recheck`).
"""

from __future__ import annotations

from typing import cast

from django.conf import settings
from django.db import models
from django.db.models import CheckConstraint, Deferrable, Q, UniqueConstraint

from algebra import ITEM_FORMS, NUMBERS, TASKS, ItemForm, Numbers, Task, limits


class Sheet(models.Model):
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="sheets")
    title = models.CharField(max_length=120)
    conventions = models.JSONField(default=dict)
    received_from = models.CharField(max_length=150, blank=True, default="")  # the colleague who gave this copy
    untaught = models.JSONField(default=list)  # ids of rules, methods and kinds of number the class does not know yet
    created = models.DateTimeField(auto_now_add=True)
    changed = models.DateTimeField(auto_now=True)
    printed = models.DateTimeField(null=True)  # when it was last made into a PDF for a class

    class Meta:
        ordering = ["created", "id"]
        constraints = [CheckConstraint(condition=~Q(title=""), name="sheet_has_title")]
        indexes = [models.Index(fields=["owner", "-changed", "-id"], name="sheets_last_changed_first")]


class Problem(models.Model):
    sheet = models.ForeignKey(Sheet, on_delete=models.CASCADE, related_name="problems")
    position = models.PositiveIntegerField()
    task = models.CharField(max_length=20)
    given = models.CharField(max_length=limits.MAX_LINE_CHARACTERS)
    variable = models.CharField(max_length=40, blank=True, default="")
    numbers = models.CharField(max_length=10, default="real")
    method = models.CharField(max_length=40, blank=True, default="")  # where the task names one
    instruction = models.CharField(max_length=120, blank=True, default="")  # over it on paper, where not the usual one
    form = models.CharField(max_length=10, default="work")  # how it stands on paper
    difficulty = models.JSONField(null=True)
    difficulty_version = models.CharField(max_length=20, blank=True, default="")
    # what it is found by again in the bank: derived, and made from what `indexed` says
    family = models.CharField(max_length=40, blank=True, default="")
    rating = models.FloatField(null=True)
    methods = models.JSONField(default=list)
    slips = models.JSONField(default=list)
    likeness = models.CharField(max_length=32, blank=True, default="")
    indexed = models.CharField(max_length=20, blank=True, default="")

    class Meta:
        ordering = ["position"]
        constraints = [
            UniqueConstraint(fields=["sheet", "position"], name="problem_place", deferrable=Deferrable.DEFERRED),
            CheckConstraint(condition=Q(task__in=TASKS), name="problem_task_known"),
            CheckConstraint(condition=Q(numbers__in=NUMBERS), name="problem_numbers_known"),
            CheckConstraint(condition=~Q(given=""), name="problem_has_given"),
            CheckConstraint(condition=Q(form__in=ITEM_FORMS), name="problem_form_known"),
        ]

    @property
    def task_name(self) -> Task:
        """The task; that it is one of the known is a constraint of the table."""
        return cast(Task, self.task)

    @property
    def item_form(self) -> ItemForm:
        """How it stands on paper; that it is one of the known is a constraint of the table."""
        return cast(ItemForm, self.form)

    @property
    def number_system(self) -> Numbers:
        """The numbers; that they are real or complex is a constraint of the table."""
        return cast(Numbers, self.numbers)


class Working(models.Model):
    """The teacher's working of a problem. `revision` rises with every change and guards against lost updates.

    `report`, its `state` and `report_version`, the mark of what they were made from, are written together.
    """

    problem = models.OneToOneField(Problem, on_delete=models.CASCADE, related_name="working")
    revision = models.PositiveIntegerField(default=0)
    report = models.JSONField(null=True)
    report_version = models.CharField(max_length=20, blank=True, default="")
    state = models.CharField(max_length=10, blank=True, default="")
    changed = models.DateTimeField(auto_now=True)


class Line(models.Model):
    working = models.ForeignKey(Working, on_delete=models.CASCADE, related_name="lines")
    position = models.PositiveIntegerField()
    text = models.CharField(max_length=limits.MAX_LINE_CHARACTERS)

    class Meta:
        ordering = ["position"]
        constraints = [
            UniqueConstraint(fields=["working", "position"], name="line_place", deferrable=Deferrable.DEFERRED),
            CheckConstraint(condition=Q(position__lt=limits.MAX_LINES), name="line_within_limit"),
        ]
