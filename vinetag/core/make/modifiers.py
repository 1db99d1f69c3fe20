"""The bank's leads and tails as a brief wants them."""

from __future__ import annotations

from typing import Final, Literal

from vinetag.core.brief import Brief
from vinetag.core.lexicon import BankWord, Lexicon
from vinetag.core.make.stems import Stem

__all__ = ["Role", "bank_stems"]

Role = Literal["lead", "tail"]

# What a kind of the bank's words is worth in a name, by how often people would say it is one.
WORTH: Final = {
    "place": 0.62, "land": 0.6, "trade": 0.55, "craft": 0.6, "group": 0.62, "collection": 0.4,
    "writing": 0.5, "doer": 0.55, "nature": 0.55, "motion": 0.5, "idea": 0.38, "thing": 0.3,
    "web": 0.4, "care": 0.4, "determiner": 0.08, "preposition": 0.05, "verb": 0.3, "quality": 0.5,
    "virtue": 0.45, "feel": 0.58, "time": 0.3, "number": 0.09, "manner": 0.2,
}  # fmt: skip
# A descriptive name says what one gets, a brand's paints a picture: kinds that want to have been
# seen beside the word there, and what some are worth, of their usual worth.
UNUSUAL: Final = {
    "descriptive": frozenset("nature land feel virtue idea motion writing thing".split()),
    "mix": frozenset[str](),
    "brand": frozenset(("trade", "care")),
}
SUITS: Final[dict[str, dict[str, float]]] = {
    "descriptive": {"trade": 1.25, "care": 1.6, "web": 1.3, "thing": 0.5},
    "mix": {},
    "brand": {
        "nature": 1.4, "feel": 1.2, "idea": 1.3, "motion": 1.2, "writing": 1.1, "craft": 1.2,
        "trade": 0.5, "care": 0.5,
    },
}  # fmt: skip


def bank_stems(brief: Brief, lexicon: Lexicon, role: Role) -> list[Stem]:
    """The leads or tails with at most the letters the brief allows, each word once, by the first
    kind it stands in.
    """
    words: dict[str, BankWord] = {}
    goes_with: dict[str, str] = {}
    broad: set[str] = set()
    bank = lexicon.bank
    for word in bank.leads if role == "lead" else bank.tails:
        if len(word.text) <= brief.making.added_max:
            words.setdefault(word.text, word)
            goes_with[word.text] = goes_with.get(word.text, "") + word.goes_with
            if word.broad and words[word.text].kind not in UNUSUAL[brief.purpose]:
                broad.add(word.text)
    suits = SUITS[brief.purpose]
    stems = []
    for text, word in words.items():
        known = lexicon.words.get(text)
        worth = WORTH[word.kind] * suits.get(word.kind, 1.0)
        pos = known.pos if known else ""
        stems.append(Stem((text,), role, "", worth, pos, goes_with[text], text in broad))
    return stems
