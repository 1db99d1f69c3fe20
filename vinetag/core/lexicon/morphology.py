"""Words that stand for another in a name: one of many, an act and who does it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Final

if TYPE_CHECKING:
    from vinetag.core.lexicon.store import Lexicon

__all__ = ["doers", "gerund", "singular"]

MUCH_RARER = 0.5
SHORTEST_VERB = 3
# Fields of nouns in -ing that are no acts (evening, meeting, pudding, parking).
NO_ACTS: Final = frozenset("time group food quantity state person animal Tops".split())


def gerund(word: str, lexicon: Lexicon) -> Sequence[str]:
    """The verbs it may be the -ing form of (walk, bake, run); none when it names no act, or is
    much more usual than they are (wedding).
    """
    base, known = word.removesuffix("ing"), lexicon.words.get(word)
    if base == word or len(base) < SHORTEST_VERB or known is None or known.field in NO_ACTS:
        return []
    undoubled = base[:-1] if base[-1] == base[-2] else base
    found = {b: lexicon.words.get(b) for b in (base, base + "e", undoubled)}
    verbs = {b: w for b, w in found.items() if w and "v" in w.pos}
    return [b for b, w in verbs.items() if w.zipf > known.zipf - 2 * MUCH_RARER]


def singular(word: str, lexicon: Lexicon) -> str:
    """One of what the noun says there are many of; "" for every other word, and where the many are
    what is usually spoken of (media).
    """
    known = lexicon.words.get(word)
    one = lexicon.words.get(known.lemma) if known and known.pos[:1] == "n" else None
    return known.lemma if known and one and one.zipf > known.zipf - MUCH_RARER else ""


def doers(word: str, lexicon: Lexicon) -> Iterator[str]:
    """Who does what an act says (tuning: tuner)."""
    for base in gerund(word, lexicon):
        yield from (form for kind, form in lexicon.thesaurus.forms(base) if kind == "doer")
