"""initials: the initials of a phrase, with a word to carry them."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import permutations

from vinetag.core.candidates import Part
from vinetag.core.concepts import Change
from vinetag.core.make.draft import Draft, changed
from vinetag.core.make.job import Job
from vinetag.core.names import plain_words

__all__ = ["Initials"]

SAYABLE = -3.2
CARRIERS = 12
FAR = 0.6
VOWELS = frozenset("aeiouy")


class Initials:
    """First letters of the name, of phrases, and of keywords in any order that can be said."""

    name = "initials"

    def make(self, job: Job) -> Iterator[Draft]:
        """Alone only when they can be said, from three letters; those of a phrase or the name
        carried by a keyword too, from two, and when they cannot be said only for a daring dial.
        """
        seen: set[str] = set()
        given = [(words, True) for words in _given(job)]
        for words, carried in (*given, *((words, False) for words in _turned(job))):
            letters = "".join(w[0] for w in words)
            if letters in seen or not letters.isalpha() or not 2 <= len(letters) <= 5:
                continue
            seen.add(letters)
            job.considered[self.name] += 1
            change = Change("initials", {"words": " ".join(words)})
            sayable = job.lexicon.sayable.score(letters) > SAYABLE and bool(VOWELS & set(letters))
            if len(letters) >= 3 and sayable and letters not in job.lexicon.words:
                yield changed(letters, "initials", "", change, 0.35)
            if carried and (sayable or job.daring >= FAR):
                yield from _carried(job, letters, change)


def _given(job: Job) -> Iterator[tuple[str, ...]]:
    if words := plain_words(job.brief.name):
        yield tuple(words)
    yield from (k.words for k in job.keywords)


def _turned(job: Job) -> Iterator[tuple[str, ...]]:
    first = [k.words[0] for k in job.keywords][:5]
    for size in (3, 4):
        yield from permutations(first, size)


def _carried(job: Job, letters: str, change: Change) -> Iterator[Draft]:
    for stem in job.keyword_stems[:CARRIERS]:
        if len(stem.words) == 1:
            parts = (
                Part(letters, "initials", "", 0, change),
                Part(stem.text, "keyword", stem.keyword, len(letters)),
            )
            yield Draft(letters + stem.text, parts, 0.2)
