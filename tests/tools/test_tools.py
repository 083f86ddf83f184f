"""What stands behind the one command: a database of its own, what is made from the core, what is built only when it
must be."""

import json
import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path

import psycopg
import pytest
from jsonschema import Draft202012Validator

from algebra import CONVENTIONS, SLIPS
from tools import api_types, front, installation, mutate, share, slips_page, start
from tools.main import COMMANDS
from tools.postgres import Cluster, PostgresError, free_port, programs, throwaway

ROOT = Path(__file__).parents[2]


class TestMadeFiles:
    def test_the_page_of_slips_has_a_row_for_each(self):
        page = slips_page.page()
        assert page.count("\n| `") == len(SLIPS)
        for slip in SLIPS:
            assert f"| `{slip.id}` |" in page
        assert all(line.count(" | ") >= 5 for line in page.splitlines() if line.startswith("| `"))

    def test_the_list_of_conventions_for_the_front_end(self):
        module = api_types.conventions_module()
        for key, positions in CONVENTIONS.items():
            assert f"  {key}: [{', '.join(map(repr, positions))}],\n" in module
        assert (ROOT / "web" / "src" / "api" / "conventions.ts").read_text() == module

    @pytest.mark.parametrize("name", api_types.PUBLISHED)
    def test_a_published_schema_is_valid_and_of_the_record_as_it_is(self, name):
        path = ROOT / "docs" / "schema" / f"{name}.schema.json"
        kind, title = api_types.PUBLISHED[name]
        assert path.read_text() == api_types._schema(kind, title)
        schema = json.loads(path.read_text())
        Draft202012Validator.check_schema(schema)
        assert schema["title"] == title

    def test_no_other_schema_lies_about(self):
        assert {path.name for path in (ROOT / "docs" / "schema").iterdir()} == {
            f"{name}.schema.json" for name in api_types.PUBLISHED
        }


class TestCommands:
    @pytest.mark.parametrize("name", COMMANDS)
    def test_a_command_has_its_function(self, name):
        module, function = COMMANDS[name]
        source = (ROOT / module.replace(".", "/")).with_suffix(".py").read_text()
        assert f"def {function}(" in source


class TestBuilding:
    @pytest.fixture
    def web(self, tmp_path, monkeypatch):
        (tmp_path / "src").mkdir()
        (tmp_path / "src" / "main.ts").write_text("1")
        (tmp_path / "package-lock.json").write_text("{}")
        (tmp_path / "dist").mkdir()
        (tmp_path / "node_modules").mkdir()
        asked = []
        monkeypatch.setattr(front, "WEB", tmp_path)
        monkeypatch.setattr(front, "DIST", tmp_path / "dist")

        def npm(*arguments):
            asked.append(arguments[0])
            if arguments[0] == "run":
                (tmp_path / "dist" / "index.html").write_text("built")

        monkeypatch.setattr(front, "npm", npm)
        return tmp_path, asked

    def test_it_is_built_once_for_the_same_sources(self, web):
        _, asked = web
        front.ensure_built()
        front.ensure_built()
        assert asked == ["ci", "run"]

    def test_it_is_built_again_when_a_source_changes(self, web):
        folder, asked = web
        front.ensure_built()
        (folder / "src" / "main.ts").write_text("2")
        front.ensure_built()
        assert asked == ["ci", "run", "run"]

    def test_it_is_built_again_when_the_build_is_gone(self, web):
        folder, asked = web
        front.ensure_built()
        (folder / "dist" / "index.html").unlink()
        front.ensure_built()
        assert asked == ["ci", "run", "run"]

    def test_packages_are_installed_again_when_the_lock_changes(self, web):
        folder, asked = web
        front.ensure_packages()
        front.ensure_packages()
        (folder / "package-lock.json").write_text("{ }")
        front.ensure_packages()
        assert asked == ["ci", "ci"]

    def test_a_build_that_fails_is_not_taken_for_done(self, web, monkeypatch):
        folder, _ = web

        def fail(*arguments):
            raise RuntimeError(arguments[0])

        monkeypatch.setattr(front, "npm", fail)
        with pytest.raises(RuntimeError):
            front.ensure_built()
        assert not (folder / ".built-from").exists()


