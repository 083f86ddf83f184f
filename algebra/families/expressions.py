"""Families of expressions: numbers, exponents, factoring, rational expressions."""

from __future__ import annotations

from algebra.families import fits
from algebra.families.family import Draw, Family, linear, polynomial, product, times


def _order(d: Draw, level: int) -> str:
    a, b, c = d.whole(2, 9), d.whole(2, 9), d.whole(2, 9)
    match level:
        case 1:
            return d.one_of(f"{a} + {b}·{c}", f"{a * b} - {b}·{c % 5 + 1}", f"{a * b}÷{b} + {c}", f"{a} - {b} + {c}")
        case 2:
            return d.one_of(
                f"{a}·({b} + {c}) - {d.whole(2, 9)}",
                f"{a} - ({b} - {c})·2",
                f"({a} + {b})·{c} - {a}·{b}",
                f"-{a} - {b}·({c} - 9)",
            )
        case 3:
            return d.one_of(
                f"{a} - {b % 4 + 2}^2 + {c}",
                f"({a} - {b})^2·{c % 3 + 2} - {a}",
                f"-{b % 5 + 2}^2 + ({c % 4 - 6})^2",
                f"[{a} + 2·({b} - {c})]·3 - {b}",
            )
        case 4:
            return d.one_of(
                f"{a}/{a + 1} + {b}/{a + 2}",
                f"{b % 3 + 1}/4 + {a}/6·{c}/5",
                f"{a}/{b + 1}÷{c}/{b + 2} - 1/2",
                f"({a}/3 - 1/{b})·{c}",
            )
    return d.one_of(
        f"(1/{a} + 1/{b})/(1/{a} - 1/{b + 10})",
        f"({a}/{b + 2})^2 - 1/{(b + 2)}",
        f"{a}·2^-{b % 3 + 1} + {c}^-1",
        f"|{a} - {b * 3}|·2 - ({c} - {a})^3",
    )


def _exponents(d: Draw, level: int) -> str:
    m, k, p = d.whole(2, 7), d.whole(2, 6), d.whole(2, 4)
    a, b = d.whole(2, 6), d.whole(2, 5)
    match level:
        case 1:
            return d.one_of(f"x^{m}·x^{k}", f"(x^{m})^{p}", f"x^{m + k}/x^{k}", f"{a}x^{m}·{b}x^{k}")
        case 2:
            return d.one_of(
                f"({a}x^{m}y)^{p}", f"{a * b}x^{m + k}/({b}x^{k})", f"({a}x^{m})^2·x^{k}", f"(x^{m}y^{k})^{p}/x^{m}"
            )
        case 3:
            return d.one_of(
                f"x^{m}/x^{m + k}",
                f"{a}x^-{m}·x^{k}",
                f"({a}x^-{m})^2",
                f"{a}x^{m}y^-{k}/({a * b}x^{k}y^2)",
                f"({a}x^0y^{m})^2",
            )
    return d.one_of(
        f"({a}x^-{m}/y^{k})^-2",
        f"(x^-{m}y^{k})^-{p}/x^{k}",
        f"({a}x^{m}y^-{p})^2·({b}xy^{k})^-1",
        f"(({a}x^{m})/y^{k})^-2·y",
    )


def _prime_powers(d: Draw, level: int) -> str:
    p, q = d.whole(2, 4), d.whole(2, 3)
    k, m = d.whole(2, 6), d.whole(2, 4)
    match level:
        case 1:
            return d.one_of(
                f"(2^(n+{p + 1}) + 2^n)/2^n",
                f"(3^(n+{q}) - 3^n)/3^n",
                f"x^(2n+{p})·x^(n-{q})",
                "(5^(n+1) + 5^n)/(3·5^n)",
                f"x^(n+{k})/x^n",
                f"(x^n)^{m}·x^{k}",
                f"a^({m}n)/a^(n-{k})",
            )
        case 2:
            return d.one_of(
                f"1/(2^-{p} + 5^-1)",
                f"(3^-1 + {q + 1}^-1)^-1",
                f"2^-{p} + 4^-1",
                f"(1/{p + 1})^-2 - 3^{q}",
                f"({k}^-1 - {k + m}^-1)^-1",
            )
    return d.one_of(
        f"4^{p}·8^{q}/16", f"9^{p}/27^{q}", f"6^{p + 1}/(2^{p}·3^{q})", f"25^{p}/5^{p + 1}", f"12^{p}/(2^{m}·3^{q})"
    )


