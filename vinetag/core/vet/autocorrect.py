"""Whether those who correct what is typed would take a name for something else.

A noisy channel (M. Kernighan, K. Church and W. Gale, A spelling correction program based on a noisy
channel model, 1990): of what somebody may have meant, each word weighs by how often it is written
and how rarely fingers slip so; the name itself weighs by how well it is known. A corrector that
works by a list of words and their frequencies knows a coined name not at all.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache
from typing import Final, NamedTuple

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.segment import segment
from vinetag.core.words.spelling import slips

__all__ = ["Correction", "correction"]

SHORTEST: Final = 3
# What a writer of texts writes who means what is in no list: one word in so many.
UNKNOWN_ZIPF: Final = 1.6
# How much rarer a slip is than none, in powers of ten; the first letter is seldom wrong.
SLIP, FIRST_LETTER, TWO_SLIPS = 2.1, 0.8, 2.3
# A doubled letter, two turned, a vowel for a vowel: the usual slips.
USUAL: Final = 0.5
# A name of known words is read as those, and set apart rather than changed.
OF_WORDS: Final = 1.1
STEEP: Final = 2.2
VOWELS: Final = frozenset("aeiouy")


class Correction(NamedTuple):
    """The word a name is likeliest taken for, "" for none, and of all correctors the share that
    would change it, 0 to 1.
    """

    meant: str
    risk: float


@lru_cache(4_000)
def correction(label: str, lexicon: Lexicon) -> Correction:
    """Of a name in a to z; none for others and for the shortest."""
    if len(label) < SHORTEST or not (label.isascii() and label.isalpha()):
        return Correction("", 0.0)
    best, highest = "", -math.inf
    for text, cost in _meant(label, lexicon):
        known = lexicon.words.get(text)
        if known and known.pos and known.zipf - cost > highest:
            best, highest = text, known.zipf - cost
    if not best:
        return Correction("", 0.0)
    return Correction(best, 1 / (1 + math.exp(-STEEP * (highest - _known(label, lexicon)))))


def _known(label: str, lexicon: Lexicon) -> float:
    """How well the name is known as it is: a Zipf value."""
    own = lexicon.words.get(label)
    if own:
        return max(own.zipf, UNKNOWN_ZIPF)
    words = segment(label, lexicon)
    if len(words) == 2 and all(len(w) > 2 and w in lexicon.words for w in words):
        rarest = min(lexicon.words[word].zipf for word in words)
        return UNKNOWN_ZIPF + OF_WORDS * max(0.0, rarest - 2.5) / 2
    return UNKNOWN_ZIPF


def _meant(label: str, lexicon: Lexicon) -> Iterator[tuple[str, float]]:
    """What may have been meant, with what the way there costs, in powers of ten."""
    once = set(slips(label))
    for text in once:
        if text in lexicon.words and text != label:
            yield text, _cost(label, text)
    if len(label) >= 7:
        for text in once:
            # Two slips, the second one that writers know: a letter doubled or left single.
            for at in range(1, len(text)):
                if text[at] == text[at - 1]:
                    other = text[:at] + text[at + 1 :]
                else:
                    other = text[:at] + text[at - 1] + text[at:]
                if other in lexicon.words and other != label and other not in once:
                    yield other, SLIP + TWO_SLIPS


def _cost(label: str, text: str) -> float:
    cost = SLIP
    if text[:1] != label[:1]:
        cost += FIRST_LETTER
    if len(text) == len(label):
        differing = [i for i in range(len(text)) if text[i] != label[i]]
        turned = len(differing) == 2
        if turned or (len(differing) == 1 and {text[differing[0]], label[differing[0]]} <= VOWELS):
            cost -= USUAL
    else:
        longer, shorter = sorted((text, label), key=len, reverse=True)
        at = next((i for i, c in enumerate(shorter) if longer[i] != c), len(shorter))
        if at and longer[at] == longer[at - 1]:
            cost -= USUAL
    return cost
