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
)
from vinetag.core.brief.reading import (
    brief_document,
    brief_schema,
    parse_brief,
    parse_what_is_valid,
)

__all__ = [
    "FACETS", "MEASURE_NAMES", "PURPOSES", "RECIPE_NAMES", "WORD_FACETS", "Brief", "Chosen",
    "Keyword", "Limits", "Making", "Owner", "Purpose", "brief_document", "brief_schema",
    "parse_brief", "parse_what_is_valid",
]  # fmt: skip