def _factor(d: Draw, level: int) -> str:
    r, s = d.two(-9, 9)
    k, g = d.whole(2, 6), d.whole(2, 5)
    match level:
        case 1:
            return d.one_of(
                f"{g * k}x + {g * (k + 1)}",
                polynomial(*product(-abs(r), -abs(s))),
                polynomial(1, 0, -(k * k)),
                polynomial(g, g * k, 0),
            )
        case 2:
            return d.one_of(
                polynomial(*product(r, s)),
                polynomial(1, -2 * k, k * k),
                polynomial(*[g * c for c in product(r, s)]),
                polynomial(k * k, 0, -(g * g) if g != k else -1),
            )
        case 3:
            return d.one_of(
                polynomial(*times([1, r], [1, 0, -(k * k)])),
                f"x^2 + {k + g}xy + {k * g}y^2",
                f"{k * k}x^2 - {g * g}y^2",
                f"ax + {k}a + bx + {k}b",
                polynomial(1, 0, -(k * k + g * g), 0, k * k * g * g),
                f"x^{g + 1}y^2 + {k}xy^{g}",
            )
        case 4:
            a, b = d.whole(2, 4), d.choice([1, 3, 5, 7, -1, -3, -5])
            lead = times([a, b if b % a else b + 1 if (b + 1) % a else 1], [1, -r])
            return d.one_of(
                polynomial(*lead),
                polynomial(*times([a, 1], [k, -1])),
                polynomial(1, 0, 0, -(g**3)),
                polynomial(*times([1, k], [1, 0, -(g * g)])),
            )
    u, v = d.two(-20, 20)
    return d.one_of(
        polynomial(*product(u, v)) if abs(u * v) <= 200 else polynomial(*product(8, -25)),
        f"{3 * k}x^{2 * g + 2} - {6 * g}x^{g + 3}y",
        polynomial(1, 0, k * k),
        polynomial(*product(r, s, d.whole(-4, 4))),
        polynomial(*[2 * c for c in times([1, k], [1, 0, -(g * g)])]),
        polynomial(1, k, k * k + 1),
    )


def _expand(d: Draw, level: int) -> str:
    a, b, c = d.whole(2, 6), d.whole(-7, 7), d.whole(-7, 7)
    match level:
        case 1:
            return d.one_of(f"{a}({linear(1, b)}) + {linear(2, c)}", f"({linear(1, b)})({linear(1, c)})")
        case 2:
            return d.one_of(
                f"({linear(a, b)})^2", f"{a}({linear(1, b)}) - ({linear(a, c)})", f"({linear(a, b)})({linear(2, c)})"
            )
    return d.one_of(
        f"({linear(1, b)})({polynomial(1, c, a)})",
        f"({linear(1, b)})^2 - ({linear(1, c)})^2",
        f"x({linear(a, b)}) - {a}({polynomial(1, 0, c)})",
        f"({linear(1, b)})^3",
    )


def _domain(d: Draw, level: int) -> str:
    r, s = d.two(-6, 6)
    match level:
        case 1:
            return d.one_of(f"{d.whole(2, 9)}/({linear(1, -r)})", f"({linear(1, r)})/(x({linear(1, -s)}))")
        case 2:
            return d.one_of(f"({linear(1, -r)})/({polynomial(*product(r, s))})", f"1/({polynomial(1, 0, -(s * s))})")
    return d.one_of(
        f"1/({linear(1, -r)}) + 2/({polynomial(1, 0, -(s * s))})",
        f"x/({polynomial(*product(r, s, 0))})",
        f"x/({polynomial(1, 0, s * s)})",
        f"x/({polynomial(1, 0, -d.choice([2, 3, 5, 7]))})",
    )


