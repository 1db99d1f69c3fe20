"""The brief: what is being named, and within which limits.

As a document (a dict from JSON) it is described by `docs/brief.schema.json`; reading.py reads one.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final

from vinetag.core.checking.fallback import RUNGS
from vinetag.core.concepts import MEASURE_NAMES, PURPOSES, RECIPE_NAMES, Purpose

__all__ = [
    "FACETS",
    "LIMIT_RANGES",
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
    "brief_document",
]  # fmt: skip

# Facets of a world: single words, then whole names.
WORD_FACETS: Final[tuple[str, ...]] = (
    "things", "tools", "stuff", "places", "moments", "acts", "qualities", "beings", "sounds",
    "fresh",
)  # fmt: skip
FACETS: Final[tuple[str, ...]] = (*WORD_FACETS, "phrases", "pairs", "does", "plain")


@dataclass(frozen=True, slots=True)
class Keyword:
    """A word or short phrase (`words` in lower case a to z) with a weight from 1 to 5. `senses`:
    ids of the meanings meant, none for the likeliest; `drop`: related words not to be used.
    """

    words: tuple[str, ...]
    weight: int = 3
    senses: tuple[int, ...] = ()
    drop: tuple[str, ...] = ()

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

    letters_min: int = 4
    letters_max: int = 16
    words: int = 4
    hyphens: int = 0
    digits: int = 0


@dataclass(frozen=True, slots=True)
class Making:
    """How names are made: recipes switched off; `daring` from 0 (plain) to 100; the most letters an
    added word may have; shapes of invented words (C consonant, V vowel), none for any.
    """

    off: tuple[str, ...] = ()
    daring: int = 35
    added_max: int = 8
    shapes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Owner:
    """Who will own the name: `country`, also where the people to be reached are (ISO 3166-1, ""
    when not said), `kind` (OWNER_KINDS or ""), `work` (WORKS), and the most a year may cost, in
    euros, None for no limit.
    """

    country: str = ""
    kind: str = ""
    work: str = "any"
    budget: int | None = None


@dataclass(frozen=True, slots=True)
class Chosen:
    """What the person chose of the brief's world: titles of fields switched `on` and `off`; words
    and entries to `drop`; `weights` from 1 to 5 of its words; their `own` entries by facet.
    """

    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    drop: tuple[str, ...] = ()
    weights: tuple[tuple[str, int], ...] = ()
    own: tuple[tuple[str, tuple[str, ...]], ...] = ()


FURTHER_OUT: Final[Mapping[Purpose, int]] = {"brand": 35, "mix": 10, "descriptive": -15}


@dataclass(frozen=True, slots=True)
class Brief:
    """What is being named: `about` says in a sentence what it is and for whom; the keywords and
    extensions stand in order of preference. `weights`: (measure, 0 to 10) as the person set them,
    none for the purpose's own. `fallback`: where to look when a name is taken, in order (RUNGS).
    """

    name: str = ""
    about: str = ""
    purpose: Purpose = "mix"
    keywords: tuple[Keyword, ...] = ()
    avoid: tuple[str, ...] = ()
    limits: Limits = Limits()
    extensions: tuple[str, ...] = ("com",)
    places: tuple[str, ...] = ()
    making: Making = Making()
    weights: tuple[tuple[str, int], ...] = ()
    owner: Owner = Owner()
    fallback: tuple[str, ...] = tuple(RUNGS)
    world: Chosen = Chosen()

    @property
    def dial(self) -> int:
        """From which recipes names are shown first, 0 (plain) to 100 (daring): the person's dial,
        which for brand-like names begins further out, and for descriptive ones further in.
        """
        return min(100, max(0, self.making.daring + FURTHER_OUT[self.purpose]))


LIMIT_RANGES: Final[Mapping[str, tuple[int, int]]] = {
    "letters_min": (1, 63),
    "letters_max": (1, 63),
    "words": (1, 5),
    "hyphens": (0, 3),
    "digits": (0, 10),
}


def brief_document(brief: Brief) -> dict[str, Any]:
    """The document form of a brief: `parse_brief` gives the same brief back."""
    return {
        "name": brief.name,
        "about": brief.about,
        "purpose": brief.purpose,
        "keywords": [
            {"text": k.text, "weight": k.weight, "senses": list(k.senses), "drop": list(k.drop)}
            for k in brief.keywords
        ],
        "avoid": list(brief.avoid),
        "limits": {name: getattr(brief.limits, name) for name in LIMIT_RANGES},
        "extensions": list(brief.extensions),
        "places": list(brief.places),
        "making": {
            "off": list(brief.making.off),
            "daring": brief.making.daring,
            "added_max": brief.making.added_max,
            "shapes": list(brief.making.shapes),
        },
        "weights": dict(brief.weights),
        "owner": {
            "country": brief.owner.country,
            "kind": brief.owner.kind,
            "work": brief.owner.work,
            "budget": brief.owner.budget,
        },
        "fallback": list(brief.fallback),
        "world": {
            "on": list(brief.world.on),
            "off": list(brief.world.off),
            "drop": list(brief.world.drop),
            "weights": dict(brief.world.weights),
            "own": {facet: list(entries) for facet, entries in brief.world.own},
        },
    }
