"""`uchuu like` and `uchuu ladder`: problems like one that stands, and ladders of rising problems."""

from __future__ import annotations

import argparse
import sys
from dataclasses import replace
from typing import TextIO

from algebra import (
    TASKS,
    Difficulty,
    DrawnProblem,
    DrawnProblems,
    LadderWish,
    ReadingError,
    Rung,
    Solution,
    TaskError,
    Working,
    error_of,
    ladder,
    like,
)
from cli.output import UNREADABLE, parsed, put


def drawn(solution: Solution) -> DrawnProblem:
    """A worked problem as it is given out."""
    return _given_out(solution.working, solution.answer, solution.method, solution.difficulty, solution.family)


def _drawn_of(rung: Rung) -> DrawnProblem:
    found = _given_out(rung.working, rung.answer, rung.method, rung.difficulty, rung.family)
    return replace(found, level=rung.level, adds=rung.adds or None)


def _given_out(
    working: Working, answer: tuple[str, ...], method: str, difficulty: Difficulty, family: str
) -> DrawnProblem:
    return DrawnProblem(
        working.task, working.given, working.variable, answer, method, difficulty, working.numbers, family, None, None
    )


def like_main(arguments: list[str], *, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when as many problems were found as were asked for, 1 when fewer, 2 when the problem is not worked."""
    parser = argparse.ArgumentParser(prog="uchuu like", description="Problems like one: same structure, other numbers.")
    parser.add_argument("--given", required=True)
    parser.add_argument("--task", choices=TASKS)
    parser.add_argument("--variable")
    parser.add_argument("--numbers", choices=("real", "complex"), default="real")
    parser.add_argument("--method")
    _common(parser, count=3)
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    task = options.task or ("solve" if "=" in options.given else "simplify")
    working = Working(
        task, options.given, (), variable=options.variable, numbers=options.numbers, method=options.method
    )
    try:
        found = like(working, options.count, options.seed)
    except (TaskError, ReadingError) as problem:
        return _refused("like", problem, as_json=options.json, out=out, err=err)
    _show([drawn(solution) for solution in found], as_json=options.json, out=out)
    return int(len(found) < options.count)


def ladder_main(arguments: list[str], *, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when as many problems were made as were asked for, 1 when fewer, 2 when the question is unknown."""
    parser = argparse.ArgumentParser(prog="uchuu ladder", description="Problems by rising difficulty.")
    parser.add_argument("--family", action="append", default=[], help="once for each; may be left out beside --slip")
    parser.add_argument("--slip", default="", help="a slip that lurks in every problem")
    parser.add_argument("--from", type=int, default=1, dest="low", help="the lowest level")
    parser.add_argument("--to", type=int, dest="high", help="the highest level")
    parser.add_argument("--events", action="append", default=[])
    parser.add_argument("--largest", type=int, default=400, help="the largest number in given and answer")
    parser.add_argument("--untaught", action="append", default=[], help="a method or rule that the class does not know")
    _common(parser, count=12)
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    try:
        found = ladder(
            LadderWish(
                tuple(options.family),
                options.count,
                options.seed,
                options.low,
                options.high,
                tuple(options.events),
                options.largest,
                tuple(options.untaught),
                slip=options.slip,
            )
        )
    except (TaskError, ReadingError) as problem:
        return _refused("ladder", problem, as_json=options.json, out=out, err=err)
    _show([_drawn_of(rung) for rung in found], as_json=options.json, out=out)
    return int(len(found) < options.count)


def _common(parser: argparse.ArgumentParser, *, count: int) -> None:
    parser.add_argument("--count", type=int, default=count)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--json", action="store_true")


def _refused(name: str, problem: TaskError | ReadingError, *, as_json: bool, out: TextIO, err: TextIO) -> int:
    if as_json:
        put(DrawnProblems((), error_of(problem)), out)
    else:
        print(f"uchuu {name}: {problem.message}", file=err)
    return UNREADABLE


def _show(rows: list[DrawnProblem], *, as_json: bool, out: TextIO) -> None:
    if as_json:
        put(DrawnProblems(tuple(rows)), out)
        return
    for row in rows:
        answer = ", ".join(row.answer) or "none"
        print(
            f"{row.difficulty.rating or 0:4.1f}  {row.given.ljust(40)} {answer.ljust(24)} {row.adds or ''}".rstrip(),
            file=out,
        )
