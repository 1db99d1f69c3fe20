"""What a keyword leads to, in groups a person can keep from or drop."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final, NamedTuple

import numpy as np

from vinetag.core.brief import Keyword
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.thesaurus import Sense
from vinetag.core.words.short import short_forms
from vinetag.core.words.spelling import did_you_mean

__all__ = ["GROUPS", "Offer", "Opened", "open_up"]

GROUPS: Final[Mapping[str, str]] = {
    "synonyms": "the same meaning",
    "kin": "words that keep it company",
    "narrower": "kinds of it",
    "broader": "what it is a kind of",
    "parts": "its parts, and what it is part of",
    "opposites": "the opposite",
    "forms": "its forms",
    "derived": "words made from it",
    "compounds": "words that contain it",
    "short": "short forms; few will guess them",
}
# Of picking a sense: so many words count, of so many neighbours; a rarer sense and a verb lose.
BEST_FEW = 3
MOST_RELATED = 8
COMMONER = 0.02
A_VERB = 0.06
MOST = 60
CONTEXT = 0.35
COMMONEST = 5.25
SENSES_SHOWN = 12
RAREST = 2.3
KIN_FLOOR = 0.42
PHRASE_FLOOR = 0.7
GRIM = -0.45
WORD = re.compile(r"[a-z]{3,}")
INFLECTED = frozenset("plural third past participle ing more most".split())


class Offer(NamedTuple):
    """A word a keyword leads to. `closeness`, 0 to 1: how near its meaning is."""

    text: str
    group: str
    pos: str
    closeness: float


@dataclass(frozen=True, slots=True)
class Opened:
    """A keyword opened up. `senses` are all its meanings, `taken` the ids of those the offers come
    from; `suggestion` is a likelier spelling, or ''.
    """

    keyword: str
    senses: Sequence[Sense]
    taken: frozenset[int]
    offers: Sequence[Offer]
    suggestion: str = ""
    known: bool = field(default=True)


def open_up(keyword: Keyword, lexicon: Lexicon, beside: Sequence[Keyword] = ()) -> Opened:
    """Every group's best words, the closest first; words the person dropped are left out.

    With no sense picked the one is taken that fits the keywords `beside` it, the commoner the
    likelier. A phrase the data knows is opened as a whole, another by its last word's forms and the
    company its words keep.
    """
    senses = lexicon.thesaurus.senses(keyword.text)[:SENSES_SHOWN]
    picked = [s for s in senses if s.id in keyword.senses]
    context = [k.text for k in beside if k.text != keyword.text]
    taken = picked or _likeliest(senses, context, lexicon)
    found = _Gathered(keyword, lexicon, context)
    found.add("short", short_forms(keyword.joined, [w for s in taken for w in s.words]))
    for sense in taken:
        found.add("synonyms", sense.words, 0.55)
        found.add("opposites", sense.opposites)
        for group, relations in (
            ("broader", ("broader",)),
            ("narrower", ("narrower",)),
            ("parts", ("parts", "wholes")),
            ("kin", ("kin", "similar")),
        ):
            for relation in relations:
                for other in lexicon.thesaurus.related(sense.id, relation):
                    found.add(group, other.words)
        words = [w for w in WORD.findall(sense.gloss) if _telling(w, lexicon)]
        found.add("kin", words, 0.5)
        for broader in lexicon.thesaurus.related(sense.id, "broader"):
            for other in lexicon.thesaurus.related(broader.id, "narrower"):
                found.add("kin", [w for w in other.words if " " not in w])
    word = keyword.words[-1]
    for kind, form in lexicon.thesaurus.forms(word):
        found.add("forms" if kind in INFLECTED else "derived", [form], 0.5)
    if len(keyword.words) == 1:
        found.add("compounds", lexicon.compounds.of(word), 0.45)
    others = [s for s in senses if s not in taken] if picked else []
    found.add_company(taken if picked else (), others)
    return Opened(
        keyword.text,
        senses,
        frozenset(s.id for s in taken),
        found.offers(),
        "" if len(keyword.words) > 1 else did_you_mean(word, lexicon),
        known=all(w in lexicon.words for w in keyword.words),
    )


def _likeliest(senses: Sequence[Sense], context: Sequence[str], lexicon: Lexicon) -> list[Sense]:
    """The sense that the context tells: whose words, gloss and neighbours are closest to it, the
    commoner ones and things a little ahead. Closeness is that of the best few words, so that a long
    gloss is worth no more than a short one.
    """
    if not context or len(senses) < 2:
        return list(senses[:1])
    around = lexicon.vectors(context)
    things = any(s.pos == "n" for s in senses)
    best, most = senses[0], -math.inf
    for place, sense in enumerate(senses):
        weighted = _words_of(sense, lexicon)
        if not weighted:
            continue
        near = (lexicon.vectors(list(weighted)) @ around.T) * np.array(list(weighted.values()))[
            :, None
        ]
        by_word = np.sort(near, axis=0)[-BEST_FEW:].mean(axis=0)
        worth = float(by_word.mean() + by_word.max()) / 2 - COMMONER * place
        worth -= A_VERB * (things and sense.pos == "v")
        if worth > most:
            best, most = sense, worth
    return [best]


def _words_of(sense: Sense, lexicon: Lexicon) -> dict[str, float]:
    """The words that tell of a sense, with how much: its own, of its gloss, of its neighbours."""
    weighted = dict.fromkeys(sense.words, 1.0)
    for word in WORD.findall(sense.gloss.lower()):
        if _telling(word, lexicon):
            weighted.setdefault(word, 0.9)
    for relation in ("broader", "narrower", "parts", "wholes", "kin", "similar"):
        for other in lexicon.thesaurus.related(sense.id, relation)[:MOST_RELATED]:
            for word in other.words[:2]:
                weighted.setdefault(word, 0.8)
    return weighted


def _telling(text: str, lexicon: Lexicon) -> bool:
    """Whether it is a word of some content: no form of another, no proper name, not everywhere."""
    word = lexicon.words.get(text)
    if word is None or word.pos[:1] not in ("n", "v", "a") or word.lemma:
        return False
    return word.field != "name" and 2.8 <= word.zipf <= COMMONEST


class _Gathered:
    """Collects offers, each word once, in the first group that has it."""

    def __init__(self, keyword: Keyword, lexicon: Lexicon, context: Sequence[str]) -> None:
        self._lexicon = lexicon
        self._texts: dict[str, tuple[str, float]] = {}
        lemmas = {w.lemma for t in keyword.words if (w := lexicon.words.get(t))}
        self._out = {keyword.text, keyword.joined, *keyword.drop} | (lemmas - {""})
        self._phrase = keyword.words
        self._vector = lexicon.vectors([keyword.text])[0]
        # The company a word keeps depends on what it is said with.
        around = lexicon.vectors([" ".join(context)])[0] if context else self._vector
        mixed = self._vector + CONTEXT * around
        self._said_with = mixed / (float((mixed @ mixed) ** 0.5) or 1.0)

    def add(self, group: str, words: Iterable[str], least: float = 0.0) -> None:
        """Offer words, with at least this closeness."""
        for text in words:
            if text not in self._out and text not in self._texts and self._fit(text, group):
                self._texts[text] = (group, least)

    def _fit(self, text: str, group: str) -> bool:
        floor = 0.0 if group == "short" else RAREST
        known = [self._lexicon.words.get(w) for w in text.split()]
        usable = all(k and k.zipf >= floor and k.pos for k in known)
        rude = self._lexicon.offensive
        return usable and len(text) > 2 and not any(w in rude for w in text.split())

    def add_company(self, taken: Sequence[Sense], others: Sequence[Sense]) -> None:
        """Words used in the same company (nearest vectors), leaning to the picked sense."""
        if not self._vector.any():
            return
        leaning = self._said_with
        if taken:
            near = [w for s in taken for w in (*s.words, *s.gloss.split()) if len(w) > 3]
            leaning = self._said_with + 0.8 * self._lexicon.vectors([" ".join(near)])[0]
            leaning = leaning / float((leaning @ leaning) ** 0.5)
        floor = KIN_FLOOR if len(self._phrase) == 1 else PHRASE_FLOOR
        foreign = {w for s in others for w in s.words}
        company = self._lexicon.nearest(leaning, 320)
        moods = self._lexicon.pleasantness([text for text, _ in company]).tolist()
        grim = GRIM + min(0.0, float(self._lexicon.pleasantness(self._phrase[-1:])[0]))
        for (text, cosine), mood in zip(company, moods, strict=True):
            usable = mood >= grim and _telling(text, self._lexicon) and text not in foreign
            if cosine >= floor and usable and not text.endswith(("ed", "ing")):
                self.add("kin", [text], cosine)

    def offers(self) -> list[Offer]:
        """Group by group, at most MOST each, the closest first."""
        texts = list(self._texts)
        cosines = (self._lexicon.vectors(texts) @ self._said_with).tolist() if texts else []
        made = []
        for text, cosine in zip(texts, cosines, strict=True):
            group, least = self._texts[text]
            known = self._lexicon.words.get(text.split()[-1])
            closeness = round(min(1.0, max(cosine, least, 0.1)), 3)
            made.append(Offer(text, group, known.pos[:1] if known else "", closeness))
        made.sort(key=lambda o: (-o.closeness, o.text))
        return [o for group in GROUPS for o in [o for o in made if o.group == group][:MOST]]
