"""clip: a word shortened: cut to its first syllables, a vowel dropped, an end letter dropped."""

from __future__ import annotations

import re
from collections.abc import Iterator

from vinetag.core.concepts import Change
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job

__all__ = ["Clip"]

SAYABLE = -3.2
OF_SYLLABLES = 0.15
VOWELS = "aeiouy"
# Consonants that can close a syllable together.
CLOSE = frozenset(
    "ch ck ct ft ld lf lk lm lt mp nd ng nk nt pt rb rd rk rl rm rn rp rt sh sk sp ss st th zz"
    " ff ll".split()
)
MOST_KIN = 12


class Clip:
    """Shortened stems that can be said and still be known."""

    name = "clip"

    def make(self, job: Job) -> Iterator[Draft]:
        """The keywords and the words closest to them; nothing that is an ordinary word of another
        meaning, nor a keyword with a few letters behind it.
        """
        given = {k.joined for k in job.keywords}
        for stem in job.singles[: len(job.keywords) + MOST_KIN]:
            whole = stem.kind == "keyword"
            for label, change in (*_cut(stem.text), *(_less_a_letter(stem.text) if whole else ())):
                job.considered[self.name] += 1
                known = job.lexicon.words.get(label)
                if len(label) < 3 or (known and known.pos and known.zipf > 3):
                    continue
                if stem.text not in given and any(label.startswith(k) for k in given):
                    continue
                score = job.lexicon.sayable.score(label)
                if score > SAYABLE:
                    kept = min(1.0, len(label) / len(stem.text) + OF_SYLLABLES * (len(label) >= 4))
                    easy = min(1.0, 0.5 + 0.4 * (score - SAYABLE))
                    strength = easy * (0.3 + 0.5 * kept) * (0.4 + 0.6 * stem.worth)
                    yield changed(label, "clip", stem.keyword, change, strength)


def _cut(word: str) -> Iterator[tuple[str, Change]]:
    """After the consonant that ends the first or second syllable, not much over half lost."""
    for found in list(re.finditer("[aeiouy]+[^aeiouy]{1,2}", word))[:2]:
        end = found.end()
        if len(found.group().lstrip(VOWELS)) == 2 and found.group()[-2:] not in CLOSE:
            end -= 1
        if 3 <= end <= len(word) - 2 and end >= 0.45 * len(word):
            yield word[:end], Change("cut", {"word": word, "short": word[:end]})


def _less_a_letter(word: str) -> Iterator[tuple[str, Change]]:
    """Without its last vowel, its first letter or its last."""
    if len(word) >= 5 and word[-2:] in ("er", "or", "le", "en"):
        bare = word[:-2] + word[-1] if word[-2:] != "le" else word[:-1]
        yield bare, Change("no_last_vowel", {"word": word})
    if len(word) >= 5 and word[0] in "aeiou":
        yield word[1:], Change("no_first_letter", {"word": word})
    if len(word) >= 5 and word[-1] in "eydt":
        yield word[:-1], Change("no_last_letter", {"word": word})
