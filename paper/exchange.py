"""Sheets in open forms. Out: chains, JSON, CSV, LaTeX, one HTML page with MathML, a QTI package. In: chains, JSON, CSV,
QTI, and text as one writes it: numbered problems with instructions over them, or a LaTeX document.

JSON holds a sheet whole; a package its title and problems; chains hold all but forms, instructions and what is not
taught; CSV holds its problems; LaTeX and HTML are for people to read. What can't be taken in is named, and the rest is
taken.
"""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import replace
from html import escape
from json import JSONDecodeError
from typing import Literal, get_args

from algebra import (
    ITEM_FORMS,
    NotTaken,
    ReadingError,
    SheetFile,
    SheetProblem,
    TaskError,
    Working,
    as_mathml,
    json_object,
    key_apart,
    limits,
    read_workings,
    understood,
    widened,
)
from paper import package
from paper.plan import PlannedItem, SheetPlan, planned, wanted_of

FileFormat = Literal["chain", "json", "csv", "tex", "html", "qti"]
FILE_FORMATS: tuple[FileFormat, ...] = get_args(FileFormat)
Incoming = Literal["chain", "json", "csv", "tex", "txt", "qti"]
INCOMING: tuple[Incoming, ...] = get_args(Incoming)
COLUMNS = ("number", "task", "given", "variable", "numbers", "method", "answer", "family", "difficulty")
MOST_CHARACTERS, MOST_PROBLEMS = 400_000, 200
MOST_BYTES = 350_000
_FIELDS = frozenset(
    {"task", "given", "lines", "variable", "numbers", "conventions", "assume", "id", "method", "instruction", "form"}
)


def written(sheet: SheetFile, form: FileFormat) -> bytes:
    """The sheet in one of the forms: text in UTF-8, or a zip archive."""
    return package.packed(sheet, _plan(sheet)) if form == "qti" else _WRITERS[form](sheet).encode()


def read(content: bytes, form: str, title: str = "") -> tuple[SheetFile, tuple[NotTaken, ...]]:
    """A sheet from one of the forms that come back, and what could not be taken of it. Raises TaskError where nothing
    could."""
    if len(content) > (MOST_BYTES if form == "qti" else 4 * MOST_CHARACTERS):
        raise TaskError("This file is larger than any sheet.")
    if form == "qti":
        sheet, left = _from_package(content, title)
    elif form in _READERS:
        sheet, left = _READERS[form](_decoded(content), title)
    else:
        raise TaskError(f"A sheet comes back from {', '.join(INCOMING)}.")
    if len(sheet.problems) > MOST_PROBLEMS:
        raise TaskError(f"A sheet has {MOST_PROBLEMS} problems at most.")
    if not sheet.problems:
        why = f" {left[0].why}" if left else ""
        raise TaskError(f"There is no problem in it that could be taken.{why}")
    return sheet, left


def _decoded(content: bytes) -> str:
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as problem:
        raise TaskError(f"This is no text in UTF-8 (byte {problem.start + 1}).") from problem
    if len(text) > MOST_CHARACTERS:
        raise TaskError(f"A file may have {MOST_CHARACTERS} characters at most.")
    return text


def _as_taken(working: Working) -> SheetProblem:
    return working if isinstance(working, SheetProblem) else widened(SheetProblem, working)


# -- chains ----------------------------------------------------------------------------------------------------------


def as_chains(sheet: SheetFile) -> str:
    """The text form: what `./uchuu check` reads. A line that begins with # is a remark there and is left out."""
    return "\n".join([f"# {' '.join(sheet.title.split())}", "", *map(_chain, sheet.problems)])


def _chain(working: Working) -> str:
    head = [f"task: {working.task}", f"given: {working.given}"]
    if working.variable:
        head.append(f"variable: {working.variable}")
    if working.numbers != "real":
        head.append(f"numbers: {working.numbers}")
    if working.method:
        head.append(f"method: {working.method}")
    head += [f"assume: {text}" for text in working.assume]
    if working.conventions:
        head.append("conventions: " + ", ".join(f"{key}={value}" for key, value in sorted(working.conventions.items())))
    lines = [line for line in working.lines if not line.lstrip().startswith("#")]
    return "\n".join([*head, "---", *lines, ""])