class TestDatabase:
    @pytest.fixture
    def open_folder(self):
        """A folder that the server's own user may enter; those of pytest are for the one who runs it."""
        with tempfile.TemporaryDirectory() as folder:
            Path(folder).chmod(0o755)
            yield Path(folder)

    def test_a_throwaway_one_answers_and_is_gone_after(self):
        with throwaway("harbour") as url:
            with psycopg.connect(url) as connection:
                assert connection.execute("select current_database()").fetchone() == ("harbour",)
            assert "127.0.0.1" in url
        with pytest.raises(psycopg.OperationalError):
            psycopg.connect(url, connect_timeout=2)

    def test_a_cluster_keeps_its_data_between_starts(self, open_folder):
        folder = open_folder / "pg"
        for expected in (None, "x"):
            cluster = Cluster(folder, fast=True)
            cluster.start()
            try:
                with psycopg.connect(cluster.url("kept"), autocommit=True) as connection:
                    connection.execute("create table if not exists lines (text text)")
                    found = connection.execute("select text from lines").fetchone()
                    assert (found[0] if found else None) == expected
                    connection.execute("insert into lines values ('x')")
            finally:
                cluster.stop()

    def test_a_missing_server_is_told_with_what_to_do(self, monkeypatch, tmp_path):
        monkeypatch.setattr("tools.postgres.Path.glob", lambda self, pattern: iter(()))
        monkeypatch.setenv("PATH", str(tmp_path))
        with pytest.raises(PostgresError, match="apt-get install postgresql"):
            programs()

    def test_a_free_port_can_be_taken(self):
        assert 1024 < free_port() < 65536


class TestStarting:
    def test_data_is_kept_where_one_says(self, monkeypatch, tmp_path):
        monkeypatch.setenv("UCHUU_HOME", str(tmp_path / "desk"))
        assert start.home() == tmp_path / "desk"

    def test_the_secret_is_made_once_and_for_the_owner_only(self, tmp_path, monkeypatch):
        monkeypatch.delenv("UCHUU_SECRET", raising=False)
        path = tmp_path / "secret-key"
        installation._ensure_secret(path)
        first = path.read_text()
        installation._ensure_secret(path)
        assert path.read_text() == first
        assert len(first) >= 50
        assert path.stat().st_mode & 0o077 == 0


class TestShare:
    @pytest.mark.parametrize(
        ("name", "is_test"),
        [
            ("tests/algebra/rules/test_rules.py", True),
            ("tests/conftest.py", True),
            ("web/src/lib/lib.test.ts", True),
            ("web/src/testing/server.ts", True),
            ("web/src/lib/keep.ts", False),
            ("algebra/verify/check.py", False),
            ("tools/testing.py", False),
        ],
    )
    def test_what_counts_as_a_test(self, name, is_test):
        assert share.is_test(Path(name)) is is_test

    def test_lines_are_counted_that_are_not_empty_and_not_made(self, tmp_path):
        for name, text in {
            "algebra/a.py": "one\n\n  \ntwo\n",
            "algebra/migrations/b.py": "one\n",
            "tests/test_a.py": "one\n",
            "web/src/api/schema.d.ts": "one\n",
            "web/src/api/conventions.ts": "one\n",
            "web/src/a.test.ts": "one\ntwo\n",
            "web/src/a.vue": "one\n",
            "tests/corpus/a.chain": "one\n",
            "docs/a.py": "one\n",
        }.items():
            path = tmp_path / name
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_text(text)
        assert share.counted(tmp_path) == (3, 6)

    @pytest.mark.parametrize(("counts", "status"), [((24, 100), 0), ((34, 100), 0), ((23, 100), 1), ((35, 100), 1)])
    def test_a_share_outside_of_the_bounds_fails(self, counts, status, monkeypatch, capsys):
        monkeypatch.setattr(share, "counted", lambda root: counts)
        assert share.main([]) == status
        assert f"{counts[0]} of 100 lines are tests" in capsys.readouterr().out


class TestBounds:
    PROGRAM = """
import resource
from tools.bounds import bound_memory
resource.setrlimit(resource.RLIMIT_AS, ({soft}, {hard}))
bound_memory()
print(*resource.getrlimit(resource.RLIMIT_AS))
"""
    ANY = -1  # resource.RLIM_INFINITY

    @pytest.mark.parametrize(
        ("soft", "hard", "bound"),
        [(ANY, ANY, 2**31), (2**30, ANY, 2**30), (2**33, 2**34, 2**31), (2**30, 2**30, 2**30)],
    )
    def test_the_lowest_bound_holds(self, soft, hard, bound):
        program = self.PROGRAM.format(soft=soft, hard=hard)
        shown = subprocess.run([sys.executable, "-c", program], cwd=ROOT, capture_output=True, text=True, check=True)
        assert shown.stdout.split() == [str(bound), str(hard)]

    def test_a_command_that_wants_more_is_ended_by_its_own_bound(self):
        program = "from tools.bounds import bound_memory; bound_memory(); bytearray(2**33)"
        found = subprocess.run([sys.executable, "-c", program], cwd=ROOT, capture_output=True, text=True, check=False)
        assert found.returncode == 1
        assert "MemoryError" in found.stderr


