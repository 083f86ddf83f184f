"""Every command but check, as one would call it: what is printed, the JSON by its schema, the exit status, the
errors."""

import io
import json
from pathlib import Path

import pytest
from jsonschema import Draft202012Validator

from algebra import FAMILIES, METHODS, SLIPS, LineError, Report, TaskError
from cli import analyse, catalogues, check, generate, predict, solve
from cli.jsonform import working_from_json
from tools.main import COMMANDS, HELP
from tools.main import main as uchuu

SCHEMAS = Path(__file__).parents[2] / "docs" / "schema"


def run(command, *arguments, text=""):
    out, err = io.StringIO(), io.StringIO()
    inputs = {} if command is generate.main else {"stdin": io.StringIO(text)}
    status = command(list(arguments), out=out, err=err, **inputs)
    return status, out.getvalue(), err.getvalue()


def fits(name, data):
    Draft202012Validator(json.loads((SCHEMAS / f"{name}.schema.json").read_text())).validate(data)


@pytest.mark.parametrize(
    ("command", "arguments", "words"),
    [
        (solve.main, ["--given", "x^2 = 9x"], ["by factoring", "x(x-9) = 0", "Zero product.", "answer: 0, 9"]),
        (solve.main, ["--given", "x^2 = 9x", "--method", "quadratic-formula"], ["by quadratic-formula"]),
        (solve.main, ["--given", "x^2 = 9x", "--methods"], ["factoring", "quadratic-formula", "difficulty"]),
        (solve.main, ["--given", "(x+7)^2", "--task", "expand"], ["x^2 + 14x + 49"]),
        (solve.main, ["--given", "a x = 3", "--variable", "x"], ["x = 3/a"]),
        (solve.main, ["--given", "x^2 = -4", "--numbers", "complex"], ["2i"]),
        (predict.main, ["--given", "x^2 = 9x"], ["9", "Divided by the unknown"]),
        (predict.main, ["--given", "(x+7)^2", "--task", "expand"], ["x^2 + 49"]),
        (predict.main, ["--given", "x^2 = 9x", "--options", "3"], ["* 0 or 9"]),
        (analyse.main, ["--given", "1/(x-3)"], ["excluded values", "3", "y ≠ 0", "x → -∞"]),
        (generate.main, ["--family", "quadratic-equations", "--count", "2", "--seed", "3"], ["difficulty"]),
    ],
)
def test_what_is_printed(command, arguments, words):
    status, out, err = run(command, *arguments)
    assert (status, err) == (0, "")
    for word in words:
        assert word in out, out


@pytest.mark.parametrize(
    ("command", "arguments", "schema"),
    [
        (solve.main, ["--given", "x^2 = 9x"], "solution"),
        (solve.main, ["--given", "x^2 = 9x", "--latex"], "solution"),
        (solve.main, ["--given", "x^5 - x - 1 = 0"], "solution"),
        (solve.main, ["--given", "x = ("], "solution"),
        (solve.main, ["--given", "x^2 = 9x", "--methods"], "methods"),
        (predict.main, ["--given", "x^2 = 9x"], "prediction"),
        (predict.main, ["--given", "x^5 - x - 1 = 0"], "prediction"),
        (predict.main, ["--given", "x^2 = 9x", "--options", "4"], "options"),
        (analyse.main, ["--given", "(x^2-4)/(x^2-x-2)"], "analysis"),
        (analyse.main, ["--given", "√x"], "analysis"),
        (generate.main, ["--family", "linear-equations", "--count", "2"], "problems"),
        (generate.main, ["--family", "no-such-family"], "problems"),
    ],
)
def test_the_json_follows_the_published_schema(command, arguments, schema):
    _, out, _ = run(command, *arguments, "--json")
    for line in out.splitlines():
        fits(schema, json.loads(line))
    assert out.strip()


def test_latex_is_in_the_json_only_where_it_is_asked_for():
    plain = json.loads(run(solve.main, "--given", "x^2 = 9x", "--json")[1])
    latex = json.loads(run(solve.main, "--given", "x^2 = 9x", "--json", "--latex")[1])
    assert "after_latex" not in plain["steps"][0]
    assert latex["steps"][0]["after_latex"] == "x^{2} - 9x = 0"


