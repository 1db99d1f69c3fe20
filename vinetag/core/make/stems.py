"""The words recipes work with: keywords, the words they lead to, and words of the bank."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Final, NamedTuple

from vinetag.core.brief import Brief, Keyword
from vinetag.core.concepts import PartName
from vinetag.core.lexicon import Lexicon
from vinetag.core.words import open_up
from vinetag.core.world.incidental import says

__all__ = ["Stem", "brief_stems", "keyword_stem"]

# How much of a group's closeness counts when names are made of its words.
USED: Final = {
    "synonyms": 0.8, "kin": 0.75, "narrower": 0.6, "derived": 0.7, "parts": 0.45, "broader": 0.4,
    "compounds": 0.35,
}  # fmt: skip
# What a word's field says about its use in a name: things that can be pictured before notions.
FIELDS: Final = {
    "artifact": 1.0, "plant": 1.0, "animal": 0.95, "food": 0.95, "object": 1.0, "substance": 0.9,
    "phenomenon": 0.95, "shape": 0.95, "location": 0.85, "time": 0.8, "act": 0.8, "group": 0.8,
    "event": 0.8, "feeling": 0.75, "communication": 0.75, "cognition": 0.7, "body": 0.7,
    "attribute": 0.65, "state": 0.6, "person": 0.6, "possession": 0.6, "process": 0.6,
    "quantity": 0.3, "relation": 0.3, "motive": 0.5, "Tops": 0.7, "name": 0.3,
}  # fmt: skip
OTHER_POS: Final = {"a": 0.95, "v": 0.75, "r": 0.4}
GRIM = -0.5
MOST_A_KEYWORD = 140
MOST_RELATED = 420
LONGEST = 12
LOWEST = 2.5


class Stem(NamedTuple):
    """A word or phrase to build with. `worth`, 0 to 1: its weight, less when it is only related;
    `pos`: parts of speech, commonest first; `goes_with`, for words of the bank: those it goes with;
    `broad`: it needs not have been seen beside another.
    """

    words: tuple[str, ...]
    kind: PartName
    keyword: str
    worth: float
    pos: str
    goes_with: str = ""
    broad: bool = True

    @property
    def text(self) -> str:
        """As it stands in a name."""
        return "".join(self.words)

    @property
    def single(self) -> bool:
        """Whether it is one word that can be changed: letters only."""
        return len(self.words) == 1 and self.words[0].isalpha()


def keyword_stem(keyword: Keyword, lexicon: Lexicon) -> Stem:
    """The keyword itself; one the data does not know is taken for a noun, as brand words are."""
    known = lexicon.words.get(keyword.words[-1])
    pos = known.pos if known and known.pos else "n"
    # The kind of venture says little, unless the person weighs it up.
    weighed_up = max(0.0, (keyword.weight - 3) / 2)
    worth = keyword.weight / 5 * max(says(keyword.words[-1]), weighed_up)
    return Stem(keyword.words, "keyword", keyword.text, worth, pos)


def brief_stems(brief: Brief, lexicon: Lexicon) -> list[Stem]:
    """Keywords first, the heaviest ahead; then, of each, the words it leads to, each word once."""
    keywords = sorted(brief.keywords, key=lambda k: -k.weight)
    stems = [keyword_stem(k, lexicon) for k in keywords]
    seen = {s.text for s in stems} | {a.replace(" ", "") for a in brief.avoid}
    most = min(MOST_A_KEYWORD, MOST_RELATED // max(1, len(keywords)))
    for keyword in keywords:
        stems += _related(keyword, keywords, lexicon, seen, most)
    return stems


def _compares(word: str, lexicon: Lexicon) -> bool:
    """Whether it is a form of an adjective: older, oldest; what they compare is not in a name."""
    for ending in ("er", "est"):
        if word.endswith(ending):
            base = word.removesuffix(ending)
            found = [lexicon.words[b] for b in (base, base + "e") if b in lexicon.words]
            if lexicon.words[word].pos[:1] == "a" and any(w.pos[:1] == "a" for w in found):
                return True
    return False


def _related(
    keyword: Keyword, others: Sequence[Keyword], lexicon: Lexicon, seen: set[str], most: int
) -> Iterable[Stem]:
    found = []
    for offer in open_up(keyword, lexicon, others).offers:
        share = USED.get(offer.group)
        known = lexicon.words.get(offer.text)
        if not share or not known or _compares(offer.text, lexicon):
            continue
        if known.zipf >= LOWEST and 3 <= len(offer.text) <= LONGEST:
            fit = (
                FIELDS.get(known.field, 0.7)
                if known.pos[:1] == "n"
                else OTHER_POS.get(known.pos[:1], 0.3)
            )
            found.append((share * fit * offer.closeness, offer.text, known.pos))
    moods = lexicon.pleasantness([f[1] for f in found]).tolist() if found else []
    found = [f for f, mood in zip(found, moods, strict=True) if mood >= GRIM]
    found.sort(key=lambda f: (-f[0], f[1]))
    for closeness, text, pos in found[:most]:
        if text not in seen:
            seen.add(text)
            yield Stem((text,), "kin", keyword.text, closeness * keyword.weight / 5, pos)
