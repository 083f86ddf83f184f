"""How a student's secret is kept."""

from __future__ import annotations

from django.contrib.auth.hashers import ScryptPasswordHasher


class SecretHasher(ScryptPasswordHasher):
    """Scrypt at a tenth of what a password costs: a school comes in within minutes, and four letters are not made safe
    by slowness but by the bound on wrong tries."""

    algorithm = "room_scrypt"
    work_factor = 2**13
    parallelism = 1
