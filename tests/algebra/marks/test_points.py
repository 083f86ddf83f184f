"""Each point of a proposal as a teacher reads it: for what, how much of its worth, at which line, and why."""

import pytest

from algebra import Scheme, Working, check, propose

M, A, C, F, E = "method", "accuracy", "check", "form", "excluded"
MMA, MA = (M, M, A), (M, A)
LINEAR, NO_WORKING, BROKEN = "3x + 7 = 22", "x^2 + 6x = 7", "2x + 4 = 10"
ACROSS = ("2x = 14", "2x = 6", "x = 3")
MINUS = ("5 - 2x - 6 = 1", "-2x = 2", "x = -1")
ROOT = "√(x + 6) = x"
TO_CANDIDATES = ("x + 6 = x^2", "0 = x^2 - x - 6", "0 = (x-3)(x+2)", "x = 3 or x = -2")
FRACTION = "(x^2 - 4)/(x^2 - x - 2)"
CANCELLED = ("((x-2)(x+2))/((x-2)(x+1))", "(x+2)/(x+1)")


def points(total, kinds=MMA, **settings):
    return Scheme("points", total, kinds, **settings)


def shown(scheme, task, given, lines):
    working = Working(task, given, tuple(lines))
    found = propose(working, scheme, check(working))
    rows = [f"{p.kind} {p.got:g}/{p.worth:g} @{p.line or '-'} {p.why}" for p in found.points]
    return found.mark, rows, (found.eye, found.slip, found.line)


