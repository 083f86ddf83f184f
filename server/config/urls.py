"""The API under /api/, and the one page for every other path."""

from __future__ import annotations

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from server.config.api import api


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest, path: str = "") -> HttpResponse:
    """The built front end's page; its router reads the path."""
    if path.startswith(("api/", "assets/")):
        raise Http404
    index = settings.WEB_DIST / "index.html"
    if not index.is_file():
        return HttpResponse("The front end is not built. Run ./uchuu start.", status=503, content_type="text/plain")
    return HttpResponse(index.read_bytes(), content_type="text/html; charset=utf-8")


urlpatterns = [path("api/", api.urls), re_path(r"^(?P<path>.*)$", page)]