@pytest.mark.parametrize(
    ("command", "arguments", "words"),
    [
        (solve.main, [], "name the problem with --given"),
        (solve.main, ["--given", "x = ("], "missing after"),
        (solve.main, ["--given", "x = 1", "--method", "no-such-method"], "no-such-method"),
        (solve.main, ["--given", "x = 1", "--convention", "hue=red"], "hue"),
        (solve.main, ["--given", "x + 1", "--task", "guess"], "guess"),
        (predict.main, [], "name the problem with --given"),
        (predict.main, ["--given", "x^5 - x - 1 = 0"], "No method"),
        (analyse.main, [], "--given"),
        (generate.main, ["--family", "no-such-family"], "no-such-family"),
        (generate.main, ["--family", "linear-equations", "--level", "99"], "levels"),
    ],
)
def test_bad_input_is_told_and_ends_with_2(command, arguments, words):
    status, out, err = run(command, *arguments)
    assert status == 2
    assert out == ""
    assert words in err
    assert err.startswith("uchuu ")


@pytest.mark.parametrize("command", [solve.main, predict.main, analyse.main])
def test_unknown_arguments_end_with_2_and_help_with_0(command, capsys):
    assert run(command, "--colour")[0] == 2
    assert run(command, "--help")[0] == 0
    assert "usage: uchuu" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("command", "good", "bad"),
    [
        (solve.main, {"id": 1, "task": "solve", "given": "2x = 4"}, {"id": 2, "task": "solve", "given": "x = ("}),
        (predict.main, {"id": 1, "task": "expand", "given": "(x+7)^2"}, {"id": 2, "task": "expand"}),
        (analyse.main, {"id": 1, "given": "1/x"}, {"id": 2, "given": "√x"}),
    ],
)
def test_json_lines_are_answered_in_order_past_bad_ones(command, good, bad):
    text = "\n".join([json.dumps(good), "{not json", "", "[1]", json.dumps(bad), json.dumps(good)])
    status, out, _ = run(command, "--jsonl", text=text)
    rows = [json.loads(line) for line in out.splitlines()]
    assert status == 2
    assert [bool(row["error"]) for row in rows] == [False, True, True, True, False]
    assert [row["id"] for row in rows] == [1, None, None, 2, 1]
    assert rows[0] == rows[-1]


@pytest.mark.parametrize(
    ("command", "rows"),
    [(catalogues.methods, METHODS), (catalogues.families, FAMILIES), (catalogues.slips, SLIPS)],
)
def test_the_catalogues_name_everything_once(command, rows):
    out = io.StringIO()
    assert command([], out=out) == 0
    assert [line.split()[0] for line in out.getvalue().splitlines()] == [row.id for row in rows]
    out = io.StringIO()
    assert command(["--json"], out=out) == 0
    listed = json.loads(out.getvalue())[command.__name__]
    assert [row["id"] for row in listed] == [row.id for row in rows]


def test_the_same_seed_draws_the_same_problems():
    def drawn(seed):
        return run(generate.main, "--family", "linear-equations", "--count", "3", "--seed", seed)[1]

    assert drawn("5") == drawn("5") != drawn("6")


@pytest.mark.parametrize(
    ("data", "words"),
    [
        ([], "A working is a JSON object."),
        ({"task": "solve"}, "“given” is missing"),
        ({"given": "x"}, "“task” is missing"),
        ({"task": 3, "given": "x = 1"}, "“task” has the wrong kind"),
        ({"task": "solve", "given": "x = 1", "lines": [1]}, "“lines” holds texts only"),
        ({"task": "solve", "given": "x = 1", "lines": "x"}, "“lines” has the wrong kind"),
        ({"task": "solve", "given": "x = 1", "assume": [None]}, "“assume” holds texts only"),
        ({"task": "solve", "given": "x = 1", "numbers": "odd"}, "odd"),
        ({"task": "solve", "given": "x = 1", "conventions": {"decimal": "dot"}}, "not “dot”"),
        ({"task": "guess", "given": "x = 1"}, "guess"),
    ],
)
def test_a_working_in_json_is_refused_by_its_field(data, words):
    with pytest.raises(TaskError) as refused:
        working_from_json(data)
    assert words in refused.value.message


