"""Rosters from tables and from OneRoster bundles: classes and their students, and what could not be taken. Knows no
database."""

from __future__ import annotations

import csv
import io
import re
import zipfile
from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal, cast

from algebra import TaskError
from paper import table_rows

MOST_BYTES, MOST_ROWS = 8_000_000, 60_000
NAME, NUMBER, TITLE = 80, 30, 60
MOST_COLUMNS = 60
MOST_ABOVE = 6
"""In how many rows from the top the titles of the columns are looked for: a name of the school or the class may stand
above them."""
_TITLES = {
    "name": {
        "name",
        "names",
        "student",
        "students",
        "full name",
        "student name",
        "name of student",
        "pupil",
        "pupil name",
    },
    "first": {"first name", "firstname", "first", "given name", "givenname", "forename"},
    "last": {"last name", "lastname", "last", "surname", "family name", "familyname"},
    "number": {
        "number",
        "id",
        "student id",
        "student no",
        "student no.",
        "student number",
        "pupil id",
        "pupil number",
        "admission number",
        "identifier",
    },
    "running": {"no", "no.", "nr", "nr.", "#"},  # the number only where there is no other
    "class": {"class", "form", "group", "course", "section", "set", "classes"},
}
_NUMBERED = re.compile(r"^\d+\s*[.)]\s*")  # 12. Ada Quill
_FILES = ("classes", "enrollments", "users")


@dataclass(frozen=True, slots=True)
class RosterStudent:
    """A student as a roster has it; `sourced_id` is the id in the records, empty in a plain table."""

    name: str
    number: str = ""
    sourced_id: str = ""


@dataclass(frozen=True, slots=True)
class RosterClass:
    """A class of a roster; the title is empty where a table names none."""

    title: str
    students: tuple[RosterStudent, ...]
    sourced_id: str = ""


@dataclass(frozen=True, slots=True)
class LeftRow:
    """A row that can't be taken: where it stands, its beginning, why."""

    place: int
    text: str
    why: str


Means = Literal["name", "first", "last", "number", "class", ""]
"""What a column means; an empty one is left out."""


@dataclass(frozen=True, slots=True)
class Column:
    """A column of a table: its title, a few of its cells, and as what it was taken."""

    title: str
    means: Means
    examples: tuple[str, ...]


@dataclass(slots=True)
class Roster:
    """What was found, and what was left. Of a table also its columns, whether `titles` stand above them, and whether
    what they mean is `sure`."""

    classes: list[RosterClass] = field(default_factory=list)
    left: list[LeftRow] = field(default_factory=list)
    columns: tuple[Column, ...] = ()
    titles: bool = False
    sure: bool = True


MOST_EXAMPLES = 3


def from_table(text: str, means: Sequence[Means] | None = None, *, titles: bool | None = None) -> Roster:
    """A roster from a table: with titles in a row above in any order, or the name first and the number second. `means`
    says what the columns mean and `titles` whether a row of titles stands above, where somebody has said that. Raises
    TaskError for no table."""
    if len(text) > MOST_BYTES:
        raise TaskError("This table is too large for a roster.")
    found = Roster()
    rows = [
        (number, [cell.strip() for cell in row])
        for number, row in enumerate(table_rows(text.lstrip("\ufeff"), above=MOST_ABOVE), start=1)
    ]
    rows = [(number, row) for number, row in rows if any(row)]
    if not rows:
        raise TaskError("There is no row in this table.")
    above = ((k, _columns(row)) for k, (_, row) in enumerate(rows[:MOST_ABOVE], start=1))
    begin, columns = next(((k, known) for k, known in above if known), (0, {}))
    known_titles = bool(columns)
    columns = columns or _guessed(rows[0][1])
    if titles is not None:
        begin = begin or 1 if titles else 0
    if means is not None:
        columns = {what: at for at, what in enumerate(means) if what}
        if not {"name", "first", "last"} & set(columns):
            raise TaskError("Say which column holds the name.")
    found.titles = begin > 0
    width = max(len(row) for _, row in rows)
    found.sure = means is not None or known_titles or _is_plain(rows, width)
    found.columns = tuple(_column(rows, begin, at, columns) for at in range(min(width, MOST_COLUMNS)))
    of: dict[str, list[tuple[int, RosterStudent]]] = defaultdict(list)
    for number, row in rows[begin:]:
        cells = {what: row[at].removeprefix("'") for what, at in columns.items() if at < len(row)}
        of[titled(cells.get("class", ""))].append((number, RosterStudent(_name(cells), cells.get("number", ""))))
    for title, students in of.items():
        found.classes.append(RosterClass(title, tuple(sound(students, found))))
    return found


def _is_plain(rows: Sequence[tuple[int, list[str]]], width: int) -> bool:
    """Whether a table without known titles can mean but one thing: names, or names beside numbers from the first row
    on."""
    first = rows[0][1]
    return width == 1 or (width == 2 and sum(any(c.isdigit() for c in cell) for cell in first) == 1)


def _column(rows: Sequence[tuple[int, list[str]]], begin: int, at: int, columns: Mapping[str, int]) -> Column:
    cells = [row[at] for _, row in rows[begin:] if at < len(row) and row[at]]
    title = rows[begin - 1][1][at] if begin and at < len(rows[begin - 1][1]) else ""
    means = next((what for what, place in columns.items() if place == at), "")
    return Column(title[:TITLE], cast(Means, means), tuple(cell[:TITLE] for cell in cells[:MOST_EXAMPLES]))


