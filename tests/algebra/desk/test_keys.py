"""Whole keys as teachers type and paste them: every planted error is found at its line, and nothing else is blamed."""

from pathlib import Path

import pytest

from algebra.desk.proofread import proofread

KEYS = Path(__file__).parents[2] / "corpus" / "keys"
CONTENTS = {
    "labels.txt": (7, {"b": (2, "breaks")}),
    "rational.txt": (8, {"4": (2, "breaks")}),
    "factoring.txt": (10, {"8": (1, "breaks"), "10": (None, "unfinished")}),
    "radical.txt": (5, {}),
    "exponents.txt": (10, {"h": (1, "breaks")}),
    "quadratics.tex": (5, {"4": (1, "breaks")}),
    "functions.txt": (3, {"3": (1, "breaks")}),
    "order.txt": (5, {"3": (1, "breaks")}),
    "exponential.txt": (5, {"5": (2, "breaks")}),
    "literal.txt": (4, {"4": (1, "breaks")}),
}
"""How many problems each holds, and the first that is found in those that are not right."""
LISTED_BY_SIGNS = {"solutions": "plus-minus"}


@pytest.mark.parametrize("name", CONTENTS)
def test_the_errors_of_a_key_and_only_they_are_found(name):
    count, planted = CONTENTS[name]
    found = proofread((KEYS / name).read_text(encoding="utf-8"), LISTED_BY_SIGNS)
    assert len(found.proofs) == count
    told = [(p.problem.label, (p.findings[0].line, p.findings[0].kind)) for p in found.proofs if p.findings]
    assert dict(told) == planted
    assert len(told) == len(planted)


def test_what_is_not_understood_is_shown_apart():
    found = proofread("1. Factor 3x^2 - 10x + 8\nac = 24, -6 and -4\n(3x-4)(x-2)\n2. Solve 2x = 6\nx = 3)\nx = 3")
    assert [bool(p.findings) for p in found.proofs] == [False, False]
    assert found.not_understood == [(2, "ac = 24, -6 and -4"), (5, "x = 3)")]
    assert [(row.line, row.text) for row in found.out().skipped] == found.not_understood


def test_a_problem_that_stands_twice_is_said():
    found = proofread("1. Solve 2x = 6\nx = 3\n2. Solve x + 1 = 4\nx = 3\n3. Solve 2x=6\nx = 3")
    assert [[f.kind for f in p.findings] for p in found.proofs] == [[], [], ["repeated"]]
    assert "number 1" in found.proofs[2].findings[0].text


@pytest.mark.parametrize(
    ("text", "lines"),
    [
        ("1. Solve √x = 3\nx = 9\nCheck: √9 = 3", ("x = 9", "Check: √9 = 3")),
        (
            "1. Solve √(x+2) = x\nx = 2 or x = -1\ncheck: 2 = 2\ncheck: 1 ≠ -1\nx = 2",
            ("x = 2 or x = -1", "check: 2 = 2", "check: 1 ≠ -1", "x = 2"),
        ),
        ("1. Solve 2x = 7\nx = 14/4\n= 7/2", ("x = 14/4", "= 7/2")),
        ("1. Solve 1/(x-2) = 2/(x-2)\n1 = 2 so no solution", ("1 = 2", "no solution")),
    ],
)
def test_what_a_line_leaves_unsaid_is_understood(text, lines):
    (proof,) = proofread(text).proofs
    assert proof.problem.working.lines == lines
    assert all(link.relation in ("holds", "widens", "settles") for link in proof.report.links)


@pytest.mark.parametrize(
    ("text", "labels"),
    [
        ("12. 2x = 4\nx = 2\n12), a. 3x = 6\nx = 2\nb. 4x = 8\nx = 2", ["12", "12a", "b"]),
        ("36.1  2x = 4\nx = 2\n36.2  3x = 6\nx = 2", ["36.1", "36.2"]),
        ("Practice b) 2x = 4\nx = 2\nExample 3: 3x = 6\nx = 2", ["b", "3"]),
        ("i) 2x = 4\nx = 2\nj) 3x = 6\nx = 2", ["i", "j"]),
        ("(4) 2x = 4\nx = 2\nQ5. 3x = 6\nx = 2", ["4", "5"]),
    ],
)
def test_labels_of_any_kind(text, labels):
    assert [proof.problem.label for proof in proofread(text).proofs] == labels
