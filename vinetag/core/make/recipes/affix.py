"""affix: a morpheme on a word, with the spelling rules of English."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final, NamedTuple

from vinetag.core.concepts import Change
from vinetag.core.lexicon.endings import ENDINGS, takes
from vinetag.core.lexicon.morphology import gerund
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job
from vinetag.core.make.worldly import said
from vinetag.core.world.world import OWN

__all__ = ["Affix", "suffixed"]

VOWELS = "aeiou"
SHORTEST = 2
RING = len("spring")


class Morpheme(NamedTuple):
    """`goes`: parts of speech it is put on; `strength`, 0 to 1: how usual the result sounds."""

    text: str
    goes: str
    strength: float


SUFFIXES: Final = (
    Morpheme("ly", "na", 0.55), Morpheme("ery", "n", 0.6), Morpheme("let", "n", 0.55),
    Morpheme("ster", "n", 0.45), Morpheme("er", "v", 0.45),
)  # fmt: skip
PREFIXES: Final = (
    Morpheme("re", "v", 0.5), Morpheme("un", "av", 0.45), Morpheme("out", "v", 0.4),
    Morpheme("over", "v", 0.35), Morpheme("under", "nv", 0.35), Morpheme("mid", "n", 0.35),
    Morpheme("fore", "v", 0.3),
)  # fmt: skip
# Of the words of the world, so many take an ending, and each of them so many.
MOST_WORLD = 160
A_WORD = 2
OF_WORLD = 0.62
# A word alone with an ending has to say by itself what is being named.
ENDED_NEAR = 0.3


class Affix:
    """Suffixes and prefixes on stems, never against English spelling."""

    name = "affix"

    def make(self, job: Job) -> Iterator[Draft]:
        """Endings that say something on what can be pictured, then the keywords changed. A result
        the dictionary spells otherwise is left out.
        """
        yield from self._ended(job)
        known = job.lexicon.words
        for stem in job.modifiers:
            if stem.kind != "keyword" or not stem.single or len(stem.text) > 9:
                continue
            share = 0.35 + 0.65 * stem.worth
            for prefix in PREFIXES:
                if stem.pos[:1] in prefix.goes and _meets(prefix.text, stem.text):
                    job.considered[self.name] += 1
                    label = prefix.text + stem.text
                    bonus = 0.15 if label in known else 0.0
                    change = Change("with_beginning", {"beginning": prefix.text, "word": stem.text})
                    yield changed(
                        label, "affix", stem.keyword, change, share * (prefix.strength + bonus)
                    )
            for suffix in SUFFIXES:
                if stem.text.endswith(suffix.text) or _ends(stem.text, job):
                    continue
                if stem.pos[:1] in suffix.goes:
                    job.considered[self.name] += 1
                    label = suffixed(stem.text, suffix.text)
                    naive = stem.text + suffix.text
                    if label != naive and naive in known and label not in known:
                        label = naive
                    if not label:
                        continue
                    bonus = 0.2 if label in known else 0.0
                    change = Change("with_ending", {"word": stem.text, "ending": suffix.text})
                    yield changed(
                        label, "affix", stem.keyword, change, share * (suffix.strength + bonus)
                    )

    def _ended(self, job: Job) -> Iterator[Draft]:
        world = [w for w in job.world.words.values() if w.facet not in ("acts", "")]
        near = job.world.near_asked([w.text for w in world]).tolist()
        words = {
            w.text: w.worth
            for w, cosine in zip(world, near, strict=True)
            if w.field == OWN or cosine >= ENDED_NEAR
        }
        words |= dict.fromkeys(job.standing, 1.0)
        for word, worth in sorted(words.items(), key=lambda w: (-w[1], w[0]))[:MOST_WORLD]:
            fitting = [e for e in ENDINGS if takes(word, e, job.lexicon)]
            job.considered[self.name] += len(fitting)
            job.chance("ending", word).shuffle(fitting)
            for ending in fitting[:A_WORD]:
                draft = said((word, ending), job, OF_WORLD * worth)
                parts = (draft.parts[0], draft.parts[1]._replace(kind="ending"))
                yield draft._replace(parts=parts)


def _ends(word: str, job: Job) -> bool:
    """Whether nothing goes behind it: -ing as an ending, or the s of many."""
    many = word.endswith("s") and word[:-1] in job.lexicon.words
    return many or (word.endswith("ing") and (len(word) > RING or bool(gerund(word, job.lexicon))))


def suffixed(word: str, suffix: str) -> str:
    """The word with the suffix by the rules of English: final e is dropped before a vowel (after c
    and g only before e, i and y), y after a consonant becomes i, a single consonant after a single
    stressed vowel of a one-syllable word doubles before a vowel. '' when the letters clash:
    a letter three times, vowels that run into each other, -ly on -le or -ery; nor on a single
    letter.
    """
    if len(word) < SHORTEST or (word.endswith("ery") and suffix == "ly"):
        return ""
    vowel = suffix[0] in VOWELS + "y"
    if word.endswith("e") and vowel:
        soft = word[-2:-1] in ("c", "g") and suffix[0] not in "eiy"
        if not soft and not word.endswith(("ee", "oe", "ye")):
            word = word[:-1]
    elif word.endswith("y") and word[-2:-1] not in VOWELS and len(word) > 2:
        word = word[:-1] if suffix[0] in "iy" else word[:-1] + "i"
    elif vowel and _doubles(word):
        word += word[-1]
    if word[-1:] * 2 == word[-2:] and word[-1:] == suffix[0]:
        return ""
    if word[-1:] in VOWELS and suffix[0] in VOWELS and (word[-1] == suffix[0] or suffix == "ery"):
        return ""
    if word.endswith(("l", "le")) and suffix[0] == "l":
        return ""
    return "" if suffix == "ery" and word.endswith(("er", "ey")) else word + suffix


def _doubles(word: str) -> bool:
    """Whether the last consonant doubles: one syllable, one vowel, one final consonant."""
    vowels = [i for i, c in enumerate(word) if c in VOWELS + "y"]
    return (
        len(vowels) == 1
        and vowels[0] == len(word) - 2
        and word[-1] not in VOWELS + "wxyh"
        and len(word) >= 3
    )


def _meets(prefix: str, word: str) -> bool:
    """Whether a prefix can stand before the word: no letter doubled, no vowels run together."""
    return prefix[-1] != word[0] and not (prefix[-1] in VOWELS and word[0] in VOWELS)
