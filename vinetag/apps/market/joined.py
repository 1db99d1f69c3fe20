"""What markets add: words for what can be wrong with their lists."""

from __future__ import annotations

from vinetag.apps.accounts.joining import Joined

__all__ = ["JOINED"]

JOINED = Joined(
    words={
        "market_code": "“{value}” is no short name: lower-case letters, digits and hyphens.",
        "feed_given_up": "It could not be read in three tries.",
    }
)