class TestMutate:
    def test_tests_that_fail_or_hang_have_noticed_a_change(self):
        found = mutate.outcome_of({"a": 1, "b": 0, "c": -24, "d": 33, "e": None, "f": 3})
        assert (found.tried, found.noticed, found.survivors) == (5, 3, ("b", "d"))
        assert found.share == pytest.approx(0.6)
        assert mutate.outcome_of({"a": None}).share == 1

    @pytest.mark.parametrize(
        ("tried", "noticed", "low", "high"),
        [(60, 48, 0.68, 0.88), (60, 60, 0.94, 1.0), (120, 96, 0.72, 0.86), (0, 0, 0.0, 1.0)],
    )
    def test_a_sample_says_between_which_shares_the_whole_lies(self, tried, noticed, low, high):
        found = mutate.Outcome(tried, noticed, ()).interval
        assert found == pytest.approx((low, high), abs=0.01)

    def test_a_seed_draws_the_same_changes(self):
        names = [f"change {k}" for k in range(50)]
        first = mutate.drawn(names, 10, 7)
        assert first == mutate.drawn(names[::-1], 10, 7) != mutate.drawn(names, 10, 8)
        assert len(set(first)) == 10
        assert mutate.drawn(names, 60, 7) == sorted(names)

    def test_lines_of_the_front_end_are_drawn_from_what_runs(self, tmp_path):
        (tmp_path / "src").mkdir()
        (tmp_path / "src" / "a.ts").write_text("import x\n\n// why\n/** what */\nconst a = 1\n * more\nconst b = 2\n")
        (tmp_path / "src" / "a.test.ts").write_text("expect(1)\n")
        patterns = ["src/**/*.ts", "!src/**/*.test.ts"]
        lines = {"src/a.ts:5-5", "src/a.ts:7-7"}
        assert {*mutate.drawn_lines(tmp_path, patterns, 1, 1), *mutate.drawn_lines(tmp_path, patterns, 1, 2)} <= lines
        assert len(mutate.drawn_lines(tmp_path, patterns, 1, 1)) == 1
        assert mutate.drawn_lines(tmp_path, patterns, 2, 1) == ["src/a.ts"]

    @pytest.mark.parametrize("package", mutate.PACKAGES, ids=lambda package: package.name)
    def test_a_package_names_files_and_tests_that_are_there(self, package):
        told = tomllib.loads(mutate.settings_of(package))["tool"]["mutmut"]
        assert all(list(ROOT.glob(pattern)) for pattern in told["only_mutate"])
        assert all((ROOT / path).exists() for path in told["pytest_add_cli_args_test_selection"])
        assert all((ROOT / path).exists() for path in told["also_copy"] if path != "web/dist")

    def test_an_unknown_package_is_refused(self, capsys):
        with pytest.raises(SystemExit):
            mutate.main(["nonsense"])
        assert "no package nonsense" in capsys.readouterr().err

    def test_the_front_end_counts_what_was_run(self):
        def change(status, line=3):
            return {
                "location": {"start": {"line": line}},
                "mutatorName": "Conditional",
                "replacement": "true",
                "status": status,
            }

        statuses = ("Killed", "Timeout", "Survived", "NoCoverage", "RuntimeError", "Ignored")
        found = mutate.web_outcome({"files": {"src/a.ts": {"mutants": [change(status) for status in statuses]}}})
        assert (found.tried, found.noticed) == (4, 2)
        assert found.survivors == ("src/a.ts:3 Conditional true",) * 2

    def test_its_packages_are_those_of_the_front_end_and_the_tool(self):
        own, more = (json.loads((ROOT / "web" / folder / "package.json").read_text()) for folder in (".", "mutation"))
        assert own["dependencies"] == more["dependencies"]
        extra = set(more["devDependencies"]) - set(own["devDependencies"])
        assert extra == {"@stryker-mutator/core", "@stryker-mutator/vitest-runner"}
        assert own["devDependencies"].items() <= more["devDependencies"].items()
