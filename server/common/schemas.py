"""Shapes that several apps take and give. What the core gives out are its own records, described there and nowhere else."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import AfterValidator, SerializerFunctionWrapHandler, StringConstraints, create_model, model_serializer

from algebra import CONVENTIONS, limits


def _without_nul(text: str) -> str:
    if "\0" in text:
        raise ValueError("The character with the code 0 can't be kept.")
    return text


Text = Annotated[str, AfterValidator(_without_nul)]
"""What the database can keep."""
LineText = Annotated[Text, StringConstraints(min_length=1, max_length=limits.MAX_LINE_CHARACTERS)]
Given = Annotated[Text, StringConstraints(strip_whitespace=True, min_length=1, max_length=limits.MAX_LINE_CHARACTERS)]
Title = Annotated[Text, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


class _Chosen(Schema):
    """Gives out only what is set."""

    @model_serializer(mode="wrap")
    def _set_only(self, handler: SerializerFunctionWrapHandler):  # type: ignore[no-untyped-def]  # a type would replace the schema
        return {key: value for key, value in handler(self).items() if value is not None}


ConventionsOut = create_model(
    "ConventionsOut",
    __base__=_Chosen,
    __doc__="The conventions that differ from the defaults, by key; the first position of each is the default.",
    **{key: (Literal[positions] | None, None) for key, positions in CONVENTIONS.items()},  # type: ignore[call-overload]
)


class Detail(Schema):
    """A refusal: a code for programs, a sentence for people."""

    code: str
    detail: str
