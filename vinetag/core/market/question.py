"""What is asked of the hunt, as an address has it: every field a text.

docs/hunt.schema.json is made from the types here.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Final

from pydantic import ConfigDict, Field

from vinetag.core.concepts import OFFER_NAMES
from vinetag.core.documents import Document, Marker, OneOf, refusal
from vinetag.core.errors import QuestionError
from vinetag.core.sheet.fields import (
    EITHER,
    Bound,
    Flag,
    Letters,
    Number,
    Price,
    Several,
)

__all__ = ["HUNT_SORTS", "Hunt", "hunt_schema", "parse_hunt"]

HUNT_SORTS: Final = (
    "best", "name", "letters", "words", "price", "bids", "ends", "age", "links", "sites", "rank",
)  # fmt: skip
MOST_LISTED: Final = 20
SCHEMA_SAYS: Final = (
    "What is asked of the hunt, in the fields of an address: all are texts there, and all may be "
    "left out."
)
EXTENSION: Final = re.compile(r"[a-z0-9-]{2,63}(\.[a-z0-9-]{2,63})?")
CODE: Final = re.compile(r"[a-z0-9-]{1,40}")


@dataclass(frozen=True)
class _Written(Marker):
    """Something of a form, set apart by commas."""

    form: re.Pattern[str]

    def read(self, value: str) -> tuple[str, ...]:
        parts = [part.strip().removeprefix(".") for part in value.lower().split(",")]
        found = tuple(dict.fromkeys(part for part in parts if part))
        if len(found) > MOST_LISTED:
            raise refusal("too_many", limit=MOST_LISTED, count=len(found))
        for part in found:
            if not self.form.fullmatch(part):
                raise refusal("unknown_choice", value=part[:40], choices="those there are")
        return found

    def described(self) -> dict[str, Any]:
        return {"type": "string"}


Count = Annotated[int | None, Number(0, 2_000_000_000, int)]


@dataclass(frozen=True, slots=True)
class Hunt:
    """Which offers and drops, in which order; the filters combine.

    `text`, `starts`, `ends`: letters of the label; bounds are inclusive, None for none; `kinds`,
    `markets` and `extensions`: any of them; prices in the currency of the person; `within`: it ends
    or drops in so many hours at the most; `age_min`: years since it was registered first; `also`:
    registered under these extensions, too; `clean`: nothing is told against its past; `hyphen`,
    `digit`: "yes", "no" or "". What a market does not tell of a name fails a filter that asks for
    it.
    """

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    sort: Annotated[str, OneOf(HUNT_SORTS, "sorts"), Field(description=", ".join(HUNT_SORTS))] = (
        "best"
    )
    reverse: Flag = False
    text: Letters = ""
    starts: Letters = ""
    ends: Letters = ""
    letters_min: Bound = None
    letters_max: Bound = None
    words_min: Bound = None
    words_max: Bound = None
    kinds: Annotated[tuple[str, ...], Several(OneOf(OFFER_NAMES))] = ()
    markets: Annotated[tuple[str, ...], _Written(CODE)] = ()
    extensions: Annotated[tuple[str, ...], _Written(EXTENSION)] = ()
    also: Annotated[tuple[str, ...], _Written(EXTENSION)] = ()
    price_min: Price = None
    price_max: Price = None
    bids_min: Count = None
    bids_max: Count = None
    within: Annotated[int | None, Number(1, 100_000, int), Field(description="Hours")] = None
    age_min: Annotated[int | None, Number(0, 60, int), Field(description="Years")] = None
    links_min: Count = None
    sites_min: Count = None
    clean: Flag = False
    hyphen: Annotated[str, OneOf(EITHER), Field(description="yes or no")] = ""
    digit: Annotated[str, OneOf(EITHER), Field(description="yes or no")] = ""


_DOCUMENT: Final = Document(Hunt, QuestionError)


def parse_hunt(given: Mapping[str, str]) -> Hunt:
    """Read an address's fields; lists are set apart by commas. Raises QuestionError with a problem
    at each field that makes no sense; fields of other names, and empty ones, are passed over.
    """
    texts = {name: text for name, raw in given.items() if (text := raw.strip())}
    return _DOCUMENT.read(texts, {"sorts": ()})


def hunt_schema() -> dict[str, Any]:
    """The JSON Schema of a question, as docs/hunt.schema.json has it."""
    return _DOCUMENT.schema("Hunt", SCHEMA_SAYS)
