"""docs/slips.md, made from the catalogue of slips."""

from __future__ import annotations

from itertools import groupby

from algebra import SLIPS, Slip

HEAD = """\
# Slips: the student errors Uchuu recognises

Made by `./uchuu api-types` from the records in `algebra/slips/`; don't edit this page. A slip is named beside a broken
line only where its result is exactly the line written, up to order and to arithmetic carried out. How likely each is
thought to be, for foreseeing wrong answers, is a judgement in its record.

To add one: a record in the topic's file in `algebra/slips/`, with examples; `tests/algebra/slips/` confirms that each
example is truly wrong and is named, and that no right line is accused.
"""


def page() -> str:
    """The whole page as Markdown: one table a topic."""
    parts = [HEAD]
    ordered = sorted(SLIPS, key=lambda slip: slip.topic)
    for topic, slips in groupby(ordered, key=lambda slip: slip.topic):
        parts.append(
            f"\n## {topic.capitalize()}\n\n| id | name | kind | "
            f"example | why it fails | cue |\n|---|---|---|---|---|---|\n"
        )
        parts += [_row(slip) for slip in slips]
    return "".join(parts)


def _row(slip: Slip) -> str:
    examples = "; ".join(f"`{' ⏎ '.join(example[:-1])}` → `{example[-1]}`" for example in slip.examples)
    cells = [f"`{slip.id}`", slip.name, slip.kind, examples, slip.why, slip.cue]
    return "| " + " | ".join(cell.replace("|", "\\|") for cell in cells) + " |\n"
