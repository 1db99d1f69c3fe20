"""What is asked of the sheet, as an address has it: every field a text.

docs/question.schema.json is made from the types here.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Final

from pydantic import ConfigDict, Field

from vinetag.core.brief import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.documents import Document, Marker, OneOf
from vinetag.core.errors import QuestionError
from vinetag.core.sheet.columns import ADDED_NAMES, STATUS_NAMES
from vinetag.core.sheet.fields import (
    EITHER,
    Bound,
    Extensions,
    Flag,
    Letters,
    Number,
    Price,
    Several,
)

__all__ = [
    "MARKS", "RANGES", "SORTS", "Question", "parse_question", "question_schema",
]  # fmt: skip

RANGES: Final = ("letters", "syllables", "words")
MARKS: Final = ("", "kept", "later", "fresh", "dismissed")
# Beside these, an extension with its dot orders by status there.
SORTS: Final = (
    "best", "grade", "name", *RANGES, "price", "later", "whole", "demand", *MEASURE_NAMES,
)  # fmt: skip
SCHEMA_SAYS: Final = (
    "What is asked of the sheet, in the fields of an address: all are texts there, and all may be "
    "left out."
)


@dataclass(frozen=True)
class _Least(Marker):
    """Least scores, written measure:score and set apart by commas."""

    def read(self, value: str) -> tuple[tuple[str, float], ...]:
        pairs = [part.partition(":") for part in value.split(",")]
        measure, score = OneOf(MEASURE_NAMES), Number(0, 100, float)
        return tuple((measure.read(m), score.read(least)) for m, _, least in pairs)

    def described(self) -> dict[str, Any]:
        return {"type": "string"}


ANY_OF: Final = "Any of, set apart by commas"


@dataclass(frozen=True, slots=True)
class Question:
    """Which names, in which order; the filters combine.

    `text`, `starts`, `ends`: letters of the label; the bounds are inclusive, None for none;
    `least`: (measure, the lowest score); `recipes` and `added` (parts of speech of an added word)
    and `status` (in any of the brief's extensions): any of them; `open_in`: extensions, or "any" or
    "all" for the brief's; `open_all`: open in every one of them; the least and the most the first
    year costs, each later one, and all of them, where it is cheapest; `premium`: "no" leaves out
    what can be had as a premium name only, and premium prices with it; `demand_min`: the least a
    month the phrase it carries is looked for; `hyphen`, `digit`: "yes",
    "no" or ""; `mark`: "kept", "later", "fresh" (not looked at yet), "dismissed", or "" for all but
    those dismissed.
    """

    # What else an address holds is none of its business.
    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    sort: Annotated[
        str, OneOf(SORTS, "sorts"), Field(description=", ".join(SORTS) + ", or .extension")
    ] = "best"
    reverse: Flag = False
    text: Letters = ""
    starts: Letters = ""
    ends: Letters = ""
    letters_min: Bound = None
    letters_max: Bound = None
    syllables_min: Bound = None
    syllables_max: Bound = None
    words_min: Bound = None
    words_max: Bound = None
    grade_min: Annotated[float | None, Number(0, 100, float)] = None
    least: Annotated[
        tuple[tuple[str, float], ...],
        _Least(),
        Field(description="measure:score, set apart by commas"),
    ] = ()
    recipes: Annotated[
        tuple[str, ...], Several(OneOf(RECIPE_NAMES)), Field(description=ANY_OF)
    ] = ()
    added: Annotated[
        tuple[str, ...],
        Several(OneOf(ADDED_NAMES)),
        Field(description="Parts of speech of an added word"),
    ] = ()
    open_in: Annotated[
        tuple[str, ...],
        Extensions(OneOf(("any", "all"), "extensions")),
        Field(description="Extensions, or any, or all"),
    ] = ()
    open_all: Flag = False
    status: Annotated[
        tuple[str, ...],
        Several(OneOf(STATUS_NAMES)),
        Field(description="Any of, in any extension"),
    ] = ()
    price_min: Annotated[Price, Field(description="Of the first year")] = None
    price_max: Annotated[Price, Field(description="Of the first year")] = None
    later_min: Annotated[Price, Field(description="Of each later year")] = None
    later_max: Annotated[Price, Field(description="Of each later year")] = None
    whole_min: Annotated[Price, Field(description="Of all the years it is kept")] = None
    whole_max: Annotated[Price, Field(description="Of all the years it is kept")] = None
    premium: Annotated[
        str, OneOf(EITHER), Field(description="yes: premium somewhere; no: not only premium")
    ] = ""
    demand_min: Annotated[
        int | None,
        Number(0, 2_000_000_000, int),
        Field(description="Searches a month of the phrase it carries"),
    ] = None
    hyphen: Annotated[str, OneOf(EITHER), Field(description="yes or no")] = ""
    digit: Annotated[str, OneOf(EITHER), Field(description="yes or no")] = ""
    mark: Annotated[
        str, OneOf(MARKS), Field(description=", ".join(mark for mark in MARKS if mark))
    ] = ""


_DOCUMENT: Final = Document(Question, QuestionError)


def parse_question(given: Mapping[str, str], extensions: tuple[str, ...]) -> Question:
    """Read an address's fields; lists are set apart by commas, least scores written measure:score.

    Raises QuestionError with a problem at each field that makes no sense. `extensions` are the
    brief's. Fields of other names, and empty ones, are passed over.
    """
    texts = {name: text for name, raw in given.items() if (text := raw.strip())}
    known = {"extensions": extensions, "sorts": tuple(f".{e}" for e in extensions)}
    return _DOCUMENT.read(texts, known)


def question_schema() -> dict[str, Any]:
    """The JSON Schema of a question, as docs/question.schema.json has it."""
    return _DOCUMENT.schema("Question", SCHEMA_SAYS)
