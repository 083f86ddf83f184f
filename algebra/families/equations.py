"""Families of equations and functions."""

from __future__ import annotations

from algebra.families import fits
from algebra.families.family import Draw, Family, linear, polynomial, product


def _linear(d: Draw, level: int) -> str:
    x, a, b, c = d.whole(-9, 9), d.whole(2, 9), d.whole(-9, 9), d.whole(2, 6)
    match level:
        case 1:
            return d.one_of(f"x + {abs(b)} = {x + abs(b)}", f"{a}x = {a * x}", f"x/{a} = {x}")
        case 2:
            return d.one_of(
                f"{linear(a, b)} = {a * x + b}", f"{b} - {a}x = {b - a * x}", f"{a * x + b} = {linear(a, b)}"
            )
        case 3:
            k = a + c
            return d.one_of(
                f"{linear(k, b)} = {linear(a, c * x + b)}",
                f"{a}({linear(1, b)}) = {a * (x + b)}",
                f"{a}({linear(1, b)}) - {c} = {linear(c, (a - c) * x + a * b - c)}",
            )
        case 4:
            return d.one_of(
                f"2(x + {a}) = 2x + {2 * a}",
                f"{a}(x + 1) = {a}x + {abs(b)}",
                f"{a}({c}({linear(1, b)}) - 4) = {a * (c * (x + b) - 4)}",
                f"0.{c}x + 1.{a} = {a}",
            )
    return d.one_of(
        f"x/{a} + {c} = {b}/{a + 1}",
        f"({linear(1, b)})/{c} - x/{a + 1} = 2",
        f"{2 * a + 1} - 2({linear(a, b)}) = 3({linear(1, c)})",
        f"{a}/{c}x - {abs(b)} = {a}",
    )


def _literal(d: Draw, level: int) -> str:
    a, b = d.whole(2, 7), d.whole(2, 7)
    match level:
        case 1:
            return d.one_of(f"{a}x + b = c", "ax = b", f"x - {a}b = c", f"ax + {b} = c")
        case 2:
            return d.one_of("ax + b = cx + d", f"a(x - {b}) = c", "a(x + b) = c - x", "x/a + b = c")
    return d.one_of("a/x + b = c", "1/x + 1/a = 1/b", "a/(x + b) = c", "(x - a)^2 = b", "x^2 - a^2 = 0")


def _quadratic(d: Draw, level: int) -> str:
    r, s = d.two(-9, 9)
    a, k = d.whole(2, 4), d.whole(2, 9)
    match level:
        case 1:
            return d.one_of(
                f"{polynomial(*product(r, s))} = 0",
                f"x^2 = {k * k}",
                f"x^2 = {k}x",
                f"({linear(1, -r)})({linear(1, -s)}) = 0",
            )
        case 2:
            c = product(r, s)
            return d.one_of(
                f"x^2 = {polynomial(-c[1], -c[2])}",
                f"{polynomial(*[a * v for v in c])} = 0",
                f"({linear(1, -r)})^2 = {k * k}",
                f"{a}x^2 - {a * k * k} = 0",
            )
        case 3:
            return d.one_of(
                f"{polynomial(1, -2 * r, r * r - k)} = 0",
                f"({linear(1, r)})^2 = {k}",
                f"{polynomial(a, -(a * r + s), r * s)} = 0",
                f"x(x + {abs(r)}) = {abs(s) * (abs(s) + abs(r))}",
            )
        case 4:
            return d.one_of(
                f"{polynomial(a, k, -1)} = 0",
                f"{polynomial(1, k, 1)} = 0",
                f"({linear(1, r)})({linear(1, s)}) = {k}",
                f"{a}({linear(1, r)})^2 - {k} = {a}",
            )
    return d.one_of(
        f"{polynomial(1, 2 * (r % 4), (r % 4) ** 2 + k)} = 0",
        f"x^2/{a} + x - {k} = 0",
        f"{polynomial(a, 2 * k + 1, a)} = 0",
    )


def _polynomial(d: Draw, level: int) -> str:
    r, s = d.two(-5, 5)
    k = d.whole(2, 6)
    match level:
        case 1:
            return d.one_of(
                f"{polynomial(*product(0, r, s))} = 0", f"x^3 = {k * k}x", f"x({linear(1, -r)})({linear(1, -s)}) = 0"
            )
        case 2:
            return d.one_of(
                f"{polynomial(*product(r, k, -k))} = 0",
                f"x^4 - {k * k + 1}x^2 + {k * k} = 0",
                f"2x^3 - {2 * k * k}x = 0",
            )
    return d.one_of(
        f"{polynomial(*product(r, s, d.whole(-3, 3)))} = 0",
        f"x^4 - {k + 3}x^2 + {3 * k} = 0",
        f"x^6 - {k**3 + 1}x^3 + {k**3} = 0",
    )


