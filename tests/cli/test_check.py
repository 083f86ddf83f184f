"""`uchuu check` in its three forms, as a program would use it."""

import io
import json
from pathlib import Path

import pytest
from jsonschema import Draft202012Validator

from cli.check import main

SCHEMAS = Path(__file__).parents[2] / "docs" / "schema"
SOUND = "task: solve\ngiven: 6/(x-2) = x/4 - 1\n---\n24 = x(x-2) - 4(x-2)   | ×4(x-2)\nx = 8 or x = -2\n"
BROKEN = "task: simplify\ngiven: (x+9)/x\n---\n9\n"
UNREADABLE = "task: simplify\ngiven: (x+9\n---\n9\n"


def run(arguments, text=""):
    out, err = io.StringIO(), io.StringIO()
    status = main(arguments, stdin=io.StringIO(text), out=out, err=err)
    return status, out.getvalue(), err.getvalue()


@pytest.mark.parametrize(
    ("text", "status", "words"),
    [
        (SOUND, 0, ["│ 24 = x(x-2)", "holds", "answer: correct"]),
        (BROKEN, 1, ["breaks", "x = 2: 11/2 before, 9 after"]),
        (UNREADABLE, 2, ["column 5", "not closed"]),
        (SOUND + "\n" + BROKEN, 1, ["answer: correct", "answer: wrong"]),
    ],
)
def test_the_text_form_is_printed_as_a_chain(text, status, words):
    found, out, _ = run(["-"], text)
    assert found == status
    for word in words:
        assert word in out


@pytest.mark.parametrize("text", [SOUND, BROKEN, UNREADABLE])
def test_the_json_object_follows_the_published_schema(text):
    _, out, _ = run(["--json", "-"], text)
    schema = json.loads((SCHEMAS / "report.schema.json").read_text())
    Draft202012Validator(schema).validate(json.loads(out))


def test_json_lines_keep_their_order_and_go_on_past_bad_ones():
    rows = [
        json.dumps({"id": "a", "task": "solve", "given": "2x = 4", "lines": ["x = 2"]}),
        "{not json",
        json.dumps({"id": "b", "task": "solve", "given": "2x = 4", "colour": "red"}),
        json.dumps({"id": "c", "task": "simplify", "given": "2/4", "lines": ["1/2"], "conventions": {"hue": "1"}}),
        json.dumps({"id": "d", "task": "evaluate", "given": "1/2 + 1/2", "lines": ["1"]}),
    ]
    status, out, _ = run(["--jsonl"], "\n".join(rows))
    found = [json.loads(line) for line in out.splitlines()]
    assert status == 2
    assert [row["id"] for row in found] == ["a", None, "b", "c", "d"]
    assert found[0]["answer"]["verdict"] == found[4]["answer"]["verdict"] == "correct"
    assert (found[2]["error"], found[2].pop("ignored")) == (None, ["colour"])
    assert "hue" in found[3]["error"]["message"]
    assert all(row.keys() == found[0].keys() for row in found)


def test_a_missing_file_is_named(tmp_path):
    status, _, err = run([str(tmp_path / "nothing.chain")])
    assert status == 2
    assert "nothing.chain" in err
