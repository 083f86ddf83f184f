"""The facade of the core: the only thing the server, the command line and the tools import.

The core knows no Django, does no input or output and keeps no clock.
"""

from __future__ import annotations

from algebra import limits
from algebra.derive.check import check
from algebra.desk.analysis import analysed, analysis
from algebra.desk.instruct import instruction
from algebra.desk.next_step import Hint, next_step
from algebra.desk.proofread import Proof, Proofs, key_apart, proof_of, proofread, repeats_in
from algebra.families import FAMILIES, Family
from algebra.foresee.options import options
from algebra.foresee.predict import Anticipated, Prediction, predict
from algebra.formats.pasted_key import MAX_CHARACTERS as MAX_KEY_CHARACTERS
from algebra.formats.pasted_key import Key, KeyProblem, looks_like_text_form
from algebra.formats.printed import Printed, as_mathml, printed
from algebra.formats.text_form import read_workings
from algebra.formats.typeset import echo, understood, values_in_latex
from algebra.items import (
    BY_NAME,
    FORMS,
    ITEM_FORMS,
    Form,
    FormName,
    Item,
    ItemForm,
    Shown,
    form_named,
    form_of,
    given_of,
    item_of,
    item_scheme,
    judge,
    key_lines,
    propose_for,
    shown_of,
)
from algebra.items.answers import LETTERS
from algebra.items.choose import ChooseItem, right_place
from algebra.items.claim import FALSE_CLAIMS, LAWS, ClaimItem, claim_item, claim_letters, is_claim_judged
from algebra.items.features import FeaturesItem
from algebra.items.fill import FillItem, fill_item, is_filled
from algebra.items.mend import MendItem, is_mended
from algebra.items.way import WayItem, is_way
from algebra.items.way import named as way_named
from algebra.items.work import WorkItem
from algebra.marks.proposals import propose
from algebra.marks.schemes import scheme_for
from algebra.methods.catalogue import METHODS, NUMBER_KINDS, Method
from algebra.methods.places import places_of, typeset
from algebra.methods.worked_lines import Step, unknown_of
from algebra.parse.errors import ReadingError
from algebra.parse.margin import without_move
from algebra.records import widened
from algebra.reports.echo import Echo
from algebra.reports.features import FeaturesReport, Graph
from algebra.reports.marking import POINT_KINDS, SCHEME_KINDS, PointKind, Proposal, ProposedPoint, Scheme, SchemeKind
from algebra.reports.prediction import (
    OPTION_ORDERS,
    Option,
    OptionOrder,
    OptionsReport,
    PredictionReport,
    TypesetWrongAnswer,
    Unfinished,
    WrongAnswer,
)
from algebra.reports.proofs import Finding, PassedOver, ProofsReport
from algebra.reports.report import (
    RELATIONS,
    Evidence,
    LineError,
    Link,
    PointEvidence,
    Relation,
    Report,
    SlipKind,
    SlipSeen,
    Verdict,
)
from algebra.reports.schema import complete as complete_schema
from algebra.reports.serialize import JsonObject, JsonValue, json_object, json_value
from algebra.reports.sheet_file import NotTaken, SheetFile, SheetProblem
from algebra.reports.side_work import SideWork
from algebra.reports.solution import (
    GRAINS,
    Difficulty,
    DrawnProblem,
    DrawnProblems,
    Grain,
    MethodRow,
    MethodsReport,
    SolutionReport,
    SolutionStep,
    TypesetStep,
)
from algebra.reports.working import (
    CONVENTIONS,
    FORMAT,
    NUMBERS,
    OTHER_SPELLINGS,
    TASKS,
    Numbers,
    Task,
    TaskError,
    Working,
)
from algebra.rules import RULES, Rule
from algebra.sets.colleague import Advice, advice
from algebra.sets.entry import Entry, entry_of
from algebra.sets.events import EVENTS
from algebra.sets.generate import generate
from algebra.sets.ladder import Draw, LadderWish, Rung, drawn, draws, joined, ladder, neighbour, rung_of
from algebra.sets.like import like
from algebra.sets.likeness import likeness
from algebra.slips import SLIPS, Slip
from algebra.tree.latex import words_in_latex
from algebra.tree.typst import quoted
from algebra.verify.check import clear_caches, decide
from algebra.ways.solve import Solution, Unsolved, all_methods, error_of, refused, step_report, work
from algebra.ways.worth import usual_marks

