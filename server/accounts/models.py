"""Who works here and what each may do, what was done to accounts, and a teacher's own words."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.db.models import CheckConstraint, Q
from django_otp.plugins.otp_totp.models import TOTPDevice


class Person(models.Model):
    """What an account may do. While `one_time_until` is set its password is a one-time word, good until then."""

    user = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, primary_key=True, related_name="person"
    )
    teaches = models.BooleanField(default=True)
    manages = models.BooleanField(default=False)
    one_time_until = models.DateTimeField(null=True)
    regional = models.JSONField(default=dict)  # how numbers and days are written, as far as it is set

    class Meta:
        constraints = [CheckConstraint(condition=Q(teaches=True) | Q(manages=True), name="person_has_a_role")]

    @property
    def lacks_second_factor(self) -> bool:
        """Whether this account has to have a second factor, as who manages may have to, and has none."""
        held = TOTPDevice.objects.filter(user=self.user_id, confirmed=True)
        return self.manages and settings.SECOND_FACTOR == "managers" and not held.exists()


class Happening(models.Model):
    """One thing done to an account, or a sheet handed on. Names are kept as they were, so that it is readable
    afterwards."""

    when = models.DateTimeField(auto_now_add=True)
    who = models.CharField(max_length=150)
    what = models.CharField(max_length=40)
    whom = models.CharField(max_length=300, blank=True, default="")

    class Meta:
        ordering = ["-when", "-id"]
        indexes = [models.Index(fields=["-when", "-id"], name="happening_last_first")]


class Spent(models.Model):
    """How many heavy questions a person has asked in the minute that began at `since`: one row a person, shared by all
    processes."""

    user = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, primary_key=True, related_name="spent"
    )
    since = models.DateTimeField()
    asked = models.PositiveIntegerField(default=0)


class OwnWords(models.Model):
    """`words` holds, by the id of the rule, method or slip, a name and a text; what is empty is left as it is."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="own_words")
    words = models.JSONField(default=dict)

    class Meta:
        db_table = "solving_ownwords"  # where it stood first
