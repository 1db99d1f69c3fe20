"""Finding what is like a name among a million marks.

Every mark is compared by the number of letters and of sounds that differ (bit-parallel, in
rapidfuzz), so what may be missed is known exactly: see `Index.reach`. What is near is then weighed.
"""

from __future__ import annotations

import string
from bisect import bisect_left
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import islice
from typing import Final, NamedTuple

import numpy as np
import numpy.typing as npt
from rapidfuzz import process
from rapidfuzz.distance import Levenshtein

from vinetag.core.vet.marks.classes import COUNTS, Nearness, nearness
from vinetag.core.vet.marks.forms import Forms
from vinetag.core.vet.marks.likeness import Likeness, likenesses, worn

__all__ = ["Index", "Indexed", "Near", "Query", "reach"]

Ints = npt.NDArray[np.int32]
BIT: Final = np.zeros(256, np.uint64)
for _place, _sign in enumerate(string.digits + string.ascii_letters):
    BIT[ord(_sign)] = np.uint64(1) << np.uint64(_place)
# Of what is near by count, so many are weighed; those with fewest differences first.
MOST_WEIGHED: Final = 3_000
SHORTEST_HELD: Final = 4
# A word that so many marks have says little of whose it is.
FEW_SHARE: Final = 400
# A mark that is no more in force is told, but counts less.
DEAD: Final = 0.85


class Indexed(NamedTuple):
    """A mark as the index needs it: the number it is known by, its forms, classes from 1 to 45, and
    whether it is in force.
    """

    number: int
    forms: Forms
    classes: tuple[int, ...]
    alive: bool


@dataclass(frozen=True, slots=True)
class Query:
    """A name to find marks for: `said` are further ways to say it; `meant` are words in dictionary
    forms, sorted and joined by spaces, that mean the same, with how near they are, 0 to 1; `beside`
    are words near one of its own, and how near.
    """

    forms: Forms
    classes: tuple[int, ...] = ()
    said: tuple[str, ...] = ()
    meant: Mapping[str, float] = field(default_factory=dict)
    beside: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Near:
    """A mark near a name. `weight` is its likeness as far as its classes and its state let it
    count, 0 to 1.
    """

    number: int
    weight: float
    likeness: Likeness
    nearness: Nearness
    alive: bool


def reach(size: int) -> int:
    """How many letters or sounds of a name of this size may differ in a mark found by them."""
    return 1 if size <= 3 else 2 if size <= 6 else 3 if size <= 9 else 4 if size <= 12 else 5


def _signs_of(texts: Sequence[str], lengths: Sequence[int] | Ints) -> npt.NDArray[np.uint64]:
    """Which signs each text has, a bit for each of the digits and letters."""
    codes = np.frombuffer("".join(texts).encode("ascii", "replace"), np.uint8)
    bits = np.concatenate([BIT[codes], np.zeros(1, np.uint64)])
    starts = np.concatenate([[0], np.cumsum(lengths)[:-1]]).astype(np.int64)
    found: npt.NDArray[np.uint64] = np.bitwise_or.reduceat(bits, starts)
    found[np.asarray(lengths) == 0] = 0
    return found


