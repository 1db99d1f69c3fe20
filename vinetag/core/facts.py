"""Plain facts about a name that a sheet is narrowed by."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Final, NamedTuple

from vinetag.core.candidates import Candidate
from vinetag.core.lexicon import Lexicon

__all__ = ["ADDED", "Facts", "beats", "facts_of"]

VOWEL_GROUP = re.compile(r"[aeiouy]+")
ADDED_KINDS: Final = ("lead", "tail")
# Parts of speech of an added word, by the letter the lexicon has for them.
ADDED: Final = {"n": "noun", "v": "verb", "a": "adjective", "r": "adverb", "p": "preposition"}
OTHER: Final = "other"


class Facts(NamedTuple):
    """`syllables` as said; `words`, or parts where a word was changed; `added`: the parts of speech
    of leads and tails (noun, verb, adjective, adverb, preposition, other), each once, in order.
    """

    syllables: int
    words: int
    added: tuple[str, ...]


def facts_of(candidate: Candidate, lexicon: Lexicon) -> Facts:
    """The facts of a made name."""
    parts = [part for part in candidate.parts if part.kind != "hyphen"]
    texts = [part.text for part in parts] or [candidate.label]
    added = []
    for part in parts:
        if part.kind in ADDED_KINDS:
            known = lexicon.words.get(part.text)
            added.append(ADDED.get(known.pos[:1], OTHER) if known else OTHER)
    spoken = sum(beats(text, lexicon) for text in texts if text.isalpha())
    return Facts(max(1, spoken), len(texts), tuple(dict.fromkeys(added)))


@lru_cache(60_000)
def beats(word: str, lexicon: Lexicon) -> int:
    """Syllables: the dictionary's, or for a new word its groups of vowel letters."""
    groups = len(VOWEL_GROUP.findall(word)) - (word.endswith("e") and not word.endswith("le"))
    return lexicon.sounds.syllables(word) or max(1, groups)
