"""One written line to a `Line`: its kind, its statement, its remark and its move."""

from __future__ import annotations

import re
from dataclasses import replace
from functools import lru_cache

from algebra.parse.decisions import Decided, split_decision, without_answer
from algebra.parse.errors import ReadingError
from algebra.parse.margin import indent, read_move, split_move
from algebra.parse.statements import FeatureReader, StatementReader
from algebra.parse.tokens import tokenize
from algebra.parse.wording import TICKS, are_words, as_check, in_other_words, split_remark, with_outcome, without_braces
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.vocabulary import LineKind

_LEAD = re.compile(r"\s*(⇒|⟹|=>|∴|\\Rightarrow\b|\\implies\b|\\therefore\b|=(?!=))\s*")
_LEAD_STARTS = frozenset("⇒⟹=∴\\fghpqr")
_KEYWORD = re.compile(r"\s*(aside|check|let|assume)\b\s*:?", re.IGNORECASE)
_FUNCTION_LEAD = re.compile(r"\s*([fghpqr]\s*\(\s*[a-z]\s*\))\s*=(?!=)")
_JOINED = re.compile(r"\band\b|&|∧|\\land\b|\\wedge\b", re.IGNORECASE)
_RELATION = re.compile(r"[<>≤≥≠]|!=|\\(?:neq?|leq?|geq?|lt|gt)\b")
_FEATURE = re.compile(
    r"\s*(?:the\s+)?(domain|range|holes?|points?|(?:vertical|horizontal|oblique|slant)\s+asymptotes?|VAs?|HAs?|OAs?|SAs?|"
    r"[xy]\s*-?\s*int(?:ercept)?s?|end\s+behaviou?r)"
    # without a colon or a word only before what a feature can be: an equation of x or y, a point, a number, none
    r"(?:\s*(?::|\b(?:at|is|are)\b)\s*|\s+(?=[xyf(]\s*(?:\(\s*x\s*\)\s*)?(?:[=≠]|!=|\\neq?\b)|\(|[-−±]?\s*\d|none\b|all\b|ℝ))",
    re.IGNORECASE,
)
_SHORT_NAMES = {
    "va": "vertical asymptote",
    "ha": "horizontal asymptote",
    "oa": "oblique asymptote",
    "sa": "oblique asymptote",
}
_DOMAIN_SIGN = re.compile(
    r"\s*D(?:_?f|_\{f\})?\s*[=:]\s*(?=ℝ|[a-z]\s*(?:≠|!=|\\neq?\b)|\\mathbb|\\R\b|.*(?:∞|\binf\b|\\infty))"
)
_WIDE_GAP = re.compile(r"(?<=[^\s=,;}])(?<!\bor)(?<!\band)(?:\s{3,}|\t\s*)(?=[^\s,;])(?!or\b|and\b|\\text)")
_LATEX_SPACES = re.compile(r"\\(?:q?quad\b|[,;:!>]|hspace\*?\{[^}]*\}|hfill\b)")
_REPEATED = re.compile(r"\s*([A-Za-zα-ω])\s*(?:=|≠|≈|!=)")
_ARROW = re.compile(r"\s*(?:as\s+)?[a-z]\s*(→|->|\\to\b)", re.IGNORECASE)
_MOVED = re.compile(r"\s*\(.*\)\s*(→|->|\\to\b|↦)\s*\(")
_BOX = re.compile(r"□|▢|☐|◻|⬜|▯|_{2,}|\[\s+\]|\\square\b|\\Box\b")
_CLAIM = re.compile(
    r"\s*(?:the\s+)?(LCD|LCM|GCF|GCD|HCF|common denominator|common factor)\b\s*"
    # of what; without a sign behind it, what it is said to be follows at once
    r"(?:\(([^()=]*)\)\s*(?::|=|\bis\b)|of\b([^=:]*)(?::|=|\bis\b)|(?::|=|\bis\b)|(?=\s*[-−\dA-Za-z(]))\s*",
    re.IGNORECASE,
)
_CLAIM_NAMES = {"common denominator": "LCD", "common factor": "GCF"}
_WHERE = {
    **dict.fromkeys(("num", "numerator", "top", "above", "upper"), "top"),
    **dict.fromkeys(("den", "denom", "denominator", "bottom", "below", "lower"), "bottom"),
    **dict.fromkeys(
        (
            "all",
            "both",
            "everything",
            "all fractions",
            "whole",
            "denominators",
            "all denominators",
            "fractions",
            "terms",
        ),
        "all",
    ),
}
_TO_BOTH = re.compile(r"^\s*[A-Za-z].*\b(?:both|each)\s+sides?\b", re.IGNORECASE)
_BELOW = re.compile(r"\s*([-−+÷/·×*][^=<>≤≥≠|#]*?\S)\s{2,}(\S[^=<>≤≥≠|#]*?)\s*")
_SIDE_NAMES = re.compile(
    r"\b(?:LHS|RHS|LS|RS|left(?:\s+(?:hand\s+)?side)?|right(?:\s+(?:hand\s+)?side)?)\s*[:=]\s*", re.IGNORECASE
)
_FULL_STOP = re.compile(r"[\w)\]}](?<!\ba)\.\s*$(?<!n\.a\.)(?<!\.\.)")
"""A line may end like a sentence."""
_UNUSUAL = re.compile(
    r"^\s*[-−+÷/·×*].*\s{2,}\S|[#|:→\\D✓✔☑✗✘✕☒□▢☐◻⬜▯;]|->|[A-Za-z]{3}|[VHOS]As?\s|_|[₁-₉]|\bso\b|\{\s*\}|"
    r"\[\s|≠|!=|\bif\b|\bn[./]\s?a\b"
)
"""What every remark, move, word, box and named feature has in it; most lines have none of it."""


