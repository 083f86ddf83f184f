"""Rules of fractions and rational expressions."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="factor-all", name="Factor above and below", reason="Only factors cancel, so every sum is factored first.",
        preserves="value", examples=(("(x^2 - 9)/(x^2 + x - 6)", "((x + 3)(x - 3))/((x + 3)(x - 2))"),), weight=2.0,
    ),
    Rule(
        id="cancel-factors", name="Cancel common factors",
        reason="{what}: a factor of the whole numerator and of the whole denominator.", preserves="value",
        examples=(("((x + 3)(x - 3))/((x + 3)(x - 2))", "(x - 3)/(x - 2)"),), weight=1.2,
    ),
    Rule(
        id="opposite-factors", name="Opposite factors", reason="{what}: opposite differences have the quotient −1.",
        preserves="value", examples=(("(x - 5)/(5 - x)", "-1"), ("1/(5 - x)", "-1/(x - 5)")), weight=1.8,
    ),
    Rule(
        id="one-fraction", name="Write as one fraction",
        reason="Numerators are multiplied together, and denominators.", preserves="value",
        examples=(("(x/2)·((x + 1)/3)", "(x(x + 1))/(2·3)"),), weight=0.8,
    ),
    Rule(
        id="flip-divisor", name="Multiply by the reciprocal", reason="Dividing by {what} is multiplying by its reciprocal.",
        preserves="value", examples=(("(a/3)÷(b/6)", "(a/3)·(6/b)"),), weight=1.4,
    ),
    Rule(
        id="lcd", name="Bring to the LCD", reason="The least common denominator is {what}.", preserves="value",
        examples=(("3/x + 1/(x + 2)", "(3(x + 2))/(x(x + 2)) + x/(x(x + 2))"),), weight=2.2,
    ),
    Rule(
        id="combine-numerators", name="Put over one denominator",
        reason="Over the same denominator the numerators are added; a minus holds for the whole numerator.",
        preserves="value", examples=(("1/x - (x - 2)/x", "(1 - (x - 2))/x"),), weight=1.2,
    ),
    Rule(
        id="simplify-numerator", name="Work out the numerator", reason="{what}.", preserves="value",
        examples=(("(3(x + 2) + x)/(x(x + 2))", "(4x + 6)/(x(x + 2))"),), weight=1.3,
    ),
    Rule(
        id="clear-small-denominators", name="Multiply top and bottom by the LCD",
        reason="Top and bottom times {what} clears every small denominator and keeps the value.",
        preserves="value", examples=(("(1 + 1/x)/(1 - 1/x)", "(x + 1)/(x - 1)"),), weight=2.2,
    ),
    Rule(
        id="combine-top-and-bottom", name="One fraction above, one below", reason="{what}.", preserves="value",
        examples=(("(1 + 1/x)/(1 - 1/x)", "((x + 1)/x)/((x - 1)/x)"),), weight=1.8,
    ),
    Rule(
        id="join-parts", name="Put the parts together", reason="{what}.", preserves="value",
        examples=(("(x^2 - 4)/(x - 2)", "x + 2"),), weight=0.8,
    ),
    Rule(
        id="split-power", name="Split the power", reason="{what} stands above and below; the rest stays.", preserves="value",
        examples=(("x^7/x^5", "(x^5·x^2)/x^5"),), weight=0.8,
    ),
    Rule(
        id="factor-bottoms", name="Factor the denominators", reason="The factors show what the common denominator needs.",
        preserves="value", examples=(("1/(x^2 - 4) + 1/(x - 2)", "1/((x + 2)(x - 2)) + 1/(x - 2)"),), weight=1.6,
    ),
    Rule(
        id="factor-numerator", name="Factor the numerator", reason="Factored it shows whether anything cancels: {what}.",
        preserves="value", examples=(("(12x + 10)/(x(x + 2))", "(2(6x + 5))/(x(x + 2))"),), weight=1.6,
    ),
)  # fmt: skip