@pytest.mark.parametrize(
    ("command", "data", "ignored"),
    [
        (
            check.main,
            {"task": "solve", "given": "x = 1", "lines": ["x = 1"], "hue": 1, "class": "4B"},
            ["hue", "class"],
        ),
        (check.main, {"task": "solve", "given": "x = (", "lines": [], "hue": 1}, ["hue"]),
        (solve.main, {"task": "solve", "given": "2x = 4", "grain": "board", "hue": 1}, ["hue"]),
        (predict.main, {"task": "solve", "given": "2x = 4", "most": 2, "hue": 1}, ["hue"]),
        (check.main, {"task": "solve", "given": "x = 1", "lines": ["x = 1"]}, None),
        (solve.main, {"task": "solve", "given": "2x = 4", "method": "simplify-then-undo"}, None),
    ],
)
def test_fields_that_are_not_known_are_ignored_with_a_note(command, data, ignored):
    _, out, _ = run(command, "--jsonl", text=json.dumps(data) + "\n")
    assert json.loads(out).get("ignored") == ignored


@pytest.mark.parametrize("separator", ["\u2028", "\u2029", "\x85", "\x0b", "\x0c"])
def test_one_record_is_one_answer_whatever_stands_in_its_texts(separator):
    record = json.dumps({"id": f"a{separator}b", "task": "solve", "given": "x = 1"}, ensure_ascii=False)
    for command in (check.main, solve.main, predict.main):
        _, out, _ = run(command, "--jsonl", text=record + "\n")
        assert len([line for line in out.split("\n") if line]) == 1


def test_a_question_that_is_refused_as_a_whole_is_told_line_by_line(monkeypatch, tmp_path):
    path = tmp_path / "one.chain"
    path.write_text("task: solve\ngiven: x = 1\n---\nx = 1\nx = 2\n", encoding="utf-8")
    refused = Report.of_refused(None, LineError(0, 1, "This is too much to be worked out.", "task"))
    monkeypatch.setattr(check.lanes, "check", lambda working: refused)
    status, out, _ = run(check.main, str(path))
    assert status == 2
    assert "This is too much" in out and "? x = 1  not looked at" in out and "? x = 2  not looked at" in out


def test_heads_without_lines_are_problems_each(tmp_path):
    path = tmp_path / "twelve.chain"
    path.write_text("".join(f"task: solve\ngiven: x = {k}\n" for k in range(12)), encoding="utf-8")
    status, out, _ = run(check.main, str(path), "--json")
    assert (status, len(out.splitlines())) == (1, 12)


def test_a_working_in_json_is_taken_whole():
    data = {
        "id": "a",
        "task": "solve",
        "given": "x^2 = 4",
        "variable": "x",
        "numbers": "complex",
        "conventions": {"decimal": "comma"},
        "lines": ["x = 2"],
        "assume": ["x > 0"],
        "method": "square-root",
        "format": 1,
    }
    working = working_from_json(data)
    assert (working.id, working.lines, working.assume, working.method) == ("a", ("x = 2",), ("x > 0",), "square-root")
    assert (working.numbers, working.convention("decimal"), working.convention("powers")) == (
        "complex",
        "comma",
        "evaluate",
    )


class TestTheOneCommand:
    def test_help_names_every_command(self, capsys):
        assert uchuu([]) == 0
        assert capsys.readouterr().out.strip() == HELP.strip()
        for name in set(COMMANDS) - {"analyze"}:
            assert name in HELP

    def test_an_unknown_command_is_told_with_the_help(self, capsys):
        assert uchuu(["paint"]) == 2
        assert "no command “paint”" in capsys.readouterr().err

    def test_both_spellings_analyse(self):
        assert COMMANDS["analyze"] == COMMANDS["analyse"]
