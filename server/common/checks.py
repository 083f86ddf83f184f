"""Checking a working, and how long that took: the core keeps no clock."""

from __future__ import annotations

import time
from dataclasses import replace

from algebra import Report, Working, check


def timed_check(working: Working) -> Report:
    """The report on a working with its `ms`: what the check took, in milliseconds."""
    started = time.perf_counter()
    report = check(working)
    return replace(report, ms=round((time.perf_counter() - started) * 1000, 2))
