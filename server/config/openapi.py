"""The description of the HTTP API, from which the types of the front end are made."""

from __future__ import annotations

from typing import Any

from algebra import complete_schema
from server.config.api import api


def document() -> dict[str, Any]:
    """The OpenAPI document. Of the core's records it says which fields are always there."""
    found: dict[str, Any] = dict(api.get_openapi_schema())
    complete_schema(found["components"]["schemas"])
    return found
