"""The kinds of fields a brief's document has, each with its rule."""

from __future__ import annotations

import unicodedata
from collections.abc import Mapping
from typing import Annotated, Any, Final

from pydantic import Field, GetCoreSchemaHandler
from pydantic_core import CoreSchema, core_schema

from vinetag.core.checking.fallback import RUNGS
from vinetag.core.concepts import MEASURE_NAMES, RECIPE_NAMES
from vinetag.core.documents import Between, Line, Named, OneOf, Read, each_once, refusal
from vinetag.core.extensions import parse_extension
from vinetag.core.names import folded

__all__ = [
    "FACETS", "WORD_FACETS", "Entry", "Extension", "FieldTitle", "MeasureWeights", "OwnEntries",
    "Recipe", "Rung", "Shape", "Word", "Words", "WorldWeights",
]  # fmt: skip

# Facets of a world: single words, then whole names.
WORD_FACETS: Final[tuple[str, ...]] = (
    "things", "tools", "stuff", "places", "moments", "acts", "qualities", "beings", "sounds",
    "fresh",
)  # fmt: skip
FACETS: Final[tuple[str, ...]] = (*WORD_FACETS, "phrases", "pairs", "does", "plain")

MAX_LETTERS: Final = 40
MAX_KEYWORD_WORDS: Final = 5
MAX_WORLD_WORDS: Final = 600

WORD_SCHEMA: Final[Mapping[str, Any]] = {
    "type": "string",
    "maxLength": MAX_LETTERS,
    "pattern": "^[A-Za-z0-9 '-]*[A-Za-z0-9][A-Za-z0-9 '-]*$",
    "description": f"A word, or a phrase of up to {MAX_KEYWORD_WORDS}",
}
ENTRY_SCHEMA: Final[Mapping[str, Any]] = {
    "type": "string",
    "maxLength": MAX_LETTERS,
    "description": "A word or short phrase; `a & b` for two that go together",
}
SHAPE_SCHEMA: Final[Mapping[str, Any]] = {
    "type": "string",
    "pattern": "^[CVcv]{3,12}$",
    "description": "C for a consonant, V for a vowel, such as CVCV",
}
EXTENSION_SCHEMA: Final[Mapping[str, Any]] = {
    "type": "string",
    "pattern": r"^\.?[A-Za-z0-9.-]+$",
    "description": "With or without the leading dot",
}


def _words(typed: str) -> tuple[str, ...]:
    text = folded(typed).strip()
    if not text:
        raise refusal("blank")
    if len(text) > MAX_LETTERS:
        raise refusal("too_long", limit=MAX_LETTERS, length=len(text))
    if "." in text.strip("."):
        raise refusal("full_name", value=text, label=text.split(".")[0])
    odd = next((c for c in text if not (c.isascii() and (c.isalnum() or c in " -'"))), None)
    if odd is not None:
        raise _odd_character(text, odd)
    words = tuple(text.replace("-", " ").replace("'", "").split())
    if not words:
        raise refusal("blank")
    if len(words) > MAX_KEYWORD_WORDS:
        raise refusal("too_many", limit=f"{MAX_KEYWORD_WORDS} words", count=len(words))
    return words


def _entry(typed: str) -> str:
    text = " ".join(folded(typed).replace("&", " & ").split())
    if len(text) > MAX_LETTERS:
        raise refusal("too_long", limit=MAX_LETTERS, length=len(text))
    odd = next((c for c in text if not (c.isascii() and (c.isalpha() or c in " -'&"))), None)
    if odd is not None:
        raise _odd_character(text, odd)
    return text


def _odd_character(text: str, odd: str) -> Exception:
    if odd.isalpha() and not odd.isascii():
        script = unicodedata.name(odd, "other").split(" ")[0].title()
        return refusal("script", value=text, script=script)
    shown = unicodedata.name(odd, "").lower() if odd.isspace() or not odd.isprintable() else odd
    return refusal("letters_only", value=text, what=f"the character {shown or '?'}")


def _shape(typed: str) -> str:
    shape = typed.strip().upper()
    if not 3 <= len(shape) <= 12 or set(shape) - {"C", "V"}:
        raise refusal("shape")
    return shape


class _Pairs:
    """A mapping in documents, pairs in memory: frozen, and in an order."""

    def __init__(self, kind: Any) -> None:
        self._kind = kind

    def pairs(self, read: Any) -> tuple[Any, ...]:
        return tuple(read.items())

    def __get_pydantic_core_schema__(self, _: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_after_validator_function(
            self.pairs,
            handler.generate_schema(self._kind),
            serialization=core_schema.plain_serializer_function_ser_schema(dict),
        )


class _MeasurePairs(_Pairs):
    def pairs(self, read: Any) -> tuple[Any, ...]:
        if read and not any(read.values()):
            raise refusal("no_weight")
        return tuple((name, read[name]) for name in MEASURE_NAMES if name in read)


class _WordPairs(_Pairs):
    def pairs(self, read: Any) -> tuple[Any, ...]:
        return tuple((word, weight) for word, weight in read.items() if word)


class _OwnPairs(_Pairs):
    def pairs(self, read: Any) -> tuple[Any, ...]:
        found = ((facet, each_once(read.get(facet, ()))) for facet in FACETS)
        return tuple((facet, entries) for facet, entries in found if entries)


Words = Annotated[tuple[str, ...], Read(_words, WORD_SCHEMA, " ".join)]
Word = Annotated[str, Read(lambda typed: " ".join(_words(typed)), WORD_SCHEMA)]
Entry = Annotated[str, Read(_entry, ENTRY_SCHEMA)]
Shape = Annotated[str, Read(_shape, SHAPE_SCHEMA)]
Extension = Annotated[str, Read(parse_extension, EXTENSION_SCHEMA)]
FieldTitle = Annotated[str, Line(60)]
Recipe = Annotated[str, OneOf(RECIPE_NAMES)]
Rung = Annotated[str, OneOf(tuple(RUNGS))]
MeasureWeights = Annotated[
    tuple[tuple[str, int], ...],
    _MeasurePairs(dict[Annotated[str, Named(MEASURE_NAMES)], Annotated[int, Between(0, 10)]]),
]
WorldWeights = Annotated[
    tuple[tuple[str, int], ...],
    _WordPairs(
        Annotated[dict[Entry, Annotated[int, Between(1, 5)]], Field(max_length=MAX_WORLD_WORDS)]
    ),
]
OwnEntries = Annotated[
    tuple[tuple[str, tuple[str, ...]], ...],
    _OwnPairs(
        dict[
            Annotated[str, Named(FACETS)],
            Annotated[tuple[Entry, ...], Field(max_length=MAX_WORLD_WORDS)],
        ]
    ),
]
