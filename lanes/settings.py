"""How many processes answer questions, and how long and large a question may be; each a variable of the environment."""

from __future__ import annotations

import os


def _number(name: str, default: str) -> float:
    return float(os.environ.get(name, default))


LIGHT = int(_number("UCHUU_LIGHT", "3"))
"""Processes for light questions, of each process that asks."""
HEAVY = int(_number("UCHUU_HEAVY", "2"))
"""Processes for heavy questions, of each process that asks."""
LIGHT_SECONDS = _number("UCHUU_LIGHT_SECONDS", "0.2")
"""How long a light question may take before it is asked again among the heavy ones."""
HEAVY_SECONDS = _number("UCHUU_HEAVY_SECONDS", "2.5")
"""How long any other question may take."""
KEY_SECONDS = _number("UCHUU_KEY_SECONDS", "5")
"""How long the proof-reading of a whole key may take."""
VERSION_SECONDS = _number("UCHUU_VERSION_SECONDS", "20")
"""How long another version of a whole sheet may take."""
MEMORY = int(_number("UCHUU_QUESTION_MB", "500")) * 2**20
"""How much memory a question may take, in bytes, beyond what the process has before it."""
INLINE = os.environ.get("UCHUU_LANES") == "0"
"""Whether questions are answered in the process that asks, without limits: for tests and measurements of the core."""
