"""Writes: a teacher's own words."""

from __future__ import annotations

from django.contrib.auth.models import User

from server.accounts import words as own
from server.common.problems import Refused
from server.solving.queries import catalogue
from server.solving.schemas import OwnWording


def set_words(teacher: User, words: dict[str, OwnWording]) -> None:
    """Replaces the teacher's words; raises Refused for an unknown id. Empty entries are left out."""
    known = {entry.id for entry in catalogue()}
    unknown = next((key for key in words if key not in known), None)
    if unknown is not None:
        raise Refused(f"There is no rule or method “{unknown}”.", code="words")
    kept = {key: entry.model_dump() for key, entry in words.items() if entry.name.strip() or entry.text.strip()}
    own.set_words(teacher, kept)
