"""Reads: worked solutions, next steps and features, in the conventions of a sheet and the words of its teacher."""

from __future__ import annotations

from django.contrib.auth.models import User

from algebra import (
    METHODS,
    RULES,
    SLIPS,
    Anticipated,
    Echo,
    ReadingError,
    Solution,
    Step,
    TaskError,
    all_methods,
    analysis_json,
    next_step,
    options,
    predict,
    typeset,
)
from server.checking.schemas import JsonObject
from server.checking.services import echo_line
from server.config.problems import Refused
from server.sheets import queries as sheets
from server.sheets import reports
from server.solving.models import OwnWords
from server.solving.schemas import EntryOut, GrainName

NUMBER_KINDS = {
    "complex-numbers": ("Complex numbers", "Solutions with i."),
    "irrational-numbers": ("Irrational numbers", "Answers that keep a root."),
    "leading-coefficient": ("Leading coefficient other than 1", "Trinomials with a ≠ 1."),
}
_METHODS = {method.id: method for method in METHODS}
_SLIPS = {slip.id: slip for slip in SLIPS}


def words_of(teacher: User) -> dict[str, dict[str, str]]:
    """The teacher's own words by the id of the rule, method or slip."""
    found = OwnWords.objects.filter(owner=teacher).first()
    return dict(found.words) if found is not None else {}


def catalogue() -> list[EntryOut]:
    """Everything that a class may have been taught, and that may get words of one's own."""
    entries = [EntryOut(id=m.id, kind="method", name=m.name, text=m.description, topic=m.example[0]) for m in METHODS]
    entries += [
        EntryOut(id=key, kind="number", name=name, text=text, topic="") for key, (name, text) in NUMBER_KINDS.items()
    ]
    entries += [EntryOut(id=s.id, kind="slip", name=s.name, text=s.why, topic=s.topic) for s in SLIPS]
    return entries + [
        EntryOut(id=r.id, kind="rule", name=r.name, text=_plain_reason(r.reason), topic="") for r in RULES
    ]


def _plain_reason(reason: str) -> str:
    return reason.replace("{what}", "…").replace("{half}", "b").replace("{square}", "…").replace("{order}: ", "")


def methods(teacher: User, problem_id: int, grain: GrainName) -> JsonObject:
    """Every method that leads to the answer of a problem, worked out."""
    problem = sheets.problem_of(teacher, problem_id)
    words, decimal = words_of(teacher), sheets.decimal_of(problem.sheet)
    why, found = "", []
    try:
        found = all_methods(
            reports.core_working(problem, []),
            grain=grain,
            untaught=problem.sheet.untaught,
        )
        if not found:
            why = "No method known here leads to the answer of this problem."
    except (TaskError, ReadingError) as reason:
        why = getattr(reason, "message", str(reason))
    return {
        "family": found[0].family if found else "",
        "given_echo": echo_line(problem.given, decimal).model_dump(),
        "methods": [solution_out(solution, words, decimal) for solution in found],
        "why_none": why,
    }


def solution_out(solution: Solution, words: dict[str, dict[str, str]], decimal: str) -> JsonObject:
    method = _METHODS[solution.method]
    own = words.get(method.id, {})
    return {
        "method": method.id,
        "name": own.get("name") or method.name,
        "description": own.get("text") or method.description,
        "searches": method.searches,
        "answer": list(solution.answer),
        "steps": [step_out(step, words, decimal) for step in solution.steps],
        "difficulty": solution.difficulty.to_json(),
        "not_yet": [name_of(key, words) for key in solution.not_yet],
    }


def name_of(key: str, words: dict[str, dict[str, str]]) -> str:
    """What a rule, method or kind of number is called."""
    entry = next((entry for entry in catalogue() if entry.id == key), None)
    return words.get(key, {}).get("name") or (entry.name if entry else key)


def step_out(step: Step, words: dict[str, dict[str, str]], decimal: str) -> JsonObject:
    before, after = typeset(step, decimal=decimal)
    own = words.get(step.rule.id, {})
    return {
        "before": step.before, "after": step.after, "text": step.text, "kind": step.kind, "move": step.move, "rule": step.rule.id,
        "name": own.get("name") or step.rule.name, "reason": own.get("text") or step.reason, "side_work": list(step.side_work),
        "slips": list(step.rule.slips), "lurking": [_slip_name(key, words) for key in step.rule.slips if key in _SLIPS], "excluded": list(step.excluded), "noticed": list(step.noticed),
        "before_echo": _echo_out(before), "after_echo": _echo_out(after),
    }  # fmt: skip


