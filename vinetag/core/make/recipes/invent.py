"""invent: a new word that sounds like the keywords' family, or like English at large."""

from __future__ import annotations

import random
import re
from bisect import bisect_right
from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from itertools import accumulate, islice
from string import ascii_lowercase
from typing import Final

from vinetag.core.concepts import Change
from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem

__all__ = ["Invent", "shape_of"]

TRIES_A_KEYWORD = 700
TRIES_A_KIN = 70
TRIES_AT_LARGE = 400
KEPT_A_KEYWORD = 60
KEPT_A_KIN = 5
MOST_KIN = 16
# New words of no keyword's family wait for a daring dial.
FAR = 0.6
LONGEST = 9
SHORTEST = 4
SAYABLE = -2.75
# A word nobody lists, such as a brand's, need not begin as English words do.
UNLISTED = 0.6
EASY_LETTERS = 6
# How a coined name ends, and how much that adds; what ends otherwise is left out: an inflected
# form, a doer or a notion (-ing, -ed, -er, -tion) is taken for a word misspelt. By judgement.
ENDINGS: Final[Mapping[str, float]] = {
    "ora": 0.6, "ara": 0.55, "era": 0.55, "ella": 0.6, "elle": 0.45, "ina": 0.5, "ino": 0.5,
    "ona": 0.45, "ono": 0.4, "ena": 0.45, "ana": 0.4, "ano": 0.4, "ala": 0.4, "alo": 0.4,
    "olo": 0.4, "iva": 0.45, "ivo": 0.45, "ova": 0.45, "avo": 0.4, "eva": 0.4, "ia": 0.5,
    "io": 0.45, "eo": 0.35, "ea": 0.3, "a": 0.35, "o": 0.35, "ix": 0.3, "ex": 0.3, "ox": 0.3,
    "el": 0.25, "al": 0.1, "il": 0.2, "ol": 0.2, "on": 0.25, "en": 0.2, "an": 0.15, "in": 0.2,
    "um": 0.1, "ium": 0.15, "us": 0.05, "et": 0.15, "ot": 0.1, "or": 0.05, "is": 0.05, "ar": 0.1,
    "ine": 0.2, "one": 0.1, "ane": 0.1, "ile": 0.05, "ive": 0.05, "ove": 0.1, "ade": 0.1,
    "ique": 0.2, "ette": 0.1, "ley": 0.1, "ny": 0.05, "vy": 0.1, "zy": 0.1,
}  # fmt: skip
_ALL_ENDINGS = tuple(ENDINGS)
_ENDS = re.compile(f"(?:{'|'.join(sorted(ENDINGS, key=len, reverse=True))})$")
# Endings of notions and of people, which make a word look like a slip for another.
_NOTION = re.compile(r"(?:[ts]ion|[tc]i[ao]l?|ical|[aiu]tive|m[ae]n|son|[aeiou]tor|tal|less)$")
# How many letters are drawn between the beginning and the ending.
BETWEEN = (0, 0, 1, 1, 2)
# Who reads them takes the letters for this word, misspelt or with more behind it.
TAKEN_FOR = 3.0
OTHER_WORD = 4
SHORT = 5


