"""memory: is it remembered?

What the literature says: words that can be pictured are recalled better than abstract ones
(A. Paivio, Imagery and Verbal Processes, 1971); common words are recalled better, rare ones
recognised better (V. Gregg, Word frequency, recognition and recall, 1976); fewer and shorter items
are kept better (A. Baddeley, N. Thomson and M. Buchanan, 1975); alliteration and rhyme help
(F. Boers and S. Lindstromberg, 2005; D. Rubin, Memory in Oral Traditions, 1995). How many points
each is worth is our judgement.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from vinetag.core.grade.reading import Reading
from vinetag.core.grade.scale import Assessment, Finding, assess, not_graded
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.sounds import VOWELS, bare

__all__ = ["Memory", "picturable"]

BASE: Final = 46.0
FAMILIAR: Final = 14.0
PICTURE: Final = 12.0
FEW_WORDS: Final = 4.0
A_WORD: Final = 3.0
ALLITERATION: Final = 14.0
RHYME: Final = 14.0
ECHO: Final = 6.0
EVERYDAY: Final = 5.0
COMMON: Final = 12.0
LONG: Final = 10
A_LETTER: Final = 1.5
DIGITS: Final = 8.0
# How well things of a WordNet field can be pictured, 0 to 1; by judgement.
PICTURED: Final[Mapping[str, float]] = MappingProxyType(
    {
        "artifact": 0.9, "animal": 1.0, "plant": 0.95, "food": 0.95, "object": 0.95, "body": 0.9,
        "person": 0.7, "substance": 0.8, "location": 0.6, "shape": 0.7, "phenomenon": 0.7,
        "group": 0.5, "time": 0.45, "event": 0.45, "act": 0.35, "communication": 0.4,
        "possession": 0.35, "feeling": 0.3, "process": 0.25, "state": 0.2, "quantity": 0.25,
        "cognition": 0.15, "attribute": 0.2, "relation": 0.15, "motive": 0.1, "Tops": 0.4,
        "name": 0.3,
    }
)  # fmt: skip
OTHER_POS: Final[Mapping[str, float]] = MappingProxyType({"a": 0.4, "v": 0.4, "r": 0.1})


class Memory:
    """Familiar parts, something to picture, few words, and a tune."""

    name = "memory"
    of_letters = True
    wording: Mapping[str, str] = MappingProxyType(
        {
            "familiar": "“{word}” is a word everyone knows.",
            "rare": "“{word}” is seldom seen: {per} in a million words.",
            "new": "“{word}” is a new word: it has to be learnt first.",
            "picture": "“{word}” can be pictured: {field}.",
            "abstract": "“{word}” is nothing one can picture.",
            "one": "“{first}” is one word to keep.",
            "two": "Two words to keep: “{first}” and “{second}”.",
            "words": "{words} words to keep, in order.",
            "alliteration": "“{first}” and “{second}” begin alike.",
            "rhyme": "“{first}” and “{second}” rhyme.",
            "echo": "“{text}” comes twice.",
            "everyday": "“{first}” and “{second}” are everyday words: easily mixed up with others.",
            "long": "{letters} letters are more than is kept at a glance.",
            "digits": "“{digits}” has to be remembered apart.",
        }
    )

    def assess(self, reading: Reading) -> Assessment:
        """The least familiar word and the most picturable one are spoken of."""
        if reading.foreign:
            return not_graded(reading)
        words = [(at, w) for at, w in reading.words if w.isalpha()]
        end = len(reading.label)
        found: list[Finding] = []
        if words:
            found.append(_familiar(words, reading))
            if any(reading.hearing.known(w) for _, w in words):
                found.append(_picture(words, reading))
        count = len(reading.words)
        if count <= 2:
            code = "one" if count == 1 else "two"
            points = FEW_WORDS * (0.5 if count == 1 and found and found[0].code == "new" else 1.0)
            args = {"first": reading.words[0][1], "second": reading.words[-1][1]}
            found.append(Finding(code, points, 0, end, args))
        else:
            found.append(Finding("words", -A_WORD * (count - 2), 0, end, {"words": count}))
        found += _tune(words, reading)
        for at, word in reading.words:
            if not word.isalpha():
                found.append(Finding("digits", -DIGITS, at, at + len(word), {"digits": word}))
        letters = end - reading.label.count("-")
        if letters > LONG:
            points = -A_LETTER * (letters - LONG)
            found.append(Finding("long", points, 0, end, {"letters": letters}))
        return assess(BASE, found)


@lru_cache(60_000)
def picturable(word: str, lexicon: Lexicon) -> float:
    """How well what the word names can be pictured, 0 to 1: by the WordNet field of its commonest
    meaning.
    """
    found = lexicon.words.get(word)
    if found is None:
        return 0.0
    base = lexicon.words.get(found.lemma, found)
    if base.pos[:1] != "n":
        return OTHER_POS.get(base.pos[:1], 0.0)
    return PICTURED.get(base.field, 0.3)


def _familiar(words: Sequence[tuple[int, str]], reading: Reading) -> Finding:
    shares = [(reading.hearing.known(word), at, word) for at, word in words]
    mean = sum(s for s, _, _ in shares) / len(shares)
    least, at, word = min(shares)
    end = at + len(word)
    if least == 0:
        return Finding("new", FAMILIAR * mean, at, end, {"word": word})
    if least < 0.8:
        zipf = reading.lexicon.words[word].zipf
        per = 10 ** (zipf - 3)
        args = {"word": word, "per": f"{per:.0f}" if per >= 1 else f"{per:.1f}"}
        return Finding("rare", FAMILIAR * mean, at, end, args)
    return Finding("familiar", FAMILIAR * mean, at, end, {"word": word})


def _picture(words: Sequence[tuple[int, str]], reading: Reading) -> Finding:
    shares = [(picturable(word, reading.lexicon), -at, word) for at, word in words]
    best, start, word = max(shares)
    mean = sum(s for s, _, _ in shares) / len(shares)
    points = PICTURE * (0.6 * best + 0.4 * mean)
    start, end = -start, -start + len(word)
    if best < 0.5:
        return Finding("abstract", points, start, end, {"word": word})
    found = reading.lexicon.words[word]
    field = reading.lexicon.words.get(found.lemma, found).field
    kind = KINDS.get(field, "a thing")
    return Finding("picture", points, start, end, {"word": word, "field": kind})


KINDS: Final = {
    "animal": "an animal", "plant": "a plant", "food": "something to eat or drink",
    "person": "a person", "location": "a place", "group": "people together", "body": "of the body",
    "substance": "a stuff", "shape": "a shape", "phenomenon": "something seen in nature",
}  # fmt: skip


def _tune(words: Sequence[tuple[int, str]], reading: Reading) -> Iterator[Finding]:
    for (at, first), (start, second) in itertools.pairwise(words):
        one = bare(reading.hearing.word(first).phones)
        two = bare(reading.hearing.word(second).phones)
        args = {"first": first, "second": second}
        end = start + len(second)
        if first == second:
            yield Finding("echo", ECHO, at, end, {"text": first})
        elif one and two and one[0] == two[0] and one[0] not in VOWELS:
            yield Finding("alliteration", ALLITERATION, at, end, args)
        elif one and two and len(one) > 1 and _rhyme(one) == _rhyme(two):
            yield Finding("rhyme", RHYME, at, end, args)
        known = [reading.lexicon.words.get(w) for w in (first, second)]
        if all(k and k.zipf > EVERYDAY for k in known) and len(words) == 2:
            yield Finding("everyday", -COMMON, at, end, args)


def _rhyme(phones: Sequence[str]) -> tuple[str, ...]:
    last = max((i for i, p in enumerate(phones) if p in VOWELS), default=0)
    return tuple(phones[last:])
