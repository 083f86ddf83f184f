"""Characters to tokens, for the plain notation and for LaTeX (recognised by its backslashes).

Both notations end in the same kinds of token, so that there is one grammar.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import NamedTuple

from algebra import limits
from algebra.parse.errors import ReadingError, ReadingErrorCode
from algebra.tree.greek import LETTERS as GREEK

SUPERSCRIPTS = dict(zip("⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁽⁾ⁿˣʸ", "0123456789+-()nxy", strict=True))
RELATIONS = {"≠": "≠", "!=": "≠", "≈": "≈", "~=": "≈", "≥": "≥", ">=": "≥", "≤": "≤", "<=": "≤", "<": "<", ">": ">"}
OPERATORS = {"−": "-", "–": "-", "*": "·", "·": "·", "⋅": "·", "∙": "·", "×": "×", "÷": "÷", "/": "/", "⁄": "/"}
VULGAR = dict(
    zip(
        "½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞",
        ("12", "13", "23", "14", "34", "15", "25", "35", "45", "16", "56", "18", "38", "58", "78"),
        strict=True,
    )
)
"""Fractions that are one character."""
ROOT_SIGNS = {"√": None, "∛": 3, "∜": 4}
FUNCTIONS = ("sqrt", "cbrt", "root", "abs")
WORDS = frozenset(
    [
        "or",
        "and",
        "no",
        "solution",
        "solutions",
        "reals",
        "all",
        "real",
        "numbers",
        "except",
        "prime",
        "undefined",
        "none",
        "inf",
    ]
)
OUT_OF_SCOPE = ("sin", "cos", "tan", "cot", "sec", "csc", "arcsin", "arccos", "arctan", "log", "ln", "exp", "lim")
LATEX_COMMANDS = {
    "cdot": ("op", "·"),
    "times": ("op", "×"),
    "div": ("op", "÷"),
    "pm": ("op", "±"),
    "mp": ("op", "∓"),
    "ne": ("relation", "≠"),
    "neq": ("relation", "≠"),
    "approx": ("relation", "≈"),
    "ge": ("relation", "≥"),
    "geq": ("relation", "≥"),
    "le": ("relation", "≤"),
    "leq": ("relation", "≤"),
    "lt": ("relation", "<"),
    "gt": ("relation", ">"),
    "infty": ("word", "inf"),
    "lor": ("word", "or"),
    "vee": ("word", "or"),
    "cfrac": ("latex", "frac"),
    "square": ("letter", "□"),
    "Box": ("letter", "□"),
    "land": ("word", "and"),
    "wedge": ("word", "and"),
    "{": ("open", "{"),
    "}": ("close", "}"),
    "lvert": ("bar", "("),
    "rvert": ("bar", ")"),
    "vert": ("bar", "|"),
    "lbrack": ("open", "["),
    "rbrack": ("close", "]"),
    "sqrt": ("latex", "sqrt"),
    "frac": ("latex", "frac"),
    "dfrac": ("latex", "frac"),
    "tfrac": ("latex", "frac"),
    "cup": ("op", "∪"),
    "in": ("op", "∈"),
}
_ASCII_LETTERS = frozenset("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz")
_DIGITS = frozenset("0123456789")
_GO_ON = frozenset(".,{")  # behind digits: the number may be longer
_SIGN_PAIRS = frozenset("+-−")
_SIGNS: dict[str, tuple[str, str]] = {
    "^": ("op", "^"),
    "≟": ("equals", "="),
    "&": ("word", "and"),
    "∧": ("word", "and"),
    "∨": ("word", "or"),
    "□": ("letter", "□"),
    "±": ("op", "±"),
    "∓": ("op", "∓"),
    "∪": ("op", "∪"),
    "∈": ("op", "∈"),
    "∖": ("op", "∖"),
    "ℝ": ("word", "ℝ"),
    "·": ("op", "·"),
    "/": ("op", "/"),
    "÷": ("op", "÷"),
    "×": ("op", "×"),
    "(": ("open", "("),
    "[": ("open", "["),
    ")": ("close", ")"),
    "]": ("close", "]"),
    "|": ("bar", "|"),
    "∞": ("word", "inf"),
    "∅": ("word", "∅"),
    "√": ("root", "√"),
    "∛": ("root", "∛"),
    "∜": ("root", "∜"),
}
# what most characters are, and the characters behind them that make them part of something longer
_SIMPLE: dict[str, tuple[str, str, frozenset[str] | None]] = {
    **{sign: (kind, text, None) for sign, (kind, text) in _SIGNS.items()},
    **{sign: ("op", sign, _SIGN_PAIRS) for sign in "+-"},
    "=": ("equals", "=", frozenset("?")),
    **{letter: ("letter", letter, _ASCII_LETTERS) for letter in _ASCII_LETTERS - {"U"}},  # U may join sets
}
_SPACING = frozenset([",", ";", "!", ":", "quad", "qquad", ",", "displaystyle", "textstyle"]) | {" "}
_NUMBER = {
    "point": re.compile(r"\d+(?:\.\d+)?|\.\d+"),
    "comma": re.compile(r"\d+(?:,\d+)?|,\d+"),
}
_THOUSANDS = {
    "point": re.compile(r"[1-9]\d{0,2}(?:(?:,|\{,\})\d{3})+(?:\.\d+)?(?![\d,.])"),
    "comma": re.compile(r"[1-9]\d{0,2}(?:\.\d{3})+(?:,\d+)?(?![\d,.])"),
}
"""2,400 or, with a decimal comma, 2.400: whole groups of three, no blank, and not all that stands in brackets, where
values are listed."""
_RUN = re.compile(r"[A-Za-z]+")
_REALS = re.compile(r"(?:ℝ|\\mathbb\s*(?:\{R\}|R)|\\R\b)(\s*(?:\\setminus\b|\\backslash\b|∖|\\(?!\w)))?")
_WRAPPED = re.compile(
    r"\\(?:boxed|fbox|cancel|bcancel|xcancel|mathbf|mathit|underline|overline|textbf|ensuremath|color\s*\{\w+\})\s*\{"
)
"""Commands that only set off what stands in their braces."""
_COMMAND = re.compile(r"\\([A-Za-z]+|.)")
_TEXT = re.compile(r"\\(?:text|mathrm|textrm|operatorname)\s*\{([^{}]*)\}")


class Token(NamedTuple):
    """`kind`: number, letter, unit, op, relation, equals, open, close, bar, root, function, word, separator, latex,
    end.

    `column` counts characters from 1; `gap` says whether white space stands before it.
    """

    kind: str
    text: str
    column: int
    gap: bool = False


_new: Callable[[type[Token], tuple[str, str, int, bool]], Token] = tuple.__new__


def tokenize(text: str, *, decimal: str = "point", offset: int = 0) -> list[Token]:
    """The tokens of a piece of a line, closed by an `end` token. `offset` is added to every column.

    Raises ReadingError at the first character that has no place in mathematics.
    """
    if len(text) + offset > limits.MAX_LINE_CHARACTERS:
        raise ReadingError(
            f"This line is longer than {limits.MAX_LINE_CHARACTERS} characters.", limits.MAX_LINE_CHARACTERS, "limit"
        )
    tokens = _Reader(text, decimal, offset).read()
    if len(tokens) > limits.MAX_TOKENS:
        place = tokens[limits.MAX_TOKENS].column
        raise ReadingError(f"This line has more than {limits.MAX_TOKENS} symbols.", place, "limit")
    return tokens


def _unwrapped(text: str) -> str:
    """The text without what only sets a part off, each sign of it a blank: the columns stay right."""
    while found := _WRAPPED.search(text):
        depth, end = 1, found.end()
        while end < len(text) and depth:
            depth += (text[end] == "{") - (text[end] == "}")
            end += 1
        if depth:
            return text
        inside = text[found.end() : end - 1]
        text = text[: found.start()] + " " * (found.end() - found.start()) + inside + " " + text[end:]
    return text


def _real_numbers(found: re.Match[str]) -> str:
    """ℝ, or ℝ without a set, in one spelling of the same length: the columns behind it stay right."""
    return ("ℝ∖" if found.group(1) else "ℝ").ljust(len(found.group()))


class _Reader:
    def __init__(self, text: str, decimal: str, offset: int) -> None:
        if "\\" in text:
            text = _unwrapped(text)
        self.text = _REALS.sub(_real_numbers, text) if "\\" in text or "ℝ" in text else text
        self.latex = "\\" in self.text
        self.decimal = decimal
        self.offset = offset
        self.position = 0
        self.gap = False
        self.tokens: list[Token] = []

    def add(self, kind: str, text: str, length: int) -> None:
        """Takes a token of this kind that begins here."""
        self.tokens.append(_new(Token, (kind, text, self.position + 1 + self.offset, self.gap)))
        self.position += length
        self.gap = False

    def fail(self, message: str, code: ReadingErrorCode = "syntax") -> ReadingError:
        """The error at this place."""
        return ReadingError(message, self.position + 1 + self.offset, code)

    def read(self) -> list[Token]:
        """All tokens. Most characters are settled by a look into a table: this loop runs for every line that is
        written."""
        text, size, add, simple_of, new, cls = (
            self.text + " ",
            len(self.text),
            self.tokens.append,
            _SIMPLE.get,
            _new,
            Token,
        )
        offset, position, gap = self.offset + 1, self.position, self.gap
        while position < size:
            character = text[position]
            if character == " ":
                gap = True
                position += 1
                continue
            simple = simple_of(character)
            if simple is not None:
                kind, sign, longer_before = simple
                if longer_before is None or text[position + 1] not in longer_before:
                    add(new(cls, (kind, sign, position + offset, gap)))
                    gap = False
                    position += 1
                    continue
            elif character in _DIGITS:
                end = position + 1
                while text[end] in _DIGITS:
                    end += 1
                if text[end] not in _GO_ON and end - position <= limits.MAX_DIGITS:
                    add(new(cls, ("number", text[position:end], position + offset, gap)))
                    gap = False
                    position = end
                    continue
            self.position, self.gap = position, gap
            self._unusual(character)
            position, gap = self.position, self.gap
        self.position = position
        self.add("end", "", 0)
        return self.tokens

    def _unusual(self, character: str) -> None:
        number = _NUMBER[self.decimal].match(self.text, self.position)
        grouped = _THOUSANDS[self.decimal].match(self.text, self.position) if number else None
        if grouped and self._is_list(grouped.end()):
            grouped = None
        if grouped:
            mark, point = (",", ".") if self.decimal == "point" else (".", ",")
            whole, _, rest = grouped.group().partition(point)
            digits = re.sub(rf"\{{?\{mark}\}}?", "", whole) + (f".{rest}" if rest else "")
            self.add("number", digits, len(grouped.group()))
        elif number:
            digits = number.group()
            if len(digits) > limits.MAX_DIGITS:
                raise self.fail(f"This number has more than {limits.MAX_DIGITS} digits.", "limit")
            self.add("number", digits.replace(",", "."), len(digits))
        elif character.isspace() or character == "\u200b":
            self.position += 1
            self.gap = True
        elif character == "\\":
            self._command()
        else:
            self._symbol(character)

    def _is_list(self, end: int) -> bool:
        """Whether digits in groups are the two values of a bracket, as in (2,400) or root(3,125x)."""
        depth = 0
        for k in range(len(self.tokens) - 1, -1, -1):
            kind = self.tokens[k].kind
            depth += (kind == "close") - (kind == "open")
            if depth < 0:
                called = k > 0 and self.tokens[k - 1].kind == "function"
                alone = k == len(self.tokens) - 1 and self.text[end:].lstrip()[:1] in (")", "]", "}")
                return called or alone
        return False

    def _symbol(self, character: str) -> None:
        pair = self.text[self.position : self.position + 2]
        if pair == "**":
            self.add("op", "^", 2)
        elif pair in ("+-", "+−"):
            self.add("op", "±", 2)
        elif pair in ("-+", "−+"):
            self.add("op", "∓", 2)
        elif pair in ("=?", "?="):
            self.add("equals", "=", 2)
        elif pair in RELATIONS or character in RELATIONS:
            text = pair if pair in RELATIONS else character
            self.add("relation", RELATIONS[text], len(text))
        elif character in "+-":
            self.add("op", character, 1)
        elif character in OPERATORS:
            self.add("op", OPERATORS[character], 1)
        elif character in SUPERSCRIPTS:
            self._superscript()
        elif character in VULGAR:
            self.gap = True  # 2½ is a mixed number
            self.add("number", VULGAR[character][0], 0)
            self.add("op", "/", 0)
            self.add("number", VULGAR[character][1], 1)
        elif character in "{}" and self.latex:
            self.add("latex", character, 1)
        elif character in "{}":
            self.add("open" if character == "{" else "close", character, 1)
        elif character in ",;":
            self.add("separator", character, 1)
        elif character == '"':
            self._unit()
        elif _RUN.match(character):
            self._letters()
        elif character in GREEK.values():
            self.add("letter", character, 1)
        else:
            raise self.fail(f"“{character}” has no meaning here.")

    def _superscript(self) -> None:
        start = self.position
        end = start
        while end < len(self.text) and self.text[end] in SUPERSCRIPTS:
            end += 1
        inner = "".join(SUPERSCRIPTS[c] for c in self.text[start:end])
        self.tokens.append(Token("op", "^", start + 1 + self.offset, self.gap))
        self.gap = False
        simple = inner.lstrip("-").isalnum() and len(inner.lstrip("-")) > 0
        if not simple:
            self.tokens.append(Token("open", "(", start + 1 + self.offset))
        for token in _Reader(inner, self.decimal, self.offset + start).read()[:-1]:
            self.tokens.append(token)
        if not simple:
            self.tokens.append(Token("close", ")", end + self.offset))
        self.position = end

    def _unit(self) -> None:
        end = self.text.find('"', self.position + 1)
        if end < 0:
            raise self.fail("This quoted word is not closed.")
        word = self.text[self.position + 1 : end].strip()
        if not re.fullmatch(r"[^\W\d_][\w ]*", word):
            raise self.fail('A quoted word holds letters only, as in "km".')
        self.add("unit", word, end + 1 - self.position)

    def _after_interval(self) -> bool:
        """Whether a pair of ends in brackets has just closed, as (2, 5] and not root(5, 2): a U then joins sets."""
        depth, between = 0, False
        for position in range(len(self.tokens) - 1, -1, -1):
            kind = self.tokens[position].kind
            depth += (kind == "close") - (kind == "open")
            between = between or (depth == 1 and kind == "separator")
            if depth == 0:
                called = position > 0 and self.tokens[position - 1].kind == "function"
                return kind == "open" and between and not called
        return False

    def _letters(self) -> None:
        match = _RUN.match(self.text, self.position)
        assert match
        run = match.group()
        word = run.lower() if run[1:].islower() else run  # a word may open a line: No solution, Prime
        if word in WORDS:
            self.add("word", word, len(run))
            return
        if run == "U" and self._after_interval():
            self.add("op", "∪", 1)
            return
        for start in range(len(run)):
            name = next((f for f in FUNCTIONS if run.startswith(f, start)), None)
            if name is None and start == 0:
                self._refuse_words(run)
            if name is not None:
                self._single_letters(start)
                self.add("function", name, len(name))
                return
        if len(run) > 4:
            raise self.fail(f"“{run}” is not a word that has a meaning here; put · between letters to multiply them.")
        self._single_letters(len(run))

    def _refuse_words(self, run: str) -> None:
        for function in OUT_OF_SCOPE:
            if run.startswith(function) and len(run) <= len(function) + 1:
                raise self.fail(f"“{function}” is outside what Uchuu works with.", "scope")

    def _single_letters(self, count: int) -> None:
        for _ in range(count):
            self.add("letter", self.text[self.position], 1)

    def _command(self) -> None:
        text = _TEXT.match(self.text, self.position)
        if text:
            start = self.position
            for word in text.group(1).split():
                if word not in WORDS:
                    raise self.fail(f"“{word}” is not a word that has a meaning here.")
                self.tokens.append(Token("word", word, start + 1 + self.offset, True))
            self.position = text.end()
            self.gap = True
            return
        match = _COMMAND.match(self.text, self.position)
        if not match:
            raise self.fail("A backslash stands alone.")
        name, length = match.group(1), len(match.group())
        if name in _SPACING:
            self.position += length
            self.gap = True
        elif name in ("left", "right"):
            self._sized(name, length)
        elif name in LATEX_COMMANDS:
            self.add(*LATEX_COMMANDS[name], length)
            if LATEX_COMMANDS[name] == ("latex", "frac"):
                self._short_arguments()
        elif name in GREEK:
            self.add("letter", GREEK[name], length)
        elif name in OUT_OF_SCOPE:
            raise self.fail(f"“{name}” is outside what Uchuu works with.", "scope")
        elif name in ("emptyset", "varnothing"):
            self.add("word", "∅", length)
        else:
            raise self.fail(f"The LaTeX command \\{name} is not known here.")

    def _short_arguments(self) -> None:
        """`\\frac12` takes single digits, so they must not be read as one number."""
        for _ in range(2):
            while self.text[self.position : self.position + 1] == " ":
                self.position += 1
            if not self.text[self.position : self.position + 1] or self.text[self.position] not in _DIGITS:
                return
            self.add("number", self.text[self.position], 1)

    def _sized(self, name: str, length: int) -> None:
        rest = self.text[self.position + length :]
        gap = len(rest) - len(rest.lstrip())
        rest = rest.lstrip()
        if rest[:1] == "|":
            self.add("bar", "(" if name == "left" else ")", length + gap + 1)
        elif rest[:2] in ("\\{", "\\}"):
            self.add("open" if name == "left" else "close", rest[1], length + gap + 2)
        elif rest[:1] and rest[0] in "([])":
            self.add("open" if rest[0] in "([" else "close", rest[0], length + gap + 1)
        else:
            raise self.fail(f"A bracket must follow \\{name}.")
