"""`manage.py demo_versions`: a second version of one of the demo sheets."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand

from server.building import services
from server.building.schemas import VersionIn
from server.sheets.models import Sheet

TEACHER, OF = "demo", "Linear equations with brackets and fractions"


class Command(BaseCommand):
    help = "Makes version B of a demo sheet, unless it is there already."

    def handle(self, *args: Any, **options: Any) -> None:
        """Makes it."""
        teacher = User.objects.filter(username=TEACHER).first()
        sheets = Sheet.objects.filter(owner=teacher, title__startswith=OF)
        if teacher is not None and sheets.count() == 1:
            services.make_version(teacher, sheets.get().pk, VersionIn(name="B", seed=1))
