"""Words that stand for another in a name: one of many, an act and who does it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Final

if TYPE_CHECKING:
    from vinetag.core.lexicon.store import Lexicon

__all__ = ["doers", "gerund", "singular"]

MUCH_RARER = 0.5
SHORTEST_VERB = 3
# What is usually spoken of as many, and is something else than many of one.
MANY_ONLY: Final = frozenset(
    """affairs arms arts blues classics commons contents customs glasses goods graphics greens
    grounds heights manners masters mechanics premises sales shorts singles spirits sports stakes
    tactics terms works""".split()
)
# Many of a thing that the dictionary lists by themselves are of that thing when they mean the same.
SAME_MEANING: Final = 0.5
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
    if known is None or known.pos[:1] != "n" or word in MANY_ONLY:
        return ""
    base = known.lemma or _one_of(word, lexicon)
    one = lexicon.words.get(base)
    return base if one and one.zipf > known.zipf - MUCH_RARER else ""


def _one_of(word: str, lexicon: Lexicon) -> str:
    """One of many that the dictionary lists by themselves (windows, letters)."""
    if not word.endswith("s") or word.endswith("ss"):
        return ""
    for base in (word[:-1], word.removesuffix("es"), word.removesuffix("ies") + "y"):
        if base in lexicon.words and ("plural", word) in lexicon.thesaurus.forms(base):
            many, one = lexicon.meanings.rows([word, base])
            return base if float(many @ one) >= SAME_MEANING else ""
    return ""


def doers(word: str, lexicon: Lexicon) -> Iterator[str]:
    """Who does what an act says (tuning: tuner)."""
    for base in gerund(word, lexicon):
        yield from (form for kind, form in lexicon.thesaurus.forms(base) if kind == "doer")