NOTHING_SEEN = ((), "", None)
BY_POINTS = [
    (
        points(3),
        LINEAR,
        ("3x = 15", "x = 5"),
        3,
        ["method 1/1 @1 line 1 holds", "method 1/1 @2 line 2 holds", "accuracy 1/1 @2 the answer is right"],
        NOTHING_SEEN,
    ),
    (
        points(3),
        LINEAR,
        ("3x = 15",),
        1,
        ["method 1/1 @1 line 1 holds", "method 0/1 @1 the working stops here", "accuracy 0/1 @1 not finished"],
        NOTHING_SEEN,
    ),
    (
        points(3),
        LINEAR,
        ("3x = 29", "x = 29/3"),
        1,
        [
            "method 1/1 @2 line 2 holds, after the error too",
            "method 0/1 @1 line 1: carried across unchanged",
            "accuracy 0/1 @1 lost at line 1: carried across unchanged; the rest follows through",
        ],
        ((), "moved-same-sign", 1),
    ),
    (
        points(3),
        LINEAR,
        ("x = 91",),
        0,
        [
            "method 0/1 @- line 1: it does not follow",
            "method 0/1 @- line 1: it does not follow",
            "accuracy 0/1 @1 lost at line 1: it does not follow",
        ],
        (("unknown-slip",), "", 1),
    ),
    (
        points(3),
        LINEAR,
        (),
        0,
        [
            "method 0/1 @- no step that leads on",
            "method 0/1 @- no step that leads on",
            "accuracy 0/1 @- there is no answer",
        ],
        NOTHING_SEEN,
    ),
    (
        points(3),
        NO_WORKING,
        ("x = 1 or x = -7",),
        1,
        [
            "method 0/1 @- there is an answer, no working",
            "method 0/1 @- there is an answer, no working",
            "accuracy 1/1 @1 the answer is right",
        ],
        (("answer-alone",), "", None),
    ),
    (
        points(2, MA, answer_alone="none"),
        NO_WORKING,
        ("x = 1 or x = -7",),
        0,
        [
            "method 0/1 @- there is an answer, no working",
            "accuracy 0/1 @1 the answer is right, but there is no working",
        ],
        (("answer-alone",), "", None),
    ),
    (
        points(3),
        BROKEN,
        ACROSS,
        1,
        [
            "method 1/1 @2 line 2 holds, after the error too",
            "method 0/1 @1 line 1: carried across unchanged",
            "accuracy 0/1 @1 right at the end, but line 1 breaks",
        ],
        (("broken-right",), "moved-same-sign", 1),
    ),
    (
        points(3),
        "5 - 2(x - 3) = 1",
        MINUS,
        2,
        [
            "method 1/1 @1 line 1: the step is right, minus on the first term only",
            "method 1/1 @2 line 2 holds, after the error too",
            "accuracy 0/1 @1 lost at line 1: minus on the first term only; the rest follows through",
        ],
        ((), "minus-on-first-term-only", 1),
    ),
    (
        points(2, MA, lucky="loses"),
        "x/3 + x/5 = 0",
        ("2x/8 = 0", "x = 0"),
        1,
        ["method 1/1 @1 line 1 holds", "accuracy 0/1 @1 right by luck at line 1"],
        (("lucky",), "", None),
    ),
    (
        points(4, (M, A, C, F)),
        ROOT,
        (*TO_CANDIDATES, "check x = -2: √4 ≠ -2", "check x = 3: 3 = 3", "x = 3"),
        4,
        [
            "method 1/1 @1 line 1 holds",
            "accuracy 1/1 @7 the answer is right",
            "check 1/1 @6 checked",
            "form 1/1 @7 finished",
        ],
        NOTHING_SEEN,
    ),
    (
        points(4, (M, A, C, F)),
        ROOT,
        (*TO_CANDIDATES, "check x = -2: √4 ≠ -2", "x = 3"),
        3,
        [
            "method 1/1 @1 line 1 holds",
            "accuracy 1/1 @6 the answer is right",
            "check 0/1 @- a check is missing",
            "form 1/1 @6 finished",
        ],
        (("owed",), "", None),
    ),
    (
        points(8, (M, A, C, F)),
        ROOT,
        TO_CANDIDATES,
        2,
        [
            "method 2/2 @1 line 1 holds",
            "accuracy 0/2 @4 a value that does not solve it is kept",
            "check 0/2 @- nothing is checked",
            "form 0/2 @4 there is no right answer to be finished",
        ],
        ((), "extraneous-kept", None),
    ),
    (
        points(2, (A, C)),
        ROOT,
        (*TO_CANDIDATES, "check x = -2: √4 = -2"),
        0,
        ["accuracy 0/1 @4 a value that does not solve it is kept", "check 0/1 @5 the check at line 5 does not hold"],
        ((), "extraneous-kept", None),
    ),
]
BY_OTHERS = [
    (
        Scheme("steps", 3),
        LINEAR,
        ("3x = 15", "x = 5"),
        3,
        ["step 1/1 @- the answer is right and every line holds"] * 3,
        NOTHING_SEEN,
    ),
    (
        Scheme("steps", 3),
        LINEAR,
        ("3x = 15",),
        1,
        ["step 1/1 @1 line 1 holds", "step 0/1 @- the working stops", "step 0/1 @- the working stops"],
        NOTHING_SEEN,
    ),
    (
        Scheme("steps", 2),
        LINEAR,
        ("3x = 29", "x = 29/3"),
        1,
        ["step 1/1 @2 line 2 holds", "step 0/1 @1 line 1: carried across unchanged"],
        ((), "moved-same-sign", 1),
    ),
    (
        Scheme("steps", 1),
        LINEAR,
        ("3x = 29", "x = 29/3"),
        0,
        ["step 0/1 @1 line 1: carried across unchanged"],
        ((), "moved-same-sign", 1),
    ),
    (
        Scheme("steps", 3),
        BROKEN,
        ACROSS,
        2,
        ["step 1/1 @2 line 2 holds", "step 1/1 @3 line 3 holds", "step 0/1 @1 line 1: carried across unchanged"],
        (("broken-right",), "moved-same-sign", 1),
    ),
    (
        Scheme("steps", 2, answer_alone="none"),
        NO_WORKING,
        ("x = 1 or x = -7",),
        1,
        ["step 1/1 @1 line 1 holds", "step 0/1 @- the working stops"],
        (("answer-alone",), "", None),
    ),
    (
        Scheme("answer", 3),
        LINEAR,
        ("3x = 15", "x = 5"),
        3,
        ["answer 3/3 @2 the answer is right"],
        NOTHING_SEEN,
    ),
    (Scheme("answer", 3), LINEAR, ("3x = 15",), 0, ["answer 0/3 @1 there is no answer"], NOTHING_SEEN),
    (Scheme("answer", 3), LINEAR, (), 0, ["answer 0/3 @- there is no answer"], NOTHING_SEEN),
    (
        Scheme("answer", 3),
        LINEAR,
        ("3x = 29", "x = 29/3"),
        0,
        ["answer 0/3 @2 the answer is wrong"],
        ((), "moved-same-sign", 1),
    ),
    (
        Scheme("answer", 3),
        "x^2 = 49",
        ("x = 7",),
        1.5,
        ["answer 1.5/3 @1 a part of the answer is right"],
        ((), "plus-minus-missing", 1),
    ),
    (
        Scheme("answer", 3, broken_right="loses"),
        BROKEN,
        ACROSS,
        0,
        ["answer 0/3 @3 the answer is right, but line 1 breaks: carried across unchanged"],
        (("broken-right",), "moved-same-sign", 1),
    ),
    (
        Scheme("answer", 3, broken_right="keeps"),
        BROKEN,
        ACROSS,
        3,
        ["answer 3/3 @3 the answer is right"],
        (("broken-right",), "moved-same-sign", 1),
    ),
    (
        Scheme("answer", 3, answer_alone="none"),
        NO_WORKING,
        ("x = 1 or x = -7",),
        0,
        ["answer 0/3 @1 the answer is right, but there is no working"],
        (("answer-alone",), "", None),
    ),
    (
        Scheme("levels", 4),
        LINEAR,
        ("3x = 15", "x = 5"),
        4,
        ["level 4/4 @2 right and finished"],
        NOTHING_SEEN,
    ),
    (
        Scheme("levels", 8),
        LINEAR,
        ("3x = 15",),
        4,
        ["level 4/8 @1 some right steps, not to a right end"],
        NOTHING_SEEN,
    ),
    (
        Scheme("levels", 4),
        LINEAR,
        ("3x = 29", "x = 29/3"),
        2,
        ["level 2/4 @1 some right steps, not to a right end (line 1: carried across unchanged)"],
        ((), "moved-same-sign", 1),
    ),
    (
        Scheme("levels", 4),
        LINEAR,
        ("x = 91",),
        0,
        ["level 0/4 @1 nothing that leads to the answer (line 1: it does not follow)"],
        (("unknown-slip",), "", 1),
    ),
    (Scheme("levels", 4), LINEAR, (), 0, ["level 0/4 @- nothing that leads to the answer"], NOTHING_SEEN),
    (
        Scheme("levels", 4),
        "x^2 = 49",
        ("x = 7",),
        1,
        ["level 1/4 @1 a beginning, or a part of the answer (line 1: one root only)"],
        ((), "plus-minus-missing", 1),
    ),
    (
        Scheme("levels", 4),
        "5 - 2(x - 3) = 1",
        MINUS,
        3,
        [
            "level 3/4 @1 the right way, with a slip of care or not quite finished (line 1: minus on the first term "
            "only)"
        ],
        ((), "minus-on-first-term-only", 1),
    ),
    (
        Scheme("levels", 4),
        ROOT,
        TO_CANDIDATES,
        2,
        ["level 2/4 @4 some right steps, not to a right end"],
        ((), "extraneous-kept", None),
    ),
]


