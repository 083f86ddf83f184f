"""What stands on a sheet: sections with their instructions, items with their keys."""

from __future__ import annotations

import random
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass, field, replace
from hashlib import sha256
from itertools import groupby

from algebra import (
    FORMS,
    ITEM_FORMS,
    FeaturesReport,
    Graph,
    Item,
    ItemForm,
    ReadingError,
    SheetProblem,
    TaskError,
    Working,
    analysed,
    check,
    form_named,
    form_of,
    instruction,
    item_of,
    unknown_of,
    usual_marks,
    work,
)

UNWORKED = "No method known here leads to the answer."


@dataclass(frozen=True, slots=True)
class Wanted:
    """A problem as it is wanted on a sheet: its working, the words over it (empty: the usual ones), its form."""

    working: Working
    instruction: str = ""
    form: ItemForm = "work"


def wanted_of(problem: SheetProblem) -> Wanted:
    """A problem of a file as it is wanted on a sheet."""
    return Wanted(problem, problem.instruction, problem.form if problem.form in ITEM_FORMS else "work")


def in_other_order(problems: Sequence[Wanted], form: int) -> list[Wanted]:
    """The same items in another order, those under one instruction among themselves: a form of a sheet. Form 0 is the
    order as it is; the same form is the same order each time."""
    if not form:
        return list(problems)
    draw = random.Random(f"form {form}")
    found: list[Wanted] = []
    for _, group in groupby(problems, key=lambda each: (each.instruction, each.working.task, each.form)):
        items = list(group)
        draw.shuffle(items)
        found += items
    return found


@dataclass(frozen=True, slots=True)
class KeyLine:
    """One line of a key, as it is written (with its move), and the reason beside it, if any."""

    text: str
    reason: str = ""


@dataclass(frozen=True, slots=True)
class PlannedItem:
    """One problem on a sheet, with its key: the lines, the answer as one states it, what is left out of it (excluded
    values).

    `trouble` says why the key can't be relied on; `made` is the problem in its form; `graph` belongs to a function's
    features; `unknown` is the letter of which the answer speaks.
    """

    number: int
    working: Working
    made: Item
    key: tuple[KeyLine, ...] = ()
    answer: tuple[str, ...] = ()
    excluded: tuple[str, ...] = ()
    trouble: str = ""
    graph: Graph | None = None
    difficulty: float | None = None
    family: str = ""
    unknown: str = "x"
    marks: int = 1

    @property
    def form(self) -> ItemForm:
        """The form in which it stands on paper: that which was wanted, where it could be made."""
        return form_of(self.made).kept_as


@dataclass(frozen=True, slots=True)
class PlannedSection:
    """Items under one instruction."""

    instruction: str
    items: tuple[PlannedItem, ...]


@dataclass(frozen=True, slots=True)
class SheetPlan:
    """A sheet ready to be laid out. `code` is the same for the same title, version and problems, and for no other."""

    title: str
    version: str
    sections: tuple[PlannedSection, ...]
    decimal: str = "point"
    code: str = field(default="")

    @property
    def items(self) -> tuple[PlannedItem, ...]:
        """All items in their order."""
        return tuple(item for section in self.sections for item in section.items)


def planned(
    title: str, problems: Sequence[Wanted], *, version: str = "A", form: ItemForm | None = None, seed: int = 1
) -> SheetPlan:
    """The plan of a sheet: each problem under its instruction with its key, which are its lines where they are sound
    and finished; else it is worked. `form` makes all items of one form, where that can be made of them."""
    items = [
        planned_item(number, each.working, form=form or each.form, seed=seed)
        for number, each in enumerate(problems, start=1)
    ]
    return put_together(title, problems, items, version=version, seed=seed)


def put_together(
    title: str, problems: Sequence[Wanted], items: Sequence[PlannedItem], *, version: str = "A", seed: int = 1
) -> SheetPlan:
    """The plan of a sheet of items that were planned one by one, in the order of its problems."""
    placed = _arranged(items, seed)
    told = [(each.instruction or _words_over(item), item) for each, item in zip(problems, placed, strict=True)]
    sections = [
        PlannedSection(words, tuple(item for _, item in group))
        for words, group in groupby(told, key=lambda pair: pair[0])
    ]
    decimal = str(problems[0].working.conventions.get("decimal", "point")) if problems else "point"
    return SheetPlan(
        title, version, tuple(sections), decimal, code_of(title, version, (each.working for each in problems))
    )


