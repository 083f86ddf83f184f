"""What docs/architecture.md says of adding something is true: what is forgotten on the way is asked for here."""

import json
import os
import re
from hashlib import sha256
from pathlib import Path

import pytest

from algebra import CONVENTIONS, METHODS, RULES, SLIPS, VERSION
from paper import FILE_FORMATS, KINDS
from server.config.urls import SCREENS
from tests.e2e import test_access
from tools import api_types
from tools.main import COMMANDS, HELP

ROOT = Path(__file__).parents[1]
WEB = ROOT / "web" / "src"
KEPT = ROOT / "tests" / "corpus" / "core-version.json"


def judged_by():
    """What verdicts and the words beside them are made from, in one number."""
    told = [
        [(s.id, s.name, s.kind, s.topic, s.done, s.why, s.cue, s.rank, s.examples, s.lurks_in) for s in SLIPS],
        [(m.id, m.name, m.example) for m in METHODS],
        [(r.id, r.name, r.reason) for r in RULES],
        sorted(CONVENTIONS.items()),
    ]
    return sha256(json.dumps(told).encode()).hexdigest()[:16]


def test_a_slip_a_method_or_a_rule_comes_with_another_version_of_the_core():
    """Stored reports are made again only when `algebra.VERSION` is raised. After raising it, `UCHUU_KEEP=1` with this
    test writes down what belongs to it."""
    now = {"version": VERSION, "judged_by": judged_by()}
    if os.environ.get("UCHUU_KEEP") == "1":
        KEPT.write_text(json.dumps(now) + "\n", encoding="utf-8")
    kept = json.loads(KEPT.read_text(encoding="utf-8"))
    assert (now["judged_by"] == kept["judged_by"]) is (now["version"] == kept["version"]), "raise algebra.VERSION"
    assert now == kept, "write it down: UCHUU_KEEP=1"


@pytest.mark.parametrize("path", api_types.described(), ids=lambda path: path.name)
def test_what_is_made_from_the_core_is_fresh(path):
    assert path.read_text(encoding="utf-8") == api_types.described()[path], "run ./uchuu docs"


class TestAFormat:
    SCREEN = (WEB / "screens" / "PrintScreen.vue").read_text(encoding="utf-8")

    def rows(self, name):
        table = self.SCREEN[self.SCREEN.index(f"const {name}") :]
        return re.findall(r"^  \['(\w+)',", table[: table.index("\n]")], re.MULTILINE)

    def test_it_is_offered_on_the_screen_where_sheets_are_printed(self):
        assert set(self.rows("FILES")) == set(FILE_FORMATS)
        assert set(self.rows("KINDS")) == set(KINDS)

    def test_the_help_names_it(self):
        assert all(re.search(rf"\b{name}\b", HELP[HELP.index("convert FILE") :]) for name in FILE_FORMATS)
        assert all(re.search(rf"\b{kind}\b", HELP[HELP.index("print FILE") :]) for kind in KINDS)


class TestAScreen:
    ROUTES = re.findall(r"path: '(/[^']*)'", (WEB / "router.ts").read_text(encoding="utf-8"))

    def shape(self, path):
        """A path with numbers for what is put in."""
        path = re.sub(r"/:\w+(\([^)]*\))?\?", "", path)
        return re.sub(r":\w+\([^)]*\)|\{\w+\}", "7", path) or "/"

    def test_the_server_has_its_path_and_axe_looks_at_it(self):
        looked_at = {self.shape(path) for path, _ in test_access.STATES} | {"/log-in"}
        for route in self.ROUTES:
            if "*" in route:
                continue
            shape = self.shape(route).rstrip("/") or "/"
            assert SCREENS.fullmatch(shape.removeprefix("/")), route
            assert any(each.rstrip("/").startswith(shape.rstrip("/")) for each in looked_at), route


def test_a_command_is_named_in_the_help():
    hidden = {"analyze"}  # the other spelling
    words = set(re.findall(r"[a-z-]+", HELP))
    assert set(COMMANDS) - hidden <= words
