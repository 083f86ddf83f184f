"""Which version of the product this is; `pyproject.toml` and the changelog say the same, which a test holds."""

from __future__ import annotations

from algebra import VERSION

RELEASE = "0.7.0"
CORE = VERSION
"""The version of the core: reports that were made by another are made again."""
