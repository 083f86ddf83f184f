"""The lines of a pasted key, freed from what documents put around them, and which of them belong to one problem."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace

from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.tree import statements as ln


@dataclass(slots=True)
class Row:
    """One line: its number in the text; `starts` is the label of a problem that starts here."""

    number: int
    text: str
    starts: str | None = None
    blank_before: bool = False


TASKS: tuple[tuple[str, str], ...] = (
    ("solve", r"solve|find (?:all |the )?(?:solutions?|roots?|zeros?|x)\b"),
    ("domain", r"(?:find|state|give) the (?:domain|excluded values?)|domain|excluded values? of"),
    ("factor", r"factori[sz]e|factor"),
    ("expand", r"expand|multiply out|distribute|write as a polynomial"),
    ("evaluate", r"evaluate|calculate|compute|work out"),
    ("analyze", r"analy[sz]e|graph|sketch|find the (?:asymptotes|features)"),
    ("simplify", r"simplify|reduce|rationali[sz]e|combine|add|subtract|multiply|divide|write|perform|express"),
)
_INSTRUCTION = re.compile(rf"\s*({'|'.join(words for _, words in TASKS)})\b(.*)", re.IGNORECASE | re.DOTALL)
_LONGEST_LABEL = 6
_ENTRY = re.compile(r"\s*(?:domain|range|graph|zeros?|roots?)\s*[:=]", re.IGNORECASE)
_NAMES = r"(?:problem|question|exercise|example|practice|task|item|no\.?|nr\.?|prob\.?|ex\.?|q|#)"
LABEL = re.compile(
    rf"\s*(?:{_NAMES}\s*)?(?:\(?(\d{{1,3}}(?:\.\d{{1,2}})?\s?[a-z]?)[.):]+\)?,?"
    r"|(\d{1,3}\.\d{1,2}[a-z]?)(?=\s{2,}|\t)|\(?([a-z])\)|([a-z])\.(?=\s))(?:\s+|$)",
    re.IGNORECASE,
)
_NAMED = re.compile(rf"\s*{_NAMES}\s*(\d{{1,3}}(?:\.\d{{1,2}})?[a-z]?|[a-z](?=\s*[.:)]))\s*[.:)]?\s*", re.IGNORECASE)
_BULLET = re.compile(r"\s*[•●▪◦‣·*]\s+(?=\S)")
_TICK = re.compile(r"[✓✔☑]")
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


_OPTION = re.compile(r"\(?([a-eA-E])[).]\s*")
GAP = re.compile(r"\s{2,}|\t\s*")


def rows_of(text: str) -> Iterator[Row]:
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
            label = _NAMED.match(part) or LABEL.match(part)
            while label and starts_problem(part, label) and len(starts or "") < _LONGEST_LABEL:  # 12), a.
                starts = (starts or "") + next(group for group in label.groups() if group).replace(" ", "")
                part = part[label.end() :]
                label = LABEL.match(part)
            part = part.strip().rstrip(";,").strip()
            if not part:
                if starts is None:
                    blank = blank or not line.strip()
                    continue
                # the number stands alone; its problem is on the next line
                yield Row(number, "", starts, True)
                starts, blank = None, False
                continue
            yield Row(number, part, starts, blank)
            starts, blank = None, False


def _pieces(part: str) -> list[str]:
    """The steps of a line that goes on with arrows, and an exclusion written behind a line, each by itself."""
    if not re.search(r"[✗✘✕☒]", part) and not _CHECK.match(part):  # a cross says something
        part = _TICK.sub(" ", part)
    if not part.strip():
        return [part]
    steps = [part]
    leads = part.count("=") > 1 or re.search(r"(?:⇒|=>|⟹|→)\s*(?:no|all)\b", part)
    if leads and _ARROWS.search(part) and not re.search(r"∞|\binf|\\infty", part):
        steps = [step for step in _ARROWS.split(part) if step.strip()]
    found: list[str] = []
    steps = [piece for step in steps for piece in in_steps(step)]
    steps = [piece for step in steps for piece in _SAID_BEHIND.split(_BOXED.sub(r"\n\1", step)) if piece.strip()]
    for step in steps:
        beside = _EXCLUDED_BEHIND.match(step)
        apart = beside and not _ALL_REALS.search(beside.group(1))  # “ℝ, x ≠ 2” is one statement
        found += [beside.group(1), beside.group(2)] if beside and apart else [step]
    return found


_STEPS = re.compile(r"^((?!\s*[A-Za-z]\s*=)[^=,;]+=[^=,;]+?)\s*[,;]\s+([A-Za-z]\s*=[^=,;]+)$")


def in_steps(text: str) -> list[str]:
    """2w = P - 2l, w = (P - 2l)/2: one step after the other, where x = 3, x = -2 are two solutions."""
    return _STEPS.sub(r"\1\n\2", text).split("\n")


def starts_problem(part: str, label: re.Match[str]) -> bool:
    """Whether this is a number before a problem and no piece of mathematics, such as the (a) of (a) + b."""
    rest = part[label.end() :].lstrip()
    return not rest[:1] or rest[0] not in "+*/^=·÷×-−" or bool(re.match(r"[-−]\s?[\w(√]", rest))


def without_options(rows: Iterator[Row], skipped: list[tuple[int, str]]) -> Iterator[Row]:
    """The rows without answers to choose from, `a) 8   b) 116` or one a line, which are passed over: at least three in
    the order of their letters, under a problem with a number, each no more than a value."""
    found = list(rows)
    k, under = 0, False
    while k < len(found):
        row = found[k]
        inline = _OPTION.match(f"{row.starts}) {row.text}") if row.starts else _OPTION.match(row.text)
        several = GAP.split(row.text) if inline else []
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


def _is_option(row: Row, place: int) -> bool:
    """Whether a row is the answer to choose at this place: the letter of the place, and a value."""
    if place > 4 or (row.starts or "").lower() != "abcde"[place]:
        return False
    try:
        body = read_line(row.text).body
    except ReadingError:
        return False
    return body is not None and not n.letters(body) and not isinstance(body, ln.STATEMENTS)


def blocks(rows: Iterator[Row]) -> Iterator[list[Row]]:
    """The rows of each problem: it starts at a number, or after an empty line where no numbers are used."""
    found = list(rows)
    numbered = any(row.starts is not None for row in found)
    block: list[Row] = []
    for row in found:
        instruction = instruction_in(row.text) is not None
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


def instruction_in(text: str) -> re.Match[str] | None:
    """An instruction, and not an entry of a table such as `Domain: x ≠ 3`."""
    found = _INSTRUCTION.fullmatch(text)
    if found is None or not _ENTRY.match(text):
        return found
    try:
        return None if read_line(text).kind in ("feature", "exclusion", "aside") else found
    except ReadingError:
        return None
