"""Records and their JSON: every field, nothing twice, and a schema that says what is always there."""

import json
from dataclasses import field, fields, replace

import pytest

from algebra import (
    CONVENTIONS,
    OTHER_SPELLINGS,
    TASKS,
    Echo,
    Link,
    TaskError,
    Working,
    check,
    complete_schema,
    json_object,
    json_value,
)
from algebra.records import record, widened
from algebra.reports.report import MoveSeen, PointEvidence
from algebra.reports.schema import records


@record(frozen=True)
class Leaf:
    name: str
    note: str | None = field(default=None, metadata={"left_out_when_none": True})


@record(frozen=True)
class Tree:
    leaves: tuple[Leaf, ...]
    by_name: dict[str, Leaf]
    root: Leaf | None = None


@record(frozen=True)
class WiderLeaf(Leaf):
    colour: str = ""


def test_a_record_becomes_an_object_of_its_fields():
    leaf = Leaf("a")
    assert json_object(Tree((leaf,), {"a": Leaf("b", "n")})) == {
        "leaves": [{"name": "a"}],
        "by_name": {"a": {"name": "b", "note": "n"}},
        "root": None,
    }


@pytest.mark.parametrize("value", [None, True, 3, 2.5, "x", [1, None], {"a": [1]}])
def test_json_values_stay_as_they_are(value):
    assert json_value(value) == value


@pytest.mark.parametrize("value", [{1, 2}, object(), b"x", 1j])
def test_what_has_no_json_form_is_refused(value):
    with pytest.raises(TypeError, match="has no JSON form"):
        json_value(value)


def test_records_are_compared_and_hashed_by_their_fields_and_made_anew_by_replacing():
    leaf = Leaf("a")
    assert leaf == Leaf("a") != Leaf("b")
    assert len({leaf, Leaf("a"), Leaf("b")}) == 2
    assert replace(leaf, name="b") == Leaf("b")
    with pytest.raises(AttributeError):
        leaf.colour = "red"
    with pytest.raises(ValueError, match="ordinary dataclass"):
        record(frozen=False)


def test_a_record_is_widened_by_what_comes_besides():
    assert widened(WiderLeaf, Leaf("a", "n"), colour="red") == WiderLeaf("a", "n", "red")
    assert json_object(widened(WiderLeaf, Leaf("a"), colour="red")) == {"name": "a", "colour": "red"}


def test_what_is_left_out_is_so_only_where_it_is_none():
    assert "as_stated" not in json_object(MoveSeen("rewrite", ""))
    assert json_object(MoveSeen("rewrite", "", "+3", False))["as_stated"] is False
    assert "plain" not in json_object(PointEvidence("t"))
    assert json_object(PointEvidence("t"))["before"] is None


def test_no_two_records_have_one_name():
    """The schemas are kept by name: a second record of a name would take the place of the first."""
    names = [kind.__name__ for kind in records()]
    assert len(names) == len(set(names))
    assert {
        "Report",
        "Link",
        "Answer",
        "Echo",
        "SolutionReport",
        "FeaturesReport",
        "PredictionReport",
        "ProofsReport",
    } <= set(names)


def test_a_schema_says_which_fields_are_always_there():
    schema = {
        "MoveSeen": {"properties": {name: {"default": None} for name in ("name", "text", "stated", "as_stated")}},
        "Other": {},
    }
    complete_schema(schema)
    assert schema["MoveSeen"]["required"] == ["name", "text"]
    assert schema["MoveSeen"]["properties"]["name"] == {}
    assert schema["MoveSeen"]["properties"]["stated"] == {"default": None}
    assert schema["Other"] == {}


def test_a_report_is_whole_json_with_the_same_keys_whatever_happened():
    workings = [
        Working("solve", "x^2 = 9x", ("x = 9",)),
        Working("simplify", "(x+9)/x", ("9",)),
        Working("simplify", "x + (", ("x",)),
        Working("guess", "x"),
        Working("solve", "x = 1", ("x = (", "check x = 1")),
    ]
    keys = {tuple(json_object(check(working))) for working in workings}
    assert len(keys) == 1
    assert keys == {tuple(f.name for f in fields(check(workings[0])))}
    for working in workings:
        text = json.dumps(json_object(check(working)))
        assert json.loads(text)["format"] == 1


def test_links_and_echoes_have_their_keys_in_the_order_of_their_fields():
    link = json_object(Link(1, "holds"))
    assert list(link)[:3] == ["line", "relation", "kind"]
    assert list(json_object(Echo())) == [f.name for f in fields(Echo)]


class TestWorking:
    @pytest.mark.parametrize("task", [*TASKS, *OTHER_SPELLINGS])
    def test_every_task_is_known(self, task):
        Working(task, "x").validate()

    @pytest.mark.parametrize(
        ("working", "words"),
        [
            (Working("guess", "x"), "Unknown task “guess”"),
            (Working("solve", "x", numbers="odd"), "Unknown numbers “odd”"),
            (Working("solve", "x", conventions={"hue": "red"}), "Unknown convention “hue”"),
            (Working("solve", "x", conventions={"decimal": "dot"}), "one of point, comma, not “dot”"),
        ],
    )
    def test_the_first_thing_that_is_unknown_is_named(self, working, words):
        with pytest.raises(TaskError) as refused:
            working.validate()
        assert words in refused.value.message
        assert check(working).error.message == refused.value.message

    @pytest.mark.parametrize(("key", "positions"), CONVENTIONS.items())
    def test_the_first_position_of_a_convention_is_in_force_until_another_is_chosen(self, key, positions):
        assert Working("solve", "x").convention(key) == positions[0]
        for position in positions:
            chosen = Working("solve", "x", conventions={key: position})
            chosen.validate()
            assert chosen.convention(key) == position
