"""Rules of polynomials: brackets, like terms and factoring."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="distribute", name="Multiply out the brackets", reason="Every term in the bracket is multiplied: {what}.",
        preserves="value", examples=(("3(x + 2)", "3x + 6"), ("4 - (x + 3)", "4 - x - 3")), weight=1.3,
    ),
    Rule(
        id="square-of-sum", name="Square the bracket", reason="(a + b)² = a² + 2ab + b²: {what}.", preserves="value",
        examples=(("(x + 7)^2", "x^2 + 14x + 49"),), weight=1.6,
    ),
    Rule(
        id="like-terms", name="Combine like terms", reason="{what}.", preserves="value",
        examples=(("3x - 6 + 4", "3x - 2"), ("x^2 + 2x - 5x", "x^2 - 3x")), weight=1.0,
    ),
    Rule(
        id="common-factor", name="Take out the common factor", reason="Every term holds the factor {what}.",
        preserves="value", examples=(("12x + 8", "4(3x + 2)"), ("x^5y^2 + x^2y^5", "x^2y^2(x^3 + y^3)")), weight=1.6,
    ),
    Rule(
        id="product-sum", name="Find the pair", reason="{what}.", preserves="value",
        examples=(("x^2 - 3x - 10", "(x - 5)(x + 2)"),), weight=2.0,
    ),
    Rule(
        id="area-grid", name="Read the sides of the box", reason="The box with these four areas has the sides {what}.",
        preserves="value", examples=(("3x^2 + 10x + 8", "(3x + 4)(x + 2)"),), weight=2.0,
    ),
    Rule(
        id="split-middle", name="Split the middle term", reason="{what}.", preserves="value",
        examples=(("3x^2 + 10x + 8", "3x^2 + 6x + 4x + 8"),), weight=2.2,
    ),
    Rule(
        id="group-in-pairs", name="Factor in pairs", reason="Each pair has a common factor: {what}.", preserves="value",
        examples=(("3x^2 + 6x + 4x + 8", "3x(x + 2) + 4(x + 2)"),), weight=1.8,
    ),
    Rule(
        id="common-bracket", name="Take out the common bracket", reason="Both terms hold the factor {what}.",
        preserves="value", examples=(("3x(x + 2) + 4(x + 2)", "(x + 2)(3x + 4)"),), weight=1.4,
    ),
    Rule(
        id="slide-and-divide", name="Divide back and reduce",
        reason="The leading coefficient {what} is given back: divide both numbers by it, reduce, and put what is left "
        "below in front of x.", preserves="value", examples=(("3x^2 + 10x + 8", "(x + 2)(3x + 4)"),), weight=2.4,
    ),
    Rule(
        id="difference-of-squares", name="Difference of squares", reason="a² − b² = (a + b)(a − b) with {what}.",
        preserves="value", examples=(("x^2 - 81", "(x + 9)(x - 9)"), ("4x^2 - 9y^2", "(2x + 3y)(2x - 3y)")), weight=1.4,
    ),
    Rule(
        id="perfect-square", name="Perfect square", reason="a² ± 2ab + b² = (a ± b)² with {what}.", preserves="value",
        examples=(("x^2 - 6x + 9", "(x - 3)^2"),), weight=1.5,
    ),
    Rule(
        id="sum-of-cubes", name="Sum or difference of cubes", reason="a³ ± b³ = (a ± b)(a² ∓ ab + b²) with {what}.",
        preserves="value", examples=(("x^3 - 64", "(x - 4)(x^2 + 4x + 16)"),), weight=2.2,
    ),
    Rule(
        id="take-out-minus", name="Take out −1", reason="The leading coefficient is negative: take −1 out first.",
        preserves="value", examples=(("-x^2 + 5x - 6", "-(x^2 - 5x + 6)"),), weight=1.0,
    ),
    Rule(
        id="rational-root", name="Divide by a root found", reason="{what}", preserves="value", weight=3.0,
        examples=(("x^3 - 7x + 6", "(x - 1)(x^2 + x - 6)"),),
    ),
    Rule(
        id="not-factorable", name="Prime", reason="{what}", preserves="value", examples=(), weight=1.5,
    ),
    Rule(
        id="as-powers", name="Write the ends as powers", reason="{what}.", preserves="value", weight=0.8,
        examples=(("4x^2 - 9", "(2x)^2 - 3^2"), ("x^2 + 6x + 9", "x^2 + 2·x·3 + 3^2")),
    ),
    Rule(
        id="order-terms", name="Put the powers in order", reason="The highest power stands first.", preserves="value", weight=0.6,
        examples=(("64 - x^6", "-x^6 + 64"),),
    ),
)  # fmt: skip
