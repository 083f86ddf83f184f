"""One written line to a `Line`: its kind, its statement, its remark and its move."""

from __future__ import annotations

import re
from functools import lru_cache

from algebra.parse.errors import ReadingError
from algebra.parse.expressions import ExpressionReader
from algebra.parse.tokens import Token, tokenize
from algebra.tree import lines as ln
from algebra.tree import nodes as n

_LEAD = re.compile(r"\s*(⇒|=>|∴|\\Rightarrow\b|\\implies\b|\\therefore\b|=(?!=))\s*")
_LEAD_STARTS = frozenset("⇒=∴\\fghpqr")
_KEYWORD = re.compile(r"\s*(aside|check|let|assume)\b\s*:?", re.IGNORECASE)
_FUNCTION_LEAD = re.compile(r"\s*([fghpqr]\s*\(\s*[a-z]\s*\))\s*=(?!=)")
_MOVE_START = re.compile(r"\s*([+\-−–±×·*÷/^]|\\times|\\cdot|\\div|[a-z])")
_SIGN_ASSUMPTION = re.compile(r"\s*([a-zα-ω](?:\s*,\s*[a-zα-ω])*)\s*(>=|≥|>)\s*0\s*", re.IGNORECASE)
_FEATURE = re.compile(
    r"\s*(domain|range|holes?|points?|(?:vertical|horizontal|oblique|slant)\s+asymptotes?|[xy]\s*-\s*intercepts?|"
    r"end\s+behaviou?r)\s*:\s*",
    re.IGNORECASE,
)
_DOMAIN_SIGN = re.compile(
    r"\s*D(?:_?f|_\{f\})?\s*[=:]\s*(?=ℝ|[a-z]\s*(?:≠|!=|\\neq?\b)|\\mathbb|\\R\b|.*(?:∞|\binf\b|\\infty))"
)
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
    signs = _SIGN_ASSUMPTION.fullmatch(rest)
    if keyword == "assume" and signs:
        names = [n.Letter(name) for name in re.findall(r"[a-zα-ω]", signs.group(1))]
        operator = {">=": "≥"}.get(signs.group(2), signs.group(2))
        body_node: n.Node = n.Integer(0)
        if len(names) == 1:
            return ln.Line(body, "assumption", ln.Comparison(names[0], operator, body_node))
        return ln.Line(body, "assumption", ln.ValueList(names[0], (*names[1:], body_node), operator))
    statement = _statement(rest, decimal, start)
    if keyword == "aside":
        return ln.Line(body, "aside", statement)
    if keyword == "assume":
        return ln.Line(body, "assumption", statement)
    if not (
        isinstance(statement, ln.Equation) and len(statement.sides) == 2 and isinstance(statement.sides[0], n.Letter)
    ):
        raise ReadingError("A definition gives a letter a meaning, as in “let u = x^2”.", start + 1 + _indent(rest))
    return ln.Line(body, "definition", None, statement)


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
    reader = _statement_reader(body[start:], decimal, start)
    statement = reader.statement()
    notes = tuple(sorted(reader.notes)) if reader.notes else ()
    return ln.Line(text, _kind(statement), statement, None, lead + reader.member, "", None, notes)


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


_STARTS_PHRASE = frozenset(["word", "open"])
_SET_NAMES = ("S", "L")
_INEQUALITIES = ("<", ">", "≤", "≥")


