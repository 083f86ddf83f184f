"""The API under /api/, the two questions of health, and the one page for every path of a screen."""

from __future__ import annotations

import re

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from server.common import metrics
from server.config import health
from server.config.api import api

SCREENS = re.compile(
    r"(|room|bank|build|classes(/\d+/patterns)?|keys|log-in|people|account|sets/\d+(/(patterns|pages|room|slips))?|sheets/\d+/print|sheets/\d+(/\d+)?(/(work|anticipate|methods|board|graph))?)/?"
)
"""The paths of screens, as the front end's router has them (a test holds the two against each other)."""


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest, path: str = "") -> HttpResponse:
    """The built front end's page, whose router reads the path; with status 404 where no screen has that path."""
    if path.startswith(("api/", "assets/")):
        raise Http404
    index = settings.WEB_DIST / "index.html"
    if not index.is_file():
        return HttpResponse("The front end is not built. Run ./uchuu start.", status=503, content_type="text/plain")
    status = 200 if SCREENS.fullmatch(path) else 404
    return HttpResponse(index.read_bytes(), status=status, content_type="text/html; charset=utf-8")


urlpatterns = [
    path("api/", api.urls),
    path("healthz", health.alive),
    path("readyz", health.ready),
    path("metrics", metrics.show),
    re_path(r"^(?P<path>.*)$", page),
]
