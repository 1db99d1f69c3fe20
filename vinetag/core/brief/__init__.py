"""The brief: what is being named, and within which limits."""

from vinetag.core.brief.model import (
    FACETS,
    MEASURE_NAMES,
    PURPOSES,
    RECIPE_NAMES,
    WORD_FACETS,
    Brief,
    Chosen,
    Keyword,
    Limits,
    Making,
    Owner,
    Purpose,
    brief_document,
)
from vinetag.core.brief.reading import parse_brief, parse_what_is_valid

__all__ = [
    "FACETS", "MEASURE_NAMES", "PURPOSES", "RECIPE_NAMES", "WORD_FACETS", "Brief", "Chosen",
    "Keyword", "Limits", "Making", "Owner", "Purpose", "brief_document", "parse_brief",
    "parse_what_is_valid",
]  # fmt: skip
