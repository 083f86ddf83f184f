"""The ways to solve, each on its kind of equation, and properties that hold of all of them."""

from fractions import Fraction as Q

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from algebra import Working, check
from algebra.exact.algebraic_numbers import rational
from algebra.exact.effort import granted
from algebra.exact.errors import OutOfScope
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.linear_systems import eliminate
from algebra.exact.plus_minus import variants
from algebra.exact.rational_functions import field_of
from algebra.exact.sample_points import friendly_points
from algebra.exact.solve.polynomial import PolynomialSolver
from algebra.parse.lines import read_expression
from algebra.tree.plain import plain

FIELD = field_of(("x",))
small = st.integers(-9, 9)
nonzero = small.filter(bool)


def solutions(text, **more):
    left, right = text.split("=")
    with granted():
        return PolynomialSolver(FIELD, "x", **more).equation(
            value_of(read_expression(left), FIELD), value_of(read_expression(right), FIELD)
        )


def expected(given_, **more):
    report = check(Working("solve", given_, (), "x", **more))
    assert report.error is None, report.error
    return list(report.answer.expected)


class TestPolynomials:
    @pytest.mark.parametrize(
        ("text", "values"),
        [
            ("x^2 = 9", {"3", "-3"}),
            ("x^2 = 2", {"√2", "-√2"}),
            ("x^3 = 8", {"2"}),
            ("x^2 + 1 = 0", set()),
            ("(x-1)^5 = 0", {"1"}),
            ("x(x-1)(x-2) = 0", {"0", "1", "2"}),
            ("1/x = 2", {"1/2"}),
            ("x/x = 1", None),
            ("(x^2-1)/(x-1) = 2", set()),
            ("x/(x-3) = 3/(x-3)", set()),
            ("x^4 = 5x^2 - 4", {"1", "-1", "2", "-2"}),
        ],
    )
    def test_real_solutions_where_the_equation_is_defined(self, text, values):
        found = solutions(text)
        if values is None:
            assert found.cofinite
            assert {str(s.number) for s in found.members} == {"0"}
        else:
            assert not found.cofinite
            assert {str(s.number) for s in found.members} == values

    @pytest.mark.parametrize(
        ("text", "values"), [("x^2 + 1 = 0", {"i", "-i"}), ("x^2 = -8", {"2i√2", "-2i√2"}), ("x^3 = 1", 3)]
    )
    def test_complex_solutions_where_they_are_asked_for(self, text, values):
        found = solutions(text, complex_too=True)
        assert len(found.members) == (values if isinstance(values, int) else len(values))
        assert all(not s.number.is_real or s.number == rational(1) for s in found.members)

    @given(st.lists(small, min_size=1, max_size=4, unique=True), nonzero)
    def test_a_product_of_factors_has_their_zeros(self, zeros, lead):
        text = f"{lead}" + "".join(f"(x - ({zero}))" for zero in zeros)
        assert {s.number for s in solutions(f"{text} = 0").members} == {rational(zero) for zero in zeros}

    @given(st.lists(small, min_size=1, max_size=3, unique=True), st.lists(small, min_size=1, max_size=2, unique=True))
    def test_a_zero_of_a_denominator_as_written_is_no_solution(self, zeros, poles):
        top = "".join(f"(x - ({zero}))" for zero in zeros)
        below = "".join(f"(x - ({pole}))" for pole in poles)
        found = solutions(f"({top})/({below}) = 0")
        assert {s.number for s in found.members} == {rational(zero) for zero in set(zeros) - set(poles)}

    @given(nonzero, small, nonzero, small)
    def test_linear_equations(self, a, b, c, d):
        assume(a != c)
        assert {s.number for s in solutions(f"{a}x + ({b}) = {c}x + ({d})").members} == {rational(Q(d - b, a - c))}


