"""The margin of a line: what was done to both sides, `| +5`, `| square`, `| divide by 2`; other words there are a
remark."""

from __future__ import annotations

import re

from algebra.parse.errors import ReadingError
from algebra.parse.expressions import ExpressionReader
from algebra.parse.tokens import tokenize
from algebra.tree import nodes as n
from algebra.tree import statements as ln

_NAMED_MOVES = {
    "square": "square",
    "^2": "square",
    "root": "root",
    "square root": "root",
    "square roots": "root",
    "take the root": "root",
    "take the square root": "root",
    "√": "root",
    "swap": "swap",
    "swap sides": "swap",
    "exchange sides": "swap",
}
_BOTH_SIDES = re.compile(r"\b(?:(?:on|from|to|by|of)\s+)?(?:both|each)\s+sides?\b")
_ROOT_NAMES = {"cube root": 3, "cube roots": 3, "∛": 3, "third root": 3, "fourth root": 4, "∜": 4, "fifth root": 5}
_SAID_MOVES = re.compile(
    r"(subtract|minus|take away|add|plus|multiply by|multiply|times|divide by|divide|raise to|to the power)"
    r"\s+(?!by$)(.+)"
)
_SAID_NAMES = {
    "subtract": "subtract",
    "minus": "subtract",
    "take away": "subtract",
    "add": "add",
    "plus": "add",
    "multiply by": "multiply",
    "multiply": "multiply",
    "times": "multiply",
    "divide by": "divide",
    "divide": "divide",
    "raise to": "power",
    "to the power": "power",
}
_OPERATION_SIGNS = {"−": "-", "–": "-", "*": "×", "∙": "·", "⋅": "·", "⁄": "/"}
_MOVE_OPERATIONS = {
    "+": "add",
    "-": "subtract",
    "×": "multiply",
    "·": "multiply",
    "÷": "divide",
    "/": "divide",
    "^": "power",
}


def split_move(body: str) -> tuple[str, str | None, int]:
    """The line before the move bar, and the text after it.

    Bars of absolute values come in pairs; so an odd number of bars holds one move bar: it has an even
    number on either side and white space before it.
    """
    bars = [m.start() for m in re.finditer(r"\|", body) if not re.search(r"\\(left|right)\s*$", body[: m.start()])]
    if len(bars) % 2 == 0:
        return body, None, 0
    for k in range(len(bars) - 1, -1, -1):
        place = bars[k]
        if k % 2 == 0 and body[:place].strip() and body[place - 1].isspace() and body[place + 1 :].strip():
            return body[:place].rstrip(), body[place + 1 :].strip(), place + 1 + indent(body[place + 1 :])
    return body, None, 0


def without_move(text: str) -> str:
    """A line without the move in its margin."""
    return split_move(text)[0].strip()


def indent(text: str) -> int:
    """How many blanks a text begins with."""
    return len(text) - len(text.lstrip())


def read_move(text: str, column: int, decimal: str) -> tuple[ln.Move | None, str]:
    """The move that is named behind the bar; or the words, which are a remark where they name none."""
    words = " ".join(_BOTH_SIDES.sub(" ", text.lower()).split()).rstrip(".")
    name = _NAMED_MOVES.get(words)
    if name:
        return ln.Move(name, text), ""
    if words in _ROOT_NAMES:
        return ln.Move("root", text, n.Integer(_ROOT_NAMES[words])), ""
    said = _SAID_MOVES.match(words)
    if said:
        name, operand = _SAID_NAMES[said.group(1)], said.group(2)
    else:
        name, operand = _MOVE_OPERATIONS.get(_OPERATION_SIGNS.get(words[:1], words[:1]), ""), words[1:]
        if text.lstrip().startswith("\\"):
            command = re.match(r"\s*\\(times|cdot|div)\b(.*)", text)
            if command:
                name, operand = (
                    {"times": "multiply", "cdot": "multiply", "div": "divide"}[command.group(1)],
                    command.group(2),
                )
    try:
        reader = ExpressionReader(tokenize(_as_written(text, operand), decimal=decimal, offset=column))
        value = reader.expression()
    except ReadingError:
        return None, text
    return (ln.Move(name, text, value), "") if name and reader.sees("end") else (None, text)


def _as_written(text: str, operand: str) -> str:
    """The operand with its letters as they were written, small or capital."""
    at = text.lower().rfind(operand.strip())
    return text[at : at + len(operand.strip())] if at >= 0 else operand
