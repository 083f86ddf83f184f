"""What students wrote, taken in from text, tables, JSON lines and chains: who, which item, which lines. Knows no
database."""

from __future__ import annotations

import io
import json
import re
import unicodedata
import zipfile
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from pathlib import PurePosixPath
from typing import Literal

from algebra import TaskError, limits, read_workings, understood
from paper import table_rows

IntakeForm = Literal["text", "csv", "jsonl", "zip"]
MOST_CHARACTERS, MOST_BYTES, MOST_FILES = 1_000_000, 350_000, 400
_LABEL = re.compile(
    r"\s*(?:(?:question|problem|item|no\.?|nr\.?|q|#)\s*(\d{1,3})\s*[.):]*|\(?(\d{1,3})\s*[.):]\)?)(?:\s+|$)",
    re.IGNORECASE,
)
_BEFORE_A_NAME = re.compile(r"^[#*_>\s]*(?:(?:name|student|pupil)\s*[:.]?\s+)?", re.IGNORECASE)
_BEHIND_A_NAME = re.compile(r"\s*(?:\(.*|\s[-–—]\s.*|[:*_]+\s*)$")
_LIKE_A_NAME = re.compile(r"[^\W\d_][\w'’.-]+(?:,?\s+[^\W\d_][\w'’.-]*)+")
_ITEM = re.compile(r"\D*(\d{1,3})\D*")


@dataclass(frozen=True, slots=True)
class Written:
    """The lines of one student for one item (from 1); `place` is where they began."""

    student: str
    item: int
    lines: tuple[str, ...]
    place: int


@dataclass(frozen=True, slots=True)
class NotTakenRow:
    """What could not be taken: where it stands, its beginning, and why."""

    place: int
    text: str
    why: str


@dataclass(slots=True)
class Intake:
    """What was taken apart, and what was left."""

    written: list[Written] = field(default_factory=list)
    left: list[NotTakenRow] = field(default_factory=list)

    def refuse(self, place: int, text: str, why: str) -> None:
        """Names what can't be taken."""
        self.left.append(NotTakenRow(place, text.encode(errors="replace").decode().strip()[:80], why))


def taken_apart(content: bytes, form: IntakeForm, names: Iterable[str], givens: Sequence[str]) -> Intake:
    """Who wrote what. `names` are those of the roster (names and numbers), `givens` the problems in their order. Raises
    TaskError for what is no file of its form at all."""
    if form == "zip":
        return _from_zip(content, names, givens)
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = content.decode("cp1252", errors="replace")  # as spreadsheets of some systems write it
    if len(text) > MOST_CHARACTERS:
        raise TaskError(f"At most {MOST_CHARACTERS:,} characters are taken at once.")
    found = {"text": _from_text, "csv": _from_csv, "jsonl": _from_jsonl}[form](text, by_name(names), givens)
    return _bounded(found)


def _bounded(found: Intake) -> Intake:
    kept = []
    for each in found.written:
        if len(each.lines) > limits.MAX_LINES:
            found.refuse(each.place, f"{each.student}, {each.item}", f"A working has at most {limits.MAX_LINES} lines.")
        elif any(len(line) > limits.MAX_LINE_CHARACTERS for line in each.lines):
            found.refuse(
                each.place,
                f"{each.student}, {each.item}",
                f"A line has at most {limits.MAX_LINE_CHARACTERS} characters.",
            )
        elif not all(map(_can_be_kept, each.lines)):
            words = "A line holds a character that can't be kept."
            found.refuse(each.place, f"{each.student}, {each.item}", words)
        else:
            kept.append(each)
    found.written = kept
    return found


def _can_be_kept(line: str) -> bool:
    return (
        "\0" not in line and line.encode(errors="replace").decode() == line
    )  # no unpaired surrogate, as JSON can write it


class ByName(dict[str, str]):
    """Whose name is meant, by names as they may be written: in any case, with or without accents, in any order of its
    words; where that could be two, nobody's."""

    def __init__(self, names: Iterable[str]) -> None:
        super().__init__()
        self.names = told = [name for name in names if name]
        for way in _WAYS:
            found: dict[str, set[str]] = {}
            for name in told:
                found.setdefault(way(name), set()).add(name)
            for key, whose in found.items():
                if len(whose) == 1:
                    self.setdefault(key, *whose)

    def whose(self, written: str) -> str | None:
        """The name that is meant, or None."""
        return next((self[key] for key in (way(written) for way in _WAYS) if key in self), None)