def read_line(text: str, *, decimal: str = "point") -> ln.Line:
    """The line as read; raises ReadingError with the column of the place that can't be read."""
    return _read_line(text, decimal)


@lru_cache(maxsize=2048)  # a working is read again whenever one of its lines changes
def _read_line(text: str, decimal: str) -> ln.Line:
    if _FULL_STOP.search(text):
        return replace(_read_line(text.rstrip()[:-1], decimal), text=text)
    if not _UNUSUAL.search(text):
        return _chain_line(text.rstrip(), decimal, text)
    if (below := _move_below(text, decimal)) is not None:
        return below
    if sum(text.count(tick) for tick in TICKS) > 1 and (decided := split_decision(text)) is not None:
        return replace(_decision_line(decided, decimal), text=text, remark=decided.said)
    body, remark = split_remark(text)
    body, move_text, move_column = split_move(without_braces(body))
    move = None
    if move_text is not None:
        move, said = read_move(move_text, move_column, decimal)
        remark = "; ".join(part for part in (said, remark) if part)
    body, as_answer = without_answer(body)
    body = as_check(in_other_words(body))
    if _BOX.search(body):
        return ln.Line(text, "open", _with_boxes(body, decimal), remark=remark, move=move, notes=("open",))
    keyword = _KEYWORD.match(body)
    feature = _FEATURE.match(body)
    claim = _CLAIM.match(body)
    if claim:
        line = _claim_line(claim, body, decimal)
    elif feature:
        line = _feature_line(feature.group(1), body, feature.end(), decimal)
    elif domain := _DOMAIN_SIGN.match(body):
        line = _feature_line("domain" if ":" in domain.group() else "D", body, domain.end(), decimal)
    elif _MOVED.match(body):
        line = _feature_line("moved point", body, 0, decimal)
    elif _ARROW.match(body):
        line = _feature_line("end behaviour", body, 0, decimal)
    elif keyword:
        if keyword.group(1).lower() == "check":
            body = with_outcome(body, remark)
        line = _side_line(keyword.group(1).lower(), body, keyword.end(), decimal)
    elif (decided := split_decision(body)) is not None:
        line = _decision_line(decided, decimal)
        remark = "; ".join(part for part in (decided.said, remark) if part)
    else:
        line = _chain_line(body, decimal, body)
    return replace(line, text=text, remark=remark, move=move, as_answer=as_answer or line.as_answer)


