"""Families of roots, of complex numbers and of units, and of quotients in which they stand."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.families import fits
from algebra.families.family import Draw, Family
from algebra.tree import build
from algebra.tree.plain import plain


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


FAMILIES: tuple[Family, ...] = (
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
)
