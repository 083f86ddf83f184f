"""The one door, Python half: hands a command to its module."""

from __future__ import annotations

import sys

HELP = """\
./uchuu COMMAND

  start [--empty] [--port N]    serve Uchuu on this machine, with demo data unless --empty
  test [--only PART] [--long]   run every check and test (parts: lint, web, python)
  lint, fix                     the Python checks alone; mend what can be mended
  check FILE...                 verify workings (text form; - for standard input; --json, --jsonl)
  bench                         measure the core and the API
  api-types                     make the front end's types and the JSON Schema again
  shots                         make the pictures in docs/screenshots again
"""


def main(arguments: list[str]) -> int:
    command, rest = (arguments[0], arguments[1:]) if arguments else ("help", [])
    match command:
        case "check":
            from cli.check import main as run
        case "start":
            from door.start import main as run
        case "test":
            from door.testing import main as run
        case "lint":
            from door.testing import lint

            return 0 if lint() else 1
        case "fix":
            from door.testing import fix

            return fix()
        case "api-types":
            from door.api_types import main as run
        case "bench":
            from door.bench import main as run
        case "shots":
            from door.shots import main as run
        case "help" | "--help" | "-h":
            print(HELP)
            return 0
        case _:
            print(f"uchuu: there is no command “{command}”.\n\n{HELP}", file=sys.stderr)
            return 2
    return run(rest)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
