"""`uchuu print`: a file of workings as a sheet on paper, with its answers or its worked key."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path
from typing import TextIO

from algebra import TaskError, read_workings
from cli.output import UNREADABLE, parsed
from paper import (
    KINDS,
    PAGE_SIZES,
    PagesError,
    Settings,
    Wanted,
    as_pdf,
    as_png,
    as_svg,
    in_other_order,
    item_form,
    planned,
    source_of,
)


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the file was written, 1 when a key in it can't be relied on (the sheet is written all the same), 2
    when nothing was."""
    parser = argparse.ArgumentParser(prog="uchuu print", description="Workings as a sheet, PDF.")
    parser.add_argument("file", help="workings in text form; - for standard input")
    parser.add_argument("--out", required=True, help="the PDF to write; a name in .svg or .png gives a picture a page")
    parser.add_argument("--kind", choices=KINDS, default="sheet")
    parser.add_argument("--paper", choices=PAGE_SIZES, default="a4")
    parser.add_argument("--columns", type=int, choices=(1, 2, 3), default=1)
    parser.add_argument("--space", choices=("blank", "lines", "squares", "none"), default="blank")
    parser.add_argument("--title", default="")
    parser.add_argument("--version", default="A")
    parser.add_argument("--form", type=int, choices=range(10), default=0, help="another order of the same items")
    parser.add_argument("--reasons", action="store_true", help="with the reason beside each line of the key")
    parser.add_argument("--marks", action="store_true", help="what each item is worth beside it, and the sum")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    try:
        text = stdin.read() if options.file == "-" else Path(options.file).read_text(encoding="utf-8")
        workings = read_workings(text)
        if not workings:
            raise TaskError("There is no problem in it.")
        first = text.partition("\n")[0]
        title = options.title.strip() or (first.lstrip("# ").strip() if first.startswith("#") else "") or "Sheet"
        plan = planned(
            title,
            in_other_order([Wanted(working) for working in workings], options.form),
            version=options.version,
            form=item_form(options.kind),
        )
        settings = Settings(
            options.kind, options.paper, options.columns, options.space, reasons=options.reasons, marks=options.marks
        )
        _write(Path(options.out), source_of(plan, settings))
    except TaskError as problem:
        print(f"uchuu print: {problem.message}", file=err)
        return UNREADABLE
    except (OSError, UnicodeDecodeError, PagesError) as problem:
        print(f"uchuu print: {problem}", file=err)
        return UNREADABLE
    for item in plan.items:
        if item.trouble:
            print(f"uchuu print: {item.number}. {item.working.given}: {item.trouble}", file=err)
    print(f"{options.out}: {len(plan.items)} items, code {plan.code} {plan.version}", file=out)
    return int(any(item.trouble for item in plan.items))


def _write(path: Path, source: str) -> None:
    """The document as PDF; or its pages as pictures, the second and further ones with their number in the name."""
    pictures = {".svg": as_svg, ".png": as_png}.get(path.suffix)
    if pictures is None:
        path.write_bytes(as_pdf(source))
        return
    for number, page in enumerate(pictures(source), start=1):
        name = path if number == 1 else path.with_name(f"{path.stem}-{number}{path.suffix}")
        name.write_bytes(page)
