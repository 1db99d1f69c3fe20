"""What a recipe is given: the brief, the word data, and answers several recipes share."""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from functools import cached_property

import numpy as np
import numpy.typing as npt

from vinetag.core.brief import Brief, Keyword
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.morphology import doers, singular
from vinetag.core.lexicon.sounds import bare
from vinetag.core.make.collocation import LETTERS, PLACES, Collocation, Matrix, same_word
from vinetag.core.make.modifiers import Role, bank_stems
from vinetag.core.make.stems import Stem, brief_stems, keyword_stem
from vinetag.core.world.world import World, world_of

__all__ = ["Job"]

KEPT_A_ROW = 40
EASY_LETTERS = 9
LETTER_COST = 2.2


class Job:
    """One run of making. `considered` counts, by recipe, the names that were weighed."""

    def __init__(self, brief: Brief, lexicon: Lexicon, seed: int = 1) -> None:
        self.brief = brief
        self.lexicon = lexicon
        self.seed = seed
        self.considered: Counter[str] = Counter()
        self._chunks: dict[str, Sequence[tuple[str, str]]] = {}

    @cached_property
    def keywords(self) -> Sequence[Keyword]:
        """The brief's keywords, the heaviest first, then in the brief's order."""
        return sorted(self.brief.keywords, key=lambda k: -k.weight)

    @cached_property
    def keyword_stems(self) -> Sequence[Stem]:
        """The keywords as stems."""
        return [keyword_stem(k, self.lexicon) for k in self.keywords]

    @cached_property
    def stems(self) -> Sequence[Stem]:
        """Keywords and the words they lead to."""
        return brief_stems(self.brief, self.lexicon)

    @cached_property
    def modifiers(self) -> Sequence[Stem]:
        """Stems as they stand before another word or an ending: what a keyword says many of, as
        one, ahead of the rest.
        """
        ones = [(s, singular(s.words[-1], self.lexicon)) for s in self.keyword_stems]
        fronts = [s._replace(words=(*s.words[:-1], one), pos="n") for s, one in ones if one]
        taken = {s.text for s in fronts}
        return [*fronts, *(s for s in self.stems if s.text not in taken)]

    @cached_property
    def heads(self) -> Sequence[Stem]:
        """Stems as they stand behind another word: with those who do what a keyword says is done,
        which make the name of a trade (dog walker, piano tuner).
        """
        acts = {s.text: s for s in self.keyword_stems}
        backs = [acts[act]._replace(words=(doer,), pos="n") for doer, act in self.doers.items()]
        return [*backs, *(s for s in self.stems if s.text not in self.doers)]

    @cached_property
    def world(self) -> World:
        """The brief's world."""
        return world_of(self.brief, self.lexicon)

    @cached_property
    def singulars(self) -> Mapping[str, str]:
        """One of what a keyword says many of (roofs: roof)."""
        ones = [(s.words[-1], singular(s.words[-1], self.lexicon)) for s in self.keyword_stems]
        return {many: one for many, one in ones if one}

    @cached_property
    def standing(self) -> Mapping[str, str]:
        """Words that stand for a keyword of one word in a name, and which."""
        found = {s.words[0]: s.keyword for s in self.keyword_stems if len(s.words) == 1}
        ones = {one: found[many] for many, one in self.singulars.items() if many in found}
        return {**ones, **found}

    def same(self, first: str, second: str) -> bool:
        """Whether two words are one word in two forms."""
        return same_word(first, second) or (self.lexicon.lemma(first) == self.lexicon.lemma(second))

    @cached_property
    def doers(self) -> Mapping[str, str]:
        """Who does what the keywords say is done, and that (tuner: tuning)."""
        acts = [s.text for s in self.keyword_stems]
        return {doer: act for act in acts for doer in doers(act, self.lexicon)}

    @cached_property
    def collocation(self) -> Collocation:
        """How well words go side by side."""
        return Collocation(self.lexicon, self.doers)

    @cached_property
    def singles(self) -> Sequence[Stem]:
        """Stems of one word that can be changed: letters only."""
        return [s for s in self.stems if s.single]

    def chunks(self, word: str) -> Sequence[tuple[str, str]]:
        """The word's letters matched to its sounds, chunk by chunk; a word nobody lists is said as
        readers most likely would. None when they do not match.
        """
        if word not in self._chunks:
            phones = self.lexicon.sounds.phones(word)
            said = self.lexicon.graphones.say(word) if not phones and word.isalpha() else []
            phones = bare(said[0].phones) if said else phones
            found = self.lexicon.spellings.aligned(word, phones) if phones else []
            self._chunks[word] = found
        return self._chunks[word]

    @property
    def daring(self) -> float:
        """The person's dial, 0 to 1."""
        return self.brief.making.daring / 100

    @property
    def evidence(self) -> float:
        """How well two words must go together, 0 to 1: much for plain names, little for daring."""
        return 0.4 - 0.35 * self.daring

    def chance(self, *what: str) -> random.Random:
        """A generator that depends on the seed and `what` alone, so that one changed word does not
        change what another gives.
        """
        return random.Random("/".join((str(self.seed), *what)))  # noqa: S311 - draws names

    def pos(self, word: str) -> str:
        """Parts of speech, commonest first; '' for a word the data does not know."""
        known = self.lexicon.words.get(word)
        return known.pos if known else ""

    def bank(self, role: Role) -> Sequence[Stem]:
        """The bank's leads or tails."""
        return bank_stems(self.brief, self.lexicon, role)

    def joints(
        self,
        recipe: str,
        firsts: Sequence[Stem],
        seconds: Sequence[Stem],
        keep: int,
    ) -> Iterator[tuple[Stem, Stem, float]]:
        """The best pairs of a first and a second stem within the letter limits, best first.

        All of them are weighed at once: how well they go together, what the words are worth, and
        the letters beyond nine. At most KEPT_A_ROW share a first word.
        """
        if not firsts or not seconds:
            return
        together = self.collocation.together(firsts, seconds)
        letters = _lengths(firsts)[:, None] + _lengths(seconds)[None, :]
        limits = self.brief.limits
        fits = (letters >= limits.letters_min) & (letters <= limits.letters_max)
        fits &= _counts(firsts)[:, None] + _counts(seconds)[None, :] <= limits.words
        fits &= _suited(firsts, seconds)
        self.considered[recipe] += int(fits.sum())
        worth = _worths(firsts)[:, None] + _worths(seconds)[None, :]
        score = 60 * together + 34 * worth - LETTER_COST * np.maximum(0, letters - EASY_LETTERS)
        score[~fits] = -np.inf
        for i, j in _best(score, keep):
            if not same_word(firsts[i].text, seconds[j].text):
                yield firsts[i], seconds[j], float(together[i, j])

    def belonging(self, first: str, second: str) -> float:
        """How well the second word goes right after the first, 0 to 1."""
        return float(self.belongings([first], [second])[0, 0])

    def belongings(self, firsts: Sequence[str], seconds: Sequence[str]) -> Matrix:
        """The same of every second word after every first, both lists holding something."""
        one, two = ([Stem((w,), "word", "", 0, "") for w in words] for words in (firsts, seconds))
        return self.collocation.together(one, two)


