"""Questions to the core, asked in processes that can be ended: one heavy question never makes the others wait.

The core counts its work and gives up by itself; what it could not foresee ends here. Each question has a limit of time
and memory; where it is passed the process is ended and replaced, and the answer is a sentence. Light questions (a line,
a step) have processes of their own; what takes them longer than `LIGHT_SECONDS` is asked again among the heavy ones.

The functions here have the names and the answers of the core's own. They raise TooHeavy, a TaskError, beside what the
core raises.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import cast

from algebra import (
    Advice,
    Draw,
    Entry,
    FeaturesReport,
    Grain,
    Hint,
    Item,
    ItemForm,
    Key,
    KeyProblem,
    LadderWish,
    LineError,
    NotTaken,
    Option,
    OptionOrder,
    Prediction,
    Proof,
    Proofs,
    Proposal,
    Report,
    Rung,
    Scheme,
    SchemeKind,
    SheetFile,
    Solution,
    TaskError,
    Working,
)
from lanes.building import Proposed
from lanes.paper import PageFormat
from lanes.pool import Busy, Pool, TooHeavy
from lanes.settings import HEAVY, HEAVY_SECONDS, INLINE, KEY_SECONDS, LIGHT, LIGHT_SECONDS, MEMORY, VERSION_SECONDS
from paper import (
    FeedbackSlip,
    FileFormat,
    PageSize,
    Picture,
    PlannedItem,
    ScannedPage,
    Settings,
    Shown,
    StudentData,
    Wanted,
)

light = Pool(LIGHT, memory=MEMORY, inline=INLINE)
heavy = Pool(HEAVY, memory=MEMORY, niceness=5, inline=INLINE)


def check(working: Working) -> Report:
    """The report on a working, with what the check took in `ms`. Never raises for bad input or for what is too
    heavy."""
    try:
        try:
            found = light.ask("check", working, seconds=LIGHT_SECONDS)
        except TooHeavy:
            found = heavy.ask("check", working, seconds=HEAVY_SECONDS)
    except TaskError as problem:
        return Report.of_refused(working.id, LineError(0, 1, problem.message, problem.code))
    assert isinstance(found, Report)
    return found


def marked(item: Item, lines: list[str], scheme: Scheme, *, at_once: bool = False) -> tuple[Report, Proposal]:
    """The report on what a student wrote for an item and what a scheme proposes for it; `at_once` among the light
    questions first, where somebody waits for it. Raises Busy; what is too heavy is said in the report."""
    try:
        if at_once:
            try:
                found = light.ask("marked", item, lines, scheme, seconds=LIGHT_SECONDS)
            except TooHeavy:
                found = heavy.ask("marked", item, lines, scheme, seconds=KEY_SECONDS)
        else:
            found = heavy.ask("marked", item, lines, scheme, seconds=KEY_SECONDS)
    except TooHeavy as problem:
        report = Report.of_refused(None, LineError(0, 1, problem.message, problem.code))
        return report, Proposal(0, scheme.total, (), ("unread",))
    assert isinstance(found, tuple)
    return found


def planned_item(number: int, working: Working, form: ItemForm) -> PlannedItem:
    """One problem of a sheet with its key, in a form. Raises TooHeavy, Busy."""
    found = heavy.ask("planned_item", number, working, form=form, seconds=KEY_SECONDS)
    assert isinstance(found, PlannedItem)
    return found


def drawn(draw: Draw) -> list[Rung]:
    """What is drawn for a ladder. Raises TaskError, ReadingError."""
    found = heavy.ask("drawn", draw, seconds=VERSION_SECONDS)
    assert isinstance(found, list)
    return found


def joined(parts: list[list[Rung]], count: int, seed: int) -> list[Proposed]:
    """The ladder of what was drawn, as it is proposed. Raises TooHeavy."""
    found = heavy.ask("joined", parts, count, seed, seconds=HEAVY_SECONDS)
    assert isinstance(found, list)
    return found


def draws(wish: LadderWish) -> list[Draw]:
    """What is to be drawn for a ladder. Raises TaskError."""
    found = heavy.ask("draws", wish, seconds=VERSION_SECONDS)
    assert isinstance(found, list)
    return found


def item_of(form: ItemForm, working: Working) -> Item:
    """A problem in a form. Raises TaskError, ReadingError."""
    found = heavy.ask("item_of", form, working, seconds=KEY_SECONDS)
    return cast(Item, found)


def item_scheme(item: Item, kind: SchemeKind = "points") -> Scheme:
    """What an item is worth. Raises TooHeavy."""
    found = heavy.ask("item_scheme", item, kind, seconds=KEY_SECONDS)
    assert isinstance(found, Scheme)
    return found


def key_lines(item: Item) -> tuple[str, ...]:
    """The right answer to an item, or the lines of its worked solution. Raises TooHeavy."""
    found = heavy.ask("key_lines", item, seconds=KEY_SECONDS)
    assert isinstance(found, tuple)
    return found


def is_lasting(report: Report) -> bool:
    """Whether a report says the same the next time: not where no process was free."""
    return report.error is None or report.error.code != Busy.code


def proofread(text: str, conventions: Mapping[str, str] | None = None) -> Proofs:
    """What does not hold in a pasted key. Raises TaskError, ReadingError."""
    found = heavy.ask("proofread", text, dict(conventions or {}), seconds=KEY_SECONDS)
    assert isinstance(found, Proofs)
    return found


def key_apart(text: str, conventions: Mapping[str, str] | None = None) -> Key:
    """A pasted key taken apart. Raises TaskError, ReadingError."""
    found = heavy.ask("key_apart", text, dict(conventions or {}), seconds=KEY_SECONDS)
    assert isinstance(found, Key)
    return found


def proof_of(problem: KeyProblem, repeats: str = "") -> Proof:
    """One problem of a key proof-read. Raises TooHeavy."""
    found = heavy.ask("proof_of", problem, repeats, seconds=KEY_SECONDS)
    assert isinstance(found, Proof)
    return found


def work(
    working: Working, *, method: str | None = None, grain: Grain = "board", untaught: tuple[str, ...] = ()
) -> Solution:
    """A worked solution. Raises TaskError (Unsolved where no method leads to the answer) and ReadingError."""
    found = heavy.ask("work", working, seconds=HEAVY_SECONDS, method=method, grain=grain, untaught=untaught)
    assert isinstance(found, Solution)
    return found


def all_methods(working: Working, *, grain: Grain = "board", untaught: tuple[str, ...] = ()) -> list[Solution]:
    """Every method that leads to the answer. Raises TaskError and ReadingError."""
    found = heavy.ask("all_methods", working, seconds=HEAVY_SECONDS, grain=grain, untaught=untaught)
    assert isinstance(found, list)
    return found


def next_step(working: Working, *, untaught: tuple[str, ...] = ()) -> Hint:
    """The next step after the lines so far. Raises TaskError where none is known, ReadingError for the given."""
    found = heavy.ask("next_step", working, seconds=HEAVY_SECONDS, untaught=untaught)
    assert isinstance(found, Hint)
    return found


def predict(working: Working, *, most: int = 8) -> Prediction:
    """The wrong answers to expect. Raises TaskError and ReadingError."""
    found = heavy.ask("predict", working, seconds=HEAVY_SECONDS, most=most)
    assert isinstance(found, Prediction)
    return found


def options(
    working: Working, *, count: int = 4, seed: int = 1, order: OptionOrder = "shuffled", found: Prediction | None = None
) -> tuple[Option, ...]:
    """Multiple-choice options made from the wrong answers to expect. Raises TaskError and ReadingError."""
    made = heavy.ask("options", working, seconds=HEAVY_SECONDS, count=count, seed=seed, order=order, found=found)
    assert isinstance(made, tuple)
    return made


def analysed(given: str, *, variable: str | None = None, with_graph: bool = False) -> FeaturesReport:
    """The features of a rational function; what can't be taken, or is too heavy, is said in the report."""
    try:
        found = heavy.ask("analysed", given, seconds=HEAVY_SECONDS, variable=variable, with_graph=with_graph)
    except TaskError as problem:
        return FeaturesReport(error=LineError(0, 1, problem.message, problem.code))
    assert isinstance(found, FeaturesReport)
    return found


