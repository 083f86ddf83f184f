"""How a password is kept."""

from __future__ import annotations

from django.contrib.auth.hashers import Argon2PasswordHasher

from server.common.hashing import turn


class PasswordHasher(Argon2PasswordHasher):
    """Argon2id with 19 MiB and two passes, the least that the OWASP cheat sheet on password storage names (2024): less
    than a tenth of a second, and twelve teachers who log in at once fit into memory. A password that was kept by other
    figures is hashed anew when its owner logs in."""

    time_cost, memory_cost, parallelism = 2, 19 * 1024, 1

    def encode(self, password: str, salt: str) -> str:
        """The hash of a password, when its turn comes."""
        with turn():
            return super().encode(password, salt)

    def verify(self, password: str, encoded: str) -> bool:
        """Whether a password has this hash, when its turn comes."""
        with turn():
            return super().verify(password, encoded)
