"""Families of expressions: numbers, exponents, roots, factoring, rational expressions."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.families import fits
from algebra.families.family import Draw, Family, linear, polynomial, product, times
from algebra.tree import build
from algebra.tree.plain import plain


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


def _roots(d: Draw, level: int) -> str:
    n1, n2 = d.choice([2, 3, 5, 6, 7]), d.choice([2, 3, 5])
    s, t = d.whole(2, 6), d.whole(2, 5)
    match level:
        case 1:
            return f"√{s * s * n1}"
        case 2:
            return d.one_of(
                f"√{s * s * n1} + √{t * t * n1}", f"{t}√{s * s * n1}", f"{s}√{n1} + {t}√{n1 * 4}", f"√{n1}·√{n1 * n2}"
            )
        case 3:
            return d.one_of(
                f"√{n2}(√{n2 * n1} + {s})",
                f"({s} + √{n1})({t} - √{n1})",
                f"{s}√{n1 * 4} - √{n1 * 9} + √{n2 * 4}",
                f"({s} + √{n1})^2",
            )
    return d.one_of(
        f"∛{s**3 * n1}",
        f"√({s * s * n1}x^4y^3)",
        f"({s}√{n1} - √{n2})^2",
        f"√(2x)·√({2 * s * s}x)",
        f"√({d.choice([7, 11, 13, 17])}/{s * s})",
    )


def _rationalise(d: Draw, level: int) -> str:
    n1, s, t = d.choice([2, 3, 5, 6, 7]), d.whole(1, 8), d.whole(1, 5)
    match level:
        case 1:
            return d.one_of(f"{s}/√{n1}", f"{s}/({t + 1}√{n1})")
        case 2:
            return d.one_of(
                f"{s}/√{n1 * 4}",
                f"√{n1}/√{n1 * 2 if n1 % 2 else 15}",
                f"({s} + √{n1})/√{n1}",
                f"√({s}/{n1})" if s % n1 else f"√(1/{n1})",
            )
    other = d.choice([11, 13, 2, 3])
    m = n1 + 1 if other == n1 else other
    return d.one_of(
        f"{s}/({t + 3} + √{n1})",
        f"{s}/(√{n1} - √{m})",
        f"({t} + √{n1})/({t + 3} - √{n1})",
        f"√{n1}/({t} + √{n1 if t * t != n1 else n1 + 1})",
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


def _exponential_quotient(d: Draw, level: int) -> str:
    base = d.choice([2, 3, 5] if level == 1 else [2, 3])
    a, b = d.two(1, 9)
    match level:
        case 1:
            return f"({base**2}^x - {a * a})/({base}^x {d.one_of('+', '-')} {a})"
        case 2:
            s, t = _with_signs(d, a, b)
            middle, last = s + t, s * t
            if middle == 0:
                return f"({base**2}^x - {s * s})/({base}^x + {abs(s)})"
            told = "" if abs(middle) == 1 else f"{abs(middle)}·"
            return (
                f"({base**2}^x {'+' if middle > 0 else '-'} {told}{base}^x "
                f"{'+' if last > 0 else '-'} {abs(last)})/({base}^x {'+' if s > 0 else '-'} {abs(s)})"
            )
    first, second = ((2, 3), (2, 5), (3, 5))[d.choice([0, 1, 2])]
    p, q = _with_signs(d, a, b)
    inner = (
        f"{first * second}^x {'+' if q > 0 else '-'} {_beside(abs(q))}{first}^x "
        f"{'+' if p > 0 else '-'} {_beside(abs(p))}{second}^x {'+' if p * q > 0 else '-'} {abs(p * q)}"
    )
    return f"({inner})/({first}^x {'+' if p > 0 else '-'} {abs(p)})"


def _with_signs(d: Draw, a: int, b: int) -> tuple[int, int]:
    return ((a, b), (a, -b), (-a, b))[d.choice([0, 1, 2])]


def _beside(size: int) -> str:
    return "" if size == 1 else f"{size}·"


def _root_difference(d: Draw, level: int) -> str:
    a, b = d.choice([2, 3, 5, 6, 7]), d.whole(2, 8)
    most = a + b
    k = d.choice([2, 3, 5, 6, 7, 10, 11])  # free of squares
    match level:
        case 1:
            return d.one_of(f"(√x - {a})/(x - {a * a})", f"(√(x + {k}) - √{k})/x", f"(√x - √{k})/(x - {k})")
        case 2:
            return d.one_of(
                f"(√({a}x + {most * b}) - {most})/(x - {most})",
                f"(√(x + {a * a}) - {a})/x",
                f"({a} - √(x + {a}))/(x - {a * a - a})",
            )
    return d.one_of(
        "(√(x + h) - √x)/h",
        f"(√({a}(x + h)) - √({a}x))/h",
        f"(√(x + h + {a}) - √(x + {a}))/h",
        f"(√({a}x + {a}h + {b}) - √({a}x + {b}))/h",
    )


def _units(d: Draw, level: int) -> str:
    a = d.whole(2, 90)
    if level == 1:
        return d.one_of(f'{a}·"km"/"h"·1/60·"h"/"min"', f'{a}·"crate"·12·"jar"/"crate"')
    return f'{a}·"sack"·{d.whole(10, 40)}·"kg"/"sack"·{d.whole(2, 9)}·"coin"/"kg"'


def _complex_number(d: Draw, level: int) -> str:
    a, b = d.whole(1, 7), d.whole(-6, 6)
    c, e = d.whole(-5, 7), d.whole(-4, 4)
    first, second = _with_i(a, b), _with_i(c, e)
    k = d.choice([2, 3, 5, 6, 7])
    match level:
        case 1:
            return d.one_of(f"({first}) + ({second})", f"({first}) - ({second})", f"√(-{k * k})", f"√(-{4 * k})")
        case 2:
            return d.one_of(
                f"({first})({second})",
                f"{a + 1}i({second})",
                f"({first})^2",
                f"i^{abs(b) + a + 4}",
                f"√(-{k}) · √(-{k * (a + 1)})",
            )
        case 3:
            return d.one_of(
                f"{a}/({second})",
                f"({first})/({second})",
                f"({first})/({abs(e) + 1}i)",
                f"({first})/({_with_i(a, -b)})",
            )
    return d.one_of(
        f"({first})^3",
        f"({first})({second}) - ({second})^2",
        f"({first})/({second}) + i^{a + 4}",
        f"({a} + √(-{4 * k}))^2",
    )


def _with_i(real: int, imaginary: int) -> str:
    """`3 - 2i`."""
    return plain(build.sum_of([build.number(real), build.monomial(Q(imaginary), [("i", 1)])]))


FAMILIES = (
    Family(
        id="complex-numbers",
        name="Complex numbers",
        task="simplify",
        description="Sums, products, powers and quotients with i, roots of negatives.",
        methods=("i-squared",),
        levels=("sums, roots of negatives", "products and powers of i", "quotients", "several steps"),
        example="(3 + 2i)/(2 - i)",
        make=_complex_number,
        fits=fits.is_complex_number,
        numbers="complex",
    ),
    Family(
        id="unit-chains",
        name="Unit chains",
        task="simplify",
        description="Products of fractions of units.",
        methods=("unit-chain",),
        levels=("one change of unit", "two changes of unit"),
        example='60·"km"/"h"·1/60·"h"/"min"',
        make=_units,
        fits=lambda p: any(name.startswith('"') for name in p.field.letters),
    ),
    Family(
        id="rationalise",
        name="Rationalise a denominator",
        task="simplify",
        description="Denominators freed of roots.",
        methods=("multiply-by-root", "conjugate", "simplify-root-first"),
        levels=("one root", "a root to simplify, a sum above", "two terms"),
        example="2/(1 + √3)",
        make=_rationalise,
        fits=lambda p: fits.is_numeric(p) and fits.root_below(p),
    ),
    Family(
        id="root-differences",
        name="Differences of roots over a difference",
        task="simplify",
        description="Quotients with roots above that reduce when the numerator is rationalised.",
        methods=("rationalise-numerator",),
        levels=("a root and a number", "more under the root", "difference quotients"),
        example="(√(x + h) - √x)/h",
        make=_root_difference,
        fits=fits.root_difference,
    ),
    Family(
        id="exponential-quotients",
        name="Quotients of exponentials",
        task="simplify",
        description="Powers with the letter above, factored like polynomials.",
        methods=("powers-as-letters",),
        levels=("a difference of squares", "a trinomial", "two bases, by grouping"),
        example="(4^x - 9)/(2^x + 3)",
        make=_exponential_quotient,
        fits=fits.exponential_quotient,
    ),
    Family(
        id="roots",
        name="Roots",
        task="simplify",
        description="Roots simplified, added, multiplied.",
        methods=("largest-square-factor", "prime-pairs"),
        levels=("one root", "sums and products", "brackets", "letters and cube roots"),
        floors=(0, 0, 0, 4.1),
        example="√12 + √27",
        make=_roots,
        fits=fits.has_roots,
    ),
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
