"""Whether this process lives, and whether it can serve. Both are asked without a log-in and answered in plain text."""

from __future__ import annotations

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from server.common.readiness import unfit


@never_cache
@require_safe
def alive(request: HttpRequest) -> HttpResponse:
    """200 from a process that answers at all; looks at nothing else."""
    return HttpResponse("alive\n", content_type="text/plain")


@never_cache
@require_safe
def ready(request: HttpRequest) -> HttpResponse:
    """200 when the database answers and fits this version; else 503 with one reason a line."""
    try:
        reasons = unfit()
    except DatabaseError:
        reasons = ["The database does not answer."]
    text = "".join(f"{reason}\n" for reason in reasons or ["ready"])
    return HttpResponse(text, status=503 if reasons else 200, content_type="text/plain")
