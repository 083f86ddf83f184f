"""Pages that students wrote on, as they were scanned or photographed, with what the page reader made of them and what
the teacher settled."""

from __future__ import annotations

from django.db import models
from django.db.models import CheckConstraint, Q, UniqueConstraint

from server.marking.models import GivenSet, Student

STATES = ("waiting", "read", "failed")


class StudentPage(models.Model):
    """One page. Without a student it lies in the tray. `settled` holds the lines that the teacher has settled, by their
    place in the reading: the texts that stand there, none where the line is left out. `again_of` is the page that this
    one seems to be once more: nothing of it is taken in until somebody has said; `is_other` once that was denied."""

    given_set = models.ForeignKey(GivenSet, on_delete=models.CASCADE, related_name="pages")
    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="pages", null=True)
    original = models.BinaryField()
    media = models.CharField(max_length=20)
    picture = models.BinaryField()
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    digest = models.CharField(max_length=64)
    state = models.CharField(max_length=8, default="waiting")
    trouble = models.CharField(max_length=300, blank=True, default="")
    reading = models.JSONField(null=True)
    settled = models.JSONField(default=dict)
    look = models.CharField(max_length=256, blank=True, default="")
    again_of = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="again")
    is_other = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            UniqueConstraint(fields=["given_set", "digest"], name="page_once"),
            CheckConstraint(condition=Q(state__in=STATES), name="page_state_known"),
            CheckConstraint(condition=~Q(state="read") | Q(reading__isnull=False), name="read_page_has_reading"),
        ]
        indexes = [models.Index(fields=["given_set", "student"], name="pages_of_a_student")]
