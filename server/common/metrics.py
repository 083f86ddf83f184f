"""Figures for a monitor, in Prometheus's text form: counted over all processes of the server."""

from __future__ import annotations

import os

from django.http import HttpRequest, HttpResponse, HttpResponseNotFound
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe
from prometheus_client import CONTENT_TYPE_LATEST, REGISTRY, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector, mark_process_dead

FOLDER = "PROMETHEUS_MULTIPROC_DIR"
"""The variable that names the folder in which the processes keep their counts; without it each tells its own."""
SECONDS = (0.01, 0.025, 0.05, 0.1, 0.2, 0.5, 1, 2.5, 5, 10)

_answers = Counter("uchuu_answers", "Answers by method, route and status.", ["method", "route", "status"])
_seconds = Histogram("uchuu_answer_seconds", "How long answers took, by route.", ["route"], buckets=SECONDS)


def answered(method: str, route: str, status: int, seconds: float) -> None:
    """Counts an answer."""
    _answers.labels(method, route, str(status)).inc()
    _seconds.labels(route).observe(seconds)


def process_ended(pid: int) -> None:
    """Called when a process of the server has ended."""
    if os.environ.get(FOLDER):
        mark_process_dead(pid)  # type: ignore[no-untyped-call]


@never_cache
@require_safe
def show(request: HttpRequest) -> HttpResponse:
    """The figures, for who asks on this machine itself; to anybody else, and through a proxy, there is no such page."""
    if request.META.get("REMOTE_ADDR") not in ("127.0.0.1", "::1") or "X-Forwarded-For" in request.headers:
        return HttpResponseNotFound()
    registry = REGISTRY
    if os.environ.get(FOLDER):
        registry = CollectorRegistry()
        MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)
