"""`uchuu analyse`: the features of a rational function."""

from __future__ import annotations

import argparse
import sys
from typing import Any, TextIO

import lanes
from algebra import FeaturesReport, JsonObject, json_object
from cli.output import UNREADABLE, each_line, parsed, put


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the function is analysed, 2 when it is not."""
    parser = argparse.ArgumentParser(prog="uchuu analyse", description="Domain, holes, asymptotes, intercepts, ends.")
    parser.add_argument("--given")
    parser.add_argument("--variable")
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--jsonl", action="store_true")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    if options.jsonl:
        return each_line(stdin.read(), out, _from_object)
    if not options.given:
        print("uchuu analyse: name the function with --given", file=err)
        return UNREADABLE
    found = lanes.analysed(options.given, variable=options.variable)
    if options.json:
        put(found, out)
    elif found.error:
        print(f"uchuu analyse: {found.error.message}", file=err)
    else:
        print(printed(found), file=out)
    return UNREADABLE if found.error else 0


def _from_object(data: dict[str, Any]) -> JsonObject:
    found = lanes.analysed(str(data.get("given", "")), variable=data.get("variable"))
    return json_object(found) | {"id": data.get("id")}


def printed(found: FeaturesReport) -> str:
    """The features for a terminal, one a line."""

    def points(pairs: tuple[tuple[str, str], ...]) -> str:
        return ", ".join(f"({x}, {y})" for x, y in pairs)

    entries = [
        ("excluded values", ", ".join(found.excluded)),
        ("holes", points(found.holes)),
        ("vertical asymptotes", ", ".join(found.vertical_asymptotes)),
        ("horizontal asymptote", found.horizontal_asymptote),
        ("oblique asymptote", found.oblique_asymptote),
        ("x-intercepts", ", ".join(found.x_intercepts)),
        ("y-intercept", found.y_intercept),
        ("range", found.range),
    ]
    rows = [f"{name.ljust(22)} {value or 'none'}" for name, value in entries]
    for sign, limit in found.end_behaviour.items():
        rows.append(f"{'end behaviour'.ljust(22)} x → {'-' if sign == '-' else ''}∞, y → {limit}")
    return "\n".join([*rows, f"{'points on the grid'.ljust(22)} {points(found.grid_points)}"])
