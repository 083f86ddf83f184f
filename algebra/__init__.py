"""The facade of the core: the only thing the server and the command line import.

The core knows no Django, does no input or output and keeps no clock but the one it times itself with.
"""

from __future__ import annotations

from algebra import limits
from algebra.families import FAMILIES, Family
from algebra.keytext import MAX_CHARACTERS as MAX_KEY_CHARACTERS
from algebra.keytext import looks_like_text_form
from algebra.methods.catalogue import METHODS, Method
from algebra.methods.paper import GRAINS, Step
from algebra.methods.places import places_of, typeset
from algebra.model import CONVENTIONS, FORMAT, RELATIONS, TASKS, Report, TaskError, Working
from algebra.parse.errors import ReadingError
from algebra.rules import RULES, Rule
from algebra.slips import SLIPS, Slip
from algebra.textform import read_workings
from algebra.typeset import Echo, echo
from algebra.verify.chain import clear_caches, decide
from algebra.work.analysis import analysis, analysis_json
from algebra.work.generate import EVENTS, generate
from algebra.work.named import check_with_method as check
from algebra.work.next_step import Hint, next_step
from algebra.work.predict import Anticipated, options, predict
from algebra.work.proofread import Proof, Proofs, proofread
from algebra.work.solve import Solution, Unsolved, all_methods, refused, step_json, work

VERSION = "8"
"""Raised when a verdict may come out differently, so that stored verdicts are made again."""

__all__ = [
    "CONVENTIONS", "EVENTS", "FAMILIES", "FORMAT", "GRAINS", "MAX_KEY_CHARACTERS", "METHODS", "RELATIONS", "RULES", "SLIPS", "TASKS", "VERSION", "Anticipated", "Echo", "Family",
    "Hint", "Method", "Proof", "Proofs", "ReadingError", "Report", "Rule", "Slip", "Solution", "Step", "TaskError", "Unsolved", "Working", "all_methods",
    "analysis", "analysis_json", "check", "clear_caches", "decide", "echo", "generate", "limits", "looks_like_text_form", "next_step", "options", "places_of", "predict", "proofread", "read_workings",
    "refused", "step_json", "typeset", "work",
]  # fmt: skip
