"""`./uchuu mutate`: changes the code in small ways and counts how many of the changes the tests notice.

The changes are made in a copy of what is committed: by mutmut for Python, where a seed draws which of them are tried,
so that two runs try the same; by Stryker for the stores and the logic of the front end, on lines that the seed draws. A
package is tried by the tests that mirror it. It takes long and is no part of `./uchuu test`.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
from contextlib import nullcontext
from dataclasses import dataclass
from math import sqrt
from pathlib import Path
from typing import Any

from tools.postgres import throwaway
from tools.testing import NO_DATABASE, settings_env

ROOT = Path(__file__).parents[1]
WANTED = 0.8
"""The share of the changes that the tests of a package are to notice."""


@dataclass(frozen=True, slots=True)
class Package:
    """Files that are changed, and the tests that mirror them. `database`: whether those tests need one."""

    name: str
    files: tuple[str, ...]
    tests: tuple[str, ...]
    database: bool = False


MIRRORED = (
    "verify",
    "exact",
    "slips",
    "methods",
    "rules",
    "tree",
    "parse",
    "formats",
    "functions",
    "families",
    "ways",
    "derive",
    "foresee",
    "sets",
    "marks",
    "items",
    "desk",
)
"""Rooms of the core, each tried by the tests of its own name alone: those that hold what was once told (test_kept) see
much, and say of nothing why it is so."""
PACKAGES = (
    *(
        Package(room, (f"algebra/{room}/*",), (f"tests/algebra/{room}",))
        for room in MIRRORED
        if (ROOT / "tests" / "algebra" / room).is_dir()
    ),
    Package("paper", ("paper/*",), ("tests/paper",)),
    Package(
        "services",
        ("server/*/services.py", "server/*/queries.py", "server/*/reports.py", "server/workings/*"),
        ("tests/server",),
        True,
    ),
    Package("marking", ("server/marking/*",), ("tests/server",), True),
    Package("room", ("server/room/*",), ("tests/server",), True),
)


ALSO_COPIED = (
    "cli",
    "lanes",
    "standins",
    "tools",
    "manage.py",
    "uchuu",
    "docs",
    "web/src/api",
    "web/src/lib",
    "web/src/features/items",
    "web/src/router.ts",
    "web/dist",
    "README.md",
)
"""What the tests read beside what is changed."""
WEB = "web"
"""The package that stands for the front end."""
NAMES = (*(p.name for p in PACKAGES), WEB)


@dataclass(frozen=True, slots=True)
class Outcome:
    """How many changes were tried and noticed, and the names of those that nothing noticed."""

    tried: int
    noticed: int
    survivors: tuple[str, ...]

    @property
    def share(self) -> float:
        """The share that was noticed; 1 where nothing was tried."""
        return self.noticed / self.tried if self.tried else 1.0

    @property
    def interval(self) -> tuple[float, float]:
        """Between which shares that of all changes lies, 95 times of 100 (Wilson 1927)."""
        if not self.tried:
            return 0.0, 1.0
        n, p, z = self.tried, self.share, 1.96
        middle = (p + z * z / (2 * n)) / (1 + z * z / n)
        reach = z / (1 + z * z / n) * sqrt(p * (1 - p) / n + z * z / (4 * n * n))
        return middle - reach, middle + reach


def settings_of(package: Package) -> str:
    """What mutmut is told, in the form of the project's settings file."""

    def listed(items: tuple[str, ...]) -> str:
        return json.dumps(list(items))

    return f"""
[tool.mutmut]
source_paths = ["algebra", "server", "paper"]
only_mutate = {listed(package.files)}
also_copy = {listed(ALSO_COPIED)}
pytest_add_cli_args_test_selection = {listed(package.tests)}
use_git_change_detection = false
"""


NUMBERED_CASES = '''

import pytest


@pytest.hookimpl(tryfirst=True)
def pytest_generate_tests(metafunc):
    """Cases are numbered here: by names made of their values they are not found again."""
    original = metafunc.parametrize

    def numbered(names, values, **more):
        more.pop("ids", None)
        cases = [pytest.param(*v.values, marks=v.marks) if hasattr(v, "marks") else v for v in values]
        return original(names, cases, ids=[str(k) for k in range(len(cases))], **more)

    metafunc.parametrize = numbered
'''

