"""`uchuu analyse`: the features of a rational function."""

from __future__ import annotations

import argparse
import sys
from typing import TextIO

from algebra import analysis_json
from cli.output import UNREADABLE, each_line, put

_WORDS = {
    "excluded": "excluded values", "holes": "holes", "vertical_asymptotes": "vertical asymptotes", "horizontal_asymptote": "horizontal asymptote",
    "oblique_asymptote": "oblique asymptote", "x_intercepts": "x-intercepts", "y_intercept": "y-intercept", "range": "range",
}  # fmt: skip


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns 0 when the function is analysed, 2 when it is not."""
    parser = argparse.ArgumentParser(prog="uchuu analyse", description="Domain, holes, asymptotes, intercepts, ends.")
    parser.add_argument("--given")
    parser.add_argument("--variable")
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--jsonl", action="store_true")
    try:
        options = parser.parse_args(arguments)
    except SystemExit as stop:
        return int(stop.code or 0)
    if options.jsonl:
        return each_line(
            stdin.read(),
            out,
            lambda data: (
                analysis_json(str(data.get("given", "")), variable=data.get("variable")) | {"id": data.get("id")}
            ),
        )
    if not options.given:
        print("uchuu analyse: name the function with --given", file=err)
        return UNREADABLE
    found = analysis_json(options.given, variable=options.variable)
    if options.json:
        put(found, out)
    elif found["error"]:
        print(f"uchuu analyse: {found['error']['message']}", file=err)
    else:
        for key, word in _WORDS.items():
            value = found[key]
            if isinstance(value, list):
                value = ", ".join(f"({a}, {b})" for a, b in value) if key == "holes" else ", ".join(value)
            print(f"{word.ljust(22)} {value or 'none'}", file=out)
        for sign, limit in found["end_behaviour"].items():
            print(f"{'end behaviour'.ljust(22)} x → {'-' if sign == '-' else ''}∞, y → {limit}", file=out)
        points = ", ".join(f"({x}, {y})" for x, y in found["grid_points"])
        print(f"{'points on the grid'.ljust(22)} {points}", file=out)
    return UNREADABLE if found["error"] else 0