def _decision_line(decided: Decided, decimal: str) -> ln.Line:
    """`x = 5, reject -6`, `-6 is extraneous`, `x = 5 only`."""
    dropped: tuple[n.Node, ...] = ()
    if decided.out:
        listed = _statement(decided.out, decimal, decided.at)
        items = listed.items if isinstance(listed, ln.Alternatives | ln.ValueList | ln.AllOf) else (listed,)
        dropped = tuple(item.sides[-1] if isinstance(item, ln.Equation) else item for item in items)
    if not decided.kept.strip():
        return ln.Line(decided.said, "statement", None, dropped=dropped)
    kept = _chain_line(decided.kept, decimal, decided.kept)
    return replace(kept, dropped=dropped, as_answer=kept.kind == "expression")


def _move_below(text: str, decimal: str) -> ln.Line | None:
    """`-4   -4` under the two sides of an equation, or the same in words: what is done to both."""
    move: ln.Move | None
    if _TO_BOTH.search(text) and "=" not in text:  # subtract 5 from both sides
        move, _ = read_move(text, 0, decimal)
        return None if move is None else ln.Line(text, "move", None, move=move)
    found = _BELOW.fullmatch(text)
    if found is None or "".join(found[1].split()) != "".join(found[2].split()):
        return None
    try:
        terms = _statement(found[1], decimal, found.start(1)) if found[1][0] in "-−+" else None
        if isinstance(terms, n.Sum):  # -30x - 90: all of it is added
            move = ln.Move("add", found[1], terms)
        else:
            move, _ = read_move(found[1], found.start(1), decimal)
    except ReadingError:
        return None
    return None if move is None else ln.Line(text, "move", None, move=move)


def _with_boxes(body: str, decimal: str) -> n.Node | None:
    """A line with empty boxes, each read as a letter of its own kind; None where the rest can't be read."""
    try:
        reader = _statement_reader(_BOX.sub(lambda m: "□".ljust(len(m.group())), body), decimal, 0)
        return reader.statement()
    except ReadingError:
        return None


def _claim_line(claim: re.Match[str], body: str, decimal: str) -> ln.Line:
    """`LCD = t(t-5)`, `LCM(6, 8) = 24`, `GCF of 8 and 12: 4`."""
    named = claim.group(2) if claim.group(2) is not None else claim.group(3)
    of: tuple[n.Node, ...] = ()
    if named is not None and named.strip():
        start = claim.start(2) if claim.group(2) is not None else claim.start(3)
        where = _WHERE.get(re.sub(r"^\s*the\s+|[\s.]+$", "", named.lower()).strip())
        listed = ln.Word(where) if where else _statement(named, decimal, start)
        of = listed.items if isinstance(listed, ln.Alternatives) else (listed,)
    value = _statement(body[claim.end() :], decimal, claim.end())
    if isinstance(value, ln.STATEMENTS):
        raise ReadingError("One expression is expected here.", claim.end() + 1)
    name = claim.group(1).lower()
    return ln.Line(body, "aside", ln.Claim(_CLAIM_NAMES.get(name, name.upper()), of, value))


def forget_lines() -> None:
    """Empties what `read_line` keeps."""
    _read_line.cache_clear()


def read_expression(text: str, *, decimal: str = "point") -> n.Node:
    """A single expression; raises ReadingError when the text is anything else."""
    line = read_line(text, decimal=decimal)
    if line.kind != "expression" or line.body is None:
        raise ReadingError("An expression was expected here.", 1)
    return line.body


def _side_line(keyword: str, body: str, start: int, decimal: str) -> ln.Line:
    rest = body[start:]
    if keyword == "check":
        named = _SIDE_NAMES.match(rest.lstrip())
        claimed = None if named is None and ":" in rest else _check_claim(rest, decimal, start)
        if isinstance(claimed, ln.STATEMENTS) and (named or not n.letters(claimed)):
            return ln.Line(body, "check", claimed)  # of the candidate that stands above
        subject_text, colon, claim = rest.partition(":")
        subject = _statement(subject_text, decimal, start)
        if not (
            isinstance(subject, ln.Equation) and len(subject.sides) == 2 and isinstance(subject.sides[0], n.Letter)
        ):
            raise ReadingError("A check names the candidate first, as in “check x = 6”.", start + 1 + indent(rest))
        if claim.strip() == "fails":
            return ln.Line(body, "check", ln.Word("fails"), subject)
        claimed = _check_claim(claim, decimal, start + len(subject_text) + 1) if colon and claim.strip() else None
        return ln.Line(body, "check", claimed, subject)
    if keyword == "assume":
        return ln.Line(body, "assumption", _assumed(rest, decimal, start))
    statement = _statement(rest, decimal, start)
    if keyword == "aside":
        return ln.Line(body, "aside", statement)
    if not (
        isinstance(statement, ln.Equation) and len(statement.sides) == 2 and isinstance(statement.sides[0], n.Letter)
    ):
        raise ReadingError("A definition gives a letter a meaning, as in “let u = x^2”.", start + 1 + indent(rest))
    return ln.Line(body, "definition", None, statement)


