"""Response headers that hold the page to its own host."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

POLICY = (
    "default-src 'self'; img-src 'self' data:; font-src 'self' data:; "
    "object-src 'none'; base-uri 'self'; form-action 'self'; frame-ancestors 'none'"
)


Middleware = Callable[[HttpRequest], HttpResponse]


def nothing_kept(get_response: Middleware) -> Middleware:
    """Middleware: what the API says belongs to a person, so no browser or proxy may keep it."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    return middleware


def content_security_policy(get_response: Middleware) -> Middleware:
    """Middleware: no page may load anything from elsewhere, nor run or style by what stands in its markup."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response

    return middleware