NOTHING_REMEMBERED = '''

@pytest.fixture(autouse=True, scope="session")
def _remembered():
    import functools, gc

    return [each for each in gc.get_objects() if isinstance(each, functools._lru_cache_wrapper)]


@pytest.fixture(autouse=True)
def _nothing_remembered(_remembered):
    """Each change is tried in a fork of a process that has run the tests: what that has in mind would be answered
    without the changed lines."""
    for each in _remembered:
        if each.__module__.partition(".")[0] in ("algebra", "paper", "server"):
            each.cache_clear()
'''


def copied(package: Package, folder: Path) -> None:
    """A copy of what is committed, with the settings for this package."""
    archive = subprocess.run(["git", "archive", "HEAD"], cwd=ROOT, check=True, capture_output=True).stdout
    subprocess.run(["tar", "-x", "-C", str(folder)], input=archive, check=True)
    with (folder / "pyproject.toml").open("a", encoding="utf-8") as settings:
        settings.write(settings_of(package))
    built = folder / "web" / "dist"
    built.mkdir(parents=True, exist_ok=True)
    (built / "index.html").write_text("<!doctype html><title>Uchuu</title>", encoding="utf-8")
    with (folder / "tests" / "conftest.py").open("a", encoding="utf-8") as settings:
        settings.write(NUMBERED_CASES + NOTHING_REMEMBERED)


def results(folder: Path) -> dict[str, int | None]:
    """Every change by its name, with the exit status of its tests; None where it was not tried."""
    found: dict[str, int | None] = {}
    for path in sorted((folder / "mutants").rglob("*.meta")):
        found |= json.loads(path.read_text(encoding="utf-8"))["exit_code_by_key"]
    return found


def outcome_of(found: dict[str, int | None]) -> Outcome:
    """Tests that fail, hang or crash have noticed a change; tests that pass, or don't reach it, have not."""
    tried = {name: status for name, status in found.items() if status is not None}
    survivors = tuple(sorted(name for name, status in tried.items() if status in (0, 33)))
    return Outcome(len(tried), len(tried) - len(survivors), survivors)


def drawn(names: list[str], count: int, seed: int) -> list[str]:
    """The changes that are tried: all, or so many of them as the seed draws."""
    ordered = sorted(names)
    return ordered if len(ordered) <= count else sorted(random.Random(seed).sample(ordered, count))


def tried(package: Package, count: int, seed: int, folder: Path) -> Outcome:
    """Draws changes of a package and tries them."""
    with throwaway() if package.database else nullcontext(NO_DATABASE) as url:
        env = {**os.environ, **settings_env(url), "PYTHONPATH": ""}

        def mutmut(*names: str) -> None:
            children = "1" if package.database else "2"
            command = [sys.executable, "-m", "mutmut", "run", "--max-children", children, *names]
            with (folder / "mutmut.log").open("ab") as log:
                subprocess.run(command, cwd=folder, env=env, check=False, stdout=log, stderr=log)

        copied(package, folder)
        mutmut("none")  # makes the changes, and finds out which tests reach what
        names = drawn(list(results(folder)), count, seed)
        if not names:
            raise RuntimeError(f"no change could be made in {package.name}; try mutmut by hand in {folder}")
        mutmut(*names)
    found = outcome_of({name: status for name, status in results(folder).items() if name in set(names)})
    if not found.tried:
        log = (folder / "mutmut.log").read_text(encoding="utf-8", errors="replace")
        raise RuntimeError(f"none of the changes of {package.name} could be tried:\n{log[-3000:]}")
    return found


def web_outcome(report: dict[str, Any]) -> Outcome:
    """What Stryker says in its report: a change that no test reaches has not been noticed; one that can't run was not
    tried."""
    changes = [
        (
            f"{path}:{change['location']['start']['line']} {change['mutatorName']} {change.get('replacement', '')}",
            change["status"],
        )
        for path, file in report["files"].items()
        for change in file["mutants"]
    ]
    tried = [(name, status) for name, status in changes if status in ("Killed", "Timeout", "Survived", "NoCoverage")]
    survivors = tuple(sorted(name for name, status in tried if status in ("Survived", "NoCoverage")))
    return Outcome(len(tried), len(tried) - len(survivors), survivors)


