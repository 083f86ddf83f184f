"""Tokens to an expression tree, by recursive descent.

From the loosest to the tightest: sums; `÷ × ·` and implied products (one rank, from the left); the
slash between two neighbouring factors; powers (from the right); roots, brackets, numbers, letters.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache

from algebra import limits
from algebra.parse.errors import ReadingError, ReadingErrorCode
from algebra.parse.tokens import ROOT_SIGNS, Token
from algebra.tree import nodes as n
from algebra.tree.build import grouped
from algebra.tree.vocabulary import Note

_SIGNS = frozenset("+-±∓")
_TIMES = frozenset("·×÷")
_ENDS_PRODUCT = frozenset(["end", "equals", "close", "relation", "separator", "word"])
_GOES_ON = frozenset("^/")  # behind a letter or a number: there is more to it
_LEAVES_A_NUMBER = frozenset(["letter", "op", "end", "close", "equals"])
_MATCHING = {"(": ")", "[": "]", "{": "}"}
_FUNCTION_INDEX = {"sqrt": None, "cbrt": 3}

_letter = lru_cache(maxsize=128)(n.Letter)  # nodes don't change, so one will do for all places


@lru_cache(maxsize=1024)
def _number(digits: str) -> n.Node:
    return n.Decimal(digits) if "." in digits else n.Integer(int(digits))


class ExpressionReader:
    """Reads expressions from a list of tokens; `position` is the next token to be read."""

    def __init__(self, tokens: list[Token], *, separator: str = ",") -> None:
        self.tokens = tokens
        self.position = 0
        self.depth = 0
        self.open_bars = [0]
        self.separator = separator
        self.notes: set[Note] = set()

    @property
    def next(self) -> Token:
        """The token that is read next."""
        return self.tokens[self.position]

    def take(self) -> Token:
        """The next token; goes on behind it."""
        token = self.tokens[self.position]
        if token.kind != "end":
            self.position += 1
        return token

    def sees(self, kind: str, *texts: str) -> bool:
        """Whether the next token is of this kind, with one of these texts where some are named."""
        token = self.tokens[self.position]
        return token.kind == kind and (not texts or token.text in texts)

    def fail(self, message: str, code: ReadingErrorCode = "syntax") -> ReadingError:
        """The error at the next token."""
        return ReadingError(message, self.next.column, code)

    def _deeper(self, read: Callable[[], n.Node]) -> n.Node:
        self.depth += 1
        if self.depth > limits.MAX_DEPTH:
            raise self.fail(f"This is nested more than {limits.MAX_DEPTH} deep.", "limit")
        node = read()
        self.depth -= 1
        return node

    def expression(self) -> n.Node:
        """A sum of signed terms; raises ReadingError where one is missing."""
        self.depth += 1
        if self.depth > limits.MAX_DEPTH:
            raise self.fail(f"This is nested more than {limits.MAX_DEPTH} deep.", "limit")
        tokens = self.tokens
        first = self._term()
        token = tokens[self.position]
        if token.kind == "op" and token.text in _SIGNS:
            terms, signs = [first], []
            while token.kind == "op" and token.text in _SIGNS:
                signs.append(token.text)
                self.position += 1
                terms.append(self._term())
                token = tokens[self.position]
            first = n.Sum(tuple(terms), tuple(signs))
        self.depth -= 1
        return first

    def _term(self) -> n.Node:
        token = self.tokens[self.position]
        if token.kind == "op" and token.text in _SIGNS:
            self.position += 1
            return n.Signed(token.text, self._deeper(self._term))
        first = self._slashed()
        token = self.tokens[self.position]
        kind = token.kind
        if kind in _ENDS_PRODUCT or (kind == "op" and token.text not in _TIMES):
            return first
        return self._product(first)

    def _product(self, first: n.Node) -> n.Node:
        """The factors behind the first one."""
        factors: list[n.Node] = [first]
        operators: list[str] = []
        while True:
            token = self.tokens[self.position]
            if token.kind == "op":
                if token.text not in _TIMES:
                    break
                operators.append(token.text)
                self.position += 1
                factors.append(self._signed_factor())
            elif token.kind == "letter" or self._factor_follows(token, factors[-1]):
                if self._slash_ended_at == self.position and self.tokens[self.position - 1].kind != "latex":
                    self.notes.add("ambiguous-slash")
                operators.append("")
                factors.append(self._slashed())
            else:
                break
        return n.Product(tuple(factors), tuple(operators)) if operators else first

    def _signed_factor(self) -> n.Node:
        if self.next.kind == "op" and self.next.text in _SIGNS:
            return n.Signed(self.take().text, self._deeper(self._signed_factor))
        return self._slashed()

    def _factor_follows(self, token: Token, last: n.Node) -> bool:
        if token.kind == "number":
            if isinstance(last, n.Power) and token.gap and self.tokens[self.position + 1].text == "^":
                return True  # 3^-4 5^2
            before = self.tokens[self.position - 1]
            if before.kind == "letter":
                raise self.fail(f"Write {before.text}^{token.text} for a power, or the number before the letter.")
            raise self.fail("Two numbers stand side by side; put · or a fraction bar between them.")
        if token.kind == "bar":
            return token.text == "(" or (token.text == "|" and not self.open_bars[-1])
        return token.kind in ("letter", "unit", "open", "root", "function") or (
            token.kind == "latex" and token.text != "}"
        )

    _slash_ended_at = -1

    def _slashed(self) -> n.Node:
        tokens, position = self.tokens, self.position
        token = tokens[position]
        kind = token.kind
        if kind == "letter":
            following = tokens[position + 1]
            if following.kind != "op" or following.text not in _GOES_ON:  # nothing more to it, as with most letters
                self.position = position + 1
                return _letter(token.text)
        elif kind == "number":
            following = tokens[position + 1]
            if following.kind in _LEAVES_A_NUMBER and following.text not in _GOES_ON:
                self.position = position + 1
                return _number(token.text)
            if following.kind == "number" or following.text == "frac":
                mixed = self._mixed(following)
                if mixed is not None:
                    return mixed
        node = self._power()
        token = tokens[self.position]
        slashes = 0
        while token.text == "/":
            self.position += 1
            slashes += 1
            if slashes > limits.MAX_DEPTH:
                raise self.fail(f"More than {limits.MAX_DEPTH} slashes follow each other.", "limit")
            if self.next.kind == "op" and self.next.text in _SIGNS:
                raise self.fail("Put brackets around a signed denominator, as in 3/(-4).")
            node = n.Fraction(node, self._power())
            self._slash_ended_at = self.position
            token = tokens[self.position]
        return node

    def _mixed(self, following: Token) -> n.Node | None:
        """A whole number directly before a fraction of whole numbers, or None."""
        kinds = [token.kind for token in self.tokens[self.position : self.position + 5]]
        texts = [token.text for token in self.tokens[self.position : self.position + 5]]
        if "." in texts[0]:
            return None
        if kinds[1:4] == ["number", "op", "number"] and texts[2] == "/" and following.gap:
            parts, length = (texts[1], texts[3]), 4
        elif texts[1:2] == ["frac"]:
            window = self.tokens[self.position + 2 : self.position + 9]
            digits = [token.text for token in window if token.text not in "{}"][:2]
            length = 2 + (6 if window[0].text == "{" else 2)
            shape = [token.text for token in window[: length - 2]]
            if shape not in (["{", *digits[:1], "}", "{", *digits[1:], "}"], digits):
                return None
            if len(digits) < 2 or not all(text.isdigit() for text in digits):
                return None
            parts = (digits[0], digits[1])
        else:
            return None
        if any("." in part for part in parts) or self.tokens[self.position + length].text == "^":
            return None
        whole = int(texts[0])
        self.position += length
        self.notes.add("mixed-number")
        return n.Mixed(whole, int(parts[0]), int(parts[1]))

    def _power(self) -> n.Node:
        tokens = self.tokens
        kind, text = tokens[self.position][:2]
        if kind == "letter":
            self.position += 1
            base: n.Node = _letter(text)
        elif kind == "number":
            self.position += 1
            base = _number(text)
        else:
            base = self._atom()
        if tokens[self.position].text != "^":
            return base
        if kind == "root":
            self.notes.add("ambiguous-root")
        self.position += 1
        return n.Power(base, self._deeper(self._exponent))

    def _exponent(self) -> n.Node:
        if self.next.kind == "op" and self.next.text in _SIGNS:
            return n.Signed(self.take().text, self._deeper(self._exponent))
        return self._power()

    def _atom(self) -> n.Node:
        token = self.tokens[self.position]
        match token.kind:
            case "letter":
                self.position += 1
                return _letter(token.text)
            case "number":
                self.position += 1
                return _number(token.text)
            case "open":
                return self._bracketed()
            case "unit":
                self.take()
                return n.Unit(token.text)
            case "bar":
                return self._absolute()
            case "root":
                self.take()
                index = ROOT_SIGNS[token.text]
                return n.Root(self._deeper(self._radicand), None if index is None else n.Integer(index))
            case "function":
                return self._function()
            case "latex" if token.text != "}":
                return self._latex()
        raise self.fail(self._what_is_missing())

    def _what_is_missing(self) -> str:
        token = self.next
        before = self.tokens[self.position - 1] if self.position else None
        if token.kind == "close":
            if before is not None and before.kind == "open":
                return "The brackets are empty."
            return f"“{token.text}” closes a bracket that was not opened, or a term is missing before it."
        if token.kind == "end":
            if before is None:
                return "The line is empty."
            return f"A number, letter or bracket is missing after “{before.text}”."
        if token.kind == "op" and before is None:
            return f"A number, letter or bracket is missing before “{token.text}”."
        if before is not None and before.kind == "op":
            return f"Between “{before.text}” and “{token.text}” a number, letter or bracket is missing."
        return f"A number, letter or bracket was expected here, not “{token.text}”."

    def _bracketed(self) -> n.Node:
        opening = self.tokens[self.position]
        self.position += 1
        self.open_bars.append(0)
        inner = self.expression()
        self.open_bars.pop()
        closing, token = _MATCHING[opening.text], self.tokens[self.position]
        if token.text != closing or token.kind != "close":
            if token.kind == "end":
                raise self.fail(f"The bracket opened at column {opening.column} is not closed: “{closing}” is missing.")
            raise self.fail(f"“{closing}” was expected here, to close the bracket at column {opening.column}.")
        self.position += 1
        return n.Group(inner, opening.text)

    def _absolute(self) -> n.Node:
        opening = self.take()
        if opening.text == ")":
            raise ReadingError("This bar closes nothing.", opening.column)
        self.open_bars[-1] += 1
        inner = self.expression()
        self.open_bars[-1] -= 1
        if not self.sees("bar", "|", ")"):
            raise self.fail(f"The bar opened at column {opening.column} is not closed.")
        self.take()
        return n.Absolute(inner)

    def _radicand(self) -> n.Node:
        if self.next.kind == "op" and self.next.text in _SIGNS:
            return n.Signed(self.take().text, self._deeper(self._radicand))
        return self._atom()

    def _function(self) -> n.Node:
        name = self.take()
        if name.text == "sqrt" and not self.sees("open", "("):
            return n.Root(self._deeper(self._radicand))
        if not self.sees("open", "("):
            raise self.fail(f"Write what {name.text} applies to in brackets.")
        opening = self.take()
        self.open_bars.append(0)
        index: n.Node | None = None
        if name.text == "root":
            index = self.expression()
            if not self.sees("separator"):
                raise self.fail("root takes the index first, then the radicand: root(4, x).")
            self.take()
        elif _FUNCTION_INDEX.get(name.text):
            index = n.Integer(3)
        inner = self.expression()
        self.open_bars.pop()
        if not self.sees("close", ")"):
            raise self.fail(f"The bracket opened at column {opening.column} is not closed: “)” is missing.")
        self.take()
        if name.text == "abs":
            return n.Absolute(inner)
        if name.text == "root":
            return n.Root(grouped(inner), index)
        return n.Root(n.Group(inner), index)

    def _latex(self) -> n.Node:
        token = self.take()
        if token.text == "{":
            self.position -= 1
            return grouped(self._argument())
        if token.text == "sqrt":
            index = None
            if self.sees("open", "["):
                self.take()
                index = self.expression()
                self.expectation("close", "]", "The index of the root is not closed: “]” is missing.")
                index = None if index == n.Integer(2) else index
            return n.Root(grouped(self._argument()), index)
        top = grouped(self._argument(), power_stands=True)
        return n.Fraction(top, grouped(self._argument(), power_stands=True))

    def expectation(self, kind: str, text: str, message: str) -> None:
        """The error where something else was expected."""
        if not self.sees(kind, text):
            raise self.fail(message)
        self.take()

    def _argument(self) -> n.Node:
        if not self.sees("latex", "{"):
            return self._deeper(self._atom)
        self.take()
        self.open_bars.append(0)
        inner = self.expression()
        self.open_bars.pop()
        self.expectation("latex", "}", "“}” is missing.")
        return inner
