"""Asking the page reader, as docs/page-reader.md tells. Whatever it answers is survived: what does not keep to that
page is a ReaderTrouble."""

from __future__ import annotations

import time
from typing import Annotated, Literal
from urllib.error import HTTPError
from urllib.request import Request

from django.conf import settings
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from server.common import outside
from server.common.schemas import KEPT

TRIES, SECONDS = 3, 20
NOT_THERE = (
    "No page reader is set up here. Type the lines beside the "
    "page, or have UCHUU_PAGE_READER set to the address of one."
)
SILENT = "The page reader does not answer. Try again later, or type the lines beside the page."
STRANGE = "The page reader's answer can't be understood. Read the page again, or type the lines beside it."

Share = Annotated[float, Field(ge=0, le=1)]
Box = tuple[Share, Share, Share, Share]
"""Left, top, width, height, as shares of the page."""


class _Told(BaseModel):
    model_config = ConfigDict(extra="ignore", frozen=True)


Symbols = Annotated[str, StringConstraints(max_length=12), KEPT]


class Alternative(_Told):
    """Another reading of a symbol."""

    text: Symbols
    confidence: Share = 0.0


class Symbol(_Told):
    """A symbol as it was read, how sure that is, and what else it may be."""

    text: Symbols
    confidence: Share = 1.0
    box: Box | None = None
    alternatives: tuple[Alternative, ...] = Field((), max_length=9)


class ReadLine(_Told):
    """A row of a page: a name, the number of an item, or a line of a working."""

    about: Literal["name", "number", "line"]
    box: Box
    symbols: tuple[Symbol, ...] = Field((), max_length=600)
    crossed: bool = False

    @property
    def text(self) -> str:
        """The line as it was read."""
        return "".join(symbol.text for symbol in self.symbols).strip()


class PageReading(_Told):
    """What a page reader answers."""

    protocol: Literal[1]
    code: Annotated[str, StringConstraints(max_length=60), KEPT] = ""
    read_to: Share = 1.0
    lines: tuple[ReadLine, ...] = Field(max_length=400)


class ReaderTrouble(Exception):
    """Why a page was not read: a sentence for people."""


def read(content: bytes, media: str) -> PageReading:
    """What stands on a page; asked again where that may help. Raises ReaderTrouble."""
    address = settings.PAGE_READER
    if not address:
        raise ReaderTrouble(NOT_THERE)
    trouble = SILENT
    for left in range(TRIES, 0, -1):
        try:
            return _asked(address, content, media)
        except outside.AskAgain as problem:
            trouble = str(problem)
            if left > 1:
                time.sleep(problem.wait)
    raise ReaderTrouble(trouble)


def _asked(address: str, content: bytes, media: str) -> PageReading:
    request = Request(f"{address.rstrip('/')}/read", content, {"Content-Type": media})
    try:
        told = outside.sent(request, seconds=SECONDS, silent=SILENT)
    except HTTPError as problem:
        words = outside.reason(problem, "error", "it refuses this page")
        raise ReaderTrouble(f"The page reader says: {words}") from problem
    if len(told) > outside.MOST_BYTES:
        raise ReaderTrouble(STRANGE)
    try:
        return PageReading.model_validate_json(told)
    except ValidationError as problem:
        raise outside.AskAgain(STRANGE) from problem
