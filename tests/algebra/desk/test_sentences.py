"""What a desk says word for word: of keys, of next steps, over problems, and why a function has no features."""

import pytest

from algebra import TaskError, Working, instruction, next_step, proofread
from algebra.desk.analysis import analysed


@pytest.mark.parametrize(
    ("key", "found"),
    [
        ("1) 3x = 6\n   x = 2", []),
        (
            "1) 3x = 6\n   3x + 1 = 8\n   x = 2",
            [
                (
                    1,
                    2,
                    "breaks",
                    "“3x + 1 = 8”: It does not follow. 6 ÷ 3 is 2, not 1. "
                    "x = 2 solves the line before (6 = 6), but not this line (7 ≠ 8).",
                    "x = 2   | ÷3",
                )
            ],
        ),
        (
            "1) Solve x^2 = 9\n x = 3",
            [
                (
                    1,
                    2,
                    "narrows",
                    "“x = 3”: A solution is lost. 9 has two roots, one positive and one negative. "
                    "x = -3 solves the line before (9 = 9), but not this line.",
                    "x = ±3",
                ),
                (
                    None,
                    None,
                    "incomplete",
                    "The answer is incomplete: x = -3 is missing. It should be 3 or -3.",
                    "",
                ),
            ],
        ),
        (
            "1) Solve √(x+6) = x\n x+6 = x^2\n x = 3 or x = -2\n x = 3",
            [(None, None, "unfinished", "Still to be checked in the given: 3, -2.", "")],
        ),
        (
            "1) Solve 1/(x-2) = 3\n x ≠ 3\n x = 7/3",
            [
                (
                    1,
                    2,
                    "breaks",
                    "“x ≠ 3”: These are not the excluded values. "
                    "For x = 3 the given is defined, so it is not excluded.",
                    "",
                )
            ],
        ),
        ("1) Solve 3x = 6", [(None, None, "empty", "There is no working under it.", "")]),
        (
            "1) Factor x^2+4\n(x+2)(x+2)",
            [
                (
                    1,
                    2,
                    "breaks",
                    "“(x+2)(x+2)”: It does not follow. x^2 + 4 has no real factors. x = 2: 8 before, 16 after",
                    "",
                ),
                (None, None, "wrong", "The answer is wrong. It does not factor: it is prime.", ""),
            ],
        ),
        (
            "1) Simplify (x^2-4)/(x-2)\n (x+2)(x-2)/(x-2)",
            [(None, None, "unfinished", "Top and bottom still share the factor x - 2.", "")],
        ),
        (
            "1) Solve 3x=12\n check x = 5: 15 = 12\n x = 4",
            [
                (
                    1,
                    2,
                    "breaks",
                    "“check x = 5: 15 = 12”: The check does not hold. The two sides are not equal, "
                    "so it does not solve the given. x = 5 in the given: 15 ≠ 12.",
                    "",
                )
            ],
        ),
        (
            "1) Solve 3x = 12\n x = 4 | -3",
            [(1, 2, "move", "“x = 4 | -3”: the move stated (-3) is not what was done.", "")],
        ),
        (
            "1) Simplify x/2+1\n aside: 4 = 5\n (x+2)/2",
            [(1, 2, "breaks", "“aside: 4 = 5”: It does not follow. 4 before, 5 after", "")],
        ),
        (
            "1) Domain of 1/(t-3)\n t ≠ 4",
            [
                (
                    1,
                    2,
                    "breaks",
                    "“t ≠ 4”: These are not the excluded values. "
                    "For t = 4 the given is defined, so it is not excluded.",
                    "",
                ),
                (None, None, "wrong", "The domain is wrong. It should be t ≠ 3.", ""),
            ],
        ),
        (
            "1) Solve 3x = 12\n x = 4\n\n2) Solve 3x = 12\n x = 4",
            [(None, None, "repeated", "The same problem stands as number 1.", "")],
        ),
    ],
)
def test_what_is_found_in_a_key(key, found):
    proofs = proofread(key)
    told = [(f.line, f.place, f.kind, f.text, f.instead) for proof in proofs.proofs for f in proof.findings]
    assert told == found
    assert proofs.sound is (found == [])


PM = "± stands for two values."


