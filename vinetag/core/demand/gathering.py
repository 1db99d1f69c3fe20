"""Phrases that say the same in another order, number or spelling, gathered under one head."""

from __future__ import annotations

import re
import unicodedata
from collections import defaultdict
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import inflection
import numpy as np
import numpy.typing as npt
from rapidfuzz.distance import OSA

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.morphology import singular

__all__ = ["DIRECTED", "Gathered", "Way", "Ways", "folded_words", "gather", "words_of"]

Way = str
# How a phrase differs from its head.
Ways: Final[Mapping[Way, str]] = {
    "head": "the head",
    "order": "in another order",
    "number": "in another number",
    "spelling": "in another spelling",
    "apart": "written closed up, with a hyphen, or apart",
    "slip": "with a slip of the finger",
}
# With one of these the order says who does what to whom, or which way it goes.
DIRECTED: Final = frozenset(
    "from to vs versus than without not no before after over under into out against or".split()
)
SHORTEST_SLIP: Final = 5
_WORDS: Final = re.compile(r"[^\W_]+")
# Spellings that no rule gives; the first is kept.
_ALIKE: Final = {
    "grey": "gray", "jewellery": "jewelry", "jewellry": "jewelry", "aluminium": "aluminum",
    "programme": "program", "pyjamas": "pajamas", "pyjama": "pajama", "moustache": "mustache",
    "doughnut": "donut", "plough": "plow", "sceptic": "skeptic", "sceptical": "skeptical",
    "tyre": "tire", "mum": "mom", "mums": "moms", "cosy": "cozy", "axe": "ax", "whisky": "whiskey",
    "licence": "license", "practise": "practice", "draught": "draft", "storeys": "stories",
    "yoghurt": "yogurt", "neighbour": "neighbor", "omelette": "omelet",
    "carat": "karat", "artefact": "artifact", "manoeuvre": "maneuver", "paediatric": "pediatric",
    "orthopaedic": "orthopedic", "anaemia": "anemia", "archaeology": "archeology",
    "gynaecology": "gynecology", "encyclopaedia": "encyclopedia", "diarrhoea": "diarrhea",
}  # fmt: skip
_MANY: Final = {
    "men": "man", "mens": "man", "womens": "woman", "childrens": "child", "ladies": "lady",
    "teeth": "tooth", "feet": "foot", "mice": "mouse",
    "geese": "goose",
}  # fmt: skip
# Words in -s there is one of.
_ENDS_IN_S: Final = frozenset(
    "lens news gas canvas atlas bias alias christmas texas mars always perhaps yes has was does as "
    "pancreas cosmos chaos kudos pathos rhinos asbestos thermos".split()
)
MUCH_RARER: Final = 1.0
# Endings of British spellings, with what stands for them elsewhere.
_ENDINGS: Final = (
    ("isations", "izations"), ("isation", "ization"), ("ising", "izing"), ("ised", "ized"),
    ("ises", "izes"), ("iser", "izer"), ("ise", "ize"), ("ysing", "yzing"), ("ysed", "yzed"),
    ("yse", "yze"), ("ours", "ors"), ("oured", "ored"), ("ouring", "oring"), ("ourful", "orful"),
    ("our", "or"), ("tres", "ters"), ("tre", "ter"), ("bre", "ber"), ("elling", "eling"),
    ("elled", "eled"), ("eller", "eler"), ("ogue", "og"), ("ence", "ense"),
    ("oulding", "olding"), ("ould", "old"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Gathered:
    """By phrase, the place of its head (its own where it is one), and how it differs from it."""

    heads: npt.NDArray[np.int32]
    ways: Sequence[Way]

    def variants(self) -> Mapping[int, Sequence[int]]:
        """By head, what was gathered under it, the head first."""
        found: dict[int, list[int]] = {}
        for at, head in enumerate(self.heads.tolist()):
            found.setdefault(head, []).append(at)
        return {head: sorted(group, key=lambda at: at != head) for head, group in found.items()}


def words_of(phrase: str) -> list[str]:
    """The words of a phrase, without accents and apostrophes."""
    return list(_words(phrase))


@lru_cache(20_000)
def _words(phrase: str) -> tuple[str, ...]:
    text = phrase if phrase.isascii() else _bare(phrase)
    if "'" in text or "’" in text:
        text = re.sub(r"['’]s\b|['’]", "", text)
    return tuple(_WORDS.findall(text.replace("&", " and ").lower()))


def _bare(text: str) -> str:
    parts = unicodedata.normalize("NFKD", text.replace("ß", "ss"))
    return "".join(c for c in parts if not unicodedata.combining(c))


class Folding:
    """Words as they count for the same: of one number and one spelling."""

    def __init__(self, lexicon: Lexicon) -> None:
        self._lexicon = lexicon
        self._folded: dict[str, str] = {}

    def fold(self, word: str) -> str:
        """The word all others of its kind are taken for."""
        if word not in self._folded:
            plain = self.spelled(word)
            one = self._one_of(plain) or self._one_of(word)
            self._folded[word] = self.spelled(one) if one else plain
        return self._folded[word]

    def _one_of(self, word: str) -> str:
        """One of what the noun says there are many of, also where the many are usual; "" else."""
        if word in _MANY:
            return _MANY[word]
        if found := singular(word, self._lexicon):
            return found
        if not word.endswith("s") or word.endswith(("ss", "us", "is")) or word in _ENDS_IN_S:
            return ""
        words = self._lexicon.words
        one = inflection.singularize(word)
        known, many = words.get(one), words.get(word)
        if one == word or known is None or known.pos[:1] != "n":
            return ""
        return one if many is None or known.zipf > many.zipf - MUCH_RARER else ""

    def spelled(self, word: str) -> str:
        """The word in the spelling kept, where both spellings are words."""
        if word in _ALIKE:
            return _ALIKE[word]
        for british, other in _ENDINGS:
            # Shorter ones are two words by chance (four, for; wise, size).
            if word.endswith(british) and len(word) > max(5, len(british) + 1):
                turned = word[: -len(british)] + other
                if turned in self._lexicon.words:
                    return turned
        return word

    def knows(self, word: str) -> bool:
        """Whether it is a word, rather than a slip."""
        known = self._lexicon.words.get(word)
        return known is not None and bool(known.pos)


def folded_words(phrase: str, folding: Folding) -> tuple[str, ...]:
    """Its words as they count for the same, in their order."""
    return tuple(folding.fold(word) for word in _words(phrase))


def gather(
    phrases: Sequence[str],
    worth: Sequence[float],
    lexicon: Lexicon,
    apart: Collection[str] = (),
) -> Gathered:
    """Gather phrases, each once among them. The head of those that say the same is the one worth
    most; those in `apart` stay by themselves.
    """
    folding = Folding(lexicon)
    folded = [folded_words(phrase, folding) for phrase in phrases]
    own = {at for at, phrase in enumerate(phrases) if phrase in apart or not folded[at]}
    links = _Links(len(phrases))
    by_words: dict[tuple[str, ...], int] = {}
    by_letters: defaultdict[str, list[int]] = defaultdict(list)
    for at, words in enumerate(folded):
        if at in own:
            continue
        key = words if DIRECTED.intersection(words) else tuple(sorted(words))
        links.join(by_words.setdefault(key, at), at)
        by_letters["".join(words)].append(at)
    for group in by_letters.values():
        if len(group) > 1:
            _join_closed(group, folded, links)
    for at, other in _slips(folded, by_words, folding, own):
        links.join(at, other)
    return _headed(phrases, worth, folded, links, folding)


class _Links:
    """Which places belong together (a disjoint-set forest)."""

    def __init__(self, count: int) -> None:
        self._parent = list(range(count))

    def root(self, at: int) -> int:
        parent = self._parent
        while parent[at] != at:
            parent[at] = parent[parent[at]]
            at = parent[at]
        return at

    def join(self, one: int, other: int) -> None:
        first, second = self.root(one), self.root(other)
        if first != second:
            self._parent[max(first, second)] = min(first, second)


def _join_closed(group: Sequence[int], folded: Sequence[tuple[str, ...]], links: _Links) -> None:
    """Join those of the same letters where one only closes up words of the other."""
    seen: dict[tuple[str, ...], int] = {}
    for at in group:
        seen.setdefault(folded[at], at)
    cuts = {words: _cuts(words) for words in seen}
    for words, at in seen.items():
        for others, other in seen.items():
            if other > at and (cuts[words] <= cuts[others] or cuts[words] >= cuts[others]):
                links.join(at, other)


def _cuts(words: Sequence[str]) -> frozenset[int]:
    ends, whole = [], 0
    for word in words[:-1]:
        whole += len(word)
        ends.append(whole)
    return frozenset(ends)


def _slips(
    folded: Sequence[tuple[str, ...]],
    by_words: Mapping[tuple[str, ...], int],
    folding: Folding,
    own: Collection[int],
) -> Iterator[tuple[int, int]]:
    """Phrases with a word nobody knows, and those that are the same but for one letter of it."""
    known: set[str] = set()
    unknown: dict[str, list[int]] = {}
    for at, words in enumerate(folded):
        for word in words:
            if len(word) < SHORTEST_SLIP or not word.isalpha():
                continue
            if folding.knows(word):
                known.add(word)
            elif at not in own:
                unknown.setdefault(word, []).append(at)
    near: defaultdict[str, list[str]] = defaultdict(list)
    for word in known:
        for cut in _cut_by_one(word):
            near[cut].append(word)
    for word, places in unknown.items():
        meant = {other for cut in _cut_by_one(word) for other in near.get(cut, ())}
        right = [other for other in sorted(meant) if OSA.distance(word, other) == 1]
        for at in places:
            for other in right:
                words = tuple(other if one == word else one for one in folded[at])
                key = words if DIRECTED.intersection(words) else tuple(sorted(words))
                if (found := by_words.get(key)) is not None:
                    yield at, found
                    break


def _cut_by_one(word: str) -> set[str]:
    return {word, *(word[:i] + word[i + 1 :] for i in range(len(word)))}


def _headed(
    phrases: Sequence[str],
    worth: Sequence[float],
    folded: Sequence[tuple[str, ...]],
    links: _Links,
    folding: Folding,
) -> Gathered:
    groups: defaultdict[int, list[int]] = defaultdict(list)
    for at in range(len(phrases)):
        groups[links.root(at)].append(at)
    heads = np.arange(len(phrases), dtype=np.int32)
    ways: list[Way] = ["head"] * len(phrases)
    for group in groups.values():
        if len(group) == 1:
            continue
        head = max(group, key=lambda at: (worth[at], -len(phrases[at]), -at))
        for at in group:
            heads[at] = head
            if at != head:
                ways[at] = _way(phrases[at], phrases[head], folded[at], folded[head], folding)
    return Gathered(heads, ways)


def _way(phrase: str, head: str, own: Sequence[str], heads: Sequence[str], folding: Folding) -> Way:
    """How a phrase differs from its head, the weightiest of the ways."""
    mine, theirs = _words(phrase), _words(head)
    if sorted(own) != sorted(heads):
        return "apart" if "".join(own) == "".join(heads) else "slip"
    if own != heads:
        return "order"
    if "".join(mine) == "".join(theirs):
        return "apart"
    pairs = zip(map(folding.spelled, mine), map(folding.spelled, theirs), strict=False)
    return "number" if any(one != other for one, other in pairs) else "spelling"
