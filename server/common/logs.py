"""Logs for a technician: one JSON object a line, each with the id of its request; never names, lines or words of
people."""

from __future__ import annotations

import json
import logging
import os
import re
import time
import uuid
from collections.abc import Callable
from contextvars import ContextVar
from datetime import UTC, datetime

from django.http import HttpRequest, HttpResponse

from server.common import metrics

SLOW = float(os.environ.get("UCHUU_SLOW_SECONDS", "1"))
"""From how many seconds on an answer is called slow."""
HEADER = "X-Request-ID"
_FITTING = re.compile(r"[A-Za-z0-9_.-]{8,64}")
_request_id: ContextVar[str] = ContextVar("request_id", default="")
_OWN = frozenset(vars(logging.makeLogRecord({}))) | {"message", "asctime", "request", "status_code", "taskName"}
requests = logging.getLogger("uchuu.request")


class JsonLines(logging.Formatter):
    """A record as one line of JSON: time, level, logger, text, request id, and what was given as `extra`."""

    def format(self, record: logging.LogRecord) -> str:
        """The line, without a line break."""
        told: dict[str, object] = {
            "time": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "logger": record.name,
            "text": record.getMessage(),
        }
        if _request_id.get():
            told["request"] = _request_id.get()
        told |= {key: value for key, value in vars(record).items() if key not in _OWN}
        if record.exc_info:
            told["trace"] = self.formatException(record.exc_info)
        return json.dumps(told, ensure_ascii=False, default=str)


def _id_of(request: HttpRequest) -> str:
    """The id that a proxy gave the request where it has the form of one, else a new one."""
    given = request.headers.get(HEADER, "")
    return given if _FITTING.fullmatch(given) else uuid.uuid4().hex


def _route(request: HttpRequest) -> str:
    """The pattern of the path, which names no sheet and no person."""
    match = request.resolver_match
    return f"/{match.route}" if match is not None and match.route else "page"


def request_log(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: gives every answer an id, counts it, and logs it with its route, status and time; what is slow as a
    warning, with the ids in its path."""

    def middleware(request: HttpRequest) -> HttpResponse:
        known = _request_id.set(_id_of(request))
        started = time.perf_counter()
        try:
            response = get_response(request)
            seconds = time.perf_counter() - started
            route = _route(request)
            metrics.answered(request.method or "", route, response.status_code, seconds)
            response.headers[HEADER] = _request_id.get()
            if route.startswith("/api/"):
                _tell(request, route, response.status_code, seconds)
            return response
        finally:
            _request_id.reset(known)

    return middleware


def _tell(request: HttpRequest, route: str, status: int, seconds: float) -> None:
    level = logging.WARNING if seconds >= SLOW else logging.INFO
    told: dict[str, object] = {"method": request.method, "route": route, "status": status, "ms": round(seconds * 1000)}
    if level == logging.WARNING and request.resolver_match is not None:
        told |= request.resolver_match.kwargs
    requests.log(level, "slow" if level == logging.WARNING else "answered", extra=told)
