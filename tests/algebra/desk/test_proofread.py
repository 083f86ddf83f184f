"""A pasted key: how it is taken apart, and what is found in it."""

from pathlib import Path

import pytest

from algebra import TaskError, proofread

CORPUS = Path(__file__).parents[2] / "corpus"


def shape(text):
    """(label, task, given, lines) of every problem."""
    return [
        (p.problem.label, p.problem.working.task, p.problem.working.given, list(p.problem.working.lines))
        for p in proofread(text).proofs
    ]


CASES = [
    ("3x = 6\nx = 2", [("1", "solve", "3x = 6", ["x = 2"])]),
    ("1) 3x = 6\nx = 2\n2) 5x = 0\nx = 0", [("1", "solve", "3x = 6", ["x = 2"]), ("2", "solve", "5x = 0", ["x = 0"])]),
    ("3x = 6\nx = 2\n\n5x = 0\nx = 0", [("1", "solve", "3x = 6", ["x = 2"]), ("2", "solve", "5x = 0", ["x = 0"])]),
    ("Simplify.\n1. √8\n= 2√2", [("1", "simplify", "√8", ["2√2"])]),
    ("Simplify √8 = 2√2", [("1", "simplify", "√8", ["2√2"])]),
    ("2 + 3·4 = 2 + 12 = 14", [("1", "evaluate", "2 + 3·4", ["2 + 12", "14"])]),
    ("Problem 3: Solve for t: 2t = 8.\nSo t = 4.", [("3", "solve", "2t = 8", ["t = 4"])]),
    ("Factor completely: x^2 - 4\n(x-2)(x+2)", [("1", "factor", "x^2 - 4", ["(x-2)(x+2)"])]),
    ("Find the domain of (x+1)/(x-2)\nx ≠ 2", [("1", "domain", "(x+1)/(x-2)", ["x ≠ 2"])]),
    ("a) (a) + b\nb) 2(a+b)", [("a", "simplify", "(a) + b", []), ("b", "simplify", "2(a+b)", [])]),
    ("task: solve\ngiven: 3x = 6\n---\nx = 2\n", [("1", "solve", "3x = 6", ["x = 2"])]),
    (
        "Homework 12 — Answers\n• 2x = 4 ⇒ x = 2\n• 3x = 6 → x = 2 ✓",
        [("1", "solve", "2x = 4", ["x = 2"]), ("2", "solve", "3x = 6", ["x = 2"])],
    ),
    ("2/(x-1) = 3/(x+2), x ≠ 1, -2\nx = 7", [("1", "solve", "2/(x-1) = 3/(x+2)", ["x ≠ 1, -2", "x = 7"])]),
    (
        "5. Evaluate: (a) 3 + 4·2\n11\n(b) 2·3^2\n18",
        [("5", "evaluate", "3 + 4·2", ["11"]), ("b", "evaluate", "2·3^2", ["18"])],
    ),
    (r"\[ \frac{x}{2} = 3 \]" + "\n" + r"x = 6", [("1", "solve", r"\frac{x}{2} = 3", ["x = 6"])]),
]


@pytest.mark.parametrize(("text", "problems"), CASES)
def test_a_key_is_taken_apart(text, problems):
    assert shape(text) == problems


def test_a_key_typed_in_a_document_is_proofread():
    found = proofread((CORPUS / "key-as-pasted.txt").read_text(encoding="utf-8"))
    faulty = {p.problem.label: [(f.line, f.kind) for f in p.findings] for p in found.proofs if p.findings}
    assert faulty == {
        "2": [(5, "breaks"), (None, "unfinished")],
        "3": [(1, "breaks"), (None, "wrong")],
        "5": [(1, "breaks"), (None, "wrong")],
        "6": [(1, "breaks"), (None, "wrong")],
    }
    assert found.key.skipped == ((1, "Harbour Evening School - key, unit 4"),)
    third = found.proofs[2]
    assert third.problem.place_of(1) == 15
    assert third.findings[0].instead == "6 + 3x = 7x   | ×3x"
    assert "prime" in found.proofs[5].findings[1].text


def test_a_key_in_latex_is_proofread():
    found = proofread((CORPUS / "key-as-pasted.tex").read_text(encoding="utf-8"))
    assert [p.problem.working.task for p in found.proofs] == ["solve", "simplify", "solve"]
    assert [bool(p.findings) for p in found.proofs] == [False, False, True]
    assert found.proofs[2].problem.working.method == "completing-the-square"
    assert found.proofs[2].report.links[0].slip.id == "square-completed-one-side"


@pytest.mark.parametrize(
    ("text", "words"),
    [("", "No problem"), ("Dear colleagues,\nsee you soon.", "No problem"), ("x" * 100_001, "100,000")],
)
def test_a_text_that_is_no_key_is_refused(text, words):
    with pytest.raises(TaskError, match=words):
        proofread(text)


def test_what_can_not_be_read_is_named_and_the_rest_goes_on():
    found = proofread("Solve 2(x-1) = 4\n2x - 2 = (4\n2x = 6\nx = 3")
    assert [proof.findings for proof in found.proofs] == [()]
    assert found.not_understood == [(2, "2x - 2 = (4")]


@pytest.mark.parametrize(
    ("key", "sentences"),
    [
        ("Domain of f(x) = 1/((x+5)(x-2))\nx ∈ ℝ, x ≠ -5, 2", []),
        ("Domain of f(x) = 1/((x+5)(x-2))\nD = (-∞, -5) ∪ (2, ∞)", ["x = 1 the given is defined", "be x ≠ -5, 2."]),
        ("Domain of √(x-3)/(x-5)\nx ≥ 3", ["x = 5 the given is undefined", "be [3, 5) ∪ (5, ∞)."]),
        ("Domain of x/(x^2+1)\nx ≠ 1", ["x = 1 the given is defined", "be all real numbers."]),
        (
            "Solve x/x = 1\nx = 1",
            ["A solution is lost", "all other values are missing. It should be all real numbers except 0."],
        ),
        ("Solve x + 1 = x + 2\nx = 2", ["does not follow", "There is no solution."]),
        ("Solve x^2 = 9\nx = 3", ["A solution is lost", "It should be 3 or -3."]),
    ],
)
def test_what_should_stand_there_is_said(key, sentences):
    (proof,) = proofread(key).proofs
    found = [finding.text for finding in proof.findings]
    assert len(found) == len(sentences)
    assert all(part in text for part, text in zip(sentences, found, strict=True))


@pytest.mark.parametrize(
    ("text", "task"),
    [
        ("1) x + 0,5 = 2\nx = 1,5", "solve"),
        ("1) 0,5x + 1,5x\n= 2x", "simplify"),
        ("Simplify: 0,5x + 1,5x\n= 2x", "simplify"),
    ],
)
def test_a_key_with_decimal_commas_is_taken_in_without_an_instruction(text, task):
    (proof,) = proofread(text, {"decimal": "comma"}).proofs
    assert (proof.problem.working.task, proof.report.answer.verdict, proof.findings) == (task, "correct", ())