def by_name(names: Iterable[str]) -> ByName:
    """Whose name is meant by a name as it is written."""
    return ByName(names)


def _is_somebody(line: str) -> bool:
    """Whether a line is a name, though nobody's of the class: words that begin like names and are no mathematics."""
    words = line.split()
    capital = all(word[:1].isupper() for word in words)
    return bool(capital and _LIKE_A_NAME.fullmatch(line)) and understood(line).error is not None


def folded(name: str) -> str:
    """A name as it is compared: without a comma, in one case, with its accents as one sign with their letters."""
    return " ".join(unicodedata.normalize("NFC", name).replace(",", " ").split()).casefold()


def _bare(name: str) -> str:
    """A name without accents, and without signs of its language that a keyboard may lack."""
    apart = unicodedata.normalize("NFKD", folded(name).translate(_PLAIN))
    return "".join(sign for sign in apart if unicodedata.category(sign) not in ("Mn", "Lm", "Sk"))


def _in_any_order(name: str) -> str:
    # longer than any name: never taken for one that is written so
    return " ".join(["\N{SECTION SIGN}", *sorted(_bare(name).split())])


_PLAIN = str.maketrans(
    {"ł": "l", "ø": "o", "đ": "d", "ð": "d", "æ": "ae", "œ": "oe", "ı": "i", "'": "", "’": "", "-": " "}
)
_WAYS = (folded, _bare, _in_any_order)


def _from_text(text: str, roster: ByName, givens: Sequence[str]) -> Intake:
    """Names on lines of their own, numbered problems below, the lines of each under its number."""
    found = Intake()
    named_by = ByName(name for name in roster.names if not name.isdigit())  # a line 12 is an answer, not a student
    student, item, place, lines = "", 0, 0, list[str]()
    lost = False  # below a number that could not be taken: its lines are not named one by one

    def put() -> None:
        if not item:
            return
        own = tuple(without_given(lines, givens[item - 1]))
        for k, each in enumerate(found.written):  # who goes on with a problem further below
            if (each.student, each.item) == (student, item):
                found.written[k] = replace(each, lines=(*each.lines, *own))
                return
        found.written.append(Written(student, item, own, place))

    for number, raw in enumerate(text.splitlines(), start=1):
        bare = _BEHIND_A_NAME.sub("", _BEFORE_A_NAME.sub("", raw)).strip()
        named = named_by.whose(raw.strip().rstrip(":")) or named_by.whose(bare)
        if named is not None or _is_somebody(bare):
            put()
            student, item, lines, lost = named or "", 0, [], named is None
            if named is None:  # what follows is nobody's, least of all of who stands above
                found.refuse(number, raw, "No student of the class has this name.")
            continue
        label = _LABEL.match(raw)
        if label:
            put()
            item, lines, place = int(label.group(1) or label.group(2)), [], number
            if not student or not 1 <= item <= len(givens):
                found.refuse(
                    number,
                    raw,
                    "There is no problem with this number." if student else "No student's name stands above it.",
                )
                item, lost = 0, True
                continue
            lost = False
        rest = raw[label.end() :] if label else raw
        if rest.strip() and item:
            lines.append(rest.strip())
        elif rest.strip() and not lost:
            found.refuse(number, raw, "This is no name of the class and stands under no number.")
    put()
    return found


def labelled(line: str) -> tuple[int | None, str]:
    """The number that stands before a line, as in `3. x = 1`, and the rest; None where there is none."""
    label = _LABEL.match(line)
    return (int(label.group(1) or label.group(2)), line[label.end() :].strip()) if label else (None, line.strip())


def without_given(lines: Sequence[str], given: str) -> Sequence[str]:
    """The lines without the problem itself, where it was copied out first."""
    same = bool(lines) and "".join(lines[0].split()) == "".join(given.split())
    return lines[1:] if same else lines


