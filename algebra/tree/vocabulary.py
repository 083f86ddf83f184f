"""The names that lines, links and answers are told apart by: one list a kind of name."""

from __future__ import annotations

from typing import Literal, get_args

LineKind = Literal[
    "expression",
    "equation",
    "statement",
    "exclusion",
    "aside",
    "check",
    "definition",
    "assumption",
    "feature",
    "move",
    "open",
]
"""What a line is; one of kind `open` has empty boxes and is not judged; one of kind `move` says under both sides what
is done to them next."""
AnswerKind = Literal["choice", "place", "answer", "blank", "way", "judgement", "numbers"]
"""What a line of an answer is, in forms in which nothing is worked."""
LinkKind = Literal[LineKind, AnswerKind, "approximation"]
Note = Literal[
    "ambiguous-root",
    "ambiguous-slash",
    "aside-not-put-back",
    "equals-lost",
    "exclusions-missing",
    "given-not-read",
    "leads-there",
    "longer-road",
    "lucky",
    "method-differs",
    "mixed-number",
    "not-a-number-to-check",
    "open",
    "out-of-time",
    "repaired",
    "right-place",
    "side-work",
    "undefined",
    "undefined-at",
]
"""What is noted of a line beside its relation."""
NOTES: tuple[Note, ...] = get_args(Note)
FinishCode = Literal[
    "arithmetic-left",
    "candidates-unchecked",
    "common-factor",
    "complex-fraction",
    "fraction-under-root",
    "i-in-denominator",
    "improper-fraction",
    "like-radicals",
    "like-terms",
    "negative-exponent",
    "not-expanded",
    "not-factored",
    "not-lowest-terms",
    "plus-minus-not-split",
    "power-not-evaluated",
    "radical-not-simplified",
    "repeated-base",
    "restrictions-not-stated",
    "root-in-denominator",
    "solutions-not-listed",
    "uncombined-fractions",
    "variable-not-isolated",
    "zero-exponent",
]
"""What is left to do to an answer."""