def _reduce(d: Draw, level: int) -> str:
    r, s = d.two(-6, 6)
    t = d.whole(1, 5)
    shared, top, bottom = [1, -r], [1, -s], [1, t if t != -s else t + 1]
    match level:
        case 1:
            return d.one_of(
                f"({polynomial(*product(r, s))})/({linear(1, -r)})",
                f"({polynomial(t + 1, -(t + 1) * r)})/({linear(1, -r)})",
            )
        case 2:
            return d.one_of(
                f"({polynomial(*times(shared, top))})/({polynomial(*times(shared, bottom))})",
                f"({linear(1, -abs(r))})/({abs(r)} - x)",
                f"({linear(1, -r)})/({polynomial(*product(r, s))})",
                f"({polynomial(1, 0, -(r * r))})/({polynomial(*product(r, s))})",
            )
        case 3:
            return d.one_of(
                f"({polynomial(*times(shared, top))})/x^2·x/({linear(1, -r)})",
                f"({linear(1, -r)})/({linear(1, -s)})÷({polynomial(1, 0, -(r * r))})/({polynomial(1, 0, -(s * s))})",
                f"(x/{t + 1})÷(x^2/{2 * t + 2})",
            )
    c = d.whole(2, 4)
    return d.one_of(
        f"({polynomial(1, 0, 0, -(c**3))})/({polynomial(1, 0, -(c * c))})",
        f"({polynomial(*times(shared, bottom))})/x·x^2/({linear(1, -r)})÷({polynomial(bottom[0], bottom[1], 0)})",
        f"({polynomial(*times(shared, top))})/({polynomial(1, c, 0)})"
        f"·({linear(1, c)})/({linear(1, -s)})÷({linear(1, -r)})/({t + 1}x)",
        f"({polynomial(*times(shared, bottom))})/({polynomial(1, 0, -(s * s))})·({linear(1, -s)})/({linear(1, -r)})",
        f"({polynomial(*times([2, 1], shared))})/({polynomial(*times([2, 1], top))})",
    )


def _add(d: Draw, level: int) -> str:
    r, s = d.two(-6, 6)
    a, b = d.whole(1, 7), d.whole(1, 7)
    match level:
        case 1:
            return d.one_of(
                f"{a}/x + {b}/x",
                f"x/({linear(1, r)}) + {a}/({linear(1, r)})",
                f"{a}/({linear(1, r)}) - {b}/({linear(1, r)})",
            )
        case 2:
            return d.one_of(
                f"{a}/x + {b}/({linear(1, r)})",
                f"{a}/({linear(1, r)}) - {b}/({linear(1, s)})",
                f"{a}/(2x) + {b}/(3x)",
                f"x/{a + 1} - {b}/{a + 2}",
            )
        case 3:
            size = abs(r)
            return d.one_of(
                f"{a}/(x - {size}) + {b}/({size} - x)",
                f"x/({polynomial(1, 0, -(size * size))}) - {size}/({polynomial(1, 0, -(size * size))})",
                f"{a} + {b}/({linear(1, r)})",
            )
    return d.one_of(
        f"{a}/({polynomial(*product(r, s))}) + {b}/({linear(1, -r)})",
        f"1/({linear(1, -r)}) - (x - {a})/({polynomial(*product(r, s))})",
        f"{a}/({linear(1, r)}) + {b}/({linear(1, s)}) - 1/x",
    )


def _complex(d: Draw, level: int) -> str:
    a, b = d.two(1, 7)
    match level:
        case 1:
            return d.one_of(f"(x/{a + 1})/(x^2/{b + 1})", f"({a}/x)/({b}/y)")
        case 2:
            return d.one_of(
                f"({a} + 1/x)/({b} - 1/x)",
                f"(1/x + 1/{a + 1})/(x + {a + 1})",
                f"({a}/x + {b}/y)/(1/(xy))",
                f"({a}/x)/({b}/x + {a + b})",
            )
    return d.one_of(
        "(1/(x + h) - 1/x)/h",
        f"({a + 1}x^-1 + y^-1)/x^-2",
        f"(1/(x + {a}) + 1/x)/(1/(x + {a}))",
        "(x^-1 + y^-1)/(x^-2 - y^-2)",
        f"({a}/(x + h) - {a}/x)/h",
        f"(1/((x + h)^2 + {b}) - 1/(x^2 + {b}))/h",
        f"({a}/(x + {b}))/(1/x + 1/(x + {b}))",
    )


