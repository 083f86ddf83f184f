"""One written line to a `Line`: its kind, its statement, its remark and its move."""

from __future__ import annotations

import re
from functools import lru_cache

from algebra.parse.errors import ReadingError
from algebra.parse.expressions import ExpressionReader
from algebra.parse.statements import FeatureReader, StatementReader
from algebra.parse.tokens import tokenize
from algebra.tree import nodes as n
from algebra.tree import statements as ln

_LEAD = re.compile(r"\s*(⇒|=>|∴|\\Rightarrow\b|\\implies\b|\\therefore\b|=(?!=))\s*")
_LEAD_STARTS = frozenset("⇒=∴\\fghpqr")
_KEYWORD = re.compile(r"\s*(aside|check|let|assume)\b\s*:?", re.IGNORECASE)
_FUNCTION_LEAD = re.compile(r"\s*([fghpqr]\s*\(\s*[a-z]\s*\))\s*=(?!=)")
_MOVE_START = re.compile(r"\s*([+\-−–±×·*÷/^]|\\times|\\cdot|\\div|[a-z])")
_JOINED = re.compile(r"\band\b|&|∧|\\land\b|\\wedge\b", re.IGNORECASE)
_RELATION = re.compile(r"[<>≤≥≠]|!=|\\(?:neq?|leq?|geq?|lt|gt)\b")
_FEATURE = re.compile(
    r"\s*(domain|range|holes?|points?|(?:vertical|horizontal|oblique|slant)\s+asymptotes?|[xy]\s*-\s*intercepts?|"
    r"end\s+behaviou?r)\s*:\s*",
    re.IGNORECASE,
)
_DOMAIN_SIGN = re.compile(
    r"\s*D(?:_?f|_\{f\})?\s*[=:]\s*(?=ℝ|[a-z]\s*(?:≠|!=|\\neq?\b)|\\mathbb|\\R\b|.*(?:∞|\binf\b|\\infty))"
)
_WIDE_GAP = re.compile(r"(?<=[^\s=])(?:\s{3,}|\t\s*)(?=[A-Za-zα-ω]\s*=)")
_ARROW = re.compile(r"\s*[a-z]\s*(→|->|\\to\b)", re.IGNORECASE)
_UNUSUAL = re.compile(r"[#|:→\\D]|->|[A-Za-z]{3}")
"""What every remark, move, word and named feature has in it; most lines have none of it."""
_NAMED_MOVES = {
    "square": "square", "square both sides": "square", "^2": "square", "root": "root", "square root": "root",
    "√": "root", "swap": "swap", "swap sides": "swap",
}  # fmt: skip
_MOVE_OPERATIONS = {
    "+": "add", "-": "subtract", "×": "multiply", "·": "multiply", "÷": "divide", "/": "divide", "^": "power",
}  # fmt: skip


def read_line(text: str, *, decimal: str = "point") -> ln.Line:
    """The line as read; raises ReadingError with the column of the place that can't be read."""
    return _read_line(text, decimal)


@lru_cache(maxsize=2048)  # a working is read again whenever one of its lines changes
def _read_line(text: str, decimal: str) -> ln.Line:
    if not _UNUSUAL.search(text):
        return _chain_line(text.rstrip(), decimal, text)
    body, remark = _split_remark(text)
    body, move_text, move_column = _split_move(body)
    move = _read_move(move_text, move_column, decimal) if move_text is not None else None
    keyword = _KEYWORD.match(body)
    feature = _FEATURE.match(body)
    if feature:
        line = _feature_line(feature.group(1), body, feature.end(), decimal)
    elif domain := _DOMAIN_SIGN.match(body):
        line = _feature_line("domain" if ":" in domain.group() else "D", body, domain.end(), decimal)
    elif _ARROW.match(body):
        line = _feature_line("end behaviour", body, 0, decimal)
    elif keyword:
        line = _side_line(keyword.group(1).lower(), body, keyword.end(), decimal)
    else:
        line = _chain_line(body, decimal, body)
    return ln.Line(text, line.kind, line.body, line.subject, line.lead, remark, move, line.notes)


def forget_lines() -> None:
    """Empties what `read_line` keeps."""
    _read_line.cache_clear()


