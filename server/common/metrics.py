"""Figures for a monitor, in Prometheus's text form: counted over all processes of the server."""

from __future__ import annotations

import os

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse, HttpResponseNotFound
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe
from prometheus_client import (
    CONTENT_TYPE_LATEST,
    REGISTRY,
    CollectorRegistry,
    Counter,
    Gauge,
    Histogram,
    generate_latest,
)
from prometheus_client.multiprocess import MultiProcessCollector, mark_process_dead

from server.common.queue import queue_state

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
        mark_process_dead(pid)  # type: ignore[no-untyped-call]  # the library has no types


@never_cache
@require_safe
def show(request: HttpRequest) -> HttpResponse:
    """The figures, for who asks on this machine itself; to anybody else, and through a proxy, there is no such page."""
    if request.META.get("REMOTE_ADDR") not in ("127.0.0.1", "::1") or "X-Forwarded-For" in request.headers:
        return HttpResponseNotFound()
    registry = REGISTRY
    if os.environ.get(FOLDER):
        registry = CollectorRegistry()
        MultiProcessCollector(registry)  # type: ignore[no-untyped-call]  # the library has no types
    return HttpResponse(generate_latest(registry) + _waiting(), content_type=CONTENT_TYPE_LATEST)


def _waiting() -> bytes:
    """The queue's figures; none while the database does not answer."""
    try:
        state = queue_state()
    except DatabaseError:
        return b""
    held = CollectorRegistry()
    jobs = Gauge("uchuu_jobs", "Jobs in the queue, by their state.", ["state"], registry=held)
    for name, count in (("waiting", state.waiting), ("under way", state.under_way), ("failed", state.failed)):
        jobs.labels(name).set(count)
    Gauge("uchuu_workers", "Workers that live.", registry=held).set(state.workers)
    Gauge("uchuu_oldest_job_seconds", "How long the first in the queue has waited.", registry=held).set(state.oldest)
    return generate_latest(held)
