"""Shapes that several apps take and give. What the core gives out are its own records, described there and nowhere
else."""

from __future__ import annotations

import unicodedata
from typing import Annotated, Literal

from ninja import Field, Schema
from pydantic import AfterValidator, SerializerFunctionWrapHandler, StringConstraints, create_model, model_serializer

from algebra import CONVENTIONS, limits


def _can_be_kept(text: str) -> str:
    if "\0" in text or any("\ud800" <= character <= "\udfff" for character in text):
        raise ValueError("This text holds a character that can't be kept: the code 0, or an unpaired surrogate.")
    return text


KEPT = AfterValidator(_can_be_kept)  # stands last, so that it does not take the place of the checks before it
JOINED = AfterValidator(lambda text: unicodedata.normalize("NFC", text))
"""A letter and the accent on it are one sign, however they were typed: names are found again, and printed."""
Text = Annotated[str, KEPT]
"""What the database can keep."""
LineText = Annotated[str, StringConstraints(min_length=1, max_length=limits.MAX_LINE_CHARACTERS), KEPT]
Given = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=limits.MAX_LINE_CHARACTERS), KEPT
]
SearchText = Annotated[str, StringConstraints(max_length=120), KEPT]
PageNumber = Annotated[int, Field(ge=1, le=10_000)]
Instruction = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120), JOINED, KEPT]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120), JOINED, KEPT]


ClassName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), JOINED, KEPT]
StudentName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80), JOINED, KEPT]


class _Chosen(Schema):
    """Gives out only what is set."""

    @model_serializer(mode="wrap")
    def _set_only(self, handler: SerializerFunctionWrapHandler):  # type: ignore[no-untyped-def]  # it would be the schema
        return {key: value for key, value in handler(self).items() if value is not None}


ConventionsOut = create_model(
    "ConventionsOut",
    __base__=_Chosen,
    __doc__="The conventions that differ from the defaults, by key; the first position of each is the default.",
    **{key: (Literal[positions] | None, None) for key, positions in CONVENTIONS.items()},  # type: ignore[call-overload]  # fields are made
)


class Detail(Schema):
    """A refusal: a code for programs, a sentence for people."""

    code: str
    detail: str