class StatementReader(ExpressionReader):
    """Reads what a line can state: equations joined by `or`, lists, sets, and the fixed phrases."""

    member = ""
    """What stands before a set, `x ∈` or `S =`; empty for any other statement."""

    def statement(self) -> n.Node:
        """What the line states; raises ReadingError where something is left over."""
        first, phrase = self.tokens[self.position], None
        if first.kind in _STARTS_PHRASE or (
            first.kind == "letter" and (first.text in _SET_NAMES or self.tokens[self.position + 1].text == "∈")
        ):
            phrase = self._set_or_phrase()
        if phrase is None:
            phrase = self._item()
            if self.sees("word", "or"):
                items = [phrase]
                while self.sees("word", "or"):
                    self.position += 1
                    items.append(self._item(items[-1]))
                phrase = ln.Alternatives(tuple(items))
        last = self.tokens[self.position]
        if last.kind != "end":
            if last.text == "and":
                raise self.fail("Join solutions by “or”: the unknown is one value or the other.")
            raise self._unexpected()
        return phrase

    def _set_or_phrase(self) -> n.Node | None:
        """A set, intervals, or words with a meaning; None where something else stands."""
        self._set_sign()
        phrase = self._phrase()
        if phrase is None and self._is_set():
            self.take()
            phrase = ln.SetOf(self._items())
            self._closing_brace()
        if phrase is None and self._is_interval():
            parts = [self._interval()]
            while self.sees("op", "∪"):
                self.take()
                parts.append(self._interval())
            phrase = ln.Union(tuple(parts)) if len(parts) > 1 else parts[0]
        if phrase is None and self.member.endswith("∈"):
            raise self.fail(f"A set is expected after {self.member}, as in (2, ∞), {{2, 3}} or ℝ.")
        return phrase

    def _set_sign(self) -> None:
        """Takes `x ∈`, and `S =` or `L =` before a set of solutions."""
        first, second, third = (*self.tokens[self.position : self.position + 3], *self.tokens[-1:] * 2)[:3]
        if first.kind == "letter" and (second.kind, second.text) == ("op", "∈"):
            self.member = f"{first.text} ∈"
            self.position += 2
        elif first.text in _SET_NAMES and second.kind == "equals" and (third.kind == "word" or third.text == "{"):
            self.member = f"{first.text} ="
            self.position += 2

    def _unexpected(self) -> ReadingError:
        token: Token = self.next
        if token.kind == "close" or (token.kind == "latex" and token.text == "}"):
            return self.fail(f"“{token.text}” closes a bracket that was not opened.")
        if token.kind == "separator" and token.text != self.separator:
            return self.fail(f"Separate the values of a list by “{self.separator}”.")
        return self.fail(f"“{token.text}” was not expected here.")

    def _words(self, *words: str) -> bool:
        """Takes the words if they stand next, all of them."""
        window = self.tokens[self.position : self.position + len(words)]
        if [token.text for token in window] != list(words) or any(token.kind != "word" for token in window):
            return False
        self.position += len(words)
        return True

    def _phrase(self) -> n.Node | None:
        if not self.sees("word"):
            return None
        for negation in (
            ("no", "solution"),
            ("no", "solutions"),
            ("no", "real", "solution"),
            ("no", "real", "solutions"),
        ):
            if self._words(*negation):
                return ln.NoSolution()
        if self._words("∅"):
            return ln.NoSolution(sign=True)
        if self._words("ℝ"):
            return ln.AllReals(self._exceptions(), sign=True)
        if self._words("all", "real", "numbers") or self._words("all", "reals"):
            return ln.AllReals(self._exceptions())
        for word in ("prime", "undefined", "none"):
            if self._words(word):
                return ln.Word(word)
        return None

    def _exceptions(self) -> tuple[n.Node, ...]:
        """What the real numbers are taken without: `except 2, 3`, `∖ {2, 3}` or `, x ≠ 2, 3`."""
        if self._words("except"):
            return self._items()
        if self.sees("op", "∖"):
            self.take()
            if not self._is_set():
                raise self.fail("A set is expected after ∖, as in ℝ ∖ {2, 3}.")
            self.take()
            items = self._items()
            self._closing_brace()
            return items
        if self.sees("separator", self.separator):
            self.take()
            match self._item():
                case ln.ValueList(n.Letter(), items, "≠"):
                    return items
            raise self.fail("Behind the real numbers only what is left out is expected, as in ℝ, x ≠ 2.")
        return ()

    def _is_set(self) -> bool:
        """Whether the whole statement is one pair of braces."""
        if not self.sees("open", "{"):
            return False
        depth = 0
        for token in self.tokens[self.position :]:
            depth += (token.kind == "open") - (token.kind == "close")
            if depth == 0:
                return self.tokens[self.tokens.index(token) + 1].kind == "end"
        return False

    def _is_interval(self) -> bool:
        """Whether an interval stands next: a round or square bracket with a separator directly inside it."""
        if not (self.sees("open", "(") or self.sees("open", "[")):
            return False
        depth = 0
        for token in self.tokens[self.position :]:
            depth += (token.kind == "open") - (token.kind == "close")
            if depth == 0:
                return False
            if depth == 1 and token.kind == "separator":
                return True
        return False

    def _interval(self) -> n.Node:
        if self.sees("open", "{"):
            self.take()
            items = self._items()
            self._closing_brace()
            return ln.SetOf(items)
        if not (self.sees("open", "(") or self.sees("open", "[")):
            raise self.fail("An interval is expected here, as in (-∞, 2].")
        opening = self.take()
        low = self._end()
        if not self.sees("separator", self.separator):
            raise self.fail(f"“{self.separator}” is expected between the ends of an interval.")
        self.take()
        high = self._end()
        if not self.sees("close", ")", "]"):
            raise self.fail("The interval is not closed.")
        closing = self.take()
        return ln.Interval(low, high, opening.text == "[" and low is not None, closing.text == "]" and high is not None)

    def _end(self) -> n.Node | None:
        start = self.position
        if self.sees("op", "-", "+"):
            self.take()
        if self.sees("word", "inf"):
            self.take()
            return None
        self.position = start
        return self.expression()

    def _closing_brace(self) -> None:
        if not self.sees("close", "}"):
            raise self.fail("The set is not closed: “}” is missing.")
        self.take()

    def _items(self) -> tuple[n.Node, ...]:
        items = [self.expression()]
        while self.sees("separator", self.separator):
            self.take()
            items.append(self.expression())
        return tuple(items)

    def _item(self, before: n.Node | None = None) -> n.Node:
        first = self.expression()
        kind = self.next.kind
        if kind == "equals":
            return self._equation(first)
        if kind == "relation":
            return self._relation(first)
        if isinstance(before, ln.Equation) and isinstance(before.sides[0], n.Letter):
            return ln.Equation((before.sides[0], first))  # “x = 3 or -2”: the letter is understood
        return first

    def _equation(self, first: n.Node) -> n.Node:
        sides, tokens = [first], self.tokens
        while tokens[self.position].kind == "equals":
            self.position += 1
            if tokens[self.position].text == "{" and len(sides) == 1 and self._is_set():
                self.take()
                items = self._items()
                self._closing_brace()
                return ln.ValueList(first, items)
            sides.append(self.expression())
        if len(sides) == 2 and self.sees("separator", self.separator):
            self.take()
            return ln.ValueList(sides[0], (sides[1], *self._items()))
        return ln.Equation(tuple(sides))

    def _relation(self, first: n.Node) -> n.Node:
        operator = self.take().text
        if operator in _INEQUALITIES:
            second = self.expression()
            if self.sees("relation", *_INEQUALITIES):
                return ln.Between(first, operator, second, self.take().text, self.expression())
            return ln.Comparison(first, operator, second)
        items = self._items()
        if operator == "≠" and (len(items) > 1 or isinstance(first, n.Letter)):
            return ln.ValueList(first, items, "≠")
        if operator == "≈" and len(items) > 1:
            return ln.ValueList(first, items, "≈")
        if len(items) > 1:
            raise self.fail("A list of values is not expected after this sign.")
        return ln.Comparison(first, operator, items[0])


