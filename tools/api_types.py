"""`./uchuu docs`: the page of slips, the JSON Schema and the list of conventions, made from what they describe.
`./uchuu api-types`: these, and the TypeScript types of the API, for which packages of the front end are needed.

With `--check` nothing is written; the exit status says whether what lies there is fresh.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from collections.abc import Callable, Mapping
from importlib import import_module
from pathlib import Path
from typing import Any

import django
from pydantic import TypeAdapter

from algebra import (
    CONVENTIONS,
    DrawnProblems,
    FeaturesReport,
    MethodsReport,
    OptionsReport,
    PredictionReport,
    ProofsReport,
    Report,
    SheetFile,
    SolutionReport,
    Working,
    complete_schema,
)
from tools import front, slips_page
from tools.testing import NO_DATABASE, settings_env

TYPES = front.WEB / "src" / "api" / "schema.d.ts"
CONVENTIONS_TS = front.WEB / "src" / "api" / "conventions.ts"
SCHEMAS = front.ROOT / "docs" / "schema"
PUBLISHED: dict[str, tuple[type, str]] = {
    "sheet": (SheetFile, "A sheet as it goes out and comes back, format 1"),
    "working": (Working, "A working, as check --jsonl reads it"),
    "report": (Report, "What is said of a working, format 1"),
    "solution": (SolutionReport, "A worked solution, as solve --json prints it, format 1"),
    "methods": (MethodsReport, "The methods that apply, as solve --methods --json prints them"),
    "problems": (DrawnProblems, "Problems of a family, as generate --json prints them"),
    "analysis": (FeaturesReport, "The features of a function, as analyse --json prints them"),
    "prediction": (PredictionReport, "The wrong answers to expect, as predict --json prints them"),
    "options": (OptionsReport, "Multiple-choice options, as predict --options --json prints them"),
    "proofs": (ProofsReport, "A key proof-read, as check --key --json prints it"),
}
"""Every published JSON Schema: its file's name, the record it is made from, its title."""


def main(arguments: list[str]) -> int:
    """Makes all files again, or tells with --check which are stale; returns 1 where some are."""
    front.ensure_packages()
    return _brought_up_to_date({TYPES: _typescript(json.dumps(_openapi())), **described()}, arguments)


def docs_main(arguments: list[str]) -> int:
    """As `main`, without the types of the API."""
    return _brought_up_to_date(described(), arguments)


def _brought_up_to_date(made: Mapping[Path, str], arguments: list[str]) -> int:
    stale = [path for path, text in made.items() if not path.is_file() or path.read_text() != text]
    if "--check" in arguments:
        for path in stale:
            print(f"{path.relative_to(front.ROOT)} is stale: run ./uchuu api-types", file=sys.stderr)
        return 1 if stale else 0
    for path in stale:
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(made[path])
    return 0


def described() -> dict[Path, str]:
    """What is made from the core alone, by its place."""
    return {
        CONVENTIONS_TS: conventions_module(),
        front.ROOT / "docs" / "slips.md": slips_page.page(),
        **{SCHEMAS / f"{name}.schema.json": _schema(kind, title) for name, (kind, title) in PUBLISHED.items()},
    }


def _openapi() -> dict[str, Any]:
    os.environ.update(settings_env(NO_DATABASE))
    django.setup()
    # settings must stand before the API can be imported
    document: Callable[[], dict[str, Any]] = import_module("server.config.openapi").document
    return document()


def _schema(kind: Any, title: str) -> str:
    schema = TypeAdapter(kind).json_schema(mode="serialization")
    complete_schema({kind.__name__: schema, **schema.get("$defs", {})})
    schema |= {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": title}
    return json.dumps(schema, indent=1, ensure_ascii=False) + "\n"


def conventions_module() -> str:
    """The list of conventions for the front end, as TypeScript."""
    rows = "".join(f"  {key}: [{', '.join(repr(p) for p in positions)}],\n" for key, positions in CONVENTIONS.items())
    return (
        "// Made from the core's list by ./uchuu api-types; the default stands first.\n"
        f"export const CONVENTIONS = {{\n{rows}}} as const\n"
    )


def _typescript(openapi: str) -> str:
    with tempfile.TemporaryDirectory() as folder:
        source, target = Path(folder) / "openapi.json", Path(folder) / "schema.d.ts"
        source.write_text(openapi)
        tool = front.WEB / "node_modules" / ".bin" / "openapi-typescript"
        command = [str(tool), str(source), "-o", str(target), "--default-non-nullable=false"]
        subprocess.run(command, check=True, capture_output=True)
        return target.read_text()
