"""`uchuu predict`: the wrong answers to expect, and multiple-choice options made from them."""

from __future__ import annotations

import argparse
import sys
from typing import Any, TextIO

import lanes
from algebra import (
    OPTION_ORDERS,
    JsonObject,
    OptionsReport,
    Prediction,
    PredictionReport,
    ReadingError,
    TaskError,
    Working,
    error_of,
    json_object,
)
from cli.jsonform import ignored_in, with_note, working_from_json
from cli.output import UNREADABLE, each_line, parsed, put


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the problem is worked, 2 when it is not."""
    parser = argparse.ArgumentParser(prog="uchuu predict", description="The wrong answers to expect.")
    parser.add_argument("--task", help="else solve for an equation, simplify for an expression")
    parser.add_argument("--given")
    parser.add_argument("--variable")
    parser.add_argument("--numbers", default="real")
    parser.add_argument("--most", type=int, default=8)
    parser.add_argument("--options", type=int, metavar="COUNT", help="multiple-choice options in place of the list")
    parser.add_argument("--order", default="shuffled", choices=OPTION_ORDERS)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--jsonl", action="store_true")
    choice = parsed(parser, arguments)
    if isinstance(choice, int):
        return choice
    if choice.jsonl:
        return each_line(stdin.read(), out, lambda data: _from_object(data, choice.most))
    if not choice.given:
        print("uchuu predict: name the problem with --given", file=err)
        return UNREADABLE
    task = choice.task or ("solve" if "=" in choice.given else "simplify")
    working = Working(task, choice.given, (), choice.variable, choice.numbers)
    try:
        if choice.options:
            rows = lanes.options(working, count=choice.options, seed=choice.seed, order=choice.order)
            if choice.json:
                put(OptionsReport(rows), out)
            else:
                for row in rows:
                    print(f"{'*' if row.right else ' '} {row.answer.ljust(32)} {row.reason}", file=out)
            return 0
        found = lanes.predict(working, most=choice.most)
    except (TaskError, ReadingError) as problem:
        if choice.json:
            put(PredictionReport((), (), (), error_of(problem)), out)
        else:
            print(f"uchuu predict: {problem.message}", file=err)
        return UNREADABLE
    if choice.json:
        put(found.report(), out)
    else:
        print(printed(working, found), file=out)
    return 0


def printed(working: Working, found: Prediction) -> str:
    """The wrong answers for a terminal, each with the line at which it parts from the right working and its
    refutation."""
    rows = [f"{working.task}: {working.given}    right: {' or '.join(found.answer) or 'no solution'}"]
    for item in found.wrong:
        rows.append(f"  {item.text.ljust(28)} {item.names[0]} in line {item.at_line}: {item.done}")
        if item.refutation:
            rows.append(f"      {item.refutation.text}")
    rows += [f"  {item.answer.ljust(28)} right but unfinished: {item.missing}" for item in found.unfinished]
    return "\n".join(rows)


def _from_object(data: dict[str, Any], most: int) -> JsonObject:
    fields = dict(data)
    most = fields.pop("most", most)
    try:
        if not isinstance(most, int):
            raise TaskError("The field “most” has the wrong kind of value.")
        found = lanes.predict(working_from_json(fields), most=most).report()
    except (TaskError, ReadingError) as problem:
        found = PredictionReport((), (), (), error_of(problem))
    return with_note(json_object(found) | {"id": data.get("id")}, ignored_in(fields))
