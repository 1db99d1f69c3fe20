"""What becomes of a word between a mouth and a keyboard."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import TYPE_CHECKING, Final, NamedTuple

from vinetag.core.lexicon.graphones import Unit
from vinetag.core.lexicon.sounds import bare

if TYPE_CHECKING:
    from vinetag.core.lexicon import Lexicon

__all__ = ["Heard", "Hearing", "familiarity", "pronounceability"]

# Half of the writers have a word of this Zipf value in their heads; the slope says how fast that
# grows. By judgement: words under 2 are for specialists, words over 4 are known to all.
HALF_KNOW: Final = 2.7
SLOPE: Final = 1.7
# Even who works from the sound alone remembers some letters.
REMEMBERED: Final = 0.1
BEAM: Final = 6
RIVAL: Final = 0.5
UNLIKE: Final = 0.3
LETTERS_ONLY: Final = 0.3
LEAST: Final = 0.0005
FEWEST: Final = 1e-7
# Sounds nobody can say are not written from hearing either.
UNSAYABLE: Final = -3.6
UNHEARD: Final = -5.0
MOST_WRONG: Final = 12
MOST_NAMES: Final = 50_000


class Heard(NamedTuple):
    """A word as it is said and written down. `readings`: ways to say it (phones without stress),
    with shares; `phones`: the first of them, vowels marked 0 or 1; `right`: the share of hearers
    who write it as it is, 0 to 1; `known`: the share who know the word; `rivals`: words that sound
    the same, each with the share who write it; `wrong`: every likely misspelling, with its share;
    `ease`: see `pronounceability`.
    """

    phones: tuple[str, ...]
    readings: tuple[tuple[tuple[str, ...], float], ...]
    units: tuple[Unit, ...]
    known: float
    rivals: tuple[tuple[str, float], ...]
    right: float
    wrong: tuple[tuple[str, float], ...]
    ease: float


def familiarity(zipf: float) -> float:
    """The share of people who have the word in their heads, 0 to 1, by its Zipf value."""
    return 1 / (1 + math.exp(-SLOPE * (zipf - HALF_KNOW)))


class Hearing:
    """Words heard and written down, remembered between names, and what names were given.

    Two routes, as in models of spelling (M. Coltheart and others, The dual-route model, 2001): who
    knows the word writes it, or a commoner one that sounds the same; who does not works from sound
    to letters, by how often English spells each sound so in that place.
    """

    def __init__(self, lexicon: Lexicon) -> None:
        self._lexicon = lexicon
        self.word = lru_cache(60_000)(self._word)
        self._scores: dict[object, dict[str, float | None]] = {}

    def scores(self, label: str, words: Sequence[tuple[int, str]]) -> dict[str, float | None]:
        """What measures of the letters alone gave this label read as these words; to be filled."""
        if len(self._scores) >= MOST_NAMES:
            self.forget_names()
        return self._scores.setdefault((label, *words), {})

    def forget_names(self) -> None:
        """Names are graded anew; words stay known."""
        self._scores.clear()

    def _word(self, word: str) -> Heard:
        phones, readings = self._said(word)
        units = tuple(self._lexicon.graphones.units(word, phones)) if phones else ()
        by_sound = math.prod((1 - REMEMBERED) * u.share + REMEMBERED for u in units)
        ease = pronounceability(word, phones, self._lexicon) if word.isalpha() else 0.0
        if not units:
            by_sound = LEAST
        elif ease < UNSAYABLE:
            by_sound *= math.exp(ease - UNSAYABLE)
        known = self.known(word)
        rivals = self._rivals(word, phones)
        weight = 10 ** (RIVAL * self._zipf(word)) if known else 0.0
        whole = weight + sum(rivals.values())
        heads = known
        if rivals:
            heads = max(known, *(self.known(r) for r in rivals))
        right = (heads * weight / whole if whole else 0.0) + (1 - heads) * by_sound
        wrong = {r: heads * w / whole for r, w in rivals.items()}
        if ease >= UNHEARD:
            self._misspelt(wrong, word, units, (1 - heads) * (1 - by_sound))
        ranked = sorted(wrong.items(), key=lambda w: (-w[1], w[0]))
        return Heard(
            phones,
            readings,
            units,
            known,
            tuple((r, wrong[r]) for r in sorted(rivals, key=lambda r: -wrong[r])),
            min(1.0, right),
            tuple((w, s) for w, s in ranked if s >= FEWEST)[:MOST_WRONG],
            ease,
        )

    def _said(self, word: str) -> tuple[tuple[str, ...], tuple[tuple[tuple[str, ...], float], ...]]:
        marked = tuple(p.replace("2", "1") for p in self._lexicon.sounds.marked(word))
        if marked:
            return marked, ((bare(marked), 1.0),)
        said = self._lexicon.graphones.say(word, beam=BEAM) if word.isalpha() else []
        if not said:
            return (), ()
        shares: dict[tuple[str, ...], float] = {}
        for way in said:
            shares[bare(way.phones)] = shares.get(bare(way.phones), 0.0) + way.share
        ranked = sorted(shares.items(), key=lambda s: -s[1])
        return said[0].phones, tuple(ranked)

    def _zipf(self, word: str) -> float:
        found = self._lexicon.words.get(word)
        if found is None:
            return 0.0
        lemma = self._lexicon.words.get(found.lemma)
        return max(found.zipf, lemma.zipf - 0.5 if lemma else 0.0)

    def known(self, word: str) -> float:
        """The share of writers who have the word in their heads, 0 to 1: by how common it is, or
        both its halves are.
        """
        if word not in self._lexicon.words:
            return 0.0
        own = familiarity(self._zipf(word))
        if not set("aeiouy") & set(word):
            return own * LETTERS_ONLY
        if own > 0.8 or len(word) < 7:
            return own
        words = self._lexicon.words
        halves = [
            familiarity(words[word[:cut]].zipf) * familiarity(words[word[cut:]].zipf)
            for cut in range(3, len(word) - 2)
            if word[:cut] in words and word[cut:] in words
        ]
        return max(own, *(0.9 * h for h in halves)) if halves else own

    def _rivals(self, word: str, phones: tuple[str, ...]) -> dict[str, float]:
        """Words that sound the same, with weights by how common they are."""
        words = self._lexicon.words
        pos = words[word].pos[:1] if word in words else ""
        found: dict[str, float] = {}
        for other in self._lexicon.sounds.alike(phones):
            rival = words[other]
            if other != word and rival.pos and rival.zipf >= 2.2:
                # Who hears a thing does not write a preposition, nor somebody's name.
                unlike = (pos and rival.pos[0] != pos) or rival.field == "name"
                found[other] = 10 ** (RIVAL * rival.zipf) * (UNLIKE if unlike else 1.0)
        return found

    def _misspelt(
        self, wrong: dict[str, float], word: str, units: Sequence[Unit], share: float
    ) -> None:
        """One unit written otherwise, by the odds of each; together they have `share`."""
        odds: dict[str, float] = {}
        for unit in units:
            for letters, other in unit.others[:8]:
                text = word[: unit.start] + letters + word[unit.start + len(unit.letters) :]
                if text != word:
                    odds[text] = odds.get(text, 0.0) + other / max(unit.share, 0.01)
        whole = sum(odds.values())
        for text, value in odds.items():
            wrong[text] = wrong.get(text, 0.0) + share * value / whole


def pronounceability(word: str, phones: tuple[str, ...], lexicon: Lexicon) -> float:
    """How English a word of letters a to z looks and, as it is said (`phones`), sounds, in bits
    below zero: mean and worst transition of letters and of sounds together. About -2.6 for a
    dictionary word, under -5 for letters in no order.
    """
    letters = lexicon.sayable.score(word)
    if not phones:
        return letters - 1.0
    steps = lexicon.phonotactics.steps(bare(phones))
    sounds = 0.6 * sum(steps) / len(steps) + 0.4 * min(steps) / 2.5
    return 0.6 * letters + 0.4 * sounds
