"""`uchuu generate`: problems of a family, worked and verified."""

from __future__ import annotations

import argparse
import sys
from typing import TextIO

from algebra import DrawnProblem, DrawnProblems, TaskError, error_of, generate
from cli.output import UNREADABLE, parsed, put


def main(arguments: list[str], *, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when as many problems were made as were asked for, 1 when fewer, 2 when the question is unknown."""
    parser = argparse.ArgumentParser(prog="uchuu generate", description="Problems of a family.")
    parser.add_argument("--family", required=True)
    parser.add_argument("--level", type=int, default=1)
    parser.add_argument("--count", type=int, default=6)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--events", action="append", default=[])
    parser.add_argument("--json", action="store_true")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    try:
        found = generate(options.family, options.level, options.count, options.seed, events=options.events)
    except TaskError as problem:
        if options.json:
            put(DrawnProblems((), error_of(problem)), out)
        else:
            print(f"uchuu generate: {problem.message}", file=err)
        return UNREADABLE
    if options.json:
        rows = (
            DrawnProblem(
                s.working.task, s.working.given, s.working.variable, s.answer, s.method, s.difficulty, s.working.numbers
            )
            for s in found
        )
        put(DrawnProblems(tuple(rows)), out)
    else:
        for s in found:
            print(
                f"{s.working.given.ljust(44)} {', '.join(s.answer) or 'none'}    difficulty {s.difficulty.rating}",
                file=out,
            )
    return 0 if len(found) == options.count else 1