def made_items(items: Sequence[PlannedItem]) -> list[Item]:
    """What planned items are in their forms, as the sheet with them has it on paper."""
    return [item.made for item in _arranged(items, 1)]


def _arranged(items: Sequence[PlannedItem], seed: int) -> list[PlannedItem]:
    """The items of a sheet, those of a form arranged among themselves where their form says so."""
    found = list(items)
    for form in FORMS:
        places = [k for k, item in enumerate(found) if form_of(item.made) is form]
        for k, made in zip(places, form.arrange([found[k].made for k in places], f"{seed} {len(items)}"), strict=True):
            found[k] = replace(found[k], made=made)
    return found


def _words_over(item: PlannedItem) -> str:
    return form_of(item.made).asks or f"{instruction(item.working)}."


def code_of(title: str, version: str, workings: Iterable[Working]) -> str:
    """The code in the footer of a printed sheet."""
    told = repr([title, version, [(w.task, w.given, w.variable, w.numbers) for w in workings]])
    return sha256(told.encode()).hexdigest()[:8].upper()


def planned_item(number: int, working: Working, *, form: ItemForm = "work", seed: int = 1) -> PlannedItem:
    """One problem of a sheet with its key, in a form where that can be made of it. Never raises: `trouble` says why a
    key can't be relied on."""
    item = PlannedItem(number, working, item_of("work", working))
    if working.task == "analyze":
        return _with_features(item, analysed(working.given, variable=working.variable, with_graph=True))
    own = check(working) if working.lines else None
    try:
        solution = work(replace(working, lines=(), method=None), method=working.method)
    except (TaskError, ReadingError):
        solution = None
    if own is not None and own.answer.verdict == "correct" and own.finish.finished and own.sound:
        item = replace(item, key=tuple(map(KeyLine, working.lines)), answer=own.answer.expected, excluded=own.excluded)
    elif solution is not None:
        lines = tuple(KeyLine(step.text, step.reason) for step in solution.steps)
        excluded = check(replace(working, lines=solution.lines)).excluded
        item = replace(item, key=lines, answer=solution.answer, excluded=excluded)
    elif working.task == "domain" and (domain := check(replace(working, lines=())).answer.expected):
        item = replace(item, key=(KeyLine(" ∪ ".join(domain)),), answer=domain)
    else:
        item = replace(item, trouble=UNWORKED)
    if solution is not None:
        rating, unknown = solution.difficulty.rating, unknown_of(working)
        item = replace(item, difficulty=rating, family=solution.family, unknown=unknown, marks=usual_marks(solution))
    if not item.trouble:
        with suppress(TaskError, ReadingError):  # then it stays an item to be worked
            item = _in_form(item, form, seed)
    return item


def _in_form(item: PlannedItem, form: ItemForm, seed: int) -> PlannedItem:
    """The item in another form. Raises TaskError, ReadingError where it has none."""
    wanted = form_named(form, item.working)
    return replace(item, made=wanted.make(item.working, seed + item.number if wanted.by_place else seed))


def _with_features(item: PlannedItem, found: FeaturesReport) -> PlannedItem:
    if found.error is not None:
        return replace(item, trouble=found.error.message)
    lines = tuple(KeyLine(line) for line in feature_lines(found))
    return replace(
        item,
        marks=max(1, len(lines)),
        key=lines,
        answer=tuple(line.text for line in lines),
        graph=found.graph,
        family="rational-functions",
    )


def feature_lines(found: FeaturesReport) -> list[str]:
    """The features of a function as a working states them, a line each."""

    def points(pairs: tuple[tuple[str, str], ...]) -> str:
        return ", ".join(f"({x}, {y})" for x, y in pairs)

    told = [
        (
            "vertical asymptote" + "s" * (len(found.vertical_asymptotes) > 1),
            ", ".join(f"x = {x}" for x in found.vertical_asymptotes),
        ),
        ("hole" + "s" * (len(found.holes) > 1), points(found.holes)),
        ("horizontal asymptote", f"y = {found.horizontal_asymptote}" if found.horizontal_asymptote else ""),
        ("oblique asymptote", f"y = {found.oblique_asymptote}" if found.oblique_asymptote else ""),
        ("x-intercept" + "s" * (len(found.x_intercepts) > 1), points(tuple((x, "0") for x in found.x_intercepts))),
        ("y-intercept", f"(0, {found.y_intercept})" if found.y_intercept else ""),
        ("range", found.range or ""),
    ]
    return [
        f"{name}: {value or 'none'}"
        for name, value in told
        if value or name not in ("horizontal asymptote", "oblique asymptote", "range")
    ]
