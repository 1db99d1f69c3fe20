"""The first pass: a cheap guess at every name's grade, to choose those worth grading in full."""

from __future__ import annotations

from vinetag.core.brief import Brief
from vinetag.core.facts import beats
from vinetag.core.grade import Grader, Reading
from vinetag.core.grade.measures.fit import Fit
from vinetag.core.grade.measures.length import Length
from vinetag.core.grade.weigh import weigh, weights_of
from vinetag.core.lexicon import Lexicon

__all__ = ["FirstPass"]

LENGTH, FIT = Length(), Fit()
SHARE = 0.6
NEW_LETTERS = 23.0
# Changes after which a keyword is looked for in the whole label.
IN_THE_LABEL = frozenset(("blend", "invent"))


class FirstPass:
    """Length and fit, and what the other measures would say, guessed from the letters that stand in
    no known word (fitted to full grades, correlation 0.83 to 0.90). What a measure gave one name it
    gives all that are alike in what it looks at.
    """

    def __init__(self, brief: Brief, lexicon: Lexicon) -> None:
        self.grader = Grader(brief, lexicon, ())
        self._lexicon = lexicon
        self._weights = weights_of(brief)
        self._lengths: dict[object, float | None] = {}
        self._fits: dict[object, float | None] = {}
        self._grades: dict[object, float] = {}

    def guess(self, reading: Reading) -> tuple[float, float]:
        """The grade that is to be expected, about 0 to 60, and the score for fit."""
        words, given = self._lexicon.words, reading.keywords
        spoken = unknown = 0
        for _, word in reading.words:
            spoken += beats(word, self._lexicon)
            if word not in words and word not in given:
                unknown += len(word)
        label = reading.label
        letters = (len(label), label.count("-"), spoken, len(reading.words))
        if letters not in self._lengths:
            self._lengths[letters] = LENGTH.assess(reading).score
        length = self._lengths[letters]
        parts = tuple(
            [
                (p.text if p.kind == "kin" else p.text[:3], p.kind, p.keyword, not p.start)
                for p in reading.carried
            ]
        )
        whole = "" if IN_THE_LABEL.isdisjoint([kind for _, kind, _, _ in parts]) else label
        carried = (parts, whole, reading.added, reading.is_name)
        if carried not in self._fits:
            self._fits[carried] = FIT.assess(reading).score
        fit = self._fits[carried]
        if (length, fit) not in self._grades:
            scores = {"length": length, "fit": fit}
            told = {name: score for name, score in scores.items() if score is not None}
            self._grades[length, fit] = weigh(told, self._weights)
        guess = SHARE * self._grades[length, fit] - NEW_LETTERS * unknown / len(label)
        return guess, 100.0 if fit is None else fit
