"""What a careful colleague would say of a sheet before it is printed."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterator, Sequence
from dataclasses import replace
from statistics import median

from algebra.derive.check import check
from algebra.methods.catalogue import BY_ID
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.records import record
from algebra.reports.working import TaskError, Working
from algebra.rules import RULES
from algebra.sets.likeness import likeness
from algebra.tree import statements as ln
from algebra.ways.solve import Solution, work

FAR_ABOVE = 2.8
"""How much harder than the middle of the sheet an item is before it is said."""
UGLY_AMONG = 0.7
"""Which share of the answers is plain before one that is not is said."""
MOST_LINES = 13
"""How many lines of work fit into the room that an item gets on paper."""
A_MINUTE = {"start": 0.5, "point": 0.42}
"""Minutes for an item: to begin with, and for each point of difficulty."""
_NAMES = {rule.id: rule.name for rule in RULES}


@record(frozen=True)
class Advice:
    """One thing to look at: its code, the items it is about (from 1), a sentence; `mend` is what would mend the last of
    them: another problem (`replace`), another task (`task`), the key worked anew (`key`), or nothing known."""

    code: str
    items: tuple[int, ...]
    text: str
    mend: str = ""


def advice(
    workings: Sequence[Working], *, untaught: Collection[str] = (), lesson: float | None = None
) -> tuple[tuple[Advice, ...], float]:
    """What a careful colleague would say of these items, in their order, and the minutes that they take together;
    `lesson` is how many there are."""
    solved = [_solved(working, tuple(untaught)) for working in workings]
    told: list[Advice] = []
    for number, (working, solution) in enumerate(zip(workings, solved, strict=True), start=1):
        told += _of_one(number, working, solution)
    told += _same_items(workings)
    told += _same_answers(solved)
    told += _out_of_line(solved)
    minutes = sum(A_MINUTE["start"] + A_MINUTE["point"] * (s.difficulty.rating or 3.0 if s else 3.0) for s in solved)
    if lesson is not None and minutes > lesson:
        told.append(Advice("too-long", (), f"This takes about {minutes:.0f} minutes; there are {lesson:.0f}."))
    return tuple(sorted(told, key=lambda each: each.items or (len(workings) + 1,))), round(minutes, 1)


def _solved(working: Working, untaught: tuple[str, ...]) -> Solution | None:
    try:
        return work(replace(working, lines=()), method=working.method, untaught=untaught)
    except (TaskError, ReadingError):
        return None


def _has_a_known_domain(working: Working) -> bool:
    return working.task == "domain" and bool(check(replace(working, lines=())).answer.expected)


def _of_one(number: int, working: Working, solution: Solution | None) -> Iterator[Advice]:
    try:
        body = read_line(working.given, decimal=working.convention("decimal")).body
    except ReadingError as problem:
        yield Advice("unread", (number,), f"The given can't be read: {problem.message}")
        return
    if working.task == "solve" and not isinstance(body, ln.Equation):
        yield Advice("instruction", (number,), "“Solve” stands over an expression.", "task")
    elif working.task != "solve" and isinstance(body, ln.Equation) and working.task != "analyze":
        yield Advice("instruction", (number,), "An equation stands where an expression is asked for.", "task")
    elif working.task == "factor" and solution is not None and "prime" in solution.difficulty.noticed:
        yield Advice("prime", (number,), "“Factor” stands over a prime one. Is that meant?", "replace")
    elif solution is None and working.task != "analyze" and not _has_a_known_domain(working):
        yield Advice("not-worked", (number,), "No method known here leads to its answer.", "replace")
    elif solution is not None and solution.already:
        yield Advice("nothing-to-do", (number,), solution.already, "replace")
    if solution is not None and solution.not_yet:
        named = ", ".join(_NAMES.get(each, BY_ID[each].name if each in BY_ID else each) for each in solution.not_yet)
        yield Advice("not-taught", (number,), f"The class does not know yet: {named}.", "replace")
    if solution is not None and len(solution.steps) > MOST_LINES:
        told = f"Its key takes {len(solution.steps)} lines: there is not enough room for them on paper."
        yield Advice("little-space", (number,), told, "replace")
    if working.lines:
        yield from _of_key(number, working)


def _of_key(number: int, working: Working) -> Iterator[Advice]:
    report = check(working)
    broken = next((link for link in report.links if link.relation in ("breaks", None)), None)
    narrowed = next((link for link in report.links if link.relation == "narrows"), None)
    if broken is not None:
        yield Advice("key-broken", (number,), f"Its key breaks in line {broken.line}.", "key")
    elif narrowed is not None:
        yield Advice("key-narrows", (number,), f"Its key loses a solution in line {narrowed.line}.", "key")
    elif report.answer.verdict != "correct":
        yield Advice(
            "key-unfinished", (number,), f"Its key does not reach the answer. {report.answer.text}".strip(), "key"
        )
    elif report.owed:
        yield Advice(
            "check-owed", (number,), f"Its key owes a check of {', '.join(item.value for item in report.owed)}.", "key"
        )
    elif report.finish.remaining:
        yield Advice("key-unfinished", (number,), f"Its key stops too soon: {report.finish.remaining[0].text}", "key")


def _same_items(workings: Sequence[Working]) -> Iterator[Advice]:
    places: dict[str, list[int]] = defaultdict(list)
    for number, working in enumerate(workings, start=1):
        try:
            places[likeness(working)].append(number)
        except ReadingError:
            continue
    for found in places.values():
        if len(found) > 1:
            yield Advice("same-item", tuple(found), f"Numbers {_listed(found)} are the same item.", "replace")


def _same_answers(solved: Sequence[Solution | None]) -> Iterator[Advice]:
    places: dict[tuple[str, ...], list[int]] = defaultdict(list)
    for number, solution in enumerate(solved, start=1):
        if (
            solution is not None
            and solution.working.task == "solve"
            and solution.answer
            and solution.answer != ("all",)
        ):
            places[tuple(sorted(solution.answer))].append(number)
    for answer, found in places.items():
        if len(found) > 1:
            yield Advice(
                "same-answer",
                tuple(found),
                f"Numbers {_listed(found)} have the same answer, {', '.join(answer)}.",
                "replace",
            )


def _out_of_line(solved: Sequence[Solution | None]) -> Iterator[Advice]:
    ratings = [
        (number, s.difficulty.rating)
        for number, s in enumerate(solved, start=1)
        if s and s.difficulty.rating is not None
    ]
    if len(ratings) >= 4:
        middle = median(rating for _, rating in ratings)
        for number, rating in ratings:
            if rating - middle > FAR_ABOVE:
                yield Advice(
                    "far-above",
                    (number,),
                    f"It is far harder than the others: {rating} where the middle is {middle:.1f}.",
                    "replace",
                )
    plain = [number for number, s in enumerate(solved, start=1) if s and _is_plain(s)]
    if len(solved) >= 4 and UGLY_AMONG * len(solved) <= len(plain) < len(solved):
        for number, s in enumerate(solved, start=1):
            if s is not None and s.answer and number not in plain and s.working.task == "solve":
                yield Advice(
                    "ugly-answer",
                    (number,),
                    f"Its answer is less plain than the others: {', '.join(s.answer)}.",
                    "replace",
                )


def _is_plain(solution: Solution) -> bool:
    return not any(sign in answer for answer in solution.answer for sign in "√∛/^")


def _listed(numbers: Sequence[int]) -> str:
    return f"{', '.join(map(str, numbers[:-1]))} and {numbers[-1]}"