def _rational(d: Draw, level: int) -> str:
    r, s = d.two(-6, 6)
    a, b = d.whole(1, 8), d.whole(2, 8)
    match level:
        case 1:
            return d.one_of(
                f"{a}/x = {b}/{a + b}",
                f"{a}/({linear(1, r)}) = {b}/x" if a != b else f"{a}/x + 1 = {b}",
                f"{b}/x + 1 = {a + 1}/3",
            )
        case 2:
            return d.one_of(
                f"{a}/x + {b}/({linear(1, r)}) = 1",
                f"{2 * b}/(x - {b}) = x/{a + 1}",
                f"1/x = x/{b * b}",
                f"{a}/({linear(1, r)}) + {b}/({linear(1, s)}) = 0",
            )
        case 3:
            return d.one_of(
                f"x/({linear(1, -r)}) = {r}/({linear(1, -r)}) + {b}",
                f"x/({linear(1, -r)}) {'-' if r > 0 else '+'} {abs(r)}/x = {r * r}/({polynomial(1, -r, 0)})",
                f"{a}/(x - {b}) + 1/({b} - x) = 2",
            )
    return d.one_of(
        f"1/({polynomial(1, 0, -(b * b))}) + 1/({linear(1, -b)}) = {a}/({linear(1, b)})",
        f"x/({linear(1, r)}) + {a}/({linear(1, s)}) = {b}/({polynomial(*product(-r, -s))})",
    )


def _pattern(d: Draw, level: int) -> str:
    total, a = d.whole(20, 90), d.whole(1, 9)
    first = f"(x - {a})/{total - a} + (x - {a + 1})/{total - a - 1}"
    return f"{first} = 2" if level == 1 else f"{first} + (x - {a + 2})/{total - a - 2} = 3"


def _radical(d: Draw, level: int) -> str:
    x, a, b = d.whole(1, 9), d.whole(2, 5), d.whole(1, 6)
    match level:
        case 1:
            return d.one_of(f"√x = {a}", f"√x + {b} = {a + b}", f"√({linear(1, b)}) = {a}", f"{a}√x = {a * b}")
        case 2:
            return d.one_of(
                f"√({linear(a, b)}) - {a} = {b}",
                f"√x = -{b}",
                f"∛({linear(1, -b)}) = {a}",
                f"√({linear(a, b)}) = √({linear(1, b + (a - 1) * x)})",
            )
        case 3:
            u, v = sorted(d.two(1, 6))
            return d.one_of(
                f"√(x + {v * v - u * u}) - √x = {v - u}",
                f"√(x + {v * v}) + √x = {v + u + 1}",
                "√(2x + 3) - √(x + 1) = 1",
                f"√x + {u} = √(x + {u * u + 2 * u * v})",
            )
    return d.one_of(
        f"√(x + {x * x - x + 0}) = x" if x > 1 else "√(x + 6) = x",
        f"x = {b} + √({linear(2, x * x + 2 * 0 - 2 * b + 0)})",
        f"{a}√(x - 1) = x - 1",
        f"√({linear(1, b * b + b)}) = x",
        f"√({linear(1, b)}) = x - {d.whole(1, 5)}",
    )


def _exponential(d: Draw, level: int) -> str:
    p = d.choice([2, 3, 5])
    k, m = d.whole(1, 4), d.whole(1, 3)
    match level:
        case 1:
            return d.one_of(f"{p}^x = {p**k}", f"{p}^(x + {m}) = {p ** (k + m)}", f"{p * p}^x = {p}")
        case 2:
            return d.one_of(
                f"{p}^(3x) = {p * p}^(x + {m})",
                f"{p * p}^(x + 1) = {p**3}",
                f"(1/{p})^(-2x) = {p**k}",
                f"{m + 1}·{p}^x - {k} = {(m + 1) * p**2 - k}",
                f"{p}^x = -{k}",
            )
        case 3:
            return d.one_of(
                f"{p**2}^x - {p**k + 1}·{p}^x + {p**k} = 0",
                f"{p**2}^x - {'' if p == 2 else f'{p - 1}·'}{p}^x - {p} = 0",
                f"{p**3}^x·{p}^(x - {m}) = 1/{p**k}",
            )
    return d.one_of(
        f"6^x - {2**k}·3^x - {3**m}·2^x + {2**k * 3**m} = 0",
        f"10^x - {2**k}·5^x - {5**m}·2^x + {2**k * 5**m} = 0",
        f"15^x - {3**m}·5^x - {5**m}·3^x + {15**m} = 0",
        "2^(2x + 1) - 9·2^x + 4 = 0",
        f"{p}^(2x + 1) - {p ** (k + 1) + 1}·{p}^x + {p**k} = 0",
    )


