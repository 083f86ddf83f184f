"""What the tests of the forms share: problems, and what comes of an answer in one look."""

from algebra import item_scheme, judge, propose_for

PROBLEMS = [
    ("solve", "3(x - 2) = 12"),
    ("solve", "x^2 = 9x"),
    ("simplify", "√50 + √8"),
    ("solve", "√(x + 6) = x"),
    ("factor", "2x^2 + 14x + 20"),
    ("simplify", "3/x + 2/(x + 1)"),
    ("evaluate", "18 - 6 ÷ 3 × 2"),
    ("solve", "2/x + 1 = 7/3"),
]


def marks(item, *lines):
    """The relation of each line, the verdict, what is proposed, and what it is worth."""
    report = judge(item, lines)
    proposal = propose_for(item, item_scheme(item), lines, report)
    told = ["error" if link.error else link.relation for link in report.links]
    return told, report.answer.verdict, proposal.mark, proposal.total
