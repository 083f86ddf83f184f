"""Rules of roots."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="largest-square-factor", name="Take out the largest square factor", reason="{what}.", preserves="value",
        examples=(("√72", "√(36·2)"),), weight=1.8,
    ),
    Rule(
        id="largest-power-factor", name="Take out the largest power", reason="{what}.", preserves="value",
        examples=(("∛54", "∛(27·2)"),), weight=1.8,
    ),
    Rule(
        id="prime-groups", name="Write the radicand by primes",
        reason="{what}: as many equal primes as the index says leave the root as one factor.",
        preserves="value", examples=(("∛54", "∛(2·3·3·3)"),), weight=1.8,
    ),
    Rule(
        id="root-of-power", name="Take the root of the power", reason="{what}.", preserves="value",
        examples=(("∛27·∛2", "3∛2"),), weight=1.1,
    ),
    Rule(
        id="prime-pairs", name="Write the radicand by primes", reason="{what}: every pair leaves the root as one factor.",
        preserves="value", examples=(("√72", "√(2·2·2·3·3)"),), weight=1.8,
    ),
    Rule(
        id="root-of-product", name="Root of a product", reason="The root of a product is the product of the roots.",
        preserves="value", examples=(("√(36·2)", "√36·√2"),), weight=1.0,
    ),
    Rule(
        id="root-of-square", name="Take the root of the square", reason="{what}.", preserves="value",
        examples=(("√36·√2", "6√2"),), weight=1.1,
    ),
    Rule(
        id="multiply-roots", name="Multiply the roots", reason="√a·√b = √(ab): {what}.", preserves="value",
        examples=(("√6·√10", "√60"), ("2√3·5√7", "10√21")), weight=1.2,
    ),
    Rule(
        id="distribute-roots", name="Multiply out", reason="Every term is multiplied by every term: {what}.",
        preserves="value", examples=(("√2(√6 + 3)", "√12 + 3√2"),), weight=1.5,
    ),
    Rule(
        id="combine-like-roots", name="Combine like radicals",
        reason="Like radicals are counted together: {what}.", preserves="value",
        examples=(("3√2 + 5√2", "8√2"),), weight=1.0,
    ),
    Rule(
        id="root-of-quotient", name="Root of a quotient",
        reason="The root of a fraction is the root of the numerator over the root of the denominator.", preserves="value",
        examples=(("√(3/16)", "√3/√16"),), weight=1.2,
    ),
    Rule(
        id="multiply-by-root", name="Rationalise the denominator",
        reason="Multiply top and bottom by {what}: then the root below disappears.", preserves="value",
        examples=(("7/√5", "7√5/(√5·√5)"),), weight=2.0,
    ),
    Rule(
        id="multiply-by-conjugate", name="Multiply by the conjugate",
        reason="Multiply top and bottom by {what}: (a + b)(a − b) = a² − b² has no root left.", preserves="value",
        examples=(("2/(1 + √3)", "(2(1 - √3))/((1 + √3)(1 - √3))"),), weight=2.6,
    ),
    Rule(
        id="conjugate-above", name="Rationalise the numerator",
        reason="Multiply top and bottom by {what}: then the roots above disappear, and what vanishes below can be cancelled.",
        preserves="value", examples=(("(√(x + h) - √x)/h", "((√(x + h) - √x)(√(x + h) + √x))/(h(√(x + h) + √x))"),), weight=2.8,
    ),
    Rule(
        id="minus-up", name="Make the denominator positive", reason="Top and bottom are multiplied by −1.", preserves="value",
        examples=(("(2√6 - 6)/(-2)", "(6 - 2√6)/2"),), weight=0.8,
    ),
    Rule(
        id="difference-of-squares-roots", name="Multiply the conjugates",
        reason="(a + b)(a − b) = a² − b²: {what}.", preserves="value",
        examples=(("(2(1 - √3))/((1 + √3)(1 - √3))", "2(1 - √3)/(1 - 3)"),), weight=1.4,
    ),
    Rule(
        id="negative-radicand", name="Take out i", reason="√(−1) = i: {what}.", preserves="value",
        examples=(("√(-12)", "2i√3"),), weight=1.2,
    ),
    Rule(
        id="powers-of-i", name="Use i² = −1", reason="{what}.", preserves="value",
        examples=(("6 - 3i^2", "6 + 3"), ("i^7", "-i")), weight=1.2,
    ),
    Rule(
        id="multiply-complex", name="Multiply as with a letter",
        reason="i is multiplied like a letter: {what}.", preserves="value",
        examples=(("(3 + 2i)(1 - 4i)", "3 - 12i + 2i - 8i^2"), ("(2 - i)(2 + i)", "4 - i^2")), weight=1.5,
    ),
    Rule(
        id="power-as-product", name="Write the power as a product", reason="{what}.", preserves="value",
        examples=(("(2 + i)^2", "(2 + i)(2 + i)"), ("(2i)^3", "8i^3")), weight=1.0,
    ),
    Rule(
        id="combine-parts", name="Put real and imaginary parts together", reason="{what}.", preserves="value",
        examples=(("3 + 2i - 1 + 4i", "2 + 6i"),), weight=1.0,
    ),
    Rule(
        id="complex-conjugate", name="Multiply by the conjugate",
        reason="Multiply top and bottom by {what}: (a + bi)(a − bi) = a² + b² has no i left.", preserves="value",
        examples=(("5/(2 - i)", "(5(2 + i))/((2 - i)(2 + i))"),), weight=2.4,
    ),
    Rule(
        id="multiply-by-i", name="Multiply top and bottom by i",
        reason="Multiply top and bottom by {what}: then no i is left below.", preserves="value",
        examples=(("3/(2i)", "(3·i)/(2i·i)"),), weight=1.8,
    ),
    Rule(
        id="standard-form", name="Write it as a + bi", reason="Each term is divided by {what}.", preserves="value",
        examples=(("(6 + 4i)/10", "3/5 + 2i/5"),), weight=1.0,
    ),
)  # fmt: skip