def printed(
    title: str,
    problems: list[Wanted],
    items: list[PlannedItem],
    settings: Settings,
    *,
    version: str = "A",
    form: PageFormat = "pdf",
) -> tuple[list[bytes], list[tuple[int, str]]]:
    """A sheet on paper: the PDF, or its pages as SVG; and the items whose key can't be relied on. Raises TaskError."""
    found = heavy.ask("paper", title, problems, items, settings, version, form, seconds=VERSION_SECONDS)
    assert isinstance(found, tuple)
    return found


def out(sheet: SheetFile, form: FileFormat) -> bytes:
    """A sheet in an open form. Raises TooHeavy."""
    found = heavy.ask("out", sheet, form, seconds=VERSION_SECONDS)
    assert isinstance(found, bytes)
    return found


def feedback(title: str, day: str, slips: list[FeedbackSlip], paper: str, decimal: str) -> bytes:
    """Feedback slips for a class as PDF. Raises TooHeavy."""
    found = heavy.ask("feedback", title, day, slips, paper, decimal, seconds=KEY_SECONDS)
    assert isinstance(found, bytes)
    return found


def student(data: StudentData, paper: PageSize = "a4") -> bytes:
    """Everything that is kept of a student, as PDF. Raises TooHeavy."""
    found = heavy.ask("student", data, paper, seconds=VERSION_SECONDS)
    assert isinstance(found, bytes)
    return found


