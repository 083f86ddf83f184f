"""What a line can state, from its tokens: equations joined by `or`, lists, sets, intervals, fixed phrases, named
features."""

from __future__ import annotations

from algebra.parse.errors import ReadingError
from algebra.parse.expressions import ExpressionReader
from algebra.parse.tokens import Token
from algebra.tree import nodes as n
from algebra.tree import statements as ln

_STARTS_PHRASE = frozenset(["word", "open"])
_SET_NAMES = ("S", "L")
_NARROWING = (ln.Comparison, ln.Between, ln.Interval)
"""What leaves a part of the numbers: several of them hold at once."""
_INEQUALITIES = ("<", ">", "≤", "≥")


class StatementReader(ExpressionReader):
    """Reads what a line can state: equations joined by `or`, lists, sets, and the fixed phrases."""

    member = ""
    """What stands before a set, `x ∈` or `S =`; empty for any other statement."""
    restriction: n.Node | None = None
    """The exclusion that stands behind an expression or equation."""

    def statement(self) -> n.Node:
        """What the line states; raises ReadingError where something is left over."""
        first, phrase = self.tokens[self.position], None
        if first.kind in _STARTS_PHRASE or (
            first.kind == "letter" and (first.text in _SET_NAMES or self.tokens[self.position + 1].text == "∈")
        ):
            phrase = self._set_or_phrase()
        if phrase is None:
            phrase = self._joined()
        last = self.tokens[self.position]
        if last.kind != "end":
            raise self._unexpected()
        return phrase

    def _joined(self) -> n.Node:
        """Statements joined by `or`, `and` or a comma, `x = 3, x = -2`, and the exclusions behind them."""
        items, words = [self._item()], []
        while True:
            token = self.tokens[self.position]
            if token.kind == "word" and token.text in ("or", "and"):
                words.append(token.text)
            elif token.kind == "separator" and self._joins(items[-1]):
                words.append(",")
            else:
                break
            self.position += 1
            items.append(self._item(items[-1]))
        return self._together(items, words) if words else items[0]

    def _joins(self, last: n.Node) -> bool:
        """Whether a separator joins statements here: another one follows it, or a bare value a bare value."""
        return self._states(self.position + 1) or not isinstance(last, ln.STATEMENTS)

    def _states(self, start: int) -> bool:
        """Whether the tokens from here to the next joint hold a sign of relation."""
        depth = 0
        for token in self.tokens[start:]:
            depth += (token.kind == "open") - (token.kind == "close")
            if depth <= 0 and (
                token.kind in ("separator", "end") or (token.kind == "word" and token.text in ("or", "and"))
            ):
                return False
            if depth == 0 and token.kind in ("equals", "relation"):
                return True
        return False

    def _together(self, items: list[n.Node], words: list[str]) -> n.Node:
        excluded = [item for item in items if _is_exclusion(item)]
        first = len(items) - len(excluded)
        if excluded and items[first:] != excluded:
            raise self.fail("What is left out stands at the end, as in x + 1, x ≠ 2.")
        if excluded and first and all(isinstance(item, _NARROWING) for item in items[:first]) and "or" not in words:
            return ln.AllOf(tuple(items))
        if excluded and first:
            self.restriction = _all_left_out(excluded)
            items, words = items[:first], words[: first - 1]
            return self._together(items, words) if words else items[0]
        if excluded:
            return _all_left_out(excluded)
        if any(isinstance(item, _NARROWING) for item in items) and "or" not in words:
            return ln.AllOf(tuple(items))
        return ln.Alternatives(tuple(items))

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
            return self._left_out()
        if self.sees("op", "∖"):
            self.take()
            if not self._is_set():
                raise self.fail("A set is expected after ∖, as in ℝ ∖ {2, 3}.")
            self.take()
            items = self._items()
            self._closing_brace()
            return items
        if self.sees("separator"):
            self.take()
            match self._joined():
                case ln.ValueList(n.Letter(), items, "≠"):
                    return items
            raise self.fail("Behind the real numbers only what is left out is expected, as in ℝ, x ≠ 2.")
        return ()

    def _left_out(self) -> tuple[n.Node, ...]:
        """`0, 4`, `0 and 4`, `x = 0 and x = 4`."""
        items: list[n.Node] = []
        while True:
            value = self.expression()
            if self.sees("equals") and isinstance(value, n.Letter):
                self.take()
                value = self.expression()
            items.append(value)
            if not (self.sees("separator") or self.sees("word", "and", "or")):
                return tuple(items)
            self.take()

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
        low = self._end("-")
        if not self.sees("separator", self.separator):
            raise self.fail(f"“{self.separator}” is expected between the ends of an interval.")
        self.take()
        high = self._end("+")
        if not self.sees("close", ")", "]"):
            raise self.fail("The interval is not closed.")
        closing = self.take()
        return ln.Interval(low, high, opening.text == "[" and low is not None, closing.text == "]" and high is not None)

    def _end(self, expected: str) -> n.Node | None:
        """An end of an interval; None for the infinity that belongs there, `-` for the low end and `+` for the high
        one."""
        start = self.position
        sign = self.take().text if self.sees("op", "-", "+") else "+"
        if self.sees("word", "inf"):
            self.take()
            return None if sign == expected else ln.Infinity("-" if sign == "-" else "")
        self.position = start
        return self.expression()

    def _closing_brace(self) -> None:
        if not self.sees("close", "}"):
            raise self.fail("The set is not closed: “}” is missing.")
        self.take()

    def _items(self) -> tuple[n.Node, ...]:
        items = [self.expression()]
        while self.sees("separator"):
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
        match before:  # “x = 3 or -2”: the letter and the sign are understood
            case ln.Equation((n.Letter() as letter, *_)) | ln.ValueList(n.Letter() as letter, _, "="):
                return ln.Equation((letter, first))
            case ln.ValueList(n.Letter() as letter, _, "≠" as operator) | ln.Comparison(
                n.Letter() as letter, "≠" as operator, _
            ):
                return ln.ValueList(letter, (first,), operator)
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
        if self.sees("relation", "≠"):  # 4 = 4 ≠ -4
            self.take()
            return ln.AllOf((ln.Equation(tuple(sides)), ln.Comparison(sides[-1], "≠", self.expression())))
        if len(sides) == 2 and self.sees("separator") and not self._states(self.position + 1):
            return ln.ValueList(sides[0], (sides[1], *self._more_values()))
        return ln.Equation(tuple(sides))

    def _more_values(self) -> tuple[n.Node, ...]:
        """The values behind the first one of a list, up to a statement."""
        items: list[n.Node] = []
        while self.sees("separator") and not self._states(self.position + 1):
            self.take()
            items.append(self.expression())
        return tuple(items)

    def _relation(self, first: n.Node) -> n.Node:
        operator = self.take().text
        if operator in _INEQUALITIES:
            second = self.expression()
            if self.sees("relation", *_INEQUALITIES):
                return ln.Between(first, operator, second, self.take().text, self.expression())
            return ln.Comparison(first, operator, second)
        items = (self.expression(), *self._more_values())
        if operator == "≠" and (len(items) > 1 or isinstance(first, n.Letter)):
            return ln.ValueList(first, items, "≠")
        if operator == "≈" and len(items) > 1:
            return ln.ValueList(first, items, "≈")
        if len(items) > 1:
            raise self.fail("A list of values is not expected after this sign.")
        return ln.Comparison(first, operator, items[0])