@pytest.mark.parametrize(("scheme", "given", "lines", "mark", "rows", "seen"), BY_POINTS + BY_OTHERS)
def test_what_an_equation_earns_and_why(scheme, given, lines, mark, rows, seen):
    assert shown(scheme, "solve", given, lines) == (mark, rows, seen)


@pytest.mark.parametrize(
    ("scheme", "task", "given", "lines", "mark", "rows"),
    [
        (
            points(3, (M, E, F)),
            "simplify",
            FRACTION,
            CANCELLED,
            2,
            [
                "method 1/1 @1 line 1 holds",
                "excluded 0/1 @- no excluded values are named",
                "form 1/1 @2 finished",
            ],
        ),
        (
            points(3, (M, E, F)),
            "simplify",
            FRACTION,
            ("x ≠ 2, -1", *CANCELLED),
            3,
            [
                "method 1/1 @2 line 2 holds",
                "excluded 1/1 @1 all excluded values are named",
                "form 1/1 @3 finished",
            ],
        ),
        (
            points(3, (M, E, F)),
            "simplify",
            FRACTION,
            ("x ≠ -1", *CANCELLED),
            2,
            ["method 1/1 @2 line 2 holds", "excluded 0/1 @- excluded values are missing", "form 1/1 @3 finished"],
        ),
        (
            points(2, (A, F)),
            "simplify",
            FRACTION,
            CANCELLED[:1],
            1,
            ["accuracy 1/1 @1 the answer is right", "form 0/1 @1 Top and bottom still share the factor x - 2."],
        ),
        (
            Scheme("answer", 3),
            "simplify",
            "√72",
            ("√36·√2",),
            1.5,
            ["answer 1.5/3 @1 the value is right, not finished"],
        ),
        (
            Scheme("answer", 3, rounding="whole"),
            "simplify",
            "√72",
            ("√36·√2",),
            2,
            ["answer 1.5/3 @1 the value is right, not finished"],
        ),
        (
            Scheme("levels", 4),
            "simplify",
            "√72",
            ("√36·√2",),
            3,
            ["level 3/4 @1 the right way, with a slip of care or not quite finished"],
        ),
        (
            Scheme("steps", 6),
            "analyze",
            f"f(x) = {FRACTION}",
            ("hole: (2, 4/3)", "vertical asymptotes: x = -1, x = 2", "x-intercept: -2"),
            2,
            [
                "step 1/1 @- hole: (2, 4/3) is right",
                "step 1/1 @- x-intercept: -2 is right",
                "step 0/1 @- vertical asymptotes: x = -1, x = 2 is wrong",
                "step 0/1 @- domain is missing",
                "step 0/1 @- vertical asymptote is missing",
                "step 0/1 @- horizontal asymptote is missing",
            ],
        ),
        (Scheme("steps", 2), "analyze", f"f(x) = {FRACTION}", (), 0, ["step 0/1 @- nothing is stated"] * 2),
    ],
)
def test_what_other_tasks_earn_and_why(scheme, task, given, lines, mark, rows):
    assert shown(scheme, task, given, lines)[:2] == (mark, rows)


@pytest.mark.parametrize(
    ("one", "other", "alike"),
    [
        (("x = 91",), ("x = 92",), False),  # two unnamed errors
        (("3x = 29", "x = 29/3"), ("29 = 3x", "29/3 = x"), True),  # with the sides turned round
        (("3x = 15",), ("3x = 15", "x = 5"), False),
        (("3x = 15", "x = 6"), ("3x = 15", "x = 4"), False),  # the same line, then other wrong answers
        ((), ("3x = (",), False),
    ],
)
def test_what_is_decided_in_one(one, other, alike):
    def mark_of(lines):
        working = Working("solve", LINEAR, lines)
        return propose(working, points(3), check(working)).alike

    assert (mark_of(one) == mark_of(other)) is alike