def _power(d: Draw, level: int) -> str:
    x, a, b = d.whole(-4, 4), d.whole(2, 4), d.whole(1, 6)
    match level:
        case 1:
            return d.one_of(f"(x + {b})^3 = {(x + b) ** 3}", f"x^5 = {x**5}", f"(x - {b})^4 = {a**4}")
        case 2:
            return d.one_of(
                f"((x - {b})/{a})^4 = 16",
                f"{b} - ({linear(a, 1)})^3 = {b - (a * x + 1) ** 3}",
                f"({linear(1, b)})^5/{a} = {a**4}",
            )
    return d.one_of(
        f"{a}({linear(2, b)})^3 - {b} = {a * (2 * x + b) ** 3 - b}",
        f"({a}({linear(1, -b)})^3 + {b})/{a + 1} = {a * (a + 1)}"
        if (a * (a + 1) ** 2 - b) % a == 0
        else f"{a}({linear(1, -b)})^3 + {b} = {a * x**3 + b}",
        f"(({linear(1, b)})^3 - {a})/{b + 1} = {a}"
        if round((a * (b + 1) + a) ** (1 / 3)) ** 3 == a * (b + 1) + a
        else f"(({linear(2, -b)})^3 + {a})/{a} = {(2 * x - b) ** 3 // a + 1}"
        if (2 * x - b) ** 3 % a == 0
        else f"{a}({linear(3, b)})^3 + 1 = {a * (3 * x + b) ** 3 + 1}",
    )


def _absolute(d: Draw, level: int) -> str:
    a, b, c = d.whole(2, 5), d.whole(1, 9), d.whole(2, 9)
    match level:
        case 1:
            return d.one_of(f"|x| = {c}", f"|x - {b}| = {c}", f"|x + {b}| = 0")
        case 2:
            return d.one_of(
                f"|{linear(a, -b)}| = {c}", f"{a}|x + {b}| - {c} = {a * 3 - c}", f"|x| = -{c}", f"{b + 9} - |x| = {b}"
            )
    return d.one_of(f"|x - {b}| = {a}x", f"|{linear(a, -b)}| = |x + {c}|", f"|{linear(2, -b)}| = {linear(1, c)}")


def _functions(d: Draw, level: int) -> str:
    r, s = d.two(-5, 5)
    a, k = d.whole(1, 4), d.whole(-4, 4)
    sign = "+" if k > 0 else "-"
    match level:
        case 1:
            return d.one_of(f"{a}/({linear(1, -r)}) {sign} {abs(k)}", f"-{a}/({linear(1, -r)})")
        case 2:
            return d.one_of(
                f"({linear(1, -s)})/({linear(1, -r)})",
                f"({polynomial(*product(r, s))})/({linear(1, -r)})",
                f"({linear(a, k)})/({linear(1, -r)})" if a * r + k else f"1/({linear(1, -r)})",
            )
        case 3:
            return d.one_of(
                f"({linear(1, -s)})/({polynomial(1, 0, -(r * r))})"
                if abs(s) != abs(r)
                else f"x/({polynomial(1, 0, -(r * r))})",
                f"({polynomial(*product(r, s))})/({polynomial(*product(r, -s - 1 if -s - 1 else 2))})",
                f"({polynomial(1, 0, -(r * r))})/({polynomial(*product(r, s))})",
            )
    return d.one_of(
        "(x^2 + 1)/x",
        f"({polynomial(1, k, a)})/({linear(1, -r)})",
        f"({polynomial(2, -a, k)})/({linear(1, r)})",
        f"x/({polynomial(1, 0, r * r)})",
    )