def _from_chains(text: str, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    first = text.lstrip().partition("\n")[0]
    named = first.lstrip("# ").strip() if first.startswith("#") else ""
    return SheetFile(title or named, tuple(map(_as_taken, read_workings(text)))), ()


# -- JSON ------------------------------------------------------------------------------------------------------------


def as_json(sheet: SheetFile) -> str:
    """The sheet whole, by its published schema."""
    return json.dumps(json_object(sheet), ensure_ascii=False, indent=1) + "\n"


def _from_json(text: str, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    try:
        found = json.loads(text)
    except (ValueError, RecursionError) as problem:
        where = ""
        if isinstance(problem, JSONDecodeError):
            where = f" from line {problem.lineno}, column {problem.colno} on"
        raise TaskError(f"This is no JSON{where}.") from problem
    if not isinstance(found, dict) or not isinstance(found.get("problems"), list):
        raise TaskError("A sheet in JSON has “title” and a list “problems”.")
    if found.get("format", 1) != 1:
        raise TaskError(f"Format {found['format']!r} is not known; this is format 1.")
    taken, left = [], []
    for place, row in enumerate(found["problems"], start=1):
        try:
            taken.append(_working_of(row))
        except TaskError as problem:
            left.append(NotTaken(place, str(row)[:80], problem.message))
            continue
        unknown = sorted(map(str, set(row) - _FIELDS))
        if unknown:
            named = " and ".join(f"“{field}”" for field in unknown)
            left.append(NotTaken(place, named[:80], "This is no field of a problem: it was ignored, the rest is here."))
    untaught = found.get("untaught", [])
    known = tuple(map(str, untaught)) if isinstance(untaught, list) else ()
    return SheetFile(title or str(found.get("title", ""))[:120], tuple(taken), known), tuple(left)


def _working_of(row: object) -> SheetProblem:
    """A problem of a file. Raises TaskError for what it is not."""
    if not isinstance(row, Mapping):
        raise TaskError("A problem is an object with “task” and “given”.")
    for key in ("task", "given"):
        if not isinstance(row.get(key), str) or not row[key].strip():
            raise TaskError(f"“{key}” is missing.")
    lines, conventions, assume = row.get("lines") or [], row.get("conventions") or {}, row.get("assume") or []
    if not isinstance(lines, list) or not isinstance(assume, list) or not isinstance(conventions, Mapping):
        raise TaskError("“lines” and “assume” are lists, “conventions” an object.")
    if len(lines) > limits.MAX_LINES:
        raise TaskError(f"A working has at most {limits.MAX_LINES} lines.")
    form = _text(row, "form") or "work"
    if form not in ITEM_FORMS:
        raise TaskError(f"An item is one of {', '.join(ITEM_FORMS)}, not “{form}”.")
    working = SheetProblem(
        str(row["task"]),
        row["given"].strip(),
        tuple(map(str, lines)),
        _text(row, "variable"),
        _text(row, "numbers") or "real",
        {str(key): str(value) for key, value in conventions.items()},
        tuple(map(str, assume)),
        None,
        _text(row, "method"),
        _text(row, "instruction") or "",
        form,
    )
    working.validate()
    _refuse_long(working)
    return working


def _text(row: Mapping[str, object], key: str) -> str | None:
    value = row.get(key)
    return None if value in (None, "") else str(value)


def _refuse_long(working: Working) -> None:
    if max(map(len, (working.given, *working.lines))) > limits.MAX_LINE_CHARACTERS:
        raise TaskError(f"A line has at most {limits.MAX_LINE_CHARACTERS} characters.")


# -- CSV -------------------------------------------------------------------------------------------------------------


def as_csv(sheet: SheetFile) -> str:
    """A row a problem, with its answer, family and difficulty. What a table would take for a formula is written as
    text."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(COLUMNS)
    for item in _plan(sheet).items:
        w = item.working
        answer = " or ".join(item.answer) or ("" if item.trouble else "no solution")
        rows.writerow(
            safe_cell(str(cell))
            for cell in (
                item.number,
                w.task,
                w.given,
                w.variable or "",
                w.numbers,
                w.method or "",
                answer,
                item.family,
                item.difficulty or "",
            )
        )
    return out.getvalue()


def safe_cell(cell: str) -> str:
    """A cell that begins like a formula, after an apostrophe: it stays a text in any table."""
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t") else cell


SEPARATORS = ",;\t"


def table_rows(text: str, *, above: int = 1) -> Iterator[list[str]]:
    """The rows of a table as spreadsheets write it, separated by commas, semicolons or tabs, whichever the first row
    has most of; with `above`, the row that has most of any among so many from the top, where words may stand above the
    table. Raises TaskError at a row that can't be read."""
    told = [line for line in text.splitlines() if line.strip()][:above]
    first = max(told, key=lambda line: max(map(line.count, SEPARATORS)), default="")
    rows = csv.reader(io.StringIO(text, newline=""), delimiter=max(SEPARATORS, key=first.count))
    try:
        yield from rows
    except csv.Error as problem:
        raise TaskError(f"Row {rows.line_num} of the table can't be read.") from problem


def _from_csv(text: str, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    rows = table_rows(text)
    head = [cell.strip().lower() for cell in next(rows, [])]
    if "given" not in head:
        raise TaskError("The first row of a CSV file names its columns; one of them is “given”.")
    taken, left = [], []
    for number, row in enumerate(rows, start=2):
        cells = {name: cell.strip() for name, cell in zip(head, row, strict=False)}
        given = cells.get("given", "").removeprefix("'")
        if not any(cells.values()):
            continue
        told = {
            key: cells.get(key, "").removeprefix("'") for key in ("variable", "numbers", "method") if cells.get(key)
        }
        try:
            taken.append(
                _working_of(
                    {"task": cells.get("task") or ("solve" if "=" in given else "simplify"), "given": given, **told}
                )
            )
        except TaskError as problem:
            left.append(NotTaken(number, given[:80], problem.message))
    return SheetFile(title, tuple(taken)), tuple(left)


# -- packages and text as one writes it ------------------------------------------------------------------------------


def _from_package(content: bytes, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    opened = package.opened(content)
    taken, left = [], list(opened.left)
    for place, found in opened.items:
        try:
            if isinstance(found, str):
                key = key_apart(found)
                taken += [_as_taken(problem.working) for problem in key.problems]
                left += [
                    NotTaken(place, text[:80], "This is no problem.") for _, text in key.skipped if not key.problems
                ]
            else:
                taken.append(_working_of(found))
        except (TaskError, ReadingError) as problem:
            left.append(NotTaken(place, str(found)[:80], problem.message))
    left.sort(key=lambda each: each.place)
    return SheetFile(title or opened.title[:120], tuple(taken)), tuple(left)


def _from_text(text: str, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    try:
        key = key_apart(text)
    except ReadingError as problem:
        raise TaskError(problem.message) from problem
    left = tuple(NotTaken(line, words[:80], "This is no mathematics.") for line, words in key.skipped)
    taken: list[Working] = []
    for found in key.problems:
        working = _in_plain(found.working)
        bare = replace(working, lines=())
        if working.lines and bare in taken:  # it stands again behind the problems, worked: that is its key
            taken[taken.index(bare)] = working
        else:
            taken.append(working)
    named = _TITLE.search(text)
    return SheetFile(title or (named.group(1).strip() if named else ""), tuple(map(_as_taken, taken))), left


_TITLE = re.compile(r"\\(?:title|section\*?)\{([^{}\\]{1,120})\}")


def _in_plain(working: Working) -> Working:
    """The working in the plain notation, as far as it can be read."""
    decimal = working.convention("decimal")

    def plainly(text: str) -> str:
        echo = understood(text, decimal=decimal)
        kept = (
            echo.error is not None
            or echo.move
            or echo.remark
            or echo.kind not in ("expression", "equation", "statement")
        )
        return text if kept else re.sub(r"\^\{(\d+|[a-z])\}", r"^\1", echo.plain)

    return replace(working, given=plainly(working.given), lines=tuple(map(plainly, working.lines)))


# -- LaTeX and HTML --------------------------------------------------------------------------------------------------


def _plan(sheet: SheetFile) -> SheetPlan:
    return planned(sheet.title, list(map(wanted_of, sheet.problems)))


_SPECIAL = {"\\": r"\textbackslash{}", "~": r"\textasciitilde{}", "^": r"\textasciicircum{}"} | {
    c: f"\\{c}" for c in "&%$#_{}"
}


def _words(text: str) -> str:
    return "".join(_SPECIAL.get(c, c) for c in text)


def as_latex(sheet: SheetFile) -> str:
    """A document that compiles with standard packages only: the problems, then the worked key."""
    plan = _plan(sheet)
    problems, keys = [], []
    for section in plan.sections:
        heading = f"\\subsection*{{{_words(section.instruction)}}}"
        problems += [
            heading,
            *(f"\\item[{item.number}.] {_formula(item.working.given, plan)}" for item in section.items),
        ]
        keys += [heading, *(_key_in_latex(item, plan) for item in section.items)]
    return "\n".join(
        [
            r"\documentclass[11pt]{article}",
            r"\usepackage[utf8]{inputenc}",
            r"\usepackage{amsmath,amssymb}",
            r"\begin{document}",
            f"\\section*{{{_words(sheet.title)}}}",
            *_listed(problems),
            r"\newpage",
            r"\section*{Key}",
            *_listed(keys),
            r"\end{document}",
            "",
        ]
    )


def _listed(rows: list[str]) -> list[str]:
    """Items in lists, headings between them."""
    out: list[str] = []
    inside = False
    for row in rows:
        is_item = row.startswith("\\item")
        if is_item != inside:
            out.append(r"\begin{description}" if is_item else r"\end{description}")
            inside = is_item
        out.append(row)
    return [*out, r"\end{description}"] if inside else out


def _formula(text: str, plan: SheetPlan) -> str:
    echo = understood(text, decimal=plan.decimal)
    if echo.error is not None or not (echo.left or echo.right):
        return f"\\texttt{{{_words(text)}}}"
    return f"$\\displaystyle {echo.left} {echo.right}$"


def _key_in_latex(item: PlannedItem, plan: SheetPlan) -> str:
    if item.trouble:
        return f"\\item[{item.number}.] {_words(item.trouble)}"
    rows = [
        _formula(line.text, plan) + (f"\\quad {{\\small {_words(line.reason)}}}" if line.reason else "")
        for line in item.key
    ]
    return f"\\item[{item.number}.] {_formula(item.working.given, plan)}\\\\\n" + "\\\\\n".join(rows)


_STYLE = (
    "body{font:17px/1.5 Georgia,serif;max-width:44em;margin:2em "
    "auto;padding:0 1em;color:#1d2440}h2{font-size:1em;margin:1.6em 0 .4em}"
    "li{margin:.7em 0}details{margin:.3em 0 "
    "1em}summary{cursor:pointer;color:#34639b}.line{margin:.3em 0}.why{color:#636a87;font-size:.85em}"
)


def as_html(sheet: SheetFile) -> str:
    """One page that opens anywhere and asks nothing of any server: the problems, each with its key to be opened."""
    plan = _plan(sheet)
    parts = [
        "<!doctype html>",
        '<html lang="en"><head><meta charset="utf-8">',
        '<meta name="viewport" content="width=device-width">',
        f"<title>{escape(sheet.title)}</title><style>{_STYLE}</style></head><body>",
        f"<h1>{escape(sheet.title)}</h1>",
    ]
    for section in plan.sections:
        parts.append(f"<h2>{escape(section.instruction)}</h2>")
        first = section.items[0].number
        parts.append(f'<ol start="{first}">')
        parts += [f"<li>{_shown(item.working.given, plan)}{_key_in_html(item, plan)}</li>" for item in section.items]
        parts.append("</ol>")
    return "\n".join([*parts, "</body></html>", ""])


def _shown(text: str, plan: SheetPlan) -> str:
    return as_mathml(text, decimal=plan.decimal) or f"<code>{escape(text)}</code>"


def _key_in_html(item: PlannedItem, plan: SheetPlan) -> str:
    if item.trouble:
        return f"<p>{escape(item.trouble)}</p>"
    rows = "".join(
        f'<div class="line">{_shown(line.text, plan)} <span class="why">{escape(line.reason)}</span></div>'
        for line in item.key
    )
    return f"<details><summary>Key</summary>{rows}</details>"


_WRITERS: Mapping[str, Callable[[SheetFile], str]] = {
    "chain": as_chains,
    "json": as_json,
    "csv": as_csv,
    "tex": as_latex,
    "html": as_html,
}
_READERS: Mapping[str, Callable[[str, str], tuple[SheetFile, tuple[NotTaken, ...]]]] = {
    "chain": _from_chains,
    "json": _from_json,
    "csv": _from_csv,
    "tex": _from_text,
    "txt": _from_text,
}
MEDIA: Mapping[FileFormat, str] = {
    "chain": "text/plain",
    "json": "application/json",
    "csv": "text/csv",
    "tex": "application/x-tex",
    "html": "text/html",
    "qti": "application/zip",
}
