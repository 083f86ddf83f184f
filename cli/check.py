"""`uchuu check`: verifies workings from files, standard input, or JSON lines."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import TextIO

import lanes
from algebra import LineError, Report, TaskError, json_object, looks_like_text_form, read_workings
from cli.jsonform import ignored_in, with_note, working_from_json
from cli.output import SOUND, UNREADABLE, UNSOUND, lines_of, parsed, put, put_object
from cli.printed import printed, printed_key


def main(arguments: list[str], *, stdin: TextIO = sys.stdin, out: TextIO = sys.stdout, err: TextIO = sys.stderr) -> int:
    """Returns the exit status: 0 when all is sound, 1 when something does not hold, 2 when input can't be read."""
    parser = argparse.ArgumentParser(prog="uchuu check", description="Verify every line of a working.")
    parser.add_argument(
        "files", nargs="*", metavar="FILE", help="text form, LaTeX or a key as pasted; - for standard input"
    )
    parser.add_argument(
        "--key", action="store_true", help="proof-read: say only what does not hold, problem by problem"
    )
    parser.add_argument("--json", action="store_true", help="print one JSON object per working")
    parser.add_argument("--jsonl", action="store_true", help="read one JSON object a line, write one a line")
    options = parsed(parser, arguments)
    if isinstance(options, int):
        return options
    if options.jsonl:
        return _check_jsonl(_input(options.files, stdin), out)
    if not options.files:
        print("uchuu check: name a file, or - for standard input", file=err)
        return UNREADABLE
    status = SOUND
    for name in options.files:
        try:
            text = stdin.read() if name == "-" else Path(name).read_text(encoding="utf-8")
            if options.key or not looks_like_text_form(text):
                status = max(status, _proofread(text, options.json, out))
                continue
            workings = read_workings(text)
        except (OSError, UnicodeDecodeError, TaskError) as problem:
            print(f"uchuu check: {name}: {problem}", file=err)
            status = UNREADABLE
            continue
        for position, working in enumerate(workings):
            report = lanes.check(working)
            if options.json:
                put(report, out)
            else:
                print(("\n" if position else "") + printed(working, report), file=out)
            if report.error is not None:
                status = UNREADABLE
            elif not report.sound:
                status = max(status, UNSOUND)
    return status


def _proofread(text: str, as_json: bool, out: TextIO) -> int:
    """A whole key: what does not hold in each problem. Raises TaskError when no problem is found in it."""
    found = lanes.proofread(text)
    if as_json:
        put(found.out(), out)
    else:
        print(printed_key(found), file=out)
    unread = any(finding.kind == "unread" for proof in found.proofs for finding in proof.findings)
    return UNREADABLE if unread else SOUND if found.sound else UNSOUND


def _input(files: list[str], stdin: TextIO) -> str:
    if not files or files == ["-"]:
        return stdin.read()
    return "\n".join(Path(name).read_text(encoding="utf-8") for name in files)


def _check_jsonl(text: str, out: TextIO) -> int:
    status = SOUND
    for line in lines_of(text):
        identity, ignored = None, list[str]()
        try:
            data = json.loads(line)
            identity = data.get("id") if isinstance(data, dict) else None
            ignored = ignored_in(data)
            report = lanes.check(working_from_json(data))
        except TaskError as problem:
            report = Report.of_refused(identity, LineError(0, 1, problem.message, "task"))
        except (ValueError, RecursionError) as problem:  # no JSON, or a number that is longer than any
            message = f"Not JSON: {problem}"
            report = Report.of_refused(identity, LineError(0, 1, message, "task"))
        put_object(with_note(json_object(report), ignored), out)
        if report.error is not None:
            status = UNREADABLE
        elif not report.sound:
            status = max(status, UNSOUND)
    return status
