"""Which way: a problem of which only the way is asked."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from typing import Literal

from algebra.items.answers import LEADS_THERE, answered, relation, unread
from algebra.methods.catalogue import METHODS
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.report import Link
from algebra.reports.working import TaskError, Working
from algebra.ways.solve import all_methods

MOST_NAMED = 6
"""How many ways a student chooses among."""
_NAMES = {method.id: method.name for method in METHODS}
_OPENING = re.compile(
    r"^(?:(?:i(?:’d| would| will|’ll)?|we|you|it is|solve|solved|work|go|do it|done)\s+)*"
    r"(?:(?:by|use|using|used|with|via|through|apply|applying|take|taking)\s+)*(?:the\s+)?(?:method of\s+)?(?:the\s+)?"
)
_CLOSING = re.compile(r"\s+(?:method|way|first|it)$")
_SPELLINGS = (
    (re.compile(r"\bfactor(?:is|iz)(?:ing|e|ation)\b|\bfactors?\b(?! in)|\bfactoris?ed\b"), "factoring"),
    (re.compile(r"\bcomplet(?:e|ion of|ed|ing) (?:the )?squares?\b"), "completing the square"),
    (
        re.compile(r"^(?:formula|abc[- ]formula|pq[- ]formula|midnight formula|quadratic equation formula)$"),
        "quadratic formula",
    ),
    (
        re.compile(r"^(?:square[- ]?roots?|(?:square )?roots? of both sides|extract(?:ing)? (?:the )?roots?)$"),
        "square roots",
    ),
    (re.compile(r"^cross[- ]?multipl(?:y|ying|ication)$"), "cross-multiply"),
    (
        re.compile(
            r"^clear(?:ing)? (?:the )?(?:denominators?|fractions? "
            r"by the lcd)$|^(?:multiply(?:ing)? by )?the lcd$|^lcd$"
        ),
        "clear by the lcd",
    ),
    (
        re.compile(r"^(?:isolat(?:e|ing)(?: the root)? and squar(?:e|ing)|squar(?:e|ing) both sides|squaring)$"),
        "isolate and square",
    ),
    (re.compile(r"^(?:same|common|equal) bases?$"), "common base"),
    (re.compile(r"^substitut(?:e|ing|ion)(?: .*)?$"), "substitution"),
    (re.compile(r"^(?:two )?cases$"), "two cases"),
)  # names that a way has beside its own, with the name that is meant


@record(frozen=True)
class WayItem:
    """A problem of which the way is asked: `best` leads there in the fewest lines, `also` are others that lead
    there."""

    working: Working
    best: str
    also: tuple[str, ...]


def make(working: Working, seed: int = 1) -> WayItem:
    """A problem of which the way is asked. Raises TaskError where fewer than two ways lead to its answer."""
    found = all_methods(replace(working, lines=(), method=None))
    named = [solution for solution in found if solution.method]
    if len(named) < 2:
        raise TaskError("Only one way leads to its answer.")
    best = min(named, key=lambda solution: (len(solution.steps), named.index(solution)))
    return WayItem(working, best.method, tuple(s.method for s in named if s.method != best.method))


def named(method: str) -> str:
    """The name of a way; its id where it is not known any more."""
    return _NAMES.get(method, method)


def is_way(item: WayItem, method: str) -> Literal["best", "leads there", "no"]:
    """How a way stands to the problem."""
    return "best" if method == item.best else "leads there" if method in item.also else "no"


def meant_by(text: str) -> list[str]:
    """The ways that a student may mean; two may have one name, as factoring of a quadratic and of a power."""
    told = " ".join(text.replace("'", "’").casefold().split()).strip(" .!")
    found = _with_name(told)
    if found:
        return found
    bare = _CLOSING.sub("", _OPENING.sub("", told))
    for pattern, name in _SPELLINGS:
        if pattern.search(bare):
            bare = pattern.sub(name, bare)
            break
    return _with_name(bare)


def _with_name(told: str) -> list[str]:
    return [each for each, name in _NAMES.items() if told in (each, name.casefold())]


def key(item: WayItem) -> tuple[str, ...]:
    """The name of the shortest way."""
    return (named(item.best),)


def parts(item: WayItem) -> tuple[str, ...]:
    """The way alone."""
    return ("the way",)


def links(item: WayItem, lines: Sequence[str]) -> list[Link]:
    """Each way that is named judged: another that leads there is right too."""
    found = []
    for number, text in enumerate(lines, start=1):
        meant = {is_way(item, each) for each in meant_by(text)}
        if not meant:
            found.append(unread(number, "No way of this name is known here."))
            continue
        notes = (LEADS_THERE,) if "leads there" in meant and "best" not in meant else ()
        found.append(Link(number, relation(meant != {"no"}), "way", notes=notes))
    return found


def shown(item: WayItem) -> Shown:
    """The names to choose from: those that lead there among others for such a task, by the alphabet."""
    leading = [_NAMES[each] for each in (item.best, *item.also) if each in _NAMES]
    others = [method.name for method in METHODS if method.example[0] == item.working.task]
    return Shown("way", ways=tuple(sorted(list(dict.fromkeys([*leading, *others]))[:MOST_NAMED])))


FORM = answered(
    "way",
    WayItem,
    "Which way would you go? Name it; nothing is to be worked out.",
    make=make,
    key=key,
    parts=parts,
    links=links,
    shown=shown,
)
