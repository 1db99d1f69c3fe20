"""Names others hold or let go: the lists that tell of them, how well they suit a brief, and when a
name may become open.
"""

from vinetag.core.market import zone_words as zone_words
from vinetag.core.market.columns import COLUMNS, NEEDED, Column, feed_schema
from vinetag.core.market.offers import Offer, ended, risk_of
from vinetag.core.market.question import HUNT_SORTS, Hunt, hunt_schema, parse_hunt

__all__ = [
    "COLUMNS", "HUNT_SORTS", "NEEDED", "Column", "Hunt", "Offer", "ended",
    "feed_schema", "hunt_schema", "parse_hunt", "risk_of",
]  # fmt: skip
