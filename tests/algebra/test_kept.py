"""What the core told, whole: every field of reports, solutions, predictions, next steps, features and proofs.

Each line of `tests/corpus/kept/` was read by a person and stands until one decides otherwise. After a change that is
meant, `UCHUU_KEEP=1 ./uchuu test --only python` (or pytest on this file) writes the lines anew; the difference is then
to be read in the commit.
"""

import json
import os
from pathlib import Path

import pytest

from algebra import (
    Unsolved,
    Working,
    analysed,
    check,
    generate,
    json_object,
    next_step,
    options,
    predict,
    proofread,
    step_report,
    work,
)

KEPT = Path(__file__).parents[1] / "corpus" / "kept"
LEFT_OUT = {"ms", "format", "line"}


def told(value):
    """What a report says, without what is empty and what differs from run to run."""
    if isinstance(value, dict):
        found = {key: told(each) for key, each in value.items() if key not in LEFT_OUT}
        return {key: each for key, each in found.items() if each not in (None, "", [], {})}
    if isinstance(value, list | tuple):
        return [told(each) for each in value]
    return value


def _working(ask):
    fields = {key: ask[key] for key in ("variable", "numbers", "conventions", "method") if key in ask}
    if "assume" in ask:
        fields["assume"] = tuple(ask["assume"])
    return Working(ask["task"], ask["given"], tuple(ask.get("lines", ())), **fields)


def _next(ask):
    hint = next_step(_working(ask), untaught=ask.get("untaught", ()))
    step = None if hint.step is None else json_object(step_report(hint.step))
    return {
        "look": hint.look,
        "method": hint.method,
        "after": hint.after_line,
        "shorter": hint.shorter,
        "done": hint.done,
        "step": step,
    }


def _predicted(ask):
    found = predict(_working(ask))
    rows = options(_working(ask), found=found, seed=3)
    return json_object(found.report()) | {"options": [[row.answer, row.right] for row in rows]}


def _refused(ask):
    try:
        work(_working(ask), method=ask["way"])
    except Unsolved as reason:
        return {"why": reason.message}
    return {}


def _drawn(ask):
    found = generate(ask["family"], ask["level"], 3, 5)
    return {"problems": [[s.working.given, s.method, list(s.answer), s.difficulty.rating] for s in found]}


ASKED = {
    "checks": lambda ask: json_object(check(_working(ask))),
    "solutions": lambda ask: json_object(
        work(_working(ask), method=ask.get("way"), grain=ask.get("grain", "every")).report()
    ),
    "refusals": _refused,
    "next-steps": _next,
    "predictions": _predicted,
    "features": lambda ask: json_object(analysed(ask["given"], variable=ask.get("variable"), with_graph=False)),
    "proofs": lambda ask: json_object(proofread(ask["text"])),
    "drawn": _drawn,
}


def kept(name):
    """(what was asked, what was told) of a file."""
    lines = (KEPT / f"{name}.jsonl").read_text(encoding="utf-8").splitlines()
    return [(record["ask"], record.get("told")) for record in map(json.loads, lines)]


def _rows():
    for name in ASKED:
        for ask, said in kept(name):
            what = ask.get("given") or ask.get("family") or ask["text"][:20]
            yield pytest.param(name, ask, said, id=f"{name}: {what}".replace("::", ":").replace("\n", " "))


if os.environ.get("UCHUU_KEEP") == "1":
    for _name, _asked in ASKED.items():
        _lines = [json.dumps({"ask": ask, "told": told(_asked(ask))}, ensure_ascii=False) for ask, _ in kept(_name)]
        (KEPT / f"{_name}.jsonl").write_text("\n".join(_lines) + "\n", encoding="utf-8")


@pytest.mark.parametrize(("name", "ask", "said"), list(_rows()))
def test_it_tells_what_it_told_when_a_person_last_read_it(name, ask, said):
    assert json.loads(json.dumps(told(ASKED[name](ask)))) == said
