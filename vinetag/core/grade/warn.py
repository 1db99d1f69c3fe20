"""Warnings: what to know of a name beside its grade."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final, NamedTuple

from vinetag.core.grade.measures.clarity import look_alikes, unlucky
from vinetag.core.grade.measures.spelling import settled
from vinetag.core.grade.reading import Reading
from vinetag.core.words import one_slip_away

__all__ = ["Warning", "warnings"]

LONG: Final = 20
SHORTEST: Final = 4
COMMON: Final = 3.0
COMMONER: Final = 1.2
RIVAL: Final = 0.1


class Warning(NamedTuple):
    """`code` says which warning, `text` what to know; it speaks of the letters from `start` up to
    `end`.
    """

    code: str
    text: str
    start: int
    end: int


def warnings(reading: Reading) -> list[Warning]:
    """Every warning of a name: autocorrect, unlucky, homophone, digit, hyphen, alike, long."""
    return [] if reading.foreign else list(_found(reading))


def _found(reading: Reading) -> Iterator[Warning]:
    label, end = reading.label, len(reading.label)
    words = reading.lexicon.words
    if label.isalpha() and len(label) >= SHORTEST:
        own = words[label].zipf if label in words else 0.0
        meant = one_slip_away(label, reading.lexicon, max(COMMON, own + COMMONER))
        if meant:
            text = f"Keyboards and search engines may change it to “{meant}”, a common word."
            yield Warning("autocorrect", text, 0, end)
    rude = unlucky(label, reading.words, reading.lexicon)
    if rude:
        text = f"“{rude[0]}” can be read in it."
        yield Warning("unlucky", text, rude[1], rude[1] + len(rude[0]))
    for at, word in reading.words:
        heard = settled(reading, at, word) if word.isalpha() else None
        if heard and heard.rivals and heard.rivals[0][1] >= RIVAL:
            text = f"“{word}” sounds like “{heard.rivals[0][0]}”: say which, or hold both names."
            yield Warning("homophone", text, at, at + len(word))
    digits = [i for i, c in enumerate(label) if c.isdigit()]
    if digits:
        text = f"“{label[digits[0] : digits[-1] + 1]}” is a digit or a word to who hears it."
        yield Warning("digit", text, digits[0], digits[-1] + 1)
    if "-" in label:
        at = label.index("-")
        text = f"Who forgets the hyphen lands on “{label.replace('-', '')}”."
        yield Warning("hyphen", text, at, at + 1)
    for letters, other, at in look_alikes(label, reading):
        text = f"“{letters}” looks like “{other}” in many typefaces."
        yield Warning("alike", text, at, at + len(letters))
    if end > LONG:
        text = f"{end} characters: cut off in address bars and on cards."
        yield Warning("long", text, LONG, end)
