"""What belongs to a teacher: own words for rules, methods and slips."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class OwnWords(models.Model):
    """`words` holds, by the id of the rule, method or slip, a name and a text; what is empty is left as it is."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="own_words")
    words = models.JSONField(default=dict)

    class Meta:
        db_table = "solving_ownwords"  # where it stood first
