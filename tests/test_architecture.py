"""The way of a line through the core, and what holds of every module: read from the imports and the source."""

import ast
from functools import cache
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
CORE = sorted((ROOT / "algebra").rglob("*.py"))
ORDER = (
    "limits", "records", "tree", "parse", "reports", "formats", "exact", "functions", "verify", "rules", "slips", "methods",
    "families", "desk",
)  # fmt: skip
"""The rooms of the core from the ground up; the work of judging a line may only go down."""


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
        assert len(path.read_text().splitlines()) <= 520

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