class TestEveryWay:
    @pytest.mark.parametrize(
        ("given_", "values"),
        [
            # one root, two roots, a root below, roots that only cancel
            ("√x = 3", ["9"]),
            ("√x = -3", []),
            ("√(x+6) = x", ["3"]),
            ("√(x+5) - √x = 1", ["4"]),
            ("√x + √(x-1) = 0", []),
            ("x/√x = 2", ["4"]),
            ("∛x = -2", ["-8"]),
            ("∛(x+1) = ∛(2x)", ["1"]),
            ("√(x^2) = 3", ["3", "-3"]),
            ("√(√x) = 2", ["16"]),
            ("√((x-1)^2) = x - 1", ["[1, ∞)"]),
            # bars
            ("|x-2| = 5", ["7", "-3"]),
            ("|x-2| = -5", []),
            ("|x| = |x-4|", ["2"]),
            ("|x-2| = 2x + 5", ["-1"]),
            ("|x| + |x-1| = 1", ["[0, 1]"]),
            ("||x| - 2| = 1", ["3", "1", "-1", "-3"]),
            # exponents
            ("2^x = 8", ["3"]),
            ("4^x = 8", ["3/2"]),
            ("2^x = -1", []),
            ("9^x - 4·3^x + 3 = 0", ["1", "0"]),
            ("2^(x^2) = 16", ["2", "-2"]),
            ("x·2^x = 0", ["0"]),
            ("(1/2)^x = 4", ["-2"]),
            # roots of numbers
            ("√2·x = 2", ["√2"]),
            ("x + √3 = √12", ["√3"]),
            ("x√2 + x = 1", ["-1 + √2"]),
            ("x^2 - 2√2·x + 2 = 0", ["√2"]),
        ],
    )
    def test_the_solutions_of_an_equation(self, given_, values):
        assert expected(given_) == values

    @pytest.mark.parametrize(
        ("given_", "values"),
        [
            ("a x = b", ["b/a"]),
            ("a x^2 = b", ["√(b/a)", "-√(b/a)"]),
            ("x + a = x", []),
            ("√(x) = a", ["a^2"]),
            ("v = √(2gx)", ["v^2/(2g)"]),
            ("1/x = 1/a + 1/b", ["(ab)/(a+b)"]),
        ],
    )
    def test_other_letters_stand_for_numbers(self, given_, values):
        found = [text.replace(" ", "") for text in expected(given_)]
        if given_ == "a x^2 = b":
            assert len(found) == 2
        else:
            assert found == values

    @given(st.integers(0, 12), st.integers(-6, 6))
    def test_a_root_beside_a_number_has_the_square_or_nothing(self, square, shift):
        found = expected(f"√(x + ({shift})) = {square}")
        assert found == [str(square * square - shift)]
        assert expected(f"√(x + ({shift})) = -{square}") == ([str(-shift)] if square == 0 else [])

    @given(nonzero, small, st.integers(1, 12))
    def test_bars_have_two_values(self, a, b, c):
        found = {Q(text) for text in expected(f"|{a}x + ({b})| = {c}")}
        assert found == {Q(c - b, a), Q(-c - b, a)}

    @given(st.sampled_from([2, 3, 5]), st.integers(1, 3), st.integers(-3, 3), st.integers(-4, 4))
    def test_equal_powers_have_equal_exponents(self, base, a, b, power):
        value = Q(base) ** power
        text = f"{value.numerator}/{value.denominator}" if value.denominator > 1 else str(value)
        assert [Q(found) for found in expected(f"{base}^({a}x + ({b})) = {text}")] == [Q(power - b, a)]

    @given(st.integers(-5, 5), st.integers(1, 30))
    def test_quadratics_with_irrational_solutions_have_both(self, middle, radicand):
        found = expected(f"(x - ({middle}))^2 = {radicand}")
        assert len(found) == 2
        for value in found:
            report = check(Working("solve", f"(x - ({middle}))^2 = {radicand}", (f"check x = {value}",), "x"))
            assert report.links[0].relation == "holds"


class TestLinearSystems:
    def rows(self, *numbers):
        return [[FIELD.constant(number) for number in row] for row in numbers]

    def test_a_system_is_solved(self):
        assert [v.constant for v in eliminate(self.rows([0, 2, 4], [1, 1, 5]))] == [3, 2]

    @given(st.lists(small, min_size=9, max_size=9), st.lists(small, min_size=3, max_size=3))
    def test_its_solution_satisfies_it(self, entries, values):
        matrix = [entries[0:3], entries[3:6], entries[6:9]]
        sides = [sum(c * v for c, v in zip(row, values, strict=True)) for row in matrix]
        determinant = (
            matrix[0][0] * (matrix[1][1] * matrix[2][2] - matrix[1][2] * matrix[2][1])
            - matrix[0][1] * (matrix[1][0] * matrix[2][2] - matrix[1][2] * matrix[2][0])
            + matrix[0][2] * (matrix[1][0] * matrix[2][1] - matrix[1][1] * matrix[2][0])
        )
        system = self.rows(*[[*row, side] for row, side in zip(matrix, sides, strict=True)])
        with granted():
            if determinant == 0:
                with pytest.raises(OutOfScope):
                    eliminate(system)
            else:
                assert [found.constant for found in eliminate(system)] == values


class TestPlusMinus:
    @pytest.mark.parametrize(
        ("text", "chosen"),
        [
            ("3", ["3"]),
            ("±3", ["3", "-3"]),
            ("2 ± √3", ["2 + √3", "2 - √3"]),
            ("(1 ± √5)/2", ["(1 + √5)/2", "(1 - √5)/2"]),
            ("x ± 1 ± 2", 2),
        ],
    )
    def test_each_choice_of_signs_is_a_tree(self, text, chosen):
        found = [plain(tree) for tree in variants(read_expression(text))]
        if isinstance(chosen, int):
            assert len(found) >= chosen
        else:
            assert [form.replace("+3", "3").replace(" ", "") for form in found] == [
                form.replace(" ", "") for form in chosen
            ]


class TestFriendlyPoints:
    @pytest.mark.parametrize("letters", [[], ["x"], ["x", "y"], ["a", "b", "c"]])
    def test_points_are_small_plain_numbers_for_every_letter(self, letters):
        points = [point for point, _ in zip(friendly_points(letters), range(20), strict=False)]
        assert points
        for point in points:
            assert sorted(point) == sorted(letters)
            assert all(abs(value) <= 100 for value in point.values())

    def test_different_letters_first_have_different_values(self):
        first = next(friendly_points(["x", "y", "z"]))
        assert len(set(first.values())) == 3
        assert Q(0) not in first.values()
