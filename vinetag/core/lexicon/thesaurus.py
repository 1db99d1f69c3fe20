"""Senses of words and how they are related (WordNet), and the forms words take."""

from __future__ import annotations

import gzip
from bisect import bisect_left
from collections.abc import Mapping, Sequence
from functools import cached_property
from importlib.resources import files
from itertools import islice
from typing import Final, NamedTuple

import numpy as np
import numpy.typing as npt

__all__ = ["RELATIONS", "Compounds", "Sense", "Thesaurus"]

_DATA = files("vinetag.core.lexicon").joinpath("data")
RELATIONS: Final[Mapping[str, str]] = {
    "broader": "b",
    "narrower": "n",
    "parts": "p",
    "wholes": "w",
    "similar": "s",
    "kin": "k",
}


class Sense(NamedTuple):
    """One meaning. `id` is stable within a version of the data; `pos`: n, v, a or r; `words` share
    the meaning; `opposites` are words.
    """

    id: int
    pos: str
    gloss: str
    words: tuple[str, ...]
    opposites: tuple[str, ...]


class Thesaurus:
    """Senses, read from their line when they are asked for."""

    @cached_property
    def _lines(self) -> tuple[bytes, npt.NDArray[np.int64]]:
        text = gzip.decompress(_DATA.joinpath("senses.tsv.gz").read_bytes())
        ends = np.flatnonzero(np.frombuffer(text, np.uint8) == 10)
        return text, np.concatenate([[0], ends + 1, [len(text) + 1]])

    @cached_property
    def _index(self) -> Mapping[str, str]:
        text = gzip.decompress(_DATA.joinpath("senses.index.gz").read_bytes()).decode("ascii")
        return dict(line.split("\t") for line in text.split("\n"))

    @cached_property
    def _forms(self) -> Mapping[str, str]:
        text = gzip.decompress(_DATA.joinpath("forms.tsv.gz").read_bytes()).decode("ascii")
        return dict(line.split("\t") for line in text.split("\n"))

    def _fields(self, number: int) -> list[str]:
        text, starts = self._lines
        return text[starts[number] : starts[number + 1] - 1].decode("ascii").split("\t")

    def sense(self, number: int) -> Sense:
        """The sense with this id; raises IndexError when there is none."""
        if not 0 <= number < len(self._lines[1]) - 1:
            raise IndexError(number)
        pos, _, gloss, words, _, opposites = self._fields(number)
        return Sense(
            number,
            pos,
            gloss,
            tuple(words.split(",")),
            tuple(opposites.split(",")) if opposites else (),
        )

    def phrases(self) -> list[str]:
        """Every two-word entry."""
        return [entry for entry in self._index if " " in entry]

    def senses(self, word: str) -> list[Sense]:
        """The meanings of a word or two-word phrase, commonest first."""
        return [self.sense(int(n)) for n in self._index.get(word, "").split()]

    def related(self, number: int, relation: str) -> list[Sense]:
        """Senses that stand in a relation (a key of RELATIONS) to this one."""
        wanted = RELATIONS[relation] + ":"
        for entry in self._fields(number)[4].split():
            if entry.startswith(wanted):
                return [self.sense(int(n)) for n in entry[2:].split(",")]
        return []

    def forms(self, word: str) -> list[tuple[str, str]]:
        """(kind, form) of a word: plural, third, past, participle, ing, more, most, doer, trade,
        noun, verb, adj, adv.
        """
        pairs = (item.partition(":") for item in self._forms.get(word, "").split())
        return [(kind, form) for kind, _, form in pairs]


class Compounds:
    """Closed words that begin or end with a given one: paperback, newspaper."""

    def __init__(self, words: Sequence[str]) -> None:
        self._known = frozenset(words)
        self._forward = sorted(words)
        self._backward = sorted(word[::-1] for word in words)

    def of(self, word: str, limit: int = 40) -> list[str]:
        """Words made of this one and another known word of three letters or more."""
        found = [w for w in _starting(self._forward, word) if self._is_word(w[len(word) :])]
        tails = (w[::-1] for w in _starting(self._backward, word[::-1]))
        found += [w for w in tails if self._is_word(w[: -len(word)])]
        return list(islice(dict.fromkeys(found), limit))

    def _is_word(self, rest: str) -> bool:
        return len(rest) >= 3 and rest in self._known


def _starting(ordered: Sequence[str], start: str) -> list[str]:
    at = bisect_left(ordered, start)
    found = []
    while at < len(ordered) and ordered[at].startswith(start):
        if ordered[at] != start:
            found.append(ordered[at])
        at += 1
    return found
