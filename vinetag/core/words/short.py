"""Usual short forms of words: clippings from the thesaurus, and abbreviations listed by hand."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Final

__all__ = ["short_forms"]

LISTED: Final[Mapping[str, str]] = MappingProxyType(
    {
        "business": "biz", "professional": "pro", "technology": "tech", "company": "co",
        "photograph": "photo", "application": "app", "laboratory": "lab", "information": "info",
        "promotion": "promo", "exposition": "expo", "memorandum": "memo", "repository": "repo",
        "specification": "spec", "advertisement": "ad", "examination": "exam", "document": "doc",
        "introduction": "intro", "decoration": "deco", "typography": "typo", "bicycle": "bike",
        "international": "intl", "association": "assoc", "department": "dept", "mountain": "mt",
        "saint": "st", "street": "st", "avenue": "ave", "limited": "ltd", "service": "svc",
        "quality": "qual", "vegetable": "veg", "veterinary": "vet", "convenience": "conv",
        "collaboration": "collab", "design": "dsgn", "number": "no", "kilogram": "kilo",
        "delicatessen": "deli", "refrigerator": "fridge", "gymnasium": "gym", "vitamin": "vit",
        "temperature": "temp", "university": "uni", "mathematics": "maths", "detergent": "det",
    }
)  # fmt: skip


def short_forms(word: str, synonyms: Sequence[str]) -> list[str]:
    """The listed abbreviation, and synonyms that are the word's own beginning cut short."""
    found = [LISTED[word]] if word in LISTED else []
    found += [s for s in synonyms if s != word and word.startswith(s) and len(s) <= 0.7 * len(word)]
    return list(dict.fromkeys(found))