class _Column:
    """Texts of marks, each once, in order of their lengths and then of the alphabet, with the rows
    that have them: `texts[i]` is of row i, or of row i less the number of rows, where there are two
    for each.
    """

    def __init__(self, texts: Sequence[str], rows: int) -> None:
        distinct = sorted(set(texts))
        distinct.sort(key=len)
        places = {text: i for i, text in enumerate(distinct)}
        owner = np.fromiter((places[text] for text in texts), np.int32, len(texts))
        del places
        self._texts = distinct
        self._rows = (np.argsort(owner, kind="stable") % max(1, rows)).astype(np.int32)
        counts = np.bincount(owner, minlength=len(distinct))
        self._starts = np.concatenate([[0], np.cumsum(counts)]).astype(np.int64)
        lengths = np.fromiter(map(len, distinct), np.int32, len(distinct))
        longest = int(lengths[-1]) if len(lengths) else 0
        self._from = np.searchsorted(lengths, np.arange(longest + 2)).tolist()
        self._signs = _signs_of(distinct, lengths)

    def _span(self, low: int, high: int) -> tuple[int, int]:
        most = len(self._from) - 1
        low, high = max(1, low), min(high, most - 1)
        return (0, 0) if low > high else (self._from[low], self._from[high + 1])

    def _owners(self, places: Iterable[int]) -> Ints:
        spans = [self._rows[self._starts[p] : self._starts[p + 1]] for p in places]
        return np.concatenate(spans) if spans else np.empty(0, np.int32)

    def within(self, text: str, most: int) -> tuple[Ints, Ints]:
        """Rows whose text differs in at most `most` places, and in how many; none is missed."""
        start, end = self._span(len(text) - most, len(text) + most)
        if not text or start == end:
            return np.empty(0, np.int32), np.empty(0, np.int32)
        # Each step takes at most one kind of sign away and brings one: who has more kinds that the
        # other lacks is farther, whatever their order.
        signs, own = self._signs[start:end], _signs_of([text], [len(text)])[0]
        near = np.bitwise_count(signs & ~own) <= most
        near &= np.bitwise_count(~signs & own) <= most
        places = np.flatnonzero(near) + start
        found = process.cdist(
            [text], [self._texts[p] for p in places.tolist()], scorer=Levenshtein.distance,
            score_cutoff=most, dtype=np.uint8, workers=1,
        )[0]  # fmt: skip
        hit = found <= most
        places, found = places[hit], found[hit]
        sizes = self._starts[places + 1] - self._starts[places]
        return self._owners(places.tolist()), np.repeat(found.astype(np.int32), sizes)

    def equal(self, text: str) -> Ints:
        """Rows with this very text."""
        start, end = self._span(len(text), len(text))
        at = bisect_left(self._texts, text, start, end)
        return self._owners([at] if at < end and self._texts[at] == text else [])

    def inside(self, text: str) -> Ints:
        """Rows whose text stands in this one, of SHORTEST_HELD characters and more."""
        size = len(text)
        pieces = {
            text[a:b]
            for a in range(size)
            for b in range(a + SHORTEST_HELD, size + 1)
            if b - a < size
        }
        spans = [self.equal(piece) for piece in pieces]
        return np.concatenate(spans) if spans else np.empty(0, np.int32)

    def holding(self, text: str) -> Ints:
        """Rows whose text has this one in it, and more."""
        if len(text) < SHORTEST_HELD:
            return np.empty(0, np.int32)
        found, at = [], self._blob.find(text)
        while at >= 0:
            found.append(at)
            at = self._blob.find(text, at + 1)
        places = np.unique(np.searchsorted(self._ends, np.array(found, np.int64), side="right"))
        return self._owners(p for p in places.tolist() if self._texts[p] != text)

    @cached_property
    def _blob(self) -> str:
        """All of them, a line each."""
        return "\n".join(self._texts)

    @cached_property
    def _ends(self) -> npt.NDArray[np.int64]:
        """Where each line of `_blob` ends."""
        lengths = np.fromiter(map(len, self._texts), np.int64, len(self._texts))
        return np.cumsum(lengths + 1) - 1


class _Words:
    """By word, the rows that have it among others."""

    def __init__(self, texts: Sequence[str]) -> None:
        found: dict[str, list[int]] = {}
        for row, text in enumerate(texts):
            if " " in text:
                for word in text.split():
                    found.setdefault(word, []).append(row)
        self._rows = {word: np.array(rows, np.int32) for word, rows in found.items()}

    def sharing(self, words: Iterable[str], others: Mapping[str, float]) -> Iterator[Ints]:
        """Rows that share one of the words, where few do; where many do, those alone that have one
        of some others as well.
        """
        beside = [self._rows[word] for word in others if word in self._rows]
        either = np.concatenate(beside) if beside else np.empty(0, np.int32)
        for word in words:
            rows = self._rows.get(word)
            if rows is not None:
                few = len(rows) <= FEW_SHARE
                yield rows if few else np.intersect1d(rows, either)


