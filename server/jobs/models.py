"""Work that takes longer than an answer may: a run of pieces, each of which is worked out once by any worker."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import CheckConstraint, Q, UniqueConstraint
from django.utils import timezone


class Run(models.Model):
    """`kind` names who works its pieces out; `about` is what all pieces share. `owner` is None for the installation's
    own work."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="runs", null=True)
    kind = models.CharField(max_length=20)
    title = models.CharField(max_length=120, blank=True, default="")
    about = models.JSONField(default=dict)
    created = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created", "-id"]
        indexes = [models.Index(fields=["owner", "-created"], name="runs_last_first")]


class Piece(models.Model):
    """One piece: what is asked, and what came of it, or the sentence why nothing did."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="pieces")
    position = models.PositiveIntegerField()
    asked = models.JSONField()
    answer = models.JSONField(null=True)
    trouble = models.CharField(max_length=300, blank=True, default="")
    ended = models.DateTimeField(null=True)

    class Meta:
        ordering = ["position"]
        constraints = [
            UniqueConstraint(fields=["run", "position"], name="piece_place"),
            CheckConstraint(
                condition=Q(ended__isnull=False) | (Q(answer__isnull=True) & Q(trouble="")),
                name="piece_ended_with_its_answer",
            ),
        ]
        indexes = [models.Index(fields=["run"], name="pieces_to_do", condition=Q(ended__isnull=True))]


class KeptAnswer(models.Model):
    """An answer of the core under the hash of what it was made from, and the day on which it was last used. It says
    nothing of who asked."""

    made_from = models.CharField(max_length=64, primary_key=True)
    answer = models.JSONField()
    used = models.DateField(default=timezone.localdate, db_index=True)