def scanned(content: bytes) -> list[ScannedPage]:
    """The pages of a file that was scanned, photographed or filled in. Raises TaskError."""
    found = heavy.ask("scanned", content, seconds=VERSION_SECONDS)
    assert isinstance(found, list)
    return found


def picture(working: Working, shown: Shown, form: Picture) -> bytes:
    """The chain of a working, or the graph of its function, as SVG or PNG. Raises TaskError, ReadingError."""
    found = heavy.ask("picture", working, shown, form, seconds=HEAVY_SECONDS)
    assert isinstance(found, bytes)
    return found


def taken(content: bytes, form: str, title: str) -> tuple[SheetFile, tuple[NotTaken, ...]]:
    """A sheet from an open form, and what could not be taken of it. Raises TaskError."""
    found = heavy.ask("taken", content, form, title, seconds=VERSION_SECONDS)
    assert isinstance(found, tuple)
    return found


def laddered(wish: LadderWish) -> list[Proposed]:
    """A ladder as it is proposed. Raises TaskError."""
    found = heavy.ask("ladder", wish, seconds=VERSION_SECONDS)
    assert isinstance(found, list)
    return found


def another(working: Working, what: str, seed: int, known: list[Working]) -> Proposed | None:
    """A problem like another, easier or harder; None where none is found. Raises TaskError, ReadingError."""
    found = heavy.ask("another", working, what, seed, known, seconds=KEY_SECONDS)
    assert found is None or isinstance(found, Proposed)
    return found


def entry_of(working: Working, untaught: tuple[str, ...] = ()) -> Entry:
    """What a problem is found by again. Raises TooHeavy."""
    found = heavy.ask("entry", working, seconds=KEY_SECONDS, untaught=untaught)
    assert isinstance(found, Entry)
    return found


def version(workings: list[Working], seed: int) -> list[Working | None]:
    """A problem like each of these; None where none is found. Raises TooHeavy."""
    found = heavy.ask("version", workings, seed, seconds=VERSION_SECONDS)
    assert isinstance(found, list)
    return found


def advised(
    workings: list[Working], untaught: list[str], lesson: float | None = None
) -> tuple[tuple[Advice, ...], float]:
    """What a careful colleague would say of these problems, and the minutes they take. Raises TooHeavy."""
    found = heavy.ask("advice", workings, untaught, lesson, seconds=VERSION_SECONDS)
    assert isinstance(found, tuple)
    return found


__all__ = [
    "Busy",
    "Pool",
    "Proposed",
    "TooHeavy",
    "advised",
    "all_methods",
    "analysed",
    "another",
    "check",
    "drawn",
    "draws",
    "entry_of",
    "feedback",
    "heavy",
    "is_lasting",
    "item_of",
    "item_scheme",
    "joined",
    "key_apart",
    "key_lines",
    "laddered",
    "light",
    "marked",
    "next_step",
    "options",
    "out",
    "picture",
    "planned_item",
    "predict",
    "printed",
    "proof_of",
    "proofread",
    "scanned",
    "student",
    "taken",
    "version",
    "work",
]