class Invent:
    """Words drawn letter by letter from a model of English spelling (Sayable), beginning as a stem
    does and ending as coined names do; of each stem the best.
    """

    name = "invent"

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem; nothing that is a word already, or is taken for one, nothing unsayable."""
        shapes = frozenset(job.brief.making.shapes)
        stems = [*job.singles[: len(job.keywords)], *job.singles[len(job.keywords) :][:MOST_KIN]]
        for stem in stems:
            is_keyword = stem.kind == "keyword"
            tries = (TRIES_A_KEYWORD if is_keyword else TRIES_A_KIN) * (2 if shapes else 1)
            kept = KEPT_A_KEYWORD if is_keyword else KEPT_A_KIN
            yield from self._of(job, stem, shapes, tries, kept)
        if job.daring >= FAR:
            at_large = Stem(("",), "word", "", 0.5, "")
            yield from self._of(job, at_large, shapes, TRIES_AT_LARGE, KEPT_A_KEYWORD)

    def _of(
        self, job: Job, stem: Stem, shapes: frozenset[str], tries: int, kept: int
    ) -> Iterator[Draft]:
        job.considered[self.name] += tries
        for label, value, start in _best(job.lexicon, job.seed, stem.text, shapes, tries, kept):
            change = Change("new", {})
            if start:
                change = Change("new_from", {"start": start, "word": stem.text})
            strength = (0.55 + 0.2 * value) * (0.55 + 0.45 * stem.worth)
            yield changed(label, "invent", stem.keyword, change, min(0.9, max(0.1, strength)))


def shape_of(word: str) -> str:
    """C for each consonant, V for each vowel (y counts as one unless it begins the word)."""
    return "".join("V" if c in "aeiou" or (c == "y" and i) else "C" for i, c in enumerate(word))


@lru_cache(4_000)
def _best(
    lexicon: Lexicon, seed: int, stem: str, shapes: frozenset[str], tries: int, kept: int
) -> Sequence[tuple[str, float, str]]:
    """The best words of so many tries, with their values and beginnings. They depend on the seed
    and the stem alone, so that other words do not change them, nor are they drawn again.
    """
    rng = random.Random(f"{seed}/invent/{stem}")  # noqa: S311 - draws names
    found: dict[str, tuple[float, str]] = {}
    starts = _starts(stem, 2 if shapes else 3)
    floor = SAYABLE if stem in lexicon.words else SAYABLE - UNLISTED
    for _ in range(tries if starts else 0):
        start = starts[int(rng.random() * len(starts))]
        label = _drawn(lexicon, start, rng)
        if label in found or not SHORTEST <= len(label) <= LONGEST:
            continue
        if shapes and shape_of(label) not in shapes:
            continue
        value = _value(lexicon, label, start, floor)
        if value is not None:
            found[label] = value, start
    ranked = sorted(found, key=lambda label: (-found[label][0], label))
    fresh = (label for label in ranked if not _mistaken(lexicon, label, stem))
    return [(label, *found[label]) for label in islice(fresh, kept)]


def _starts(word: str, least: int) -> Sequence[str]:
    """The word's first letters, with a vowel among them: from `least`, and all of a short word."""
    most = len(word) if len(word) <= 4 else min(5, len(word) - 1)
    pieces = [word[:n] for n in range(least, most + 1) if "V" in shape_of(word[:n])]
    return pieces if word else [""]


def _drawn(lexicon: Lexicon, start: str, rng: random.Random) -> str:
    """The beginning, a few letters drawn after it, and an ending."""
    word, chance = start, rng.random
    for _ in range(BETWEEN[int(chance() * len(BETWEEN))] if start else 2 + int(chance() * 3)):
        shares, total = _ahead(lexicon, word[-3:])
        if not total:
            break
        word += chr(96 + bisect_right(shares, chance() * total))
    return word + _ALL_ENDINGS[int(chance() * len(_ALL_ENDINGS))]


@lru_cache(20_000)
def _ahead(lexicon: Lexicon, before: str) -> tuple[Sequence[float], float]:
    """Running sums of the next letters' probabilities, rare ones and the end left out."""
    shares = lexicon.sayable.next_letters(before)
    kept = [float(p) if place and p > 0.02 else 0.0 for place, p in enumerate(shares)]
    sums = list(accumulate(kept))
    return sums, sums[-1]


def _value(lexicon: Lexicon, label: str, start: str, floor: float) -> float | None:
    """How good a coined word it is, about -1 to 2: what follows what, how it ends, how much of the
    stem it keeps, how short and open it is. None for none at all.
    """
    ends = _ENDS.search(label)
    if ends is None or label in lexicon.words or _NOTION.search(label):
        return None
    shape = shape_of(label)
    syllables = shape.count("CV") + (shape[0] == "V") - (label[-1] == "e")
    if "CCCC" in shape or "VVV" in shape or not 2 <= syllables <= 3:
        return None
    score = lexicon.sayable.score(label)
    if score <= floor:
        return None
    value = 1.2 * (score - floor) + 2 * ENDINGS[ends.group()] + 0.35 * (len(start) - 3)
    return value - 0.2 * max(0, len(label) - EASY_LETTERS) - 0.4 * ("CCC" in shape)


def _mistaken(lexicon: Lexicon, label: str, stem: str) -> bool:
    """Whether readers take it for another word: it begins or ends with one, or is one letter from
    one, as most of five letters are. The stem itself with a vowel behind is none.
    """
    words = lexicon.words

    def common(text: str) -> bool:
        return text in words and words[text].zipf >= TAKEN_FOR

    for cut in range(OTHER_WORD, len(label)):
        if common(label[:cut]) and not stem.startswith(label[:cut]):
            return True
        if common(label[-cut:]):
            return True
    if len(label) <= SHORT or (label[:-1] == stem and label[-1] in "ao"):
        return False
    for at in range(len(label) + 1):
        front, back = label[:at], label[at:]
        if common(front + back[1:]):
            return True
        if any(common(front + c + back[1:]) or common(front + c + back) for c in ascii_lowercase):
            return True
    return False