def read_expression(text: str, *, decimal: str = "point") -> n.Node:
    """A single expression; raises ReadingError when the text is anything else."""
    line = read_line(text, decimal=decimal)
    if line.kind != "expression" or line.body is None:
        raise ReadingError("An expression was expected here.", 1)
    return line.body


def _split_remark(text: str) -> tuple[str, str]:
    body, hash_sign, remark = text.partition("#")
    return body.rstrip(), remark.strip() if hash_sign else ""


def _split_move(body: str) -> tuple[str, str | None, int]:
    """The line before the move bar, and the text after it.

    Bars of absolute values come in pairs; so an odd number of bars holds one move bar: it has an even
    number on either side and white space before it.
    """
    bars = [m.start() for m in re.finditer(r"\|", body) if not re.search(r"\\(left|right)\s*$", body[: m.start()])]
    if len(bars) % 2 == 0:
        return body, None, 0
    for k in range(len(bars) - 1, -1, -1):
        place = bars[k]
        if k % 2 == 0 and body[:place].strip() and body[place - 1].isspace() and _MOVE_START.match(body[place + 1 :]):
            return body[:place].rstrip(), body[place + 1 :].strip(), place + 1 + _indent(body[place + 1 :])
    return body, None, 0


def _indent(text: str) -> int:
    return len(text) - len(text.lstrip())


def _read_move(text: str, column: int, decimal: str) -> ln.Move:
    name = _NAMED_MOVES.get(text.lower().replace("both sides", "").strip()) or _NAMED_MOVES.get(text.lower())
    if name:
        return ln.Move(name, text)
    tokens = tokenize(text, decimal=decimal, offset=column)
    first = tokens[0]
    if first.kind != "op" or first.text not in _MOVE_OPERATIONS:
        raise ReadingError("A move starts with +, -, ×, ÷ or ^, or is the word square, root or swap.", column + 1)
    reader = ExpressionReader(tokens)
    reader.take()
    operand = reader.expression()
    if not reader.sees("end"):
        raise reader.fail("The move should end here.")
    return ln.Move(_MOVE_OPERATIONS[first.text], text, operand)


def _side_line(keyword: str, body: str, start: int, decimal: str) -> ln.Line:
    rest = body[start:]
    if keyword == "check":
        subject_text, colon, claim = rest.partition(":")
        subject = _statement(subject_text, decimal, start)
        if not (
            isinstance(subject, ln.Equation) and len(subject.sides) == 2 and isinstance(subject.sides[0], n.Letter)
        ):
            raise ReadingError("A check names the candidate first, as in “check x = 6”.", start + 1 + _indent(rest))
        claimed = _statement(claim, decimal, start + len(subject_text) + 1) if colon and claim.strip() else None
        return ln.Line(body, "check", claimed, subject)
    if keyword == "assume":
        return ln.Line(body, "assumption", _assumed(rest, decimal, start))
    statement = _statement(rest, decimal, start)
    if keyword == "aside":
        return ln.Line(body, "aside", statement)
    if not (
        isinstance(statement, ln.Equation) and len(statement.sides) == 2 and isinstance(statement.sides[0], n.Letter)
    ):
        raise ReadingError("A definition gives a letter a meaning, as in “let u = x^2”.", start + 1 + _indent(rest))
    return ln.Line(body, "definition", None, statement)


def _assumed(text: str, decimal: str, start: int) -> n.Node:
    """`a > 0`, `a, b > 0`, `x ≠ 0, 4`, `x > 0 and y < 0`, `x > 0, y < 0`: one comparison, or all of several."""
    found: list[n.Node] = []
    at = start
    for part in re.split(f"({_JOINED.pattern})", text, flags=re.IGNORECASE):
        if not _JOINED.fullmatch(part):
            found += _compared(part, decimal, at)
        at += len(part)
    return found[0] if len(found) == 1 else ln.AllOf(tuple(found))