def _from_csv(text: str, roster: ByName, givens: Sequence[str]) -> Intake:
    """Rows of student, item, line; with a row of titles or without."""
    found = Intake()
    rows: dict[tuple[str, int], tuple[int, list[str]]] = {}
    for number, cells in enumerate(table_rows(text), start=1):
        told = [cell.strip() for cell in cells]
        if not any(told) or (number == 1 and told[0].casefold() in ("student", "name", "number")):
            continue
        if len(told) < 3:
            found.refuse(number, " ".join(told), "A row has a student, an item and a line.")
            continue
        line = told[2].removeprefix("'")
        _add(found, rows, number, told[0], told[1], [line] if line else [], roster, givens)
    _close(found, rows, givens)
    return found


def _from_jsonl(text: str, roster: ByName, givens: Sequence[str]) -> Intake:
    """One object a line: `student`, `item`, and `lines` or `line`."""
    found = Intake()
    rows: dict[tuple[str, int], tuple[int, list[str]]] = {}
    for number, raw in enumerate(text.splitlines(), start=1):
        if not raw.strip():
            continue
        try:
            row = json.loads(raw)
        except (ValueError, RecursionError):
            found.refuse(number, raw, "This is no JSON.")
            continue
        told = row if isinstance(row, dict) else {}
        lines = told.get("lines", [told["line"]] if "line" in told else None)
        if not isinstance(lines, list) or not all(isinstance(line, str) for line in lines):
            found.refuse(number, raw, "An object has “student”, “item”, and “lines”, a list of texts.")
            continue
        _add(found, rows, number, str(told.get("student", "")), str(told.get("item", "")), lines, roster, givens)
    _close(found, rows, givens)
    return found


def _add(
    found: Intake,
    rows: dict[tuple[str, int], tuple[int, list[str]]],
    number: int,
    name: str,
    item: str,
    lines: list[str],
    roster: ByName,
    givens: Sequence[str],
) -> None:
    student = roster.whose(name)
    place = _ITEM.fullmatch(item)
    if student is None:
        found.refuse(number, name, "No student of the class has this name or number.")
    elif place is None or not 1 <= int(place.group(1)) <= len(givens):
        found.refuse(number, item, f"The set has the items 1 to {len(givens)}.")
    else:
        _, known = rows.setdefault((student, int(place.group(1))), (number, []))
        known += [line.strip() for line in lines if line.strip()]


def _close(found: Intake, rows: Mapping[tuple[str, int], tuple[int, list[str]]], givens: Sequence[str]) -> None:
    found.written += [
        Written(student, item, tuple(without_given(lines, givens[item - 1])), place)
        for (student, item), (place, lines) in rows.items()
    ]


def _from_zip(content: bytes, names: Iterable[str], givens: Sequence[str]) -> Intake:
    """Chains in an archive, a file a student named after them; each working belongs to the item with its given."""
    if len(content) > MOST_BYTES:
        raise TaskError("This archive is larger than any pile.")
    found, roster = Intake(), by_name(names)
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            entries = [entry for entry in archive.infolist() if entry.filename.lower().endswith((".chain", ".txt"))]
            if len(entries) > MOST_FILES:
                raise TaskError(f"At most {MOST_FILES} files are taken at once.")
            room = MOST_CHARACTERS
            for number, entry in enumerate(entries, start=1):
                with archive.open(entry) as file:  # what the archive says of its sizes is not trusted
                    text = file.read(room + 1)
                room -= len(text)
                if room < 0:
                    raise TaskError("Unpacked, this archive is larger than any pile.")
                _one_file(found, number, PurePosixPath(entry.filename).stem, text, roster, givens)
    except TaskError:
        raise
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError, ValueError) as problem:
        raise TaskError("This is no zip archive that can be opened.") from problem
    return _bounded(found)


def _one_file(found: Intake, number: int, name: str, content: bytes, roster: ByName, givens: Sequence[str]) -> None:
    student = roster.whose(name.replace("_", " ").replace("-", " ")) or roster.whose(name)
    if student is None:
        found.refuse(number, name, "No student of the class has this name or number.")
        return
    try:
        workings = read_workings(content.decode("utf-8-sig"))
    except (TaskError, UnicodeDecodeError) as problem:
        found.refuse(number, name, str(problem))
        return
    plain = ["".join(given.split()) for given in givens]
    for place, working in enumerate(workings, start=1):
        given = "".join(working.given.split())
        item = plain.index(given) + 1 if given in plain else 0
        if not item:
            found.refuse(number, f"{name}: {working.given}", "No item of the set is this problem.")
        else:
            found.written.append(Written(student, item, working.lines, place))
