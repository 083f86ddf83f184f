"""/api/check: workings and lines that are not stored."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

import lanes
from algebra import Echo, Report, understood
from server.accounts.allowance import spend
from server.checking.schemas import EchoIn, TypesetIn, TypesetOut, WorkingIn
from server.common.schemas import Detail
from server.common.who import person_of

router = Router()


@router.post("", response={200: Report, 429: Detail})
def check(request: HttpRequest, data: WorkingIn) -> Report:
    """Verifies a working; the same shape as `./uchuu check --json`."""
    spend(person_of(request))
    return lanes.check(data.working())


@router.post("/echo", response=Echo)
def echo(request: HttpRequest, data: EchoIn) -> Echo:
    """A line as it is understood, while it is being typed."""
    return understood(data.text, decimal=data.decimal)


@router.post("/typeset", response=TypesetOut)
def typeset(request: HttpRequest, data: TypesetIn) -> TypesetOut:
    """The LaTeX of parts, values and lines that are given out in the plain notation."""
    found = [understood(text) for text in data.texts]
    return TypesetOut(latex=["" if echo.error else echo.latex for echo in found])
