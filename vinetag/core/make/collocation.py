"""How well words go side by side: what is said together, what is like it, and what is not said."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.morphology import gerund, singular
from vinetag.core.lexicon.pairing import Side
from vinetag.core.make.stems import Stem

__all__ = ["LETTERS", "PLACES", "Collocation", "Matrix", "same_word"]

Matrix = npt.NDArray[np.float32]
Mask = npt.NDArray[np.bool_]

PAIR_FULL = 6.0
MODEL_SHARE = 0.75
NEW_WORD = 0.45
LIKELY_AT = 1.0
# For words never seen side by side: what is left of the evidence where one is of the bank's that
# want to have been, what there is at least for the bank's others, and what is left for many of a
# thing before another, as English joins words as one of each (star map, not stars map).
NARROW = 0.45
BROAD = 0.12
MANY_BEFORE = 0.5
# Many people are described before them (small children) far more often than named.
PEOPLE = 0.45
DONE_TO = 1.2
# Two animals, or two people, mostly stand side by side in lists (dog, horse and cat), and an act
# before an animal describes it (a walking horse).
LISTED = ("animal", "person")
SIDE_BY_SIDE = 0.5
SAME_BEGINNING = 4

LETTERS = "nvar"
PLACES = {letter: place for place, letter in enumerate(LETTERS)}
# Rows: the first word is a noun, verb, adjective, adverb; columns: the second. By judgement.
USUAL: Matrix = np.array(
    [[1.0, 0.6, 0.45, 0.3], [0.85, 0.4, 0.4, 0.5], [1.0, 0.45, 0.3, 0.2], [0.7, 0.6, 0.5, 0.3]],
    np.float32,
)


class Traits(NamedTuple):
    """What tells how a word stands beside others: whether it says many of a thing, many persons
    (children, lovers), an act; and what sort of thing a noun is.
    """

    many: bool
    people: bool
    act: bool
    sort: str


class Collocation:
    """Weighs every first word against every second at once. `doers`: who does what a keyword says
    is done (tuner: tuning).
    """

    def __init__(self, lexicon: Lexicon, doers: Mapping[str, str]) -> None:
        self._lexicon = lexicon
        self._doers = doers
        # Recipes weigh the same words over and over.
        self._sides: dict[tuple[str, ...], Side] = {}
        self._traits: dict[str, Traits] = {}

    def together(self, firsts: Sequence[Stem], seconds: Sequence[Stem]) -> Matrix:
        """How well each second goes right after each first, 0 to 1, a row a first.

        Two signals: pointwise mutual information of the words that meet (6 nats or more count
        whole), and what the pairing model thinks of them, for words of one subject. What stands
        before a phrase must go with its last word, too: it is that which is meant. A word nobody
        lists, such as a brand's, goes with every other well enough. Things of the bank that were
        never seen beside the other word, and many of a thing before another, do so less. What is
        done to a keyword goes behind it, too: dog walking, as one is walking a dog.
        """
        ends = [s.words[-1] for s in firsts]
        strength, unseen = self._meeting(ends, [s.words[0] for s in seconds])
        phrases = [j for j, s in enumerate(seconds) if len(s.words) > 1]
        if phrases:
            heads, _ = self._meeting(ends, [seconds[j].words[-1] for j in phrases])
            strength[:, phrases] = np.minimum(strength[:, phrases], heads)
        narrow = _either([not s.broad for s in firsts], [not s.broad for s in seconds])
        strength[narrow & unseen] *= NARROW
        bank = _either([s.goes_with != "" for s in firsts], [s.goes_with != "" for s in seconds])
        broad = bank & ~narrow & unseen
        strength[broad] = 1 - (1 - BROAD) * (1 - strength[broad])
        one = [self._traits_of(end) for end in ends]
        two = [self._traits_of(s.words[-1]) for s in seconds]
        many = np.array([traits.many for traits in one])
        strength[many[:, None] & unseen] *= MANY_BEFORE
        people = np.array([traits.people for traits in two])
        described = np.array([s.pos[:1] == "a" or s.kind != "keyword" for s in firsts])
        strength[described[:, None] & people[None, :]] *= PEOPLE
        for sort in LISTED:
            same = (np.array([traits.sort == sort for traits in side]) for side in (one, two))
            strength[np.logical_and.outer(*same)] *= SIDE_BY_SIDE
        acts = np.array([traits.act for traits in one])
        animals = np.array([traits.sort == "animal" for traits in two])
        strength[np.logical_and.outer(acts, animals)] *= SIDE_BY_SIDE
        together: Matrix = strength * _patterns(firsts, seconds)
        self._done(together, firsts, seconds)
        return together

    def seen(self, first: str, second: str) -> bool:
        """Whether the second word is often seen right after the first."""
        return second in self._lexicon.followers(first)

    def _done(self, together: Matrix, firsts: Sequence[Stem], seconds: Sequence[Stem]) -> None:
        """Raises keywords that say what is done, or who does it, behind what it is done to."""
        things = [i for i, s in enumerate(firsts) if s.kind == "keyword" and s.pos[:1] == "n"]
        acts = {j: self._act(s.words[-1]) for j, s in enumerate(seconds) if s.kind == "keyword"}
        acts = {j: act for j, act in acts.items() if act}
        if things and acts:
            turned, _ = self._meeting([*acts.values()], [firsts[i].words[0] for i in things])
            done = np.ix_(things, [*acts])
            together[done] = np.maximum(together[done], np.minimum(1, DONE_TO * turned.T))

    def _act(self, word: str) -> str:
        return word if gerund(word, self._lexicon) else self._doers.get(word, "")

    def _traits_of(self, word: str) -> Traits:
        found = self._traits.get(word)
        if found is None:
            known, one = self._lexicon.words.get(word), singular(word, self._lexicon)
            found = self._traits[word] = Traits(
                many=one != "",
                people=one != "" and self._lexicon.words[one].field == "person",
                act=bool(gerund(word, self._lexicon)),
                sort=known.field if known and known.pos[:1] == "n" else "",
            )
        return found

    def _side(self, words: Sequence[str]) -> Side:
        key = tuple(words)
        if key not in self._sides:
            self._sides[key] = self._lexicon.side(words)
        return self._sides[key]

    def _meeting(self, ends: Sequence[str], starts: Sequence[str]) -> tuple[Matrix, Mask]:
        """How well each start goes after each end, whatever the parts of speech, and which were
        never seen there.
        """
        left, right = self._side(ends), self._side(starts)
        alike = left.vectors @ right.vectors.T
        logits = self._lexicon.pairing.logits(left, right, alike)
        likely = 1 / (1 + np.exp(-1.3 * (logits + LIKELY_AT)))
        seen = np.zeros_like(alike)
        places: dict[str, list[int]] = {}
        for j, start in enumerate(starts):
            places.setdefault(start, []).append(j)
        for i, end in enumerate(ends):
            followers = self._lexicon.followers(end)
            for word in followers.keys() & places.keys():
                value = 0.5 + 0.5 * min(1.0, followers[word] / PAIR_FULL)
                for j in places[word]:
                    seen[i, j] = value
        subject = np.clip(0.45 + alike, 0, 1)
        strength = 1 - (1 - seen) * (1 - MODEL_SHARE * likely * subject)
        known = [side.vectors.any(axis=1).astype(np.float32) for side in (left, right)]
        new = 1 - np.outer(known[0], known[1])
        meeting: Matrix = np.maximum(strength, NEW_WORD * new)
        return meeting, seen == 0


def same_word(first: str, second: str) -> bool:
    """Whether one says again what the other says: it ends or begins with it (beeswax and wax), or
    both are of one word (heating and heater).
    """
    if first.endswith(second) or second.startswith(first):
        return True
    alike = max(SAME_BEGINNING, min(len(first), len(second)) - 3)
    return first[:alike] == second[:alike]


def _either(firsts: Sequence[bool], seconds: Sequence[bool]) -> Mask:
    """Whether it is so of the first or of the second, a row a first."""
    either: Mask = np.logical_or.outer(firsts, seconds)
    return either


def _patterns(firsts: Sequence[Stem], seconds: Sequence[Stem]) -> Matrix:
    """How usual it is that the first's part of speech stands before the second's."""
    one = [PLACES.get(s.pos[:1], 0) for s in firsts]
    two = [PLACES.get(s.pos[:1], 0) for s in seconds]
    usual: Matrix = USUAL[np.ix_(one, two)]
    return usual
