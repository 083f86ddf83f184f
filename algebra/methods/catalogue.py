"""Every method of working, with its name and what it has to search for; a method is one entry and one function."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from algebra.methods import (
    absolute,
    complex_numbers,
    domain,
    exponential,
    exponents,
    factoring,
    inverse,
    linear,
    multiply_out,
    order,
    parts,
    polynomial_equations,
    quadratic,
    quotients,
    radical_equations,
    radicals,
    rational_equations,
    rational_expressions,
    rational_functions,
    rationalise,
    substitution,
)
from algebra.methods.paper import Paper, Problem


@dataclass(frozen=True, slots=True, kw_only=True)
class Method:
    """A way to work a kind of problem. `work` raises NotThisWay where it does not apply; `searches` says what one has
    to look for on the way."""

    id: str
    name: str
    description: str
    searches: str
    example: tuple[str, str]
    work: Callable[[Problem], Paper]
    numbers: str = "real"
    """The numbers that its example is worked in."""


METHODS: tuple[Method, ...] = (
    Method(id="order-of-operations", name="Order of operations", description="Brackets, powers, × and ÷, + and −, from the left.",
           searches="which operation comes next", example=("evaluate", "2 + 5·4"), work=order.order_of_operations),
    Method(id="exponent-laws", name="Laws of exponents", description="Powers of products first, then the same bases put together.",
           searches="powers with the same base", example=("simplify", "(2x^3y)^4/(4x^2)"), work=exponents.exponent_laws),
    Method(id="prime-bases", name="Prime bases", description="Every number written by primes before the laws are used.",
           searches="the primes in every base", example=("simplify", "4^3·8^2/16"), work=exponents.prime_bases),
    Method(id="reciprocal-first", name="Reciprocal first", description="Fractions with a negative exponent are turned over first.",
           searches="negative exponents of fractions", example=("simplify", "(1/2)^-3·x"), work=exponents.reciprocal_first),
    Method(id="largest-square-factor", name="Largest square factor", description="The largest square in every radicand comes out at once.",
           searches="the largest square that divides the radicand", example=("simplify", "√12 + √27"), work=radicals.largest_square_factor),
    Method(id="prime-pairs", name="Pairs of primes", description="The radicand by primes; every pair comes out as one factor.",
           searches="the primes of the radicand", example=("simplify", "√72"), work=radicals.prime_pairs),
    Method(id="multiply-by-root", name="Multiply by the root", description="Top and bottom times the root below.",
           searches="the root that clears the denominator", example=("simplify", "7/√5"), work=rationalise.multiply_by_root),
    Method(id="conjugate", name="Conjugate", description="Top and bottom times the denominator with the other sign.",
           searches="the conjugate of the denominator", example=("simplify", "2/(1+√3)"), work=rationalise.conjugate),
    Method(id="simplify-root-first", name="Simplify the root first", description="The root below is simplified before it is cleared.",
           searches="the square factor below", example=("simplify", "5/√12"), work=rationalise.simplify_root_first),
    Method(id="i-squared", name="i² = −1", description="Roots of negatives as i, brackets multiplied out, i² put as −1, quotients by the conjugate.",
           searches="the conjugate of the denominator", example=("simplify", "(3 + 2i)/(2 - i)"), work=complex_numbers.i_squared, numbers="complex"),
    Method(id="sum-product", name="Sum and product", description="Two numbers with the right product and sum; else the form that fits.",
           searches="a pair of numbers", example=("factor", "x^2 - 3x - 10"), work=factoring.sum_product),
    Method(id="area-grid", name="Area grid", description="The same pair placed in a two by two box, whose sides are the factors.",
           searches="a pair of numbers", example=("factor", "3x^2 + 10x + 8"), work=factoring.area_grid),
    Method(id="ac-grouping", name="Split and group", description="The middle term is split, then pairs are factored.",
           searches="a pair with the product ac", example=("factor", "3x^2 + 10x + 8"), work=factoring.ac_grouping),
    Method(id="slide-and-divide", name="Slide and divide", description="Factor x² + bx + ac, divide by a, reduce, slide what is below in front.",
           searches="a pair with the product ac", example=("factor", "3x^2 + 10x + 8"), work=factoring.slide_and_divide),
    Method(id="special-forms", name="Special forms", description="Differences of squares, perfect squares, sums and differences of cubes.",
           searches="the form that fits", example=("factor", "x^3 - 64"), work=factoring.special_forms),
    Method(id="expand-and-combine", name="Multiply out and combine", description="Every bracket is opened, like terms are combined.",
           searches="like terms", example=("expand", "(x + 7)^2"), work=multiply_out.expand_and_combine),
    Method(id="factor-denominator", name="Factor the denominator", description="Every denominator of the given is set to zero.",
           searches="the zeros of the denominators", example=("domain", "(x - 1)/((x - 1)(x + 3))"), work=domain.factor_denominator),
    Method(id="factor-and-cancel", name="Factor and cancel", description="Divisors turned over, everything factored, common factors cancelled.",
           searches="common factors", example=("simplify", "(x^2 - 9)/(x^2 + x - 6)"), work=rational_expressions.factor_and_cancel),
    Method(id="lcd", name="Least common denominator", description="Every fraction brought to the LCD, numerators added.",
           searches="what each denominator lacks", example=("simplify", "3/x + 1/(x + 2)"), work=rational_expressions.lcd),
    Method(id="combine-then-divide", name="Combine, then divide", description="One fraction above, one below, then times the reciprocal.",
           searches="a common denominator above and one below", example=("simplify", "(1 + 1/x)/(1 - 1/x)"), work=rational_expressions.combine_then_divide),
    Method(id="clear-inner-by-lcd", name="Clear the inner denominators", description="Top and bottom times the LCD of all small denominators.",
           searches="one LCD for all small denominators", example=("simplify", "(1 + 1/x)/(1 - 1/x)"), work=rational_expressions.clear_by_lcd),
    Method(id="part-by-part", name="Part by part", description="A bracket or a fraction beside other factors is worked out apart, then put back.",
           searches="what can be worked out by itself", example=("simplify", "x/(x - 3)·((x^2 - 9)/(x + 3) + 2)"), work=parts.part_by_part),
    Method(id="powers-as-letters", name="Factor in powers", description="Every power by powers of primes, factored like a polynomial, cancelled.",
           searches="what the powers have in common", example=("simplify", "(4^x - 9)/(2^x + 3)"), work=quotients.powers_as_letters),
    Method(id="rationalise-numerator", name="Rationalise the numerator", description="Top and bottom times the numerator with the other sign.",
           searches="the conjugate of the numerator", example=("simplify", "(√(x + h) - √x)/h"), work=quotients.rationalise_numerator),
    Method(id="unit-chain", name="Factor and cancel units", description="Fractions of units multiplied; equal words cancel.",
           searches="words that stand above and below", example=("simplify", '60·"km"/"h"·1/60·"h"/"min"'), work=rational_expressions.unit_chain),
    Method(id="simplify-then-undo", name="Simplify, then undo", description="Each side worked out, then undone in the reverse order of operations.",
           searches="like terms", example=("solve", "3(x - 2) + 4 = 5x - 8"), work=linear.simplify_then_undo),
    Method(id="divide-first", name="Divide first", description="The whole side is divided before the bracket is opened.",
           searches="a factor of a whole side", example=("solve", "3(x + 5) = 12"), work=linear.divide_first),
    Method(id="clear-fractions", name="Clear the fractions", description="Everything times the least common denominator first.",
           searches="the least common denominator", example=("solve", "x/4 + 3 = 5/8"), work=linear.clear_fractions),
    Method(id="factoring", name="Factoring", description="One side 0, the other factored, each factor set to 0.",
           searches="a pair of numbers", example=("solve", "x^2 - 6x - 16 = 0"), work=quadratic.factoring),
    Method(id="square-root", name="Square roots", description="The square alone, then the root of both sides with ±.",
           searches="the square", example=("solve", "(x - 3)^2 = 2"), work=quadratic.square_root),
    Method(id="completing-the-square", name="Completing the square", description="The square of half of b is added on both sides.",
           searches="half of b", example=("solve", "x^2 - 4x - 7 = 0"), work=quadratic.completing_the_square),
    Method(id="quadratic-formula", name="Quadratic formula", description="a, b and c put into the formula.",
           searches="a, b and c", example=("solve", "x^2 - 4x - 7 = 0"), work=quadratic.quadratic_formula),
    Method(id="polynomial-factoring", name="Factoring", description="One side 0, the other factored all the way, each factor set to 0.",
           searches="common factors, patterns, a root", example=("solve", "x^3 - 4x = 0"), work=polynomial_equations.polynomial_factoring),
    Method(id="clear-by-lcd", name="Clear by the LCD", description="Every term times the LCD; excluded values are left out.",
           searches="the LCD", example=("solve", "6/(x - 2) = x/4 - 1"), work=rational_equations.clear_by_lcd),
    Method(id="common-denominator", name="Common denominator", description="Every term over the LCD, then equal numerators.",
           searches="the LCD", example=("solve", "3/x + 1/(x + 2) = 2"), work=rational_equations.common_denominator),
    Method(id="cross-multiply", name="Cross-multiply", description="One fraction equals one fraction: multiply by both denominators.",
           searches="nothing", example=("solve", "2/(x + 1) = 3/x"), work=rational_equations.cross_multiply),
    Method(id="spot-the-structure", name="See the pattern", description="Take 1 from every term, so that the numerators become equal.",
           searches="what makes the numerators equal", example=("solve", "(x - 1)/9 + (x - 2)/8 = 2"), work=rational_equations.spot_the_structure),
    Method(id="isolate-and-square", name="Isolate and square", description="A root alone, both sides raised, every candidate checked.",
           searches="which root to let stand alone", example=("solve", "√(x + 6) = x"), work=radical_equations.isolate_and_square),
    Method(id="common-base", name="Common base", description="Both sides as powers of one number, then equal exponents.",
           searches="the number that all bases are powers of", example=("solve", "2^(3x) = 4^(x + 1)"), work=exponential.common_base),
    Method(id="substitution", name="Substitution", description="What repeats gets a letter of its own.",
           searches="what repeats", example=("solve", "4^x - 6·2^x + 8 = 0"), work=substitution.substitution),
    Method(id="undo-in-reverse", name="Undo in reverse", description="The unknown stands once: each operation is undone from the outside in.",
           searches="nothing", example=("solve", "3(2x - 1)^3 + 5 = 86"), work=inverse.undo_in_reverse),
    Method(id="two-cases", name="Two cases", description="The bars alone, then what is inside or its opposite.",
           searches="nothing", example=("solve", "|x - 2| = 5"), work=absolute.two_cases),
    Method(id="analyse", name="Feature by feature", description="Domain, reduced form, holes, asymptotes, intercepts, ends.",
           searches="common factors", example=("analyze", "(x^2 - 4)/(x^2 - x - 2)"), work=rational_functions.analyse),
    Method(id="transform-parent", name="Shift and stretch 1/x", description="a, h, k of a/(x − h) + k, and points moved along.",
           searches="the quotient and the remainder", example=("analyze", "3/(x - 2) + 1"), work=rational_functions.transform_parent),
)  # fmt: skip

BY_ID: dict[str, Method] = {method.id: method for method in METHODS}

NUMBER_KINDS: dict[str, tuple[str, str]] = {
    "complex-numbers": ("Complex numbers", "Solutions with i."),
    "irrational-numbers": ("Irrational numbers", "Answers that keep a root."),
    "leading-coefficient": ("Leading coefficient other than 1", "Trinomials with a ≠ 1."),
}
"""What else a class may not have been taught: the kinds of number of a solution, each with its name and what it is."""
