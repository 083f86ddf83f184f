"""Every rule: its words, its weight, and its examples confirmed by the exact core."""

import re

import pytest

from algebra import Working, check, decide
from algebra.rules import BY_ID, RULES

EXPECTED = {"value": {"holds"}, "solutions": {"holds"}, "widens": {"holds", "widens"}, "settles": {"holds", "settles"}}


def test_ids_are_unique_and_in_the_field_s_form():
    assert len(BY_ID) == len(RULES)
    assert all(re.fullmatch(r"[a-z]+(-[a-z]+)*", rule.id) for rule in RULES)


@pytest.mark.parametrize("rule", RULES, ids=lambda rule: rule.id)
def test_a_rule_says_what_is_done_and_why(rule):
    slots = set(re.findall(r"\{(\w*)\}", rule.reason))
    assert slots <= {"what", "half", "square", "order"}
    assert rule.name[0].isupper()
    assert rule.weight > 0


EXAMPLES = [(rule, before, after) for rule in RULES for before, after in rule.examples]


@pytest.mark.parametrize(("rule", "before", "after"), EXAMPLES, ids=lambda value: getattr(value, "id", str(value)))
def test_the_core_confirms_every_example(rule, before, after):
    task = "solve" if "=" in before else "simplify"
    letters = {c for c in before + after if c.isalpha()} - set("orno")
    numbers = "complex" if "i" in letters and task == "simplify" else "real"
    if task == "solve" and len(letters & set("abcd")):
        report = check(Working(task, before, (after,), variable="x"))
        assert report.links[0].relation in EXPECTED[rule.preserves]
        return
    assert decide(Working(task, before, (after,), numbers=numbers)) in EXPECTED[rule.preserves]
