"""Rules of rational functions."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="state-domain",
        name="State the domain",
        weight=1.2,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="denominator-zero",
        name="Set the denominator to zero",
        weight=1.2,
        reason="The expression is undefined where its denominator is 0.",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="find-holes",
        name="Find the holes",
        weight=1.6,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="vertical-asymptotes",
        name="Vertical asymptotes",
        weight=1.4,
        reason="Where the reduced denominator is 0: {what}.",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="end-behaviour",
        name="Compare the degrees",
        weight=1.6,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="oblique-asymptote",
        name="Divide for the oblique asymptote",
        weight=2.4,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="intercepts",
        name="Intercepts",
        weight=1.4,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="transform-parent",
        name="Shift and stretch 1/x",
        weight=2.0,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
    Rule(
        id="state-range",
        name="State the range",
        weight=1.6,
        reason="{what}",
        preserves="value",
        examples=(),
    ),
)
