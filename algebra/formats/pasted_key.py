"""A whole key as it is pasted: several problems with their workings, from a document, from LaTeX, or in the text form.

Nothing is dropped in silence: what is neither a problem nor a line of one is given back with its place.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace

from algebra import limits
from algebra.formats.text_form import read_workings
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.working import TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain

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


@dataclass(slots=True)
class _Row:
    number: int
    text: str
    starts: str | None = None  # the label of a problem that starts here
    blank_before: bool = False


_TASKS: tuple[tuple[str, str], ...] = (
    ("solve", r"solve|find (?:all |the )?(?:solutions?|roots?|zeros?|x)\b"),
    ("domain", r"(?:find|state|give) the (?:domain|excluded values?)|domain|excluded values? of"),
    ("factor", r"factori[sz]e|factor"),
    ("expand", r"expand|multiply out|distribute|write as a polynomial"),
    ("evaluate", r"evaluate|calculate|compute|work out"),
    ("analyze", r"analy[sz]e|graph|sketch|find the (?:asymptotes|features)"),
    ("simplify", r"simplify|reduce|rationali[sz]e|combine|add|subtract|multiply|divide|write|perform|express"),
)
_METHODS = (
    ("completing-the-square", r"completing the square"),
    ("quadratic-formula", r"(?:the )?quadratic formula"),
    ("factoring", r"factoring|factori[sz]ing"),
    ("square-root", r"(?:taking )?(?:square )?roots?"),
)
_INSTRUCTION = re.compile(rf"\s*({'|'.join(words for _, words in _TASKS)})\b(.*)", re.IGNORECASE | re.DOTALL)
_LONGEST_LABEL = 6
_ENTRY = re.compile(r"\s*(?:domain|range|graph|zeros?|roots?)\s*[:=]", re.IGNORECASE)
_NAMES = r"(?:problem|question|exercise|example|practice|task|item|no\.?|nr\.?|prob\.?|ex\.?|q|#)"
_LABEL = re.compile(
    rf"\s*(?:{_NAMES}\s*)?(?:\(?(\d{{1,3}}(?:\.\d{{1,2}})?\s?[a-z]?)[.):]+\)?,?"
    r"|(\d{1,3}\.\d{1,2}[a-z]?)(?=\s{2,}|\t)|\(?([a-z])\)|([a-z])\.(?=\s))(?:\s+|$)",
    re.IGNORECASE,
)
_NAMED = re.compile(rf"\s*{_NAMES}\s*(\d{{1,3}}(?:\.\d{{1,2}})?[a-z]?|[a-z](?=\s*[.:)]))\s*[.:)]?\s*", re.IGNORECASE)
_LEAD = re.compile(
    r"\s*(?:(?:⇒|=>|∴|→|⟹|\\Rightarrow|\\implies|\\therefore)\s*|"
    r"(?:so|then|thus|hence|therefore|answer|ans|solution|final answer)\b\s*[:,]?\s*)+",
    re.IGNORECASE,
)
_BULLET = re.compile(r"\s*[•●▪◦‣·*]\s+(?=\S)")
_TICK = re.compile(r"[✓✔✗✘☑☒]")
_ARROWS = re.compile(r"\s*(?:⇒|=>|⟹|→|\\Rightarrow|\\implies|\\to\b)\s*")
_ALL_REALS = re.compile(r"(?:ℝ|\\mathbb\s*\{?R\}?|\\R|\breals|\breal numbers)\s*$")
_EXCLUDED_BEHIND = re.compile(r"(\s*[^≠!]*?[^≠!,;\s])\s*[,;]\s*([a-zA-Z]\s*(?:≠|!=|\\neq?\b).+)$")
_SAID_BEHIND = re.compile(
    r"\n|\s*,?\s+(?:so|hence|thus|therefore)\s+(?=\S)|(?<=[\w)])\s+(?:is\s+)?"
    r"(?=(?:prime|not factorable|no (?:real )?solutions?)\b\s*\.?\s*$)",
    re.IGNORECASE,
)
"""Where a line goes on with a conclusion: `x ≠ 2 so no solution`, `x^2 + 9 prime`."""
_BOXED = re.compile(r"(?:\.\s*|(?<=\S)\s+)(\\boxed\{.*)$")
_CHECK = re.compile(r"\s*check\b\s*:?\s*(?=\S)", re.IGNORECASE)
_FOR = re.compile(r"\s*[,;]?\s*\(?\bfor\s+([a-zA-Z])\)?\s*\.?\s*$")
_ENVIRONMENT = re.compile(
    r"\\(?:begin|end)\{(align|aligned|equation|gather|gathered|eqnarray|split|enumerate|itemize|description|multline|alignat"
    r"|document|center|flalign)\*?\}(?:\[[^\]]*\]|\{\d+\})?"
)


_HEADING = re.compile(r"\s*\\(?:part|chapter|section|subsection|subsubsection|paragraph)\*?\{([^{}]*)\}\s*")
_LAYOUT = re.compile(
    r"\\(?:documentclass|usepackage|title|author|date|setlength|renewcommand|newcommand|pagestyle)\*?"
    r"(?:\[[^\]]*\])?(?:\{[^{}]*\})*"
    r"|\\(?:newpage|clearpage|maketitle|noindent|centering|hfill|vfill|smallskip|medskip|bigskip)\b"
    r"|\\[vh]space\*?\{[^{}]*\}"
    r"|(?:\\q?quad\s*)?\{\\(?:small|footnotesize|scriptsize|tiny|em|itshape)\b[^{}]*\}"
)
"""What a document says of its looks, and what stands in small print behind a line."""


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
    for block in _blocks(_without_options(_rows(text), skipped)):
        head, rows = block[0], list(block)
        found = _instruction(head.text)
        # (b) goes on with what was asked for above (a)
        goes_on = re.fullmatch(r"[a-h]", head.starts or "") and above.task
        own = above if goes_on else instruction
        if found:
            own, rest = _instructed(found, decimal)
            label = _LABEL.match(rest)
            if label and _starts_problem(rest, label):
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


def _rows(text: str) -> Iterator[_Row]:
    """The lines of the text, freed from what LaTeX and documents put around them."""
    blank = True
    preamble = text.count("\n", 0, text.find("\\begin{document}")) if "\\begin{document}" in text else 0
    for number, raw in enumerate(text.lstrip("\ufeff").splitlines(), start=1):
        if number <= preamble:
            continue
        starts: str | None = None
        line = re.sub(r"(?<!\\)%.*", "", raw) if "\\" in raw else raw
        if re.search(r"\\begin\{(align|equation|gather|eqnarray|flalign)|\\\[", line):
            blank = True
        line = _LAYOUT.sub(" ", _ENVIRONMENT.sub(" ", line))
        heading = _HEADING.fullmatch(line)
        if heading and not _INSTRUCTION.match(heading.group(1)):
            blank = True  # a heading that asks for nothing: no line of the problem above it
            continue
        item = re.match(r"\s*\\item(?:\[([^\]]*)\])?\s*", line)
        if item:
            starts, line = (item.group(1) or "").strip(".() "), line[item.end() :]
        line = re.sub(r"\\\[|\\\]|\\\(|\\\)|\$\$?|\\displaystyle|\\(?:no)?tag\*?(?:\{[^}]*\})?|\\nonumber", " ", line)
        line = re.sub(
            r"\\(?:text|textbf|mathrm|textit)\{\s*(or|and|no solution|check|undefined|prime)\s*\}", r" \1 ", line
        )
        line = re.sub(r"\\(?:text|textbf|section|subsection|textit)\*?\{([^{}]*)\}", r" \1 ", line)
        # between columns of LaTeX it is nothing; elsewhere it joins values, x ≠ 8 & -6
        line = line.replace("&", " ") if "\\" in raw else re.sub(r"\s*&\s*", ", ", line)
        bullet = _BULLET.match(line)
        if bullet and starts is None and not item:
            starts, line = "", line[bullet.end() :]
        halves = re.split(r"\\\\(?:\[[^\]]*\])?|\\newline", line)
        for part in (piece for half in halves for piece in _pieces(half)):
            label = _NAMED.match(part) or _LABEL.match(part)
            while label and _starts_problem(part, label) and len(starts or "") < _LONGEST_LABEL:  # 12), a.
                starts = (starts or "") + next(group for group in label.groups() if group).replace(" ", "")
                part = part[label.end() :]
                label = _LABEL.match(part)
            part = part.strip().rstrip(";,").strip()
            if not part:
                if starts is None:
                    blank = blank or not line.strip()
                    continue
                # the number stands alone; its problem is on the next line
                yield _Row(number, "", starts, True)
                starts, blank = None, False
                continue
            yield _Row(number, part, starts, blank)
            starts, blank = None, False


def _pieces(part: str) -> list[str]:
    """The steps of a line that goes on with arrows, and an exclusion written behind a line, each by itself."""
    if not _CHECK.match(part):  # there a cross says that the two sides are not equal
        part = _TICK.sub(" ", part)
    if not part.strip():
        return [part]
    steps = [part]
    leads = part.count("=") > 1 or re.search(r"(?:⇒|=>|⟹|→)\s*(?:no|all)\b", part)
    if leads and _ARROWS.search(part) and not re.search(r"∞|\binf|\\infty", part):
        steps = [step for step in _ARROWS.split(part) if step.strip()]
    found: list[str] = []
    steps = [piece for step in steps for piece in _in_steps(step)]
    steps = [piece for step in steps for piece in _SAID_BEHIND.split(_BOXED.sub(r"\n\1", step)) if piece.strip()]
    for step in steps:
        beside = _EXCLUDED_BEHIND.match(step)
        apart = beside and not _ALL_REALS.search(beside.group(1))  # “ℝ, x ≠ 2” is one statement
        found += [beside.group(1), beside.group(2)] if beside and apart else [step]
    return found


_STEPS = re.compile(r"^((?!\s*[A-Za-z]\s*=)[^=,;]+=[^=,;]+?)\s*[,;]\s+([A-Za-z]\s*=[^=,;]+)$")


def _in_steps(text: str) -> list[str]:
    """2w = P - 2l, w = (P - 2l)/2: one step after the other, where x = 3, x = -2 are two solutions."""
    return _STEPS.sub(r"\1\n\2", text).split("\n")


def _starts_problem(part: str, label: re.Match[str]) -> bool:
    """Whether this is a number before a problem and no piece of mathematics, such as the (a) of (a) + b."""
    rest = part[label.end() :].lstrip()
    return not rest[:1] or rest[0] not in "+*/^=·÷×-−" or bool(re.match(r"[-−]\s?[\w(√]", rest))


_FOR_LETTER = re.compile(r"(.*?\S)\s*,?\s+\(?for\s+([a-zA-Z])\)?\s*:\s*(\S.*)")
_FUNCTION = re.compile(r"\s*[A-Za-z]\s*\(\s*[a-z]\s*\)\s*")
_OPTION = re.compile(r"\(?([a-eA-E])[).]\s*")
_GAP = re.compile(r"\s{2,}|\t\s*")


def _without_options(rows: Iterator[_Row], skipped: list[tuple[int, str]]) -> Iterator[_Row]:
    """The rows without answers to choose from, `a) 8   b) 116` or one a line, which are passed over: at least three in
    the order of their letters, under a problem with a number, each no more than a value."""
    found = list(rows)
    k, under = 0, False
    while k < len(found):
        row = found[k]
        inline = _OPTION.match(f"{row.starts}) {row.text}") if row.starts else _OPTION.match(row.text)
        several = _GAP.split(row.text) if inline else []
        run = k
        while run < len(found) and _is_option(found[run], run - k):
            run += 1
        if under and inline and len(several) > 1 and all(_OPTION.match(each) for each in several[1:]):
            skipped.append((row.number, row.text))
            k += 1
        elif under and run - k > 2:
            skipped += [(each.number, each.text) for each in found[k:run]]
            k = run
        else:
            under = under if row.starts is None else row.starts[:1].isdigit()
            yield row
            k += 1


def _is_option(row: _Row, place: int) -> bool:
    """Whether a row is the answer to choose at this place: the letter of the place, and a value."""
    if place > 4 or (row.starts or "").lower() != "abcde"[place]:
        return False
    try:
        body = read_line(row.text).body
    except ReadingError:
        return False
    return body is not None and not n.letters(body) and not isinstance(body, ln.STATEMENTS)


def _blocks(rows: Iterator[_Row]) -> Iterator[list[_Row]]:
    """The rows of each problem: it starts at a number, or after an empty line where no numbers are used."""
    found = list(rows)
    numbered = any(row.starts is not None for row in found)
    block: list[_Row] = []
    for row in found:
        instruction = _instruction(row.text) is not None
        fresh = row.starts is not None or instruction or (row.blank_before and not numbered)
        if fresh and block and not (len(block) == 1 and not block[0].text):
            yield block
            block = []
        elif fresh and block:  # a number that stood alone
            row = replace(row, starts=row.starts or block[0].starts)
            block = []
        elif block and not block[0].text:
            row = replace(row, starts=block[0].starts)
            block = []
        block.append(row)
    if block:
        yield block


def _instruction(text: str) -> re.Match[str] | None:
    """An instruction, and not an entry of a table such as `Domain: x ≠ 3`."""
    found = _INSTRUCTION.fullmatch(text)
    if found is None or not _ENTRY.match(text):
        return found
    try:
        return None if read_line(text).kind in ("feature", "exclusion", "aside") else found
    except ReadingError:
        return None


def _instructed(found: re.Match[str], decimal: str) -> tuple[Working, str]:
    """What an instruction asks for, and the mathematics that stands behind it."""
    words, rest = found.group(1), found.group(found.lastindex or 2) or ""
    task = next(name for name, pattern in _TASKS if re.fullmatch(pattern, words, re.IGNORECASE))
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
    head_rows = [(step, place) for piece in _columns(head, decimal) for step in _in_steps(piece)]
    rows = [*head_rows, *below]
    cleaned = [(_cleaned(text), number) for text, number in rows]
    (given, at), rest = cleaned[0], [(line, number) for line, number in cleaned[1:] if line]
    lines = [line for line, _ in rest]
    places = [number for _, number in rest]
    task = instruction.task
    if task in ("", "simplify", "domain") and any(_is_feature(line, decimal) for line in lines):
        task = "analyze"
    lines = _checks_named(lines, decimal)
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
    pieces = [piece for piece in _GAP.split(text.strip()) if piece]
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


def _checks_named(lines: list[str], decimal: str) -> list[str]:
    """The lines, in each check that names no candidate the one that it is about: of the values found last, one after
    the other."""
    candidates: list[str] = []
    found: list[str] = []
    for line in lines:
        unnamed = _CHECK.match(line)
        if unnamed and not re.match(r"[a-zA-Z]\s*=", line[unnamed.end() :]):
            if candidates:
                line = f"check {candidates.pop(0)}: {line[unnamed.end() :]}"
        elif not unnamed:
            named = _isolated(line, decimal)
            candidates = named or candidates
        found.append(line)
    return found


def _isolated(line: str, decimal: str) -> list[str]:
    """`x = 5` and `x = 1` of a line that states these values; empty for any other line."""
    body = _body(line, decimal)
    items = body.items if isinstance(body, ln.Alternatives) else (body,)
    values: list[str] = []
    for item in items:
        match item:
            case ln.Equation((n.Letter() as letter, value)) if letter.name not in n.letters(value):
                values.append(f"{letter.name} = {plain(value)}")
            case ln.ValueList(n.Letter() as letter, many, "="):
                values += [f"{letter.name} = {plain(value)}" for value in many]
            case _:
                return []
    return values


def _split_sides(text: str) -> list[str]:
    """The sides of a chained equation, as written."""
    return [side.strip() for side in re.split(r"(?<![<>≤≥≠!])=(?!>)", text) if side.strip()]


def _body(text: str, decimal: str) -> n.Node | None:
    try:
        return read_line(text, decimal=decimal).body
    except ReadingError:
        return None


__all__ = ["MAX_CHARACTERS", "Key", "KeyProblem", "looks_like_text_form", "read_key"]
