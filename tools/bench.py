"""`./uchuu bench`: links per second in the core by family, and the API's latency under concurrent writers.

Prints Markdown tables; `--write` puts them into docs/performance.md. Traffic goes to loopback only, bounded in count.
"""

from __future__ import annotations

import argparse
import http.cookiejar
import json
import platform
import random
import re
import statistics
import time
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

from sympy.core import cache

from algebra import (
    FAMILIES,
    Family,
    ReadingError,
    TaskError,
    Working,
    all_methods,
    check,
    clear_caches,
    decide,
    generate,
    predict,
    read_workings,
    work,
)
from tools import bench_hostile, bench_room, district, front
from tools.bench_memory import memory_table
from tools.bench_sets import sets_table
from tools.shots import demo_server
from tools.start import DEMO_LOG_IN
from tools.sympy_reading import same_solutions, same_value

PAGE = front.ROOT / "docs" / "performance.md"
CASES = front.ROOT / "tests" / "corpus"
WRITERS = 20
ROUNDS = 60


def main(arguments: list[str]) -> int:
    """Measures and prints the tables; returns 0."""
    parser = argparse.ArgumentParser(prog="uchuu bench")
    parser.add_argument("--write", action="store_true", help="put the tables into docs/performance.md")
    parser.add_argument("--core", action="store_true", help="the core alone")
    parser.add_argument(
        "--district", action="store_true", help="lists and pages on a district's data, and nothing else"
    )
    parser.add_argument(
        "--memory", type=int, nargs="?", const=100_000, help="only the memory of one process over so many workings"
    )
    parser.add_argument("--sets", action="store_true", help="sheets alone")
    parser.add_argument("--hostile", action="store_true", help="what others feel of one who asks all that can be asked")
    parser.add_argument("--machines", type=int, default=1, help="with --room: so many servers behind a proxy")
    parser.add_argument("--room", type=int, nargs="?", const=21, help="practice rooms: so many classes of 35 at once")
    parser.add_argument("--seconds", type=float, default=60, help="for how long they write")
    parser.add_argument("--teachers", type=int, default=200, help="of the district")
    parser.add_argument("--lines", type=int, default=5_000_000, help="of the district")
    options = parser.parse_args(arguments)
    if options.district:
        print(district.table(options.teachers, options.lines))
        return 0
    if options.memory:
        print(memory_table(options.memory))
        return 0
    if options.hostile:
        print(bench_hostile.table(options.seconds))
        return 0
    if options.room:
        print(bench_room.table(options.room, options.seconds, options.machines))
        return 0
    if options.sets:
        print(sets_table())
        return 0
    text = core_table()
    text += "\n" + sympy_table() + "\n" + solving_table() + "\n" + slips_table() + "\n" + sets_table()
    if not options.core:
        text += "\n" + api_table()
    print(text)
    if options.write:
        head = PAGE.read_text(encoding="utf-8").partition("<!-- tables -->")[0]
        PAGE.write_text(f"{head}<!-- tables -->\n\n{text}", encoding="utf-8")
    return 0


def _link_times(working: Working, repeats: int) -> list[float]:
    """Milliseconds per link, parsing and the answer included, once per repeat."""
    times = []
    for _ in range(repeats):
        clear_caches()
        started = time.perf_counter()
        check(working)
        times.append((time.perf_counter() - started) * 1000 / len(working.lines))
    return times


def core_table(repeats: int = 40) -> str:
    """One row per family of the corpus: links per second, median and 99th percentile of the time per link."""
    rows = ["| family | links | links per second | median ms | 99th percentile ms |", "|---|--:|--:|--:|--:|"]
    everything: list[float] = []
    for path in sorted(CASES.glob("*.chain")):
        workings = [w for w in read_workings(path.read_text(encoding="utf-8")) if w.lines]
        for working in workings:
            check(working)
        times = [t for working in workings for t in _link_times(working, repeats)]
        everything += times
        rows.append(_row(path.stem.replace("-", " "), sum(len(w.lines) for w in workings), times))
    rows.append(_row("**all**", 0, everything))
    return (
        f"### Core\n\n{platform.machine()}, Python {platform.python_version()}, one process\n\n"
        + "\n".join(rows)
        + "\n"
    )


_ROOT_OR_BAR = re.compile(r"[√∛∜/÷]|root|sqrt|frac")
Question = tuple[Working, str, str]
"""A working's setting, a line, and the line after it."""

EQUATIONS_WITH_ROOT_OR_DENOMINATOR = frozenset({"radical-equations", "rational-equations", "pattern-equations"})
PER_LEVEL = 3
OUR_RUNS, THEIR_RUNS = 25, 3
"""How often a question is put to each side, its caches emptied every time; the median counts. Ours takes a fifth of a
millisecond, so that the first runs measure above all how the other side has left the processor's memory."""


