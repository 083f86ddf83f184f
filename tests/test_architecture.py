"""The way of a line through the core, and what holds of every module: read from the imports and the source."""

import ast
import re
from functools import cache
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
CORE = sorted((ROOT / "algebra").rglob("*.py"))
ORDER = (
    "limits",
    "records",
    "tree",
    "parse",
    "reports",
    "formats",
    "exact",
    "functions",
    "verify",
    "rules",
    "slips",
    "methods",
    "families",
    "ways",
    "derive",
    "foresee",
    "sets",
    "marks",
    "items",
    "desk",
)
"""The rooms of the core from the ground up; the work of judging a line may only go down."""


SHOWN = {
    "algebra/exact/algebraic_numbers.py": {"approximation", "_roots"},
    "algebra/exact/effort.py": {"units_left"},
    "algebra/exact/logarithms.py": {"approximation"},
    "algebra/functions/graph.py": ...,
    "algebra/methods/difficulty.py": ...,
    "algebra/verify/equation_links.py": {"_plainness"},
    "algebra/verify/excluded_values.py": {"_compared"},
    "algebra/verify/expression_links.py": {"_number"},
    "algebra/verify/side_lines.py": {"judge_rounding"},
}
"""Where floating-point numbers may stand: what they are used for there is read, drawn or put in an order, and decides
nothing."""
INEXACT = {"float", "round", "approximation", "log", "log2", "log10", "exp", "sqrt", "pow"}
PROSE = {"message", "text", "reason", "done", "why", "cue", "look", "evidence"}


def room(module):
    parts = module.split(".")
    return parts[1] if len(parts) > 1 else ""


@cache
def imports(path):
    """Modules of the core that a file imports."""
    found = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("algebra"):
            inner = [f"{node.module}.{alias.name}" for alias in node.names]
            found |= {
                name
                if (ROOT / f"{name.replace('.', '/')}.py").exists() or (ROOT / name.replace(".", "/")).is_dir()
                else node.module
                for name in inner
            }
    return frozenset(found)


def path_of(module):
    base = ROOT / module.replace(".", "/")
    return base.with_suffix(".py") if base.with_suffix(".py").exists() else base / "__init__.py"


def reached_from(module):
    """The modules that a module needs, near and far."""
    seen, open_ = set(), [module]
    while open_:
        name = open_.pop()
        if name not in seen:
            seen.add(name)
            open_ += imports(path_of(name))
    return seen


def test_judging_a_line_stays_within_eight_rooms():
    rooms = {room(name) for name in reached_from("algebra.verify.check")} - {"", "records", "limits"}
    assert rooms == {"verify", "exact", "reports", "tree", "parse", "functions"}
    assert len(rooms) <= 8


def test_no_room_is_entered_from_below():
    rank = {name: k for k, name in enumerate(ORDER)}
    for path in CORE:
        own = path.relative_to(ROOT / "algebra").parts[0].removesuffix(".py")
        if own in ("__init__",):
            continue
        for module in imports(path):
            other = room(module)
            if other and other != own:
                assert rank[other] < rank[own], f"{path.name} of {own} imports {module}"