def _check_claim(text: str, decimal: str, start: int) -> n.Node:
    """What a check writes; each side by its name, `LHS = √16 = 4, RHS = 4`, is a chain of its own."""
    names = list(_SIDE_NAMES.finditer(text))
    if not names:
        return _statement(text, decimal, start)
    chains: list[n.Node] = []
    for name, following in zip(names, [*names[1:], None], strict=True):
        end = following.start() if following else len(text)
        own = text[name.end() : end].rstrip().rstrip(",;").removesuffix("and").rstrip()
        chains.append(_statement(own, decimal, start + name.end()))
    return chains[0] if len(chains) == 1 else ln.Alternatives(tuple(chains))


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
    name = _SHORT_NAMES.get(name, re.sub(r"^([xy])-?int$", r"\1-intercept", re.sub(r"^([xy]) ?int", r"\1-int", name)))
    # an arrow is read as a sign of its own, so that what stands on either side can be told apart
    text = body[start:]
    if name in ("end behaviour", "moved point"):
        text = re.sub(r"→|->|↦|\\to\b", " > ", re.sub(r"^\s*as\b", "", text, flags=re.IGNORECASE))
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
    if "\\" in body:
        body = _LATEX_SPACES.sub(lambda m: " " * len(m.group()), body)
    body = _with_joints(body, start)
    reader = _statement_reader(body[start:], decimal, start)
    statement = reader.statement()
    if isinstance(statement, n.Product) and are_words(body[start:]):
        raise ReadingError("These words have no meaning here; put | before a remark.", start + 1 + indent(body[start:]))
    notes = tuple(sorted(reader.notes)) if reader.notes else ()
    return ln.Line(text, _kind(statement), statement, None, lead + reader.member, "", None, notes, reader.restriction)


def _with_joints(body: str, start: int) -> str:
    """Statements that stand side by side, `x = 3    x - 2 = 0` or `x = 3 x = -2`, with a comma between them: never a
    product."""
    if not any(sign in body for sign in "=≠≈"):
        return body
    pieces = [piece for piece in _WIDE_GAP.split(body[start:]) if piece.strip()]
    if len(pieces) > 1 and all(len(re.findall(r"(?<![<>!~])=(?!\?)|≠|!=", piece)) == 1 for piece in pieces):
        return body[:start] + _WIDE_GAP.sub(lambda gap: ";".ljust(len(gap.group())), body[start:])
    first = _REPEATED.match(body, start)
    if first is None:
        return body
    again = re.compile(rf"(?<=[^\s=+\-−*/·×÷^(,;≠≈&∧∨}}])(?<!\bor)(?<!\band)\s+(?={first.group(1)}\s*(?:=|≠|≈|!=))")
    return body[: first.end()] + again.sub(lambda gap: ";".ljust(len(gap.group())), body[first.end() :])


def _kind(statement: n.Node) -> LineKind:
    if isinstance(statement, ln.Equation):
        return "equation"
    if not isinstance(statement, ln.STATEMENTS):
        return "expression"
    if isinstance(statement, ln.Alternatives) and all(isinstance(item, ln.Equation) for item in statement.items):
        return "equation"
    if isinstance(statement, ln.AllOf) and all(_kind(item) == "exclusion" for item in statement.items):
        return "exclusion"
    if isinstance(statement, (ln.Comparison, ln.ValueList)) and statement.operator == "≠":
        return "exclusion"
    return "statement"


def _statement_reader(text: str, decimal: str, offset: int) -> StatementReader:
    return StatementReader(tokenize(text, decimal=decimal, offset=offset), separator=";" if decimal == "comma" else ",")


def _statement(text: str, decimal: str, offset: int) -> n.Node:
    return _statement_reader(text, decimal, offset).statement()
