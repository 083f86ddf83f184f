"""/api/check: workings and lines that are not stored."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from server.checking import services
from server.checking.schemas import EchoIn, EchoOut, JsonObject, ReportOut, WorkingIn

router = Router()


@router.post("", response=ReportOut)
def check(request: HttpRequest, data: WorkingIn) -> JsonObject:
    """Verifies a working; the same shape as `./uchuu check --json`."""
    return services.check_working(data)


@router.post("/echo", response=EchoOut)
def echo(request: HttpRequest, data: EchoIn) -> EchoOut:
    """A line as it is understood, while it is being typed."""
    return services.echo_line(data.text, data.decimal)
