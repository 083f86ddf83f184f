"""Rules of quadratic equations."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="factor-side", name="Factor", weight=2.0, reason="{what}.", preserves="solutions",
        examples=(("x^2 - 6x - 16 = 0", "(x - 8)(x + 2) = 0"),),
    ),
    Rule(
        id="zero-product", name="Zero product", weight=1.2, reason="A product is 0 only when one of its factors is 0.",
        preserves="solutions", examples=(("(x - 8)(x + 2) = 0", "x - 8 = 0 or x + 2 = 0"),),
    ),
    Rule(
        id="complete-the-square", name="Complete the square", weight=2.6,
        reason="Half of {half} is {what}; its square {square} is added to both sides.", preserves="solutions",
        examples=(("x^2 - 4x = 7", "x^2 - 4x + 4 = 7 + 4"),),
    ),
    Rule(
        id="write-as-square", name="Write as a square", weight=1.2, reason="The left side is a perfect square: {what}.",
        preserves="solutions", examples=(("x^2 - 4x + 4 = 11", "(x - 2)^2 = 11"),),
    ),
    Rule(
        id="quadratic-formula", name="Use the quadratic formula", weight=2.6,
        reason="x = (−b ± √(b² − 4ac))/(2a) with {what}.", preserves="solutions",
        examples=(("x^2 - 6x + 4 = 0", "x = (6 ± √(36 - 16))/2"),),
    ),
    Rule(
        id="discriminant", name="Work out the discriminant", weight=1.2, reason="{what}.", preserves="solutions",
        examples=(("x = (6 ± √(36 - 16))/2", "x = (6 ± √20)/2"),),
    ),
    Rule(
        id="simplify-root-in-solution", name="Simplify the root", weight=1.4, reason="{what}.", preserves="solutions",
        examples=(("x = (6 ± √20)/2", "x = (6 ± 2√5)/2"),),
    ),
    Rule(
        id="reduce-solution", name="Reduce", weight=1.2, reason="{what} divides every term above and the denominator.",
        preserves="solutions", examples=(("x = (6 ± 2√5)/2", "x = 3 ± √5"),),
    ),
    Rule(
        id="divide-by-common", name="Divide by the common number", weight=1.0,
        reason="Every coefficient holds {what}; dividing makes the numbers small.", preserves="solutions",
        examples=(("2x^2 + 14x + 20 = 0", "x^2 + 7x + 10 = 0"),),
    ),
    Rule(
        id="no-real-root", name="No real solution", weight=1.4, reason="{what}: no real number has a negative square.",
        preserves="solutions", examples=(("(x - 2)^2 = -3", "no solution"),),
    ),
)  # fmt: skip
