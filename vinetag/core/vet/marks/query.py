"""What is looked for in a register: a name's forms, other ways to say it, and words that mean what
its own do.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from itertools import product
from typing import Final

from vinetag.core.grade import Reading
from vinetag.core.lexicon import Lexicon
from vinetag.core.vet.marks.forms import PHONES, FormMaker
from vinetag.core.vet.marks.index import Query

__all__ = ["query_of"]

MOST_SAID: Final = 3
LEAST_SAID: Final = 0.12
MOST_MEANT: Final = 14
MOST_WORDS: Final = 3
SYNONYM: Final = 0.88
NEAREST, LEAST_NEAR = 60, 0.45


def query_of(reading: Reading, classes: Collection[int], forms: FormMaker) -> Query:
    """The query of a name in a brief's classes."""
    lexicon = reading.lexicon
    words = [word for _, word in reading.words if word] or [reading.label.replace("-", "")]
    own = forms.of_words(words, classes)
    return Query(
        own,
        tuple(sorted(classes)),
        _said(own.letters, own.sounds, lexicon),
        _meant(own.words, lexicon),
        _beside(own.words, lexicon),
    )


def _said(letters: str, sounds: str, lexicon: Lexicon) -> tuple[str, ...]:
    """How those say it who do not see its words."""
    if not letters.isalpha():
        return ()
    found = []
    for way in lexicon.graphones.say(letters, most=MOST_SAID):
        signs = "".join(PHONES[phone.rstrip("012")] for phone in way.phones)
        if way.share >= LEAST_SAID and signs != sounds:
            found.append(signs)
    return tuple(dict.fromkeys(found))


def _meant(words: str, lexicon: Lexicon) -> Mapping[str, float]:
    """By words of the same meaning in place of one's own, how near they are."""
    own = words.split()
    if not own or len(own) > MOST_WORDS:
        return {}
    choices = [[(word, 1.0), *_synonyms(word, lexicon)] for word in own]
    found: dict[str, float] = {}
    for ways in product(*choices):
        near = min(near for _, near in ways)
        text = " ".join(sorted(word for word, _ in ways))
        if text != words:
            found[text] = max(found.get(text, 0.0), near)
    return found


def _beside(words: str, lexicon: Lexicon) -> Mapping[str, float]:
    """Words near one of the name's in meaning, for names of a few words."""
    own = words.split()
    if not 2 <= len(own) <= MOST_WORDS:
        return {}
    found: dict[str, float] = {}
    for word in own:
        for other, near in lexicon.nearest(lexicon.vectors([word])[0], NEAREST):
            plain = lexicon.lemma(other) or other
            if near >= LEAST_NEAR and plain not in own:
                found[plain] = max(found.get(plain, 0.0), near)
        for other, near in _synonyms(word, lexicon):
            found[other] = max(found.get(other, 0.0), near)
    return found


def _synonyms(word: str, lexicon: Lexicon) -> list[tuple[str, float]]:
    """Words that share a meaning with it; those of its first meanings are nearer."""
    found: dict[str, float] = {}
    for place, sense in enumerate(lexicon.thesaurus.senses(word)):
        for text in sense.words:
            other = lexicon.lemma(text) or text
            if other != word and other.isalpha() and other in lexicon.words:
                found.setdefault(other, max(0.6, SYNONYM - 0.05 * place))
    ranked = sorted(found.items(), key=lambda one: (-one[1], one[0]))
    return ranked[:MOST_MEANT]
