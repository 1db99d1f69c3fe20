"""What a recipe is given: the brief, the word data, and answers several recipes share."""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterator, Sequence
from functools import cached_property

import numpy as np
import numpy.typing as npt

from vinetag.core.brief import Brief, Keyword
from vinetag.core.lexicon import BankWord, Lexicon
from vinetag.core.lexicon.sounds import bare
from vinetag.core.make.stems import Stem, brief_stems, keyword_stem

__all__ = ["Job"]

PAIR_FULL = 6.0
MODEL_SHARE = 0.75
NEW_WORD = 0.45
LIKELY_AT = 1.0
KEPT_A_ROW = 40
EASY_LETTERS = 9
LETTER_COST = 2.2

Matrix = npt.NDArray[np.float32]


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
    def singles(self) -> Sequence[Stem]:
        """Stems of one word that can be changed: letters only."""
        return [s for s in self.stems if len(s.words) == 1 and s.text.isalpha()]

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

    def lemma(self, word: str) -> str:
        """The word's dictionary form; itself when nobody lists it."""
        known = self.lexicon.words.get(word)
        return known.lemma if known and known.lemma else word

    def bank(self, role: str) -> list[Stem]:
        """The bank's leads or tails with at most the letters the brief allows, each word once."""
        words: dict[str, BankWord] = {}
        beside: dict[str, str] = {}
        bank = self.lexicon.bank
        for word in bank.leads if role == "lead" else bank.tails:
            if len(word.text) <= self.brief.making.added_max:
                words.setdefault(word.text, word)
                beside[word.text] = beside.get(word.text, "") + word.beside
        return [
            Stem((w.text,), role, "", BANK_WORTH.get(w.kind, 0.5), self.pos(w.text), beside[w.text])
            for w in words.values()
        ]

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
        together = self.together(firsts, seconds)
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
            yield firsts[i], seconds[j], float(together[i, j])

    def together(self, firsts: Sequence[Stem], seconds: Sequence[Stem]) -> Matrix:
        """How well each second goes right after each first, 0 to 1, a row a first.

        Two signals: pointwise mutual information of the words that meet (6 nats or more count
        whole), and what the pairing model thinks of them, for words of one subject. What stands
        before a phrase must go with its last word, too: it is that which is meant. A word nobody
        lists, such as a brand's, goes with every other well enough.
        """
        strength = self._meeting(firsts, [s.words[0] for s in seconds])
        phrases = [j for j, s in enumerate(seconds) if len(s.words) > 1]
        if phrases:
            heads = self._meeting(firsts, [seconds[j].words[-1] for j in phrases])
            strength[:, phrases] = np.minimum(strength[:, phrases], heads)
        together: Matrix = strength * _patterns(firsts, seconds)
        return together

    def _meeting(self, firsts: Sequence[Stem], starts: Sequence[str]) -> Matrix:
        """How well each word goes after each first, whatever the parts of speech."""
        ends = [s.words[-1] for s in firsts]
        left, right = self.lexicon.side(ends), self.lexicon.side(starts)
        alike = left.vectors @ right.vectors.T
        likely = 1 / (1 + np.exp(-1.3 * (self.lexicon.pairing.logits(left, right) + LIKELY_AT)))
        seen = np.zeros_like(alike)
        places: dict[str, list[int]] = {}
        for j, start in enumerate(starts):
            places.setdefault(start, []).append(j)
        for i, end in enumerate(ends):
            followers = self.lexicon.followers(end)
            for word in followers.keys() & places.keys():
                value = 0.5 + 0.5 * min(1.0, followers[word] / PAIR_FULL)
                for j in places[word]:
                    seen[i, j] = value
        subject = np.clip(0.45 + alike, 0, 1)
        strength = 1 - (1 - seen) * (1 - MODEL_SHARE * likely * subject)
        known = [side.vectors.any(axis=1).astype(np.float32) for side in (left, right)]
        new = 1 - np.outer(known[0], known[1])
        meeting: Matrix = np.maximum(strength, NEW_WORD * new)
        return meeting

    def attested(self, first: Stem, second: Stem) -> bool:
        """Whether the words that meet were seen side by side."""
        return second.words[0] in self.lexicon.followers(first.words[-1])

    def belonging(self, first: str, second: str) -> float:
        """How well the second word goes right after the first, 0 to 1."""
        pair = [Stem((word,), "", "", 0, "") for word in (first, second)]
        return float(self.together(pair[:1], pair[1:])[0, 0])


# What a kind of the bank's words is worth in a name, by how often people would say it is one.
BANK_WORTH = {
    "place": 0.62, "craft": 0.6, "group": 0.62, "collection": 0.4, "writing": 0.5, "doer": 0.55,
    "nature": 0.55, "motion": 0.5, "idea": 0.38, "thing": 0.3, "web": 0.4, "care": 0.4,
    "determiner": 0.08, "preposition": 0.05, "verb": 0.3, "quality": 0.5, "feel": 0.58, "time": 0.3,
    "number": 0.09, "manner": 0.2,
}  # fmt: skip


LETTERS = "nvar"
NAMED = frozenset(LETTERS)
# Rows: the first word is a noun, verb, adjective, adverb; columns: the second. By judgement.
USUAL: Matrix = np.array(
    [[1.0, 0.6, 0.45, 0.3], [0.85, 0.4, 0.4, 0.5], [1.0, 0.45, 0.3, 0.2], [0.7, 0.6, 0.5, 0.3]],
    np.float32,
)


def _lengths(stems: Sequence[Stem]) -> npt.NDArray[np.int64]:
    return np.array([len(s.text) for s in stems])


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
    if firsts[0].beside:
        suited &= _goes(firsts, seconds)
    if seconds[0].beside:
        suited &= _goes(seconds, firsts).T
    return suited


def _goes(bank: Sequence[Stem], stems: Sequence[Stem]) -> npt.NDArray[np.bool_]:
    """Which words of the bank go beside which stems; a word nobody lists is taken for a noun."""
    wants = np.array([[c in b.beside for c in LETTERS] for b in bank])
    has = np.array([[c in (s.pos[:1] or "n") for c in LETTERS] for s in stems])
    return (wants.astype(np.int8) @ has.T.astype(np.int8)) > 0


def _patterns(firsts: Sequence[Stem], seconds: Sequence[Stem]) -> Matrix:
    """How usual it is that the first's part of speech stands before the second's."""
    one = [LETTERS.index(s.pos[0]) if s.pos[:1] in NAMED else 0 for s in firsts]
    two = [LETTERS.index(s.pos[0]) if s.pos[:1] in NAMED else 0 for s in seconds]
    usual: Matrix = USUAL[np.ix_(one, two)]
    return usual


def _best(score: Matrix, keep: int) -> list[tuple[int, int]]:
    """Places of the best entries: the best KEPT_A_ROW of each row, then the best of all."""
    width = min(KEPT_A_ROW, score.shape[1])
    columns = np.argpartition(-score, width - 1, axis=1)[:, :width]
    values = np.take_along_axis(score, columns, axis=1)
    rows = np.repeat(np.arange(score.shape[0]), width)
    flat, columns = values.ravel(), columns.ravel()
    order = np.argsort(-flat, kind="stable")[:keep]
    return [(int(rows[k]), int(columns[k])) for k in order if np.isfinite(flat[k])]