VERSION = "17"
"""Raised when a verdict may come out differently, so that stored verdicts are made again."""

__all__ = [
    "BY_NAME",
    "CONVENTIONS",
    "EVENTS",
    "FALSE_CLAIMS",
    "FAMILIES",
    "FORMAT",
    "FORMS",
    "GRAINS",
    "ITEM_FORMS",
    "LAWS",
    "LETTERS",
    "MAX_KEY_CHARACTERS",
    "METHODS",
    "NUMBERS",
    "NUMBER_KINDS",
    "OPTION_ORDERS",
    "OTHER_SPELLINGS",
    "POINT_KINDS",
    "RELATIONS",
    "RULES",
    "SCHEME_KINDS",
    "SLIPS",
    "TASKS",
    "VERSION",
    "Advice",
    "Anticipated",
    "ChooseItem",
    "ClaimItem",
    "Difficulty",
    "Draw",
    "DrawnProblem",
    "DrawnProblems",
    "Echo",
    "Entry",
    "Evidence",
    "Family",
    "FeaturesItem",
    "FeaturesReport",
    "FillItem",
    "Finding",
    "Form",
    "FormName",
    "Grain",
    "Graph",
    "Hint",
    "Item",
    "ItemForm",
    "JsonObject",
    "JsonValue",
    "Key",
    "KeyProblem",
    "LadderWish",
    "LineError",
    "Link",
    "MendItem",
    "Method",
    "MethodRow",
    "MethodsReport",
    "NotTaken",
    "Numbers",
    "Option",
    "OptionOrder",
    "OptionsReport",
    "PassedOver",
    "PointEvidence",
    "PointKind",
    "Prediction",
    "PredictionReport",
    "Printed",
    "Proof",
    "Proofs",
    "ProofsReport",
    "Proposal",
    "ProposedPoint",
    "ReadingError",
    "Relation",
    "Report",
    "Rule",
    "Rung",
    "Scheme",
    "SchemeKind",
    "SheetFile",
    "SheetProblem",
    "Shown",
    "SideWork",
    "Slip",
    "SlipKind",
    "SlipSeen",
    "Solution",
    "SolutionReport",
    "SolutionStep",
    "Step",
    "Task",
    "TaskError",
    "TypesetStep",
    "TypesetWrongAnswer",
    "Unfinished",
    "Unsolved",
    "Verdict",
    "WayItem",
    "WorkItem",
    "Working",
    "WrongAnswer",
    "advice",
    "all_methods",
    "analysed",
    "analysis",
    "as_mathml",
    "check",
    "claim_item",
    "claim_letters",
    "clear_caches",
    "complete_schema",
    "decide",
    "drawn",
    "draws",
    "echo",
    "entry_of",
    "error_of",
    "fill_item",
    "form_named",
    "form_of",
    "generate",
    "given_of",
    "instruction",
    "is_claim_judged",
    "is_filled",
    "is_mended",
    "is_way",
    "item_of",
    "item_scheme",
    "joined",
    "json_object",
    "json_value",
    "judge",
    "key_apart",
    "key_lines",
    "ladder",
    "like",
    "likeness",
    "limits",
    "looks_like_text_form",
    "neighbour",
    "next_step",
    "options",
    "places_of",
    "predict",
    "printed",
    "proof_of",
    "proofread",
    "propose",
    "propose_for",
    "quoted",
    "read_workings",
    "refused",
    "repeats_in",
    "right_place",
    "rung_of",
    "scheme_for",
    "shown_of",
    "step_report",
    "typeset",
    "understood",
    "unknown_of",
    "usual_marks",
    "values_in_latex",
    "way_named",
    "widened",
    "without_move",
    "words_in_latex",
    "work",
]
