"""/api/check: workings and lines that are not stored."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from algebra import Echo, Report, understood
from server.checking.schemas import EchoIn, WorkingIn
from server.common.checks import timed_check

router = Router()


@router.post("", response=Report)
def check(request: HttpRequest, data: WorkingIn) -> Report:
    """Verifies a working; the same shape as `./uchuu check --json`."""
    return timed_check(data.working())


@router.post("/echo", response=Echo)
def echo(request: HttpRequest, data: EchoIn) -> Echo:
    """A line as it is understood, while it is being typed."""
    return understood(data.text, decimal=data.decimal)
