"""`./uchuu export` and `./uchuu import`: sheets of a teacher as files, for who has the machine."""

from __future__ import annotations

import sys
from argparse import ArgumentParser
from base64 import b64encode
from pathlib import Path
from typing import Any, get_args

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError
from pydantic import ValidationError

from paper import FILE_FORMATS, INCOMING, KINDS, PAGE_SIZES
from server.accounts import people
from server.common.problems import Problem
from server.papers import services
from server.papers.schemas import PaperIn, TakeIn
from server.sheets.models import Sheet

_ENDINGS = {"zip": "qti"}


class Command(BaseCommand):
    help = "Lists a teacher's sheets, writes one to a file, takes one in."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """One action each: list, export, import."""
        actions = parser.add_subparsers(dest="action", required=True, metavar="ACTION")
        listed = actions.add_parser("list", help="the sheets of a teacher, each with its number")
        out = actions.add_parser("export", help="a sheet as a file; without a number, the sheets are listed")
        out.add_argument("sheet", nargs="?", type=int, help="its number")
        out.add_argument("--to", choices=(*FILE_FORMATS, "pdf"), default="json")
        out.add_argument("--kind", choices=KINDS, default="sheet", help="of a PDF")
        out.add_argument("--paper", choices=PAGE_SIZES, default="a4")
        out.add_argument("--out", type=Path, help="the file to write; standard output if none is said")
        into = actions.add_parser("import", help="a new sheet from a file")
        into.add_argument(
            "file", type=Path, help="its ending tells its form: .chain, .json, .csv, .tex, .txt, .zip (a QTI package)"
        )
        into.add_argument("--title", default="")
        for action in (listed, out, into):
            action.add_argument("--teacher", required=True, help="log-in name")

    def handle(self, *args: Any, **options: Any) -> None:
        """Does it; raises CommandError with the reason where it can't be done."""
        teacher = people.everybody().filter(username=options["teacher"]).first()
        if teacher is None:
            raise CommandError(f"Nobody has the log-in name “{options['teacher']}”.")
        try:
            {"list": self._list, "export": self._export, "import": self._import}[options["action"]](teacher, options)
        except Problem as problem:
            raise CommandError(problem.detail) from problem
        except OSError as problem:
            raise CommandError(str(problem)) from problem

    def _list(self, teacher: User, options: dict[str, Any]) -> None:
        for sheet in Sheet.objects.filter(owner=teacher).order_by("pk"):
            self.stdout.write(f"{sheet.pk}  {sheet.title}")

    def _export(self, teacher: User, options: dict[str, Any]) -> None:
        if options["sheet"] is None:
            return self._list(teacher, options)
        if not Sheet.objects.filter(pk=options["sheet"], owner=teacher).exists():
            raise CommandError(f"{teacher.username} has no sheet {options['sheet']}.")
        if options["to"] == "pdf":
            asked = PaperIn.model_validate({"kind": options["kind"], "paper": options["paper"]})
            (content,), doubts = services.pages_of(teacher, options["sheet"], asked, "pdf")
            for item, text in doubts:
                self.stderr.write(f"{item}: {text}")
        else:
            content = services.exported(teacher, options["sheet"], options["to"])
        if options["out"]:
            options["out"].write_bytes(content)
        else:
            sys.stdout.buffer.write(content)
        return None

    def _import(self, teacher: User, options: dict[str, Any]) -> None:
        path: Path = options["file"]
        ending = path.suffix.removeprefix(".").lower()
        form = _ENDINGS.get(ending, ending)
        if form not in get_args(TakeIn.model_fields["form"].annotation):
            raise CommandError(f"A sheet comes in as {', '.join(INCOMING)}, not as “{ending}”.")
        content = path.read_bytes()
        try:
            text = b64encode(content).decode() if form == "qti" else content.decode("utf-8-sig")
            asked = TakeIn.model_validate({"form": form, "text": text, "title": options["title"]})
        except UnicodeDecodeError as problem:
            raise CommandError(f"{path} is no text in UTF-8.") from problem
        except ValidationError as problem:
            raise CommandError(problem.errors()[0]["msg"]) from problem
        taken = services.take_in(teacher, asked)
        for each in taken.left:
            self.stderr.write(f"{each.place}. {each.text}: {each.why}")
        self.stdout.write(f"sheet {taken.sheet}")
