"""Erases students once more whom a backup has brought back. The marks are read from standard input, one a line."""

from __future__ import annotations

import sys
from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from server.marking import erasing


class Command(BaseCommand):
    help = "Erases again who was erased before and has come back with a backup."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Says how many these were."""
        count = erasing.erase_again(sys.stdin.read().split())
        if count:
            self.stdout.write(f"uchuu: {count} students who had been erased since were erased again")
