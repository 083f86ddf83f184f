"""`uchuu convert`: a sheet from one open form to another."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path
from typing import TextIO

from algebra import TaskError
from cli.output import UNREADABLE, parsed
from paper import FILE_FORMATS, read, written


def main(arguments: list[str], *, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when all of it was taken, 1 when a part was (the others are named), 2 when nothing was."""
    parser = argparse.ArgumentParser(prog="uchuu convert", description="A sheet from one open form to another.")
    parser.add_argument(
        "file", type=Path, help="its ending tells its form: .chain, .json, .csv, .tex, .txt, .zip (a QTI package)"
    )
    parser.add_argument("--to", choices=FILE_FORMATS, required=True)
    parser.add_argument("--out", type=Path, help="the file to write; standard output if none is said")
    parser.add_argument("--title", default="")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    try:
        form = options.file.suffix.removeprefix(".").replace("zip", "qti")
        sheet, left = read(options.file.read_bytes(), form, options.title)
        content = written(sheet, options.to)
        if options.out:
            options.out.write_bytes(content)
        elif options.to == "qti":
            raise TaskError("A package is written to a file: say which by --out.")
        else:
            out.write(content.decode())
    except TaskError as problem:
        print(f"uchuu convert: {problem.message}", file=err)
        return UNREADABLE
    except OSError as problem:
        print(f"uchuu convert: {problem}", file=err)
        return UNREADABLE
    for each in left:
        print(f"uchuu convert: {each.place}. {each.text}: {each.why}", file=err)
    return int(bool(left))