def _lengths(stems: Sequence[Stem]) -> npt.NDArray[np.int64]:
    return np.array([sum(map(len, s.words)) for s in stems])


def _counts(stems: Sequence[Stem]) -> npt.NDArray[np.int64]:
    return np.array([len(s.words) for s in stems])


def _worths(stems: Sequence[Stem]) -> Matrix:
    return np.array([s.worth for s in stems], np.float32)


def _suited(firsts: Sequence[Stem], seconds: Sequence[Stem]) -> npt.NDArray[np.bool_]:
    """Not the same word twice, and words of the bank beside parts of speech they go with."""
    names = {text: i for i, text in enumerate({s.text for s in (*firsts, *seconds)})}
    one = np.array([names[s.text] for s in firsts])
    two = np.array([names[s.text] for s in seconds])
    suited: npt.NDArray[np.bool_] = one[:, None] != two[None, :]
    if firsts[0].goes_with:
        suited &= _goes(firsts, seconds)
    if seconds[0].goes_with:
        suited &= _goes(seconds, firsts).T
    return suited


def _goes(bank: Sequence[Stem], stems: Sequence[Stem]) -> npt.NDArray[np.bool_]:
    """Which words of the bank go beside which stems; a word nobody lists is taken for a noun."""
    wants = np.array([[c in b.goes_with for c in LETTERS] for b in bank])
    places = [PLACES.get(s.pos[:1] or "n", len(LETTERS)) for s in stems]
    none = np.zeros((len(bank), 1), np.bool_)
    found: npt.NDArray[np.bool_] = np.hstack((wants, none))[:, places]
    return found


def _best(score: Matrix, keep: int) -> list[tuple[int, int]]:
    """Places of the best entries: the best KEPT_A_ROW of each row, then the best of all."""
    width = min(KEPT_A_ROW, score.shape[1])
    columns = np.argpartition(-score, width - 1, axis=1)[:, :width]
    values = np.take_along_axis(score, columns, axis=1)
    rows = np.repeat(np.arange(score.shape[0]), width)
    flat, columns = values.ravel(), columns.ravel()
    order = np.argsort(-flat, kind="stable")[:keep]
    order = order[np.isfinite(flat[order])]
    return list(zip(rows[order].tolist(), columns[order].tolist(), strict=True))
