"""What people look for: figures of phrases, gathered, grouped, and what one of them would cover."""

from vinetag.core.demand.columns import KINDS, Column, Guess, Kind, heading_sign
from vinetag.core.demand.coverage import Cover, covered, covers, head_of
from vinetag.core.demand.figures import (
    AND_MORE,
    MONTHS,
    UNKNOWN,
    Figure,
    Figures,
    Market,
    columns_of,
    packed,
    unpacked,
)
from vinetag.core.demand.gathering import (
    Folding,
    Gathered,
    Ways,
    folded_words,
    gather,
    words_of,
)
from vinetag.core.demand.grouping import MOST_GROUPED, Space, Tree, content_words, grow
from vinetag.core.demand.opening import Preview, look_at
from vinetag.core.demand.reading import (
    LONGEST_PHRASE,
    MOST_LINES,
    Defaults,
    Demand,
    parse_phrase,
    read_demand,
)

__all__ = [
    "AND_MORE", "KINDS", "LONGEST_PHRASE", "MONTHS", "MOST_GROUPED", "MOST_LINES", "UNKNOWN",
    "Column", "Cover", "Defaults", "Demand", "Figure", "Figures", "Folding", "Gathered", "Guess",
    "Kind", "Market", "Preview", "Space", "Tree", "Ways", "columns_of", "content_words", "covered",
    "covers", "folded_words", "gather", "grow", "head_of", "heading_sign", "look_at", "packed",
    "parse_phrase", "read_demand", "unpacked", "words_of",
]  # fmt: skip
