"""Answers of the core that are kept by what they were made from, so that the same is worked out once."""

from __future__ import annotations

from collections.abc import Collection
from datetime import timedelta
from hashlib import sha256
from json import dumps

from django.utils import timezone

from algebra import VERSION
from server.jobs.models import KeptAnswer

UNUSED = timedelta(days=14)
"""How long an answer is kept that nobody has asked for."""


def made_from(kind: str, *parts: object) -> str:
    """The name under which an answer is kept: a hash of the kind of question, of what is asked, and of the version of
    the core that answers it. `parts` are JSON."""
    told = dumps([kind, VERSION, *parts], sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return sha256(told.encode()).hexdigest()


def known(names: Collection[str]) -> dict[str, object]:
    """Those of these answers that are kept."""
    found = dict(KeptAnswer.objects.filter(pk__in=names).values_list("pk", "answer"))
    today = timezone.localdate()
    KeptAnswer.objects.filter(pk__in=list(found), used__lt=today).update(used=today)
    return found


def keep(name: str, answer: object) -> None:
    """Keeps an answer; another that was made meanwhile from the same is the same."""
    KeptAnswer.objects.bulk_create([KeptAnswer(pk=name, answer=answer)], ignore_conflicts=True)


def forget_unused() -> int:
    """Removes what nobody has asked for a long time; how many that were."""
    return KeptAnswer.objects.filter(used__lt=timezone.localdate() - UNUSED).delete()[0]
