"""A word of the word data."""

from __future__ import annotations

from typing import NamedTuple

__all__ = ["Word"]


class Word(NamedTuple):
    """An English word. `zipf`: log10 of uses per thousand million words (wordfreq's scale, 1.6 to
    8); `pos`: letters n v a r d p c o, commonest first; `field`: WordNet's field of its first noun
    sense.
    """

    text: str
    zipf: float
    pos: str
    lemma: str
    field: str
