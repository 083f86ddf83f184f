"""A process that checks workings for days holds no more memory than at the start: what FLINT lends is given back."""

from pathlib import Path

from flint import Ordering, fmpz_mpoly_ctx
from hypothesis import given
from hypothesis import strategies as st

from algebra import Working, check
from algebra.exact.rational_functions import key_of, text_of

WRONG = [
    Working("factor", f"x^3 + {a}x^2 - {b}x - {a * b}", (f"(x + {a})(x^2 - {b + 1})",))
    for a in (2, 3, 5)
    for b in (4, 9)
] + [Working("simplify", f"{a}/(x+1) - {b}/(x-{b})", (f"({a}x - {b})/((x+1)(x-{b}))",)) for a in (2, 3) for b in (4, 5)]


def held():
    """Kilobytes of this process."""
    return int(Path("/proc/self/smaps_rollup").read_text().split("Rss:")[1].split()[0])


def test_wrong_lines_over_and_over_hold_nothing():
    for _ in range(3):
        for working in WRONG:
            assert check(working).links[0].relation == "breaks"
    before = held()
    for _ in range(12):
        for working in WRONG:
            check(working)
    assert held() - before < 2048  # a text kept of each polynomial looked up was 10 MB


CONTEXT = fmpz_mpoly_ctx.get(("x", "y"), Ordering.lex)
polynomials = st.dictionaries(
    st.tuples(st.integers(0, 4), st.integers(0, 4)), st.integers(-(10**12), 10**12).filter(bool), max_size=6
).map(CONTEXT.from_dict)


@given(polynomials)
def test_the_text_of_a_polynomial_is_the_librarys(poly):
    assert text_of(poly) == str(poly)


@given(polynomials, polynomials)
def test_polynomials_have_one_key_where_they_are_equal(one, other):
    assert (key_of(one) == key_of(other)) == (one == other)
    assert key_of(one + other) == key_of(other + one)
