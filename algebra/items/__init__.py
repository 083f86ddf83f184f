"""Forms of an item, one a module: how it is made, its key, how an answer is judged, what it earns, what is seen of it.

A new form is a module here, named in `FORMS`; `paper/items/` draws it and `web/src/features/items/` takes its answer.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from algebra.items import choose, claim, features, fill, mend, way, work
from algebra.items.form import Form
from algebra.reports.items import ITEM_FORMS, FormName, ItemForm, Shown
from algebra.reports.marking import Proposal, Scheme, SchemeKind
from algebra.reports.report import Report
from algebra.reports.working import Working

Item = (
    work.WorkItem
    | features.FeaturesItem
    | choose.ChooseItem
    | mend.MendItem
    | fill.FillItem
    | way.WayItem
    | claim.ClaimItem
)
FORMS: tuple[Form[Any], ...] = (
    work.FORM,
    features.FORM,
    choose.FORM,
    mend.FORM,
    fill.FORM,
    way.FORM,
    claim.FORM,
)
"""Every form, in the order in which they are offered."""
BY_NAME: dict[FormName, Form[Any]] = {form.name: form for form in FORMS}
_BY_RECORD: dict[type, Form[Any]] = {form.record: form for form in FORMS}


def form_of(item: Item) -> Form[Any]:
    """The form of an item."""
    return _BY_RECORD[type(item)]


def form_named(kept_as: ItemForm, working: Working) -> Form[Any]:
    """The form of a problem that is kept with a chosen form: a function that is worked is asked for its features."""
    return features.FORM if kept_as == "work" and working.task == "analyze" else BY_NAME[kept_as]


def item_of(kept_as: ItemForm, working: Working, seed: int = 1) -> Item:
    """A problem in a form. Raises TaskError, ReadingError where it has none of this form."""
    found: Item = form_named(kept_as, working).make(working, seed)
    return found


def key_lines(item: Item) -> tuple[str, ...]:
    """The right answer as a student writes it; for what is to be worked the lines of a worked solution, none where it
    has none."""
    found: tuple[str, ...] = form_of(item).key(item)
    return found


def item_scheme(item: Item, kind: SchemeKind = "points") -> Scheme:
    """What an item is worth: a point for each part of its answer; by a ready-made scheme where it is to be worked."""
    return form_of(item).scheme(item, kind)


def judge(item: Item, lines: Sequence[str]) -> Report:
    """The report on an answer: a link for each of its lines. Never raises for what can't be read."""
    return form_of(item).judge(item, lines)


def propose_for(item: Item, scheme: Scheme, lines: Sequence[str], report: Report) -> Proposal:
    """What an answer earns, a reason for each point. The teacher decides."""
    return form_of(item).propose(item, scheme, lines, report)


def given_of(item: Item) -> str:
    """What stands over the answer: the problem, or the claim."""
    return form_of(item).given(item)


def shown_of(item: Item) -> Shown | None:
    """What a student sees of an item beside what stands over the answer; None for what is just worked."""
    return form_of(item).shown(item)


__all__ = [
    "BY_NAME",
    "FORMS",
    "ITEM_FORMS",
    "Form",
    "FormName",
    "Item",
    "ItemForm",
    "Shown",
    "form_named",
    "form_of",
    "given_of",
    "item_of",
    "item_scheme",
    "judge",
    "key_lines",
    "propose_for",
    "shown_of",
]