def drawn_lines(web: Path, patterns: list[str], count: int, seed: int) -> list[str]:
    """So many lines of the front end's files, drawn by the seed, as Stryker takes them: `src/lib/x.ts:3-3`. All files
    where there are not more lines than that."""
    kept = [path for pattern in patterns if not pattern.startswith("!") for path in web.glob(pattern)]
    files = sorted({path for path in kept if not path.name.endswith(".test.ts")})
    lines = [
        f"{path.relative_to(web)}:{k}-{k}"
        for path in files
        for k, line in enumerate(path.read_text(encoding="utf-8").splitlines(), start=1)
        if line.strip() and not line.lstrip().startswith(("//", "*", "/*", "import"))
    ]
    return drawn(lines, count, seed) if count < len(lines) else [str(path.relative_to(web)) for path in files]


def tried_in_front_end(folder: Path, count: int, seed: int) -> Outcome:
    """Tries the changes that Stryker makes on lines that the seed draws."""
    archive = subprocess.run(["git", "archive", "HEAD", "web"], cwd=ROOT, check=True, capture_output=True).stdout
    subprocess.run(["tar", "-x", "-C", str(folder)], input=archive, check=True)
    web = folder / "web"
    for path in (web / "mutation").iterdir():
        shutil.copy(path, web / path.name)
    settings = web / "stryker.config.json"
    chosen = json.loads(settings.read_text(encoding="utf-8"))
    chosen["mutate"] = drawn_lines(web, chosen["mutate"], count, seed)
    settings.write_text(json.dumps(chosen), encoding="utf-8")
    for command in (["npm", "ci", "--loglevel", "error"], ["npx", "stryker", "run", "stryker.config.json"]):
        found = subprocess.run(command, cwd=web, check=False, capture_output=True, text=True)
        if found.returncode not in (0, 1):
            raise RuntimeError(f"{' '.join(command)} failed:\n{found.stdout[-2000:]}{found.stderr[-2000:]}")
    outcome = web_outcome(json.loads((web / "mutation.json").read_text(encoding="utf-8")))
    if outcome.tried and not outcome.noticed:
        raise RuntimeError("no change at all was noticed: the tests were not run on them")
    return outcome


def shown(name: str, folder: Path) -> str:
    """The change of this name, as a difference of lines."""
    command = [sys.executable, "-m", "mutmut", "show", name]
    return "\n" + subprocess.run(command, cwd=folder, check=False, capture_output=True, text=True).stdout


def main(arguments: list[str]) -> int:
    """Exit status 0 when every package reaches the wanted share, else 1."""
    parser = argparse.ArgumentParser(
        prog="uchuu mutate", description="How many small changes of the code the tests notice."
    )
    parser.add_argument("packages", nargs="*", metavar="PACKAGE", help=", ".join(NAMES))
    parser.add_argument("--sample", type=int, default=400, help="changes tried a package")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--show", action="store_true", help="print what survived")
    options = parser.parse_args(arguments)
    unknown = set(options.packages) - set(NAMES)
    if unknown:
        parser.error(f"no package {', '.join(sorted(unknown))}")
    fine = True
    print("| package | tried | noticed | share | between |\n|---|---|---|---|---|", flush=True)
    by_name = {package.name: package for package in PACKAGES}
    for name in NAMES:
        if options.packages and name not in options.packages:
            continue
        folder = Path(tempfile.mkdtemp(prefix=f"uchuu-mutate-{name}-"))
        try:
            if name == WEB:
                found = tried_in_front_end(folder, options.sample, options.seed)
            else:
                found = tried(by_name[name], options.sample, options.seed, folder)
            low, high = found.interval
            between = f"{low:.0%} and {high:.0%}"
            print(f"| {name} | {found.tried} | {found.noticed} | {found.share:.0%} | {between} |", flush=True)
            fine = fine and found.share >= WANTED
            if options.show:
                for survivor in found.survivors:
                    print(f"\n{survivor}{'' if name == WEB else shown(survivor, folder)}", flush=True)
        finally:
            shutil.rmtree(folder, ignore_errors=True)
    return 0 if fine else 1