@pytest.mark.parametrize(
    ("given", "lines", "hint", "step"),
    [
        (
            "2x + 3 = 7",
            ("2x = 5",),
            ("Look at line 1 first: it does not follow from the line before it.", "", 1, "", False),
            None,
        ),
        (
            "3x = 12",
            ("3x = (",),
            ("Look at line 1 first: it does not follow from the line before it.", "", 1, "", False),
            None,
        ),
        (
            "2x + 3 = 7",
            ("2x = 5", "2x = 4"),
            ("What is the unknown multiplied by?", "simplify-then-undo", 2, "", False),
            ("x = 2   | ÷2", "divide-both-sides", "Both sides are divided by 2, so that the unknown stands alone."),
        ),
        ("x^2 = 36", ("x = ±6", "x = 6 or x = -6"), ("The answer is right and finished.", "", 2, "", True), None),
        (
            "x^2 - 6x + 5 = 0",
            ("x^2 - 6x = -5",),
            (
                "What is half of the coefficient of x, squared?",
                "completing-the-square",
                1,
                "Factoring would now take 4 lines in place of 6.",
                False,
            ),
            (
                "x^2 - 6x + 9 = -5 + 9   | +9",
                "complete-the-square",
                "Half of -6 is -3; its square 9 is added to both sides.",
            ),
        ),
        (
            "x^2 - 6x + 5 = 0",
            (),
            ("Look for two numbers with the right product and sum.", "factoring", 0, "", False),
            ("(x-1)(x-5) = 0", "factor-side", "-1 · -5 = 5 and -1 − 5 = -6."),
        ),
        (
            "√(x+6) = x",
            ("x + 6 = x^2", "x = 3 or x = -2"),
            ("Both sides were raised: is every candidate put into the given?", "", 2, "", False),
            ("check x = 3: 3 = 3", "check-candidate", "x = 3 solves the given."),
        ),
        (
            "√(x+6) = x",
            ("x + 6 = x^2", "x = 3 or x = -2", "check x = 3"),
            ("Both sides were raised: is every candidate put into the given?", "", 3, "", False),
            ("check x = -2: 2 ≠ -2", "check-candidate", "x = -2 does not solve the given."),
        ),
        (
            "√(x+6) = x",
            ("x + 6 = x^2", "x = 3 or x = -2", "check x = 3", "check x = -2: 2 ≠ -2"),
            ("Which candidates solved the given?", "", 4, "", False),
            ("x = 3", "keep-what-solves", "x = -2 does not solve the given."),
        ),
        (
            "x/(x-3) = 3/(x-3)",
            ("x = 3",),
            ("Is one of the candidates excluded?", "", 1, "", False),
            ("no solution", "drop-excluded", "x = 3 makes a denominator of the given zero."),
        ),
        (
            "x^2 = 16",
            ("x = ±4",),
            (PM, "", 1, "", False),
            ("x = 4 or x = -4", "split-plus-minus", PM),
        ),
    ],
)
def test_what_is_said_of_the_next_step(given, lines, hint, step):
    found = next_step(Working("solve", given, lines))
    assert (found.look, found.method, found.after_line, found.shorter, found.done) == hint
    assert (found.step and (found.step.text, found.step.rule.id, found.step.reason)) == step


def test_a_way_that_is_not_taught_is_not_taken():
    found = next_step(Working("solve", "x^2 - 6x + 5 = 0"), untaught=("factoring",))
    assert (found.method, found.step.text) == ("completing-the-square", "x^2 - 6x = -5   | -5")


def test_where_no_step_is_known_it_says_so():
    with pytest.raises(TaskError, match=r"^No next step is known from here\.$"):
        next_step(Working("solve", "x^5 - x - 1 = 0"))


@pytest.mark.parametrize(
    ("task", "method", "alone", "for_t"),
    [
        ("solve", None, "Solve", "Solve for t"),
        ("simplify", None, "Simplify", "Simplify"),
        ("factor", None, "Factor completely", "Factor completely"),
        ("expand", None, "Multiply out", "Multiply out"),
        ("evaluate", None, "Work out", "Work out"),
        ("domain", None, "State the domain", "State the domain"),
        ("analyze", None, "State all features and sketch the graph", "State all features and sketch the graph"),
        ("solve", "factoring", "Solve by factoring", "Solve for t by factoring"),
        ("solve", "square-root", "Solve by square roots", "Solve for t by square roots"),
        ("solve", "completing-the-square", "Solve by completing the square", "Solve for t by completing the square"),
        ("solve", "quadratic-formula", "Solve by the quadratic formula", "Solve for t by the quadratic formula"),
        ("solve", "clear-by-lcd", "Solve by clearing the denominators", "Solve for t by clearing the denominators"),
        ("solve", "cross-multiply", "Solve by cross-multiplying", "Solve for t by cross-multiplying"),
        ("solve", "substitution", "Solve by substitution", "Solve for t by substitution"),
        ("solve", "simplify-then-undo", "Solve", "Solve for t"),
    ],
)
def test_the_words_over_a_problem(task, method, alone, for_t):
    assert instruction(Working(task, "x", (), None, method=method)) == alone
    assert instruction(Working(task, "x", (), "t", method=method)) == for_t


@pytest.mark.parametrize(
    ("given", "variable", "why", "place"),
    [
        ("√x", None, "Only rational functions are analysed: no roots and no bars.", 1),
        ("|x|", None, "Only rational functions are analysed: no roots and no bars.", 1),
        ("1/0", None, "The given is undefined: it divides by zero.", 1),
        ("x/(x-x)", None, "The given is undefined: it divides by zero.", 1),
        ("(", None, "A number, letter or bracket is missing after “(”.", 2),
        ("a x/b", "x", "The function holds another letter.", 1),
        ("10^4000 x", None, "This power has more than 12000 binary digits.", 1),
    ],
)
def test_why_something_has_no_features(given, variable, why, place):
    found = analysed(given, variable=variable, with_graph=True)
    assert (found.error.message, found.error.line, found.error.column) == (why, 0, place)
    assert found.graph is None


def test_a_graph_stands_beside_the_features_where_it_is_asked_for():
    assert analysed("t/(t-2)", variable="t").graph is None
    assert analysed("t/(t-2)", variable="t").error is None
    assert analysed("t/(t-2)", variable="t", with_graph=True).graph is not None
