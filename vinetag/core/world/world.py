"""The world of one brief: its fields, their entries, and how near anything is to the brief."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import islice
from typing import Final

import numpy as np

from vinetag.core.brief import Brief, Keyword
from vinetag.core.brief.model import Chosen
from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.meanings import Vector
from vinetag.core.lexicon.morphology import gerund, singular
from vinetag.core.lexicon.segment import segment
from vinetag.core.world.fields import WORDS, Field, entry_words
from vinetag.core.world.incidental import IN_PASSING, SMALL, says
from vinetag.core.world.index import KEYWORD_PULL, index_of
from vinetag.core.world.promise import against

__all__ = ["OWN", "TOLD", "Entry", "Found", "World", "WorldWord", "world_of"]

OWN: Final = "your own words"
TOLD: Final = "your sentence"
MOST_FIELDS: Final = 4
# A field is in when it comes so near the nearest, and is so near itself.
SHARE: Final = 0.64
NEAR: Final = 4.4
# Under this even the nearest field says little, and automatic words fill up.
FITS: Final = 6.5
AUTOMATIC: Final = 60
AUTOMATIC_WORTH: Final = 0.45
LEAST_COMMON: Final = 2.6
# Words that stand in many fields say less of each.
IN_MANY: Final = 12
# A closed-up keyword (“rivermusic”) is read as so many words at the most, all of them so common
# (Zipf); a made-up name is not taken apart.
MOST_PARTS: Final = 2
COMMON: Final = 4.2
# What a sentence tells by the way: at your door, on their phones.
WHERE: Final = frozenset("at by from in on to".split())
WHOSE: Final = frozenset("her his its my our their your".split())
# A noun of the sentence that is no keyword.
TOLD_WORTH: Final = 0.7
# An entry of any field that carries a keyword counts as of a field at least so near.
CARRIES_NEAR: Final = 2.5
# What an entry is expected to be marked by a reader, 1 to 5: a ridge on marks of half the briefs.
OF_FIELD: Final = 0.136
MOST_NEAR: Final = 12.0
OF_NEAREST: Final = 0.23
OF_WORDS: Final = 0.63
OF_KEYWORD: Final = 0.6
# A word may come so near a keyword (cosine) that it is the keyword in another form; one that comes
# near and is another (a fiddle, to the piano) counts no more than so.
ITSELF: Final = 0.93
NEIGHBOUR: Final = 0.5
KINDS: Final[Mapping[str, float]] = {"phrases": 1.21, "pairs": 0.78, "does": 0.67}
OWN_ENTRY: Final = 3.9
AGAINST: Final = 1.0
MOST_REMEMBERED: Final = 50_000


@dataclass(frozen=True, slots=True)
class Found:
    """A field with how near it is: `nearness` as a sum of two z-scores over all fields (about -4 to
    13), `share` of the nearest field's, 0 to 1.
    """

    field: Field
    nearness: float
    share: float
    chosen: bool = False


@dataclass(frozen=True, slots=True)
class WorldWord:
    """A word of the world: the facet and field it stands in, and what it is worth, 0 to 1."""

    text: str
    facet: str
    field: str
    worth: float


@dataclass(frozen=True, slots=True)
class Entry:
    """A whole name a field holds, as it stands there (`text`): its words (a pair's with "and"), its
    facet (phrases, pairs, does) and field, and the mark, 1 to 5, that a reader is expected to give
    it for this brief.
    """

    text: str
    words: tuple[str, ...]
    facet: str
    field: str
    mark: float

    @property
    def label(self) -> str:
        """As it stands in a name."""
        return "".join(self.words)


class World:
    """What is near one brief."""

    def __init__(
        self, about: str, keywords: Sequence[Keyword], chosen: Chosen, lexicon: Lexicon
    ) -> None:
        self._lexicon = lexicon
        self._chosen = chosen
        self._meanings = lexicon.meanings
        self._index = index_of(lexicon)
        self.against = against(about)
        self._weighed = dict(chosen.weights)
        self._dropped = frozenset(chosen.drop)
        words = re.findall("[a-z]+", about.lower())
        self._asked = [
            (part, _pull(k, part)) for k in keywords for w in k.words for part in self._parts(w)
        ]
        self._said = words
        self.informed = bool(words or self._asked)
        self.query: Vector = self._meanings.mean([*((w, says(w)) for w in words), *self._asked])
        self._nearness: dict[str, float] = {}
        known = self._meanings.place
        telling = [word for word, pull in self._asked if pull >= KEYWORD_PULL and known(word) >= 0]
        self._subjects = self._meanings.rows(telling) if telling else self.query[None]
        self._to_subject: dict[str, float] = {}

    def _parts(self, word: str) -> Sequence[str]:
        """The word itself, or the common words it closes up where only those have a meaning."""
        if self._meanings.place(word) >= 0:
            return (word,)
        parts, known = segment(word, self._lexicon), self._lexicon.words
        common = all(p in known and known[p].zipf >= COMMON for p in parts)
        return parts if common and len(parts) <= MOST_PARTS else (word,)

    @cached_property
    def ranked(self) -> Sequence[Found]:
        """Every field, the nearest first."""
        index = self._index
        if not self.informed:
            return [Found(f, 0.0, 0.0) for f in index.fields]
        sentence = self._meanings.mean([(w, says(w)) for w in self._said])
        score = index.nearness(self.query, self._asked, sentence)
        best = max(float(score.max()), 1.0)
        order = np.argsort(-score, kind="stable")
        return [
            Found(index.fields[i], float(score[i]), max(0.0, float(score[i]) / best)) for i in order
        ]

    @cached_property
    def fields(self) -> Sequence[Found]:
        """The fields that are on, the nearest first: those found, less those switched off, and
        those the person chose, which count as near.
        """
        on, off = set(self._chosen.on), set(self._chosen.off)
        kept = []
        for place, found in enumerate(self.ranked):
            title = found.field.title
            if title in on:
                nearness = max(found.nearness, 8.0)
                kept.append(Found(found.field, nearness, max(found.share, 0.85), chosen=True))
            elif title not in off and place < MOST_FIELDS and self._near_enough(found):
                kept.append(found)
        return sorted(kept, key=lambda f: -f.share)

    @cached_property
    def _nearest(self) -> str:
        """The title of the nearest field that is on; "" where none is."""
        return self.fields[0].field.title if self.fields else ""

    def _near_enough(self, found: Found) -> bool:
        return self.informed and found.nearness >= NEAR and found.share >= SHARE

    @property
    def fits(self) -> bool:
        """Whether a field says what the brief is about; otherwise automatic words help."""
        return bool(self.fields) and self.fields[0].nearness >= FITS

    @cached_property
    def words(self) -> Mapping[str, WorldWord]:
        """Every word of the world but those dropped, each where it is worth most, the worthiest
        first.
        """
        best: dict[str, WorldWord] = {}
        for word in self._all_words():
            if word.text not in self._dropped and word.text not in self.against:
                before = best.get(word.text)
                if before is None or word.worth > before.worth:
                    best[word.text] = word
        return {w.text: w for w in sorted(best.values(), key=lambda w: (-w.worth, w.text))}

    def _all_words(self) -> Iterator[WorldWord]:
        for facet, entries in self._chosen.own:
            for entry in entries:
                if facet in WORDS:
                    yield WorldWord(entry, facet, OWN, self._weigh(entry, 1.0))
        self.look_up(e for f in self.fields for facet in WORDS for e in f.field.facets[facet])
        for found in self.fields:
            for facet in WORDS:
                for entry in found.field.facets[facet]:
                    spread = self._index.spread.get(entry, 1)
                    common = min(1.0, (IN_MANY / spread) ** 0.5)
                    near = min(1.0, max(0.0, 0.45 + 1.3 * self.near(entry)))
                    yield WorldWord(
                        entry, facet, found.field.title,
                        self._weigh(entry, found.share * common * near),
                    )  # fmt: skip
        yield from self._sentence()
        if not self.fits and self.informed:
            yield from self._automatic()

    def _sentence(self) -> Iterator[WorldWord]:
        """What the sentence speaks of beside the keywords, one of each; no acts."""
        words = self._lexicon.words
        asked = {self._index.root(w) for w, _ in self._asked}
        by_the_way = {
            word
            for at, whose, word in zip(self._said, self._said[1:], self._said[2:], strict=False)
            if at in WHERE and whose in WHOSE
        }
        for text in dict.fromkeys(w for w in self._said if w not in by_the_way | IN_PASSING):
            one = singular(text, self._lexicon) or text
            known = words.get(one)
            tells = min(says(text), says(one)) == 1.0 and self._index.root(one) not in asked
            act = gerund(text, self._lexicon)
            if tells and known and known.pos[:1] == "n" and not act:
                yield WorldWord(one, "things", TOLD, self._weigh(one, TOLD_WORTH))

    def _automatic(self) -> Iterator[WorldWord]:
        """Where no field fits: the words nearest in meaning to the brief."""
        words = self._lexicon.words
        asked = {w for w, _ in self._asked}
        near = (
            (text, cosine)
            for text, cosine in self._meanings.nearest(self.query, 6 * AUTOMATIC)
            if text in words and words[text].pos[:1] in ("n", "v", "a") and says(text) == 1.0
            and words[text].zipf >= LEAST_COMMON and not words[text].lemma and text not in asked
            and text not in self._lexicon.offensive and text not in self._lexicon.unlucky_words
        )  # fmt: skip
        facets = {"n": "things", "v": "acts", "a": "qualities"}
        for text, cosine in islice(near, AUTOMATIC):
            facet = facets[words[text].pos[0]]
            yield WorldWord(
                text, facet, "", self._weigh(text, AUTOMATIC_WORTH * min(1, cosine * 2))
            )

    def _weigh(self, word: str, worth: float) -> float:
        """The worth as the person weighed it: 3 leaves it."""
        return min(1.0, worth * self._weighed.get(word, 3) / 3)

    def near(self, word: str) -> float:
        """How near a word (or phrase) is in meaning to the brief: the cosine, about -0.2 to 0.7."""
        found = self._nearness.get(word)
        if found is None:
            found = float(self._meanings.mean([(w, 1.0) for w in word.split()]) @ self.query)
            self._remember({word: found})
        return found

    def near_asked(self, words: Sequence[str]) -> Vector:
        """How near each word is in meaning to the keyword it comes nearest to; to the brief as a
        whole where no keyword says anything.
        """
        found: Vector = (self._meanings.rows(words) @ self._subjects.T).max(1)
        return found

    def look_up(self, words: Iterable[str]) -> None:
        """Work out how near many are at once, which spares most of the time."""
        new = [word for word in dict.fromkeys(words) if word not in self._nearness]
        near = self.nears([word.split() for word in new]).tolist()
        self._remember(dict(zip(new, near, strict=True)))

    def _remember(self, found: Mapping[str, float]) -> None:
        if len(self._nearness) + len(found) > MOST_REMEMBERED:
            self._nearness.clear()
        self._nearness.update(found)

    def nears(self, phrases: Sequence[Sequence[str]]) -> Vector:
        """The same of many phrases given as words."""
        found: Vector = self._meanings.phrases(phrases) @ self.query
        return found

    @cached_property
    def entries(self) -> Mapping[str, Entry]:
        """Whole names by label, the best marked first."""
        found: dict[str, Entry] = {}
        for entry in self._all_entries():
            before = found.get(entry.label)
            if before is None or entry.mark > before.mark:
                found[entry.label] = entry
        return {e.label: e for e in sorted(found.values(), key=lambda e: (-e.mark, e.label))}

    def _all_entries(self) -> Iterator[Entry]:
        for facet, entries in self._chosen.own:
            for entry in entries:
                if facet in KINDS and entry_words(entry):
                    yield Entry(entry, entry_words(entry), facet, OWN, OWN_ENTRY)
        named = (e for f in self.fields for facet in KINDS for e in f.field.facets[facet])
        self._look_up_said(named)
        for found in self.fields:
            for facet in KINDS:
                for text in found.field.facets[facet]:
                    yield from self._entry(text, facet, found)
        yield from self._carrying()

    def _carrying(self) -> Iterator[Entry]:
        """Entries of any field that carry a keyword which says something."""
        off = set(self._chosen.off)
        by_title = {f.field.title: f for f in self.ranked}
        heard = {self._index.root(w) for w, _ in self._asked if says(w) == 1.0}
        carrying = [entry for word in sorted(heard) for entry in self._index.carrying(word)]
        self._look_up_said(text for _, _, text in carrying)
        for title, facet, text in carrying:
            if title not in off:
                yield from self._entry(text, facet, by_title[title], CARRIES_NEAR)

    def _look_up_said(self, entries: Iterable[str]) -> None:
        """Work out at once how near the telling words of entries are, and how near to a keyword."""
        said = list(dict.fromkeys(w for e in entries for w in _telling(entry_words(e))))
        self.look_up(said)
        self._to_subject.update(zip(said, self.near_asked(said).tolist(), strict=True))

    def _entry(
        self, text: str, facet: str, found: Found, least: float = -np.inf
    ) -> Iterator[Entry]:
        """The entry of a field, which counts as at `least` so near, unless it was dropped; its
        words were looked up.
        """
        words = entry_words(text)
        said = _telling(words)
        if text in self._dropped or self._dropped.intersection(said):
            return
        near = sum(map(self.near, said)) / len(said)
        nearest = max(map(self._to_subject.__getitem__, said))
        asked = 1.0 if nearest >= ITSELF else min(NEIGHBOUR, nearest)
        mark = KINDS[facet] + OF_FIELD * min(MOST_NEAR, max(least, found.nearness))
        mark += OF_NEAREST * (found.chosen or found.field.title == self._nearest)
        mark += OF_WORDS * near + OF_KEYWORD * asked
        mark -= AGAINST * len(self.against.intersection(said))
        mark += 0.4 * (max(self._weighed.get(w, 3) for w in said) - 3)
        yield Entry(text, words, facet, found.field.title, min(5.0, max(1.0, mark)))

    def plain(self) -> Sequence[tuple[str, str, float]]:
        """Heads and tails of descriptive names: (word, field, share)."""
        own = [(e, OWN, 1.0) for facet, es in self._chosen.own if facet == "plain" for e in es]
        return own + [
            (entry, found.field.title, found.share)
            for found in self.fields
            for entry in found.field.facets["plain"]
            if entry not in self._dropped and " " not in entry
        ]


def _telling(words: Sequence[str]) -> Sequence[str]:
    """Those that say something, or all where none does."""
    return [w for w in words if w not in SMALL] or words


def _pull(keyword: Keyword, word: str) -> float:
    """How much a keyword's word pulls: little for the kind of venture, as much as the person says
    when it is weighed up.
    """
    weighed_up = max(0.0, (keyword.weight - 3) / 2)
    return KEYWORD_PULL * keyword.weight / 3 * max(says(word), weighed_up)


def world_of(brief: Brief, lexicon: Lexicon) -> World:
    """The brief's world; remembered for the briefs asked for last."""
    return _world(brief.about, brief.keywords, brief.world, lexicon)


@lru_cache(48)
def _world(about: str, keywords: tuple[Keyword, ...], chosen: Chosen, lexicon: Lexicon) -> World:
    return World(about, keywords, chosen, lexicon)