class Index:
    """Marks in memory: about 700 bytes each."""

    def __init__(self, marks: Iterable[Indexed]) -> None:
        numbers: list[int] = []
        alive: list[bool] = []
        classes: list[tuple[int, ...]] = []
        kinds: dict[tuple[int, ...], tuple[int, ...]] = {}
        texts: dict[str, str] = {}
        columns: tuple[list[str], ...] = ([], [], [], [], [])
        for mark in marks:
            numbers.append(mark.number)
            alive.append(mark.alive)
            classes.append(kinds.setdefault(mark.classes, mark.classes))
            for column, text in zip(columns, mark.forms, strict=True):
                column.append(texts.setdefault(text, text))
        del texts
        self._numbers, self._alive, self._classes = np.array(numbers, np.int64), alive, classes
        self._forms = columns
        letters, parts, sounds, part_sounds, words = columns
        rows = len(numbers)
        self._letters = _Column([*map(worn, letters), *map(worn, parts)], rows)
        self._sounds = _Column([*sounds, *part_sounds], rows)
        self._whole, self._parts = _Column(letters, rows), _Column(parts, rows)
        self._words, self._sharing = _Column(words, rows), _Words(words)

    def __len__(self) -> int:
        return len(self._numbers)

    def classes_of(self, number: int) -> tuple[int, ...]:
        """Those of a mark by its number; none where there is no such mark."""
        at = np.flatnonzero(self._numbers == number)
        return self._classes[int(at[0])] if len(at) else ()

    def nearest(self, query: Query, most: int = 10, least: float = 0.5) -> list[Near]:
        """The marks nearest to a name, the heaviest first, at most `most`, of a weight of `least`
        and more. Found are all that differ in no more letters (as they are worn) or sounds than
        `reach` says, whole or in the part that distinguishes; that hold the name or stand in it;
        have words of `meant`; or share a word with it that few have. Of more than MOST_WEIGHED such
        marks, those with the fewest differences are weighed.
        """
        rows = list(self._near(query))
        forms = [Forms(*(column[row] for column in self._forms)) for row in rows]
        distinct = list(dict.fromkeys(forms))
        likes = dict(
            zip(
                distinct,
                likenesses(query.forms, distinct, query.said, query.meant, query.beside),
                strict=True,
            )
        )
        found = [self._weighed(query, row, likes[of]) for row, of in zip(rows, forms, strict=True)]
        found = [near for near in found if near.weight >= least]
        found.sort(key=lambda near: (-near.weight, -near.likeness.score, near.number))
        return found[:most]

    def _weighed(self, query: Query, row: int, like: Likeness) -> Near:
        near, alive = nearness(query.classes, self._classes[row]), self._alive[row]
        weight = like.score * COUNTS[near] * (1.0 if alive else DEAD)
        return Near(int(self._numbers[row]), weight, like, near, alive)

    def _near(self, query: Query) -> Iterator[int]:
        """Rows worth weighing, each once."""
        forms = query.forms
        letters = dict.fromkeys((worn(forms.letters), worn(forms.part)))
        sounds = dict.fromkeys((forms.sounds, forms.part_sounds, *query.said))
        found = [
            *(self._letters.within(one, reach(len(one))) for one in letters),
            *(self._sounds.within(one, reach(len(one))) for one in sounds),
        ]
        rows = np.concatenate([of_one for of_one, _ in found])
        steps = np.concatenate([of_one for _, of_one in found])
        in_order = dict.fromkeys(rows[np.argsort(steps, kind="stable")].tolist())
        # What is left over here may be found in another way yet.
        near = dict.fromkeys(islice(in_order, MOST_WEIGHED))
        yield from list(near)
        others = [
            *(self._words.equal(words) for words in {forms.words, *query.meant} if words),
            self._parts.inside(forms.letters),
            self._whole.holding(forms.part),
            *self._sharing.sharing(forms.words.split(), query.beside),
        ]
        for row in np.concatenate(others)[:MOST_WEIGHED].tolist():
            if row not in near:
                near[row] = None
                yield row