def _links(family: Family) -> list[Question]:
    """Every link of the worked solutions of a few problems of each level, right ones, and one made wrong in each."""
    found: list[Question] = []
    for level in range(1, len(family.levels) + 1):
        for solution in generate(family.id, level, PER_LEVEL, 7):
            before = solution.working.given
            if any(step.kind == "definition" for step in solution.steps):
                continue  # the other side knows no letters of one's own
            for step in solution.steps:
                if step.kind != "line" or any(word in step.line for word in ("solution", "numbers", "prime")):
                    continue
                found.append((solution.working, before, step.line))
                before = step.line
            digits = [k for k, c in enumerate(before) if c in "23456789"]
            if digits:  # the last line with one digit changed
                wrong = before[: digits[-1]] + str(11 - int(before[digits[-1]])) + before[digits[-1] + 1 :]
                found.append((solution.working, solution.working.given, wrong))
    return found


def sympy_table() -> str:
    """The same questions put to a general computer algebra system, parsing included on both sides.

    A question is one link: is this line equal to the one before, or does it have the same solutions? The links are
    those of worked solutions, and a wrong one for each. Ours is timed without evidence, answer and finish, which the
    other side does not give, and with nothing kept from earlier questions. `undecided` counts what one side decides
    and the other does not.
    """
    rows = [
        "| family | links | ours, median ms | SymPy, median ms | times faster | undecided by SymPy only | by us only |",
        "|---|--:|--:|--:|--:|--:|--:|",
    ]
    ratios: list[float] = []
    heavy: list[float] = []
    strict: list[float] = []
    for family in FAMILIES:
        if family.task in ("domain", "analyze") or family.id in ("unit-chains", "literal-equations"):
            continue
        ours, theirs, only_them, only_us = [], [], 0, 0
        links = _links(family)
        for working, before, line in links:
            mine, our_time = _ours(working, before, line)
            other, their_time = _sympy(working.task, before, line)
            ours.append(our_time)
            theirs.append(their_time)
            only_them += mine is not None and other is None
            only_us += mine is None and other is not None
        if not ours:
            continue
        pairs = [b / a for a, b in zip(ours, theirs, strict=True)]
        ratios += pairs
        if family.id in EQUATIONS_WITH_ROOT_OR_DENOMINATOR:
            heavy += pairs
        strict += [
            pair
            for pair, (working, before, line) in zip(pairs, links, strict=True)
            if working.task == "solve" and _ROOT_OR_BAR.search(before + line)
        ]
        rows.append(
            f"| {family.name} | {len(ours)} | {statistics.median(ours):.2f} | "
            f"{statistics.median(theirs):.1f} | {statistics.median(pairs):.0f} | {only_them} | {only_us} |"
        )
    tail = (
        f"\nOver all links: {statistics.median(ratios):.0f} times "
        f"faster (median of {len(ratios)}); over equations with a "
        f"root or a denominator: {statistics.median(heavy):.0f} "
        f"times (median of {len(heavy)}: every line of the families of "
        f"radical and rational equations and of equations with a "
        f"pattern). Of the lines of all equations those that hold "
        f"a root or a fraction themselves: {statistics.median(strict):.0f} times (median of {len(strict)}).\n"
    )
    return "### Against SymPy\n\n" + "\n".join(rows) + "\n" + tail


def solving_table() -> str:
    """Milliseconds for a worked solution by the default method, every line of it checked, and for all methods."""
    rows = [
        "| family | problems | a solution, median ms | 95th percentile ms | all methods, 95th percentile ms |",
        "|---|--:|--:|--:|--:|",
    ]
    for family in FAMILIES:
        one: list[float] = []
        every: list[float] = []
        for level in range(1, len(family.levels) + 1):
            for solution in generate(family.id, level, 8, 3):
                working = solution.working
                for times, ask in ((one, work), (every, all_methods)):
                    clear_caches()
                    started = time.perf_counter()
                    try:
                        ask(working)
                    except (TaskError, ReadingError):
                        continue
                    times.append((time.perf_counter() - started) * 1000)
        one.sort()
        every.sort()
        rows.append(
            f"| {family.name} | {len(one)} | {statistics.median(one):.0f} | {one[int(len(one) * 0.95)]:.0f} | "
            f"{every[int(len(every) * 0.95)]:.0f} |"
        )
    return "### Worked solutions\n\n" + "\n".join(rows) + "\n"


