"""`./uchuu export` and `./uchuu import`: hand over to Django's command, with the database of this home beside it."""

from __future__ import annotations

from tools.people import handed_over


def export_command(arguments: list[str]) -> int:
    """A sheet of a teacher as a file. Returns 0, 1 where it can't be done, 3 where there is no database."""
    return handed_over("sheets", "export", *arguments)


def import_command(arguments: list[str]) -> int:
    """A file as a new sheet of a teacher. Returns as `export_command`."""
    return handed_over("sheets", "import", *arguments)
