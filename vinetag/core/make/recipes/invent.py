"""invent: a new word that sounds like the keywords' family, or like English at large."""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import accumulate

from vinetag.core.lexicon import Lexicon
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job

__all__ = ["Invent", "shape_of"]

TRIES_A_KEYWORD = 900
TRIES_A_KIN = 90
MOST_KIN = 24
LONGEST = 9
SHORTEST = 4
SAYABLE = -2.75
CONSONANTS_IN_A_ROW = 3


class Invent:
    """Words drawn letter by letter from a model of English spelling, beginning as a stem does or
    holding its middle, and ending as English words end.
    """

    name = "invent"
    summary = "a new word with the sound of yours"
    daring = 1.0

    def make(self, job: Job) -> Iterator[Draft]:
        """Stem by stem; nothing that is a word already, nothing unsayable."""
        shapes = frozenset(job.brief.making.shapes)
        stems = [*job.singles[: len(job.keywords)], *job.singles[len(job.keywords) :][:MOST_KIN]]
        for stem in stems:
            tries = TRIES_A_KEYWORD if stem.kind == "keyword" else TRIES_A_KIN
            rng = job.chance("invent", stem.text)
            for start in _starts(stem.text, rng, tries):
                job.considered[self.name] += 1
                label = _drawn(job.lexicon, start, rng)
                if not label or label in job.lexicon.words or label == stem.text:
                    continue
                if shapes and shape_of(label) not in shapes:
                    continue
                score = job.lexicon.sayable.score(label)
                if score > SAYABLE and _easy(label):
                    told = f"new word on {start} from {stem.text}"
                    strength = 0.3 + 0.25 * stem.worth + 0.12 * (score - SAYABLE)
                    yield changed(label, "invent", stem.keyword, told, min(0.7, strength))


def shape_of(word: str) -> str:
    """C for each consonant, V for each vowel (y counts as one unless it begins the word)."""
    return "".join("V" if c in "aeiou" or (c == "y" and i) else "C" for i, c in enumerate(word))


def _starts(word: str, rng: random.Random, count: int) -> Iterator[str]:
    pieces = [word[:n] for n in range(2, min(5, len(word)))]
    pieces += [word[1 : 1 + n] for n in (2, 3) if len(word) > n + 1]
    for _ in range(count if pieces else 0):
        yield rng.choice(pieces)


def _drawn(lexicon: Lexicon, start: str, rng: random.Random) -> str:
    word = start
    while len(word) <= LONGEST:
        shares, total = _ahead(lexicon, word[-3:] if len(word) >= 3 else word)
        place = _pick(shares, rng.random() * total)
        if place == 0:
            return word if len(word) >= SHORTEST else ""
        word += chr(96 + place)
    return ""


@lru_cache(20_000)
def _ahead(lexicon: Lexicon, before: str) -> tuple[Sequence[float], float]:
    """Running sums of the next letters' probabilities, rare ones left out."""
    shares = lexicon.sayable.next_letters(before)
    kept = [float(p) if p > 0.02 else 0.0 for p in shares]
    sums = list(accumulate(kept))
    return sums, sums[-1]


def _pick(sums: Sequence[float], value: float) -> int:
    low, high = 0, len(sums) - 1
    while low < high:
        middle = (low + high) // 2
        if sums[middle] > value:
            high = middle
        else:
            low = middle + 1
    return low


def _easy(label: str) -> bool:
    shape = shape_of(label)
    return "V" in shape and "C" * (CONSONANTS_IN_A_ROW + 1) not in shape and "VVV" not in shape