def slips_table() -> str:
    """Milliseconds to name the slip of a labelled broken line, and to foresee the wrong answers of a generated
    problem."""
    named: list[float] = []
    for row in (CASES / "broken_lines.txt").read_text(encoding="utf-8").splitlines():
        if not row.strip() or row.startswith("#"):
            continue
        before, after, _ = (part.strip() for part in row.split(";"))
        task = "factor" if before.startswith("factor:") else "solve" if "=" in before else "simplify"
        working = Working(task, before.removeprefix("factor:").strip(), (after,))
        clear_caches()
        started = time.perf_counter()
        check(working)
        named.append((time.perf_counter() - started) * 1000)
    foreseen: list[float] = []
    for family in FAMILIES:
        for level in range(1, len(family.levels) + 1):
            for solution in generate(family.id, level, 3, 3):
                clear_caches()
                started = time.perf_counter()
                try:
                    predict(solution.working)
                except (TaskError, ReadingError):
                    continue
                foreseen.append((time.perf_counter() - started) * 1000)
    rows = ["| | number | median ms | 95th percentile ms | slowest ms |", "|---|--:|--:|--:|--:|"]
    for name, times in (("a broken line checked and its slip named", named), ("wrong answers foreseen", foreseen)):
        times.sort()
        rows.append(
            f"| {name} | {len(times)} | {statistics.median(times):.0f} "
            f"| {times[int(len(times) * 0.95)]:.0f} | {times[-1]:.0f} |"
        )
    return "### Slips\n\n" + "\n".join(rows) + "\n"


def _ours(working: Working, before: str, line: str) -> tuple[bool | None, float]:
    times = []
    for _ in range(OUR_RUNS):
        clear_caches()
        started = time.perf_counter()
        relation = decide(replace(working, given=before, lines=(line,)))
        times.append((time.perf_counter() - started) * 1000)
    return (None if relation in (None, "unclear") else relation == "holds"), statistics.median(times)


def _sympy(task: str, before: str, line: str) -> tuple[bool | None, float]:
    times = []
    for _ in range(THEIR_RUNS):
        cache.clear_cache()
        started = time.perf_counter()
        try:
            found = same_solutions(before, line) if task == "solve" else same_value(before, line)
        except (NotImplementedError, ValueError, TypeError, AttributeError):
            found = None
        times.append((time.perf_counter() - started) * 1000)
    return found, statistics.median(times)


def _row(name: str, links: int, times: list[float]) -> str:
    ordered = sorted(times)
    median, high = statistics.median(ordered), ordered[int(len(ordered) * 0.99)]
    return f"| {name} | {links or ''} | {1000 / statistics.mean(ordered):.0f} | {median:.2f} | {high:.2f} |"


class _Writer:
    """One logged-in browser that commits lines to a problem of its own."""

    def __init__(self, base: str, problem: int) -> None:
        self.base = base
        self.problem = problem
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.send("GET", "/api/account/session")
        self.send("POST", "/api/account/log-in", {"username": DEMO_LOG_IN[0], "password": DEMO_LOG_IN[1]})

    def send(self, method: str, path: str, data: object = None) -> dict[str, object]:
        """Sends one more line, and notes how long the answer took."""
        token = next((c.value for c in self.jar if c.name == "uchuu_csrf"), "") or ""
        body = None if data is None else json.dumps(data).encode()
        headers = {"Content-Type": "application/json", "X-CSRFToken": token}
        request = urllib.request.Request(self.base + path, body, headers, method=method)
        with self.opener.open(request, timeout=30) as answer:
            found = json.loads(answer.read() or b"{}")
        return found if isinstance(found, dict) else {"rows": found}

    def commit_lines(self, rounds: int) -> list[float]:
        """Milliseconds per committed line."""
        lines = ["24 = x(x-2) - 4(x-2)", "24 = x^2 - 6x + 8", "0 = x^2 - 6x - 16", "0 = (x-8)(x+2)", "x = 8 or x = -2"]
        times = []
        revision = 0
        pause = random.Random(self.problem)
        time.sleep(pause.random())
        for k in range(rounds):
            body = {"revision": revision, "lines": lines[: k % len(lines) + 1]}
            started = time.perf_counter()
            saved = self.send("PUT", f"/api/problems/{self.problem}/lines", body)
            times.append((time.perf_counter() - started) * 1000)
            revision = int(str(saved["revision"]))
            time.sleep(pause.uniform(0.5, 1.5))  # very fast typists, not in step with each other
        return times


def api_table() -> str:
    """Latency of a committed line with twenty teachers writing at the same time."""
    with demo_server() as base:
        first = _Writer(base, 0)
        sheet = first.send("POST", "/api/sheets", {"title": "Bench"})
        made = [
            first.send("POST", f"/api/sheets/{sheet['id']}/problems", {"task": "solve", "given": "6/(x-2) = x/4 - 1"})
            for _ in range(WRITERS)
        ]
        writers = [_Writer(base, int(str(problem["id"]))) for problem in made]
        with ThreadPoolExecutor(WRITERS) as pool:
            times = sorted(t for found in pool.map(lambda w: w.commit_lines(ROUNDS), writers) for t in found)
    median, high = statistics.median(times), times[int(len(times) * 0.95)]
    return (
        f"### API\n\n{WRITERS} teachers writing at once, {len(times)} "
        f"committed lines, one a second each, 2 workers of 32 threads\n\n"
        "| | median ms | 95th percentile ms | 99th percentile ms | slowest ms |\n|---|--:|--:|--:|--:|\n"
        f"| a committed line, saved and verified | {median:.0f} | {high:.0f} "
        f"| {times[int(len(times) * 0.99)]:.0f} | {times[-1]:.0f} |\n"
    )
