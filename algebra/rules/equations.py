"""Rules of equations: what may be done to both sides, and what it does to the solutions."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="add-to-both-sides", name="Add to both sides", reason="Both sides stay equal when {what} is added to both.",
        preserves="solutions", examples=(("x - 3 = 5", "x = 8"),),
    ),
    Rule(
        id="subtract-from-both-sides", name="Subtract from both sides",
        reason="Both sides stay equal when {what} is subtracted from both.", preserves="solutions",
        examples=(("x + 8 = 3", "x = -5"), ("5x - 8 = 3x", "2x - 8 = 0")),
    ),
    Rule(
        id="divide-both-sides", name="Divide both sides", reason="Both sides are divided by {what}, so that the unknown stands alone.",
        preserves="solutions", examples=(("6x = 18", "x = 3"),),
    ),
    Rule(
        id="multiply-both-sides", name="Multiply both sides", reason="Both sides are multiplied by {what}.",
        preserves="solutions", examples=(("x/4 = 3", "x = 12"),),
    ),
    Rule(
        id="clear-fractions", name="Clear the fractions", weight=2.0,
        reason="Every term is multiplied by {what}, the least common denominator.", preserves="solutions",
        examples=(("x/4 + 3 = 5/8", "2x + 24 = 5"),),
    ),
    Rule(
        id="clear-denominators", name="Clear the denominators", weight=2.6,
        reason="Every term is multiplied by the LCD {what}, which is not zero for the values allowed.", preserves="widens",
        examples=(("x/(x - 3) = 3/(x - 3)", "x = 3"),),
    ),
    Rule(
        id="cross-multiply", name="Cross-multiply", weight=1.6,
        reason="One fraction equals one fraction: multiply by both denominators, {what}.", preserves="solutions",
        examples=(("2/(x + 1) = 3/x", "2x = 3(x + 1)"),),
    ),
    Rule(
        id="equate-numerators", name="Equate the numerators", weight=1.6,
        reason="Equal fractions with the same denominator have equal numerators.", preserves="widens",
        examples=(("x/(x - 3) = 3/(x - 3)", "x = 3"),),
    ),
    Rule(
        id="excluded-values", name="Find the excluded values", weight=1.4,
        reason="No denominator may be zero.", preserves="value", examples=(),
    ),
    Rule(
        id="factor-denominators", name="Factor the denominators", weight=1.4,
        reason="The factors show what the common denominator needs.", preserves="solutions",
        examples=(("1/(x^2 - 4) = 1/(x - 2)", "1/((x + 2)(x - 2)) = 1/(x - 2)"),),
    ),
    Rule(
        id="drop-excluded", name="Leave out what is excluded", weight=1.8, reason="{what} makes a denominator of the given zero.",
        preserves="settles", examples=(),
    ),
    Rule(
        id="check-candidate", name="Check in the given", weight=1.2, reason="{what}", preserves="value", examples=(),
    ),
    Rule(
        id="keep-what-solves", name="Keep what solves the given", weight=1.0, reason="{what}", preserves="settles",
        examples=(("x = 3 or x = -2", "x = 3"),)[:0],
    ),
    Rule(
        id="simplify-sides", name="Work out each side", reason="{what}.", preserves="solutions",
        examples=(("3x - 6 + 4 = 5x", "3x - 2 = 5x"),),
    ),
    Rule(
        id="open-brackets", name="Multiply out the brackets", reason="Every term in a bracket is multiplied: {what}.",
        preserves="solutions", examples=(("3(x - 2) = 6", "3x - 6 = 6"),), weight=1.3,
    ),
    Rule(
        id="swap-sides", name="Swap the sides", reason="An equation reads both ways.", preserves="solutions",
        examples=(("5 = x", "x = 5"),), weight=0.3,
    ),
    Rule(
        id="all-on-one-side", name="Bring everything to one side", weight=1.2,
        reason="One side must be 0: {what}.", preserves="solutions",
        examples=(("x^2 = 3x + 10", "x^2 - 3x - 10 = 0"),),
    ),
    Rule(
        id="identity", name="True for every value", weight=1.4, reason="Both sides are the same, whatever the unknown is.",
        preserves="solutions", examples=(("3 = 3", "all real numbers"),),
    ),
    Rule(
        id="contradiction", name="Never true", weight=1.4, reason="{what} is false, so no value solves it.",
        preserves="solutions", examples=(),
    ),
    Rule(
        id="read-solution", name="Read off the solution", weight=0.5, reason="{what}.", preserves="solutions",
        examples=(("x - 8 = 0 or x + 2 = 0", "x = 8 or x = -2"),),
    ),
    Rule(
        id="square-both-sides", name="Square both sides", weight=2.2,
        reason="Squaring removes the root; it can add candidates, so each is checked.", preserves="widens",
        examples=(("√(x + 6) = x", "x + 6 = x^2"),),
    ),
    Rule(
        id="power-both-sides", name="Raise both sides to the power", weight=2.0,
        reason="Raising both sides to the power {what} removes the root.", preserves="widens",
        examples=(("∛(x - 1) = 2", "x - 1 = 8"),),
    ),
    Rule(
        id="isolate-root", name="Let the root stand alone", weight=1.6,
        reason="{what}: only a root that stands alone disappears when squared.", preserves="solutions",
        examples=(("√x + 3 = 5", "√x = 2"),),
    ),
    Rule(
        id="root-never-negative", name="A root is never negative", weight=1.6,
        reason="{what}: a root sign means the non-negative root.", preserves="solutions",
        examples=(("√x = -3", "no solution"),),
    ),
    Rule(
        id="root-both-sides", name="Take the root of both sides", weight=1.8, reason="{what}.", preserves="solutions",
        examples=(("x^2 = 36", "x = ±6"), ("x^3 = 8", "x = 2")),
    ),
    Rule(
        id="split-plus-minus", name="Write both solutions", weight=0.8, reason="± stands for two values.",
        preserves="solutions", examples=(("x = 3 ± 2", "x = 5 or x = 1"),),
    ),
    Rule(
        id="two-cases", name="Split into two cases", weight=1.8,
        reason="The bars hold {what} or its opposite.", preserves="solutions",
        examples=(("|x - 2| = 5", "x - 2 = 5 or x - 2 = -5"),),
    ),
    Rule(
        id="bars-never-negative", name="An absolute value is never negative", weight=1.4, reason="{what}.",
        preserves="solutions", examples=(("|x| = -2", "no solution"),),
    ),
    Rule(
        id="common-base", name="Write both sides with one base", weight=2.0, reason="{what}.", preserves="solutions",
        examples=(("2^(3x) = 4^(x + 1)", "2^(3x) = 2^(2(x + 1))"),),
    ),
    Rule(
        id="equate-exponents", name="Equate the exponents", weight=1.2,
        reason="Equal powers of {what} have equal exponents.", preserves="solutions",
        examples=(("2^(3x) = 2^(2x + 2)", "3x = 2x + 2"),),
    ),
    Rule(
        id="substitute", name="Name what repeats", weight=2.4, reason="{what} occurs again and again; call it one letter.",
        preserves="solutions", examples=(),
    ),
    Rule(
        id="substitute-back", name="Put back", weight=1.4, reason="The letter stood for {what}.", preserves="solutions",
        examples=(),
    ),
    Rule(
        id="power-never-negative", name="A power is always positive", weight=1.4, reason="{what}.", preserves="solutions",
        examples=(("2^x = -4", "no solution"),),
    ),
    Rule(
        id="reciprocal-both-sides", name="Turn both sides over", weight=1.8, reason="Equal numbers have equal reciprocals.",
        preserves="solutions", examples=(("1/x = 3/4", "x = 4/3"),),
    ),
    Rule(
        id="spot-structure", name="See the pattern", weight=3.0, reason="{what}", preserves="solutions", examples=(),
    ),
    Rule(
        id="factor-unknown", name="Take out the unknown", weight=1.6, reason="Every term on this side holds {what}.",
        preserves="solutions", examples=(("ax + bx = c", "x(a + b) = c"),),
    ),
    Rule(
        id="split-fraction", name="Divide each term", reason="{what}.", preserves="solutions", weight=1.2,
        examples=(("(x + 3)/4 = 2", "x/4 + 3/4 = 2"),),
    ),
)  # fmt: skip
