"""Items of a set in their forms: kept as they were made when the set was given, and what a student sees of them."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache
from typing import Any, cast

import lanes
from algebra import (
    FORMS,
    FormName,
    Item,
    ItemForm,
    JsonObject,
    Shown,
    TaskError,
    Working,
    form_named,
    form_of,
    json_object,
    shown_of,
)
from server.common.codec import Codec
from server.marking.models import SetItem

_RECORDS: dict[FormName, Codec[Any]] = {form.name: Codec(form.record) for form in FORMS}
LEAST_REACH = 10.0
"""How far a grid reaches at least: its size must not say where the features are."""


def columns(item: Item) -> dict[str, object]:
    """The columns of an item of a set that keep its form."""
    form = form_of(item)
    if not form.answered:
        return {"form": form.kept_as, "made": None}
    made = _RECORDS[form.name].kept(item)
    made.pop("working")  # it is that of the item
    return {"form": form.kept_as, "made": made}


def made_item(item: SetItem, working: Working) -> Item:
    """What an item is in its form. `working` is its problem, without lines."""
    form = form_named(cast(ItemForm, item.form), working)
    made = cast(JsonObject, item.made or {})
    return cast(Item, _RECORDS[form.name].back({**made, "working": json_object(working)}))


def is_answered(item: SetItem) -> bool:
    """Whether an answer is given to an item, where else lines are worked."""
    return item.made is not None


def words_over(item: SetItem) -> str:
    """What stands over an item in its form; empty where that is what stands over its problem."""
    return form_named(cast(ItemForm, item.form), Working(item.task, item.given)).asks


def shown(item: SetItem, working: Working) -> Shown | None:
    """What a student sees of an item beside its given, and nothing of its key; None for what is just worked."""
    found = shown_of(made_item(item, working))
    return found and replace(found, reach=_reach(working)) if found and found.form == "features" else found


def _reach(working: Working) -> float:
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
