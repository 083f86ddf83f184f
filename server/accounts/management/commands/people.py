"""`./uchuu people`: accounts from the command line, for who has the machine."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from server.accounts import people, services
from server.common.problems import Problem

BY = "the command line"


class Command(BaseCommand):
    help = "Lists, makes, resets and switches off accounts."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One action each: add, list, reset, unlock, disable, enable."""
        actions = parser.add_subparsers(dest="action", required=True, metavar="ACTION")
        add = actions.add_parser("add", help="a new account; its one-time word is printed")
        add.add_argument("username")
        add.add_argument("--name", default="", help="the name that is shown")
        add.add_argument("--manager", action="store_true", help="may manage people")
        add.add_argument("--no-teaching", action="store_true", help="manages only: no sheets, no workings")
        actions.add_parser("list", help="everybody, with what each may do")
        for action, words in (
            ("reset", "a one-time word in place of a forgotten password; without a second factor"),
            ("unlock", "forgets the wrong passwords that were tried for a name"),
            ("disable", "switches an account off; what it holds stays"),
            ("enable", "switches it on again"),
        ):
            actions.add_parser(action, help=words).add_argument("username")

    def handle(self, *args: Any, **options: Any) -> None:
        """Does it; raises CommandError with the reason where it can't be done."""
        try:
            getattr(self, options["action"])(options)
        except Problem as problem:
            raise CommandError(problem.detail) from problem

    def add(self, options: dict[str, Any]) -> None:
        """Makes an account."""
        user, word = people.make(
            options["username"],
            options["name"],
            manages=options["manager"],
            teaches=not options["no_teaching"],
            by=BY,
        )
        self._tell(user, word)

    def list(self, options: dict[str, Any]) -> None:
        """Prints everybody, a line each."""
        rows = [("log-in name", "name", "may", "last here")]
        for user in people.everybody():
            may = [word for word, has in (("teach", user.person.teaches), ("manage", user.person.manages)) if has] or [
                "nothing"
            ]
            state = " and ".join(may) if user.is_active else "switched off"
            rows.append(
                (
                    user.username,
                    user.first_name,
                    state,
                    f"{user.last_login:%Y-%m-%d %H:%M}" if user.last_login else "never",
                )
            )
        widths = [max(len(row[k]) for row in rows) for k in range(4)]
        for row in rows:
            self.stdout.write("  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip())

    def reset(self, options: dict[str, Any]) -> None:
        """Prints a new one-time word."""
        user = people.named(options["username"])
        self._tell(user, services.reset(user, by=BY))

    def unlock(self, options: dict[str, Any]) -> None:
        """Forgets wrong passwords."""
        people.unlock(people.named(options["username"]), by=BY)
        self.stdout.write(f"{options['username']} is locked nowhere any more.")

    def disable(self, options: dict[str, Any]) -> None:
        """Switches an account off."""
        self._switch(options["username"], active=False)

    def enable(self, options: dict[str, Any]) -> None:
        """Switches an account on again."""
        self._switch(options["username"], active=True)

    def _switch(self, username: str, *, active: bool) -> None:
        people.change(people.named(username), by=None, active=active)
        self.stdout.write(f"{username} is switched {'on' if active else 'off'}.")

    def _tell(self, user: User, word: str) -> None:
        self.stdout.write(
            f"{user.username} logs in once with the word  {word}  within 7 days and then chooses a password."
        )
