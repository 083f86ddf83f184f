"""A whole key as it is pasted: several problems with their workings, from a document, from LaTeX, or in the text form.

Nothing is dropped in silence: what is neither a problem nor a line of one is given back with its place.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from algebra import limits
from algebra.formats.key_rows import (
    GAP,
    LABEL,
    TASKS,
    blocks,
    in_steps,
    instruction_in,
    rows_of,
    starts_problem,
    without_options,
)
from algebra.formats.text_form import read_workings
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.working import TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln

MAX_PROBLEMS = 100
MAX_CHARACTERS = 100_000


@dataclass(frozen=True, slots=True)
class KeyProblem:
    """One problem of a key: its number as written, the line of the text where it starts, its working.

    `places` are the lines of the text on which the working's lines stand.
    """

    label: str
    at: int
    working: Working
    places: tuple[int, ...] = ()

    def place_of(self, line: int) -> int:
        """The line of the text on which a line of the working stands, counted from 1; where it is not known, the
        problem's."""
        return self.places[line - 1] if 0 < line <= len(self.places) else self.at


@dataclass(frozen=True, slots=True)
class Key:
    """The problems of a key in their order, and the lines that are no mathematics, each with its number."""

    problems: tuple[KeyProblem, ...]
    skipped: tuple[tuple[int, str], ...]


_METHODS = (
    ("completing-the-square", r"completing the square"),
    ("quadratic-formula", r"(?:the )?quadratic formula"),
    ("factoring", r"factoring|factori[sz]ing"),
    ("square-root", r"(?:taking )?(?:square )?roots?"),
)
_LEAD = re.compile(
    r"\s*(?:(?:⇒|=>|∴|→|⟹|\\Rightarrow|\\implies|\\therefore)\s*|"
    r"(?:so|then|thus|hence|therefore|answer|ans|solution|final answer)\b\s*[:,]?\s*)+",
    re.IGNORECASE,
)
_FOR = re.compile(r"\s*[,;]?\s*\(?\bfor\s+([a-zA-Z])\)?\s*\.?\s*$")
_FOR_LETTER = re.compile(r"(.*?\S)\s*,?\s+\(?for\s+([a-zA-Z])\)?\s*:\s*(\S.*)")
_FUNCTION = re.compile(r"\s*[A-Za-z]\s*\(\s*[a-z]\s*\)\s*")


def looks_like_text_form(text: str) -> bool:
    """Whether a text is in the project's own form: a head of `key: value` lines, then ---; or heads alone, of problems
    without lines."""
    told = [line for line in text.lstrip("\ufeff").splitlines() if line.strip() and not line.lstrip().startswith("#")]
    if not told or not _OWN_HEAD.match(told[0]):
        return False
    return any(_RULE.fullmatch(line) for line in told) or all(map(_OWN_HEAD.match, told))


_OWN_HEAD = re.compile(r"\s*(task|given|id|numbers|variable|assume|conventions|method)\s*:")
_RULE = re.compile(r"\s*-{3,}\s*")


def read_key(text: str, decimal: str = "point") -> Key:
    """The problems of a pasted key, its decimals written with a point or a `comma`. Raises TaskError when the text is
    too long or holds no problem."""
    if len(text) > MAX_CHARACTERS:
        raise TaskError(f"A key has at most {MAX_CHARACTERS:,} characters.")
    if looks_like_text_form(text):
        found = read_workings(text)
        key = Key(tuple(KeyProblem(str(w.id or k), 1, w) for k, w in enumerate(found, start=1)), ())
    else:
        key = _from_document(text, decimal)
    if not key.problems:
        raise TaskError("No problem was found in this text.")
    if len(key.problems) > MAX_PROBLEMS:
        raise TaskError(f"A key has at most {MAX_PROBLEMS} problems.")
    return key