class FeatureReader(StatementReader):
    """Reads what stands behind the name of a feature of a function."""

    def feature(self, name: str, plural: bool, label: str) -> n.Node:
        if self.sees("end"):
            raise self.fail(f"Say what the {label} is, or none.")
        if self._words("none"):
            items: tuple[n.Node, ...] = (ln.Word("none"),)
        elif name in ("domain", "range"):
            return ln.Feature(name, (self.statement(),), plural, label)
        elif name in ("hole", "point"):
            items = self._points()
        elif name == "end behaviour":
            items = self._ends()
        else:
            items = self._places()
        if not self.sees("end"):
            raise self._unexpected()
        return ln.Feature(name, items, plural or len(items) > 1, label)

    def _point(self) -> n.Node:
        self.take()
        across = self.expression()
        if not self.sees("separator", self.separator):
            raise self.fail(f"“{self.separator}” is expected between the two numbers of a point.")
        self.take()
        up = self.expression()
        if not self.sees("close", ")"):
            raise self.fail("The point is not closed: “)” is missing.")
        self.take()
        return ln.Point(across, up)

    def _points(self) -> tuple[n.Node, ...]:
        items: list[n.Node] = []
        while True:
            if not self.sees("open", "("):
                raise self.fail("A point is expected here, as in (3, 5/6).")
            items.append(self._point())
            if not (self.sees("separator", self.separator) or self.sees("word", "and")):
                return tuple(items)
            self.take()

    def _places(self) -> tuple[n.Node, ...]:
        """Values, equations such as x = -3, or points, in a list; the letter may stand once in front."""
        items: list[n.Node] = []
        letter: n.Node | None = None
        while True:
            if self.sees("open", "(") and self._is_interval():
                items.append(self._point())
            else:
                first = self.expression()
                if self.sees("equals"):
                    self.take()
                    letter = first
                    first = self.expression()
                items.append(ln.Equation((letter, first)) if letter is not None else first)
            if not (self.sees("separator", self.separator) or self.sees("word", "and") or self.sees("word", "or")):
                return tuple(items)
            self.take()

    def _ends(self) -> tuple[n.Node, ...]:
        """`x → -∞, y → 2`, once or twice."""
        items: list[n.Node] = []
        while True:
            self._arrow("x")
            side = "-" if self.sees("op", "-") else "+"
            if self.sees("op", "-", "+"):
                self.take()
            if not self._words("inf"):
                raise self.fail("x goes to ∞ or to -∞ here.")
            if not self.sees("separator"):
                raise self.fail("A comma is expected between the two arrows.")
            self.take()
            self._arrow("y")
            start = self.position
            growth = "-" if self.sees("op", "-") else "+"
            if self.sees("op", "-", "+"):
                self.take()
            if self._words("inf"):
                items.append(ln.End(side, None, growth))
            else:
                self.position = start
                items.append(ln.End(side, self.expression()))
            if not self.sees("separator"):
                return tuple(items)
            self.take()

    def _arrow(self, letter: str) -> None:
        if not self.sees("letter"):
            raise self.fail(f"{letter} → … is expected here.")
        self.take()
        if self.sees("open", "("):  # f(x) → …
            while not self.sees("close") and not self.sees("end"):
                self.take()
            self.take()
        if not self.sees("relation", ">"):
            raise self.fail("An arrow is expected here: → or ->.")
        self.take()