FAMILIES = (
    Family(
        id="literal-equations",
        name="Literal equations",
        task="solve",
        description="Solve for one letter of several.",
        methods=(
            "simplify-then-undo",
            "square-root",
            "factoring",
            "clear-by-lcd",
            "undo-in-reverse",
            "spot-the-structure",
        ),
        levels=("one term", "the unknown twice", "denominators and squares"),
        example="ax + b = cx + d",
        make=_literal,
        fits=fits.literal_equation,
        unknown="x",
        leads=lambda p: "spot-the-structure" if fits.pattern_equation(p) else "",
    ),
    Family(
        id="absolute-equations",
        name="Absolute value equations",
        task="solve",
        description="Bars around the unknown.",
        methods=("two-cases",),
        levels=("bars alone", "bars with a coefficient", "the unknown outside too"),
        example="|x - 2| = 5",
        make=_absolute,
        fits=fits.absolute_equation,
    ),
    Family(
        id="exponential-equations",
        name="Exponential equations",
        task="solve",
        description="A common base, or a polynomial in one power.",
        methods=("common-base", "substitution"),
        levels=("one power", "two powers", "a polynomial in one power", "grouping"),
        floors=(0, 0, 0, 5.2),
        example="2^(3x) = 4^(x + 1)",
        make=_exponential,
        fits=fits.exponential_equation,
    ),
    Family(
        id="radical-equations",
        name="Radical equations",
        task="solve",
        description="One root or two.",
        methods=("isolate-and-square", "undo-in-reverse"),
        levels=("one root", "a root with terms", "two roots", "extraneous candidates"),
        example="√(x + 6) = x",
        make=_radical,
        fits=fits.radical_equation,
    ),
    Family(
        id="pattern-equations",
        name="Equations with a pattern",
        task="solve",
        description="Numerators that become equal.",
        methods=("spot-the-structure", "clear-fractions", "simplify-then-undo"),
        levels=("two terms", "three terms"),
        example="(x - 1)/99 + (x - 2)/98 + (x - 3)/97 = 3",
        make=_pattern,
        fits=fits.pattern_equation,
    ),
    Family(
        id="rational-equations",
        name="Rational equations",
        task="solve",
        description="The unknown in a denominator.",
        methods=("clear-by-lcd", "common-denominator", "cross-multiply", "undo-in-reverse"),
        levels=("one denominator", "two denominators", "excluded candidates", "denominators to factor"),
        floors=(0, 0, 6.5, 6.5),
        example="6/(x - 2) = x/4 - 1",
        make=_rational,
        fits=fits.rational_equation,
    ),
    Family(
        id="power-equations",
        name="Powers of the unknown",
        task="solve",
        description="(…)ⁿ = c and nested inverses.",
        methods=("undo-in-reverse", "polynomial-factoring"),
        levels=("a power alone", "fractions inside", "nested: a power with a coefficient"),
        floors=(0, 0, 3.7),
        example="3(2x - 1)^3 + 5 = 86",
        make=_power,
        fits=fits.power_equation,
    ),
    Family(
        id="linear-equations",
        name="Linear equations",
        task="solve",
        description="One step to brackets and fractions.",
        methods=("simplify-then-undo", "divide-first", "clear-fractions", "undo-in-reverse"),
        levels=("one step", "two steps", "both sides, brackets", "special cases, decimals", "fractions"),
        example="3(x - 2) + 4 = 5x - 8",
        leads=fits.first_for_linear,
        make=_linear,
        fits=fits.linear_equation,
    ),
    Family(
        id="quadratic-equations",
        name="Quadratic equations",
        task="solve",
        description="By factoring, roots, squares, formula.",
        methods=("factoring", "square-root", "completing-the-square", "quadratic-formula"),
        levels=(
            "factored easily",
            "to be rearranged",
            "irrational roots",
            "a leading coefficient",
            "no real root, fractions",
        ),
        floors=(0, 0, 0, 0, 6.0),
        example="x^2 - 6x - 16 = 0",
        make=_quadratic,
        fits=fits.quadratic_equation,
    ),
    Family(
        id="polynomial-equations",
        name="Polynomial equations",
        task="solve",
        description="Third degree and more.",
        methods=("polynomial-factoring", "substitution"),
        levels=("a common factor", "grouping, squares of squares", "a root to be found"),
        example="x^3 - 4x = 0",
        make=_polynomial,
        fits=fits.polynomial_equation,
    ),
    Family(
        id="rational-functions",
        name="Rational functions",
        task="analyze",
        description="Features and graph.",
        methods=("analyse", "transform-parent"),
        levels=("a/(x − h) + k", "one asymptote or a hole", "two zeros below", "oblique asymptotes"),
        floors=(0, 6.3, 6.5, 7.0),
        example="(x^2 - 4)/(x^2 - x - 2)",
        make=_functions,
        fits=lambda p: True,
    ),
)