def _from_document(text: str, decimal: str) -> Key:
    problems: list[KeyProblem] = []
    skipped: list[tuple[int, str]] = []
    instruction = above = Working("", "", ())
    for block in blocks(without_options(rows_of(text), skipped)):
        head, rows = block[0], list(block)
        found = instruction_in(head.text)
        # (b) goes on with what was asked for above (a)
        goes_on = re.fullmatch(r"[a-h]", head.starts or "") and above.task
        own = above if goes_on else instruction
        if found:
            own, rest = _instructed(found, decimal)
            label = LABEL.match(rest)
            if label and starts_problem(rest, label):
                rest = rest[label.end() :]
            above = own
            rows = ([replace(head, text=rest)] if rest else []) + rows[1:]
            if not rows and head.starts is None:
                instruction = own
                continue
        elif not goes_on:
            above = instruction
        readable = [row for row in rows if _is_mathematics(row.text, decimal)]
        if not readable:
            skipped += [(row.number, row.text) for row in block]
            continue
        start = rows.index(readable[0])
        skipped += [(row.number, row.text) for row in rows[:start]]
        # words between two problems belong to neither
        apart = [row for row in rows[start + 1 :] if row.blank_before and row not in readable and _is_prose(row.text)]
        skipped += [(row.number, row.text) for row in apart]
        rows = [row for row in rows if row not in apart]
        working, places = _working(own, [(row.text, row.number) for row in rows[start:]], decimal)
        if len(working.lines) > limits.MAX_LINES:
            raise TaskError(f"line {head.number}: a working has at most {limits.MAX_LINES} lines.")
        problems.append(KeyProblem(head.starts or str(len(problems) + 1), rows[start].number, working, places))
    return Key(tuple(problems), tuple(skipped))


def _is_prose(text: str) -> bool:
    """Whether a line is a sentence: four words at least, and no sign."""
    return len(re.findall(r"[A-Za-z]{2,}", text)) > 3 and not re.search(r"[=^√/+×÷≠<>≤≥\\]", text)


def _instructed(found: re.Match[str], decimal: str) -> tuple[Working, str]:
    """What an instruction asks for, and the mathematics that stands behind it."""
    words, rest = found.group(1), found.group(found.lastindex or 2) or ""
    task = next(name for name, pattern in TASKS if re.fullmatch(pattern, words, re.IGNORECASE))
    method = None
    for name, pattern in _METHODS:
        said = re.search(rf"\b(?:by|with|using)\s+{pattern}", rest, re.IGNORECASE)
        if said:
            method, rest = name, rest[: said.start()] + rest[said.end() :]
            break
    variable = re.match(r"\s*for\s+([a-zA-Z])\b", rest)
    if variable:
        rest = rest[variable.end() :]
    behind_it = None if variable else _FOR.search(rest)
    if behind_it:
        variable, rest = behind_it, rest[: behind_it.start()]
    before, colon, behind = rest.partition(":")
    mathematics = behind if colon and not _is_mathematics(before.strip(" ."), decimal) else rest
    mathematics = re.sub(
        r"^\s*(?:of|completely|fully|each|the following|the "
        r"expressions?|the equations?|equations?|expressions?|all|these)\b",
        "",
        mathematics.strip(),
        flags=re.IGNORECASE,
    )
    mathematics = mathematics.strip(" .:,")
    if mathematics and not _is_mathematics(mathematics, decimal):
        mathematics = ""
    return Working(task, "", (), variable.group(1) if variable else None, method=method), mathematics


def _is_mathematics(text: str, decimal: str) -> bool:
    """Whether a line is at least meant as mathematics: it can be read, or holds signs that words do not have."""
    if not text.strip():
        return False
    try:
        line = read_line(_LEAD.sub("", text, count=1) if _LEAD.match(text) else text, decimal=decimal)
        if line.kind in ("aside", "check", "move"):
            return True
        words = re.findall(r"[A-Za-z]{3,}", re.sub(r"\\[a-zA-Z]+|sqrt|cbrt|root|abs", "", text))
        said = re.match(r"\s*(?:no |all |prime\b|undefined\b|check\b|let\b|aside\b|assume\b|domain\b|none\b)", text)
        return not words or bool(said) or any(sign in text for sign in "=^√/+-−·*≠")
    except ReadingError:
        signs = len(re.findall(r"[=^√/+*·×÷<>≤≥≠\\]|\d", text))
        told = re.search(r"[A-Za-z]{4,}", re.sub(r"\\[a-zA-Z]+", "", text)) and not re.search(r"[=^√/+×÷≠\\]", text)
        return not told and (
            signs >= 2 and len(re.findall(r"\b[A-Za-z]{4,}\b", text.replace("\\frac", "").replace("\\sqrt", ""))) <= 2
        )


def _cleaned(text: str) -> str:
    """A line without the words that lead it in and the full stop behind it."""
    text = (_LEAD.sub("", text, count=1) if _LEAD.match(text) else text).strip()
    return text.rstrip(".") if re.search(r"[^.]\.$", text) else text


