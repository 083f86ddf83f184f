"""A teacher's own words for rules, methods and slips."""

from __future__ import annotations

from dataclasses import dataclass

from django.contrib.auth.models import User

from server.accounts.models import OwnWords


@dataclass(frozen=True, slots=True)
class Wording:
    """The words for one thing: the teacher's own where there are any, else the product's."""

    name: str
    text: str


class Words:
    """All own words of one teacher; the table is asked once."""

    def __init__(self, stored: dict[str, dict[str, str]]) -> None:
        self.stored = stored

    def of(self, key: str, name: str, text: str = "") -> Wording:
        """What is said of a rule, method or slip; `name` and `text` are the product's words."""
        own = self.stored.get(key, {})
        return Wording(own.get("name") or name, own.get("text") or text)


def words_of(teacher_id: int) -> Words:
    """The teacher's own words by the id of the rule, method or slip."""
    return Words(OwnWords.objects.filter(owner_id=teacher_id).values_list("words", flat=True).first() or {})


def set_words(teacher: User, words: dict[str, dict[str, str]]) -> None:
    """Replaces the teacher's words."""
    OwnWords.objects.update_or_create(owner=teacher, defaults={"words": words})
