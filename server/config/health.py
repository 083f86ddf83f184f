"""Whether this process lives, and whether it can serve. Both are asked without a log-in and answered in plain text."""

from __future__ import annotations

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from server.common.bounded import within
from server.common.queue import queue_state
from server.common.readiness import unfit
from server.common.release import RELEASE

MOMENT = 2.0
"""How long an answer of the database is waited for when it is asked whether all is well."""


@never_cache
@require_safe
def alive(request: HttpRequest) -> HttpResponse:
    """200 from a process that answers at all, with its version; looks at nothing else."""
    return HttpResponse(f"alive {RELEASE}\n", content_type="text/plain")


def _queue() -> list[str]:
    """What is wrong with the queue. The pages are served all the same, so a proxy need not send people elsewhere."""
    try:
        return [trouble] if (trouble := queue_state().trouble) else []
    except DatabaseError:
        return ["The queue can't be looked at."]


@never_cache
@require_safe
def ready(request: HttpRequest) -> HttpResponse:
    """200 when the database answers and fits this version; else 503 with one reason a line, within a few seconds."""
    with within(MOMENT):
        try:
            reasons = unfit()
        except DatabaseError:
            reasons = ["The database does not answer."]
        text = "".join(f"{reason}\n" for reason in reasons or ["ready", *_queue()])
    return HttpResponse(text, status=503 if reasons else 200, content_type="text/plain")