FAMILIES = (
    Family(
        id="complex-fractions",
        name="Fractions in fractions",
        task="simplify",
        description="Complex fractions, negative exponents, difference quotients.",
        methods=("combine-then-divide", "clear-inner-by-lcd", "part-by-part"),
        levels=("fraction over fraction", "sums above and below", "difference quotients"),
        example="(1 + 1/x)/(1 - 1/x)",
        make=_complex,
        fits=lambda p: not fits.is_numeric(p) and fits.fraction_inside(p),
    ),
    Family(
        id="powers-in-sums",
        name="Powers and prime bases",
        task="simplify",
        description="Powers of numbers, negative powers in sums, letters above.",
        methods=("prime-bases", "exponent-laws", "reciprocal-first", "order-of-operations"),
        levels=("letters above", "negative powers in a sum", "one prime"),
        example="4^3·8^2/16",
        make=_prime_powers,
        fits=lambda p: fits.powers(p) and (fits.is_numeric(p) or fits.letters_above(p)) and not fits.has_roots(p),
    ),
    Family(
        id="exponents",
        name="Integer exponents",
        task="simplify",
        description="Products, quotients, powers, zero and negative exponents.",
        methods=("exponent-laws", "reciprocal-first", "prime-bases", "factor-and-cancel"),
        levels=("one law", "two laws", "negative and zero exponents", "all together"),
        floors=(0, 0, 2.8, 0),
        example="(2x^-3/y^2)^-2",
        make=_exponents,
        fits=lambda p: (
            fits.powers(p)
            and not fits.is_sum(p)
            and not fits.divides(p)
            and not fits.fraction_inside(p)
            and not fits.any_sum(p)
        ),
    ),
    Family(
        id="add-rational",
        name="Add rational expressions",
        task="simplify",
        description="Like, unlike and opposite denominators.",
        methods=("lcd",),
        levels=("like denominators", "unlike denominators", "opposite denominators", "denominators to factor"),
        floors=(0, 0, 5.0, 0),
        example="3/x + 1/(x + 2)",
        make=_add,
        fits=lambda p: not fits.is_numeric(p) and fits.is_sum(p) and fits.is_fractional(p),
    ),
    Family(
        id="reduce-rational",
        name="Reduce, multiply, divide",
        task="simplify",
        description="Rational expressions with common factors.",
        methods=("factor-and-cancel", "part-by-part"),
        levels=("one factor", "two trinomials", "products and quotients", "harder factors"),
        floors=(0, 0, 3.7, 0),
        example="(x^2 - 9)/(x^2 + x - 6)",
        make=_reduce,
        fits=lambda p: not fits.is_numeric(p) and fits.is_fractional(p),
    ),
    Family(
        id="multiply-out",
        name="Multiply out and combine",
        task="expand",
        description="Brackets and like terms.",
        methods=("expand-and-combine",),
        levels=("one bracket", "squares and differences", "longer products"),
        floors=(0, 2.8, 0),
        example="(x + 7)^2",
        make=_expand,
        fits=lambda p: not fits.is_numeric(p),
    ),
    Family(
        id="order-of-operations",
        name="Order of operations",
        task="evaluate",
        description="Integers, fractions, powers, nested brackets.",
        methods=("order-of-operations",),
        levels=("two operations", "brackets", "powers", "fractions", "all together"),
        floors=(0, 0, 0, 0, 4.2),
        example="2 + 5·4",
        make=_order,
        fits=lambda p: fits.is_numeric(p),
    ),
    Family(
        id="factor",
        name="Factor",
        task="factor",
        description="Common factor, trinomials, special forms, grouping, primes.",
        methods=("sum-product", "area-grid", "ac-grouping", "slide-and-divide", "special-forms"),
        levels=(
            "common factor, small trinomials",
            "trinomials, squares",
            "two letters, several steps",
            "leading coefficient, cubes",
            "primes, big pairs, long ones",
        ),
        floors=(0, 0, 3.3, 3.8, 4.0),
        example="3x^2 + 10x + 8",
        make=_factor,
        fits=lambda p: True,
    ),
    Family(
        id="domain",
        name="Domain",
        task="domain",
        description="Where a rational expression is undefined.",
        methods=("factor-denominator",),
        levels=("a linear denominator", "a quadratic denominator", "several denominators"),
        floors=(0, 0, 4.0),
        example="(x - 1)/((x - 1)(x + 3))",
        make=_domain,
        fits=lambda p: True,
    ),
)
