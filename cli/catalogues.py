"""`uchuu methods`, `uchuu families`: the catalogues."""

from __future__ import annotations

import argparse
import sys
from typing import TextIO

from algebra import FAMILIES, METHODS, SLIPS, JsonObject
from cli.output import parsed, put_object


def methods(arguments: list[str], *, out: TextIO = sys.stdout) -> int:
    """Prints every method with its name, what it does and an example."""
    rows: list[JsonObject] = [
        {
            "id": m.id,
            "name": m.name,
            "description": m.description,
            "searches": m.searches,
            "families": [f.id for f in FAMILIES if m.id in f.methods],
            "example": {"task": m.example[0], "given": m.example[1]},
        }
        for m in METHODS
    ]
    return _shown("methods", rows, [m.example[1] for m in METHODS], arguments, out)


def families(arguments: list[str], *, out: TextIO = sys.stdout) -> int:
    """Prints every family with its task, levels, methods and an example."""
    rows: list[JsonObject] = [
        {
            "id": f.id,
            "name": f.name,
            "description": f.description,
            "task": f.task,
            "levels": list(f.levels),
            "methods": list(f.methods),
            "example": {"task": f.task, "given": f.example},
        }
        for f in FAMILIES
    ]
    return _shown("families", rows, [f.example for f in FAMILIES], arguments, out)


def slips(arguments: list[str], *, out: TextIO = sys.stdout) -> int:
    """Prints every slip with its kind, its cue and an example."""
    examples = [f"{s.examples[0][0]} → {s.examples[0][1]}" for s in SLIPS]
    rows: list[JsonObject] = [
        {
            "id": s.id,
            "name": s.name,
            "description": s.why,
            "kind": s.kind,
            "topic": s.topic,
            "cue": s.cue,
            "example": {"given": example, "before": s.examples[0][0], "after": s.examples[0][1]},
        }
        for s, example in zip(SLIPS, examples, strict=True)
    ]
    return _shown("slips", rows, examples, arguments, out)


def _shown(name: str, rows: list[JsonObject], examples: list[str], arguments: list[str], out: TextIO) -> int:
    parser = argparse.ArgumentParser(prog=f"uchuu {name}")
    parser.add_argument("--json", action="store_true")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    if options.json:
        put_object({"format": 1, name: list(rows)}, out)
        return 0
    for row, example in zip(rows, examples, strict=True):
        print(f"{str(row['id']).ljust(24)} {row['name']}: {row['description']}  ({example})", file=out)
    return 0
