"""What ties classes, students and sets to a school's records, and what was sent there."""

from __future__ import annotations

from uuid import uuid4

from django.db import models
from django.db.models import CheckConstraint, Q, UniqueConstraint

from server.marking.models import GivenSet, SchoolClass, Student

STATES = ("unsent", "waiting", "sent", "refused")


class ClassLink(models.Model):
    """The class of the records that a class is."""

    school_class = models.OneToOneField(SchoolClass, on_delete=models.CASCADE, related_name="record")
    sourced_id = models.CharField(max_length=255)


class StudentLink(models.Model):
    """The student of the records that a student is."""

    student = models.OneToOneField(Student, on_delete=models.CASCADE, related_name="record")
    sourced_id = models.CharField(max_length=255)


class SetLink(models.Model):
    """The id under which the records keep a set. It is drawn once, so that what is sent again takes the place of what
    was sent before."""

    given_set = models.OneToOneField(GivenSet, on_delete=models.CASCADE, related_name="record")
    sourced_id = models.UUIDField(default=uuid4, unique=True)


class SentMark(models.Model):
    """What was sent for a student of a set, or refused, and why."""

    given_set = models.ForeignKey(GivenSet, on_delete=models.CASCADE, related_name="sent")
    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="sent")
    sourced_id = models.UUIDField(default=uuid4, unique=True)
    state = models.CharField(max_length=8, default="unsent")
    score = models.FloatField(null=True)
    of = models.FloatField(null=True)
    status = models.CharField(max_length=20, blank=True, default="")
    reason = models.CharField(max_length=300, blank=True, default="")
    sent = models.DateTimeField(null=True)
    sent_by = models.CharField(max_length=150, blank=True, default="")

    class Meta:
        constraints = [
            UniqueConstraint(fields=["given_set", "student"], name="sent_once"),
            CheckConstraint(condition=Q(state__in=STATES), name="sent_state_known"),
        ]
