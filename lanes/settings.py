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
TEACHER_SECONDS = _number("UCHUU_TEACHER_SECONDS", "20")
"""How many processor seconds the questions of one teacher may use at once, and how many more each minute."""
STUDENT_SECONDS = _number("UCHUU_STUDENT_SECONDS", "6")
"""How many those of one student may use."""
PROCESSES = int(_number("UCHUU_PROCESSES", "0")) or max(2, min(os.cpu_count() or 2, 8))
"""How many processes the server has: one a processor, two at least and eight at most."""
MEMORY = int(_number("UCHUU_QUESTION_MB", "500")) * 2**20
"""How much memory a question may take, in bytes, beyond what the process has before it."""
INLINE = os.environ.get("UCHUU_LANES") == "0"
"""Whether questions are answered in the process that asks, without limits: for tests and measurements of the core."""
