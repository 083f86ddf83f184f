"""/api/account: the session."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.http import HttpRequest
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router
from ninja.decorators import decorate_view

from server.accounts import services
from server.accounts.schemas import Credentials, NewAccount, Session, Teacher
from server.common.schemas import Detail

router = Router()


def _session(user: User | None) -> Session:
    teacher = None
    if user is not None:
        teacher = Teacher(id=user.pk, username=user.username, name=user.first_name or user.username)
    return Session(teacher=teacher, needs_setup=user is None and services.needs_setup())


@router.get("/session", response=Session, auth=None)
@decorate_view(ensure_csrf_cookie)
def session(request: HttpRequest) -> Session:
    """Who is logged in. Sets the CSRF cookie that every change needs."""
    return _session(services.current(request))


@router.post("/log-in", response={200: Session, 400: Detail, 429: Detail}, auth=None)
@decorate_view(csrf_protect)
def log_in(request: HttpRequest, data: Credentials) -> Session:
    """Begins a session; refused where name and password don't fit, and for a while after ten wrong passwords."""
    return _session(services.log_in(request, data.username, data.password))


@router.post("/set-up", response={200: Session, 400: Detail}, auth=None)
@decorate_view(csrf_protect)
def set_up(request: HttpRequest, data: NewAccount) -> Session:
    """The first account, while there is none."""
    return _session(services.create_first(request, data.username, data.password, data.name))


@router.post("/log-out", response=Session)
def log_out(request: HttpRequest) -> Session:
    """Ends the session."""
    services.log_out(request)
    return _session(None)
