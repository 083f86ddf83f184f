"""Shared by all tests: long runs are left out unless asked for."""

import os

import pytest


def pytest_collection_modifyitems(config, items):
    if os.environ.get("UCHUU_LONG") == "1":
        return
    skip = pytest.mark.skip(reason="only in ./uchuu test --long")
    for item in items:
        if "long" in item.keywords:
            item.add_marker(skip)