def _slip_name(key: str, words: dict[str, dict[str, str]]) -> str:
    return words.get(key, {}).get("name") or _SLIPS[key].name


def _echo_out(found: Echo) -> JsonObject:
    return {
        "kind": found.kind, "left": found.left, "right": found.right, "plain": found.plain, "prefix": found.prefix, "move": found.move,
        "remark": found.remark, "notes": list(found.notes), "error": None,
    }  # fmt: skip


def next_of(teacher: User, problem_id: int, lines: list[str]) -> JsonObject:
    """The next step after these lines; raises Refused where none is known."""
    problem = sheets.problem_of(teacher, problem_id)
    words, decimal = words_of(teacher), sheets.decimal_of(problem.sheet)
    try:
        hint = next_step(reports.core_working(problem, lines), untaught=problem.sheet.untaught)
    except (TaskError, ReadingError) as reason:
        raise Refused(getattr(reason, "message", str(reason)), code="no-step") from reason
    return {
        "look": hint.look, "step": step_out(hint.step, words, decimal) if hint.step else None,
        "method": name_of(hint.method, words) if hint.method else "", "shorter": hint.shorter, "done": hint.done,
    }  # fmt: skip


def anticipated(teacher: User, problem_id: int, order: str, seed: int) -> JsonObject:
    """The wrong answers to expect, and multiple-choice options made from them."""
    problem = sheets.problem_of(teacher, problem_id)
    words, decimal = words_of(teacher), sheets.decimal_of(problem.sheet)
    working = reports.core_working(problem, [])
    try:
        found = predict(working)
        choices = options(working, order=order, seed=seed, found=found)  # type: ignore[arg-type]
    except (TaskError, ReadingError) as reason:
        why = getattr(reason, "message", str(reason))
        return {"answer": [], "answer_latex": "", "wrong": [], "unfinished": [], "options": [], "why_none": why}
    return {
        "answer": list(found.answer),
        "answer_latex": _typeset_values(list(found.answer)),
        "wrong": [_way_out(item, words, decimal) for item in found.wrong],
        "unfinished": [
            {"answer": text, "answer_latex": _typeset_values([text]), "missing": code}
            for text, code in found.unfinished
        ],
        "options": [
            choice | {"answer_latex": _typeset_values(str(choice["answer"]).split(" or "))} for choice in choices
        ],
        "why_none": "",
    }


def _typeset_values(values: list[str]) -> str:
    """Values of an answer, typeset and joined by `or`."""
    if not values or values == ["no solution"]:
        return r"\text{no solution}"
    echoes = [echo_line(value) for value in values]
    return r"\;\text{ or }\;".join(
        f"{e.left} {e.right}".strip() or rf"\text{{{value}}}" for e, value in zip(echoes, values, strict=True)
    )


def _way_out(item: Anticipated, words: dict[str, dict[str, str]], decimal: str) -> JsonObject:
    slip = _SLIPS[item.slips[0]]
    own = words.get(slip.id, {})
    shown = item.to_json()
    return {
        "answer": shown["answer"], "answer_latex": _typeset_values(item.answer), "slips": item.slips, "names": [own.get("name") or slip.name], "done": item.done,
        "why": own.get("text") or slip.why, "cue": slip.cue, "kind": slip.kind, "at_line": item.at_line, "lines": item.lines,
        "echoes": [echo_line(line, decimal).model_dump() for line in item.lines],
        "refutation": {"text": item.refutation.text, "plain": item.refutation.plain} if item.refutation else None,
        "roads": item.roads,
    }  # fmt: skip


def analysis_of(teacher: User, problem_id: int) -> JsonObject:
    """Features and graph of a problem's given, where it is a rational function of one letter."""
    problem = sheets.problem_of(teacher, problem_id)
    found = analysis_json(problem.given, variable=problem.variable or None, with_graph=True)
    return found | {"error": found["error"]["message"] if found["error"] else None}
