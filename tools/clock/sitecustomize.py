"""For the fault runs only: a clock that jumps. Python loads this at its start where it lies on the path; the file of
`UCHUU_CLOCK` says by how many seconds the clock of this process is wrong just now. What sleeps or waits is not touched,
and the database has its own clock."""

import datetime
import os
import time

_FILE = os.environ.get("UCHUU_CLOCK", "")
_real_time, _real_datetime = time.time, datetime.datetime


def _wrong_by() -> float:
    try:
        with open(_FILE, encoding="ascii") as file:
            return float(file.read() or 0)
    except (OSError, ValueError):
        return 0.0


class _AsReal(type):
    def __instancecheck__(cls, found: object) -> bool:
        return isinstance(found, _real_datetime)


class _Jumping(datetime.datetime, metaclass=_AsReal):
    @classmethod
    def now(cls, tz: datetime.tzinfo | None = None) -> datetime.datetime:  # type: ignore[override]  # as the class it stands for has it
        """The time by the wrong clock."""
        return _real_datetime.now(tz) + datetime.timedelta(seconds=_wrong_by())


if _FILE:
    time.time = lambda: _real_time() + _wrong_by()
    datetime.datetime = _Jumping  # type: ignore[misc]  # that is what this is for
