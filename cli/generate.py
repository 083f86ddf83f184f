"""`uchuu generate`: problems of a family, worked and verified."""

from __future__ import annotations

import argparse
import sys
from typing import TextIO

from algebra import TaskError, generate
from cli.output import UNREADABLE, put


def main(arguments: list[str], *, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when as many problems were made as were asked for, 1 when fewer, 2 when the question is unknown."""
    parser = argparse.ArgumentParser(prog="uchuu generate", description="Problems of a family.")
    parser.add_argument("--family", required=True)
    parser.add_argument("--level", type=int, default=1)
    parser.add_argument("--count", type=int, default=6)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--events", action="append", default=[])
    parser.add_argument("--json", action="store_true")
    try:
        options = parser.parse_args(arguments)
        found = generate(options.family, options.level, options.count, options.seed, events=options.events)
    except SystemExit as stop:
        return int(stop.code or 0)
    except TaskError as problem:
        print(f"uchuu generate: {problem}", file=err)
        return UNREADABLE
    rows = [
        {"task": s.working.task, "given": s.working.given, "variable": s.working.variable, "answer": list(s.answer), "method": s.method,
         "difficulty": s.difficulty.to_json()} for s in found
    ]  # fmt: skip
    if options.json:
        put({"format": 1, "problems": rows, "error": None}, out)
    else:
        for s in found:
            print(
                f"{s.working.given.ljust(44)} {', '.join(s.answer) or 'none'}    difficulty {s.difficulty.rating}",
                file=out,
            )
    return 0 if len(found) == options.count else 1
