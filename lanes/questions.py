"""What may be asked, by name."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping
from dataclasses import replace

import algebra
from algebra import Item, Proposal, Report, Scheme, Working
from lanes import building, paper
from paper import planned_item, scanned_pages


def timed_check(working: Working) -> Report:
    """The report on a working with its `ms`: what the check took, in milliseconds. The core keeps no clock."""
    started = time.perf_counter()
    report = algebra.check(working)
    return replace(report, ms=round((time.perf_counter() - started) * 1000, 2))


def marked(item: Item, lines: list[str], scheme: Scheme) -> tuple[Report, Proposal]:
    """The report on what a student wrote for an item, and what is proposed for it."""
    report = algebra.judge(item, lines)
    return report, algebra.propose_for(item, scheme, lines, report)


QUESTIONS: Mapping[str, Callable[..., object]] = {
    "check": timed_check,
    "marked": marked,
    "planned_item": planned_item,
    "draws": algebra.draws,
    "drawn": algebra.drawn,
    "joined": building.joined,
    "item_of": algebra.item_of,
    "item_scheme": algebra.item_scheme,
    "key_lines": algebra.key_lines,
    "proofread": algebra.proofread,
    "key_apart": algebra.key_apart,
    "proof_of": algebra.proof_of,
    "work": algebra.work,
    "all_methods": algebra.all_methods,
    "next_step": algebra.next_step,
    "predict": algebra.predict,
    "options": algebra.options,
    "analysed": algebra.analysed,
    "generate": algebra.generate,
    "paper": paper.made,
    "out": paper.out,
    "taken": paper.taken,
    "picture": paper.picture,
    "feedback": paper.feedback,
    "student": paper.student,
    "scanned": scanned_pages,
    "ladder": building.laddered,
    "another": building.another,
    "version": building.version,
    "entry": algebra.entry_of,
    "advice": building.advised,
}
