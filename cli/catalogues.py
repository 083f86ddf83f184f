"""`uchuu methods`, `uchuu families`: the catalogues."""

from __future__ import annotations

import argparse
import sys
from typing import TextIO

from algebra import FAMILIES, METHODS, SLIPS
from cli.output import put


def methods(arguments: list[str], *, out: TextIO = sys.stdout) -> int:
    """Prints every method with its name, what it does and an example."""
    rows: list[dict[str, object]] = [
        {"id": m.id, "name": m.name, "description": m.description, "searches": m.searches,
         "families": [f.id for f in FAMILIES if m.id in f.methods], "example": {"task": m.example[0], "given": m.example[1]}}
        for m in METHODS
    ]  # fmt: skip
    return _shown("methods", rows, arguments, out)


def families(arguments: list[str], *, out: TextIO = sys.stdout) -> int:
    """Prints every family with its task, levels, methods and an example."""
    rows: list[dict[str, object]] = [
        {"id": f.id, "name": f.name, "description": f.description, "task": f.task, "levels": list(f.levels), "methods": list(f.methods),
         "example": {"task": f.task, "given": f.example}}
        for f in FAMILIES
    ]  # fmt: skip
    return _shown("families", rows, arguments, out)


def slips(arguments: list[str], *, out: TextIO = sys.stdout) -> int:
    """Prints every slip with its kind, its cue and an example."""
    rows: list[dict[str, object]] = [
        {"id": s.id, "name": s.name, "description": s.why, "kind": s.kind, "topic": s.topic, "cue": s.cue,
         "example": {"given": f"{s.examples[0][0]} → {s.examples[0][1]}", "before": s.examples[0][0], "after": s.examples[0][1]}}
        for s in SLIPS
    ]  # fmt: skip
    return _shown("slips", rows, arguments, out)


def _shown(name: str, rows: list[dict[str, object]], arguments: list[str], out: TextIO) -> int:
    parser = argparse.ArgumentParser(prog=f"uchuu {name}")
    parser.add_argument("--json", action="store_true")
    try:
        options = parser.parse_args(arguments)
    except SystemExit as stop:
        return int(stop.code or 0)
    if options.json:
        put({"format": 1, name: rows}, out)
        return 0
    for row in rows:
        example = row["example"]
        assert isinstance(example, dict)
        print(f"{str(row['id']).ljust(24)} {row['name']}: {row['description']}  ({example['given']})", file=out)
    return 0
