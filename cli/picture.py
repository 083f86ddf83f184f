"""`uchuu picture`: the chain of a working, or the graph of a function, as SVG or PNG."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path
from typing import TextIO

from algebra import ReadingError, TaskError, read_workings
from cli.output import UNREADABLE, parsed
from paper import SHOWN, picture_of


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the picture was written, 2 when it was not."""
    parser = argparse.ArgumentParser(
        prog="uchuu picture", description="A chain with its links, or a graph, as a picture."
    )
    parser.add_argument("file", help="workings in text form; - for standard input")
    parser.add_argument("--out", required=True, type=Path, help="the file to write: .svg or .png")
    parser.add_argument("--number", type=int, default=1, help="which working of the file")
    parser.add_argument("--shown", choices=SHOWN, default="chain")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    try:
        form = options.out.suffix.removeprefix(".")
        if form not in ("svg", "png"):
            raise TaskError("A picture is a file in .svg or .png.")
        text = stdin.read() if options.file == "-" else Path(options.file).read_text(encoding="utf-8")
        workings = read_workings(text)
        if not 1 <= options.number <= len(workings):
            raise TaskError(f"There are {len(workings)} workings in it.")
        options.out.write_bytes(picture_of(workings[options.number - 1], options.shown, form))
    except (TaskError, ReadingError) as problem:
        print(f"uchuu picture: {problem.message}", file=err)
        return UNREADABLE
    except (OSError, UnicodeDecodeError) as problem:
        print(f"uchuu picture: {problem}", file=err)
        return UNREADABLE
    print(str(options.out), file=out)
    return 0