@pytest.mark.parametrize("path", CORE, ids=lambda path: str(path.relative_to(ROOT)))
class TestEveryFileOfTheCore:
    def test_it_can_be_read_at_one_sitting(self, path):
        assert len(path.read_text().splitlines()) <= 560

    def test_it_says_what_it_is(self, path):
        assert ast.get_docstring(ast.parse(path.read_text()))

    def test_it_keeps_no_clock_and_asks_no_system(self, path):
        for node in ast.walk(ast.parse(path.read_text())):
            names = [alias.name for alias in node.names] if isinstance(node, ast.Import) else []
            names += [node.module or ""] if isinstance(node, ast.ImportFrom) else []
            assert not {name.split(".")[0] for name in names} & {
                "time",
                "os",
                "sys",
                "socket",
                "subprocess",
                "pathlib",
                "django",
                "datetime",
                "asyncio",
            }

    def test_it_catches_nothing_that_it_does_not_know(self, path):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ExceptHandler):
                kinds = node.type.elts if isinstance(node.type, ast.Tuple) else [node.type]
                assert all(
                    isinstance(kind, ast.Name) and kind.id not in ("Exception", "BaseException") for kind in kinds
                )

    def test_it_decides_nothing_by_floating_point_numbers(self, path):
        name = str(path.relative_to(ROOT))
        if not name.startswith(
            ("algebra/exact", "algebra/verify", "algebra/functions", "algebra/methods", "algebra/tree")
        ):
            return
        allowed = SHOWN.get(name, set())
        if allowed is ...:
            return
        tree = ast.parse(path.read_text())
        excused = {
            id(part)
            for node in ast.walk(tree)
            if isinstance(node, ast.FunctionDef) and node.name in allowed
            for part in ast.walk(node)
        }
        inexact = [
            node.lineno
            for node in ast.walk(tree)
            if id(node) not in excused
            and (
                (isinstance(node, ast.Constant) and isinstance(node.value, float))
                or (isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in INEXACT)
                or (isinstance(node, ast.Attribute) and node.attr == "approximation")
            )
        ]
        assert not inexact

    def test_it_reads_no_sentences(self, path):
        assert not prose_read(path)


def prose_read(path):
    """The lines on which a sentence is taken apart: compared with words, searched, or cut."""
    found = []
    for node in ast.walk(ast.parse(path.read_text())):
        parts = []
        if isinstance(node, ast.Compare):
            parts = [node.left, *node.comparators]
        elif (
            isinstance(node, ast.Call)
            and isinstance(node.func, ast.Attribute)
            and node.func.attr
            in (
                "startswith",
                "endswith",
                "find",
                "partition",
                "split",
                "removeprefix",
                "removesuffix",
            )
        ):
            parts = [node.func.value, *node.args]
        words = [
            p for p in parts if isinstance(p, ast.Constant) and isinstance(p.value, str) and " " in p.value.strip()
        ]
        said = [p for p in parts if isinstance(p, ast.Attribute) and p.attr in PROSE]
        if words and said:
            found.append(node.lineno)
    return found


@pytest.mark.parametrize("folder", ["server", "cli", "tools"])
def test_nobody_outside_reads_sentences_either(folder):
    assert {path.name: prose_read(path) for path in (ROOT / folder).rglob("*.py") if prose_read(path)} == {}


@pytest.mark.parametrize(
    ("source", "lines"),
    [
        ('if "is zero" in error.message: pass', [1]),
        ('x = link.text.startswith("The answer ")', [1]),
        ('x = error.code == "divides by"', []),
        ("x = error.message == other.message", []),
    ],
)
def test_a_sentence_that_is_read_would_be_seen(tmp_path, source, lines):
    file = tmp_path / "sample.py"
    file.write_text(source)
    assert prose_read(file) == lines


def test_no_two_shapes_of_the_api_have_one_name():
    found = {}
    for path in sorted((ROOT / "server").rglob("schemas.py")):
        for node in ast.parse(path.read_text()).body:
            if isinstance(node, ast.ClassDef):
                found.setdefault(node.name, []).append(path.parent.name)
    assert {name: places for name, places in found.items() if len(places) > 1} == {}


SILENCED = re.compile(r"#\s*(?:type:\s*ignore\[[^\]]+\]|noqa:\s*[A-Z0-9, ]+)(.*)$")


def test_what_a_checker_says_is_silenced_with_a_reason_and_seldom():
    silenced = [
        (path, match.group(1))
        for folder in ("algebra", "lanes", "paper", "cli", "server", "tools", "standins", "tests")
        for path in (ROOT / folder).rglob("*.py")
        for line in path.read_text(encoding="utf-8").splitlines()
        if (match := SILENCED.search(line)) and "SILENCED" not in line
    ]
    assert all(len(reason.strip(" -#")) >= 5 for _, reason in silenced), silenced
    assert len(silenced) <= 40
