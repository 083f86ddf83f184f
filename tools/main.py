"""The one door, Python half: hands a command to its module."""

from __future__ import annotations

import os
import sys
from collections.abc import Callable
from importlib import import_module
from io import TextIOWrapper

from lanes.pool import Pool
from server.common.release import CORE, RELEASE
from tools.bounds import bound_memory

HELP = """\
./uchuu COMMAND

  start [--empty] [--port N]    serve Uchuu on this machine, with demo data unless --empty
  worker [--at-once N]          works out what waits in the queue, here or on another machine (DATABASE_URL)
  backup FILE, restore FILE     all data in one file, while it runs; and back into an empty database (--into)
  doctor                        looks at the installation and says what is wrong and how to mend it
  install-service [--print]     as root: a service of the system, started at boot
  people ACTION                 accounts: add, list, reset, disable, enable (--help)
  test [--only PART] [--long]   run every check and test (parts: lint, web, python)
  test --changed                only the tests that what is not committed can touch
  test --faults                 processes are killed while lines are written
  lint, fix                     the Python checks alone; mend what can be mended
  check FILE...                 verify workings (text form; - for standard input; --json, --jsonl)
  solve --given TEXT            work a problem (--task, --method, --methods, --grain, --json, --jsonl)
  analyse --given TEXT          the features of a rational function (--json, --jsonl)
  predict --given TEXT          the wrong answers to expect (--most, --options, --json, --jsonl)
  generate --family NAME        problems of a family (--level, --count, --seed, --events, --json)
  like --given TEXT             problems like one: its structure and events, other numbers (--count, --seed, --json)
  ladder --family NAME          problems by rising difficulty (--family again, --from, --to, --count, --events,
                                --largest, --json)
  convert FILE --to FORM        a sheet from .chain, .json, .csv, .tex, .txt or .zip to chain, json, csv, tex,
                                html or qti (--out)
  export [N] --teacher NAME     a stored sheet as a file (--to FORM or pdf, --kind, --out); without N, their list
  import FILE --teacher NAME    a new sheet from a file
  picture FILE --out FILE       a chain with its links, or a graph, as SVG or PNG (--number, --shown chain|graph)
  print FILE --out PDF          workings as a sheet on paper (--kind sheet|answers|key|choose|mend|fill|way|claim|
                                cards|large, --paper, --columns, --space)
  methods, families, slips      the catalogues (--json)
  bench                         measure the core and the API
  mutate [PACKAGE...]           how many small changes of the code the tests notice (--sample, --seed, --show)
  docs                          make the page of slips, the JSON Schema and the list of conventions again
  api-types                     these and the front end's types
  demo-pages                    draw the pages that the page reader's stand-in can read again
  --version                     which version of the product and of the core this is
  shots                         make the pictures in docs/screenshots again
"""

COMMANDS = {
    "start": ("tools.start", "main"),
    "backup": ("tools.backup", "backup_command"),
    "restore": ("tools.backup", "restore_command"),
    "doctor": ("tools.doctor", "main"),
    "install-service": ("tools.service", "main"),
    "worker": ("tools.worker", "main"),
    "people": ("tools.people", "main"),
    "test": ("tools.testing", "main"),
    "lint": ("tools.testing", "lint_command"),
    "fix": ("tools.testing", "fix_command"),
    "check": ("cli.check", "main"),
    "solve": ("cli.solve", "main"),
    "analyse": ("cli.analyse", "main"),
    "analyze": ("cli.analyse", "main"),
    "predict": ("cli.predict", "main"),
    "generate": ("cli.generate", "main"),
    "like": ("cli.ladder", "like_main"),
    "ladder": ("cli.ladder", "ladder_main"),
    "convert": ("cli.convert", "main"),
    "print": ("cli.print", "main"),
    "picture": ("cli.picture", "main"),
    "export": ("tools.sheets", "export_command"),
    "import": ("tools.sheets", "import_command"),
    "methods": ("cli.catalogues", "methods"),
    "families": ("cli.catalogues", "families"),
    "slips": ("cli.catalogues", "slips"),
    "bench": ("tools.bench", "main"),
    "mutate": ("tools.mutate", "main"),
    "docs": ("tools.api_types", "docs_main"),
    "api-types": ("tools.api_types", "main"),
    "demo-pages": ("standins.draw", "main"),
    "shots": ("tools.shots", "main"),
}
"""Every command with the module and function that does it; a module is loaded only when its command is called."""


def main(arguments: list[str]) -> int:
    """Runs the command named first; returns its exit status, 2 for an unknown one."""
    command, rest = (arguments[0], arguments[1:]) if arguments else ("help", [])
    if command in ("version", "--version"):
        print(f"Uchuu {RELEASE}, core {CORE}")
        return 0
    if command in ("help", "--help", "-h"):
        print(HELP)
        return 0
    if command not in COMMANDS:
        print(f"uchuu: there is no command “{command}”.\n\n{HELP}", file=sys.stderr)
        return 2
    for stream in (sys.stdout, sys.stderr):  # an unpaired surrogate is written as JSON writes it: \ud800
        if isinstance(stream, TextIOWrapper):
            stream.reconfigure(errors="backslashreplace")
    module, function = COMMANDS[command]
    run: Callable[[list[str]], int] = getattr(import_module(module), function)
    if module.startswith("cli."):
        bound_memory()
        Pool.from_this_process()
    try:
        return run(rest)
    except BrokenPipeError:  # the reader of our output has seen enough
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
