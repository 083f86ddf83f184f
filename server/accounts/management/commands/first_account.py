"""Says how the first account is made, while there is none."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from server.accounts import people
from server.accounts.services import needs_setup


class Command(BaseCommand):
    help = "Prints the word with which the first account is made, while there is none."

    def handle(self, *args: Any, **options: Any) -> None:
        """Prints it, or nothing."""
        if needs_setup():
            word = people.word_of_first_account()
            self.stdout.write(f"uchuu: nobody has an account yet. Make the first one on its page with the word {word}")
