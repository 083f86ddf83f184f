"""The laws of exponents."""

from algebra.rules.rule import Rule

RULES = (
    Rule(
        id="power-of-product", name="Power of a product",
        reason="Every factor of the base takes the exponent {what}.", preserves="value", weight=1.3,
        examples=(("(4x)^2", "4^2x^2"), ("(2x^3y)^4", "2^4x^12y^4")),
    ),
    Rule(
        id="power-of-quotient", name="Power of a quotient",
        reason="Numerator and denominator both take the exponent {what}.", preserves="value", weight=1.3,
        examples=(("(3/5)^2", "3^2/5^2"),),
    ),
    Rule(
        id="power-of-power", name="Power of a power", reason="A power of a power: the exponents are multiplied.",
        preserves="value", weight=1.2, examples=(("(x^2)^5", "x^10"),),
    ),
    Rule(
        id="product-of-powers", name="Product of powers",
        reason="Same base, multiplied: the exponents are added ({what}).", preserves="value", weight=1.0,
        examples=(("x^2·x^5", "x^7"), ("3^2·3^4", "3^6")),
    ),
    Rule(
        id="quotient-of-powers", name="Quotient of powers",
        reason="Same base, divided: the exponents are subtracted ({what}).", preserves="value", weight=1.2,
        examples=(("x^12/x^3", "x^9"),),
    ),
    Rule(
        id="zero-exponent", name="Exponent zero", reason="A power with exponent 0 is 1 when its base is not 0.",
        preserves="value", weight=1.0, examples=(("9^0 + x", "1 + x"),),
    ),
    Rule(
        id="negative-exponent", name="Negative exponent",
        reason="A negative exponent means the reciprocal: {what}.", preserves="value", weight=1.4,
        examples=(("3x^(-2)", "3/x^2"), ("1/x^(-3)", "x^3")),
    ),
    Rule(
        id="reciprocal-of-base", name="Turn the base over", reason="A negative exponent turns the fraction over.",
        preserves="value", weight=1.3, examples=(("(2x/3)^(-2)", "(3/(2x))^2"),),
    ),
    Rule(
        id="power-in-prime", name="Write every power by powers of primes", reason="{what}: then it is like a polynomial in them.",
        preserves="value", examples=(("(4^x - 9)/(2^x + 3)", "((2^x)^2 - 9)/(2^x + 3)"),), weight=2.2,
    ),
    Rule(
        id="power-of-power-back", name="Write one power again", reason="{what}.", preserves="value",
        examples=(("(2^x)^2 + 2^x + 1", "4^x + 2^x + 1"),), weight=0.6,
    ),
    Rule(
        id="prime-base", name="Write every base by primes",
        reason="{what}: powers of one prime can be put together.", preserves="value", weight=1.6,
        examples=(("4^3·8", "(2^2)^3·2^3"), ("9^(x + 1)", "(3^2)^(x + 1)")),
    ),
    Rule(
        id="evaluate-numeric-power", name="Work out the power", reason="{what}.", preserves="value", weight=0.8,
        examples=(("2^4x^12", "16x^12"),),
    ),
    Rule(
        id="factor-out-power", name="Take out the smallest power",
        reason="Every term holds {what}: it is a common factor.", preserves="value", weight=2.0,
        examples=(("2^8 + 2^6", "2^6(2^2 + 1)"),),
    ),
    Rule(
        id="multiply-numbers", name="Multiply the numbers", reason="{what}.", preserves="value", weight=0.8,
        examples=(("2·3x^8", "6x^8"), ("x^5/(2·3)", "x^5/6")),
    ),
)  # fmt: skip
