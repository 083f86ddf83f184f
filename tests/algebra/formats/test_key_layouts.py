"""Keys as they are typed: an answer beside its problem, options, notes beside a problem, words between problems."""

import pytest

from algebra import proofread

BESIDE = """Quay 3, practice: key
Factor completely. If prime write "prime".

1. x^2 + 10x + 21         (x + 3)(x + 7)
2. 4x^2 - 49              (2x - 7)(2x + 7)
3. x^3 - x^2 - 4x + 4  (x - 1)(x - 2)(x + 2)
4. x^2 + 5x + 8           prime
5. 3x^2 - 12              3(x^2 - 4)
"""
OPTIONS = """Evaluate.
1) 5^2 - 3 × 6
   a) 132   b) 7   c) -7   d) 42
   25 - 18
   7
2) 60 ÷ 5 × 4
   A) 3
   B) 48
   C) 12
   D) 240
   12 × 4
   48

Solve.
3) 6x - 5 = 4x + 9                  x = 7
4) (x - 3)(x + 8) = 0               x = 3 or -8
"""
NOTES = """Work each of these out.
1) 5/(m - 2) + 4/m     LCD: m(m - 2)
   = (5m)/(m(m - 2)) + (4m - 8)/(m(m - 2))
   = (9m - 8)/(m(m - 2))
2) (1/y + 1/4)/(y + 4)     LCD of top: 4y
   = ((4 + y)/(4y)) · 1/(y + 4)
   = 1/(4y)

Now something else, with care.

State the domain.
3) g(x) = 5/(x^2 - 4) = 5/((x - 2)(x + 2))
   Domain: x ≠ 2 & -2
"""
ARROWS = """Solve.
1. 2x + 9 = 15  →  2x = 6  →  x = 3
2. 3n - 1 = 3n + 4  →  no solution
3. 2(k + 3) = 2k + 6  →  all real numbers
4. P = 2a + 2b, for a:  2a = P - 2b, a = (P - 2b)/2
5. cx + d = e, for x:  x = (e - d)/c
"""


def read(text):
    proofs = proofread(text).proofs
    return {proof.problem.label: (proof.problem.working, [each.text for each in proof.findings]) for proof in proofs}


@pytest.mark.parametrize(
    ("text", "problems", "faulty"),
    [(BESIDE, 5, {"5"}), (OPTIONS, 4, set()), (NOTES, 3, set()), (ARROWS, 5, set())],
    ids=["answers beside", "options", "notes", "arrows"],
)
def test_every_problem_is_found_and_nothing_right_is_blamed(text, problems, faulty):
    found = read(text)
    assert len(found) == problems
    assert {label for label, (_, findings) in found.items() if findings} == faulty


@pytest.mark.parametrize(
    ("text", "old", "new", "label"),
    [
        (BESIDE, "(2x - 7)(2x + 7)", "(2x - 7)^2", "2"),
        (BESIDE, "x^2 + 5x + 8           prime", "x^2 + 6x + 8           prime", "4"),
        (OPTIONS, "   12 × 4\n   48", "   12 × 4\n   46", "2"),
        (OPTIONS, "x = 3 or -8", "x = -3 or 8", "4"),
        (NOTES, "LCD: m(m - 2)", "LCD: m + (m - 2)", "1"),
        (NOTES, "x ≠ 2 & -2", "x ≠ 2 & -1", "3"),
        (ARROWS, "→  no solution", "→  n = 4", "2"),
        (ARROWS, "a = (P - 2b)/2", "a = P - b", "4"),
    ],
)
def test_a_fault_in_them_is_found_and_no_other(text, old, new, label):
    assert old in text
    before = {name for name, (_, findings) in read(text).items() if findings}
    after = {name for name, (_, findings) in read(text.replace(old, new)).items() if findings}
    assert after - before == {label}


def test_what_is_passed_over_is_said():
    def skipped(text):
        return [row.text for row in proofread(text).out().skipped]

    assert skipped(OPTIONS) == ["132   b) 7   c) -7   d) 42", "3", "48", "12", "240"]
    assert skipped(NOTES) == ["Work each of these out.", "Now something else, with care."]


def test_two_solutions_on_a_line_are_no_two_steps():
    (working, findings) = read("Solve.\n1) x^2 = 5x\n   x = 0, x = 5\n")["1"]
    assert (working.lines, findings) == (("x = 0, x = 5",), [])


def test_letters_of_problems_are_no_options():
    found = read("Solve.\n1) 2x = 6\na) 3x = 12\n   x = 4\nb) 5x = 10\n   x = 2\nc) 7x = 7\n   x = 1\n")
    assert list(found) == ["1", "a", "b", "c"]
