"""`uchuu predict`: the wrong answers to expect, and multiple-choice options made from them."""

from __future__ import annotations

import argparse
import sys
from typing import Any, TextIO

from algebra import ReadingError, TaskError, Working, options, predict
from cli.jsonform import working_from_json
from cli.output import UNREADABLE, each_line, put


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the problem is worked, 2 when it is not."""
    parser = argparse.ArgumentParser(prog="uchuu predict", description="The wrong answers to expect.")
    parser.add_argument("--task", default="simplify")
    parser.add_argument("--given")
    parser.add_argument("--variable")
    parser.add_argument("--most", type=int, default=8)
    parser.add_argument("--options", type=int, metavar="COUNT", help="multiple-choice options in place of the list")
    parser.add_argument("--order", default="shuffled", choices=("shuffled", "ascending", "trap-first"))
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--jsonl", action="store_true")
    try:
        choice = parser.parse_args(arguments)
    except SystemExit as stop:
        return int(stop.code or 0)
    if choice.jsonl:
        return each_line(stdin.read(), out, lambda data: _from_object(data, choice.most))
    if not choice.given:
        print("uchuu predict: name the problem with --given", file=err)
        return UNREADABLE
    working = Working(choice.task, choice.given, (), choice.variable)
    try:
        if choice.options:
            rows = options(working, count=choice.options, seed=choice.seed, order=choice.order)
            if choice.json:
                put({"format": 1, "options": rows, "error": None}, out)
            else:
                for row in rows:
                    print(f"{'*' if row['right'] else ' '} {row['answer'].ljust(32)} {row['reason']}", file=out)
            return 0
        found = predict(working, most=choice.most)
    except (TaskError, ReadingError) as problem:
        if choice.json:
            put(_error(problem), out)
        else:
            print(f"uchuu predict: {getattr(problem, 'message', problem)}", file=err)
        return UNREADABLE
    if choice.json:
        put(found.to_json(), out)
        return 0
    print(f"{working.task}: {working.given}    right: {' or '.join(found.answer) or 'no solution'}", file=out)
    for item in found.wrong:
        row = item.to_json()
        print(f"  {row['answer'].ljust(28)} {item.names[0]} in line {item.at_line}: {item.done}", file=out)
        if item.refutation:
            print(f"      {item.refutation.text}", file=out)
    for text, code in found.unfinished:
        print(f"  {text.ljust(28)} right but unfinished: {code}", file=out)
    return 0


def _from_object(data: dict[str, Any], most: int) -> dict[str, Any]:
    fields = dict(data)
    fields.pop("most", None)
    try:
        return predict(working_from_json(fields), most=int(data.get("most", most))).to_json() | {"id": data.get("id")}
    except (TaskError, ReadingError) as problem:
        return _error(problem) | {"id": data.get("id")}


def _error(problem: Exception) -> dict[str, Any]:
    error = {
        "line": 0, "column": getattr(problem, "column", 1), "message": getattr(problem, "message", str(problem)),
        "code": getattr(problem, "code", "task"),
    }  # fmt: skip
    return {"format": 1, "answer": [], "wrong": [], "unfinished": [], "error": error}