def _columns(row: list[str]) -> dict[str, int]:
    """Where what stands, by the titles; nothing where the first row has none."""
    titles = [cell.casefold().strip(" :") for cell in row]
    found: dict[str, int] = {}
    for at, title in enumerate(titles):
        for what, known in _TITLES.items():
            if title in known:
                found.setdefault(what, at)
    running = found.pop("running", None)
    if running is not None:
        found.setdefault("number", running)
    return found if "name" in found or "last" in found or "first" in found else {}


def _guessed(row: list[str]) -> dict[str, int]:
    """In a table without titles: the name is the first column that is no number, the number the first that is."""
    words = [at for at, cell in enumerate(row) if any(character.isalpha() for character in cell)]
    numbers = [at for at, cell in enumerate(row) if cell.isdigit()]
    return {"name": words[0] if words else 0, **({"number": numbers[0]} if numbers else {})}


def _name(cells: dict[str, str]) -> str:
    """First name before last name, without the comma between them."""
    if cells.get("first") or cells.get("last"):
        return f"{cells.get('first', '')} {cells.get('last', '')}".strip()
    last, comma, first = _NUMBERED.sub("", cells.get("name", "")).partition(",")
    return f"{first.strip()} {last.strip()}" if comma and first.strip() else last.strip()


def sound(rows: Iterable[tuple[int, RosterStudent]], found: Roster) -> Iterator[RosterStudent]:
    """The students that can be taken. Who has no name, one that stands in the class already, or one that is too long is
    named and left; a number that another student of the class has is named, and the student taken without it."""
    names, numbers = list[tuple[str, str]](), set[str]()
    for place, student in rows:
        told = f"{student.name} {student.number}".strip()[:80]
        why = _why_not(student, names)
        if why:
            found.left.append(LeftRow(place, told, why))
            continue
        if student.number and student.number in numbers:
            found.left.append(LeftRow(place, told, "Another student of the class has this number: taken without it."))
            student = replace(student, number="")
        names.append((student.name.casefold(), student.number))
        numbers.add(student.number)
        yield student


def _why_not(student: RosterStudent, names: Iterable[tuple[str, str]]) -> str:
    """Why a student can't be taken; empty where nothing is against it."""
    if not any(character.isalpha() for character in student.name):
        return "No name stands here."
    if len(student.name) > NAME or len(student.number) > NUMBER:
        return f"A name has at most {NAME} characters, a number {NUMBER}."
    if not student.name.isprintable() or not student.number.isprintable():
        return "This row holds a character that can't be kept."
    alike = [number for name, number in names if name == student.name.casefold()]
    if any(not number or not student.number or number == student.number for number in alike):
        return "This name stands in the class twice. Add something that tells them apart."
    return ""


def titled(title: str) -> str:
    """A title as a class can have it."""
    return "".join(filter(str.isprintable, title)).strip()[:TITLE].strip()


def from_bundle(content: bytes) -> Roster:
    """The classes of a OneRoster 1.2 CSV bundle with their students. Raises TaskError for what is no such bundle."""
    tables = _unpacked(content)
    missing = [f"{name}.csv" for name in _FILES if name not in tables]
    if missing:
        raise TaskError(f"This bundle has no {' and no '.join(missing)}.")
    found = Roster()
    users = {row.get("sourcedId", ""): row for row in tables["users"] if row.get("status", "active") != "tobedeleted"}
    members: dict[str, list[tuple[int, RosterStudent]]] = defaultdict(list)
    for place, row in enumerate(tables["enrollments"], start=2):
        if row.get("role") != "student" or row.get("status") == "tobedeleted":
            continue
        user = users.get(row.get("userSourcedId", ""))
        if user is None:
            found.left.append(
                LeftRow(
                    place, f"enrollments.csv: {row.get('userSourcedId', '')}"[:80], "users.csv has nobody of this id."
                )
            )
            continue
        members[row.get("classSourcedId", "")].append((place, student_of(user)))
    for place, row in enumerate(tables["classes"], start=2):
        title = titled(row.get("title", ""))
        if not title:
            found.left.append(
                LeftRow(place, f"classes.csv: {row.get('sourcedId', '')}"[:80], "This class has no title.")
            )
        elif row.get("status") != "tobedeleted":
            own = row.get("sourcedId", "")
            found.classes.append(RosterClass(title, tuple(sound(members.get(own, []), found)), own))
    return found


def student_of(user: dict[str, str]) -> RosterStudent:
    """A user of OneRoster as a student: the name that is preferred, and the number."""
    first = user.get("preferredGivenName") or user.get("givenName", "")
    last = user.get("preferredFamilyName") or user.get("familyName", "")
    return RosterStudent(f"{first} {last}".strip(), user.get("identifier") or "", user.get("sourcedId", ""))


def _unpacked(content: bytes) -> dict[str, list[dict[str, str]]]:
    """The tables of a bundle that matter here, by their names."""
    found = {}
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            for entry in archive.infolist():
                name = entry.filename.rpartition("/")[2].removesuffix(".csv")
                if name in _FILES:
                    with archive.open(entry) as file:  # what the archive says of its sizes is not trusted
                        told = file.read(MOST_BYTES + 1)
                    if len(told) > MOST_BYTES:
                        raise TaskError(f"{name}.csv is too large.")
                    rows = csv.DictReader(io.StringIO(told.decode("utf-8-sig"), newline=""), restval="")
                    found[name] = [
                        {key: value or "" for key, value in row.items() if isinstance(key, str)}
                        for row, _ in zip(rows, range(MOST_ROWS), strict=False)
                    ]
    except TaskError:
        raise
    except (
        zipfile.BadZipFile,
        csv.Error,
        UnicodeDecodeError,
        NotImplementedError,
        RuntimeError,
        EOFError,
        OSError,
        ValueError,
    ) as problem:
        raise TaskError("This is no OneRoster bundle that can be opened.") from problem
    return found