def _is_exclusion(item: n.Node) -> bool:
    return isinstance(item, ln.ValueList | ln.Comparison) and item.operator == "≠"


def _all_left_out(items: list[n.Node]) -> n.Node:
    """Several exclusions as one: of the same letter in one list."""
    if len(items) == 1:
        return items[0]
    lists = [item for item in items if isinstance(item, ln.ValueList)]
    if len(lists) == len(items) and len({item.left for item in lists}) == 1:
        return ln.ValueList(lists[0].left, tuple(value for item in lists for value in item.items), "≠")
    return ln.AllOf(tuple(items))


class FeatureReader(StatementReader):
    """Reads what stands behind the name of a feature of a function."""

    def feature(self, name: str, plural: bool, label: str) -> n.Node:
        """The feature with this name. Raises ReadingError where what follows does not belong to it."""
        if self.sees("end"):
            raise self.fail(f"Say what the {label} is, or none.")
        if self._words("none"):
            items: tuple[n.Node, ...] = (ln.Word("none"),)
        elif name in ("domain", "range"):
            return ln.Feature(name, (self.statement(),), plural, label)
        elif name in ("hole", "point"):
            items = self._points()
        elif name == "moved point":
            items = self._moved()
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

    def _moved(self) -> tuple[n.Node, ...]:
        """`(1, 1) → (3, 4)`."""
        first = self._point()
        if not self.sees("relation", ">"):
            raise self.fail("An arrow is expected here: → or ->.")
        self.take()
        if not self.sees("open", "("):
            raise self.fail("A point is expected here, as in (3, 5/6).")
        return first, self._point()

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
            sides = "+-" if self.sees("op", "±") else "-" if self.sees("op", "-") else "+"
            if self.sees("op", "-", "+", "±"):
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
                items += [ln.End(side, None, growth) for side in sides]
            else:
                self.position = start
                value = self.expression()
                items += [ln.End(side, value) for side in sides]
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
