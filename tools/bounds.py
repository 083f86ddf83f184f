"""What a process that computes may use of the machine's memory: the core counts its work, this is for what it could not
foresee."""

from __future__ import annotations

import os
import resource

MEMORY = int(os.environ.get("UCHUU_MEMORY_MB", "2048")) * 2**20
"""Most address space of a process, in bytes."""


def bound_memory() -> None:
    """Bounds what this process may use; a bound that is lower already stays."""
    soft, hard = resource.getrlimit(resource.RLIMIT_AS)
    lowest = min((bound for bound in (soft, hard, MEMORY) if bound != resource.RLIM_INFINITY), default=MEMORY)
    resource.setrlimit(resource.RLIMIT_AS, (lowest, hard))
