"""The problems of a sheet as they stand on paper, each with its key in its form: worked out one by one and kept."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any, cast

from django.contrib.auth.models import User

import lanes
from algebra import (
    FORMS,
    FormName,
    Graph,
    ItemForm,
    TaskError,
    Working,
    form_named,
    form_of,
    item_of,
    json_object,
)
from paper import PlannedItem, Wanted, item_form
from paper.plan import KeyLine
from paper.settings import Kind
from server.common.codec import Codec
from server.jobs import kept
from server.jobs import services as jobs
from server.jobs.models import Run
from server.sheets import queries, reports
from server.sheets.models import Sheet

KIND = "items"
_WORKING = Codec(Working)
_GRAPH = Codec(Graph)
_MADE: dict[FormName, Codec[Any]] = {form.name: Codec(form.record) for form in FORMS}


def wanted_of(sheet: Sheet, kind: Kind | None = None, *, with_lines: bool = True) -> list[Wanted]:
    """The problems of a sheet as a kind of paper wants them; with the teacher's own lines, which may be the key."""
    form = item_form(kind) if kind else None
    return [
        Wanted(
            reports.core_working(problem, [line.text for line in problem.working.lines.all()] if with_lines else []),
            problem.instruction,
            form or problem.item_form,
        )
        for problem in queries.problems_in(sheet)
    ]


def items_of(problems: Sequence[Wanted]) -> list[PlannedItem]:
    """Problems as they stand on paper; what is not kept yet is worked out now, one by one. What is too heavy stands
    without a key. Raises lanes.Busy."""
    asked = [_asked(number, each) for number, each in enumerate(problems, start=1)]
    names = [kept.made_from(KIND, each) for each in asked]
    found = kept.known(set(names))
    refused: dict[str, str] = {}
    for name, each in zip(names, asked, strict=True):
        if name not in found and name not in refused:
            try:
                found[name] = work_piece({}, each)
            except lanes.Busy:
                raise
            except TaskError as problem:
                refused[name] = problem.message
            else:
                kept.keep(name, found[name])
    return [
        _back(number, found[name])
        if name in found
        else PlannedItem(number, each.working, item_of("work", each.working), trouble=refused[name])
        for number, (name, each) in enumerate(zip(names, problems, strict=True), start=1)
    ]


def made_already(problems: Sequence[Wanted]) -> list[bool]:
    """Which of the problems are kept as they stand on paper."""
    names = [kept.made_from(KIND, _asked(number, each)) for number, each in enumerate(problems, start=1)]
    found = kept.known(set(names))
    return [name in found for name in names]


def begin(teacher: User, sheet_id: int, kind: Kind) -> Run:
    """Works out the problems of a sheet for a kind of paper among the jobs. Raises Http404, Refused."""
    sheet = queries.sheet_of(teacher, sheet_id)
    pieces = [_asked(number, each) for number, each in enumerate(wanted_of(sheet, kind), start=1)]
    return jobs.begin(teacher, KIND, pieces, title=sheet.title)


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """One problem with its key in a form, as JSON. Raises TaskError."""
    item = lanes.planned_item(
        cast(int, asked["number"]), _WORKING.back(asked["working"]), cast(ItemForm, asked["form"])
    )
    bare = json_object(replace(item, made=None))  # type: ignore[arg-type]  # its form is kept beside it
    return {**bare, "made": {"form": form_of(item.made).name, "record": json_object(item.made)}}


def made_from(about: dict[str, object], asked: dict[str, object]) -> object:
    """All of it depends on what is asked."""
    return asked


def _asked(number: int, wanted: Wanted) -> dict[str, object]:
    # only some forms are drawn by their place on the sheet: the others are the same wherever they stand
    by_place = form_named(wanted.form, wanted.working).by_place
    return {"number": number if by_place else 1, "working": json_object(wanted.working), "form": wanted.form}


def _back(number: int, answer: object) -> PlannedItem:
    told = cast(dict[str, Any], answer)
    made = _MADE[told["made"]["form"]].back(told["made"]["record"])
    return PlannedItem(
        number,
        _WORKING.back(told["working"]),
        made,
        tuple(KeyLine(**line) for line in told["key"]),
        tuple(told["answer"]),
        tuple(told["excluded"]),
        told["trouble"],
        _GRAPH.back_if_any(told.get("graph")),
        told.get("difficulty"),
        told["family"],
        told["unknown"],
        told["marks"],
    )
