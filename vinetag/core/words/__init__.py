"""Opening up a keyword: its senses, related words, forms and short forms, and its spelling."""

from vinetag.core.words.expansion import GROUPS, Offer, Opened, open_up
from vinetag.core.words.spelling import did_you_mean, one_slip_away

__all__ = ["GROUPS", "Offer", "Opened", "did_you_mean", "one_slip_away", "open_up"]
