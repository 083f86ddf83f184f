"""`uchuu solve`: a worked solution, or the methods that apply side by side."""

from __future__ import annotations

import argparse
import sys
from dataclasses import replace
from typing import Any, TextIO

import lanes
from algebra import (
    GRAINS,
    JsonObject,
    MethodRow,
    MethodsReport,
    ReadingError,
    Solution,
    SolutionReport,
    TaskError,
    Working,
    echo,
    json_object,
    refused,
)
from cli.jsonform import ignored_in, with_note, working_from_json
from cli.output import UNREADABLE, each_line, parsed, put


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the problem is worked, 2 when it is not."""
    parser = argparse.ArgumentParser(prog="uchuu solve", description="Work a problem.")
    parser.add_argument("--task", default="solve")
    parser.add_argument("--given")
    parser.add_argument("--variable")
    parser.add_argument("--numbers", default="real")
    parser.add_argument("--method")
    parser.add_argument("--methods", action="store_true", help="the methods that apply, with lines and difficulty")
    parser.add_argument("--grain", default="board", choices=GRAINS)
    parser.add_argument("--convention", action="append", default=[], metavar="KEY=VALUE")
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--latex", action="store_true", help="LaTeX beside every expression of the JSON")
    parser.add_argument("--jsonl", action="store_true", help="read one JSON object a line, write one a line")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    if options.jsonl:
        return each_line(stdin.read(), out, lambda data: _from_object(data, latex=options.latex))
    if not options.given:
        print("uchuu solve: name the problem with --given", file=err)
        return UNREADABLE
    conventions = dict(pair.partition("=")[::2] for pair in options.convention)
    working = Working(options.task, options.given, (), options.variable, options.numbers, conventions)
    try:
        if options.methods:
            return _methods(working, options.json, out)
        solution = lanes.work(working, method=options.method, grain=options.grain)
    except (TaskError, ReadingError) as problem:
        if options.json:
            put(refused(problem, working), out)
        else:
            print(f"uchuu solve: {problem.message}", file=err)
        return UNREADABLE
    if options.json:
        put(_report(solution, latex=options.latex), out)
    else:
        print(printed(solution), file=out)
    return 0


def _from_object(data: dict[str, Any], *, latex: bool) -> JsonObject:
    fields = dict(data)
    method, grain = fields.pop("method", None), fields.pop("grain", "board")
    try:
        found = _report(lanes.work(working_from_json(fields), method=method, grain=grain), latex=latex)
        return with_note(json_object(found), ignored_in(fields))
    except (TaskError, ReadingError) as problem:
        return json_object(refused(problem)) | {"id": data.get("id")}


def _report(solution: Solution, *, latex: bool) -> SolutionReport:
    found = solution.report()
    if not latex:
        return found

    def set_in_latex(text: str) -> str:
        shown = echo(text)
        return f"{shown.left} {shown.right}".strip()

    steps = (replace(s, before_latex=set_in_latex(s.before), after_latex=set_in_latex(s.after)) for s in found.steps)
    return replace(found, steps=tuple(steps))


def _methods(working: Working, as_json: bool, out: TextIO) -> int:
    found = lanes.all_methods(working)
    if as_json:
        rows = (MethodRow(s.method, len(s.steps), s.answer, s.difficulty) for s in found if not s.already)
        put(MethodsReport(tuple(rows), already=found[0].already if found else ""), out)
    elif found and found[0].already:
        print(found[0].already, file=out)
    else:
        for s in found:
            print(f"{s.method.ljust(24)} {len(s.steps):2d} lines   difficulty {s.difficulty.rating}", file=out)
    return 0 if found else UNREADABLE


def printed(solution: Solution) -> str:
    """The worked solution for a terminal."""
    if solution.already:
        return f"{solution.working.task}: {solution.working.given}    {solution.already}"
    width = max(len(step.text) for step in solution.steps)
    rows = [f"{solution.working.task}: {solution.working.given}    by {solution.method}"]
    rows += [f"  {step.text.ljust(width)}   {step.rule.name}. {step.reason}" for step in solution.steps]
    parts = ", ".join(f"{name} {value}" for name, value in solution.difficulty.parts.items())
    rows.append(
        f"  answer: {', '.join(solution.answer) or 'none'}    difficulty {solution.difficulty.rating} ({parts})"
    )
    return "\n".join(rows)