def _working(instruction: Working, rows: list[tuple[str, int]], decimal: str) -> tuple[Working, tuple[int, ...]]:
    """A working from its lines, and the places of its lines; the task from the instruction, else from the first
    line."""
    (head, place), *below = rows
    if wanted := _FOR_LETTER.fullmatch(head):
        instruction = replace(instruction, variable=wanted[2])
        head = f"{wanted[1]}   {wanted[3]}"
    head_rows = [(step, place) for piece in _columns(head, decimal) for step in in_steps(piece)]
    rows = [*head_rows, *below]
    cleaned = [(_cleaned(text), number) for text, number in rows]
    (given, at), rest = cleaned[0], [(line, number) for line, number in cleaned[1:] if line]
    lines = [line for line, _ in rest]
    places = [number for _, number in rest]
    task = instruction.task
    if task in ("", "simplify", "domain") and any(_is_feature(line, decimal) for line in lines):
        task = "analyze"
    body = _body(given, decimal)
    if isinstance(body, ln.Equation):
        continued = bool(lines) and all(line.startswith("=") or _body(line, decimal) is None for line in lines)
        expression = task not in ("", "solve") or continued or not n.letters(body)
        if expression:
            first, *others = _split_sides(given)
            if (len(others) == 1 and _names_a_function(body)) or (others and _FUNCTION.fullmatch(first)):
                first, *others = others
            given, lines = first, [*(f"= {side}" for side in others), *lines]
            places = [at] * len(others) + places
            if task == "solve" or not task:  # what was to be solved above does not hold for an expression
                task = "simplify" if n.letters(body) else "evaluate"
    elif task == "solve" or (not task and body is not None and isinstance(body, ln.STATEMENTS)):
        task = "solve"
    if not task and any(re.fullmatch(r"prime|not factorable", line, re.IGNORECASE) for line in lines):
        task = "factor"
    if not task:
        task = "solve" if isinstance(body, ln.STATEMENTS) else "simplify"
    if task != "solve":
        lines = [line.removeprefix("=").strip() if line.startswith("=") else line for line in lines]
    numbers = "complex" if instruction.variable != "i" and _counts_with_i([given, *lines], decimal) else "real"
    return Working(task, given, tuple(lines), instruction.variable, numbers, method=instruction.method), tuple(places)


def _columns(text: str, decimal: str) -> list[str]:
    """A problem and its answer, or what is noted beside it, in one line with a gap between them; any other line as it
    is."""
    pieces = [piece for piece in GAP.split(text.strip()) if piece]
    if len(pieces) != 2 or not all(_is_mathematics(piece, decimal) for piece in pieces):
        return [text]
    if re.search(r"[-+−*/·×÷=^(,;]$", pieces[0]) or re.match(r"[+*/·×÷=^),;]", pieces[1]):
        return [text]  # the line goes on behind the gap
    return pieces


def _names_a_function(body: ln.Equation) -> bool:
    """Whether a letter is only the name of what stands on the other side: `y = 2/(x - 3)`."""
    match body.sides:
        case (n.Letter() as letter, value):
            return letter.name not in n.letters(value)
        case _:
            return False


def _counts_with_i(lines: list[str], decimal: str) -> bool:
    """Whether an i stands in one of the lines: a key that has one counts with complex numbers."""
    bodies = [_body(line, decimal) for line in lines if re.search(r"(?<![A-Za-z\\])i(?![A-Za-z])", line)]
    return any(body is not None and "i" in n.letters(body) for body in bodies)


def _is_feature(line: str, decimal: str) -> bool:
    """Whether a line states a feature of a function other than its domain."""
    try:
        body = read_line(line, decimal=decimal).body
    except ReadingError:
        return False
    return isinstance(body, ln.Feature) and body.name != "domain"


def _split_sides(text: str) -> list[str]:
    """The sides of a chained equation, as written."""
    return [side.strip() for side in re.split(r"(?<![<>≤≥≠!])=(?!>)", text) if side.strip()]


def _body(text: str, decimal: str) -> n.Node | None:
    try:
        return read_line(text, decimal=decimal).body
    except ReadingError:
        return None


__all__ = ["MAX_CHARACTERS", "Key", "KeyProblem", "looks_like_text_form", "read_key"]
