"""Rules of arithmetic, in the order of operations."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="work-inside-brackets", name="Work inside the brackets first",
        reason="Brackets hold together what is inside: {what} comes first.", preserves="value", weight=1.0,
        examples=(("2(3 + 4)", "2(7)"), ("3·(5 - 9)", "3·(-4)")),
    ),
    Rule(
        id="evaluate-power", name="Work out the power", reason="{what}: a power holds its base only.",
        preserves="value", examples=(("5·2^3", "5·8"), ("-3^2", "-9")), weight=1.0,
    ),
    Rule(
        id="evaluate-root", name="Work out the root", reason="{what}.", preserves="value",
        examples=(("√16 + 2", "4 + 2"),),
    ),
    Rule(
        id="evaluate-bars", name="Take the absolute value", reason="{what}: the distance from 0 is never negative.",
        preserves="value", examples=(("|-7| + 1", "7 + 1"),),
    ),
    Rule(
        id="multiply-and-divide", name="Multiply and divide, from the left",
        reason="{order}: × and ÷ share a rank and come before + and −: {what}.", preserves="value",
        examples=(("2 + 5·4", "2 + 20"), ("36÷4·3", "27")),
    ),
    Rule(
        id="add-and-subtract", name="Add and subtract, from the left",
        reason="{order}: + and − share a rank: {what}.", preserves="value",
        examples=(("19 - 6 + 8", "21"), ("-3 - 5", "-8")),
    ),
    Rule(
        id="divide-by-fraction", name="Multiply by the reciprocal",
        reason="Dividing by {what} is multiplying by its reciprocal.", preserves="value", weight=1.5,
        examples=(("3/4÷5/2", "3/4·2/5"),),
    ),
    Rule(
        id="multiply-fractions", name="Multiply the fractions",
        reason="Numerator times numerator, denominator times denominator: {what}.", preserves="value", weight=1.3,
        examples=(("3/4·2/5", "3/10"),),
    ),
    Rule(
        id="common-denominator-numbers", name="Bring to the common denominator",
        reason="The least common denominator is {what}.", preserves="value", weight=1.8,
        examples=(("3/4 + 1/6", "9/12 + 2/12"),),
    ),
    Rule(
        id="add-fractions", name="Add the numerators",
        reason="Over the same denominator only the numerators are added.", preserves="value", weight=1.2,
        examples=(("9/12 + 2/12", "11/12"),),
    ),
    Rule(
        id="reduce-fraction", name="Reduce the fraction",
        reason="{what} divides the numerator and the denominator.", preserves="value", weight=1.0,
        examples=(("6/10", "3/5"), ("8/4", "2")),
    ),
    Rule(
        id="improper-fraction", name="Write the mixed number as a fraction",
        reason="{what}: a mixed number is a sum.", preserves="value", examples=(("2 1/4 + 1", "9/4 + 1"),),
    ),
    Rule(
        id="mixed-number", name="Write it as a mixed number", reason="{what}.", preserves="value",
        examples=(("9/4", "2 1/4"),),
    ),
    Rule(
        id="join-signs", name="Join the two signs", reason="Subtracting a negative adds; adding a negative subtracts.",
        preserves="value", examples=(("5 - (-3)", "5 + 3"),), weight=0.8,
    ),
)  # fmt: skip
