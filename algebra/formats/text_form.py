"""The text form of workings (`.chain` files): a head of `key: value` lines, `---`, then the lines."""

from __future__ import annotations

import re

from algebra.reports.working import TASKS, TaskError, Working

_HEAD = re.compile(r"\s*([a-z_]+)\s*:\s*(.*)")
_KEYS = ("task", "given", "numbers", "assume", "conventions", "variable", "id", "method")
_RULE = re.compile(r"\s*-{3,}\s*")


def read_workings(text: str) -> list[Working]:
    """Every working of a text; a new `task:` line after the lines of one, or after a whole head without lines, starts
    the next.

    Raises TaskError, naming the line of the text.
    """
    workings: list[Working] = []
    head: dict[str, list[str]] = {}
    lines: list[str] = []
    in_lines = False
    for number, raw in enumerate(text.lstrip("\ufeff").splitlines(), start=1):
        match = _HEAD.fullmatch(raw)
        begins = match and match.group(1) == "task" and match.group(2).split("#")[0].strip() in (*TASKS, "analyse")
        if begins and (in_lines or (head.get("task") and head.get("given"))):
            workings.append(_working(head, lines))
            head, lines, in_lines = {}, [], False
        if in_lines:
            if raw.strip() and not raw.lstrip().startswith("#"):
                lines.append(raw.strip())
        elif _RULE.fullmatch(raw):
            in_lines = True
        elif raw.strip() and not raw.lstrip().startswith("#"):
            if not match or match.group(1) not in _KEYS:
                raise TaskError(f"line {number}: expected one of {', '.join(_KEYS)} followed by a colon, or ---.")
            value = match.group(2)
            if match.group(1) != "given":
                value = value.split("#")[0]
            head.setdefault(match.group(1), []).append(value.strip())
    if head or lines:
        workings.append(_working(head, lines))
    if not workings:
        raise TaskError("line 1: the text holds no working.")
    return workings


def _working(head: dict[str, list[str]], lines: list[str]) -> Working:
    for key in ("task", "given"):
        if not head.get(key):
            raise TaskError(f"“{key}:” is missing above ---.")
    conventions: dict[str, str] = {}
    for entry in head.get("conventions", []):
        for pair in filter(None, re.split(r"[,\s]+", entry)):
            key, equals, value = pair.partition("=")
            if not equals:
                raise TaskError(f"A convention is written key=value, not “{pair}”.")
            conventions[key] = value
    last = {key: values[-1] for key, values in head.items()}
    working = Working(
        task=head["task"][-1],
        given=head["given"][-1],
        lines=tuple(lines),
        variable=last.get("variable"),
        numbers=last.get("numbers", "real"),
        conventions=conventions,
        assume=tuple(head.get("assume", [])),
        id=last.get("id"),
        method=last.get("method"),
    )
    working.validate()
    return working