def _compared(text: str, decimal: str, start: int) -> list[n.Node]:
    """The comparisons of a list: letters without one share the next, values without one belong to the last."""
    separator = ";" if decimal == "comma" else ","
    pieces = text.split(separator)
    if sum(1 for piece in pieces if _RELATION.search(piece)) == 0:
        return [_statement(text, decimal, start)]
    names: list[n.Node] = []
    found: list[n.Node] = []
    at, open_at, gathered = start, start, ""
    for k, piece in enumerate(pieces):
        gathered += piece
        following = pieces[k + 1] if k + 1 < len(pieces) else ""
        if not _RELATION.search(gathered):
            names.append(_statement(piece, decimal, at))
            gathered = ""
        elif k + 1 == len(pieces) or _RELATION.search(following):
            compared = _statement(gathered, decimal, open_at)
            operator, right = (compared.operator, compared.right) if isinstance(compared, ln.Comparison) else ("", None)
            if names and right is not None:
                found += [ln.Comparison(name, operator, right) for name in names]
            elif names:
                raise ReadingError("Compare each of these letters with one value, as in a, b > 0.", open_at + 1)
            found.append(compared)
            names, gathered = [], ""
        else:
            gathered += separator
        at += len(piece) + 1
        if not gathered:
            open_at = at
    if names:
        raise ReadingError("These letters are not compared with anything.", start + 1)
    return found


def _feature_line(label: str, body: str, start: int, decimal: str) -> ln.Line:
    """`hole: (3, 5/6)`; a domain is a statement like any other."""
    words = re.sub(r"\s*-\s*", "-", " ".join(label.lower().split())).replace("behavior", "behaviour")
    plural = words.endswith("s")
    name = words.rstrip("s").replace("slant", "oblique")
    # an arrow is read as a sign of its own, so that what stands on either side can be told apart
    text = re.sub(r"→|->|\\to\b", " > ", body[start:]) if name == "end behaviour" else body[start:]
    reader = FeatureReader(tokenize(text, decimal=decimal, offset=start), separator=";" if decimal == "comma" else ",")
    feature = reader.feature("domain", False, "D") if label == "D" else reader.feature(name, plural, words)
    return ln.Line(body, "feature", feature, lead=reader.member)


def _chain_line(body: str, decimal: str, text: str) -> ln.Line:
    lead, start = "", 0
    if body.lstrip()[:1] in _LEAD_STARTS:
        for pattern in (_LEAD, _FUNCTION_LEAD):
            match = pattern.match(body, start)
            if match:
                lead += match.group(1)
                start = match.end()
    beside = _beside_each_other(body, start, decimal)
    if beside is not None:
        return ln.Line(text, _kind(beside), beside, None, lead)
    reader = _statement_reader(body[start:], decimal, start)
    statement = reader.statement()
    notes = tuple(sorted(reader.notes)) if reader.notes else ()
    return ln.Line(text, _kind(statement), statement, None, lead + reader.member, "", None, notes)


def _beside_each_other(body: str, start: int, decimal: str) -> n.Node | None:
    """Statements of one letter with a wide gap between them, `x = 3    x = -2`: a list of values, never a product."""
    gap = _WIDE_GAP.search(body, start)
    if gap is None:
        return None
    items: list[n.Node] = []
    while True:
        end = gap.start() if gap else len(body)
        item = _statement(body[start:end], decimal, start)
        if not (isinstance(item, ln.Equation) and len(item.sides) == 2 and isinstance(item.sides[0], n.Letter)):
            return None
        items.append(item)
        if gap is None:
            return ln.Alternatives(tuple(items))
        start = gap.end()
        gap = _WIDE_GAP.search(body, start)


def _kind(statement: n.Node) -> str:
    if isinstance(statement, ln.Equation):
        return "equation"
    if not isinstance(statement, ln.STATEMENTS):
        return "expression"
    if isinstance(statement, ln.Alternatives) and all(isinstance(item, ln.Equation) for item in statement.items):
        return "equation"
    if isinstance(statement, (ln.Comparison, ln.ValueList)) and statement.operator == "≠":
        return "exclusion"
    return "statement"


def _statement_reader(text: str, decimal: str, offset: int) -> StatementReader:
    return StatementReader(tokenize(text, decimal=decimal, offset=offset), separator=";" if decimal == "comma" else ",")


def _statement(text: str, decimal: str, offset: int) -> n.Node:
    return _statement_reader(text, decimal, offset).statement()
