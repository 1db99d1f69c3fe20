"""The brief: what is being named, and within which limits.

As a document (a dict from JSON) it is described by `docs/brief.schema.json`, which is made from the
types here; reading.py reads one. The types' rules are in fields.py.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, ClassVar, Final

from pydantic import AfterValidator, BeforeValidator, ConfigDict, Field

from vinetag.core.brief.fields import (
    FACETS,
    WORD_FACETS,
    Entry,
    Extension,
    FieldTitle,
    MeasureWeights,
    OwnEntries,
    Recipe,
    Rung,
    Shape,
    Word,
    Words,
    WorldWeights,
)
from vinetag.core.checking.fallback import RUNGS
from vinetag.core.concepts import MEASURE_NAMES, PURPOSES, RECIPE_NAMES, Purpose
from vinetag.core.documents import Between, Line, OneOf, each_once
from vinetag.core.extensions import COUNTRIES, OWNER_KINDS, WORKS

__all__ = [
    "FACETS",
    "MEASURE_NAMES",
    "PURPOSES",
    "RECIPE_NAMES",
    "WORD_FACETS",
    "Brief",
    "Chosen",
    "Keyword",
    "Limits",
    "Making",
    "Owner",
    "Purpose",
]  # fmt: skip

Once = AfterValidator(each_once)


def _spelled_out(value: object) -> object:
    """A keyword may be written as its text alone."""
    return {"text": value} if isinstance(value, str) else value


@dataclass(frozen=True, slots=True)
class Keyword:
    """A word or short phrase (`words` in lower case a to z) with a weight from 1 to 5. `senses`:
    ids of the meanings meant, none for the likeliest; `drop`: related words not to be used.
    """

    words: Annotated[Words, Field(alias="text")]
    weight: Annotated[int, Between(1, 5)] = 3
    senses: Annotated[
        tuple[Annotated[int, Between(0, 10**6)], ...],
        Field(
            max_length=20,
            description="Meanings meant, as `vinetag words` and the interface number them; none "
            "for the likeliest",
        ),
    ] = ()
    drop: Annotated[
        tuple[Word, ...], Field(max_length=300, description="Related words not to be used"), Once
    ] = ()

    @property
    def text(self) -> str:
        """As the person wrote it, in lower case."""
        return " ".join(self.words)

    @property
    def joined(self) -> str:
        """As it stands in a name."""
        return "".join(self.words)


@dataclass(frozen=True, slots=True)
class Limits:
    """What a name may have; letters count every character of the label but hyphens."""

    letters_min: Annotated[int, Between(1, 63)] = 4
    letters_max: Annotated[int, Between(1, 63)] = 16
    words: Annotated[int, Between(1, 5)] = 4
    hyphens: Annotated[int, Between(0, 3)] = 0
    digits: Annotated[int, Between(0, 10)] = 0


@dataclass(frozen=True, slots=True)
class Making:
    """How names are made: recipes switched off; `daring` from 0 (plain) to 100; the most letters an
    added word may have; shapes of invented words (C consonant, V vowel), none for any.
    """

    off: Annotated[
        tuple[Recipe, ...],
        Field(max_length=len(RECIPE_NAMES), description="Recipes switched off"),
        Once,
    ] = ()
    daring: Annotated[int, Between(0, 100), Field(description="0 plain, 100 daring")] = 35
    added_max: Annotated[
        int, Between(1, 12), Field(description="The most letters an added word may have")
    ] = 8
    shapes: Annotated[
        tuple[Shape, ...], Field(max_length=8, description="Shapes of invented words"), Once
    ] = ()


@dataclass(frozen=True, slots=True)
class Owner:
    """Who will own the name: `country`, also where the people to be reached are (ISO 3166-1, ""
    when not said), `kind` (OWNER_KINDS or ""), `work` (WORKS), the most a year may cost, in euros,
    None for no limit; for how many `years` a name is meant to be kept, and the most all of them may
    cost.
    """

    country: Annotated[
        str,
        OneOf(("", *COUNTRIES)),
        Field(description="ISO 3166-1, also where the people to be reached are"),
    ] = ""
    kind: Annotated[str, OneOf(("", *OWNER_KINDS))] = ""
    work: Annotated[str, OneOf(tuple(WORKS))] = "any"
    budget: Annotated[
        Annotated[int, Between(1, 100_000)] | None, Field(description="Euros a year")
    ] = None
    years: Annotated[
        int, Between(1, 10), Field(description="How long a name is meant to be kept")
    ] = 5
    budget_whole: Annotated[
        Annotated[int, Between(1, 1_000_000)] | None,
        Field(description="Euros over all the years"),
    ] = None


Titles = Annotated[tuple[FieldTitle, ...], Field(max_length=40), Once]


@dataclass(frozen=True, slots=True)
class Chosen:
    """What the person chose of the brief's world: titles of fields switched `on` and `off`; words
    and entries to `drop`; `weights` from 1 to 5 of its words; their `own` entries by facet.
    """

    on: Annotated[Titles, Field(description="Titles of fields switched on")] = ()
    off: Annotated[Titles, Field(description="Titles of fields switched off")] = ()
    drop: Annotated[
        tuple[Entry, ...],
        Field(max_length=600, description="Words and entries not to be used"),
        Once,
    ] = ()
    weights: Annotated[
        WorldWeights, Field(description="Words of the world by weight, 3 when not said")
    ] = ()
    own: Annotated[OwnEntries, Field(description="The person's own entries by facet")] = ()


FURTHER_OUT: Final[Mapping[Purpose, int]] = {"brand": 35, "mix": 10, "descriptive": -15}

AnyKeyword = Annotated[Keyword, BeforeValidator(_spelled_out, json_schema_input_type=str | Keyword)]


@dataclass(frozen=True, slots=True)
class Brief:
    """What is being named: `about` says in a sentence what it is and for whom; the keywords and
    extensions stand in order of preference. `weights`: (measure, 0 to 10) as the person set them,
    none for the purpose's own. `fallback`: where to look when a name is taken, in order (RUNGS).
    `classes` of goods and services, and the countries that are its `markets`, are for vetting.
    """

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="forbid")

    name: Annotated[str, Line(80), Field(description="The project's or business's name")] = ""
    about: Annotated[str, Line(400), Field(description="One sentence: what it is and for whom")] = (
        ""
    )
    purpose: Annotated[Purpose, OneOf(PURPOSES)] = "mix"
    keywords: Annotated[tuple[AnyKeyword, ...], Field(max_length=40)] = ()
    avoid: Annotated[tuple[Word, ...], Field(max_length=100), Once] = ()
    limits: Limits = Limits()
    extensions: Annotated[
        tuple[Extension, ...],
        Field(min_length=1, max_length=20, description="In order of preference"),
    ] = ("com",)
    places: Annotated[
        tuple[Word, ...], Field(max_length=20, description="Words for the place"), Once
    ] = ()
    making: Making = Making()
    weights: Annotated[
        MeasureWeights,
        Field(
            description="How the measures weigh in the grade, 0 (not counted) to 10; those left "
            "out count 0. None for the weights of the purpose"
        ),
    ] = ()
    owner: Annotated[
        Owner, Field(description="Who will own the name, and how much a year may cost")
    ] = Owner()
    fallback: Annotated[
        tuple[Rung, ...],
        Field(max_length=len(RUNGS), description="Where to look when a name is taken, in order"),
    ] = tuple(RUNGS)
    world: Annotated[Chosen, Field(description="What the person chose of the brief's world")] = (
        Chosen()
    )
    classes: Annotated[
        tuple[Annotated[int, Between(1, 45)], ...],
        Field(
            max_length=45,
            description="Of goods and services (Nice Agreement), none for those its words speak of",
        ),
        Once,
    ] = ()
    markets: Annotated[
        tuple[Annotated[str, OneOf(tuple(COUNTRIES))], ...],
        Field(max_length=30, description="Where it is to be sold, ISO 3166-1, the first most"),
        Once,
    ] = ()

    @property
    def dial(self) -> int:
        """From which recipes names are shown first, 0 (plain) to 100 (daring): the person's dial,
        which for brand-like names begins further out, and for descriptive ones further in.
        """
        return min(100, max(0, self.making.daring + FURTHER_OUT[self.purpose]))
