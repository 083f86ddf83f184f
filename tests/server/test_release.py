"""The version of the product is one and the same wherever it is said."""

import re
import tomllib
from pathlib import Path

from algebra import VERSION
from server.common.release import RELEASE
from tools.main import main

ROOT = Path(__file__).parents[2]


def test_the_project_and_the_changelog_say_it():
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    headings = re.findall(r"^## (\S+) — (\S+)$", (ROOT / "CHANGELOG.md").read_text(encoding="utf-8"), re.MULTILINE)
    assert project["version"] == RELEASE == headings[0][0]
    assert [day for _, day in headings] == sorted((day for _, day in headings), reverse=True)


def test_the_command_says_it(capsys):
    for asked in ("--version", "version"):
        assert main([asked]) == 0
        assert capsys.readouterr().out == f"Uchuu {RELEASE}, core {VERSION}\n"
