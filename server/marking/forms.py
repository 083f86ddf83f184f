"""Items of a set in other forms than a chain: kept as they were made when the set was given, and what a student sees of
them."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from itertools import count
from typing import Any, cast

from pydantic import TypeAdapter

import lanes
from algebra import (
    METHODS,
    ChooseItem,
    ClaimItem,
    FillItem,
    FormItem,
    JsonObject,
    MendItem,
    TaskError,
    WayItem,
    claim_letters,
    json_object,
    understood,
    unknown_of,
)
from algebra import Working as CoreWorking
from paper import FORM_INSTRUCTIONS, ItemForm
from server.marking.models import SetItem
from server.marking.schemas import FormOut

_FORMS: dict[str, TypeAdapter[Any]] = {
    "choose": TypeAdapter(ChooseItem),
    "mend": TypeAdapter(MendItem),
    "fill": TypeAdapter(FillItem),
    "way": TypeAdapter(WayItem),
    "claim": TypeAdapter(ClaimItem),
}
_NAMES: dict[type, ItemForm] = {
    ChooseItem: "choose",
    MendItem: "mend",
    FillItem: "fill",
    WayItem: "way",
    ClaimItem: "claim",
}
MOST_WAYS = 6
LEAST_REACH = 10.0
"""How far a grid reaches at least: its size must not say where the features are."""


def columns(item: FormItem | None) -> dict[str, object]:
    """The columns of an item of a set that keep its form."""
    if item is None:
        return {"form": "work", "made": None}
    made = json_object(item)
    made.pop("working", None)  # it is that of the item
    return {"form": _NAMES[type(item)], "made": made}


def form_item(item: SetItem, working: CoreWorking) -> FormItem | None:
    """What an item is in its form; None where it is to be worked. `working` is its problem."""
    if item.made is None:
        return None
    made = cast(JsonObject, item.made)
    problem = {} if item.form == "claim" else {"working": json_object(working)}
    return cast(FormItem, _FORMS[item.form].validate_python({**made, **problem}))


def words_over(item: SetItem) -> str:
    """What stands over an item in its form; empty where that is what stands over its problem."""
    return FORM_INSTRUCTIONS.get(cast(ItemForm, item.form), "")


def shown(item: SetItem, working: CoreWorking) -> FormOut | None:
    """What a student sees of an item beside its given, and nothing of its key; None for what is just worked."""
    decimal = working.convention("decimal")

    def latex(text: str) -> str:
        found = understood(text, decimal=decimal)
        return found.latex

    match form_item(item, working):
        case ChooseItem(options=options):
            return _out("choose", options=[option.answer_latex for option in options])
        case MendItem(lines=lines):
            return _out("mend", lines=[latex(line) for line in lines])
        case FillItem(lines=lines, wanted=wanted):
            number = count(1)
            return _out("fill", lines=[_numbered(latex(line), number) for line in lines], blanks=len(wanted))
        case WayItem() as way:
            return _out("way", ways=_ways(way, item.task))
        case ClaimItem() as claim:
            return _out("claim", lines=[latex(claim.claim)], letters=claim_letters(claim))
    if item.task in ("analyze", "analyse"):
        return _out("work", reach=_reach(working), letters=[unknown_of(working)])
    return None


def _out(
    form: ItemForm,
    *,
    options: Sequence[str] = (),
    lines: Sequence[str] = (),
    blanks: int = 0,
    ways: Sequence[str] = (),
    letters: Sequence[str] = (),
    reach: float = 0,
) -> FormOut:
    return FormOut(
        form=form,
        options=list(options),
        lines=list(lines),
        blanks=blanks,
        ways=list(ways),
        letters=list(letters),
        reach=reach,
    )


def _numbered(latex: str, number: count[int]) -> str:
    """A line with its blanks numbered, so that each can be named."""
    first, *rest = latex.split("\\square")
    return first + "".join(f"\\boxed{{\\scriptstyle {next(number)}}}{part}" for part in rest)


def _ways(item: WayItem, task: str) -> list[str]:
    """The names to choose from: those that lead there among others for such a task, by the alphabet."""
    known = {method.id: method.name for method in METHODS}
    leading = [known[each] for each in (item.best, *item.also) if each in known]
    others = [method.name for method in METHODS if method.example[0] == task]
    return sorted(list(dict.fromkeys([*leading, *others]))[:MOST_WAYS])


def _reach(working: CoreWorking) -> float:
    """How far the grid of a function reaches in each direction."""
    try:
        return max(LEAST_REACH, *map(abs, _window(working.given, working.variable)))
    except TaskError:
        return LEAST_REACH


@lru_cache(maxsize=512)
def _window(given: str, variable: str | None) -> tuple[float, ...]:
    """The window of a graph. Raises TaskError where there is none just now, which is not remembered."""
    graph = lanes.analysed(given, variable=variable, with_graph=True).graph
    if graph is None:
        raise TaskError("There is no graph.")
    return graph.window
