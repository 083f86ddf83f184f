"""`./uchuu api-types`: the TypeScript types, the JSON Schema and the page of slips, made from what they describe.

With `--check` nothing is written; the exit status says whether what lies there is fresh.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

from door import front, slips_page
from door.testing import NO_DATABASE, settings_env

TYPES = front.WEB / "src" / "api" / "schema.d.ts"
SCHEMAS = front.ROOT / "docs" / "schema"


def main(arguments: list[str]) -> int:
    os.environ.update(settings_env(NO_DATABASE))
    import django

    django.setup()
    front.ensure_packages()
    stale = [path for path, text in _made().items() if not path.is_file() or path.read_text() != text]
    if "--check" in arguments:
        for path in stale:
            print(f"{path.relative_to(front.ROOT)} is stale: run ./uchuu api-types", file=sys.stderr)
        return 1 if stale else 0
    for path, text in _made().items():
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text)
    return 0


def _made() -> dict[Path, str]:
    from server.checking.schemas import ReportOut, WorkingIn
    from server.config.api import api
    from server.solving.published import AnalysisFile, PredictionFile, ProofsFile, SolutionFile

    return {
        TYPES: _typescript(json.dumps(api.get_openapi_schema())),
        SCHEMAS / "report.schema.json": _schema(ReportOut, "What is said of a working, format 1"),
        SCHEMAS / "solution.schema.json": _schema(
            SolutionFile, "A worked solution, as solve --json prints it, format 1"
        ),
        SCHEMAS / "analysis.schema.json": _schema(
            AnalysisFile, "The features of a function, as analyse --json prints them"
        ),
        SCHEMAS / "prediction.schema.json": _schema(
            PredictionFile, "The wrong answers to expect, as predict --json prints them"
        ),
        SCHEMAS / "proofs.schema.json": _schema(ProofsFile, "A key proof-read, as check --key --json prints it"),
        front.ROOT / "docs" / "slips.md": slips_page.page(),
        SCHEMAS / "working.schema.json": _schema(WorkingIn, "A working, as check --jsonl reads it"),
    }


def _schema(model: Any, title: str) -> str:
    schema = model.model_json_schema(mode="serialization")
    schema |= {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": title}
    return json.dumps(schema, indent=1, ensure_ascii=False) + "\n"


def _typescript(openapi: str) -> str:
    with tempfile.TemporaryDirectory() as folder:
        source, target = Path(folder) / "openapi.json", Path(folder) / "schema.d.ts"
        source.write_text(openapi)
        tool = front.WEB / "node_modules" / ".bin" / "openapi-typescript"
        command = [str(tool), str(source), "-o", str(target), "--default-non-nullable=false"]
        subprocess.run(command, check=True, capture_output=True)
        return target.read_text()
